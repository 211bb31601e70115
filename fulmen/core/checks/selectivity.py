"""What goes off first: each device against the one before it (BS 7671 536.4)."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.selectivity import Opener, cut_out_opener, opener_of, selective_up_to_a
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import SELECTIVITY


def selectivity_findings(case: Case) -> list[Finding]:
    """Each device against the one before it. Nothing here falls short; what matters is to know what goes off."""
    if case.figures is None:
        return []
    fuse_a = case.job.supply.cut_out_fuse_a
    before = cut_out_opener(float(fuse_a), case.job.supply.cut_out_fuse_standard) if fuse_a else None
    findings = []
    for chained in case.figures.chain:
        after = opener_of(chained.circuit)
        if before is not None and chained.circuit.id not in case.judged_before:
            findings.append(_selective(case, before, after, chained.circuit.id, chained.start_fault_ka * 1000))
        before = after
    return findings


def _selective(case: Case, before: Opener, after: Opener, subject: str, fault_a: float) -> Finding:
    up_to_a, fault_ka = selective_up_to_a(before, after), fault_a / 1000
    asked = ask(SELECTIVITY, case.rules, subject, nearer=after.name.split(",")[0], further=before.name)
    if up_to_a is None or up_to_a >= fault_a:
        return asked.meets(f"For every fault up to the {fault_ka:.2f} kA there, only the nearer one opens.")
    if up_to_a > 0:
        line = WorkingLine(
            symbol="I", value=up_to_a / 1000, unit="kA", source="table gg_fuse, let_through; half cycle 0.01 s"
        )
        detail = f"Up to {up_to_a / 1000:.2f} kA only the nearer one opens; from there to {fault_ka:.2f} kA both may."
        return asked.meets(detail, working=(line,))
    detail = (
        "The one before is no bigger, or its energies are not known: either may go first, or both. Say why it serves."
    )
    return asked.your_call(detail, basis={**_facts("nearer", after), **_facts("further", before)})


def _facts(which: str, guard: Opener) -> dict[str, object]:
    return {f"{which}_kind": guard.kind, f"{which}_curve": guard.curve, f"{which}_a": guard.rating_a}
