"""A box that no dead test goes through: cables tested in parts or joined past it, made up again before anything is on."""

import unittest
from datetime import UTC, datetime, timedelta
from typing import Any

from fulmen.core.circuit.run_figures import cases_of
from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.installation import installation_of
from fulmen.core.installation.legs import legs_of
from fulmen.core.judging.known import known_for
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.readings import ENERGISED, StepKey, by_step
from fulmen.core.verification.readings.whole_cable import whole_reading
from fulmen.core.verification.steps.coach import book_order, coach
from fulmen.core.verification.steps.moves import Setup, acts, put_back, wants
from fulmen.core.verification.steps.parted import PARTED
from fulmen.core.verification.steps.sequence import Step, sequence
from fulmen.core.verification.steps.site_map import site_map
from tests.jobs import (
    BOX_AT_GARAGE,
    DETECTOR_BOX,
    DEVICE_IN_UNIT,
    EXAMPLES,
    GARAGE,
    OPEN_PEN_BOX,
    PEN_BOARD,
    RULES,
    TREATED_AS_PME,
    TWO_BEHIND_ONE,
    TYPE_B_BOX,
    evaluation,
    job,
)
from tests.sampling import some

INSULATION = [key for key in PARTED if key.startswith("ir_")]
TYPE_B = {
    "id": "b",
    "kind": "rccb",
    "poles": 2,
    "rating_a": 63.0,
    "rcd": {"type": "B", "residual_ma": 30, "time_delayed": False},
}
TYPE_A = {**TYPE_B, "id": "a", "rcd": {**TYPE_B["rcd"], "type": "A"}}  # type: ignore[dict-item]
UNREAD = {**TYPE_B, "id": "u", "rcd": {"type": None}}
SWITCH = {"id": "s", "kind": "switch", "poles": 2, "rating_a": 63.0}
APART, BRIDGED = "apart", "bridged"
BEGUN = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)


def with_box(name: str, after: int | None, guards: list[dict[str, Any]], *others: dict[str, Any]) -> dict[str, Any]:
    """An example with a box on its last circuit, and others."""
    at = len(job(name).circuits) - 1
    box = {"id": "the-box", "name": "Box", "after_section": after, "guards": guards}
    return {f"circuits.{at}.boxes": [box, *others]}


def parted(
    after: int | None, *guards: dict[str, Any], others: tuple[dict[str, Any], ...] = ()
) -> list[tuple[str, int, int]]:
    circuit = job(DEVICE_IN_UNIT, with_box(DEVICE_IN_UNIT, after, list(guards), *others)).circuits[0]
    return [(leg.subject, leg.first, leg.until) for leg in legs_of(circuit)]


class Legs(unittest.TestCase):
    def test_which_boxes_part_a_cable_and_where(self) -> None:
        count = len(job(DEVICE_IN_UNIT).circuits[0].route)
        whole = [("ev", 0, count)]
        in_two = [("the-box:before", 0, 2), ("the-box:behind", 2, count)]
        pen = OPEN_PEN_BOX["guards"][0]
        for after, guards, expected in (
            (2, (pen,), in_two), (2, (TYPE_B,), in_two), (2, (DETECTOR_BOX["guards"][0],), in_two),
            # Nobody has read its mark: it may be one with electronics.
            (2, (UNREAD,), in_two), (2, (SWITCH, pen), in_two),
            (2, (TYPE_A,), whole), (2, (SWITCH,), whole), (2, (), in_two),
            (0, (pen,), whole), (None, (pen,), whole), (count, (pen,), whole), (99, (pen,), whole),
        ):  # fmt: skip
            with self.subTest(after=after, guards=[one["kind"] for one in guards]):
                self.assertEqual(parted(after, *guards), expected)

    def test_two_boxes_make_three_parts_and_two_at_one_place_are_one(self) -> None:
        pen, count = OPEN_PEN_BOX["guards"][0], len(job(DEVICE_IN_UNIT).circuits[0].route)
        other = {"id": "second", "name": "Second", "after_section": 1, "guards": [TYPE_B]}
        three = [("second:before", 0, 1), ("the-box:before", 1, 2), ("the-box:behind", 2, count)]
        self.assertEqual(parted(2, pen, others=(other,)), three)
        beside = {**other, "after_section": 2}
        self.assertEqual(parted(2, pen, others=(beside,)), [("the-box:before", 0, 2), ("second:behind", 2, count)])

    def test_every_section_is_in_one_part(self) -> None:
        for path in EXAMPLES.glob("*.json"):
            for circuit in job(path.stem).circuits:
                legs = legs_of(circuit)
                covered = [place for leg in legs for place in range(leg.first, leg.until)]
                self.assertEqual(covered, list(range(len(circuit.route))), path.stem)


