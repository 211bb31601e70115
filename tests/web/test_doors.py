"""The doors: what is refused before it is kept, told as a problem; slow and many; safe headers; who may come from where."""

import http.client
import json
import re
import socket
import time
from typing import Any

from fulmen.settings import Settings
from fulmen.web.app import create_app
from fulmen.web.doors.limits import Buckets
from fulmen.web.doors.listening import Bounds, listen, open_doors
from fulmen.web.doors.policy import Role
from tests.app import PATIENCE_S, AppCase, Served
from tests.jobs import DEVICE_IN_UNIT

API = "/api/v1"


def bounds(connections: int = 200, calls: float = 10_000, link: float = 10_000) -> Bounds:
    return Bounds(connections, Buckets(calls, 0.0), Buckets(link, 0.0))


class Raw:
    """One connection, byte by byte."""

    def __init__(self, url: str) -> None:
        host, port = url.removeprefix("http://").split(":")
        self.socket = socket.create_connection((host, int(port)), timeout=30)

    def send(self, data: bytes) -> None:
        self.socket.sendall(data)

    def answer(self) -> tuple[int, dict[str, str], Any]:
        response = http.client.HTTPResponse(self.socket)
        response.begin()
        body = response.read()
        kind = response.headers.get("Content-Type", "")
        return response.status, dict(response.headers), json.loads(body) if "json" in kind else body

    def closed(self, within_s: float) -> bool:
        self.socket.settimeout(within_s)
        try:
            return self.socket.recv(1) == b""
        except TimeoutError:
            return False
        except OSError:
            return True


class AtTheDoor(AppCase):
    def served(self, limits: Bounds | None = None, door: Role = Role.ELECTRICIAN) -> Served:
        app = self.app if door is Role.ELECTRICIAN else create_app(self.settings, door)
        served = Served(app, limits or bounds())
        served.__enter__()
        self.addCleanup(served.__exit__)
        if app is not self.app:
            self.addCleanup(app.extensions["sessions"].kw["bind"].dispose)
        return served

    def told(self, url: str, data: bytes, status: int, words: str) -> None:
        raw = Raw(url)
        raw.send(data)
        found, headers, body = raw.answer()
        self.assertEqual((found, headers["Content-Type"]), (status, "application/problem+json"), body)
        self.assertIn(words, body["detail"])

    def test_what_the_server_below_refuses_is_a_problem_too(self) -> None:
        url = self.served().url
        head = b"POST /api/v1/evaluate HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n"
        for data, status, words in (
            (b"GARBAGE\r\n\r\n", 400, "can't be understood"),
            (b"GET / HTTP/1.1\r\nbroken header\r\n\r\n", 400, "can't be understood"),
            (b"GET / HTTP/1.1\r\nX: " + b"x" * 40_000 + b"\r\n\r\n", 431, "head"),
            (head + b"Content-Length: 2000000\r\n\r\n", 413, "at most 1 MB"),
            (head.replace(b"evaluate", b"half-hours") + b"Content-Length: 5000000\r\n\r\n", 413, "at most 4 MB"),
            (head.replace(b"evaluate", b"jobs/1/photos") + b"Content-Length: 30000000\r\n\r\n", 413, "at most 20 MB"),
            (head + b"Content-Length: -5\r\n\r\n", 400, "can't be understood"),
            (head + b"Transfer-Encoding: chunked\r\n\r\n5\r\nhello\r\n0\r\n\r\n", 400, "with its length"),
            (head + b"Transfer-Encoding: gzip\r\n\r\n", 400, "can't be understood"),
        ):  # fmt: skip
            with self.subTest(data[:60]):
                self.told(url, data, status, words)

    def test_calls_of_one_address_are_bounded_and_come_back(self) -> None:
        clock = [0.0]
        limits = Bounds(200, Buckets(3, 1.0, lambda: clock[0]), Buckets(1000, 1))
        url = self.served(limits).url
        call = b"GET /api/v1/jobs HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n"

        def status() -> int:
            raw = Raw(url)
            raw.send(call)
            return raw.answer()[0]

        self.assertEqual([status() for _ in range(5)], [200, 200, 200, 429, 429])
        clock[0] += 2.0
        self.assertEqual([status() for _ in range(3)], [200, 200, 429])

    def test_calls_by_one_link_are_bounded_before_their_body(self) -> None:
        self.store(DEVICE_IN_UNIT)
        made = self.client.post(f"{API}/jobs/1/links", json={"made_by": "R. Quillfeather"}).get_json()
        secret = made["address"].rpartition("/")[2]
        url = self.served(bounds(link=2), Role.HOUSEHOLDER).url
        for wanted in (200, 200, 429):
            raw = Raw(url)
            raw.send(
                f"GET {API}/householder/{secret} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n".encode()
            )
            self.assertEqual(raw.answer()[0], wanted)
        # A body that is announced is not waited for.
        head = f"POST {API}/householder/{secret}/photos/photo_way HTTP/1.1\r\nHost: localhost\r\nContent-Length: 900000\r\n\r\n"
        self.told(url, head.encode(), 429, "Too many calls")

    def test_guessing_secrets_ends(self) -> None:
        client = create_app(self.settings, Role.HOUSEHOLDER).test_client()
        answers = [client.get(f"{API}/householder/{'x' * 30}{number}").status_code for number in range(25)]
        self.assertEqual((answers.count(404), answers.count(429)), (20, 5))

    def test_more_connections_than_an_address_needs_are_closed(self) -> None:
        url = self.served(bounds(connections=5)).url
        kept = [Raw(url) for _ in range(8)]
        # Waits for the three that are closed; the others stay open while they are looked at.
        until = time.monotonic() + PATIENCE_S
        while sum(one.closed(0.05) for one in kept) < 3 and time.monotonic() < until:
            pass
        self.assertEqual(sum(one.closed(0.3) for one in kept), 3)

    def test_a_slow_one_is_dropped(self) -> None:
        from unittest.mock import patch

        with patch("fulmen.web.doors.listening.HEADERS_WITHIN_S", 0.5):
            raw = Raw(self.served().url)
            for byte in b"GET / HTTP/1.1\r\n":
                try:
                    raw.send(bytes([byte]))
                except OSError:
                    break
                time.sleep(0.06)
            self.assertTrue(raw.closed(PATIENCE_S))

    def test_a_door_that_can_not_be_opened_says_why(self) -> None:
        taken = socket.socket()
        self.addCleanup(taken.close)
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        for settings, name in (
            (Settings(port=port), "FULMEN_PORT"),
            (Settings(port=0, householder_port=port), "FULMEN_HOUSEHOLDER_PORT"),
        ):
            with self.subTest(name), self.assertRaises(ValueError) as caught:
                open_doors(settings, self.app, self.app if settings.householder_port else None)
            self.assertEqual(
                str(caught.exception),
                f"Can't listen at 127.0.0.1:{port}: another program listens there already. Choose another: {name}.",
            )
        with self.assertRaisesRegex(ValueError, "Can't listen at 198.51.100.7"):
            open_doors(Settings(host="198.51.100.7"), self.app, None)
        self.assertTrue(callable(listen))


