"""The walk of the survey: which facts belong to which stop, which are still open, and whom to ask.

A fact not seen yet is an open question for you, the householder or the network operator; it never counts as answered.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from enum import StrEnum
from typing import Any, NamedTuple

from fulmen.core.findings.finding import Finding
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import Installation
from fulmen.core.model.charge_point import ChargePoint, ChargePointFacts, Provenance
from fulmen.core.model.job import Job
from fulmen.core.model.load import DemandMethod
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import WorkKind
from fulmen.core.model.stops import Stop
from fulmen.core.model.supply import Earthing
from fulmen.core.plain import plain
from fulmen.core.survey.left_behind import wanted


class Ask(StrEnum):
    """Who can answer an open question."""

    YOU = "you"
    HOUSEHOLDER = "householder"
    OPERATOR = "operator"


@plain
class OpenQuestion:
    """A fact that is not known yet, in plain words, and whom to ask."""

    field: str
    stop: Stop
    ask: Ask
    text: str


@plain
class StopState:
    """One stop of the walk: where on the run it is, how many of its facts are known, and which findings are settled
    here.
    """

    stop: Stop
    node: Node
    name: str
    known: int
    facts: int
    findings: tuple[str, ...]


class Node(StrEnum):
    """What of the run a stop is about: of boards and units the first, or the one that is meant there."""

    CUT_OUT = "cut_out"
    METER = "meter"
    BOARD = "board"
    ROUTE = "route"
    CHARGE_POINT = "charge_point"
    NOWHERE = ""


NODE_OF = {
    Stop.CUT_OUT: Node.CUT_OUT,
    Stop.METER: Node.METER,
    Stop.TAILS: Node.BOARD,
    Stop.EARTH: Node.BOARD,
    Stop.BOARD: Node.BOARD,
    Stop.ROUTE: Node.ROUTE,
    Stop.PARKING: Node.CHARGE_POINT,
    Stop.DATA: Node.CHARGE_POINT,
    Stop.LOADS: Node.BOARD,
    Stop.OWNERSHIP: Node.NOWHERE,
    Stop.CHARGE_POINT: Node.CHARGE_POINT,
}


class Fact(NamedTuple):
    """One fact of the walk. `wanted` tells whether this job asks for it at all."""

    field: str
    stop: Stop
    ask: Ask
    text: str
    wanted: Callable[[Job], bool] = lambda job: True


# A fact of the walk, and whether it is known.
WalkedFact = tuple[Fact, bool]


def _with_board(job: Job) -> bool:
    return bool(job.boards) and not job.boards[0].fitted_with_this_job


FACTS = (
    Fact("site.householder", Stop.OWNERSHIP, Ask.HOUSEHOLDER, "What is the householder's name?"),
    Fact("site.address", Stop.OWNERSHIP, Ask.HOUSEHOLDER, "What is the address?"),
    Fact("site.ownership", Stop.OWNERSHIP, Ask.HOUSEHOLDER, "Who owns the dwelling?"),
    Fact("site.circumstances", Stop.OWNERSHIP, Ask.HOUSEHOLDER, "Listed, leasehold, a wheelchair user?"),
    Fact("site.nation", Stop.OWNERSHIP, Ask.YOU, "Where does it stand: England or Wales, Scotland, Northern Ireland?"),
    Fact("supply.earthing", Stop.CUT_OUT, Ask.OPERATOR, "Which earthing arrangement has the supply?"),
    Fact("supply.phases", Stop.CUT_OUT, Ask.YOU, "How many phases has the supply?"),
    Fact("supply.looped", Stop.CUT_OUT, Ask.OPERATOR, "Is the service looped to a neighbour?"),
    Fact("supply.neighbour_charge_point", Stop.CUT_OUT, Ask.HOUSEHOLDER, "Has the looped neighbour a charge point?",
         lambda job: job.supply.looped is Seen.YES),
    Fact("supply.cut_out_condition", Stop.CUT_OUT, Ask.YOU, "Is the cut-out sound, as seen from outside?"),
    Fact("supply.cut_out_fuse_a", Stop.CUT_OUT, Ask.OPERATOR, "What is the cut-out fuse rated?"),
    Fact("supply.fuse_proven", Stop.CUT_OUT, Ask.OPERATOR, "Is the fuse inside proven to be what the carrier says?"),
    Fact("supply.tns_confirmation", Stop.CUT_OUT, Ask.OPERATOR,
         "Will the operator confirm in writing that the earth is separate all the way?",
         lambda job: job.supply.earthing is Earthing.TN_S and job.supply.tns_school.value == "as_found"),
    Fact("supply.supply_number", Stop.METER, Ask.HOUSEHOLDER, "What is the supply number on the bill?"),
    Fact("supply.meter", Stop.METER, Ask.YOU, "What kind of meter is it?"),
    Fact("supply.isolator", Stop.METER, Ask.YOU, "Does an isolator stand between meter and board?"),
    Fact("supply.own_generation", Stop.METER, Ask.HOUSEHOLDER, "Are there solar panels or a battery?"),
    Fact("supply.room_to_split_tails", Stop.TAILS, Ask.YOU, "Is there room to split the tails?"),
    Fact("supply.earthing_conductor_csa_mm2", Stop.EARTH, Ask.YOU, "What size is the earthing conductor?"),
    Fact("supply.earth_terminal", Stop.EARTH, Ask.YOU, "Is there a main earthing terminal?"),
    Fact("supply.incoming_metal", Stop.EARTH, Ask.YOU, "Which metal services come in?",
         lambda job: not job.supply.no_metal_comes_in),
    Fact("supply.main_bonding_csa_mm2", Stop.EARTH, Ask.YOU, "What size is the main bonding?",
         lambda job: not job.supply.no_metal_comes_in),
    Fact("supply.bonding_near_entry", Stop.EARTH, Ask.YOU, "Is the bonding within 600 mm of where it comes in?",
         lambda job: not job.supply.no_metal_comes_in),
    Fact("boards.0.make_up", Stop.BOARD, Ask.YOU, "How is the board made up?", _with_board),
    Fact("boards.0.enclosure", Stop.BOARD, Ask.YOU, "Is the board of metal or plastic?", lambda job: bool(job.boards)),
    Fact("boards.0.indoors", Stop.BOARD, Ask.YOU, "Does the board stand indoors?", lambda job: bool(job.boards)),
    Fact("boards.0.spare_ways", Stop.BOARD, Ask.YOU, "How many ways are spare?", _with_board),
    Fact("boards.0.front_rcd_seen", Stop.BOARD, Ask.YOU, "Does an RCD stand before the new way, and of which type?",
         lambda job: bool(job.boards)),
    Fact("boards.0.surge_protection", Stop.BOARD, Ask.YOU, "Is surge protection fitted?", lambda job: bool(job.boards)),
    Fact("boards.0.devices_allowed", Stop.BOARD, Ask.YOU, "Does the board's maker name the devices that go in?",
         lambda job: bool(job.boards)),
    Fact("boards.0.looked_inside", Stop.BOARD, Ask.YOU, "Was the board looked over with its lid off?", _with_board),
    Fact("boards.0.labels_complete", Stop.BOARD, Ask.YOU, "Are its circuits labelled?", _with_board),
    Fact("site.way_proven_clear", Stop.ROUTE, Ask.YOU, "Has a draw line gone through?",
         lambda job: any(hazard.value in ("old_duct", "full_cavity") for hazard in job.site.hazards)),
    Fact("site.car_place", Stop.PARKING, Ask.HOUSEHOLDER, "Where does the car stand when it charges?"),
    Fact("site.parking_on_own_land", Stop.PARKING, Ask.HOUSEHOLDER, "Is the parking place on the dwelling's own land?"),
    Fact("site.data_looked_for", Stop.DATA, Ask.HOUSEHOLDER, "Does Wi-Fi or mobile signal reach the parking place?"),
    Fact("load", Stop.LOADS, Ask.HOUSEHOLDER, "Which big appliances are there?"),
)  # fmt: skip


def point_facts(job: Job) -> Iterator[Fact]:
    """The facts of every charge point, those of a kind asked once for all of it."""
    for place, point in enumerate(job.charge_points):
        for fact in _facts_of(job, place, point):
            if not point.like or fact.field.rsplit(".")[-1] not in ChargePointFacts.model_fields:
                yield fact


def _facts_of(job: Job, place: int, point: ChargePoint) -> Iterator[Fact]:
    """The facts of one charge point; where there are several, a question names which one it means."""
    at, unit = f"charge_points.{place}", point.name if len(job.charge_points) > 1 else "the unit"
    yield Fact(f"{at}.serial_number", Stop.CHARGE_POINT, Ask.YOU, f"What is the serial number of {unit}?")
    yield Fact(f"{at}.phases", Stop.CHARGE_POINT, Ask.YOU, f"How many phases has {unit}?")
    yield Fact(f"{at}.max_current_a", Stop.CHARGE_POINT, Ask.YOU, f"How much can {unit} take?")
    yield Fact(f"{at}.tethered", Stop.CHARGE_POINT, Ask.YOU, f"Has {unit} a lead of its own, or a socket?")
    yield Fact(f"{at}.rcd_inside_seen", Stop.CHARGE_POINT, Ask.YOU, f"Has {unit} an RCD inside?")
    yield Fact(f"{at}.upstream_rcd_asked", Stop.CHARGE_POINT, Ask.YOU, f"Which RCD does the maker of {unit} ask for?")
    yield Fact(f"{at}.open_pen_inside", Stop.CHARGE_POINT, Ask.YOU, f"Has {unit} an open-PEN device inside?")
    yield Fact(f"{at}.feeds_back", Stop.CHARGE_POINT, Ask.YOU, f"Can {unit} feed the car's battery back?")
    yield Fact(f"{at}.rdc_dd_inside", Stop.CHARGE_POINT, Ask.YOU, f"Does {unit} detect 6 mA DC?")
    yield Fact(f"{at}.nearby", Stop.PARKING, Ask.YOU, f"What is near {unit}: pool, caravan, wheels, gas, highway?")
    yield Fact(f"{at}.locks_off", Stop.CHARGE_POINT, Ask.YOU, f"Can what isolates {unit} be locked off, labelled?")
    yield Fact(f"{at}.flex_tail", Stop.CHARGE_POINT, Ask.YOU, f"Does {unit} come with a flexible tail?")
    if point.provenance is not Provenance.SUPPLIED_NEW:
        yield Fact(f"{at}.built_year", Stop.CHARGE_POINT, Ask.HOUSEHOLDER, f"When was {unit} built?")
        yield Fact(f"{at}.seen_working", Stop.CHARGE_POINT, Ask.YOU, f"Was {unit} seen working?")


def tails_facts(job: Job) -> Iterator[Fact]:
    """The facts of every stretch of the tails; where there are several, a question names which one it means."""
    for place, stretch in enumerate(job.supply.tails):
        at, several = f"supply.tails.{place}", len(job.supply.tails) > 1
        which = f"the tails, stretch {place + 1}, to the {word(stretch.ends_at)}" if several else "the tails"
        are = "is" if several else "are"
        yield Fact(f"{at}.csa_mm2", Stop.TAILS, Ask.YOU, f"What size {are} {which}?")
        yield Fact(f"{at}.length_m", Stop.TAILS, Ask.YOU, f"How long {are} {which}?")
        yield Fact(f"{at}.sleeved", Stop.TAILS, Ask.YOU, f"{are.capitalize()} {which} marked brown and blue?")


def source_facts(job: Job) -> Iterator[Fact]:
    """What is asked of the house's own sources, where there are any."""
    if job.supply.own_generation is not Seen.YES:
        return
    yield Fact("supply.sources", Stop.METER, Ask.HOUSEHOLDER, "Which own sources are there?")
    for place, source in enumerate(job.supply.sources):
        at, what = f"supply.sources.{place}", word(source.kind)
        yield Fact(f"{at}.board", Stop.METER, Ask.YOU, f"At which board does it come in: {what}?")
        yield Fact(f"{at}.feeds_a", Stop.METER, Ask.YOU, f"How much does it feed at most: {what}?")
        yield Fact(f"{at}.runs_alone", Stop.METER, Ask.HOUSEHOLDER, f"Does it go on when the network is gone: {what}?")


