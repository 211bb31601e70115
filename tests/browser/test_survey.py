"""The survey in the browser: the walk by thumb, photos, the householder's link, loads, a day, the operator, the unit."""

import re
from datetime import timedelta
from unittest.mock import patch

from playwright.sync_api import Page, expect

from tests.app import NOW
from tests.browser.chromium import BrowserCase, choose, tap
from tests.jobs import EXAMPLES
from tests.photos import huge_png, picture

STOPS = [
    "Cut-out",
    "Meter",
    "Tails",
    "Earth and bonding",
    "Board",
    "Route",
    "Parking place",
    "Data",
    "Other loads",
    "Ownership",
    "Charge point",
]


def file(name: str, data: bytes, kind: str = "application/octet-stream") -> dict[str, object]:
    return {"name": name, "mimeType": kind, "buffer": data}


class Walk(BrowserCase):
    def test_from_the_street_inwards_by_thumb(self) -> None:
        page = self.job_page("Tanner", "survey", phone=True)
        for name in STOPS:
            expect(page.get_by_role("heading", name=name, exact=True)).to_be_visible()
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390, name)
            for answer in page.locator(".tap .answer").all():
                box = answer.bounding_box()
                assert box is not None
                self.assertGreaterEqual(box["height"], 44, name)
            page.locator("article > .next").tap()
        expect(page.get_by_role("heading", name="Open questions")).to_be_visible()
        page.get_by_role("button", name="Are there solar panels or a battery?").tap()
        tap(page, "Solar panels or a battery?", "no")
        expect(page.get_by_role("status")).to_have_text("Saved")
        page.get_by_role("button", name=re.compile(r"All stops, \d+ of")).tap()
        expect(page.get_by_role("button", name="Open questions 8")).to_be_visible()

    def test_what_is_tapped_has_its_consequence_at_once(self) -> None:
        page = self.job_page("Lime Kiln", "survey/cut_out")
        ledger = page.get_by_role("region", name="What it means")
        tap(page, "Looped to a neighbour?", "yes")
        expect(ledger).to_contain_text("Stop until the operator agrees in writing")
        expect(page.get_by_text("Don’t start work yet")).to_be_visible()
        tap(page, "Looped to a neighbour?", "not seen yet")
        page.get_by_role("button", name="Open questions 1").click()
        expect(page.get_by_role("region", name="To ask the network operator")).to_contain_text("Is the service looped")

    def test_answers_by_keyboard(self) -> None:
        page = self.job_page("Lime Kiln", "survey/meter")
        chosen = page.get_by_role("group", name="What kind of meter?").get_by_role("radio", checked=True)
        chosen.focus()
        page.keyboard.press("ArrowRight")
        expect(page.get_by_role("radio", name="figures, not smart")).to_be_checked()
        expect(page.get_by_role("status")).to_have_text("Saved")

    def test_a_defect_goes_to_the_certificate(self) -> None:
        page = self.job_page("Saddler", "survey/board")
        found = page.get_by_role("region", name="Defects found in passing")
        found.get_by_label("What did you find?").fill("Terminal scorched")
        page.keyboard.press("Escape")
        found.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_role("region", name="What it means")).to_contain_text("Left as found: Terminal scorched")
        tap(page, "What became of it", "put right")
        expect(page.get_by_role("region", name="What it means")).not_to_contain_text("Left as found")
        expect(page.get_by_role("status")).to_have_text("Saved")
        job = next(one for one in self.client.get("/api/v1/jobs").get_json()["jobs"] if "Saddler" in one["title"])
        kept = self.client.get(f"/api/v1/jobs/{job['id']}").get_json()["job"]["defects"]
        self.assertEqual(
            kept[-1], {"what": "Terminal scorched", "stop": "board", "outcome": "put_right", "dangerous": True}
        )


