"""What a finding carries beside its verdict: the fear where it falls short, its school, whether it protects people."""

import unittest

from fulmen.core.alternatives.choice_menu import alternatives
from fulmen.core.circuit.arrangement_schedule import short_protection
from fulmen.core.electrical.open_pen import balanced_met_v, worst_balance
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Verdict
from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.rules.protection import SURGE
from fulmen.core.reference.usual_appliances import usual_appliances
from fulmen.core.reference.usual_defects import USUAL_DEFECTS
from fulmen.core.simulations.benches.pen_network import House, Street, street_volts
from tests.core.test_arrangements import BASE, device, rcd, way
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, FALLS_SHORT, RULES, THREE_PHASE, TT, evaluation, finding, job


class Fears(unittest.TestCase):
    def test_only_what_falls_short_frightens(self) -> None:
        for name in (AT_SURVEY, DEVICE_IN_UNIT, FALLS_SHORT, TT):
            for one in evaluation(name).findings:
                with self.subTest(name, rule=one.rule):
                    self.assertEqual(bool(one.fear), one.verdict is Verdict.FALLS_SHORT)

    def test_fears_are_plain_words(self) -> None:
        for rule, fear in ((one.key, one.can_happen) for one in REGISTER.values()):
            with self.subTest(rule):
                self.assertTrue(10 < len(fear) < 200 and fear.endswith("."))
                self.assertNotRegex(fear, r"BS 7671|\d{3}\.\d|IΔn|MET")

    def test_the_other_school_is_named_where_it_is_taken(self) -> None:
        found = finding("surge", changes={"boards.0.surge_protection": "no"})
        assert SURGE.schools is not None
        cautious, other = SURGE.schools
        self.assertEqual(found.school, f"Cautious school: {cautious}. This one: {other}.")
        self.assertEqual(finding("surge").school, "")


class Band(unittest.TestCase):
    def verdict(self, **changes: object) -> Verdict:
        return evaluate(job(changes=BASE | way(**changes)), RULES).profiles[0].protection_verdict

    def test_it_carries_the_worst_of_what_protects(self) -> None:
        self.assertIs(self.verdict(), Verdict.MEETS)
        self.assertIs(self.verdict(surge="no"), Verdict.YOUR_CALL)
        self.assertIs(self.verdict(metal="not_seen"), Verdict.NEEDS)
        self.assertIs(self.verdict(board=rcd("AC"), surge="no"), Verdict.FALLS_SHORT)

    def test_a_cable_that_falls_short_is_no_matter_of_protection(self) -> None:
        made = job(changes=BASE | {"circuits.0.route.0.length_m": 400.0})
        found = evaluate(made, RULES)
        self.assertIn("volt_drop", {one.rule for one in found.falls_short()})
        self.assertIs(found.profiles[0].protection_verdict, Verdict.MEETS)

    def test_its_words(self) -> None:
        for changes, words in ((way(), "PEN device before"), (way(unit=device()), "PEN device inside"), (way(own=32.0), "TT island"),
                               (way(earth="tt"), "TT"), (way(pen="none"), "no PEN measure"), (way(pen="low_electrode"), "low electrode"),
                               (way(pen="indoors_only"), "indoors only"), (way(pen="three_phase_balance"), "phases balanced")):  # fmt: skip
            made = job(changes=BASE | changes)
            self.assertEqual(short_protection(made, made.charge_points[0]), words)


class WhyNot(unittest.TestCase):
    def test_a_refused_choice_gives_clause_and_fear(self) -> None:
        for choice, label, clause in (("open_pen", "nothing", "722.411.4.1"), ("rcd", "a Type AC 30 mA RCBO at the board", "722.531.3.101"),
                                      ("rdc_dd", "nowhere", "722.531.3.101")):  # fmt: skip
            found = {one.label: one for one in alternatives(job(changes=BASE), "ev", choice, RULES)}  # type: ignore[arg-type]
            with self.subTest(choice):
                self.assertIn(clause, found[label].clause)
                self.assertIn(found[label].fear, {one.can_happen for one in REGISTER.values()})
                allowed = [one for one in found.values() if one.verdict is Verdict.MEETS]
                self.assertTrue(allowed and not any(one.fear or one.why_not for one in allowed))

    def test_surge_protection_is_a_choice(self) -> None:
        found = {one.label: one.verdict for one in alternatives(job(changes=BASE), "ev", "surge", RULES)}
        self.assertEqual(
            found, {"fitted at the board": Verdict.MEETS, "left out": Verdict.YOUR_CALL, "not seen yet": Verdict.NEEDS}
        )


