"""The one door in: a job and an edition's rules go in, the whole evaluation comes out."""

from __future__ import annotations

from collections import Counter

from fulmen.core.checks.boards import board_findings
from fulmen.core.checks.charge_point import charge_point_findings, place_findings
from fulmen.core.checks.disconnection import disconnection_findings
from fulmen.core.checks.earth_separation import earth_separation_findings
from fulmen.core.checks.earthing import earthing_findings, exported_earth_findings
from fulmen.core.checks.fault_withstand import fault_withstand_findings
from fulmen.core.checks.front_rcds import front_rcd_findings, goes_off_findings
from fulmen.core.checks.guard_ratings import guard_rating_findings, main_switch_findings
from fulmen.core.checks.laying import asks_outdoors, joint_findings, laying_findings
from fulmen.core.checks.load import load_findings
from fulmen.core.checks.operator import operator_findings
from fulmen.core.checks.overcurrent import overcurrent_findings
from fulmen.core.checks.phases import phase_findings
from fulmen.core.checks.residual_current import load_circuit_findings, residual_current_findings
from fulmen.core.checks.selectivity import selectivity_findings
from fulmen.core.checks.supply import supply_findings
from fulmen.core.checks.surge import surge_findings
from fulmen.core.checks.survey import survey_findings
from fulmen.core.checks.volt_drop import volt_drop_findings
from fulmen.core.circuit.fault_clearing import FaultAt, what_opens
from fulmen.core.circuit.guard_views import GuardView, RunGuards, run_guards
from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case, cases_of
from fulmen.core.circuit.run_profile import RunProfile, run_profile
from fulmen.core.circuit.specification import SentencePart, specification
from fulmen.core.demand.demand import Demand, demand_of
from fulmen.core.demand.ways_out import WayOut, ways_out
from fulmen.core.editing.job_file import check_structure
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import CHARGE_POINT
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.network_operator.notification import OperatorMatter, operator_matter
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.survey.walk import OpenQuestion, StopState, open_questions, stop_states, walked
from fulmen.core.verification.certificate_gaps import Gap, certificate_gaps
from fulmen.core.verification.cross_checks import agreement_findings
from fulmen.core.verification.instrument_checks import instrument_findings, stray_findings
from fulmen.core.verification.reading_checks import reading_findings
from fulmen.core.verification.reading_fit import fitting, misfit_findings
from fulmen.core.verification.reading_order import order_findings
from fulmen.core.verification.sequence import Step, sequence
from fulmen.core.verification.taken_again import retest_findings

ORDER = {Verdict.FALLS_SHORT: 0, Verdict.NEEDS: 1, Verdict.YOUR_CALL: 2, Verdict.MEETS: 3}
ORIGIN_CHECKS = (supply_findings, main_switch_findings, load_findings, survey_findings)
DESIGN_CHECKS = (
    earthing_findings,
    earth_separation_findings,
    residual_current_findings,
    front_rcd_findings,
    goes_off_findings,
    guard_rating_findings,
    surge_findings,
    overcurrent_findings,
    volt_drop_findings,
    disconnection_findings,
    fault_withstand_findings,
    phase_findings,
    joint_findings,
    exported_earth_findings,
    selectivity_findings,
    laying_findings,
    board_findings,
    place_findings,
    charge_point_findings,
)


