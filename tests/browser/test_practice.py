"""Practice in the browser: a fault found and marked by thumb and by keyboard, a mishap, another window, one's own job."""

import re
from typing import Any
from unittest.mock import patch

from playwright.sync_api import Page, Route, expect

from fulmen.store.practice import load_exercise
from tests.browser.chromium import BrowserCase, choose, tap
from tests.core.practised import exercise, step_of, taking
from tests.core.test_practice import OPEN
from tests.jobs import GARAGE
from tests.web.test_practice import ISOLATED, drawing

COVERS = ("Cover of Consumer unit", "Cover of Charge point")


class Practice(BrowserCase):
    def begun(self, what: str, practice_set: str = "plain") -> Any:
        """An exercise in which this very fault is hidden."""
        with patch("fulmen.web.practice.views.chance", drawing(what)):
            return self.client.post(
                "/api/v1/practice", json={"learner": "Wren", "practice_set": practice_set}
            ).get_json()

    def opened(self, number: int, phone: bool = False) -> Page:
        page = self.page("/", phone=phone)
        page.evaluate("localStorage.setItem('fulmen-person', JSON.stringify({name: 'Wren'}))")
        page.goto(f"{self.url}/practice/{number}")
        page.locator("svg .terminal").first.wait_for()
        return page

    def test_a_fault_found_by_thumb(self) -> None:
        page = self.opened(self.begun("no_earth")["id"], phone=True)
        page.get_by_role("button", name="Switch off, prove dead, lock off").tap()
        for cover in COVERS:
            page.get_by_role("button", name=f"{cover}: on").tap()
            expect(page.get_by_role("button", name=f"{cover}: off")).to_be_visible()
        page.get_by_role("button", name="Test: ").tap()
        page.get_by_role("button", name="Continuity, R1+R2").first.tap()
        page.get_by_role("button", name="line at the far end: put lead 1 here").tap()
        page.get_by_role("button", name="earth at the far end: put lead 2 here").tap()
        choose(page, "Dial", "low ohms")
        tap(page, "Linked at the near end", "Line to earth")
        page.get_by_role("button", name="Read", exact=True).tap()
        expect(page.locator(".big")).to_contain_text(">19.99")
        page.get_by_role("radio", name="Something is wrong").tap()
        page.get_by_role("button", name="Name the fault").tap()
        choose(page, "The fault", "No earth at the unit")
        choose(page, "Where it sits", "The cable of Charge point on the drive")
        page.get_by_role("button", name="Name it", exact=True).tap()
        # Found at once and proven; what comes before it in the order was left out, and is told.
        expect(page.locator("#end-title")).to_contain_text(re.compile("8[0-9] of 100"))
        expect(page.locator(".end")).to_contain_text("Not: Leads nulled")
        expect(page.locator(".end")).to_contain_text("over range with the link in place")
        page.get_by_role("link", name="Another exercise").tap()
        expect(page.get_by_role("link", name="One figure says it")).to_be_visible()
        expect(page.locator("li").filter(has_text=re.compile("8[0-9] of 100"))).to_be_visible()
        with page.expect_download() as saved:
            page.get_by_role("link", name="Save as CSV").tap()
        self.assertIn("Wren", saved.value.path().read_text(encoding="utf-8"))

    def test_from_the_keyboard_and_what_flows(self) -> None:
        page = self.page("/practice")
        page.get_by_label("Your name, for the results").fill("Wren")
        page.get_by_role("button", name="Begin: One figure says it").press("Enter")
        page.locator("svg .terminal").first.wait_for()
        page.get_by_role("button", name="Switch off, prove dead, lock off").press("Enter")
        for cover in COVERS:
            # A key does not wait for what is still on its way, as a tap does.
            expect(page.get_by_role("button", name=f"{cover}: on")).to_be_enabled()
            page.get_by_role("button", name=f"{cover}: on").press("Enter")
            expect(page.get_by_role("button", name=f"{cover}: off")).to_be_visible()
        page.get_by_role("button", name="Continuity, R1+R2").press("Enter")
        page.get_by_role("button", name="line at the far end: put lead 1 here").press("Enter")
        page.get_by_role("button", name="earth at the far end: put lead 2 here").press("Space")
        expect(page.get_by_role("radio", name="1 line at the far end")).to_be_visible()
        page.get_by_role("button", name="Set it as the step asks").press("Enter")
        page.get_by_role("button", name="Read", exact=True).press("Enter")
        expect(page.locator(".big")).to_be_visible()
        # What the set drives flows out in the line and back in the earth, through the link; nowhere else.
        expect(page.locator("line.flows")).to_have_count(2)
        expect(page.locator("path.link-line.flows")).to_have_count(1)

    def test_a_link_is_not_carried_into_a_live_test(self) -> None:
        """What the page does not offer at a test is not sent with it either."""
        begun = self.begun("high_ze")
        page = self.opened(begun["id"])
        page.get_by_role("button", name="Switch off, prove dead, lock off").click()
        page.get_by_role("button", name="Continuity, R1+R2").click()
        page.get_by_role("button", name="Set it as the step asks").click()
        page.get_by_role("button", name="Read", exact=True).click()
        page.get_by_role("button", name="Cover of Consumer unit: on").click()
        page.get_by_role("button", name="Ze at the cut-out").click()
        for at, jack in (("line at the cut-out", "L"), ("neutral at the cut-out", "N")):
            page.get_by_role("button", name=f"{at}: put lead {jack} here").click()
        page.get_by_role("button", name="earthing conductor, off the terminal: put lead E here").click()
        choose(page, "Dial", "loop, high current")
        page.get_by_role("button", name="Read", exact=True).click()
        expect(page.locator(".big")).to_be_visible()
        taken = self.client.get(f"/api/v1/practice/{begun['id']}").get_json()["entries"][-1]["act"]
        self.assertEqual((taken["step"], taken["linked"], taken["adapter"]), ("ze", "none", ""))

    def test_an_ohmmeter_on_a_live_conductor_ends_it(self) -> None:
        page = self.opened(self.begun("damaged_cable")["id"])
        page.get_by_role("button", name="Continuity, R1+R2").click()
        page.get_by_role("button", name="Set it as the step asks").click()
        page.get_by_role("button", name="Read", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text("An ohmmeter on a live conductor")
        expect(page.locator(".end")).to_contain_text("Line nicked to earth")
        expect(page.get_by_role("button", name="Name the fault")).to_have_count(0)

    def test_another_window_and_nothing_is_lost(self) -> None:
        number = self.begun("no_earth")["id"]
        page = self.opened(number)
        act = {"kind": "sign", "step": "isolated"}
        self.client.post(f"/api/v1/practice/{number}/acts", json={"after": 0, "act": act})
        page.get_by_role("button", name="Connect the unit").click()
        expect(page.get_by_role("alert")).to_contain_text("went on in another window")
        page.get_by_role("button", name="Look again").click()
        expect(page.get_by_text("Isolated, proved dead, locked off")).to_be_visible()
        page.get_by_role("button", name="Connect the unit").click()
        expect(page.get_by_text("Unit connected")).to_be_visible()

    def test_a_late_answer_is_waited_for_and_counts_once(self) -> None:
        """Who taps again while an answer is on its way does nothing twice."""
        number = self.begun("no_earth")["id"]
        page = self.opened(number)

        def late(route: Route) -> None:
            page.wait_for_timeout(1500)
            route.continue_()

        page.route("**/acts", late)
        button = page.get_by_role("button", name="Switch off, prove dead, lock off")
        button.click()
        expect(button).to_be_disabled()
        page.get_by_role("button", name="Connect the unit").click(force=True)
        expect(page.get_by_text("Isolated, proved dead, locked off")).to_be_visible()
        kinds = [one["act"]["kind"] for one in self.client.get(f"/api/v1/practice/{number}").get_json()["entries"]]
        self.assertEqual(kinds, ["sign"])
        self.assertEqual(page.get_by_role("alert").count(), 0)

    def test_the_clamp_and_a_long_sequence_played_elsewhere(self) -> None:
        """An exercise is gone on with where it stands, and shows what was done."""
        begun = self.begun("clamp_reversed", "clamp")
        whole = exercise("clamp", "clamp_reversed")
        acts = [{"kind": "sign", "step": "isolated"}, taking(step_of(whole, "r1_r2")).model_dump(mode="json")]
        for after, act in enumerate(acts):
            self.client.post(f"/api/v1/practice/{begun['id']}/acts", json={"after": after, "act": act})
        page = self.opened(begun["id"])
        page.get_by_role("button", name="Test the clamp with the shower").click()
        expect(page.get_by_text("The unit has to be connected and on for this.")).to_be_visible()

    def test_the_way_a_step_of_a_real_job_measures_along(self) -> None:
        page = self.job_page("Garage at the end", "dead")
        page.get_by_role("button", name="Continuity, R1+R2", exact=False).first.click()
        page.get_by_role("button", name="Show the way it measures").click()
        expect(
            page.get_by_role("group", name="The house from the street to the car. Leads: 1 on line at the far end")
        ).to_be_visible()
        expect(page.locator("line.flows")).to_have_count(2)
        self.assertEqual(page.locator("svg [role=button]").count(), 0)

    def test_a_link_left_in_ends_it_at_switching_on(self) -> None:
        """It stays in until somebody takes it out, and the page shows that it is in."""
        begun = self.begun("no_earth")
        whole = load_exercise(self.sessions, begun["id"]).course.exercise
        acts = [
            ISOLATED,
            *(one.model_dump(mode="json") for one in OPEN),
            taking(step_of(whole, "r1_r2")).model_dump(mode="json"),
        ]
        for after, act in enumerate(acts):
            self.client.post(f"/api/v1/practice/{begun['id']}/acts", json={"after": after, "act": act})
        page = self.opened(begun["id"])
        expect(page.get_by_text("Line to earth at the near end of Charge point on the drive")).to_be_visible()
        page.get_by_role("button", name="Insulation, line to neutral").click()
        expect(page.get_by_role("radio", name="Line to earth")).to_be_checked()
        page.get_by_role("button", name="Take the link out: Charge point on the drive").click()
        expect(page.get_by_text("Link taken out")).to_be_visible()
        expect(page.get_by_role("button", name="Take the link out")).to_have_count(0)
        expect(page.get_by_role("radio", name="Nothing")).to_be_checked()

    def test_an_exercise_for_others(self) -> None:
        stored = self.store(GARAGE)
        page = self.page("/")
        page.evaluate("localStorage.setItem('fulmen-person', JSON.stringify({name: 'Wren'}))")
        page.goto(f"{self.url}/practice?job={stored.id}")
        page.get_by_text("Make an exercise for others").press("Enter")
        choose(page, "What is wrong", "a poor joint in the earth")
        page.get_by_role("button", name="Make the link").click()
        link = page.locator(".address").inner_text()
        self.assertNotIn("joint", link)
        page.goto(link)
        expect(page.get_by_role("heading", name=stored.job.title)).to_be_visible()
        page.get_by_role("button", name="Begin this exercise").click()
        page.locator("svg .terminal").first.wait_for()

    def test_on_ones_own_job(self) -> None:
        page = self.job_page("Garage at the end", "dead")
        page.evaluate("localStorage.setItem('fulmen-person', JSON.stringify({name: 'Wren'}))")
        page.reload()
        page.get_by_role("link", name="Practise on this house").click()
        page.get_by_role("button", name="Begin on this job").click()
        page.locator("svg .terminal").first.wait_for()
        expect(page.locator(".bar")).to_contain_text("Garage at the end of the garden")
        expect(page.locator("svg .name").filter(has_text="Garage board")).to_be_visible()
