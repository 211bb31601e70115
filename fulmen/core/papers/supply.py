"""The supply and the origin as papers state them: fault levels, tails, electrodes, what was not seen on this job."""

from __future__ import annotations

from fulmen.core.circuit.origin import three_phase_fault_ka
from fulmen.core.field_messages import place
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.arrangement import CarEarth
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.readings import StepKey
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.tails import TailsStretch
from fulmen.core.papers.cells import figure, reading_text
from fulmen.core.papers.judged_job import JudgedJob
from fulmen.core.plain import plain

FAULT_READINGS = (
    ("line–neutral", StepKey.FAULT_CURRENT_NEUTRAL),
    ("line–earth", StepKey.FAULT_CURRENT_EARTH),
    ("the larger", StepKey.FAULT_CURRENT),
)


@plain
class CarElectrode:
    """The electrode that one unit alone stands on: whose it is, and what was read."""

    whose: str
    read: str


def fault_levels(judged: JudgedJob) -> str:
    """The fault level that the papers state: of three lines where there are three, and what was read, each way."""
    origin, supply = judged.known.origin, judged.job.supply
    read = [
        f"{words} {figure(ka, 2)} kA"
        for words, step in FAULT_READINGS
        if (ka := judged.readings.figure(step, ORIGIN)) is not None
    ]
    known, three_ka = origin.fault, three_phase_fault_ka(origin, supply)
    level = f"{figure(three_ka, 2)} kA three-phase, taken as twice" if three_ka else f"{figure(known.value, 2)} kA"
    return f"{level}; {', '.join(read)}, measured" if read else f"{level}, {known.source}"


def car_electrodes(judged: JudgedJob) -> tuple[CarElectrode, ...]:
    """The electrode of each unit that stands on one of its own, as measured."""
    found, tt = [], judged.job.supply.earthing is Earthing.TT
    for run in judged.installation.runs:
        point = run.charge_point
        island = point.arrangement.car_earth is CarEarth.OWN_ELECTRODE and not tt
        if island and run.chain:
            read = reading_text(judged.readings.latest(StepKey.ELECTRODE, run.subject), 1)
            size_mm2 = point.arrangement.electrode_conductor_csa_mm2
            read = f"{read} Ω, conductor {figure(size_mm2)} mm² copper"
            found.append(CarElectrode(f"Electrode of {point.name} alone", read))
    return tuple(found)


def tails_words(installation: Installation) -> str:
    """The tails, stretch by stretch: where to, size, length, and that a smaller size was accepted."""
    return "; ".join(_stretch_words(installation, one) for one in installation.job.supply.tails) or "–"


def _stretch_words(installation: Installation, one: TailsStretch) -> str:
    boards = installation.tree.boards
    board = boards[one.board].name if one.board in boards else word(one.ends_at)
    accepted = ", accepted by the operator" if one.accepted_in_writing is Seen.YES else ""
    where = f"to {board} " if len(installation.job.supply.tails) > 1 else ""
    return f"{where}{figure(one.csa_mm2)} mm², {figure(one.length_m)} m{accepted}"


def known_how_words(job: Job) -> tuple[str, ...]:
    """What was not seen on this job but taken otherwise, each way of knowing with the places it stands for."""
    told: dict[KnownHow, dict[str, None]] = {}
    for field, how in job.known_how.items():
        if how in (KnownHow.TAKEN_AS_USUAL, KnownHow.EARLIER_VERSION):
            path = tuple(int(part) if part.isdigit() else part for part in field.split("."))
            told.setdefault(how, {})[place(path)] = None
    return tuple(f"{word(how).capitalize()}: {'; '.join(places)}." for how, places in told.items())
