"""What would mend a finding that falls short: every small change is tried on the whole job, and what holds is offered.

A move is one small change of the design. A mend is a move, or two together where no single one serves, after which the
finding no longer falls short and nothing else does that held before. Nothing here is a canned answer.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations

from fulmen.core.alternatives.protection_choice import ProtectionChoice, protected, protection_changes
from fulmen.core.demand.ways_out import TURNED_DOWN_A
from fulmen.core.editing.changes import Change, apply_changes, changes_between
from fulmen.core.editing.layouts import SWITCH_A, box_before_unit, free_id, ordered_v, own_board_layout
from fulmen.core.editing.route_editing import record_changes
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.evaluate import falls_short, findings_of
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.findings.rules.removal import REMOVED_PUT_IN
from fulmen.core.findings.rules.supply import BOARD_MAKE_UP, SPARE_WAY
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.installation.run import Run
from fulmen.core.model.arrangement import MetalAtUnit, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.base import Part
from fulmen.core.model.boards import Board
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Curve, DeviceKind, Guard, GuardKind, RcdType, ordered_rcd
from fulmen.core.model.job import Job
from fulmen.core.model.route import Fixings, Section, Surroundings
from fulmen.core.model.site import WorkKind
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.cable_catalogue import cable_of
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.reference.usual_sizes import BREAKERS_A, FUSES_A, sizes_before
from fulmen.core.so_far import SoFar, finished
from fulmen.core.survey.put_in import put_in

MOST_OFFERED, MOST_PAIRED = 4, 14
# What only another board mends: rewriting the whole tree is tried for nothing else.
MENDED_BY_AN_OWN_BOARD = frozenset({SPARE_WAY.key, BOARD_MAKE_UP.key})


@dataclass(frozen=True)
class Move:
    """One small change, in words; the effort orders moves by how little they disturb."""

    words: str
    effort: float
    changes: tuple[Change, ...]


class Remedy(Part):
    """A change that makes the finding hold: what it is, what the finding then says, and what takes it."""

    words: str
    verdict: Verdict
    figures: str
    also: tuple[str, ...]
    changes: tuple[Change, ...]


def remedies(job: Job, key: str, rules: RuleSet) -> tuple[Remedy, ...]:
    """The smallest changes after which a finding no longer falls short, the least disturbing first.

    Args:
        job: the job as it stands.
        key: the finding's key, rule and subject.
        rules: the edition's limits.

    Raises:
        InputError: no finding of this key falls short.
        JobFileError: the job's structure cannot be taken.
    """
    return finished(mending(job, key, rules))


def mending(job: Job, key: str, rules: RuleSet) -> Iterator[SoFar[tuple[Remedy, ...]]]:
    """The same step by step, a change a step, the least disturbing first: the next size, the next device."""
    now = findings_of(job, rules)
    if key not in {one.key for one in falls_short(now)}:
        raise InputError("finding", f"No check “{key}” falls short in this job.")
    moves = sorted(_moves(job, key.partition("/")[0], rules), key=lambda move: move.effort)
    found: list[tuple[float, Remedy]] = []
    partial: list[tuple[float, Move]] = []
    yield SoFar(0, len(moves), tuple)
    for tried, move in enumerate(moves, 1):
        remedy, left = _tried(job, now, key, (move,), rules)
        if remedy is not None:
            found.append((move.effort, remedy))
        elif left is not None:
            partial.append((left, move))
        yield SoFar(tried, len(moves), lambda: _least_disturbing(found))
    if found:
        return
    pairs = _pairs([move for _, move in sorted(partial, key=lambda one: one[0])])
    for tried, (one, other) in enumerate(pairs, 1):
        remedy, _ = _tried(job, now, key, (one, other), rules)
        if remedy is not None:
            found.append((one.effort + other.effort, remedy))
        yield SoFar(len(moves) + tried, len(moves) + len(pairs), lambda: _least_disturbing(found))


def _least_disturbing(found: list[tuple[float, Remedy]]) -> tuple[Remedy, ...]:
    """The few that are offered: those that settle it first; of moves that change the same by more, the smallest."""
    by_effort = sorted(found, key=lambda entry: (entry[1].verdict is not Verdict.MEETS, len(entry[1].also), entry[0]))
    smallest: dict[tuple[str, ...], Remedy] = {}
    for _, remedy in by_effort:
        smallest.setdefault(tuple(change.field for change in remedy.changes), remedy)
    return tuple(smallest.values())[:MOST_OFFERED]


def _pairs(moves: list[Move]) -> list[tuple[Move, Move]]:
    """Two moves together, of those that helped a little alone and change different things."""
    changed = [{change.field for change in move.changes} for move in moves[:MOST_PAIRED]]
    places = combinations(range(len(changed)), 2)
    return [(moves[one], moves[other]) for one, other in places if not changed[one] & changed[other]]


def _tried(
    job: Job, now: tuple[Finding, ...], key: str, moves: tuple[Move, ...], rules: RuleSet
) -> tuple[Remedy | None, float | None]:
    """The mend that some moves are, or how far from its limit they bring the finding where they help."""
    changes = tuple(change for move in moves for change in move.changes)
    try:
        then = findings_of(apply_changes(job, changes), rules)
    except JobFileError:
        return None, None
    before, after = ({one.key: one for one in falls_short(found)} for found in (now, then))
    if set(after) - set(before):
        return None, None
    if key in after:
        return None, _left(before[key], after[key])
    finding = next((one for one in then if one.key == key), None)
    if finding is not None and finding.verdict is Verdict.NEEDS:
        return None, None
    settled = {key, *(one.key for one in now if one.is_open)}
    also = tuple(one.title for one in then if one.is_open and one.key not in settled)
    remedy = Remedy(
        words=" and ".join(move.words for move in moves),
        verdict=finding.verdict if finding is not None else Verdict.MEETS,
        figures=_figures(finding),
        also=also,
        changes=changes,
    )
    return remedy, None


def _left(before: Finding, after: Finding) -> float | None:
    """How far a finding still lies from its limit, where that is less than before."""
    if before.margin is None or after.margin is None or after.margin <= before.margin:
        return None
    return -after.margin


def _figures(finding: Finding | None) -> str:
    if finding is None:
        return "the question no longer arises"
    return finding.figures() or finding.detail


def _moves(job: Job, rule: str, rules: RuleSet) -> Iterator[Move]:
    if rule == REMOVED_PUT_IN.key:
        there = tuple(Change(field=field, value=False) for field in put_in(job))
        yield Move("all of it was there before", 1, there)
    if job.site.work is WorkKind.REMOVED:
        return
    installation = installation_of(job)
    for index, circuit in enumerate(job.circuits):
        for make in (_device_moves, _cable_moves, _route_moves):
            yield from make(installation, index, circuit, rules)
    yield from _charge_point_moves(job)
    yield from _protection_moves(installation)
    yield from _supply_moves(job, rules)
    if rule in MENDED_BY_AN_OWN_BOARD:
        yield from _own_board_moves(installation)


def _device_moves(installation: Installation, index: int, circuit: Circuit, rules: RuleSet) -> Iterator[Move]:
    field, device = f"circuits.{index}.device", circuit.device
    final = circuit.feeds in installation.tree.points
    ratings = BREAKERS_A if device.kind is DeviceKind.BREAKER else FUSES_A
    standing = ratings.index(device.rating_a) if device.rating_a in ratings else 0
    for place, rating in enumerate(ratings):
        # A maker's figures are for one rating: another one asks for others.
        if rating != device.rating_a and not device.by_maker:
            change = Change(field=f"{field}.rating_a", value=rating)
            yield Move(f"{_of(installation, circuit)}a {rating} A device", 1 + abs(place - standing), (change,))
    if device.kind is not DeviceKind.BREAKER and device.rating_a in BREAKERS_A:
        change = Change(field=f"{field}.kind", value=DeviceKind.BREAKER.value)
        yield Move(f"{_of(installation, circuit)}a circuit-breaker of {device.rating_a} A", 2, (change,))
    elif device.curve is not Curve.B:
        yield Move(f"{_of(installation, circuit)}a B curve", 1, (Change(field=f"{field}.curve", value=Curve.B.value),))
    if device.breaking_capacity_ka < 10:
        change = Change(field=f"{field}.breaking_capacity_ka", value=10.0)
        yield Move(f"{_of(installation, circuit)}a device of 10 kA breaking capacity", 1, (change,))
    if final:
        residual_ma = int(rules.value("rcd_residual_ma"))
        rcd = {"type": RcdType.A.value, "residual_ma": residual_ma, "time_delayed": False, "switches_neutral": True}
        for kind in (RcdType.A, RcdType.F, RcdType.B):
            if device.rcd is None or device.rcd.model_dump(mode="json") != {**rcd, "type": kind.value}:
                change = Change(field=f"{field}.rcd", value={**rcd, "type": kind.value})
                words = f"a double-pole Type {kind.value} RCBO of {residual_ma} mA"
                yield Move(words, 2 if kind is RcdType.A else 3, (change,))
    elif device.rcd is not None and device.rcd.type is RcdType.AC:
        change = Change(field=f"{field}.rcd.type", value=RcdType.A.value)
        yield Move(f"{_of(installation, circuit)}a Type A RCD", 2, (change,))
    if circuit.load_limit_a is None and not final:
        change = Change(field=f"circuits.{index}.load_limit_a", value=float(device.rating_a))
        yield Move(f"{_of(installation, circuit)}a clamp that holds it to {device.rating_a} A", 3, (change,))


def _of(installation: Installation, circuit: Circuit) -> str:
    return f"{circuit.name}: " if len(installation.tree.circuits) > 1 else ""


def _cable_moves(installation: Installation, index: int, circuit: Circuit, rules: RuleSet) -> Iterator[Move]:
    cables = {section.cable for section in circuit.route}
    sizes = [size for size in sizes_before(circuit.device.rating_a) if size > circuit.cable.csa_mm2]
    for steps, size in enumerate(sizes, 1):
        sections = [
            Change(field=f"circuits.{index}.route.{place}.cable.csa_mm2", value=size)
            for place, section in enumerate(circuit.route)
            if section.cable is not None
        ]
        changes = (Change(field=f"circuits.{index}.cable.csa_mm2", value=size), *sections)
        yield Move(f"{_of(installation, circuit)}{size:g} mm² cable", 3 + 2 * steps, changes)
    if cables <= {None}:
        for record in installation.cables.values():
            if record.id != circuit.cable.record:
                changes = record_changes(installation.job, index, record.id)
                yield Move(f"{_of(installation, circuit)}{record.name}", 8, changes)
    yield from _box_moves(installation, index, circuit)


def _box_moves(installation: Installation, index: int, circuit: Circuit) -> Iterator[Move]:
    """Thicker cable than the unit's terminals take, to a box before the unit."""
    run = installation.run_to(circuit.feeds)
    boxed = box_before_unit(installation, run) if run is not None else None
    if boxed is None or {section.cable for section in circuit.route} != {None}:
        return
    tail = cable_of(boxed, boxed.route[-1])
    route = [one.model_dump(mode="json") for one in boxed.route]
    for steps, size in enumerate(size for size in sizes_before(circuit.device.rating_a) if size > tail.csa_mm2):
        if size >= circuit.cable.csa_mm2:
            changes = (
                Change(field=f"circuits.{index}.cable.csa_mm2", value=size),
                Change(field=f"circuits.{index}.route", value=route),
            )
            words = f"{_of(installation, circuit)}{size:g} mm² to a box before the unit, {tail.csa_mm2:g} mm² on"
            yield Move(words, 4 + steps, changes)


