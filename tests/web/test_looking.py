"""Looking for other ways: two at once, the others wait; told early, goes on, stopped, ended when nobody listens."""

import os
import time
import unittest
from collections.abc import Callable, Iterator
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest.mock import patch

from fulmen.core.errors import InputError, JobFileError
from fulmen.core.materials.prices import invented_prices
from fulmen.core.so_far import SoFar, finished
from fulmen.store.errors import Busy, Outdated
from fulmen.web.looking import child
from fulmen.web.looking.child import Told, TooBig, tell
from fulmen.web.looking.lookings import AT_ONCE, MOST_KEPT, UNHEARD_S, Looking, Lookings, LookingState
from tests.app import PATIENCE_S, AppCase
from tests.core.test_looking import evaluation_s
from tests.jobs import ALL_ELECTRIC, AT_SURVEY, DEVICE_IN_UNIT, FALLS_SHORT, TREATED_AS_PME, job


def counting(folder: str, name: str, most: int, step_s: float = 0.01) -> Iterator[SoFar[int]]:
    """Counts, and leaves word of whose process it is."""
    (Path(folder) / name).write_text(str(os.getpid()))
    for tried in range(most + 1):
        yield SoFar(tried, most, lambda tried=tried: tried)  # type: ignore[misc]
        time.sleep(step_s)


def endless(folder: str, name: str) -> Iterator[SoFar[int]]:
    return counting(folder, name, 10_000_000)


def refused() -> Iterator[SoFar[int]]:
    raise InputError("charge_point", "There is none.")


def refused_as_a_file() -> Iterator[SoFar[int]]:
    raise JobFileError([InputError("circuits.0", "One."), InputError("circuits.1", "Two.")])


def dies() -> Iterator[SoFar[int]]:
    yield SoFar(0, 2, lambda: 0)
    os._exit(3)


def takes_all_memory() -> Iterator[SoFar[int]]:
    kept = []
    while True:
        kept.append(bytearray(50_000_000))
        yield SoFar(len(kept), 1000, list)


def goes_wrong() -> Iterator[SoFar[int]]:
    yield SoFar(0, 2, lambda: 0)
    raise RuntimeError("a mistake of ours")