def switch_facts(installation: Installation) -> Iterator[Fact]:
    """The main switch stands in the incomer of the origin's board."""
    if installation.main_switch is not None:
        at = installation.main_switch_field
        yield Fact(f"{at}.rating_a", Stop.BOARD, Ask.YOU, "What is the main switch rated?")
        yield Fact(f"{at}.poles", Stop.BOARD, Ask.YOU, "How many poles does the main switch open?")


# What is asked of the dwelling where a unit is taken away.
OF_A_REMOVAL = ("site.householder", "site.address", "site.ownership")


def removal_facts(job: Job) -> Iterator[Fact]:
    """How a unit that is taken away leaves what it hung on."""
    at = "site.removal"
    yield Fact(f"{at}.cable", Stop.OWNERSHIP, Ask.YOU, "What became of its cable?")
    for one in wanted(job.site.removal):
        yield Fact(f"{at}.{one.field}", Stop.OWNERSHIP, Ask.YOU, one.question)


def walked(installation: Installation) -> tuple[WalkedFact, ...]:
    """Every fact that this job asks for, in the order of the walk, and whether it is known."""
    job = installation.job
    if job.site.work is WorkKind.REMOVED:
        asked = (fact for fact in FACTS if fact.field in OF_A_REMOVAL)
        return tuple((fact, known(job, fact)) for fact in (*asked, *removal_facts(job)))
    return tuple(
        (fact, known(job, fact))
        for fact in (*FACTS, *tails_facts(job), *source_facts(job), *switch_facts(installation), *point_facts(job))
        if fact.wanted(job)
    )


