"""Conductors that survive the fault: by energy, and armour that is the only protective conductor (BS 7671 543)."""

from __future__ import annotations

from fulmen.core.circuit.margins import capacity_margin, energy_margin, fault_energy
from fulmen.core.circuit.run_figures import Case, CircuitFigures
from fulmen.core.electrical.fault_energy import TABLED_CLASS
from fulmen.core.electrical.fault_loop import instantaneous_trip_a
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import ARMOUR_ALONE, LEAST_FAULT, SURVIVES_FAULT
from fulmen.core.installation.tree import ChainCircuit
from fulmen.core.model.cables import Cable
from fulmen.core.model.guards import DeviceKind
from fulmen.core.reference.cable_catalogue import K_COPPER, K_SOURCE, K_STEEL, armour_alone, cables_of


def fault_withstand_findings(case: Case) -> list[Finding]:
    """Every finding about what a fault does to the conductors."""
    alone = [finding for chained in case.new_circuits for finding in _armour_alone(case, chained)]
    weak = (_least_fault(case, chained) for chained in case.new_figures)
    return [*(_survives(case, chained) for chained in case.new_figures), *weak, *alone]


def _survives(case: Case, chained: CircuitFigures) -> Finding:
    """S ≥ √(I²t)/k for line and protective conductor, at the highest and the least fault of the circuit."""
    assert case.figures is not None
    asked = ask(SURVIVES_FAULT, case.rules, chained.circuit.id)
    fault_ka, source, device = chained.start_fault_ka, case.figures.fault.source, chained.device
    stands_already = device.kind is DeviceKind.BREAKER and not chained.circuit.fitted_with_this_job
    if stands_already and device.energy_class is None and not device.by_maker:
        return asked.needs_fact(
            f"Read the energy class of the {device_words(device)}: the figure in the small square under its rating."
        )
    try:
        found = fault_energy(chained, fault_ka, case.rules)
    except TableError as error:
        if device.kind is not DeviceKind.BREAKER or device.by_maker or device.energy_class not in (None, TABLED_CLASS):
            return asked.needs_fact(f"{error}.")
        return asked.needs_reading(
            f"{fault_ka:.1f} kA {source} is past the let-through table: measure it at the origin."
        )
    margin = energy_margin(found, chained.circuit.id)
    lines = (
        WorkingLine(symbol="I²t", value=found.energy_a2s, decimals=0, unit="A²s", source=found.source),
        WorkingLine(symbol="k", value=found.conductor.k, decimals=0, source=K_SOURCE),
        WorkingLine(
            symbol="S",
            formula="√(I²t)/k",
            figures=f"√{found.energy_a2s:.0f}/{found.conductor.k:.0f}",
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
        detail=f"{found.conductor.name} {found.conductor.csa_mm2:g} mm², fault current {fault_ka:.2f} kA {source}",
        remedy="Use a bigger protective conductor or a smaller device.",
    )


def _least_fault(case: Case, chained: CircuitFigures) -> Finding:
    """The least short circuit, line to neutral at the far end, against the instantaneous trip of a breaker."""
    device, asked = chained.device, ask(LEAST_FAULT, case.rules, chained.circuit.id)
    if device.kind is not DeviceKind.BREAKER or device.by_maker:
        return asked.meets("It opens on it later, judged by the energy it lets through.")
    u0_v, cmin = case.rules.value("u0_v"), case.rules.value("voltage_factor_min")
    least_a = u0_v * cmin / chained.end.hot_neutral_ohm
    trip_a = instantaneous_trip_a(device.curve.value, device.rating_a)
    line = chained.laid.thinnest_line
    assert line is not None
    csa_mm2, stands_s = line.csa_mm2, (line.k * line.csa_mm2 / least_a) ** 2
    lines = (
        WorkingLine(
            symbol="I min", formula="U0·Cmin/Z(L–N), hot",
            figures=f"{u0_v:g}·{cmin:g}/{chained.end.hot_neutral_ohm:.3f}",
            value=least_a, decimals=0, unit="A",
        ),
        WorkingLine(
            symbol="t", formula="(k·S/I min)²", value=stands_s, decimals=1, unit="s",
            source=f"how long {csa_mm2:g} mm² stands it; {K_SOURCE}",
        ),
    )  # fmt: skip
    carried = capacity_margin(chained)
    opens_at_all = least_a >= OVERLOAD_MULTIPLE * device.rating_a
    late = f"; it opens late, the cable stands it {stands_s:.0f} s: overload protection may cover it, say why"
    return asked.judged(
        value=least_a,
        limit=trip_a,
        unit="A",
        decimals=0,
        at_least=True,
        working=lines,
        detail=f"line to neutral at the far end{'' if least_a >= trip_a else late}",
        remedy="Use a B curve, a smaller device or a bigger cable.",
        otherwise=Verdict.YOUR_CALL if opens_at_all else Verdict.FALLS_SHORT,
        basis={"curve": device.curve, "rating_a": device.rating_a, "csa_mm2": csa_mm2},
        conditions=LEAST_FAULT.borne_out(overload=carried is not None and carried.holds()),
    )


# The current that surely opens a BS EN 60898 breaker within an hour, or two above 63 A.
OVERLOAD_MULTIPLE = 1.45


def _armour_alone(case: Case, chained: ChainCircuit) -> list[Finding]:
    """Armour as the only protective conductor against S·k1/k2 of Table 54.7; the other school calculates."""
    found: dict[Cable, Finding] = {}
    for cable in cables_of(chained.circuit):
        record = case.installation.record(cable)
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
