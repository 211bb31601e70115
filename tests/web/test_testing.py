"""Testing over HTTP: the register of instruments, the order with the fewest moves, readings as they are taken."""

from typing import Any

from fulmen.core.model.readings import StepKey, by_step
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, GARAGE, as_file, job

API = "/api/v1"
METER = {"name": "Meter", "serial_number": "M-1", "calibration_due": "2027-01-31", "checked_on": None, "functions": ["loop", "rcd"], "accuracies": []}  # fmt: skip


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
        plan = self.looked("tests/order", job(GARAGE).model_dump(mode="json"))
        self.assertLess(plan["coached"]["walks"], plan["book"]["walks"])
        self.assertEqual(plan["steps"][0]["step"], "isolated")

    def test_a_longer_way_takes_longer(self) -> None:
        farther = job(DEVICE_IN_UNIT, {"circuits.0.route.2.length_m": 40.0}).model_dump(mode="json")
        usual = job(DEVICE_IN_UNIT).model_dump(mode="json")
        sums = [self.looked("tests/order", one)["coached"]["duration_s"] for one in (usual, farther)]
        self.assertLess(*sums)

    def test_a_job_without_a_circuit_has_nothing_to_test(self) -> None:
        self.assertEqual(self.looked("tests/order", {"title": "Blank"})["steps"], [])


class Drawing(AppCase):
    def asked(self, name: str, **what: Any) -> Any:
        return self.client.post(f"{API}/tests/drawing", json={"job": job(name).model_dump(mode="json"), **what})

    def test_the_way_a_step_measures_along(self) -> None:
        asked = {"charge_point": "charge-point", "step": "r1_r2", "subject": "sub-main"}
        drawn = self.asked(GARAGE, **asked).get_json()
        self.assertEqual((drawn["circuit"], drawn["linked"]), ("sub-main", "line_earth"))
        self.assertEqual({one["wire"] for one in drawn["flow"]}, {"sub-main.L", "sub-main.link", "sub-main.E"})
        self.assertEqual(drawn["leads"], {"1": ["far.L"], "2": ["far.E"]})

    def test_a_step_that_is_not_on_the_way(self) -> None:
        for what, field in (
            ({"charge_point": "charge-point", "step": "zs", "subject": "attic"}, "step"),
            ({"charge_point": "attic", "step": "zs", "subject": "ev"}, "charge_point"),
        ):
            answer = self.asked(GARAGE, **what)
            with self.subTest(field):
                self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, field))


