"""Earth of the car and broken PEN (BS 7671 722.411.4.1), in their simplest true form."""

from __future__ import annotations

from fulmen.core.checks.common import leaning
from fulmen.core.checks.electrodes import electrode_findings, measured_cold
from fulmen.core.circuit.people import earthed_by_pme, low_electrode
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.electrode import USUAL_GROUND_C, winter_factor
from fulmen.core.electrical.open_pen import Lines, balanced_met_v, met_voltage_v, worst_balance
from fulmen.core.findings.finding import Finding, Verdict, WorkingLine
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.protection import (
    EXPORTED_EARTH,
    OPEN_PEN,
    TNS_SCHOOL,
)
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.run import ORIGIN
from fulmen.core.installation.tree import ChainCircuit, Tree
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure
from fulmen.core.model.circuits import Phase
from fulmen.core.model.guards import GuardKind, OpenPenDevice, OpenPenSensing
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CarPlace
from fulmen.core.model.supply import Earthing, TnsSchool
from fulmen.core.reference.cable_catalogue import cables_of, copper_protective_mm2


def earthing_findings(case: Case) -> list[Finding]:
    """School of a TN-S earth, the open-PEN measure, and what an electrode must hold."""
    supply = case.job.supply
    findings: list[Finding] = []
    if supply.earthing is Earthing.TN_S:
        findings.append(_tns_school(case))
    findings.append(_open_pen(case))
    findings.extend(electrode_findings(case))
    return findings


def _tns_school(case: Case) -> Finding:
    supply, asked = case.job.supply, ask(TNS_SCHOOL, case.rules, ORIGIN)
    if supply.tns_school is TnsSchool.TREAT_AS_PME:
        cautious = ask(TNS_SCHOOL, case.rules, ORIGIN, variant="cautious")
        return cautious.meets("Worked as PME: the operator may convert it one day without telling anyone.")
    if supply.tns_confirmed_in_writing and not supply.tns_confirmation:
        return asked.needs_fact(
            "Attach the operator's written word to the cut-out stop: without it the earth is worked as PME."
        )
    if not supply.tns_confirmed_in_writing:
        return asked.needs_fact("Accepting it as found needs the operator's written word that no PEN is in its path.")
    detail = "Accepted as found on the operator's written word. Say why you don't treat it as PME."
    return asked.your_call(detail, basis={"school": supply.tns_school, "confirmation": supply.tns_confirmation})


def _about(case: Case) -> Question:
    return ask(OPEN_PEN, case.rules, case.subject)


def _open_pen(case: Case) -> Finding:
    arrangement = case.arrangement
    if case.job.supply.earthing is Earthing.TT:
        return _about(case).meets("The supply is TT: no PEN is in the earth path.")
    if arrangement.car_earth is CarEarth.OWN_ELECTRODE:
        return _about(case).meets("The car is on its own electrode, apart from the house earth.")
    if not earthed_by_pme(case):
        return _about(case).meets("The operator confirms a separate earth all the way.")
    measure = arrangement.open_pen
    if case.job.site.car_place is CarPlace.INDOORS_ONLY:
        return _indoors(case)
    if measure is OpenPenMeasure.INDOORS_ONLY:
        return _not_indoors(case)
    if measure is OpenPenMeasure.THREE_PHASE_BALANCE:
        return _balance(case)
    if measure is OpenPenMeasure.DEVICE_IN_UNIT:
        return _device_in_unit(case)
    if measure is OpenPenMeasure.SEPARATE_DEVICE:
        return _separate_device(case)
    if measure is OpenPenMeasure.LOW_ELECTRODE:
        return _low_electrode(case)
    detail = "On a PME earth outdoors the car body becomes live when the PEN breaks."
    remedy = "Use a unit with an open-PEN device, put one before it, or give the car its own electrode."
    return _about(case).falls_short(detail, remedy=remedy)


