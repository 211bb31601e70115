"""The figures along a chain: loads by conductor, points where circuits meet, cables by record, the profile they give."""

import unittest
from typing import Any

from fulmen.core.circuit.circuit_load import circuit_load
from fulmen.core.circuit.laid_cable import cable_per_metre
from fulmen.core.circuit.margins import (
    capacity_margin,
    energy_margin,
    fault_energy,
    load_margin,
    loop_margin,
    volt_drop_margin,
)
from fulmen.core.circuit.run_figures import ChainPoint, cases_of
from fulmen.core.demand.demand import car_current_a, demand_of
from fulmen.core.errors import TableError
from fulmen.core.installation.installation import installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.model.cables import Cable, MakerCable, Protective
from fulmen.core.reference.cable_catalogue import (
    cable_record,
    cable_records,
    cables_of,
    last_cable,
    maker_record,
    protective_metal,
)
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, HALFWAY, RULES, THREE_PHASE, TT, evaluation, job


def loads(name: str, changes: dict[str, Any] | None = None) -> dict[str, float]:
    whole = job(name, changes)
    return {one.id: round(circuit_load(installation_of(whole), one, RULES).ib_a, 6) for one in whole.circuits}


class Loads(unittest.TestCase):
    def test_cars_in_full_and_others_with_diversity(self) -> None:
        self.assertEqual(loads(GARAGE), {"sub-main": 49.32, "ev": 32.0})
        self.assertEqual(loads(GARAGE, {"charge_points.0.set_current_a": 16.0}), {"sub-main": 33.32, "ev": 16.0})
        self.assertEqual(loads(GARAGE, {"boards.1.other_loads": []}), {"sub-main": 32.0, "ev": 32.0})

    def test_a_clamp_turns_the_car_down_and_nothing_else(self) -> None:
        for limit_a, held in ((60.0, 49.32), (49.32, 49.32), (40.0, 40.0), (17.32, 17.32), (10.0, 17.32)):
            with self.subTest(limit_a):
                self.assertEqual(loads(GARAGE, {"circuits.0.load_limit_a": limit_a})["sub-main"], held)

    def test_single_phase_cars_by_their_line_conductor(self) -> None:
        both = {"charge_points.0.phases": 1, "charge_points.0.max_current_a": 32.0}
        for phase, expected in (("L1", 32 + 1.98), ("L2", 64 + 1.98), ("L3", 32 + 1.98)):
            with self.subTest(phase):
                self.assertAlmostEqual(loads(THREE_PHASE, {**both, "circuits.1.phase": phase})["sub-main"], expected)

    def test_behind_a_single_phase_sub_main_a_car_is_on_that_ones_line(self) -> None:
        # The left car on L2 at the board, the right one in a shed whose single-phase sub-main is on L2; it says L1.
        data = job(THREE_PHASE).model_dump(mode="json")
        left, right = data["circuits"][1:]
        shed = {"id": "shed", "name": "Shed"}
        to_shed = {
            **data["circuits"][0],
            "id": "to-shed",
            "from_board": "yard",
            "feeds": "shed",
            "phases": 1,
            "phase": "L2",
        }
        changes = {
            "boards": [*data["boards"], shed],
            "circuits": [data["circuits"][0], to_shed, left | {"phase": "L2"}, right | {"from_board": "shed", "phase": "L1"}],
            "charge_points.0.phases": 1, "charge_points.0.max_current_a": 32.0,
        }  # fmt: skip
        whole = job(THREE_PHASE, changes)
        self.assertEqual(
            [installation_of(whole).tree.line_of(one).value for one in whole.circuits[1:]], ["L2", "L2", "L2"]
        )
        self.assertAlmostEqual(loads(THREE_PHASE, changes)["sub-main"], 64 + 1.98)
        self.assertEqual(car_current_a(installation_of(whole)), 64)
        self.assertEqual(list(installation_of(whole).phases_at.values()), [3, 3, 1])
        found = {one.key: one for one in evaluation(THREE_PHASE, changes).findings}
        self.assertIn("on L2", found[f"phases/{right['id']}"].detail)

    def test_the_highest_fault_at_a_board_counts_the_phases_that_reach_it(self) -> None:
        for phases, expected in ((3, 3), (1, 1)):
            whole = job(THREE_PHASE, {"circuits.0.phases": phases, "charge_points.0.phases": 1})
            run = cases_of(known_for(whole, RULES))[0].figures
            assert run is not None
            self.assertEqual([link.board_phases for link in run.chain], [3, expected])
            self.assertEqual(run.final.start_fault_ka, run.final.start.fault_ka(expected))

    def test_a_single_phase_sub_main_carries_every_car(self) -> None:
        one = {"circuits.0.phases": 1, "charge_points.0.phases": 1}
        self.assertAlmostEqual(loads(THREE_PHASE, one)["sub-main"], 16 + 32 + 1.98)

    def test_boards_below_boards_are_counted(self) -> None:
        data = job(GARAGE).model_dump(mode="json")
        data["boards"].append(
            {
                **data["boards"][1],
                "id": "shed",
                "name": "Shed",
                "groups": [],
                "other_loads": [{"kind": "other", "rating_a": 5.0}],
            }
        )
        data["circuits"].append({**data["circuits"][0], "id": "to-shed", "from_board": "garage", "feeds": "shed"})
        whole = job(GARAGE, {"boards": data["boards"], "circuits": data["circuits"]})
        self.assertAlmostEqual(circuit_load(installation_of(whole), whole.circuits[0], RULES).ib_a, 49.32 + 5)
        self.assertAlmostEqual(circuit_load(installation_of(whole), whole.circuits[2], RULES).ib_a, 5)

    def test_the_houses_demand_holds_the_garage_too_when_it_is_added_up(self) -> None:
        lights = {"load.method": "added_up", "load.appliances": [{"kind": "shower", "rating_a": 40.0}]}
        self.assertAlmostEqual(demand_of(installation_of(job(GARAGE, lights)), RULES).house_a or 0, 40 + 17.32)
        self.assertAlmostEqual(demand_of(installation_of(job(GARAGE)), RULES).total_a or 0, 96)


