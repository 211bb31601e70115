"""On site: readings by thumb on a phone, and no scrolling sideways."""

from playwright.sync_api import Page, expect

from tests.browser.chromium import BrowserCase

STAGES = ("survey", "design", "dead", "live", "papers")
PARTS = (
    *(f"survey/{part}" for part in ("board", "loads", "charge_point", "open", "day", "operator")),
    *(f"design/{part}" for part in ("boards", "others", "materials", "arrangements", "bench", "electrode", "chain")),
)


class Phone(BrowserCase):
    def press(self, page: Page, keys: str) -> None:
        for key in keys:
            page.get_by_role("button", name=key, exact=True).tap()

    def test_a_reading_by_thumb(self) -> None:
        page = self.job_page("Saddler", "live", phone=True)
        page.get_by_label("Tested by").fill("R. Quillfeather")
        page.get_by_role("button", name="All steps").tap()
        page.locator(".steps").get_by_role("button", name="Loop at the car, Zs").tap()
        # The pad of the step before is still there for a moment.
        expect(page.get_by_role("heading", name="Loop at the car, Zs")).to_be_visible()
        self.press(page, "0.45")
        expect(page.locator(".big input").first).to_have_value("0.45")
        expect(page.locator(".judged").first).to_contain_text("Your call")
        page.get_by_role("button", name="Delete the last digit").tap()
        page.get_by_role("button", name="Delete the last digit").tap()
        self.press(page, "30")
        expect(page.locator(".judged").first).to_contain_text("Meets")
        page.get_by_role("button", name="Keep", exact=True).tap()
        expect(page.get_by_role("heading", name="RCD at its rated current")).to_be_visible()
        page.get_by_role("button", name="All steps").tap()
        expect(page.locator(".steps").get_by_role("button", name="Loop at the car, Zs")).to_contain_text("0.30 Ω")

    def test_a_step_that_cannot_be_tested_keeps_its_reason(self) -> None:
        page = self.job_page("Saddler", "live", phone=True)
        page.get_by_label("Tested by").fill("R. Quillfeather")
        page.get_by_role("button", name="can't test").tap()
        page.get_by_label("Why?").fill("Meter cupboard locked")
        page.get_by_role("button", name="Keep the reason").tap()
        page.get_by_role("button", name="All steps").tap()
        expect(page.locator(".steps").get_by_role("button", name="Fault current, line to neutral")).to_contain_text(
            "LIM"
        )

    def test_a_reading_needs_who_took_it(self) -> None:
        page = self.job_page("Saddler", "live", phone=True)
        keep = page.get_by_role("button", name="Keep", exact=True)
        expect(keep).to_be_disabled()
        self.press(page, "1")
        keep.tap()
        expect(page.get_by_role("alert")).to_contain_text("Enter your name")
        page.get_by_label("Tested by").fill("R. Quillfeather")
        expect(page.get_by_role("alert")).to_have_count(0)

    def test_a_choice_never_covers_the_words_it_is_of(self) -> None:
        page = self.job_page("Saddler", "design", phone=True)
        choices = page.locator(".sentence .choice[aria-haspopup]")
        for index in range(choices.count()):
            choices.nth(index).tap()
            sheet = page.locator(".v-overlay--active .sheet")
            sheet.locator(".way").first.wait_for()
            page.wait_for_timeout(400)
            words, covering = choices.nth(index).bounding_box(), sheet.bounding_box()
            assert words is not None and covering is not None
            with self.subTest(choices.nth(index).inner_text()):
                self.assertGreaterEqual(words["y"], 0)
                self.assertLessEqual(words["y"] + words["height"], covering["y"] + 1)
                self.assertLessEqual(covering["y"] + covering["height"], 844)
            page.keyboard.press("Escape")
            sheet.wait_for(state="hidden")

    def test_targets_are_big_enough_and_nothing_scrolls_sideways(self) -> None:
        page = self.page("/", phone=True)
        for stage in (*STAGES, *PARTS):
            self.visit(page, "Saddler", stage)
            with self.subTest(stage):
                self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        self.visit(page, "Saddler", "live")
        for button in page.locator(".pad button").all():
            box = button.bounding_box()
            assert box is not None
            self.assertGreaterEqual(min(box["height"], box["width"]), 44)
