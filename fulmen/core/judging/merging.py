"""Findings of several runs made into those of one job: each question once, the worst first."""

from __future__ import annotations

from collections.abc import Iterable

from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.plain import changed

ORDER = {Verdict.FALLS_SHORT: 0, Verdict.NEEDS: 1, Verdict.YOUR_CALL: 2, Verdict.MEETS: 3}


def once_each(found: Iterable[Finding], job: Job) -> tuple[Finding, ...]:
    """Each question once, with the worst of what several runs say of it, its decision, and whose it is.

    Of an existing circuit that nobody has looked at nothing meets.
    """
    unseen, names = _not_looked_at(job), _names(job)
    once: dict[str, Finding] = {}
    for finding in found:
        if finding.verdict is Verdict.MEETS and finding.subject in unseen:
            continue
        key = finding.key
        known = once.get(key)
        if known is None or severity(finding) < severity(known):
            once[key] = finding
    return tuple(_named(_decided(job, finding), names) for finding in once.values())


def worst_first(found: Iterable[Finding]) -> tuple[Finding, ...]:
    """What needs attention first; settled calls join what meets, the tightest margin leading."""
    return tuple(sorted(found, key=_urgency))


def severity(finding: Finding) -> tuple[int, float]:
    """The worse the less: of what several runs say of one thing, the worst counts."""
    return ORDER[finding.verdict], finding.margin if finding.margin is not None else 1.0


def _urgency(finding: Finding) -> tuple[bool, int, float]:
    order, margin = severity(finding)
    return (False, order, margin) if finding.is_open else (True, 3, margin)


def _not_looked_at(job: Job) -> set[str]:
    """The subjects of existing circuits and their sections that nobody has looked at."""
    unseen = [one for one in job.circuits if not one.fitted_with_this_job and one.looked_at is not Seen.YES]
    sections = {f"{one.id}-{number}" for one in unseen for number in range(1, len(one.route) + 1)}
    return {one.id for one in unseen} | sections


def _decided(job: Job, finding: Finding) -> Finding:
    """The finding with the decision that settles it, if one was taken on the same basis."""
    decision = job.decision(finding.key) if finding.verdict is Verdict.YOUR_CALL else None
    if decision is None or decision.basis != finding.basis:
        return finding
    if finding.conditions and decision.condition not in {one.key for one in finding.conditions}:
        return finding
    return changed(finding, decision=decision, is_open=False)


def _names(job: Job) -> dict[str, str]:
    """The names of circuits, of their sections and of boards, by a finding's subject, where there are several."""
    names = {board.id: board.name for board in job.boards} if len(job.boards) > 1 else {}
    if len(job.circuits) > 1:
        for circuit in job.circuits:
            names[circuit.id] = circuit.name
            names |= {f"{circuit.id}-{number}": circuit.name for number in range(1, len(circuit.route) + 1)}
    return names


def _named(finding: Finding, names: dict[str, str]) -> Finding:
    whose = names.get(finding.subject)
    return finding if not whose or finding.named else changed(finding, whose=whose)
