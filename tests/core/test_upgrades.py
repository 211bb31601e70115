"""Job files of every version that was ever committed still read; decisions and letters keep what they rested on."""

import gzip
import json
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.editing.job_file import parse_job, read_job, write_job
from fulmen.core.editing.upgrades import OLDEST, STEPS, upgraded, upgraded_letter
from fulmen.core.editing.upgrades.v1_decisions import basis_of
from fulmen.core.editing.upgrades.v2 import reliance_names_the_unit
from fulmen.core.editing.upgrades.v2_facts import OPEN_PEN, PLACE, UNIT
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.job import SCHEMA_VERSION
from tests.jobs import DEVICE_IN_UNIT, GARAGE, ROOT, RULES, TREATED_AS_PME, job, mark
from tests.sampling import tries

FROZEN = ROOT / "tests" / "core" / "frozen"
JSON_VALUES = st.recursive(
    st.none() | st.booleans() | st.integers() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from(["about", "key", "id", "origin", "phases", "front_rcd", "main_switch", "basis", "make_up", "feeds"]), inner, max_size=3),
    max_leaves=8,
)  # fmt: skip


def frozen_files() -> list[dict[str, Any]]:
    """Every example file of every commit up to version 2's last."""
    with gzip.open(FROZEN / "job_files.jsonl.gz", "rt", encoding="utf-8") as source:
        return [json.loads(line) for line in source]


class EveryFile(unittest.TestCase):
    def test_each_reads_and_writes_as_the_present_version(self) -> None:
        files = frozen_files()
        self.assertEqual(len(files), 70)
        for one in files:
            with self.subTest(commit=one["commit"], path=one["path"]):
                read = read_job(json.dumps(one["document"]))
                self.assertEqual(read.schema_version, SCHEMA_VERSION)
                self.assertEqual(read_job(write_job(read)), read)

    def test_nothing_is_lost_on_the_way(self) -> None:
        """Every leaf of an old file stands in the new one, but for what a step takes away by name."""
        for one in frozen_files():
            with self.subTest(commit=one["commit"], path=one["path"]):
                new = parse_job(one["document"]).model_dump(mode="json")
                for path, value in _leaves(one["document"]):
                    if not _meant_to_go(path, one["document"]):
                        self.assertEqual(_at(new, _moved(path, one["document"])), value)

    def test_decisions_that_stood_stand(self) -> None:
        """Of the newest files every decision that has a sentence still settles its finding."""
        newest = {one["path"]: one["document"] for one in frozen_files()}
        settled = 0
        for path, document in newest.items():
            found = {one.key: one for one in evaluate(parse_job(document), RULES).findings}
            for decision in document["decisions"]:
                with self.subTest(path, key=decision["key"]):
                    finding = found[decision["key"]]
                    # Where a condition is asked for now, the question is asked again; the old reason is offered.
                    self.assertEqual(finding.decision is None, bool(finding.conditions))
                    settled += finding.decision is not None
        self.assertGreaterEqual(settled, 3)

    def test_every_version_before_the_present_has_steps(self) -> None:
        self.assertEqual(sorted(STEPS), list(range(OLDEST, SCHEMA_VERSION)))

    def test_a_later_version_is_refused_by_name(self) -> None:
        for version in (SCHEMA_VERSION + 1, 0, "1", True, None, 1.5):
            with self.subTest(version), self.assertRaises(JobFileError) as caught:
                parse_job({"title": "x", "schema_version": version})
            self.assertEqual(caught.exception.problems[0].field, "schema_version")

    @tries(150)
    @given(
        st.dictionaries(
            st.sampled_from(
                ["boards", "circuits", "charge_points", "arrangement", "letters", "decisions", "supply", "site"]
            ),
            JSON_VALUES,
        )
    )
    def test_no_shape_of_json_breaks_a_step(self, document: dict[str, Any]) -> None:
        upgraded(document, OLDEST)


