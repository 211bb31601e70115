"""The Electrical Installation Certificate as PDF, written as PDF/A-3 with the job file inside it."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Protocol

from markupsafe import Markup

from fulmen.core.alternatives.reach import how_far, reach_words
from fulmen.core.circuit.arrangement_schedule import arrangement_facts, rcd_in_words
from fulmen.core.circuit.origin import three_phase_fault_ka
from fulmen.core.circuit.run_figures import case_of
from fulmen.core.editing.acts import history_words
from fulmen.core.electrical.cable_rating import section_rating
from fulmen.core.evaluate import Evaluation
from fulmen.core.field_messages import place
from fulmen.core.findings.caution import CAUTION
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.arrangement import CarEarth
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.certificate import Signature, SignedPart
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.inspections import InspectionItem
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.readings import ByStep, StepKey
from fulmen.core.model.route import Section
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.tails import TailsStretch
from fulmen.core.reference.cable_catalogue import CableRecord, armour_alone, cable_of, cables_of
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.certificate_gaps import comments_on_existing
from fulmen.core.verification.conductor_readings import INSULATION
from fulmen.core.verification.rcd_readings import rcd_figures
from fulmen.documents.contents import Contents, contents_of
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
    contents = contents_of(job, evaluation)
    installation = contents.installation
    inspections = [(item, job.inspection(item)) for item in InspectionItem]
    at_origin = [one for one in evaluation.steps if one.subject == ORIGIN]
    return {
        "issue": issue,
        "job": job,
        "evaluation": evaluation,
        "rules": rule_set(job.rule_set),
        "caution": CAUTION,
        "comments": comments_on_existing(job),
        "origin": results(contents, ORIGIN),
        "fault_levels": fault_levels(contents),
        "main_switch": installation.main_switch,
        "front_rcds": front_rcds(contents),
        "rcds": rcd_rows(contents),
        "car_electrodes": car_electrodes(contents),
        "known_how": _known_how(job),
        "tails": [_tails_words(installation, one) for one in job.supply.tails] or ["–"],
        "signed": _signed(job),
        "elsewhere": history_words(job),
        "inspections": inspections,
        "arrangements": [arrangement_facts(case_of(contents.known, run)) for run in installation.runs],
        "boards": [
            (board, [_circuit_row(contents, one) for one in installation.tree.leaving[board.id]])
            for board in job.boards
        ],
        "fed_by": _fed_by(installation),
        "benches": [
            (run.charge_point.name, bench_rows(evaluation, run.subject)) for run in installation.runs if run.chain
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


def _method(installation: Installation, circuit: Circuit, section: Section) -> str:
    """The reference method that rates a section: the one chosen, or the one that follows from its place."""
    cable = cable_of(circuit, section)
    return section_rating(section, installation.record(cable), cable.csa_mm2).method.value


def _circuit_row(contents: Contents, circuit: Circuit) -> dict[str, Any]:
    """One row of the schedule of circuit details and test results."""
    installation, evaluation = contents.installation, contents.evaluation
    cables = [(cable, installation.record(cable)) for cable in cables_of(circuit)]
    return {
        "circuit": circuit,
        "way": way_words(installation, circuit),
        "cable": ", then ".join(dict.fromkeys(record.name for _, record in cables)),
        "line_mm2": " / ".join(dict.fromkeys(f"{cable.csa_mm2:g}" for cable, _ in cables)),
        "cpc_mm2": " / ".join(dict.fromkeys(_cpc_words(cable, record) for cable, record in cables)),
        "methods": ", ".join(dict.fromkeys(_method(installation, circuit, section) for section in circuit.route)),
        "length_m": sum(section.length_m for section in circuit.route),
        "device_standard": _device_standard(circuit),
        "curve": circuit.device.curve.value if circuit.device.kind is DeviceKind.BREAKER else "gG",
        "breaks_ka": circuit.device.breaking_capacity_ka if circuit.device.kind is DeviceKind.BREAKER else None,
        "rcd": _own_rcd(installation, circuit),
        "zs_limit": zs_limit_text(evaluation, circuit.id),
        "test_voltages_v": _test_voltages_v(contents.readings, circuit),
        "results": results(contents, circuit.id),
        "rcd_figures": rcd_figures(contents.readings, circuit.id),
        "remarks": remarks_of(evaluation, circuit.id, circuit.remarks),
    }


def _test_voltages_v(readings: ByStep, circuit: Circuit) -> str:
    """At which voltages the insulation of a circuit was tested."""
    tested = [readings.latest(step, circuit.id) for step in INSULATION]
    return " / ".join(dict.fromkeys(f"{one.test_voltage_v}" for one in tested if one and one.test_voltage_v)) or "–"


def way_words(installation: Installation, circuit: Circuit) -> str:
    """The way of a circuit, with its line conductors where the supply has three."""
    tree, point = installation.tree, installation.tree.points.get(circuit.feeds)
    phases = point.phase_count if point is not None else circuit.phases
    single = installation.job.supply.phase_count == 1
    lines = "" if single else tree.line_of(circuit).value if phases == 1 else "L1–L3"
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


def _fed_by(installation: Installation) -> dict[str, str]:
    """What supplies each board, by its id."""
    feeders = installation.tree.feeders
    return {
        board: f"by {feeders[board].name}" if board in feeders else "from the origin"
        for board in installation.tree.boards
    }


def _own_rcd(installation: Installation, circuit: Circuit) -> str:
    """The RCD that guards this circuit alone: its device's, else one of its own before the unit, else the unit's."""
    if circuit.device.rcd is not None:
        return f"Type {circuit.device.rcd.type.value}, {circuit.device.rcd.residual_ma} mA"
    own = [
        guard
        for run in installation.runs
        for guard in run.rcds
        if guard.circuit == circuit.id and guard.shared is Seen.NO
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


def _tails_words(installation: Installation, one: TailsStretch) -> str:
    """One stretch of the tails: where to, size, length, and that a smaller size was accepted."""
    boards = installation.tree.boards
    board = boards[one.board].name if one.board in boards else word(one.ends_at)
    accepted = ", accepted by the operator" if one.accepted_in_writing is Seen.YES else ""
    where = f"to {board} " if len(installation.job.supply.tails) > 1 else ""
    return f"{where}{figure(one.csa_mm2)} mm², {figure(one.length_m)} m{accepted}"


def front_rcds(contents: Contents) -> list[tuple[str, str, str]]:
    """The RCDs in front of the origin's own boards: where, what, opening time. Others stand in the schedule."""
    tree = contents.installation.tree
    placed = {}
    for run in contents.installation.runs:
        for guard in run.rcds:
            circuit = tree.circuits.get(guard.circuit)
            at_origin = circuit is not None and circuit.from_board not in tree.feeders
            if guard.stands is Stands.INCOMER and at_origin:
                placed[guard.field] = guard
    return [(f"RCD {one.where}", rcd_in_words(one.rcd), _opens(contents.readings, one)) for one in placed.values()]


