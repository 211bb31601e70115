"""Many at once: hundreds of slow connections at the householders' door, and fifty certificates with saves meanwhile."""

from __future__ import annotations

import http.client
import json
import socket
import tempfile
import threading
import time
from concurrent.futures import ProcessPoolExecutor, ThreadPoolExecutor
from dataclasses import dataclass
from multiprocessing import get_context
from pathlib import Path
from typing import Any

from fulmen.documents.render_process import RenderProcess
from fulmen.settings import Settings
from fulmen.store import operations
from fulmen.store.upkeep import migrate
from fulmen.web.app import create_app
from fulmen.web.doors.listening import front_bounds, side_bounds
from fulmen.web.doors.policy import Role
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


@dataclass(frozen=True)
class AtOnce:
    """What came of certificates asked for at once: how many were issued with numbers in a row, and times [ms, s].

    The slowest save is of those while they were accepted: the one that comes with fifty big bodies waits for these to be read.
    """

    issued: int
    accepted_p95_ms: float
    slowest_save_ms: float
    save_p95_ms: float
    took_s: float


def certificates_and_saves(papers: int) -> AtOnce:
    """Ask for many certificates at the same moment while somebody saves; the askers are a process of their own."""
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(database=Path(folder) / "papers.sqlite")
        migrate(settings)
        render = RenderProcess()
        app = create_app(settings, render=render, state=render.state)
        for number in range(papers + 1):
            signed_job(app.extensions["sessions"], job(DEVICE_IN_UNIT, {"title": f"House {number}"}))
        with Served(app) as served, ProcessPoolExecutor(1, get_context("spawn")) as askers:
            wishes = [_wish(served.url, number) for number in range(1, papers + 1)]
            askers.submit(_p95, []).result()
            saver = Saver(served.url, papers + 1)
            saver.start()
            started = time.perf_counter()
            asked = askers.submit(_ask_all, served.url, wishes).result()
            accepted, until_accepted = [ms for ms, _ in asked], len(saver.times_ms)
            states = _until_done(served.url, [state for _, state in asked])
            took_s = time.perf_counter() - started
            saver.end()
        numbers = sorted(one["paper"]["number"] for one in states if one["state"] == "issued")
        wanted = [f"FC-{time.gmtime().tm_year}-{count:04d}" for count in range(1, papers + 1)]
        render.stop()
        app.extensions["sessions"].kw["bind"].dispose()
    issued = len(numbers) if numbers == wanted else 0
    return AtOnce(
        issued, _p95(accepted), max(saver.times_ms[:until_accepted], default=0.0), _p95(saver.times_ms), took_s
    )


class Saver(threading.Thread):
    """Somebody who saves again and again, and how long each took [ms]."""

    def __init__(self, url: str, number: int) -> None:
        super().__init__()
        self._url, self._number, self._ended = url, number, threading.Event()
        self.times_ms: list[float] = []

    def run(self) -> None:
        """Save until it is enough."""
        document, version = _called(self._url, "GET", f"/api/v1/jobs/{self._number}")["job"], 1
        while not self._ended.wait(0.1):
            document["reference"] = str(version)
            head = {"Content-Type": "application/json", "If-Match": str(version)}
            path, body = f"/api/v1/jobs/{self._number}", json.dumps(document).encode()
            self.times_ms.append(_timed(self._url, "PUT", path, body, head))
            version += 1

    def end(self) -> None:
        """It is enough."""
        self._ended.set()
        self.join()


def _until_done(url: str, states: list[Any]) -> list[Any]:
    while any(one["state"] in ("waiting", "rendering") for one in states):
        time.sleep(0.5)
        states = [_called(url, "GET", f"/api/v1/issues/{one['id']}") for one in states]
    return states


@dataclass(frozen=True)
class Wish:
    """A certificate about to be asked for: which job's, its body, and its word and session among the headers."""

    number: int
    body: bytes
    head: dict[str, str]


def _wish(url: str, number: int) -> Wish:
    shown = _called(url, "GET", f"/api/v1/jobs/{number}")["job"]
    body = {"job": shown, "signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
    head = {"Content-Type": "application/json", "Origin": url}
    act = {"acts": [{"kind": "signature", "about": "certificate"}]}
    drawn, session = _answered(url, "POST", f"/api/v1/jobs/{number}/words", json.dumps(act).encode(), head)
    head |= {"If-Match": "1", "Fulmen-Word": drawn["words"][0]["word"], "Cookie": session.split(";")[0]}
    return Wish(number, json.dumps(body).encode(), head)


def _ask_all(url: str, wishes: list[Wish]) -> list[tuple[float, Any]]:
    """Every wish at the same moment, each by a thread of its own: how long each took [ms], and how it stands."""

    def ask(wish: Wish) -> tuple[float, Any]:
        started = time.perf_counter()
        state = _called(url, "POST", f"/api/v1/jobs/{wish.number}/papers", wish.body, wish.head)
        return (time.perf_counter() - started) * 1000, state

    with ThreadPoolExecutor(len(wishes)) as threads:
        return list(threads.map(ask, wishes))


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
