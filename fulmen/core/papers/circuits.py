"""The boards and their circuits as the schedule states them: details and figures of a circuit, and what was read."""

from __future__ import annotations

from typing import NamedTuple

from fulmen.core.circuit.arrangement_schedule import UNREAD
from fulmen.core.circuit.people import within_s
from fulmen.core.electrical.cable_rating import section_rating
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.installation.installation import Installation
from fulmen.core.model.boards import Board
from fulmen.core.model.cables import Cable, Protective
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.readings import ByStep, StepKey
from fulmen.core.papers.cells import figure, reading_text
from fulmen.core.papers.judged_job import JudgedJob
from fulmen.core.papers.remarks import remarks_of
from fulmen.core.plain import plain
from fulmen.core.reference.cable_catalogue import CableRecord, armour_alone, cable_of, cables_of
from fulmen.core.verification.readings.conductor_readings import INSULATION
from fulmen.core.verification.readings.rcd_readings import rcd_figures
from fulmen.core.verification.readings.whole_cable import subjects_of, whole_reading
from fulmen.core.verification.steps.ring_bands import RING_ENDS
from fulmen.core.verification.steps.step_limits import step_limit
from fulmen.core.verification.steps.steps import definition_of

# Past this a loop's limit is the RCD's touch voltage: hundredths of an ohm mean nothing there.
WHOLE_OHMS_FROM = 100.0


@plain
class CircuitRow:
    """One circuit of the schedule, in the words of its cells; `results` by the step's key."""

    circuit: str
    way: str
    name: str
    cable: str
    methods: str
    line_mm2: str
    cpc_mm2: str
    length_m: str
    device_standard: str
    curve: str
    rating_a: str
    breaks_ka: str
    within_s: str
    rcd: str
    zs_limit_ohm: str
    test_voltages_v: str
    rcd_ms: str
    ring_ohm: str
    results: dict[str, str]
    remarks: str


@plain
class BoardRows:
    """One board with what supplies it and the circuits that leave it."""

    board: Board
    fed_by: str
    at_origin: bool
    has_ring: bool
    circuits: tuple[CircuitRow, ...]


def board_rows(judged: JudgedJob) -> tuple[BoardRows, ...]:
    """Every board of a job with its circuits."""
    tree = judged.installation.tree
    return tuple(
        BoardRows(
            board=board,
            fed_by=f"by {tree.feeders[board.id].name}" if board.id in tree.feeders else "from the origin",
            at_origin=board.id not in tree.feeders,
            has_ring=any(one.ring for one in tree.leaving[board.id]),
            circuits=tuple(_circuit_row(judged, one) for one in tree.leaving[board.id]),
        )
        for board in judged.job.boards
    )


def _circuit_row(judged: JudgedJob, circuit: Circuit) -> CircuitRow:
    installation, readings, device = judged.installation, judged.readings, circuit.device
    cables = [(cable, installation.record(cable)) for cable in cables_of(circuit)]
    guarding = _guarding(installation, circuit)
    return CircuitRow(
        circuit=circuit.id,
        way=way_words(installation, circuit),
        name=circuit.name if circuit.fitted_with_this_job else f"{circuit.name} (existing)",
        cable=", then ".join(dict.fromkeys(record.name for _, record in cables)) + (", ring" if circuit.ring else ""),
        methods=", ".join(dict.fromkeys(_methods(judged, circuit))),
        line_mm2=" / ".join(dict.fromkeys(f"{cable.csa_mm2:g}" for cable, _ in cables)),
        cpc_mm2=" / ".join(dict.fromkeys(_cpc_words(cable, record) for cable, record in cables)),
        length_m=figure(sum(section.length_m for section in circuit.route), 1),
        device_standard=_device_standard(circuit),
        curve=_curve(circuit),
        rating_a=figure(device.rating_a),
        breaks_ka=figure(device.breaking_capacity_ka) if device.opens_poles else "–",
        within_s=_within_s(judged, circuit),
        rcd=_rcd_words(guarding),
        zs_limit_ohm=_zs_limit_ohm(judged, circuit),
        test_voltages_v=_test_voltages_v(readings, circuit),
        rcd_ms=_rcd_ms(readings, guarding),
        ring_ohm=_ring_ohm(readings, circuit),
        results=_results(readings, circuit),
        remarks=remarks_of(judged.evaluation, circuit),
    )


