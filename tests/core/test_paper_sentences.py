"""What every paper says of guards stands there: schedules, drawing, operator's form, for every example and trial job.

As in `test_sentences`, the judge reads the job's own JSON and the words; it knows nothing of how guards are placed.
"""

import re
import unittest
from functools import cache
from typing import Any

from fulmen.core.circuit.arrangement_schedule import arrangement_facts
from fulmen.core.circuit.run_figures import case_of
from fulmen.core.editing.job_file import check_structure
from fulmen.core.evaluate import evaluate
from fulmen.core.model.job import Job
from fulmen.core.network_operator.form import operator_form
from fulmen.core.papers.circuits import board_rows
from fulmen.core.papers.judged_job import JudgedJob, judged_job
from fulmen.core.papers.rcds import front_rcds, rcd_rows
from tests.core.test_sentences import Around, Document, every_job
from tests.jobs import RULES, TT, example

MARK = re.compile(r"Type (AC|A|F|B)( S)?, (\d+) mA(, time-delayed)?")
SEEN_WORDS = {"yes": "yes", "no": "no", "not_seen": "not seen yet"}


def read(marks: list[Document | None]) -> list[tuple[str, int, bool]]:
    """RCDs whose marks were read whole."""
    whole = [one for one in marks if one and None not in (one["type"], one["residual_ma"], one["time_delayed"])]
    return sorted((one["type"], one["residual_ma"], one["time_delayed"]) for one in whole)


def told(texts: list[str]) -> list[tuple[str, int, bool]]:
    """The RCDs that some cells name."""
    found = [match for text in texts for match in MARK.finditer(text)]
    return sorted((one[1], int(one[3]), bool(one[2] or one[4])) for one in found)


def on_ways(document: Document) -> list[Document | None]:
    """The marks of every RCD on the way to a charge point or to loads, each once."""
    boards = {one["id"]: one for one in document["boards"]}
    feeders = {one["feeds"]: one for one in document["circuits"] if one["feeds"]}
    found: dict[str, Document | None] = {}
    ends = [feeders[point["id"]] for point in document["charge_points"] if point["id"] in feeders]
    ends += [one for one in document["circuits"] if not one["feeds"]]
    for end in ends:
        circuit: Document | None = end
        while circuit is not None:
            board = boards[circuit["from_board"]]
            found[circuit["id"]] = circuit["device"]["rcd"]
            stored = [guard for box in circuit["boxes"] for guard in box["guards"]] + board["incomer"]
            stored += [g for one in board["groups"] if one["id"] == circuit["group"] for g in one["guards"]]
            found |= {guard["id"]: guard["rcd"] for guard in stored}
            circuit = feeders.get(board["id"])
    for point in document["charge_points"]:
        found[f"in-{point['id']}"] = point["rcd_inside"]
    return list(found.values())


@cache
def judged_jobs() -> tuple[tuple[str, Job, Document, JudgedJob], ...]:
    """What the papers look at, worked out once for all of these tests."""
    found = []
    for what, one in every_job(40):
        check_structure(one)
        found.append((what, one, one.model_dump(mode="json"), judged_job(one, evaluate(one, RULES), RULES)))
    return tuple(found)


