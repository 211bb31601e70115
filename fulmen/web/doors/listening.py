"""The doors: each listens on its own address, or says in one sentence why it can't.

What comes is bounded before anything of its body is kept: how much, how often from one address or by one link, how many
connections, how slowly. What the server itself refuses is told as a problem, like everything else.
"""

from __future__ import annotations

import re
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from errno import EADDRINUSE
from typing import Any

from flask import Flask
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser, ParsingError, TransferEncodingNotImplemented
from waitress.server import create_server
from waitress.task import ErrorTask
from waitress.utilities import Error

from fulmen.core.editing.job_file import MAX_BYTES
from fulmen.documents.paper_reader import MOST_BYTES as PAPER_BYTES
from fulmen.photos import MAX_BYTES as PHOTO_BYTES
from fulmen.settings import Settings
from fulmen.web.doors.guard import HALF_HOURS_BYTES, MORE_THAN_A_JOB
from fulmen.web.doors.limits import Buckets
from fulmen.web.doors.problems import Problem

# Headers must be there after so long, a body at this rate at least: 20 MB then take five minutes at the most.
HEADERS_WITHIN_S, SLOWEST_BYTES_S = 10.0, 60_000
SERVER: dict[str, Any] = {
    "connection_limit": 400,
    "channel_timeout": 20,
    "cleanup_interval": 5,
    "max_request_header_size": 32_768,
    "max_request_body_size": PHOTO_BYTES + 1,
    "ident": None,
    # A request is looked past while it is worked on, so that it is seen when nobody waits for its answer any more.
    "channel_request_lookahead": 1,
}
BODIES: tuple[tuple[str, int], ...] = (
    ("/photos", PHOTO_BYTES),
    ("/half-hours", HALF_HOURS_BYTES),
    ("/papers/verify", PAPER_BYTES),
)
LINK = re.compile(r"^/(?:api/v1/householder|answer)/([^/?]+)")


@dataclass(frozen=True)
class Bounds:
    """What a door lets through."""

    connections: int
    address: Buckets
    link: Buckets


def front_bounds() -> Bounds:
    """The electrician's door: one address is a whole firm."""
    return Bounds(200, Buckets(2000, 200), Buckets(300, 5))


def side_bounds() -> Bounds:
    """The householders' door: a proxy before it may be the only address."""
    return Bounds(100, Buckets(300, 10), Buckets(120, 2))


# Most of them wait, for a disk or for their turn: whoever saves must not stand behind fifty who ask for a certificate.
FRONT_THREADS = 64


@dataclass(frozen=True)
class Door:
    """Where a door is, the setting that moves it, how many serve it and what it lets through."""

    host: str
    port: int
    setting: str
    threads: int
    bounds: Bounds


def open_doors(settings: Settings, app: Flask, householders: Flask | None) -> Callable[[], None]:
    """Listen at both doors; what is given back serves until it is stopped.

    Raises:
        ValueError: a door can't be opened, and why.
    """
    front = listen(app, Door(settings.host, settings.port, "FULMEN_PORT", FRONT_THREADS, front_bounds()), {})
    if householders is not None:
        where = settings.householder_host, settings.householder_port
        side = listen(householders, Door(*where, "FULMEN_HOUSEHOLDER_PORT", 4, side_bounds()), {})
        threading.Thread(target=side.run, name="householders", daemon=True).start()
    run: Callable[[], None] = front.run
    return run


def listen(app: Flask, door: Door, sockets: dict[int, Any]) -> Any:
    """A server that listens, and is served by its `run`.

    Raises:
        ValueError: nothing can listen there, and why.
    """
    try:
        server = create_server(app, host=door.host, port=door.port, threads=door.threads, map=sockets, **SERVER)
    except OSError as error:
        why = "another program listens there already" if error.errno == EADDRINUSE else (error.strerror or str(error))
        raise ValueError(f"Can't listen at {door.host}:{door.port}: {why}. Choose another: {door.setting}.") from None
    server.channel_class = DoorChannel
    server.adj.bounds = door.bounds
    return server