def _results(readings: ByStep, circuit: Circuit) -> dict[str, str]:
    """What was read of a circuit, its cable as a whole where it was tested in parts."""
    return {
        key.value: reading_text(whole_reading(readings, circuit, key), definition_of(key).decimals) for key in StepKey
    }


def _methods(judged: JudgedJob, circuit: Circuit) -> list[str]:
    """The reference method that rates each section: the one chosen, or the one that follows from its place."""
    found = judged.of_circuit(circuit.id)
    if found is not None:
        return [one.rating.method.value for one in found[1].sections]
    # A circuit of no run, or of one without figures, is still laid somewhere.
    cables = [(section, cable_of(circuit, section)) for section in circuit.route]
    return [
        section_rating(section, judged.installation.record(cable), cable.csa_mm2).method.value
        for section, cable in cables
    ]


def _within_s(judged: JudgedJob, circuit: Circuit) -> str:
    """The time within which the circuit must be disconnected."""
    found = judged.of_circuit(circuit.id)
    return "–" if found is None else figure(within_s(found[0].case, found[1]))


def _zs_limit_ohm(judged: JudgedJob, circuit: Circuit) -> str:
    """The most that a circuit's loop may read, whether it is to be read or not, to figures that mean something."""
    found = judged.of_circuit(circuit.id)
    most = None if found is None else step_limit(found[0], StepKey.ZS, circuit.id).most
    return figure(most, 0 if most is not None and most >= WHOLE_OHMS_FROM else 2)


def _ring_ohm(readings: ByStep, circuit: Circuit) -> str:
    """What a ring read end to end: line, neutral, earth."""
    if not circuit.ring:
        return "–"
    ends = (readings.latest(end, circuit.id) for end in RING_ENDS)
    return " / ".join(reading_text(one, 2) for one in ends)


def _test_voltages_v(readings: ByStep, circuit: Circuit) -> str:
    """At which voltages the insulation of a circuit was tested."""
    tested = [readings.latest(step, subject) for step in INSULATION for subject in subjects_of(circuit)]
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


def _curve(circuit: Circuit) -> str:
    kind = circuit.device.kind
    return circuit.device.curve.value if kind is DeviceKind.BREAKER else "gG" if kind is DeviceKind.FUSE else "–"


def _device_standard(circuit: Circuit) -> str:
    if circuit.device.kind is DeviceKind.MOULDED_CASE:
        return "BS EN 60947-2"
    if circuit.device.kind is not DeviceKind.BREAKER:
        return "BS 88-2"
    return "BS EN 61009-1" if circuit.device.rcd else "BS EN 60898-1"


class _Guarding(NamedTuple):
    """An RCD that guards a circuit, and whose name its readings bear."""

    guard: PlacedGuard
    subject: str


def _guarding(installation: Installation, circuit: Circuit) -> tuple[_Guarding, ...]:
    """The RCDs that guard a circuit: the nearest before its cable, and the unit's where that is its own."""
    for run in (*installation.runs, *installation.load_runs):
        if circuit.id not in run.rcds_before:
            continue
        own = list(run.own_rcds) if run.subject == circuit.id else []
        past_the_cable = [one for one in own if one not in run.rcds_before[circuit.id]]
        before = run.rcds_before[circuit.id][-1:] or run.unread_before[circuit.id][-1:]
        found = [*before, *(past_the_cable[:1] if len(past_the_cable) == len(own) else [])]
        return tuple(_Guarding(one, run.tested_as.get(one.field, one.subject)) for one in found)
    return ()


def _rcd_words(found: tuple[_Guarding, ...]) -> str:
    return ", then ".join(_one_rcd(one.guard) for one in found) or "–"


def _one_rcd(guard: PlacedGuard) -> str:
    place = {Stands.WAY: "", Stands.UNIT: ", in the unit"}.get(guard.stands, f", {guard.where}")
    if guard.rcd is None:
        return f"RCD, {UNREAD}{place}"
    delayed = " S" if guard.residual.time_delayed else ""
    return f"Type {guard.residual.type.value}{delayed}, {guard.residual.residual_ma} mA{place}"


def _rcd_ms(readings: ByStep, found: tuple[_Guarding, ...]) -> str:
    """How fast they opened at their rated current; what was left out says so."""
    return " / ".join(_one_ms(readings, one.subject) for one in found) or "–"


def _one_ms(readings: ByStep, subject: str) -> str:
    read_ms = rcd_figures(readings, subject).at_rated_ms
    return reading_text(readings.latest(StepKey.RCD_TRIP, subject)) if read_ms is None else figure(read_ms, 1)
