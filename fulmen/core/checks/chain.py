"""The chain of boards and circuits: phases that reach the charge point, joints on the way, what goes off first."""

from __future__ import annotations

from fulmen.core.checks.common import needs_fact
from fulmen.core.checks.earthing import earthed_by_pme
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.joints import joints_of
from fulmen.core.electrical.selectivity import Guard, cut_out_guard, guard_of, selective_up_to_a
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, Stage, Verdict, WorkingLine, judged, stated
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.run import ChainCircuit, line_of
from fulmen.core.model.supply import Seen
from fulmen.core.reference.cable_catalogue import cable_record, cables_of, copper_protective_mm2

SELECTIVITY = "BS 7671 536.4"


def chain_findings(case: Case) -> list[Finding]:
    """Every finding about how the boards and circuits of a run follow one another."""
    if not case.run.chain:
        return []
    findings = [_phases(case)]
    for chained in case.new_circuits():
        findings.extend([_cores(case, chained), *_armour_alone(case, chained), *_joints(case, chained)])
    findings.extend(_exported_earth(case, chained) for chained in case.run.chain[1:] if chained in case.new_circuits())
    findings.extend(_selectivity(case))
    return [finding for finding in findings if finding is not None]


def _phases(case: Case) -> Finding | None:
    """A three-phase charge point needs three phases from the cut-out to the last board."""
    point = case.run.charge_point
    three_way = case.job.supply.phases == 3 and all(chained.circuit.phases == 3 for chained in case.run.chain[:-1])
    title, clause = "Phases that the charge point needs", "BS 7671 312.1"
    if point.phases == 1:
        if case.job.supply.phases == 1:
            return None
        phase = line_of(case.job, case.run.final().circuit).value
        return stated("phases", case.subject, title, Verdict.MEETS, f"Single-phase, on {phase}.", clause)
    if three_way:
        return stated("phases", case.subject, title, Verdict.MEETS, "Three phases all the way.", clause)
    where = "the supply" if case.job.supply.phases == 1 else "a sub-main"
    detail = f"A three-phase unit, and {where} has one phase: it would charge on one phase at most."
    remedy = "Set the unit to single-phase if its maker allows it, or bring three phases."
    return stated("phases", case.subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy)


def _cores(case: Case, chained: ChainCircuit) -> Finding | None:
    phases = case.run.charge_point.phases if chained is case.run.chain[-1] else chained.circuit.phases
    for cable in cables_of(chained.circuit):
        record = cable_record(cable.record, case.job)
        if phases not in record.phases:
            detail = f"{record.name.capitalize()} has too few cores for three phases, neutral and earth."
            remedy = "Choose a cable made with five cores."
            return stated(
                "cable_cores", chained.circuit.id, "Cable has enough cores", Verdict.FALLS_SHORT, detail,
                "the cable's record in the catalogue", remedy=remedy,
            )  # fmt: skip
    return None


def _armour_alone(case: Case, chained: ChainCircuit) -> list[Finding]:
    """Armour as the only protective conductor against S·k1/k2 of Table 54.7; the other school calculates."""
    found: dict[Cable, Finding] = {}
    for cable in cables_of(chained.circuit):
        record = cable_record(cable.record, case.job)
        if cable.protective is not Protective.ARMOUR and record.cpc != "armour":
            continue
        try:
            area_mm2 = record.armour_mm2(cable.csa_mm2)
        except TableError:
            continue
        k1, k2 = (143, 46) if record.insulation == "xlpe_90" else (115, 51)
        line = WorkingLine(
            symbol="S", formula="S line·k1/k2", figures=f"{cable.csa_mm2:g}·{k1}/{k2}",
            value=cable.csa_mm2 * k1 / k2, decimals=1, unit="mm²", source="BS 7671 Table 54.7",
        )  # fmt: skip
        found[cable] = judged(
            rule="armour_alone",
            subject=chained.circuit.id,
            title="Armour big enough alone as protective conductor",
            value=area_mm2,
            limit=cable.csa_mm2 * k1 / k2,
            unit="mm²",
            decimals=1,
            at_least=True,
            clause="BS 7671 543.1.4, Table 54.7",
            working=(line,),
            detail=f"armour of {cable.csa_mm2:g} mm² {record.name}; the calculation stands under “survive the fault”",
            remedy="Use a core as protective conductor, with or without the armour.",
            otherwise=Verdict.YOUR_CALL,
        )
    return list(found.values())[:1]


