"""A guard is what it is: every fact of every guard changed, and each rule held to its row of the table.

What the table calls worse never judges better; what a rule leaves out, or a rule without a row, never changes by it.
"""

import copy
import unittest
from collections.abc import Iterator
from typing import Any, NamedTuple

from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import evaluate, findings_of
from fulmen.core.findings.finding import Finding, RuleKey, Verdict
from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.guard_facts import LEANS_ON, GuardFact, Worse
from fulmen.core.model.readings import StepKey
from tests.jobs import EXAMPLES, RULES, SHARED_FRONT, job, mark
from tests.sampling import some
from tests.trials.test_trials import NOT_KNOWN, trials

ORDER = (Verdict.MEETS, Verdict.YOUR_CALL, Verdict.NEEDS, Verdict.FALLS_SHORT)
NEEDS = ORDER.index(Verdict.NEEDS)
# From the better end of "more is worse" on: residual current, delay, type from AC on, poles, rated current, voltage.
LADDERS: dict[GuardFact, tuple[Any, ...]] = {
    GuardFact.RESIDUAL_MA: (10, 30, 100, 300, 500),
    GuardFact.TIME_DELAYED: (False, True),
    GuardFact.TYPE: ("AC", "A", "F", "B"),
    GuardFact.POLES: (1, 2, 3, 4),
    GuardFact.RATING_A: (6, 16, 20, 32, 40, 63, 80, 100),
    GuardFact.VOLTAGE_V: (230, 400),
    GuardFact.SHARED: ("no", "yes"),
}
# What proves an RCD in either way of testing.
PROVES = {StepKey.RCD_TRIP: (StepKey.RCD_TRIP, StepKey.RCD_AC_0)}
OF_RCD = {GuardFact.RESIDUAL_MA: "residual_ma", GuardFact.TIME_DELAYED: "time_delayed", GuardFact.TYPE: "type"}
Data = dict[str, Any]
Path = tuple[str | int, ...]
Judged = dict[RuleKey, tuple[tuple[object, ...], ...]]


class Case(NamedTuple):
    """One fact of one guard of one job, with the path that sets it."""

    name: str
    data: Data
    fact: GuardFact
    paths: tuple[Path, ...]


def jobs() -> Iterator[tuple[str, Data]]:
    """Every example, and every ordinary trial and trap built on one; without readings and decisions."""
    for path in sorted(EXAMPLES.glob("*.json")):
        yield path.stem, job(path.stem, {"readings": [], "decisions": []}).model_dump(mode="json")
    for file in ("ordinary", "traps"):
        for trial in trials(file):
            changes = {field: None if value == NOT_KNOWN else value for field, value in trial["changes"].items()}
            made = job(trial["on"], {"readings": [], "decisions": [], **changes})
            yield trial["what"], made.model_dump(mode="json")


def at(data: Any, path: Path) -> Any:
    for step in path:
        data = data[step]
    return data


def stored_guards(data: Data) -> Iterator[Path]:
    """Where guards are stored: in front of boards and groups, in boxes, on ways."""
    for place, board in enumerate(data["boards"]):
        yield from (("boards", place, "incomer", one) for one in range(len(board["incomer"])))
        for group, held in enumerate(board["groups"]):
            yield from (("boards", place, "groups", group, "guards", one) for one in range(len(held["guards"])))
    for place, circuit in enumerate(data["circuits"]):
        yield "circuits", place, "device"
        for box, held in enumerate(circuit["boxes"]):
            yield from (("circuits", place, "boxes", box, "guards", one) for one in range(len(held["guards"])))


def cases(name: str, data: Data) -> Iterator[Case]:
    """Every fact of every guard of a job."""
    rcds = [(*path, "rcd") for path in stored_guards(data)]
    rcds += [("charge_points", place, "rcd_inside") for place in range(len(data["charge_points"]))]
    for path in rcds:
        if at(data, path) is not None:
            yield from (Case(name, data, fact, ((*path, field),)) for fact, field in OF_RCD.items())
    for path in stored_guards(data):
        for fact in (GuardFact.POLES, GuardFact.RATING_A, GuardFact.VOLTAGE_V):
            yield Case(name, data, fact, ((*path, fact.value),))
    for place, board in enumerate(data["boards"]):
        yield Case(name, data, GuardFact.SHARED, (("boards", place, "feeds_others"),))
        for group in range(len(board["groups"])):
            yield Case(name, data, GuardFact.SHARED, (("boards", place, "groups", group, "feeds_others"),))


