"""Where a reading of each step should lie, from the design and from what was read before it."""

from __future__ import annotations

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.control_pilot import PilotState, duty_of, pilot_volts
from fulmen.core.electrical.fault_loop import temperature_factor
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.steps.band import Band, BandPart
from fulmen.core.verification.steps.contents import (
    allowances,
    contact_parts,
    errors_part,
    instrument_error,
    lead_earth,
    lead_parts,
    summed,
    within,
)
from fulmen.core.verification.steps.expected_bands import route_band
from fulmen.core.verification.steps.origin_bands import band_without_route
from fulmen.core.verification.steps.ring_bands import ring_band
from fulmen.core.verification.steps.run_test import RunTest

PILOTS = {StepKey.PILOT_A: PilotState.A, StepKey.PILOT_B: PilotState.B, StepKey.PILOT_C: PilotState.C}


def expected_band(test: RunTest, key: StepKey, subject: str) -> Band | None:
    """Where a reading of this step should lie, if that can be told yet."""
    case = test.case
    if key in PILOTS:
        return Band(*pilot_volts(PILOTS[key]), f"IEC 61851-1, state {PILOTS[key].value}")
    if key is StepKey.PILOT_DUTY and not case.to_loads and case.run.charge_point.current_known:
        current_a = case.run.charge_point.design_current_a()
        duty, width = duty_of(current_a), case.rules.value("pilot_duty_within_percent")
        return Band(duty - width, duty + width, f"{current_a:g} A, IEC 61851-1")
    if key is StepKey.CONNECTOR_EARTH and not case.to_loads:
        return _expected_lead(test)
    beside = band_without_route(test, key, subject)
    chained = case.figures_of(subject)
    if beside is not None or chained is None:
        return beside
    of_ring = ring_band(test, key, chained, _about_c(test, key, subject)) if chained.laid.ring else None
    if of_ring is not None:
        return of_ring
    if key in (StepKey.R1_R2, StepKey.R1_RN, StepKey.R2):
        return route_band(test, key, chained, _about_c(test, key, subject))
    if key in (StepKey.ZS, StepKey.ZS_CABLE):
        return _expected_zs(test, key, subject)
    return None


def conductors_c(test: RunTest, key: StepKey, subject: str) -> float | None:
    """How warm the conductors were when a step was read; before it is, how warm they are on the day [°C]."""
    reading = test.readings.latest(key, subject)
    return reading.temperature_c if reading is not None else test.case.job.testing.conductors_c


def _about_c(test: RunTest, key: StepKey, subject: str) -> float | None:
    """The same for a band, which a few kelvin hardly move: where a reading does not tell it, that of the day [°C]."""
    told_c = conductors_c(test, key, subject)
    return told_c if told_c is not None else test.case.job.testing.conductors_c


def r1_r2_read(test: RunTest, subject: str) -> float | None:
    """R1+R2 of a circuit or of a part of its cable [Ω]: as read, or R2 by the long lead and R1 from the route; of a
    cable that was read in parts, their sum.
    """
    found = r1_r2_parts(test, subject)
    return sum(ohm for _, ohm in found) if found else None


def r1_r2_parts(test: RunTest, subject: str) -> tuple[tuple[str, float], ...]:
    """The readings that R1+R2 of a circuit rests on, by what they are of; none until all of it was read."""
    whole = _r1_r2_of_one(test, subject)
    if whole is not None:
        return ((subject, whole),)
    legs = test.case.installation.legs.get(subject, ())
    parts = [(one.subject, _r1_r2_of_one(test, one.subject)) for one in legs] if len(legs) > 1 else []
    read = tuple((part, ohm) for part, ohm in parts if ohm is not None)
    return read if len(read) == len(parts) else ()


def _r1_r2_of_one(test: RunTest, subject: str) -> float | None:
    case = test.case
    read = test.figure(StepKey.R1_R2, subject)
    if read is not None:
        return read
    r2_ohm, chained = test.figure(StepKey.R2, subject), case.figures_of(subject)
    if r2_ohm is None or chained is None:
        return None
    warm_c = _about_c(test, StepKey.R2, subject)
    return r2_ohm + chained.laid.r1_ohm * (1.0 if warm_c is None else temperature_factor(warm_c))


