"""The clamp's guided test: a house with a clamp in each wrong way is simulated, and each is told from what the unit shows.

What a clamp shows in each case follows from current adding up in a conductor (Kirchhoff); the faults are those of
trade practice: reversed, round both conductors, on the wrong tail, a dead pair, a limit that was not set.
"""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.demand.clamp_proof import ClampCause, clamp_verdict
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.clamp import ClampProof
from fulmen.core.model.seen import Seen
from tests.figures import figures
from tests.jobs import DEVICE_IN_UNIT, RULES, evaluation, finding

MEETS, CALL, SHORT, NEEDS = Verdict.MEETS, Verdict.YOUR_CALL, Verdict.FALLS_SHORT, Verdict.NEEDS
SEATED: dict[str, Any] = {"limit_set_a": 60.0, "arrow_with_current": "yes", "round_line_only": "yes", "wire_pair": "blue pair",
                          "tested_by": "R. Quillfeather", "tested_at": "2026-11-18T14:00:00Z"}  # fmt: skip
TESTED: dict[str, Any] = {"known_load_a": 40.0, "shown_without_a": 4.0, "shown_with_a": 44.0, "offered_without_a": 32.0,
                          "offered_with_a": 16.0, "follows_s": 3.0}  # fmt: skip
LIMITED = {"supply.load_limit_a": 60.0, "charge_points.0.current_clamp": "yes"}


def shown(fault: ClampCause, house_a: float, load_a: float, limit_a: float) -> ClampProof:
    """What a unit shows in a house whose clamp sits in a way, by adding up the currents in what it is round."""
    sees = {
        ClampCause.RIGHT: lambda house, car: house + car,
        ClampCause.LIMIT_NOT_SET: lambda house, car: house + car,
        ClampCause.REVERSED: lambda house, car: -(house + car),
        ClampCause.BOTH_CONDUCTORS: lambda house, car: 0.0,
        ClampCause.DEAD_PAIR: lambda house, car: 0.0,
        ClampCause.WRONG_TAIL: lambda house, car: car,
    }[fault]
    room_a = limit_a - sees(house_a + load_a, 0.0)
    offered_a = 32.0 if fault is ClampCause.LIMIT_NOT_SET else min(32.0, room_a) if room_a >= 6 else 0.0
    return ClampProof(
        known_load_a=load_a, shown_without_a=sees(house_a, 0.0), shown_with_a=sees(house_a + load_a, 0.0),
        shown_with_car_a=sees(house_a, 32.0), offered_without_a=32.0, offered_with_a=max(0.0, offered_a), follows_s=2.0,
        reports_fault=Seen.YES if fault is ClampCause.DEAD_PAIR else Seen.NO,
    )  # fmt: skip


