"""Electrodes: of a TT supply and of the car alone; what they hold, in winter too, and what reaches them."""

from __future__ import annotations

from typing import NamedTuple

from fulmen.core.checks.common import leaning, mark_wanted
from fulmen.core.circuit.margins import rcd_in_time
from fulmen.core.circuit.origin import SourcedFigure
from fulmen.core.circuit.people import relies_on_low_electrode
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.electrode import USUAL_GROUND_C, agreed_ohm, winter_factor
from fulmen.core.findings.finding import Condition, Finding, Verdict, WorkingLine
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import (
    ELECTRODE_STABLE,
    ELECTRODE_TOUCH,
    FALL_OF_POTENTIAL,
    HOLDING_CONDUCTOR,
    ISLAND_CONDUCTOR,
    ISLAND_RCD,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import rcd_name
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.arrangement import CarEarth, FallOfPotential
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import ConductorProtection, Earthing


def electrode_findings(case: Case) -> list[Finding]:
    """What the electrode that people rely on must hold: the installation's on TT, else the car's own."""
    if case.job.supply.earthing is Earthing.TT:
        return _electrode(case, case.origin.electrode, ORIGIN)
    if case.arrangement.car_earth is not CarEarth.OWN_ELECTRODE:
        return [_holding_conductor(case)] if relies_on_low_electrode(case) else []
    own = case.origin.car_electrodes[case.run.charge_point.id]
    return [*_electrode(case, own, case.subject), _island_rcd(case), _island_conductor(case)]


def _island_rcd(case: Case) -> Finding:
    """A fault to the unit's case ahead of its own RCD drives no breaker: an RCD before it, or insulation throughout.

    The one before it opens in the time of Table 41.1 at what the electrode lets flow: RA·IΔn ≤ 50 V, and no delay.
    """
    asked = ask(ISLAND_RCD, case.rules, case.subject)
    before = case.run.rcds_before[case.subject] if case.run.chain else ()
    in_time = rcd_in_time(before, case.rules.value("tt_disconnection_s"), case.rules)
    seen = case.arrangement.insulated_to_rcd
    if seen is Seen.YES:
        return asked.meets("All before the unit's RCD is in double or reinforced insulation.")
    remedy = "Use an RCBO of 30 mA at the board, without delay."
    if in_time is not None:
        ohm, residual_a = (
            case.origin.car_electrodes[case.run.charge_point.id].value,
            in_time.residual.residual_ma / 1000,
        )
        line = WorkingLine(
            symbol="U", formula="RA·IΔn", figures=f"{ohm:g}·{residual_a:g}", value=ohm * residual_a, decimals=1,
            unit="V",
        )  # fmt: skip
        return leaning(case, asked, in_time).judged(
            value=ohm * residual_a,
            limit=case.rules.value("touch_voltage_v"),
            unit="V",
            decimals=1,
            detail=f"{rcd_name(in_time.residual)} before the cable that ends there",
            working=(line,),
            remedy=remedy,
        )
    if case.run.chain and case.run.unread_before[case.subject]:
        return mark_wanted(asked, case.run.unread_before[case.subject][-1])
    if before:
        detail = f"{rcd_name(before[-1].residual)} stands before the cable, and is too slow for a fault to the case"
        return asked.falls_short(f"{detail} ahead of the unit's RCD.", remedy=remedy)
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


def _holding_conductor(case: Case) -> Finding:
    """The conductor to an electrode that holds the earth of a broken PEN: it carries the house's current for as long as
    the PEN is open, so it is no smaller than main bonding, Table 54.8.
    """
    asked, size_mm2 = ask(HOLDING_CONDUCTOR, case.rules, case.subject), case.arrangement.electrode_conductor_csa_mm2
    if size_mm2 is None:
        return asked.needs_fact("Enter the size of the conductor to the electrode.")
    return asked.judged(
        value=size_mm2,
        limit=case.rules.value("main_bonding_pme_mm2"),
        unit="mm²",
        decimals=1,
        at_least=True,
        detail="the main bonding size: it carries the house's current while the PEN is broken",
        remedy="Use a bigger conductor to the electrode.",
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
    record = case.arrangement.fall_of_potential
    winter_ohm = electrode.value * winter_factor(record.ground_c if record else USUAL_GROUND_C, 0.0)
    # At a TT origin every RCD on the way relies on its electrode; the least sensitive counts.
    relying = case.run.rcds if subject == ORIGIN else case.run.own_rcds
    residual_ma = max((float(one.residual.residual_ma) for one in relying), default=None)
    frozen_v = winter_ohm * (residual_ma or 0.0) / 1000
    sound = winter_conditions(
        case, subject, frozen_holds=residual_ma is not None and frozen_v <= case.rules.value("touch_voltage_v")
    )
    stable_ohm = case.rules.value("electrode_stable_ohm")
    forecast = f"{electrode.source}; frozen ground may raise it to about {winter_ohm:.0f} Ω, were all of it frozen"
    deep = "; only the top half metre freezes here, so a deep rod suffers less: say why it stays low enough"
    stable = ask(ELECTRODE_STABLE, case.rules, subject).judged(
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
    asked = leaning(case, ask(ELECTRODE_TOUCH, case.rules, subject), *relying)
    unread = next((one for one in case.run.unread if subject == ORIGIN or one.circuit == case.subject), None)
    if unread is not None:
        touch = mark_wanted(asked, unread)
    elif residual_ma is None:
        touch = asked.needs_fact("No RCD that opens on its faults stands there yet: the touch voltage follows from it.")
    else:
        touch = _touch(case, asked, electrode, Relied(residual_ma, frozen_v, sound))
    return [touch, stable, *([_agreement(case, subject, record)] if record else [])]


class Relied(NamedTuple):
    """The least sensitive RCD that relies on an electrode, its touch voltage frozen, and what makes that sound."""

    residual_ma: float
    frozen_v: float
    sound: tuple[Condition, ...]


def _touch(case: Case, asked: Question, electrode: SourcedFigure, relied: Relied) -> Finding:
    """RA·IΔn ≤ 50 V; your call where frozen ground would pass it."""
    residual_a, touch_v = relied.residual_ma / 1000, case.rules.value("touch_voltage_v")
    volts, freezes = electrode.value * residual_a, relied.frozen_v > touch_v
    line = WorkingLine(
        symbol="U", formula="RA·IΔn", figures=f"{electrode.value:g}·{residual_a:g}", value=volts, decimals=1, unit="V"
    )
    return asked.judged(
        value=volts,
        limit=touch_v,
        unit="V",
        decimals=1,
        detail=f"{electrode.value:g} Ω {electrode.source}, RCD {relied.residual_ma:g} mA"
        + (f"; {relied.frozen_v:.0f} V in frozen ground: say why it holds" if freezes else ""),
        working=(line,),
        holding=Verdict.YOUR_CALL if freezes else Verdict.MEETS,
        conditions=relied.sound,
        remedy="Lower the electrode's resistance or use a more sensitive RCD.",
    )


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
