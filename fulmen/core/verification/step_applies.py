"""When a step of the tests applies, by the names that `steps.toml` uses; and which RCD a step tests."""

from __future__ import annotations

from collections.abc import Callable

from fulmen.core.checks.residual_current import own_rcds, rcds
from fulmen.core.circuit.guards import PlacedGuard, Stands
from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.guards import RcdType
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.steps import StepDefinition

Condition = Callable[[Case, str, StepKey], bool]


def applies(definition: StepDefinition, case: Case, subject: str) -> bool:
    """Whether a step is taken on this run for this subject."""
    condition = CONDITIONS.get(definition.applies)
    return condition is None or condition(case, subject, definition.key)


def tested_rcds(case: Case, key: StepKey) -> dict[str, PlacedGuard]:
    """The RCDs of a run that a step tests, each on its own, by the subject of their readings.

    The circuit's own is read under the circuit's name: its device's, or the unit's where nothing else stands before
    it; the unit's behind another is read under the unit's name. A time-delayed one in front of the first board is
    read under the origin's name, and has a step of its own at its rated current.
    """
    found: dict[str, PlacedGuard] = {}
    for guard in rcds(case):
        origin = delayed_at_origin(case, guard)
        if key is not (StepKey.RCD_TRIP if origin else StepKey.RCD_ORIGIN_TRIP):
            found[ORIGIN if origin else case.subject if _only_in_unit(case, guard) else guard.subject] = guard
    return found


def _only_in_unit(case: Case, guard: PlacedGuard) -> bool:
    return guard.stands is Stands.UNIT and all(one is guard for one in own_rcds(case))


def delayed_at_origin(case: Case, guard: PlacedGuard) -> bool:
    """Whether it is a time-delayed RCD in front of the first board's ways."""
    first, delayed = case.run.chain[0].circuit.id, guard.rcd is not None and guard.rcd.time_delayed
    return delayed and guard.circuit == first and guard.stands in (Stands.INCOMER, Stands.GROUP)


def relies_on_low_electrode(case: Case) -> bool:
    """Whether an electrode on the house earth must hold the voltage of a broken PEN."""
    low = not case.to_loads and case.arrangement.open_pen is OpenPenMeasure.LOW_ELECTRODE
    return low and case.job.supply.earthing is not Earthing.TT and not has_car_electrode(case)


def has_car_electrode(case: Case) -> bool:
    """Whether only the car is earthed to an electrode of its own (TT island)."""
    own = not case.to_loads and case.arrangement.car_earth is CarEarth.OWN_ELECTRODE
    return own and case.job.supply.earthing is not Earthing.TT


def _final(case: Case, subject: str) -> bool:
    """Whether a subject is the circuit that ends at the charge point, not a sub-main before it."""
    return not case.to_loads and subject == case.subject


def _lines_apart(case: Case, subject: str, key: StepKey) -> bool:
    """Whether a circuit has three lines to be told apart."""
    if _final(case, subject):
        return case.run.charge_point.phase_count == 3
    return any(one.circuit.id == subject and one.circuit.phases == 3 for one in case.run.chain)


def _read_before(case: Case, subject: str, key: StepKey) -> bool:
    return case.job.reading(key, subject) is not None


def _sees(*types: RcdType) -> Condition:
    """Whether an RCD is of a type that sees a form of current."""

    def holds(case: Case, subject: str, key: StepKey) -> bool:
        guard = tested_rcds(case, key).get(subject)
        return guard is not None and guard.rcd is not None and guard.rcd.type in types

    return holds


def _open_pen_device(case: Case, subject: str, key: StepKey) -> bool:
    """Whether the car relies on a device that opens where the PEN breaks; on an electrode of its own it does not."""
    if not _final(case, subject) or case.job.supply.earthing is Earthing.TT or has_car_electrode(case):
        return False
    return case.arrangement.open_pen in (OpenPenMeasure.DEVICE_IN_UNIT, OpenPenMeasure.SEPARATE_DEVICE)


def _surge_protected(case: Case, subject: str, key: StepKey) -> bool:
    return bool(case.run.chain) and case.run.chain[0].board.surge_protection is Seen.YES


CONDITIONS: dict[str, Condition] = {
    "bonds": lambda case, subject, key: bool(case.job.supply.bonded_services),
    "lines_apart": _lines_apart,
    "car_electrode": lambda case, subject, key: has_car_electrode(case) and subject == case.subject,
    "origin_electrode": lambda case, subject, key: (
        case.job.supply.earthing is Earthing.TT or relies_on_low_electrode(case)
    ),
    "tt_origin": lambda case, subject, key: case.job.supply.earthing is Earthing.TT,
    "read_before": _read_before,
    "smart_unit": lambda case, subject, key: (
        _final(case, subject) and case.run.charge_point.smart is Seen.YES
    ),
    "has_charge_point": lambda case, subject, key: _final(case, subject),
    "tethered_unit": lambda case, subject, key: _final(case, subject) and case.run.charge_point.tethered,
    "socketed_unit": lambda case, subject, key: _final(case, subject) and not case.run.charge_point.tethered,
    "sees_pulses": _sees(RcdType.A, RcdType.F, RcdType.B),
    "sees_smooth": _sees(RcdType.B),
    "three_phase": lambda case, subject, key: (
        _final(case, subject) and case.run.charge_point.phase_count == 3
    ),
    "has_rcd": lambda case, subject, key: bool(tested_rcds(case, key)),
    "detects_dc": lambda case, subject, key: (
        _final(case, subject) and case.arrangement.rdc_dd is not RdcDdPlace.NONE
    ),
    "open_pen_device": _open_pen_device,
    "surge_protected": _surge_protected,
}  # fmt: skip
