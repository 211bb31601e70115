"""Jobs for the tests: an example file with some fields replaced."""

from __future__ import annotations

from base64 import b64encode
from functools import cache
from pathlib import Path
from typing import Any

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.editing.job_file import read_job
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.finding import Finding
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set


def as_file(text: str | bytes) -> str:
    """A file as the door of readings takes it."""
    return b64encode(text if isinstance(text, bytes) else text.encode(errors="surrogatepass")).decode()


ROOT = Path(__file__).resolve().parents[1]
EXAMPLES = ROOT / "examples"
DEVICE_IN_UNIT = "tn-c-s-device-in-unit"
TREATED_AS_PME = "tn-s-treated-as-pme"
TT = "tt-with-s-type"
FALLS_SHORT = "falls-short-three-ways"
HALFWAY = "tn-c-s-halfway-through-tests"
AT_SURVEY = "looped-terrace-at-survey"
ALL_ELECTRIC = "all-electric-corner-at-survey"
GARAGE = "garage-sub-main"
THREE_PHASE = "two-cars-three-phase"
OWN_BOARD = "own-board-rccb-in-front"
TYPE_B_BOX = "type-b-box-before-the-unit"
BOX_AT_GARAGE = "rcd-box-beside-a-garage-board"
PEN_BOARD = "open-pen-board-behind-a-sub-main"
TWO_BEHIND_ONE = "two-units-behind-one-open-pen-device"
SHARED_FRONT = "front-rcd-shared-with-the-house"
THREE_RCDS = "three-rcds-in-series"
WIRED_ANEW = "garage-wired-anew"
# Ordinary installations whose guards stand in seven different ways.
SEVEN = (OWN_BOARD, TYPE_B_BOX, BOX_AT_GARAGE, PEN_BOARD, TWO_BEHIND_ONE, SHARED_FRONT, THREE_RCDS)
RULES = rule_set()
# A place whose cable may be rated by each method.
PLACE_OF = {"A": "in_wall", "B": "conduit_or_trunking", "C": "clipped", "D": "buried", "E": "tray",
            "100": "loft", "101": "loft_under", "102": "in_wall", "103": "in_wall"}  # fmt: skip


SWITCH = {"id": "main-switch", "kind": "switch", "poles": 2, "rating_a": 100.0, "voltage_v": 230}
OPEN_PEN = {
    "sensing": "line_neutral_window",
    "opens_protective_conductor": True,
    "opens_within_s": 4.0,
    "closes_by_hand": True,
}
OPEN_PEN_BOX = {
    "id": "pen-box",
    "name": "Box",
    "guards": [{"id": "pen", "kind": "open_pen_device", "poles": 2, "rating_a": 63.0, "open_pen": OPEN_PEN}],
}
DETECTOR_BOX = {
    "id": "dc-box",
    "name": "Box",
    "guards": [{"id": "dc", "kind": "dc_detector", "poles": 2, "rating_a": 63.0}],
}


FUNCTIONS = [
    "voltage", "continuity", "insulation", "electrode", "loop", "rcd", "direct_residual", "phase_sequence", "vehicle",
]  # fmt: skip
# An ordinary instrument, by its sheet, and the lead of an ordinary unit: 2 % and 2 digits of low ohms, 5 % and 3 of a loop.
TESTER: dict[str, Any] = {
    "name": "Tester 4", "serial_number": "T4-0117", "calibration_due": "2027-06-30",
    "functions": FUNCTIONS,
    "accuracies": [
        {"measures": measures, "share_percent": share, "digits": digits}
        for measures, share, digits in (
            ("continuity", 2.0, 2), ("insulation", 3.0, 3), ("electrode", 5.0, 5), ("loop", 5.0, 3),
            ("loop_no_trip", 5.0, 3), ("rcd", 2.0, 2),
        )
    ],
}  # fmt: skip
WITH_TESTER: dict[str, Any] = {
    "testing.instruments": [TESTER],
    "testing.conductors_c": 9.0,
    "charge_points.0.lead_length_m": 5.0,
    "charge_points.0.lead_csa_mm2": 6.0,
}


def mark(kind: str, residual_ma: int = 30, *, delayed: bool = False, neutral: bool = True) -> dict[str, Any]:
    """The mark of an RCD, read whole."""
    return {"type": kind, "residual_ma": residual_ma, "time_delayed": delayed, "switches_neutral": neutral}


def in_front(rcd: Any) -> list[Any]:
    """A board's incomer: its main switch, and an RCCB after it where one is given."""
    return [SWITCH, *([{"id": "front-rcd", "kind": "rccb", "rcd": rcd, "fitted_with_this_job": True}] if rcd else [])]


def example_text(name: str) -> str:
    """An example job file, as it lies on disk."""
    return (EXAMPLES / f"{name}.json").read_text(encoding="utf-8")


@cache
def example(name: str) -> Job:
    """An example as it stands, read once a process; nobody can change it."""
    return read_job(example_text(name))


def job(name: str = DEVICE_IN_UNIT, changes: dict[str, Any] | None = None) -> Job:
    """An example with fields replaced: {"supply.earthing": "tt"}."""
    wanted = tuple(Change(field=field, value=value) for field, value in (changes or {}).items())
    return apply_changes(example(name), wanted) if wanted else example(name)


@cache
def example_evaluation(name: str) -> Evaluation:
    """What an example as it stands computes to, worked out once a process."""
    return evaluate(example(name), RULES)


def evaluation(name: str = DEVICE_IN_UNIT, changes: dict[str, Any] | None = None) -> Evaluation:
    """What an example with fields replaced computes to."""
    return evaluate(job(name, changes), RULES) if changes else example_evaluation(name)


def finding(rule: str, name: str = DEVICE_IN_UNIT, changes: dict[str, Any] | None = None) -> Finding:
    """The one finding of this rule."""
    found = [one for one in evaluation(name, changes).findings if one.rule == rule]
    if len(found) != 1:
        raise AssertionError(f"{len(found)} findings of {rule}")
    return found[0]


# The guided test of a clamp that turned the car down as it must: 44 A of the house leave 16 of 60 for the car.
PROOF = {
    "limit_set_a": 60.0,
    "arrow_with_current": "yes",
    "round_line_only": "yes",
    "wire_pair": "blue pair, the other left for the network",
    "known_load_a": 40.0,
    "shown_without_a": 4.0,
    "shown_with_a": 44.0,
    "offered_without_a": 32.0,
    "offered_with_a": 16.0,
    "follows_s": 3.0,
    "tested_by": "R. Quillfeather",
    "tested_at": "2026-11-18T14:00:00Z",
}
