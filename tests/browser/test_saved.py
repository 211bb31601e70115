"""Saved means saved: whatever moment a page goes at, its edit ends in the store; one person never meets themselves."""

from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.chromium import BrowserCase, tap
from tests.photos import picture
from tests.sampling import some

MOMENTS_MS = (0, 50, 100, 200, 400)
JOB = "/api/v1/jobs/"


def typed(page: Page, number: int) -> None:
    page.get_by_label("Householder").fill(f"Typed {number}")


def walked(page: Page, number: int) -> None:
    page.get_by_label("Length").first.fill(f"{3 + number / 10:g}")


def chosen(page: Page, number: int) -> None:
    tap(page, "Whose home is it?", ("owner lets it", "tenant asks")[number % 2])


def photographed(page: Page, number: int) -> None:
    file = {"name": "home.jpg", "mimeType": "image/jpeg", "buffer": picture()}
    page.get_by_test_id("photo-ownership").set_input_files(file)
    # It counts from its thumbnail; before that the page says that it is not taken.
    expect(page.get_by_role("img", name="Photo ")).to_have_count(number)


def undone(page: Page, number: int) -> None:
    rows = page.locator("li .length input")
    before = rows.count()
    page.get_by_role("button", name="Take section 2 out").click()
    expect(rows).to_have_count(before - 1)
    expect(page.get_by_role("status").first).to_have_text("Saved")
    page.get_by_role("button", name="Undo", exact=True).click()


# Kind of edit → the stage it is made at, how, and what the stored job then says.
EDITS: dict[str, tuple[str, Callable[[Page, int], None], Callable[[Any, int], tuple[Any, Any]]]] = {
    "text": ("survey/ownership", typed, lambda job, number: (job["site"]["householder"], f"Typed {number}")),
    "choice": (
        "survey/ownership",
        chosen,
        lambda job, number: (job["site"]["ownership"], ("owner_lets_it", "tenant")[number % 2]),
    ),
    "route": ("design", walked, lambda job, number: (job["circuits"][0]["route"][0]["length_m"], 3 + number / 10)),
    "undo": ("design", undone, lambda job, number: (len(job["circuits"][0]["route"]), 5)),
}


