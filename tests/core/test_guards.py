"""Guards: seven ordinary installations written as they are, and one list that everything reads."""

import ast
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.alternatives.choice_menu import alternatives
from fulmen.core.alternatives.protection_choice import ProtectionChoice, protected, protection_changes, with_protection
from fulmen.core.editing.changes import apply_changes
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.guards import Stands
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.materials import materials
from fulmen.core.model.arrangement import OpenPenMeasure, RdcDdPlace
from fulmen.core.model.guards import GuardKind
from fulmen.core.model.job import Job
from fulmen.core.model.readings import StepKey
from fulmen.core.simulations.benches.residual_chain import ChainQuestion, residual_chain
from tests.jobs import (
    BOX_AT_GARAGE,
    DEVICE_IN_UNIT,
    GARAGE,
    OPEN_PEN,
    OWN_BOARD,
    PEN_BOARD,
    ROOT,
    RULES,
    SEVEN,
    SHARED_FRONT,
    SWITCH,
    THREE_PHASE,
    THREE_RCDS,
    TWO_BEHIND_ONE,
    TYPE_B_BOX,
    evaluation,
    finding,
    job,
    mark,
)
from tests.sampling import tries

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
# Each installation: the guards of its (last) run by caption, words of its sentence, the subjects of its RCD readings,
# and what the checks say of its RCDs.
INSTALLATIONS: tuple[tuple[str, list[str], str, list[str], dict[str, Verdict]], ...] = (
    (OWN_BOARD, ["80 A fuse", "63 A switch", "A 30 mA", "B40", "open PEN", "6 mA DC"],
     "the 63 A Type A 30 mA RCCB in front, Own board", ["own-rccb"],
     {"own_rcd": MEETS, "rcd_at_board": MEETS, "dc_protection": MEETS}),
    (TYPE_B_BOX, ["80 A fuse", "100 A switch", "B40", "B 30 mA", "open PEN"],
     "the 63 A Type B 30 mA RCCB in RCD box", ["type-b"],
     {"own_rcd": MEETS, "rcd_at_board": CALL, "dc_protection": MEETS, "rcd_blinding": MEETS}),
    (BOX_AT_GARAGE, ["100 A fuse", "100 A switch", "63 A fuse", "63 A switch", "B32", "A 30 mA", "open PEN", "6 mA DC"],
     "the 63 A Type A 30 mA RCCB in RCD box", ["box-rccb"],
     {"own_rcd": MEETS, "rcd_at_board": MEETS, "dc_protection": MEETS}),
    (PEN_BOARD, ["100 A fuse", "100 A switch", "63 A fuse", "open PEN", "B 30 mA", "C32"],
     "the 63 A Type B 30 mA RCCB in front, Open-PEN board", ["type-b"],
     {"own_rcd": MEETS, "rcd_at_board": MEETS, "dc_protection": MEETS, "open_pen": MEETS}),
    (TWO_BEHIND_ONE, ["80 A fuse", "100 A switch", "63 A fuse", "open PEN", "B40", "A 30 mA", "6 mA DC"],
     "only the RCD in the unit", ["ev-left", "ev-right"], {"own_rcd": MEETS, "rcd_at_board": CALL, "open_pen": MEETS}),
    (SHARED_FRONT, ["80 A fuse", "100 A switch", "A 30 mA", "B40", "open PEN", "A 30 mA", "6 mA DC"],
     "the RCD in the unit, behind the 80 A Type A 30 mA RCCB in front of RCD side, Consumer unit", ["house-rcd", "ev"],
     {"own_rcd": MEETS, "rcd_at_board": MEETS}),
    (THREE_RCDS, ["80 A fuse", "100 A switch", "A 30 mA", "B40", "A 30 mA", "open PEN", "A 30 mA", "6 mA DC"],
     "the 63 A Type A 30 mA RCCB in RCD box", ["house-rcd", "box-rccb", "charge-point"], {"own_rcd": MEETS, "rcd_at_board": MEETS}),
)  # fmt: skip


def sentence(found: Evaluation) -> str:
    return "".join(part.text for part in found.sentences[-1].parts)


