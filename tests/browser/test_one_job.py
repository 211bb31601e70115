"""The thinnest slice in the browser: a blank sheet becomes an issued certificate, entered as a person would."""

import re

from playwright.sync_api import Page, expect

from tests.browser.chromium import BrowserCase, choose, tap

# Each stop: what is tapped, question by question, and what is typed.
WALK: dict[str, tuple[dict[str, str], dict[str, str]]] = {
    "Cut-out": ({"Where does the earth conductor start?": "TN-C-S", "Phases of the supply": "one", "Looped to a neighbour?": "no", "How does the cut-out look?": "sound",
                 "Fuse, as the carrier is marked": "80 A"}, {"Fuse standard, as marked": "BS 88-3", "Ze by enquiry": "0,21"}),
    "Meter": ({"What kind of meter?": "smart", "An isolator between meter and board?": "yes", "Solar panels or a battery?": "no"}, {}),
    "Tails": ({"Size of the tails": "25 mm²", "Marked brown and blue?": "yes"}, {"Tails, length": "1.5"}),
    "Earth and bonding": ({"Main earthing terminal found?": "yes", "Earthing conductor": "16 mm²", "Metal that comes in": "water", "Bonded to": "water", "Main bonding": "10 mm²",
                           "Clamps where the service comes in?": "yes"}, {}),
    "Board": ({"How is it made up?": "an RCBO in every way", "Looked over with the lid off?": "yes", "Are its circuits labelled?": "yes",
               "Which mark is on the RCD before the new way?": "none", "Case": "metal", "Surge protection fitted": "yes"},
              {"Spare ways": "2", "Main switch": "100"}),
    "Route": ({}, {}),
    "Parking place": ({"Where can a car be charged from it?": "outdoors", "Does the car stand on the dwelling’s own land?": "yes"},
                      {"Connector above ground": "1.1"}),
    "Data": ({"Did you try it where the unit goes?": "yes", "What works there": "Wi-Fi"}, {}),
    "Other loads": ({"How is the house’s demand known?": "I enter the total"}, {"Demand with the car": "58"}),
    "Ownership": ({"Whose home is it?": "owner lives there", "Kind of work": "addition"},
                  {"Householder": "N. Otreal (invented)", "Address": "1 Nowhere Close", "What the certificate covers": "One new circuit"}),
    "Charge point": ({}, {}),
}  # fmt: skip
# What is chosen from a list, stop by stop; a kind from the catalogue answers for its unit.
CHOSEN = {
    "Board": [("Poles it opens", "2")],
    "Charge point": [("Kind, from the catalogue", "Tethered 7 kW, open-PEN device and DC detection inside")],
}
ROUTE_ANSWERS = 7
# From a blank sheet to a judged ordinary design; before facts had to be said it took about 50.
MOST_ANSWERS = 60
DEAD = ["0.02", "0.08", "0.08", ">999", ">999", "right"]
LIVE = ["right", "0.20", "1.25", "0.28", "22.5", "right", "right", "right"]


class OneJob(BrowserCase):
    def test_from_a_blank_sheet_to_an_issued_certificate(self) -> None:
        page = self.page("/")
        page.get_by_label("Name a new job").fill("New drive")
        page.keyboard.press("Enter")
        answers = sum(len(taps) + len(texts) for taps, texts in WALK.values())
        answers += sum(map(len, CHOSEN.values())) + ROUTE_ANSWERS
        self.assertLessEqual(answers, MOST_ANSWERS)
        self.fill_survey(page)
        self.walk_route(page)
        self.take_readings(page, "Dead tests", DEAD)
        self.take_readings(page, "Live tests", LIVE)
        self.inspect_and_sign(page)

    def fill_survey(self, page: Page) -> None:
        for name, (taps, texts) in WALK.items():
            page.get_by_role("heading", name=name, exact=True).wait_for()
            for question, said in taps.items():
                tap(page, question, said)
            for label, value in texts.items():
                page.get_by_label(label, exact=True).fill(value)
            for label, value in CHOSEN.get(name, []):
                choose(page, label, value)
            if name == "Charge point":
                tap(page, "Entry takes an armoured cable’s gland", "yes")
            page.locator("article > .next").click()
        page.get_by_role("heading", name="Open questions").wait_for()
        tab = page.get_by_role("link", name="Survey")
        expect(tab).to_contain_text(re.compile(r"(\d+)/\1$"))
        expect(page.get_by_role("status")).to_have_text("Saved")

    def walk_route(self, page: Page) -> None:
        page.get_by_role("link", name="Design").click()
        page.get_by_role("button", name="a route still to be entered").click()
        page.keyboard.type("c6.5")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Add a section").click()
        expect(page.locator("li .length input")).to_have_count(2)
        page.locator("li .length input").last.fill("5.5")
        tap(page, "Armour, conduit or trunking at the unit", "kept apart: plastic gland, or cut back and sleeved")
        page.get_by_role("button", name="It lies alone, no other circuit beside it sections 1, 2").click()
        expect(page.get_by_role("group", name="Not said yet of this route")).to_have_count(0)
        expect(page.get_by_role("button", name="2 sections, 12.0 m")).to_be_visible()
        expect(page.locator(".run-band")).to_contain_text("clipped 6.5 m")
        expect(page.get_by_role("link", name="Design")).to_contain_text(re.compile(r"\d+/\d+"))

    def take_readings(self, page: Page, stage: str, values: list[str]) -> None:
        page.get_by_role("link", name=stage).click()
        page.get_by_label("Tested by").fill("R. Quillfeather")
        for number, value in enumerate(values, 1):
            expect(page.get_by_text(f"Step {number} of {len(values)},")).to_be_visible()
            if value == "right":
                page.get_by_role("button", name="Right", exact=True).click()
            else:
                field = page.locator(".big input")
                field.fill(value.strip(">"))
                field.press(">" if value.startswith(">") else "Enter")
        counted = page.get_by_role("link", name=stage)
        required = len(values) - 1  # one step of each stage is asked for only if you can
        expect(counted).to_contain_text(f"{required}/{required}")

    def inspect_and_sign(self, page: Page) -> None:
        page.get_by_role("link", name="Papers").click()
        expect(page.get_by_role("heading", name="Not ready to issue")).to_be_visible()
        for row in page.locator("section[aria-label='Schedule of inspections'] fieldset").all():
            row.get_by_role("radio", name="good").check()
        page.get_by_label("Comments on the existing installation").fill("None seen.")
        choose(page, "Inspect again within", "5 years")
        expect(page.get_by_role("heading", name="Ready to sign and issue")).to_be_visible()
        page.get_by_label("Each part named was done").check()
        page.get_by_role("button", name="Sign and issue").click()
        paper = page.get_by_role("link", name="Electrical Installation Certificate")
        expect(paper).to_contain_text("FC-")
        answer = page.request.get(self.url + str(paper.get_attribute("href")))
        self.assertEqual((answer.headers["content-type"], answer.body()[:5]), ("application/pdf", b"%PDF-"))
        page.get_by_role("link", name="Fulmen").click()
        expect(page.get_by_role("link", name="New drive")).to_contain_text("FC-")
