"""The rule set is the only place of a limit: moved, some verdict moves; and each table cell moved, its function's value moves."""

import unittest
from collections.abc import Callable
from dataclasses import replace
from functools import cache
from typing import Any
from unittest.mock import patch

from fulmen.core.checks import flexible_tail
from fulmen.core.demand.demand import demand_of
from fulmen.core.demand.ways_out import ways_out
from fulmen.core.electrical import (
    cable_fixing,
    cable_rating,
    control_pilot,
    electrode,
    fault_energy,
    fault_loop,
    selectivity,
    tails_rating,
    volt_drop,
)
from fulmen.core.electrical.cable_rating import section_rating
from fulmen.core.electrical.electrode import fall_of_potential
from fulmen.core.errors import TableError
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.guards import Device, DeviceKind
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Outcome
from fulmen.core.model.reference_method import ReferenceMethod
from fulmen.core.model.route import Section, Surroundings
from fulmen.core.reference import cable_catalogue, soil
from fulmen.core.reference.cable_catalogue import CableRecord, cable_records
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.reference.tables import Table, table, table_keys
from fulmen.core.simulations.benches.pen_bench import presets, run_bench
from fulmen.core.simulations.benches.supply_day import supply_day
from tests.jobs import (
    ALL_ELECTRIC,
    DEVICE_IN_UNIT,
    EXAMPLES,
    GARAGE,
    PLACE_OF,
    PROOF,
    RULES,
    TESTER,
    TREATED_AS_PME,
    TT,
    TWO_BEHIND_ONE,
    WIRED_ANEW,
    WITH_TESTER,
    in_front,
    job,
    mark,
)
from tests.sampling import some

ROUTE = "circuits.0.route"
TWIN = {
    "circuits.0.cable.record": "twin-and-earth",
    f"{ROUTE}.2.concealed_under_50_mm": True,
    f"{ROUTE}.2.in_zone": "yes",
}
HOUSE = [
    {"kind": "shower", "name": "Small shower", "rating_a": 10.0},
    {"kind": "cooker", "name": "Cooker", "rating_a": 30.0, "socket_in_unit": True},
    {"kind": "sockets", "name": "Sockets", "rating_a": 32.0},
    {"kind": "sockets", "name": "More sockets", "rating_a": 10.0},
    {"kind": "heating", "name": "Heater", "rating_a": 40.0},
    {"kind": "lighting", "name": "Lights", "rating_a": 6.0},
]
WASHING_HOUSE = [
    *({"kind": "shower", "name": f"Shower of {amps} A", "rating_a": amps} for amps in (20.0, 20.0, 16.0)),
    {"kind": "sockets", "name": "Sockets", "rating_a": 32.0}, {"kind": "lighting", "name": "Lights", "rating_a": 6.0},
]  # fmt: skip
ADDED_UP = {"load.method": "added_up", "supply.cut_out_fuse_a": 100, "supply.load_limit_a": None, "charge_points.0.set_current_a": 6.0}  # fmt: skip
FALL = {"charge_points.0.arrangement.fall_of_potential": {"current_spike_m": 30.0, "readings_ohm": [29.0, 30.0, 31.0], "taken_by": "R. Quillfeather", "taken_on": "2026-11-20"}}  # fmt: skip
# Besides the examples: jobs that stand near a limit which no example comes near.
ARRANGED = "charge_points.0.arrangement"
ISLAND: dict[str, Any] = {f"{ARRANGED}.car_earth": "own_electrode", f"{ARRANGED}.electrode_conductor_csa_mm2": 25.0}


def two_behind(kind: str) -> dict[str, Any]:
    """Two charge points behind one RCD in front, of a type."""
    return {"boards.1.incomer": [{"id": "both", "kind": "rccb", "rating_a": 80.0, "rcd": mark(kind)}]}


RING: dict[str, Any] = {"circuits.2.ring": True, "circuits.2.device.rating_a": 32, "circuits.2.cable.csa_mm2": 2.5, "circuits.2.route.0.length_m": 40.0, "readings": []}  # fmt: skip
# The neutral reads nearly 0.05 Ω more than the line.
RING_READ = (("ring_r1", 0.30), ("ring_rn", 0.345), ("ring_r2", 0.49))
EARTH_READ: dict[str, Any] = {"step": "electrode", "subject": "ev", "outcome": "measured", "value": 32.0,
                              "taken_by": "R. Quillfeather", "taken_at": "2026-11-20T10:00:00+00:00"}  # fmt: skip
