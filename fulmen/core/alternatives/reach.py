"""How far a design holds: the greatest route, loop, load, heat, group and insulation with which no verdict is worse.

Each is one fact of the job moved by itself, all else as it stands; where it ends is found by bisection on the whole
evaluation. What was measured is taken as known, so that readings of the cable as it lies do not speak against a longer
one. Asking the network operator again is a step of its own and ends nothing.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from enum import StrEnum

from fulmen.core.alternatives.routed import routed_run
from fulmen.core.demand.demand import Demand
from fulmen.core.editing.job_file import check_structure
from fulmen.core.evaluate import findings_of
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.rules.supply import OPERATOR
from fulmen.core.installation.installation import installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.judging.merging import ORDER
from fulmen.core.model.base import Part
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job
from fulmen.core.model.load import Appliance, DemandMethod, LoadKind
from fulmen.core.model.route import IN_GROUND, IN_INSULATION, Section
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.so_far import SoFar, finished


class ReachKey(StrEnum):
    """What is moved."""

    ROUTE = "route"
    LOOP = "loop"
    ELECTRODE = "electrode"
    HOUSE_LOAD = "house_load"
    HEAT = "heat"
    GROUP = "group"
    INSULATION = "insulation"
    FUSE = "fuse"


class Reach(Part):
    """How far one fact may go: where it stands, the last value with which no verdict is worse, and what ends it.

    `most` is as far as was tried; `upset` is empty where it holds all the way.
    """

    key: ReachKey
    title: str
    unit: str
    decimals: int
    now: float
    holds_to: float
    most: float
    upset: str
    upset_key: str


@dataclass(frozen=True)
class _Move:
    """One fact, the values tried in the order of getting harder, and the job with a value taken."""

    key: ReachKey
    title: str
    unit: str
    values: tuple[float, ...]
    taken: Callable[[float], Job]
    decimals: int = 0


def how_far(job: Job, charge_point: str, rules: RuleSet) -> tuple[Reach, ...]:
    """How far the design of one charge point holds, fact by fact; empty where it falls short as it stands.

    Args:
        job: the job as it stands.
        charge_point: id of the charge point.
        rules: the edition's limits.

    Raises:
        InputError: no circuit with a route feeds such a charge point.
        JobFileError: the job's structure cannot be taken.
    """
    return finished(reaching(job, charge_point, rules))


def reaching(job: Job, charge_point: str, rules: RuleSet) -> Iterator[SoFar[tuple[Reach, ...]]]:
    """The same step by step, a fact a step."""
    check_structure(job)
    circuit = routed_run(installation_of(job), charge_point).final().circuit
    place = job.circuits.index(circuit)
    known = _as_known(job, rules)
    now = {one.key: one for one in findings_of(known, rules)}
    if any(one.verdict in ORDER and ORDER[one.verdict] == 0 for one in now.values()):
        yield SoFar(0, 0, tuple)
        return
    moves, found = list(_moves(known, place, rules)), list[Reach]()
    yield SoFar(0, len(moves), lambda: tuple(found))
    for move in moves:
        found.append(_reach(move, now, rules))
        yield SoFar(len(found), len(moves), lambda: tuple(found))


def reach_words(reaches: tuple[Reach, ...]) -> str:
    """How far a design holds, in one line."""
    told = [
        f"{one.title[0].lower()}{one.title[1:]} {one.holds_to:.{one.decimals}f} {one.unit}".strip() for one in reaches
    ]
    return "; ".join(told)


def _as_known(job: Job, rules: RuleSet) -> Job:
    """The job before its readings, with what they told of the supply as known."""
    origin = known_for(job, rules).origin
    ze, fault = origin.ze, origin.fault
    told = {
        "ze_enquiry_ohm": ze.value if ze.measured else job.supply.ze_enquiry_ohm,
        "pscc_enquiry_ka": fault.value if fault.measured else job.supply.pscc_enquiry_ka,
    }
    if job.supply.earthing is Earthing.TT:
        told["electrode_design_ohm"] = origin.electrode.value
    return job.model_copy(update={"supply": job.supply.model_copy(update=told), "readings": ()})


def _reach(move: _Move, now: dict[str, Finding], rules: RuleSet) -> Reach:
    """The last value that holds; the values get harder, so the first that does not hold ends it."""
    holds, fails, upset = 0, len(move.values), None
    worse = _worse(now, move.taken(move.values[-1]), rules)
    if worse is None:
        holds = len(move.values) - 1
    else:
        upset, fails = worse, len(move.values) - 1
    while fails - holds > 1 and upset is not None:
        middle = (holds + fails) // 2
        worse = _worse(now, move.taken(move.values[middle]), rules)
        if worse is None:
            holds = middle
        else:
            upset, fails = worse, middle
    return Reach(
        key=move.key,
        title=move.title,
        unit=move.unit,
        decimals=move.decimals,
        now=move.values[0],
        holds_to=move.values[holds],
        most=move.values[-1],
        upset=upset.title if upset is not None else "",
        upset_key=upset.key if upset is not None else "",
    )


def _worse(now: dict[str, Finding], job: Job, rules: RuleSet) -> Finding | None:
    """The first finding whose verdict is worse than it stands now; None where none is."""
    for one in findings_of(job, rules):
        before = now.get(one.key)
        if not one.is_open or one.rule == OPERATOR.key:
            continue
        if before is None or not before.is_open or ORDER[one.verdict] < ORDER[before.verdict]:
            return one
    return None


def _moves(job: Job, place: int, rules: RuleSet) -> Iterator[_Move]:
    circuit, supply, known = job.circuits[place], job.supply, known_for(job, rules)
    longest = max(range(len(circuit.route)), key=lambda index: circuit.route[index].length_m)
    room_m = 500.0 - circuit.route[longest].length_m

    def longer(more_m: float) -> Job:
        section = circuit.route[longest]
        route = list(circuit.route)
        route[longest] = section.model_copy(update={"length_m": round(section.length_m + more_m, 2)})
        return _with_route(job, place, tuple(route))

    yield _Move(ReachKey.ROUTE, "Route, longer by", "m", _steps(0.0, min(120.0, room_m), 0.5), longer, decimals=1)
    if supply.earthing is Earthing.TT:
        now_ohm = known.origin.electrode.value
        yield _Move(
            ReachKey.ELECTRODE, "Electrode, up to", "Ω", _steps(now_ohm, max(400.0, now_ohm), 1.0),
            lambda ohm: _with_supply(job, electrode_design_ohm=ohm, ze_enquiry_ohm=None),
        )  # fmt: skip
    else:
        ze_ohm = known.origin.ze.value
        yield _Move(
            ReachKey.LOOP, "Ze, up to", "Ω", _steps(ze_ohm, max(2.0, ze_ohm), 0.01),
            lambda ohm: _with_supply(job, ze_enquiry_ohm=ohm, operator_told_of_ze=Seen.YES),
            decimals=2,
        )  # fmt: skip
    yield from _house(job, known.demand)
    yield from _laid(job, place, circuit)
    yield from _fuses(job)


def _house(job: Job, demand: Demand) -> Iterator[_Move]:
    """The house's own load: the total that was entered, or one more appliance."""
    if demand.total_a is None or job.load.method is DemandMethod.MEASURED:
        return
    steps = _steps(float(round(demand.total_a, 1)), 200.0, 1.0)
    if job.load.method is DemandMethod.ENTERED:
        yield _Move(
            ReachKey.HOUSE_LOAD, "House and car, up to", "A", steps, lambda a: _with_supply(job, maximum_demand_a=a)
        )
        return

    def more(total_a: float) -> Job:
        extra_a = total_a - (demand.total_a or 0.0)
        if extra_a < 0.1:
            return job
        one = Appliance(kind=LoadKind.OTHER, name="more", rating_a=min(extra_a, 200.0))
        return job.model_copy(update={"load": job.load.model_copy(update={"appliances": (*job.load.appliances, one)})})

    yield _Move(ReachKey.HOUSE_LOAD, "House and car, up to", "A", steps, more)


