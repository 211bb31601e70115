"""A unit taken away with nothing in its place: that nothing is put in, and how what it hung on was left."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.checks.survey import danger_finding, dangers_left
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules import removal as rules
from fulmen.core.findings.rules.supply import DANGER_LEFT
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.job import Job
from fulmen.core.model.site import CableLeft, Removal
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.survey.left_behind import wanted
from fulmen.core.survey.put_in import put_in


def removal_findings(job: Job, edition: RuleSet) -> Iterator[Finding]:
    """Every finding about how a unit was taken away."""
    removal, left = job.site.removal, dangers_left(job)
    yield from _put_in(job, edition)
    yield _cable(removal, edition)
    if left:
        yield danger_finding(ask(DANGER_LEFT, edition, ORIGIN), left)
    for one in wanted(removal):
        asked, said = ask(one.rule, edition, ORIGIN), getattr(removal, one.field)
        if said in one.right:
            yield asked.meets(one.right[said])
        elif said in one.wrong:
            yield asked.falls_short(one.wrong[said], remedy=one.remedy)
        else:
            yield asked.needs_fact(one.question)


def _put_in(job: Job, edition: RuleSet) -> Iterator[Finding]:
    """What this job fits is judged as what is fitted, never as what is taken away."""
    if new := put_in(job):
        yield ask(rules.REMOVED_PUT_IN, edition, ORIGIN).falls_short(
            f"Said to be new with this job: {', '.join(dict.fromkeys(new.values()))}.",
            remedy="Say that it was there before, or choose another kind of work.",
        )


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
