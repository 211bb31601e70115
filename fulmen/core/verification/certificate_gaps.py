"""What still stands between a job and its certificate."""

from __future__ import annotations

from typing import Literal

from fulmen.core.findings.finding import Finding, Stage, Verdict
from fulmen.core.findings.words import verdict_words, word
from fulmen.core.installation.installation import Installation
from fulmen.core.model.certificate import SignedPart
from fulmen.core.model.inspections import InspectionItem, InspectionOutcome
from fulmen.core.model.job import Job
from fulmen.core.model.site import CarPlace, WorkKind
from fulmen.core.model.supply import FuseStandard
from fulmen.core.plain import plain
from fulmen.core.verification.steps.sequence import Step

GapStage = Literal["survey", "design", "dead", "live", "papers"]
GapKind = Literal["check", "reading", "inspection", "particular", "signature"]


@plain
class Gap:
    """One thing that is missing or falls short, and the stage where it is put right."""

    kind: GapKind
    key: str
    text: str
    stage: GapStage


def certificate_gaps(
    installation: Installation, findings: tuple[Finding, ...], steps: tuple[Step, ...]
) -> tuple[Gap, ...]:
    """Everything that keeps the certificate from being issued, signatures last; empty when it may be."""
    return (
        *[_check_gap(finding) for finding in findings if finding.is_open],
        *_reading_gaps(steps),
        *written_gaps(installation),
    )


def written_gaps(installation: Installation) -> tuple[Gap, ...]:
    """What is not written down yet: that can be told without judging the job."""
    job = installation.job
    if job.site.work is WorkKind.REMOVED:
        asked = (gap for gap in _particular_gaps(installation) if gap.key in OF_A_REMOVAL)
        return (*asked, *_signature_gaps(job))
    return (*_particular_gaps(installation), *_new_board_gaps(job), *_inspection_gaps(job), *_signature_gaps(job))


# What the record of a unit that was taken away needs of a certificate's particulars: nothing is put in.
OF_A_REMOVAL = {"site.householder", "site.address", "site.extent"}


def comments_on_existing(job: Job) -> str:
    """The comments on the existing installation: each defect with what became of it, then the free text."""
    defects = [f"{defect.what}: {word(defect.outcome)}." for defect in job.defects]
    written = job.certificate.comments_on_existing
    return " ".join([*defects, *([written] if written else [])])


def _check_gap(finding: Finding) -> Gap:
    stage: Stage = finding.stage
    text = f"{finding.title}: {verdict_words(finding).lower()}"
    if finding.verdict is Verdict.YOUR_CALL:
        text += ", say why"
    if finding.figures():
        text += f" ({finding.figures()})"
    return Gap(kind="check", key=finding.key, text=text, stage=stage.value)


def _reading_gaps(steps: tuple[Step, ...]) -> list[Gap]:
    if not steps:
        return [
            Gap(
                kind="reading",
                key="readings",
                text="No circuit feeds a charge point yet: nothing can be tested",
                stage="design",
            )
        ]
    return [
        Gap(
            kind="reading",
            key=f"{step.step.value}/{step.subject}",
            text=f"Reading missing: {step.title}",
            stage=step.stage.value,
        )
        for step in steps
        if step.required and not step.met and not (step.waivable and step.reading is not None)
    ]


def _particular_gaps(installation: Installation) -> list[Gap]:
    """Particulars that the standard's model form asks for."""
    job, switch, switch_at = installation.job, installation.main_switch, installation.main_switch_field
    wanted: list[tuple[str, bool, str, GapStage]] = [
        ("site.householder", bool(job.site.householder), "the householder's name", "survey"),
        ("site.address", bool(job.site.address), "the address of the installation", "survey"),
        ("site.extent", bool(job.site.extent), "what the certificate covers", "survey"),
        ("site.car_place", job.site.car_place is not CarPlace.NOT_SEEN, "where the car is charged", "survey"),
        (
            f"{switch_at}.rating_a",
            switch is not None and switch.rating_a is not None,
            "the main switch's rating",
            "survey",
        ),
        (f"{switch_at}.poles", switch is not None and switch.poles is not None, "the main switch's poles", "survey"),
        (
            "supply.cut_out_fuse_standard",
            job.supply.cut_out_fuse_standard is not FuseStandard.NOT_SEEN,
            "the cut-out fuse's standard",
            "survey",
        ),
        (
            "certificate.comments_on_existing",
            bool(comments_on_existing(job)),
            "comments on the existing installation",
            "papers",
        ),
        (
            "certificate.next_inspection_years",
            job.certificate.next_inspection_years is not None,
            "when to inspect next",
            "papers",
        ),
    ]
    return [
        Gap(kind="particular", key=key, text=f"Enter {what}", stage=stage)
        for key, present, what, stage in wanted
        if not present
    ]


def _new_board_gaps(job: Job) -> list[Gap]:
    """A board of this job has each of its circuits on the schedule, not only the car's."""
    return [
        Gap(
            kind="particular",
            key=f"circuits-of-{board.id}",
            text=f"Enter each circuit of {board.name}: the board is new, so all of them are on this certificate",
            stage="design",
        )
        for board in job.boards
        if board.fitted_with_this_job and board.other_loads
    ]


def _inspection_gaps(job: Job) -> list[Gap]:
    found = ((item, _inspected(job, item)) for item in InspectionItem)
    return [
        Gap(kind="inspection", key=item.value, text=f"{lacking}: {word(item)}", stage="papers")
        for item, lacking in found
        if lacking
    ]


def _inspected(job: Job, item: InspectionItem) -> str:
    """What an item of the inspection still lacks; nothing where it was found right."""
    found = job.inspection(item)
    if found is None:
        return "Not inspected yet"
    if found.outcome is InspectionOutcome.WRONG:
        return "Found wrong"
    limited = found.outcome is InspectionOutcome.LIMITED and len(found.note) < 3
    return "Say what was limited" if limited else ""


def _signature_gaps(job: Job) -> list[Gap]:
    return [
        Gap(kind="signature", key=part.value, text=f"Not signed: {word(part)}", stage="papers")
        for part in SignedPart
        if job.certificate.signature(part) is None
    ]