class Letters(unittest.TestCase):
    def test_what_a_letter_was_about(self) -> None:
        for sentence, facts in (
            ("74 A in all, charge point 32 A", (74.0, None, 32.0, [])),
            ("74 A in all, load limit 60 A, charge point 16 A; looped", (74.0, 60.0, 16.0, ["looped"])),
            (
                "demand not known, charge point 7.5 A; looped; cut-out not sound",
                (None, None, 7.5, ["looped", "cut_out_not_sound"]),
            ),
        ):
            with self.subTest(sentence):
                about = upgraded_letter({"about": sentence})["about"]
                self.assertEqual((about["demand_a"], about["load_limit_a"], about["car_a"], about["against"]), facts)

    def test_a_sentence_of_another_shape_answers_nothing(self) -> None:
        self.assertEqual(upgraded_letter({"about": "74 A in total"}), {"about": None})

    def test_facts_are_left_alone(self) -> None:
        kept = {"about": {"car_a": 32}}
        self.assertIs(upgraded_letter(kept), kept)


class FromVersion2(unittest.TestCase):
    """Guards take their places; what was a default arrives as not known."""

    def upgraded(self, **changes: Any) -> dict[str, Any]:
        files = [one["document"] for one in frozen_files() if one["path"].endswith("tn-c-s-device-in-unit.json")]
        document = json.loads(json.dumps(files[-1]))
        for path, value in changes.items():
            *inner, last = [int(part) if part.isdigit() else part for part in path.split("__")]
            _at(document, inner)[last] = value
        return parse_job(document).model_dump(mode="json")

    def test_the_main_switch_stands_in_the_board(self) -> None:
        switch = self.upgraded(supply__main_switch__rating_a=63.0)["boards"][0]["incomer"][0]
        self.assertEqual(
            (switch["kind"], switch["rating_a"], switch["poles"], switch["voltage_v"]), ("switch", 63.0, 2, 230)
        )

    def test_a_default_nobody_asked_for_is_not_known_until_a_paper_rests_on_it(self) -> None:
        bare = self.upgraded(readings=[], inspections=[])["boards"][0]["incomer"][0]
        self.assertEqual(
            (bare["poles"], bare["voltage_v"], bare["standard"], bare["rating_a"]), (None, None, "", 100.0)
        )
        stated = self.upgraded(readings=[], supply__main_switch__poles=3)["boards"][0]["incomer"][0]
        self.assertEqual(stated["poles"], 3)

    def test_an_rcd_in_front_stands_before_every_way_or_before_its_side(self) -> None:
        numb = {"type": "AC", "residual_ma": 30, "time_delayed": False, "switches_neutral": True}
        for make_up, where in (("breakers_only", "incomer"), ("split_load", "groups")):
            made = self.upgraded(boards__0__front_rcd=numb, boards__0__make_up=make_up)
            board, circuit = made["boards"][0], made["circuits"][0]
            with self.subTest(make_up):
                held = board["incomer"][1:] if where == "incomer" else board["groups"][0]["guards"]
                # That it opens the neutral was a default: its poles are asked for.
                self.assertEqual(
                    [(one["kind"], one["rcd"]) for one in held], [("rccb", numb | {"switches_neutral": None})]
                )
                self.assertEqual(circuit["group"], "rcd-side" if where == "groups" else "")
        delayed = self.upgraded(boards__0__front_rcd={**numb, "time_delayed": True}, boards__0__make_up="split_load")
        self.assertEqual(len(delayed["boards"][0]["incomer"]), 2, "an S-type serves everything behind it")

    def test_what_an_arrangement_counted_on_stands_in_a_box(self) -> None:
        made = self.upgraded(
            arrangement__open_pen="separate_device", arrangement__separate_device__opens_within_s=3,
            arrangement__rdc_dd="before_unit",
        )  # fmt: skip
        (box,) = made["circuits"][0]["boxes"]
        self.assertEqual([one["kind"] for one in box["guards"]], ["open_pen_device", "dc_detector"])
        self.assertEqual(box["guards"][0]["open_pen"]["opens_within_s"], 3)
        self.assertEqual(made["charge_points"][0]["arrangement"]["open_pen"], "separate_device")
        for unused in ({"supply__earthing": "tt"}, {"arrangement__car_earth": "own_electrode"}):
            with self.subTest(unused):
                self.assertEqual(
                    self.upgraded(arrangement__open_pen="separate_device", **unused)["circuits"][0]["boxes"], []
                )

    def test_the_call_to_rely_on_the_unit_rests_on_the_unit(self) -> None:
        decision = {"key": "rcd_at_board/ev", "about": "x", "basis": {"at_board": False}, "reason": "Short.",
                    "name": "R. Quillfeather", "decided_on": "2026-11-12"}  # fmt: skip
        changes = {
            "circuits__0__device__rcd": None,
            "charge_points__0__rcd_inside": mark("A"),
            "charge_points__0__record": "tethered-all-inside",
            "decisions": [decision],
        }
        kept = parse_job(self.upgraded(**changes))
        found = {one.key: one for one in evaluate(kept, RULES).findings}["rcd_at_board/ev"]
        self.assertIsNone(found.decision, "which condition makes it sound was not asked then")
        gone = kept.model_dump(mode="json")
        gone["decisions"][0]["condition"] = "armoured"
        found = {one.key: one for one in evaluate(parse_job(gone), RULES).findings}["rcd_at_board/ev"]
        self.assertIsNotNone(found.decision)
        gone["charge_points"][0]["rcd_inside"] = mark("F")
        found = {one.key: one for one in evaluate(parse_job(gone), RULES).findings}["rcd_at_board/ev"]
        self.assertIsNone(found.decision, "another RCD in the unit is another reliance")


