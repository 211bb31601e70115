"""Papers in a process of their own, at lower priority: a second of computing that no page should wait for."""

from __future__ import annotations

import os
import threading
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context, parent_process
from typing import TypeVar, TypeVarTuple

from fulmen.core.evaluate import Evaluation
from fulmen.core.model.job import Job
from fulmen.core.papers.certificate import CertificateContents, certificate_contents
from fulmen.documents.certificate import Issue, render_certificate
from fulmen.documents.rendering import warm_up

Given = TypeVarTuple("Given")
Made = TypeVar("Made")


class RenderProcess:
    """Works out what certificates state, and renders them; a process that died is replaced by another."""

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
        return self._run(render_certificate, issue)

    def state(self, job: Job, evaluation: Evaluation) -> CertificateContents:
        """What the certificate of a job states."""
        return self._run(certificate_contents, job, evaluation)

    def _run(self, work: Callable[[*Given], Made], *given: *Given) -> Made:
        try:
            return self._pool.submit(work, *given).result()
        except BrokenProcessPool:
            self._pool = _pool()
            return self._pool.submit(work, *given).result()


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
