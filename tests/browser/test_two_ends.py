"""One at the board, one at the unit: two phones on one job see each other's readings and open step."""

from typing import Any

from playwright.sync_api import APIResponse, Page, Route, expect

from tests.browser.test_testing import METER, Sequence

PERSON = "localStorage.setItem('fulmen-person', JSON.stringify({{name: '{name}'}}))"


class TwoPhones(Sequence):
    def both(self) -> tuple[Page, Page]:
        first = self.begun(phone=True)
        second = self.page("/", phone=True)
        second.evaluate(PERSON.format(name="Wren Apprentice"))
        kept = str(METER["fulmen-instruments"]).replace("'", '"')
        second.evaluate(f"localStorage.setItem('fulmen-instruments', '{kept}')")
        second.goto(f"{self.url}/jobs/{self.job_id}/dead")
        second.locator("h2.headline").first.wait_for()
        return first, second

    def choose_step(self, page: Page, title: str) -> None:
        page.get_by_role("button", name="All steps").tap()
        page.locator(".steps").get_by_role("button", name=title).tap()
        expect(page.locator("h2.headline").first).to_have_text(title)

    def taken(self, page: Page, figure: str) -> None:
        for key in figure:
            page.locator(".pad").get_by_role("button", name=key, exact=True).tap()
        page.locator(".pad .next").tap()

    def test_each_sees_the_others_step_and_reading(self) -> None:
        first, second = self.both()
        self.choose_step(first, "Continuity, R1+R2")
        self.choose_step(second, "Continuity, R1+R2")
        expect(first.locator("p.count")).to_contain_text("Wren Apprentice has it open too")
        expect(second.locator("p.count")).to_contain_text("R. Quillfeather has it open too")
        self.choose_step(second, "Main bonding, continuity")
        expect(first.locator("p.count")).not_to_contain_text("has it open too")
        self.taken(first, "0.10")
        self.choose_step(second, "Continuity, R1+R2")
        expect(second.locator(".taken")).to_contain_text("0.10 Ω by R. Quillfeather")

    def test_a_copy_asked_for_before_a_reading_takes_it_back_nowhere(self) -> None:
        """The other's reading makes a phone fetch the job; what it writes down itself meanwhile stays."""
        first, second = self.both()
        held: list[tuple[Route, APIResponse]] = []

        def hold(route: Route) -> None:
            if route.request.method == "GET" and not held:
                held.append((route, route.fetch()))
            else:
                route.continue_()

        first.route(f"**/api/v1/jobs/{self.job_id}", hold)
        self.choose_step(second, "Main bonding, continuity")
        with first.expect_request(lambda one: one.method == "GET" and one.url.endswith(f"/jobs/{self.job_id}")):
            self.taken(second, "0.03")
        self.choose_step(first, "Continuity, R1+R2")
        with first.expect_response(lambda one: one.url.endswith("/readings")):
            self.taken(first, "0.10")
        for route, before in held:
            route.fulfill(response=before)
        expect(first.get_by_role("status").first).to_have_text("Saved")
        self.choose_step(first, "Continuity, R1+R2")
        expect(first.locator(".taken")).to_contain_text("0.10 Ω by R. Quillfeather", timeout=5000)
        self.choose_step(first, "Main bonding, continuity")
        expect(first.locator(".taken")).to_contain_text("0.03 Ω by Wren Apprentice", timeout=5000)

    def test_one_enters_for_the_other_and_both_names_are_kept(self) -> None:
        first, second = self.both()
        self.choose_step(second, "Continuity, R1+R2")
        self.choose_step(first, "Continuity, R1+R2")
        first.get_by_role("radio", name="Wren Apprentice").check(force=True)
        self.taken(first, "0.10")
        # Seen at the other end with both names, and kept so.
        expect(second.locator(".taken")).to_contain_text("by Wren Apprentice, entered by R. Quillfeather")
        kept: list[Any] = [one for one in self.kept() if one["step"] == "r1_r2"]
        self.assertEqual(
            [(one["taken_by"], one["entered_by"]) for one in kept], [("Wren Apprentice", "R. Quillfeather")]
        )
        # Gone from the job, nobody reads for them any more.
        second.goto(f"{self.url}/mark.svg")
        expect(first.get_by_role("radio", name="Wren Apprentice")).to_have_count(0)
        expect(first.get_by_role("status").first).to_have_text("Saved")
