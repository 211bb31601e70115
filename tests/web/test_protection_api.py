"""Protecting people over HTTP: ways, bench, electrode, chain; bad questions name the field."""

import json
from typing import Any

from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, example_text

API = "/api/v1/protection"


class Protection(AppCase):
    def post(self, what: str, body: Any, status: int = 200) -> dict[str, Any]:
        answer = self.client.post(f"{API}/{what}", json=body)
        self.assertEqual(answer.status_code, status, answer.text[:300])
        return dict(answer.get_json())

    def test_every_way(self) -> None:
        question = {"job": json.loads(example_text(DEVICE_IN_UNIT)), "charge_point": "charge-point"}
        found = self.post("arrangements", question)
        self.assertEqual(self.post("arrangements", question | {"charge_point": "none"}, 422)["field"], "charge_point")
        self.assertEqual(len(found["options"]), sum(found["counts"].values()))
        refused = next(one for one in found["options"] if one["allowance"] == "refused")
        self.assertTrue(refused["reasons"][0]["clause"] and refused["reasons"][0]["fear"])

    def test_each_street_that_teaches_can_be_broken(self) -> None:
        presets = self.client.get(f"{API}/teaching").get_json()["presets"]
        self.assertGreaterEqual(len(presets), 4)
        for preset in presets:
            with self.subTest(preset["key"]):
                found = self.post("bench", preset["bench"])
                self.assertEqual(len(found["houses"]), len(preset["bench"]["street"]["houses"]))

    def test_bad_streets_name_the_field(self) -> None:
        street = {"houses": [{"loads_a": [10.0, 0.0, 0.0]}]}
        for wrong, field in (({"street": street | {"houses": []}}, "street.houses"), ({"street": street, "body_ohm": 10}, "body_ohm"),
                             ({"street": street | {"here": 5}}, "street"), ({"street": street, "supply_v": 400}, "supply_v")):  # fmt: skip
            with self.subTest(field):
                self.assertEqual(self.post("bench", wrong, 422)["field"], field)

    def test_an_electrode(self) -> None:
        found = self.post("electrode", {"soil": "clay", "rod_m": 2.4})
        self.assertGreater(found["winter_ohm"], found["now_ohm"])
        for wrong, field in (
            ({"soil": "cheese"}, "soil"),
            ({"rods": 7}, "rods"),
            ({"rod_m": "deep"}, "rod_m"),
            ({"rods": 2, "spacing_m": 1}, "spacing_m"),
        ):
            with self.subTest(field):
                self.assertEqual(self.post("electrode", wrong, 422)["field"], field)

    def test_a_chain(self) -> None:
        job = json.loads(example_text(DEVICE_IN_UNIT))
        found = self.post("chain", {"job": job, "waveform": "smooth", "residual_ma": 6})
        self.assertTrue(found["interrupted"])
        self.assertEqual(self.post("chain", {"job": job, "waveform": "square"}, 422)["field"], "waveform")
        self.assertEqual(self.post("chain", {"job": job, "residual_ma": 501}, 422)["field"], "residual_ma")