def _opens(readings: ByStep, guard: PlacedGuard) -> str:
    """The opening time of an RCD in front of the origin's board: a time-delayed one is read under the origin's name."""
    delayed = guard.rcd is not None and guard.rcd.time_delayed
    found = rcd_figures(readings, ORIGIN if delayed else guard.subject)
    return "–" if found.at_rated_ms is None else f"{figure(found.at_rated_ms, 1)} ms at 1×"


def fault_levels(contents: Contents) -> str:
    """The fault level that the papers state: of three lines where there are three, and what was read, each way."""
    origin, supply = contents.known.origin, contents.job.supply
    read = [
        f"{words} {figure(ka, 2)} kA"
        for words, step in (
            ("line–neutral", StepKey.FAULT_CURRENT_NEUTRAL),
            ("line–earth", StepKey.FAULT_CURRENT_EARTH),
            ("the larger", StepKey.FAULT_CURRENT),
        )
        if (ka := contents.readings.figure(step, ORIGIN)) is not None
    ]
    known, three_ka = origin.fault, three_phase_fault_ka(origin, supply)
    level = f"{figure(three_ka, 2)} kA three-phase, taken as twice" if three_ka else f"{figure(known.value, 2)} kA"
    return f"{level}; {', '.join(read)}, measured" if read else f"{level}, {known.source}"


def car_electrodes(contents: Contents) -> list[tuple[str, str]]:
    """The electrode of each unit that stands on one of its own, as measured."""
    found, tt = [], contents.job.supply.earthing is Earthing.TT
    for run in contents.installation.runs:
        point = run.charge_point
        island = point.arrangement.car_earth is CarEarth.OWN_ELECTRODE and not tt
        if island and run.chain:
            read = reading_text(contents.readings.latest(StepKey.ELECTRODE, run.subject), 1)
            size_mm2 = point.arrangement.electrode_conductor_csa_mm2
            found.append((f"Electrode of {point.name} alone", f"{read} Ω, conductor {figure(size_mm2)} mm² copper"))
    return found
