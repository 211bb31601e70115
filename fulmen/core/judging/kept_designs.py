"""What was worked out last, kept by equal inputs: whoever types a reading waits for the tests alone.

What is kept never changes an answer: a design is kept by the edition, by the very bytes of the job without its
readings, and by the figures that it takes from them. Nothing is kept longer than there is room for, and whoever wants
things kept holds the keeper: no module does.
"""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass, field
from threading import Lock

from fulmen.core.circuit.measured import Measured, measured_of
from fulmen.core.judging.design import Design, design_of
from fulmen.core.judging.known import unread
from fulmen.core.judging.shown import Shown, shown_of
from fulmen.core.judging.testing import steps_of
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Reading
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.verification.readings.kept_steps import KeptSteps

MOST_KEPT = 24


@dataclass
class KeptDesign:
    """A design that was worked out, with what else was asked of it so far."""

    design: Design
    _shown: Shown | None = None
    _steps: KeptSteps | None = None

    def shown(self) -> Shown:
        """What it shows."""
        if self._shown is None:
            self._shown = shown_of(self.design)
        return self._shown

    def steps(self) -> KeptSteps:
        """The steps that it asks for, as they were worked out last."""
        if self._steps is None:
            self._steps = KeptSteps(steps_of(self.design), self.design.rules)
        return self._steps


@dataclass
class KeptDesigns:
    """The designs that were asked about last, each once; several threads may ask."""

    most: int = MOST_KEPT
    _designs: OrderedDict[tuple[str, str, str], KeptDesign] = field(default_factory=OrderedDict)
    _lock: Lock = field(default_factory=Lock)

    def of(self, job: Job, counting: tuple[Reading, ...], rules: RuleSet) -> KeptDesign:
        """The design of a job: as it was worked out, or worked out now.

        Args:
            job: the whole job; its structure must have been checked.
            counting: those of its readings that count.
            rules: the edition.
        """
        measured = measured_of(counting)
        key = (rules.key, job.model_dump_json(exclude={"readings"}), _exactly(measured))
        with self._lock:
            found = self._designs.get(key)
            if found is not None:
                self._designs.move_to_end(key)
                return found
        # Two who ask at once both work it out: neither waits for the other, and both find the same.
        found = KeptDesign(design_of(unread(job), measured, rules))
        with self._lock:
            self._designs[key] = found
            while len(self._designs) > self.most:
                self._designs.popitem(last=False)
        return found


def _exactly(measured: Measured) -> str:
    """Figures as a text that only the same ones have."""
    figures = (measured.ze_ohm, measured.fault_ka, measured.fault_neutral_ka)
    electrodes = (sorted(one.items()) for one in (measured.electrode_ohm, measured.electrode_loop_ohm))
    months = sorted((subject, sorted(when)) for subject, when in measured.electrode_months.items())
    return repr((figures, *electrodes, months))
