"""Protecting people in the browser: every arrangement, the bench, the electrode, the chain; by keyboard too."""

import re

from playwright.sync_api import expect

from tests.browser.chromium import BrowserCase, tap


class Arrangements(BrowserCase):
    def test_a_refused_one_says_why_and_what_can_happen_and_another_is_taken(self) -> None:
        page = self.job_page("Lime Kiln", "design/arrangements")
        ways = page.get_by_role("region", name="Every arrangement")
        expect(ways.get_by_role("radio", name="all 288")).to_be_checked()
        ways.get_by_role("radio", name=re.compile("refused")).check()
        row = ways.get_by_role("button", name=re.compile("Refused")).first
        row.focus()
        page.keyboard.press("Enter")
        expect(row).to_have_attribute("aria-expanded", "true")
        expect(ways.get_by_text("What can happen:").first).to_be_visible()
        ways.get_by_role("radio", name=re.compile("allowed")).check()
        ways.get_by_role("button", name=re.compile("a Type F 30 mA RCBO")).first.click()
        ways.get_by_role("button", name="Take this way").click()
        expect(page.get_by_role("status").first).to_have_text("Saved")
        page.get_by_role("link", name="The circuit").click()
        expect(page.locator(".sentence")).to_contain_text("a Type F 30 mA RCBO at the board")

    def test_the_sentence_holds_surge_protection_and_its_other_school_asks_why(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        page.get_by_role("button", name="fitted at the board").click()
        page.get_by_role("button", name=re.compile("left out")).click()
        row = page.get_by_role("listitem").filter(has_text="Surge protection")
        row.get_by_role("button", name="Say why", exact=True).click()
        expect(row).to_contain_text("Cautious school: fit surge protection.")
        row.get_by_label("Why is it so?").fill("The owner declined in writing.")
        row.get_by_label("Your name").fill("R. Quillfeather")
        row.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_text("“The owner declined in writing.”")).to_be_visible()

    def test_armour_that_touches_is_told_at_once(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        tap(page, "Armour, conduit or trunking at the unit", "touching the unit's earth")
        expect(page.get_by_role("region", name="Checks")).to_contain_text(
            "when the device opens, the car stays joined to the broken PEN"
        )


class Bench(BrowserCase):
    def test_a_street_that_fools_a_window_and_sliders_by_keyboard(self) -> None:
        page = self.job_page("Lime Kiln", "design/bench")
        bench = page.get_by_role("region", name="Broken-PEN bench")
        tap(page, "Streets that teach", "A broken main that fools an L–N window")
        expect(bench.get_by_role("row", name=re.compile("line-to-neutral window"))).to_contain_text("does not see it")
        expect(bench.get_by_role("row", name=re.compile("MET to true earth"))).to_contain_text("sees it, opens by 5 s")
        tap(page, "Streets that teach", "Evening load, a 2 Ω rod")
        told = bench.get_by_role("status")
        expect(told).to_contain_text("the standard accepts it")
        bench.get_by_role("slider", name="Its electrode").focus()
        for _ in range(4):
            page.keyboard.press("ArrowRight")
        expect(told).to_contain_text("either kind of device sees it")
        tap(page, "The car is on", "its own electrode")
        expect(told).to_contain_text("its body stays at earth")

    def test_a_row_of_houses_on_a_phone(self) -> None:
        page = self.job_page("Lime Kiln", "design/bench", phone=True)
        tap(page, "Streets that teach", "A row of nine, the main broken at the fourth")
        page.get_by_text("Every house as a table").tap()
        expect(page.get_by_role("row", name=re.compile("5, this house"))).to_be_visible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)


class ElectrodeAndChain(BrowserCase):
    def test_the_planner_and_the_record_of_a_test(self) -> None:
        page = self.job_page("Lime Kiln", "design/electrode")
        region = page.get_by_role("region", name="Electrode", exact=True)
        expect(region.get_by_role("status")).to_have_text("About 28 Ω, in winter 86 Ω.")
        tap(page, "Soil", "Sand, gravel")
        expect(region.get_by_role("status")).to_contain_text("About 162 Ω")
        expect(region).to_contain_text("Above 200 Ω: not stable")
        test = page.get_by_role("region", name="Fall-of-potential test")
        for at, reading in (("12.4", "31"), ("14.8", "32"), ("17.2", "33,2")):
            test.get_by_label(f"Spike at {at} m").fill(reading)
        test.get_by_label("Taken by").fill("R. Quillfeather")
        test.get_by_role("button", name="Keep the three").click()
        expect(test).to_contain_text("Kept: 31, 32, 33.2 Ω by R. Quillfeather")
        expect(page.get_by_role("status").first).to_have_text("Saved")

    def test_the_chain_tells_which_goes_blind(self) -> None:
        page = self.job_page("Tanner", "design/chain")
        region = page.get_by_role("region", name="RCDs and DC")
        expect(region.get_by_role("status")).to_contain_text("Type AC, 30 mA (in front, Fuse board) is blind")
        tap(page, "Residual current at the car", "alternating")
        for _ in range(24):
            region.get_by_role("slider", name="How much").press("ArrowRight")
        expect(region.get_by_role("status")).to_have_text("The current is interrupted.")