class Balance(unittest.TestCase):
    """Clause (i) by Millman's formula against the whole network with one three-phase house and no electrode."""

    def test_the_formula_is_the_network(self) -> None:
        for least, car_a, phases in (
            ((10.0, 10.0, 10.0), 32.0, 1),
            ((5.0, 20.0, 12.0), 16.0, 3),
            ((30.0, 1.0, 8.0), 0.0, 1),
        ):
            loads = [each + (car_a if phase < phases else 0) for phase, each in enumerate(least)]
            house = House(loads_a=(loads[0], loads[1], loads[2]))
            volts = street_volts(Street(houses=(house,), broken="service"), 253.0, 230.0)[0].met_v
            self.assertAlmostEqual(balanced_met_v((loads[0], loads[1], loads[2]), 253.0), volts, delta=1e-3 * volts)

    def test_nothing_on_floats_at_the_line(self) -> None:
        self.assertAlmostEqual(balanced_met_v((0.0, 0.0, 0.0), 253.0), 253.0)
        self.assertAlmostEqual(balanced_met_v((7.0, 7.0, 7.0), 253.0), 0.0, places=6)

    def test_the_worst_of_any_cars_charging_counts(self) -> None:
        least, on_l1, on_l2 = (40.0, 40.0, 40.0), (32.0, 0.0, 0.0), (0.0, 32.0, 0.0)
        # One alone: 253·32/152 = 53.3 V; both on one line: 253·64/184 = 88 V; on two lines: 253·32/184 = 44 V.
        for cars, volts, charging in (
            ([on_l1], 53.26, 1),
            ([on_l1, on_l1], 88.0, 2),
            ([on_l1, on_l2], 53.26, 1),
            ([], 0.0, 0),
        ):
            met_v, number = worst_balance(least, cars, 253.0)
            self.assertAlmostEqual(met_v, volts, places=2)
            self.assertEqual(number, charging)

    def test_a_second_car_on_the_same_line_breaks_the_balance(self) -> None:
        balance = {"charge_points.0.arrangement.open_pen": "three_phase_balance", "charge_points.0.arrangement.least_load_a": [40.0, 40.0, 40.0],
                   "charge_points.0.phases": 1, "charge_points.0.max_current_a": 32.0}  # fmt: skip
        balance |= {field.replace("points.0.arr", "points.1.arr"): value for field, value in balance.items()}
        for line, verdict in (("L2", Verdict.FALLS_SHORT), ("L3", Verdict.YOUR_CALL)):
            found = {
                one.key: one.verdict for one in evaluation(THREE_PHASE, balance | {"circuits.1.phase": line}).findings
            }
            with self.subTest(line):
                self.assertEqual([found[f"open_pen/{one.id}"] for one in job(THREE_PHASE).circuits[1:]], [verdict] * 2)


class Lists(unittest.TestCase):
    def test_appliances_to_pick_are_whole_and_named_once(self) -> None:
        names = [one.name for one in usual_appliances()]
        self.assertGreater(len(names), 12)
        self.assertEqual(len(set(names)), len(names))
        self.assertTrue(all((one.rating_a is None) != (one.rating_kw is None) for one in usual_appliances()))

    def test_defects_to_pick_are_named_once(self) -> None:
        self.assertEqual(len({one.what for one in USUAL_DEFECTS}), len(USUAL_DEFECTS))
        self.assertTrue(any(one.dangerous for one in USUAL_DEFECTS) and not all(one.dangerous for one in USUAL_DEFECTS))
