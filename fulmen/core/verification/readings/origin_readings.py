"""Readings at the origin against each other, the enquiry, and the earthing arrangement."""

from __future__ import annotations

from fulmen.core.electrical.fault_loop import prospective_fault_ka
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.readings import (
    AGREE_ELECTRODE_ZE,
    AGREE_FAULT_CURRENT,
    AGREE_FAULT_EARTH,
    AGREE_FAULT_PAIR,
    AGREE_ZE,
    AGREE_ZE_KIND,
)
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.instruments.accuracy import Errors, asks_of, off_together, said_only
from fulmen.core.verification.readings.agreement import agrees, within_errors
from fulmen.core.verification.readings.earth_readings import electrode_error
from fulmen.core.verification.steps.band import Band, BandPart
from fulmen.core.verification.steps.contents import errors_part, instrument_error
from fulmen.core.verification.steps.run_test import RunTest

# A meter shows hundredths of a kiloampere.
HALF_A_DIGIT_KA = 0.005


def origin_findings(test: RunTest) -> list[Finding]:
    """Every finding about what was read at the origin."""
    checks = (_ze_survey, _ze_kind, _fault_current_ze, _fault_to_earth, _fault_pair, _electrode_with_ze)
    return [one for check in checks if (one := check(test)) is not None]


def _errors(test: RunTest, loop_ohm: float, *read: StepKey) -> Errors:
    """What the instruments of some readings of one loop may be off."""
    return [(instrument_error(test, key, ORIGIN), loop_ohm) for key in read]


def _lets_through_ka(test: RunTest, loop_ohm: float, off_ohm: float) -> tuple[float, float]:
    """What a loop lets through at least and at most, with so much off, at 230 V or the moment's volts [kA]."""
    u0_v, least, most = (test.rules.value(one) for one in ("u0_v", "supply_least", "supply_most"))
    low, high = (prospective_fault_ka(ohm, u0_v, 1.0) for ohm in (loop_ohm + off_ohm, max(0.001, loop_ohm - off_ohm)))
    return low * least, high * most


def _ze_survey(test: RunTest) -> Finding | None:
    case = test.case
    value, enquiry = test.figure(StepKey.ZE, ORIGIN), case.job.supply.ze_enquiry_ohm
    if value is None or enquiry is None:
        return None
    rules = case.rules
    allowed = max(rules.value("enquiry_agreement_ohm"), rules.value("enquiry_agreement_share") * enquiry)
    error = errors_part((instrument_error(test, StepKey.ZE, ORIGIN), enquiry))
    told = BandPart("what an enquiry tells", enquiry - allowed, enquiry + allowed)
    band = Band.of((told, error), f"{enquiry:.2f} by enquiry", enquiry)
    why = "Ask the operator, or see that the earthing conductor was off while you measured."
    return agrees(ask(AGREE_ZE, rules, ORIGIN), value, band, why)


def _ze_kind(test: RunTest) -> Finding | None:
    """A Ze so low that the fault current would pass the most that operators declare is a slip, not a supply."""
    value = test.figure(StepKey.ZE, ORIGIN)
    if value is None:
        return None
    least_ohm = test.rules.value("u0_v") / (test.rules.value("declared_pscc_ka") * 1000)
    asked = ask(AGREE_ZE_KIND, test.rules, ORIGIN)
    if value >= least_ohm:
        return asked.meets(f"{value:.2f} Ω.")
    most_ka = test.rules.value("declared_pscc_ka")
    detail = f"{value:.2f} Ω would let more flow than the {most_ka:g} kA that operators declare: leads or terminals?"
    return asked.your_call(detail, basis={"value": round(value, 3)})


def _fault_current_ze(test: RunTest) -> Finding | None:
    """The larger of line–neutral and line–earth can't be less than what Ze alone gives."""
    case = test.case
    read, ze_ohm = case.origin.fault, test.figure(StepKey.ZE, ORIGIN)
    if not read.measured or ze_ohm is None or ze_ohm == 0 or case.job.supply.earthing is Earthing.TT:
        return None
    fault_ka, alone_ka = read.value, prospective_fault_ka(ze_ohm, case.rules.value("u0_v"), 1.0)
    errors = _errors(test, ze_ohm, StepKey.ZE, StepKey.FAULT_CURRENT_EARTH)
    asked, beside = ask(AGREE_FAULT_CURRENT, case.rules, ORIGIN), 1 + case.rules.value("fault_current_most_share")
    detail = f"Read {fault_ka:.2f} kA; Ze {ze_ohm:.2f} Ω alone gives about {alone_ka:.2f} kA."
    basis = {"fault_ka": round(fault_ka, 2), "ze_ohm": round(ze_ohm, 2)}
    one_loop = case.job.supply.earthing is Earthing.TN_C_S

    def holds(off_ohm: float) -> bool:
        least, most = _lets_through_ka(test, ze_ohm, off_ohm)
        return least <= fault_ka and not (one_loop and fault_ka > most * beside)

    if (found := within_errors(asked, errors, holds, detail)) is not None:
        return found
    if fault_ka > alone_ka:
        return asked.your_call(f"{detail} On TN-C-S the two are one loop, so one of them is wrong.", basis=basis)
    return asked.your_call(f"{detail} It should be the larger of line–neutral and line–earth.", basis=basis)


