"""Many at once: hundreds of slow connections at the householders' door, and fifty certificates with saves meanwhile."""

from __future__ import annotations

import http.client
import json
import socket
import tempfile
import threading
import time
from pathlib import Path
from typing import Any

from fulmen.documents.render_process import RenderProcess
from fulmen.settings import Settings
from fulmen.store import operations
from fulmen.store.upkeep import migrate
from fulmen.web.app import create_app
from fulmen.web.doors import front_bounds, side_bounds
from fulmen.web.policy import Role
from tests.acts import signed_job
from tests.app import NOW, Served
from tests.jobs import DEVICE_IN_UNIT, job


def slow_connections(count: int, calls: int) -> tuple[float, int]:
    """The electrician's p95 [ms] while slow connections hang at the householders' door; how many were let in."""
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(database=Path(folder) / "flood.sqlite")
        migrate(settings)
        front, side = create_app(settings), create_app(settings, Role.HOUSEHOLDER)
        operations.create_job(front.extensions["sessions"], job(DEVICE_IN_UNIT), NOW)
        with Served(front, front_bounds()) as electrician, Served(side, side_bounds()) as householders:
            host, port = householders.url.removeprefix("http://").split(":")
            slow = [_slow(host, int(port)) for _ in range(count)]
            times_ms = [_timed(electrician.url, "GET", "/api/v1/jobs") for _ in range(calls)]
            let_in = sum(one is not None and _still_open(one) for one in slow)
            for one in slow:
                if one is not None:
                    one.close()
        for app in (front, side):
            app.extensions["sessions"].kw["bind"].dispose()
    return _p95(times_ms), let_in


def certificates_and_saves(papers: int) -> tuple[int, float, float]:
    """How many of the certificates asked for at once were issued with numbers in a row; the p95 of a save meanwhile
    [ms], and how long all took [s].
    """
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(database=Path(folder) / "papers.sqlite")
        migrate(settings)
        render = RenderProcess()
        app = create_app(settings, render=render)
        for number in range(papers + 1):
            signed_job(app.extensions["sessions"], job(DEVICE_IN_UNIT, {"title": f"House {number}"}))
        with Served(app) as served:
            started = time.perf_counter()
            asked: list[Any] = []
            threads = [
                threading.Thread(target=lambda n=n: asked.append(_ask(served.url, n))) for n in range(1, papers + 1)
            ]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
            saves_ms, states = _saving_until_done(served.url, papers + 1, asked)
            took_s = time.perf_counter() - started
        numbers = sorted(one["paper"]["number"] for one in states if one["state"] == "issued")
        wanted = [f"FC-{time.gmtime().tm_year}-{count:04d}" for count in range(1, papers + 1)]
        render.stop()
        app.extensions["sessions"].kw["bind"].dispose()
    return len(numbers) if numbers == wanted else 0, _p95(saves_ms), took_s


def _saving_until_done(url: str, job_id: int, asked: list[Any]) -> tuple[list[float], list[Any]]:
    times_ms, states, version = [], asked, 1
    document = _called(url, "GET", f"/api/v1/jobs/{job_id}")["job"]
    while any(one["state"] in ("waiting", "rendering") for one in states):
        document["reference"] = str(version)
        head = {"Content-Type": "application/json", "If-Match": str(version)}
        times_ms.append(_timed(url, "PUT", f"/api/v1/jobs/{job_id}", json.dumps(document).encode(), head))
        version += 1
        time.sleep(0.05)
        if version % 10 == 0:
            states = [_called(url, "GET", f"/api/v1/issues/{one['id']}") for one in states]
    return times_ms, states


def _ask(url: str, number: int) -> Any:
    shown = _called(url, "GET", f"/api/v1/jobs/{number}")["job"]
    body = {"job": shown, "signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
    head = {"Content-Type": "application/json", "Origin": url}
    act = {"acts": [{"kind": "signature", "about": "certificate"}]}
    drawn, session = _answered(url, "POST", f"/api/v1/jobs/{number}/words", json.dumps(act).encode(), head)
    head |= {"If-Match": "1", "Fulmen-Word": drawn["words"][0]["word"], "Cookie": session.split(";")[0]}
    return _called(url, "POST", f"/api/v1/jobs/{number}/papers", json.dumps(body).encode(), head)


def _called(url: str, method: str, path: str, body: bytes = b"", head: dict[str, str] | None = None) -> Any:
    return _answered(url, method, path, body, head)[0]


def _answered(
    url: str, method: str, path: str, body: bytes = b"", head: dict[str, str] | None = None
) -> tuple[Any, str]:
    """The answer, and the session that it begins."""
    connection = http.client.HTTPConnection(url.removeprefix("http://"), timeout=60)
    connection.request(method, path, body or None, head or {})
    answer = connection.getresponse()
    data = answer.read()
    connection.close()
    assert answer.status < 400, data[:300]
    return json.loads(data), answer.headers.get("Set-Cookie", "")


def _timed(url: str, method: str, path: str, body: bytes = b"", head: dict[str, str] | None = None) -> float:
    started = time.perf_counter()
    _called(url, method, path, body, head)
    return (time.perf_counter() - started) * 1000


def _slow(host: str, port: int) -> socket.socket | None:
    try:
        one = socket.create_connection((host, port), timeout=5)
        one.sendall(b"GET / HTTP/1.1\r\nHost: ")
    except OSError:
        return None
    return one


def _still_open(one: socket.socket) -> bool:
    one.settimeout(0.01)
    try:
        return one.recv(1) != b""
    except TimeoutError:
        return True
    except OSError:
        return False


def _p95(values: list[float]) -> float:
    return sorted(values)[int(len(values) * 0.95)] if values else 0.0
