"""Debian's Chromium, driven by Playwright, against an app served on this machine only."""

from __future__ import annotations

import atexit
import tempfile
import threading
from functools import cache
from pathlib import Path
from typing import Any
from unittest.mock import patch

from playwright.sync_api import (
    ConsoleMessage,
    Locator,
    Page,
    TimeoutError,
    expect,
    sync_playwright,
)

from fulmen.demo import load_demo
from fulmen.settings import Settings
from fulmen.store.upkeep import migrate
from fulmen.web.app import create_app
from tests.app import FOLDERS, NOW, AppCase, Served

ARGUMENTS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--disable-extensions", "--disable-default-apps",
    # Software draws here, and one thread of it is enough.
    "--disable-gpu-rasterization", "--num-raster-threads=1",
    "--in-process-gpu", "--no-zygote", "--disable-features=Translate,MediaRouter,OptimizationHints",
]  # fmt: skip
# Generous: a busy machine is slow, not wrong.
TIMEOUT_MS = 120_000
DESKTOP, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


@cache
def with_demo() -> Settings:
    """A database with the demo jobs: loaded once, copied for each test."""
    FOLDERS.append(tempfile.TemporaryDirectory())
    settings = Settings(database=Path(FOLDERS[-1].name) / "demo.sqlite")
    migrate(settings)
    app = create_app(settings)
    # Signed on the day of the rest: pictures of the demo don't change with the calendar.
    with patch("fulmen.web.jobs.acts.now", lambda: NOW):
        load_demo(app, NOW)
    AppCase.let_go(app)
    return settings


class Machinery:
    """What every browser test of this process shares: Chromium, a door on one address, a page on a phone and on a desktop.

    A page that was loaded before costs a third of its first load: the browser keeps scripts and what it compiled of them.
    What a test leaves there (storage, cookies, routes) is wiped before the next.
    """

    def __init__(self) -> None:
        self.playwright = sync_playwright().start()
        self.browser = self.playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
        expect.set_options(timeout=TIMEOUT_MS)
        self.app: Any = _nobody
        self.in_hand = 0
        self.idle = threading.Condition()
        self.served = Served(self.answer)
        self.served.__enter__()
        self.pages: dict[bool, Page] = {}
        atexit.register(self.end)

    def answer(self, environ: Any, start: Any) -> Any:
        """Hand on to the app of the test under way, and count what it has in hand."""
        with self.idle:
            self.in_hand += 1
        try:
            return self.app(environ, start)
        finally:
            with self.idle:
                self.in_hand -= 1
                self.idle.notify_all()

    def end(self) -> None:
        """Let go of browser and address."""
        self.served.__exit__()
        self.browser.close()
        self.playwright.stop()

    def page(self, phone: bool) -> Page:
        """The page that tests use one after the other."""
        if phone not in self.pages or self.pages[phone].is_closed():
            self.pages[phone] = self.another_page(phone)
        return self.pages[phone]

    def another_page(self, phone: bool) -> Page:
        """A page on a device that nobody used before."""
        # Still where it can be: a test waits for what a page says, not for how it glides there.
        device = self.browser.new_context(
            viewport=PHONE if phone else DESKTOP, has_touch=phone, reduced_motion="reduce"
        )
        page = device.new_page()
        page.set_default_timeout(TIMEOUT_MS)
        return page

    def wipe(self) -> None:
        """Forget what the last test left on the shared pages."""
        kept = {"origin": self.served.url, "storageTypes": "local_storage,indexeddb,cookies,service_workers"}
        for page in self.pages.values():
            page.unroute_all(behavior="ignoreErrors")
            page.goto(f"{self.served.url}/mark.svg")
            page.evaluate("sessionStorage.clear()")
            page.context.clear_cookies()
            debugger = page.context.new_cdp_session(page)
            debugger.send("Storage.clearDataForOrigin", kept)
            debugger.detach()
        self.app = _nobody
        # What a page asked before it was left is answered from a store that is still there.
        with self.idle:
            self.idle.wait_for(lambda: self.in_hand == 0, timeout=30)


def _nobody(environ: Any, start: Any) -> list[bytes]:
    """What answers between two tests: a page that was just left may still be asking."""
    start("503 Service Unavailable", [("Content-Length", "0")])
    return []


@cache
def machinery() -> Machinery:
    """Started with the first browser test of a process."""
    return Machinery()


class BrowserCase(AppCase):
    """An app with the demo jobs for each test, behind the one address that the browser knows."""

    start_from = staticmethod(with_demo)

    def setUp(self) -> None:
        super().setUp()
        self.shared = machinery()
        self.shared.app = self.app
        # Before the store goes: an open page would go on asking for it.
        self.addCleanup(self.shared.wipe)
        self.url = self.shared.served.url
        self.faults: list[str] = []
        self.used: set[bool] = set()

    def page(self, path: str, phone: bool = False, dark: bool = False, folded: bool = False) -> Page:
        """A page at a path; whatever it logs as an error or asks of another host is a fault.

        A test's second page of a kind is another person's: on a device of its own.
        """
        if phone in self.used:
            page = self.shared.another_page(phone)
            self.addCleanup(page.context.close)
        else:
            page = self.shared.page(phone)
        self.used.add(phone)
        page.emulate_media(color_scheme="dark" if dark else "light")
        self._listen(page)
        if not folded:
            # What holds is folded away on screen; tests look for it, but the one about the folding.
            if not page.url.startswith(self.url):
                page.goto(f"{self.url}/mark.svg")
            page.evaluate("localStorage.setItem('fulmen.checks.unfolded', 'true')")
        page.goto(self.url + path)
        return page

    def _listen(self, page: Page) -> None:
        for event, heard in (
            ("pageerror", lambda error: self.faults.append(str(error))),
            ("console", self._silent),
            ("request", lambda request: self._only_here(request.url)),
        ):
            page.on(event, heard)
            self.addCleanup(page.remove_listener, event, heard)

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

    def unfold(self, page: Page) -> None:
        """Have the run drawn with its tracks, where it is not by itself."""
        page.get_by_role("button", name="Unfold the run").or_(page.locator(".run-band").first).first.wait_for()
        if not page.locator(".run-band").count():
            page.get_by_role("button", name="Unfold the run").click()

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
    for _ in range(3):
        try:
            return expect(values).to_be_hidden(timeout=5000)
        except AssertionError:
            # A list that was still opening on a slow machine overheard the key.
            option.press("Enter")
    expect(values).to_be_hidden()