def tested(found: Evaluation) -> list[str]:
    return [step.subject for step in found.steps if step.step is StepKey.RCD_TRIP]


class Seven(unittest.TestCase):
    def test_each_is_evaluated_as_itself(self) -> None:
        self.assertEqual({one[0] for one in INSTALLATIONS}, set(SEVEN))
        for name, captions, words, subjects, verdicts in INSTALLATIONS:
            found = evaluation(name)
            with self.subTest(name):
                self.assertEqual([one.short for one in found.guards[-1].guards], captions)
                self.assertIn(words, sentence(found))
                self.assertEqual(tested(found), subjects)
                self.assertEqual(found.falls_short(), [])
                for rule, verdict in verdicts.items():
                    told = {one.verdict for one in found.findings if one.rule == rule}
                    self.assertEqual(told, {verdict}, rule)

    def test_what_is_bought(self) -> None:
        for name, needed in (
            (OWN_BOARD, {"board.small": 1, "rccb.a": 1, "breaker": 1}),
            (TYPE_B_BOX, {"rccb.b": 1, "box.guards": 1, "breaker": 1}),
            (BOX_AT_GARAGE, {"rccb.a": 1, "box.guards": 1, "breaker": 1}),
            (PEN_BOARD, {"board.small": 1, "pen-device": 1, "rccb.b": 1, "breaker": 1, "fused-switch": 1}),
            (TWO_BEHIND_ONE, {"pen-device": 1, "breaker": 2, "fused-switch": 1}),
            (THREE_RCDS, {"rccb.a": 1, "box.guards": 1}),
        ):
            listed = {one.key: one.quantity for one in materials(job(name))}
            with self.subTest(name):
                self.assertEqual({key: listed.get(key) for key in needed}, needed)
        self.assertFalse([one.key for one in materials(job(SHARED_FRONT)) if one.key.startswith("rccb")])

    def test_what_goes_off_with_the_house_rcd_is_named(self) -> None:
        to_earth = evaluation(SHARED_FRONT).faults[0].faults[0]
        self.assertIn("(with it freezer, lights and sockets)", to_earth.told)
        view = next(one for one in evaluation(SHARED_FRONT).guards[0].guards if one.stands is Stands.GROUP)
        self.assertEqual(view.behind, "freezer, lights and sockets too")

    def test_three_in_series_may_each_open(self) -> None:
        to_earth = evaluation(THREE_RCDS).faults[0].faults[0]
        names = [to_earth.first, *to_earth.may_open_too]
        self.assertEqual(sum("30 mA" in name for name in names), 2)
        self.assertEqual(len(chain(job(THREE_RCDS))), 4, "three RCDs and the detector in the unit")

    def test_two_units_on_two_lines_share_the_device_before_them(self) -> None:
        found = evaluation(TWO_BEHIND_ONE)
        fields = [{one.field for one in run.guards if one.kind == "open_pen_device"} for run in found.guards]
        self.assertEqual(fields[0], fields[1])
        self.assertEqual([circuit.phase.value for circuit in job(TWO_BEHIND_ONE).circuits[1:]], ["L1", "L3"])


def chain(made: Job) -> tuple[str, ...]:
    found = residual_chain(ChainQuestion(job=made), RULES)
    return tuple(one.name for one in found.devices)


def rcd(kind: str, ma: int, late: bool) -> dict[str, Any]:
    return {"type": kind, "residual_ma": ma, "time_delayed": late}


RCDS = st.builds(rcd, st.sampled_from(["AC", "A", "F", "B"]), st.sampled_from([10, 30, 100]), st.booleans())


