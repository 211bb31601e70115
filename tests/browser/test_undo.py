"""What was done is taken back and done again, across stages and a reload; what was signed or read is only followed."""

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.chromium import BrowserCase, tap
from tests.jobs import DEVICE_IN_UNIT

NAMED = "localStorage.setItem('fulmen-person', JSON.stringify({name: 'R. Quillfeather'}))"
# What an undo must not touch: a colleague's edit, readings, calls, letters.
APPENDED = ("readings", "letters", "decisions")


class Undo(BrowserCase):
    def stored(self, page: Page) -> Any:
        expect(page.get_by_role("status").first).to_have_text("Saved")
        return self.client.get(f"/api/v1/jobs/{page.url.split('/')[4]}").get_json()["job"]

    def done(self, page: Page) -> list[Any]:
        """A fact, a choice, a route and the tree, each edited at its own stage; the job after each."""
        states = [self.stored(page)]

        def step(stage: str, act: Any) -> None:
            self.visit(page, "Lime Kiln", stage)
            act()
            states.append(self.stored(page))

        step("survey/ownership", lambda: page.get_by_label("Householder").press_sequentially("s, upstairs"))
        step("survey/ownership", lambda: tap(page, "Whose home is it?", "owner lets it"))
        step("design", lambda: page.locator("li .length input").first.fill("9.9"))
        step("design", lambda: page.get_by_role("button", name="Take section 2 out").click())
        step("design/boards", lambda: page.get_by_role("button", name="+ group of ways").click())
        return states

    def test_by_key_across_stages_and_a_reload_and_forth_again(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")
        states = self.done(page)
        self.assertEqual(len({str(one) for one in states}), len(states), "each act changed the job")
        for left, state in enumerate(reversed(states[:-1])):
            if left == 2:
                page.reload()
                page.get_by_role("button", name="Undo, Ctrl+Z").wait_for()
            page.keyboard.press("Control+z")
            expect(page.get_by_text(re.compile("^Undone: "))).to_be_visible()
            self.assertEqual(self.stored(page), state, f"{left + 1} taken back")
        expect(page.get_by_role("button", name="Undo, Ctrl+Z")).to_be_disabled()
        page.keyboard.press("Control+z")
        self.assertEqual(self.stored(page), states[0], "there is nothing more to take back")
        for state in states[1:]:
            page.keyboard.press("Control+Shift+Z")
            self.assertEqual(self.stored(page), state)
        expect(page.get_by_role("button", name="Redo, Ctrl+Shift+Z")).to_be_disabled()

    def test_it_says_which_and_goes_away_by_itself(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")
        tap(page, "Whose home is it?", "owner lets it")
        last = page.get_by_role("button", name="Undo, Ctrl+Z")
        expect(last).to_have_attribute("title", "Undo: Whose home is it?: owner lets it")
        page.get_by_role("link", name="Design").click()
        self.shown(page)
        last.click()
        bar = page.get_by_text(re.compile("^Undone: Whose home is it"))
        expect(bar).to_be_visible()
        page.get_by_role("button", name="Show", exact=True).click()
        expect(page).to_have_url(re.compile("survey/ownership"))
        expect(page.get_by_role("group", name="Whose home is it?").locator(":focus")).to_have_count(1)
        expect(bar).to_have_count(0)
        page.keyboard.press("Control+Shift+Z")
        again = page.get_by_text(re.compile("^Done again: Whose home is it"))
        expect(again).to_be_visible()
        page.mouse.move(400, 300)
        expect(again).to_have_count(0, timeout=30_000)

    def test_what_is_being_typed_elsewhere_is_left_to_its_field(self) -> None:
        """A reason or a figure that stands in no job yet is taken back by the browser, and the job stays."""
        page = self.job_page("Lime Kiln", "survey/ownership")
        tap(page, "Whose home is it?", "owner lets it")
        state = self.stored(page)
        self.visit(page, "Lime Kiln", "design")
        page.get_by_label("Write the route: letter and metres").press_sequentially("c9")
        page.keyboard.press("Control+z")
        expect(page.get_by_label("Write the route: letter and metres")).not_to_have_value("c9")
        self.assertEqual(self.stored(page), state)

    def test_what_somebody_else_changed_since_stays(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")
        page.get_by_label("Householder").fill("Somebody here")
        self.stored(page)
        other = self.visit(page.context.new_page(), "Lime Kiln", "survey/ownership")
        other.get_by_label("Householder").fill("Somebody there")
        self.stored(other)
        other.close()
        self.visit(page, "Lime Kiln", "survey/ownership")
        page.keyboard.press("Control+z")
        expect(page.get_by_text(re.compile("^Not undone: Householder.*it was changed since"))).to_be_visible()
        self.assertEqual(self.stored(page)["site"]["householder"], "Somebody there")


class TakenBack(BrowserCase):
    def test_a_reading_stays_and_is_taken_back_with_its_reason(self) -> None:
        self.job_id = self.store(DEVICE_IN_UNIT).id
        page = self.page("/")
        page.evaluate(NAMED)
        page.goto(f"{self.url}/jobs/{self.job_id}/live?step=zs/ev")
        page.get_by_role("heading", name="Loop at the car, Zs").wait_for()
        before = self.job()["readings"]
        page.get_by_role("button", name="Take it back").click()
        expect(page.get_by_role("alert").filter(has_text="Say why it is taken back")).to_be_visible()
        page.get_by_label("Why retested, or taken back").fill("leads on the wrong circuit")
        page.get_by_role("button", name="Take it back").click()
        expect(page.get_by_text("0.29 Ω taken back by R. Quillfeather: leads on the wrong circuit")).to_be_visible()
        expect(page.get_by_role("button", name="Take it back")).to_have_count(0)
        expect(page.get_by_role("status").first).to_have_text("Saved")
        self.assertEqual(self.job()["readings"][:-1], before, "what was read stays")
        self.assertEqual(self.job()["readings"][-1]["outcome"], "taken_back")
        page.get_by_role("heading", name="Loop at the car, Zs").click()
        page.keyboard.press("Control+z")
        expect(
            page.get_by_text(re.compile("^Not undone: Loop at the car, Zs.*it stays, and a new entry"))
        ).to_be_visible()
        self.assertEqual(len(self.job()["readings"]), len(before) + 1)

    def job(self) -> Any:
        return self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["job"]
