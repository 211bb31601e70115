"""Where readings should lie that no route tells of: the supply's loop and fault currents, electrodes, insulation, RCDs.

What is held against the same figures later holds them against these bands: what is told before is what is judged.
"""

from __future__ import annotations

from math import inf

from fulmen.core.circuit.origin import declared_ze_ohm
from fulmen.core.electrical.fault_loop import prospective_fault_ka
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import StepKey
from fulmen.core.model.supply import Earthing
from fulmen.core.verification.instruments.accuracy import (
    Errors,
    InstrumentError,
    asks_of,
    off_together,
    said_only,
)
from fulmen.core.verification.steps.band import Band, BandPart
from fulmen.core.verification.steps.contents import errors_part, instrument_error
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.step_applies import tested_rcds

# A meter shows hundredths of a kiloampere.
HALF_A_DIGIT_KA = 0.005
# How soon an RCD that waits for none opens, at its rated current and at five times that. Common practice, no source.
USUAL_MS = {1: (10.0, 100.0), 5: (4.0, 40.0)}
AT_RATED = frozenset({
    StepKey.RCD_TRIP, StepKey.RCD_AC_0, StepKey.RCD_AC_180, StepKey.RCD_PULSE_0, StepKey.RCD_PULSE_180,
})  # fmt: skip
AT_FIVE = frozenset({
    StepKey.RCD_FIVE, StepKey.RCD_FIVE_AC_0, StepKey.RCD_FIVE_AC_180, StepKey.RCD_FIVE_PULSE_0,
    StepKey.RCD_FIVE_PULSE_180,
})  # fmt: skip
INSULATION = frozenset({
    StepKey.IR_LINE_NEUTRAL, StepKey.IR_LINE_LINE, StepKey.IR_LIVE_EARTH, StepKey.IR_LINE_EARTH,
    StepKey.IR_NEUTRAL_EARTH,
})  # fmt: skip


def band_without_route(test: RunTest, key: StepKey, subject: str) -> Band | None:
    """Where a reading of a step should lie that the route tells nothing of; None where nothing does."""
    if key is StepKey.ZE:
        return ze_band(test)
    if key is StepKey.FAULT_CURRENT_EARTH:
        return fault_earth_band(test)
    if key is StepKey.FAULT_CURRENT_NEUTRAL:
        return fault_neutral_band(test)
    if key in INSULATION:
        worry_mohm = test.rules.value("insulation_worry_mohm")
        return Band(worry_mohm, inf, "sound cable; most read over range", worry_mohm)
    if key in (StepKey.ELECTRODE, StepKey.ELECTRODE_LOOP):
        return electrode_band(test, subject)
    if key in AT_RATED | AT_FIVE:
        return _rcd_band(test, key, subject)
    return None


def _rcd_band(test: RunTest, key: StepKey, subject: str) -> Band | None:
    guard = tested_rcds(test.case.run, key).get(subject)
    if guard is None or guard.rcd is None or guard.rcd.time_delayed:
        return None
    low, high = USUAL_MS[5 if key in AT_FIVE else 1]
    return Band(low, high, "what most open in", high)


def ze_band(test: RunTest) -> Band | None:
    """Ze by what tells most: on TT the electrode as read, else the enquiry, else what operators declare."""
    case = test.case
    if case.job.supply.earthing is Earthing.TT:
        return _ze_through_electrode(test)
    enquired = enquired_ze_band(test)
    if enquired is not None or case.job.supply.earthing is Earthing.NOT_SEEN:
        return enquired
    least_ohm = least_ze_ohm(test)
    most_ohm = declared_ze_ohm(case.job.supply, case.rules)
    return Band(least_ohm, most_ohm, "what operators declare: enquire it", most_ohm)


def least_ze_ohm(test: RunTest) -> float:
    """A loop that lets through the most that operators declare, Ze = U0/Ipf [Ω]."""
    return test.rules.value("u0_v") / (test.rules.value("declared_pscc_ka") * 1000)


def enquired_ze_band(test: RunTest) -> Band | None:
    """Ze as the operator told it, within what an enquiry tells and the instrument's error."""
    enquiry, rules = test.case.job.supply.ze_enquiry_ohm, test.rules
    if enquiry is None:
        return None
    allowed = max(rules.value("enquiry_agreement_ohm"), rules.value("enquiry_agreement_share") * enquiry)
    error = errors_part((instrument_error(test, StepKey.ZE, ORIGIN), enquiry))
    told = BandPart("what an enquiry tells", enquiry - allowed, enquiry + allowed)
    return Band.of((told, error), f"{enquiry:.2f} by enquiry", enquiry)


def _ze_through_electrode(test: RunTest) -> Band | None:
    """On TT the loop outside goes through the electrode as read and the operator's."""
    electrode = test.case.origin.electrode
    if not electrode.measured:
        return None
    operator_ohm, ze_ohm = test.rules.value("declared_operator_electrode_ohm"), test.figure(StepKey.ZE, ORIGIN)
    errors = (
        electrode_error(test, ORIGIN, electrode.value),
        (instrument_error(test, StepKey.ZE, ORIGIN), ze_ohm if ze_ohm is not None else electrode.value),
    )
    source = f"electrode {electrode.value:g} Ω and at most {operator_ohm:g} Ω of the operator's"
    parts = (BandPart(source, electrode.value, electrode.value + operator_ohm), errors_part(*errors))
    return Band.of(parts, source, electrode.value)


