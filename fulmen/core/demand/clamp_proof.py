"""What a clamp's test shows: whether it sees the house's load, and whether the unit turns the car down in time."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from fulmen.core.findings.question import Edition
from fulmen.core.model.clamp import ClampProof
from fulmen.core.model.seen import Seen


class ClampCause(StrEnum):
    """What the figures of a clamp's test say."""

    RIGHT = "right"
    NOT_TESTED = "not_tested"
    NOT_ENOUGH_LOAD = "not_enough_load"
    REVERSED = "reversed"
    BOTH_CONDUCTORS = "both_conductors"
    WRONG_TAIL = "wrong_tail"
    DEAD_PAIR = "dead_pair"
    LIMIT_NOT_SET = "limit_not_set"
    TOO_SLOW = "too_slow"
    UNCLEAR = "unclear"


@dataclass(frozen=True)
class ClampVerdict:
    """The cause, and what the car should have been offered with the load on [A]; 0 where it must pause."""

    cause: ClampCause
    should_offer_a: float | None = None


def clamp_verdict(proof: ClampProof, limit_a: float, car_a: float, edition: Edition) -> ClampVerdict:
    """What a clamp's test shows.

    The change that the unit shows must be the known load: the same the other way round is a reversed clamp, none is a
    clamp that sees nothing (round both conductors, a dead pair) or something else (the wrong tail). Seen rightly, the
    car may be offered no more than limit − house, and nothing below 6 A.

    Args:
        proof: what was seen.
        limit_a: the load limit that the job is designed with [A].
        car_a: what the unit is set to at most [A].
        edition: `clamp_test_load_a`, `clamp_reads_within_share`, `clamp_follows_within_s`, `car_min_a`.
    """
    load_a, before_a, with_a = proof.known_load_a, proof.shown_without_a, proof.shown_with_a
    if load_a is None or before_a is None or with_a is None:
        return ClampVerdict(ClampCause.NOT_TESTED)
    if load_a < edition.value("clamp_test_load_a"):
        return ClampVerdict(ClampCause.NOT_ENOUGH_LOAD)
    within_a, change_a = edition.value("clamp_reads_within_share") * load_a, with_a - before_a
    if abs(change_a - load_a) <= within_a:
        return _turned_down(proof, min(limit_a, proof.test_limit_a or limit_a), car_a, edition)
    if abs(change_a + load_a) <= within_a:
        return ClampVerdict(ClampCause.REVERSED)
    return ClampVerdict(_blind(proof, within_a) if abs(change_a) <= within_a else ClampCause.UNCLEAR)


def _blind(proof: ClampProof, within_a: float) -> ClampCause:
    """Why a clamp does not see the known load at all."""
    if proof.reports_fault is Seen.YES:
        return ClampCause.DEAD_PAIR
    shown = [abs(one) for one in (proof.shown_without_a, proof.shown_with_a, proof.shown_with_car_a) if one is not None]
    # Something is seen, but not the house's incoming line.
    return ClampCause.WRONG_TAIL if max(shown, default=0.0) > within_a else ClampCause.BOTH_CONDUCTORS


def _turned_down(proof: ClampProof, limit_a: float, car_a: float, edition: Edition) -> ClampVerdict:
    assert proof.shown_with_a is not None
    room_a = limit_a - proof.shown_with_a
    if room_a >= car_a:
        return ClampVerdict(ClampCause.NOT_ENOUGH_LOAD, car_a)
    should_a = room_a if room_a >= edition.value("car_min_a") else 0.0
    if proof.offered_without_a is None or proof.offered_with_a is None or proof.follows_s is None:
        return ClampVerdict(ClampCause.NOT_TESTED, should_a)
    # Offered no more before the load came on: nothing had to turn down, so nothing was seen to.
    if proof.offered_without_a <= should_a:
        return ClampVerdict(ClampCause.NOT_ENOUGH_LOAD, should_a)
    # A unit offers whole amperes: one above is rounding.
    if proof.offered_with_a > should_a + 1.0:
        return ClampVerdict(ClampCause.LIMIT_NOT_SET, should_a)
    slow = proof.follows_s > edition.value("clamp_follows_within_s")
    return ClampVerdict(ClampCause.TOO_SLOW if slow else ClampCause.RIGHT, should_a)
