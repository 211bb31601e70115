"""The Electrical Installation Certificate as PDF, written as PDF/A-3 with the job file inside it."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Protocol

from markupsafe import Markup

from fulmen.core.alternatives.reach import how_far, reach_words
from fulmen.core.circuit.arrangement_schedule import arrangement_facts, rcd_in_words
from fulmen.core.circuit.guards import PlacedGuard, Stands, guards_of
from fulmen.core.circuit.origin import ORIGIN, fault_current, measured, three_phase_fault_ka
from fulmen.core.editing.acts import history_words
from fulmen.core.electrical.cable_rating import section_rating
from fulmen.core.evaluate import Evaluation
from fulmen.core.field_messages import place
from fulmen.core.findings.caution import CAUTION
from fulmen.core.findings.words import word
from fulmen.core.model.arrangement import CarEarth
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.certificate import Signature, SignedPart
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.inspections import InspectionItem
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.readings import StepKey
from fulmen.core.model.route import Section
from fulmen.core.model.run import line_of, main_switch, runs
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.tails import TailsStretch
from fulmen.core.reference.cable_catalogue import CableRecord, armour_alone, cable_of, cable_record, cables_of
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.certificate_gaps import comments_on_existing
from fulmen.core.verification.conductor_readings import INSULATION
from fulmen.core.verification.rcd_readings import rcd_figures
from fulmen.documents.rendering import Inside, environment, figure, write_pdf
from fulmen.documents.run_drawing import run_drawing
from fulmen.documents.schedule import (
    bench_rows,
    clamp_rows,
    instrument_rows,
    left_out,
    rcd_rows,
    reading_text,
    remarks_of,
    results,
    schools_words,
    taken_again,
    tested_words,
    zs_limit_text,
)

ATTACHMENT = "job.json"


class Issue(Protocol):
    """What a certificate is rendered from; a draft has no number, and says on every page what it is."""

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
    @property
    def draft(self) -> bool: ...


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
    at_origin = [one for one in evaluation.steps if one.subject == ORIGIN]
    return {
        "issue": issue,
        "job": job,
        "evaluation": evaluation,
        "rules": rule_set(job.rule_set),
        "caution": CAUTION,
        "comments": comments_on_existing(job),
        "origin": results(job, ORIGIN),
        "fault_levels": fault_levels(job),
        "main_switch": main_switch(job),
        "front_rcds": front_rcds(job),
        "rcds": rcd_rows(job, evaluation),
        "car_electrodes": car_electrodes(job),
        "known_how": _known_how(job),
        "tails": [_tails_words(job, one) for one in job.supply.tails] or ["–"],
        "signed": _signed(job),
        "elsewhere": history_words(job),
        "inspections": inspections,
        "arrangements": [arrangement_facts(job, run) for run in runs(job)],
        "boards": [
            (board, [_circuit_row(job, evaluation, one) for one in job.circuits if one.from_board == board.id])
            for board in job.boards
        ],
        "fed_by": _fed_by(job),
        "benches": [
            (run.charge_point.name, bench_rows(evaluation, run.final().circuit.id)) for run in runs(job) if run.chain
        ],
        "drawings": [
            (
                one,
                Markup(run_drawing(one, evaluation.guards_to(one.charge_point))),
                reach_words(how_far(job, one.charge_point, rule_set(job.rule_set))),
            )
            for one in evaluation.profiles
        ],
        "faults": evaluation.faults,
        "instruments": instrument_rows(job),
        "tested": tested_words(job),
        "schools": schools_words(job),
        "at_origin": [*left_out(at_origin), *taken_again(at_origin)],
        "clamps": clamp_rows(job),
    }


def _signed(job: Job) -> list[tuple[list[SignedPart], Signature]]:
    """The signatures, parts signed alike by one person together."""
    groups: dict[str, tuple[list[SignedPart], Signature]] = {}
    for signature in job.certificate.signatures:
        person = signature.model_dump_json(exclude={"part"})
        groups.setdefault(person, ([], signature))[0].append(signature.part)
    return list(groups.values())


def _method(job: Job, circuit: Circuit, section: Section) -> str:
    """The reference method that rates a section: the one chosen, or the one that follows from its place."""
    cable = cable_of(circuit, section)
    return section_rating(section, cable_record(cable.record, job), cable.csa_mm2).method.value


def _circuit_row(job: Job, evaluation: Evaluation, circuit: Circuit) -> dict[str, Any]:
    """One row of the schedule of circuit details and test results."""
    cables = [(cable, cable_record(cable.record, job)) for cable in cables_of(circuit)]
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
        "zs_limit": zs_limit_text(evaluation, circuit.id),
        "test_voltages_v": _test_voltages_v(job, circuit),
        "results": results(job, circuit.id),
        "rcd_figures": rcd_figures(job, circuit.id),
        "remarks": remarks_of(job, evaluation, circuit.id, circuit.remarks),
    }


def _test_voltages_v(job: Job, circuit: Circuit) -> str:
    """At which voltages the insulation of a circuit was tested."""
    tested = [job.reading(step, circuit.id) for step in INSULATION]
    return " / ".join(dict.fromkeys(f"{one.test_voltage_v}" for one in tested if one and one.test_voltage_v)) or "–"


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


def front_rcds(job: Job) -> list[tuple[str, str, str]]:
    """The RCDs in front of the origin's own boards: where, what, opening time. Others stand in the schedule."""
    origin_boards = {board.id for board in job.boards} - {circuit.feeds for circuit in job.circuits}
    placed = {}
    for run in runs(job):
        for guard in guards_of(job, run):
            chained = next((one for one in run.chain if one.circuit.id == guard.circuit), None)
            at_origin = chained is not None and chained.board.id in origin_boards
            if guard.rcd is not None and guard.stands is Stands.INCOMER and at_origin:
                placed[guard.field] = guard
    return [(f"RCD {one.where}", rcd_in_words(one.rcd), _opens(job, one)) for one in placed.values()]