class Readings(AppCase):
    def test_what_is_kept_with_a_reading(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        reading = {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, "taken_by": "R. Quillfeather",
                   "taken_at": "2026-11-26T10:00:00Z", "instrument": "Meter", "again_because": "terminal tightened",
                   "follows": {"taken_by": "R. Quillfeather", "taken_at": "2026-11-18T10:00:00Z"},
                   "photo": "0" * 64}  # fmt: skip
        kept = self.client.post(f"{API}/jobs/{stored.id}/readings", json=reading).get_json()["job"]["readings"][-1]
        self.assertEqual({name: kept[name] for name in reading if name != "taken_at"}, {k: v for k, v in reading.items() if k != "taken_at"})  # fmt: skip
        for half, field in (({"follows": None}, "follows"), ({"again_because": ""}, "again_because")):
            refused = self.client.post(f"{API}/jobs/{stored.id}/readings", json=reading | half)
            self.assertEqual((refused.status_code, refused.get_json()["field"]), (422, field))

    def test_taken_back_with_its_reason_and_both_stay(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        read = by_step(job(DEVICE_IN_UNIT).readings).every(StepKey.ZS, "ev")[-1]
        entry = {"step": "zs", "subject": "ev", "outcome": "taken_back", "reason": "leads on the wrong circuit",
                 "taken_by": "B. Otreal", "taken_at": "2026-11-26T10:00:00Z",
                 "follows": {"taken_by": read.taken_by, "taken_at": read.taken_at.isoformat()}}  # fmt: skip
        other = {"follows": {"taken_by": "B. Otreal", "taken_at": "2026-11-18T10:00:00Z"}}
        for half, told in (({"reason": ""}, "reason:"), ({"follows": None}, "follows:"), (other, "no such reading")):
            refused = self.client.post(f"{API}/jobs/{stored.id}/readings", json=entry | half)
            with self.subTest(half):
                self.assertEqual(refused.status_code, 422)
                self.assertIn(told, refused.get_json()["detail"])
        before = len(self.client.get(f"{API}/jobs/{stored.id}").get_json()["job"]["readings"])
        kept = self.client.post(f"{API}/jobs/{stored.id}/readings", json=entry).get_json()
        self.assertEqual(len(kept["job"]["readings"]), before + 1)
        zs = next(one for one in kept["evaluation"]["steps"] if (one["step"], one["subject"]) == ("zs", "ev"))
        self.assertEqual((zs["reading"], len(zs["taken_back"])), (None, 2), "it is asked for again, and both stay")

    def test_a_photo_that_is_no_hash_is_refused(self) -> None:
        stored = self.store(DEVICE_IN_UNIT)
        reading = {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, "taken_by": "R. Quillfeather",
                   "taken_at": "2026-11-26T10:00:00Z", "photo": "display.jpg"}  # fmt: skip
        answer = self.client.post(f"{API}/jobs/{stored.id}/readings", json=reading)
        self.assertEqual((answer.status_code, answer.get_json()["field"]), (422, "photo"))


class FromAFile(AppCase):
    def asked(self, text: str, **more: Any) -> Any:
        body = {
            "data": as_file(text),
            "taken_by": "R. Quillfeather",
            "taken_at": "2026-11-26T10:00:00Z",
            "instrument": "Meter",
            **more,
        }
        return self.client.post(f"{API}/jobs/1/readings/file", json=body)

    def test_shown_first_kept_together_and_never_twice(self) -> None:
        self.store(DEVICE_IN_UNIT, {"readings": []})
        text = "step,circuit,value,unit\nr1_r2,ev,0.10,Ω\nze,origin,0.19,Ω\nguess,ev,1,Ω\n"
        found = self.asked(text).get_json()
        self.assertEqual([line["fate"] for line in found["lines"]], ["taken", "taken", "no_step"])
        self.assertEqual(self.client.get(f"{API}/jobs/1").get_json()["job"]["readings"], [])
        readings = [line["reading"] for line in found["lines"] if line["reading"]]
        kept = self.client.post(f"{API}/jobs/1/readings/many", json={"readings": readings})
        self.assertEqual((kept.status_code, len(kept.get_json()["job"]["readings"])), (201, 2))
        again = self.asked(text).get_json()
        self.assertEqual([line["fate"] for line in again["lines"]], ["duplicate", "duplicate", "no_step"])

    def test_a_step_that_was_taken_before_asks_whose_it_follows_and_why(self) -> None:
        self.store(DEVICE_IN_UNIT)
        before = by_step(job(DEVICE_IN_UNIT).readings).every(StepKey.ZS, "ev")[-1]
        text = (
            "step,circuit,value,unit,taken_at\nzs,ev,0.31,Ω,2026-11-26T09:00:00Z\nzs,ev,0.32,Ω,2026-11-26T09:05:00Z\n"
        )
        asked = self.asked(text).get_json()["lines"]
        self.assertEqual([(line["fate"], line["reading"]) for line in asked], [("again", None)] * 2)
        self.assertIn(f"{before.taken_by} took it on", asked[0]["told"])
        told = [line["reading"] for line in self.asked(text, again_because="terminal tightened").get_json()["lines"]]
        self.assertEqual([one["again_because"] for one in told], ["terminal tightened"] * 2)
        # Each follows the one before it, also within the file.
        self.assertEqual([one["follows"]["taken_at"] for one in told][1], told[0]["taken_at"])
        self.assertEqual(told[0]["follows"]["taken_by"], before.taken_by)
        kept = self.client.post(f"{API}/jobs/1/readings/many", json={"readings": told})
        self.assertEqual(kept.status_code, 201)
        again = [one for one in kept.get_json()["evaluation"]["findings"] if one["rule"] == "taken_again"]
        self.assertEqual([one["verdict"] for one in again], ["meets"])

    def test_all_or_none(self) -> None:
        self.store(DEVICE_IN_UNIT, {"readings": []})
        good = {"step": "ze", "subject": "origin", "outcome": "measured", "value": 0.2, "taken_by": "R. Quillfeather",
                "taken_at": "2026-11-26T10:00:00Z"}  # fmt: skip
        answer = self.client.post(f"{API}/jobs/1/readings/many", json={"readings": [good, {**good, "value": -1}]})
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(self.client.get(f"{API}/jobs/1").get_json()["job"]["readings"], [])

    def test_the_columns_are_kept_for_the_instrument(self) -> None:
        self.store(DEVICE_IN_UNIT, {"readings": []})
        text = "Test;Result\nCPC;0,10\n"
        shape = {"step_column": "Test", "value_column": "Result", "steps": {"CPC": "r1_r2"}}
        line = self.asked(text, shape=shape).get_json()["lines"][0]
        body = {"readings": [line["reading"]], "shape": shape, "instrument": "Meter"}
        self.assertEqual(self.client.post(f"{API}/jobs/1/readings/many", json=body).status_code, 201)
        again = self.asked("Test;Result\nCPC;0,11\n", again_because="terminal tightened")
        self.assertEqual(again.get_json()["lines"][0]["fate"], "taken")

    def test_a_file_that_is_none_is_told(self) -> None:
        self.store(DEVICE_IN_UNIT)
        answer = self.asked("%PDF-1.7")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("no reading", answer.get_json()["detail"])
