"""Accessibility of every main view, by axe; contrast in the dark too."""

import json

from playwright.sync_api import Page

from tests.browser.chromium import BrowserCase
from tests.browser.test_site import PARTS, STAGES
from tests.jobs import ROOT

AXE = (ROOT / "frontend" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
# Whatever still moves or loads has come to its end.
STILL = """async () => {
  await document.fonts.ready
  await new Promise((next) => requestAnimationFrame(() => requestAnimationFrame(next)))
  const ending = document.getAnimations().filter((one) => one.effect.getComputedTiming().endTime < Infinity)
  await Promise.race([Promise.allSettled(ending.map((one) => one.finished)), new Promise((next) => setTimeout(next, 2000))])
}"""

ALL = "{resultTypes: ['violations']}"
# Colours are the same at every width: the phone's views are held to contrast, in the light and in the dark.
BUT_CONTRAST = "{resultTypes: ['violations'], rules: {'color-contrast': {enabled: false}}}"


class Accessible(BrowserCase):
    maxDiff = None

    def violations(self, page: Page, options: str = ALL) -> list[str]:
        page.evaluate(STILL)
        # Through the debugger, since the content security policy rightly refuses a script tag.
        if not page.evaluate("'axe' in window"):
            page.evaluate(AXE)
        found = page.evaluate(f"axe.run({options})")["violations"]
        return [f"{one['id']}: {json.dumps([node['html'][:160] for node in one['nodes'][:3]])}" for one in found]

    def test_main_views(self) -> None:
        for phone in (False, True):
            with self.subTest("jobs", phone=phone):
                page = self.page("/", phone=phone)
                page.get_by_role("listitem").first.wait_for()
                self.assertEqual(self.violations(page), [])
            for stage in (*STAGES, *(PARTS if phone else ())):
                with self.subTest(stage, phone=phone):
                    self.visit(page, "Tanner" if stage in PARTS else "Saddler", stage)
                    self.assertEqual(self.violations(page, ALL if phone else BUT_CONTRAST), [])

    def test_the_householders_page(self) -> None:
        made = self.client.post("/api/v1/jobs/1/links", json={"made_by": "R. Quillfeather"}).get_json()
        page = self.page("/answer/" + made["address"].rpartition("/")[2], phone=True)
        page.get_by_role("heading", name="About your charge point").wait_for()
        self.assertEqual(self.violations(page), [])

    def test_practice(self) -> None:
        body = {"learner": "Wren", "practice_set": "against"}
        begun = self.client.post("/api/v1/practice", json=body).get_json()
        for phone, dark in ((False, False), (True, False), (False, True)):
            page = self.page("/practice", phone=phone, dark=dark)
            page.get_by_role("button", name="Begin").first.wait_for()
            self.assertEqual(self.violations(page), [])
            page.goto(f"{self.url}/practice/{begun['id']}")
            page.locator("svg .terminal").first.wait_for()
            self.assertEqual(self.violations(page), [])

    def test_contrast_in_the_dark(self) -> None:
        page = self.page("/", dark=True)
        for stage in (*STAGES, "survey/day", "survey/operator", "design/bench", "design/chain"):
            with self.subTest(stage):
                self.visit(page, "Saddler", stage)
                self.assertEqual(self.violations(page, "{runOnly: ['color-contrast']}"), [])

    def test_an_open_menu(self) -> None:
        page = self.job_page("Cobbler", "design")
        page.get_by_role("button", name="4 mm²", exact=True).click()
        page.get_by_role("group", name="Size of the cable").wait_for()
        # The menu floats outside the page's landmarks, as every overlay of the toolbox does.
        self.assertEqual(self.violations(page, "{rules: {region: {enabled: false}}}"), [])
