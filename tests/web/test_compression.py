"""What goes over the wire: compressed where it may be, the version in its ETag still the version, secrets as they are."""

import gzip
import http.client
import json
import threading
import unittest
from typing import Any, ClassVar

import brotli
from backports import zstd
from waitress.server import create_server

from tests.acts import word_header
from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, example_text

UNPACK = {"gzip": gzip.decompress, "br": brotli.decompress, "zstd": zstd.decompress}
WHOLE = json.loads(example_text(DEVICE_IN_UNIT))


class Plain(AppCase):
    """Asked by the standard library's plain HTTP client, which unpacks nothing by itself."""

    def setUp(self) -> None:
        super().setUp()
        self.server = create_server(self.app, host="127.0.0.1", port=0)
        thread = threading.Thread(target=self.server.run, daemon=True)
        thread.start()
        self.addCleanup(thread.join, 5)
        self.addCleanup(self.server.close)

    def ask(self, method: str, path: str, body: Any = None, accept: str = "", **headers: str) -> tuple[Any, bytes]:
        connection = http.client.HTTPConnection("127.0.0.1", self.server.effective_port, timeout=60)
        self.addCleanup(connection.close)
        sent = None if body is None else json.dumps(body)
        told = {"Content-Type": "application/json"} if sent is not None else {}
        if accept:
            told["Accept-Encoding"] = accept
        connection.request(method, path, sent, told | headers)
        answer = connection.getresponse()
        return answer, answer.read()

    def make(self) -> str:
        answer, text = self.ask("POST", "/api/v1/jobs", WHOLE)
        self.assertEqual(answer.status, 201, text)
        return f"/api/v1/jobs/{json.loads(text)['id']}"


class RoundTrip(Plain):
    def test_a_version_goes_there_and_back_compressed_and_not(self) -> None:
        at = self.make()
        _, plain = self.ask("GET", at)
        for version, accept in enumerate(("", "identity", *UNPACK, "gzip, deflate, br, zstd"), 1):
            with self.subTest(accept):
                answer, body = self.ask("GET", at, accept=accept)
                encoding = answer.headers.get("Content-Encoding")
                self.assertEqual(encoding is not None, accept not in ("", "identity"))
                text = UNPACK[encoding](body) if encoding else body
                state = json.loads(text)
                self.assertEqual(state["version"], version)
                self.assertIn("Accept-Encoding", answer.headers["Vary"])
                if encoding:
                    self.assertLess(len(body), len(plain) / 4)
                state["job"]["title"] = f"Typed {version}"
                saved, told = self.ask("PUT", at, state["job"], **{"If-Match": answer.headers["ETag"]})
                self.assertEqual(saved.status, 200, told)
                # The same version once more is an old one now.
                again, _ = self.ask("PUT", at, state["job"], **{"If-Match": answer.headers["ETag"]})
                self.assertEqual(again.status, 409)

    def test_what_is_no_version_is_refused(self) -> None:
        at = self.make()
        for version in ('"1:rar"', '"1:"', 'W/"1"', '"1:gzip:br"', "1:gzip; x"):
            with self.subTest(version):
                answer, _ = self.ask("PUT", at, WHOLE, **{"If-Match": version})
                self.assertEqual(answer.status, 422)

    def test_no_answer_is_left_out_because_a_version_is_known(self) -> None:
        """A job's readings grow while its version stands: 304 would hide them."""
        at = self.make()
        answer, _ = self.ask("GET", at, accept="gzip")
        again, body = self.ask("GET", at, accept="gzip", **{"If-None-Match": answer.headers["ETag"]})
        self.assertEqual((again.status, bool(body)), (200, True))

    def test_small_answers_and_pictures_go_as_they_are(self) -> None:
        answer, _ = self.ask("GET", "/api/v1/jobs/99", accept="gzip")
        self.assertEqual((answer.status, answer.headers.get("Content-Encoding")), (404, None))


class Secrets(AppCase):
    """Asked as a browser asks; whatever it takes, an answer with a secret is sent as it is."""

    TAKES: ClassVar[dict[str, str]] = {"Accept-Encoding": "gzip, deflate, br, zstd"}

    def setUp(self) -> None:
        super().setUp()
        made = self.client.post("/api/v1/jobs", json=WHOLE)
        self.at = f"/api/v1/jobs/{made.get_json()['id']}"

    def secret_answers(self) -> dict[str, Any]:
        ours = {**self.TAKES, "Origin": "http://localhost"}
        link = self.client.post(f"{self.at}/links", json={"made_by": "A. Tester", "days": 3}, headers=self.TAKES)
        address = f"/api/v1/householder/{link.get_json()['address'].rpartition('/')[2]}"
        wanted = {"acts": [{"kind": "hold", "about": f"isolated/{number}"} for number in range(30)]}
        return {
            "a link's address": link,
            "what a link leads to": self.client.get(address, headers=self.TAKES),
            "words of a page": self.client.post(f"{self.at}/words", json=wanted, headers=ours),
        }

    def test_none_of_them_is_compressed(self) -> None:
        for what, answer in self.secret_answers().items():
            with self.subTest(what):
                self.assertLess(answer.status_code, 300, answer.text)
                self.assertNotIn("Content-Encoding", answer.headers)

    def test_a_session_is_sent_only_where_it_is_begun_or_renewed(self) -> None:
        word_header(self.client, 1)
        for what, answer in (("a job", self.client.get(self.at, headers=self.TAKES)),
                             ("the list", self.client.get("/api/v1/jobs", headers=self.TAKES))):  # fmt: skip
            with self.subTest(what):
                self.assertNotIn("Set-Cookie", answer.headers)
        self.assertEqual(self.client.get(self.at, headers=self.TAKES).headers["Content-Encoding"], "zstd")
        renewed = self.secret_answers()["words of a page"]
        self.assertIn("Set-Cookie", renewed.headers)


if __name__ == "__main__":
    unittest.main()
