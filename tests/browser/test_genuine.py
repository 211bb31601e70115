"""Is this certificate genuine? A PDF from outside, chosen on a page of the app."""

from playwright.sync_api import expect

from fulmen.store import papers
from tests.browser.chromium import BrowserCase
from tests.jobs import DEVICE_IN_UNIT
from tests.store.test_verifying import covered, rendered, saved_again


class Genuine(BrowserCase):
    def test_what_it_is_is_told_in_words(self) -> None:
        made = self.issue(job_id=self.store(DEVICE_IN_UNIT).id, render=rendered)
        pdf = papers.load_paper(self.sessions, made.id).pdf
        page = self.page("/")
        page.get_by_role("link", name="Is it genuine?").click()
        for name, data, words, more in (
            ("as-issued.pdf", pdf, "Genuine", f"{made.number}, issued"),
            ("saved.pdf", saved_again(pdf), "Genuine, saved again", "Another program"),
            ("forged.pdf", covered(pdf, 2), "Altered", "Page 3 is not what was issued"),
            ("other.pdf", b"%PDF-1.7 of somebody else", "Unknown", "no PDF that can be read"),
        ):
            with self.subTest(name):
                file = {"name": name, "mimeType": "application/pdf", "buffer": data}
                page.get_by_test_id("paper").set_input_files(file)
                expect(page.get_by_role("heading", name=words, exact=True)).to_be_visible()
                expect(page.locator(".found")).to_contain_text(more)

    def test_without_the_network_it_says_so(self) -> None:
        page = self.page("/genuine", phone=True)
        page.route("**/api/**", lambda route: route.abort())
        file = {"name": "one.pdf", "mimeType": "application/pdf", "buffer": b"%PDF-"}
        page.get_by_test_id("paper").set_input_files(file)
        expect(page.get_by_role("alert")).to_contain_text("one.pdf was not looked at")
