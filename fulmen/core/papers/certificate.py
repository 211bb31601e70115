"""What a certificate states beside the job's own words: every figure and sentence, worked out when it is wished for."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict

from fulmen.core.alternatives.reach import how_far, reach_words
from fulmen.core.circuit.arrangement_schedule import arrangement_facts
from fulmen.core.circuit.guard_views import GuardView
from fulmen.core.circuit.run_figures import case_of
from fulmen.core.circuit.run_profile import RunProfile
from fulmen.core.editing.acts import history_words
from fulmen.core.evaluate import Evaluation
from fulmen.core.findings.finding import Finding
from fulmen.core.installation.run import ORIGIN
from fulmen.core.judging.shown import RunFaults, RunSentence
from fulmen.core.model.guards import Guard
from fulmen.core.model.job import Job
from fulmen.core.model.site import WorkKind
from fulmen.core.papers.cells import results
from fulmen.core.papers.circuits import BoardRows, board_rows
from fulmen.core.papers.how_tested import (
    ClampTest,
    InstrumentRow,
    UnitTests,
    clamp_tests,
    instrument_rows,
    schools_words,
    tested_words,
    unit_tests,
)
from fulmen.core.papers.judged_job import judged_job
from fulmen.core.papers.rcds import FrontRcd, RcdRow, front_rcds, rcd_rows
from fulmen.core.papers.remarks import remarks_at_origin
from fulmen.core.papers.removal import removal_rows
from fulmen.core.papers.supply import CarElectrode, car_electrodes, fault_levels, known_how_words, tails_words
from fulmen.core.papers.to_come import units_to_come
from fulmen.core.plain import plain
from fulmen.core.reference.rule_set import RuleSet, rule_set
from fulmen.core.verification.certificate_gaps import comments_on_existing


@plain
class DrawnRun:
    """One run as it is drawn, and how far its design holds, each fact by itself."""

    profile: RunProfile
    guards: tuple[GuardView, ...]
    reach: str


class CertificateContents(BaseModel):
    """Everything that a certificate states beside the words of the job itself; it is kept with the paper.

    `origin` holds what was read there, by the step's key; `arrangements` name and words, charge point by charge point;
    `to_come` says which units are not fitted yet, `brought` is what was signed elsewhere, `removal` how a unit that was
    taken away was left. Findings come worst first.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    edition: str
    amendment_date: str
    publication: str
    u0_v: float
    demand_a: float | None
    findings: tuple[Finding, ...]
    sentences: tuple[RunSentence, ...]
    faults: tuple[RunFaults, ...]
    drawn: tuple[DrawnRun, ...]
    arrangements: tuple[tuple[tuple[str, str], ...], ...]
    comments: str
    known_how: tuple[str, ...]
    brought: tuple[str, ...]
    fault_levels: str
    origin: dict[str, str]
    main_switch: Guard | None
    tails: str
    car_electrodes: tuple[CarElectrode, ...]
    front_rcds: tuple[FrontRcd, ...]
    boards: tuple[BoardRows, ...]
    rcds: tuple[RcdRow, ...]
    units: tuple[UnitTests, ...]
    clamps: tuple[ClampTest, ...]
    instruments: tuple[InstrumentRow, ...]
    tested: str
    schools: str
    at_origin: tuple[str, ...]
    removal: tuple[tuple[str, str], ...] = ()
    to_come: tuple[str, ...] = ()


def certificate_contents(job: Job, evaluation: Evaluation) -> CertificateContents:
    """Work out what the certificate of a job states.

    Args:
        job: the job as it is signed.
        evaluation: what both layers say of exactly that job, and by which edition.

    Returns:
        the contents; the same job gives the same ones. How far the design holds is searched to its end.

    Raises:
        JobFileError: the job's structure cannot be taken.
    """
    rules = rule_set(evaluation.rule_set)
    judged = judged_job(job, evaluation, rules)
    installation = judged.installation
    return CertificateContents.model_construct(
        edition=evaluation.edition,
        amendment_date=rules.amendment_date,
        publication=rules.publication,
        u0_v=rules.value("u0_v"),
        demand_a=evaluation.demand.total_a,
        findings=evaluation.findings,
        sentences=evaluation.sentences,
        faults=evaluation.faults,
        drawn=_drawn(job, evaluation, rules),
        arrangements=tuple(arrangement_facts(case_of(judged.known, run)) for run in installation.runs),
        comments=comments_on_existing(job),
        known_how=known_how_words(job),
        brought=tuple(history_words(job)),
        fault_levels=fault_levels(judged),
        origin=results(judged.readings, ORIGIN),
        main_switch=installation.main_switch,
        tails=tails_words(installation),
        car_electrodes=car_electrodes(judged),
        front_rcds=front_rcds(judged),
        boards=board_rows(judged),
        rcds=rcd_rows(judged),
        units=unit_tests(judged),
        clamps=clamp_tests(job),
        instruments=instrument_rows(job),
        tested=tested_words(job),
        schools=schools_words(job),
        at_origin=remarks_at_origin(evaluation),
        to_come=units_to_come(judged),
        removal=removal_rows(evaluation) if job.site.work is WorkKind.REMOVED else (),
    )


def _drawn(job: Job, evaluation: Evaluation, rules: RuleSet) -> tuple[DrawnRun, ...]:
    return tuple(
        DrawnRun(one, evaluation.guards_to(one.charge_point), reach_words(how_far(job, one.charge_point, rules)))
        for one in evaluation.profiles
    )
