"""A reading that was taken by mistake is taken back by another entry: both stay, neither counts, and both are told."""

import unittest
from typing import Any

from pydantic import ValidationError

from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.judging.kept_designs import KeptDesigns
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Follows, Outcome, Reading, counting
from fulmen.core.papers.remarks import remarks_of
from fulmen.core.verification.reading_order import date_gaps
from fulmen.core.verification.readings.reading_fit import misfit
from fulmen.core.verification.readings.taken_again import check_taken_back, check_told
from tests.core.test_taken_again import after, judged, taken
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, RULES, evaluation, job
from tests.sampling import some

WHY = "leads on the wrong circuit"
TELLS = {"taken_again"}


def back(reading: dict[str, Any], minute: int = 50, **more: Any) -> dict[str, Any]:
    """The entry that takes a reading back."""
    entry = taken(None, minute, step=reading["step"]) | {"outcome": "taken_back", "instrument": "", "reason": WHY}
    return entry | {"follows": after(reading), "subject": reading["subject"], **more}


def taking_back(reading: Reading) -> Reading:
    follows = Follows(taken_by=reading.taken_by, taken_at=reading.taken_at)
    fields = {"step": reading.step, "subject": reading.subject, "taken_by": "B. Otreal", "taken_at": reading.taken_at}
    return Reading(outcome=Outcome.TAKEN_BACK, reason=WHY, follows=follows, **fields)


def with_readings(one: Job, readings: tuple[Reading, ...]) -> Job:
    return one.model_copy(update={"readings": readings})


class AsIfNeverTaken(unittest.TestCase):
    def test_nothing_but_its_record_is_left_of_it(self) -> None:
        """Any reading of any example taken back: judged as if it had never been read, kept answers too."""
        kept = KeptDesigns()
        names = sorted(path.stem for path in EXAMPLES.glob("*.json"))
        read = [(name, one) for name in names for one in job(name).readings if one.step not in HOLDS]
        self.assertGreater(len(read), 100)
        for name, mistaken in some(read, 40, "taken back"):
            whole = job(name)
            without = with_readings(whole, tuple(one for one in whole.readings if one is not mistaken))
            entered = with_readings(whole, (*whole.readings, taking_back(mistaken)))
            with self.subTest(name, step=mistaken.step.value, subject=mistaken.subject):
                self.assertEqual(counting(entered.readings), without.readings)
                found, plain = evaluate(entered, RULES, kept), evaluate(without, RULES)
                self.assertEqual(
                    [one for one in found.findings if one.rule not in TELLS],
                    [one for one in plain.findings if one.rule not in TELLS],
                )
                shown, bare = ([(one.step, one.reading, one.earlier) for one in each.steps] for each in (found, plain))
                self.assertEqual(shown, bare)
                self.assertEqual(
                    date_gaps(entered, mistaken.taken_at.date()), date_gaps(without, mistaken.taken_at.date())
                )

    def test_both_stay_and_are_told(self) -> None:
        wrong = taken(1.9, 0)
        changes = {"readings": [wrong, back(wrong), taken(0.29, 55)]}
        found = evaluation(DEVICE_IN_UNIT, changes)
        step = next(one for one in found.steps if one.step == "zs")
        self.assertEqual([one.outcome for one in step.taken_back], [Outcome.MEASURED, Outcome.TAKEN_BACK])
        self.assertEqual((step.reading.value if step.reading else None, step.earlier), (0.29, ()))
        told = f"1.90 Ω by R. Quillfeather, 20 November, 10:00 taken back by R. Quillfeather: {WHY}"
        self.assertIn(told, judged(*changes["readings"]).detail)
        remarks = remarks_of(found, job(DEVICE_IN_UNIT).circuits[0])
        self.assertIn(told, remarks, "the schedule's remarks tell it too: a bad figure does not vanish")

    def test_only_the_one_that_it_names(self) -> None:
        first, second = taken(0.9, 0), taken(0.4, 5, "B. Otreal")
        steps = evaluation(DEVICE_IN_UNIT, {"readings": [first, second, back(first)]}).steps
        step = next(one for one in steps if one.step == "zs")
        self.assertEqual(step.reading.value if step.reading else None, 0.4, "the colleague's stays")
        self.assertEqual(step.earlier, ())

    def test_an_older_reading_counts_again_only_once_somebody_says_why(self) -> None:
        """A bad figure that is taken back does not vanish behind the good one of before."""
        good = taken(0.29, 0)
        bad = taken(1.9, 10, again_because="a loose terminal, made good", follows=after(good))
        for readings, verdict in (
            ([good, bad, back(bad)], Verdict.YOUR_CALL),
            ([good, bad, back(bad), taken(0.3, 55, again_because="measured anew", follows=after(good))], Verdict.MEETS),
            ([good, bad, back(bad), back(good, 51)], Verdict.MEETS),
            ([good, bad, back(good)], Verdict.MEETS),
        ):
            found = judged(*readings)
            with self.subTest(len(readings), verdict=verdict):
                self.assertEqual(found.verdict, verdict)
                self.assertEqual("counts again" in found.detail, verdict is Verdict.YOUR_CALL)

    def test_twice_taken_back_is_taken_back_once(self) -> None:
        wrong = taken(1.9, 0)
        steps = evaluation(DEVICE_IN_UNIT, {"readings": [wrong, back(wrong), back(wrong, 51)]}).steps
        step = next(one for one in steps if one.step == "zs")
        self.assertIsNone(step.reading)
        self.assertEqual(len(step.taken_back), 4)

    def test_what_was_kept_tells_of_each_entry_too(self) -> None:
        """A step that is kept from one answer to the next: never read, read and taken back at once, taken back again."""
        kept, wrong = KeptDesigns(), taken(1.9, 0)
        for readings in (
            [],
            [wrong, back(wrong)],
            [wrong, back(wrong), back(wrong, 51)],
            [wrong],
            [wrong, back(wrong)],
        ):
            one = job(DEVICE_IN_UNIT, {"readings": readings})
            with self.subTest(len(readings)):
                self.assertEqual(evaluate(one, RULES, kept).steps, evaluate(one, RULES).steps)

    def test_what_was_read_and_taken_back_is_not_left_out_unsaid(self) -> None:
        wrong = taken(53.0, 0, step="pilot_duty")
        left = taken(None, 55, step="pilot_duty") | {"outcome": "could_not_test", "reason": "no break-out lead"}
        for readings, said in (([left], False), ([wrong, back(wrong), left], True)):
            findings = evaluation(DEVICE_IN_UNIT, {"readings": readings}).findings
            details = [
                one.detail for one in findings if one.verdict is Verdict.YOUR_CALL and "no break-out" in one.detail
            ]
            self.assertEqual(["taken back" in one for one in details], [said])


