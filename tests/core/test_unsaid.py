"""A fact taken back never leaves Meets: every field of every example put to not known, one at a time.

Nothing rises, and what another answer would have upset meets no longer: that is seen by giving the other answers.
"""

import copy
import unittest
from collections.abc import Iterator
from typing import Any, NamedTuple

from fulmen.core.editing.job_file import parse_job
from fulmen.core.errors import JobFileError
from fulmen.core.evaluate import findings_of
from fulmen.core.findings.finding import Verdict
from fulmen.core.installation.unseen import found_facts
from fulmen.core.model.job import Job
from fulmen.core.model.route import ASKED_OF, Surroundings
from tests.core.test_above_100_a import BIG
from tests.core.test_guard_facts import LADDERS, at
from tests.jobs import EXAMPLES, GARAGE, RULES, THREE_PHASE, WIRED_ANEW, job
from tests.sampling import some

NO_FACTS = {
    "readings",
    "decisions",
    "known_how",
    "elsewhere",
    "letters",
    "certificate",
    "inspections",
    "testing",
    "day",
}
MEETS = Verdict.MEETS
Path = tuple[str | int, ...]
# Other answers to a question that has more than a yes and a no, by the field's name.
OTHERS: dict[str, tuple[Any, ...]] = {fact.value: values for fact, values in LADDERS.items()} | {
    "switches_neutral": (False,), "phases": (1, 3), "earthing": ("tn_s", "tt"), "cut_out_fuse_a": (60, 80, 100),
    "csa_mm2": (1.5, 4.0, 25.0), "record": ("twin-and-earth", "nyy-j"), "protective": ("armour",), "curve": ("C", "D"),
    "kind": ("fuse", "rewirable"), "surroundings": ("in_wall", "buried"), "sensing": ("met_voltage", "line_neutral_window"),
    "opens_within_s": (9.0,), "make_up": ("rewirable",), "enclosure": ("plastic",), "ip_code": ("IP20",),
    "connector_height_m": (0.2,), "max_current_a": (80.0,), "device_max_a": (16.0,), "device_min_a": (80.0,),
    "terminal_max_mm2": (1.5,), "upstream_rcd": ("B",), "grouped_circuits": (9,), "insulation_mm": (500.0,),
    "depth_m": (0.1,), "car_place": ("outdoors",), "metal_at_unit": ("touching",), "conditional_rating_ka": (6.0,),
    "spare_ways": (0,), "cut_out_condition": ("damaged",), "length_m": (50.0,), "main_bonding_csa_mm2": (4.0,),
    "earthing_conductor_csa_mm2": (2.5,), "maximum_demand_a": (300.0,), "energy_class": (1, 3),
    "maker_zs_ohm": (0.05,), "maker_opens_s": (5.0,), "maker_energy_a2s": (90_000_000.0,), "drop_mv_per_a_m": (9.0,),
}  # fmt: skip


def asked(data: dict[str, Any], path: Path) -> bool:
    """Whether a place in the route asks for a fact at all: in the open nobody asks for insulation."""
    return path[-1] != "insulation_mm" or path[-1] in ASKED_OF[Surroundings(at(data, path[:-1])["surroundings"])]


class Taken(NamedTuple):
    """A job with one fact taken back, and with each other answer to it."""

    back: dict[str, Any]
    others: tuple[dict[str, Any], ...]


def leaves(part: Any, path: Path = ()) -> Iterator[tuple[Path, Any]]:
    if isinstance(part, dict | list):
        for key, value in part.items() if isinstance(part, dict) else enumerate(part):
            yield from leaves(value, (*path, key))
    elif part is not None and path[0] not in NO_FACTS:
        yield path, part


def facts(whole: Job) -> Iterator[tuple[Path, Any]]:
    """Every field that a job says something in, and that is asked for."""
    data = whole.model_dump(mode="json")
    return ((path, value) for path, value in leaves(data) if asked(data, path))


