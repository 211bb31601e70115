"""What the operator must have been told, and have agreed to, before work goes on."""

from __future__ import annotations

from datetime import date

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.supply import ENERGISED_EARLY, OPERATOR
from fulmen.core.installation.run import ORIGIN
from fulmen.core.network_operator.notification import (
    Held,
    OperatorMatter,
    OperatorState,
    Route,
    agreed_letter,
)

WAITS = {
    OperatorState.NOT_SENT: "Apply, and wait for the answer.",
    OperatorState.WAITING: "The application is with the operator: wait for the answer.",
    OperatorState.BOOKED: "The operator's own work is booked: wait until it is done.",
    OperatorState.MORE_WANTED: "The operator wants to know more: add it and apply again.",
    OperatorState.OUT_OF_DATE: "The job has changed since the last letter: apply again.",
}


def operator_findings(case: Case, matter: OperatorMatter, live_on: date | None) -> list[Finding]:
    """One finding: told in time, or work must wait and why; `live_on` is the day from which the circuit was live."""
    asked = ask(OPERATOR, case.rules, ORIGIN)
    if matter.route is Route.NOTIFY_AFTER:
        return [asked.meets(f"Notify after: {matter.deadline_words[0].lower()}{matter.deadline_words[1:]}")]
    against = next(reason.text for reason in matter.reasons if reason.holds is not Held.YES)
    if matter.hold:
        live = f" It was live on {live_on:%-d %B %Y} all the same." if live_on else ""
        told = f"Apply before: {against} {WAITS[matter.state]}{live}"
        return [asked.needs_fact(told, basis={"state": matter.state})]
    if matter.stand_in:
        detail = "Only the stand-in desk agreed; no operator has seen it. Keep the real operator's answer here."
        return [asked.needs_fact(detail, basis={"stand_in": True})]
    letter = agreed_letter(case.job, case.demand)
    assert letter is not None
    agreed = [asked.meets(f"The operator agreed in writing on {letter.dated:%-d %B %Y}. {against}")]
    return [*agreed, *_energised_early(case, letter.dated, live_on)]


def _energised_early(case: Case, agreed_on: date, live_on: date | None) -> list[Finding]:
    """Live before the operator had agreed: a gap, whatever was agreed since."""
    if live_on is None or live_on >= agreed_on:
        return []
    detail = f"Live on {live_on:%-d %B %Y}, agreed on {agreed_on:%-d %B %Y}. Say who allowed it."
    basis = {"live_on": live_on.isoformat(), "agreed_on": agreed_on.isoformat()}
    return [ask(ENERGISED_EARLY, case.rules, ORIGIN).your_call(detail, basis=basis)]
