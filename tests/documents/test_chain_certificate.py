"""A run through a sub-main goes all the way to its certificate: every circuit tested, listed and drawn."""

import unittest
from datetime import UTC, datetime, timedelta
from typing import Any

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.job import Job
from fulmen.core.papers.circuits import way_words
from fulmen.core.verification.steps.sequence import Step
from fulmen.documents.certificate import certificate_html
from fulmen.store.issues import prepare_issue
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, THREE_PHASE, job


def reading(step: Step, minute: int = 0) -> dict[str, Any]:
    """A reading that agrees with what is expected and keeps its limit, so many minutes after the first."""
    common = {
        "step": step.step.value,
        "subject": step.subject,
        "taken_by": "R. Quillfeather",
        "taken_at": (datetime(2026, 11, 18, 10, tzinfo=UTC) + timedelta(minutes=minute)).isoformat(),
        "instrument": "Vehicle adapter 2" if step.function == "vehicle" else "Tester 4",
    }
    if step.kind != "figure":
        return {**common, "outcome": "right"}
    if step.unit == "MΩ":
        return {**common, "outcome": "over_range", "value": 999.0, "test_voltage_v": 500}
    given = {"ze": 0.21, "fault_current_neutral": 1.1, "fault_current_earth": 1.1, "rcd_trip": 21.0, "pilot_duty": 53.3}
    value = given.get(step.step.value)
    if value is None:
        value = round(((step.expected_low or 0.0) + (step.expected_high or 0.0)) / 2, 3)
    return {**common, "outcome": "measured", "value": value}


def complete() -> Job:
    """The garage's job with readings, inspections and signatures, and the operator's answer."""
    done = job(DEVICE_IN_UNIT).model_dump(mode="json")
    whole = apply_changes(
        job(GARAGE),
        (
            Change(field="certificate", value=done["certificate"]),
            Change(field="certificate.comments_on_existing", value="Nothing to remark."),
            Change(field="inspections", value=done["inspections"]),
            Change(field="testing.instruments", value=done["testing"]["instruments"]),
            Change(field="boards.1.other_loads", value=[]),
            Change(field="supply.operator_allows_to_rating", value="yes"),
        ),
    )
    # The expected bands move as readings come in, so they are taken in the order of the sequence.
    for step in evaluate(whole, RULES).steps:
        if not step.required and step.step != "r1_rn":
            continue
        now = next(one for one in evaluate(whole, RULES).steps if (one.step, one.subject) == (step.step, step.subject))
        taken = [*whole.model_dump(mode="json")["readings"], reading(now, len(whole.readings))]
        whole = apply_changes(whole, (Change(field="readings", value=taken),))
    return whole


class ChainCertificate(unittest.TestCase):
    whole: Job

    @classmethod
    def setUpClass(cls) -> None:
        cls.whole = complete()

    def test_nothing_stands_before_it(self) -> None:
        gaps = [gap.text for gap in evaluate(self.whole, RULES).gaps if gap.kind != "signature"]
        self.assertEqual(gaps, [])

    def test_every_circuit_and_board_stands_on_it(self) -> None:
        issue = prepare_issue(self.whole, "FC-2026-0002", datetime(2026, 11, 24, tzinfo=UTC), None)
        html = certificate_html(issue)
        for words in ("Sub-main to the garage", "BS 88-2", "supplied by Sub-main to the garage", "flat twin-and-earth, then power-and-data",
                      "What goes off", "<svg"):  # fmt: skip
            with self.subTest(words):
                self.assertIn(words, html)

    def test_what_was_there_already_is_named_so(self) -> None:
        there = apply_changes(
            self.whole,
            (
                Change(field="circuits.0.fitted_with_this_job", value=False),
                Change(field="circuits.0.looked_at", value="yes"),
                Change(field="circuits.0.stays_connected", value=[]),
            ),
        )
        for whole, told in ((self.whole, False), (there, True)):
            html = certificate_html(prepare_issue(whole, "FC-2026-0003", datetime(2026, 11, 24, tzinfo=UTC), None))
            self.assertEqual("Sub-main to the garage (existing)" in html, told)

    def test_on_three_phases_the_way_names_its_line_conductors(self) -> None:
        whole = job(THREE_PHASE)
        told = [way_words(installation_of(whole), one) for one in whole.circuits]
        self.assertEqual(
            told, [f"{whole.circuits[0].way} L1–L3", f"{whole.circuits[1].way} L1–L3", f"{whole.circuits[2].way} L2"]
        )
        self.assertEqual([way_words(installation_of(self.whole), one) for one in self.whole.circuits], ["8", "1"])

    def test_a_missing_reading_of_the_sub_main_stands_before_it(self) -> None:
        kept = [one for one in self.whole.readings if one.subject != "sub-main"]
        short = self.whole.model_copy(update={"readings": tuple(kept)})
        texts = [gap.text for gap in evaluate(short, RULES).gaps]
        self.assertIn("Reading missing: Loop at the board, Zs, Sub-main to the garage", texts)
