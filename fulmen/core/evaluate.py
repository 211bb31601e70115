"""The one door in: a job and an edition's rules go in, the whole evaluation comes out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

from fulmen.core.circuit.guard_views import GuardView, RunGuards
from fulmen.core.circuit.measured import measured_of
from fulmen.core.circuit.run_profile import RunProfile
from fulmen.core.demand.demand import Demand
from fulmen.core.demand.ways_out import WayOut
from fulmen.core.editing.job_file import check_structure
from fulmen.core.findings.finding import Finding, Topic, Verdict
from fulmen.core.judging.design import Design, design_of
from fulmen.core.judging.kept_designs import KeptDesign, KeptDesigns
from fulmen.core.judging.known import unread
from fulmen.core.judging.merging import worst_first
from fulmen.core.judging.shown import RunFaults, RunSentence
from fulmen.core.judging.testing import Tested, judging_once, testing_of
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.model.readings import Reading
from fulmen.core.network_operator.notification import OperatorMatter
from fulmen.core.plain import changed
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.survey.walk import OpenQuestion, StopState, stop_states
from fulmen.core.verification.certificate_gaps import Gap, certificate_gaps
from fulmen.core.verification.faults.diagnosis import Diagnosis
from fulmen.core.verification.readings.marks import marked
from fulmen.core.verification.readings.reading_fit import fitting
from fulmen.core.verification.steps.sequence import Step


class Told(Part):
    """What is told of a job to whoever asks. `unsaid` are the fields of the routes that a verdict waits for, `asked`
    fields that are asked only because of what is known; `ways_wanted` says that the demand does not fit.
    """

    rule_set: str
    edition: str
    profiles: tuple[RunProfile, ...]
    sentences: tuple[RunSentence, ...]
    faults: tuple[RunFaults, ...]
    guards: tuple[RunGuards, ...]
    unsaid: tuple[str, ...]
    asked: tuple[str, ...]
    demand: Demand
    ways_out: tuple[WayOut, ...]
    ways_wanted: bool
    operator: OperatorMatter
    stops: tuple[StopState, ...]
    questions: tuple[OpenQuestion, ...]


class Evaluation(Told):
    """Everything the job computes to. Findings come worst first; `gaps` is empty when a certificate may be issued.

    `looks_like` is what the readings that disagree look like together.
    """

    findings: tuple[Finding, ...]
    looks_like: tuple[Diagnosis, ...]
    steps: tuple[Step, ...]
    gaps: tuple[Gap, ...]
    totals: dict[Verdict, int]

    def guards_to(self, charge_point: str) -> tuple[GuardView, ...]:
        """The guards of the run to one charge point, in order."""
        return next(one.guards for one in self.guards if one.charge_point == charge_point)

    def falls_short(self) -> list[Finding]:
        """The findings that fall short."""
        return falls_short(self.findings)


def evaluate(job: Job, rules: RuleSet, kept: KeptDesigns | None = None) -> Evaluation:
    """Judge a whole job by one edition.

    Args:
        job: the job document.
        rules: the limits of the edition, see `rule_set`.
        kept: what was worked out before, for whoever asks again and again; it changes no answer.

    Returns:
        The evaluation; a rule that fails is a finding in it.

    Raises:
        JobFileError: boards and circuits do not form a tree, or a name is unknown.
    """
    check_structure(job)
    counting = fitting(job)
    if kept is None:
        design = _design(job, counting, rules)
        return _evaluation(KeptDesign(design), testing_of(design, job, counting, judging_once(design)))
    found = kept.of(job, counting, rules)
    return _evaluation(found, testing_of(found.design, job, counting, found.steps().judged))


def design_evaluation(job: Job, rules: RuleSet, kept: KeptDesigns) -> Evaluation:
    """The evaluation of a job for who shows its design: without steps, gaps and what follows from steps alone.

    Raises as `evaluate`.
    """
    check_structure(job)
    counting = fitting(job)
    found = kept.of(job, counting, rules)
    return _evaluation(found, testing_of(found.design, job, counting, None))


def findings_of(job: Job, rules: RuleSet) -> tuple[Finding, ...]:
    """The findings of a job, worst first: all that who compares designs asks of it. Raises as `evaluate`."""
    check_structure(job)
    counting = fitting(job)
    design = _design(job, counting, rules)
    # Without a reading no step has anything to say.
    return _findings(design, testing_of(design, job, counting, judging_once(design) if job.readings else None))


def _design(job: Job, counting: tuple[Reading, ...], rules: RuleSet) -> Design:
    return design_of(unread(job), measured_of(counting), rules)


def falls_short(findings: Iterable[Finding]) -> list[Finding]:
    """Those of some findings that fall short."""
    return [finding for finding in findings if finding.verdict is Verdict.FALLS_SHORT]


def _findings(design: Design, tested: Tested) -> tuple[Finding, ...]:
    return worst_first((*design.at_origin, *tested.told, *design.along, *tested.found))


def _evaluation(found: KeptDesign, tested: Tested) -> Evaluation:
    """What both layers say of a job, as it is told."""
    design, shown = found.design, found.shown()
    findings = _findings(design, tested)
    cars = {case.subject: case for case in design.cases if not case.to_loads}
    return Evaluation.made(
        rule_set=design.rules.key,
        edition=design.rules.title,
        profiles=tuple(
            _banded(marked(profile, cars[subject], tested.readings), findings)
            for subject, profile in shown.profiles.items()
        ),
        sentences=shown.sentences,
        faults=shown.faults,
        guards=shown.guards,
        unsaid=shown.unsaid,
        asked=shown.asked,
        findings=findings,
        looks_like=tested.looks_like,
        steps=tested.steps,
        gaps=certificate_gaps(design.installation, findings, tested.steps),
        demand=design.demand,
        ways_out=shown.ways_out,
        ways_wanted=any(Topic.DEMAND in one.topics for one in falls_short(findings)),
        operator=tested.matter,
        stops=stop_states(shown.facts, findings),
        questions=shown.questions,
        totals=_totals(findings),
    )


def _totals(findings: tuple[Finding, ...]) -> dict[Verdict, int]:
    counted = Counter(finding.verdict for finding in findings)
    return {verdict: counted[verdict] for verdict in Verdict}


def _banded(profile: RunProfile, findings: tuple[Finding, ...]) -> RunProfile:
    """The profile with the worst verdict among what protects people there; the findings come worst first."""
    worst = next((one.verdict for one in findings if one.is_open and one.protects), Verdict.MEETS)
    return changed(profile, protection_verdict=worst)
