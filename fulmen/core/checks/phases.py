"""Phases that reach the charge point, and cores enough in the cable for them."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import CABLE_CORES, PHASES
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.reference.cable_catalogue import cables_of


def phase_findings(case: Case) -> list[Finding]:
    """Every finding about phases and cores."""
    if not case.run.chain:
        return []
    findings = [_phases(case), *(_cores(case, chained) for chained in case.new_circuits)]
    return [finding for finding in findings if finding is not None]


def _phases(case: Case) -> Finding | None:
    """A three-phase charge point needs three phases from the cut-out to the last board."""
    point, asked = case.run.charge_point, ask(PHASES, case.rules, case.subject)
    if case.job.supply.phases is None or point.phases is None:
        whose = "the supply" if case.job.supply.phases is None else "the unit"
        return asked.needs_fact(f"How many phases has {whose}? One is reckoned until then.")
    three_way = case.job.supply.phase_count == 3 and all(chained.circuit.phases == 3 for chained in case.run.chain[:-1])
    if point.phase_count == 1:
        if case.job.supply.phase_count == 1:
            return None
        return asked.meets(f"Single-phase, on {case.installation.tree.line_of(case.run.final().circuit).value}.")
    if three_way:
        return asked.meets("Three phases all the way.")
    where = "the supply" if case.job.supply.phase_count == 1 else "a sub-main"
    return asked.falls_short(
        f"A three-phase unit, and {where} has one phase: it would charge on one phase at most.",
        remedy="Set the unit to single-phase if its maker allows it, or bring three phases.",
    )


def _cores(case: Case, chained: ChainCircuit) -> Finding | None:
    phases = case.run.charge_point.phase_count if chained is case.run.chain[-1] else chained.circuit.phases
    for cable in cables_of(chained.circuit):
        record = case.installation.record(cable)
        if phases not in record.phases:
            return ask(CABLE_CORES, case.rules, chained.circuit.id).falls_short(
                f"{record.name.capitalize()} has too few cores for three phases, neutral and earth.",
                remedy="Choose a cable made with five cores.",
            )
    return None