def judged(case: Case, value: object) -> Judged:
    """What every rule says with a fact at one value: verdict and figures of each of its findings."""
    data = copy.deepcopy(case.data)
    for path in case.paths:
        at(data, path[:-1])[path[-1]] = value
    found: dict[RuleKey, list[Finding]] = {}
    for one in findings_of(parse_job(data), RULES):
        found.setdefault(one.rule, []).append(one)
    return {
        rule: tuple(sorted((f.key, f.verdict.value, f.value, f.limit) for f in each)) for rule, each in found.items()
    }


def worst(told: tuple[tuple[object, ...], ...]) -> int:
    return max((ORDER.index(Verdict(str(one[1]))) for one in told), default=0)


def broken(case: Case) -> Iterator[str]:
    """Where a rule does not keep to its row."""
    ladder = LADDERS[case.fact]
    steps = [judged(case, value) for value in ladder]
    for (low, less), (high, more) in zip(
        zip(ladder, steps, strict=True), list(zip(ladder, steps, strict=True))[1:], strict=False
    ):
        for rule in less.keys() | more.keys():
            before, after = less.get(rule, ()), more.get(rule, ())
            if before == after:
                continue
            told = f"{rule} by {case.fact} {low} → {high}: {before} → {after}"
            cell = LEANS_ON.get(rule, {}).get(case.fact)
            if not isinstance(cell, Worse):
                yield f"left out, yet it changes: {told}"
            elif NEEDS in (worst(before), worst(after)):
                continue  # no table holds a figure for a device that small or that large
            elif cell in (Worse.MORE, Worse.SET) and worst(after) < worst(before):
                yield f"more is worse, yet it judges better: {told}"
            elif cell in (Worse.LESS, Worse.NOT_SET) and worst(after) > worst(before):
                yield f"less is worse, yet more judges worse: {told}"


class Table(unittest.TestCase):
    def test_no_rule_leaves_out_a_fact_without_a_reason(self) -> None:
        for rule, row in LEANS_ON.items():
            with self.subTest(rule):
                self.assertIn(rule, REGISTER)
                self.assertEqual(set(row), set(GuardFact))
                self.assertTrue(all(isinstance(cell, Worse) or len(cell) > 8 for cell in row.values()))

    def test_every_rule_keeps_to_its_row(self) -> None:
        every = [case for name, data in jobs() for case in cases(name, data)]
        for case in some(every, 150, "guard facts"):
            with self.subTest(case.name, paths=case.paths):
                self.assertEqual(list(broken(case)), [])


class Proven(unittest.TestCase):
    """What a design leans on is tested, whoever fitted it: the papers wait for the step, or for the reason it is not."""

    def test_every_proof_is_a_step_that_the_papers_wait_for(self) -> None:
        seen = set()
        for name, data in some(jobs(), 60, "proofs"):
            made = parse_job(data)
            found = evaluate(made, RULES)
            steps = {(one.step, one.subject): one for one in found.steps}
            for one in found.findings:
                for proof in one.proven_by:
                    seen.add((one.rule, proof.step))
                    tests = [steps.get((key, proof.subject)) for key in PROVES.get(proof.step, (proof.step,))]
                    taken = next((step for step in tests if step is not None), None)
                    with self.subTest(name, finding=one.key, proof=proof):
                        assert taken is not None, "no step tests it"
                        self.assertTrue(taken.required, taken.title)
        self.assertGreater(len(seen), 8)

    def test_an_rcd_from_before_at_the_houses_board_holds_the_papers_back(self) -> None:
        house = ("rcd_trip", "house-rcd")
        for changes, wanted in (({}, True), ({"circuits.0.device.rcd": mark("A")}, False)):
            found = evaluate(job(SHARED_FRONT, changes), RULES)
            step = next(one for one in found.steps if (one.step.value, one.subject) == house)
            with self.subTest(changes):
                self.assertEqual((step.required, step.waivable), (wanted, True))
                self.assertEqual(f"{house[0]}/{house[1]}" in {gap.key for gap in found.gaps}, wanted)

    def test_a_reason_stands_in_its_place(self) -> None:
        reading = {"step": "rcd_trip", "subject": "house-rcd", "outcome": "could_not_test", "taken_by": "R. Quillfeather",
                   "reason": "the freezer must not go off", "taken_at": "2026-11-18T14:00:00Z", "value": None}  # fmt: skip
        found = evaluate(job(SHARED_FRONT, {"readings": [reading]}), RULES)
        self.assertNotIn("rcd_trip/house-rcd", {gap.key for gap in found.gaps})


if __name__ == "__main__":
    unittest.main()
