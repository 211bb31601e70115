"""What readings that disagree look like together: which fault, in which cable, how sure, and what to read next.

As a good tester reasons: what reads over range and what is crossed first, then poor pairs, then what one finding says
by itself; ohms last, where every fault is weighed against all the others by the pieces that the readings share.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from enum import StrEnum
from math import exp

from fulmen.core.findings.finding import Finding, Topic, Verdict
from fulmen.core.findings.rules.readings import AGREE_INSULATION
from fulmen.core.findings.rules.run import LOAD_CLAMP
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.plain import changed, plain
from fulmen.core.verification.faults.by_pairs import ACROSS, Steps, open_or_crossed, poor_pairs, tells_pairs_apart
from fulmen.core.verification.faults.faults import fault_info
from fulmen.core.verification.faults.ohms import OhmsRead, Supposed
from fulmen.core.verification.faults.pieces import sum_of
from fulmen.core.verification.faults.seen_alone import seen_alone
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.step_applies import tested_rcds

# From how much belief on a fault is told at all, from how much beside another, how many are. How far apart two faults
# must put a reading to be told apart by it, in its own errors. How many faults of ohms are looked for at once.
# Our own, no source; `tests/independent` measures what they come to.
LEAST_TOLD, LEAST_SHARE, MOST_TOLD, APART, MOST_FAULTS = 0.25, 0.08, 3, 3.0, 2
SURE, LIKELY = 0.9, 0.6
# How badly the best may fit, and how much more with each reading, before nothing is told: −2·ln of its evidence.
MISFIT = (60.0, 4.0)
# An island's loop is its electrode and the operator's: hardly more than half as much again.
ISLAND_TIMES = 1.5
# Which way a comma may have moved where a loop looks like one of these.
COMMA = {"earths_joined": 10.0, "electrode_poor": 0.1}
SLOW, SWAPPED = "rcd_slow", "swapped"


class Sureness(StrEnum):
    """How sure a diagnosis is."""

    SURE = "sure"
    LIKELY = "likely"
    OPEN = "open"


@plain
class Candidate:
    """One fault that explains the readings: how much of the belief it has, of how many ohms it is where it is of any.

    `subject` is the circuit, the part of a cable or the guard that it is in; `whose` that one's name. `step` is the
    reading that was written down wrongly, where that is it. What else would tell it is not said: it was not read.
    """

    fault: str
    words: str
    subject: str
    whose: str
    share: float
    size_ohm: float | None
    step: StepKey | None
    why: str
    look: str


@plain
class Further:
    """The one reading that tells the first two candidates apart."""

    step: StepKey
    subject: str
    title: str


@plain
class Diagnosis:
    """What some findings together look like, the likeliest first; `explains` are their keys."""

    candidates: tuple[Candidate, ...]
    sure: Sureness
    further: Further | None
    explains: tuple[str, ...]


def diagnoses(tests: list[RunTest], steps: Iterable[Step], findings: Iterable[Finding]) -> tuple[Diagnosis, ...]:
    """Everything that the open findings of some readings look like.

    Args:
        tests: the runs with their readings.
        steps: the job's steps.
        findings: what was judged of them; what is settled or waits for something is left out.
    """
    found = _Diagnosing(tests, {(one.step, one.subject): one for one in steps}, tuple(filter(_tells, findings)))
    return _with_what_they_bring(tuple(found.all())) if found.open else ()


def _with_what_they_bring(found: tuple[Diagnosis, ...]) -> tuple[Diagnosis, ...]:
    """Without those that another one brings along: they are its own."""
    bringing = {kind: place for place, one in enumerate(found) for kind in fault_info(_kind(one)).brings}
    whole = [list(one.explains) for one in found]
    for one in found:
        if _kind(one) in bringing:
            whole[bringing[_kind(one)]] += one.explains
    return tuple(
        changed(one, explains=tuple(keys)) for one, keys in zip(found, whole, strict=True) if _kind(one) not in bringing
    )


def _kind(one: Diagnosis) -> str:
    return one.candidates[0].fault


def _over_range(step: Step) -> bool:
    return step.reading is not None and step.reading.outcome is Outcome.OVER_RANGE


def _tells(finding: Finding) -> bool:
    about = not {Topic.READING, Topic.AGREEMENT}.isdisjoint(finding.topics) or finding.rule == LOAD_CLAMP.key
    return finding.is_open and about and finding.verdict in (Verdict.FALLS_SHORT, Verdict.YOUR_CALL)


def _likeliest(read: OhmsRead) -> list[tuple[Supposed, float]]:
    """The few faults that explain some ohms best, each with its share of belief; none where nothing does."""
    supposed = sorted(read.supposed(), key=lambda one: -one.log_evidence)
    best = max(supposed[0].log_evidence, read.sound())
    if -2 * best > MISFIT[0] + MISFIT[1] * len(read.rows):
        # More than one thing is wrong, or none that is known: the likeliest would still be a guess.
        return []
    weights = [exp(one.log_evidence - best) for one in supposed]
    # Nothing wrong may explain as well: then no fault is sure.
    every = sum(weights) + exp(read.sound() - best)
    told = [(one, weight / every) for one, weight in zip(supposed, weights, strict=True)]
    return [one for one in told if one[1] >= LEAST_SHARE][:MOST_TOLD] if told[0][1] >= LEAST_TOLD else []


class _Diagnosing:
    """The open findings of a job, of which each is explained once."""

    def __init__(self, tests: list[RunTest], steps: Steps, findings: tuple[Finding, ...]) -> None:
        self.tests, self.steps, self.open = tests, steps, findings
        self.explained: set[str] = set()
        self.subjects = dict.fromkeys(subject for _, subject in steps)

    def all(self) -> Iterator[Diagnosis]:
        """The diagnoses, what is plainest first."""
        yield from self._of_pairs()
        yield from self._alone()
        yield from self._of_ohms()

    def _of_pairs(self) -> Iterator[Diagnosis]:
        worry_mohm = self.tests[0].rules.value("insulation_worry_mohm") if self.tests else 0.0
        for subject in self.subjects:
            crossed = open_or_crossed(self.steps, subject)
            if crossed:
                yield self._of_these(crossed, subject, self._about(subject, lambda step: step not in ACROSS))
            poor = poor_pairs(self.steps, subject, worry_mohm)
            about = self._about(subject, lambda step: step in ACROSS)
            about += [one for one in self.open if one.subject == subject and one.rule == AGREE_INSULATION.key]
            if poor and about:
                yield self._of_these(poor, subject, about)

    def _about(self, subject: str, wanted: Callable[[StepKey], bool]) -> list[Finding]:
        return [one for one in self.open if one.subject == subject and one.step is not None and wanted(one.step)]

    def _of_these(self, kinds: dict[str, float], subject: str, about: list[Finding]) -> Diagnosis:
        """Some kinds, each with its share, of what is open about a subject."""
        apart = next(tells_pairs_apart(self.steps, subject, list(kinds)), None) if len(kinds) > 1 else None
        supposed = [(Supposed(kind, subject, 0.0), share) for kind, share in kinds.items()]
        return self._told(supposed[:MOST_TOLD], about, None if apart is None else (apart, subject))

    def _alone(self) -> Iterator[Diagnosis]:
        by_fault: dict[tuple[str, str], list[Finding]] = {}
        left = [one for one in self.open if one.key not in self.explained]
        for kind, subject, finding in seen_alone(left, self.steps):
            by_fault.setdefault((kind, subject), []).append(finding)
        for (kind, subject), about in by_fault.items():
            if kind == SWAPPED and (SLOW, subject) in by_fault:
                # Five times may be too slow, or stand where once does: it was told with that one.
                continue
            changed_over = by_fault.get((SWAPPED, subject), []) if kind == SLOW else []
            supposed = [Supposed(kind, subject, 0.0), *self._written(kind, subject)]
            if changed_over:
                supposed.append(Supposed(SWAPPED, subject, 0.0, step=StepKey.RCD_FIVE))
            yield self._told([(one, 1 / len(supposed)) for one in supposed], [*about, *changed_over], None)

    def _written(self, kind: str, subject: str) -> list[Supposed]:
        """An island's loop may be written down wrongly: it is Ze to the digit, or would fit with its comma moved."""
        zs, electrode = (self._value(key, subject) for key in (StepKey.ZS, StepKey.ELECTRODE))
        if kind not in COMMA or zs is None:
            return []
        if zs == self._value(StepKey.ZE, ORIGIN):
            return [Supposed("copied", subject, 0.0, step=StepKey.ZS)]
        fits = electrode is not None and electrode <= COMMA[kind] * zs <= electrode * ISLAND_TIMES
        return [Supposed("misread", subject, 0.0, step=StepKey.ZS)] if fits else []

    def _value(self, key: StepKey, subject: str) -> float | None:
        step = self.steps.get((key, subject))
        return step.reading.value if step is not None and step.reading is not None else None

    def _of_ohms(self) -> Iterator[Diagnosis]:
        whole = sum_of(self.tests)
        of_ohms = {one.step for one in whole.rows}
        left = [one for one in self.open if one.key not in self.explained and one.step in of_ohms]
        over = [one for one in self.steps.values() if one.step in of_ohms and _over_range(one)]
        if not left or over:
            # What reads over range is no ohms; it was told of before.
            return
        read = OhmsRead(whole)
        for _ in range(MOST_FAULTS):
            kept = _likeliest(read) if left and read.rows else []
            first = kept[0][0] if kept else None
            about = [one for one in left if first and one.step and read.explains(first, one.step, one.subject)]
            if first is None or not about:
                return
            yield self._told(kept, about, self._apart(read, [one for one, _ in kept]))
            # What it leaves unexplained may be another fault.
            left, read = [one for one in left if one not in about], read.without(first)

    def _apart(self, read: OhmsRead, kept: list[Supposed]) -> tuple[StepKey, str] | None:
        """The reading, not taken yet, that the first two put furthest from each other in its own errors."""
        if len(kept) < 2:
            return None
        apart = [
            (abs(kept[0].added(row) - kept[1].added(row)) / row.spread(read.whole.off), (row.step, row.subject))
            for row in read.whole.rows
            if row.value is None and (row.step, row.subject) in self.steps
        ]
        furthest = max(apart, default=None)
        return furthest[1] if furthest is not None and furthest[0] > APART else None

    def _told(
        self, supposed: list[tuple[Supposed, float]], about: list[Finding], further: tuple[StepKey, str] | None
    ) -> Diagnosis:
        self.explained |= {one.key for one in about}
        share = supposed[0][1]
        return Diagnosis(
            tuple(self._candidate(*one) for one in supposed),
            Sureness.SURE if share >= SURE else Sureness.LIKELY if share >= LIKELY else Sureness.OPEN,
            None if further is None else Further(*further, self.steps[further].title),
            tuple(one.key for one in about),
        )

    def _candidate(self, one: Supposed, share: float) -> Candidate:
        info = fault_info(one.fault)
        return Candidate(
            one.fault, info.words, one.subject, self._name(one.subject), round(share, 2),
            round(abs(one.size), 2) if info.adds is not None and info.adds.piece != "length" and one.size else None,
            one.step, info.why, info.look,
        )  # fmt: skip

    def _name(self, subject: str) -> str:
        """What a subject is called: a circuit, a part of one's cable, a guard; nothing at the origin."""
        for test in self.tests:
            installation = test.case.installation
            leg = installation.leg(subject)
            circuit = installation.tree.circuits.get(leg.circuit if leg is not None else subject)
            if circuit is not None:
                return " ".join(filter(None, (circuit.name, leg.name if leg is not None else "")))
            guard = tested_rcds(test.case.run, StepKey.RCD_TRIP).get(subject)
            if guard is not None:
                return guard.name
        return ""
