"""What a certificate still needs, in the order of the work: each with its place on the run and where it is put right.

The list is the gaps of the certificate and nothing else, what one answer settles once: counters, the strip and the one
next thing read it.
"""

from __future__ import annotations

from collections import Counter

from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.finding import Finding, Stage, Topic
from fulmen.core.findings.rules import REGISTER
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job
from fulmen.core.model.stops import Stop
from fulmen.core.plain import plain
from fulmen.core.survey.walk import NODE_OF, Node
from fulmen.core.verification.certificate_gaps import Gap, GapKind, GapStage
from fulmen.core.verification.steps.sequence import Step

# So many are told with where they are put right; of the rest how many there are.
TOLD = 8


@plain
class NextThing:
    """One thing that the certificate still needs.

    `stage` is where it is put right, `part` the part of it (a stop of the survey), `field` the path of the fact that
    is asked for and `step` the test, where it is one of these; `node` is the place on the run: `cut_out`, `meter`, or
    the id of a board, box, circuit or unit; empty for what is not on the run.
    """

    kind: GapKind
    key: str
    words: str
    stage: GapStage
    part: str
    node: str
    field: str = ""
    step: str = ""


@plain
class StillLeft:
    """How many things of a stage are left at a part of it and a place of the run."""

    stage: GapStage
    part: str
    node: str
    count: int


@plain
class NextThings:
    """The first things of the list, and how many are left by stage and place; both empty where nothing is."""

    things: tuple[NextThing, ...]
    left: tuple[StillLeft, ...]


# What comes first in a stage: what was found before what is written, and the name under it all last.
KINDS: tuple[GapKind, ...] = ("check", "reading", "inspection", "particular", "signature")
STAGES: tuple[GapStage, ...] = ("survey", "design", "dead", "live", "papers")
OPERATOR = "operator"
SIGN = "Sign and issue the certificate"
# After the walk: the load, then the operator, who is told of both.
LAST_STOPS = (Stop.LOADS, OPERATOR)


def next_things(job: Job, whole: Evaluation) -> NextThings:
    """What a certificate still needs, first things first.

    Args:
        job: the job document.
        whole: all that it computes to, steps and gaps included.

    Returns:
        The first of them, and counts of all: along the walk, then load and operator, design, tests, papers.
    """
    every = listed(job, whole)
    counted = Counter((one.stage, one.part, one.node) for one in every)
    left = tuple(StillLeft(stage, part, node, count) for (stage, part, node), count in counted.items())
    return NextThings(tuple(every[:TOLD]), left)


def listed(job: Job, whole: Evaluation) -> list[NextThing]:
    """Every thing that a certificate still needs, in the order of the work."""
    findings = {one.key: one for one in whole.findings}
    steps = {f"{one.step.value}/{one.subject}": one for one in whole.steps}
    places = _Places(job, whole)
    things = [
        places.of_check(gap, findings[gap.key])
        if gap.kind == "check"
        else places.of_reading(gap, steps.get(gap.key))
        if gap.kind == "reading"
        else places.of_written(gap)
        for gap in whole.gaps
    ]
    waiting = {one.key for one in whole.findings if one.waits_for == "reading"}
    return _once(sorted(things, key=lambda one: _rank(one, waits=one.kind == "check" and one.key in waiting)))


def _once(things: list[NextThing]) -> list[NextThing]:
    """One fact that two things ask for is asked for once; all parts are signed at one place, once the rest is there."""
    asked: set[str] = set()
    kept: list[NextThing] = []
    tests = {one.step for one in things if one.kind == "reading"}
    for one in things:
        about = SIGN if one.kind == "signature" else one.field
        # What a test that is still to do is found lacking is asked with the test.
        is_with_its_test = one.kind == "check" and one.step != "" and one.step in tests
        if about not in asked and not is_with_its_test:
            kept.append(one)
        asked |= {about} - {""}
    return kept


def _rank(thing: NextThing, *, waits: bool) -> tuple[int, int, bool, int]:
    """Survey in the order of the walk, then load and operator; readings in the order of the sequence they come in, and
    what waits for one of them after them.
    """
    stops: list[str] = [one for one in Stop if one not in LAST_STOPS]
    walked = (*stops, *LAST_STOPS)
    part = walked.index(thing.part) if thing.part in walked else -1
    return STAGES.index(thing.stage), part, waits, KINDS.index(thing.kind)


