"""A way in words: its cables in the order of walking, its devices, what it weighs, what takes it."""

from __future__ import annotations

from fulmen.core.alternatives.search.result import FoundWay
from fulmen.core.alternatives.search.weighing import Candidate
from fulmen.core.alternatives.search.wiring import Wired
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.editing.changes import changes_between
from fulmen.core.electrical.joints import joints_of
from fulmen.core.electrical.selectivity import device_words
from fulmen.core.findings.finding import Finding
from fulmen.core.installation.installation import Installation
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Earthing


def told_short(finding: Finding) -> str:
    return f"{finding.title}: {finding.figures() or finding.detail}"


def found_way(job: Job, way: Candidate, best_at: tuple[str, ...], conditions: int) -> FoundWay:
    wired, changes = way.wired, changes_between(job, way.job)
    return FoundWay(
        layout=wired.layout.words,
        cable=cables_words(wired),
        device=devices_words(wired),
        protection=way.protection.protection.words(tt=job.supply.earthing is Earthing.TT),
        best_at=best_at,
        metal_kg=way.metal_kg,
        work_min=way.work_min,
        price=way.price,
        spare_a=way.spare_a,
        drop_percent=way.drop_percent,
        margin=way.margin,
        joints=sum(len(joints_of(circuit, wired.layout.installation.cables)) for circuit in wired.circuits()),
        conditions=conditions,
        standing=not changes,
        changes=changes,
    )  # fmt: skip


def cables_words(wired: Wired) -> str:
    return "; ".join(_cable_words(chained, wired.layout.installation) for chained in wired.chain)


def devices_words(wired: Wired) -> str:
    return "; ".join(device_words(circuit.device) for circuit in wired.circuits())


def _cable_words(chained: CircuitFigures, installation: Installation) -> str:
    """The cables of a circuit in the order of walking; a size is said again only where it changes."""
    told, before_mm2 = [], 0.0
    for cable in dict.fromkeys(one.cable for one in chained.sections):
        size = f"{cable.csa_mm2:g} mm² " if cable.csa_mm2 != before_mm2 else ""
        told.append(size + installation.record(cable).name)
        before_mm2 = cable.csa_mm2
    return ", then ".join(told)