def electrode_error(test: RunTest, subject: str, electrode_ohm: float) -> tuple[InstrumentError, float]:
    """How far an electrode may be off by its instrument, by the step that it was read with, and its value."""
    by_loop = test.figure(StepKey.ELECTRODE, subject) is None
    step = StepKey.ELECTRODE_LOOP if by_loop else StepKey.ELECTRODE
    return instrument_error(test, step, subject), electrode_ohm


def loop_errors(test: RunTest, loop_ohm: float, *read: StepKey) -> Errors:
    """What the instruments of some readings of one loop may be off."""
    return [(instrument_error(test, key, ORIGIN), loop_ohm) for key in read]


def lets_through_ka(test: RunTest, loop_ohm: float, off_ohm: float) -> tuple[float, float]:
    """What a loop lets through at least and at most, with so much off, at 230 V or the moment's volts [kA]."""
    u0_v, least, most = (test.rules.value(one) for one in ("u0_v", "supply_least", "supply_most"))
    low, high = (prospective_fault_ka(ohm, u0_v, 1.0) for ohm in (loop_ohm + off_ohm, max(0.001, loop_ohm - off_ohm)))
    return low * least, high * most


def fault_earth_band(test: RunTest) -> Band | None:
    """Line to earth: U0/Ze, with the house's bonding beside it perhaps a little more."""
    ze_ohm = test.figure(StepKey.ZE, ORIGIN)
    if ze_ohm is None or ze_ohm == 0:
        return None
    errors = loop_errors(test, ze_ohm, StepKey.ZE, StepKey.FAULT_CURRENT_EARTH)
    beside = 1 + test.rules.value("fault_current_most_share")
    (low, high), (sure_low, sure_high) = (
        lets_through_ka(test, ze_ohm, off_together(one)) for one in (errors, said_only(errors))
    )
    # A meter shows hundredths of a kiloampere: of a TT electrode's few amperes it shows nothing.
    shown = 2 * HALF_A_DIGIT_KA
    parts = (
        BandPart("U0/Ze, what lies beside, the volts of the moment", sure_low - shown, sure_high * beside + shown),
        BandPart("instrument", low - sure_low, (high - sure_high) * beside, asks_of(errors), error=True),
    )
    return Band.of(parts, f"U0/Ze, Ze {ze_ohm:.2f} Ω, each by its instrument", sure_low)


def fault_neutral_band(test: RunTest) -> Band | None:
    """Line to neutral by line to earth as read: one loop on TN-C-S, else no less and no more than the supply gives."""
    earth_ka = test.figure(StepKey.FAULT_CURRENT_EARTH, ORIGIN)
    if earth_ka is None:
        return None
    least_ka, most_ka = pair_ka(test, earth_ka, off_together(pair_errors(test, earth_ka)))
    if test.case.job.supply.earthing is not Earthing.TN_C_S:
        most_ka = neutral_most_ka(test, earth_ka) or inf
    return Band(max(0.0, least_ka), most_ka, f"line to earth, {earth_ka:.2f} kA", earth_ka)


def pair_errors(test: RunTest, earth_ka: float) -> Errors:
    """What the instruments of both fault currents may be off, in the loop that line to earth tells."""
    loop_ohm = test.rules.value("u0_v") / max(earth_ka, HALF_A_DIGIT_KA) / 1000
    return loop_errors(test, loop_ohm, StepKey.FAULT_CURRENT_EARTH, StepKey.FAULT_CURRENT_NEUTRAL)


def pair_ka(test: RunTest, earth_ka: float, off_ohm: float) -> tuple[float, float]:
    """What line to neutral reads at least, and at most where the two are one loop [kA]."""
    loop_ohm, shown = test.rules.value("u0_v") / max(earth_ka, HALF_A_DIGIT_KA) / 1000, 2 * HALF_A_DIGIT_KA
    least, most = lets_through_ka(test, loop_ohm, off_ohm)
    return least - shown, most + shown


def neutral_most_ka(test: RunTest, earth_ka: float) -> float | None:
    """The most to neutral where the earth is another conductor: a sheath shares the line, an electrode nothing."""
    if test.case.job.supply.earthing is Earthing.TT:
        return test.rules.value("neutral_most_tt_ka")
    if test.case.job.supply.earthing is Earthing.TN_S:
        return max(earth_ka * test.rules.value("neutral_times_earth"), HALF_A_DIGIT_KA)
    return None


def electrode_band(test: RunTest, subject: str) -> Band | None:
    """An electrode by what was reckoned with: the ground may be that much better or worse."""
    case = test.case
    supply_ohm = case.job.supply.electrode_design_ohm
    forecast_ohm = supply_ohm if subject == ORIGIN else None if case.to_loads else case.arrangement.electrode_design_ohm
    if forecast_ohm is None:
        return None
    factor = case.rules.value("electrode_forecast_factor")
    return Band(forecast_ohm / factor, forecast_ohm * factor, f"reckoned with {forecast_ohm:g} Ω", forecast_ohm)