class InTurn(unittest.TestCase):
    """With questions of the tests' own: how they are told, take turns and end."""

    def setUp(self) -> None:
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = folder.name
        self.clock = [0.0]
        self.lookings = Lookings(lambda: self.clock[0])
        self.addCleanup(self.lookings.stop_all)

    def wait_for(self, seen: Callable[[], Any]) -> Any:
        until = time.monotonic() + PATIENCE_S
        while time.monotonic() < until:
            if found := seen():
                return found
            time.sleep(0.02)
        self.fail("It never came.")

    def process_of(self, name: str) -> int:
        file = Path(self.folder) / name
        return int(self.wait_for(lambda: file.is_file() and file.read_text()))

    @staticmethod
    def is_there(process: int) -> bool:
        """Whether a process runs; one that ended waits for its parent to look."""
        try:
            return "\nState:\tZ" not in Path(f"/proc/{process}/status").read_text()
        except OSError:
            return False

    def ends(self, process: int) -> None:
        self.wait_for(lambda: not self.is_there(process))

    def ended(self, ticket: str) -> Looking:
        return self.lookings.told(ticket, PATIENCE_S)

    def test_what_is_quick_is_told_at_once_and_then_forgotten(self) -> None:
        ticket = self.lookings.begin(counting, self.folder, "a", 3)
        found = self.ended(ticket)
        self.assertEqual((found.state, found.told), (LookingState.FINISHED, Told(3, 3, 3, last=True)))
        with self.assertRaises(Outdated):
            self.lookings.told(ticket)

    def test_what_is_slow_is_told_so_far_and_goes_on_to_its_end(self) -> None:
        ticket = self.lookings.begin(counting, self.folder, "a", 150)
        early = self.wait_for(lambda: (one := self.lookings.told(ticket)).told.found is not None and one.told)
        self.assertLess(early.found, 150)
        self.assertEqual(early.found, early.tried)
        self.assertEqual(self.ended(ticket).told, Told(150, 150, 150, last=True))

    def test_one_whose_process_cannot_be_begun_is_told_so_and_the_next_has_its_turn(self) -> None:
        for error in (OSError("no more processes"), RuntimeError("too early"), EOFError()):
            with (
                self.subTest(error=error),
                patch("fulmen.web.looking.lookings.PROCESSES.Process.start", side_effect=error),
                self.assertLogs("fulmen.web.looking.lookings", "WARNING"),
                self.assertRaisesRegex(Busy, "Ask again"),
            ):
                self.ended(self.lookings.begin(counting, self.folder, "a", 3))
        self.assertEqual(self.ended(self.lookings.begin(counting, self.folder, "a", 3)).state, LookingState.FINISHED)

    def test_two_at_once_the_others_wait_and_have_their_turn(self) -> None:
        tickets = [self.lookings.begin(endless, self.folder, str(number)) for number in range(AT_ONCE + 2)]
        states = [self.lookings.told(one).state for one in tickets]
        self.assertEqual(states, [LookingState.GOES_ON] * AT_ONCE + [LookingState.WAITS] * 2)
        first = self.process_of("0")
        self.lookings.stop(tickets[0])
        self.process_of(str(AT_ONCE))
        # The one whose place it took is gone by then.
        self.assertFalse(self.is_there(first))
        self.assertEqual(self.lookings.told(tickets[-1]).state, LookingState.WAITS)
        self.assertFalse((Path(self.folder) / str(AT_ONCE + 1)).exists())

    def test_stopped_it_ends_and_tells_how_far_it_came(self) -> None:
        ticket = self.lookings.begin(endless, self.folder, "a")
        process = self.process_of("a")
        self.wait_for(lambda: self.lookings.told(ticket).told.tried)
        self.lookings.stop(ticket)
        found = self.lookings.told(ticket)
        self.assertEqual(found.state, LookingState.STOPPED)
        self.assertGreater(found.told.found, 0)
        self.ends(process)

    def test_one_that_waits_can_be_stopped_before_its_turn(self) -> None:
        tickets = [self.lookings.begin(endless, self.folder, str(number)) for number in range(AT_ONCE + 1)]
        self.lookings.stop(tickets[-1])
        self.assertEqual(self.lookings.told(tickets[-1]).state, LookingState.STOPPED)
        for one in tickets[:AT_ONCE]:
            self.lookings.stop(one)
        self.assertFalse((Path(self.folder) / str(AT_ONCE)).exists())

    def test_ended_once_nobody_listens(self) -> None:
        """At the limit it goes on; past it it ends, and whoever comes later is told to ask again."""
        ticket = self.lookings.begin(endless, self.folder, "a")
        process = self.process_of("a")
        self.clock[0] = UNHEARD_S
        self.lookings.told(ticket)
        self.clock[0] = 2 * UNHEARD_S
        time.sleep(0.5)
        self.assertTrue(self.is_there(process))
        self.clock[0] = 2 * UNHEARD_S + 0.1
        self.ends(process)
        with self.assertRaises(Outdated):
            self.lookings.told(ticket)

    def test_too_many_are_refused_and_room_comes_back(self) -> None:
        tickets = [self.lookings.begin(endless, self.folder, str(number)) for number in range(MOST_KEPT)]
        with self.assertRaises(Busy):
            self.lookings.begin(endless, self.folder, "one too many")
        self.lookings.stop(tickets[-1])
        self.lookings.told(tickets[-1])
        self.lookings.begin(endless, self.folder, "after it")

    def test_what_can_not_be_asked_is_refused_like_anywhere_else(self) -> None:
        with self.assertRaises(InputError) as caught:
            self.ended(self.lookings.begin(refused))
        self.assertEqual((caught.exception.field, caught.exception.message), ("charge_point", "There is none."))
        with self.assertRaises(JobFileError) as several:
            self.ended(self.lookings.begin(refused_as_a_file))
        self.assertEqual([one.field for one in several.exception.problems], ["circuits.0", "circuits.1"])

    def test_one_that_dies_or_goes_wrong_or_takes_too_much_ends_and_the_next_has_its_turn(self) -> None:
        with self.assertLogs("fulmen.web.looking.lookings", "WARNING"):
            with self.assertRaises(Busy):
                self.ended(self.lookings.begin(dies))
            with self.assertRaises(RuntimeError) as caught:
                self.ended(self.lookings.begin(goes_wrong))
            # The log of the server says where.
            self.assertIn("in goes_wrong", caught.exception.__notes__[0])
            with self.assertRaises(TooBig):
                self.ended(self.lookings.begin(takes_all_memory))
            self.wait_for(lambda: not self.lookings._going)
        self.assertEqual(self.ended(self.lookings.begin(counting, self.folder, "a", 1)).state, LookingState.FINISHED)


