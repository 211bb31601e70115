"""The survey over HTTP: photos, the householder's door, load and day, the operator, charge points."""

import json
import re
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from icalendar import Calendar

from fulmen.core.editing.acts import as_history
from fulmen.core.editing.job_file import read_job, write_job
from fulmen.core.network_operator.notification import OperatorState
from fulmen.photos import MAX_BYTES
from fulmen.web.app import create_app
from fulmen.web.doors import policy
from fulmen.web.doors.policy import Role
from tests.app import NOW, AppCase
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, HALFWAY, example_text, job
from tests.photos import huge_png, picture

API = "/api/v1"
IMAGE = {"content_type": "image/jpeg"}


class SurveyCase(AppCase):
    def problem(self, response: Any, status: int, words: str = "") -> dict[str, Any]:
        self.assertEqual(
            (response.status_code, response.mimetype), (status, "application/problem+json"), response.text[:300]
        )
        self.assertIn(words, response.get_json()["detail"])
        return dict(response.get_json())


class Photos(SurveyCase):
    def setUp(self) -> None:
        super().setUp()
        self.at = f"{API}/jobs/{self.store(HALFWAY).id}/photos"

    def test_added_listed_shown_removed(self) -> None:
        added = self.client.post(f"{self.at}?stop=cut_out", data=picture("HEIF"), content_type="image/heic")
        self.assertEqual(added.status_code, 201, added.text)
        number = added.get_json()["id"]
        self.assertEqual(self.client.get(self.at).get_json()["photos"], [added.get_json()])
        for address in (f"{API}/photos/{number}.jpg", f"{API}/photos/{number}/thumbnail.jpg"):
            shown = self.client.get(address)
            self.assertEqual((shown.mimetype, shown.data[:3]), ("image/jpeg", b"\xff\xd8\xff"))
        self.assertEqual(self.client.delete(f"{self.at}/{number}").status_code, 204)
        self.problem(self.client.delete(f"{self.at}/{number}"), 404)

    def test_what_is_refused_and_why(self) -> None:
        cases: list[tuple[bytes, str, str, int, str]] = [
            (huge_png(10_000, 6_000), "image/png", "cut_out", 422, "60 megapixels"), (b"text", "image/jpeg", "cut_out", 422, "no JPEG"),
            (b"x" * (MAX_BYTES + 1), "image/jpeg", "cut_out", 413, "at most 20 MB"), (picture(), "text/plain", "cut_out", 415, "Send a photo"),
            (picture(), "image/jpeg", "roof", 422, "must be"),
        ]  # fmt: skip
        for data, kind, stop, status, words in cases:
            with self.subTest(words):
                self.problem(self.client.post(f"{self.at}?stop={stop}", data=data, content_type=kind), status, words)
        self.assertEqual(self.client.get(self.at).get_json()["photos"], [])
        self.problem(self.client.post(f"{API}/jobs/9/photos?stop=cut_out", data=picture(), **IMAGE), 404)


