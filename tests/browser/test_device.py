"""The network goes in the middle of the tests, or the browser is killed: what was made stays on the device, and goes once."""

import glob
import os
import signal
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import BrowserContext, Page, Route, expect

from tests.browser.chromium import ARGUMENTS, TIMEOUT_MS, BrowserCase, tap
from tests.browser.test_testing import FIGURES, NAMED, Sequence
from tests.photos import picture

API = "**/api/**"


def away(route: Route) -> None:
    route.abort()


class NetworkGone(Sequence):
    def readings(self) -> list[Any]:
        return list(self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["job"]["readings"])

    def take(self, page: Page, count: int) -> list[str]:
        """So many steps by thumb; what they were called."""
        taken = []
        for _ in range(count):
            title = self.titles_left(page)
            taken.append(title)
            for key in FIGURES.get(title, "").lstrip(">"):
                page.locator(".pad").get_by_role("button", name=key, exact=True).tap()
            page.locator(".pad .next").tap()
            expect(page.locator("h2.headline").first).not_to_have_text(title)
        return taken

    def note(self, page: Page) -> Any:
        return expect(page.get_by_role("status").first)

    def test_everything_stays_in_order_survives_a_reload_and_is_sent_once(self) -> None:
        page = self.begun(phone=True)
        page.route(API, away)
        # Two acts of the tester, a photo of a display and its figure, words, then another figure.
        self.take(page, 2)
        self.note(page).to_have_text("On this device, not yet saved: 2")
        photo = {"name": "display.jpg", "mimeType": "image/jpeg", "buffer": picture()}
        page.get_by_test_id("reading-photo").set_input_files(photo)
        expect(page.get_by_alt_text("The display, as photographed; on this device")).to_be_visible()
        self.take(page, 1)
        page.get_by_role("button", name="Instruments, schools, temperature").tap()
        page.get_by_label("Conductors today").fill("12")
        page.get_by_role("button", name="Done").tap()
        self.take(page, 1)
        self.note(page).to_have_text("On this device, not yet saved: 6")
        page.get_by_role("button", name="All steps, 4 of 11 taken").tap()
        row = page.locator(".steps").get_by_role("button", name="Earthing conductor, continuity")
        expect(row).to_contain_text("0.01 Ω on this device")
        self.assertEqual(self.readings(), [])
        # Reloaded while still away: it can't show the job, and says so. Later it goes by itself.
        page.reload()
        expect(page.get_by_text("This job can't be shown")).to_be_visible()
        page.unroute(API)
        page.reload()
        self.note(page).to_have_text("Saved")
        kept = self.readings()
        self.assertEqual(
            [one["step"] for one in kept], ["isolated", "leads_nulled", "main_bonding", "earthing_conductor"]
        )
        self.assertEqual([one["taken_at"] for one in kept], sorted(one["taken_at"] for one in kept))
        photos = self.client.get(f"/api/v1/jobs/{self.job_id}/photos").get_json()["photos"]
        self.assertEqual([kept[2]["photo"]], [one["sha256"] for one in photos])
        job = self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["job"]
        self.assertEqual(job["testing"]["conductors_c"], 12)

    def test_a_device_that_keeps_nothing_is_not_said_to(self) -> None:
        page = self.shared.another_page(True)
        self.addCleanup(page.context.close)
        page.add_init_script("Object.defineProperty(window, 'indexedDB', {value: {open() { throw new Error('no') }}})")
        self.begun(phone=True)
        page.goto(self.url)
        page.evaluate(NAMED)
        page.goto(f"{self.url}/jobs/{self.job_id}/dead")
        page.locator("h2.headline").first.wait_for()
        page.route(API, away)
        page.locator(".pad .next").tap()
        self.note(page).to_have_text("Keep this page open, not yet saved: 1")
        page.unroute(API)
        self.note(page).to_have_text("Saved")
        self.assertEqual(len(self.readings()), 1)

    def test_an_answer_that_is_lost_makes_no_double(self) -> None:
        """The server has it, the device never hears of it: it asks again with the same key."""
        page = self.begun(phone=True)
        lost = []

        def swallow(route: Route) -> None:
            lost.append(route.fetch().status)
            route.abort()

        page.route("**/holds", swallow, times=2)
        self.take(page, 1)
        self.note(page).to_have_text("Saved")
        self.assertEqual((lost, len(self.readings())), ([201, 201], 1))

    def test_another_tab_sends_it_and_this_one_hears_of_it(self) -> None:
        page = self.begun()
        page.route(API, away)
        for title in ("Isolated, proved dead, locked off", "Leads nulled"):
            expect(page.locator("h2.headline").first).to_have_text(title)
            page.locator(".keys button").first.click()
        self.note(page).to_have_text("On this device, not yet saved: 2")
        other = page.context.new_page()
        self.addCleanup(other.close)
        other.goto(page.url)
        self.note(other).to_have_text("Saved")
        self.assertEqual(len(self.readings()), 2)
        # It knows that they arrived, and can't ask what came of it: that is not saved yet.
        self.note(page).to_have_text("Saving…")
        page.unroute(API)
        self.note(page).to_have_text("Saved")
        expect(page.locator(".steps li button:not(.open)")).to_have_count(2)
        self.assertEqual(len(self.readings()), 2)

    def test_two_phones_lose_neithers_readings(self) -> None:
        first = self.begun(phone=True)
        second = self.page("/", phone=True)
        second.evaluate(NAMED.replace("R. Quillfeather", "B. Otreal"))
        second.evaluate("localStorage.setItem('fulmen-instruments', '{\"continuity\": \"Tester 4\"}')")
        second.goto(first.url)
        expect(second.get_by_text("moves,").first).to_be_attached()
        for phone in (first, second):
            phone.route(API, away)
        self.take(first, 3)
        self.take(second, 4)
        for phone, count in ((second, 4), (first, 3)):
            self.note(phone).to_have_text(f"On this device, not yet saved: {count}")
            phone.unroute(API)
            self.note(phone).to_have_text("Saved")
        by = [one["taken_by"] for one in self.readings()]
        self.assertEqual(by, ["B. Otreal"] * 4 + ["R. Quillfeather"] * 3)
        # Neither knew of the other: the figure that came last doesn't count silently.
        gaps = self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["evaluation"]["gaps"]
        self.assertIn("Why a step was taken again: your call, say why", [one["text"] for one in gaps])
        self.assertTrue(all(one["follows"] is None for one in self.readings()))

    def test_what_is_refused_later_is_told_and_kept_until_let_go(self) -> None:
        page = self.begun(phone=True)
        page.route(API, away)
        self.take(page, 2)
        self.note(page).to_have_text("On this device, not yet saved: 2")

        def refuse(route: Route) -> None:
            if route.request.headers.get("fulmen-entry") and "isolated" in (route.request.post_data or ""):
                told = {"status": 422, "detail": "Not today.", "title": "No"}
                route.fulfill(status=422, json=told)
            else:
                route.continue_()

        # The newer route answers first: nothing slips through between the two.
        page.route(API, refuse)
        page.unroute(API, away)
        alert = page.get_by_role("region", name="Not taken")
        expect(alert).to_contain_text("Not saved: Isolated, proved dead, locked off")
        expect(alert).to_contain_text("Not today.")
        self.note(page).to_have_text("Saved")
        self.assertEqual([one["step"] for one in self.readings()], ["leads_nulled"])
        alert.get_by_role("button", name="Remove it from this device").tap()
        expect(alert).to_be_hidden()