class Photos(BrowserCase):
    def test_beside_the_question_they_answer(self) -> None:
        page = self.job_page("Tanner", "survey/cut_out", phone=True)
        photos = page.get_by_role("region", name="Photos")
        add = photos.get_by_test_id("photo-cut_out")
        add.set_input_files([file("a.heic", picture("HEIF"), "image/heic"), file("big.png", huge_png(10_000, 6_000), "image/png"), file("b.webp", picture("WEBP"), "image/webp")])  # fmt: skip
        expect(photos.get_by_role("alert")).to_contain_text(
            "big.png: The photo has 60 megapixels (10000 × 6000); at most 50"
        )
        expect(photos.get_by_role("img")).to_have_count(2)
        self.assertGreater(photos.get_by_role("img").first.evaluate("one => one.naturalWidth"), 100)
        tap(page, "The letter, as a photo of this stop", "photo 1")
        expect(page.get_by_role("status")).to_have_text("Saved")
        photos.get_by_role("button", name="Remove photo 1").tap()
        expect(photos.get_by_role("alert")).to_contain_text("it stays")
        photos.get_by_role("button", name="Remove photo 2").tap()
        expect(photos.get_by_role("img")).to_have_count(1)


class Householder(BrowserCase):
    def make(self) -> tuple[Page, str]:
        page = self.job_page("Lantern", "survey/open")
        page.get_by_label("Your name, as they know you").fill("R. Quillfeather")
        page.get_by_role("button", name="Make a link").click()
        return page, str(page.locator(".address").inner_text()).replace(self.url, "")

    def test_answered_on_a_phone_accepted_or_asked_again(self) -> None:
        desk, path = self.make()
        phone = self.page(path, phone=True)
        expect(phone.get_by_text("R. Quillfeather asks.")).to_be_visible()
        tap(phone, "Whose home is it?", "I rent it")
        phone.get_by_label("Which car is it, if you know?").fill("a large van")
        phone.get_by_role("listitem").filter(has_text="Which car").get_by_role("button", name="Send").tap()
        phone.get_by_test_id("photo_cable").set_input_files(file("a.heic", picture("HEIF"), "image/heic"))
        expect(phone.get_by_text("3 of 16 answered")).to_be_visible()
        self.assertLessEqual(phone.evaluate("document.documentElement.scrollWidth"), 390)
        desk.get_by_role("button", name="Look for answers").click()
        van = desk.get_by_role("listitem").filter(has_text="a large van")
        van.get_by_role("button", name="Accept").click()
        expect(van).to_contain_text("Accepted")
        shot = desk.get_by_role("listitem").filter(has_text="Close up")
        shot.get_by_role("button", name="Ask again").click()
        shot.get_by_label("What is wanted instead?").fill("Closer, please")
        shot.get_by_role("button", name="Ask again").last.click()
        expect(shot).to_contain_text("Asked again: “Closer, please”")
        phone.reload()
        expect(phone.get_by_text("Please once more:")).to_be_visible()
        desk.get_by_role("button", name="A day on the supply").click()
        expect(desk.get_by_label("Car", exact=True)).to_have_value("a large van")

    def test_an_ended_link_says_so_and_loses_nothing(self) -> None:
        desk, path = self.make()
        phone = self.page(path, phone=True)
        phone.get_by_role("heading", name="About your charge point").wait_for()
        with patch("fulmen.web.householder.views.now", lambda: NOW + timedelta(days=3650)):
            phone.get_by_role("radio", name="I rent it").click()
            expect(phone.get_by_role("alert")).to_contain_text(
                "This link has run out. Ask your electrician for a new one"
            )
        desk.get_by_role("button", name="Withdraw").click()
        expect(desk.get_by_role("button", name="Withdraw")).to_have_count(0)
        phone.goto(self.url + path)
        expect(phone.get_by_role("alert")).to_contain_text("was withdrawn")
        phone.goto(self.url + "/answer/nonsense")
        expect(phone.get_by_role("alert")).to_contain_text("not whole")


