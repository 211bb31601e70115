"""The arrangement in words, as the schedule states it: earth, open-PEN method with its clause, RCDs, DC detection."""

from __future__ import annotations

from fulmen.core.circuit.protection_words import dc_words, surge_in_words
from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.words import word
from fulmen.core.installation.guards import PlacedGuard, Stands
from fulmen.core.model.arrangement import CarEarth, OpenPenMeasure
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.guards import OpenPenSensing, Rcd
from fulmen.core.model.job import Job
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import CarPlace
from fulmen.core.model.supply import Earthing

CLAUSE = "722.411.4.1"
CLAUSE_OF_MEASURE = {OpenPenMeasure.THREE_PHASE_BALANCE: "(i)", OpenPenMeasure.LOW_ELECTRODE: "(ii)"}
CLAUSE_OF_SENSING = {OpenPenSensing.MET_VOLTAGE: "(iii)", OpenPenSensing.LINE_NEUTRAL_WINDOW: "(iv)"}


SHORT = {
    OpenPenMeasure.DEVICE_IN_UNIT: "PEN device inside",
    OpenPenMeasure.SEPARATE_DEVICE: "PEN device before",
    OpenPenMeasure.LOW_ELECTRODE: "low electrode",
    OpenPenMeasure.THREE_PHASE_BALANCE: "phases balanced",
    OpenPenMeasure.INDOORS_ONLY: "indoors only",
    OpenPenMeasure.NONE: "no PEN measure",
}


def short_protection(job: Job, point: ChargePoint) -> str:
    """How a broken PEN is met, in two or three words for the run band."""
    if job.supply.earthing is Earthing.TT:
        return "TT"
    if point.arrangement.car_earth is CarEarth.OWN_ELECTRODE:
        return "TT island"
    return SHORT[point.arrangement.open_pen]


def arrangement_facts(case: Case) -> tuple[tuple[str, str], ...]:
    """Name and words of each part of the arrangement at one charge point; every RCD in its place, from the origin."""
    job, run = case.job, case.run
    guards = run.guards
    rcds = [(_place_words(one), mark_in_words(one)) for one in guards if one in run.rcds or one in run.unread]
    return (
        ("Earthing for the charge point", _earth(job, run.charge_point)),
        *_own_electrode(case),
        ("Open-PEN method", open_pen_words(job, run.charge_point, guards)),
        *(rcds or [("RCD on the circuit", rcd_in_words(None))]),
        ("6 mA DC detection (RDC-DD)", dc_words(case)),
        ("Surge protection", surge_in_words(case) if run.chain else "not known"),
    )


def _place_words(guard: PlacedGuard) -> str:
    """The place of an RCD as the schedule names it."""
    places = {Stands.WAY: f"RCD at the board, {guard.where}", Stands.UNIT: "RCD in the unit"}
    return places.get(guard.stands, f"RCD {guard.where}")


def _earth(job: Job, point: ChargePoint) -> str:
    if job.supply.earthing is Earthing.TT:
        return "the installation's electrode (TT)"
    if point.arrangement.car_earth is CarEarth.OWN_ELECTRODE:
        return "its own electrode (TT island), apart from the house earth"
    return f"the house earth ({word(job.supply.earthing)})"


def _own_electrode(case: Case) -> list[tuple[str, str]]:
    """The electrode that the car alone stands on, as it was measured, and the conductor to it."""
    arrangement = case.arrangement
    if case.job.supply.earthing is Earthing.TT or arrangement.car_earth is not CarEarth.OWN_ELECTRODE:
        return []
    read_ohm = case.measured.electrode_ohm.get(case.subject)
    told = "not measured" if read_ohm is None else f"{read_ohm:g} Ω measured"
    size_mm2, guarded = arrangement.electrode_conductor_csa_mm2, arrangement.electrode_conductor_protection
    conductor = "not known" if size_mm2 is None else f"{size_mm2:g} mm², {word(guarded)}"
    return [("Car's own electrode", f"{told}; conductor {conductor}")]


def open_pen_words(job: Job, point: ChargePoint, guards: tuple[PlacedGuard, ...]) -> str:
    """The open-PEN method with the clause it stands on, from the device of the run that it relies on."""
    arrangement = point.arrangement
    if job.supply.earthing is Earthing.TT or arrangement.car_earth is CarEarth.OWN_ELECTRODE:
        return f"none needed: no PEN in the earth path, {CLAUSE}"
    if job.site.car_place is CarPlace.INDOORS_ONLY:
        return f"none needed: no car can be charged outdoors, {CLAUSE}"
    measure = arrangement.open_pen
    if measure in (OpenPenMeasure.DEVICE_IN_UNIT, OpenPenMeasure.SEPARATE_DEVICE):
        inside = measure is OpenPenMeasure.DEVICE_IN_UNIT
        relied = [one.open_pen for one in guards if one.open_pen and (one.stands is Stands.UNIT) is inside]
        if not relied:
            unseen = inside and point.open_pen_inside is Seen.NOT_SEEN
            return f"{word(measure)}, {CLAUSE}; {'not looked up yet' if unseen else 'none is there'}"
        device = relied[-1]
        within = "how fast not known" if device.opens_within_s is None else f"opens within {device.opens_within_s:g} s"
        clause = "clause not known" if device.sensing is None else CLAUSE_OF_SENSING[device.sensing]
        return f"{word(measure)}, {CLAUSE} {clause}, {within}"
    clause = CLAUSE_OF_MEASURE.get(measure, "")
    return f"{word(measure)}, {CLAUSE} {clause}".rstrip()


def mark_in_words(guard: PlacedGuard) -> str:
    """An RCD of a run in words; one whose mark nobody has read is there all the same."""
    return rcd_in_words(guard.rcd) if guard.rcd is not None else UNREAD


UNREAD = "its mark not read yet"


def rcd_in_words(rcd: Rcd | None) -> str:
    """A residual-current device in words.

    >>> rcd_in_words(None)
    'none'
    """
    if rcd is None:
        return "none"
    delay = ", time-delayed" if rcd.time_delayed else ""
    poles = ", neutral not switched" if rcd.switches_neutral is False else ""
    return f"Type {rcd.type.value}, {rcd.residual_ma} mA{delay}{poles}"
