"""Taking another arrangement: the guards it relies on are put before the unit, those of another one are taken out."""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.editing.changes import Change
from fulmen.core.editing.layouts import free_id, ordered_v
from fulmen.core.installation.guards import Stands
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.run import Run
from fulmen.core.model.arrangement import Arrangement, CarEarth, OpenPenMeasure, RdcDdPlace
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Guard, GuardBox, GuardKind, OpenPenDevice, OpenPenSensing, RcdMark
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Earthing

# What is chosen where a device is put in: one that serves. It is looked up when the device is bought.
USUAL_OPEN_PEN = OpenPenDevice(
    sensing=OpenPenSensing.LINE_NEUTRAL_WINDOW, opens_protective_conductor=True, opens_within_s=5, closes_by_hand=True
)
CHOSEN = (GuardKind.OPEN_PEN_DEVICE, GuardKind.DC_DETECTOR)


@dataclass(frozen=True)
class ProtectionChoice:
    """An arrangement with the RCD of the circuit's device, and how a separate open-PEN device senses, where said."""

    arrangement: Arrangement
    rcd: RcdMark | None
    sensing: OpenPenSensing | None = None


@dataclass(frozen=True, slots=True)
class Protected:
    """A run with a choice taken: its unit's arrangement, its final circuit's device and boxes."""

    circuit: Circuit
    point: ChargePoint


def protected(job: Job, run: Run, choice: ProtectionChoice) -> Protected:
    """A run with a choice taken.

    A device that stands further up the run serves where it is; one that is there already is never taken out.
    """
    final = run.final().circuit
    circuit = final.model_copy(
        update={
            "device": final.device.model_copy(update={"rcd": choice.rcd}),
            "boxes": _boxes(job, run, choice),
        }
    )
    return Protected(circuit, run.charge_point.model_copy(update={"arrangement": choice.arrangement}))


def with_protection(job: Job, taken: Protected) -> Job:
    """The job with the unit and the final circuit of a choice in place of those of the same name."""
    circuit, point = taken.circuit, taken.point
    return job.model_copy(
        update={
            "circuits": tuple(circuit if one.id == circuit.id else one for one in job.circuits),
            "charge_points": tuple(point if one.id == point.id else one for one in job.charge_points),
        }
    )


def protection_changes(installation: Installation, taken: Protected) -> tuple[Change, ...]:
    """The fields by which a choice taken differs from what stands."""
    tree = installation.tree
    circuit, point = tree.circuits[taken.circuit.id], tree.points[taken.point.id]
    now, wanted, new = point.arrangement, taken.point.arrangement, taken.circuit
    at, circuit_at = f"{tree.paths[point.id]}.arrangement", tree.paths[circuit.id]
    pairs = [
        (f"{at}.car_earth", now.car_earth.value, wanted.car_earth.value),
        (f"{at}.open_pen", now.open_pen.value, wanted.open_pen.value),
        (f"{at}.rdc_dd", now.rdc_dd.value, wanted.rdc_dd.value),
        (f"{circuit_at}.device.rcd", _plain_rcd(circuit), _plain_rcd(new)),
        (f"{circuit_at}.boxes", _plain_boxes(circuit), _plain_boxes(new)),
    ]
    return tuple(Change(field=field, value=value) for field, before, value in pairs if before != value)


def _plain_rcd(circuit: Circuit) -> object:
    return circuit.device.rcd and circuit.device.rcd.model_dump(mode="json")


def _plain_boxes(circuit: Circuit) -> object:
    return [box.model_dump(mode="json") for box in circuit.boxes]


def _boxes(job: Job, run: Run, choice: ProtectionChoice) -> tuple[GuardBox, ...]:
    wanted = _wanted(job, choice.arrangement)
    kept = []
    for box in run.final().circuit.boxes:
        guards = tuple(_sensing(one, choice.sensing) for one in box.guards if _stays(one, wanted))
        if guards or not box.fitted_with_this_job:
            kept.append(box.model_copy(update={"guards": guards}))
    if not wanted:
        return tuple(kept)
    further_up = [one for one in run.guards if one.stands is not Stands.BOX or one.circuit != run.subject]
    there = {one.guard.kind for one in further_up if one.guard is not None}
    there |= {guard.kind for box in kept for guard in box.guards}
    missing = [_new(job, run, kind, choice.sensing) for kind in CHOSEN if kind in wanted - there]
    if not missing:
        return tuple(kept)
    place = next((at for at, box in enumerate(kept) if box.fitted_with_this_job), None)
    if place is not None:
        kept[place] = kept[place].model_copy(update={"guards": (*kept[place].guards, *missing)})
        return tuple(kept)
    name = free_id(job, f"{run.final().circuit.id[:30]}-box")
    return (*kept, GuardBox(id=name, name="Box before the unit", guards=tuple(missing)))


def _wanted(job: Job, arrangement: Arrangement) -> set[GuardKind]:
    """What the arrangement relies on before the unit."""
    house_earth = arrangement.car_earth is CarEarth.HOUSE_EARTH and job.supply.earthing is not Earthing.TT
    separate = house_earth and arrangement.open_pen is OpenPenMeasure.SEPARATE_DEVICE
    found = {GuardKind.OPEN_PEN_DEVICE} if separate else set()
    return found | ({GuardKind.DC_DETECTOR} if arrangement.rdc_dd is RdcDdPlace.BEFORE_UNIT else set())


def _stays(guard: Guard, wanted: set[GuardKind]) -> bool:
    return guard.kind not in CHOSEN or guard.kind in wanted or not guard.fitted_with_this_job


def _sensing(guard: Guard, sensing: OpenPenSensing | None) -> Guard:
    if guard.kind is not GuardKind.OPEN_PEN_DEVICE or sensing is None:
        return guard
    device = (guard.open_pen or USUAL_OPEN_PEN).model_copy(update={"sensing": sensing})
    return guard.model_copy(update={"open_pen": device})


def _new(job: Job, run: Run, kind: GuardKind, sensing: OpenPenSensing | None) -> Guard:
    """A guard to be fitted: it is ordered to carry the circuit's device and to open all that passes it.

    How an open-PEN device senses is a choice, and starts at the usual one.
    """
    ending = "open-pen" if kind is GuardKind.OPEN_PEN_DEVICE else "dc"
    circuit, phases = run.final().circuit, run.charge_point.phase_count
    guard = Guard(
        id=free_id(job, f"{circuit.id[:30]}-{ending}"), kind=kind, rating_a=float(circuit.device.rating_a),
        poles=phases + 1, voltage_v=ordered_v(phases), fitted_with_this_job=True,
    )  # fmt: skip
    if kind is not GuardKind.OPEN_PEN_DEVICE:
        return guard
    device = USUAL_OPEN_PEN if sensing is None else USUAL_OPEN_PEN.model_copy(update={"sensing": sensing})
    return guard.model_copy(update={"open_pen": device})
