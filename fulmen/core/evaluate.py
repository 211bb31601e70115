"""The one door in: a job and an edition's rules go in, the whole evaluation comes out."""

from __future__ import annotations

from fulmen.core.checks.boards import board_findings
from fulmen.core.checks.chain import chain_findings
from fulmen.core.checks.charge_point import charge_point_findings
from fulmen.core.checks.common import needs_fact
from fulmen.core.checks.disconnection import loop_findings
from fulmen.core.checks.earth_separation import trap_findings
from fulmen.core.checks.earthing import earthing_findings
from fulmen.core.checks.laying import practice_findings
from fulmen.core.checks.load import load_findings
from fulmen.core.checks.operator import operator_findings
from fulmen.core.checks.overcurrent import overcurrent_findings
from fulmen.core.checks.place import place_findings
from fulmen.core.checks.residual_current import residual_current_findings
from fulmen.core.checks.supply import supply_findings
from fulmen.core.checks.survey import survey_findings
from fulmen.core.circuit.fault_clearing import FaultAt, what_opens
from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.circuit.run_profile import RunProfile, run_profile
from fulmen.core.circuit.specification import SentencePart, specification
from fulmen.core.demand.demand import Demand, demand_of
from fulmen.core.demand.ways_out import WayOut, ways_out
from fulmen.core.editing.job_file import check_structure
from fulmen.core.findings.finding import Finding, Stage, Verdict
from fulmen.core.findings.rules import FEARS, PROTECTION_RULES, SCHOOLS
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.network_operator.notification import OperatorMatter, operator_matter
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.survey.walk import OpenQuestion, StopState, open_questions, stop_states, walked
from fulmen.core.verification.certificate_gaps import Gap, certificate_gaps
from fulmen.core.verification.reading_checks import reading_findings
from fulmen.core.verification.sequence import Step, sequence

ORDER = {Verdict.FALLS_SHORT: 0, Verdict.NEEDS: 1, Verdict.YOUR_CALL: 2, Verdict.MEETS: 3}
ORIGIN_CHECKS = (supply_findings, load_findings, survey_findings, operator_findings)
DESIGN_CHECKS = (
    earthing_findings,
    trap_findings,
    residual_current_findings,
    overcurrent_findings,
    loop_findings,
    chain_findings,
    practice_findings,
    board_findings,
    place_findings,
    charge_point_findings,
)


class RunFaults(Part):
    """What opens for each fault along one run."""

    circuit: str
    charge_point: str
    faults: tuple[FaultAt, ...]


class RunSentence(Part):
    """The specification sentence of one circuit."""

    circuit: str
    charge_point: str
    parts: tuple[SentencePart, ...]


class Evaluation(Part):
    """Everything the job computes to. Findings come worst first; `gaps` is empty when a certificate may be issued."""

    rule_set: str
    edition: str
    profiles: tuple[RunProfile, ...]
    sentences: tuple[RunSentence, ...]
    faults: tuple[RunFaults, ...]
    findings: tuple[Finding, ...]
    steps: tuple[Step, ...]
    gaps: tuple[Gap, ...]
    demand: Demand
    ways_out: tuple[WayOut, ...]
    operator: OperatorMatter
    stops: tuple[StopState, ...]
    questions: tuple[OpenQuestion, ...]
    totals: dict[Verdict, int]

    def falls_short(self) -> list[Finding]:
        """The findings that fall short."""
        return [finding for finding in self.findings if finding.verdict is Verdict.FALLS_SHORT]