# The upgrader's table: a field, what version 2 says of it, and what it is afterwards, readings or not.
ROUTE = "circuits.0.route.0"
FACTS: tuple[tuple[str, Any, Any], ...] = (
    ("supply.phases", 1, None), ("supply.phases", 3, 3),
    (f"{ROUTE}.grouped_circuits", 1, None), (f"{ROUTE}.grouped_circuits", 2, 2),
    (f"{ROUTE}.insulation_mm", 0, None), (f"{ROUTE}.insulation_mm", 50, 50),
    (f"{ROUTE}.concealed_under_50_mm", False, None), (f"{ROUTE}.concealed_under_50_mm", True, True),
    ("circuits.0.route.3.under_drive", False, None), ("circuits.0.route.3.under_drive", True, True),
    ("circuits.0.route.3.depth_m", 0.7, 0.7), ("circuits.0.route.3.warning_tape", True, True),
    (f"{ROUTE}.fixings", "metal", "metal"), ("circuits.0.route.1.fire_stopped", True, True),
    ("charge_points.0.phases", 1, None), ("charge_points.0.phases", 3, 3),
    ("charge_points.0.max_current_a", 32, None), ("charge_points.0.max_current_a", 16, 16),
    ("charge_points.0.open_pen_device.opens_within_s", 5, None), ("charge_points.0.open_pen_device.opens_within_s", 3, 3),
    ("charge_points.0.open_pen_device.sensing", "line_neutral_window", None),
    ("charge_points.0.open_pen_device.opens_protective_conductor", True, None),
    ("charge_points.0.open_pen_device.opens_protective_conductor", False, False),
)  # fmt: skip


