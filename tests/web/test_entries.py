"""What a device sends again, since it never heard the answer, is done once."""

import threading
from typing import Any

from tests.app import AppCase
from tests.jobs import HALFWAY
from tests.photos import picture

API = "/api/v1"
KEY = "0f5c1d2e-3b4a-4c5d-8e9f-000000000001"
ZE = {
    "step": "ze", "subject": "origin", "outcome": "measured", "value": 0.21, "instrument": "Tester 4",
    "taken_by": "R. Quillfeather", "taken_at": "2026-06-01T10:12:00+01:00",
}  # fmt: skip


class Entries(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.at = f"{API}/jobs/{self.store(HALFWAY).id}"

    def take(self, reading: dict[str, Any], key: str = KEY) -> Any:
        return self.client.post(f"{self.at}/readings", json=reading, headers={"Fulmen-Entry": key})

    def count(self) -> int:
        return sum(one["step"] == "ze" for one in self.client.get(self.at).get_json()["job"]["readings"])

    def test_a_reading_sent_five_times_is_kept_once(self) -> None:
        before = self.count()
        came = [self.take(ZE) for _ in range(5)]
        self.assertEqual({one.status_code for one in came}, {201})
        self.assertEqual({one.get_json()["revision"] for one in came}, {came[0].get_json()["revision"]})
        self.assertEqual(self.count(), before + 1)

    def test_the_same_figure_under_another_key_is_another_reading(self) -> None:
        before = self.count()
        self.take(ZE)
        self.take(ZE, KEY.replace("1", "2"))
        self.assertEqual(self.count(), before + 2)

    def test_a_key_that_was_used_for_another_entry_is_told(self) -> None:
        self.take(ZE)
        other = self.take({**ZE, "value": 0.35})
        self.assertEqual(other.status_code, 409)
        self.assertIn("Nothing was kept", other.get_json()["detail"])
        elsewhere = self.client.post(
            f"{API}/jobs/{self.store(HALFWAY).id}/readings", json=ZE, headers={"Fulmen-Entry": KEY}
        )
        self.assertEqual(elsewhere.status_code, 409)

    def test_a_refused_reading_leaves_its_key_free(self) -> None:
        self.assertEqual(self.take({**ZE, "value": -1}).status_code, 422)
        self.assertEqual(self.take(ZE).status_code, 201)

    def test_no_key_is_bent(self) -> None:
        for key in ("x" * 20, "0" * 65, "0" * 15, "../../etc"):
            with self.subTest(key):
                self.assertEqual(self.take(ZE, key).status_code, 422)

    def test_two_at_once_are_one(self) -> None:
        before, came = self.count(), []
        both = [threading.Thread(target=lambda: came.append(self.app.test_client().post(
            f"{self.at}/readings", json=ZE, headers={"Fulmen-Entry": KEY}).status_code)) for _ in range(2)]  # fmt: skip
        for one in both:
            one.start()
        for one in both:
            one.join()
        self.assertEqual((came, self.count()), ([201, 201], before + 1))

    def test_a_photo_sent_twice_is_one_photo_with_its_own_time(self) -> None:
        for _ in range(2):
            came = self.client.post(
                f"{self.at}/photos?stop=board&made_at=2026-06-01T10:12:00%2B01:00",
                data=picture(), content_type="image/jpeg", headers={"Fulmen-Entry": KEY},
            )  # fmt: skip
            self.assertEqual((came.status_code, came.get_json()["made_at"]), (201, "2026-06-01T09:12:00Z"))
        kept = self.client.get(f"{self.at}/photos").get_json()["photos"]
        self.assertEqual([one["id"] for one in kept], [came.get_json()["id"]])

    def test_a_photo_that_was_taken_out_does_not_come_back(self) -> None:
        def send() -> Any:
            return self.client.post(f"{self.at}/photos?stop=board", data=picture(), content_type="image/jpeg",
                                    headers={"Fulmen-Entry": KEY})  # fmt: skip

        self.client.delete(f"{self.at}/photos/{send().get_json()['id']}")
        self.assertEqual(send().status_code, 404)
        self.assertEqual(self.client.get(f"{self.at}/photos").get_json()["photos"], [])

    def test_a_time_without_its_zone_is_refused(self) -> None:
        came = self.client.post(
            f"{self.at}/photos?stop=board&made_at=2026-06-01T10:12:00", data=picture(), content_type="image/jpeg"
        )
        self.assertEqual((came.status_code, came.get_json()["field"]), (422, "made_at"))