def _laid(job: Job, place: int, circuit: Circuit) -> Iterator[_Move]:
    """Heat, company and insulation along the circuit to the charge point, wherever there may be any."""
    air = [one for one in circuit.route if one.surroundings not in IN_GROUND]
    if air:
        hottest_c = max(one.temperature_c if one.temperature_c is not None else 30.0 for one in air)
        company = max(one.company() for one in air)
        yield _Move(
            ReachKey.HEAT, "Air around it, up to", "°C", _steps(hottest_c, 60.0, 1.0),
            lambda c: _each(job, place, lambda one: {"temperature_c": max(c, one.temperature_c or 30.0)}, air),
        )  # fmt: skip
        yield _Move(
            ReachKey.GROUP, "Circuits bunched with it, up to", "", _steps(float(company), 9.0, 1.0),
            lambda n: _each(job, place, lambda one: {"grouped_circuits": max(int(n), one.company())}, air),
        )  # fmt: skip
    wrapped = [one for one in circuit.route if one.surroundings in IN_INSULATION]
    if wrapped:
        now_mm = max(one.insulated_mm() for one in wrapped)
        yield _Move(
            ReachKey.INSULATION, "Wholly in insulation, up to", "mm", _steps(now_mm, max(500.0, now_mm), 10.0),
            lambda mm: _each(job, place, lambda one: {"insulation_mm": max(mm, one.insulated_mm())}, wrapped),
        )  # fmt: skip


def _fuses(job: Job) -> Iterator[_Move]:
    """The least cut-out fuse, stepping down."""
    fuse_a = job.supply.cut_out_fuse_a
    smaller = [float(one) for one in (100, 80, 60, 45, 30) if fuse_a is not None and one < fuse_a]
    if fuse_a is not None and smaller:
        yield _Move(
            ReachKey.FUSE, "Cut-out fuse, down to", "A", (float(fuse_a), *smaller),
            lambda a: _with_supply(job, cut_out_fuse_a=int(a)),
        )  # fmt: skip


def _steps(start: float, end: float, step: float) -> tuple[float, ...]:
    """Values from where it stands to the end, harder and harder; the start is kept as it is."""
    count = max(0, int((end - start) / step + 1e-9))
    return (start, *(round(start + step * number, 4) for number in range(1, count + 1)))


def _with_supply(job: Job, **changed: object) -> Job:
    return job.model_copy(update={"supply": job.supply.model_copy(update=changed)})


def _with_route(job: Job, place: int, route: tuple[Section, ...]) -> Job:
    circuits = list(job.circuits)
    circuits[place] = circuits[place].model_copy(update={"route": route})
    return job.model_copy(update={"circuits": tuple(circuits)})


def _each(job: Job, place: int, change: Callable[[Section], dict[str, object]], among: list[Section]) -> Job:
    route = tuple(one.model_copy(update=change(one)) if one in among else one for one in job.circuits[place].route)
    return _with_route(job, place, route)
