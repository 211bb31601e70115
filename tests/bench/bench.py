"""Measures the figures that the README shows and prints one table. Run it with `make bench` on a quiet machine."""

from __future__ import annotations

import gzip
import http.client
import statistics
import tempfile
import time
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

from fulmen.core.arrangements import every_way
from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.options import alternatives
from fulmen.core.pen_bench import presets, run_bench
from fulmen.core.supply_day import supply_day
from fulmen.documents.certificate import render_certificate
from fulmen.documents.rendering import warm_up
from fulmen.photos import make_photo
from fulmen.settings import Settings
from fulmen.store.database import migrate
from fulmen.store.papers import prepare_issue
from fulmen.web.app import create_app
from tests.app import Served
from tests.jobs import ALL_ELECTRIC, DEVICE_IN_UNIT, RULES, example_text, job
from tests.photos import huge_png, picture

Row = tuple[str, float, float, str]


def p95_ms(task: Callable[[], object], times: int) -> float:
    """The 95th percentile of a task's time, after a few turns to warm up."""
    for _ in range(min(5, times)):
        task()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        task()
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.quantiles(taken, n=20)[-1]


def core_rows() -> list[Row]:
    """One full evaluation, and one list of alternatives, in the core."""
    complete, house = job(DEVICE_IN_UNIT), job(ALL_ELECTRIC)
    row = next(one.bench for one in presets() if one.key == "row")
    return [
        ("every arrangement of a job judged, p95", p95_ms(lambda: every_way(complete, RULES), 10), 500, "ms"),
        ("broken-PEN bench, nine houses, p95", p95_ms(lambda: run_bench(row, RULES), 100), 5, "ms"),
        ("a simulated day on the supply, p95", p95_ms(lambda: supply_day(house, RULES), 100), 50, "ms"),
        ("one full evaluation in the core, p95", p95_ms(lambda: evaluate(complete, RULES), 400), 5, "ms"),
        (
            "alternatives for a cable size, p95",
            p95_ms(lambda: alternatives(complete, "ev", "csa", RULES), 60),
            100,
            "ms",
        ),
    ]


def photo_rows() -> list[Row]:
    """A photo of 12 megapixels made anew, and one of 60 megapixels refused."""

    def refuse() -> None:
        try:
            make_photo(huge)
        except InputError:
            return
        raise AssertionError("60 megapixels were taken")

    phone, huge = picture(size=(4032, 3024)), huge_png(10_000, 6_000)
    return [
        ("a 12-megapixel photo made anew, p95", p95_ms(lambda: make_photo(phone), 5), 1500, "ms"),
        ("a 60-megapixel photo refused, p95", p95_ms(refuse, 50), 50, "ms"),
    ]


def web_rows() -> list[Row]:
    """The evaluate call over HTTP, through waitress, on one kept connection."""
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(database=Path(folder) / "bench.sqlite")
        migrate(settings)
        app = create_app(settings)
        body = example_text(DEVICE_IN_UNIT).encode()
        with Served(app) as served:
            connection = http.client.HTTPConnection(served.url.removeprefix("http://"))

            def ask() -> None:
                connection.request("POST", "/api/v1/evaluate", body, {"Content-Type": "application/json"})
                answer = connection.getresponse()
                answer.read()
                assert answer.status == 200

            row = ("the evaluate call over HTTP, p95", p95_ms(ask, 300), 60, "ms")
            connection.close()
        return [row]


def certificate_rows() -> list[Row]:
    """One certificate: the first after the server's warm-up, and a later one."""
    warm_up()
    issue = prepare_issue(job(DEVICE_IN_UNIT), "FC-2026-0001", datetime(2026, 11, 24, tzinfo=UTC), None)
    start = time.perf_counter()
    render_certificate(issue)
    first = time.perf_counter() - start
    later = p95_ms(lambda: render_certificate(issue), 5) / 1000
    return [("first certificate after warm-up", first, 2, "s"), ("a later certificate, p95", later, 2, "s")]


def front_end_rows() -> list[Row]:
    """What a browser fetches to show the jobs, and a design, for the first time, gzipped."""
    from tests.browser.chromium import BrowserCase

    class Loads(BrowserCase):
        def runTest(self) -> None:
            for path in ("/", "/jobs/1/design", "/jobs/1/survey"):
                sizes: list[int] = []
                context = self.browser.new_context()
                page = context.new_page()
                page.on("response", lambda answer, sizes=sizes: sizes.append(self.weight(answer)))
                page.goto(self.url + path)
                page.wait_for_load_state("networkidle")
                self.found.append(sum(sizes) / 1000)
                context.close()

        def weight(self, answer: object) -> int:
            url: str = answer.url  # type: ignore[attr-defined]
            file = self.settings.frontend / (url.removeprefix(self.url + "/") or "index.html")
            if not file.is_file():
                return 0
            data = file.read_bytes()
            return len(data) if file.suffix == ".woff2" else len(gzip.compress(data, 6))

    loads = Loads()
    loads.found: list[float] = []  # type: ignore[misc]
    Loads.setUpClass()
    result = loads.run()
    Loads.tearDownClass()
    assert result is not None and result.wasSuccessful(), result
    names = [f"first load of {what}, fonts and all, gzipped" for what in ("the jobs", "a design", "a survey")]
    return [(name, size, 300, "kB") for name, size in zip(names, loads.found, strict=True)]


def main() -> None:
    rows = [*core_rows(), *photo_rows(), *web_rows(), *certificate_rows(), *front_end_rows()]
    print(f"{'what':52} {'measured':>10} {'aim':>8}")
    for name, value, aim, unit in rows:
        print(f"{name:52} {value:7.2f} {unit:2} {aim:5g} {unit}{'' if value <= aim else '   over'}")


if __name__ == "__main__":
    main()
