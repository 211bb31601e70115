"""Testing over HTTP: the register of instruments, the order with the fewest moves, readings as they are taken."""

from typing import Any

from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, GARAGE, job

API = "/api/v1"
METER = {"name": "Meter", "serial_number": "M-1", "calibration_due": "2027-01-31", "functions": ["loop", "rcd"]}


class Instruments(AppCase):
    def put(self, *instruments: dict[str, Any]) -> Any:
        return self.client.put(f"{API}/instruments", json={"instruments": list(instruments)})

    def test_none_until_some_are_kept_and_then_the_newest(self) -> None:
        self.assertEqual(self.client.get(f"{API}/instruments").get_json(), {"instruments": []})
        self.assertEqual(self.put(METER).status_code, 200)
        self.assertEqual(self.client.get(f"{API}/instruments").get_json()["instruments"], [METER])

    def test_bad_ones_are_refused_by_field(self) -> None:
        for name, value in (
            ("name", "M"),
            ("calibration_due", "soon"),
            ("functions", ["singing"]),
            ("serial_number", 7),
        ):
            answer = self.put({**METER, name: value})
            with self.subTest(name):
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.get_json()["field"].startswith(f"instruments.0.{name}"))


class Order(AppCase):
    def test_the_coachs_order_beside_the_books(self) -> None:
        plan = self.client.post(f"{API}/tests/order", json=job(GARAGE).model_dump(mode="json")).get_json()
        self.assertLess(plan["coached"]["walks"], plan["book"]["walks"])
        self.assertEqual(plan["steps"][0]["step"], "isolated")

    def test_the_persons_seconds_are_used(self) -> None:
        changed = job(DEVICE_IN_UNIT, {"testing.moves.walk_s": 0.0}).model_dump(mode="json")
        usual = job(DEVICE_IN_UNIT).model_dump(mode="json")
        sums = [
            self.client.post(f"{API}/tests/order", json=one).get_json()["coached"]["duration_s"]
            for one in (changed, usual)
        ]
        self.assertLess(*sums)

    def test_a_job_without_a_circuit_has_nothing_to_test(self) -> None:
        answer = self.client.post(f"{API}/tests/order", json={"title": "Blank"})
        self.assertEqual((answer.status_code, answer.get_json()["steps"]), (200, []))


class Readings(AppCase):
    def test_what_is_kept_with_a_reading(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        reading = {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, "taken_by": "R. Quillfeather",
                   "taken_at": "2026-11-26T10:00:00Z", "instrument": "Meter", "again_because": "terminal tightened",
                   "photo": "0" * 64}  # fmt: skip
        kept = self.client.post(f"{API}/jobs/{stored.id}/readings", json=reading).get_json()["job"]["readings"][-1]
        self.assertEqual({name: kept[name] for name in reading if name != "taken_at"}, {k: v for k, v in reading.items() if k != "taken_at"})  # fmt: skip

    def test_a_photo_that_is_no_hash_is_refused(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        reading = {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, "taken_by": "R. Quillfeather",
                   "taken_at": "2026-11-26T10:00:00Z", "photo": "display.jpg"}  # fmt: skip
        answer = self.client.post(f"{API}/jobs/{stored.id}/readings", json=reading)
        self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, "photo"))
