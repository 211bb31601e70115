"""What a process does that looks for other ways: it takes every step, and tells now and then what is found so far."""

from __future__ import annotations

import os
import resource
import signal
import time
import traceback
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from multiprocessing.connection import Connection
from typing import Any

from fulmen.core.alternatives.choice_menu import choosing
from fulmen.core.alternatives.reach import reaching
from fulmen.core.alternatives.remedies import mending
from fulmen.core.alternatives.search.search import searching
from fulmen.core.alternatives.unknowns import weighing_unknowns
from fulmen.core.circuit.specification import ChoiceKey
from fulmen.core.evaluate import evaluate
from fulmen.core.installation.installation import installation_of
from fulmen.core.materials.prices import PriceList
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.so_far import SoFar
from fulmen.core.verification.steps.coach import coaching
from fulmen.core.verification.steps.site_map import site_map

# The first is told early; from then on telling takes no more than a third of the time.
FIRST_TOLD_S, TOLD_EVERY_S, STEPS_FOR_A_TELLING = 0.5, 0.5, 2.0
MOST_MEMORY = 1_500_000_000
Steps = Iterator[SoFar[Any]]


class TooBig(Exception):
    """A question that needs more memory than it may have."""


@dataclass(frozen=True)
class Told:
    """How far somebody came who looks, with the best so far; `last` once everything was tried."""

    tried: int
    of: int
    found: Any
    last: bool = False


def other_ways(job: Job, charge_point: str, prices: PriceList) -> Steps:
    """Every sensible way to feed one charge point."""
    return searching(job, charge_point, rule_set(job.rule_set), prices)


def how_far_it_holds(job: Job, charge_point: str) -> Steps:
    """How far the design of one charge point holds."""
    return reaching(job, charge_point, rule_set(job.rule_set))


def unknown_facts(job: Job) -> Steps:
    """What the unknown facts could upset."""
    return weighing_unknowns(job, rule_set(job.rule_set))


def remedies(job: Job, finding: str) -> Steps:
    """The smallest changes that make a finding hold."""
    return mending(job, finding, rule_set(job.rule_set))


def alternatives(job: Job, circuit: str, choice: ChoiceKey) -> Steps:
    """What every way to fill a choice would do."""
    return choosing(job, circuit, choice, rule_set(job.rule_set))


def order_of_tests(job: Job) -> Steps:
    """The order of the test steps with the fewest moves."""
    return coaching(evaluate(job, rule_set(job.rule_set)).steps, site_map(installation_of(job)))


def look(out: Connection, steps_of: Callable[..., Steps], given: tuple[Any, ...]) -> None:
    """Look, and send what is told over a pipe; an error that stops it is sent as it is."""
    # Ctrl-C is for the server, which ends this process with itself.
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))

    def send(told: Told) -> None:
        out.send(told)
        # What is told first is waited for like any page; what goes on from there has time.
        os.nice(5 - os.nice(0))

    try:
        tell(steps_of(*given), send, time.monotonic)
    except BrokenPipeError:
        pass  # Nobody listens any more.
    except MemoryError:
        out.send(TooBig("It needs more memory than one question may have: nothing more was tried."))
    except Exception as error:  # noqa: BLE001  Whatever it is: whoever asked is told.
        # Where it happened is here; a traceback does not travel.
        error.add_note(traceback.format_exc())
        out.send(error)


def tell(steps: Steps, send: Callable[[Told], object], clock: Callable[[], float]) -> None:
    """Take every step and tell how far it is, the first time early."""
    due_s = clock() + FIRST_TOLD_S
    one = None
    for one in steps:
        now_s = clock()
        if now_s >= due_s:
            send(Told(one.tried, one.of, one.tell()))
            told_s = clock()
            due_s = told_s + max(TOLD_EVERY_S, STEPS_FOR_A_TELLING * (told_s - now_s))
    assert one is not None
    send(Told(one.tried, one.of, one.tell(), last=True))
