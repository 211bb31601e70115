"""Electrodes: of a TT supply and of the car alone; what they hold, in winter too, and what reaches them."""

from __future__ import annotations

from fulmen.core.circuit.origin import SourcedFigure
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.electrode import USUAL_GROUND_C, agreed_ohm, winter_factor
from fulmen.core.findings.finding import Condition, Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import (
    ELECTRODE_STABLE,
    ELECTRODE_TOUCH,
    FALL_OF_POTENTIAL,
    ISLAND_CONDUCTOR,
    ISLAND_RCD,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.arrangement import CarEarth, FallOfPotential
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import ConductorProtection, Earthing


def electrode_findings(case: Case) -> list[Finding]:
    """What the electrode that people rely on must hold: the installation's on TT, else the car's own."""
    if case.job.supply.earthing is Earthing.TT:
        return _electrode(case, case.origin.electrode, ORIGIN)
    if case.arrangement.car_earth is not CarEarth.OWN_ELECTRODE:
        return []
    own = case.origin.car_electrodes[case.run.charge_point.id]
    return [*_electrode(case, own, case.subject), _island_rcd(case), _island_conductor(case)]


def _island_rcd(case: Case) -> Finding:
    """A fault to the unit's case ahead of its own RCD drives no breaker: an RCD before it, or insulation throughout."""
    asked = ask(ISLAND_RCD, case.rules, case.subject)
    if case.run.chain and case.run.rcds_before[case.subject]:
        return asked.meets("An RCD stands before the cable that ends there.")
    seen = case.arrangement.insulated_to_rcd
    if seen is Seen.YES:
        return asked.meets("All before the unit's RCD is in double or reinforced insulation.")
    detail = "The only RCD stands at the car, and a fault to the case ahead of it sees the electrode alone"
    told = "; what lies before it is not in insulation throughout."
    if seen is not Seen.NO:
        told = ", unless all before it is in double or reinforced insulation: say so if you have seen it."
    return asked.falls_short(detail + told, remedy="Use an RCBO at the board.")


def _island_conductor(case: Case) -> Finding:
    """The conductor to the car's electrode by size and protection, Table 54.1."""
    arrangement, name = case.arrangement, electrode_conductor_limit(case.arrangement.electrode_conductor_protection)
    asked = ask(ISLAND_CONDUCTOR, case.rules, case.subject, variant=name or "electrode_conductor_mm2")
    if arrangement.electrode_conductor_csa_mm2 is None or name is None:
        return asked.needs_fact("Enter the size of the conductor to the car's electrode, and how it is guarded.")
    return asked.judged(
        value=arrangement.electrode_conductor_csa_mm2,
        limit=case.rules.value(name),
        unit="mm²",
        decimals=1,
        at_least=True,
        detail=word(arrangement.electrode_conductor_protection),
        remedy="Use a bigger conductor, or guard it in the ground.",
    )


def electrode_conductor_limit(protection: ConductorProtection) -> str | None:
    """The name of the limit for a conductor to an electrode; None until its protection was seen."""
    return {
        ConductorProtection.GUARDED: "electrode_conductor_mm2",
        ConductorProtection.AGAINST_CORROSION: "electrode_conductor_unguarded_mm2",
        ConductorProtection.BARE: "electrode_conductor_bare_mm2",
    }.get(protection)


def _electrode(case: Case, electrode: SourcedFigure, subject: str) -> list[Finding]:
    """RA·IΔn ≤ 50 V with the least sensitive RCD that relies on it, and RA low enough to be stable."""
    rules = case.rules
    residual_ma = _relying_residual_ma(case, subject)
    residual_a = residual_ma / 1000
    volts = electrode.value * residual_a
    line = WorkingLine(
        symbol="U", formula="RA·IΔn", figures=f"{electrode.value:g}·{residual_a:g}", value=volts, decimals=1, unit="V"
    )
    record = case.arrangement.fall_of_potential
    winter_ohm = electrode.value * winter_factor(record.ground_c if record else USUAL_GROUND_C, 0.0)
    sound = winter_conditions(case, subject, frozen_holds=winter_ohm * residual_a <= rules.value("touch_voltage_v"))
    touch_v, stable_ohm = rules.value("touch_voltage_v"), rules.value("electrode_stable_ohm")
    frozen_v = winter_ohm * residual_a
    touch = ask(ELECTRODE_TOUCH, rules, subject).judged(
        value=volts,
        limit=touch_v,
        unit="V",
        decimals=1,
        detail=f"{electrode.value:g} Ω {electrode.source}, RCD {residual_ma:g} mA"
        + (f"; {frozen_v:.0f} V in frozen ground: say why it holds" if frozen_v > touch_v else ""),
        working=(line,),
        holding=Verdict.YOUR_CALL if frozen_v > touch_v else Verdict.MEETS,
        conditions=sound,
        remedy="Lower the electrode's resistance or use a more sensitive RCD.",
    )
    forecast = f"{electrode.source}; frozen ground may raise it to about {winter_ohm:.0f} Ω, were all of it frozen"
    deep = "; only the top half metre freezes here, so a deep rod suffers less: say why it stays low enough"
    stable = ask(ELECTRODE_STABLE, rules, subject).judged(
        value=electrode.value,
        limit=stable_ohm,
        unit="Ω",
        decimals=0,
        detail=forecast + (deep if winter_ohm > stable_ohm else ""),
        holding=Verdict.YOUR_CALL if winter_ohm > stable_ohm else Verdict.MEETS,
        conditions=sound,
        basis={"winter_ohm": round(winter_ohm)} if winter_ohm > stable_ohm else {},
        remedy="Drive deeper, add a rod, or give up TT for this job.",
    )
    return [touch, stable, *([_agreement(case, subject, record)] if record else [])]


def winter_conditions(case: Case, subject: str, *, frozen_holds: bool) -> tuple[Condition, ...]:
    """What may make an electrode sound in winter, as far as its readings bear it out."""
    return ELECTRODE_TOUCH.borne_out(frozen_figure=frozen_holds, measured_in_winter=measured_cold(case, subject))


def measured_cold(case: Case, subject: str) -> bool:
    """Whether the electrode's reading may have been taken in frozen ground: it was taken, in a winter month, and no
    warmer ground was written down.
    """
    record = case.arrangement.fall_of_potential
    if record is not None and record.ground_c > FROZEN_C:
        return False
    return record is not None or bool(case.measured.electrode_months.get(subject, frozenset()) & WINTER_MONTHS)


# Ground at a rod's head is at freezing in these months at most, in these islands; common practice, no source.
FROZEN_C, WINTER_MONTHS = 1.0, frozenset({12, 1, 2, 3})


def _agreement(case: Case, subject: str, record: FallOfPotential) -> Finding:
    mean_ohm, share = agreed_ohm(record.readings_ohm, case.rules)
    limit = case.rules.value("fall_of_potential_agreement_share")
    readings = ", ".join(f"{each:g}" for each in record.readings_ohm)
    line = WorkingLine(
        symbol="apart", formula="max|R − mean|/mean·100", figures=f"{readings}; mean {mean_ohm:.1f} Ω",
        value=share * 100, decimals=1, unit="%",
    )  # fmt: skip
    return ask(FALL_OF_POTENTIAL, case.rules, subject).judged(
        value=share * 100,
        limit=limit * 100,
        unit="%",
        decimals=1,
        detail=f"{readings} Ω, taken by {record.taken_by}",
        working=(line,),
        remedy="Move the current spike further out, or to another side, and take the three again.",
    )


def _relying_residual_ma(case: Case, subject: str) -> float:
    """The least sensitive RCD that relies on this electrode: at a TT origin every one on the way counts."""
    relying = case.run.rcds if subject == ORIGIN else case.run.own_rcds
    known = [float(guard.rcd.residual_ma) for guard in relying if guard.rcd is not None]
    return max(known, default=case.rules.value("rcd_residual_ma"))
