"""The one door in: a job and an edition's rules go in, the whole evaluation comes out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator

from fulmen.core.checks.laying import asks_outdoors
from fulmen.core.circuit.fault_clearing import FaultAt, what_opens
from fulmen.core.circuit.guard_views import GuardView, RunGuards, run_guards
from fulmen.core.circuit.measured import measured_of
from fulmen.core.circuit.run_figures import Case
from fulmen.core.circuit.run_profile import RunProfile, run_profile
from fulmen.core.circuit.specification import SentencePart, specification
from fulmen.core.demand.demand import Demand
from fulmen.core.demand.ways_out import WayOut, ways_out
from fulmen.core.editing.job_file import check_structure
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.installation.installation import Installation
from fulmen.core.judging.design import Design, design_of
from fulmen.core.judging.known import unread
from fulmen.core.judging.merging import worst_first
from fulmen.core.judging.testing import Tested, planned_for, testing_of
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.network_operator.notification import OperatorMatter
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.survey.walk import OpenQuestion, StopState, open_questions, stop_states, walked
from fulmen.core.verification.certificate_gaps import Gap, certificate_gaps
from fulmen.core.verification.marks import marked
from fulmen.core.verification.reading_fit import fitting
from fulmen.core.verification.sequence import Step


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
        return falls_short(self.findings)


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
    counting = fitting(job).readings
    design = design_of(unread(job), measured_of(counting), rules)
    return evaluation_of(design, testing_of(design, job, counting, planned_for(design)))


def findings_of(job: Job, rules: RuleSet) -> tuple[Finding, ...]:
    """The findings of a job, worst first: all that who compares designs asks of it. Raises as `evaluate`."""
    check_structure(job)
    counting = fitting(job).readings
    design = design_of(unread(job), measured_of(counting), rules)
    # Without a reading no step has anything to say.
    return _findings(design, testing_of(design, job, counting, planned_for(design) if job.readings else ()))


def falls_short(findings: Iterable[Finding]) -> list[Finding]:
    """Those of some findings that fall short."""
    return [finding for finding in findings if finding.verdict is Verdict.FALLS_SHORT]


def _findings(design: Design, tested: Tested) -> tuple[Finding, ...]:
    return worst_first((*design.at_origin, *tested.told, *design.along, *tested.found))


def evaluation_of(design: Design, tested: Tested) -> Evaluation:
    """What both layers say of a job, as it is told."""
    installation, findings = design.installation, _findings(design, tested)
    cars, facts = [case for case in design.cases if not case.to_loads], walked(installation)
    return Evaluation.made(
        rule_set=design.rules.key,
        edition=design.rules.title,
        profiles=tuple(_profiles(cars, tested, findings)),
        sentences=tuple(
            RunSentence.made(circuit=case.subject, charge_point=case.run.charge_point.id, parts=specification(case))
            for case in cars
            if case.run.chain
        ),
        faults=tuple(
            RunFaults.made(circuit=case.subject, charge_point=case.run.charge_point.id, faults=what_opens(case))
            for case in cars
        ),
        guards=tuple(run_guards(case.run) for case in design.cases),
        unsaid=_unsaid(installation),
        findings=findings,
        steps=tested.steps,
        gaps=certificate_gaps(installation, findings, tested.steps),
        demand=design.demand,
        ways_out=ways_out(installation, design.rules, design.demand),
        operator=tested.matter,
        stops=stop_states(facts, findings),
        questions=open_questions(facts),
        totals=_totals(findings),
    )


def _profiles(cars: list[Case], tested: Tested, findings: tuple[Finding, ...]) -> Iterator[RunProfile]:
    for case in cars:
        profile = run_profile(case)
        if profile is not None:
            yield _banded(marked(profile, case, tested.readings), findings)


def _unsaid(installation: Installation) -> tuple[str, ...]:
    """The paths of what a route's places ask for and nobody has said yet."""
    return tuple(
        f"circuits.{index}.route.{place}.{name}"
        for index, circuit in enumerate(installation.job.circuits)
        for place, section in enumerate(circuit.route)
        for name in (*section.unknown(), *(["outdoors"] if asks_outdoors(installation, circuit, section) else []))
    )


def _totals(findings: tuple[Finding, ...]) -> dict[Verdict, int]:
    counted = Counter(finding.verdict for finding in findings)
    return {verdict: counted[verdict] for verdict in Verdict}


def _banded(profile: RunProfile, findings: tuple[Finding, ...]) -> RunProfile:
    """The profile with the worst verdict among what protects people there; the findings come worst first."""
    worst = next((one.verdict for one in findings if one.is_open and one.protects), Verdict.MEETS)
    return profile.model_copy(update={"protection_verdict": worst})