class HouseholdersDoor(SurveyCase):
    def setUp(self) -> None:
        super().setUp()
        self.number = self.store(AT_SURVEY).id
        made = self.client.post(f"{API}/jobs/{self.number}/links", json={"made_by": "R. Quillfeather", "days": 7})
        self.assertEqual(made.status_code, 201, made.text)
        self.secret = made.get_json()["address"].rpartition("/answer/")[2]
        self.at = f"{API}/householder/{self.secret}"

    def links(self) -> list[dict[str, Any]]:
        return list(self.client.get(f"{API}/jobs/{self.number}/links").get_json()["links"])

    def test_answers_and_photos_arrive_and_are_accepted_or_asked_again(self) -> None:
        self.assertEqual(self.client.put(f"{self.at}/answers/supply_number", json={"value": "S 4711"}).status_code, 200)
        sent = self.client.post(f"{self.at}/photos/photo_cable", data=picture(), **IMAGE)
        self.assertEqual(sent.status_code, 201)
        answers = {one["question"]: one for one in self.links()[0]["answers"]}
        self.assertEqual((answers["supply_number"]["words"], answers["supply_number"]["state"]), ("S 4711", "arrived"))
        photo = answers["photo_cable"]["photos"][0]
        self.assertEqual(self.client.get(f"{self.at}/photos/{photo}.jpg").mimetype, "image/jpeg")
        again = f"{API}/jobs/{self.number}/answers/{answers['photo_cable']['id']}/asked-again"
        self.assertEqual(self.client.post(again, json={"note": "Closer, please"}).status_code, 204)
        accepted = self.client.post(
            f"{API}/jobs/{self.number}/answers/{answers['supply_number']['id']}/accepted", headers={"If-Match": "1"}
        )
        self.assertEqual(accepted.get_json()["job"]["supply"]["supply_number"], "S 4711")
        asked = {one["question"]["key"]: one for one in self.client.get(self.at).get_json()["questions"]}
        self.assertEqual(
            (asked["photo_cable"]["state"], asked["photo_cable"]["note"]), ("asked_again", "Closer, please")
        )

    def test_the_page_tells_nothing_of_the_job(self) -> None:
        shown = self.client.get(self.at).text
        stored = job(AT_SURVEY)
        for words in (
            stored.title,
            stored.site.householder,
            stored.site.address,
            stored.reference,
            "tn_s",
            "findings",
            "readings",
        ):
            self.assertNotIn(words, shown)

    def test_an_expired_a_withdrawn_and_a_wrong_link(self) -> None:
        with patch("fulmen.web.householder.views.now", lambda: NOW + timedelta(days=3650)):
            self.problem(self.client.get(self.at), 410, "has run out. Ask your electrician for a new one")
            self.problem(self.client.put(f"{self.at}/answers/own_land", json={"value": "yes"}), 410)
            self.problem(self.client.post(f"{self.at}/photos/photo_way", data=picture(), **IMAGE), 410)
        self.assertEqual(self.client.delete(f"{API}/jobs/{self.number}/links/{self.links()[0]['id']}").status_code, 204)
        self.problem(self.client.get(self.at), 410, "was withdrawn")
        self.assertEqual(self.links()[0]["ended"], "withdrawn")
        self.problem(self.client.get(f"{API}/householder/{'x' * 43}"), 404)
        self.problem(self.client.get(f"{API}/householder/short"), 422)

    def test_without_a_link_no_picture_is_worked_on(self) -> None:
        with patch("fulmen.web.householder.views.make_photo") as made:
            self.problem(
                self.client.post(f"{API}/householder/{'x' * 43}/photos/photo_way", data=picture(), **IMAGE), 404
            )
        made.assert_not_called()

    def test_bad_answers_are_plain_problems(self) -> None:
        self.problem(
            self.client.put(f"{self.at}/answers/own_land", json={"value": "perhaps"}), 422, "Choose one of the answers"
        )
        self.problem(self.client.put(f"{self.at}/answers/nonsense", json={"value": "x"}), 422, "no question")
        self.problem(self.client.post(f"{self.at}/photos/own_land", data=picture(), **IMAGE), 422)
        self.problem(
            self.client.post(f"{API}/jobs/{self.number}/links", json={"made_by": "R. Q.", "days": 61}),
            422,
            "at most 60",
        )

    def test_the_door_of_its_own_opens_links_and_nothing_else(self) -> None:
        door = create_app(self.settings, Role.HOUSEHOLDER).test_client()
        self.assertEqual(door.get(self.at).status_code, 200)
        tried = 0
        for rule in self.app.url_map.iter_rules():
            if policy.POLICY[rule.endpoint] == {Role.ELECTRICIAN}:
                address = re.sub(r"<(int:)?\w+>", "1", rule.rule)
                for method in (rule.methods or set()) - {"HEAD", "OPTIONS"}:
                    with self.subTest(address, method=method):
                        self.problem(door.open(address, method=method), 403, "not for you")
                        tried += 1
        self.assertGreater(tried, 25)

    def test_the_address_that_the_settings_give(self) -> None:
        self.app.config["HOUSEHOLDER_URL"] = "https://ask.example/"
        made = self.client.post(f"{API}/jobs/{self.number}/links", json={"made_by": "R. Q."})
        self.assertRegex(made.get_json()["address"], r"^https://ask\.example/answer/[\w-]{43}$")