def _fault_to_earth(test: RunTest) -> Finding | None:
    """Line to earth is U0/Ze, with the house's bonding beside it perhaps a little more: both ways a slip shows."""
    earth_ka, ze_ohm = test.figure(StepKey.FAULT_CURRENT_EARTH, ORIGIN), test.figure(StepKey.ZE, ORIGIN)
    if earth_ka is None or ze_ohm is None or ze_ohm == 0:
        return None
    rules, errors = test.rules, _errors(test, ze_ohm, StepKey.ZE, StepKey.FAULT_CURRENT_EARTH)
    beside = 1 + rules.value("fault_current_most_share")
    (low, high), (sure_low, sure_high) = (
        _lets_through_ka(test, ze_ohm, off_together(one)) for one in (errors, said_only(errors))
    )
    # A meter shows hundredths of a kiloampere: of a TT electrode's few amperes it shows nothing.
    shown = 2 * HALF_A_DIGIT_KA
    parts = (
        BandPart("U0/Ze, what lies beside, the volts of the moment", sure_low - shown, sure_high * beside + shown),
        BandPart("instrument", low - sure_low, (high - sure_high) * beside, asks_of(errors), error=True),
    )
    band = Band.of(parts, f"U0/Ze, Ze {ze_ohm:.2f} Ω, each by its instrument", sure_low)
    why = "Ze is read with the earth off, this with it on: more means another earth beside it, less a poor terminal."
    return agrees(ask(AGREE_FAULT_EARTH, rules, ORIGIN), earth_ka, band, why, unit="kA")


def _fault_pair(test: RunTest) -> Finding | None:
    """Line to neutral against line to earth: one loop on TN-C-S; the neutral is never the poorer way on the others."""
    case = test.case
    neutral_ka = test.figure(StepKey.FAULT_CURRENT_NEUTRAL, ORIGIN)
    earth_ka = test.figure(StepKey.FAULT_CURRENT_EARTH, ORIGIN)
    if neutral_ka is None or earth_ka is None:
        return None
    asked, shown = ask(AGREE_FAULT_PAIR, case.rules, ORIGIN), 2 * HALF_A_DIGIT_KA
    loop_ohm = case.rules.value("u0_v") / max(earth_ka, HALF_A_DIGIT_KA) / 1000
    errors = _errors(test, loop_ohm, StepKey.FAULT_CURRENT_EARTH, StepKey.FAULT_CURRENT_NEUTRAL)
    detail = f"Line to neutral {neutral_ka:.2f} kA, line to earth {earth_ka:.2f} kA."
    basis = {"neutral_ka": round(neutral_ka, 2), "earth_ka": round(earth_ka, 2)}
    one_loop = case.job.supply.earthing is Earthing.TN_C_S

    def holds(off_ohm: float) -> bool:
        least, most = _lets_through_ka(test, loop_ohm, off_ohm)
        return least - shown <= neutral_ka and not (one_loop and neutral_ka > most + shown)

    found = within_errors(asked, errors, holds, detail)
    if found is None and neutral_ka < earth_ka:
        why = "The neutral is the poorer way: a loose or failing neutral, or swapped."
        return asked.your_call(f"{detail} {why}", basis=basis)
    # Where the earth is no better, as on TT, only the operators' own figures say what a neutral should be.
    declared_ohm = case.rules.value("declared_ze_tn_s_ohm")
    if neutral_ka < prospective_fault_ka(declared_ohm, case.rules.value("u0_v"), 1.0) - HALF_A_DIGIT_KA:
        return asked.your_call(
            f"{detail} Line to neutral is a loop of more than {declared_ohm:g} Ω, the most that operators declare: a "
            "poor or failing neutral. Ask the operator.",
            basis=basis,
        )
    if found is None:
        return asked.your_call(f"{detail} On TN-C-S they are one loop: look at the earthing conductor.", basis=basis)
    most_ka = _neutral_most_ka(test, earth_ka)
    if most_ka is not None and neutral_ka > most_ka:
        return asked.your_call(
            f"{detail} Line to neutral is more than {most_ka:.2f} kA, the most that such a supply gives: the dial, the "
            "comma, or another place?",
            basis=basis,
        )
    return found


def _neutral_most_ka(test: RunTest, earth_ka: float) -> float | None:
    """The most to neutral where the earth is another conductor: a sheath shares the line, an electrode nothing."""
    if test.case.job.supply.earthing is Earthing.TT:
        return test.rules.value("neutral_most_tt_ka")
    if test.case.job.supply.earthing is Earthing.TN_S:
        return max(earth_ka * test.rules.value("neutral_times_earth"), HALF_A_DIGIT_KA)
    return None


def _electrode_with_ze(test: RunTest) -> Finding | None:
    """On TT the loop outside goes through the electrode and the operator's: not less, and not much more."""
    case = test.case
    ze_ohm, electrode = test.figure(StepKey.ZE, ORIGIN), case.origin.electrode
    if case.job.supply.earthing is not Earthing.TT or ze_ohm is None or not electrode.measured:
        return None
    operator_ohm = case.rules.value("declared_operator_electrode_ohm")
    errors = (electrode_error(test, ORIGIN, electrode.value), (instrument_error(test, StepKey.ZE, ORIGIN), ze_ohm))
    source = f"electrode {electrode.value:g} Ω and at most {operator_ohm:g} Ω of the operator's"
    parts = (BandPart(source, electrode.value, electrode.value + operator_ohm), errors_part(*errors))
    band = Band.of(parts, source, electrode.value)
    why = "Lower means something in parallel with the electrode; higher a poor terminal, or ground that dried since."
    return agrees(ask(AGREE_ELECTRODE_ZE, case.rules, ORIGIN), ze_ohm, band, why)
