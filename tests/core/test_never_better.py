"""Adding length, load, heat, grouping or insulation never improves a margin.

Two exceptions are physics, not slips: a longer sub-main lets less fault current reach the board after it, so what that
board's device must break, and what it lets through, may fall; and a longer section moves a hot one away from the
terminal, which is as hot as what lies within a metre of it.
"""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.evaluate import evaluate
from fulmen.core.model.job import Job
from tests.figures import figures
from tests.jobs import DEVICE_IN_UNIT, GARAGE, RULES, job
from tests.sampling import tries

FAULT_LEVEL = {"breaking_capacity", "survives_fault", "selectivity"}
WATCHED = {
    "load_on_device",
    "weakest_section",
    "terminal_temperature",
    "volt_drop",
    "volt_drop_lighting",
    "disconnection",
} | FAULT_LEVEL

sections = st.fixed_dictionaries(
    {
        "surroundings": st.just("clipped"),
        "method": st.sampled_from(["C", "E", "D"]),
        "length_m": figures(0.5, 30).map(lambda x: round(x, 1)),
        "temperature_c": st.sampled_from([None, 10.0, 25.0, 35.0]),
        "grouped_circuits": st.integers(1, 5),
        "insulation_mm": st.sampled_from([0.0, 50.0, 100.0]),
        "depth_m": st.sampled_from([0.5, 0.7, 1.0]),
        "soil_km_per_w": st.sampled_from([1.0, 2.5]),
    }
)
WORSE: dict[str, Any] = {
    "length_m": lambda one: one["length_m"] + 3.0,
    "temperature_c": lambda one: (
        {None: 50.0 if one["method"] != "D" else 30.0, 10.0: 15.0, 25.0: 30.0, 35.0: 45.0}[one["temperature_c"]]
        if one["method"] != "D"
        else {None: 30.0, 10.0: 20.0, 25.0: 30.0, 35.0: 35.0}[one["temperature_c"]]
    ),
    "grouped_circuits": lambda one: min(one["grouped_circuits"] + 1, 5),
    "insulation_mm": lambda one: one["insulation_mm"] + 100.0,
    "depth_m": lambda one: 1.0,
    "soil_km_per_w": lambda one: 3.0,
}


def margins(whole: Job) -> dict[str, float]:
    findings = evaluate(whole, RULES).findings
    return {one.key: one.margin for one in findings if one.rule in WATCHED and one.margin is not None}


class NeverBetter(unittest.TestCase):
    def compare(self, before: Job, after: Job, spared: set[str] = frozenset()) -> None:  # type: ignore[assignment]
        was, now = margins(before), margins(after)
        for key in was.keys() & now.keys() - spared:
            self.assertLessEqual(now[key], was[key] + 1e-9, key)

    @tries(80)
    @given(st.lists(sections, min_size=1, max_size=4), st.sampled_from(sorted(WORSE)), st.data())
    def test_a_section_made_worse(self, route: list[dict[str, Any]], field: str, data: st.DataObject) -> None:
        index = data.draw(st.integers(0, len(route) - 1))
        worse = [dict(one) for one in route]
        worse[index][field] = WORSE[field](route[index])
        moved = {"terminal_temperature/ev"} if field == "length_m" else set[str]()
        before, after = (job(DEVICE_IN_UNIT, {"circuits.0.route": one}) for one in (route, worse))
        self.compare(before, after, moved)

    @tries(25)
    @given(st.lists(sections, min_size=1, max_size=3), st.sampled_from(sorted(WORSE)))
    def test_a_sub_main_made_worse(self, route: list[dict[str, Any]], field: str) -> None:
        worse = [dict(route[0]) | {field: WORSE[field](route[0])}, *route[1:]]
        after_it = {f"{rule}/ev" for rule in FAULT_LEVEL}
        after_it |= {"terminal_temperature/sub-main"} if field == "length_m" else set()
        self.compare(job(GARAGE, {"circuits.0.route": route}), job(GARAGE, {"circuits.0.route": worse}), after_it)

    @tries(25)
    @given(figures(6, 39), figures(0.5, 20))
    def test_more_load(self, car_a: float, more_a: float) -> None:
        for name in (DEVICE_IN_UNIT, GARAGE):
            least, most = round(car_a, 1), round(min(car_a + more_a, 80.0), 1)
            before = job(name, {"charge_points.0.set_current_a": least})
            self.compare(before, job(name, {"charge_points.0.set_current_a": most}))

    @tries(15)
    @given(figures(0.5, 40))
    def test_more_of_the_garages_other_loads(self, amps: float) -> None:
        loads = [{"kind": "other", "rating_a": round(amps, 1)}]
        more = [*loads, {"kind": "lighting", "rating_a": 5.0}]
        self.compare(job(GARAGE, {"boards.1.other_loads": loads}), job(GARAGE, {"boards.1.other_loads": more}))
