"""What the ohms of a job's readings are the sum of: pieces of conductor and contact that several readings share.

A joint that is poor is in every reading whose way goes through it and in no other: that is how one tells where it is.
Each piece has what it should be and how far off it usually is; each reading its own error and its instrument's.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import product
from math import hypot, sqrt

from fulmen.core.circuit.people import has_car_electrode
from fulmen.core.circuit.run_figures import CircuitFigures
from fulmen.core.electrical.fault_loop import conductor_ohm, temperature_factor
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.readings import StepKey
from fulmen.core.model.route import LengthBy
from fulmen.core.model.supply import Earthing
from fulmen.core.reference.tables import table
from fulmen.core.verification.instruments.accuracy import measures_with
from fulmen.core.verification.steps.band import BandPart
from fulmen.core.verification.steps.contents import (
    allowances,
    contact_parts,
    instrument_error,
    lead_earth,
    lead_parts,
    summed,
)
from fulmen.core.verification.steps.expected_readings import conductors_c
from fulmen.core.verification.steps.origin_bands import HALF_A_DIGIT_KA, ze_band
from fulmen.core.verification.steps.run_test import RunTest
from fulmen.core.verification.steps.steps import definition_of

# A piece by what it is and of which circuit, `origin` where it is of none.
Piece = tuple[str, str]
# One standard deviation of what lies anywhere within its ends, each as likely.
OF_ENDS = 1 / sqrt(12)
# What nobody has a figure of. A bond and an earthing conductor with their clamps; the loop of a neutral of its own, and
# the ground of the operator's electrode. Common practice, no source.
EARTHING_OHM, BOND_OHM, NEUTRAL_OHM, OPERATOR_OHM = (0.0, 0.015), (0.0, 0.04), (0.05, 0.4), (0.0, 15.0)
# Where a sheath is the earth, the neutral is the better way back: its loop is at least this share of Ze.
NEUTRAL_SHARE = 0.4
UNKNOWN_ZE_OHM, NULLED_OHM, TOUCH_OHM = (0.05, 0.8), 0.01, 0.001
# Bonded metal in the ground comes to this much at least; the volts of the moment about 230 V.
PIPE_OHM, VOLTS_SHARE = 2.0, 0.03
# Cores of one drum differ by so much among themselves.
CORES_SHARE = 0.012
LEADS: dict[Piece, float] = {("leads", ORIGIN): 1.0}


@dataclass(frozen=True, slots=True)
class Row:
    """One reading of ohms: what it should come to without any of its pieces being off, the pieces that it holds and how
    much of each, its own error [Ω], and the error that it shares with others of its instrument, by that one's name.

    `value` is None until it is read.
    """

    step: StepKey
    subject: str
    value: float | None
    about: float
    holds: dict[Piece, float]
    own_off: float

    def spread(self, off: dict[Piece, float], *, every: bool = False) -> float:
        """How far off it is by its errors [Ω]; the supply apart, as what every loop shares tells none from another."""
        held = (share * off[piece] for piece, share in self.holds.items() if every or piece[0] != "supply")
        return hypot(self.own_off, *held)


@dataclass(frozen=True, slots=True)
class Sum:
    """Every reading of a job as a sum of pieces, and how far off each piece usually is [Ω, or a share of its own].

    `smaller` is what an earth has more where it is that of a flat cable, a size smaller than was drawn [Ω].
    """

    rows: tuple[Row, ...]
    off: dict[Piece, float]
    smaller: dict[Piece, float]


def sum_of(tests: Iterable[RunTest]) -> Sum:
    """Every reading of ohms that the runs of a job ask for, taken or not, as a sum of pieces."""
    rows: dict[tuple[StepKey, str], Row] = {}
    off: dict[Piece, float] = {}
    smaller: dict[Piece, float] = {}
    for test in tests:
        if test.case.figures is not None:
            for row in (*_at_origin(test, off), *_of_circuits(test, off)):
                rows.setdefault((row.step, row.subject), row)
            smaller |= {("earth", one.circuit.id): _smaller_ohm(one) for one in test.case.figures.chain}
    return Sum(tuple(rows.values()), off, {piece: ohm for piece, ohm in smaller.items() if ohm})


def _smaller_ohm(figures: CircuitFigures) -> float:
    """What the earth of a circuit has more where its cable is flat, all along [Ω]; 0 where it is that already, or where
    the earth is an armour, whose steel is more than the line's copper.
    """
    sizes, flat = (
        [(one.section.length_m, one.cable.csa_mm2, one.metre.cpc_mm2) for one in figures.sections],
        table("4d5_cpc"),
    )
    if any(csa not in flat.rows or not flat.at("cpc_mm2", csa) < cpc <= csa for _, csa, cpc in sizes):
        return 0.0
    return sum(
        conductor_ohm(length_m, flat.at("cpc_mm2", csa)) - conductor_ohm(length_m, cpc) for length_m, csa, cpc in sizes
    )


def _row(
    off: dict[Piece, float], test: RunTest, step: tuple[StepKey, str], about: float, holds: dict[Piece, float]
) -> Row:
    """A row with its errors: an instrument is off by one share in all that it reads, and by its digits each time."""
    key, subject = step
    value, error = test.figure(key, subject), instrument_error(test, key, subject)
    reading, measures = test.readings.latest(key, subject), measures_with(definition_of(key).dial)
    gain: Piece = ("gain", f"{reading.instrument if reading else ''} {measures}")
    off[gain] = 2 * error.share * OF_ENDS
    return Row(
        key, subject, value, about, {**holds, gain: about if value is None else value}, error.besides * 2 * OF_ENDS
    )


def _piece(off: dict[Piece, float], piece: Piece, ends: tuple[float, float]) -> float:
    """Note how far off a piece is that lies within some ends; its middle."""
    off[piece] = (ends[1] - ends[0]) * OF_ENDS
    return (ends[0] + ends[1]) / 2


def _at_origin(test: RunTest, off: dict[Piece, float]) -> Iterator[Row]:
    tt = test.case.job.supply.earthing is Earthing.TT
    off["leads", ORIGIN] = NULLED_OHM * OF_ENDS
    earthing, bond = (
        _piece(off, (name, ORIGIN), ends) for name, ends in (("earthing", EARTHING_OHM), ("bond", BOND_OHM))
    )
    yield _row(off, test, (StepKey.EARTHING_CONDUCTOR, ORIGIN), earthing, {**LEADS, ("earthing", ORIGIN): 1.0})
    yield _row(off, test, (StepKey.MAIN_BONDING, ORIGIN), bond, {**LEADS, ("bond", ORIGIN): 1.0})
    about, supply = _supply(test, off)
    if tt:
        electrode = test.case.origin.electrode.value
        yield _row(off, test, (StepKey.ELECTRODE, ORIGIN), electrode, {("electrode", ORIGIN): 1.0})
    yield _row(off, test, (StepKey.ZE, ORIGIN), about, supply)
    yield from _fault_currents(test, about, supply, off)


def _supply(test: RunTest, off: dict[Piece, float]) -> tuple[float, dict[Piece, float]]:
    """The loop outside: what it should be, and its pieces."""
    if test.case.job.supply.earthing is Earthing.TT:
        electrode = test.case.origin.electrode.value
        off["electrode", ORIGIN] = electrode
        operator = _piece(off, ("operator", ORIGIN), OPERATOR_OHM)
        return electrode + operator, {("electrode", ORIGIN): 1.0, ("operator", ORIGIN): 1.0}
    band = ze_band(test)
    about = _piece(off, ("supply", ORIGIN), (band.low, band.high) if band is not None else UNKNOWN_ZE_OHM)
    return about, {("supply", ORIGIN): 1.0}


def _fault_currents(test: RunTest, about: float, supply: dict[Piece, float], off: dict[Piece, float]) -> Iterator[Row]:
    """Fault currents as the loops that let them through; bonded metal in the ground lies beside the earth."""
    earthed, beside = test.case.job.supply.earthing, _beside(test, about, off)
    one_loop = earthed is Earthing.TN_C_S
    # Where neutral and earth are one conductor, what lies beside the one lies beside the other.
    both: dict[Piece, float] = {**supply, ("beside", ORIGIN): 1.0}
    ze_ohm = test.figure(StepKey.ZE, ORIGIN) or about
    ends = (NEUTRAL_SHARE * ze_ohm, ze_ohm) if earthed is Earthing.TN_S else NEUTRAL_OHM
    neutral = about + beside if one_loop else _piece(off, ("supply_neutral", ORIGIN), ends)
    ways = (
        (StepKey.FAULT_CURRENT_NEUTRAL, neutral, both if one_loop else {("supply_neutral", ORIGIN): 1.0}),
        (StepKey.FAULT_CURRENT_EARTH, about + beside, {**both, ("earthing", ORIGIN): 1.0}),
    )
    off["volts", ORIGIN] = VOLTS_SHARE
    # Of the few amperes through an electrode a meter of kiloamperes tells nothing.
    for key, ohm, holds in ways[:1] if earthed is Earthing.TT else ways:
        read_ka, u0_v = test.figure(key, ORIGIN), test.rules.value("u0_v")
        loop_ohm = u0_v / read_ka / 1000 if read_ka else None
        here = loop_ohm if loop_ohm is not None else ohm
        row = _row(off, test, (key, ORIGIN), ohm, {**holds, ("volts", ORIGIN): here})
        digit_ohm = 2 * HALF_A_DIGIT_KA * here * here * 1000 / u0_v * OF_ENDS
        holds = {piece: here if piece[0] == "gain" else share for piece, share in row.holds.items()}
        yield Row(key, ORIGIN, loop_ohm, ohm, holds, sqrt(row.own_off**2 + digit_ohm**2))


def _beside(test: RunTest, about: float, off: dict[Piece, float]) -> float:
    """What bonded metal in the ground takes off a loop once the earth is on: its middle, below nought [Ω]."""
    ze_ohm = max(about, test.figure(StepKey.ZE, ORIGIN) or 0.0)
    return _piece(off, ("beside", ORIGIN), (-ze_ohm * ze_ohm / (ze_ohm + PIPE_OHM), 0.0))


def _of_circuits(test: RunTest, off: dict[Piece, float]) -> Iterator[Row]:
    case, figures = test.case, test.case.figures
    assert figures is not None
    tails_ohm = figures.tails.r1_ohm + figures.tails.r2_ohm
    about, way = _supply(test, off)
    about, way = about + tails_ohm, {**way, ("earthing", ORIGIN): 1.0}
    if case.job.supply.earthing is not Earthing.TT:
        about, way = about + _beside(test, about - tails_ohm, off), {**way, ("beside", ORIGIN): 1.0}
    before, tail_ohm = BandPart("", 0.0, 0.0), 0.0
    for chained in figures.chain:
        circuit = chained.circuit.id
        cable = _Cable.of(test, chained, off)
        if not chained.laid.ring:
            yield from _dead(test, cable, off)
        passed = summed("", contact_parts(test, circuit, to_connector=False))
        low, high = passed.low - before.low, passed.high - before.high
        before = passed
        about += _piece(off, ("way", circuit), (low, high)) + cable.about(("line", "earth"))
        way = {**way, **cable.holds(("line", "earth")), ("way", circuit): 1.0}
        tail_ohm = 2 * chained.laid.flex.r1_ohm
        to_car = circuit == case.subject and not case.to_loads
        yield _row(off, test, (StepKey.ZS_CABLE, circuit), about, way)
        if not to_car:
            yield _row(off, test, (StepKey.ZS, circuit), about, way)
    if not case.to_loads:
        yield from _to_the_car(test, about + tail_ohm, way, off)


def _to_the_car(test: RunTest, about: float, way: dict[Piece, float], off: dict[Piece, float]) -> Iterator[Row]:
    """Through the unit: contactor, connector, and twice the lead; its earth is read alone too."""
    subject, said = test.case.subject, lead_earth(test)
    told = allowances()
    contactor, connector = (
        _piece(off, (name, subject), (told[name]["low_ohm"], told[name]["high_ohm"]))
        for name in ("contactor", "connector")
    )
    both = summed("", lead_parts(test))
    lead = _piece(off, ("lead", subject), (both.low / 2, both.high / 2))
    off["lead_earth", subject] = TOUCH_OHM
    if said is not None:
        holds = {**LEADS, ("lead", subject): 1.0, ("lead_earth", subject): 1.0, ("connector", subject): 0.5}
        yield _row(off, test, (StepKey.CONNECTOR_EARTH, subject), lead + connector / 2, holds)
    if not has_car_electrode(test.case):
        own: dict[Piece, float] = {(name, subject): 1.0 for name in ("contactor", "connector", "lead_earth")}
        about += contactor + connector + 2 * lead
        yield _row(off, test, (StepKey.ZS, subject), about, {**way, **own, ("lead", subject): 2.0})


@dataclass(frozen=True, slots=True)
class _Cable:
    """A cable as drawn, of the day's warmth: its line and earth, and its parts with the share of each."""

    circuit: str
    line_ohm: float
    earth_ohm: float
    parts: tuple[tuple[str, float], ...]

    @classmethod
    def of(cls, test: RunTest, chained: CircuitFigures, off: dict[Piece, float]) -> _Cable:
        """A circuit's cable; how far off its length, metal and warmth are in all conductors alike, and each alone."""
        circuit, laid = chained.circuit.id, chained.laid
        factor, off["length", circuit] = _as_drawn(test, chained)
        line, earth = factor * laid.r1_ohm, factor * (laid.r2_ohm + laid.least_r2_ohm) / 2
        armour_ohm = factor * (laid.r2_ohm - laid.least_r2_ohm) * OF_ENDS
        legs = test.case.installation.legs[circuit]
        parts = tuple((one.subject, _share(test, one.subject, chained) if len(legs) > 1 else 1.0) for one in legs)
        for subject, share in parts:
            for conductor, ohm in (("line", line), ("neutral", line), ("earth", earth)):
                off[conductor, subject] = CORES_SHARE * share * ohm + TOUCH_OHM
            off["earth", subject] = sqrt(off["earth", subject] ** 2 + (share * armour_ohm) ** 2)
        return cls(circuit, line, earth, parts)

    def about(self, conductors: Iterable[str], subject: str = "") -> float:
        """Some of its conductors as drawn, all along or in one part."""
        ohm = sum(self.earth_ohm if one == "earth" else self.line_ohm for one in conductors)
        return ohm * dict(self.parts).get(subject, 1.0)

    def holds(self, conductors: tuple[str, ...], subject: str = "") -> dict[Piece, float]:
        """The pieces of some of its conductors, all along or in one part."""
        here = [part for part, _ in self.parts if subject in ("", self.circuit, part)]
        each: dict[Piece, float] = {(one, part): 1.0 for one in conductors for part in here}
        return {**each, ("length", self.circuit): self.about(conductors, subject)}


