"""Notify after or apply before: every condition at its limit, the state that letters give, the hold, the deadline."""

import unittest
from datetime import date
from typing import Any

from fulmen.core.network_operator.notification import Held, OperatorMatter, OperatorState, Route
from tests.jobs import DEVICE_IN_UNIT, HALFWAY, evaluation

EASY: dict[str, Any] = {"supply.maximum_demand_a": 58.0, "letters": [], "defects": []}
LEFT = {"what": "Loose cut-out cover", "stop": "cut_out", "outcome": "left_told_owner"}


def matter(changes: dict[str, Any] | None = None, name: str = DEVICE_IN_UNIT) -> OperatorMatter:
    return evaluation(name, EASY | (changes or {})).operator


class Routes(unittest.TestCase):
    def test_each_condition(self) -> None:
        proven = {"supply.fuse_proven": "yes", "supply.operator_allows_to_rating": "yes"}
        for changes, route in [
            ({}, Route.NOTIFY_AFTER),
            ({"supply.maximum_demand_a": 60.0}, Route.NOTIFY_AFTER),
            ({"supply.maximum_demand_a": 60.1}, Route.APPLY_BEFORE),
            ({"supply.maximum_demand_a": 80.0, **proven}, Route.NOTIFY_AFTER),
            ({"supply.maximum_demand_a": 80.1, **proven}, Route.APPLY_BEFORE),
            ({"supply.maximum_demand_a": 80.0, **proven, "supply.fuse_proven": "not_seen"}, Route.APPLY_BEFORE),
            ({"supply.maximum_demand_a": 80.0, **proven, "supply.operator_allows_to_rating": "no"}, Route.APPLY_BEFORE),
            ({"supply.maximum_demand_a": 88.0, "supply.load_limit_a": 60.0}, Route.NOTIFY_AFTER),
            ({"supply.maximum_demand_a": None}, Route.APPLY_BEFORE),
            ({"charge_points.0.max_current_a": 32.0}, Route.NOTIFY_AFTER),
            ({"charge_points.0.max_current_a": 32.1}, Route.APPLY_BEFORE),
            ({"supply.looped": "yes"}, Route.APPLY_BEFORE),
            ({"supply.looped": "not_seen"}, Route.APPLY_BEFORE),
            ({"supply.cut_out_condition": "old"}, Route.APPLY_BEFORE),
            ({"supply.cut_out_condition": "not_seen"}, Route.APPLY_BEFORE),
            ({"defects": [LEFT]}, Route.APPLY_BEFORE),
            ({"defects": [LEFT | {"outcome": "put_right"}]}, Route.NOTIFY_AFTER),
            ({"defects": [LEFT | {"stop": "board"}]}, Route.NOTIFY_AFTER),
        ]:  # fmt: skip
            with self.subTest(changes):
                found = matter(changes)
                self.assertIs(found.route, route)
                self.assertEqual(found.hold, route is Route.APPLY_BEFORE)
                against = [reason for reason in found.reasons if reason.holds is not Held.YES]
                self.assertEqual(bool(against), route is Route.APPLY_BEFORE)

    def test_the_deadline_is_four_weeks_after_energising(self) -> None:
        self.assertEqual(matter().deadline, date(2026, 12, 16))  # first live reading 18 November
        self.assertIsNone(matter({"readings": []}).deadline)
        self.assertIsNone(matter({"supply.looped": "yes"}, HALFWAY).deadline)
        self.assertIn("28 days", matter({"readings": []}).deadline_words)