class _Places:
    """Where things of a job are put right, and where they are on its run."""

    def __init__(self, job: Job, whole: Evaluation) -> None:
        self.job, self.whole = job, whole
        self.boards, self.circuits = [one.id for one in job.boards], [one.id for one in job.circuits]
        self.units = [one.id for one in job.charge_points]
        self.stop_of = {one.field: one.stop for one in whole.questions}

    def of_check(self, gap: Gap, finding: Finding) -> NextThing:
        """A finding that is open: at its stop, at the test that it judges, or with the design."""
        step = f"{finding.step.value}/{finding.subject}" if finding.step is not None else ""
        at_stop = finding.place if finding.stage is Stage.SURVEY else None
        part = at_stop.value if at_stop else OPERATOR if finding.stage is Stage.SURVEY and _of_operator(finding) else ""
        node = self._stop_node(finding.place, finding.subject) if finding.place else self._subject_node(finding.subject)
        return NextThing(
            gap.kind, gap.key, gap.text, gap.stage, part, node, self._field(finding), step if _is_test(gap) else ""
        )

    def of_reading(self, gap: Gap, step: Step | None) -> NextThing:
        """A test that was not done yet."""
        if step is None:
            return NextThing(gap.kind, gap.key, gap.text, gap.stage, "", Node.NOWHERE)
        node = Node.CUT_OUT if step.place == "origin" else self._subject_node(step.place)
        return NextThing(gap.kind, gap.key, step.title, gap.stage, "", node, step=gap.key)

    def of_written(self, gap: Gap) -> NextThing:
        """What is written down: at its stop of the walk, or on the page of the papers."""
        if gap.kind == "signature":
            return NextThing(gap.kind, gap.key, SIGN, gap.stage, "", Node.NOWHERE)
        if gap.stage != "survey":
            field = gap.key if gap.kind == "particular" else ""
            return NextThing(gap.kind, gap.key, gap.text, gap.stage, "", Node.NOWHERE, field)
        stop = self.stop_of.get(gap.key) or (Stop.CUT_OUT if gap.key.startswith("supply.") else Stop.OWNERSHIP)
        return NextThing(gap.kind, gap.key, gap.text, gap.stage, stop.value, self._stop_node(stop, ""), gap.key)

    def _field(self, finding: Finding) -> str:
        """The fact that a finding waits for: of its route where a section's is unsaid, else what its rule looks at."""
        if finding.waits_for != "fact":
            return ""
        unsaid = self._unsaid(finding.subject)
        if unsaid:
            return unsaid
        looked_at = REGISTER[finding.rule].looks_at
        open_ones = [one.field for one in self.whole.questions if self._is_about(one.field, finding.subject)]
        asked = (field for name in looked_at for field in open_ones if field.rsplit(".", 1)[-1] == name)
        return next(asked, "")

    def _unsaid(self, subject: str) -> str:
        """What is unsaid first of a section that a finding is about."""
        paths = [
            f"circuits.{at}.route.{place}."
            for at, circuit in enumerate(self.job.circuits)
            for place, name in enumerate(_sections(circuit))
            if name == subject
        ]
        return next((one for one in self.whole.unsaid if one.startswith(tuple(paths))), "")

    def _is_about(self, field: str, subject: str) -> bool:
        """Whether a field is of what a finding is about; a circuit's unit is one of several only by its own name."""
        kind, place = (*field.split(".", 2), "")[:2]
        ids = {"boards": self.boards, "charge_points": self.units}.get(kind)
        if ids is None or subject not in ids:
            return True
        return ids[int(place)] == subject

    def _stop_node(self, stop: Stop, subject: str) -> str:
        node = NODE_OF[stop]
        named = {Node.BOARD: self.boards, Node.ROUTE: self.circuits[-1:], Node.CHARGE_POINT: self.units}.get(node)
        if named is None:
            return node
        return subject if subject in named else next(iter(named), Node.NOWHERE)

    def _subject_node(self, subject: str) -> str:
        """The board, circuit or unit that something is about; a section and a box are of their circuit."""
        if subject in (*self.boards, *self.circuits, *self.units):
            return subject
        own = [one.id for one in self.job.circuits if subject in (*_sections(one), *(box.id for box in one.boxes))]
        return next(iter(own), Node.NOWHERE)


def _sections(circuit: Circuit) -> tuple[str, ...]:
    """What findings call the sections of a circuit's route."""
    return tuple(f"{circuit.id}-{number}" for number in range(1, len(circuit.route) + 1))


def _of_operator(finding: Finding) -> bool:
    return Topic.OPERATOR in finding.topics


def _is_test(gap: Gap) -> bool:
    return gap.stage in ("dead", "live")