def _exported_earth(case: Case, chained: ChainCircuit) -> Finding | None:
    """A PME earth taken to another building bonds what is extraneous there with a conductor of bonding size."""
    if not earthed_by_pme(case):
        return None
    board, title = chained.board, f"House earth taken to {chained.board.name}"
    clause = case.rules.clause("main_bonding_pme_mm2")
    if board.extraneous_parts is Seen.NOT_SEEN:
        detail = "Look for metal pipes or steel in the ground there: they would need main bonding."
        return needs_fact("exported_earth", board.id, title, detail, clause, Stage.DESIGN)
    if board.extraneous_parts is Seen.NO:
        detail = "Nothing there brings in true earth."
        return stated("exported_earth", board.id, title, Verdict.MEETS, detail, clause)
    feeder = next(one for one in case.run.chain if one.circuit.feeds == board.id).circuit
    least = min(copper_protective_mm2(cable_record(one.record, case.job), one) for one in cables_of(feeder))
    return judged(
        rule="exported_earth",
        subject=board.id,
        title=title,
        value=least,
        limit=case.rules.value("main_bonding_pme_mm2"),
        unit="mm²",
        decimals=0,
        at_least=True,
        clause=clause,
        detail="the sub-main's protective core is the main bonding there too; its armour is no copper",
        remedy="Use a bigger sub-main, run a bonding conductor with it, or earth the building by an electrode.",
    )


def _joints(case: Case, chained: ChainCircuit) -> list[Finding]:
    findings = []
    for joint in joints_of(chained.circuit, case.job):
        section = chained.circuit.route[joint.section]
        subject, title = f"{chained.circuit.id}-{joint.section + 1}", f"{joint.name} before section {joint.section + 1}"
        clause = "BS 7671 526.3, 526.5"
        if section.joint_accessible is Seen.YES:
            detail = f"{joint.words}; it can be reached and inspected."
            findings.append(stated("joint", subject, title, Verdict.MEETS, detail, clause))
        elif section.joint_accessible is Seen.NO:
            detail = f"{joint.words}; it can't be reached."
            remedy = (
                "Move the box to where it can be reached, or joint the cable by a means made to be buried or hidden."
            )
            findings.append(stated("joint", subject, title, Verdict.FALLS_SHORT, detail, clause, remedy=remedy))
        else:
            detail = f"{joint.words}. Can it be reached for inspection when all is covered up?"
            findings.append(needs_fact("joint", subject, title, detail, clause, Stage.DESIGN))
    return findings


def _selectivity(case: Case) -> list[Finding]:
    """Each device against the one before it. Nothing here falls short; what matters is to know what goes off."""
    if case.figures is None:
        return []
    fuse_a = case.job.supply.cut_out_fuse_a
    before = cut_out_guard(float(fuse_a)) if fuse_a else None
    findings = []
    for chained in case.figures.chain:
        after = guard_of(chained.circuit)
        if before is not None and chained.circuit.id not in case.judged_before:
            findings.append(_selective(before, after, chained.circuit.id, chained.start_fault_ka * 1000))
        before = after
    return findings


def _selective(before: Guard, after: Guard, subject: str, fault_a: float) -> Finding:
    up_to_a, title = selective_up_to_a(before, after), f"What goes off: {after.name.split(',')[0]} before {before.name}"
    if up_to_a is None or up_to_a >= fault_a:
        detail = f"For every fault up to the {fault_a / 1000:.2f} kA there, only the nearer one opens."
        return stated("selectivity", subject, title, Verdict.MEETS, detail, SELECTIVITY)
    line = WorkingLine(
        symbol="I", value=up_to_a / 1000, unit="kA", source="table gg_fuse, let_through; half cycle 0.01 s"
    )
    if up_to_a > 0:
        detail = (
            f"Up to {up_to_a / 1000:.2f} kA only the nearer one opens; from there to {fault_a / 1000:.2f} kA both may."
        )
        return stated("selectivity", subject, title, Verdict.MEETS, detail, SELECTIVITY, working=(line,))
    detail = (
        "The one before is no bigger, or its energies are not known: either may go first, or both. Say why it serves."
    )
    return stated("selectivity", subject, title, Verdict.YOUR_CALL, detail, SELECTIVITY)