@st.composite
def made_up(draw: Any) -> dict[str, Any]:
    """The garage with guards anywhere: in front of boards and groups, on ways, in boxes, inside the unit."""
    names = iter(range(100))

    def held() -> list[dict[str, Any]]:
        kinds = draw(st.lists(st.sampled_from(["rccb", "open_pen_device", "dc_detector"]), max_size=2))
        return [
            {"id": f"g{next(names)}", "kind": kind, "rcd": draw(RCDS) if kind == "rccb" else None, "open_pen": {} if kind == "open_pen_device" else None}
            for kind in kinds
        ]  # fmt: skip

    box = {"id": "box", "name": "Box", "guards": held(), "after_section": draw(st.none() | st.integers(0, 5))}
    return {
        "boards.0.incomer": [SWITCH, *held()], "boards.1.incomer": held(),
        "boards.1.groups": [{"id": "side", "name": "Side", "guards": held(), "feeds_others": draw(st.sampled_from(["yes", "no", "not_seen"]))}],
        "circuits.1.group": draw(st.sampled_from(["", "side"])), "circuits.1.boxes": [box],
        "circuits.0.device": {"kind": "breaker", "rating_a": 63, "rcd": draw(st.none() | RCDS)},
        "circuits.1.device.rcd": draw(st.none() | RCDS), "charge_points.0.rcd_inside": draw(st.none() | RCDS),
        "charge_points.0.rdc_dd_inside": draw(st.sampled_from(["yes", "no"])),
        "boards.1.other_loads": [], "boards.1.feeds_others": draw(st.sampled_from(["yes", "no", "not_seen"])),
    }  # fmt: skip


class Menu(unittest.TestCase):
    def test_a_device_without_rcd_is_named_by_what_else_there_is(self) -> None:
        inside: dict[str, Any] = {"charge_points.0.rcd_inside": mark("A"), "charge_points.0.rcd_inside_seen": "yes"}
        for name, changes, told in (
            (DEVICE_IN_UNIT, {}, "no RCD"),
            (DEVICE_IN_UNIT, inside, "only the RCD in the unit"),
            (OWN_BOARD, {}, "no RCD with the device"),
        ):
            labels = {one.label for one in alternatives(job(name, changes), "ev", "rcd", RULES)}
            with self.subTest(name, told=told):
                self.assertIn(told, labels)


class OneList(unittest.TestCase):
    @tries(80)
    @given(made_up())
    def test_everything_reads_the_same_list(self, changes: dict[str, Any]) -> None:
        made = job(GARAGE, changes)
        found, (run,) = evaluate(made, RULES), installation_of(made).runs
        guards = run.guards
        outside = [one for one in guards if one.rcd is not None and one.stands is not Stands.UNIT]
        self.assertEqual([one.field for one in found.guards[0].guards], [one.field for one in guards])
        steps = {step.subject for step in found.steps if step.step in (StepKey.RCD_TRIP, StepKey.RCD_ORIGIN_TRIP)}
        for one in outside:
            at_origin = one.rcd is not None and one.rcd.time_delayed and one.circuit == run.chain[0].circuit.id
            delayed_front = at_origin and one.stands in (Stands.INCOMER, Stands.GROUP)
            self.assertIn("origin" if delayed_front else one.subject, steps)
        self.assertEqual(len(chain(made)), sum(one.rcd is not None or one.detects_dc for one in guards))
        told = " ".join(fault.told for fault in found.faults[0].faults if fault.at == "Charge point" and fault.to_earth)
        quick = [one for one in outside if one.rcd is not None and not one.rcd.time_delayed and one.device is None]
        for one in quick:
            self.assertIn(one.where, told)
        numb = any(one.rcd is not None and one.rcd.type.value == "AC" for one in guards)
        verdict = next(one.verdict for one in found.findings if one.rule == "rcd_blinding")
        self.assertTrue(verdict is SHORT or not numb)

    @tries(80)
    @given(made_up())
    def test_only_what_is_its_own_counts_as_its_own(self, changes: dict[str, Any]) -> None:
        made = job(GARAGE, changes)
        (run,) = installation_of(made).runs
        own = [
            one for one in run.guards
            if one.rcd is not None and one.circuit == "ev" and one.shared.value == "no"
            and one.rcd.residual_ma <= 30 and not one.rcd.time_delayed and one.rcd.switches_neutral
        ]  # fmt: skip
        verdict = next(one.verdict for one in evaluate(made, RULES).findings if one.rule == "own_rcd")
        self.assertEqual(verdict is MEETS, bool(own))

    def test_where_guards_stand_is_read_in_one_module(self) -> None:
        """Checks, steps, sentence, schedule, faults, chain and papers know guards only from the list."""
        stored = {"incomer", "groups", "boxes", "rcd_inside", "open_pen_device"}
        # What makes the list, what edits the tree, what buys every part of it, and what knows a circuit by its box's name.
        allowed = {
            "core/installation/guards.py", "core/installation/legs.py", "core/installation/tree.py", "core/alternatives/protection_choice.py", "core/alternatives/remedies.py",
            "core/editing/job_file.py", "core/editing/layouts.py", "core/editing/tree_copies.py",
            "core/editing/tree_editing.py", "core/editing/tree_nodes.py", "core/materials/materials.py", "core/next_things.py",
        }  # fmt: skip
        readers = set()
        for path in (ROOT / "fulmen").rglob("*.py"):
            tree = ast.parse(path.read_text(encoding="utf-8"))
            if any(isinstance(node, ast.Attribute) and node.attr in stored for node in ast.walk(tree)):
                readers.add(str(path.relative_to(ROOT / "fulmen")))
        self.assertEqual({one for one in readers if "upgrades" not in one}, allowed)