class States(unittest.TestCase):
    def state(self, *kinds: str, changes: dict[str, Any] | None = None, **more: Any) -> OperatorMatter:
        base = {"supply.looped": "yes"}
        about = matter(base).about
        letters = [{"kind": kind, "dated": "2026-11-02", "about": about, **more} for kind in kinds]
        return matter(base | {"letters": letters} | (changes or {}))

    def test_the_latest_letter_decides_where_nothing_is_agreed(self) -> None:
        for kinds, state, hold in [
            ((), OperatorState.NOT_SENT, True),
            (("application",), OperatorState.WAITING, True),
            (("application", "more_wanted"), OperatorState.MORE_WANTED, True),
            (("application", "unlooping_booked"), OperatorState.BOOKED, True),
            (("application", "fuse_upgrade_booked"), OperatorState.BOOKED, True),
            (("application", "unlooping_booked", "work_done"), OperatorState.ACCEPTED, False),
            (("application", "accepted"), OperatorState.ACCEPTED, False),
            (("application", "accepted", "application"), OperatorState.ACCEPTED, False),
        ]:  # fmt: skip
            with self.subTest(kinds):
                found = self.state(*kinds)
                self.assertEqual((found.state, found.hold), (state, hold))

    def test_what_comes_later_takes_no_agreement_back(self) -> None:
        for later in ("unlooping_booked", "fuse_upgrade_booked", "notice", "work_done"):
            with self.subTest(later):
                self.assertIs(self.state("accepted", later).state, OperatorState.ACCEPTED)
        self.assertIs(self.state("accepted", "more_wanted").state, OperatorState.MORE_WANTED)
        self.assertIs(self.state("more_wanted", "accepted").state, OperatorState.ACCEPTED)

    def test_agreement_in_writing_opens_the_block_of_an_old_cut_out(self) -> None:
        for condition, verdict in (("old", "meets"), ("damaged", "falls_short")):
            base = {**EASY, "supply.cut_out_condition": condition}
            letter = {
                "kind": "accepted",
                "dated": "2026-11-02",
                "about": evaluation(DEVICE_IN_UNIT, base).operator.about,
            }
            found = {one.rule: one.verdict for one in evaluation(DEVICE_IN_UNIT, base | {"letters": [letter]}).findings}
            with self.subTest(condition):
                self.assertEqual(found["cut_out"], verdict)

    def test_live_before_the_operator_agreed_is_a_gap(self) -> None:
        # The first live reading is of 18 November.
        for dated, early in (("2026-11-18", False), ("2026-11-19", True)):
            base: dict[str, Any] = {"supply.looped": "yes"}
            letter = {"kind": "accepted", "dated": dated, "about": matter(base).about}
            found = evaluation(DEVICE_IN_UNIT, EASY | base | {"letters": [letter]})
            with self.subTest(dated):
                self.assertEqual("energised_early" in {one.rule for one in found.findings if one.is_open}, early)
                self.assertEqual(any("agreed" in gap.text or "Energised" in gap.text for gap in found.gaps), early)

    def test_a_charge_point_that_is_there_already_counts(self) -> None:
        there = {"load.appliances": [{"kind": "car", "rating_kw": 3.6}]}
        found = matter(there)
        self.assertIs(found.route, Route.APPLY_BEFORE)
        self.assertIn("16 A of it there already", " ".join(reason.text for reason in found.reasons))

    def test_an_answer_to_other_facts_is_out_of_date(self) -> None:
        for worse in (
            {"supply.maximum_demand_a": 59.0},
            {"supply.load_limit_a": 50.0},
            {"supply.cut_out_condition": "old"},
        ):
            with self.subTest(worse):
                found = self.state("accepted", changes=worse)
                self.assertEqual((found.state, found.hold), (OperatorState.OUT_OF_DATE, True))

    def test_what_the_operator_mended_does_not_undo_the_answer(self) -> None:
        found = self.state("accepted", changes={"supply.looped": "no", "supply.maximum_demand_a": 58.0})
        self.assertEqual((found.state, found.hold), (OperatorState.ACCEPTED, False))

    def test_a_stand_ins_answer_is_never_taken_for_the_operators(self) -> None:
        self.assertTrue(self.state("accepted", stand_in=True).stand_in)
        about = matter({"supply.looped": "yes"}).about
        letters = [{"kind": "accepted", "dated": "2026-11-02", "about": about, "stand_in": True}]
        found = evaluation(changes=EASY | {"supply.looped": "yes", "letters": letters})
        self.assertIn("operator/origin", {gap.key for gap in found.gaps})
