"""What can't both be so: one table of pairs, each asked at both places, and what rests on the kinder side.

Nobody decides here which of the two is right. Until somebody does, nothing that leans on the kinder side meets.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, RuleKey, Stage
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules import protection, run, supply
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.supply import CONTRADICTION
from fulmen.core.installation.guards import Stands
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.boards import Board, MakeUp
from fulmen.core.model.route import OUT_OF_DOORS
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CarPlace
from fulmen.core.model.stops import Stop


@dataclass(frozen=True, slots=True)
class Side:
    """One of the two: what is said, and the stop where it is; none where it is said in the design."""

    says: str
    stop: Stop | None = None


@dataclass(frozen=True, slots=True)
class Pair:
    """Two things that can't both be so on a run; `rests` are the rules that lean on the kinder one.

    `of_supply` says that it is about the house and not about one charge point.
    """

    key: str
    one: Side
    other: Side
    both: Callable[[Case], bool]
    rests: tuple[Rule, ...]
    of_supply: bool = False


RCDS = (
    protection.OWN_RCD, protection.RCD_AT_BOARD, protection.CONCEALED_CABLE, protection.DISCONNECTION,
    protection.DC_PROTECTION, protection.ISLAND_RCD, protection.TT_ORIGIN_RCD, protection.MAKER_RCD,
)  # fmt: skip


def _boards(case: Case) -> tuple[Board, ...]:
    return tuple(chained.board for chained in case.run.chain)


def _rcd_in_front(case: Case, board: Board) -> bool:
    """Whether an RCD stood in front of the way that this run takes from a board; one that is fitted now did not."""
    if board.fitted_with_this_job:
        return False
    circuits = {one.circuit.id for one in case.run.chain if one.board is board}
    found = (one for one in case.guards if one.is_rcd and one.is_in_front and not one.fitted_with_this_job)
    return any(one.circuit in circuits for one in found)


def _rcd_in_unit(case: Case) -> bool:
    return any(one.is_rcd and one.stands is Stands.UNIT for one in case.guards)


def lead_reaches_out(case: Case) -> bool:
    """Whether the lead of a unit that hangs indoors reaches the door, where no car is to be charged outdoors."""
    point = case.run.charge_point
    if case.job.site.car_place is not CarPlace.INDOORS_ONLY or not point.tethered:
        return False
    lead_m, door_m = point.lead_length_m, point.door_distance_m
    return lead_m is not None and door_m is not None and lead_m >= door_m


def _unit_outdoors(case: Case) -> bool:
    return bool(case.run.charge_point.hangs_outdoors) and case.job.site.car_place is CarPlace.INDOORS_ONLY


def _one_pole_and_neutral(case: Case) -> bool:
    return any(one.poles == 1 and one.part is not None and one.part.rcd is not None and one.part.rcd.switches_neutral
               for one in case.guards)  # fmt: skip


def _indoors_in_the_ground(case: Case) -> bool:
    sections = (section for chained in case.run.chain for section in chained.circuit.route)
    return any(one.surroundings in OUT_OF_DOORS and one.outdoors is False for one in sections)


def _more_lines_than_come(case: Case) -> bool:
    return case.job.supply.phases == 1 and any(chained.circuit.phases == 3 for chained in case.run.chain)


INDOORS_ONLY = Side("no car can be charged outdoors", Stop.PARKING)
PAIRS: tuple[Pair, ...] = (
    Pair("unit-outdoors", Side("the unit hangs outdoors", Stop.CHARGE_POINT), INDOORS_ONLY, _unit_outdoors,
         (protection.OPEN_PEN, run.IP_CODE)),
    Pair("lead-reaches", Side("the unit's lead reaches the door", Stop.CHARGE_POINT), INDOORS_ONLY, lead_reaches_out,
         (protection.OPEN_PEN,)),
    Pair("bonded-nothing", Side("a metal service is bonded", Stop.EARTH), Side("no metal comes in", Stop.EARTH),
         lambda case: bool(case.job.supply.bonded_services) and case.job.supply.no_metal_comes_in,
         (supply.MAIN_BONDING, protection.EXPORTED_EARTH), of_supply=True),
    Pair("looped", Side("one service cable only", Stop.CUT_OUT),
         Side("the looped neighbour has a charge point", Stop.CUT_OUT),
         lambda case: case.job.supply.looped is Seen.NO and case.job.supply.neighbour_charge_point is Seen.YES,
         (supply.LOOPED, supply.OPERATOR), of_supply=True),
    Pair("lines", Side("the supply has one phase", Stop.CUT_OUT), Side("a sub-main has three"), _more_lines_than_come,
         (supply.MAIN_SWITCH_POLES, protection.OPEN_PEN, run.BREAKING_CAPACITY, run.GUARD_POLES, run.WEAKEST_SECTION,
          run.VOLT_DROP)),
    Pair("rcd-inside", Side("the unit has no RCD inside", Stop.CHARGE_POINT),
         Side("an RCD inside is entered", Stop.CHARGE_POINT),
         lambda case: case.run.charge_point.rcd_inside_seen is Seen.NO and _rcd_in_unit(case),
         RCDS),
    Pair("rcd-asked", Side("the maker asks for no RCD", Stop.CHARGE_POINT),
         Side("an RCD that the maker asks for is entered", Stop.CHARGE_POINT),
         lambda case: (case.run.charge_point.upstream_rcd_asked is Seen.NO
                       and case.run.charge_point.upstream_rcd is not None),
         (protection.MAKER_RCD,)),
    Pair("rcd-in-front", Side("no RCD stands in front of the way", Stop.BOARD), Side("an RCD in front is entered"),
         lambda case: any(one.front_rcd_seen is Seen.NO and _rcd_in_front(case, one) for one in _boards(case)), RCDS),
    Pair("make-up", Side("the board is made up of breakers alone", Stop.BOARD), Side("an RCD in front is entered"),
         lambda case: any(one.make_up is MakeUp.BREAKERS_ONLY and _rcd_in_front(case, one) for one in _boards(case)),
         RCDS),
    Pair("one-pole", Side("a device with an RCD opens one pole"), Side("its RCD opens the neutral too"),
         _one_pole_and_neutral, (protection.OWN_RCD, protection.RCD_NEUTRAL, protection.TT_ORIGIN_RCD)),
    Pair("tail", Side("the unit has no flexible tail", Stop.CHARGE_POINT),
         Side("the size of its tail is entered", Stop.CHARGE_POINT),
         lambda case: case.run.charge_point.flex_tail is False and case.run.charge_point.flex_csa_mm2 is not None,
         (run.FLEX_TAIL, run.VOLT_DROP, protection.SURVIVES_FAULT)),
    Pair("ways", Side("the board has so many ways in all", Stop.BOARD), Side("more than that are spare", Stop.BOARD),
         lambda case: any(one.ways is not None and one.spare_ways is not None and one.spare_ways > one.ways
                          for one in _boards(case)),
         (supply.SPARE_WAY,)),
    Pair("ground-indoors", Side("a section lies in the ground or in a post"), Side("it lies indoors"),
         _indoors_in_the_ground, (run.INDOOR_CABLE,)),
)  # fmt: skip


def contradicted(case: Case) -> tuple[Pair, ...]:
    """The pairs of which both are said on a run; a run to loads has no charge point to speak of."""
    return () if case.to_loads else tuple(pair for pair in PAIRS if pair.both(case))


def contradiction_findings(case: Case) -> Iterator[Finding]:
    """Each pair that is said, asked at both its places."""
    for pair in contradicted(case):
        about = ORIGIN if pair.of_supply else case.subject
        for side, other in ((pair.one, pair.other), (pair.other, pair.one)):
            part = "one" if side is pair.one else "other"
            asked = ask(CONTRADICTION, case.rules, f"{about}-{pair.key}-{part}", says=side.says).placed(
                side.stop, Stage.SURVEY if side.stop is not None else Stage.DESIGN
            )
            yield asked.needs_fact(f"Said here: {side.says}. Said elsewhere: {other.says}. Which of the two is right?")


def doubted(cases: tuple[Case, ...]) -> frozenset[RuleKey]:
    """The rules that lean on the kinder side of something contradicted: meanwhile they don't meet."""
    return frozenset(rule.key for case in cases for pair in contradicted(case) for rule in pair.rests)