class Points(unittest.TestCase):
    def test_fault_level_falls_along_the_run_and_rises_with_three_phases(self) -> None:
        point = ChainPoint(0.2, 0.0, 253.0, 1.4)
        self.assertEqual(point.fault_ka(1), 1.4)
        self.assertAlmostEqual(point.fault_ka(3), 2.8)
        further = ChainPoint(0.3, 0.0, 253.0, 1.4, neutral_ohm=0.1, protective_ohm=0.05)
        self.assertAlmostEqual(further.fault_ka(1), 253 / (253 / 1400 + 0.05) / 1000)
        self.assertAlmostEqual(further.fault_ka(3), 253 / ((253 / 1400 + 0.1) / 2) / 1000)

    def test_each_circuit_begins_where_the_one_before_ends(self) -> None:
        for name in (GARAGE, THREE_PHASE):
            whole = job(name)
            for case in cases_of(known_for(whole, RULES)):
                assert case.figures is not None
                first, second = case.figures.chain
                self.assertEqual(first.end, second.start)
                self.assertGreater(second.end.loop_ohm, second.start.loop_ohm)
                self.assertLess(second.end_fault_ka, second.start_fault_ka)

    def test_a_shared_sub_main_is_worked_out_and_judged_once(self) -> None:
        whole = job(THREE_PHASE)
        left, right = cases_of(known_for(whole, RULES))
        assert left.figures and right.figures
        self.assertIs(left.figures.chain[0], right.figures.chain[0])
        self.assertEqual([link.circuit.id for link in right.new_circuits], ["ev-right"])
        keys = [one.key for one in evaluation(THREE_PHASE).findings]
        self.assertEqual(len(keys), len(set(keys)))

    def test_no_figures_without_every_route(self) -> None:
        for field in ("circuits.0.route", "circuits.1.route"):
            whole = job(GARAGE, {field: []})
            self.assertIsNone(cases_of(known_for(whole, RULES))[0].figures)
        asked = next(one for one in evaluation(GARAGE, {"circuits.0.route": []}).findings if one.rule == "route")
        self.assertIn("Sub-main to the garage", asked.detail)


class Margins(unittest.TestCase):
    """What the search weighs is what the checks say: same value, same limit."""

    def test_margins_are_the_findings_figures(self) -> None:
        for name in (DEVICE_IN_UNIT, HALFWAY, FALLS_SHORT, GARAGE, THREE_PHASE):
            whole = job(name)
            found = {one.key: one for one in evaluation(name).findings}
            for case in cases_of(known_for(whole, RULES)):
                assert case.figures is not None
                margins = [volt_drop_margin(case.figures.final, RULES)]
                for link in case.figures.chain:
                    margins += [one for one in (load_margin(link), capacity_margin(link), loop_margin(link)) if one]
                    if link.start_fault_ka < 10:
                        energy = fault_energy(link, link.start_fault_ka, RULES)
                        margins.append(energy_margin(energy, link.circuit.id))
                for margin in margins:
                    finding = found[f"{margin.rule.key}/{margin.subject}"]
                    with self.subTest(name, rule=margin.rule.key):
                        self.assertEqual((finding.value, finding.limit), (margin.value, margin.limit))
                        self.assertAlmostEqual(finding.margin or 0.0, margin.share())


