"""What the operator must have been told, and have agreed to, before work goes on."""

from __future__ import annotations

from fulmen.core.circuit.origin import ORIGIN
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding, Stage, Verdict, stated
from fulmen.core.network_operator.notification import Held, OperatorState, Route, operator_matter

TITLE = "Network operator told in time"
WAITS = {
    OperatorState.NOT_SENT: "Apply, and wait for the answer.",
    OperatorState.WAITING: "The application is with the operator: wait for the answer.",
    OperatorState.BOOKED: "The operator's own work is booked: wait until it is done.",
    OperatorState.MORE_WANTED: "The operator wants to know more: add it and apply again.",
    OperatorState.OUT_OF_DATE: "The job has changed since the last letter: apply again.",
}


def operator_findings(case: Case) -> list[Finding]:
    """One finding: told in time, or work must wait and why."""
    matter, clause = operator_matter(case.job, case.rules, case.demand), case.rules.clause("notify_demand_a")
    if matter.route is Route.NOTIFY_AFTER:
        detail = f"Notify after: {matter.deadline_words[0].lower()}{matter.deadline_words[1:]}"
        return [stated("operator", ORIGIN, TITLE, Verdict.MEETS, detail, clause, stage=Stage.SURVEY)]
    against = next(reason.text for reason in matter.reasons if reason.holds is not Held.YES)
    if matter.hold:
        detail = f"Apply before: {against} {WAITS[matter.state]}"
        return [stated("operator", ORIGIN, TITLE, Verdict.NEEDS, detail, clause, stage=Stage.SURVEY)]
    if matter.stand_in:
        detail = "Only the stand-in desk agreed; no operator has seen it. Keep the real operator's answer here."
        return [stated("operator", ORIGIN, TITLE, Verdict.NEEDS, detail, clause, stage=Stage.SURVEY)]
    dated = case.job.letters[-1].dated
    detail = f"The operator agreed in writing on {dated:%-d %B %Y}. {against}"
    return [stated("operator", ORIGIN, TITLE, Verdict.MEETS, detail, clause, stage=Stage.SURVEY)]
