"""The coach's order beside a second solver that tries every legal order exactly and shares no code with it."""

import unittest

from fulmen.core.installation.installation import installation_of
from fulmen.core.verification.instruments.dials import dial
from fulmen.core.verification.steps.coach import coach
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.site_map import site_map
from tests.independent.order import S, Test, shortest_s
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, TREATED_AS_PME, evaluation, job


def as_facts(step: Step) -> Test:
    """A step as plain facts: where, what hangs where, what it does."""
    car, ends = step.where == "at the charge point", frozenset(str(at) for lead in step.leads for at in lead.at)
    spot = "car" if car else "board" if step.where == "at the board" else "origin"
    target = {
        lead.jack: lead.terminal if lead.terminal.startswith("adapter") else f"{lead.terminal} {spot}"
        for lead in step.leads
    }
    trips = step.step in ("rcd_button", "rcd_origin_trip") or (step.function == "rcd" and dial(step.dial).multiple >= 1)
    return Test(
        key=str(step.step), live=step.stage == "live", rank=step.rank, spot=spot, dial=step.dial,
        leads=tuple(sorted(target.items())), ends=ends, link=str(step.links), adapter=step.adapter,
        hold=step.kind == "hold", common=step.circuit == "origin", trips=trips,
    )  # fmt: skip


class Bound(unittest.TestCase):
    def compared(self, name: str) -> tuple[float, float]:
        """What the coach's order of a job takes, and the least that any legal order takes [s]."""
        # The second solver knows one board and one unit, and no box between them.
        changes = {"readings": [], "circuits.0.boxes": []}
        steps = [one for one in evaluation(name, changes).steps if one.required]
        where = site_map(installation_of(job(name)))
        way_s = S["walk_begins"] + where.metres("board", "charge-point") * S["walk_a_metre"]
        return coach(steps, where).coached.duration_s, shortest_s(map(as_facts, steps), way_s)

    def test_within_three_per_cent_of_the_least(self) -> None:
        for name in (DEVICE_IN_UNIT, HALFWAY, TREATED_AS_PME):
            coached_s, least_s = self.compared(name)
            with self.subTest(name, coached=coached_s, least=least_s):
                self.assertGreaterEqual(coached_s, least_s - 1e-6)
                self.assertLessEqual(coached_s, least_s * 1.03)


if __name__ == "__main__":
    unittest.main()
