"""The operator's form as PDF and data, and the job's dates as a calendar (RFC 5545)."""

import io
import json
import unittest
from datetime import UTC, date, datetime
from typing import Any

from icalendar import Calendar
from pypdf import PdfReader

from fulmen.core.job_dates import job_dates
from fulmen.core.model.stops import Stop
from fulmen.core.network_operator.form import operator_form
from fulmen.documents.calendar import calendar_file
from fulmen.documents.operator_form import ATTACHMENT, operator_form_html, render_operator_form
from tests.documents.test_certificate import plain
from tests.jobs import ALL_ELECTRIC, AT_SURVEY, DEVICE_IN_UNIT, HALFWAY, RULES, job

AT = datetime(2026, 11, 24, 9, 30, tzinfo=UTC)
SEEN = (Stop.BOARD, Stop.CUT_OUT, Stop.CUT_OUT)


class Form(unittest.TestCase):
    def test_an_application_says_all_that_is_asked(self) -> None:
        form = operator_form(job(AT_SURVEY), RULES, SEEN)
        reader = PdfReader(io.BytesIO(render_operator_form(form, AT)))
        text = plain(" ".join(page.extract_text() for page in reader.pages))
        for words in (
            "Application to connect a charge point", "B. Wrenfield", "4 Tanner's Row", "The operator will ask for: the supply number",
            "TN-S", "60 A", "old: cast iron", "Looped to a neighbour yes", "Cut-out: 2, Board: 1", "66% of all", "7.9", "56 A", "88 A", "7.4",
            "Demand 88 A, above the 60 A cut-out fuse. does not hold", "The operator's own process decides", "prove dead",
        ):  # fmt: skip
            with self.subTest(words):
                self.assertIn(words, text)
        inside = json.loads(reader.attachments[ATTACHMENT][0])
        self.assertEqual(inside, form.model_dump(mode="json"))

    def test_a_notice_names_its_days(self) -> None:
        html = operator_form_html(operator_form(job(ALL_ELECTRIC), RULES, SEEN), AT)
        for words in (
            "Notice of a new charge point",
            "Within 28 days of energising",
            "Load limit A",
            "half hour of 2 Nov 2026",
            "Why notify after",
        ):
            self.assertIn(words, html)
        self.assertNotIn("Not complete", html)

    def test_nothing_known_leaves_no_hole(self) -> None:
        changes = {"site.householder": "", "supply.supply_number": "", "supply.cut_out_fuse_a": None, "load.method": "entered",
                   "supply.maximum_demand_a": None}  # fmt: skip
        form = operator_form(job(AT_SURVEY, changes), RULES)
        self.assertEqual(
            form.missing,
            (
                "the householder's name",
                "the supply number",
                "the cut-out fuse",
                "the maximum demand",
                "a photo of the cut-out",
            ),
        )
        self.assertNotIn("None", operator_form_html(form, AT))

    def test_a_unit_whose_current_nobody_knows_is_asked_about(self) -> None:
        """It stopped the form: the calls by the API's document found it."""
        unknown = job(DEVICE_IN_UNIT, {"charge_points.0.max_current_a": None})
        form = operator_form(unknown, RULES)
        self.assertIsNone(form.charge_points[0].max_current_a)
        self.assertIn("the charge point's current", form.missing)

    def test_the_same_form_gives_the_same_bytes(self) -> None:
        form = operator_form(job(AT_SURVEY), RULES)
        self.assertEqual(render_operator_form(form, AT), render_operator_form(form, AT))


class Dates(unittest.TestCase):
    LETTERS = ({"kind": "application", "dated": "2026-11-24", "about": {"car_a": 32}, "stand_in": True},
               {"kind": "unlooping_booked", "dated": "2026-12-02", "about": {"car_a": 32}, "booked_on": "2026-12-23", "text": "Ring first, then come; bring ID"})  # fmt: skip

    def days(self, name: str, **changes: Any) -> dict[str, date]:
        wanted = {key.replace("__", "."): value for key, value in changes.items()}
        return {one.key: one.day for one in job_dates(job(name, wanted), RULES)}

    def test_deadline_letters_booked_work(self) -> None:
        # Its first live reading was taken on 18 November; 28 days on is 16 December.
        notify = {"supply__maximum_demand_a": 58.0, "letters": []}
        self.assertEqual(self.days(HALFWAY, **notify)["operator-deadline"], date(2026, 12, 16))
        sent = {**notify, "letters": [{"kind": "notice", "dated": "2026-11-24", "about": {"car_a": 32}}]}
        self.assertNotIn("operator-deadline", self.days(HALFWAY, **sent))
        booked = self.days(AT_SURVEY, letters=list(self.LETTERS))
        self.assertEqual(
            booked, {"letter-0": date(2026, 11, 24), "letter-1": date(2026, 12, 2), "booked-1": date(2026, 12, 23)}
        )

    def test_next_inspection_never_later_than_its_interval(self) -> None:
        def next_day(signed: str, years: int) -> date:
            signatures = [
                one.model_dump(mode="json") | {"signed_on": signed}
                for one in job(DEVICE_IN_UNIT).certificate.signatures
            ]
            changes = {"certificate__signatures": signatures, "certificate__next_inspection_years": years}
            return self.days(DEVICE_IN_UNIT, **changes)["next-inspection"]

        self.assertEqual(next_day("2026-11-24", 5), date(2031, 11, 24))
        self.assertEqual(next_day("2028-02-29", 5), date(2033, 2, 28))

    def test_the_calendar_reads_back(self) -> None:
        dates = job_dates(job(AT_SURVEY, {"letters": list(self.LETTERS)}), RULES)
        text = calendar_file("Terrace, front; survey", "job-5", dates, AT)
        self.assertTrue(all(len(line.encode()) <= 75 for line in text.split("\r\n")), "RFC 5545 3.1: lines are folded")
        events = {str(event["uid"]): event for event in Calendar.from_ical(text).walk("VEVENT")}
        booked = events["job-5-booked-1@fulmen.invalid"]
        self.assertEqual((booked.decoded("dtstart"), booked.decoded("dtend")), (date(2026, 12, 23), date(2026, 12, 24)))
        self.assertEqual(str(events["job-5-letter-1@fulmen.invalid"]["description"]), "Ring first, then come; bring ID")
        self.assertIn("stand-in", str(events["job-5-letter-0@fulmen.invalid"]["summary"]))