def _indoors(case: Case) -> Finding:
    """Indoors only: where the unit hangs, and whether a lead reaches out, is measured and not supposed."""
    point, asked = case.run.charge_point, _about(case)
    if point.hangs_outdoors is None:
        return asked.needs_fact("Does the unit hang outdoors or indoors?")
    if point.door_distance_m is None or point.tethered is None or (point.tethered and point.lead_length_m is None):
        what = {True: "the lead, and ", None: "its lead, if it has one, and ", False: ""}[point.tethered]
        return asked.needs_fact(f"Measure {what}the way from the unit to the nearest door that a car could stand at.")
    most_m = case.rules.value("longest_lead_m")
    if not point.tethered and point.door_distance_m < most_m:
        detail = (
            f"A door is {point.door_distance_m:g} m away, and leads of {most_m:g} m are sold: say why none reaches out."
        )
        return asked.your_call(detail, basis={"door_distance_m": point.door_distance_m})
    return asked.meets("No car can be charged outdoors from here; bond metalwork near the car together.")


def _not_indoors(case: Case) -> Finding:
    if case.job.site.car_place is CarPlace.NOT_SEEN:
        detail = "Can a car be charged outdoors from here? A lead that reaches outdoors counts."
        return _about(case).needs_fact(detail)
    detail = "A car can be charged outdoors from here, so the indoor case does not hold."
    remedy = "Use a unit with an open-PEN device, or give the car its own electrode."
    return _about(case).falls_short(detail, remedy=remedy)


def _balance(case: Case) -> Finding:
    """Clause (i): in a three-phase installation the other load holds the terminal to 70 V, whichever cars charge."""
    if case.job.supply.phase_count != 3:
        detail = "The supply is single-phase: there is nothing to balance."
        remedy = "Use an open-PEN device, or give the car its own electrode."
        return _about(case).falls_short(detail, remedy=remedy)
    least_a = case.arrangement.least_load_a
    if least_a is None:
        detail = "Enter the least load that is always on, on each phase: the balance rests on it."
        return _about(case).needs_fact(detail)
    rules = case.rules
    line_v, limit_v = rules.value("u0_v") * rules.value("voltage_factor_max"), rules.value("pen_touch_voltage_v")
    without = balanced_met_v(least_a, line_v)
    met_v, charging = worst_balance(least_a, _cars_a(case.installation.tree), line_v)
    cars = "no car on" if not charging else "the car on" if len(case.job.charge_points) == 1 else f"{charging} cars on"
    line = WorkingLine(
        symbol="V MET",
        formula="C·|ΣUk·Ik|/ΣIk, the largest with any car on or none",
        figures=f"{met_v:.0f} V with {cars}, {without:.0f} V with none",
        value=met_v,
        decimals=0,
        unit="V",
    )
    # A condition that nobody can check at the car: never more than your call.
    return _about(case).judged(
        value=met_v,
        limit=limit_v,
        unit="V",
        decimals=0,
        working=(line,),
        detail="It rests on that much load being on all the time: say who makes sure of it.",
        remedy="Use an open-PEN device, or give the car its own electrode.",
        holding=Verdict.YOUR_CALL,
        basis={"least_load_a": least_a},
        conditions=OPEN_PEN.borne_out(below_frost=False, measured_in_winter=False),
    )


def _cars_a(tree: Tree) -> list[Lines]:
    """What every charge point draws on each line conductor."""
    cars: list[Lines] = []
    for point in tree.points.values():
        feeder = tree.feeders.get(point.id)
        line = tree.line_of(feeder) if feeder is not None else Phase.L1
        all_three = point.phase_count == 3
        first, second, third = (point.design_current_a() if all_three or on is line else 0.0 for on in Phase)
        cars.append((first, second, third))
    return cars


