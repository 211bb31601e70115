"""The whole dead and live sequence on a phone by thumb, and on a desktop from the keyboard alone; instruments, photos, the clamp."""

import json
import socketserver
import threading
from typing import Any

from playwright.sync_api import Page, expect

from fulmen.demo.demo_test_set import demo_test_set
from tests.browser.chromium import BrowserCase, choose, tap
from tests.jobs import DEVICE_IN_UNIT, PROOF, job
from tests.photos import picture
from tests.simulators.test_test_set import Line

# What a tester reads on this job, by the words of the step; the rest is right, or signed.
FIGURES = {
    "Earthing conductor, continuity": "0.01", "Main bonding, continuity": ".02", "Continuity, R1+R2": "0.10",
    "Cross-check, R1+Rn": "0.10", "Insulation, line to neutral": ">999", "Insulation, live to earth": ">999",
    "Ze at the cut-out": "0.19", "Fault current, line to neutral": "1.26", "Fault current, line to earth": "1.22",
    "Loop at the car, Zs": "0.29", "RCD at its rated current": "21.3", "6 mA DC detection": "4.1",
    "Earth through to the connector": "0.03", "Proximity coding of the lead": "220", "State A: nobody there": "11.9",
    "State B: a car, not ready": "8.9", "Current that the unit offers": "53.3", "State C: charging": "5.9",
    "Earth of the lead broken": "38",
}  # fmt: skip
NAMED = "localStorage.setItem('fulmen-person', JSON.stringify({name: 'R. Quillfeather'}))"
CONTINUITY = ("continuity", "insulation", "electrode", "loop", "rcd", "phase_sequence", "voltage")
METER = {"fulmen-instruments": dict.fromkeys(CONTINUITY, "Tester 4")}


class Sequence(BrowserCase):
    def begun(self, phone: bool = False, **changes: Any) -> Page:
        """A job that nobody has tested yet, at its dead tests; the tester is known to this browser."""
        self.job_id = self.store(DEVICE_IN_UNIT, {"readings": [], **changes}).id
        page = self.page("/", phone=phone)
        page.evaluate(NAMED)
        page.evaluate(f"localStorage.setItem('fulmen-instruments', '{json.dumps(METER['fulmen-instruments'])}')")
        # Its words to sign with are drawn as it opens: a test may take the network away from here on.
        with page.expect_response("**/words"):
            page.goto(f"{self.url}/jobs/{self.job_id}/dead")
        page.locator("h2.headline").first.wait_for()
        expect(page.get_by_text("moves,").first).to_be_attached()
        return page

    def titles_left(self, page: Page) -> str:
        heading = page.locator("h2.headline").first
        heading.wait_for()
        return heading.inner_text()

    def saved(self, page: Page) -> None:
        """A reading shows at once, and is the store's a moment later."""
        expect(page.get_by_role("status").first).to_have_text("Saved")

    def gaps(self) -> list[str]:
        state = self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()
        return [gap["text"] for gap in state["evaluation"]["gaps"] if gap["kind"] in ("reading", "check")]

    def kept(self) -> list[Any]:
        return list(self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["job"]["readings"])

    def count(self) -> int:
        return len(self.kept())


class ByThumb(Sequence):
    def step(self, page: Page) -> None:
        """One step by thumb: digits and Keep, or one tap."""
        figure = FIGURES.get(self.titles_left(page))
        if figure is None:
            page.locator(".pad .next").tap()
            return
        keys = page.locator(".pad")
        at = keys.bounding_box()
        for key in figure.lstrip(">"):
            keys.get_by_role("button", name=key, exact=True).tap()
            self.assertEqual(keys.bounding_box(), at)
        # The verdict comes while figures are typed, and moves no key away from the thumb.
        expect(page.locator(".judged p").first).to_be_visible()
        self.assertEqual(keys.bounding_box(), at)
        volts = page.get_by_role("radio", name="500 V d.c.")
        if volts.count() and not volts.is_checked():
            volts.check()
        page.locator(".pad .over" if figure.startswith(">") else ".pad .next").tap()

    def walk(self, page: Page, stage: str, steps: int) -> None:
        for taken in range(1, steps + 1):
            before = self.count()
            expect(page.get_by_text(f"Step {taken} of {steps},")).to_be_visible()
            self.step(page)
            expect(page.get_by_text(f"All steps, {taken} of {steps} taken")).to_be_visible()
            self.saved(page)
            self.assertEqual(self.count(), before + 1)
            self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390, stage)

    def test_dead_and_live_from_end_to_end(self) -> None:
        page = self.begun(phone=True)
        self.walk(page, "dead", 11)
        page.get_by_role("link", name="Live tests").tap()
        expect(page.get_by_role("heading", name="Polarity, live")).to_be_visible()
        self.walk(page, "live", 22)
        self.saved(page)
        self.assertEqual(self.gaps(), [])