class Supply(BrowserCase):
    def test_a_wrong_csv_tells_each_line_and_changes_nothing(self) -> None:
        page = self.job_page("Lantern", "survey/loads")
        region = page.get_by_role("region", name="Half-hourly energy")
        expect(region).to_contain_text("2 Nov 2026, 18:00")
        good = (EXAMPLES / "half-hours.csv").read_bytes()
        wrong = good.replace(b"2026-10-26 12:30", b"yesterday").replace(b"2026-10-26 13:00,", b"2026-10-26 13:00,-")
        region.get_by_test_id("half-hours").set_input_files(file("wrong.csv", wrong))
        expect(region.get_by_role("alert")).to_contain_text("Line 3: 'yesterday' is no time such as")
        expect(region.get_by_role("alert")).to_contain_text("Line 4: energy must be from 0 to 50 kWh")
        expect(region).to_contain_text("720 half hours")
        half = b"\n".join(good.splitlines()[:49])
        region.get_by_test_id("half-hours").set_input_files(file("day.csv", half))
        expect(region).to_contain_text("48 half hours")

    def test_how_a_meters_file_lies_is_guessed_put_right_and_remembered(self) -> None:
        page = self.job_page("Lantern", "survey/loads")
        region = page.get_by_role("region", name="Half-hourly energy")
        rows = b"Start,first kWh,second kWh\n14/01/2026 17:00,1.2,0.3\n14/01/2026 17:30,4.6,0.4\n"
        region.get_by_test_id("half-hours").set_input_files(file("meter.csv", rows))
        expect(region).to_contain_text("Peak 4.6 kWh")
        region.get_by_role("button", name="Put that right").click()
        choose(region, "Energy in", "3, second kWh")
        expect(region).to_contain_text("Peak 0.4 kWh")
        region.get_by_role("button", name="Take it out").click()
        region.get_by_test_id("half-hours").set_input_files(file("meter.csv", rows))
        expect(region).to_contain_text("Peak 0.4 kWh")

    def test_a_way_out_is_taken(self) -> None:
        page = self.job_page("Tanner", "survey/loads")
        expect(page.get_by_role("row", name=re.compile("Together 88.1 A"))).to_be_visible()
        way = page.get_by_role("listitem").filter(has_text="Load limit of 60 A with a current clamp")
        expect(way).to_contain_text("60 A of 60 A")
        way.get_by_role("button", name="Take this way").click()
        expect(page.get_by_role("row", name=re.compile("Held by the load limit 60.0 A"))).to_be_visible()
        expect(page.get_by_role("region", name="What it means")).to_contain_text(
            "The unit takes no clamp, so nothing holds the limit"
        )

    def test_appliances_are_picked_edited_and_taken_out(self) -> None:
        page = self.job_page("Tanner", "survey/loads")
        choose(page, "Add one", "Electric shower, 9.5 kW")
        expect(page.get_by_role("row", name=re.compile("Electric showers .*41.3 A"))).to_be_visible()
        page.get_by_label("Rating").last.fill("10,5")
        expect(page.get_by_role("row", name=re.compile("Electric showers .*45.7 A"))).to_be_visible()
        page.get_by_role("button", name="Take out Electric shower").click()
        expect(page.get_by_role("row", name=re.compile("Electric showers"))).to_have_count(0)

    def test_the_day_answers_how_long_and_its_sliders_go_by_keyboard(self) -> None:
        page = self.job_page("Lantern", "survey/day")
        expect(page.locator(".answer[role=status]")).to_contain_text("About 9")
        page.get_by_role("slider", name="Load limit").focus()
        for _ in range(30):
            page.keyboard.press("ArrowLeft")
        expect(page.locator(".slider .said").first).to_have_text("30 A")
        expect(page.locator(".answer[role=status]")).not_to_contain_text("About 9")
        page.get_by_role("button", name="Keep the limit of 30 A").click()
        expect(page.get_by_role("status").first).to_have_text("Saved")
        tap(page, "Off-peak only", "yes")
        expect(page.get_by_text("off-peak", exact=True)).to_be_visible()


