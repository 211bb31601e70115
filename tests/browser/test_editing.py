"""Editing in the browser: choices move the band at once, nothing typed is lost, conflicts are told."""

import re

from playwright.sync_api import Route, expect

from tests.browser.chromium import BrowserCase
from tests.jobs import EXAMPLES, job


class Choices(BrowserCase):
    def test_a_choice_moves_the_band_at_once_and_is_kept(self) -> None:
        page = self.job_page("Cobbler", "design")
        expect(page.locator(".run-band")).to_contain_text("20.5 V, 8.9 %")
        page.get_by_role("button", name="4 mm²", exact=True).click()
        expect(page.get_by_role("group", name="Size of the cable")).to_contain_text(
            "Why not: Volt drop to the car: 5.66 %"
        )
        page.get_by_role("button", name="10 mm²").first.click()
        expect(page.locator(".run-band")).to_contain_text("7.6 V, 3.3 %")
        expect(page.get_by_role("status")).to_have_text("Saved")
        page.reload()
        expect(page.get_by_role("button", name="10 mm²", exact=True)).to_be_visible()

    def test_a_reason_that_a_job_file_brought_is_offered_again(self) -> None:
        said = {"key": "depth/ev-4", "reason": "Rock below; a steel plate lies over it.", "name": "R. Quillfeather", "decided_on": "2026-11-12"}  # fmt: skip
        document = job(changes={"circuits.0.route.3.depth_m": 0.3, "title": "Rock", "decisions": [said]})
        self.client.post("/api/v1/jobs", json=document.model_dump(mode="json"))
        page = self.job_page("Rock", "design")
        page.get_by_role("button", name="Section 4, duct: deep enough").click()
        expect(page.get_by_text("Said elsewhere, by R. Quillfeather, 2026-11-12")).to_be_visible()
        expect(page.get_by_label("Why is it so?")).to_have_value("Rock below; a steel plate lies over it.")
        # A job that comes anew, as after every save, takes no word from who is typing.
        page.get_by_label("Why is it so?").fill("Rock below, seen.")
        page.get_by_label("Length").first.fill("4.3")
        expect(page.get_by_role("status")).to_have_text("Saved")
        expect(page.get_by_label("Why is it so?")).to_have_value("Rock below, seen.")
        page.get_by_label("Why is it so?").fill(said["reason"])
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_text("“Rock below; a steel plate lies over it.”")).to_be_visible()
        expect(page.get_by_role("status")).to_have_text("Saved")

    def test_all_by_keyboard(self) -> None:
        page = self.job_page("Cobbler", "design")
        page.get_by_role("button", name="the device inside the unit").focus()
        page.keyboard.press("Enter")
        way = page.get_by_role("button", name="a separate device before the unit")
        way.wait_for()
        way.focus()
        page.keyboard.press("Enter")
        expect(page.locator(".sentence")).to_contain_text("by a separate device before the unit")

    def test_a_row_of_the_ledger_opens_its_working(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        row = page.get_by_role("button", name="Loop opens the device in 0.4 s")
        row.click()
        expect(page.get_by_text("= 230·0.95/(5·40)")).to_be_visible()
        expect(row).to_have_attribute("aria-expanded", "true")

    def test_the_band_as_a_table(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        page.get_by_role("button", name="As table").click()
        expect(
            page.get_by_role("row", name="4 duct 6 mm² three-core steel wire armoured D 5.5 49.6 40 32 3.72 0.318")
        ).to_be_visible()

    def test_how_far_it_holds_is_worked_out_and_forgotten_with_the_facts(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        part = page.get_by_role("region", name="How far it holds")
        part.get_by_role("button", name="Work out how far this design holds").click()
        expect(part.get_by_role("row", name="Route, longer by")).to_contain_text("33.0 m")
        expect(part.get_by_role("row", name="Ze, up to")).to_contain_text("Loop opens the device")
        page.get_by_label("Length").first.fill("9.2")
        expect(part.get_by_role("button", name="Work out how far this design holds")).to_be_visible()

    def test_what_holds_is_folded_by_what_it_is_about(self) -> None:
        page = self.job_page("Two cars", "design", folded=True)
        ledger = page.get_by_role("region", name="Checks")
        expect(ledger.get_by_role("button", name="32 A device for a 16 A unit")).to_be_visible()
        self.assertLess(ledger.get_by_role("listitem").count(), 12)
        sub_main = ledger.get_by_role("heading", name="Sub-main to the yard").get_by_role("button")
        expect(sub_main).to_have_attribute("aria-expanded", "false")
        sub_main.press("Enter")
        expect(ledger.get_by_role("button", name="Weakest section carries 63 A")).to_be_visible()
        sub_main.press("Enter")
        expect(ledger.get_by_role("button", name="Weakest section carries 63 A")).to_have_count(0)
        ledger.get_by_label("Show what holds as well").check()
        expect(ledger.get_by_role("button", name="Weakest section carries 63 A")).to_be_visible()

    def test_a_reason_settles_what_is_your_call(self) -> None:
        page = self.job_page("Saddler", "design")
        page.get_by_role("button", name="Say why", exact=True).click()
        page.get_by_label("Why is it so?").fill("The maker asks for 40 A.")
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_role("link", name="Design")).to_contain_text("nothing to do")
        expect(page.get_by_text("“The maker asks for 40 A.”")).to_be_visible()

    def test_a_call_wants_the_network_and_loses_no_word_without_it(self) -> None:
        page = self.job_page("Saddler", "design")
        page.get_by_role("button", name="Say why", exact=True).click()
        page.get_by_label("Why is it so?").fill("The maker asks for 40 A.")
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.route("**/api/**", lambda route: route.abort())
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_text("this page has no word to sign with. Nothing was signed")).to_be_visible()
        expect(page.get_by_label("Why is it so?")).to_have_value("The maker asks for 40 A.")
        page.unroute("**/api/**")
        page.get_by_role("button", name="Keep the reason").click()
        kept, refused = page.get_by_text("“The maker asks for 40 A.”"), page.locator("main .failed")
        expect(kept.or_(refused).first).to_be_visible()
        self.assertEqual(refused.all_inner_texts(), [])
        expect(kept).to_be_visible()
        expect(page.get_by_text("R. Quillfeather, as typed")).to_be_visible()

    def test_an_answer_asked_for_before_a_call_does_not_take_its_reason_back(self) -> None:
        held = list[Route]()
        page = self.job_page("Saddler", "design")
        page.get_by_role("button", name="Say why", exact=True).click()
        page.get_by_label("Why is it so?").fill("The maker asks for 40 A.")
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.route("**/api/v1/evaluate", lambda route: held.append(route), times=1)
        page.get_by_label("Length").first.fill("6.1")
        expect(page.get_by_role("status")).to_have_text("Saved")
        # A job that was heard anew takes no word from who is typing.
        expect(page.get_by_label("Why is it so?")).to_have_value("The maker asks for 40 A.")
        page.get_by_role("button", name="Keep the reason").click()
        said = page.get_by_text("“The maker asks for 40 A.”")
        expect(said).to_be_visible()
        with page.expect_response("**/api/v1/evaluate"):
            held[0].continue_()
        page.evaluate("new Promise((drawn) => setTimeout(drawn, 300))")
        expect(said).to_be_visible(timeout=1000)

    def test_a_standing_reason_is_offered_where_the_same_facts_hold(self) -> None:
        for title in ("First", "Second"):
            document = job(changes={"title": title, "decisions": []})
            self.client.post("/api/v1/jobs", json=document.model_dump(mode="json"))
        page = self.job_page("First", "design")
        page.get_by_role("button", name="40 A device for a 32 A unit").click()
        page.get_by_label("Why is it so?").fill("One size of RCBO on our vans.")
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.get_by_label("Keep it as my standing reason").check()
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_text("standing reason,")).to_be_visible()
        page = self.visit(page, "Second", "design")
        page.get_by_role("button", name="40 A device for a 32 A unit").click()
        expect(page.get_by_text("Your standing reason where the same facts hold")).to_be_visible()
        expect(page.get_by_label("Why is it so?")).to_have_value("")
        page.get_by_role("button", name="Say so here too").click()
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_text("“One size of RCBO on our vans.”")).to_be_visible()