def _own_board_moves(installation: Installation) -> Iterator[Move]:
    """A small board of its own off split tails."""
    for run in installation.runs:
        layout = own_board_layout(installation, run) if run.chain else None
        if layout is not None:
            yield Move(layout.words, 4.5, changes_between(installation.job, layout.job))


SectionMove = tuple[str, float, dict[str, object]]


def _route_moves(installation: Installation, index: int, circuit: Circuit, rules: RuleSet) -> Iterator[Move]:
    """What can be done about one section; where a route is long, only the sections that raise a question."""
    for place, section in enumerate(circuit.route):
        for words, effort, updates in _section_moves(section, rules):
            changes = tuple(
                Change(field=f"circuits.{index}.route.{place}.{name}", value=value) for name, value in updates.items()
            )
            yield Move(f"{_of(installation, circuit)}section {place + 1}: {words}", effort, changes)


def _section_moves(section: Section, rules: RuleSet) -> Iterator[SectionMove]:
    if section.company() > 1:
        yield "kept apart from other circuits", 2.0, {"grouped_circuits": 1}
    if section.insulated_mm() > 0:
        yield "run clear of the insulation", 3.0, {"insulation_mm": 0.0}
    if section.surroundings is Surroundings.LOFT_UNDER:
        yield "over the insulation", 2.0, {"surroundings": "loft", "method": None, "insulation_mm": 0.0}
    if section.surroundings is Surroundings.IN_WALL:
        on_the_wall: dict[str, object] = {
            "surroundings": "clipped",
            "method": None,
            "concealed_under_50_mm": False,
            "fixings": "metal",
        }
        yield "on the face of the wall", 2.5, on_the_wall
    if section.warning_tape is False:
        yield "warning tape above it", 0.5, {"warning_tape": True}
    if section.surroundings is Surroundings.BURIED and not section.in_duct:
        yield "laid in a duct", 2.0, {"in_duct": True}
    if section.fixings is Fixings.PLASTIC:
        yield "metal clips", 0.5, {"fixings": Fixings.METAL.value}
    if section.fire_stopped is False:
        yield "fire-stopped and sealed", 0.5, {"fire_stopped": True}
    if section.bend_radius_mm is not None:
        yield "bends to the maker's radius", 1.0, {"bend_radius_mm": None}
    if section.concealed_under_50_mm:
        yield "on the surface, or deeper than 50 mm", 3.0, {"concealed_under_50_mm": False}
    clear_mm = max(rules.value("clear_of_data_mm"), rules.value("clear_of_pipes_mm"))
    if section.clearance_mm is not None and section.clearance_mm < clear_mm:
        yield f"{clear_mm:g} mm clear of pipes and data cables", 1.5, {"clearance_mm": clear_mm}
    if section.cable is not None:
        yield "the circuit's own cable, without the joint", 3.0, {"cable": None}