class Records(unittest.TestCase):
    def test_the_70_degree_twin_of_a_90_degree_cable(self) -> None:
        armoured = cable_record(cable_records(), "swa-3-core")
        self.assertEqual((armoured.at_70().rating_table, armoured.at_70().insulation), ("4d4a", "pvc_70"))
        self.assertIs(cable_record(cable_records(), "nyy-j").at_70(), cable_record(cable_records(), "nyy-j"))

    def test_protective_conductors(self) -> None:
        for record, protective, expected in (
            ("swa-3-core", Protective.CORE, 6.0),
            ("swa-3-core", Protective.ARMOUR, 23.0),
            ("twin-and-earth", Protective.CORE, 2.5),
        ):
            with self.subTest(record=record, protective=protective):
                cable = Cable(record=record, csa_mm2=6, protective=protective)
                self.assertEqual(protective_metal(cable_record(cable_records(), record), cable), expected)

    def test_no_armour_no_armour_as_protective_conductor(self) -> None:
        for protective in (Protective.ARMOUR, Protective.CORE_AND_ARMOUR):
            cable = Cable(record="nyy-j", csa_mm2=6, protective=protective)
            with self.subTest(protective), self.assertRaises(TableError):
                cable_per_metre(cable_record(cable_records(), "nyy-j"), cable)
            whole = job(DEVICE_IN_UNIT, {"circuits.0.cable": cable.model_dump(mode="json")})
            self.assertIsNone(cases_of(known_for(whole, RULES))[0].figures)

    def test_armour_beside_the_core_lowers_the_loop_and_is_counted_for_the_fault_either_way(self) -> None:
        core = cable_per_metre(cable_record(cable_records(), "swa-3-core"), Cable(csa_mm2=6))
        both = cable_per_metre(
            cable_record(cable_records(), "swa-3-core"), Cable(csa_mm2=6, protective=Protective.CORE_AND_ARMOUR)
        )
        self.assertLess(both.hot_ohm, core.hot_ohm)
        self.assertEqual(both.least_r2_ohm, core.least_r2_ohm)
        self.assertAlmostEqual(core.least_r2_ohm, 3.08 * 6.7 / (3.08 + 6.7) / 1000)

    def test_a_makers_record(self) -> None:
        own = MakerCable.model_validate({
            "id": "own", "name": "Own", "source": "maker's sheet", "insulation": "xlpe_90", "overall_mm": 15.5,
            "ratings": [{"method": "C", "csa_mm2": 6.0, "rating_a": 55.0}, {"method": "D", "csa_mm2": 10.0, "rating_a": 70.0},
                        {"method": "C", "csa_mm2": 6.0, "loaded": 3, "rating_a": 48.0}],
        })  # fmt: skip
        record = maker_record(own)
        self.assertEqual((record.methods, record.sizes_mm2), (("C", "D"), (6.0, 10.0)))
        self.assertEqual((record.ratings().at("C.2", 6.0), record.ratings().at("C.3", 6.0)), (55, 48))
        self.assertFalse(record.ratings().has("D.2", 6.0))
        self.assertIn("maker's sheet", record.ratings().source("C.2", 6.0))
        self.assertEqual(record.overall_diameter_mm(6), 15.5)

    def test_the_cables_along_a_circuit(self) -> None:
        circuit = job(GARAGE).circuits[1]
        self.assertEqual([one.record for one in cables_of(circuit)], ["twin-and-earth", "ev-power-data"])
        self.assertEqual(last_cable(circuit).record, "ev-power-data")


class Profile(unittest.TestCase):
    def test_nodes_and_sections_in_the_order_of_walking(self) -> None:
        profile = evaluation(GARAGE).profiles[0]
        self.assertEqual(
            [one.kind for one in profile.nodes], ["cut_out", "board", "board", "breakout_box", "charge_point"]
        )
        self.assertEqual([one.at_m for one in profile.nodes], sorted(one.at_m for one in profile.nodes))
        self.assertEqual([one.index for one in profile.sections], list(range(8)))
        self.assertEqual([one.place for one in profile.sections], [0, 1, 2, 3, 4, 0, 1, 2])
        self.assertAlmostEqual(profile.chain[0].to_m, profile.chain[1].from_m)
        self.assertEqual([one.zs_limit_ohm for one in evaluation(TT).profiles[0].chain], [None])

    def test_readings_land_where_they_were_taken(self) -> None:
        taken = {"taken_by": "R. Quillfeather", "taken_at": "2026-11-20T10:00:00Z", "outcome": "measured"}
        readings = [
            {"step": "ze", "subject": "origin", "value": 0.2, **taken},
            {"step": "zs", "subject": "sub-main", "value": 0.31, **taken},
        ]
        marks = evaluation(GARAGE, {"readings": readings}).profiles[0].marks
        self.assertEqual(
            [(one.at, one.expected) for one in marks], [("cut_out", False), ("board", False), ("charge_point", True)]
        )
        self.assertAlmostEqual(marks[1].at_m, 28.2)