class Facts(unittest.TestCase):
    """What equals an old default was never said."""

    def test_the_table(self) -> None:
        for path, said, expected in FACTS:
            for readings in (False, True):
                document = self.document(path, said, readings=readings)
                new = parse_job(document).model_dump(mode="json")
                where = [int(part) if part.isdigit() else part for part in path.split(".")]
                with self.subTest(path, said=said, readings=readings):
                    self.assertEqual(_at(new, where), expected)
                    self.assertNotIn("earlier_version", new["known_how"].values())

    def test_a_record_answers_for_its_unit(self) -> None:
        document = self.document("charge_points.0.record", "tethered-all-inside", readings=False)
        point = parse_job(document).charge_points[0]
        self.assertEqual((point.phases, point.rcd_inside_seen.value), (1, "no"))
        bare = parse_job(self.document("charge_points.0.record", "", readings=False)).charge_points[0]
        self.assertEqual((bare.phases, bare.rcd_inside_seen.value), (None, "not_seen"))

    def test_a_circuit_that_is_there_was_looked_at_where_its_device_was_said(self) -> None:
        there = {"fitted_with_this_job": False}
        for device, readings, looked in (
            ({}, False, "not_seen"),
            ({"rating_a": 50}, False, "yes"),
            ({}, True, "not_seen"),
        ):
            document = self.document("title", "x", readings=readings)
            document["circuits"][0] = {**document["circuits"][0], **there, "device": device}
            found = parse_job(document).circuits[0]
            with self.subTest(device, readings=readings):
                self.assertEqual(found.looked_at.value, looked)
                self.assertIsNone(found.route[3].depth_m)

    def document(self, path: str, said: Any, *, readings: bool) -> dict[str, Any]:
        files = [one["document"] for one in frozen_files() if one["path"].endswith("tn-c-s-device-in-unit.json")]
        document: dict[str, Any] = json.loads(json.dumps(files[-1]))
        document["charge_points"][0]["record"] = ""
        document["readings"] = document["readings"] if readings else []
        *inner, last = [int(part) if part.isdigit() else part for part in path.split(".")]
        _at(document, inner)[last] = said
        return document


OUTSIDE = {"charge_points.0.takes_armour": "no"}
# What is changed in an example, the finding, and the sentence that version 1 wrote for it.
SENTENCES: tuple[tuple[str, dict[str, Any], str, str], ...] = (
    (DEVICE_IN_UNIT, {"supply.isolator": "no"}, "isolator/origin",
     "No isolator between meter and board: say how the tails will be made dead, and by whom."),
    (DEVICE_IN_UNIT, {"supply.tails.0.sleeved": "no"}, "tails_sleeved/origin",
     "Marking is missing: prove which is which before anything is connected, then sleeve them."),
    (DEVICE_IN_UNIT, {"site.parking_on_own_land": "no"}, "own_land/origin",
     "A lead must not lie across a pavement or shared way: say where the car will stand, and who allows it."),
    (DEVICE_IN_UNIT, {"defects": [{"stop": "loads", "what": "Loose neutral.", "outcome": "left_told_owner", "dangerous": True}]},
     "danger_left/origin",
     "Left as found: Loose neutral.. Say in writing why you did not make it harmless, and who was told."),
    (DEVICE_IN_UNIT, OUTSIDE, "gland_entry/ev",
     "The unit has no entry for an armoured cable's gland: say where the armour stops and what goes on."),
    (DEVICE_IN_UNIT, {"charge_points.0.flex_tail": True, "charge_points.0.flex_csa_mm2": 4.0, "charge_points.0.flex_length_m": 2.0}, "flex_tail/ev",
     "It comes with a flexible tail: a junction box outside, one more joint. Some refuse it; say why you don't."),
    (DEVICE_IN_UNIT, {"charge_points.0.smart": "no"}, "smart/ev",
     "No off-peak default, no random delay: a unit sold new must have both. Say why this one is fitted."),
    (DEVICE_IN_UNIT, {"charge_points.0.data_ways": ["wired"], "site.data_ways": ["wifi"], "site.data_looked_for": "yes"},
     "data_way/ev", "It asks for: a data cable. None was found; run a data cable, or say why not."),
    (DEVICE_IN_UNIT, {"boards.0.labels_complete": "no"}, "board_labels/board",
     "Labels are missing: identify what you can, label the new circuit, tell the owner of the rest."),
    (TREATED_AS_PME, {}, "board_case/board",
     "Plastic. Replace it, or leave an existing board as found, tell the owner and comment on it."),
    (TREATED_AS_PME, {}, "surge/board", "None is fitted. Fit one, or keep the owner's written refusal and say so."),
    (TREATED_AS_PME, {"supply.tns_school": "as_found", "supply.tns_confirmed_in_writing": True, "supply.tns_confirmation": "a" * 64},
     "tns_school/origin", "Accepted as found on the operator's written word. Say why you don't treat it as PME."),
    (DEVICE_IN_UNIT, {"circuits.0.device.rcd": None, "charge_points.0.rcd_inside": mark("A")}, "rcd_at_board/ev",
     "You rely on the RCD in the unit; the cable before it has none. Allowed; say why."),
    (DEVICE_IN_UNIT, {"circuits.0.device.rcd.switches_neutral": False, "charge_points.0.rcd_inside": mark("A")}, "rcd_neutral/ev",
     "It leaves the neutral closed: the circuit can't be made dead at the board, and only the RCD in the unit opens both. "
     "Say why it serves."),
    (DEVICE_IN_UNIT, {"circuits.0.slack_m": 0}, "slack/ev",
     "None: the next unit may sit a hand's breadth away. Say why."),
    (DEVICE_IN_UNIT, {"circuits.0.route.3.hazards": ["old_duct", "drains"]}, "section_hazard/ev-4",
     "existing duct: blocked until proven clear: blocked until proven clear: price for digging; drains or waste pipes: find "
     "where they lie before you dig, and dig by hand there. Say how you deal with it."),
    (GARAGE, {"circuits.0.device.kind": "breaker", "circuits.0.device.rating_a": 16}, "selectivity/ev",
     "The one before is no bigger, or its energies are not known: either may go first, or both. Say why it serves."),
    (DEVICE_IN_UNIT, {"charge_points.0.connector_height_m": 1.65}, "connector_height/ev",
     "1.65 m above ground; 0.5 to 1.5 m is wanted."),
    (DEVICE_IN_UNIT, {"circuits.0.device.rating_a": 40}, "maker_device/ev",
     "The maker allows 32 to 40 A; 32 A would do. Say why the bigger one."),
)  # fmt: skip