class LoadAndDay(SurveyCase):
    def test_a_file_of_half_hours(self) -> None:
        text = "start,kWh\n2026-01-14 17:00,2.5\n2026-01-14 17:30,5.75\n"
        got = self.client.post(f"{API}/half-hours", json={"text": text}).get_json()["record"]
        self.assertEqual((got["peak_kwh"], got["peak_at"], got["entries"]), (5.75, "2026-01-14T17:30:00", 2))

    def test_a_shape_put_right_is_remembered_for_its_heading(self) -> None:
        """Two columns of energy: the guess takes the first, the person the second; the next file is read so by itself."""
        text = "start,import kWh,house kWh\n2026-01-14 17:00,2.5,1.0\n2026-01-14 17:30,5.75,3.0\n"

        def read(text: str, shape: Any = None) -> Any:
            return self.client.post(f"{API}/half-hours", json={"text": text, "shape": shape}).get_json()

        guessed = read(text)
        self.assertEqual(guessed["record"]["peak_kwh"], 5.75)
        right = read(text, guessed["shape"] | {"energy_column": 2})
        self.assertEqual(right["record"]["peak_kwh"], 3.0)
        self.assertEqual(read(text.replace("3.0", "4.0"))["record"]["peak_kwh"], 4.0)
        other = read(text.replace("import", "whole"))
        self.assertEqual(other["record"]["peak_kwh"], 5.75, "another heading is another meter")
        # Where the remembered shape can't read a file, it is guessed again.
        short = read("start,import kWh,house kWh\n2026-01-14 17:00,2.5\n")
        self.assertEqual(short["record"]["peak_kwh"], 2.5)

    def test_a_wrong_file_tells_each_bad_line(self) -> None:
        text = "start,kWh\n2026-01-14 17:00,2.5\nyesterday,1\n2026-01-14 17:30,lots\n2026-01-14 18:00\n"
        problem = self.problem(self.client.post(f"{API}/half-hours", json={"text": text}), 422, "Line 3")
        self.assertEqual([one["field"] for one in problem["fields"]], ["line 3", "line 4", "line 5"])

    def test_a_year_is_taken_and_ten_are_not(self) -> None:
        line = "2026-01-{:02d} {:02d}:{}0,0.5\n"
        lines = [line.format(day, hour, half) for day in range(1, 32) for hour in range(24) for half in (0, 3)]
        year = "".join(lines[n % len(lines)].replace("2026", str(2000 + n // len(lines))) for n in range(17_520))
        self.assertEqual(
            self.client.post(f"{API}/half-hours", json={"text": year}).get_json()["record"]["entries"], 17_520
        )
        self.problem(self.client.post(f"{API}/half-hours", json={"text": year * 10}), 422, "at most 60000")
        self.problem(self.client.post(f"{API}/half-hours", json={"text": year * 20}), 413, "at most 4 MB")

    def test_a_day(self) -> None:
        day = self.client.post(
            f"{API}/supply-day", data=example_text(DEVICE_IN_UNIT), content_type="application/json"
        ).get_json()
        self.assertEqual(len(day["total_a"]), 1440)
        self.assertIn("ready by", day["answer"])
        wrong = json.loads(example_text(DEVICE_IN_UNIT)) | {"day": {"plug_in_min": 1440}}
        self.assertEqual(
            self.problem(self.client.post(f"{API}/supply-day", json=wrong), 422)["field"], "day.plug_in_min"
        )


class Operator(SurveyCase):
    def setUp(self) -> None:
        super().setUp()
        self.at = f"{API}/jobs/{self.store(AT_SURVEY, {'supply.supply_number': 'S 1'}).id}"

    def test_the_way_of_an_application(self) -> None:
        form = self.client.get(f"{self.at}/operator-form").get_json()
        self.assertEqual((form["route"], form["missing"]), ("apply_before", ["a photo of the cut-out"]))
        self.client.post(f"{self.at}/photos?stop=cut_out", data=picture(), **IMAGE)
        self.assertEqual(self.client.get(f"{self.at}/operator-form").get_json()["missing"], [])
        # As a browser sends it: a body that is said to be empty.
        sent = self.client.post(f"{self.at}/desk", headers={"Content-Length": "0"})
        self.assertEqual(
            (sent.status_code, sent.get_json()["evaluation"]["operator"]["state"]), (201, OperatorState.WAITING)
        )
        self.client.post(f"{self.at}/desk/days", json={"days": 30})
        desk = self.client.get(f"{self.at}/desk").get_json()
        self.assertEqual((desk["stand_in"], desk["letters_to_come"]), (True, 0))
        calendar = Calendar.from_ical(self.client.get(f"{self.at}/dates.ics").data)
        titles = [str(event["summary"]) for event in calendar.walk("VEVENT")]
        self.assertTrue(any("Operator's own work (stand-in desk" in title for title in titles), titles)
        real = self.client.post(f"{self.at}/letters", json={"kind": "accepted", "dated": "2026-12-01"}).get_json()
        self.assertEqual(
            (real["job"]["letters"][-1]["stand_in"], real["evaluation"]["operator"]["hold"]), (False, False)
        )

    def test_bad_letters_and_days(self) -> None:
        for body, field in (({"kind": "shout", "dated": "2026-12-01"}, "kind"), ({"kind": "accepted", "dated": "soon"}, "dated"),
                            ({"kind": "accepted", "dated": "2026-12-01", "photo": "x"}, "photo"), ({"kind": "accepted"}, "dated")):  # fmt: skip
            with self.subTest(field):
                self.assertEqual(self.problem(self.client.post(f"{self.at}/letters", json=body), 422)["field"], field)
        self.problem(self.client.post(f"{self.at}/desk/days", json={"days": 1}), 404, "Nothing was handed in")
        self.problem(self.client.post(f"{self.at}/desk/days", json={"days": 0}), 422)

    def test_letters_in_a_saved_document_change_nothing(self) -> None:
        stored = self.client.get(self.at).get_json()
        letter = {"kind": "accepted", "dated": "2026-12-01", "about": {"car_a": 32}}
        forged = {**stored["job"], "letters": [letter]}
        self.assertEqual(
            self.problem(self.client.put(self.at, json=forged, headers={"If-Match": "1"}), 422)["field"], "letters"
        )


class ChargePoints(SurveyCase):
    def test_own_ones_stand_beside_those_that_ship(self) -> None:
        mine = {"id": "mine", "name": "My unit", "facts": {"max_current_a": 16}}
        self.assertEqual(self.client.put(f"{API}/charge-points/mine", json=mine).status_code, 200)
        listed = self.client.get(f"{API}/charge-points").get_json()
        self.assertEqual(([one["id"] for one in listed["own"]], len(listed["shipped"])), (["mine"], 6))
        self.assertEqual(self.client.delete(f"{API}/charge-points/mine").status_code, 204)

    def test_wrong_ones_name_the_field(self) -> None:
        for change, field in (({"facts": {"max_current_a": 5}}, "facts.max_current_a"), ({"id": "other"}, "id"), ({"colour": "red"}, "colour"),
                              ({"id": "bare-socket"}, "id")):  # fmt: skip
            body = {"id": "mine", "name": "My unit", "facts": {}} | change
            address = "bare-socket" if body["id"] == "bare-socket" else "mine"
            with self.subTest(field):
                self.assertEqual(
                    self.problem(self.client.put(f"{API}/charge-points/{address}", json=body), 422)["field"], field
                )


class Round(SurveyCase):
    def test_a_job_file_carries_letters_and_comes_back_the_same(self) -> None:
        stored = self.store(HALFWAY)
        self.client.post(f"{API}/jobs/{stored.id}/letters", json={"kind": "notice", "dated": "2026-12-01"})
        text = self.client.get(f"{API}/jobs/{stored.id}/file").text
        self.assertIn('"kind": "notice"', text)
        came = self.client.post(f"{API}/jobs", data=text, content_type="application/json").get_json()
        there = self.client.get(f"{API}/jobs/{came['id']}/file").text
        self.assertEqual(there, write_job(as_history(read_job(text))))
        self.assertIn('"kind": "notice"', there)