def _device_in_unit(case: Case) -> Finding:
    point = case.run.charge_point
    if point.open_pen_inside is Seen.NOT_SEEN:
        detail = "Look in the unit's data: has it an open-PEN device inside?"
        return _about(case).needs_fact(detail)
    if point.open_pen_inside is Seen.NO:
        detail = "The unit has no open-PEN device inside."
        remedy = "Put a separate open-PEN device before it, or give the car its own electrode."
        return _about(case).falls_short(detail, remedy=remedy)
    inside = next(one for one in case.guards if one.stands is Stands.UNIT and one.open_pen is not None)
    return _device(case, inside, "The device inside the unit")


def _separate_device(case: Case) -> Finding:
    """The nearest open-PEN device that stands before the unit, in a board or in a box."""
    before = [one for one in case.guards if one.guard and one.guard.kind is GuardKind.OPEN_PEN_DEVICE]
    if not before:
        remedy = "Put an open-PEN device in a box before the unit, or use a unit that has one inside."
        return _about(case).falls_short("No open-PEN device stands before the unit.", remedy=remedy)
    if before[-1].open_pen is None:
        return _about(case).needs_fact("Look in the separate device's data: what does it watch, and what does it open?")
    return _device(case, before[-1], "The separate device")


def _device(case: Case, guard: PlacedGuard, name: str) -> Finding:
    """What it opens, what it watches, and how fast."""
    rules, device = case.rules, guard.open_pen
    assert device is not None
    within_s, limit_s = device.opens_within_s, rules.value("pen_opening_s")
    if guard.opens_live is False:
        detail = f"{name} leaves a live conductor closed: through it the car body stays live."
        remedy = "Use a device that opens line, neutral and protective conductor."
        return _about(case).falls_short(detail, remedy=remedy)
    if device.opens_protective_conductor is False:
        detail = f"{name} leaves the protective conductor closed, so the car body stays live."
        remedy = "Use a device that opens line, neutral and protective conductor."
        return _about(case).falls_short(detail, remedy=remedy)
    if device.sensing is OpenPenSensing.LINE_NEUTRAL_WINDOW and case.job.supply.phase_count == 3:
        detail = f"{name} watches line to neutral, which is allowed on a single-phase supply only."
        remedy = "Use a device that senses the main earth terminal's voltage."
        return _about(case).falls_short(detail, remedy=remedy)
    if device.closes_by_hand is False:
        remedy = "Use a device that stays open until somebody closes it by hand."
        return _about(case).falls_short(f"{name} closes again by itself.", remedy=remedy)
    window = f"{rules.value('pen_window_low_v'):g}–{rules.value('pen_window_high_v'):g} V"
    by_met = device.sensing is OpenPenSensing.MET_VOLTAGE
    touch = f"{rules.value('pen_touch_voltage_v'):g} V"
    sees = f"{touch} on the earth terminal" if by_met else f"line–neutral outside {window}"
    unknown = _not_looked_up(guard, device)
    if within_s is None or (unknown and within_s <= limit_s):
        return _about(case).needs_fact(f"Look up of {name[0].lower()}{name[1:]}: {', '.join(unknown)}.")
    return leaning(case, _about(case), guard).judged(
        value=within_s,
        unit="s",
        decimals=1,
        limit=limit_s,
        detail=f"{name} opens line, neutral and protective conductor on {sees}.",
        remedy=f"Use a device that opens within {limit_s:g} s.",
    )


def _not_looked_up(guard: PlacedGuard, device: OpenPenDevice) -> list[str]:
    """The maker's facts of an open-PEN device that nobody has looked up yet."""
    lines = "line and neutral" if guard.phases == 1 else "three lines and the neutral"
    wanted = (
        (device.sensing, "what it watches"),
        (guard.opens_live, f"whether it opens {lines}"),
        (device.opens_protective_conductor, "whether it opens the protective conductor too"),
        (device.opens_within_s, "how fast it opens"),
        (device.closes_by_hand, "whether it stays open until somebody closes it by hand"),
    )
    return [words for value, words in wanted if value is None]


