"""One run under test: its design, and what has been read so far. The testing layer judges this and nothing else."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fulmen.core.circuit.run_figures import Case
from fulmen.core.model.readings import ByStep, Reading, StepKey, by_step
from fulmen.core.reference.rule_set import RuleSet


@dataclass(frozen=True, slots=True)
class RunTest:
    """One run's design with the readings of the whole job."""

    case: Case
    readings: ByStep

    @property
    def rules(self) -> RuleSet:
        """The edition that it is judged by."""
        return self.case.rules

    def figure(self, step: StepKey, subject: str) -> float | None:
        """The measured figure of a step, or None; a figure over range is no figure."""
        return self.readings.figure(step, subject)


def tests_of(cases: Iterable[Case], readings: tuple[Reading, ...]) -> list[RunTest]:
    """Every run of an installation with the readings taken of it."""
    taken = by_step(readings)
    return [RunTest(case, taken) for case in cases]
