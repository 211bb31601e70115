"""When a step of the tests applies, by the names that `steps.toml` uses; and which RCD a step tests."""

from __future__ import annotations

from collections.abc import Callable

from fulmen.core.circuit.people import has_car_electrode, relies_on_low_electrode
from fulmen.core.circuit.run_figures import Case
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.run import ORIGIN, Run
from fulmen.core.model.arrangement import OpenPenMeasure, RdcDdPlace
from fulmen.core.model.circuits import StaysConnected
from fulmen.core.model.guards import RcdType
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.steps.steps import StepDefinition

Condition = Callable[[Case, str, StepKey], bool]


def applies(definition: StepDefinition, case: Case, subject: str) -> bool:
    """Whether a step is taken on this run for this subject."""
    condition = CONDITIONS.get(definition.applies)
    return condition is None or condition(case, subject, definition.key)


def tested_rcds(run: Run, key: StepKey) -> dict[str, PlacedGuard]:
    """The RCDs of a run that a step tests, each on its own, by the subject of their readings.

    A time-delayed one in front of the first board has a step of its own at its rated current.
    """
    coming = run.point is not None and run.point.to_come
    here = {one: guard for one, guard in run.tested.items() if not (coming and guard.stands is Stands.UNIT)}
    if key is StepKey.RCD_TRIP:
        return {subject: guard for subject, guard in here.items() if subject != ORIGIN}
    if key is StepKey.RCD_ORIGIN_TRIP:
        return {subject: guard for subject, guard in here.items() if subject == ORIGIN}
    return here


def _final(case: Case, subject: str) -> bool:
    """Whether a subject is the circuit that ends at the charge point, not a sub-main before it."""
    return not case.to_loads and subject == case.subject


def _unit_there(case: Case, subject: str) -> bool:
    """Whether a circuit's unit hangs on it: what is tested at or through one that comes later waits for it."""
    return _final(case, subject) and not case.run.charge_point.to_come


def has_three_lines(case: Case, subject: str) -> bool:
    """Whether a circuit has three lines to be told apart."""
    if _final(case, subject):
        return case.run.charge_point.phase_count == 3
    return any(one.circuit.id == subject and one.circuit.phases == 3 for one in case.run.chain)


def stays_on(case: Case, subject: str) -> tuple[StaysConnected, ...]:
    """What stays connected to a circuit while its insulation is tested: of a cable that was there already."""
    circuits = (one.circuit for one in case.run.chain)
    found = next((one for one in circuits if one.id == subject and not one.fitted_with_this_job), None)
    return (found.stays_connected or ()) if found is not None else ()


def _is_ring(case: Case, subject: str) -> bool:
    """Whether a circuit goes round its loads and back to its own board."""
    return any(one.circuit.id == subject and one.circuit.ring is True for one in case.run.chain)


def _sees(*types: RcdType) -> Condition:
    """Whether an RCD is of a type that sees a form of current."""

    def holds(case: Case, subject: str, key: StepKey) -> bool:
        guard = tested_rcds(case.run, key).get(subject)
        return guard is not None and guard.rcd is not None and guard.rcd.type in types

    return holds


def _open_pen_device(case: Case, subject: str, key: StepKey) -> bool:
    """Whether the car relies on a device that opens where the PEN breaks; on an electrode of its own it does not."""
    if not _final(case, subject) or case.job.supply.earthing is Earthing.TT or has_car_electrode(case):
        return False
    in_unit = case.arrangement.open_pen is OpenPenMeasure.DEVICE_IN_UNIT and _unit_there(case, subject)
    return in_unit or case.arrangement.open_pen is OpenPenMeasure.SEPARATE_DEVICE


def _surge_protected(case: Case, subject: str, key: StepKey) -> bool:
    chain = case.run.chain
    return bool(chain) and chain[0].board.surge_protection is Seen.YES


CONDITIONS: dict[str, Condition] = {
    "pair_alone": lambda case, subject, key: not stays_on(case, subject),
    "lines_apart_alone": lambda case, subject, key: has_three_lines(case, subject) and not stays_on(case, subject),
    "bonds": lambda case, subject, key: bool(case.job.supply.bonded_services),
    "single_run": lambda case, subject, key: not _is_ring(case, subject),
    "ring": lambda case, subject, key: _is_ring(case, subject),
    "lines_apart": lambda case, subject, key: has_three_lines(case, subject),
    "two_earths": lambda case, subject, key: has_car_electrode(case) and _unit_there(case, subject),
    "car_electrode": lambda case, subject, key: has_car_electrode(case) and subject == case.subject,
    "origin_electrode": lambda case, subject, key: (
        case.job.supply.earthing is Earthing.TT or relies_on_low_electrode(case)
    ),
    "tt_origin": lambda case, subject, key: case.job.supply.earthing is Earthing.TT,
    "smart_unit": lambda case, subject, key: (
        _unit_there(case, subject) and case.run.charge_point.smart is Seen.YES
    ),
    "to_charge_point": lambda case, subject, key: _final(case, subject),
    "unit_there": lambda case, subject, key: _unit_there(case, subject),
    "not_to_come": lambda case, subject, key: not _final(case, subject) or _unit_there(case, subject),
    "tethered_unit": lambda case, subject, key: _unit_there(case, subject) and case.run.charge_point.tethered is True,
    "socketed_unit": lambda case, subject, key: _unit_there(case, subject) and case.run.charge_point.tethered is False,
    "sees_pulses": _sees(RcdType.A, RcdType.F, RcdType.B),
    "sees_smooth": _sees(RcdType.B),
    "three_phase": lambda case, subject, key: (
        _final(case, subject) and case.run.charge_point.phase_count == 3
    ),
    "has_rcd": lambda case, subject, key: bool(tested_rcds(case.run, key)),
    "detects_dc": lambda case, subject, key: (
        _unit_there(case, subject) and case.arrangement.rdc_dd is not RdcDdPlace.NONE
    ),
    "open_pen_device": _open_pen_device,
    "surge_protected": _surge_protected,
}  # fmt: skip
