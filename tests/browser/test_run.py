"""The run designed in the browser: route by keys, by drag and by cut; boards; other ways; mends and undo; materials."""

import json

from playwright.sync_api import Page, Route, expect

from tests.browser.chromium import BrowserCase, choose, tap
from tests.jobs import DETECTOR_BOX, job


def expect_lengths(page: Page, *lengths: str) -> None:
    fields = page.locator("li .length input")
    expect(fields).to_have_count(len(lengths))
    for place, length in enumerate(lengths):
        expect(fields.nth(place)).to_have_value(length)


OVERLAPPING = """() => {
  const texts = [...document.querySelectorAll('.run-band svg text, .run-band .tools button')]
    .filter((one) => one.textContent.trim()).map((one) => ({ words: one.textContent.trim(), box: one.getBoundingClientRect() }))
  const over = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 4
  return texts.flatMap((one, i) => texts.slice(i + 1).filter((other) => over(one.box, other.box)).map((other) => `${one.words} / ${other.words}`))
}"""


class RouteByKeys(BrowserCase):
    def test_four_sections_in_under_forty_keys(self) -> None:
        made = self.client.post("/api/v1/jobs/blank", json={"title": "Blank drive"})
        self.assertEqual(made.status_code, 201, made.text)
        page = self.shown(self.page(f"/jobs/{made.get_json()['id']}/design"))
        field = page.get_by_label("Write the route: letter and metres")
        expect(field).to_be_focused()
        text = "u4.2 t.4 c12s b19"
        page.keyboard.type(text)
        page.keyboard.press("Enter")
        self.assertLess(len(text) + 1, 40)
        expect(page.locator(".run-band")).to_contain_text("buried 19 m")
        expect(page.locator("li .length input")).to_have_count(4)
        expect(page.get_by_text("paced in steps: tape before the cable is cut")).to_be_visible()

    def test_pressed_before_the_answer_came_they_keep_their_order(self) -> None:
        page = self.job_page("Lime Kiln", "design")

        def slow(route: Route) -> None:
            if "write" in (route.request.post_data or ""):
                page.wait_for_timeout(800)
            route.continue_()

        page.route("**/api/v1/route", slow)
        page.get_by_label("Write the route: letter and metres").fill("c7.7")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Add a section").click()
        expect_lengths(page, "4.2", "0.4", "5.6", "5.5", "1.2", "7.7", "1")

    def test_what_cannot_be_read_stays_and_is_told(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        field = page.get_by_label("Write the route: letter and metres")
        field.fill("c3 q7")
        field.press("Enter")
        expect(page.get_by_text("“q7” can't be read")).to_be_visible()
        expect(field).to_have_value("c3 q7")
        expect(page.locator("li .length input")).to_have_count(5)


class RouteByHand(BrowserCase):
    def test_dragged_moved_by_key_cut_and_joined(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        expect_lengths(page, "4.2", "0.4", "5.6", "5.5", "1.2")
        handles = page.locator(".handle")
        # The letters come with the catalogue and move the rows beneath them.
        expect(page.get_by_text("steps of")).to_be_visible()
        handles.nth(2).scroll_into_view_if_needed()
        start, goal = handles.nth(2).bounding_box(), handles.nth(0).bounding_box()
        assert start and goal
        page.mouse.move(start["x"] + 8, start["y"] + 12)
        page.mouse.down()
        page.mouse.move(start["x"] + 8, goal["y"] + 30, steps=4)
        page.mouse.move(goal["x"] + 8, goal["y"] + 12, steps=4)
        page.mouse.up()
        expect(page.locator("li .length input").first).to_have_value("5.6")
        expect_lengths(page, "5.6", "4.2", "0.4", "5.5", "1.2")
        handles.nth(0).press("ArrowDown")
        expect(page.locator("li .length input").first).to_have_value("4.2")
        expect(handles.nth(1)).to_be_focused()
        page.get_by_role("button", name="More").nth(1).click()
        page.get_by_label("Cut it at").fill("2")
        page.get_by_role("button", name="Split").click()
        expect_lengths(page, "4.2", "2", "3.6", "0.4", "5.5", "1.2")
        page.get_by_role("button", name="Join with the next").click()
        expect(page.locator("li .length input")).to_have_count(5)
        page.get_by_label("Cut it at").fill("99")
        page.get_by_role("button", name="Split").click()
        told = page.locator("li", has=page.get_by_label("Cut it at")).get_by_role("alert")
        expect(told).to_contain_text("cut it between 0.1 and")
        page.get_by_role("button", name="Join with the next").click()
        expect(told).to_contain_text("make them alike first")
        expect(page.locator("li .length input")).to_have_count(5)

    def test_another_cable_on_the_way_makes_a_joint_that_asks_for_access(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        page.get_by_role("button", name="More").nth(4).click()
        choose(page, "Cable here", "power-and-data EV cable")
        finding = page.get_by_role("button", name="Gland box before section 5")
        expect(finding).to_contain_text("Needs a fact")
        choose(page, "Joint can be reached", "yes")
        expect(finding).to_contain_text("Meets")

    def test_a_section_taken_out_comes_back(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        page.get_by_role("button", name="Take section 2 out").click()
        expect(page.locator("li .length input")).to_have_count(4)
        page.get_by_role("button", name="Undo", exact=True).click()
        expect(page.locator("li .length input")).to_have_count(5)

    def test_what_is_kept_by_a_sections_place_follows_it(self) -> None:
        """How a fact is known, and the box that hangs after so many sections; taken out, split, joined, undone."""
        known = {"circuits.0.route.3.depth_m": "taken_as_usual", "circuits.0.route.1.fire_stopped": "taken_as_usual"}
        box = {**DETECTOR_BOX, "after_section": 3}
        whole = job(changes={"title": "Follows", "known_how": known, "circuits.0.boxes": [box]})
        self.client.post("/api/v1/jobs", json=whole.model_dump(mode="json"))
        page = self.job_page("Follows", "design")
        number = page.url.split("/")[-2]

        def stands(*places: str, after: int) -> None:
            expect(page.get_by_role("status").first).to_have_text("Saved")
            now = self.client.get(f"/api/v1/jobs/{number}").get_json()["job"]
            self.assertEqual(set(now["known_how"]), {f"circuits.0.route.{place}" for place in places})
            self.assertEqual(now["circuits"][0]["boxes"][0]["after_section"], after)

        stands("3.depth_m", "1.fire_stopped", after=3)
        page.get_by_role("button", name="Take section 1 out").click()
        expect(page.locator("li .length input")).to_have_count(4)
        stands("2.depth_m", "0.fire_stopped", after=2)
        page.get_by_role("button", name="Take section 1 out").click()
        expect(page.locator("li .length input")).to_have_count(3)
        stands("1.depth_m", after=1)
        page.get_by_role("button", name="Undo, Ctrl+Z").click()
        page.get_by_role("button", name="Undo, Ctrl+Z").click()
        expect(page.locator("li .length input")).to_have_count(5)
        stands("3.depth_m", "1.fire_stopped", after=3)


class Mending(BrowserCase):
    def test_one_press_mends_and_one_takes_it_back(self) -> None:
        page = self.job_page("Cobbler", "design")
        drop = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Volt drop to the car"))
        expect(drop).to_contain_text("Falls short")
        drop.get_by_role("button", name="What would mend it?").click()
        drop.get_by_role("button", name="Apply: 10 mm² cable").click()
        expect(page.get_by_role("button", name="Volt drop to the car")).to_contain_text("Meets")
        expect(page.get_by_text("Done: 10 mm² cable")).to_be_visible()
        page.get_by_role("button", name="Undo", exact=True).click()
        expect(page.get_by_role("button", name="Volt drop to the car")).to_contain_text("Falls short")
        expect(page.get_by_role("button", name="Undo, Ctrl+Z")).to_be_disabled()

    def test_what_was_edited_since_is_taken_back_first(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        page.get_by_role("button", name="Take section 2 out").click()
        expect(page.get_by_role("button", name="Undo", exact=True)).to_be_visible()
        first = page.locator("li .length input").first
        before = first.input_value()
        first.fill("9.9")
        expect(page.get_by_role("button", name="Undo", exact=True)).to_have_count(0)
        page.get_by_role("button", name="Undo, Ctrl+Z").click()
        expect(first).to_have_value(before)
        expect(page.locator("li .length input")).to_have_count(4)
        page.get_by_role("button", name="Undo, Ctrl+Z").click()
        expect(page.locator("li .length input")).to_have_count(5)


class OtherWays(BrowserCase):
    def test_one_press_tries_them_all_and_one_is_taken(self) -> None:
        page = self.job_page("Cobbler", "design/others")
        page.get_by_role("button", name="Try every way").click()
        region = page.get_by_role("region", name="Other ways")
        expect(region.get_by_role("status")).to_contain_text("ways tried")
        expect(region.get_by_role("row", name="4 mm²")).to_contain_text("weakest section 38.7 A")
        region.get_by_role("button", name="Take it").first.click()
        expect(region).to_contain_text("The job has changed since.")
        expect(page.get_by_role("button", name="Volt drop to the car")).to_contain_text("Meets")
        page.get_by_role("button", name="Undo", exact=True).click()
        expect(page.get_by_role("button", name="Volt drop to the car")).to_contain_text("Falls short")


# Pairs of texts of the band that lie over one another, by what they say.
OVERLAPPING = """() => {
  const texts = [...document.querySelectorAll('.run-band svg text')].filter((t) => t.textContent.trim())
  const boxes = texts.map((t) => [t.textContent.trim(), t.getBoundingClientRect()])
  const over = (a, b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 3 && b.top < a.bottom - 3
  return boxes.flatMap(([one, a], i) => boxes.slice(i + 1).filter(([, b]) => over(a, b)).map(([other]) => [one, other]))
}"""


class Boards(BrowserCase):
    def test_through_a_sub_main_and_a_second_charge_point(self) -> None:
        page = self.job_page("Lime Kiln", "design/boards")
        fed = page.get_by_role("group", name="How Charge point is fed")
        fed.get_by_role("radio", name="through a sub-main and a small board").click()
        far = page.get_by_role("button", name="Board at the far end", exact=True)
        expect(far).to_be_visible()
        expect(page.get_by_role("row", name="Board at the far end line and earth")).to_contain_text("within")
        far.click()
        choose(page, "Add a load", "Lighting circuit, 6 A")
        expect(page.get_by_text("It also feeds, counted with diversity")).to_be_visible()
        page.get_by_role("button", name="Add a charge point beside it").click()
        # The second car needs the operator's word first: that banner moves everything below it.
        expect(page.get_by_text("Don’t start work yet")).to_be_visible()
        tap(page, "Run to", "Charge point 2")
        expect(page.get_by_role("button", name="Take Charge point 2 out")).to_be_visible()
        page.get_by_role("button", name="Take Charge point 2 out").click()
        expect(page.get_by_role("group", name="Run to")).to_have_count(0)

    def test_a_garage_board_that_was_there_is_answered_where_it_stands(self) -> None:
        page = self.job_page("Garage at the end", "design/boards")
        page.get_by_role("button", name="Garage board garage").click()
        board = page.get_by_role("region", name="Garage board")
        choose(board, "New with this job", "no")
        choose(board, "RCD before its ways", "Type AC, 30 mA")
        choose(board, "Looked over, lid off", "not seen yet")
        choose(board, "Made up of", "not seen yet")
        board.get_by_label("Spare ways").fill("")
        rows = page.get_by_role("region", name="Checks")
        blind = rows.get_by_role("button", name="No RCD on the way that the car's DC blinds")
        asked = [rows.get_by_role("button", name=name).filter(has_text="Garage board")
                 for name in ("Looked over with its lid off", "Board takes the new device", "A way for the circuit")]  # fmt: skip
        expect(blind).to_contain_text("Falls short")
        for one in asked:
            expect(one).to_contain_text("Needs a fact")
        choose(board, "RCD before its ways", "none")
        choose(board, "Looked over, lid off", "yes")
        choose(board, "Made up of", "an RCBO in every way")
        board.get_by_label("Spare ways").fill("1")
        expect(blind).to_contain_text("Meets")
        expect(asked[1]).to_contain_text("Meets")
        expect(asked[2]).to_contain_text("1 spare")
        expect(asked[0]).to_have_count(0)

    def test_a_makers_record_rates_a_cable_that_no_table_does(self) -> None:
        page = self.job_page("Lime Kiln", "design/boards")
        page.get_by_role("button", name="Add a cable by its maker’s ratings").click()
        page.get_by_label("Kind of cable").fill("Own EV cable")
        page.get_by_label("Where the ratings are from").fill("maker's sheet")
        rows = page.get_by_label("Ratings, one a line: method, mm², amps")
        rows.fill("C six 50")
        page.get_by_role("button", name="Keep the record").click()
        expect(page.get_by_text("Line 1 can't be read")).to_be_visible()
        rows.fill("B 6 51\nC 6 50\nD 6 52\nE 6 55")
        page.get_by_role("button", name="Keep the record").click()
        expect(page.get_by_text("4 ratings, maker's sheet")).to_be_visible()
        page.get_by_role("group", name="The tree from the origin").get_by_role("button", name="B40 A 30 mA").click()
        choose(page, "Cable", "Own EV cable (maker’s record)")
        expect(page.get_by_text("in use")).to_be_visible()
        expect(page.get_by_role("button", name="Weakest section carries 40 A")).to_contain_text("49.1 A")

    def test_a_board_is_built_where_it_stands(self) -> None:
        """An RCCB in front of a group, a box on the way with another, and what the checks make of them."""
        page = self.job_page("Lime Kiln", "design/boards")
        tree = page.get_by_role("group", name="The tree from the origin")
        tree.get_by_role("button", name="+ group of ways").click()
        tree.get_by_role("button", name="Group", exact=True).click()
        facts = page.get_by_role("region", name="Group of ways")
        facts.get_by_label("Name", exact=True).fill("RCD side")
        choose(facts, "Other circuits behind it", "yes")
        facts.get_by_label("Which, such as freezer and lights").fill("freezer")
        tree.get_by_role("button", name="Add a device in front of RCD side").click()
        page.get_by_role("menuitem", name="RCCB").click()
        choose(page, "Type and current, as marked", "Type A, 30 mA")
        page.get_by_label("Rated current", exact=True).fill("63")
        tree.get_by_role("button", name="B40 A 30 mA").click()
        choose(page, "Its way", "behind RCD side")
        expect(page.get_by_role("row", name="Charge point line and earth")).to_contain_text("with it freezer")
        tree.get_by_role("button", name="+ box on the way").click()
        tree.get_by_role("group", name="in Box").get_by_role("button", name="RCCB", exact=True).click()
        choose(page, "Type and current, as marked", "Type B, 30 mA")
        expect(page.locator(".run-band .guards .caption").filter(has_text="B 30 mA")).to_have_count(1)
        tree.get_by_role("button", name="Box", exact=True).click()
        page.get_by_role("group", name="What to do with Box").get_by_role("button", name="Take it out").click()
        expect(page.locator(".run-band .guards .caption").filter(has_text="B 30 mA")).to_have_count(0)
        page.get_by_role("button", name="Undo", exact=True).click()
        expect(page.locator(".run-band .guards .caption").filter(has_text="B 30 mA")).to_have_count(1)

    def test_a_circuit_is_duplicated_moved_and_taken_out(self) -> None:
        page = self.job_page("Lime Kiln", "design/boards")
        tree = page.get_by_role("group", name="The tree from the origin")
        tree.get_by_role("button", name="+ group of ways").click()
        tree.get_by_role("button", name="B40 A 30 mA").click()
        acts = page.get_by_role("group", name="What to do with Charge point on the drive")
        expect(acts.get_by_role("button", name="Take it out")).to_have_count(0)
        acts.get_by_role("button", name="Duplicate it").click()
        expect(tree.get_by_text("Charge point on the drive 2")).to_be_visible()
        choose(acts, "Move it", "Move it to Consumer unit, behind Group")
        group = tree.get_by_role("listitem").filter(has=page.get_by_role("button", name="Group", exact=True)).last
        expect(group.get_by_text("Charge point on the drive", exact=True)).to_be_visible()
        page.get_by_role("button", name="Undo", exact=True).click()
        expect(group.get_by_text("Charge point on the drive", exact=True)).to_have_count(0)
        tree.get_by_role("button", name="B40 A 30 mA").last.click()
        second = page.get_by_role("group", name="What to do with Charge point on the drive 2")
        second.get_by_role("button", name="Take it out").click()
        expect(tree.get_by_text("Charge point on the drive 2")).to_have_count(0)
        expect(page.get_by_role("status").first).to_have_text("Saved")


class Unsaid(BrowserCase):
    def test_what_is_usual_is_kept_taken_and_undone(self) -> None:
        page = self.job_page("Lime Kiln", "design")
        group = page.get_by_role("group", name="Not said yet of this route")
        expect(group).to_have_count(0)
        page.get_by_label("Write the route: letter and metres").fill("t.3 c2")
        page.keyboard.press("Enter")
        expect(group.get_by_role("button", name="It lies alone")).to_contain_text("sections 6, 7")
        waiting = page.get_by_role("button", name="Weakest section carries 40 A")
        expect(waiting).to_contain_text("Needs a fact")
        group.get_by_role("button", name="What is usual here").click()
        group.get_by_role("checkbox", name="It lies alone, no other circuit beside it").check()
        group.get_by_role("checkbox", name="It passes no insulation").check()
        group.get_by_role("button", name="Take my usual answers").click()
        expect(group).to_have_count(0)
        expect(waiting).to_contain_text("Meets")
        page.get_by_role("button", name="Undo", exact=True).click()
        expect(group.get_by_role("button", name="It lies alone")).to_be_visible()


class Materials(BrowserCase):
    def test_the_list_its_csv_and_the_users_own_prices(self) -> None:
        page = self.job_page("Garage at", "design/materials")
        region = page.get_by_role("region", name="Materials", exact=True)
        expect(region.get_by_role("status")).to_contain_text("18 items")
        expect(region.get_by_role("row", name="metal cleat")).to_contain_text("24 pieces")
        expect(region.get_by_role("row", name="fused switch")).to_contain_text("1 piece ")
        with page.expect_download() as saved:
            region.get_by_role("button", name="Save as CSV").click()
        self.assertIn("warning tape", saved.value.path().read_text(encoding="utf-8"))
        region.get_by_role("button", name="Your price list").click()
        price = region.get_by_label("Price of label", exact=True)
        price.fill("cheap")
        price.press("Tab")
        expect(region.get_by_role("alert")).to_contain_text("“cheap” is no number")
        price.fill("7,5")
        price.press("Tab")
        expect(region.get_by_role("row", name="label").first).to_contain_text("37.50")
        expect(region.get_by_role("row", name="label per piece")).to_contain_text("yours")
        page.get_by_label("Price list as CSV").set_input_files(
            {
                "name": "p.csv",
                "mimeType": "text/csv",
                "buffer": b"key,name,unit,price,work_min\nlabel,Label,piece,dear,1\n",
            }
        )
        expect(region.get_by_role("alert")).to_contain_text("Line 2, price")
        region.get_by_role("button", name="Back to the invented list").click()
        expect(region.get_by_role("row", name="label").first).to_contain_text("2.50*")


class Band(BrowserCase):
    def test_along_a_chain_by_arrow_keys_as_a_table_and_as_a_file(self) -> None:
        page = self.job_page("Garage at", "design")
        drawing = page.get_by_role("group", name="The run drawn to scale")
        drawing.focus()
        page.keyboard.press("ArrowRight")
        told = page.locator(".run-band .sr-only")
        expect(told).to_contain_text("Cut-out")
        page.keyboard.press("ArrowRight")
        expect(told).to_contain_text(
            "100 A cut-out fuse Cut-out: opens the line; with it goes off the whole installation"
        )
        for _ in range(20):
            page.keyboard.press("ArrowRight")
            page.wait_for_timeout(50)
            if "Garage board: B32 A 30 mA" in (told.text_content() or ""):
                break
        expect(told).to_contain_text("Garage board: B32 A 30 mA")
        page.keyboard.press("ArrowRight")
        expect(told).to_contain_text("sees alternating and pulsating current, from 30 mA")
        page.keyboard.press("End")
        expect(told).to_contain_text("Charge point: 32 A")
        page.keyboard.press("Escape")
        expect(told).to_be_empty()
        with page.expect_download() as saved:
            page.get_by_role("button", name="Save the drawing as SVG").click()
        self.assertIn("Garage board", saved.value.path().read_text(encoding="utf-8"))
        page.get_by_role("button", name="As table").click()
        expect(page.get_by_role("row", name="Breakout box")).to_contain_text("0.401")

    def test_forty_sections_stay_legible(self) -> None:
        number = self.path("Lime Kiln", "design").split("/")[2]
        state = self.client.get(f"/api/v1/jobs/{number}").get_json()
        section = json.loads(json.dumps(state["job"]["circuits"][0]["route"][0])) | {"length_m": 1.0}
        state["job"]["circuits"][0]["route"] = [section] * 40
        kept = self.client.put(f"/api/v1/jobs/{number}", json=state["job"], headers={"If-Match": str(state["version"])})
        self.assertEqual(kept.status_code, 200)
        page = self.job_page("Lime Kiln", "design")
        expect(page.locator(".run-band .tick")).to_have_count(39)
        overlapping = page.evaluate(
            """() => { const boxes = [...document.querySelectorAll('.run-band .chain text.small')].filter((t) => t.textContent.trim())
              .map((t) => t.getBoundingClientRect()); return boxes.some((a, i) => i && a.left < boxes[i - 1].right) }"""
        )
        self.assertFalse(overlapping)

    def test_no_words_of_the_band_lie_over_others(self) -> None:
        """Short runs and long ones, with boards between and without, on a phone, a tablet, a laptop, a wide screen."""
        page = self.page("/")
        for row in self.client.get("/api/v1/jobs").get_json()["jobs"][::3]:
            page.goto(f"{self.url}/jobs/{row['id']}/design")
            self.shown(page)
            for width, height in ((390, 844), (820, 1180), (1280, 800), (1920, 1080)):
                page.set_viewport_size({"width": width, "height": height})
                self.unfold(page)
                page.locator(".run-band svg").first.wait_for(state="attached")
                with self.subTest(row["title"], width=width):
                    expect(page.locator(".run-band svg").first).to_be_attached()
                    self.assertEqual(page.evaluate(OVERLAPPING), [])
        page.evaluate("document.querySelectorAll('.run-band svg text').forEach((one) => one.setAttribute('x', 100))")
        self.assertTrue(page.evaluate(OVERLAPPING), "what lies over each other is found")

    def test_no_caption_of_a_guard_lies_over_another(self) -> None:
        number = self.path("Three RCDs in a row", "design").split("/")[2]
        state = self.client.get(f"/api/v1/jobs/{number}").get_json()
        box = next(one for one in state["job"]["circuits"] if one["boxes"])["boxes"][0]
        # Two more in the box: ten in all.
        new = box["guards"][0] | {"rcd": None}
        more = [new | {"id": f"more-{place}", "kind": kind} for place, kind in enumerate(("switch", "dc_detector"))]
        box["guards"] += more
        kept = self.client.put(f"/api/v1/jobs/{number}", json=state["job"], headers={"If-Match": str(state["version"])})
        self.assertEqual(kept.status_code, 200, kept.text)
        for title in ("Three RCDs in a row", "RCD box in the garage", "Own board beside", "Two units on a post"):
            page = self.job_page(title, "design")
            for width in (820, 1280, 1920):
                page.set_viewport_size({"width": width, "height": 800})
                page.wait_for_timeout(200)
                over = page.evaluate(OVERLAPPING)
                with self.subTest(title, width=width):
                    self.assertEqual(over, [])

    def test_on_a_phone_a_guard_is_told_by_thumb(self) -> None:
        page = self.job_page("Three RCDs in a row", "design", phone=True)
        self.unfold(page)
        page.get_by_role("list", name="What opens").get_by_role("button", name="A 30 mA").first.tap()
        expect(page.locator(".run-band .told")).to_contain_text("freezer and lights too")
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)

    def test_on_a_phone_the_tracks_tell_their_figures_by_thumb(self) -> None:
        page = self.job_page("Garage at", "design", phone=True)
        self.unfold(page)
        told = page.locator(".told-below")
        expect(told).to_contain_text("Tap along the tracks")
        page.locator(".run-band .touch").nth(5).tap()
        expect(told).to_contain_text("4 buried, 19 m of 10 mm²")
        expect(page.locator(".run-band")).to_contain_text("holds 63, 32 A")
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
