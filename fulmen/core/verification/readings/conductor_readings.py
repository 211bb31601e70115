"""Readings of a circuit's conductors: against its route, against each other, and what lies in parallel."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.parallel_path import parallel_path_ohm
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.readings import (
    AGREE_INSULATION,
    AGREE_R1_R2,
    AGREE_R1_RN,
    AGREE_R2,
    AGREE_RING_ACROSS_E,
    AGREE_RING_ACROSS_N,
    AGREE_RING_R1,
    AGREE_RING_R2,
    AGREE_RING_RN,
    AGREE_RN_R2,
    AGREE_ZS,
    AGREE_ZS_CABLE,
    AGREE_ZS_CHAIN,
)
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.readings.agreement import agrees, within_errors
from fulmen.core.verification.steps.band import Band
from fulmen.core.verification.steps.contents import instrument_error
from fulmen.core.verification.steps.expected_bands import neutral_band
from fulmen.core.verification.steps.expected_readings import expected_band, r1_r2_by, r1_r2_read
from fulmen.core.verification.steps.ring_bands import ACROSS
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.steps import definitions

BELOW = "Lower means a parallel path, a shorter route than entered or leads over-nulled."
ABOVE = "Higher means a poor joint, a longer route than entered or leads not nulled."
RING_BELOW = "Lower means a bridge across the ring, a shorter route than entered or leads over-nulled."
RING_ABOVE = "Higher means a poor joint, a spur, ends of two circuits or leads not nulled."
AGAINST_ROUTE = (
    (StepKey.R1_R2, AGREE_R1_R2),
    (StepKey.R2, AGREE_R2),
    (StepKey.R1_RN, AGREE_R1_RN),
)
AROUND_THE_RING = (
    (StepKey.RING_R1, AGREE_RING_R1),
    (StepKey.RING_RN, AGREE_RING_RN),
    (StepKey.RING_R2, AGREE_RING_R2),
)
ACROSS_THE_RING = {StepKey.R1_RN: AGREE_RING_ACROSS_N, StepKey.R1_R2: AGREE_RING_ACROSS_E}
LOOPS = ((StepKey.ZS, AGREE_ZS), (StepKey.ZS_CABLE, AGREE_ZS_CABLE))
INSULATION = tuple(
    one.key
    for one in definitions()
    if one.function is Function.INSULATION and one.key is not StepKey.IR_EARTHS
)  # fmt: skip


def conductor_findings(test: RunTest) -> list[Finding]:
    """Every finding about the conductors of the circuits that this run is the first to have."""
    case = test.case
    found: list[Finding | None] = []
    for chained in case.new_circuits:
        circuit = chained.circuit.id
        against = AGAINST_ROUTE if not chained.circuit.ring else (*AROUND_THE_RING, *_across(test, circuit))
        legs = case.installation.legs[circuit]
        for subject in (circuit, *(one.subject for one in legs if len(legs) > 1)):
            found += [_against_route(test, subject, step, rule) for step, rule in against]
            found += [_rn_with_r2(test, subject), _insulation_new(test, subject)]
        found += [_loop(test, circuit, step, rule) for step, rule in LOOPS]
        found.append(_further_on(test, circuit))
    return [one for one in found if one is not None]


def _across(test: RunTest, circuit: str) -> list[tuple[StepKey, Rule]]:
    """Readings across a ring: held against its ends once these are read, against the route until then."""
    return [
        (step, ACROSS_THE_RING[step] if all(test.figure(end, circuit) is not None for end in ACROSS[step]) else rule)
        for step, rule in AGAINST_ROUTE
        if step in ACROSS
    ]


def _against_route(test: RunTest, circuit: str, step: StepKey, rule: Rule) -> Finding | None:
    case = test.case
    value, band, chained = (
        test.figure(step, circuit),
        expected_band(test, step, circuit),
        case.figures_of(circuit),
    )
    if value is None or band is None or chained is None:
        return None
    asked = ask(rule, case.rules, circuit)
    if value == 0 and not band.holds(0):
        basis = {"value": 0.0, "low": round(band.low, 2), "high": round(band.high, 2)}
        return asked.your_call("Read 0.00: no cable reads nothing. Were the leads nulled onto it?", basis=basis)
    if chained.laid.ring:
        return agrees(asked, value, band, RING_BELOW if value < band.low else RING_ABOVE)
    beside = "" if step is StepKey.R1_RN else _path_in(value, step, chained)
    return agrees(asked, value, band, f"{BELOW}{beside}" if value < band.low else ABOVE)


def _path_in(value: float, step: StepKey, chained: CircuitFigures) -> str:
    """What lies beside the protective conductor, where a dead reading is lower than the cable's."""
    line_ohm = chained.laid.r1_ohm if step is StepKey.R1_R2 else 0.0
    path = parallel_path_ohm(chained.laid.r2_ohm, value - line_ohm)
    if path is None:
        return ""
    return f" About {path:.2f} Ω beside the protective conductor would explain it."


def _rn_with_r2(test: RunTest, circuit: str) -> Finding | None:
    """R1+Rn against R1+R2: the same line conductor, and neutral and protective conductor by size."""
    case = test.case
    rn, read = test.figure(StepKey.R1_RN, circuit), r1_r2_read(test, circuit)
    chained = case.figures_of(circuit)
    if rn is None or read is None or chained is None or chained.laid.ring:
        return None
    band = neutral_band(test, chained, r1_r2_by(test, circuit), read)
    why = (
        "Line is in both: look at the neutral's or the earth's terminals, or for something in parallel with the earth."
    )
    return agrees(ask(AGREE_RN_R2, case.rules, circuit), rn, band, why)


