"""Debian's Chromium, driven by Playwright, against an app served on this machine only."""

from __future__ import annotations

import tempfile
from functools import cache
from pathlib import Path
from typing import Any
from unittest.mock import patch

from playwright.sync_api import (
    Browser,
    ConsoleMessage,
    Locator,
    Page,
    Playwright,
    TimeoutError,
    expect,
    sync_playwright,
)

from fulmen.demo import load_demo
from fulmen.settings import Settings
from fulmen.store.database import open_database, sessions
from fulmen.store.upkeep import migrate
from tests.app import FOLDERS, NOW, AppCase, Served

ARGUMENTS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip
# Generous: a busy machine is slow, not wrong.
TIMEOUT_MS = 30_000
DESKTOP, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


@cache
def with_demo() -> Settings:
    """A database with the demo jobs: loaded once, copied for each test."""
    FOLDERS.append(tempfile.TemporaryDirectory())
    settings = Settings(database=Path(FOLDERS[-1].name) / "demo.sqlite")
    migrate(settings)
    database = open_database(settings)
    load_demo(sessions(database), NOW)
    database.dispose()
    return settings


class BrowserCase(AppCase):
    """A browser for the class, an app with the demo jobs for each test."""

    start_from = staticmethod(with_demo)
    playwright: Playwright
    browser: Browser

    @classmethod
    def setUpClass(cls) -> None:
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
        expect.set_options(timeout=TIMEOUT_MS)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.browser.close()
        cls.playwright.stop()

    def setUp(self) -> None:
        super().setUp()
        # What is worked out until a deadline hangs on the machine: on a full one it would find less, and be no less right.
        patient = patch("fulmen.web.bounded.DEADLINE_S", 0.8 * TIMEOUT_MS / 1000)
        patient.start()
        self.addCleanup(patient.stop)
        served = Served(self.app)
        served.__enter__()
        self.addCleanup(served.__exit__)
        self.url = served.url
        self.faults: list[str] = []

    def page(self, path: str, phone: bool = False, dark: bool = False, folded: bool = False) -> Page:
        """A fresh page at a path; whatever it logs as an error or asks of another host is a fault."""
        # Still where it can be: a test waits for what a page says, not for how it glides there.
        options: dict[str, Any] = {
            "viewport": PHONE if phone else DESKTOP, "has_touch": phone, "reduced_motion": "reduce",
        }  # fmt: skip
        context = self.browser.new_context(color_scheme="dark" if dark else "light", **options)
        self.addCleanup(context.close)
        # What holds is folded away on screen; tests look for it, but the one about the folding.
        context.add_init_script(f"localStorage.setItem('fulmen.checks.unfolded', '{str(not folded).lower()}')")
        page = context.new_page()
        page.set_default_timeout(TIMEOUT_MS)
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        page.on("console", self._silent)
        page.on("request", lambda request: self._only_here(request.url))
        page.goto(self.url + path)
        return page

    def job_page(self, title: str, stage: str, **how: bool) -> Page:
        """A demo job at a stage."""
        return self.shown(self.page(self.path(title, stage), **how))

    def visit(self, page: Page, title: str, stage: str) -> Page:
        """The same page at another place: quicker than a fresh one."""
        page.goto(self.url + self.path(title, stage))
        return self.shown(page)

    def path(self, title: str, stage: str) -> str:
        """The path of a demo job's stage."""
        rows = self.client.get("/api/v1/jobs").get_json()["jobs"]
        number = next(row["id"] for row in rows if title in row["title"])
        return f"/jobs/{number}/{stage}"

    def shown(self, page: Page) -> Page:
        """The page, once it shows what it is about."""
        page.locator("main h1, main h2, main legend").first.wait_for()
        return page

    def _silent(self, message: ConsoleMessage) -> None:
        """An error or a warning in the console is a fault; that an answer was refused is told to the person."""
        refused = "Failed to load resource" in message.text
        if message.type in ("error", "warning") and not refused:
            self.faults.append(f"console {message.type}: {message.text}")

    def _only_here(self, url: str) -> None:
        if not url.startswith((self.url, "data:", "blob:")):
            self.faults.append(f"asked {url}")

    def tearDown(self) -> None:
        self.assertEqual(self.faults, [])
        super().tearDown()


def tap(page: Page, question: str, said: str) -> None:
    """Tap an answer."""
    group = page.get_by_role("group", name=question, exact=True)
    group.get_by_role("radio", name=said, exact=True).or_(group.get_by_role("checkbox", name=said, exact=True)).check()


def choose(where: Page | Locator, label: str, value: str) -> None:
    """Choose one value of a select; its list opens over the page.

    By key: while a list opens, scrolling to a value moves the page beneath it, and a click lands beside it.
    """
    page = where if isinstance(where, Page) else where.page
    where.get_by_role("combobox", name=label, exact=True).first.locator(
        "xpath=ancestor::div[contains(@class,'v-field ')]"
    ).click()
    values = page.get_by_role("listbox", name=label, exact=True)
    option = values.get_by_role("option", name=value, exact=True)
    try:
        option.press("Enter", timeout=5000)
    except TimeoutError:
        # A long list keeps only what is near its window: whoever wants the last ones scrolls.
        values.evaluate("list => { list.scrollTop = list.scrollHeight }")
        option.press("Enter")
    expect(values).to_be_hidden()
