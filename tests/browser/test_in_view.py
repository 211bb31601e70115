"""At every step, by thumb and by keys: Save in view, expectation and limit never under the pad; the list and its end."""

from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.test_testing import Sequence

BOXES = """() => {
  const box = (found) => { const at = found?.getBoundingClientRect(); return at && [at.top, at.bottom] }
  const widest = Math.max(...[...document.querySelectorAll('.panel, .panel *')].map((one) => one.getBoundingClientRect().right))
  const buttons = [...document.querySelectorAll('.panel button')]
  return {
    save: box(document.querySelector('.pad .next') ?? buttons.find((one) => /^(Keep|Right|Sign)/.test(one.innerText.trim()))),
    pad: box(document.querySelector('.thumb-pad')),
    expect: box(document.querySelector('.expect')),
    figure: box(document.querySelector('.big')),
    title: document.querySelector('.panel h2')?.innerText,
    height: innerHeight,
    past: widest - innerWidth,
  }
}"""


class InView(Sequence):
    def steps_of(self, stage: str) -> list[str]:
        steps = self.client.get(f"/api/v1/jobs/{self.job_id}").get_json()["evaluation"]["steps"]
        return [one["title"] for one in steps if one["stage"] == stage and one["required"]]

    def looked_at(self, page: Page, stage: str, *, phone: bool) -> list[Any]:
        page.goto(f"{self.url}/jobs/{self.job_id}/{stage}")
        page.locator("h2.headline").first.wait_for()
        found = []
        for title in self.steps_of(stage):
            if phone:
                page.get_by_role("button", name="All steps").click()
            page.locator(".steps").get_by_role("button", name=title, exact=False).first.click()
            expect(page.locator(".panel h2").first).to_have_text(title)
            page.wait_for_timeout(60)
            found.append(page.evaluate(BOXES))
        return found

    def test_save_is_in_view_at_every_step_and_nothing_is_under_the_pad(self) -> None:
        for phone in (True, False):
            page = self.begun(phone=phone, **{"testing.rcd_school": "twelve"})
            for stage in ("dead", "live"):
                for at in self.looked_at(page, stage, phone=phone):
                    with self.subTest(at["title"], phone=phone):
                        self.assertLessEqual(at["past"], 1)
                        self.assertGreaterEqual(at["save"][0], 0)
                        self.assertLessEqual(at["save"][1], at["height"])
                        for what in ("expect", "figure"):
                            if at[what] is not None:
                                self.assertGreaterEqual(at[what][0], 0)
                                self.assertLessEqual(at[what][1], at["height"])
                        if at["pad"] and at["expect"]:
                            self.assertLessEqual(at["expect"][1], at["pad"][0] + 1)

    def test_the_list_is_grouped_by_place_and_tells_what_is_open(self) -> None:
        page = self.begun()
        heads = page.locator(".steps .head")
        expect(heads.first).to_have_text("At the origin, 4 open")
        self.assertEqual(
            sum(int(one.split(", ")[-1].split()[0]) for one in heads.all_inner_texts()), len(self.steps_of("dead"))
        )

    def test_after_the_last_step_what_is_still_open_stands_there(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="What is still open").click()
        expect(page.locator(".panel h2")).to_have_text("Still open of the dead tests")
        listed = page.get_by_role("list", name="Not taken yet").get_by_role("listitem")
        expect(listed).to_have_count(len(self.steps_of("dead")))
        listed.first.get_by_role("button").click()
        expect(page.locator(".panel h2")).to_have_text("Isolated, proved dead, locked off")
        page.locator(".steps").get_by_role("button", name="What is still open").click()
        page.get_by_role("link", name="Go on").click()
        page.wait_for_url("**/live")

    def test_the_drawing_of_nulled_leads_shows_them_joined(self) -> None:
        page = self.begun()
        page.locator(".steps").get_by_role("button", name="Leads nulled").click()
        drawing = page.locator(".panel svg.drawing")
        expect(drawing).to_contain_text("Ends joined")
        expect(drawing).not_to_contain_text("the other lead")