def evaluate(job: Job, rules: RuleSet) -> Evaluation:
    """Judge a whole job by one edition.

    Args:
        job: the job document.
        rules: the limits of the edition, see `rule_set`.

    Returns:
        The evaluation; a rule that fails is a finding in it.

    Raises:
        JobFileError: boards and circuits do not form a tree, or a name is unknown.
    """
    check_structure(job)
    demand, facts = demand_of(job, rules), walked(job)
    cases = cases_of(job, rules, demand)
    steps = tuple(sequence(cases))
    names = _names(job)
    found = [_named(explained(_decided(job, finding)), names) for finding in job_findings(job, cases, steps)]
    findings = tuple(sorted(found, key=_urgency))
    return Evaluation(
        rule_set=rules.key,
        edition=rules.title,
        profiles=tuple(_banded(one, findings) for case in cases if (one := run_profile(case)) is not None),
        sentences=tuple(
            RunSentence(circuit=case.subject, charge_point=case.run.charge_point.id, parts=specification(case))
            for case in cases
            if case.run.chain
        ),
        faults=tuple(
            RunFaults(circuit=case.subject, charge_point=case.run.charge_point.id, faults=what_opens(case))
            for case in cases
        ),
        findings=findings,
        steps=steps,
        gaps=certificate_gaps(job, findings, steps),
        demand=demand,
        ways_out=ways_out(job, rules, demand),
        operator=operator_matter(job, rules, demand),
        stops=stop_states(job, facts, findings),
        questions=open_questions(facts),
        totals={verdict: sum(finding.verdict is verdict for finding in findings) for verdict in Verdict},
    )


def _decided(job: Job, finding: Finding) -> Finding:
    """The finding with the decision that settles it, if one was taken about what it says now."""
    decision = job.decision(finding.key()) if finding.verdict is Verdict.YOUR_CALL else None
    if decision is None or decision.about != finding.detail:
        return finding
    return finding.model_copy(update={"decision": decision})


def explained(finding: Finding) -> Finding:
    """The finding with the fear behind it where it falls short, and its school where practice differs."""
    more: dict[str, object] = {"protects": True} if finding.rule in PROTECTION_RULES else {}
    if finding.verdict is Verdict.FALLS_SHORT and finding.rule in FEARS:
        more["fear"] = FEARS[finding.rule]
    if finding.verdict is Verdict.YOUR_CALL and finding.rule in SCHOOLS:
        schools = SCHOOLS[finding.rule]
        more["school"] = f"Cautious school: {schools.cautious}. This one: {schools.other}."
    return finding.model_copy(update=more) if more else finding


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
    told = not whose or whose in finding.title
    return finding if told else finding.model_copy(update={"whose": whose})


def _banded(profile: RunProfile, findings: tuple[Finding, ...]) -> RunProfile:
    """The profile with the worst verdict among what protects people there; the findings come worst first."""
    worst = next((one.verdict for one in findings if one.protects and one.is_open()), Verdict.MEETS)
    return profile.model_copy(update={"protection_verdict": worst})


def job_findings(job: Job, cases: list[Case], steps: tuple[Step, ...]) -> list[Finding]:
    """Every finding of a job, each question once, in the order of the work."""
    if not cases:
        detail = "Add the charge point: everything else follows from it."
        return [
            needs_fact(
                "charge_point", "origin", "A charge point to design for", detail, "Fulmen's own scope", Stage.DESIGN
            )
        ]
    found = [finding for check in ORIGIN_CHECKS for finding in check(cases[0])]
    for case in cases:
        for check in DESIGN_CHECKS:
            found.extend(check(case))
    found.extend(reading_findings(cases, steps))
    once: dict[str, Finding] = {}
    for finding in found:
        known = once.setdefault(finding.key(), finding)
        if _severity(finding) < _severity(known):
            once[finding.key()] = finding
    return list(once.values())


def _severity(finding: Finding) -> tuple[int, float]:
    """The worse the less: of what several runs say of one thing, the worst counts."""
    return ORDER[finding.verdict], finding.margin if finding.margin is not None else 1.0


def _urgency(finding: Finding) -> tuple[bool, int, float]:
    """What needs attention first; settled calls join what meets, the tightest margin leading."""
    order, margin = _severity(finding)
    return not finding.is_open(), order if finding.is_open() else 3, margin
