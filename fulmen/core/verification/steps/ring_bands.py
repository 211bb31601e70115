"""Where the readings of a ring final circuit should lie: end to end by its route, then by what was read before.

Cross-connected, line of each end to the other end's neutral or earth, every point reads a quarter of both round: the
neutral's alike all round, a smaller earth's highest half way (BS 7671 Part 6, common practice).
"""

from __future__ import annotations

from fulmen.core.circuit.laid_cable import RING_SHARE
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.steps.band import Band
from fulmen.core.verification.steps.contents import conductor_parts, errors_part, instrument_error, length_words
from fulmen.core.verification.steps.run_test import RunTest

# The reading across two conductors, and the two that are read end to end before it.
ACROSS = {
    StepKey.R1_RN: (StepKey.RING_R1, StepKey.RING_RN),
    StepKey.R1_R2: (StepKey.RING_R1, StepKey.RING_R2),
}
RING_ENDS = (StepKey.RING_R1, StepKey.RING_RN, StepKey.RING_R2)


def ring_band(test: RunTest, key: StepKey, chained: CircuitFigures, conductor_c: float | None) -> Band | None:
    """Where a reading of a ring should lie; None for any other step, and across until both ends are read."""
    circuit = chained.circuit.id
    if key in ACROSS:
        return _across(test, key, circuit)
    if key not in RING_ENDS:
        return None
    r1_ohm = test.figure(StepKey.RING_R1, circuit)
    if key is StepKey.RING_R1 or r1_ohm is None:
        return _from_route(test, key, chained, conductor_c)
    alike = key is StepKey.RING_RN
    ratio = 1.0 if alike else chained.laid.r2_ohm / chained.laid.r1_ohm
    source = f"r1 read {r1_ohm:.2f}" if alike else f"r1 read {r1_ohm:.2f}, by the sizes {ratio:.2f} times"
    return _within(test, r1_ohm * ratio, source)


def _from_route(test: RunTest, key: StepKey, chained: CircuitFigures, conductor_c: float | None) -> Band:
    laid = chained.laid
    round_ohm = (laid.r2_ohm if key is StepKey.RING_R2 else laid.r1_ohm) / RING_SHARE
    source = f"{length_words(chained, conductor_c)} all round"
    parts = tuple(conductor_parts(chained, source, (round_ohm, round_ohm), conductor_c, test))
    error = errors_part((instrument_error(test, key, chained.circuit.id), round_ohm))
    return Band.of((*parts, error), source, parts[0].high)


def _across(test: RunTest, key: StepKey, circuit: str) -> Band | None:
    one, other = (test.figure(end, circuit) for end in ACROSS[key])
    if one is None or other is None:
        return None
    named = "rn" if key is StepKey.R1_RN else "r2"
    return _within(test, (one + other) * RING_SHARE, f"(r1 {one:.2f} + {named} {other:.2f})/4")


def _within(test: RunTest, about_ohm: float, source: str) -> Band:
    allowed_ohm = test.rules.value("ring_agreement_ohm")
    return Band(max(0.0, about_ohm - allowed_ohm), about_ohm + allowed_ohm, source, about_ohm)