class Diagnosis(unittest.TestCase):
    @given(
        st.sampled_from([ClampCause.RIGHT, ClampCause.LIMIT_NOT_SET, ClampCause.REVERSED, ClampCause.BOTH_CONDUCTORS,
                         ClampCause.DEAD_PAIR, ClampCause.WRONG_TAIL]),
        figures(0, 10), figures(31, 45),
    )  # fmt: skip
    def test_each_fault_is_told_from_what_the_unit_shows(
        self, fault: ClampCause, house_a: float, load_a: float
    ) -> None:
        self.assertIs(clamp_verdict(shown(fault, house_a, load_a, 60.0), 60.0, 32.0, RULES).cause, fault)

    def test_a_load_that_leaves_room_for_the_car_proves_nothing(self) -> None:
        for load_a, cause in (
            (7.9, ClampCause.NOT_ENOUGH_LOAD),
            (23.0, ClampCause.NOT_ENOUGH_LOAD),
            (31.0, ClampCause.RIGHT),
        ):
            with self.subTest(load_a):
                self.assertIs(clamp_verdict(shown(ClampCause.RIGHT, 5.0, load_a, 60.0), 60.0, 32.0, RULES).cause, cause)

    def test_a_limit_turned_down_for_the_test_shows_it_with_a_kettle(self) -> None:
        proof = shown(ClampCause.RIGHT, 2.0, 10.0, 25.0).model_copy(update={"test_limit_a": 25.0})
        found = clamp_verdict(proof, 60.0, 32.0, RULES)
        self.assertEqual((found.cause, found.should_offer_a), (ClampCause.RIGHT, 13.0))

    def test_a_car_that_was_offered_no_more_before_proves_nothing(self) -> None:
        for before_a, cause in (
            (32.0, ClampCause.RIGHT),
            (15.1, ClampCause.RIGHT),
            (15.0, ClampCause.NOT_ENOUGH_LOAD),
            (6.0, ClampCause.NOT_ENOUGH_LOAD),
        ):
            proof = shown(ClampCause.RIGHT, 5.0, 40.0, 60.0).model_copy(update={"offered_without_a": before_a})
            with self.subTest(before_a):
                self.assertIs(clamp_verdict(proof, 60.0, 32.0, RULES).cause, cause)

    def test_below_six_amperes_it_must_pause(self) -> None:
        proof = shown(ClampCause.RIGHT, 10.0, 45.0, 60.0)
        self.assertEqual(clamp_verdict(proof, 60.0, 32.0, RULES).should_offer_a, 0.0)
        still_on = proof.model_copy(update={"offered_with_a": 6.0})
        self.assertIs(clamp_verdict(still_on, 60.0, 32.0, RULES).cause, ClampCause.LIMIT_NOT_SET)

    def test_in_time_at_below_and_above(self) -> None:
        for follows_s, cause in ((4.9, ClampCause.RIGHT), (5.0, ClampCause.RIGHT), (5.1, ClampCause.TOO_SLOW)):
            proof = shown(ClampCause.RIGHT, 5.0, 40.0, 60.0).model_copy(update={"follows_s": follows_s})
            self.assertIs(clamp_verdict(proof, 60.0, 32.0, RULES).cause, cause)

    def test_half_the_load_is_neither(self) -> None:
        proof = ClampProof(known_load_a=40.0, shown_without_a=0.0, shown_with_a=20.0)
        self.assertIs(clamp_verdict(proof, 60.0, 32.0, RULES).cause, ClampCause.UNCLEAR)


class Judged(unittest.TestCase):
    def verdict(self, **proof: Any) -> Verdict:
        return finding("load_clamp", DEVICE_IN_UNIT, LIMITED | {"charge_points.0.clamp_proof": {**SEATED, **TESTED, **proof}}).verdict  # fmt: skip

    def test_until_it_is_proven_the_limit_is_open(self) -> None:
        self.assertEqual(finding("load_clamp", DEVICE_IN_UNIT, LIMITED).verdict, NEEDS)
        self.assertTrue(any(gap.key.startswith("load_clamp") for gap in evaluation(DEVICE_IN_UNIT, LIMITED).gaps))
        self.assertEqual(self.verdict(), MEETS)

    def test_nothing_that_was_not_looked_at_meets(self) -> None:
        for field, blank in (("limit_set_a", None), ("arrow_with_current", "not_seen"), ("round_line_only", "not_seen"),
                             ("wire_pair", ""), ("tested_by", None), ("known_load_a", None), ("shown_with_a", None),
                             ("shown_without_a", None), ("offered_with_a", None), ("offered_without_a", None), ("follows_s", None)):  # fmt: skip
            with self.subTest(field):
                self.assertEqual(self.verdict(**{field: blank}), NEEDS)

    def test_a_limit_set_above_below_and_at_the_designs(self) -> None:
        for set_a, verdict in ((59.0, MEETS), (60.0, MEETS), (61.0, SHORT), (80.0, SHORT)):
            self.assertEqual(self.verdict(limit_set_a=set_a), verdict)

    def test_each_wrong_clamp_falls_short_with_what_to_do(self) -> None:
        for changes in (
            {"shown_with_a": -36.0, "shown_without_a": 4.0}, {"shown_with_a": 4.0}, {"offered_with_a": 32.0},
            {"shown_with_a": 0.0, "shown_without_a": 0.0}, {"arrow_with_current": "no"}, {"round_line_only": "no"},
            {"shown_with_a": 0.0, "shown_without_a": 0.0, "reports_fault": "yes"},
        ):  # fmt: skip
            with self.subTest(changes):
                proof = {**SEATED, **TESTED, **changes}
                found = finding("load_clamp", DEVICE_IN_UNIT, LIMITED | {"charge_points.0.clamp_proof": proof})
                self.assertEqual(found.verdict, SHORT)
                self.assertTrue(found.remedy)

    def test_slow_is_your_call(self) -> None:
        self.assertEqual(self.verdict(follows_s=9.0), CALL)


if __name__ == "__main__":
    unittest.main()