def _low_electrode(case: Case) -> Finding:
    """Clause (ii): the electrode holds the main earth terminal to 70 V at the house's whole demand."""
    held = low_electrode(case)
    if held is None:
        detail = "Enter the maximum demand: it decides how low the electrode must be."
        return _about(case).needs_fact(detail)
    load_a, limit = held.load_a, held.limit_ohm
    u0_v, cmax = case.rules.value("u0_v"), case.rules.value("voltage_factor_max")
    touch_v = case.rules.value("pen_touch_voltage_v")
    electrode = case.origin.electrode
    met_v = met_voltage_v(electrode.value, load_a, u0_v, cmax)
    lines = (
        WorkingLine(
            symbol="RA max",
            formula="Ut·U0/(I·(C·U0 − Ut))",
            figures=f"{touch_v:g}·{u0_v:g}/({load_a:g}·({cmax:g}·{u0_v:g} − {touch_v:g}))",
            value=limit,
            unit="Ω",
        ),
        WorkingLine(
            symbol="V MET",
            formula="C·U0·RA/(RA + U0/I)",
            figures=f"{cmax:g}·{u0_v:g}·{electrode.value:g}/({electrode.value:g} + {u0_v:g}/{load_a:g})",
            value=met_v,
            decimals=0,
            unit="V",
        ),
    )
    record = case.arrangement.fall_of_potential
    winter_ohm = electrode.value * winter_factor(record.ground_c if record else USUAL_GROUND_C, 0.0)
    frozen = f"; frozen ground may raise it to {winter_ohm:.1f} Ω: say why it holds" if winter_ohm > limit else ""
    return _about(case).judged(
        value=electrode.value,
        limit=limit,
        unit="Ω",
        detail=f"electrode {electrode.source}, {met_v:.0f} V on the earth terminal{frozen}",
        working=lines,
        holding=Verdict.YOUR_CALL if winter_ohm > limit else Verdict.MEETS,
        basis={"winter_ohm": round(winter_ohm, 1)} if winter_ohm > limit else {},
        conditions=OPEN_PEN.borne_out(wired_in=False, measured_in_winter=measured_cold(case, ORIGIN)),
        remedy="A rod this low is rarely had: use an open-PEN device instead.",
    )


def exported_earth_findings(case: Case) -> list[Finding]:
    """What a PME earth needs at each board further on."""
    new = case.new_circuits
    found = [_exported_earth(case, chained) for chained in case.run.chain[1:] if chained in new]
    return [finding for finding in found if finding is not None]


def _exported_earth(case: Case, chained: ChainCircuit) -> Finding | None:
    """Metal that comes in at another building is bonded there (411.3.1.2), on a PME earth by a bonding size."""
    pme = earthed_by_pme(case)
    board = chained.board
    asked = ask(EXPORTED_EARTH, case.rules, board.id, board=board.name)
    if board.extraneous_parts is Seen.NOT_SEEN:
        return asked.needs_fact("Look for metal pipes or steel in the ground there: they would need main bonding.")
    if board.extraneous_parts is Seen.NO:
        return asked.meets("Nothing there brings in true earth.")
    feeder = case.installation.tree.feeders[board.id]
    if feeder.id in case.installation.unseen:
        return asked.needs_fact(f"Look at {feeder.name}: its protective core is the main bonding there.")
    least = min(copper_protective_mm2(case.installation.record(one), one) for one in cables_of(feeder))
    return asked.judged(
        value=least,
        limit=case.rules.value("main_bonding_pme_mm2" if pme else "main_bonding_other_mm2"),
        unit="mm²",
        decimals=0,
        at_least=True,
        detail="the sub-main's protective core is the main bonding there too; its armour is no copper",
        remedy="Use a bigger sub-main, run a bonding conductor with it, or earth the building by an electrode.",
    )
