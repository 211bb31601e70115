"""A unit taken away with nothing in its place: a kind of work that can be finished, and where nothing meets unseen."""

import unittest
from datetime import UTC, datetime
from typing import Any

from fulmen.core.alternatives.remedies import remedies
from fulmen.core.editing.blank_job import blank_job
from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.network_operator.form import operator_form
from fulmen.core.network_operator.notification import Route
from fulmen.core.papers.certificate import certificate_contents
from fulmen.core.survey.left_behind import LEFT
from fulmen.core.survey.put_in import put_in
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
    **{f"{AT}.{one.field}": next(iter(one.right)).value for one in LEFT},
}
HELD = {"subject": "origin", "outcome": "right", "taken_by": "R. Quillfeather"}
HOLDS = [{**HELD, "step": "isolated", "taken_at": "2026-11-20T10:00:00Z"},
         {**HELD, "step": "safe_to_energise", "taken_at": "2026-11-20T12:00:00Z"}]  # fmt: skip
SIGNED = [
    {"part": part, "name": "R. Quillfeather", "signed_on": "2026-11-20"}
    for part in ("design", "construction", "inspection_and_testing")
]


def removal(changes: dict[str, Any], name: str | None = None) -> Evaluation:
    """A blank sheet, or an example that was all there before, whose unit is taken away."""
    made = blank_job("A unit taken away") if name is None else job(name, {"readings": [], "decisions": []})
    fields = {**dict.fromkeys(put_in(made), False), **SAFE, **changes}
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
    # The ends are asked of a cable that stays, the way where it feeds nothing.
    ({f"{AT}.cable": "feeds_other", f"{AT}.way_at_board": "not_seen"}, "removed_way", None),
    ({f"{AT}.cable": "taken_out", f"{AT}.ends_safe": "not_seen"}, "removed_ends", None),
    *[
        ({f"{AT}.{one.field}": said}, one.rule.written, verdict)
        for one in LEFT
        for answers, verdict in ((one.right, MEETS), (one.wrong, SHORT), ({Seen.NOT_SEEN}, NEEDS))
        for said in answers
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

    def test_what_is_put_in_is_never_passed_over(self) -> None:
        """Each part of each example that is new with the job holds a removal back by itself; one move mends it."""
        for path in sorted(EXAMPLES.glob("*.json")):
            for field, name in put_in(job(path.stem)).items():
                with self.subTest(path.stem, field=field):
                    found = {one.rule: one for one in removal({field: True}, path.stem).findings}
                    self.assertEqual(found["removed_put_in"].verdict, SHORT)
                    self.assertIn(name, found["removed_put_in"].detail)
        made = job(changes={"site.work": "removed", "readings": [], "decisions": []})
        offered = remedies(made, "removed_put_in/origin", RULES)
        self.assertEqual([one.words for one in offered], ["all of it was there before"])
        self.assertEqual(put_in(apply_changes(made, offered[0].changes)), {})

    def test_holds_in_their_order(self) -> None:
        first, then = (
            {**one, "taken_at": f"2026-11-20T1{hour}:00:00Z"} for one, hour in zip(HOLDS, (2, 0), strict=True)
        )
        for readings, verdict in ((HOLDS, MEETS), ([first, then], CALL), (HOLDS[1:], NEEDS)):
            with self.subTest(readings=len(readings), verdict=verdict):
                found = {one.rule: one.verdict for one in removal({"readings": readings}).findings}
                self.assertEqual(found["holds_signed"], verdict)

    def test_what_was_read_of_it_while_it_was_there_is_told(self) -> None:
        read = job("tn-c-s-device-in-unit").model_dump(mode="json")["readings"]
        self.assertTrue(read)
        found = {one.rule: one.verdict for one in removal({"readings": read}, "tn-c-s-device-in-unit").findings}
        self.assertEqual(found["stray_reading"], CALL)

    def test_a_yes_of_version_7_that_could_mean_two_things_is_asked_again(self) -> None:
        for said, way in (("yes", "not_seen"), ("no", "open"), ("not_seen", "not_seen")):
            with self.subTest(said):
                old = blank_job("Old").model_dump(mode="json") | {"schema_version": 7}
                old["site"] |= {
                    "work": "removed",
                    "removal": {"way_closed": said, "rest_works": said, "earth_whole": said},
                }
                read = parse_job(old).site.removal
                self.assertEqual((read.way_at_board, read.shared, read.electrode), (way, "not_seen", "not_seen"))
                self.assertEqual(read.earth_whole, said)

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
        blank = blank_job("Taken away")
        fields = {**dict.fromkeys(put_in(blank), False), **SAFE}
        made = apply_changes(blank, tuple(Change(field=field, value=value) for field, value in fields.items()))
        rows = certificate_contents(made, evaluate(made, RULES)).removal
        self.assertEqual(len(rows), 1 + len(LEFT))
        self.assertIn(("Its way at the board", "Blanked."), rows)