class Kept(BrowserCase):
    def test_bad_input_is_told_at_its_field_and_stays_until_mended(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        field = page.get_by_label("Length").first
        for typed, words in (("abc", "must be a number in m; you gave 'abc'"), ("-3", "at least 0.1 m; you gave -3"),
                             ("10000", "at most 500 m; you gave 10000"), ("", "must be a number in m")):  # fmt: skip
            field.fill(typed)
            # The message before fades out beside it.
            expect(page.locator(".v-messages").get_by_text(words).last).to_be_visible()
            expect(page.get_by_role("alert").first).to_contain_text("Circuit 1, section 1: length")
            expect(page.get_by_role("status")).to_have_text("Saved, but for one field")
        field.fill("abc")
        expect(page.locator(".v-messages").get_by_text("you gave 'abc'")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Length").first).to_have_value("abc")
        page.get_by_label("Length").first.fill("4,5")
        expect(page.get_by_role("status")).to_have_text("Saved")
        expect(page.locator(".run-band")).to_contain_text("under floor 4.5 m")

    def test_what_is_refused_can_be_taken_back(self) -> None:
        page = self.job_page("Lime Kiln", "survey/tails")
        page.get_by_label("Tails, length").fill("-1")
        page.get_by_role("button", name="Take it back").click()
        expect(page.get_by_label("Tails, length")).to_have_value("1.8")
        expect(page.get_by_role("status")).to_have_text("Saved")

    def test_a_lost_answer_is_no_conflict(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")

        def lose(route: Route) -> None:
            route.fetch()
            route.abort()

        def late(route: Route) -> None:
            # An evaluation that arrives after the lost save does not make it saved.
            page.wait_for_timeout(1500)
            route.continue_()

        page.route("**/api/v1/jobs/*", lose, times=1)
        page.route("**/api/v1/evaluate", late)
        page.get_by_label("Your reference").fill("Arrived")
        page.wait_for_timeout(2500)
        expect(page.get_by_role("status")).to_contain_text("not yet saved")
        page.reload()
        expect(page.get_by_label("Your reference")).to_have_value("Arrived")
        expect(page.get_by_role("status")).to_have_text("Saved")
        expect(page.get_by_role("alertdialog")).to_have_count(0)

    def test_two_people_at_one_job_are_told_and_nothing_is_overwritten(self) -> None:
        mine, theirs = self.job_page("Lime Kiln", "survey/ownership"), self.job_page("Lime Kiln", "survey/ownership")
        theirs.evaluate("localStorage.setItem('fulmen-person', JSON.stringify({ name: 'W. Otterby' }))")
        theirs.reload()
        theirs.get_by_label("Householder").fill("Theirs")
        theirs.get_by_label("Your reference").fill("Theirs too")
        expect(theirs.get_by_role("status")).to_have_text("Saved")
        mine.get_by_label("Address").fill("2 Nowhere Close")
        mine.get_by_label("Householder").fill("Mine")
        mine.get_by_label("Your reference").fill("Mine too")
        dialog = mine.get_by_role("alertdialog")
        expect(dialog).to_contain_text("by W. Otterby (name as typed)")
        expect(dialog).to_contain_text(re.compile(r"\d{1,2} [A-Z][a-z]+"))
        expect(mine.get_by_role("status").first).to_have_text("Not saved: choose what to keep")
        for name, side, value in (("Householder", "Yours", "Mine"), ("Your reference", "Saved", "Theirs too")):
            group = dialog.get_by_role("group", name=name)
            expect(dialog.get_by_role("button", name="Keep these")).to_be_disabled()
            group.get_by_label(f"{side}: {value}").check()
        dialog.get_by_role("button", name="Keep these").click()
        expect(mine.get_by_role("status")).to_have_text("Saved")
        kept = self.client.get("/api/v1/jobs/" + mine.url.split("/")[4]).get_json()["job"]
        self.assertEqual(
            (kept["site"]["householder"], kept["reference"], kept["site"]["address"]),
            ("Mine", "Theirs too", "2 Nowhere Close"),
        )

    def test_a_lost_connection_loses_nothing(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")
        page.route("**/api/**", lambda route: route.abort())
        page.get_by_label("Householder").fill("Typed while away")
        expect(page.get_by_role("status")).to_contain_text("On this device, not yet saved: 1")
        page.unroute("**/api/**")
        page.reload()
        expect(page.get_by_label("Householder")).to_have_value("Typed while away")
        expect(page.get_by_role("status")).to_have_text("Saved")

    def test_a_slow_answer_never_overtakes_a_newer_edit(self) -> None:
        page = self.job_page("Lime Kiln", "survey/ownership")

        def slow(route: Route) -> None:
            # Slower than the pause before a save: the next save must wait for this one's answer.
            page.wait_for_timeout(900)
            route.continue_()

        page.route("**/api/v1/jobs/*", slow)
        for text in ("A", "Ab", "Abc", "Abcd"):
            page.get_by_label("Your reference").fill(text)
            page.wait_for_timeout(250)
        expect(page.get_by_role("status")).to_have_text("Saved")
        page.unroute("**/api/v1/jobs/*")
        page.reload()
        expect(page.get_by_label("Your reference")).to_have_value("Abcd")


class JobFiles(BrowserCase):
    def test_a_bad_job_file_gets_one_clear_sentence(self) -> None:
        page = self.page("/")
        whole = (EXAMPLES / "tt-with-s-type.json").read_bytes()
        for data, words in ((whole[:700], "breaks off"), (b" " * 2_000_000, "at most 1 MB"),
                            (whole.replace(b'"length_m": 38.0', b'"length_m": -3'), "at least 0.1 m; you gave -3")):  # fmt: skip
            page.get_by_test_id("job-file").set_input_files(
                {"name": "a.json", "mimeType": "application/json", "buffer": data}
            )
            expect(page.get_by_role("alert")).to_contain_text(words)
        page.get_by_test_id("job-file").set_input_files(
            {"name": "a.json", "mimeType": "application/json", "buffer": whole}
        )
        expect(page.locator(".sentence")).to_contain_text("The supply is TT")

    def test_a_sentence_about_a_file_stands_though_the_list_comes_after_it(self) -> None:
        held: list[Route] = []
        page = self.page("/mark.svg")
        page.route("**/api/v1/jobs?*", lambda route: held.append(route))
        page.goto(self.url)
        page.get_by_test_id("job-file").set_input_files(
            {"name": "a.json", "mimeType": "application/json", "buffer": b"{"}
        )
        expect(page.get_by_role("alert")).to_contain_text("a.json")
        for route in held:
            route.continue_()
        expect(page.get_by_role("listitem").first).to_be_visible()
        expect(page.get_by_role("alert")).to_contain_text("a.json")

    def test_search_and_empty_answers(self) -> None:
        page = self.page("/")
        expect(page.get_by_role("listitem").filter(has_text="Cobbler").locator(".state")).to_contain_text(
            "Falls short 3"
        )
        page.get_by_role("textbox", name="Search title, name, address").fill("heron")
        expect(page.get_by_role("listitem")).to_have_count(1)
        page.get_by_role("textbox", name="Search title, name, address").fill("no such")
        expect(page.get_by_text("No job matches")).to_be_visible()

    def test_a_job_that_is_not_there(self) -> None:
        page = self.page("/jobs/99/design")
        expect(page.get_by_text("There is no job 99.")).to_be_visible()
