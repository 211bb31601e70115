"""The Electrical Installation Certificate as PDF, written as PDF/A-3 with the job file inside it."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Protocol

from markupsafe import Markup

from fulmen.core.alternatives.reach import how_far, reach_words
from fulmen.core.circuit.arrangement_schedule import arrangement_facts, rcd_in_words
from fulmen.core.circuit.guards import Stands, guards_of
from fulmen.core.circuit.origin import ORIGIN, three_phase_fault_ka
from fulmen.core.electrical.cable_rating import section_rating
from fulmen.core.evaluate import Evaluation
from fulmen.core.field_messages import place
from fulmen.core.findings.caution import CAUTION
from fulmen.core.findings.words import word
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.certificate import Signature, SignedPart
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.inspections import InspectionItem
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.readings import Outcome, Reading, StepKey
from fulmen.core.model.route import Section
from fulmen.core.model.run import line_of, main_switch, runs
from fulmen.core.model.seen import Seen
from fulmen.core.model.tails import TailsStretch
from fulmen.core.reference.cable_catalogue import CableRecord, armour_alone, cable_of, cable_record, cables_of
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.certificate_gaps import comments_on_existing
from fulmen.documents.rendering import Inside, environment, figure, write_pdf
from fulmen.documents.run_drawing import run_drawing

ATTACHMENT = "job.json"


class Issue(Protocol):
    """What a certificate is rendered from; the store's issue and the command line's both fit."""

    @property
    def number(self) -> str: ...
    @property
    def issued_at(self) -> datetime: ...
    @property
    def supersedes(self) -> str | None: ...
    @property
    def job(self) -> Job: ...
    @property
    def evaluation(self) -> Evaluation: ...
    @property
    def data(self) -> str: ...
    @property
    def sha256(self) -> str: ...
    @property
    def chain(self) -> str: ...


def render_certificate(issue: Issue) -> bytes:
    """The certificate's bytes; the same issue gives the same bytes."""
    inside = Inside(ATTACHMENT, "The job file this certificate was made from", issue.data, issue.sha256)
    return write_pdf(certificate_html(issue), inside, issue.issued_at)


def certificate_html(issue: Issue) -> str:
    """The certificate as HTML, before it becomes pages."""
    return environment().get_template("certificate.html.j2").render(**_content(issue))


def _content(issue: Issue) -> dict[str, Any]:
    job, evaluation = issue.job, issue.evaluation
    inspections = [(item, job.inspection(item)) for item in InspectionItem]
    return {
        "issue": issue,
        "job": job,
        "evaluation": evaluation,
        "rules": rule_set(job.rule_set),
        "caution": CAUTION,
        "comments": comments_on_existing(job),
        "origin": _results(job, evaluation, ORIGIN),
        "main_switch": main_switch(job),
        "rcds": _rcd_rows(job),
        "known_how": _known_how(job),
        "tails": [_tails_words(job, one) for one in job.supply.tails] or ["–"],
        "signed": _signed(job),
        "inspections": inspections,
        "arrangements": [arrangement_facts(job, run) for run in runs(job)],
        "three_phase_ka": three_phase_fault_ka(job, rule_set(job.rule_set)),
        "boards": job.boards,
        "fed_by": _fed_by(job),
        "rows": [_circuit_row(job, evaluation, circuit) for circuit in job.circuits],
        "drawings": [
            (
                one,
                Markup(run_drawing(one, evaluation.guards_to(one.charge_point))),
                reach_words(how_far(job, one.charge_point, rule_set(job.rule_set))),
            )
            for one in evaluation.profiles
        ],
        "faults": evaluation.faults,
        "instruments": sorted({reading.instrument for reading in job.readings if reading.instrument}),
        "testers": sorted({reading.taken_by for reading in job.readings}),
    }


def _signed(job: Job) -> list[tuple[list[SignedPart], Signature]]:
    """The signatures, parts signed alike by one person together."""
    groups: dict[str, tuple[list[SignedPart], Signature]] = {}
    for signature in job.certificate.signatures:
        person = signature.model_dump_json(exclude={"part"})
        groups.setdefault(person, ([], signature))[0].append(signature.part)
    return list(groups.values())


def _results(job: Job, evaluation: Evaluation, subject: str) -> dict[str, str]:
    """The reading of every step at one subject, by the step's key."""
    decimals = {step.step: step.decimals for step in evaluation.steps}
    return {key.value: reading_text(job.reading(key, subject), decimals.get(key)) for key in StepKey}


def reading_text(reading: Reading | None, decimals: int | None = None) -> str:
    """A reading as it stands in a form's cell, to the decimals of its step."""
    if reading is None:
        return "–"
    if reading.outcome is Outcome.RIGHT:
        return "✓"
    if reading.outcome in (Outcome.WRONG, Outcome.COULD_NOT_TEST):
        return word(reading.outcome)
    return f">{reading.value:g}" if reading.outcome is Outcome.OVER_RANGE else figure(reading.value, decimals)


def _method(job: Job, circuit: Circuit, section: Section) -> str:
    """The reference method that rates a section: the one chosen, or the one that follows from its place."""
    cable = cable_of(circuit, section)
    return section_rating(section, cable_record(cable.record, job), cable.csa_mm2).method.value


