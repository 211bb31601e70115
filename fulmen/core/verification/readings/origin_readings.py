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
from fulmen.core.verification.readings.agreement import agrees, within_errors
from fulmen.core.verification.steps.origin_bands import (
    HALF_A_DIGIT_KA,
    enquired_ze_band,
    fault_earth_band,
    least_ze_ohm,
    lets_through_ka,
    loop_errors,
    neutral_most_ka,
    pair_errors,
    pair_ka,
    ze_band,
)
from fulmen.core.verification.steps.run_test import RunTest


def origin_findings(test: RunTest) -> list[Finding]:
    """Every finding about what was read at the origin."""
    checks = (_ze_survey, _ze_kind, _fault_current_ze, _fault_to_earth, _fault_pair, _electrode_with_ze)
    return [one for check in checks if (one := check(test)) is not None]


def _ze_survey(test: RunTest) -> Finding | None:
    value, band = test.figure(StepKey.ZE, ORIGIN), enquired_ze_band(test)
    if value is None or band is None:
        return None
    why = "Ask the operator, or see that the earthing conductor was off while you measured."
    return agrees(ask(AGREE_ZE, test.rules, ORIGIN), value, band, why)


def _ze_kind(test: RunTest) -> Finding | None:
    """A Ze so low that the fault current would pass the most that operators declare is a slip, not a supply."""
    value = test.figure(StepKey.ZE, ORIGIN)
    if value is None:
        return None
    least_ohm = least_ze_ohm(test)
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
    errors = loop_errors(test, ze_ohm, StepKey.ZE, StepKey.FAULT_CURRENT_EARTH)
    asked, beside = ask(AGREE_FAULT_CURRENT, case.rules, ORIGIN), 1 + case.rules.value("fault_current_most_share")
    detail = f"Read {fault_ka:.2f} kA; Ze {ze_ohm:.2f} Ω alone gives about {alone_ka:.2f} kA."
    basis = {"fault_ka": round(fault_ka, 2), "ze_ohm": round(ze_ohm, 2)}
    one_loop = case.job.supply.earthing is Earthing.TN_C_S

    def holds(off_ohm: float) -> bool:
        least, most = lets_through_ka(test, ze_ohm, off_ohm)
        return least <= fault_ka and not (one_loop and fault_ka > most * beside)

    if (found := within_errors(asked, errors, holds, detail)) is not None:
        return found
    if fault_ka > alone_ka:
        return asked.your_call(f"{detail} On TN-C-S the two are one loop, so one of them is wrong.", basis=basis)
    return asked.your_call(f"{detail} It should be the larger of line–neutral and line–earth.", basis=basis)


def _fault_to_earth(test: RunTest) -> Finding | None:
    """Line to earth is U0/Ze, with the house's bonding beside it perhaps a little more: both ways a slip shows."""
    earth_ka, band = test.figure(StepKey.FAULT_CURRENT_EARTH, ORIGIN), fault_earth_band(test)
    if earth_ka is None or band is None:
        return None
    why = "Ze is read with the earth off, this with it on: more means another earth beside it, less a poor terminal."
    return agrees(ask(AGREE_FAULT_EARTH, test.rules, ORIGIN), earth_ka, band, why, unit="kA")


def _fault_pair(test: RunTest) -> Finding | None:
    """Line to neutral against line to earth: one loop on TN-C-S; the neutral is never the poorer way on the others."""
    case = test.case
    neutral_ka = test.figure(StepKey.FAULT_CURRENT_NEUTRAL, ORIGIN)
    earth_ka = test.figure(StepKey.FAULT_CURRENT_EARTH, ORIGIN)
    if neutral_ka is None or earth_ka is None:
        return None
    asked, errors = ask(AGREE_FAULT_PAIR, case.rules, ORIGIN), pair_errors(test, earth_ka)
    detail = f"Line to neutral {neutral_ka:.2f} kA, line to earth {earth_ka:.2f} kA."
    basis = {"neutral_ka": round(neutral_ka, 2), "earth_ka": round(earth_ka, 2)}
    one_loop = case.job.supply.earthing is Earthing.TN_C_S

    def holds(off_ohm: float) -> bool:
        least, most = pair_ka(test, earth_ka, off_ohm)
        return least <= neutral_ka and not (one_loop and neutral_ka > most)

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
    most_ka = neutral_most_ka(test, earth_ka)
    if most_ka is not None and neutral_ka > most_ka:
        return asked.your_call(
            f"{detail} Line to neutral is more than {most_ka:.2f} kA, the most that such a supply gives: the dial, the "
            "comma, or another place?",
            basis=basis,
        )
    return found


def _electrode_with_ze(test: RunTest) -> Finding | None:
    """On TT the loop outside goes through the electrode and the operator's: not less, and not much more."""
    case, ze_ohm = test.case, test.figure(StepKey.ZE, ORIGIN)
    band = ze_band(test) if case.job.supply.earthing is Earthing.TT else None
    if ze_ohm is None or band is None:
        return None
    why = "Lower means something in parallel with the electrode; higher a poor terminal, or ground that dried since."
    return agrees(ask(AGREE_ELECTRODE_ZE, case.rules, ORIGIN), ze_ohm, band, why)
