"""Rendering in a process of its own, at lower priority: a second of computing that no page should wait for."""

from __future__ import annotations

import os
import threading
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context, parent_process

from fulmen.documents.certificate import Issue, render_certificate
from fulmen.documents.rendering import warm_up


class RenderProcess:
    """Renders certificates; a process that died is replaced by another."""

    def __init__(self) -> None:
        self._pool = _pool()

    def start(self) -> None:
        """Have the process load the renderer before the first certificate is asked for."""
        self._pool.submit(os.getpid)

    def process_id(self) -> int:
        """The process that renders, started if it is not there yet."""
        return self._pool.submit(os.getpid).result()

    def stop(self) -> None:
        """End it once what it renders is done."""
        self._pool.shutdown()

    def __call__(self, issue: Issue) -> bytes:
        """The certificate's bytes."""
        try:
            return self._pool.submit(render_certificate, issue).result()
        except BrokenProcessPool:
            self._pool = _pool()
            return self._pool.submit(render_certificate, issue).result()


def _pool() -> ProcessPoolExecutor:
    return ProcessPoolExecutor(max_workers=1, mp_context=get_context("spawn"), initializer=_prepare)


def _prepare() -> None:
    threading.Thread(target=_end_with_the_server, daemon=True).start()
    os.nice(10)
    warm_up()


def _end_with_the_server() -> None:
    """A server that was killed leaves nobody behind."""
    server = parent_process()
    if server is not None:
        server.join()
    os._exit(0)