def put(data: dict[str, Any], path: Path, value: Any) -> dict[str, Any]:
    changed = copy.deepcopy(data)
    part: Any = changed
    for key in path[:-1]:
        part = part[key]
    part[path[-1]] = value
    return changed


def taken(data: dict[str, Any], whole: Job, path: Path, value: Any) -> Taken:
    """A fact of a found circuit is marked, any other one is null or not seen."""
    name, back = str(path[-1]), put(data, path, "not_seen" if value in ("yes", "no") else None)
    if path[0] == "circuits":
        circuit, field = whole.circuits[int(path[1])], ".".join(map(str, path[2:]))
        if not circuit.fitted_with_this_job and field in found_facts(circuit):
            back = put(data, ("known_how", ".".join(map(str, path))), "not_seen")
    # That an RCD opens the neutral is told by its poles or by its mark: one taken back, so is the other.
    if name == "poles" and isinstance(at(data, path[:-1]).get("rcd"), dict):
        back = put(back, (*path[:-1], "rcd", "switches_neutral"), None)
    if name == "switches_neutral" and "poles" in at(data, path[:-2]):
        back = put(back, (*path[:-2], "poles"), None)
    others = (
        (True, False) if isinstance(value, bool) else ("yes", "no") if value in ("yes", "no") else OTHERS.get(name, ())
    )
    return Taken(back, tuple(put(data, path, one) for one in others if one != value))


def verdicts(data: dict[str, Any]) -> dict[str, Verdict] | None:
    """What every finding says; None where the document can't be such a job."""
    try:
        return {one.key: one.verdict for one in findings_of(parse_job(data), RULES)}
    except JobFileError:
        return None


def contradicts(now: dict[str, Verdict], before: dict[str, Verdict]) -> bool:
    return any(key.startswith("contradiction/") for key in now.keys() - before.keys())


def jobs() -> Iterator[tuple[str, Job]]:
    """Every example, and one whose sub-main and device are there already."""
    for path in sorted(EXAMPLES.glob("*.json")):
        yield path.stem, job(path.stem, {"readings": [], "decisions": []})
    found = {"circuits.0.fitted_with_this_job": False, "circuits.0.looked_at": "yes", "readings": []}
    yield "there already", job(GARAGE, found)
    old_ring = {"circuits.2.fitted_with_this_job": False, "circuits.2.looked_at": "yes", "circuits.2.ring": True,
                "circuits.2.device.rating_a": 32, "circuits.2.cable.csa_mm2": 2.5, "circuits.2.device.energy_class": 3,
                "readings": []}  # fmt: skip
    yield "an old ring", job(WIRED_ANEW, old_ring)
    yield "a sub-main by its makers' figures", job(THREE_PHASE, BIG | {"decisions": []})


class Unsaid(unittest.TestCase):
    def test_a_fact_taken_back_makes_nothing_meet(self) -> None:
        every = [(name, whole, path, value) for name, whole in jobs() for path, value in facts(whole)]
        tried = 0
        for name, whole, path, value in some(every, 260, "unsaid"):
            data = whole.model_dump(mode="json")
            fact, before = taken(data, whole, path, value), verdicts(data)
            now = verdicts(fact.back)
            if now is None or before is None:
                continue  # a choice, or a field that can't be left open
            tried += 1
            with self.subTest(name, path=path):
                self.assertEqual([key for key, one in now.items() if one is MEETS is not before.get(key, one)], [])
                # An answer that contradicts something else said is none to this question alone.
                others = [one for data in fact.others if (one := verdicts(data)) and not contradicts(one, before)]
                upset = {
                    key for key, one in before.items() if one is MEETS and any(o.get(key) is not MEETS for o in others)
                }
                self.assertEqual([key for key in upset if now.get(key) is MEETS], [])
        self.assertGreater(tried, 40)


if __name__ == "__main__":
    unittest.main()
