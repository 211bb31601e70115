"""Whatever was kept, the answer equals one worked out from nothing: random edits and readings of every example."""

import json
import unittest
from random import Random
from threading import Thread
from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.judging.kept_designs import KeptDesigns
from fulmen.core.judging.testing import steps_of
from fulmen.core.model.job import Job
from fulmen.core.model.readings import ByStep, StepKey, by_step
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.readings.kept_steps import KeptSteps, Noting
from tests.core.test_readings import reading
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, RULES, TT, example_text, job
from tests.sampling import SEED, SOAKING, some

NAMES = tuple(sorted(path.stem for path in EXAMPLES.glob("*.json")))
# What names other parts: another value would be another tree, or none.
LEFT_ALONE = {"schema_version", "rule_set", "id", "from_board", "feeds", "group", "subject", "step", "board", "after"}


def leaves(part: Any, path: tuple[Any, ...] = ()) -> list[tuple[tuple[Any, ...], Any]]:
    """Every value of a document by its path."""
    if isinstance(part, dict):
        return [one for name, value in part.items() for one in leaves(value, (*path, name))]
    if isinstance(part, list):
        return [one for place, value in enumerate(part) for one in leaves(value, (*path, place))]
    return [(path, part)]


def named(path: tuple[Any, ...]) -> str:
    return next(one for one in reversed(path) if isinstance(one, str))


def put(document: Any, path: tuple[Any, ...], value: Any) -> None:
    *above, last = path
    for step in above:
        document = document[step]
    document[last] = value


def met_values() -> dict[str, list[Any]]:
    """Every value that a field of any name has in some example."""
    found: dict[str, dict[str, Any]] = {}
    for name in NAMES:
        for path, value in leaves(json.loads(example_text(name))):
            found.setdefault(named(path), {})[repr(value)] = value
    return {name: list(values.values()) for name, values in found.items() if name not in LEFT_ALONE}


def edited(document: dict[str, Any], met: dict[str, list[Any]], luck: Random) -> Job | None:
    """The document with one value changed, as somebody typing changes it; None where it can't be taken so."""
    places = [(path, value) for path, value in leaves(document) if len(met.get(named(path), ())) > 1]
    path, before = luck.choice(places)
    value = luck.choice(met[named(path)])
    if isinstance(before, float) and luck.random() < 0.5:
        value = round(before * luck.choice((0.5, 0.9, 1.1, 2.0)), 3)
    put(document, path, value)
    try:
        return parse_job(json.loads(json.dumps(document)))
    except JobFileError:
        put(document, path, before)
        return None


def typed(document: dict[str, Any], whole: Job, luck: Random) -> None:
    """A reading taken, taken back, or taken again at another hour of the clock that is the same moment."""
    readings = document["readings"]
    if readings and luck.random() < 0.3:
        readings.pop(luck.randrange(len(readings)))
    elif readings and luck.random() < 0.3:
        again = luck.choice(readings)
        again["taken_at"] = again["taken_at"].replace("Z", "+00:00").replace("+00:00", "-00:00")
    else:
        step = luck.choice(evaluate(whole, RULES).steps)
        readings.append(reading(step.step, round(luck.uniform(0.01, 3), 2), subject=step.subject))


class NothingChanges(unittest.TestCase):
    """One keeper sees every edit of every example; each answer is held against one without a keeper."""

    def test_random_edits_and_readings(self) -> None:
        luck, met, kept = Random(f"{SEED}/kept"), met_values(), KeptDesigns(most=6)
        for name in some(NAMES, 6, "kept"):
            document = json.loads(example_text(name))
            for number in range(200 if SOAKING else 12):
                whole = parse_job(json.loads(json.dumps(document)))
                if luck.random() < 0.5:
                    typed(document, whole, luck)
                    try:
                        whole = parse_job(json.loads(json.dumps(document)))
                    except JobFileError:
                        document["readings"].pop()
                else:
                    whole = edited(document, met, luck) or whole
                with self.subTest(name, edit=number):
                    rules = rule_set(whole.rule_set)
                    self.assertEqual(
                        evaluate(whole, rules, kept).model_dump_json(), evaluate(whole, rules).model_dump_json()
                    )

    def test_going_back_and_forth_between_jobs(self) -> None:
        kept = KeptDesigns(most=2)
        fresh = {name: evaluate(job(name), RULES).model_dump_json() for name in NAMES[:5]}
        for _ in range(2):
            for name, answer in fresh.items():
                self.assertEqual(evaluate(job(name), RULES, kept).model_dump_json(), answer)

    def test_the_same_moment_at_another_hour_is_another_answer(self) -> None:
        at = {"taken_at": "2026-11-18T10:00:00Z"}
        kept, texts = KeptDesigns(), []
        for changed in (at, {"taken_at": "2026-11-18T11:00:00+01:00"}):
            taken = [{**reading("zs", 0.4), **changed}]
            texts.append(evaluate(job(DEVICE_IN_UNIT, {"readings": taken}), RULES, kept).model_dump_json())
        self.assertNotEqual(*texts)

    def test_several_at_once(self) -> None:
        kept, answers, wanted = KeptDesigns(most=2), [], {}
        for name in NAMES[:4]:
            wanted[name] = evaluate(job(name), RULES).model_dump_json()

        def ask(name: str) -> None:
            answers.append((name, evaluate(job(name), RULES, kept).model_dump_json()))

        threads = [Thread(target=ask, args=(name,)) for name in [*wanted] * 4]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        self.assertEqual(len(answers), len(threads))
        for name, answer in answers:
            self.assertEqual(answer, wanted[name])