class ByKey(Sequence):
    def step(self, page: Page) -> None:
        """One step from the keyboard alone."""
        figure = FIGURES.get(self.titles_left(page))
        if figure is None:
            page.keyboard.press("Enter")
            return
        page.keyboard.type(figure.lstrip(">"))
        volts = page.get_by_role("radio", name="500 V d.c.")
        if volts.count() and not volts.is_checked():
            page.keyboard.press("Tab")
            page.keyboard.press("Space")
            page.keyboard.press("Shift+Tab")
        page.keyboard.press(">" if figure.startswith(">") else "Enter")

    def walk(self, page: Page, steps: int) -> None:
        for taken in range(1, steps + 1):
            expect(page.get_by_text(f"Step {taken} of {steps},")).to_be_visible()
            expect(page.locator(".big input, .keys button").first).to_be_focused()
            self.step(page)
            expect(page.locator(".steps li button:not(.open)")).to_have_count(taken)

    def test_dead_and_live_from_end_to_end(self) -> None:
        page = self.begun()
        self.walk(page, 11)
        page.goto(f"{self.url}/jobs/{self.job_id}/live")
        expect(page.get_by_role("heading", name="Polarity, live")).to_be_visible()
        expect(page.locator(".moves, .keys").first).to_be_visible()
        self.walk(page, 22)
        self.saved(page)
        self.assertEqual(self.gaps(), [])

    def test_lim_and_na_open_the_reason(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Cross-check, R1+Rn").click()
        for key, said in (("l", "LIM: could not be tested"), ("n", "N/A: does not apply here")):
            page.locator(".big input").press(key)
            expect(page.get_by_role("radio", name=said)).to_be_checked()
            page.get_by_role("button", name="Back").click()
            page.get_by_role("dialog").wait_for(state="hidden")
        page.locator(".big input").press("n")
        expect(page.get_by_text("asked for on every job")).to_have_count(1)
        page.get_by_label("Why?").fill("No neutral on this circuit")
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.locator(".steps").get_by_role("button", name="Cross-check, R1+Rn")).to_contain_text("N/A")

    def test_what_can_be_no_figure_is_told_and_nothing_is_kept(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity").click()
        field, keep = page.locator(".big input"), page.get_by_role("button", name="Keep and go on")
        field.fill("1,000")
        expect(page.get_by_role("alert")).to_contain_text("1,000: 1000, or 1.000?")
        expect(keep).to_be_disabled()
        field.fill("5000")
        keep.click()
        expect(page.get_by_role("alert")).to_contain_text("at most 2000 Ω")
        field.fill("-0.2")
        expect(page.get_by_role("alert")).to_have_count(0)
        keep.click()
        expect(page.get_by_role("alert")).to_contain_text("can't be below 0 Ω")
        field.fill("0.01")
        keep.click()
        expect(page.locator(".steps").get_by_role("button", name="Earthing conductor")).to_contain_text("0.01 Ω")
        self.assertEqual([one["value"] for one in self.kept()], [0.01])

    def test_a_hold_that_a_job_file_brought_is_history_and_signed_here_anew(self) -> None:
        whole = job(DEVICE_IN_UNIT).model_dump(mode="json")
        self.job_id = self.client.post("/api/v1/jobs", json=whole).get_json()["id"]
        page = self.page("/")
        page.evaluate(NAMED)
        page.goto(f"{self.url}/jobs/{self.job_id}/dead")
        expect(page.locator("h2.headline").first).to_have_text("Isolated, proved dead, locked off")
        told = page.get_by_text("Signed elsewhere, by R. Quillfeather")
        expect(told).to_contain_text("It doesn’t count here: look, and sign it yourself.")
        page.get_by_role("button", name="Sign as").click()
        expect(page.locator("h2.headline").first).to_have_text("Fit to energise")
        self.saved(page)
        kept = [one for one in self.kept() if one["step"] == "isolated"]
        self.assertEqual(len(kept), 1)
        page.locator(".steps").get_by_role("button", name="Isolated, proved dead, locked off").click()
        expect(page.get_by_text(f"by {kept[0]['taken_by']}, as typed")).to_be_visible()
        page.get_by_role("link", name="Papers").click()
        expect(page.get_by_role("heading", name="Signed elsewhere")).to_be_visible()

    def test_taken_again_asks_why_and_keeps_both(self) -> None:
        page = self.begun()
        row = page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity")
        for figure, why in (("0.04", ""), ("0.01", "clamp cleaned")):
            row.click()
            page.locator(".big input").fill(figure)
            if why:
                page.get_by_role("button", name="Keep and go on").click()
                expect(page.get_by_role("alert")).to_contain_text("why it is taken again")
                page.get_by_label("Why retested, or taken back").fill(why)
            page.get_by_role("button", name="Keep and go on").click()
            expect(row).to_contain_text(figure)
        row.click()
        expect(page.get_by_text("before it 0.04 Ω by R. Quillfeather (clamp cleaned)")).to_be_visible()

    def test_the_long_lead_instead(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Continuity, R1+R2").click()
        page.get_by_role("button", name="Continuity, R2 by long lead").click()
        page.locator(".big input").fill("0.05")
        page.keyboard.press("Enter")
        expect(page.locator(".steps").get_by_role("button", name="Continuity, R1+R2")).to_contain_text("by another")


class SetUp(Sequence):
    def test_a_figure_needs_its_instrument_and_the_register_takes_one(self) -> None:
        page = self.begun(**{"testing.instruments": []})
        page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity").click()
        page.locator(".big input").fill("0.01")
        page.get_by_role("button", name="Keep and go on").click()
        expect(page.get_by_role("alert")).to_contain_text("with which instrument")
        page.get_by_role("button", name="Enter your instruments").click()
        page.get_by_label("Another one: the name on it").fill("Meter 7")
        page.get_by_role("button", name="Add it").click()
        page.get_by_label("Serial number").fill("M7-001")
        page.get_by_label("Calibration due").fill("2027-06-30")
        tap(page, "It measures", "continuity")
        page.get_by_role("button", name="Offer these to every job").click()
        page.get_by_role("button", name="Done").click()
        page.get_by_role("button", name="Keep and go on").click()
        expect(page.locator(".steps").get_by_role("button", name="Earthing conductor")).to_contain_text("0.01 Ω")
        kept = self.client.get("/api/v1/instruments").get_json()["instruments"]
        self.assertEqual([(one["name"], one["serial_number"], one["calibration_due"]) for one in kept],
                         [("Meter 7", "M7-001", "2027-06-30")])  # fmt: skip

    def test_twelve_tests_take_the_place_of_one(self) -> None:
        page = self.begun()
        page.goto(f"{self.url}/jobs/{self.job_id}/live")
        page.get_by_role("button", name="Instruments, schools, temperature").click()
        tap(page, "Each RCD gets", "½×, 1× and 5×, both half-waves, every form of current")
        page.get_by_role("button", name="Done").click()
        expect(page.locator(".steps").get_by_role("button", name="RCD 5× pulsating d.c. 180°")).to_be_visible()
        expect(page.locator(".steps").get_by_role("button", name="RCD at its rated current")).to_have_count(0)

    def test_a_photo_of_the_display_goes_with_the_reading(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity").click()
        file = {"name": "display.jpg", "mimeType": "image/jpeg", "buffer": picture()}
        page.get_by_test_id("reading-photo").set_input_files(file)
        expect(page.get_by_alt_text("The display, as photographed")).to_be_visible()
        page.locator(".big input").fill("0.01")
        page.keyboard.press("Enter")
        expect(page.locator(".steps").get_by_role("button", name="Earthing conductor")).to_contain_text("0.01 Ω")
        self.saved(page)
        readings = self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["job"]["readings"]
        photos = self.client.get(f"/api/v1/jobs/{self.job_id}/photos").get_json()["photos"]
        self.assertEqual(readings[-1]["photo"], photos[-1]["sha256"])

    def test_both_orders_and_what_they_take(self) -> None:
        page = self.begun()
        rows = page.locator(".steps li button")
        coached = rows.all_inner_texts()
        page.get_by_role("button", name="Go circuit by circuit").click()
        expect(page.get_by_role("button", name="Go by the fewest moves")).to_be_visible()
        self.assertEqual(sorted(coached), sorted(rows.all_inner_texts()))
        expect(page.locator(".sums")).to_contain_text("circuit by circuit")


class FromTheSet(Sequence):
    """The app with the demo's simulated test set beside it."""

    def setUp(self) -> None:
        super().setUp()
        server = demo_test_set(self.settings, 0)
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        self.app.config["TEST_SET_PORT"] = server.port

    def take(self, page: Page) -> None:
        """One step from the set: a figure is shown first and kept with Enter, right is kept at once."""
        if page.locator(".keys button").first.inner_text().startswith("Sign as"):
            page.keyboard.press("Enter")
            return
        # Read before it is asked for: what is right is kept at once, and the next step stands there.
        field, title = page.locator(".big input"), self.titles_left(page)
        page.get_by_role("button", name="From the test set").click()
        if title in FIGURES and title not in ("6 mA DC detection",):
            expect(field).not_to_have_value("")
            field.press("Enter")

    def test_a_whole_sequence_from_the_simulated_set(self) -> None:
        page = self.begun()
        for stage, steps in (("dead", 11), ("live", 22)):
            page.goto(f"{self.url}/jobs/{self.job_id}/{stage}")
            for taken in range(1, steps + 1):
                expect(page.get_by_text(f"Step {taken} of {steps},")).to_be_visible()
                self.take(page)
                expect(page.locator(".steps li button:not(.open)")).to_have_count(taken)
        self.saved(page)
        # Nobody has entered the set: which it is, and how exactly it reads, is asked; nothing else is.
        gaps = self.gaps()
        self.assertIn("Every instrument in the register: needs a fact", gaps)
        self.assertEqual([one for one in gaps if not one.endswith("needs a fact")], [])

    def test_a_set_that_went_away_is_told_and_nothing_is_lost(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity").click()
        page.locator(".big input").fill("0.02")
        self.app.config["TEST_SET_PORT"] = 1
        page.get_by_role("button", name="From the test set").click()
        expect(page.get_by_role("alert")).to_contain_text("Nothing was taken")
        expect(page.locator(".big input")).to_have_value("0.02")

    def test_a_set_that_talks_nonsense_is_told_and_nothing_is_lost(self) -> None:
        greeting = "FULMEN-TEST-SET 1 Set\n"
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity").click()
        page.locator(".big input").fill("0.02")
        # What the step still asks for is there before the set is asked.
        page.wait_for_load_state("networkidle")
        for texts, told in (
            ((greeting, "♪♪ 0.02 or so\n"), "which is no reading"),
            ((greeting, "VALUE earthing_conductor origin measured 20 mΩ -\n"), "shows mΩ where Ω is read"),
            ((greeting, None), "No test set answers"),
        ):
            odd = type("Odd", (Line,), {"texts": texts})
            with socketserver.TCPServer(("127.0.0.1", 0), odd) as server:
                threading.Thread(target=server.serve_forever, daemon=True).start()
                self.app.config["TEST_SET_PORT"] = int(server.server_address[1])
                page.get_by_role("button", name="From the test set").click()
                expect(page.get_by_role("alert")).to_contain_text(told)
                expect(page.get_by_role("alert")).to_contain_text("Nothing was taken")
                expect(page.locator(".big input")).to_have_value("0.02")
                server.shutdown()
        self.assertEqual(self.count(), 0)


class FromAFile(Sequence):
    TEXT = "What was done;Item;It showed;Units\nLine and back;ev;0,10;Ohm\nearthing_conductor;origin;0.01;V\nAt the head;origin;0,19;Ohm\n"

    def choose_file(self, page: Page, text: str) -> None:
        file = {"name": "readings.csv", "mimeType": "text/csv", "buffer": text.encode()}
        page.get_by_test_id("readings-file").set_input_files(file)

    def test_each_lines_fate_is_shown_and_words_are_mapped(self) -> None:
        page = self.begun()
        page.get_by_role("button", name="Readings from a file").click()
        self.choose_file(page, self.TEXT)
        expect(page.get_by_role("alert")).to_contain_text("which column holds the step")
        for label, column in (("Which step", "What was done"), ("Figure", "It showed")):
            choose(page, label, column)
        lines = page.get_by_role("list", name="What becomes of each line").get_by_role("listitem")
        expect(lines).to_have_count(3)
        expect(lines.nth(1)).to_contain_text("wrong unit")
        choose(lines.nth(0), "Which step is it?", "Continuity, R1+R2")
        expect(lines.nth(0)).to_contain_text("is taken")
        self.assertEqual(self.count(), 0)
        page.get_by_role("button", name="Keep 1 readings").click()
        expect(page.locator(".steps").get_by_role("button", name="Continuity, R1+R2")).to_contain_text("0.10 Ω")
        self.assertEqual(self.count(), 1)
        # The same file once more: what is there already is told, and kept once.
        page.get_by_role("button", name="Readings from a file").click()
        self.choose_file(page, self.TEXT)
        expect(lines.filter(has_text="there already")).to_have_count(1)
        self.assertEqual(self.count(), 1)

    def test_a_wide_file_in_utf_16_asks_each_thing_once(self) -> None:
        page = self.begun()
        page.get_by_role("button", name="Readings from a file").click()
        text = "Schedule\n\nCircuit;R1+R2 (Ω);Zs (Ω);IR L/N-E (MΩ);Test voltage\nDB1/14;0,10;0,29;OL;500 V\n"
        file = {"name": "wide.csv", "mimeType": "text/csv", "buffer": text.encode("utf-16")}
        page.get_by_test_id("readings-file").set_input_files(file)
        lines = page.get_by_role("list", name="What becomes of each line").get_by_role("listitem")
        expect(lines.filter(has_text="which circuit?")).to_have_count(3)
        expect(lines.locator(".v-select")).to_have_count(1)
        choose(lines.nth(0), "Which circuit is it?", "Charge point on the drive")
        expect(lines.filter(has_text="over what?")).to_have_count(1)
        lines.get_by_label("Its range ends at, MΩ").fill("999")
        page.keyboard.press("Tab")
        expect(lines.filter(has_text="is taken")).to_have_count(3)
        page.get_by_role("button", name="Keep 3 readings").click()
        expect(page.locator(".steps").get_by_role("button", name="Insulation, live to earth")).to_contain_text("999")
        self.assertEqual(self.count(), 3)


class Clamp(Sequence):
    def test_the_guided_test_tells_a_reversed_clamp_and_then_proves_the_limit(self) -> None:
        page = self.begun(**{"supply.load_limit_a": 60.0, "charge_points.0.current_clamp": "yes"})
        page.goto(f"{self.url}/jobs/{self.job_id}/live")
        # The coach's order puts the list in another one: a click before that may meet another step.
        expect(page.get_by_text("moves,").first).to_be_attached()
        page.locator(".steps").get_by_role("button", name="Load limit, clamp").click()
        page.get_by_role("button", name="Begin the test").click()
        for label, field in (
            ("Limit the unit is set to", "limit_set_a"), ("On which pair; two doubled?", "wire_pair"),
            ("Known load switched on; a 9 kW shower is 39 A", "known_load_a"), ("House current shown, load off", "shown_without_a"),
            ("Offered to the car, load off", "offered_without_a"), ("Offered to the car, load on; 0 if it paused", "offered_with_a"), ("How soon it turned down", "follows_s"),
        ):  # fmt: skip
            page.get_by_label(label, exact=True).fill(f"{PROOF[field]}")
        tap(page, "Its arrow points with the current, towards the house?", "yes")
        tap(page, "Round the incoming line tail alone?", "yes")
        page.get_by_label("House current shown, load on, with its sign").fill("-36")
        page.get_by_role("button", name="Keep the test under your name").click()
        expect(page.locator(".told")).to_contain_text("sits the wrong way")
        page.get_by_label("House current shown, load on, with its sign").fill("44")
        expect(page.locator(".told")).to_contain_text("Meets")
        expect(page.locator(".steps").get_by_role("button", name="Load limit, clamp")).to_contain_text("proven")
        self.assertEqual(job(DEVICE_IN_UNIT).charge_points[0].clamp_proof, None)
