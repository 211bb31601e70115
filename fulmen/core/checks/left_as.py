"""A circuit whose unit comes later and how it is left; a cable that is used again and what stays on it meanwhile."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules import around as rules
from fulmen.core.findings.words import word
from fulmen.core.model.seen import Seen


def to_come_findings(case: Case) -> Iterator[Finding]:
    """643.10, 526: what is handed over without its unit has no live end in the open, and nobody switches it on."""
    point = case.run.charge_point
    if not point.to_come or not case.run.chain:
        return
    asked = ask(rules.TO_COME, case.rules, point.id, unit=point.name)
    if point.end_closed is Seen.NO:
        yield asked.falls_short("The cable's end is not closed in a box.", remedy="End it in a box that wants a tool.")
    elif Seen.NOT_SEEN in (point.end_closed, point.left_locked, point.left_labelled):
        yield asked.needs_fact("Is its end closed in a box that wants a tool, its device locked off, and labelled?")
    elif point.left_labelled is Seen.NO:
        yield asked.falls_short(
            "No label says what it is.", remedy="Label box and device: unit to come, don't switch on."
        )
    elif point.left_locked is Seen.NO:
        detail = "Its device is not locked off, so the closed box may be live. Say why, and who knows it."
        yield asked.your_call(
            detail, basis={"left_locked": point.left_locked}, remedy="Lock it off until the unit comes."
        )
    else:
        yield asked.meets("Closed, locked off, labelled.")


def stays_connected_findings(case: Case) -> Iterator[Finding]:
    """643.3: what is there already may have something on it that 500 V would hurt, or that pulls the reading down."""
    for chained in case.new_circuits:
        circuit = chained.circuit
        if circuit.fitted_with_this_job:
            continue
        asked = ask(rules.STAYS_CONNECTED, case.rules, circuit.id)
        if circuit.stays_connected is None:
            yield asked.needs_fact(
                "Say what can't be taken off it: surge protection, electronics, the unit, or nothing."
            )
        elif circuit.stays_connected:
            stays = ", ".join(word(one) for one in circuit.stays_connected)
            yield asked.meets(
                f"With {stays}: live to earth alone, at {case.rules.value('insulation_test_connected_v'):g} V."
            )
        else:
            yield asked.meets("Nothing: 500 V between all of them.")