def open_questions(facts: tuple[WalkedFact, ...]) -> tuple[OpenQuestion, ...]:
    """Every fact of the walk that nobody has seen yet."""
    return tuple(
        OpenQuestion(field=fact.field, stop=fact.stop, ask=fact.ask, text=fact.text)
        for fact, is_known in facts
        if not is_known
    )


def stop_states(facts: tuple[WalkedFact, ...], findings: tuple[Finding, ...]) -> tuple[StopState, ...]:
    """Each stop with how much of it is known, and the keys of its findings, worst first.

    The walk ends at the origin's board; those further on are entered with the run.
    """
    seen: dict[Stop, list[bool]] = {stop: [] for stop in Stop}
    for fact, is_known in facts:
        seen[fact.stop].append(is_known)
    settled: dict[Stop, list[str]] = {stop: [] for stop in Stop}
    for one in findings:
        if one.place is not None:
            settled[one.place].append(one.key)
    return tuple(
        StopState(
            stop=stop,
            node=NODE_OF[stop],
            name=word(stop),
            known=sum(seen[stop]),
            facts=len(seen[stop]),
            findings=tuple(settled[stop]),
        )
        for stop in Stop
    )


def known(job: Job, fact: Fact) -> bool:
    """Whether a fact was seen: empty, nothing and “not seen” are not."""
    if fact.field == "load":
        return job.load.method is not DemandMethod.ENTERED or job.supply.maximum_demand_a is not None
    if fact.field == "supply.sources":
        return bool(job.supply.sources)
    value: Any = job
    for part in fact.field.split("."):
        value = value[int(part)] if isinstance(value, tuple) else getattr(value, part)
    return value is not None and value not in ("", Seen.NOT_SEEN)