class Through(AppCase):
    """Through the app: what ends without an answer is told as a problem."""

    def asked(self, how: Callable[..., Any]) -> Any:
        with patch("fulmen.web.looking.child.how_far_it_holds", how):
            body = {"job": job().model_dump(mode="json"), "charge_point": "charge-point"}
            told = self.client.post("/api/v1/reach", json=body)
            while told.status_code == 200 and told.get_json()["state"] in ("waits", "goes_on"):
                time.sleep(0.05)
                told = self.client.get(f"/api/v1/reach/{told.get_json()['ticket']}")
        return told

    def test_what_needs_too_much_memory_or_dies_is_told(self) -> None:
        for how, words in ((takes_all, "more memory"), (dies_at_once, "broke off")):
            with self.subTest(words):
                told = self.asked(how)
                self.assertEqual((told.status_code, told.mimetype), (503, "application/problem+json"))
                self.assertIn(words, told.get_json()["detail"])

    def test_a_mistake_of_ours_is_logged_with_its_place(self) -> None:
        with self.assertLogs(level="ERROR") as logs:
            self.assertEqual(self.asked(goes_wrong_at_once).status_code, 500)
        self.assertIn("in goes_wrong", "\n".join(logs.output))


def takes_all(*_: Any) -> Iterator[SoFar[int]]:
    return takes_all_memory()


def dies_at_once(*_: Any) -> Iterator[SoFar[int]]:
    return dies()


def goes_wrong_at_once(*_: Any) -> Iterator[SoFar[int]]:
    return goes_wrong()


# On a quiet machine of the usual kind, with room.
USUAL_EVALUATION_S = 0.01


class AtATenthOfTheSpeed(unittest.TestCase):
    """A clock ten times faster than this machine's processor time: it is told early, and ends as without any hurry."""

    TENTH = 10.0

    def first_told_s(self, steps: child.Steps) -> float:
        """When it is told first; the least of some, as what else the machine does only ever adds to it."""
        began_s = time.thread_time()

        def clock() -> float:
            return (time.thread_time() - began_s) * self.TENTH

        for one in steps:
            if clock() >= child.FIRST_TOLD_S:
                one.tell()
                break
        return clock()

    def test_each_is_told_within_a_second_and_a_half_of_its_first_steps_and_ends_alike(self) -> None:
        questions: dict[str, tuple[Callable[..., child.Steps], tuple[Any, ...]]] = {
            "search": (child.other_ways, (job(TREATED_AS_PME), "charge-point", invented_prices())),
            "search of much": (child.other_ways, (job(ALL_ELECTRIC), "charge-point", invented_prices())),
            "reach": (child.how_far_it_holds, (job(DEVICE_IN_UNIT), "charge-point")),
            "unknowns": (child.unknown_facts, (job(AT_SURVEY),)),
            "remedies": (child.remedies, (job(FALLS_SHORT), "volt_drop/ev")),
            "order": (child.order_of_tests, (job(DEVICE_IN_UNIT),)),
        }
        # Where this machine itself is slow, a step is what it is: the limit grows with it.
        limit_s = 1.5 * max(1.0, evaluation_s() / USUAL_EVALUATION_S)
        for name, (steps_of, given) in questions.items():
            with self.subTest(name):
                told: list[tuple[float, Told]] = []
                began_s = time.thread_time()

                def clock(began_s: float = began_s) -> float:
                    return (time.thread_time() - began_s) * self.TENTH

                tell(steps_of(*given), lambda one: told.append((clock(), one)), clock)  # noqa: B023
                first_s = min(told[0][0], *(self.first_told_s(steps_of(*given)) for _ in range(2)))
                self.assertLessEqual(first_s, limit_s, "told too late")
                self.assertEqual(told[-1][1].found, finished(steps_of(*given)))
                self.assertTrue(told[-1][1].last)
                self.assertTrue(all(one.tried <= one.of for _, one in told))


if __name__ == "__main__":
    unittest.main()