class Dated(unittest.TestCase):
    def test_an_entry_that_is_yet_to_come_is_told(self) -> None:
        wrong = taken(1.9, 0)
        today = Reading.model_validate(wrong).taken_at.date()
        for day, told in (("2026-11-20", 0), ("2031-01-01", 1)):
            entry = back(wrong, taken_at=f"{day}T10:50:00+00:00")
            gaps = date_gaps(job(DEVICE_IN_UNIT, {"readings": [wrong, entry], "certificate.signatures": []}), today)
            self.assertEqual(len([one for one in gaps if "yet to come" in one.text]), told, day)


class Refused(unittest.TestCase):
    def test_half_an_entry(self) -> None:
        wrong = taken(1.9, 0)
        for half, field in (
            ({"reason": ""}, "reason"),
            ({"reason": "no"}, "reason"),
            ({"follows": None}, "follows"),
            ({"value": 1.9}, "value"),
        ):
            with self.subTest(half), self.assertRaisesRegex(ValidationError, f"{field}:"):
                Reading.model_validate(back(wrong, **half))

    def test_a_hold_stays(self) -> None:
        for hold in HOLDS:
            entry = Reading.model_validate(back(taken(None, 0, step=hold.value)))
            found = misfit(entry)
            self.assertEqual(found.field if found else None, "outcome", hold)

    def test_what_nobody_read_is_not_taken_back(self) -> None:
        read, known = taken(1.9, 0), job(DEVICE_IN_UNIT, {"readings": [taken(1.9, 0)]})
        for named, field in (
            (read, None),
            (read | {"taken_at": "2026-11-20T10:01:00+00:00"}, "follows"),
            (read | {"taken_by": "B. Otreal"}, "follows"),
            (read | {"step": "zs_cable"}, "follows"),
            (read | {"subject": "origin"}, "follows"),
        ):
            entry = (Reading.model_validate(back(named)),)
            check_told(entry)
            with self.subTest(named):
                if field is None:
                    check_taken_back(known, entry)
                    continue
                with self.assertRaises(InputError) as refused:
                    check_taken_back(known, entry)
                self.assertEqual(refused.exception.field, field)
        with self.assertRaises(InputError) as early:
            check_taken_back(known, (Reading.model_validate(back(read, taken_at="2026-11-20T09:59:59+00:00")),))
        self.assertEqual(early.exception.field, "taken_at")


if __name__ == "__main__":
    unittest.main()
