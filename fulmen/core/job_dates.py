"""The days that matter to a job: the operator's deadline, letters, booked work, the next inspection."""

from __future__ import annotations

from datetime import date

from fulmen.core.demand.demand import demand_of
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.model.letters import TO_OPERATOR
from fulmen.core.network_operator.notification import energised_on, operator_matter
from fulmen.core.reference.rule_set import RuleSet


class JobDate(Part):
    """One day of the calendar."""

    key: str
    day: date
    title: str
    detail: str


def job_dates(job: Job, rules: RuleSet) -> tuple[JobDate, ...]:
    """Every day that can be told from the job, in order."""
    found: list[JobDate] = []
    demand = demand_of(installation_of(job), rules)
    deadline = operator_matter(job, rules, demand, energised_on(job.readings)).deadline
    sent = [letter for letter in job.letters if letter.kind in TO_OPERATOR]
    if deadline is not None and not sent:
        detail = "The last day to send the operator the notice."
        found.append(JobDate(key="operator-deadline", day=deadline, title="Notify the network operator", detail=detail))
    for index, letter in enumerate(job.letters):
        stand_in = " (stand-in desk, no operator has seen it)" if letter.stand_in else ""
        title = f"Operator: {word(letter.kind)}{stand_in}"
        found.append(JobDate(key=f"letter-{index}", day=letter.dated, title=title, detail=letter.text))
        if letter.booked_on is not None:
            title = f"Operator's own work{stand_in}"
            detail = "Your work on the supply waits until this is done."
            found.append(JobDate(key=f"booked-{index}", day=letter.booked_on, title=title, detail=detail))
    signed = [signature.signed_on for signature in job.certificate.signatures]
    years = job.certificate.next_inspection_years
    if signed and years:
        day = max(signed)
        # 29 February becomes the 28th: never later than the interval.
        day = day.replace(year=day.year + years, day=28 if (day.month, day.day) == (2, 29) else day.day)
        found.append(
            JobDate(key="next-inspection", day=day, title="Inspect and test again by", detail=job.site.address)
        )
    return tuple(sorted(found, key=lambda one: (one.day, one.key)))
