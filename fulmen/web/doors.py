"""The doors: each listens on its own address, or says in one sentence why it can't."""

from __future__ import annotations

import threading
from collections.abc import Callable
from errno import EADDRINUSE
from typing import Any

from flask import Flask
from waitress.server import create_server

from fulmen.settings import Settings

# Slow clients keep a connection, never a thread; the bounds hold for each door by itself.
LIMITS: dict[str, Any] = {
    "connection_limit": 400,
    "channel_timeout": 20,
    "cleanup_interval": 5,
    "max_request_header_size": 32_768,
    "max_request_body_size": 21_000_000,
}


def open_doors(settings: Settings, app: Flask, householders: Flask | None) -> Callable[[], None]:
    """Listen at both doors; what is given back serves until it is stopped.

    Raises:
        ValueError: a door can't be opened, and why.
    """
    front = _listen(app, settings.host, settings.port, "FULMEN_PORT", threads=8)
    if householders is not None:
        where = settings.householder_host, settings.householder_port
        side = _listen(householders, *where, "FULMEN_HOUSEHOLDER_PORT", threads=4)
        threading.Thread(target=side.run, name="householders", daemon=True).start()
    run: Callable[[], None] = front.run
    return run


def _listen(app: Flask, host: str, port: int, setting: str, *, threads: int) -> Any:
    try:
        return create_server(app, host=host, port=port, threads=threads, map={}, **LIMITS)
    except OSError as error:
        why = "another program listens there already" if error.errno == EADDRINUSE else (error.strerror or str(error))
        raise ValueError(f"Can't listen at {host}:{port}: {why}. Choose another with {setting}.") from None
