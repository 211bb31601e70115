"""The steps of a design with their judgement, each kept while the readings that it asked for are the same.

Which those are is not written down anywhere: what a step asks for while it is worked out is noted, so a new limit or
band that looks at another reading is kept rightly by itself.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import NoReturn

from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Edition
from fulmen.core.model.readings import ByStep, Reading, StepKey
from fulmen.core.plain import plain
from fulmen.core.verification.readings.reading_checks import reading_finding
from fulmen.core.verification.steps.planned import PlannedStep
from fulmen.core.verification.steps.sequence import Step, asked_for, worked_out

Key = tuple[StepKey, str]


@plain
class JudgedStep:
    """A step with the finding about its reading, if there is one."""

    step: Step
    finding: Finding | None


class Noting(Mapping[Key, tuple[Reading, ...]]):
    """Readings by step and subject that note which of them were asked for."""

    def __init__(self, taken: Mapping[Key, tuple[Reading, ...]]) -> None:
        self._taken = taken
        self.asked: set[Key] = set()

    def __getitem__(self, key: Key) -> tuple[Reading, ...]:
        self.asked.add(key)
        return self._taken[key]

    def __iter__(self) -> Iterator[Key]:
        self._refuse()

    def __len__(self) -> int:
        self._refuse()

    def _refuse(self) -> NoReturn:
        # What goes through all of them would not be noted, and a kept step be wrong one day.
        raise TypeError("a step asks for readings by step and subject")


class KeptSteps:
    """The steps that a design asks for, as they were judged last."""

    def __init__(self, planned: tuple[PlannedStep, ...], edition: Edition) -> None:
        self.planned, self.edition = planned, edition
        self._last: dict[Key, tuple[dict[Key, str], JudgedStep]] = {}

    def judged(self, readings: ByStep) -> tuple[JudgedStep, ...]:
        """Every step with what was read of it, and what is to be said of that; each is kept for who asks again."""
        # What was taken back counts for nothing and is shown all the same: where all of a step was, it is all there is.
        every = {key: readings.told(*key) for key in (*readings.taken, *readings.back)}
        texts = {key: "".join(one.model_dump_json() for one in told) for key, told in every.items()}
        return tuple(self._judged(one, readings, texts) for one in asked_for(self.planned, readings))

    def _judged(self, planned: PlannedStep, readings: ByStep, texts: dict[Key, str]) -> JudgedStep:
        here = (planned.key, planned.subject)
        last = self._last.get(here)
        if last is not None and all(texts.get(key, "") == text for key, text in last[0].items()):
            return last[1]
        noting = Noting(readings.taken)
        judged = _judged(planned, ByStep(noting, readings.back), self.edition)
        self._last[here] = ({key: texts.get(key, "") for key in noting.asked}, judged)
        return judged


def judged_once(planned: tuple[PlannedStep, ...], edition: Edition, readings: ByStep) -> tuple[JudgedStep, ...]:
    """Every step with what was read of it, for who asks but once: nothing is noted, nothing kept."""
    return tuple(_judged(one, readings, edition) for one in asked_for(planned, readings))


def _judged(planned: PlannedStep, readings: ByStep, edition: Edition) -> JudgedStep:
    step = worked_out(planned, readings)
    return JudgedStep(step, reading_finding(step, edition))
