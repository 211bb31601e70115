"""Measures the figures that docs/figures.md shows and prints one table. Run it with `make bench` on a quiet machine."""

from __future__ import annotations

import http.client
import sqlite3
import statistics
import tempfile
import time
from collections.abc import Callable
from contextlib import closing
from datetime import UTC, datetime
from itertools import pairwise
from pathlib import Path
from random import Random

from fulmen.core.alternatives.arrangements import arrangement_options
from fulmen.core.alternatives.choice_menu import alternatives
from fulmen.core.alternatives.remedies import remedies
from fulmen.core.alternatives.search.search import search
from fulmen.core.alternatives.search.wiring import wired_ways
from fulmen.core.circuit.run_figures import cases_of
from fulmen.core.editing.job_file import parse_job
from fulmen.core.editing.layouts import layouts
from fulmen.core.errors import InputError
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.judging.known import known_for
from fulmen.core.materials.prices import invented_prices
from fulmen.core.model.job import Job
from fulmen.core.simulations.benches.pen_bench import presets, run_bench
from fulmen.core.simulations.benches.supply_day import supply_day
from fulmen.core.verification.faults.faults import FaultPlace, fault_info, planted_kinds
from fulmen.core.verification.readings.cross_checks import agreement_findings
from fulmen.core.verification.steps.coach import coach
from fulmen.core.verification.steps.run_test import tests_of
from fulmen.core.verification.steps.site_map import site_map
from fulmen.documents.certificate import render_certificate
from fulmen.documents.rendering import warm_up
from fulmen.photos import make_photo
from fulmen.settings import Settings
from fulmen.store.issues import prepare_issue
from fulmen.store.operations import create_job
from fulmen.store.upkeep import migrate
from fulmen.web.app import create_app
from tests.app import Served
from tests.jobs import (
    ALL_ELECTRIC,
    DEVICE_IN_UNIT,
    EXAMPLES,
    FALLS_SHORT,
    GARAGE,
    HALFWAY,
    RULES,
    TWO_BEHIND_ONE,
    example_text,
    job,
)
from tests.photos import huge_png, picture
from tests.trials.simulated import size_of, tested

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
        ("every arrangement of a job judged, p95", p95_ms(lambda: arrangement_options(complete, RULES), 10), 500, "ms"),
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


def testing_rows() -> list[Row]:
    """The whole cross-check of a tested job, the coach on the longest list, and the moves it saves on every demo job."""
    complete, two = job(DEVICE_IN_UNIT), job(TWO_BEHIND_ONE)
    tests = tests_of(cases_of(known_for(complete, RULES)), complete.readings)
    steps = evaluate(two, RULES).steps
    cross = p95_ms(lambda: agreement_findings(tests), 200)
    order = p95_ms(lambda: coach(steps, site_map(installation_of(two))), 20)
    return [
        ("every reading of a job against the others, p95", cross, 5, "ms"),
        (f"the order of {len(steps)} test steps with the fewest moves, p95", order, 500, "ms"),
        *(coached(path.stem) for path in sorted(EXAMPLES.glob("*.json"))),
    ]


def coached(name: str) -> Row:
    """What the coach saves on one demo job, and that it never takes longer than the book's order."""
    plan = coach(evaluate(job(name), RULES).steps, site_map(installation_of(job(name))))
    sums = [one.moves for one in (plan.coached, plan.book)]
    minutes = [one.duration_s / 60 for one in (plan.coached, plan.book)]
    told = f"moves to test {name} ({sums[1]} circuit by circuit; {minutes[0]:.1f} min instead of {minutes[1]:.1f})"
    return (told, float(sums[0]), float(sums[1]), "moves")


EACH_KIND, SOUND = 61, 1000


