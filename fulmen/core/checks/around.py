"""What stands around a circuit and is asked once, where it is seen: its place, the dwelling, the boards on its way."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from fulmen.core.circuit.people import earthed_by_pme
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules import around as rules
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure
from fulmen.core.model.charge_point import Nearby, SocketKind
from fulmen.core.model.guards import OpenPenSensing
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import Circumstance, Nation, WorkKind


class Told(NamedTuple):
    """What follows from something that is there: what to know, what puts it right, and whether that is a must."""

    detail: str
    remedy: str = ""
    must: bool = False


NEAR = {
    Nearby.POOL: Told(
        "Keep the unit and the car out of its zones (702: 3.5 m), and their earth out of reach of who is in it. "
        "Say how far it is.",
        "Move it, or give the car its own electrode.",
    ),
    Nearby.CARAVAN: Told(
        "A caravan is not fed from this unit, and never stands on a PME earth (721, 708). Say what feeds it, and how "
        "far its metal is.",
        "Move it out of reach, or give the car its own electrode.",
    ),
    Nearby.WHEELS: Told(
        "A car can hit it: say what keeps wheels and bumpers off, or how strong it is (AG2, IK07 or better).",
        "Move it, put a post or a kerb before it, or take a unit made for impact.",
    ),
    Nearby.GAS: Told(
        "150 mm from a gas meter and clear of vents and their outlets.", "Move it or its cable clear.", must=True
    ),
    Nearby.HIGHWAY: Told(
        "Facing a highway within 2 m, or on a post of more than 1.6 m, it wants planning permission: say who was asked."
    ),
}
DWELLING = {
    Circumstance.LISTED: Told("Listed: no hole before consent. Say who gave it."),
    Circumstance.LEASEHOLD: Told("Leasehold or shared ground: who owns wall and ground agrees first. Say who did."),
}
NATIONS = {
    Nation.SCOTLAND: Told("In Scotland a warrant may be needed before work: say what the verifier answered."),
    Nation.NORTHERN_IRELAND: Told("In Northern Ireland building control is asked its own way: say what it answered."),
}


def place_of_unit_findings(case: Case) -> Iterator[Finding]:
    """What is near the charge point, its socket, and the electrode that its open-PEN device measures against."""
    yield from _near(case)
    yield from _socket(case)
    yield from _locks_off(case)
    yield from _measuring_electrode(case)
    yield from _alone(case)


def dwelling_findings(case: Case) -> Iterator[Finding]:
    """What is true of the dwelling, and where it stands."""
    said = case.job.site.circumstances
    if said is None:
        asked = ask(rules.CIRCUMSTANCE, case.rules, ORIGIN, what="what is true of it")
        yield asked.needs_fact("Is it listed, leasehold, or does a wheelchair user charge there?")
    for one in said or ():
        if one in DWELLING:
            asked = ask(rules.CIRCUMSTANCE, case.rules, f"{ORIGIN}-{one.value}", variant=one.value, what=word(one))
            yield _told(asked, DWELLING[one], one.value)
    if case.job.site.work is WorkKind.MOVED:
        yield _old_place(case)
    nation, asked = case.job.site.nation, ask(rules.BUILDING_CONTROL, case.rules, ORIGIN)
    if nation is Nation.NOT_SEEN:
        yield asked.needs_fact("Where does it stand: England or Wales, Scotland, or Northern Ireland?")
    elif nation in NATIONS:
        yield _told(asked, NATIONS[nation], nation.value)
    else:
        yield asked.meets("Tell it within 30 days of the work, through your scheme or yourself.")


def _old_place(case: Case) -> Finding:
    asked, seen = ask(rules.OLD_PLACE, case.rules, ORIGIN), case.job.site.old_place
    if seen is Seen.YES:
        return asked.meets("Cable ended or taken out, hole closed, label and schedule changed.")
    if seen is Seen.NO:
        remedy = "Take the cable out or end it in a box, close the hole, change label and schedule."
        return asked.falls_short("Not left safe.", remedy=remedy)
    return asked.needs_fact("Is its old cable ended in a box or taken out, the hole closed, the label changed?")


def _told(asked: Question, told: Told, fact: str) -> Finding:
    if told.must:
        return asked.falls_short(told.detail, remedy=told.remedy)
    return asked.your_call(told.detail, basis={"there": fact}, remedy=told.remedy)


def _near(case: Case) -> Iterator[Finding]:
    point = case.run.charge_point
    if point.nearby is None:
        asked = ask(rules.NEARBY, case.rules, point.id, unit=point.name, what="what stands there")
        yield asked.needs_fact(
            "Look round: a pool or hot tub, a caravan, wheels that could hit it, a gas meter or vent within 150 mm, a "
            "highway within 2 m, or none of them?"
        )
        return
    for one in point.nearby:
        asked = ask(
            rules.NEARBY, case.rules, f"{point.id}-{one.value}", variant=one.value, unit=point.name, what=word(one)
        )
        yield _told(asked, NEAR[one], one.value)


def _socket(case: Case) -> Iterator[Finding]:
    """722.55.101: a unit without a lead offers a vehicle socket, or a household one that is marked for it."""
    point, asked = case.run.charge_point, ask(rules.SOCKET, case.rules, case.subject)
    if point.tethered:
        return
    if point.tethered is None:
        yield asked.needs_fact("Has the unit a lead of its own, or a socket?")
    elif point.socket is None:
        yield asked.needs_fact("Which socket has it: a Type 2 of BS EN 62196, or a household one?")
    elif point.socket is SocketKind.TYPE_2:
        yield asked.meets("A Type 2 socket of BS EN 62196.")
    elif point.socket is SocketKind.HOUSEHOLD:
        detail = "A household socket: only one marked for vehicles (BS 1363-2, EV), and slow. Say why it serves."
        yield asked.your_call(detail, basis={"socket": point.socket}, remedy="Use a unit with a Type 2 socket.")
    else:
        detail = "Neither a vehicle socket nor a household one marked for it."
        yield asked.falls_short(detail, remedy="Use a unit with a Type 2 socket.")


def _locks_off(case: Case) -> Iterator[Finding]:
    point = case.run.charge_point
    asked = ask(rules.LOCKS_OFF, case.rules, point.id, unit=point.name)
    if point.locks_off is Seen.NO:
        remedy = "Use a device that takes a lock, or put a lockable isolator before the unit; label it."
        yield asked.falls_short("Nothing on its way can be locked off, or it has no label.", remedy=remedy)
    elif point.locks_off is Seen.NOT_SEEN:
        yield asked.needs_fact("Can what isolates it be locked off, and does a label say what it is?")


def _measuring_electrode(case: Case) -> Iterator[Finding]:
    """722.411.4.1 (iii): a device that watches the earth terminal needs an electrode to watch it against."""
    counted = (OpenPenMeasure.DEVICE_IN_UNIT, OpenPenMeasure.SEPARATE_DEVICE)
    arrangement = case.arrangement
    watches = any(one.open_pen and one.open_pen.sensing is OpenPenSensing.MET_VOLTAGE for one in case.guards)
    on_house_earth = arrangement.car_earth is CarEarth.HOUSE_EARTH and earthed_by_pme(case)
    if not watches or not on_house_earth or arrangement.open_pen not in counted:
        return
    asked = ask(rules.MEASURING_ELECTRODE, case.rules, case.subject)
    if arrangement.measuring_electrode is Seen.YES:
        yield asked.meets("It stands apart from the house earth, and was tested.")
    elif arrangement.measuring_electrode is Seen.NO:
        remedy = "Put one in out of the house earth's reach and test it, or use a device that watches line to neutral."
        yield asked.falls_short("None stands, or nobody tested it.", remedy=remedy)
    else:
        yield asked.needs_fact("Does its electrode stand, out of the house earth's reach, and was it tested?")


def _alone(case: Case) -> Iterator[Finding]:
    """722.314.101: a circuit that is there already may feed more than the charge point."""
    for chained in case.new_circuits:
        circuit, asked = chained.circuit, ask(rules.CIRCUIT_ALONE, case.rules, chained.circuit.id)
        if circuit.fitted_with_this_job or circuit is not case.run.final().circuit or case.to_loads:
            continue
        if circuit.serves_others is Seen.NO:
            yield asked.meets("Nothing else hangs on it.")
        elif circuit.serves_others is Seen.YES:
            yield asked.falls_short("Something else hangs on it.", remedy="Take that off, or run a circuit of its own.")
        else:
            yield asked.needs_fact(f"Does {circuit.name} feed anything else?")