def _as_drawn(test: RunTest, chained: CircuitFigures) -> tuple[float, float]:
    """What the table's ohms at 20 °C are times on the day, and how far off length, metal and warmth are, as a share."""
    told, steps = allowances(), LengthBy.STEPS
    warm_c = conductors_c(test, StepKey.R1_R2, chained.circuit.id)
    coldest, warmest = (test.rules.value(f"conductors_{one}_c") for one in ("coldest", "warmest"))
    around_c = (coldest + warmest) / 2 if warm_c is None else warm_c
    kelvin = (warmest - coldest) / 2 if warm_c is None else told["warmth_c"]["kelvin"]
    metal, warmer = told["metal"]["share"], temperature_factor(20 + kelvin) - 1
    paced_m = sum(one.section.length_m for one in chained.sections if one.section.length_by is steps)
    paced = paced_m / (sum(one.section.length_m for one in chained.sections) or 1.0)
    longer = told["length_by_tape"]["share"] * (1 - paced) + told["length_by_steps"]["share"] * paced
    # Drawn to size it has a little less than the table's most.
    return temperature_factor(around_c) * (1 - metal / 2), OF_ENDS * sqrt(4 * longer**2 + 4 * warmer**2 + metal**2)


def _share(test: RunTest, subject: str, chained: CircuitFigures) -> float:
    """How much of a cable one of its parts is."""
    part = test.case.figures_of(subject)
    assert part is not None
    return (part.laid.r1_ohm + part.laid.r2_ohm) / (chained.laid.r1_ohm + chained.laid.r2_ohm)


READ_DEAD = ((StepKey.R1_R2, ("line", "earth")), (StepKey.R1_RN, ("line", "neutral")), (StepKey.R2, ("earth",)))


def _dead(test: RunTest, cable: _Cable, off: dict[Piece, float]) -> Iterator[Row]:
    """Continuity of a cable, and of the parts that a box parts it in."""
    ends = allowances()["link"]["low_ohm"], allowances()["link"]["high_ohm"]
    subjects = dict.fromkeys((cable.circuit, *(part for part, _ in cable.parts)))
    for (key, conductors), subject in product(READ_DEAD, subjects):
        link: Piece = ("link", f"{key}/{subject}")
        about = cable.about(conductors, subject) + _piece(off, link, ends)
        yield _row(off, test, (key, subject), about, {**LEADS, link: 1.0, **cable.holds(conductors, subject)})