COARSE = TESTER | {"accuracies": [one | {"share_percent": 30.0, "digits": 99} for one in TESTER["accuracies"]]}
BY_TESTER = EARTH_READ | {"instrument": "Tester 4"}
AT_ORIGIN = BY_TESTER | {"subject": "origin"}
NEAR: tuple[tuple[str, dict[str, Any]], ...] = (
    (TT, {"supply.electrode_design_ohm": 480.0, "supply.ze_enquiry_ohm": None, "readings": []}),
    (TT, FALL),
    (TT, {"readings": [EARTH_READ | {"subject": "origin", "value": 1.05}]}),
    *((TT, {"readings": [EARTH_READ | {"step": "rcd_five", "subject": "origin", "value": ms}]}) for ms in (55.0, 145.0)),
    (TT, {"readings": [EARTH_READ | {"step": "earth_open", "value": 95.0}, EARTH_READ | {"step": "connector_earth", "value": 0.095}]}),
    (DEVICE_IN_UNIT, {**ISLAND, "readings": [EARTH_READ, EARTH_READ | {"step": "zs", "value": 30.0}]}),
    # An enquiry of a small loop: 0.05 Ω is more than a quarter of it, and the instrument 0.04 Ω; far more to earth than Ze lets.
    (DEVICE_IN_UNIT, WITH_TESTER | {"supply.ze_enquiry_ohm": 0.1, "readings": [AT_ORIGIN | {"step": "ze", "value": 0.18}]}),
    (DEVICE_IN_UNIT, WITH_TESTER | {"supply.ze_enquiry_ohm": 0.6, "readings": [AT_ORIGIN | {"step": "ze", "value": 0.8}]}),
    (DEVICE_IN_UNIT, WITH_TESTER | {"readings": [AT_ORIGIN | {"step": "ze", "value": 0.23}, AT_ORIGIN | {"step": "fault_current_earth", "value": 2.6}]}),
    (DEVICE_IN_UNIT, WITH_TESTER | ISLAND | {"testing.instruments": [COARSE], "readings": [BY_TESTER, BY_TESTER | {"step": "zs", "value": 17.0}]}),
    (DEVICE_IN_UNIT, TWIN),
    (DEVICE_IN_UNIT, {"supply.load_limit_a": 60.0, "charge_points.0.current_clamp": "yes", "charge_points.0.clamp_proof": PROOF | {"shown_with_a": 53.0, "offered_with_a": 7.0}}),
    (DEVICE_IN_UNIT, {"charge_points.0.arrangement.open_pen": "low_electrode", "charge_points.0.arrangement.electrode_conductor_csa_mm2": 10.0, "supply.electrode_design_ohm": 0.5}),
    (DEVICE_IN_UNIT, {"charge_points.0.arrangement.car_earth": "own_electrode", "charge_points.0.arrangement.separation_m": 2.6}),
    (DEVICE_IN_UNIT, {f"{ROUTE}.2.bend_radius_mm": 200.0, f"{ROUTE}.2.hazards": ["data_cables"], f"{ROUTE}.2.clearance_mm": 60.0}),
    (DEVICE_IN_UNIT, {"circuits.0.cable.record": "nyy-j", f"{ROUTE}.2.bend_radius_mm": 150.0, f"{ROUTE}.2.hazards": ["pipes"], f"{ROUTE}.2.clearance_mm": 30.0}),
    (GARAGE, {"circuits.0.device.kind": "fuse", "circuits.0.device.rating_a": 63}),
    (GARAGE, {"circuits.1.device.kind": "fuse", "circuits.1.device.rating_a": 32}),
    (GARAGE, {"supply.earthing": "tt", "supply.electrode_design_ohm": 20.0, "supply.ze_enquiry_ohm": None, "circuits.0.device.rcd": mark("A", 100, delayed=True), "readings": []}),
    *((TWO_BEHIND_ONE, two_behind(kind)) for kind in ("A", "F")),
    *((DEVICE_IN_UNIT, ISLAND | {f"{ARRANGED}.electrode_conductor_protection": kind}) for kind in ("against_corrosion", "bare")),
    (WIRED_ANEW, RING | {"circuits.2.route.0.grouped_circuits": 2}),
    (WIRED_ANEW, RING | {"readings": [EARTH_READ | {"step": step, "subject": "garage-sockets", "value": ohm} for step, ohm in RING_READ]}),
    (ALL_ELECTRIC, ADDED_UP | {"load.appliances": HOUSE}),
    (ALL_ELECTRIC, ADDED_UP | {"load.appliances": WASHING_HOUSE}),
    (DEVICE_IN_UNIT, {f"{ROUTE}.3.soil_km_per_w": 1.4, "supply.electrode_design_ohm": 4.0, "charge_points.0.built_year": 2018, "readings": [], "decisions": []}),
    (DEVICE_IN_UNIT, {"readings": [
        {"step": step, "subject": "ev", "outcome": "measured", "value": value, "taken_by": "R. Quillfeather", "taken_at": f"2026-11-20T10:0{at}:00Z", "test_voltage_v": 500}
        for at, (step, value) in enumerate((("ir_line_earth", 300.0), ("ir_neutral_earth", 300.0), ("ir_live_earth", 310.0)))
    ]}),
    (DEVICE_IN_UNIT, {"site.car_place": "indoors_only", "charge_points.0.hangs_outdoors": False, "charge_points.0.tethered": False, "charge_points.0.door_distance_m": 9.0}),
    (DEVICE_IN_UNIT, {"circuits.0.device.rcd": None, "circuits.0.device.kind": "fuse", "circuits.0.device.rating_a": 32}),
    *((DEVICE_IN_UNIT, {"site.circumstances": ["wheelchair"], "charge_points.0.connector_height_m": height}) for height in (0.76, 1.19)),
    (DEVICE_IN_UNIT, {"boards.0.incomer": in_front(mark("A")), "boards.0.others": "freezer", "boards.0.leakage_ma": 8.9}),
    (GARAGE, {"supply.earthing": "tt", "boards.1.extraneous_parts": "yes", "circuits.0.cable.csa_mm2": 6.0}),
    *((DEVICE_IN_UNIT, {"readings": [EARTH_READ | {"step": "r1_r2", "value": 0.08, "temperature_c": degrees}]}) for degrees in (-9.5, 39.0)),
    (DEVICE_IN_UNIT, {"readings": [EARTH_READ | {"step": "dc_detection", "value": 3.1}]}),
    *((name, {"decisions": [], "readings": [EARTH_READ | {"step": step, "subject": "origin", "value": kiloamps} for step, kiloamps in (("fault_current_neutral", neutral_ka), ("fault_current_earth", earth_ka))]})
      for name, neutral_ka, earth_ka in ((TREATED_AS_PME, 4.8, 1.0), (TT, 5.8, 0.0))),
)  # fmt: skip
# Readings that stand near a limit: their values are the tester's, so they are put in by step.
READ = {"ir_live_earth": 60.0, "ir_line_neutral": 1.5, "fault_current": 0.85, "ze": 0.27}
FACTORS = (0.01, 30.0, 0.2, 5.0, 0.9, 1.1)
# Figures that a question quotes and a person answers with yes or no: moved, the words move.
QUOTED = {"concealed_depth_mm", "bonding_near_entry_mm"}
# Figures of plans and simulations, which judge nothing: moved, what they answer moves.
PLANNED: dict[str, Callable[[RuleSet], object]] = {
    "car_min_a": lambda rules: [supply_day(one, rules) for one in corpus()[:9]],
    "usual_load_limit_a": lambda rules: [
        ways_out(installation_of(one), rules, demand_of(installation_of(one), rules)) for one in corpus()
    ],
    "notify_within_days": lambda rules: [evaluate(one, rules).operator.deadline_words for one in corpus()[:9]],
    "random_delay_max_s": lambda rules: supply_day(job(ALL_ELECTRIC), rules),
    "charging_efficiency": lambda rules: supply_day(job(ALL_ELECTRIC), rules),
    "clamp_follows_within_s": lambda rules: [supply_day(one, rules) for one in corpus()[:9]],
    "pen_window_low_v": lambda rules: [run_bench(one.bench, rules) for one in presets()],
    "pen_window_high_v": lambda rules: [run_bench(one.bench, rules) for one in presets()],
    "current_spike_lengths": lambda rules: fall_of_potential(2.4, rules),
    "potential_spike_share": lambda rules: fall_of_potential(2.4, rules),
    "potential_spike_step_share": lambda rules: fall_of_potential(2.4, rules),
}