class Saved(BrowserCase):
    def stored(self, page: Page) -> Any:
        return self.client.get(JOB + page.url.split("/")[4]).get_json()["job"]

    def test_a_reload_at_any_moment_of_an_edit_ends_with_it_in_the_store(self) -> None:
        moments = [(kind, after_ms) for kind in EDITS for after_ms in MOMENTS_MS]
        for number, (kind, after_ms) in enumerate(some(moments, 9, "moments"), start=1):
            stage, edit, holds = EDITS[kind]
            page = self.visit(self.opened(), "Lime Kiln", stage)
            edit(page, number)
            page.wait_for_timeout(after_ms)
            page.reload()
            with self.subTest(kind, after_ms=after_ms):
                expect(page.get_by_role("status").first).to_have_text("Saved")
                found, wanted = holds(self.stored(page), number)
                self.assertEqual(found, wanted)
                expect(page.get_by_role("alertdialog")).to_have_count(0)

    def test_a_reload_at_any_moment_after_a_photos_thumbnail_ends_with_it_in_the_store(self) -> None:
        for number, after_ms in enumerate(some(MOMENTS_MS, 3, "photo moments"), start=1):
            page = self.visit(self.opened(), "Lime Kiln", "survey/ownership")
            photographed(page, number)
            page.wait_for_timeout(after_ms)
            page.reload()
            with self.subTest(after_ms=after_ms):
                expect(page.get_by_role("status").first).to_have_text("Saved")
                kept = self.client.get(f"{JOB}{page.url.split('/')[4]}/photos").get_json()["photos"]
                self.assertEqual(len(kept), number)
                self.assertIsNotNone(kept[-1]["made_at"])

    def opened(self) -> Page:
        if not hasattr(self, "only"):
            self.only = self.page("/")
        return self.only

    def test_a_tab_that_is_closed_at_any_moment_leaves_its_edit_to_the_next(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")
        page.route(
            "**/api/v1/jobs/*", lambda route: route.abort() if route.request.method == "PUT" else route.continue_()
        )
        page.get_by_label("Householder").fill("Typed and gone")
        expect(page.get_by_role("status")).to_contain_text("On this device, not yet saved")
        page.unroute("**/api/v1/jobs/*")
        next_one = page.context.new_page()
        self.addCleanup(next_one.close)
        # What another page left is taken up once nobody touched it for five seconds.
        next_one.evaluate("() => 0")
        page.goto("about:blank")
        next_one.wait_for_timeout(5100)
        next_one.goto(self.url + self.path("Lime Kiln", "survey/ownership"))
        expect(next_one.get_by_label("Householder")).to_have_value("Typed and gone")
        expect(next_one.get_by_role("status")).to_have_text("Saved")
        self.assertEqual(self.stored(next_one)["site"]["householder"], "Typed and gone")

    def test_a_lid_that_closes_sends_what_waits_at_once(self) -> None:
        # On a device of its own, which goes with its clock.
        page = self.shared.another_page(False)
        self.addCleanup(page.context.close)
        page.clock.install()
        self.visit(page, "Lime Kiln", "survey/ownership")
        # With the clock standing still nothing is saved by itself.
        page.clock.pause_at(page.evaluate("Date.now() + 2000"))
        page.get_by_label("Householder").fill("Typed before the lid")
        page.wait_for_timeout(600)
        self.assertNotEqual(self.stored(page)["site"]["householder"], "Typed before the lid")
        with page.expect_response(lambda told: told.request.method == "PUT"):
            page.evaluate(
                "Object.defineProperty(document, 'hidden', {get: () => true});"
                "document.dispatchEvent(new Event('visibilitychange'))"
            )
        self.assertEqual(self.stored(page)["site"]["householder"], "Typed before the lid")

    def test_two_edits_in_a_row_and_a_reload_are_one_persons(self) -> None:
        """Before, the first one's answer came while the second was typed, and somebody else was said to have saved."""
        page = self.job_page("Lime Kiln", "survey/ownership")
        for number, apart_ms in enumerate((150, 250, 350, 450)):
            page.get_by_label("Your reference").fill(f"One {number}")
            page.wait_for_timeout(400 + apart_ms // 4)
            page.get_by_label("Your reference").fill(f"Two {number}")
            page.wait_for_timeout(apart_ms)
            page.reload()
            with self.subTest(apart_ms):
                expect(page.get_by_label("Your reference")).to_have_value(f"Two {number}")
                expect(page.get_by_role("status")).to_have_text("Saved")
                expect(page.get_by_role("alertdialog")).to_have_count(0)
                self.assertEqual(self.stored(page)["reference"], f"Two {number}")

    def test_two_tabs_of_one_person(self) -> None:
        one = self.job_page("Lime Kiln", "survey/ownership")
        other = one.context.new_page()
        self.addCleanup(other.close)
        other.goto(one.url)
        other.get_by_label("Address").fill("2 Nowhere Close")
        expect(other.get_by_role("status")).to_have_text("Saved")
        one.get_by_label("Householder").fill("N. Otreal the younger")
        expect(one.get_by_role("status")).to_have_text("Saved")
        expect(one.get_by_label("Address")).to_have_value("2 Nowhere Close")
        self.assertEqual(self.stored(one)["site"]["householder"], "N. Otreal the younger")
        # Its document is older now: what it does not know is not overwritten, and nobody else is blamed.
        other.get_by_label("Householder").fill("Typed in the older tab")
        dialog = other.get_by_role("alertdialog")
        expect(dialog).to_contain_text("in another tab of this browser")
        dialog.get_by_label("Saved: N. Otreal the younger").check()
        dialog.get_by_role("button", name="Keep these").click()
        expect(other.get_by_role("status")).to_have_text("Saved")
        self.assertEqual(self.stored(one)["site"]["householder"], "N. Otreal the younger")

    def test_two_people_who_edit_different_things_meet_no_question(self) -> None:
        mine, theirs = self.job_page("Lime Kiln", "survey/ownership"), self.job_page("Lime Kiln", "survey/ownership")
        theirs.get_by_label("Householder").fill("Theirs")
        expect(theirs.get_by_role("status")).to_have_text("Saved")
        mine.get_by_label("Your reference").fill("Mine")
        expect(mine.get_by_role("status")).to_have_text("Saved")
        expect(mine.get_by_label("Householder")).to_have_value("Theirs")
        kept = self.stored(mine)
        self.assertEqual((kept["site"]["householder"], kept["reference"]), ("Theirs", "Mine"))

    def test_nothing_is_issued_while_a_word_waits(self) -> None:
        """A lost connection, a word typed, then signed: before, the paper went out without the word."""
        page = self.job_page("Lime Kiln", "papers")
        sign = page.get_by_role("button", name="Sign and issue")
        page.get_by_label("Name", exact=True).fill("R. Quillfeather")
        page.get_by_label("Each part named was done").check()
        page.route(
            "**/api/v1/jobs/*", lambda route: route.abort() if route.request.method == "PUT" else route.continue_()
        )
        page.get_by_label("Comments on the existing installation").fill("Never sent")
        expect(page.get_by_role("status").first).to_contain_text("not yet saved")
        sign.click()
        expect(page.get_by_text("is not saved yet")).to_be_visible()
        self.assertEqual(
            self.client.get(page.url.replace(self.url, "/api/v1").rpartition("/")[0] + "/papers").get_json()["papers"],
            [],
        )
