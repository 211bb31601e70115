"""Where a reading of each step should lie, from the design and from what was read before it."""

from __future__ import annotations

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.electrical.control_pilot import PilotState, duty_of, pilot_volts
from fulmen.core.electrical.fault_loop import temperature_factor
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.steps.expected_bands import Band, r1_r2_band, r1_rn_band, r2_band, zs_band
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
    chained = case.figures_of(subject)
    if chained is None:
        return None
    of_ring = ring_band(test, key, chained, conductors_c(test, key, subject)) if chained.laid.ring else None
    if of_ring is not None:
        return of_ring
    if key in (StepKey.R1_R2, StepKey.R1_RN, StepKey.R2):
        bands = {StepKey.R1_R2: r1_r2_band, StepKey.R1_RN: r1_rn_band, StepKey.R2: r2_band}
        return bands[key](chained, case.rules, conductors_c(test, key, subject))
    if key in (StepKey.ZS, StepKey.ZS_CABLE):
        return _expected_zs(test, key, subject)
    return None


def conductors_c(test: RunTest, key: StepKey, subject: str) -> float | None:
    """How warm the conductors were when a step was read; before it is, how warm they are on the day [°C]."""
    case = test.case
    reading = test.readings.latest(key, subject)
    return reading.temperature_c if reading is not None else case.job.testing.conductors_c


def r1_r2_read(test: RunTest, circuit: str) -> float | None:
    """R1+R2 of a circuit from its readings: as read, or R2 by the long lead and R1 from the route [Ω]."""
    case = test.case
    read = test.figure(StepKey.R1_R2, circuit)
    if read is not None:
        return read
    r2_ohm, chained = test.figure(StepKey.R2, circuit), case.figures_of(circuit)
    if r2_ohm is None or chained is None:
        return None
    warm_c = conductors_c(test, StepKey.R2, circuit)
    return r2_ohm + chained.laid.r1_ohm * (1.0 if warm_c is None else temperature_factor(warm_c))


def _expected_zs(test: RunTest, key: StepKey, subject: str) -> Band | None:
    """Ze, the tails and the R1+R2 of every circuit up to this one, as read or else from its route."""
    case = test.case
    figures = case.figures
    assert figures is not None
    if key is StepKey.ZS and has_car_electrode(case) and subject == case.subject:
        return None
    r1_r2, read_all = 0.0, True
    for chained in figures.chain:
        read = r1_r2_read(test, chained.circuit.id)
        read_all = read_all and read is not None
        r1_r2 += read if read is not None else chained.laid.r1_ohm + chained.laid.r2_ohm
        # The tail of a pre-wired unit is in the loop, though R1+R2 was read before it was joined.
        r1_r2 += 2 * chained.laid.flex.r1_ohm if key is StepKey.ZS else 0.0
        if chained.circuit.id == subject:
            break
    origin = "as read" if read_all else "from the route"
    ze, tails_ohm = figures.ze, figures.tails.r1_ohm + figures.tails.r2_ohm
    tails = f" + tails {tails_ohm:.3f}" if tails_ohm else ""
    source = f"Ze {ze.value:.2f} {ze.source}{tails} + R1+R2 {r1_r2:.2f} {origin}, cold"
    return zs_band(ze.value + tails_ohm, r1_r2, case.rules, source)
