"""What one finding says by itself: a step that was found wrong, a time past its limit, figures that can't be."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import astuple

from fulmen.core.findings.finding import Finding, Topic
from fulmen.core.model.readings import LEFT_OUT, Outcome, Reading, StepKey
from fulmen.core.verification.faults.faults import Shown, fault_infos
from fulmen.core.verification.readings.rcd_readings import AC_AT_RATED
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.step_limits import AT_RATED, FIVE_TIMES

PULSES = frozenset({
    StepKey.RCD_PULSE_0, StepKey.RCD_PULSE_180, StepKey.RCD_FIVE_PULSE_0, StepKey.RCD_FIVE_PULSE_180,
})  # fmt: skip
GROUPS: Mapping[str, frozenset[StepKey]] = {
    "rcd": frozenset({*AT_RATED, *FIVE_TIMES, StepKey.RCD_ORIGIN_TRIP}),
    "rcd_pulse": PULSES,
    "rcd_alternating": frozenset(AC_AT_RATED),
}


def seen_alone(
    findings: Iterable[Finding], steps: Mapping[tuple[StepKey, str], Step]
) -> Iterator[tuple[str, str, Finding]]:
    """The fault that each open finding shows by itself, what it is about, and the finding; the rest are left out.

    Args:
        findings: what is open about the readings.
        steps: the job's steps by key and subject.
    """
    findings = tuple(findings)
    open_steps = {one.step for one in findings if one.step is not None and Topic.READING in one.topics}
    for finding in findings:
        step = steps.get((finding.step, finding.subject)) if finding.step is not None else None
        found = [
            (kind, one)
            for kind, info in fault_infos().items()
            for one in info.shown
            if _shows(one, finding, step, open_steps)
        ]
        if found:
            # An entry that tells a side or an outcome goes before one that tells none.
            kind, shown = max(found, key=lambda one: sum(map(bool, astuple(one[1]))))
            yield kind, finding.subject.removesuffix(f"-{shown.about}"), finding


def _shows(shown: Shown, finding: Finding, step: Step | None, open_steps: set[StepKey]) -> bool:
    reading = step.reading if step is not None else None
    if not shown.rule and (reading is None or reading.outcome in LEFT_OUT or Topic.READING not in finding.topics):
        return False
    asked = (
        (shown.rule, finding.rule == shown.rule),
        (shown.step, finding.step is not None and finding.step == shown.step),
        (shown.steps, finding.step in GROUPS.get(shown.steps, ())),
        (shown.outcome, reading is not None and reading.outcome == shown.outcome),
        (shown.verdict, finding.verdict == shown.verdict),
        (shown.side, _side(finding, step, reading) == shown.side),
        (shown.basis, shown.basis in finding.basis and shown.says in ("", finding.basis.get(shown.basis))),
        (shown.about, finding.subject.endswith(f"-{shown.about}")),
        (shown.unless, not open_steps & GROUPS.get(shown.unless, frozenset())),
    )
    return all(holds for said, holds in asked if said)


def _side(finding: Finding, step: Step | None, reading: Reading | None) -> str:
    """On which side a figure lies: above or below its limit, else of what is expected; sooner than it can open."""
    value = reading.value if reading is not None else finding.value
    if value is None or (reading is not None and reading.outcome is Outcome.OVER_RANGE):
        return ""
    if step is not None and step.plausible_from is not None and value < step.plausible_from:
        return "too_soon"
    most = finding.limit if finding.limit is not None and not finding.at_least else step.limit if step else None
    high = step.expected_high if step is not None else None
    if (most is not None and value > most) or (most is None and high is not None and value > high):
        return "above"
    return "below"