@cache
def corpus() -> tuple[Job, ...]:
    """The examples, and the jobs near a limit."""
    read = job(DEVICE_IN_UNIT)
    readings = tuple(
        one.model_copy(update={"outcome": Outcome.MEASURED, "value": READ[one.step]}) if one.step in READ else one
        for one in read.readings
    )
    near = tuple(job(name, changes) for name, changes in NEAR)
    return (
        *(job(path.stem) for path in sorted(EXAMPLES.glob("*.json"))),
        *near,
        read.model_copy(update={"readings": readings}),
    )


def moved(name: str, factor: float) -> RuleSet:
    limit = RULES.limits[name]
    return replace(RULES, limits={**RULES.limits, name: replace(limit, value=limit.value * factor)})


@cache
def verdicts(place: int, rules: RuleSet | None = None) -> list[object]:
    found = evaluate(corpus()[place], rules or RULES)
    return [found.operator.route, *((one.key, one.verdict) for one in found.findings)]


class Limits(unittest.TestCase):
    def moves_a_verdict(self, name: str) -> bool:
        for factor in FACTORS:
            rules = moved(name, factor)
            # The jobs that stand near a limit come last in the corpus: they are the likeliest to move.
            for place in reversed(range(len(corpus()))):
                found = evaluate(corpus()[place], rules)
                if [found.operator.route, *((one.key, one.verdict) for one in found.findings)] != verdicts(place):
                    return True
        return False

    def test_each_moves_some_verdict(self) -> None:
        moving = [name for name in RULES.limits if name not in QUOTED and name not in PLANNED]
        for name in some(moving, 12, "limits"):
            with self.subTest(name):
                self.assertTrue(self.moves_a_verdict(name))

    def test_each_figure_of_a_plan_moves_the_plan(self) -> None:
        for name, plan in PLANNED.items():
            with self.subTest(name):
                self.assertTrue(any(plan(moved(name, factor)) != plan(RULES) for factor in FACTORS[:3]))

    def test_each_quoted_figure_is_read_from_the_rule_set(self) -> None:
        for name in QUOTED:
            rules = moved(name, 3.0)
            changed = [evaluate(one, RULES).findings != evaluate(one, rules).findings for one in corpus()[:9]]
            self.assertTrue(any(changed), name)

    def test_a_30_ma_rcd_falls_short_where_10_is_asked(self) -> None:
        rules = moved("rcd_residual_ma", 1 / 3)
        found = {one.key: one.verdict for one in evaluate(job(DEVICE_IN_UNIT), rules).findings}
        self.assertEqual(found["own_rcd/ev"], "falls_short")


