"""The alternatives behind each choice of the specification sentence: what every one of them would do.

Each alternative is the whole job evaluated with that choice changed; nothing here is a canned answer.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from itertools import product

from fulmen.core.alternatives.protection_choice import ProtectionChoice, protected, protection_changes
from fulmen.core.circuit.protection_words import rcd_words, surge_words
from fulmen.core.circuit.specification import ChoiceKey, device_choice_words
from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.route_editing import record_changes
from fulmen.core.errors import InputError
from fulmen.core.evaluate import findings_of
from fulmen.core.findings.finding import Finding, Stage, Verdict
from fulmen.core.findings.rules import REGISTER
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import holds_rcd, rcd_beside_device
from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.installation.run import Run
from fulmen.core.judging.merging import ORDER
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.base import Part
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Curve, Device, DeviceKind, RcdMark, RcdType, ordered_rcd
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.reference.usual_sizes import BREAKERS_A, FUSES_A
from fulmen.core.so_far import SoFar, finished

# The figures worth telling in a short list.
TOLD = [rule for rule in REGISTER.values() if rule.told_with_choices]
TOLD_KEYS = {rule.key for rule in TOLD}


class Alternative(Part):
    """One way to fill a choice, and what it would do.

    `verdict` is the worst among the findings that this choice moves; `why_not` says which falls short, with its
    clause and the fear behind it.
    """

    label: str
    chosen: bool
    verdict: Verdict
    consequence: str
    why_not: str
    clause: str
    fear: str
    changes: tuple[Change, ...]


# Breakers below 16 A never carry a car; the menu starts there.
LEAST_OFFERED = BREAKERS_A.index(16)

Candidate = tuple[str, bool, tuple[Change, ...]]


def alternatives(job: Job, circuit_id: str, choice: ChoiceKey, rules: RuleSet) -> tuple[Alternative, ...]:
    """Every alternative for one choice of one circuit, refused ones included.

    Raises:
        InputError: the job has no such circuit.
        JobFileError: the job's structure cannot be taken.
    """
    return finished(choosing(job, circuit_id, choice, rules))


def choosing(job: Job, circuit_id: str, choice: ChoiceKey, rules: RuleSet) -> Iterator[SoFar[tuple[Alternative, ...]]]:
    """The same step by step, an alternative a step; told once all are judged, since each is told beside the others."""
    check_structure(job)
    installation = installation_of(job)
    circuit = installation.tree.circuits.get(circuit_id)
    if circuit is None:
        raise InputError("circuit", f"There is no circuit “{circuit_id}”.")
    candidates = CANDIDATES[choice](installation, job.circuits.index(circuit)) if choice in CANDIDATES else []
    judged: list[dict[str, Finding]] = []

    yield SoFar(0, len(candidates), tuple)
    for _, _, changes in candidates:
        judged.append(_design_findings(apply_changes(job, changes), rules))
        yield SoFar(len(judged), len(candidates), lambda: _beside_each_other(candidates, judged))


def _beside_each_other(candidates: list[Candidate], judged: list[dict[str, Finding]]) -> tuple[Alternative, ...]:
    """Each told by the findings that differ between them; nothing before all are judged, or a shortfall is missed."""
    if len(judged) < len(candidates):
        return ()
    moved = _moved(judged)
    return tuple(
        _alternative(candidate, [finding for finding in findings.values() if finding.key in moved])
        for candidate, findings in zip(candidates, judged, strict=True)
    )


def _design_findings(job: Job, rules: RuleSet) -> dict[str, Finding]:
    stages = (Stage.SURVEY, Stage.DESIGN)
    return {
        finding.key: finding
        for finding in findings_of(job, rules)
        if finding.stage in stages or finding.rule in TOLD_KEYS
    }


def _moved(judged: list[dict[str, Finding]]) -> set[str]:
    """The keys of findings that differ between the alternatives: those that the choice decides."""
    keys = {key for findings in judged for key in findings}
    return {key for key in keys if any(findings.get(key) != judged[0].get(key) for findings in judged)}


def _alternative(candidate: Candidate, findings: list[Finding]) -> Alternative:
    label, chosen, changes = candidate
    open_ones = sorted((finding for finding in findings if finding.is_open), key=lambda finding: ORDER[finding.verdict])
    worst = open_ones[0] if open_ones else None
    refused = worst is not None and worst.verdict is Verdict.FALLS_SHORT
    return Alternative(
        label=label,
        chosen=chosen,
        verdict=worst.verdict if worst else Verdict.MEETS,
        consequence=_consequence(findings, worst),
        why_not=_reason(worst) if worst and refused else "",
        clause=worst.clause if worst and refused else "",
        fear=worst.fear if worst and refused else "",
        changes=changes,
    )


def _consequence(findings: list[Finding], worst: Finding | None) -> str:
    if worst is not None and worst.verdict is not Verdict.FALLS_SHORT:
        return _reason(worst)
    by_rule = {finding.rule: finding for finding in findings if finding.value is not None}
    told = [f"{rule.short} {by_rule[rule.key].figures()}" for rule in TOLD if rule.key in by_rule]
    if told:
        return "; ".join(told)
    return " ".join(finding.detail for finding in findings if finding.verdict is Verdict.MEETS)


def _reason(finding: Finding) -> str:
    told = "; ".join(part for part in (finding.figures(), finding.detail) if part)
    return f"{finding.title}: {told}" if told else finding.title


def _circuit(installation: Installation, index: int) -> Circuit:
    return installation.job.circuits[index]


def _run_to(installation: Installation, index: int) -> Run | None:
    """The run that ends with this circuit, if one does."""
    circuit = _circuit(installation, index).id
    return next((run for run in installation.runs if run.chain and run.final().circuit.id == circuit), None)


def _arranged(
    installation: Installation, index: int, field: str, kinds: Iterable[CarEarth | OpenPenMeasure | RdcDdPlace]
) -> list[Candidate]:
    """One choice of an arrangement, with the guards that each alternative brings or takes along."""
    run = _run_to(installation, index)
    if run is None:
        return []
    now, rcd = run.charge_point.arrangement, run.final().circuit.device.rcd
    found = []
    for kind in kinds:
        chosen = getattr(now, field) is kind
        then = protected(installation.job, run, ProtectionChoice(now.model_copy(update={field: kind}), rcd))
        found.append((word(kind), chosen, () if chosen else protection_changes(installation, then)))
    return found


def _car_earth(installation: Installation, index: int) -> list[Candidate]:
    return _arranged(installation, index, "car_earth", CarEarth)


def _open_pen(installation: Installation, index: int) -> list[Candidate]:
    return _arranged(installation, index, "open_pen", OpenPenMeasure)


def _rdc_dd(installation: Installation, index: int) -> list[Candidate]:
    return _arranged(installation, index, "rdc_dd", RdcDdPlace)


def _surge(installation: Installation, index: int) -> list[Candidate]:
    """Surge protection stands at the first board of the run: the origin's, or an own board off split tails."""
    final = _circuit(installation, index).id
    run = next(
        (run for run in installation.runs if run.chain and final in [chained.circuit.id for chained in run.chain]), None
    )
    first = run.chain[0].board if run is not None else installation.tree.origin
    assert first is not None
    now, field = first.surge_protection, f"{installation.tree.paths[first.id]}.surge_protection"
    return [(surge_words(way), way is now, (Change(field=field, value=way.value),)) for way in Seen]


