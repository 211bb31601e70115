"""A reading of another kind is refused at every door by which one comes in, and nothing of it is kept."""

import json
import socketserver
import threading
from typing import Any

from fulmen.core.model.readings import StepKey
from tests.app import AppCase
from tests.core.test_reading_fit import FIGURES
from tests.jobs import DEVICE_IN_UNIT, as_file, example_text
from tests.sampling import some
from tests.simulators.test_test_set import Line

API = "/api/v1"
TAKEN = {"taken_by": "R. Quillfeather", "taken_at": "2026-06-01T10:12:00+01:00", "instrument": "Tester 4"}


class Doors(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.at = f"{API}/jobs/{self.store(DEVICE_IN_UNIT, {'readings': []}).id}"
        steps = self.client.get(self.at).get_json()["evaluation"]["steps"]
        self.subject = {one["step"]: one["subject"] for one in steps}

    def bad(self) -> list[tuple[str, str, float | None]]:
        """A tick where a figure is read, a figure where one looks or signs, a figure beyond its range."""
        asked = [key.value for key in StepKey if key.value in self.subject]
        looked = [step for step in asked if step in ("polarity_dead", "polarity_live", "rcd_button")]
        ticked = [(step, "right", None) for step in asked if step in FIGURES]
        figured = [(step, "measured", 0.3) for step in looked]
        beyond = [(step, "measured", 9_999.5) for step in asked if step in FIGURES]
        return [*some(ticked, 4, "ticked"), *figured, *some(beyond, 4, "beyond")]

    def kept(self) -> list[Any]:
        return list(self.client.get(self.at).get_json()["job"]["readings"])

    def test_no_door_takes_one(self) -> None:
        for step, outcome, value in self.bad():
            reading = {"step": step, "subject": self.subject[step], "outcome": outcome, "value": value, **TAKEN}
            with self.subTest(step, outcome=outcome, value=value):
                one = self.client.post(f"{self.at}/readings", json=reading)
                self.assertEqual(one.status_code, 422)
                self.assertIn(one.get_json()["field"], ("outcome", "value"))
                many = self.client.post(f"{self.at}/readings/many", json={"readings": [reading]})
                self.assertEqual(many.status_code, 422)
                for text in self.files(step, outcome, value):
                    lines = self.client.post(
                        f"{self.at}/readings/file",
                        json={"data": as_file(text), "taken_by": "R. Quillfeather", "taken_at": TAKEN["taken_at"]},
                    ).get_json()["lines"]
                    self.assertEqual([line["fate"] for line in lines], ["refused"], text)
                    self.assertIsNone(lines[0]["reading"])
                self.assertEqual(self.from_set(step, outcome, value).status_code, 503)
                whole = json.loads(example_text(DEVICE_IN_UNIT)) | {"readings": [reading]}
                refused = self.client.post(f"{API}/jobs", json=whole)
                self.assertEqual(refused.status_code, 422)
                self.assertRegex(refused.get_json()["field"], r"^readings\.0\.(outcome|value)$")
        self.assertEqual(self.kept(), [])

    def files(self, step: str, outcome: str, value: float | None) -> tuple[str, str]:
        row = {"step": step, "circuit": self.subject[step], "value": "" if value is None else f"{value:g}"}
        row["outcome"] = "" if outcome == "measured" else outcome
        return "\n".join([",".join(row), ",".join(row.values())]), json.dumps([row])

    def from_set(self, step: str, outcome: str, value: float | None) -> Any:
        unit = next((one["unit"] for one in self.steps() if one["step"] == step), "") or "-"
        told = f"VALUE {step} {self.subject[step]} {outcome} {'-' if value is None else value} {unit} -\n"
        odd = type("Odd", (Line,), {"texts": ("FULMEN-TEST-SET 1 Set\n", told)})
        with socketserver.TCPServer(("127.0.0.1", 0), odd) as server:
            threading.Thread(target=server.serve_forever, daemon=True).start()
            self.app.config["TEST_SET_PORT"] = int(server.server_address[1])
            came = self.client.post(f"{self.at}/test-set", json={"step": step, "subject": self.subject[step]})
            server.shutdown()
        return came

    def steps(self) -> list[Any]:
        return list(self.client.get(self.at).get_json()["evaluation"]["steps"])

    def test_a_set_that_shows_what_is_no_number_is_told(self) -> None:
        for shown in ("nan", "inf", "-0.3", "1e9"):
            odd = type(
                "Odd", (Line,), {"texts": ("FULMEN-TEST-SET 1 Set\n", f"VALUE ze origin measured {shown} Ω -\n")}
            )
            with socketserver.TCPServer(("127.0.0.1", 0), odd) as server, self.subTest(shown):
                threading.Thread(target=server.serve_forever, daemon=True).start()
                self.app.config["TEST_SET_PORT"] = int(server.server_address[1])
                came = self.client.post(f"{self.at}/test-set", json={"step": "ze", "subject": "origin"})
                server.shutdown()
                self.assertEqual(came.status_code, 503)
                self.assertIn("Nothing was taken", came.get_json()["detail"])

    def test_a_comma_that_may_part_thousands_is_asked_about(self) -> None:
        text = "step;circuit;value\nze;origin;1,000\nze;origin;0,19"
        lines = self.client.post(
            f"{self.at}/readings/file",
            json={"data": as_file(text), "taken_by": "R. Quillfeather", "taken_at": TAKEN["taken_at"]},
        ).get_json()["lines"]
        self.assertEqual([line["fate"] for line in lines], ["which_mark", "taken"])
        self.assertIn("decimals or thousands?", lines[0]["told"])