def _circuit_row(job: Job, evaluation: Evaluation, circuit: Circuit) -> dict[str, Any]:
    """One row of the schedule of circuit details and test results."""
    cables = [(cable, cable_record(cable.record, job)) for cable in cables_of(circuit)]
    voltage = job.reading(StepKey.IR_LIVE_EARTH, circuit.id)
    limits = [step for step in evaluation.steps if step.step is StepKey.ZS and step.subject == circuit.id]
    return {
        "circuit": circuit,
        "way": way_words(job, circuit),
        "cable": ", then ".join(dict.fromkeys(record.name for _, record in cables)),
        "line_mm2": " / ".join(dict.fromkeys(f"{cable.csa_mm2:g}" for cable, _ in cables)),
        "cpc_mm2": " / ".join(dict.fromkeys(_cpc_words(cable, record) for cable, record in cables)),
        "methods": ", ".join(dict.fromkeys(_method(job, circuit, section) for section in circuit.route)),
        "length_m": sum(section.length_m for section in circuit.route),
        "device_standard": _device_standard(circuit),
        "curve": circuit.device.curve.value if circuit.device.kind is DeviceKind.BREAKER else "gG",
        "breaks_ka": circuit.device.breaking_capacity_ka if circuit.device.kind is DeviceKind.BREAKER else None,
        "rcd": _own_rcd(job, circuit),
        "zs_limit_ohm": limits[0].limit if limits else None,
        "test_voltage_v": voltage.test_voltage_v if voltage else None,
        "results": _results(job, evaluation, circuit.id),
    }


def way_words(job: Job, circuit: Circuit) -> str:
    """The way of a circuit, with its line conductors where the supply has three."""
    phases = next((point.phase_count for point in job.charge_points if point.id == circuit.feeds), circuit.phases)
    lines = "" if job.supply.phase_count == 1 else line_of(job, circuit).value if phases == 1 else "L1–L3"
    return f"{circuit.way or '–'} {lines}".strip()


def _cpc_words(cable: Cable, record: CableRecord) -> str:
    """Size of the protective conductor, and what it is where it is not a core."""
    if cable.protective is Protective.SEPARATE:
        return f"{cable.separate_csa_mm2:g} beside" if cable.separate_csa_mm2 else "beside, size not known"
    if armour_alone(record, cable):
        return f"armour {record.armour_mm2(cable.csa_mm2):g}"
    beside = " and armour" if cable.protective is Protective.CORE_AND_ARMOUR else ""
    return f"{record.cpc_mm2(cable.csa_mm2):g}{beside}"


def _device_standard(circuit: Circuit) -> str:
    if circuit.device.kind is not DeviceKind.BREAKER:
        return "BS 88-2"
    return "BS EN 61009-1" if circuit.device.rcd else "BS EN 60898-1"


def _fed_by(job: Job) -> dict[str, str]:
    """What supplies each board, by its id."""
    feeder = {circuit.feeds: circuit for circuit in job.circuits}
    return {
        board.id: f"by {feeder[board.id].name}" if board.id in feeder else "from the origin" for board in job.boards
    }


def _own_rcd(job: Job, circuit: Circuit) -> str:
    """The RCD that guards this circuit alone: its device's, else one of its own before the unit, else the unit's."""
    if circuit.device.rcd is not None:
        return f"Type {circuit.device.rcd.type.value}, {circuit.device.rcd.residual_ma} mA"
    own = [
        guard
        for run in runs(job)
        for guard in guards_of(job, run)
        if guard.circuit == circuit.id and guard.rcd is not None and guard.shared is Seen.NO
    ]
    if not own:
        return "–"
    rcd, inside = own[0].rcd, own[0].stands is Stands.UNIT
    return f"Type {rcd.type.value}, {rcd.residual_ma} mA, {'in the unit' if inside else own[0].where}" if rcd else "–"


def _known_how(job: Job) -> list[str]:
    """What was not seen on this job but taken otherwise, each way of knowing with the places it stands for."""
    told: dict[KnownHow, dict[str, None]] = {}
    for field, how in job.known_how.items():
        if how in (KnownHow.TAKEN_AS_USUAL, KnownHow.EARLIER_VERSION):
            path = tuple(int(part) if part.isdigit() else part for part in field.split("."))
            told.setdefault(how, {})[place(path)] = None
    return [f"{word(how).capitalize()}: {'; '.join(places)}." for how, places in told.items()]


def _tails_words(job: Job, one: TailsStretch) -> str:
    """One stretch of the tails: where to, size, length, and that a smaller size was accepted."""
    board = next((board.name for board in job.boards if board.id == one.board), word(one.ends_at))
    accepted = ", accepted by the operator" if one.accepted_in_writing is Seen.YES else ""
    where = f"to {board} " if len(job.supply.tails) > 1 else ""
    return f"{where}{figure(one.csa_mm2)} mm², {figure(one.length_m)} m{accepted}"


def _rcd_rows(job: Job) -> list[tuple[str, str, str]]:
    """Every RCD in front of circuits or in a box of its own: where it stands, what it is, its opening time."""
    placed = {guard.field: (guard, run) for run in runs(job) for guard in guards_of(job, run)}
    rows = []
    for guard, run in placed.values():
        if guard.rcd is None or guard.stands in (Stands.WAY, Stands.UNIT):
            continue
        first = bool(run.chain) and guard.circuit == run.chain[0].circuit.id and guard.stands is not Stands.BOX
        at_origin = guard.rcd.time_delayed and first
        key, subject = (StepKey.RCD_ORIGIN_TRIP, ORIGIN) if at_origin else (StepKey.RCD_TRIP, guard.subject)
        read = reading_text(job.reading(key, subject), 1)
        rows.append((f"RCD {guard.where}", rcd_in_words(guard.rcd), f"{read} ms" if read != "–" else read))
    return rows
