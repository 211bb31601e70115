"""A ring final circuit at a board wired anew: its device, its size, each way round, what sits on it (433.1.204)."""

import unittest
from typing import Any

from fulmen.core.findings.finding import Verdict
from fulmen.core.materials.materials import materials
from tests.jobs import DEVICE_IN_UNIT, WIRED_ANEW, evaluation, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
SOCKETS = "garage-sockets"
AT = "circuits.2"
AS_RING: dict[str, Any] = {
    f"{AT}.ring": True,
    f"{AT}.device.rating_a": 32,
    f"{AT}.cable.csa_mm2": 2.5,
    f"{AT}.route.0.length_m": 40.0,
    "readings": [],
    "decisions": [],
}
HEATER = [{"kind": "sockets", "name": "Sockets", "rating_a": 20.0}, {"kind": "water_heater", "name": "Boiler", "rating_a": 13.0}]  # fmt: skip
FOUND = {f"{AT}.fitted_with_this_job": False, f"{AT}.looked_at": "yes"}
# rule, what is changed of the ring, verdict
TRIALS: list[tuple[str, dict[str, Any], Verdict | None]] = [
    ("ring_final", {}, MEETS),
    ("ring_final", {f"{AT}.device.rating_a": 20}, MEETS),
    ("ring_final", {f"{AT}.device.rating_a": 40}, SHORT),
    ("ring_final", {f"{AT}.cable.csa_mm2": 4.0}, MEETS),
    ("ring_final", {f"{AT}.cable.csa_mm2": 1.5}, SHORT),
    ("ring_final", {f"{AT}.phases": 3}, SHORT),
    ("ring_final", {f"{AT}.loads": HEATER}, CALL),
    ("ring_final", {f"{AT}.ring": False}, None),
    ("ring_final", {f"{AT}.ring": None}, None),
    ("ring_final", {**FOUND, f"{AT}.ring": None}, NEEDS),
    ("ring_final", {**FOUND, f"{AT}.ring": True}, MEETS),
    # Each way round carries at least 20 A behind 32; clipped 2.5 mm² carries 27, in a wall 16.
    ("weakest_section", {}, MEETS),
    ("weakest_section", {f"{AT}.route.0.grouped_circuits": 3}, SHORT),
    ("weakest_section", {f"{AT}.route.0.grouped_circuits": 2}, MEETS),
    ("weakest_section", {f"{AT}.route.0.surroundings": "in_wall"}, SHORT),
    # A smaller device asks no more than 32 A does.
    ("weakest_section", {f"{AT}.device.rating_a": 25}, MEETS),
    ("weakest_section", {f"{AT}.device.rating_a": 25, f"{AT}.route.0.grouped_circuits": 2}, MEETS),
    ("weakest_section", {f"{AT}.device.rating_a": 16, f"{AT}.route.0.grouped_circuits": 3}, MEETS),
    ("weakest_section", {f"{AT}.device.rating_a": 40}, SHORT),
    # Run one way, 2.5 mm² behind 32 A is what it always was.
    ("weakest_section", {f"{AT}.ring": False}, SHORT),
    # 20 A at the middle and 12 spread round it: 26·18·L/4.
    ("volt_drop", {f"{AT}.route.0.length_m": 110.0}, SHORT),
    ("volt_drop", {f"{AT}.route.0.length_m": 80.0}, MEETS),
    ("volt_drop", {f"{AT}.route.0.length_m": 80.0, f"{AT}.ring": False}, SHORT),
]


class RingFinal(unittest.TestCase):
    def test_each(self) -> None:
        for rule, changes, expected in TRIALS:
            with self.subTest(rule, changes=changes):
                found = {one.key: one for one in evaluation(WIRED_ANEW, {**AS_RING, **changes}).findings}
                one = found.get(f"{rule}/{SOCKETS}")
                self.assertEqual(one and one.verdict, expected, one and f"{one.figures()} {one.detail}")

    def test_a_charge_point_never_hangs_on_one(self) -> None:
        found = {one.key: one.verdict for one in evaluation(DEVICE_IN_UNIT, {"circuits.0.ring": True}).findings}
        self.assertIs(found["ring_final/ev"], SHORT)

    def test_all_of_its_cable_is_bought(self) -> None:
        need = {one.key: one.quantity for one in materials(job(WIRED_ANEW, AS_RING))}
        self.assertGreaterEqual(need["cable.twin-and-earth.2.5"], 40 + 7)