SECTION = Section(length_m=10.0)


def _rated(key: str, column: str, row: float) -> object:
    """Iz of a cable of this table by this column's method."""
    record = next(one for one in cable_records().values() if key in (one.rating_table, one.rating_table_70))
    record = record if record.rating_table == key else record.at_70()
    method, loaded = column.split(".")
    return section_rating(
        SECTION.model_copy(update={"method": ReferenceMethod(method), "surroundings": Surroundings(PLACE_OF[method])}),
        record,
        row,
        1 if loaded == "2" else 3,
    )


def _laid(**changes: Any) -> object:
    record = cable_records()["swa-3-core"]
    return [
        section_rating(SECTION.model_copy(update=changes), one, 6.0) for one in (record, record.at_70())
    ]  # fmt: skip


def _cable(column: str) -> CableRecord:
    return next(one for one in cable_records().values() if one.overall == column)


def _armoured(column: str) -> CableRecord:
    return next(one for one in cable_records().values() if one.armour and column.startswith(one.armour))


IN_GROUND = {"surroundings": Surroundings.BURIED}
RUNS_OF = {method: runs for runs, method in tails_rating.METHODS.items()}
# For each table the function that answers with its cell.
FUNCTIONS: dict[str, Callable[[str, float], object]] = {
    "cut_out_fuse": lambda column, row: fault_energy.cut_out_loop_ohm(row, column),
    **{key: (lambda column, row, key=key: _rated(key, column, row)) for key in ("4d2a", "4d4a", "4d5", "4e2a", "4e4a")},  # type: ignore[misc]
    "4d5_cpc": lambda column, row: cable_records()["twin-and-earth"].cpc_mm2(row),
    "armour": lambda column, row: (_armoured(column).armour_mm2(row), _armoured(column).armour_mohm_per_m(row)),
    "ca_air": lambda column, row: _laid(temperature_c=row),
    "ca_ground": lambda column, row: _laid(**IN_GROUND, temperature_c=row),
    "cable_diameter": lambda column, row: _cable(column).overall_diameter_mm(row),
    "cd": lambda column, row: _laid(**IN_GROUND, depth_m=row, in_duct=column == "in_duct"),
    "cg": lambda column, row: [
        _laid(grouped_circuits=int(row)), _laid(grouped_circuits=int(row), single_layer=True),
        _laid(**IN_GROUND, grouped_circuits=int(row)), _laid(**IN_GROUND, grouped_circuits=int(row), in_duct=True),
    ],
    "ci": lambda column, row: _laid(insulation_mm=row),
    "clip_spacing": lambda column, row: _clips(),
    "conductor_resistance": lambda column, row: fault_loop.conductor_ohm(10.0, row, fine_strands=column.startswith("fine")),
    "cs": lambda column, row: [_laid(**IN_GROUND, soil_km_per_w=row), _laid(**IN_GROUND, soil_km_per_w=row, in_duct=True)],
    "flex_rating": lambda column, row: flexible_tail.tabled_a(row, 1 if column == "2" else 3),
    "tails_rating": lambda column, row: tails_rating.tails_iz_a(row, RUNS_OF[column[0]], 1 if column.endswith("2") else 3),
    "gg_fuse": lambda column, row: _fuse(row),
    "let_through": lambda column, row: fault_energy.let_through_a2s(column[0], float(column.split(".")[1]), row),
    "pilot_states": lambda column, row: [control_pilot.pilot_volts(state) for state in control_pilot.PilotState],
    "pilot_duty": lambda column, row: [
        *(control_pilot.offered_a(percent / 4) for percent in range(400)), control_pilot.duty_of(32.0), control_pilot.duty_of(63.0)
    ],
    "proximity": lambda column, row: [control_pilot.coded_a(float(ohm)) for ohm in range(80, 1800)],
    "rods_in_line": lambda column, row: electrode.rods_in_line_ohm(30.0, int(row), 2.4, 100.0),
    "soil_temperature": lambda column, row: [soil.resistivity_at(row), soil.resistivity_at(row + 0.5)],
    "volt_drop": lambda column, row: volt_drop.millivolts_per_a_m(column.split(".")[0], row, 1 if column.endswith(".2") else 3),
}  # fmt: skip
READERS = (
    cable_catalogue,
    cable_rating,
    cable_fixing,
    control_pilot,
    electrode,
    fault_energy,
    flexible_tail,
    tails_rating,
    fault_loop,
    selectivity,
    soil,
    volt_drop,
)


