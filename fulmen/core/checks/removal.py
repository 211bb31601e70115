"""A unit taken away with nothing in its place: how what it hung on was left, each asked once."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.checks.survey import danger_finding, dangers_left
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules import removal as rules
from fulmen.core.findings.rules.supply import DANGER_LEFT
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CableLeft, Removal
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.survey.left_behind import wanted


def removal_findings(job: Job, edition: RuleSet) -> Iterator[Finding]:
    """Every finding about how a unit was taken away."""
    removal, left = job.site.removal, dangers_left(job)
    yield _cable(removal, edition)
    if left:
        yield danger_finding(ask(DANGER_LEFT, edition, ORIGIN), left)
    for one in wanted(removal):
        asked, seen = ask(one.rule, edition, ORIGIN), getattr(removal, one.field)
        if seen is Seen.YES:
            yield asked.meets(one.right)
        elif seen is Seen.NO:
            yield asked.falls_short(one.wrong, remedy=one.remedy)
        else:
            yield asked.needs_fact(one.question)


def _cable(removal: Removal, edition: RuleSet) -> Finding:
    asked = ask(rules.REMOVED_CABLE, edition, ORIGIN)
    if removal.cable is CableLeft.TAKEN_OUT:
        return asked.meets("Taken out.")
    if removal.cable is CableLeft.PARKED:
        return asked.meets("It stays, and feeds nothing.")
    if removal.cable is CableLeft.FEEDS_OTHER:
        detail = "It feeds something else now: that is an alteration with a certificate of its own. Say which."
        return asked.your_call(detail, basis={"cable": removal.cable.value})
    return asked.needs_fact("What became of its cable: taken out, left with its ends safe, or feeding something else?")
