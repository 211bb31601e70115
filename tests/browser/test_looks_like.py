"""Readings that disagree are told as one fault, with the one test that tells two apart a press away."""

from typing import Any

from playwright.sync_api import expect

from tests.browser.chromium import BrowserCase
from tests.jobs import DEVICE_IN_UNIT

SAID = {"subject": "ev", "taken_by": "R. Quillfeather", "instrument": "Tester 4"}
POOR: list[dict[str, Any]] = [
    {"step": "ir_line_neutral", "outcome": "over_range", "value": 999, "test_voltage_v": 500, "taken_at": "2026-11-24T09:12:00+00:00", **SAID},
    {"step": "ir_live_earth", "outcome": "measured", "value": 0.4, "test_voltage_v": 500, "taken_at": "2026-11-24T09:14:00+00:00", **SAID},
]  # fmt: skip


class LooksLike(BrowserCase):
    def test_two_faults_are_told_apart_by_one_more_test(self) -> None:
        stored = self.store(DEVICE_IN_UNIT, {"readings": POOR})
        page = self.page(f"/jobs/{stored.id}/dead")
        told = page.get_by_role("region", name="What the readings look like")
        expect(told).to_contain_text("neutral touches earth behind the RCD")
        expect(told).to_contain_text("line nicked to earth")
        told.get_by_role("button").press("Enter")
        expect(page.locator("h2.headline").first).to_contain_text("to earth")
        expect(page.locator("h2.headline").first).to_contain_text("Insulation")

    def test_nothing_is_told_where_all_agrees(self) -> None:
        stored = self.store(DEVICE_IN_UNIT, {"readings": POOR[:1]})
        page = self.page(f"/jobs/{stored.id}/dead")
        page.get_by_role("region", name="Do the readings agree?").wait_for()
        expect(page.get_by_role("region", name="What the readings look like")).to_have_count(0)
