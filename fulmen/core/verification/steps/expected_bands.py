"""Where the readings of a circuit's conductors should lie: by its route, and by what was read of it before."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.model.readings import StepKey
from fulmen.core.verification.steps.band import Band, BandPart
from fulmen.core.verification.steps.contents import (
    allowances,
    conductor_parts,
    errors_part,
    instrument_error,
    length_words,
)
from fulmen.core.verification.steps.run_test import RunTest


def route_band(test: RunTest, key: StepKey, figures: CircuitFigures, conductor_c: float | None) -> Band:
    """Where R1+R2, R1+Rn or R2 should lie by the route; armour beside the core may lower it."""
    least_ohm, most_ohm = _conductors(key, figures)
    source = length_words(figures, conductor_c, earth=key is not StepKey.R1_RN)
    parts = tuple(conductor_parts(figures, source, (least_ohm, most_ohm), conductor_c, test))
    about = parts[0].high
    if least_ohm < most_ohm:
        source += ", armour beside the core"
    error = errors_part((instrument_error(test, key, figures.circuit.id), about))
    return Band.of((*parts, error), source, about)


def _conductors(key: StepKey, figures: CircuitFigures) -> tuple[float, float]:
    """What a step reads of a circuit at 20 °C by its route: least, with armour beside the core, and most [Ω]."""
    laid = figures.laid
    if key is StepKey.R1_RN:
        return 2 * laid.r1_ohm, 2 * laid.r1_ohm
    line_ohm = laid.r1_ohm if key is StepKey.R1_R2 else 0.0
    return line_ohm + laid.least_r2_ohm, line_ohm + laid.r2_ohm


def neutral_band(test: RunTest, figures: CircuitFigures, read_key: StepKey, r1_r2_ohm: float) -> Band:
    """Where R1+Rn should lie by R1+R2 as read: the same line, and neutral and protective conductor by their sizes.

    Length and warmth are the same in both, so only metal, contacts and the instrument count.
    """
    laid, circuit = figures.laid, figures.circuit.id
    least, most = (2 * laid.r1_ohm / (laid.r1_ohm + each) for each in (laid.r2_ohm, laid.least_r2_ohm))
    low, high = r1_r2_ohm * least, r1_r2_ohm * most
    metal, link_ohm = allowances()["metal"]["share"] / 2, allowances()["link"]["high_ohm"]
    parts = (
        BandPart(f"R1+R2 read {r1_r2_ohm:.2f}, by the sizes", low, high),
        BandPart("metal of one against the other", -metal * low, metal * high),
        BandPart("link and terminals", -link_ohm * most, link_ohm),
        errors_part(
            (instrument_error(test, read_key, circuit), r1_r2_ohm),
            (instrument_error(test, StepKey.R1_RN, circuit), high),
        ),
    )
    return Band.of(parts, parts[0].words, high)