def r1_r2_by(test: RunTest, subject: str) -> StepKey:
    """Which step's reading R1+R2 rests on."""
    return StepKey.R1_R2 if test.figure(StepKey.R1_R2, subject) is not None else StepKey.R2


def _expected_lead(test: RunTest) -> Band | None:
    """Earth through to the connector: the lead by its length and size, its contact, the instrument."""
    said = lead_earth(test)
    if said is None:
        return None
    words, ohm = said
    off = allowances()["lead"]["share"] * ohm
    error = errors_part((instrument_error(test, StepKey.CONNECTOR_EARTH, test.case.subject), ohm))
    parts = (
        BandPart(words, ohm, ohm),
        BandPart("length of the lead", -off, off),
        within("contacts", "connector"),
        error,
    )
    return Band.of(parts, words, ohm)


def _expected_zs(test: RunTest, key: StepKey, subject: str) -> Band | None:
    """Ze, tails, contacts, the R1+R2 of every circuit up to this one, as read or from its route, and the car's lead."""
    case = test.case
    figures = case.figures
    assert figures is not None
    to_car = key is StepKey.ZS and subject == case.subject and not case.to_loads
    if to_car and has_car_electrode(case):
        return None
    ze, tails_ohm = figures.ze, figures.tails.r1_ohm + figures.tails.r2_ohm
    parts = [BandPart(f"Ze {ze.value:.2f} {ze.source}", ze.value, ze.value), BandPart("tails", tails_ohm, tails_ohm)]
    errors = [(instrument_error(test, StepKey.ZE, ORIGIN), ze.value)] if ze.measured else []
    r1_r2, read_all = 0.0, True
    for chained in figures.chain:
        ohm, was_read, of_circuit = _up_to(test, chained, with_tail=key is StepKey.ZS)
        r1_r2, read_all = r1_r2 + ohm, read_all and was_read
        parts += of_circuit
        if was_read:
            read = r1_r2_parts(test, chained.circuit.id)
            errors += [(instrument_error(test, r1_r2_by(test, part), part), ohm) for part, ohm in read]
        if chained.circuit.id == subject:
            break
    parts += contact_parts(test, subject, to_connector=to_car)
    lead = list(lead_parts(test)) if to_car else []
    about = sum(one.high for one in parts[:2]) + r1_r2 + (sum(one.low + one.high for one in lead) / 2)
    parts += lead
    parts.append(errors_part(*errors, (instrument_error(test, key, subject), about)))
    tails = f" + tails {tails_ohm:.3f}" if tails_ohm else ""
    carried = f" + {lead[0].words} {lead[0].told}" if lead else ""
    how = "as read" if read_all else "from the route"
    source = f"Ze {ze.value:.2f} {ze.source}{tails} + R1+R2 {r1_r2:.2f} {how}, cold{carried}"
    return Band.of(parts, source, about)


def _up_to(test: RunTest, chained: CircuitFigures, *, with_tail: bool) -> tuple[float, bool, list[BandPart]]:
    """R1+R2 of one circuit of a loop, whether it was read, and its parts; the tail of a pre-wired unit is in the loop,
    though R1+R2 was read before it was joined.
    """
    circuit, read = chained.circuit.id, r1_r2_read(test, chained.circuit.id)
    tail_ohm = 2 * chained.laid.flex.r1_ohm if with_tail else 0.0
    tail = BandPart("tail of the unit", tail_ohm, tail_ohm)
    if read is not None:
        return read + tail_ohm, True, [BandPart(f"R1+R2 read {read:.2f}", read, read), tail]
    band = route_band(test, StepKey.R1_R2, chained, _about_c(test, StepKey.R1_R2, circuit))
    of_route = summed(f"R1+R2 by {band.source}", band.parts)
    return chained.laid.r1_ohm + chained.laid.r2_ohm + tail_ohm, False, [of_route, tail]