def _fuse(rating_a: float) -> object:
    device = Device(kind=DeviceKind.FUSE, rating_a=int(rating_a))  # type: ignore[arg-type]
    limits = [fault_loop.device_zs_limit_ohm(device, within_s, u0_v=230, cmin=0.95) for within_s in (0.4, 5.0)]
    try:
        energy = fault_energy.device_energy_a2s(device, 6.0, 6000.0)
    except TableError:
        return limits
    return [limits, energy, selectivity.pre_arcing_a2s(rating_a)]


def _clips() -> object:
    return [
        cable_fixing.clip_spacing_mm(replace(record, overall_mm=diameter), 6.0, vertical=vertical)
        for record in cable_records().values()
        for diameter in (*range(4, 60), 9.5)
        for vertical in (False, True)
    ]


def _with_cell(whole: Table, column: str, place: int) -> Table:
    cells = list(whole.columns[column])
    cells[place] = (cells[place] or 0.0) * 1.07
    return replace(whole, columns={**whole.columns, column: tuple(cells)})


class Cells(unittest.TestCase):
    def test_each_cell_moves_its_functions_value(self) -> None:
        self.assertEqual(set(FUNCTIONS), set(table_keys()))
        for key, function in FUNCTIONS.items():
            whole, dead = table(key), []
            for column, cells in whole.columns.items():
                for place, cell in enumerate(cells):
                    if cell is not None and not self.moves(
                        key, _with_cell(whole, column, place), function, (column, whole.rows[place])
                    ):
                        dead.append((column, whole.rows[place]))
            with self.subTest(key):
                self.assertEqual(dead, [])

    def moves(
        self, key: str, changed: Table, function: Callable[[str, float], object], cell: tuple[str, float]
    ) -> bool:
        before = function(*cell)
        with _serving(key, changed):
            after = function(*cell)
        return before != after


class _serving:
    """Serves a changed table to every module that reads tables."""

    def __init__(self, key: str, changed: Table) -> None:
        self.patches = [patch.object(reader, "table", lambda wanted: changed if wanted == key else table(wanted)) for reader in READERS if hasattr(reader, "table")]  # fmt: skip

    def __enter__(self) -> None:
        for one in self.patches:
            one.start()

    def __exit__(self, *error: object) -> None:
        for one in self.patches:
            one.stop()
