"""The figures of each RCD: which goes on the schedule, and whether they agree with each other and with its kind."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.readings import AGREE_RCD_FIVE, AGREE_RCD_KIND
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.model.readings import ByStep, StepKey
from fulmen.core.verification.readings.agreement import within_errors
from fulmen.core.verification.steps.contents import instrument_error
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.step_applies import tested_rcds
from fulmen.core.verification.steps.step_limits import AT_RATED, FIVE_TIMES

AC_AT_RATED = (StepKey.RCD_TRIP, StepKey.RCD_AC_0, StepKey.RCD_AC_180, StepKey.RCD_ORIGIN_TRIP)


@dataclass(frozen=True)
class RcdFigures:
    """What goes on the schedule of one RCD [ms]: the longest at its rated current and the longest at five times it."""

    at_rated_ms: float | None
    at_five_ms: float | None


def rcd_figures(readings: ByStep, subject: str) -> RcdFigures:
    """The figures that go on the schedule, by rule: of every half-wave taken the longest.

    At rated current the alternating ones count, as the form asks for them; at five times those on pulsating DC too.
    """
    return RcdFigures(_longest(readings, AC_AT_RATED, subject), _longest(readings, FIVE_TIMES, subject))


def _longest(readings: ByStep, keys: tuple[StepKey, ...], subject: str) -> float | None:
    return max((one for key in keys if (one := readings.figure(key, subject)) is not None), default=None)


def rcd_findings(test: RunTest) -> list[Finding]:
    """Every finding about the opening times of the run's RCDs."""
    found: list[Finding | None] = []
    for subject, guard in tested_rcds(test.case.run, StepKey.RCD_TRIP).items():
        found += [_five_against_one(test, subject), _like_its_kind(test, subject, guard)]
    return [one for one in found if one is not None]


# The same wave at one and at five times the rated current.
HALF_WAVES = (
    (StepKey.RCD_TRIP, StepKey.RCD_FIVE),
    (StepKey.RCD_AC_0, StepKey.RCD_FIVE_AC_0),
    (StepKey.RCD_AC_180, StepKey.RCD_FIVE_AC_180),
    (StepKey.RCD_PULSE_0, StepKey.RCD_FIVE_PULSE_0),
    (StepKey.RCD_PULSE_180, StepKey.RCD_FIVE_PULSE_180),
)


def _five_against_one(test: RunTest, subject: str) -> Finding | None:
    """More current opens it sooner, half-wave by half-wave."""
    read = [
        ((instrument_error(test, one, subject), at_one), (instrument_error(test, five, subject), at_five))
        for one, five in HALF_WAVES
        if (at_one := test.figure(one, subject)) is not None and (at_five := test.figure(five, subject)) is not None
    ]
    if not read:
        return None
    asked = ask(AGREE_RCD_FIVE, test.rules, subject)
    # The pair that lies nearest to what can't be, or furthest past it.
    worst = max(read, key=lambda pair: pair[1][1] - pair[0][1])
    one_ms, five_ms = worst[0][1], worst[1][1]
    detail = f"{one_ms:g} ms at 1×, {five_ms:g} ms at 5×."
    found = within_errors(asked, worst, lambda off_ms: five_ms <= one_ms + off_ms, detail)
    return found or asked.your_call(f"{detail} Five times the current opens it sooner: swapped, or another dial?",
                                    basis={"one_ms": one_ms, "five_ms": five_ms})  # fmt: skip


def _like_its_kind(test: RunTest, subject: str, guard: PlacedGuard) -> Finding | None:
    """One without delay that takes as long as a time-delayed one does."""
    one_ms, slow_ms = _longest(test.readings, AT_RATED, subject), test.rules.value("rcd_delayed_trip_min_ms")
    if one_ms is None or guard.rcd is None or guard.rcd.time_delayed:
        return None
    asked, detail = ask(AGREE_RCD_KIND, test.rules, subject), f"{guard.name}: {one_ms:g} ms at 1×."
    if one_ms < slow_ms:
        return asked.meets(detail)
    return asked.your_call(f"{detail} As slow as a time-delayed one: read its mark, press its button, test again.",
                           basis={"one_ms": one_ms})  # fmt: skip
