"""One bad value blocks only itself: the rest is saved, its sentence leads to it, and goes when its cause goes."""

from typing import Any

from playwright.sync_api import Locator, Page, Route, expect

from tests.browser.chromium import BrowserCase
from tests.browser.test_testing import NAMED


class HeldBack(BrowserCase):
    def stored(self, page: Page) -> Any:
        return self.client.get("/api/v1/jobs/" + page.url.split("/")[4]).get_json()["job"]

    def told(self, page: Page) -> Locator:
        return page.get_by_role("region", name="Can't be saved")

    def note(self, page: Page) -> Any:
        return expect(page.get_by_role("status").first)

    def test_the_rest_is_saved_and_judged_and_the_sentence_goes_with_its_cause(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        length = page.get_by_label("Length").first
        before = self.stored(page)["circuits"][0]["route"]
        volts = page.locator(".run-band").inner_text()
        length.fill("9999")
        self.note(page).to_have_text("Saved, but for one field")
        expect(self.told(page)).to_contain_text("Circuit 1, section 1: length must be at most 500 m; you gave 9999")
        page.get_by_label("Length").nth(1).fill("44")
        self.note(page).to_have_text("Saved, but for one field")
        kept = self.stored(page)["circuits"][0]["route"]
        self.assertEqual([one["length_m"] for one in kept[:2]], [before[0]["length_m"], 44])
        # What could be judged was judged anew, without the one value.
        expect(page.locator(".run-band")).not_to_have_text(volts, use_inner_text=True)
        # Nothing is signed while a value waits; a reload keeps it, and keeps telling it.
        page.reload()
        expect(page.get_by_label("Length").first).to_have_value("9999")
        expect(self.told(page)).to_contain_text("at most 500 m")
        page.get_by_label("Length").first.fill("6")
        expect(self.told(page)).to_be_hidden()
        self.note(page).to_have_text("Saved")
        self.assertEqual(self.stored(page)["circuits"][0]["route"][0]["length_m"], 6)

    def kept_waiting(self, page: Page) -> list[Route]:
        """The next question and the next save, which go no further until they are let."""
        waiting: list[Route] = []

        def keep(route: Route) -> None:
            if route.request.method in [one.request.method for one in waiting]:
                return route.continue_()
            return waiting.append(route)

        page.route("**/api/v1/evaluate", keep)
        page.route("**/api/v1/jobs/*", keep)
        return waiting

    def test_whoever_is_told_first_that_a_value_is_bad(self) -> None:
        """Saving and judging send the same document; on a slow machine either may hear first that it is refused."""
        for first in ("evaluate", "jobs"):
            with self.subTest(told_first=first):
                page = self.job_page("Lime Kiln", "design")
                volts, waiting = page.locator(".run-band").inner_text(), self.kept_waiting(page)
                with page.expect_request(lambda one: one.method == "PUT"):
                    page.get_by_label("Length").first.fill("9999")
                expect(page.get_by_role("status").first).to_have_text("Saving…")
                asked, sent = sorted(waiting, key=lambda one: one.request.method)
                for route in (asked, sent) if first == "evaluate" else (sent, asked):
                    with page.expect_response(route.request.url):
                        route.continue_()
                    expect(self.told(page)).to_contain_text("at most 500 m; you gave 9999")
                self.note(page).to_have_text("Saved, but for one field")
                page.get_by_label("Length").nth(1).fill("44")
                self.note(page).to_have_text("Saved, but for one field")
                self.assertEqual(self.stored(page)["circuits"][0]["route"][1]["length_m"], 44)
                expect(page.locator(".run-band")).not_to_have_text(volts, use_inner_text=True)
                page.get_by_label("Length").first.fill("6")
                page.get_by_label("Length").nth(1).fill("4")
                self.note(page).to_have_text("Saved")

    def test_two_bad_values_are_two_sentences_and_each_is_taken_back_by_itself(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        for place, typed in ((0, "9999"), (1, "-4")):
            page.get_by_label("Length").nth(place).fill(typed)
        self.note(page).to_have_text("Saved, but for 2 fields")
        alerts = self.told(page).get_by_role("alert")
        expect(alerts).to_have_count(2)
        alerts.first.get_by_role("button", name="Take it back").click()
        expect(alerts).to_have_count(1)
        expect(self.told(page)).to_contain_text("section 2")
        alerts.first.get_by_role("button", name="Take it back").click()
        expect(self.told(page)).to_be_hidden()
        self.note(page).to_have_text("Saved")

    def test_a_year_typed_wrong_in_a_dialog_that_is_closed_is_led_to_from_anywhere(self) -> None:
        page = self.job_page("Lime Kiln", "dead")
        page.evaluate(NAMED)
        page.get_by_role("button", name="Instruments, schools, temperature").click()
        page.get_by_label("Calibration due").first.press_sequentially("063070630")
        self.note(page).to_have_text("Saved, but for one field")
        page.get_by_role("button", name="Done").click()
        page.get_by_role("link", name="Papers").click()
        expect(self.told(page)).to_contain_text("between the years 1990 and 2100")
        self.told(page).get_by_role("button", name="Go to it").click()
        due = page.get_by_label("Calibration due").first
        expect(due).to_be_focused()
        due.fill("2027-06-30")
        expect(self.told(page)).to_be_hidden()
        self.note(page).to_have_text("Saved")
        self.assertEqual(self.stored(page)["testing"]["instruments"][0]["calibration_due"], "2027-06-30")

    def test_a_field_that_is_folded_away_is_unfolded(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        air = page.get_by_label("Air, else 30").or_(page.get_by_label("Ground, else 20")).first
        page.get_by_role("button", name="More", exact=True).nth(1).click()
        air.fill("900")
        self.note(page).to_have_text("Saved, but for one field")
        # Led there while another page that was asked for is still on its way.
        page.route("**/SurveyStage-*.js", lambda route: (page.wait_for_timeout(700), route.continue_()))
        page.get_by_role("link", name="Survey").click(no_wait_after=True)
        self.told(page).get_by_role("button", name="Go to it").click()
        page.wait_for_timeout(1000)
        expect(air).to_be_focused()