def _rcd(installation: Installation, index: int) -> list[Candidate]:
    now = _circuit(installation, index).device.rcd
    ways: list[RcdMark | None] = [ordered_rcd(kind) for kind in (RcdType.A, RcdType.F, RcdType.B, RcdType.AC)]
    ways.append(None)
    if now not in ways:
        ways.insert(0, now)
    field, run = f"circuits.{index}.device.rcd", _run_to(installation, index)
    before = run is not None and rcd_beside_device(run.guards)
    in_unit = run is not None and holds_rcd(run.guards)
    return [
        (
            rcd_words(way, before=before, in_unit=in_unit),
            way == now,
            (Change(field=field, value=way and way.model_dump(mode="json")),),
        )
        for way in ways
    ]


def _without_maker(circuit: Circuit, field: str) -> list[Change]:
    """A maker's figures are for one device: another one starts without."""
    had = circuit.device.model_dump(include={"maker_zs_ohm", "maker_opens_s", "maker_energy_a2s"}, exclude_none=True)
    return [Change(field=f"{field}.{name}", value=None) for name in had]


def _device(installation: Installation, index: int) -> list[Candidate]:
    """Breakers, and at a sub-main the fuses of a fused switch; what stands is listed even where it is neither."""
    circuit, field = _circuit(installation, index), f"circuits.{index}.device"
    final = circuit.feeds in installation.tree.points
    kinds = [
        (DeviceKind.BREAKER, curve, rating) for curve, rating in product((Curve.B, Curve.C), BREAKERS_A[LEAST_OFFERED:])
    ]
    if not final:
        kinds += [(DeviceKind.FUSE, circuit.device.curve, rating) for rating in FUSES_A]
    now = (circuit.device.kind, circuit.device.curve, circuit.device.rating_a)
    if now not in kinds:
        kinds.insert(0, now)
    return [
        (
            device_choice_words(Device(kind=kind, curve=curve, rating_a=rating)),
            (kind, curve, rating) == now,
            (
                Change(field=f"{field}.kind", value=kind.value),
                Change(field=f"{field}.curve", value=curve.value),
                Change(field=f"{field}.rating_a", value=rating),
                *([] if (kind, curve, rating) == now else _without_maker(circuit, field)),
            ),
        )
        for kind, curve, rating in kinds
    ]


def _csa(installation: Installation, index: int) -> list[Candidate]:
    cable, field = _circuit(installation, index).cable, f"circuits.{index}.cable.csa_mm2"
    sizes = installation.record(cable).sizes_mm2
    return [(f"{size:g} mm²", size == cable.csa_mm2, (Change(field=field, value=size),)) for size in sizes]


def _cable(installation: Installation, index: int) -> list[Candidate]:
    now = _circuit(installation, index).cable.record
    return [
        (record.name, record.id == now, () if record.id == now else record_changes(installation.job, index, record.id))
        for record in installation.cables.values()
    ]


CANDIDATES: dict[str, Callable[[Installation, int], list[Candidate]]] = {
    "car_earth": _car_earth,
    "open_pen": _open_pen,
    "rdc_dd": _rdc_dd,
    "surge": _surge,
    "rcd": _rcd,
    "device": _device,
    "csa": _csa,
    "cable": _cable,
}
