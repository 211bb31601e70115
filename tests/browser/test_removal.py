"""A unit taken away, in the browser: from a blank sheet to a signed record, with nothing asked that belongs to a car."""

import re

from playwright.sync_api import Page, expect

from tests.browser.chromium import BrowserCase, tap

LEFT = {
    "Kind of work": "a unit taken away",
    "What became of its cable?": "left, feeding nothing",
    "Dead at both ends, in boxes, labelled?": "yes",
    "Its way at the board?": "blanked",
    "Earth and bonding of the house whole?": "yes",
    "An electrode of its own?": "had none",
    "What shared its guards?": "nothing shared them",
    "Holes closed against rain and fire?": "yes",
    "Labels and circuit chart put right?": "yes",
    "Operator told that it is gone?": "yes",
    "Whose home is it?": "owner lives there",
}


class TakenAway(BrowserCase):
    def test_from_a_blank_sheet_to_its_record(self) -> None:
        page = self.page("/")
        page.get_by_label("Name a new job").fill("Old unit off")
        page.keyboard.press("Enter")
        page.get_by_role("heading", name="Cut-out", exact=True).wait_for()
        page.get_by_role("button", name="Ownership").or_(page.get_by_role("link", name="Ownership")).first.click()
        for question, said in LEFT.items():
            tap(page, question, said)
        page.get_by_role("button", name="All of it was there before").click()
        expect(page.get_by_text("still said to be new")).to_have_count(0)
        page.get_by_label("Householder").fill("N. Otreal (invented)")
        page.get_by_label("Address").fill("1 Nowhere Close")
        page.get_by_label("What was taken away").fill("Tethered unit beside the door")
        expect(page.get_by_text("Don’t start work yet")).to_have_count(0)
        expect(page.get_by_role("link", name="Survey")).to_contain_text("nothing to do")
        self.sign_holds(page)
        page.get_by_role("link", name="Papers").click()
        expect(page.get_by_role("heading", name="Ready to sign and issue")).to_be_visible()
        page.get_by_label("Each part named was done").check()
        page.get_by_role("button", name="Sign and issue").click()
        paper = page.get_by_role("link", name=re.compile("Record of a charge point taken away FC-"))
        expect(paper).to_be_visible()
        answer = page.request.get(self.url + str(paper.get_attribute("href")))
        self.assertEqual(answer.body()[:5], b"%PDF-")

    def sign_holds(self, page: Page) -> None:
        page.get_by_role("link", name="Dead tests").click()
        page.get_by_label("Tested by").fill("R. Quillfeather")
        for left, title in (("1 to do", "Isolated, proved dead, locked off"), ("nothing to do", "Fit to energise")):
            page.locator(".steps").get_by_role("button", name=title).click()
            page.locator(".keys button").first.click()
            expect(page.get_by_role("link", name="Dead tests")).to_contain_text(left)
