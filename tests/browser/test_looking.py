"""What is seen of looking for other ways that takes its time: the best so far, how far it is, an end to it."""

import re
import time
import unittest
from collections.abc import Callable
from unittest.mock import patch

from playwright.sync_api import Page, Route, expect

from tests.app import PATIENCE_S
from tests.browser.chromium import BrowserCase
from tests.slow_ways import slow_other_ways, slow_reach, slow_remedies


class Slow(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        for name, slow in (
            ("other_ways", slow_other_ways),
            ("remedies", slow_remedies),
            ("how_far_it_holds", slow_reach),
        ):
            slowed = patch(f"fulmen.web.looking.child.{name}", slow)
            slowed.start()
            self.addCleanup(slowed.stop)

    def going(self) -> int:
        """How many look just now."""
        return int(self.app.extensions["lookings"]._going)

    def searching(self) -> Page:
        page = self.job_page("Lime Kiln", "design/others")
        page.get_by_role("button", name="Try every way").click()
        return page

    def test_the_best_so_far_is_shown_with_a_count_until_it_is_stopped(self) -> None:
        page = self.searching()
        expect(page.locator(".looking")).to_contain_text(re.compile(r"Tried [\d,]+ of [\d,]+: the best so far"))
        expect(page.locator(".few li").first).to_be_visible()
        # Nothing is told of all ways before all are tried.
        expect(page.get_by_text("ways tried")).to_have_count(0)
        expect(page.get_by_text("Why not another size?")).to_have_count(0)
        page.get_by_role("button", name="Stop", exact=True).click()
        expect(page.locator(".looking")).to_contain_text(re.compile(r"Stopped after [\d,]+ of [\d,]+"))
        expect(page.locator(".few li").first).to_be_visible()
        self.ends(page)

    def test_an_edit_ends_it(self) -> None:
        page = self.searching()
        page.locator(".few li").get_by_role("button", name="Take it").first.click()
        expect(page.get_by_text("The job has changed since.")).to_be_visible()
        expect(page.locator(".looking")).to_contain_text("Stopped after")
        self.ends(page)

    def test_an_edit_before_the_first_answer_ends_it_as_well(self) -> None:
        held, stopped = list[Route](), list[str]()
        page = self.job_page("Lime Kiln", "design")
        page.route("**/api/v1/reach", lambda route: held.append(route))
        page.on("request", lambda one: stopped.append(one.url) if one.method == "DELETE" else None)
        part = page.get_by_role("region", name="How far it holds")
        part.get_by_role("button", name="Work out how far this design holds").click()
        expect(part.locator(".looking")).to_contain_text("Working it out")
        page.locator("li .length input").first.fill("7.9")
        # What was asked about another job is no answer any more: it may be asked again.
        expect(part.get_by_role("button", name="Work out how far this design holds")).to_be_visible()
        before = len(stopped)
        for route in held:
            route.continue_()
        self.comes_to(lambda: len(stopped) > before, page)
        self.ends(page)

    def test_leaving_the_page_ends_it(self) -> None:
        page = self.searching()
        expect(page.locator(".looking")).to_contain_text("Tried")
        page.get_by_role("link", name="Materials").click()
        self.ends(page)

    def test_whoever_comes_third_waits_for_their_turn(self) -> None:
        pages = [self.searching() for _ in range(2)]
        for page in pages:
            expect(page.locator(".looking")).to_contain_text("Tried")
        third = self.job_page("Cobbler", "design")
        drop = third.get_by_role("listitem").filter(has=third.get_by_role("button", name="Volt drop to the car"))
        drop.get_by_role("button", name="What would mend it?").click()
        expect(drop.locator(".looking")).to_contain_text("Waits: two others are being worked out.")
        pages[0].get_by_role("button", name="Stop", exact=True).click()
        expect(drop.locator(".looking")).to_contain_text("Tried")

    def ends(self, page: Page) -> None:
        self.comes_to(lambda: self.going() == 0, page)

    def comes_to(self, seen: Callable[[], bool], page: Page) -> None:
        """Waits as a page does, which goes on meanwhile."""
        until = time.monotonic() + PATIENCE_S
        while not seen():
            self.assertLess(time.monotonic(), until, "it never came")
            page.wait_for_timeout(50)


if __name__ == "__main__":
    unittest.main()