class Decisions(unittest.TestCase):
    def test_the_sentence_of_version_1_tells_todays_basis(self) -> None:
        for name, changes, key, sentence in SENTENCES:
            with self.subTest(key):
                changed = job(name, changes)
                found = {one.key: one for one in evaluate(changed, RULES).findings}[key]
                self.assertIs(found.verdict, Verdict.YOUR_CALL)
                document = changed.model_dump(mode="json")
                told = {"key": key, "basis": basis_of(document, {"key": key, "about": sentence})}
                (decision,) = reliance_names_the_unit({**document, "decisions": [told]})["decisions"]
                self.assertEqual(_plain(decision["basis"]), _plain(found.basis))

    def test_what_can_not_be_told_is_asked_again(self) -> None:
        for key, about in (
            ("depth/ev-1", "in a garden"),
            ("surge/board", "None is fitted, friend."),
            ("none/ev", "x"),
            (3, "x"),
        ):
            with self.subTest(key):
                self.assertIsNone(basis_of({}, {"key": key, "about": about}))
        decision = {
            "key": "depth/ev-4",
            "about": "in a garden",
            "reason": "Rock below.",
            "name": "R. Quillfeather",
            "decided_on": "2026-11-12",
        }
        document = job(changes={"circuits.0.route.3.depth_m": 0.3}).model_dump(mode="json")
        old = document | {"schema_version": 1, "decisions": [decision]}
        read = parse_job(old)
        found = {one.key: one for one in evaluate(read, RULES).findings}["depth/ev-4"]
        self.assertTrue(found.is_open)
        self.assertEqual(read.decisions[0].reason, "Rock below.")