LOAD_CHECKS = (
    load_circuit_findings,
    overcurrent_findings,
    volt_drop_findings,
    disconnection_findings,
    fault_withstand_findings,
    joint_findings,
    laying_findings,
    board_findings,
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
    """Everything the job computes to. Findings come worst first; `gaps` is empty when a certificate may be issued.

    `unsaid` are the fields of the routes that a verdict waits for.
    """

    rule_set: str
    edition: str
    profiles: tuple[RunProfile, ...]
    sentences: tuple[RunSentence, ...]
    faults: tuple[RunFaults, ...]
    guards: tuple[RunGuards, ...]
    unsaid: tuple[str, ...]
    findings: tuple[Finding, ...]
    steps: tuple[Step, ...]
    gaps: tuple[Gap, ...]
    demand: Demand
    ways_out: tuple[WayOut, ...]
    operator: OperatorMatter
    stops: tuple[StopState, ...]
    questions: tuple[OpenQuestion, ...]
    totals: dict[Verdict, int]

    def guards_to(self, charge_point: str) -> tuple[GuardView, ...]:
        """The guards of the run to one charge point, in order."""
        return next(one.guards for one in self.guards if one.charge_point == charge_point)

    def falls_short(self) -> list[Finding]:
        """The findings that fall short."""
        return [finding for finding in self.findings if finding.verdict is Verdict.FALLS_SHORT]


def evaluate(job: Job, rules: RuleSet, *, with_steps: bool = True) -> Evaluation:
    """Judge a whole job by one edition.

    Args:
        job: the job document.
        rules: the limits of the edition, see `rule_set`.
        with_steps: whether the test sequence is wanted; who compares designs of an untested job leaves it out.

    Returns:
        The evaluation; a rule that fails is a finding in it.

    Raises:
        JobFileError: boards and circuits do not form a tree, or a name is unknown.
    """
    check_structure(job)
    unfit = misfit_findings(job, rules)
    job = fitting(job)
    demand, facts = demand_of(job, rules), walked(job)
    cases = cases_of(job, rules, demand)
    steps = tuple(sequence(cases)) if with_steps or job.readings else ()
    matter = operator_matter(job, rules, demand)
    cars, names = [case for case in cases if not case.to_loads], _names(job)
    found = [_named(_decided(job, finding), names) for finding in (*job_findings(cases, rules, steps, matter), *unfit)]
    findings = tuple(sorted(found, key=_urgency))
    return Evaluation(
        rule_set=rules.key,
        edition=rules.title,
        profiles=tuple(_banded(one, findings) for case in cars if (one := run_profile(case)) is not None),
        sentences=tuple(
            RunSentence(circuit=case.subject, charge_point=case.run.charge_point.id, parts=specification(case))
            for case in cars
            if case.run.chain
        ),
        faults=tuple(
            RunFaults(circuit=case.subject, charge_point=case.run.charge_point.id, faults=what_opens(case))
            for case in cars
        ),
        guards=tuple(run_guards(case.run, case.guards) for case in cases),
        unsaid=_unsaid(job),
        findings=findings,
        steps=steps,
        gaps=certificate_gaps(job, findings, steps),
        demand=demand,
        ways_out=ways_out(job, rules, demand),
        operator=matter,
        stops=stop_states(facts, findings),
        questions=open_questions(facts),
        totals=_totals(findings),
    )


def _unsaid(job: Job) -> tuple[str, ...]:
    """The paths of what a route's places ask for and nobody has said yet."""
    return tuple(
        f"circuits.{index}.route.{place}.{name}"
        for index, circuit in enumerate(job.circuits)
        for place, section in enumerate(circuit.route)
        for name in (*section.unknown(), *(["outdoors"] if asks_outdoors(job, circuit, section) else []))
    )


def _totals(findings: tuple[Finding, ...]) -> dict[Verdict, int]:
    counted = Counter(finding.verdict for finding in findings)
    return {verdict: counted[verdict] for verdict in Verdict}


def _decided(job: Job, finding: Finding) -> Finding:
    """The finding with the decision that settles it, if one was taken on the same basis."""
    decision = job.decision(finding.key) if finding.verdict is Verdict.YOUR_CALL else None
    if decision is None or decision.basis != finding.basis:
        return finding
    if finding.conditions and decision.condition not in {one.key for one in finding.conditions}:
        return finding
    return finding.model_copy(update={"decision": decision})


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
    return finding if not whose or finding.named else finding.model_copy(update={"whose": whose})


def _banded(profile: RunProfile, findings: tuple[Finding, ...]) -> RunProfile:
    """The profile with the worst verdict among what protects people there; the findings come worst first."""
    worst = next((one.verdict for one in findings if one.is_open and one.protects), Verdict.MEETS)
    return profile.model_copy(update={"protection_verdict": worst})


def job_findings(cases: list[Case], rules: RuleSet, steps: tuple[Step, ...], matter: OperatorMatter) -> list[Finding]:
    """Every finding of a job, each question once, in the order of the work."""
    if not any(not case.to_loads for case in cases):
        asked = ask(CHARGE_POINT, rules, ORIGIN)
        return [asked.needs_fact("Add the charge point: everything else follows from it.")]
    found = [finding for check in ORIGIN_CHECKS for finding in check(cases[0])]
    found.extend(operator_findings(cases[0], matter))
    for case in cases:
        for check in LOAD_CHECKS if case.to_loads else DESIGN_CHECKS:
            found.extend(check(case))
    found.extend([*reading_findings(steps, rules), *agreement_findings(cases)])
    found.extend(order_findings(cases[0].job, steps, rules))
    found.extend([*instrument_findings(cases[0].job, rules), *retest_findings(steps, rules)])
    found.extend(stray_findings(cases[0].job, steps, rules))
    unseen = _not_looked_at(cases[0].job)
    once: dict[str, Finding] = {}
    for finding in found:
        key = finding.key
        if finding.verdict is Verdict.MEETS and finding.subject in unseen:
            continue
        known = once.get(key)
        if known is None or _severity(finding) < _severity(known):
            once[key] = finding
    return list(once.values())


def _not_looked_at(job: Job) -> set[str]:
    """The subjects of existing circuits and their sections that nobody has looked at: nothing of them meets."""
    unseen = [one for one in job.circuits if not one.fitted_with_this_job and one.looked_at is not Seen.YES]
    sections = {f"{one.id}-{number}" for one in unseen for number in range(1, len(one.route) + 1)}
    return {one.id for one in unseen} | sections


def _severity(finding: Finding) -> tuple[int, float]:
    """The worse the less: of what several runs say of one thing, the worst counts."""
    return ORDER[finding.verdict], finding.margin if finding.margin is not None else 1.0


def _urgency(finding: Finding) -> tuple[bool, int, float]:
    """What needs attention first; settled calls join what meets, the tightest margin leading."""
    order, margin = _severity(finding)
    return (False, order, margin) if finding.is_open else (True, 3, margin)
