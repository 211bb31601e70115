"""Readings that can't be, or that nobody takes like that: each kind by its name, in one table.

What a single figure can be stands in `ranges.toml`; here figures are held against each other, against the clock and
against physics. Each is asked about and never mended: a person knows what was in their hand.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import combinations

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.readings import CANT_BE
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.base import Fact
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.steps import definition_of

CONTINUITY = (
    StepKey.RING_R1,
    StepKey.RING_RN,
    StepKey.RING_R2,
    StepKey.R1_R2,
    StepKey.R2,
    StepKey.R1_RN,
)
# Figures that belong to one circuit: two circuits that share all of them share a copied row.
OWN_FIGURES = (StepKey.R1_R2, StepKey.R1_RN, StepKey.ZS, StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_NEUTRAL)
LEAST_SHARED, LEAST_AT_ONCE = 3, 4
PARTS = (StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH)


@dataclass(frozen=True, slots=True)
class Odd:
    """One thing that can't be: about whom, what was read, and why it can't."""

    subject: str
    what: str
    why: str
    fact: Fact


def _no_current(test: RunTest) -> Iterator[Odd]:
    """A supply with a neutral lets current flow; through an electrode a meter of kiloamperes may show nothing."""
    steps = [StepKey.FAULT_CURRENT_NEUTRAL, StepKey.FAULT_CURRENT]
    if test.case.job.supply.earthing is not Earthing.TT:
        steps.append(StepKey.FAULT_CURRENT_EARTH)
    for step in steps:
        if test.figure(step, ORIGIN) == 0:
            why = "a supply that gives nothing feeds no house: look at leads, dial and range."
            yield Odd(ORIGIN, f"{definition_of(step).title}: 0 kA", why, step)


def _pair_above_its_parts(test: RunTest) -> Iterator[Odd]:
    """Live conductors together to earth are their parts in parallel: never more than the least of them."""
    for circuit in (one.circuit.id for one in test.case.new_circuits):
        together = test.readings.latest(StepKey.IR_LIVE_EARTH, circuit)
        parts = [figure for step in PARTS if (figure := test.figure(step, circuit)) is not None]
        if together is None or together.value is None or not parts:
            continue
        most = min(parts) * (1 + test.rules.value("insulation_parts_share"))
        if together.outcome in (Outcome.MEASURED, Outcome.OVER_RANGE) and together.value > most:
            why = f"together they lie in parallel, so they read less than {min(parts):g} MΩ."
            yield Odd(circuit, f"Live conductors to earth: {together.value:g} MΩ", why, round(together.value, 2))


def _all_at_once(test: RunTest) -> Iterator[Odd]:
    """Figures are taken one after the other: all in one second were typed in, or made up."""
    figures = [one for taken in test.readings.taken.values() for one in taken if one.outcome is Outcome.MEASURED]
    moments = {one.taken_at.replace(microsecond=0) for one in figures}
    if len(figures) >= LEAST_AT_ONCE and len(moments) == 1:
        what = f"All {len(figures)} figures at {next(iter(moments)):%H:%M:%S}"
        yield Odd(ORIGIN, what, "nobody measures so much in one second: when were they taken?", len(figures))


def _copied(test: RunTest) -> Iterator[Odd]:
    """Two circuits alike in every figure: one row was carried to the other."""
    rows = {circuit.id: _row(test, circuit.id) for circuit in test.case.job.circuits}
    for one, other in combinations(rows, 2):
        shared = rows[one].keys() & rows[other].keys()
        same = len(shared) >= LEAST_SHARED and all(rows[one][step] == rows[other][step] for step in shared)
        if same and other in {chained.circuit.id for chained in test.case.new_circuits}:
            first = test.case.installation.tree.circuits[one].name
            why = "two lengths of cable don't read alike in every figure: was each taken there?"
            yield Odd(other, f"Every figure as that of {first}", why, len(shared))


def _row(test: RunTest, circuit: str) -> dict[StepKey, float]:
    figures = ((step, test.figure(step, circuit)) for step in OWN_FIGURES)
    return {step: value for step, value in figures if value is not None}


def _nulled_late(test: RunTest) -> Iterator[Odd]:
    """Leads are nulled before anything is read with them."""
    nulled = test.readings.every(StepKey.LEADS_NULLED, ORIGIN)
    read = [one for chained in test.case.run.chain for step in CONTINUITY
            for one in test.readings.every(step, chained.circuit.id) if one.outcome is Outcome.MEASURED]  # fmt: skip
    first = min((one.taken_at for one in nulled), default=None)
    early = [one for one in read if first is not None and one.taken_at < first]
    if early and first is not None:
        why = "what was read before holds the leads' resistance: null them, and read again."
        yield Odd(ORIGIN, f"Leads nulled at {first:%H:%M}, after continuity", why, len(early))


def _no_such_weather(test: RunTest) -> Iterator[Odd]:
    """Conductors with no current in them are as warm as what is round them."""
    low_c, high_c = test.rules.value("conductors_coldest_c"), test.rules.value("conductors_warmest_c")
    for reading in _dead_readings(test):
        if reading.temperature_c is not None and not low_c <= reading.temperature_c <= high_c:
            what = f"{definition_of(reading.step).title}: conductors at {reading.temperature_c:g} °C"
            why = f"without load they are as warm as the house or the ground, {low_c:g} to {high_c:g} °C."
            yield Odd(reading.subject, what, why, round(reading.temperature_c, 1))
            return


def _dead_readings(test: RunTest) -> Iterator[Reading]:
    for chained in test.case.new_circuits:
        for step in CONTINUITY:
            reading = test.readings.latest(step, chained.circuit.id)
            if reading is not None:
                yield reading


def _detects_too_soon(test: RunTest) -> Iterator[Odd]:
    """A 6 mA detector opens between 3 and 6 mA: below it every car would open it."""
    read_ma, least_ma = test.figure(StepKey.DC_DETECTION, test.case.subject), test.rules.value("dc_detector_least_ma")
    if read_ma is not None and read_ma < least_ma:
        why = f"a 6 mA detector holds up to {least_ma:g} mA: another dial, or a fault of its own?"
        yield Odd(test.case.subject, f"6 mA detection opened at {read_ma:g} mA", why, round(read_ma, 2))


def _loop_past_its_electrode(test: RunTest) -> Iterator[Odd]:
    """An island's loop is its electrode, the operator's and a cable: never many times the electrode alone."""
    case = test.case
    zs_ohm = test.figure(StepKey.ZS, case.subject)
    if zs_ohm is None or not has_car_electrode(case):
        return
    electrode = case.origin.car_electrodes[case.run.charge_point.id]
    most_ohm = electrode.value * test.rules.value("island_loop_times") + test.rules.value(
        "declared_operator_electrode_ohm"
    )
    if electrode.measured and zs_ohm > most_ohm:
        why = f"the electrode is {electrode.value:g} Ω: a poor clamp, or the conductor to it?"
        yield Odd(case.subject, f"Loop at the car {zs_ohm:g} Ω", why, round(zs_ohm, 1))


KINDS: tuple[tuple[str, Callable[[RunTest], Iterator[Odd]], bool], ...] = (
    ("no-current", _no_current, False),
    ("parts", _pair_above_its_parts, False),
    ("at-once", _all_at_once, False),
    ("copied", _copied, False),
    ("nulled", _nulled_late, False),
    ("weather", _no_such_weather, False),
    ("detector", _detects_too_soon, True),
    ("island", _loop_past_its_electrode, True),
)


def impossible_findings(test: RunTest) -> list[Finding]:
    """Every finding about readings that can't be; the last of a kind's row says that only a car's run has it."""
    found = []
    for key, check, of_car in KINDS:
        if of_car and test.case.to_loads:
            continue
        for odd in check(test):
            asked = ask(CANT_BE, test.rules, f"{odd.subject}-{key}", what=odd.what)
            detail = f"{odd.why[:1].upper()}{odd.why[1:]} Say what it was."
            found.append(asked.your_call(detail, basis={"read": odd.fact}))
    return found