class Keeps(unittest.TestCase):
    def of(self, kept: KeptDesigns, whole: Job) -> Any:
        return kept.of(whole, whole.readings, RULES)

    def test_a_reading_leaves_the_design_as_it_was(self) -> None:
        kept = KeptDesigns()
        first = self.of(kept, job())
        others = [one for one in job().readings if one.step not in (StepKey.ZE, StepKey.FAULT_CURRENT_NEUTRAL)]
        for number, one in enumerate(job().readings):
            if one in others:
                less = (*job().readings[:number], *job().readings[number + 1 :])
                with self.subTest(one.step):
                    again = self.of(kept, job().model_copy(update={"readings": less}))
                    goes_by = one.step in (StepKey.FAULT_CURRENT_EARTH, StepKey.ELECTRODE)
                    self.assertTrue(again is first or goes_by)

    def test_what_the_design_goes_by_makes_another_one(self) -> None:
        kept = KeptDesigns()
        for name, step, value, subject in (
            (DEVICE_IN_UNIT, "ze", 0.2, "origin"), (DEVICE_IN_UNIT, "fault_current_neutral", 1.1, "origin"),
            (TT, "electrode", 61.0, "origin"), (TT, "electrode_loop", 61.0, "origin"),
        ):  # fmt: skip
            bare = job(name, {"readings": []})
            read = job(name, {"readings": [reading(step, value, subject=subject)]})
            with self.subTest(step):
                self.assertIsNot(self.of(kept, bare), self.of(kept, read))
                self.assertIs(self.of(kept, bare), self.of(kept, bare))

    def test_an_edit_makes_another_one_and_the_oldest_goes(self) -> None:
        kept = KeptDesigns(most=1)
        first = self.of(kept, job())
        self.assertIsNot(self.of(kept, job(DEVICE_IN_UNIT, {"circuits.0.name": "Another"})), first)
        self.assertIsNot(self.of(kept, job()), first)

    def test_a_step_is_kept_while_the_readings_that_it_asked_for_are_the_same(self) -> None:
        whole = job()
        steps = KeptSteps(steps_of(KeptDesigns().of(whole, whole.readings, RULES).design), RULES)
        before = {(one.step.step, one.step.subject): one for one in steps.judged(by_step(whole.readings))}
        changed = [one.model_dump(mode="json") for one in whole.readings]
        next(one for one in changed if one["step"] == "r1_r2")["value"] = 0.19
        after = steps.judged(by_step(job(DEVICE_IN_UNIT, {"readings": changed}).readings))
        anew = {one.step.step for one in after if one is not before[one.step.step, one.step.subject]}
        self.assertIn(StepKey.R1_R2, anew)
        self.assertIn(StepKey.ZS, anew, "its band comes from R1+R2")
        self.assertNotIn(StepKey.IR_LIVE_EARTH, anew)
        self.assertLess(len(anew), 8)

    def test_a_step_that_went_through_all_readings_would_be_refused(self) -> None:
        noting = ByStep(Noting(by_step(job().readings).taken))
        self.assertIsNotNone(noting.figure(StepKey.ZE, "origin"))
        for through in (lambda: list(noting.taken), lambda: len(noting.taken), lambda: dict(noting.taken)):
            with self.assertRaises(TypeError):
                through()