def _opens(job: Job, guard: PlacedGuard) -> str:
    """The opening time of an RCD in front of the origin's board: a time-delayed one is read under the origin's name."""
    delayed = guard.rcd is not None and guard.rcd.time_delayed
    found = rcd_figures(job, ORIGIN if delayed else guard.subject)
    return "–" if found.at_rated_ms is None else f"{figure(found.at_rated_ms, 1)} ms at 1×"


def fault_levels(job: Job) -> str:
    """The fault level that the papers state: of three lines where there are three, and what was read, each way."""
    rules = rule_set(job.rule_set)
    read = [
        f"{words} {figure(ka, 2)} kA"
        for words, step in (
            ("line–neutral", StepKey.FAULT_CURRENT_NEUTRAL),
            ("line–earth", StepKey.FAULT_CURRENT_EARTH),
            ("the larger", StepKey.FAULT_CURRENT),
        )
        if (ka := measured(job, step, ORIGIN)) is not None
    ]
    known, three_ka = fault_current(job, rules), three_phase_fault_ka(job, rules)
    level = f"{figure(three_ka, 2)} kA three-phase, taken as twice" if three_ka else f"{figure(known.value, 2)} kA"
    return f"{level}; {', '.join(read)}, measured" if read else f"{level}, {known.source}"


def car_electrodes(job: Job) -> list[tuple[str, str]]:
    """The electrode of each unit that stands on one of its own, as measured."""
    found = []
    for run in runs(job):
        point = run.charge_point
        island = point.arrangement.car_earth is CarEarth.OWN_ELECTRODE and job.supply.earthing is not Earthing.TT
        if island and run.chain:
            read = reading_text(job.reading(StepKey.ELECTRODE, run.final().circuit.id), 1)
            size_mm2 = point.arrangement.electrode_conductor_csa_mm2
            found.append((f"Electrode of {point.name} alone", f"{read} Ω, conductor {figure(size_mm2)} mm² copper"))
    return found
