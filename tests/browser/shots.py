"""Takes the pictures in docs/screenshots/ anew, from the demo data."""

from __future__ import annotations

import unittest
from unittest.mock import patch

from playwright.sync_api import Page

from fulmen.store.practice import load_exercise
from tests.browser.chromium import BrowserCase, choose, tap
from tests.core.practised import well_done
from tests.jobs import ROOT
from tests.web.test_practice import drawing

TARGET = ROOT / "docs" / "screenshots"


class Shots(BrowserCase):
    """One picture of each main view; run by `make shots`, not by `make test`."""

    def shot(self, name: str, title: str, stage: str, steps: str = "", **how: bool) -> None:
        page = self.job_page(title, stage, folded=True, **how)
        if steps == "zs":
            page.get_by_label("Tested by").fill("R. Quillfeather")
            if how.get("phone"):
                page.get_by_role("button", name="All steps").click()
            page.locator(".steps").get_by_role("button", name="Loop at the car, Zs").click()
            if how.get("phone"):
                for key in "0.29":
                    page.get_by_role("button", name=key, exact=True).click()
            else:
                page.locator(".big input").fill("0.29")
            page.locator(".judged").first.wait_for()
            page.evaluate("scrollTo(0, 0)")
        if steps == "working":
            page.get_by_label("Show what holds as well").check()
            page.get_by_role("button", name="Volt drop to the car").click()
            page.evaluate("scrollTo(0, 0)")
        if steps == "down":
            # Past the run band, so that the stage itself fills the picture.
            self.past_the_band(page)
        if steps == "refused":
            page.get_by_role("radio", name="refused").check()
            page.get_by_role("button", name="Refused").first.click()
            self.past_the_band(page)
        if steps == "row":
            tap(page, "Streets that teach", "A row of nine, the main broken at the fourth")
            page.wait_for_timeout(300)
            self.past_the_band(page)
        if steps == "route":
            page.get_by_role("button", name="More").nth(3).click()
            page.evaluate(
                "scrollTo(0, document.querySelector('[aria-label=Route]').getBoundingClientRect().top + scrollY - 16)"
            )
        if steps == "search":
            page.get_by_role("button", name="Try every way").click()
            page.locator(".few li").first.wait_for()
            self.past_the_band(page)
        page.mouse.move(640, 5)
        page.wait_for_timeout(500)
        page.screenshot(path=str(TARGET / f"{name}.png"))
        self.shared.wipe()
        self.shared.app = self.app
        self.used.clear()

    def past_the_band(self, page: Page) -> None:
        page.evaluate("scrollTo(0, document.querySelector('.side, .parts').getBoundingClientRect().top)")

    def householder(self) -> None:
        made = self.client.post("/api/v1/jobs/1/links", json={"made_by": "R. Quillfeather"}).get_json()
        page = self.page("/answer/" + made["address"].rpartition("/")[2], phone=True)
        tap(page, "Whose home is it?", "I own it and live there")
        page.get_by_text("1 of 16 answered").wait_for()
        page.wait_for_timeout(500)
        page.screenshot(path=str(TARGET / "phone-householder.png"))

    def practice(self) -> None:
        """A loop through the connector on the garage's run, taken rightly."""
        body = {"learner": "Wren Apprentice", "practice_set": "garage"}
        with patch("fulmen.web.practice.views.chance", drawing("sound")):
            begun = self.client.post("/api/v1/practice", json=body).get_json()
        whole = load_exercise(self.sessions, begun["id"]).course.exercise
        acts = [one for one in well_done(whole) if one.kind not in ("judge", "name")][:28]
        for after, act in enumerate(acts):
            self.client.post(
                f"/api/v1/practice/{begun['id']}/acts", json={"after": after, "act": act.model_dump(mode="json")}
            )
        page = self.page(f"/practice/{begun['id']}")
        page.locator("nav.side").get_by_role("button", name="Continuity, R1+R2, Sub-main").click()
        for at, jack in (("line at the far end", 1), ("earth at the far end", 2)):
            page.get_by_role("button", name=f"{at}: put lead {jack} here").click()
        choose(page, "Dial", "low ohms")
        tap(page, "Linked at the near end", "Line to earth")
        page.mouse.move(640, 5)
        page.wait_for_timeout(500)
        page.screenshot(path=str(TARGET / "practice.png"))

    def runTest(self) -> None:
        TARGET.mkdir(parents=True, exist_ok=True)
        page = self.page("/")
        page.get_by_role("listitem").first.wait_for()
        page.screenshot(path=str(TARGET / "jobs.png"))
        self.used.clear()
        self.shot("survey", "Tanner", "survey/cut_out")
        self.shot("day", "Lantern", "survey/day", "down")
        self.shot("operator", "Tanner", "survey/operator")
        self.shot("arrangements", "Lime Kiln", "design/arrangements", "refused")
        self.shot("bench", "Lime Kiln", "design/bench", "row")
        self.shot("electrode", "Lime Kiln", "design/electrode", "down")
        self.shot("chain", "Three RCDs", "design/chain", "down")
        self.shot("route", "Garage at", "design", "route")
        self.shot("boards", "Open-PEN board at", "design/boards", "down")
        self.shot("other-ways", "Cobbler", "design/others", "search")
        self.shot("materials", "Garage at", "design/materials", "down")
        self.householder()
        self.practice()
        self.shot("design", "Lime Kiln", "design", "working")
        self.shot("live-tests", "Saddler", "live", "zs")
        self.shot("papers", "Lime Kiln", "papers")
        self.shot("phone-design", "Lime Kiln", "design", phone=True)
        self.shot("phone-live-tests", "Saddler", "live", "zs", phone=True)


if __name__ == "__main__":
    result = unittest.TextTestRunner().run(unittest.defaultTestLoader.suiteClass([Shots()]))
    raise SystemExit(not result.wasSuccessful())