class Headers(AppCase):
    def test_no_inline_script_or_style_gets_in(self) -> None:
        page = self.client.get("/")
        policy = page.headers["Content-Security-Policy"]
        self.assertNotIn("unsafe", policy)
        nonce = re.search(r"'nonce-([\w-]{20,})'", policy)
        assert nonce is not None
        self.assertIn(f'content="{nonce[1]}"', page.text)
        self.assertNotIn("csp-nonce-goes-here", page.text)
        self.assertNotEqual(self.client.get("/").headers["Content-Security-Policy"], policy, "each page has its own")
        self.assertNotRegex(page.text, r"<script(?![^>]*\bsrc=)|<style|\sstyle=|\son\w+=")
        for path in ("/", f"{API}/jobs", "/assets/nothing.js", f"{API}/nowhere"):
            headers = self.client.get(path).headers
            with self.subTest(path):
                self.assertEqual(headers["Cross-Origin-Resource-Policy"], "same-origin")
                self.assertEqual(headers["X-Content-Type-Options"], "nosniff")
                self.assertIn("script-src 'self'", headers["Content-Security-Policy"])

    def test_only_hosts_and_origins_of_ours(self) -> None:
        for host, status in (("localhost", 200), ("127.0.0.1:8750", 200), ("evil.invalid", 400),
                             ("localhost.evil.invalid", 400), ("", 400)):  # fmt: skip
            with self.subTest(host=host):
                answer = self.client.get(f"{API}/jobs", headers={"Host": host})
                self.assertEqual(answer.status_code, status, answer.text)
                self.assertTrue(answer.mimetype.endswith("json"))
        self.app.config["HOUSEHOLDER_URL"] = "https://ask.example"
        for origin, status in (("http://localhost", 201), ("https://localhost", 403), ("http://localhost:81", 403),
                               ("https://ask.example", 201), ("http://ask.example", 403), ("null", 403)):  # fmt: skip
            answer = self.client.post(f"{API}/jobs/blank", json={"title": "x"}, headers={"Origin": origin})
            with self.subTest(origin=origin):
                self.assertEqual(answer.status_code, status)
