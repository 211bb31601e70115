"""Findings of several runs made into those of one job: each question once, the worst first."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fulmen.core.findings.finding import Finding, RuleKey, Verdict
from fulmen.core.installation.legs import legs_of
from fulmen.core.judging.resting import Reckoned, waiting
from fulmen.core.model.job import Job
from fulmen.core.plain import changed

ORDER = {Verdict.FALLS_SHORT: 0, Verdict.NEEDS: 1, Verdict.YOUR_CALL: 2, Verdict.MEETS: 3}


@dataclass(frozen=True, slots=True)
class Open:
    """What is open: subjects that nothing is said to meet of, see `Installation`, facts that are reckoned with, rules
    that lean on one of two things that can't both be so.
    """

    unseen: frozenset[str] = frozenset()
    reckoned: frozenset[Reckoned] = frozenset()
    doubted: frozenset[RuleKey] = frozenset()


def once_each(found: Iterable[Finding], job: Job, still: Open) -> tuple[Finding, ...]:
    """Each question once, with the worst of what several runs say of it, its decision, and whose it is.

    Args:
        found: the findings of all runs.
        job: whose decisions settle them, and whose names they bear.
        still: what is open, so that nothing that rests on it meets.
    """
    names = _names(job)
    once: dict[str, Finding] = {}
    for told in found:
        finding = waiting(told, still.reckoned, still.doubted) if still.reckoned or still.doubted else told
        if finding.verdict is Verdict.MEETS and finding.subject in still.unseen:
            continue
        key = finding.key
        known = once.get(key)
        if known is None or severity(finding) < severity(known):
            once[key] = finding
    return _beside_alike(tuple(_named(_decided(job, finding), names) for finding in once.values()))


def _beside_alike(findings: tuple[Finding, ...]) -> tuple[Finding, ...]:
    """Each open call with the others that the same facts ask."""
    calls = [one for one in findings if one.is_open and one.verdict is Verdict.YOUR_CALL]
    if len({one.rule for one in calls}) == len(calls):
        return findings
    alike = {
        one.key: tuple(other.key for other in calls if other is not one and _same_call(one, other)) for one in calls
    }
    return tuple(changed(one, alike=alike[one.key]) if alike.get(one.key) else one for one in findings)


def _same_call(one: Finding, other: Finding) -> bool:
    return one.rule == other.rule and one.basis == other.basis and one.conditions == other.conditions


def worst_first(found: Iterable[Finding]) -> tuple[Finding, ...]:
    """What needs attention first; settled calls join what meets, the tightest margin leading."""
    return tuple(sorted(found, key=_urgency))


def severity(finding: Finding) -> tuple[int, float]:
    """The worse the less: of what several runs say of one thing, the worst counts."""
    return ORDER[finding.verdict], finding.margin if finding.margin is not None else 1.0


def _urgency(finding: Finding) -> tuple[bool, int, float]:
    order, margin = severity(finding)
    return (False, order, margin) if finding.is_open else (True, 3, margin)


def _decided(job: Job, finding: Finding) -> Finding:
    """The finding with the decision that settles it, if one was taken on the same basis."""
    decision = job.decision(finding.key) if finding.verdict is Verdict.YOUR_CALL else None
    if decision is None or decision.basis != finding.basis:
        return finding
    if finding.conditions and decision.condition not in {one.key for one in finding.conditions}:
        return finding
    return changed(finding, decision=decision, is_open=False)


def _names(job: Job) -> dict[str, str]:
    """By a finding's subject: circuits, their sections and boards where there are several, and parts of cables."""
    names = {board.id: board.name for board in job.boards} if len(job.boards) > 1 else {}
    if len(job.circuits) > 1:
        for circuit in job.circuits:
            names[circuit.id] = circuit.name
            names |= {f"{circuit.id}-{number}": circuit.name for number in range(1, len(circuit.route) + 1)}
    for circuit in job.circuits:
        whose = f"{circuit.name}, " if len(job.circuits) > 1 else ""
        names |= {leg.subject: f"{whose}{leg.name}" for leg in legs_of(circuit) if leg.name}
    return names


def _named(finding: Finding, names: dict[str, str]) -> Finding:
    whose = names.get(finding.subject)
    return finding if not whose or finding.named else changed(finding, whose=whose)
