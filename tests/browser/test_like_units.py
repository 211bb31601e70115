"""Two units of one make and model: what its maker says is entered once, and one reason is given once."""

import json

from playwright.sync_api import Page, expect

from fulmen.core.editing.job_file import write_job
from tests.browser.chromium import BrowserCase, tap
from tests.jobs import TWO_BEHIND_ONE, job

BIGGER = {f"circuits.{at}.device.rating_a": 50 for at in (1, 2)} | {
    f"charge_points.{at}.device_max_a": 63.0 for at in (0, 1)
}
TITLE = "Two of a kind"


class LikeUnits(BrowserCase):
    def stop(self) -> Page:
        made = job(TWO_BEHIND_ONE, BIGGER | {"decisions": [], "readings": [], "title": TITLE})
        self.client.post("/api/v1/jobs", json=json.loads(write_job(made)))
        page = self.job_page(TITLE, "survey/charge_point")
        tap(page, "Run to", "Charge point, right")
        expect(page.get_by_label("Which one this is")).to_have_value("Charge point, right")
        return page

    def stored(self) -> dict[str, dict[str, object]]:
        number = int(self.path(TITLE, "survey").split("/")[2])
        told = self.client.get(f"/api/v1/jobs/{number}").get_json()["job"]
        return {one["id"]: one for one in told["charge_points"]}

    def test_what_one_says_the_other_has(self) -> None:
        page = self.stop()
        tap(page, "Same make and model as", "Charge point, left")
        expect(page.get_by_text("is entered at Charge point, left.")).to_be_visible()
        expect(page.get_by_text("Most it can take")).to_have_count(0)
        tap(page, "Run to", "Charge point, left")
        tap(page, "Can feed the car’s battery back", "yes")
        expect(page.get_by_text("Saved", exact=True)).to_be_visible()
        self.assertEqual([one["feeds_back"] for one in self.stored().values()], ["yes", "yes"])

    def test_one_reason_for_both(self) -> None:
        page = self.stop()
        page.get_by_role("button", name="Say why", exact=True).first.click()
        page.get_by_label("Why is it so?").fill("Both are fed from one drum of 10 mm².")
        page.get_by_label("Your name").fill("R. Quillfeather")
        page.get_by_label("The same for Charge point").check()
        page.get_by_role("button", name="Keep the reason").click()
        expect(page.get_by_role("button", name="Say why", exact=True)).to_have_count(0)
        number = int(self.path(TITLE, "survey").split("/")[2])
        kept = self.client.get(f"/api/v1/jobs/{number}").get_json()["job"]["decisions"]
        self.assertEqual([one["key"] for one in kept], ["maker_device/ev-left", "maker_device/ev-right"])
        self.assertEqual(len({one["reason"] for one in kept}), 1)