BOX = {"id": "box", "name": "Box", "guards": [{"id": "rccb", "kind": "rccb", "rcd": mark("A")}]}
NO_RCBO = {"circuits.0.device.rcd": None}


class Safe(unittest.TestCase):
    """When nobody looked, or an RCD stands past the cable, it guards nothing before it."""

    def test_a_box_on_the_way_guards_what_follows_it_only(self) -> None:
        hidden = NO_RCBO | {
            "circuits.0.route.2.concealed_under_50_mm": True,
            "circuits.0.cable.record": "ev-power-data",
        }
        for after, verdict in ((0, MEETS), (2, MEETS), (3, SHORT), (None, SHORT)):
            with self.subTest(after):
                changes = hidden | {"circuits.0.boxes": [{**BOX, "after_section": after}]}
                self.assertIs(finding("concealed_cable", DEVICE_IN_UNIT, changes).verdict, verdict)

    def test_a_box_at_the_end_opens_no_fault_in_the_cable_before_it(self) -> None:
        high = NO_RCBO | {"readings": [], "supply.ze_enquiry_ohm": 1.5}
        for after, verdict in ((0, CALL), (1, SHORT), (None, SHORT)):
            with self.subTest(after):
                changes = high | {"circuits.0.boxes": [{**BOX, "after_section": after}]}
                self.assertIs(finding("disconnection", DEVICE_IN_UNIT, changes).verdict, verdict)

    def test_an_rccb_in_front_is_its_own_only_where_nobody_else_hangs_behind_it(self) -> None:
        front = NO_RCBO | {
            "boards.0.incomer": [SWITCH, {"id": "rccb", "kind": "rccb", "rcd": mark("A")}],
            "boards.0.front_rcd_seen": "yes",
        }
        for seen, verdict in (("no", MEETS), ("yes", CALL), ("not_seen", NEEDS)):
            with self.subTest(seen):
                self.assertIs(
                    finding("own_rcd", DEVICE_IN_UNIT, front | {"boards.0.feeds_others": seen}).verdict, verdict
                )
        two = {"boards.1.incomer": [{"id": "rccb", "kind": "rccb", "rcd": mark("A")}], "boards.1.feeds_others": "no",
               "circuits.1.device.rcd": None, "circuits.2.device.rcd": None, "boards.1.other_loads": []}  # fmt: skip
        verdicts = {one.verdict for one in evaluation(THREE_PHASE, two).findings if one.rule == "own_rcd"}
        self.assertEqual(verdicts, {SHORT}, "one RCCB for two cars is neither's own")

    def test_an_rccb_whose_mark_nobody_read_asks_for_it(self) -> None:
        unread = {"boards.0.incomer": [SWITCH, {"id": "rccb", "kind": "rccb"}], "boards.0.front_rcd_seen": "yes"}
        self.assertIs(finding("front_rcd", DEVICE_IN_UNIT, unread).verdict, NEEDS)
        alone = unread | NO_RCBO | {"charge_points.0.upstream_rcd": "A"}
        self.assertIs(finding("own_rcd", DEVICE_IN_UNIT, alone).verdict, NEEDS)
        self.assertIs(finding("maker_rcd", DEVICE_IN_UNIT, alone).verdict, NEEDS)

    def test_a_separate_device_is_there_or_falls_short(self) -> None:
        chosen = {"charge_points.0.arrangement.open_pen": "separate_device"}
        self.assertIs(finding("open_pen", DEVICE_IN_UNIT, chosen).verdict, SHORT)
        pen: dict[str, Any] = {"id": "pen", "kind": "open_pen_device", "poles": 2}
        for device, verdict in (
            (None, NEEDS),
            ({}, NEEDS),
            (OPEN_PEN, MEETS),
            ({"opens_protective_conductor": False}, SHORT),
        ):
            for place in ("boards.0.incomer", "circuits.0.boxes"):
                held = [{**pen, "open_pen": device}]
                value = held if place.endswith("incomer") else [{"id": "box", "name": "Box", "guards": held}]
                with self.subTest(device, place=place):
                    self.assertIs(finding("open_pen", DEVICE_IN_UNIT, chosen | {place: value}).verdict, verdict)

    def test_an_unknown_group_and_a_name_used_twice_are_refused_by_field(self) -> None:
        for changes, field in (
            ({"circuits.0.group": "nowhere"}, "circuits.0.group"),
            ({"circuits.0.boxes": [{**BOX, "id": "ev"}]}, "circuits.0.boxes.0.id"),
            ({"circuits.0.boxes": [{**BOX, "id": "rccb"}]}, "circuits.0.boxes.0.guards.0.id"),
            ({"boards.0.incomer": [SWITCH, SWITCH]}, "boards.0.incomer.1.id"),
        ):
            with self.subTest(field), self.assertRaises(JobFileError) as caught:
                job(DEVICE_IN_UNIT, changes)
            self.assertEqual(caught.exception.problems[0].field, field)