class Operator(BrowserCase):
    def test_the_way_of_an_application(self) -> None:
        page = self.job_page("Tanner", "survey/operator")
        expect(page.get_by_role("heading", name="Apply before")).to_be_visible()
        expect(page.get_by_text("The operator will ask for: the supply number, a photo of the cut-out")).to_be_visible()
        page.get_by_role("button", name="Hand the form in").click()
        expect(page.get_by_text("It is with the operator; wait")).to_be_visible()
        page.get_by_role("button", name="7 days later").click()
        letters = page.get_by_role("region", name="Letters")
        expect(letters).to_contain_text("More information wanted")
        expect(letters).to_contain_text("stand-in")
        page.get_by_role("button", name="Keep a letter").click()
        choose(page, "What it says", "Operator's work is done")
        page.get_by_role("button", name="Keep the letter").click()
        expect(page.get_by_text("The operator’s answer covers the job as it stands.")).to_be_visible()
        for name, kind in (
            ("Form as PDF", "application/pdf"),
            ("as JSON", "application/json"),
            ("Dates for your calendar (.ics)", "text/calendar"),
        ):
            address = self.url + str(page.get_by_role("link", name=name).get_attribute("href"))
            self.assertTrue(page.request.get(address).headers["content-type"].startswith(kind), name)


class Unit(BrowserCase):
    def test_a_kind_fills_in_the_facts_and_moves_the_checks(self) -> None:
        page = self.job_page("Tanner", "survey/charge_point")
        expect(page.get_by_text("Find out what is inside before it goes on the wall.")).to_be_visible()
        choose(page, "Kind, from the catalogue", "Tethered 7 kW, open-PEN device and DC detection inside")
        expect(
            page.get_by_role("group", name="Open-PEN device inside").get_by_role("radio", name="yes")
        ).to_be_checked()
        expect(page.get_by_role("region", name="What it means")).not_to_contain_text(
            "The unit has no open-PEN device inside"
        )
        page.get_by_role("button", name="Keep what is below as your own kind").click()
        page.get_by_label("Name of this kind").fill("The usual one")
        page.get_by_role("button", name="Keep", exact=True).click()
        expect(page.get_by_text("The usual one (your own)")).to_be_visible()
        page.get_by_test_id("record-file").set_input_files(
            file("kind.json", b'{"id": "x", "name": "X", "facts": {"max_current_a": 5}}')
        )
        expect(page.get_by_role("alert")).to_contain_text("max current must be at least 6 A")

    def test_the_second_unit_has_its_own_facts(self) -> None:
        page = self.job_page("Two cars", "survey/open")
        page.get_by_role("button", name="What is the serial number of Charge point, right?").click()
        expect(
            page.get_by_role("group", name="Run to").get_by_role("radio", name="Charge point, right")
        ).to_be_checked()
        page.get_by_label("Serial number").fill("EV-0002")
        page.get_by_label("Which one this is").fill("Charge point, right wall")
        expect(
            page.get_by_role("group", name="Run to").get_by_role("radio", name="Charge point, right wall")
        ).to_be_checked()
        tap(page, "Most it can take", "16 A")
        told = page.get_by_role("region", name="What it means")
        expect(told.get_by_role("button", name="32 A device for a 16 A unit").last).to_contain_text("right")
        tap(page, "Run to", "Charge point, left")
        expect(page.get_by_label("Serial number")).to_have_value("")
        expect(page.get_by_text("Saved")).to_be_visible()
        points = self.client.get(page.url.replace(self.url, "/api/v1").split("/survey")[0]).get_json()["job"][
            "charge_points"
        ]
        self.assertEqual([one["serial_number"] for one in points], ["", "EV-0002"])
