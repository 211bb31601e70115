"""Every planted slip is noticed by name, and sound sets of readings raise nothing.

The slips and the sets stand beside this file as data, with the reason of each; they were written before they were run.
"""

import tomllib
import unittest
from datetime import date
from pathlib import Path
from typing import Any

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Finding, Topic
from fulmen.core.model.job import Job
from fulmen.core.verification.reading_order import date_gaps
from tests.jobs import DEVICE_IN_UNIT, RULES, TREATED_AS_PME, TT, job
from tests.trials.test_trials import NOT_KNOWN, told

HERE = Path(__file__).parent
TODAY = date(2026, 11, 27)
READER = {
    "instrument": "Tester 4",
    "taken_by": "R. Quillfeather",
    "taken_at": "2026-11-18T13:28:00Z",
    "temperature_c": 9.0,
}
# An island whose two earths are apart: 32 Ω in garden soil, the cable on the house earth (common practice, no source).
AT_UNIT = "charge_points.0.arrangement"
ISLAND = {
    f"{AT_UNIT}.car_earth": "own_electrode",
    f"{AT_UNIT}.electrode_conductor_csa_mm2": 16.0,
    f"{AT_UNIT}.electrode_conductor_protection": "guarded",
}
ON_THE_ISLAND = {"electrode": 32.0, "ir_earths": 200.0, "zs_cable": 0.29, "zs": 33.0}


def data(name: str) -> list[dict[str, Any]]:
    with (HERE / f"{name}.toml").open("rb") as source:
        ((_, found),) = tomllib.load(source).items()
    assert isinstance(found, list)
    return found


def known(given: dict[str, Any]) -> dict[str, Any]:
    return {name: None if value == NOT_KNOWN else value for name, value in given.items()}


def island(readings: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The readings of a job as if its unit stood on an electrode of its own."""
    kept = [one for one in readings if one["step"] not in ("zs", "open_pen_test")]
    return kept + [taken({"step": step, "subject": "ev", "value": value}) for step, value in ON_THE_ISLAND.items()]


def taken(given: dict[str, Any]) -> dict[str, Any]:
    outcome = "right" if given.get("value") is None else "measured"
    volts = {"test_voltage_v": 500} if given["step"].startswith("ir_") else {}
    at = {"taken_at": "2026-11-18T10:30:00Z"} if given["step"] in ("electrode", "ir_earths", "r2") else {}
    return {**READER, "outcome": outcome, **volts, **at, **given}


def with_readings(start: Job, readings: list[dict[str, Any]]) -> Job:
    return parse_job({**start.model_dump(mode="json"), "readings": readings})


def planted(trial: dict[str, Any]) -> Job:
    """The example with the one thing that is wrong."""
    changes = {**(ISLAND if trial.get("island") else {}), **known(trial.get("changes", {}))}
    start = apply_changes(job(trial["on"]), tuple(Change(field=name, value=value) for name, value in changes.items()))
    readings = start.model_dump(mode="json")["readings"]
    readings = island(readings) if trial.get("island") else readings
    removed = set(trial.get("remove", ()))
    readings = [one for one in readings if f"{one['step']}/{one['subject']}" not in removed]
    for given in trial.get("set", ()):
        for one in readings:
            if (one["step"], one["subject"]) == (given["step"], given["subject"]):
                one.update(known({**given, "outcome": given.get("outcome", one["outcome"])}))
                if one["value"] is not None and one["outcome"] == "right":
                    one["outcome"] = "measured"
    return with_readings(start, [*readings, *(taken(known(given)) for given in trial.get("add", ()))])


def noticed(trial: dict[str, Any], whole: Job, found: Evaluation) -> bool:
    kind, _, key = trial["rule"].partition(":")
    if key:
        return key in {gap.key for gap in (*found.gaps, *date_gaps(whole, TODAY))}
    return any(one.rule == kind and one.is_open for one in found.findings)


def about_readings(finding: Finding) -> bool:
    return bool({Topic.READING, Topic.AGREEMENT} & set(finding.topics))


class Planted(unittest.TestCase):
    def test_the_examples_are_sound(self) -> None:
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME, TT):
            self.assertEqual(told([one for one in evaluate(job(name), RULES).findings if one.is_open]), "", name)

    def test_each_is_noticed_by_name(self) -> None:
        for trial in data("planted"):
            with self.subTest(trial["what"]):
                whole = planted(trial)
                found = evaluate(whole, RULES)
                self.assertTrue(noticed(trial, whole, found), told([one for one in found.findings if one.is_open]))
                self.assertTrue(found.gaps or date_gaps(whole, TODAY), "no certificate goes out")

    def test_they_are_many_and_argued(self) -> None:
        found = data("planted")
        self.assertGreaterEqual(len(found), 60)
        self.assertEqual(len({one["what"] for one in found}), len(found))
        self.assertTrue(all(one["why"] for one in found))


class Healthy(unittest.TestCase):
    def healthy(self, trial: dict[str, Any]) -> Job:
        changes = tuple(Change(field=name, value=value) for name, value in trial["changes"].items())
        start = apply_changes(job(trial["on"]), changes)
        readings = start.model_dump(mode="json")["readings"]
        for one in readings:
            value = trial["read"].get(f"{one['step']}/{one['subject']}")
            one["temperature_c"] = trial["temperature_c"]
            if value is not None:
                one.update(outcome="measured", value=value)
        return with_readings(start, readings)

    def test_none_raises_anything(self) -> None:
        for place, trial in enumerate(data("healthy")):
            with self.subTest(place, on=trial["on"]):
                findings = evaluate(self.healthy(trial), RULES).findings
                self.assertEqual(told([one for one in findings if one.is_open and about_readings(one)]), "")

    def test_the_island_raises_nothing(self) -> None:
        whole = planted({"on": DEVICE_IN_UNIT, "island": True})
        findings = evaluate(whole, RULES).findings
        self.assertEqual(told([one for one in findings if one.is_open and about_readings(one)]), "")

    def test_they_are_many(self) -> None:
        self.assertGreaterEqual(len(data("healthy")), 40)


if __name__ == "__main__":
    unittest.main()