def _charge_point_moves(job: Job) -> Iterator[Move]:
    for index, point in enumerate(job.charge_points):
        for current_a in TURNED_DOWN_A:
            if current_a < point.design_current_a():
                change = Change(field=f"charge_points.{index}.set_current_a", value=current_a)
                effort = 4 + (point.design_current_a() - current_a) / 4
                yield Move(f"{point.name} turned down to {current_a:g} A", effort, (change,))
        if point.phase_count == 3 and job.supply.phase_count == 1:
            change = Change(field=f"charge_points.{index}.phases", value=1)
            yield Move(f"{point.name} set to single-phase", 2, (change,))


def _protection_moves(installation: Installation) -> Iterator[Move]:
    job = installation.job
    for place, run in enumerate(installation.runs):
        now = run.charge_point.arrangement
        if now.metal_at_unit is MetalAtUnit.TOUCHING:
            field = f"charge_points.{place}.arrangement.metal_at_unit"
            apart = Change(field=field, value=MetalAtUnit.APART.value)
            yield Move("house earth kept apart at the unit: plastic gland, or armour cut back and sleeved", 1, (apart,))
        if not run.chain:
            continue
        for dc_place in (RdcDdPlace.IN_UNIT, RdcDdPlace.BEFORE_UNIT):
            if dc_place is not now.rdc_dd:
                changes = _arranged(installation, run, {"rdc_dd": dc_place})
                yield Move(f"6 mA DC detection {word(dc_place)}", 2, changes)
        if job.supply.earthing is Earthing.TT:
            continue
        for measure in (OpenPenMeasure.DEVICE_IN_UNIT, OpenPenMeasure.SEPARATE_DEVICE):
            if changes := _arranged(installation, run, {"open_pen": measure}):
                yield Move(f"broken-PEN protection by {word(measure)}", 3, changes)


