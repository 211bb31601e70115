"""Every sentence of the specification and every row of the arrangement says what stands there, and no more.

The judge reads the job's own JSON and the words that a person reads; it knows nothing of how guards are placed.
"""

import unittest
from collections.abc import Iterator
from typing import Any

from fulmen.core.circuit.arrangement_schedule import arrangement_facts
from fulmen.core.circuit.run_figures import cases_of
from fulmen.core.editing.job_file import check_structure, parse_job
from fulmen.core.evaluate import evaluate
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, RULES, example, job
from tests.sampling import some
from tests.trials.test_trials import NOT_KNOWN, trials

Document = dict[str, Any]


class Around:
    """What stands on the way to one charge point, by the document alone."""

    def __init__(self, document: Document, point: Document) -> None:
        boards = {one["id"]: one for one in document["boards"]}
        feeders = {one["feeds"]: one for one in document["circuits"] if one["feeds"]}
        self.point, self.way = point, feeders[point["id"]]
        self.boards: list[Document] = []
        self.guards: list[Document] = []
        circuit: Document | None = self.way
        while circuit is not None:
            board = boards[circuit["from_board"]]
            self.boards.insert(0, board)
            self.guards += [guard for box in circuit["boxes"] for guard in box["guards"]]
            self.guards += [g for one in board["groups"] if one["id"] == circuit["group"] for g in one["guards"]]
            self.guards += board["incomer"]
            circuit = feeders.get(board["id"])
        fed = set(feeders)
        self.house = next(one for one in document["boards"] if one["id"] not in fed)

    def marks(self) -> list[Document]:
        """Every RCD mark outside the unit, its own way's first."""
        found = [self.way["device"]["rcd"], *(one["rcd"] for one in self.guards)]
        return [one for one in found if one is not None]

    def kinds(self) -> set[str]:
        return {one["kind"] for one in self.guards}


def untrue(text: str, here: Around) -> list[str]:
    """What a text says that does not stand there."""
    unit, wrong = here.point, []
    types = {one["type"] for one in [*here.marks(), *([unit["rcd_inside"]] if unit["rcd_inside"] else [])]}
    claims = {
        "RCD in the unit": unit["rcd_inside"] is not None,
        "with no RCD and": not here.marks() and unit["rcd_inside"] is None,
        "RCBO at the board": here.way["device"]["rcd"] is not None,
        "detection in the unit;": unit["rdc_dd_inside"] == "yes",
        "detection in a separate device before the unit;": "dc_detector" in here.kinds(),
        "detection nowhere": "B" not in types,
        "the RCD is Type B": "B" in types,
        "by the device inside the unit.": unit["open_pen_inside"] == "yes",
        "by a separate device before the unit.": "open_pen_device" in here.kinds(),
        "surge protection is fitted": here.boards[0]["surge_protection"] == "yes",
        "surge protection is left out.": "yes"
        not in (here.house["surge_protection"], here.boards[0]["surge_protection"]),
    }
    wrong += [words for words, so in claims.items() if words in text and not so]
    return wrong


def every_job(most: int = 60) -> Iterator[tuple[str, Job]]:
    """Every example, as it stands and half known, and a sample of the trial jobs."""
    for path in sorted(EXAMPLES.glob("*.json")):
        yield path.stem, example(path.stem)
    yield from half_known()
    told = [one for name in ("ordinary", "traps") for one in trials(name)]
    for trial in some(told, most, "sentences"):
        changes = {field: None if value == NOT_KNOWN else value for field, value in trial["changes"].items()}
        yield trial["what"], job(trial["on"], {"readings": [], **changes})


def half_known() -> Iterator[tuple[str, Job]]:
    """Every example as it is before anybody has read a mark or looked a unit up."""
    for path in sorted(EXAMPLES.glob("*.json")):
        document = example(path.stem).model_dump(mode="json")
        for circuit in document["circuits"]:
            _unread(circuit["device"])
            for box in circuit["boxes"]:
                for guard in box["guards"]:
                    _unread(guard)
        for board in document["boards"]:
            board["surge_protection"] = "not_seen"
            for guard in [*board["incomer"], *(g for group in board["groups"] for g in group["guards"])]:
                _unread(guard)
        for point in document["charge_points"]:
            point |= {"open_pen_inside": "not_seen", "rdc_dd_inside": "not_seen"}
            point["rcd_inside"] = point["rcd_inside"] and UNREAD
        yield f"{path.stem}, half known", parse_job({**document, "readings": [], "decisions": []})


UNREAD = dict.fromkeys(("type", "residual_ma", "time_delayed", "switches_neutral"))


def _unread(guard: Document) -> None:
    guard["rcd"] = guard["rcd"] and UNREAD


def texts(one: Job, point: str) -> list[str]:
    """The sentence of a charge point, and its rows of the schedule in the same words."""
    sentence = next(
        (
            "".join(part.text for part in each.parts)
            for each in evaluate(one, RULES).sentences
            if each.charge_point == point
        ),
        "",
    )
    case = next(
        case for case in cases_of(known_for(one, RULES)) if not case.to_loads and case.run.charge_point.id == point
    )
    rows = dict(arrangement_facts(case))
    dc, surge = rows["6 mA DC detection (RDC-DD)"], rows["Surge protection"]
    return [sentence, f"detection {dc};", f"surge protection is {surge}.", *rows]


class Sentences(unittest.TestCase):
    def test_each_is_so(self) -> None:
        for what, one in every_job():
            document = one.model_dump(mode="json")
            check_structure(one)
            fed = {circuit["feeds"] for circuit in document["circuits"]}
            for point in document["charge_points"]:
                if point["id"] not in fed:
                    continue
                for text in texts(one, point["id"]):
                    with self.subTest(what, point=point["id"], text=text):
                        self.assertEqual(untrue(text, Around(document, point)), [])

    def test_the_judge_would_notice(self) -> None:
        document = job(DEVICE_IN_UNIT).model_dump(mode="json")
        here = Around(document, document["charge_points"][0])
        for text in (
            "Protect people with only the RCD in the unit and", "Protect people with no RCD and",
            "6 mA DC detection in a separate device before the unit;", "6 mA DC detection not needed: the RCD is Type B;",
            "by a separate device before the unit. ", "surge protection is left out.",
        ):  # fmt: skip
            with self.subTest(text):
                self.assertTrue(untrue(text, here))


if __name__ == "__main__":
    unittest.main()