class Killed(BrowserCase):
    """The whole browser dies at once, as a phone's does when its memory or battery runs out."""

    def browser(self, folder: str) -> BrowserContext:
        launch = self.shared.playwright.chromium.launch_persistent_context
        return launch(folder, executable_path="/usr/bin/chromium", args=ARGUMENTS)

    def kill(self, folder: str) -> None:
        for line in glob.glob("/proc/[0-9]*/cmdline"):
            try:
                if folder in Path(line).read_text(encoding="utf-8", errors="replace"):
                    os.kill(int(line.split("/")[2]), signal.SIGKILL)
            except (FileNotFoundError, ProcessLookupError, PermissionError):
                continue

    def test_what_was_told_to_be_on_this_device_is_there_afterwards(self) -> None:
        path = self.path("Lime Kiln", "survey/ownership")
        with tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as folder:
            browser = self.browser(folder)
            page = browser.new_page()
            page.set_default_timeout(TIMEOUT_MS)
            page.goto(self.url + path)
            self.shown(page)
            page.route(API, away)
            page.get_by_label("Householder").fill("Typed before the battery went")
            tap(page, "Whose home is it?", "tenant asks")
            file = {"name": "home.jpg", "mimeType": "image/jpeg", "buffer": picture()}
            page.get_by_test_id("photo-ownership").set_input_files(file)
            expect(page.get_by_role("status").first).to_have_text("On this device, not yet saved: 3")
            self.kill(folder)
            page = self.browser(folder).new_page()
            page.set_default_timeout(TIMEOUT_MS)
            page.goto(self.url + path)
            self.shown(page)
            expect(page.get_by_label("Householder")).to_have_value("Typed before the battery went")
            expect(page.get_by_role("status").first).to_have_text("Saved")
            state = self.client.get("/api/v1" + path.removesuffix("/survey/ownership")).get_json()
            self.assertEqual(state["job"]["site"]["ownership"], "tenant")
            photos = self.client.get(f"/api/v1/jobs/{state['id']}/photos").get_json()["photos"]
            self.assertEqual([one["stop"] for one in photos], ["ownership"])
            page.context.close()