def simulated_rows() -> list[Row]:
    """Seeded faulty jobs as built, tested by the simulated set: what is caught and named by kind, and false alarms."""
    chance, caught, named, rows, placed, in_cables = Random(2026), 0, 0, [], 0, 0
    for place, kind in enumerate(planted_kinds()):
        tried = [tested(10_000 * place + number, kind, size_of(kind, number, chance)) for number in range(EACH_KIND)]
        seen = sum(bool(one.alarms) for one, _ in tried)
        right = sum(any(named.fault == kind for named in one.named) for one, _ in tried)
        caught, named = caught + seen, named + right
        if fault_info(kind).where is FaultPlace.CABLE:
            in_cables += EACH_KIND
            placed += sum(bool(one.named) and one.named[0].subject == fault.circuit for one, fault in tried)
        rows.append(
            (f"{fault_info(kind).words}: {right} of {EACH_KIND} named, caught", 100 * seen / EACH_KIND, 0.0, "%")
        )
    count = EACH_KIND * len(planted_kinds())
    false = sum(bool(tested(5_000_000 + number)[0].alarms) for number in range(SOUND))
    return [
        (f"of {count} faulty jobs caught", 100 * caught / count, 98, "%"),
        (f"of {count} faulty jobs the kind named rightly", 100 * named / count, 90, "%"),
        (f"of {in_cables} in a cable the cable named rightly", 100 * placed / in_cables, 90, "%"),
        (f"of {SOUND} sound jobs with a false alarm", 100 * false / SOUND, 1, "% at most"),
        *rows,
    ]


def run_rows() -> list[Row]:
    """The run: long routes, many boards, the options search, a mend; and the search's rate against the network library's."""
    long = job(DEVICE_IN_UNIT, {"circuits.0.route": LONG_ROUTE})
    tree, short, garage = board_tree(), job(FALLS_SHORT), job(GARAGE)
    prices = invented_prices()
    seconds = p95_ms(lambda: search(job(HALFWAY), "charge-point", RULES, prices), 5) / 1000
    tried = search(job(HALFWAY), "charge-point", RULES, prices).tried
    electrical = sum(
        1
        for layout in layouts(installation_of(job(HALFWAY)), "charge-point")
        for _ in wired_ways(layout, known_for(layout.job, RULES))
    )
    print(f"search: {tried} ways, {electrical} of them electrical, each with {tried // electrical} arrangements")
    return [
        ("a route of 200 sections evaluated, p95", p95_ms(lambda: evaluate(long, RULES), 40), 50, "ms"),
        ("12 boards and 4 charge points evaluated, p95", p95_ms(lambda: evaluate(tree, RULES), 40), 50, "ms"),
        ("options search, one job, p95", seconds, 1, "s"),
        (
            "the same over a garage's sub-main, p95",
            p95_ms(lambda: search(garage, "charge-point", RULES, prices), 5) / 1000,
            1,
            "s",
        ),
        ("what would mend a finding, p95", p95_ms(lambda: remedies(short, "volt_drop/ev", RULES), 5), 1000, "ms"),
        ("electrical ways a second against pandapower's, times", electrical / seconds * library_seconds(), 100, "×"),
    ]


LONG_ROUTE = [
    {"surroundings": "clipped", "method": "C", "length_m": 0.2, "grouped_circuits": 1 + place % 5}
    for place in range(200)
]


def board_tree() -> Job:
    """Twelve boards: the origin's, three it feeds, and eight more below those; a charge point on each of the last four."""
    data = job(GARAGE).model_dump(mode="json")
    sub_main, final = data["circuits"]
    board, point = data["boards"][1], data["charge_points"][0]
    parents = {place: 0 if place < 4 else 1 + place % 3 for place in range(1, 12)}
    data["boards"] = [
        data["boards"][0],
        *({**board, "id": f"b{place}", "name": f"Board {place}", "groups": []} for place in parents),
    ]
    data["circuits"] = [
        {**sub_main, "id": f"s{place}", "from_board": "board" if parent == 0 else f"b{parent}", "feeds": f"b{place}"}
        for place, parent in parents.items()
    ]
    data["charge_points"] = [{**point, "id": f"p{place}"} for place in range(8, 12)]
    data["circuits"] += [
        {**final, "id": f"e{place}", "from_board": f"b{place}", "feeds": f"p{place}"} for place in range(8, 12)
    ]
    return parse_job(data)