class Papers(unittest.TestCase):
    def test_the_table_of_rcds_holds_each_that_was_read_and_no_other(self) -> None:
        for what, _, document, judged in judged_jobs():
            with self.subTest(what):
                self.assertEqual(told([row.what for row in rcd_rows(judged)]), read(on_ways(document)))

    def test_a_circuits_row_names_what_stands_on_its_way(self) -> None:
        for what, _, document, judged in judged_jobs():
            there = read(on_ways(document))
            for board in board_rows(judged):
                for row in board.circuits:
                    with self.subTest(what, circuit=row.circuit, said=row.rcd):
                        self.assertLessEqual(set(told([row.rcd])), set(there))
                        self.assertTrue(
                            row.rcd != "–" or not self.own_mark(document, row.circuit), "its own is left out"
                        )

    def own_mark(self, document: Document, circuit: str) -> bool:
        """Whether the circuit's own device, or what stands before all ways of its board, was read as an RCD."""
        way = next(one for one in document["circuits"] if one["id"] == circuit)
        board = next(one for one in document["boards"] if one["id"] == way["from_board"])
        fed = {one["feeds"] for one in document["circuits"] if not one["feeds"] or one["feeds"]}
        reached = not way["feeds"] or any(point["id"] in fed for point in document["charge_points"])
        return reached and bool(read([way["device"]["rcd"], *(one["rcd"] for one in board["incomer"])]))

    def test_what_stands_in_front_of_the_house_is_there(self) -> None:
        for what, _, document, judged in judged_jobs():
            fed = {circuit["feeds"] for circuit in document["circuits"]}
            fronts = [g["rcd"] for board in document["boards"] if board["id"] not in fed for g in board["incomer"]]
            with self.subTest(what):
                self.assertLessEqual(set(told([row.what for row in front_rcds(judged)])), set(read(fronts)))

    def test_the_drawing_shows_the_guards_that_stand_there(self) -> None:
        for what, _, document, judged in judged_jobs():
            fed = {circuit["feeds"] for circuit in document["circuits"]}
            for point in document["charge_points"]:
                # Of a unit that is taken away nothing is drawn.
                if point["id"] not in fed or document["site"]["work"] == "removed":
                    continue
                here = Around(document, point)
                views = judged.evaluation.guards_to(point["id"])
                stored = sorted(guard["kind"] for guard in here.guards)
                outside = [view for view in views if view.stands.value not in ("unit", "way", "cut_out")]
                with self.subTest(what, point=point["id"]):
                    self.assertEqual(sorted(view.kind for view in outside), stored)
                    inside = {view.kind for view in views if view.stands.value == "unit"}
                    claims = {
                        "rccb": point["rcd_inside"] is not None,
                        "open_pen_device": point["open_pen_inside"] == "yes",
                        "dc_detector": point["rdc_dd_inside"] == "yes",
                    }
                    self.assertEqual(inside, {kind for kind, there in claims.items() if there})

    def test_the_rows_of_the_arrangement_leave_no_rcd_out(self) -> None:
        """An RCD whose mark nobody has read is there all the same."""
        for what, _, document, judged in judged_jobs():
            runs = judged.installation.runs
            arrangements = [arrangement_facts(case_of(judged.known, run)) for run in runs if run.chain]
            fed = [
                point
                for point in document["charge_points"]
                if point["id"] in {c["feeds"] for c in document["circuits"]}
            ]
            for point, rows in zip(fed, arrangements, strict=True):
                marks = [*Around(document, point).marks(), *([point["rcd_inside"]] if point["rcd_inside"] else [])]
                said = [(name, words) for name, words in rows if name.startswith("RCD")]
                with self.subTest(what, point=point["id"], said=said):
                    self.assertEqual(told([words for _, words in said]), read(marks))
                    self.assertTrue(not marks or all(words != "none" for _, words in said), "one stands there")

    def test_the_operators_form_says_what_the_job_says(self) -> None:
        for what, one, document, _ in judged_jobs():
            form = operator_form(one, RULES)
            supply = document["supply"]
            with self.subTest(what):
                self.assertEqual(
                    [point.name for point in form.charge_points], [p["name"] for p in document["charge_points"]]
                )
                self.assertEqual(
                    [point.max_current_a for point in form.charge_points],
                    [p["max_current_a"] for p in document["charge_points"]],
                )
                self.assertEqual(
                    [point.smart for point in form.charge_points],
                    [SEEN_WORDS[p["smart"]] for p in document["charge_points"]],
                )
                self.assertEqual(
                    (form.looped, form.own_generation),
                    (SEEN_WORDS[supply["looped"]], SEEN_WORDS[supply["own_generation"]]),
                )
                self.assertEqual(form.cut_out_fuse_a, supply["cut_out_fuse_a"])
                for point in document["charge_points"]:
                    back = any(line.startswith(point["name"]) for line in form.sources)
                    self.assertEqual(back, point["feeds_back"] == "yes")

    def test_the_judge_would_notice(self) -> None:
        document: Any = example(TT).model_dump(mode="json")
        self.assertEqual(
            told(["Type A, 30 mA", "Type B S, 100 mA, at the board"]), [("A", 30, False), ("B", 100, True)]
        )
        self.assertNotEqual(read(on_ways(document)), [])
        self.assertTrue(self.own_mark(document, document["circuits"][0]["id"]))