def _loop(test: RunTest, circuit: str, step: StepKey, rule: Rule) -> Finding | None:
    case = test.case
    value, band = test.figure(step, circuit), expected_band(test, step, circuit)
    if value is None or band is None or not case.origin.ze.measured:
        return None
    asked, read = ask(rule, case.rules, circuit), r1_r2_read(test, circuit)
    if read is not None and band.low <= value < read:
        # Whatever the instruments may be off: the loop holds R1+R2 and the supply besides. Common practice, no source.
        why = "a parallel path (tray, bonding, armour) or leads not nulled"
        detail = f"Read {value:.2f} Ω, below R1+R2, {read:.2f} Ω: {why}."
        return asked.your_call(detail, basis={"value": round(value, 2), "r1_r2": round(read, 2)})
    if value >= band.low:
        why = "Higher means a poor joint, an earthing conductor that is off, or a warm cable."
        return agrees(asked, value, band, why)
    return _below_sum(test, circuit, value, band, rule)


def _below_sum(test: RunTest, circuit: str, zs_ohm: float, band: Band, rule: Rule) -> Finding:
    """A loop below Ze + R1+R2: what lies in parallel, and what the loop becomes when that is taken away.

    The protective conductor's share that is left is X = Zs − (Ze + tails + ΣR1+R2 − R2), so the path is
    R2·X/(R2 − X).
    """
    case = test.case
    asked, chained = ask(rule, case.rules, circuit), case.figures_of(circuit)
    alone_ohm, read = band.about, r1_r2_read(test, circuit)
    why = "Lower means a parallel path: tray, bonding, armour."
    if read is not None and zs_ohm < read:
        why = "Below R1+R2: a parallel path (tray, bonding, armour) or leads not nulled."
    if chained is None:
        return agrees(asked, zs_ohm, band, why)
    r1_r2 = read if read is not None else chained.laid.r1_ohm + chained.laid.r2_ohm
    r2_ohm = r1_r2 * chained.laid.r2_ohm / (chained.laid.r1_ohm + chained.laid.r2_ohm)
    left_ohm = zs_ohm - (alone_ohm - r2_ohm)
    path = parallel_path_ohm(r2_ohm, left_ohm)
    share_left = WorkingLine(
        symbol="X", formula="Zs − (Zs alone − R2)", value=left_ohm, decimals=3, unit="Ω",
        figures=f"{zs_ohm:.3f} − ({alone_ohm:.3f} − {r2_ohm:.3f})",
    )  # fmt: skip
    beside = WorkingLine(
        symbol="Rp", formula="R2·X/(R2 − X)", value=path, decimals=3, unit="Ω",
        figures=f"{r2_ohm:.3f}·{left_ohm:.3f}/({r2_ohm:.3f} − {left_ohm:.3f})",
    )  # fmt: skip
    lines = (share_left,) if path is None else (share_left, beside)
    what = (
        f"About {path:.2f} Ω beside it"
        if path is not None
        else "No path beside the earth alone explains it: look at Ze too"
    )
    why += f" {what}; with that taken away Zs is about {alone_ohm:.2f} Ω."
    limit = chained.zs_limit_ohm
    share = case.rules.value("measured_loop_factor")
    if limit is not None and alone_ohm > share * limit and rule is AGREE_ZS_CABLE:
        return asked.falls_short(f"{why} That is past {share * limit:.2f} Ω.", working=lines)
    return agrees(asked, zs_ohm, band, why, working=lines)


def _insulation_new(test: RunTest, circuit: str) -> Finding | None:
    worry_mohm = test.rules.value("insulation_worry_mohm")
    for step in INSULATION:
        value = test.figure(step, circuit)
        if value is not None and test.rules.value("insulation_mohm") <= value < worry_mohm:
            detail = (
                f"Read {value:g} MΩ; new cable reads more than {worry_mohm:g}. Is something still connected, or damp?"
            )
            asked = ask(AGREE_INSULATION, test.rules, circuit)
            return asked.your_call(detail, basis={"step": step, "value": round(value, 2)})
    return None


def _further_on(test: RunTest, circuit: str) -> Finding | None:
    """A loop further on can't be less than the one at the board it comes from."""
    case = test.case
    places = [chained.circuit.id for chained in case.run.chain]
    at = places.index(circuit)
    here = test.figure(StepKey.ZS, circuit)
    before = test.figure(StepKey.ZS, places[at - 1]) if at else None
    if here is None or before is None:
        return None
    asked = ask(AGREE_ZS_CHAIN, case.rules, circuit)
    read = ((places[at], here), (places[at - 1], before))
    errors = [(instrument_error(test, StepKey.ZS, one), value) for one, value in read]
    told = f"{here:.2f} Ω here, {before:.2f} Ω at its board."
    if (found := within_errors(asked, errors, lambda off_ohm: here >= before - off_ohm, told)) is not None:
        return found
    why = "something in parallel further on, or the two were swapped"
    detail = f"{here:.2f} Ω here, {before:.2f} Ω at the board it comes from: {why}."
    return asked.your_call(detail, basis={"here": round(here, 2), "before": round(before, 2)})
