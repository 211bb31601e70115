"""Standing reasons: what a firm says wherever the same facts hold, kept in the store's settings.

A standing reason is offered, never taken by itself: it fits a call of the same rule that rests on the same facts, and
a condition that makes it sound is still looked at and named on every job. Taken, the decision says that it is one.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.model.base import Basis, Day, Line, Part, Reason

MOST_KEPT = 200


class StandingReason(Part):
    """What is said to a rule's call wherever it rests on these facts, who said so first, and when."""

    rule: Annotated[str, Field(pattern=r"^[a-z0-9_]{1,60}$")]
    basis: Basis
    reason: Reason
    name: Annotated[Line, Field(min_length=2)]
    kept_on: Day


class ReasonedFacts(Part):
    """A rule and the facts that a reason is for."""

    rule: Annotated[str, Field(pattern=r"^[a-z0-9_]{1,60}$")]
    basis: Basis


class StandingReasons(Part):
    """All that a firm keeps, one for a rule and its facts."""

    reasons: Annotated[tuple[StandingReason, ...], Field(max_length=MOST_KEPT)] = ()

    def without(self, facts: ReasonedFacts | StandingReason) -> StandingReasons:
        """The same without the reason for these facts."""
        others = tuple(one for one in self.reasons if (one.rule, one.basis) != (facts.rule, facts.basis))
        return StandingReasons(reasons=others)

    def keeping(self, reason: StandingReason) -> StandingReasons:
        """The same with a reason in it; the oldest goes where there are too many."""
        return StandingReasons(reasons=(*self.without(reason).reasons, reason)[-MOST_KEPT:])


class FittingReason(Part):
    """A standing reason for one open call of a job, by the finding's key."""

    finding: str
    standing: StandingReason


def fitting_reasons(findings: tuple[Finding, ...], kept: StandingReasons) -> tuple[FittingReason, ...]:
    """The standing reasons that fit the calls still open: same rule, same facts."""
    calls = [one for one in findings if one.verdict is Verdict.YOUR_CALL and one.is_open]
    return tuple(
        FittingReason(finding=call.key, standing=found) for call in calls if (found := _fits(call, kept)) is not None
    )


def _fits(call: Finding, kept: StandingReasons) -> StandingReason | None:
    return next((one for one in kept.reasons if one.rule == call.rule and one.basis == call.basis), None)