class TooManyCalls(Error):
    """More calls than anybody needs."""

    code, reason = 429, "Too Many Requests"


class ProblemTask(ErrorTask):
    """What the server refuses before the app sees it, told as the app tells it."""

    def execute(self) -> None:
        """Answer with the problem, and close."""
        error = self.request.error
        status = 400 if error.code >= 500 and isinstance(self.request, DoorParser) else error.code
        most_mb = (self.request.adj.max_request_body_size - 1) / 1e6
        detail = SAID.get(status, f"The request can't be understood: {error.body}.").format(most_mb=f"{most_mb:.0f}")
        body = Problem(title=error.reason, status=status, detail=detail).model_dump_json().encode()
        self.status = f"{status} {error.reason}"
        self.response_headers.append(("Content-Type", "application/problem+json"))
        if status == TooManyCalls.code:
            self.response_headers.append(("Retry-After", "30"))
        self.set_close_on_finish()
        self.content_length = len(body)
        self.write(body)


SAID = {
    413: "Too big: at most {most_mb} MB can be taken.",
    429: "Too many calls: wait half a minute, then go on. Nothing of this one was kept.",
    431: "The head of the request is too big.",
}


class DoorParser(HTTPRequestParser):
    """Refuses by the head alone what is too big, comes too often by one link, or won't say how big it is."""

    refused: Error | None = None

    def parse_header(self, header_plus: bytes) -> None:
        """Read the head, and decide by it."""
        try:
            super().parse_header(header_plus)
        except TransferEncodingNotImplemented as error:
            raise ParsingError(str(error)) from None
        if self.chunked:
            raise ParsingError("send the body whole, with its length")
        self.adj: Any = _Narrowed(self.adj, _most_bytes(self.path))
        link = LINK.match(self.path)
        if link is not None and not self.adj.bounds.link.take(link[1][:100]):
            self.refused = TooManyCalls("too many calls by this link")

    def received(self, data: bytes) -> int:
        """Take some of the request; nothing of a body that is refused anyway."""
        taken: int = super().received(data)
        if self.refused is not None:
            self.error, self.completed = self.refused, True
        return taken


class _Narrowed:
    """The server's adjustments with a narrower bound on the body."""

    def __init__(self, adjustments: Any, most_bytes: int) -> None:
        self._adjustments, self.max_request_body_size = adjustments, most_bytes + 1

    def __getattr__(self, name: str) -> Any:
        return getattr(self._adjustments, name)


def _most_bytes(path: str) -> int:
    return next((most for part, most in BODIES if part in path), MAX_BYTES + MORE_THAN_A_JOB)


class DoorChannel(HTTPChannel):
    """One connection: not more of them than an address needs, none that takes its time."""

    parser_class = DoorParser
    error_task_class = ProblemTask
    began: float | None = None

    def __init__(self, server: Any, sock: Any, addr: Any, adj: Any, map: Any = None) -> None:
        super().__init__(server, sock, addr, adj, map=map)
        here = sum(one.addr[0] == addr[0] for one in server.active_channels.values())
        self.will_close = here > adj.bounds.connections

    def received(self, data: bytes) -> bool:
        """Take what came; a new request is counted first."""
        now = time.monotonic()
        if self.request is None:
            self.began = now
            if not self.adj.bounds.address.take(self.addr[0]):
                self._refuse(TooManyCalls("too many calls"))
                return True
        elif self._too_slow(now):
            self.will_close = True
            return False
        taken: bool = super().received(data)
        return taken

    def _too_slow(self, now: float) -> bool:
        request = self.request
        allowed_s = HEADERS_WITHIN_S
        if request.headers_finished:
            allowed_s += request.body_bytes_received / SLOWEST_BYTES_S + self.adj.channel_timeout
        return self.began is not None and now - self.began > allowed_s

    def _refuse(self, error: Error) -> None:
        request = self.parser_class(self.adj)
        request.headers_finished = request.completed = True
        request.error = error
        with self.requests_lock:
            if self.will_close or self.close_when_flushed:
                return
            self.requests.append(request)
            if len(self.requests) == 1:
                self.server.add_task(self)
