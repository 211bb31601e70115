"""What the unknown facts could upset: each is given every answer it may have, and the whole job judged again.

Facts come in the order of what hangs on them, so that the question that could bring the design down is asked first.
A fact with few answers gets all of them; a figure gets the ends of what is met in dwellings. Nothing is assumed: what
is told here is what could be, and no verdict changes by it.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import Enum
from types import UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from fulmen.core.electrical.joints import joints_of
from fulmen.core.evaluate import Evaluation, evaluate, findings_of
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.model.arrangement import MetalAtUnit
from fulmen.core.model.base import Part
from fulmen.core.model.boards import Enclosure, MakeUp
from fulmen.core.model.guards import Guard, GuardKind, RcdType, ordered_rcd
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.model.stops import Stop
from fulmen.core.reference.cable_catalogue import cables_for
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.so_far import SoFar, finished

# The ends of what is met in dwellings; common practice, no source.
FIGURES: dict[str, tuple[object, ...]] = {
    "cut_out_fuse_a": (60, 80, 100),
    "earthing_conductor_csa_mm2": (6.0, 10.0, 16.0),
    "main_bonding_csa_mm2": (6.0, 10.0),
    "csa_mm2": (10.0, 16.0, 25.0),
    "length_m": (0.5, 4.0),
    "rating_a": (60.0, 100.0),
    "poles": (1, 2, 4),
    "spare_ways": (0, 1, 4),
    "max_current_a": (16.0, 32.0),
    "insulation_mm": (0.0, 100.0, 500.0),
    "grouped_circuits": (1, 3, 6),
    "depth_m": (0.3, 0.6),
    "incoming_metal": ((), ("water",), ("water", "gas")),
}
UNSAID = {
    "grouped_circuits": "How many circuits lie together in section {number}?",
    "insulation_mm": "How much of section {number} is wholly in insulation?",
    "concealed_under_50_mm": "Is section {number} hidden less than 50 mm deep?",
    "metal_frame": "Is the wall of section {number} framed in metal?",
    "depth_m": "How deep does section {number} lie?",
    "under_drive": "Does anything drive over section {number}?",
    "outdoors": "Is section {number} outdoors?",
}
BOARD_FACTS = {
    "make_up": "how is it made up?",
    "enclosure": "is it of metal or plastic?",
    "spare_ways": "how many ways are spare?",
    "front_rcd_seen": "does an RCD stand before the new way, and of which type?",
}
# What could not upset a verdict whatever it is: names and numbers.
NOTHING_HANGS_ON = frozenset({"householder", "address", "supply_number", "serial_number", "built_year", "load"})


class UnknownFact(Part):
    """A fact that nobody knows yet: the question and where it is answered.

    `could_upset` falls short under some answer, `could_ask` then waits for more or becomes your call; both are empty
    where every answer leaves the verdicts as they are.
    """

    field: str
    stop: Stop
    text: str
    could_upset: tuple[str, ...]
    could_ask: tuple[str, ...]


def unknown_facts(job: Job, rules: RuleSet) -> tuple[UnknownFact, ...]:
    """Every unknown fact that may bear on a verdict, the one that could upset most first.

    Raises:
        JobFileError: the job's structure cannot be taken.
    """
    return finished(weighing_unknowns(job, rules))


def weighing_unknowns(job: Job, rules: RuleSet) -> Iterator[SoFar[tuple[UnknownFact, ...]]]:
    """The same step by step, a fact a step."""
    now = evaluate(job, rules)
    unknown, found = list(_unknown(job, now)), list[UnknownFact]()

    def by_weight() -> tuple[UnknownFact, ...]:
        return tuple(sorted(found, key=lambda one: (-len(one.could_upset), -len(one.could_ask))))

    yield SoFar(0, len(unknown), by_weight)
    for one in unknown:
        found.append(_weighed(job, now, *one, rules))
        yield SoFar(len(found), len(unknown), by_weight)


def _unknown(job: Job, now: Evaluation) -> Iterator[tuple[str, Stop, str]]:
    for question in now.questions:
        if question.field.rpartition(".")[2] not in NOTHING_HANGS_ON:
            yield question.field, question.stop, question.text
    for field in now.unsaid:
        _, circuit, _, place, name = field.split(".")
        text = UNSAID[name].format(number=int(place) + 1)
        yield field, Stop.ROUTE, f"{job.circuits[int(circuit)].name}: {text}" if len(job.circuits) > 1 else text
    yield from _past_the_walk(job)


def _past_the_walk(job: Job) -> Iterator[tuple[str, Stop, str]]:
    """What is asked further on than the walk goes: other boards, joints, metal at the unit."""
    for place, board in enumerate(job.boards[1:], 1):
        if not board.fitted_with_this_job:
            for name, text in BOARD_FACTS.items():
                if getattr(board, name) in (None, Seen.NOT_SEEN, MakeUp.NOT_SEEN, Enclosure.NOT_SEEN):
                    yield f"boards.{place}.{name}", Stop.BOARD, f"{board.name}: {text}"
    cables = cables_for(job)
    for index, circuit in enumerate(job.circuits):
        for joint in joints_of(circuit, cables):
            if circuit.route[joint.section].joint_accessible is Seen.NOT_SEEN:
                field = f"circuits.{index}.route.{joint.section}.joint_accessible"
                yield field, Stop.ROUTE, f"Can the box before section {joint.section + 1} be reached?"
    for place, point in enumerate(job.charge_points):
        if point.arrangement.metal_at_unit is MetalAtUnit.NOT_SEEN:
            field = f"charge_points.{place}.arrangement.metal_at_unit"
            yield field, Stop.CHARGE_POINT, "Does metal on the house earth touch the unit's earth?"


def _weighed(job: Job, now: Evaluation, field: str, stop: Stop, text: str, rules: RuleSet) -> UnknownFact:
    """What falls short, or opens again, under some answer and not as it stands."""
    before = {one.key: one for one in now.findings}
    upset: dict[str, str] = {}
    asks: dict[str, str] = {}
    for answered in _answered(job, field):
        for one in findings_of(answered, rules):
            if _worse(one, before.get(one.key)):
                (upset if one.verdict is Verdict.FALLS_SHORT else asks).setdefault(one.key, one.title)
    only_asks = tuple(dict.fromkeys(title for key, title in asks.items() if key not in upset))
    return UnknownFact(
        field=field, stop=stop, text=text, could_upset=tuple(dict.fromkeys(upset.values())), could_ask=only_asks
    )


def _worse(one: Finding, before: Finding | None) -> bool:
    if one.verdict is Verdict.FALLS_SHORT:
        return before is None or before.verdict is not Verdict.FALLS_SHORT
    return one.is_open and (before is None or not before.is_open)


def _answered(job: Job, field: str) -> Iterator[Job]:
    """The job with each answer that the fact may have."""
    path: list[str | int] = [int(part) if part.isdigit() else part for part in field.split(".")]
    *above, name = path
    owner: Any = job
    for step in above:
        owner = owner[step] if isinstance(step, int) else getattr(owner, step)
    for updates in _answers(owner, str(name)):
        yield _with(job, above, owner.model_copy(update=updates))


def _with(whole: Any, path: list[str | int], part: object) -> Any:
    """A part of the job put in its place again; parts are copied, not checked again."""
    if not path:
        return part
    step, *rest = path
    if isinstance(step, int):
        return (*whole[:step], _with(whole[step], rest, part), *whole[step + 1 :])
    return whole.model_copy(update={step: _with(getattr(whole, step), rest, part)})


def _answers(owner: Part, name: str) -> Iterator[dict[str, Any]]:
    if name == "upstream_rcd_asked":
        yield {name: Seen.NO}
        yield from ({name: Seen.YES, "upstream_rcd": one} for one in (RcdType.A, RcdType.F, RcdType.B))
    elif name == "front_rcd_seen":
        yield {name: Seen.NO}
        for kind in (RcdType.AC, RcdType.A):
            guard = Guard(id="asked-about", kind=GuardKind.RCCB, rcd=ordered_rcd(kind))
            yield {name: Seen.YES, "incomer": (*getattr(owner, "incomer", ()), guard), "feeds_others": Seen.YES}
    elif name in FIGURES:
        yield from ({name: value} for value in FIGURES[name])
    else:
        yield from ({name: value} for value in _values(type(owner).model_fields[name].annotation))


def _values(annotation: Any) -> list[object]:
    """Every value of a type that has few: choices, yes and no; none where it has many."""
    origin = get_origin(annotation)
    if origin in (Union, UnionType):
        return [value for one in get_args(annotation) for value in _values(one)]
    if origin is Annotated:
        return _values(get_args(annotation)[0])
    if origin is Literal:
        return [value for value in get_args(annotation) if value != ""]
    if annotation is bool:
        return [True, False]
    if isinstance(annotation, type) and issubclass(annotation, Enum):
        return [value for value in annotation if value.value != "not_seen"]
    return []
