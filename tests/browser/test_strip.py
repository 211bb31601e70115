"""The run as one line above every stage, the one next thing, and counters that are its list."""

import re

from playwright.sync_api import Page, expect

from tests.browser.chromium import BrowserCase, tap

STAGES = ("survey", "design", "dead", "live", "papers")
# What somebody works with on a stage: a question, the sentence, a test, an inspection.
FIRST_TO_DO = {
    "survey": "article .questions legend, article .questions input",
    "design": ".sentence, .work h2",
    "dead": ".panel h2, .step h2, article h2",
    "live": ".panel h2, .step h2, article h2",
    "papers": ".work fieldset",
}
SHIFTS = """() => { window.shifted = 0; new PerformanceObserver((list) => {
  for (const one of list.getEntries()) window.shifted += one.value }).observe({type: 'layout-shift', buffered: true}) }"""


def counts(page: Page) -> list[int]:
    """What the tabs say is left of each stage."""
    expect(page.locator("nav[aria-label=Stages] .count").last).to_have_text(re.compile(r"\S"))
    told = page.locator("nav[aria-label=Stages] .count").all_inner_texts()
    return [int(found.group()) if (found := re.match(r"\d+", one)) else 0 for one in told]


class Strip(BrowserCase):
    def test_it_is_one_line_on_every_stage_and_says_where_you_are(self) -> None:
        page = self.job_page("Tanner", "survey")
        for stage in STAGES:
            self.visit(page, "Tanner", stage)
            if stage == "design":
                page.keyboard.press("r")
            strip = page.get_by_role("navigation", name="Along the run")
            expect(strip).to_be_visible()
            box = strip.bounding_box()
            assert box is not None
            self.assertLessEqual(box["height"], 64, stage)
            expect(strip.get_by_role("button", name="Cut-out")).to_be_visible()
        self.visit(page, "Tanner", "survey")
        expect(page.get_by_role("button", name=re.compile("^Cut-out.*you are here"))).to_be_visible()

    def test_a_tap_goes_to_that_place_in_the_present_stage(self) -> None:
        page = self.job_page("Garage at the end", "survey")
        strip = page.get_by_role("navigation", name="Along the run")
        for node, title in (
            ("Meter", "Meter"),
            ("Board", "Board"),
            ("Charge point", "Charge point"),
            ("Route", "Route"),
        ):
            strip.get_by_role("button", name=re.compile(f"^{node}")).first.click()
            expect(page.locator("article h2").first).to_have_text(title)
            expect(strip.locator("[aria-current=location]")).to_have_count(1)
        self.visit(page, "Garage at the end", "dead")
        for node, at in (("Charge point", "charge point"), ("Garage", "Garage board")):
            strip.get_by_role("button", name=re.compile(f"^{node}")).first.click()
            expect(page.locator("main .count").first).to_contain_text(at)
            expect(strip.locator("[aria-current=location]")).to_have_accessible_name(re.compile(f"^{node}"))

    def test_it_unfolds_by_press_and_key_and_by_itself_only_where_there_is_room(self) -> None:
        page = self.job_page("Saddler", "design")
        expect(page.locator(".run-band")).to_be_visible()
        page.keyboard.press("r")
        expect(page.locator(".run-band")).to_have_count(0)
        page.get_by_role("button", name="Unfold the run").click()
        expect(page.locator(".run-band")).to_be_visible()
        page.get_by_role("link", name=re.compile("^Survey")).click()
        expect(page.locator(".run-band")).to_have_count(0)
        # A letter that is typed is a letter.
        page.get_by_role("link", name=re.compile("^Papers")).click()
        page.get_by_label("Comments on the existing installation").press_sequentially("rg")
        expect(page.locator(".run-band")).to_have_count(0)
        self.assertIn("/papers", page.url)
        page.set_viewport_size({"width": 1280, "height": 640})
        self.addCleanup(page.set_viewport_size, {"width": 1280, "height": 800})
        self.visit(page, "Saddler", "design")
        expect(page.locator(".run-band")).to_have_count(0)

    def test_on_a_phone_the_work_begins_in_the_upper_half(self) -> None:
        page = self.job_page("Tanner", "survey", phone=True)
        for title in ("Tanner", "Saddler"):
            for stage in STAGES:
                with self.subTest(title, stage=stage):
                    self.visit(page, title, stage)
                    counts(page)
                    first = page.locator(FIRST_TO_DO[stage]).first
                    first.wait_for()
                    top = first.evaluate("(one) => one.getBoundingClientRect().top + scrollY")
                    self.assertLess(top, 360)

    def test_nothing_jumps_over_load_and_typing(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        for stage in STAGES:
            page.goto(self.url + self.path("Lime Kiln", stage))
            page.evaluate(SHIFTS)
            self.shown(page)
            counts(page)
            if stage == "design":
                page.get_by_label("Length").first.press_sequentially("1")
                expect(page.get_by_role("status")).to_have_text("Saved")
            page.evaluate("new Promise((drawn) => setTimeout(drawn, 300))")
            self.assertLessEqual(page.evaluate("window.shifted"), 0.05, stage)

    def test_nothing_jumps_as_a_page_comes_on_a_phone(self) -> None:
        page = self.page("/", phone=True)
        for title in ("Tanner", "Saddler"):
            for stage in STAGES:
                with self.subTest(title, stage=stage):
                    page.goto(self.url + self.path(title, stage))
                    page.evaluate(SHIFTS)
                    self.shown(page)
                    counts(page)
                    page.evaluate("new Promise((drawn) => setTimeout(drawn, 500))")
                    self.assertLessEqual(page.evaluate("window.shifted"), 0.05)


class NextThing(BrowserCase):
    def test_it_leads_from_a_blank_sheet_to_each_thing_in_turn(self) -> None:
        page = self.page("/")
        self.client.post("/api/v1/jobs/blank", json={"title": "Blank", "reference": ""})
        self.visit(page, "Blank", "survey")
        line = page.get_by_role("region", name="Next")
        expect(line).to_contain_text("Survey: Earthing arrangement of the supply")
        page.keyboard.press("g")
        expect(page.get_by_role("group", name="Where does the earth conductor start?").locator(":focus")).to_have_count(
            1
        )
        tap(page, "Where does the earth conductor start?", "TN-C-S")
        expect(line).to_contain_text("Survey: Service not looped")
        line.get_by_role("button", name="Go").click()
        expect(page.locator(":focus")).to_have_count(1)

    def test_counters_are_the_list(self) -> None:
        page = self.job_page("Tanner", "survey")
        left = counts(page)
        more = page.get_by_role("region", name="Next").get_by_text(re.compile(r"then \d+ more"))
        expect(more).to_have_text(f"then {sum(left) - 1} more")
        settled = page.get_by_role("navigation", name="Stops").get_by_text(re.compile(r"\d+ to settle"))
        self.assertEqual(sum(int(one.split()[0]) for one in settled.all_inner_texts()), left[0])

    def test_each_kind_of_thing_leads_to_its_very_place(self) -> None:
        page = self.job_page("Saddler", "papers")
        line = page.get_by_role("region", name="Next")
        expect(line).to_contain_text("Design: 40 A device")
        page.keyboard.press("g")
        # A call: its row is open, and it is there that one stands.
        expect(page.get_by_role("button", name="40 A device for a 32 A unit")).to_be_focused()
        page.get_by_label("Why is it so?").fill("The maker asks for 40 A.")
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.get_by_role("button", name="Keep the reason").click()
        # Then a test, which is open as one gets there.
        expect(line).to_contain_text("Live tests:")
        title = line.locator(".words").inner_text().removeprefix("Live tests: ")
        line.get_by_role("button", name="Go").click()
        expect(page.locator("main h2.headline, main article h2, main h2").first).to_contain_text(title)
        self.assertIn("/live?step=", page.url)

    def test_wait_is_said_only_where_something_says_so(self) -> None:
        page = self.job_page("Tanner", "design")
        expect(page.get_by_role("link", name="Don’t start work yet")).to_be_visible()
        self.visit(page, "Lime Kiln", "design")
        expect(page.get_by_role("link", name="Don’t start work yet")).to_have_count(0)