def _meant_to_go(path: tuple[Any, ...], document: dict[str, Any]) -> bool:
    """What a step takes away by name: a board's phases, a separate device that the arrangement did not count on, an
    RCD in front that was none, a main switch's defaults before any reading was taken, what was only a default."""
    gone = (
        path[0] in ("schema_version", "letters"),
        path == ("supply", "phases"),
        path[0] == "boards" and path[-1] == "indoors",
        path[-1] == "switches_neutral" and "device" not in path,
        path[-1] == "flex_tail",
        path == ("supply", "cut_out_fuse_standard"),
        path[0] == "boards" and path[-1] in ("phases", "front_rcd"),
        path[0] == "decisions" and "basis" in path,
        path[:2] == ("arrangement", "separate_device"),
        path[:2] == ("supply", "main_switch") and path[-1] != "rating_a" and not document["readings"],
        path[-1] in {*PLACE, *UNIT, *OPEN_PEN},
    )
    return any(gone)


def _moved(path: tuple[Any, ...], document: dict[str, Any]) -> list[Any]:
    """Where a leaf of an old file stands in the present version."""
    parts = ["provenance" if part == "origin" else part for part in path]
    if parts[0] == "arrangement":
        return ["charge_points", 0, *parts]
    if parts[0] == "supply" and str(parts[1]).startswith("tails_"):
        return ["supply", "tails", 0, parts[1].removeprefix("tails_")]
    if parts[:2] == ["supply", "main_switch"]:
        return ["boards", 0, "incomer", 0, *parts[2:]]
    if parts[0] == "boards" and parts[2] == "front_rcd":
        split = document["boards"][parts[1]].get("make_up") == "split_load"
        in_front = ["groups", 0, "guards", 0] if split else ["incomer", 1]
        return [*parts[:2], *in_front, "rcd", *parts[3:]]
    return parts


def _plain(value: Any) -> Any:
    return json.loads(json.dumps(value, default=list))


def _leaves(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[tuple[Any, ...], Any]]:
    if isinstance(value, dict):
        return [leaf for name, inner in value.items() for leaf in _leaves(inner, (*path, name))]
    if isinstance(value, list):
        return [leaf for at, inner in enumerate(value) for leaf in _leaves(inner, (*path, at))]
    return [(path, value)]


def _at(value: Any, path: list[Any]) -> Any:
    for part in path:
        value = value[part]
    return value


class FromVersion3(unittest.TestCase):
    def test_a_tap_proves_no_limit_any_more(self) -> None:
        old = job(DEVICE_IN_UNIT).model_dump(mode="json") | {"schema_version": 3}
        old["supply"] |= {"load_limit_proven": "yes", "load_limit_a": 60.0}
        old["charge_points"][0]["current_clamp"] = "yes"
        old["known_how"] = {"supply.load_limit_proven": "told"}
        read = parse_job(old)
        self.assertEqual((read.known_how, read.charge_points[0].clamp_proof), ({}, None))
        found = {one.rule: one.verdict for one in evaluate(read, RULES).findings}
        self.assertEqual(found["load_clamp"], Verdict.NEEDS)

    def test_readings_of_before_stand_for_the_steps_they_were_taken_for(self) -> None:
        old = job(DEVICE_IN_UNIT).model_dump(mode="json") | {"schema_version": 3}
        common = {"taken_by": "R. Quillfeather", "taken_at": "2026-11-18T10:00:00Z", "instrument": "Tester 4"}
        old["readings"] = [
            {"step": "fault_current", "subject": "origin", "outcome": "measured", "value": 1.2, **common},
            {"step": "charge_point_states", "subject": "ev", "outcome": "right", **common},
        ]
        met = {one.step.value for one in evaluate(parse_job(old), RULES).steps if one.met}
        self.assertLessEqual({"fault_current_neutral", "fault_current_earth"}, met)
        self.assertFalse({"pilot_a", "pilot_c", "earth_open"} & met, "one tick stands for eight tests no longer")
        self.assertFalse({"pilot_d", "diode", "pilot_duty"} & met, "what it did not say was looked at is asked for")