def library_seconds() -> float:
    """How long pandapower takes for the load flow and both fault currents of one such chain."""
    import warnings

    import pandapower as pp
    import pandapower.shortcircuit as sc

    warnings.simplefilter("ignore")
    net = pp.create_empty_network()
    buses = [pp.create_bus(net, vn_kv=0.4) for _ in range(4)]
    pp.create_ext_grid(net, buses[0], s_sc_max_mva=1e3, s_sc_min_mva=1e3, rx_max=0.1, rx_min=0.1)
    for start, end in pairwise(buses):
        pp.create_line_from_parameters(
            net, start, end, 0.02, r_ohm_per_km=3.08, x_ohm_per_km=0.1, c_nf_per_km=0, max_i_ka=1, endtemp_degree=90.0
        )
    pp.create_load(net, buses[-1], p_mw=0.022, const_i_p_percent=100)

    def once() -> None:
        pp.runpp(net, numba=False)
        sc.calc_sc(net, case="max", bus=buses[-1])
        sc.calc_sc(net, case="min", bus=buses[-1])

    return p95_ms(once, 20) / 1000


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


def many_jobs_rows() -> list[Row]:
    """Twenty thousand jobs listed, and searched by a word and by a rare one."""
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(database=Path(folder) / "many.sqlite")
        migrate(settings)
        app = create_app(settings)
        create_job(app.extensions["sessions"], job(DEVICE_IN_UNIT), datetime(2026, 11, 24, tzinfo=UTC))
        with closing(sqlite3.connect(settings.database)) as database, database:
            columns = [row[1] for row in database.execute("PRAGMA table_info(job)") if row[1] not in ("id", "title")]
            names = ", ".join(columns)
            database.executemany(
                f"INSERT INTO job (title, {names}) SELECT ?, {names} FROM job WHERE id = 1",
                [(f"House {number}, {STREETS[number % len(STREETS)]}",) for number in range(20_000)],
            )
        client = app.test_client()

        def ask(query: str) -> float:
            def once() -> None:
                answer = client.get(f"/api/v1/jobs{query}")
                assert answer.status_code == 200 and answer.get_json()["jobs"]

            return p95_ms(once, 60)

        worst = max(ask("?search=Mill"), ask("?search=House 19999"), ask("?search=ouse&offset=19000"), ask("?search=L"))
        rows = [
            ("20 000 jobs listed, p95", ask(""), 50, "ms"),
            ("20 000 jobs searched, the slowest of four words, p95", worst, 50, "ms"),
        ]
        app.extensions["sessions"].kw["bind"].dispose()
    return rows


STREETS = ("Mill Lane", "Tanner's Row", "Quarry Steps", "Heron Way", "Lime Kiln Lane")


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
    """What goes over the wire to a browser that was never here, until nothing is fetched any more."""
    from tests.browser.test_first_load import FirstLoad

    class Loads(FirstLoad):
        def runTest(self) -> None:
            self.found.extend((what, sum(self.loaded(path).values())) for what, path in self.LISTED.items())

    loads = Loads()
    loads.found: list[tuple[str, float]] = []  # type: ignore[misc]
    Loads.setUpClass()
    result = loads.run()
    Loads.tearDownClass()
    assert result is not None and result.wasSuccessful(), result
    return [(f"first load of {what}, over the wire", size, 300, "kB") for what, size in loads.found]


def main() -> None:
    rows = [
        *core_rows(),
        *testing_rows(),
        *simulated_rows(),
        *run_rows(),
        *photo_rows(),
        *web_rows(),
        *many_jobs_rows(),
        *certificate_rows(),
        *front_end_rows(),
    ]
    print(f"{'what':52} {'measured':>10} {'aim':>8}")
    for name, value, aim, unit in rows:
        print(
            f"{name:52} {value:7.2f} {unit:2} {aim:5g} {unit}{'' if (value >= aim if unit in ('×', '%') else value <= aim) else '   over'}"
        )


if __name__ == "__main__":
    main()