def crossed_boxes(circuit: Circuit, first: int, until: int) -> set[str]:
    """The boxes with electronics, or that open, strictly within some sections: told from the job file alone."""
    blind = {box.id for box in circuit.boxes for guard in box.guards if guard.kind in ("open_pen_device", "dc_detector") or (guard.kind == "rccb" and (guard.rcd is None or guard.rcd.type in (None, "B")))}  # fmt: skip
    return {
        box.id
        for box in circuit.boxes
        if box.id in blind and box.after_section is not None and first < box.after_section < until
    }


def steps_of(name: str, changes: dict[str, Any]) -> list[Step]:
    made = job(name, changes)
    return sequence(cases_of(known_for(made, RULES)), made.readings)


class NeverThrough(unittest.TestCase):
    def every(self) -> list[tuple[str, str, dict[str, Any]]]:
        """A box on the last circuit of every example, at every place, in both ways of testing."""
        found = []
        for path in sorted(EXAMPLES.glob("*.json")):
            places = range(len(job(path.stem).circuits[-1].route) + 1)
            for after in (*places[:: max(1, len(places) // 3)], None):
                for school in (APART, BRIDGED):
                    changed = with_box(path.stem, after, [OPEN_PEN_BOX["guards"][0]])
                    found.append((path.stem, school, {**changed, "testing.box_school": school, "readings": []}))
        return found

    def test_no_insulation_test_goes_through_a_box_and_every_cable_is_tested(self) -> None:
        for name, school, changes in some(self.every(), 40, "boxes"):
            made, steps = job(name, changes), steps_of(name, changes)
            for circuit in made.circuits:
                asked = [one for one in steps if one.step in PARTED and one.circuit == circuit.id and one.required]
                for key in {one.step for one in asked}:
                    covered: list[int] = []
                    for step in (one for one in asked if one.step is key):
                        leg = next((one for one in legs_of(circuit) if one.subject == step.subject), None)
                        first, until = (leg.first, leg.until) if leg is not None else (0, len(circuit.route))
                        covered += range(first, until)
                        self.assertLessEqual(
                            crossed_boxes(circuit, first, until), set(step.cores_joined), (name, school)
                        )
                        begins = name in (PEN_BOARD, TWO_BEHIND_ONE) and step.subject.startswith("sub-main")
                        self.assertEqual(bool(step.beforehand), bool(step.cores_out or step.cores_joined or begins))
                    with self.subTest(name, school=school, circuit=circuit.id, key=key):
                        self.assertEqual(sorted(covered), list(range(len(circuit.route))))

    def test_cores_are_out_while_it_is_tested_and_back_before_anything_is_on(self) -> None:
        for name, school, changes in some(self.every(), 6, "boxes walked"):
            where = site_map(installation_of(job(name, changes)))
            listed = [one for one in steps_of(name, changes) if one.required]
            by_key = {(one.step, one.subject): one for one in listed}
            planned = [by_key[one.step, one.subject] for one in coach(listed, where).steps]
            for order in (planned, book_order(listed, where)):
                setup, signed = Setup(), set()
                for step in order:
                    setup, _ = acts(setup, wants(step, where), where)
                    with self.subTest(name, school=school, step=step.step, subject=step.subject):
                        self.assertLessEqual(set(step.cores_out) | set(step.cores_joined), setup.cores_out)
                        self.assertLessEqual(set(step.cores_joined), setup.joined)
                        self.assertLessEqual(setup.joined, setup.cores_out)
                        if step.step in INSULATION and step.cores_out:
                            self.assertFalse(set(step.cores_out) & setup.joined)
                        if setup.main_on or step.step is StepKey.SAFE_TO_ENERGISE:
                            self.assertFalse(setup.cores_out or setup.joined or setup.link)
                            self.assertEqual(signed, {one.subject for one in listed if one.step is StepKey.BOX_MADE_UP})
                    signed |= {step.subject} if step.step is StepKey.BOX_MADE_UP else set()
                self.assertEqual(put_back(setup, where)[0].cores_out, frozenset())


class PlacesAndTests(unittest.TestCase):
    def test_a_cable_that_ends_at_a_board_that_begins_with_such_a_device_ends_open(self) -> None:
        for name, told in ((PEN_BOARD, True), (TWO_BEHIND_ONE, True), (BOX_AT_GARAGE, False), (GARAGE, False)):
            step = next(
                one for one in evaluation(name).steps if one.step is StepKey.IR_LIVE_EARTH and one.subject == "sub-main"
            )
            with self.subTest(name):
                self.assertEqual("the cores out of the device" in step.beforehand, told)

    def test_a_devices_own_test_is_done_at_it(self) -> None:
        for name, key, place in ((TREATED_AS_PME, StepKey.OPEN_PEN_TEST, "box-before-unit"), (TYPE_B_BOX, StepKey.RCD_BUTTON, "rcd-box"),
                                 (DEVICE_IN_UNIT, StepKey.OPEN_PEN_TEST, "charge-point")):  # fmt: skip
            step = next(one for one in evaluation(name).steps if one.step is key)
            with self.subTest(name):
                self.assertEqual((step.place, step.stands_at or place), (place, place))

    def test_smooth_direct_current_is_asked_in_both_schools(self) -> None:
        for school in ("one", "twelve"):
            asked = {one.step: one.required for one in evaluation(TYPE_B_BOX, {"testing.rcd_school": school}).steps}
            self.assertTrue(asked[StepKey.RCD_SMOOTH_PLUS] and asked[StepKey.RCD_SMOOTH_MINUS], school)
        self.assertNotIn(StepKey.RCD_SMOOTH_PLUS, {one.step for one in evaluation(DEVICE_IN_UNIT).steps})

    def test_places_along_a_cable_are_as_far_apart_as_its_sections(self) -> None:
        where, made = site_map(installation_of(job(TYPE_B_BOX))), job(TYPE_B_BOX).circuits[0]
        lengths = [one.length_m for one in made.route]
        self.assertAlmostEqual(where.metres("board", "rcd-box"), sum(lengths[:3]))
        self.assertAlmostEqual(where.metres("rcd-box", "charge-point"), sum(lengths[3:]))
        self.assertEqual(where.name("rcd-box"), "RCD box")


def read(step: str, subject: str, minute: int, value: float | None = None, **more: Any) -> dict[str, Any]:
    at = BEGUN + timedelta(minutes=minute)
    return {
        "step": step, "subject": subject, "outcome": "right" if value is None else "measured", "value": value,
        "taken_by": "R. Quillfeather", "taken_at": at.isoformat(), **more,
    }  # fmt: skip


BEFORE, BEHIND = "rcd-box:before", "rcd-box:behind"
IN_PARTS = [
    read("isolated", "origin", 0),
    read("r1_r2", BEFORE, 5, 0.06), read("r1_r2", BEHIND, 7, 0.05),
    read("r1_rn", BEFORE, 9, 0.06), read("r1_rn", BEHIND, 11, 0.05),
    read("polarity_dead", BEFORE, 12), read("polarity_dead", BEHIND, 13),
    *(read(key, part, 14, 200.0 if part == BEFORE else 350.0, test_voltage_v=500) for key in ("ir_line_neutral", "ir_live_earth") for part in (BEFORE, BEHIND)),
]  # fmt: skip
MADE_UP, FIT, LIVE = (
    read("box_made_up", "rcd-box", 20),
    read("safe_to_energise", "origin", 22),
    read("zs", "ev", 30, 0.30),
)


def told(*readings: dict[str, Any], **changes: Any) -> Evaluation:
    return evaluation(TYPE_B_BOX, {"readings": list(readings), **changes})


def verdict(found: Evaluation, key: str) -> Verdict | None:
    return next((one.verdict for one in found.findings if one.key == key), None)


class MadeUpAgain(unittest.TestCase):
    def test_nothing_is_on_before_it_is_signed_after_the_last_test_at_it(self) -> None:
        again = read("r1_r2", BEHIND, 40, 0.05, again_because="joint made anew")
        later = read("zs", "ev", 50, 0.30, again_because="after the joint")
        signed = read("box_made_up", "rcd-box", 45)
        early = read("box_made_up", "rcd-box", 10)
        for readings, expected in (
            ([MADE_UP, FIT, LIVE], Verdict.MEETS), ([FIT, LIVE], Verdict.NEEDS), ([FIT], Verdict.NEEDS),
            # Signed before the last dead test at it, or after something was on.
            ([early, FIT, LIVE], Verdict.YOUR_CALL), ([FIT, LIVE, signed], Verdict.YOUR_CALL),
            # Opened again afterwards: signed again, or not.
            ([MADE_UP, FIT, LIVE, again, later], Verdict.YOUR_CALL),
            ([MADE_UP, FIT, LIVE, again, signed, later], Verdict.MEETS),
            ([MADE_UP, FIT, LIVE, again], Verdict.MEETS),
        ):  # fmt: skip
            with self.subTest([f"{one['step']} {one['taken_at'][14:16]}" for one in readings]):
                self.assertIs(verdict(told(*IN_PARTS, *readings), "holds_signed/origin"), expected)

    def test_every_live_step_counts_as_on(self) -> None:
        for key in ENERGISED - {StepKey.POLARITY_LIVE, StepKey.SAFE_TO_ENERGISE}:
            found = told(*IN_PARTS, FIT, read(key, "ev", 30))
            self.assertIs(verdict(found, "holds_signed/origin"), Verdict.NEEDS, key)


class Together(unittest.TestCase):
    def test_parts_stand_for_the_whole_and_the_whole_for_its_parts(self) -> None:
        in_parts = told(*IN_PARTS, MADE_UP, FIT)
        self.assertTrue(all(one.met for one in in_parts.steps if one.step in PARTED and one.required))
        whole = [read("r1_r2", "ev", 5, 0.11), read("polarity_dead", "ev", 6)]
        bridged = told(*whole)
        for key, met in ((StepKey.R1_R2, True), (StepKey.POLARITY_DEAD, True), (StepKey.R1_RN, False)):
            steps = [one for one in bridged.steps if one.step is key and one.required]
            self.assertEqual([one.met for one in steps], [met] * 2, key)

    def test_the_whole_read_where_parts_were_chosen_says_how(self) -> None:
        whole = {**read("ir_live_earth", "ev", 5, 200.0), "test_voltage_v": 500}
        for school, expected in ((APART, Verdict.YOUR_CALL), (BRIDGED, Verdict.MEETS)):
            found = told(whole, **{"testing.box_school": school})
            self.assertIs(verdict(found, "reading_ir_live_earth/ev"), expected, school)

    def test_the_loop_is_expected_from_both_parts(self) -> None:
        for readings, expected in ((IN_PARTS, "0.11 as read"), (IN_PARTS[:2], "from the route")):
            zs = next(one for one in told(*readings).steps if one.step is StepKey.ZS)
            self.assertIn(expected, zs.expected_from)

    def test_a_part_is_held_against_its_own_route_and_the_rest_of_the_limit(self) -> None:
        found = told(*IN_PARTS, read("r1_r2", BEHIND, 8, 0.30, again_because="again"))
        self.assertIs(verdict(found, f"agree_r1_r2/{BEHIND}"), Verdict.YOUR_CALL)
        self.assertIs(verdict(found, f"agree_r1_r2/{BEFORE}"), Verdict.MEETS)
        # The two limits are one: what one part takes, the other may not have.
        limits = {one.subject: one.limit for one in found.steps if one.step is StepKey.R1_R2}
        assert limits[BEFORE] is not None
        self.assertAlmostEqual(limits[BEFORE] + 0.30, (limits[BEHIND] or 0.0) + 0.06, places=6)

    def test_one_reading_of_the_whole(self) -> None:
        circuit = job(TYPE_B_BOX).circuits[0]
        readings = by_step(job(TYPE_B_BOX, {"readings": IN_PARTS}).readings)
        for key, expected in ((StepKey.R1_R2, 0.11), (StepKey.R1_RN, 0.11), (StepKey.IR_LIVE_EARTH, 200.0)):
            reading = whole_reading(readings, circuit, key)
            self.assertEqual(reading and reading.value, expected, key)
        right = whole_reading(readings, circuit, StepKey.POLARITY_DEAD)
        self.assertEqual(right and right.outcome, "right")
        self.assertIsNone(whole_reading(readings, circuit, StepKey.R2))

    def test_the_worst_part_is_the_whole(self) -> None:
        circuit = job(TYPE_B_BOX).circuits[0]
        wrong = {**read("polarity_dead", BEHIND, 13), "outcome": "wrong", "reason": "crossed"}
        over = {**read("r1_r2", BEFORE, 5, 19.99), "outcome": "over_range"}
        for key, one, other, expected in (
            (StepKey.POLARITY_DEAD, read("polarity_dead", BEFORE, 12), wrong, "wrong"),
            (StepKey.R1_R2, over, read("r1_r2", BEHIND, 7, 0.05), "over_range"),
        ):
            for pair in ([one, other], [other, one]):
                reading = whole_reading(by_step(job(TYPE_B_BOX, {"readings": pair}).readings), circuit, key)
                self.assertEqual(reading and reading.outcome, expected)


if __name__ == "__main__":
    unittest.main()
