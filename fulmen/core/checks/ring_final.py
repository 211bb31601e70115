"""A ring final circuit: what it may feed, behind which device, of which size (BS 7671 433.1.204)."""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.run import RING_FINAL
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.load import LoadKind
from fulmen.core.reference.cable_catalogue import cables_of

# What sits still on a ring and runs for long loads one way round more than the other.
ON_ITS_OWN = (
    LoadKind.COOKER,
    LoadKind.SHOWER,
    LoadKind.WATER_HEATER,
    LoadKind.HEATING,
    LoadKind.FLOOR_HEATING,
    LoadKind.STORAGE_HEATING,
    LoadKind.HEAT_PUMP,
    LoadKind.CAR,
)


def ring_final_findings(case: Case) -> Iterator[Finding]:
    """Every finding about the rings of a run: only a circuit that ends at loads can be one."""
    for chained in case.new_circuits:
        circuit, asked = chained.circuit, ask(RING_FINAL, case.rules, chained.circuit.id)
        if circuit.feeds:
            if circuit.ring:
                remedy = "Run it one way, on a circuit of its own."
                yield asked.falls_short("A charge point or a board hangs at the end of one run.", remedy=remedy)
        elif circuit.ring:
            yield _ring(case, circuit, asked)
        elif circuit.ring is None and not circuit.fitted_with_this_job:
            yield asked.needs_fact(f"Does {circuit.name} go round and back to its own board, or end at its last point?")


def _ring(case: Case, circuit: Circuit, asked: Question) -> Finding:
    """Its device, its size, what it feeds; what each way carries stands with the weakest section."""
    most_a, least_mm2 = case.rules.value("ring_device_a"), case.rules.value("ring_mm2")
    thinnest_mm2 = min(cable.csa_mm2 for cable in cables_of(circuit))
    if circuit.device.rating_a > most_a:
        return asked.falls_short(
            f"It stands behind {circuit.device.rating_a} A; a ring goes up to {most_a:g} A.",
            remedy=f"Use a device of {most_a:g} A, or wire it as single runs.",
        )
    if circuit.phases != 1:
        return asked.falls_short("A ring has one line.", remedy="Make it single-phase, or wire it as single runs.")
    if thinnest_mm2 < least_mm2:
        return asked.falls_short(
            f"{thinnest_mm2:g} mm²; a ring is of {least_mm2:g} mm² or more all the way.",
            remedy=f"Use {least_mm2:g} mm², or a device that {thinnest_mm2:g} mm² carries alone, as a single run.",
        )
    heavy = [one.name or one.kind.value.replace("_", " ") for one in circuit.loads if one.kind in ON_ITS_OWN]
    if heavy:
        detail = f"On it: {', '.join(heavy)}. What runs long at one place loads one way round: say why it may stay."
        return asked.your_call(detail, basis={"heavy": tuple(heavy)}, remedy="Give it a circuit of its own.")
    leg_a = case.rules.value("ring_leg_a")
    return asked.meets(f"{thinnest_mm2:g} mm² all round; each way must carry {leg_a:g} A behind up to {most_a:g} A.")
