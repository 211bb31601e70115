"""Conductors that survive the fault: by energy, and armour that is the only protective conductor (BS 7671 543)."""

from __future__ import annotations

from fulmen.core.circuit.margins import energy_margin, fault_energy
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import ARMOUR_ALONE, SURVIVES_FAULT
from fulmen.core.model.cables import Cable
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.run import ChainCircuit
from fulmen.core.reference.cable_catalogue import K_COPPER, K_SOURCE, K_STEEL, armour_alone, cable_record, cables_of


def fault_withstand_findings(case: Case) -> list[Finding]:
    """Every finding about what a fault does to the conductors."""
    alone = [finding for chained in case.new_circuits() for finding in _armour_alone(case, chained)]
    return [*(_survives(case, chained) for chained in case.new_figures()), *alone]


def _survives(case: Case, chained: CircuitFigures) -> Finding:
    """S ≥ √(I²t)/k for line and protective conductor, at the highest and the least fault of the circuit."""
    assert case.figures is not None
    asked = ask(SURVIVES_FAULT, case.rules, chained.circuit.id)
    fault_ka, source = chained.start_fault_ka, case.figures.fault.source
    try:
        found = fault_energy(chained, fault_ka, case.rules)
    except TableError as error:
        if chained.device.kind is not DeviceKind.BREAKER:
            return asked.needs_fact(f"{error}.")
        return asked.needs_reading(
            f"{fault_ka:.1f} kA {source} is past the let-through table: measure it at the origin."
        )
    margin = energy_margin(found, chained.circuit.id)
    lines = (
        WorkingLine(symbol="I²t", value=found.energy_a2s, decimals=0, unit="A²s", source=found.source),
        WorkingLine(symbol="k", value=found.k, decimals=0, source=K_SOURCE),
        WorkingLine(
            symbol="S",
            formula="√(I²t)/k",
            figures=f"√{found.energy_a2s:.0f}/{found.k:.0f}",
            value=margin.limit,
            unit="mm²",
        ),
    )
    return asked.judged(
        value=margin.value,
        limit=margin.limit,
        unit="mm²",
        at_least=True,
        working=lines,
        detail=f"{found.conductor} {found.conductor_mm2:g} mm², fault current {fault_ka:.2f} kA {source}",
        remedy="Use a bigger protective conductor or a smaller device.",
    )


def _armour_alone(case: Case, chained: ChainCircuit) -> list[Finding]:
    """Armour as the only protective conductor against S·k1/k2 of Table 54.7; the other school calculates."""
    found: dict[Cable, Finding] = {}
    for cable in cables_of(chained.circuit):
        record = cable_record(cable.record, case.job)
        if not armour_alone(record, cable):
            continue
        try:
            area_mm2 = record.armour_mm2(cable.csa_mm2)
        except TableError:
            continue
        k1, k2 = K_COPPER[record.insulation], K_STEEL[record.insulation]
        line = WorkingLine(
            symbol="S", formula="S line·k1/k2", figures=f"{cable.csa_mm2:g}·{k1:g}/{k2:g}",
            value=cable.csa_mm2 * k1 / k2, decimals=1, unit="mm²", source="BS 7671 Table 54.7",
        )  # fmt: skip
        found[cable] = ask(ARMOUR_ALONE, case.rules, chained.circuit.id).judged(
            value=area_mm2,
            limit=cable.csa_mm2 * k1 / k2,
            unit="mm²",
            decimals=1,
            at_least=True,
            working=(line,),
            detail=f"armour of {cable.csa_mm2:g} mm² {record.name}; the calculation stands under “survive the fault”",
            remedy="Use a core as protective conductor, with or without the armour.",
            otherwise=Verdict.YOUR_CALL,
            basis={"record": record.id, "csa_mm2": cable.csa_mm2},
        )
    return list(found.values())[:1]