class Choosing(unittest.TestCase):
    """An arrangement brings the guards it relies on, and takes those of another one along when it goes."""

    def taken(self, made: Job, **updates: Any) -> Job:
        (run,) = installation_of(made).runs
        arrangement = run.charge_point.arrangement.model_copy(update=updates)
        choice = ProtectionChoice(arrangement, run.final().circuit.device.rcd)
        then = protected(made, run, choice)
        changed = apply_changes(made, protection_changes(installation_of(made), then))
        self.assertEqual(changed, with_protection(made, then), "by fields or as parts, the same")
        return changed

    def kinds(self, made: Job) -> list[GuardKind]:
        return [guard.kind for box in made.circuits[-1].boxes for guard in box.guards]

    def test_there_and_back(self) -> None:
        start = job()
        both = self.taken(start, open_pen=OpenPenMeasure.SEPARATE_DEVICE, rdc_dd=RdcDdPlace.BEFORE_UNIT)
        self.assertEqual(self.kinds(both), [GuardKind.OPEN_PEN_DEVICE, GuardKind.DC_DETECTOR])
        self.assertEqual(evaluate(both, RULES).falls_short(), [])
        one = self.taken(both, rdc_dd=RdcDdPlace.IN_UNIT)
        self.assertEqual(self.kinds(one), [GuardKind.OPEN_PEN_DEVICE])
        self.assertEqual(self.taken(one, open_pen=OpenPenMeasure.DEVICE_IN_UNIT), start)

    def test_one_that_stands_in_a_board_serves_there(self) -> None:
        made = self.taken(job(PEN_BOARD), open_pen=OpenPenMeasure.SEPARATE_DEVICE)
        self.assertEqual(self.kinds(made), [])

    def test_what_was_there_already_stays(self) -> None:
        box = {
            "id": "box",
            "name": "Box",
            "fitted_with_this_job": False,
            "guards": [{"id": "pen", "kind": "open_pen_device", "open_pen": {}}],
        }
        made = self.taken(job(changes={"circuits.0.boxes": [box]}), open_pen=OpenPenMeasure.DEVICE_IN_UNIT)
        self.assertEqual(self.kinds(made), [GuardKind.OPEN_PEN_DEVICE])