def _arranged(installation: Installation, run: Run, updates: dict[str, object]) -> tuple[Change, ...]:
    """The changes that take another arrangement, with the guards it relies on."""
    arrangement = run.charge_point.arrangement.model_copy(update=updates)
    choice = ProtectionChoice(arrangement, run.final().circuit.device.rcd)
    return protection_changes(installation, protected(installation.job, run, choice))


def _supply_moves(job: Job, rules: RuleSet) -> Iterator[Move]:
    if job.supply.load_limit_a is None:
        for limit_a in (rules.value("usual_load_limit_a"), 80.0):
            change = Change(field="supply.load_limit_a", value=limit_a)
            yield Move(f"a load limit of {limit_a:g} A by a clamp on the incoming line", 3, (change,))
    for index, board in enumerate(job.boards):
        yield from _board_moves(job, index, board)


def _board_moves(job: Job, index: int, board: Board) -> Iterator[Move]:
    """Other RCDs in front of a board's ways; on a TT supply a time-delayed one before everything."""
    held = [(f"incomer.{place}", guard) for place, guard in enumerate(board.incomer)]
    for number, group in enumerate(board.groups):
        held += [(f"groups.{number}.guards.{place}", guard) for place, guard in enumerate(group.guards)]
    for at, guard in held:
        if guard.rcd is not None and guard.rcd.type is RcdType.AC:
            change = Change(field=f"boards.{index}.{at}.rcd.type", value=RcdType.A.value)
            yield Move(f"a Type A RCD in front, at {board.name}", 2, (change,))
    if job.supply.earthing is Earthing.TT and not any(one.rcd and one.rcd.time_delayed for _, one in held):
        rcd = ordered_rcd(RcdType.A, 100, delayed=True)
        kept = [one for one in board.incomer if one.rcd is None]
        phases = job.supply.phase_count
        new = Guard(
            id=free_id(job, "front-rcd"), kind=GuardKind.RCCB, rating_a=SWITCH_A, poles=phases + 1,
            voltage_v=ordered_v(phases), rcd=rcd, fitted_with_this_job=True,
        )  # fmt: skip
        change = Change(field=f"boards.{index}.incomer", value=[one.model_dump(mode="json") for one in (*kept, new)])
        yield Move(f"an S-type RCD of 100 mA at {board.name}", 2, (change,))
