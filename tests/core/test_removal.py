"""A unit taken away with nothing in its place: a kind of work that can be finished, and where nothing meets unseen."""

import unittest
from datetime import UTC, datetime
from typing import Any

from fulmen.core.editing.blank_job import blank_job
from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from fulmen.core.network_operator.form import operator_form
from fulmen.core.network_operator.notification import Route
from fulmen.core.papers.certificate import certificate_contents
from fulmen.core.survey.left_behind import LEFT
from fulmen.documents.operator_form import operator_form_html
from tests.jobs import EXAMPLES, RULES, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
AT = "site.removal"
SAFE: dict[str, Any] = {
    "site.work": "removed",
    "site.householder": "D. Hollin (invented)",
    "site.address": "9 Smithy Croft",
    "site.extent": "Charge point at the side of the house, by its owner's wish",
    f"{AT}.cable": "parked",
    **{f"{AT}.{one.field}": "yes" for one in LEFT},
}
HELD = {"subject": "origin", "outcome": "right", "taken_by": "R. Quillfeather"}
HOLDS = [{**HELD, "step": "isolated", "taken_at": "2026-11-20T10:00:00Z"},
         {**HELD, "step": "safe_to_energise", "taken_at": "2026-11-20T12:00:00Z"}]  # fmt: skip
SIGNED = [
    {"part": part, "name": "R. Quillfeather", "signed_on": "2026-11-20"}
    for part in ("design", "construction", "inspection_and_testing")
]


def removal(changes: dict[str, Any], name: str | None = None) -> Evaluation:
    """A blank sheet, or an example, whose unit is taken away."""
    made = blank_job("A unit taken away") if name is None else job(name, {"readings": [], "decisions": []})
    fields = {**SAFE, **changes}
    return evaluate(apply_changes(made, tuple(Change(field=field, value=value) for field, value in fields.items())), RULES)  # fmt: skip


# What is changed of one that was left safe, whose verdict, which.
TRIALS: list[tuple[dict[str, Any], str, Verdict | None]] = [
    ({}, "removed_cable", MEETS),
    ({f"{AT}.cable": "taken_out"}, "removed_cable", MEETS),
    ({f"{AT}.cable": "feeds_other"}, "removed_cable", CALL),
    ({f"{AT}.cable": "not_seen"}, "removed_cable", NEEDS),
    (
        {"defects": [{"what": "Burnt bar", "stop": "board", "outcome": "left_told_owner", "dangerous": True}]},
        "danger_left",
        CALL,
    ),
    # The ends are asked of a cable that stays.
    ({f"{AT}.cable": "taken_out", f"{AT}.ends_safe": "not_seen"}, "removed_ends", None),
    *[
        ({f"{AT}.{one.field}": said}, one.rule.written, verdict)
        for one in LEFT
        for said, verdict in (("yes", MEETS), ("no", SHORT), ("not_seen", NEEDS))
    ],
]


class Removal(unittest.TestCase):
    def test_each(self) -> None:
        for changes, rule, expected in TRIALS:
            with self.subTest(rule, changes=changes):
                found = {one.rule: one.verdict for one in removal(changes).findings}
                self.assertEqual(found.get(rule), expected)

    def test_from_a_blank_sheet_to_its_end(self) -> None:
        """Nothing of a car is asked: what was left, two holds, a signature."""
        bare = removal({})
        self.assertEqual([one.step for one in bare.steps], [StepKey.ISOLATED, StepKey.SAFE_TO_ENERGISE])
        self.assertEqual({one.kind for one in bare.gaps}, {"reading", "signature"})
        done = removal({"readings": HOLDS, "certificate.signatures": SIGNED})
        self.assertEqual(done.gaps, ())

    def test_nothing_of_the_run_is_judged(self) -> None:
        for path in sorted(EXAMPLES.glob("*.json")):
            with self.subTest(path.stem):
                found = removal({}, path.stem)
                self.assertEqual(
                    {one.rule for one in found.findings if not one.rule.startswith("removed_")} - {"danger_left"}, set()
                )
                asked = {one.key for one in found.gaps if one.kind not in ("reading", "signature")}
                self.assertLessEqual(asked, {"danger_left/origin"})

    def test_a_fact_taken_back_meets_no_more(self) -> None:
        for one in LEFT:
            with self.subTest(one.field):
                gaps = {gap.key for gap in removal({f"{AT}.{one.field}": "not_seen", "readings": HOLDS}).gaps}
                self.assertIn(f"{one.rule.written}/origin", gaps)

    def test_the_operator_is_told_that_it_is_gone(self) -> None:
        made = job(changes={"site.work": "removed", "readings": [], "decisions": []})
        form = operator_form(made, RULES)
        self.assertTrue(form.taken_away)
        self.assertEqual((form.route, form.reasons, form.deadline), (Route.NOTIFY_AFTER, (), "Once it is off."))
        text = operator_form_html(form, datetime(2026, 11, 20, tzinfo=UTC))
        self.assertIn("Notice of a charge point taken away", text)
        self.assertNotIn("new charge point", text)
        self.assertNotIn("With the charge point in full", text)

    def test_its_record_states_what_was_found(self) -> None:
        made = apply_changes(blank_job("Taken away"), tuple(Change(field=field, value=value) for field, value in SAFE.items()))  # fmt: skip
        rows = certificate_contents(made, evaluate(made, RULES)).removal
        self.assertEqual(len(rows), 1 + len(LEFT))
        self.assertIn(("Its way at the board", "Blanked, or off, locked and labelled."), rows)
