"""Readings from a file: our own JSON, or a table, long or wide; the fate of each before anything is kept.

A claim is taken, or told why not: no such step or circuit, no figure, a figure or a day that could be two, a unit of
another kind, the same reading already there, a step that somebody took before and nobody said why again. A unit of the
same kind is worked into the step's own and said so. Of several lines of one step the worst is taken.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from pydantic import ValidationError

from fulmen.core.field_messages import input_errors
from fulmen.core.model.base import Line, Name, Part
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS, Outcome, Reading, StepKey, by_step
from fulmen.core.verification.readings.brought.cells import (
    LEFT,
    Doubt,
    Said,
    factor_of,
    may_be_a_thousand,
    said,
    time_in,
)
from fulmen.core.verification.readings.brought.shape import ReadingShape
from fulmen.core.verification.readings.brought.table import Claim, claims_of, plainly, step_of, table_of, unused_of
from fulmen.core.verification.readings.reading_fit import misfit
from fulmen.core.verification.readings.taken_again import LEAST_WHY, after, is_told
from fulmen.core.verification.steps.sequence import Step

AHEAD = timedelta(days=1)


class LineFate(StrEnum):
    """What becomes of a line."""

    TAKEN = "taken"
    CONVERTED = "converted"
    DUPLICATE = "duplicate"
    BETTER = "better"
    NO_STEP = "no_step"
    NO_CIRCUIT = "no_circuit"
    NO_FIGURE = "no_figure"
    WHICH_MARK = "which_mark"
    WHICH_DAY = "which_day"
    WHICH_TOP = "which_top"
    WRONG_UNIT = "wrong_unit"
    REFUSED = "refused"
    AGAIN = "again"


class ImportedLine(Part):
    """One claim of the file: what it says, its fate, and the reading that it would be.

    `asks` is the word that somebody is to say the meaning of, in the file's own spelling.
    """

    number: int
    words: str
    fate: LineFate
    told: str = ""
    asks: str = ""
    reading: Reading | None = None


@dataclass(frozen=True)
class Taking:
    """Who brings a file in: whose name stands under its readings, when, and with what if a line does not say.

    `again_because` is why steps are taken again, where the file holds some that were.
    """

    taken_by: Name
    taken_at: datetime
    instrument: Line = ""
    again_because: Line = ""


@dataclass(frozen=True)
class Brought:
    """A file as it was read: its lines, how it lies, its columns, and those of them that say nothing yet."""

    lines: tuple[ImportedLine, ...]
    shape: ReadingShape
    columns: tuple[str, ...]
    unused: tuple[str, ...]


def imported_lines(text: str, shape: ReadingShape, job: Job, steps: tuple[Step, ...], by: Taking) -> Brought:
    """The fate of every claim of a file, and how the file was read.

    Args:
        text: CSV with a line of headings, or JSON: a list of objects with the same names.
        shape: what is known of how it lies.
        job: the job that the readings are of.
        steps: its sequence.
        by: who brings it in.

    Raises:
        InputError: see `table_of`.
    """
    table = table_of(text, shape)
    ways = _Ways(job, steps, table.shape, by)
    told = [(claim, ways.line(claim)) for claim in claims_of(table)]
    worst = _worst_only(told)
    lines = tuple(_against_what_is_there(worst, table.shape, job, by))
    return Brought(lines, table.shape, table.headings, unused_of(table))


def _worst_only(told: list[tuple[Claim, ImportedLine]]) -> list[tuple[Claim, ImportedLine]]:
    """Of a step's several lines the worst: by rule, whichever of them the file tells first."""
    worst: dict[tuple[StepKey, str], Reading] = {}
    of_lines = [line.reading for claim, line in told if claim.cells["line"] and line.reading is not None]
    for one in of_lines:
        before = worst.get((one.step, one.subject))
        if before is None or is_worse(one, before):
            worst[one.step, one.subject] = one
    better = {"fate": LineFate.BETTER, "told": "Another line of it reads worse.", "reading": None}
    return [
        (
            claim,
            line.model_copy(update=better)
            if claim.cells["line"] and line.reading is not None and not _is_one_of(line.reading, worst.values())
            else line,
        )
        for claim, line in told
    ]


def _is_one_of(reading: Reading, every: Iterable[Reading]) -> bool:
    return any(reading is one for one in every)


def is_worse(one: Reading, other: Reading) -> bool:
    """Whether a reading of a step is worse than another of it: wrong before any figure, then what could not be tested;
    of insulation the less, of anything else the more.
    """
    ranks = {Outcome.WRONG: 3, Outcome.COULD_NOT_TEST: 2, Outcome.NOT_APPLICABLE: 0}
    ours, theirs = (ranks.get(each.outcome, 1) for each in (one, other))
    if ours != theirs or one.value is None or other.value is None:
        return ours > theirs
    if one.step.startswith("ir_"):
        return one.value < other.value
    past = [each.outcome is Outcome.OVER_RANGE for each in (one, other)]
    return past[0] if past[0] != past[1] else one.value > other.value


def _against_what_is_there(
    told: Iterable[tuple[Claim, ImportedLine]], shape: ReadingShape, job: Job, by: Taking
) -> Iterator[ImportedLine]:
    seen = {key for one in job.readings for key in (_same(one), _same(one, timed=False))}
    newest = {key: taken[-1] for key, taken in by_step(job.readings).taken.items()}
    for claim, line in told:
        reading = line.reading
        # A line that says when it was taken is itself by that; one that does not, by its figure alone.
        timed = bool(claim.cells["time"] or claim.cells["day"])
        if reading is not None and _same(reading, timed=timed) in seen:
            line = line.model_copy(update={"fate": LineFate.DUPLICATE, "told": "It is there already.", "reading": None})
        elif reading is not None:
            line = _taken_again(line, reading, newest.get((reading.step, reading.subject)), by)
        if line.reading is not None:
            newest[line.reading.step, line.reading.subject] = line.reading
            seen |= {_same(line.reading), _same(line.reading, timed=False)}
        yield line


def _taken_again(line: ImportedLine, reading: Reading, before: Reading | None, by: Taking) -> ImportedLine:
    """The line of a step that was read before: it says whose it follows, and why, or is asked."""
    if before is None or is_told(before, reading):
        return line
    if len(by.again_because) < LEAST_WHY:
        told = f"{before.taken_by} took it on {before.taken_at:%-d %B, %H:%M}: say why it is taken again."
        return line.model_copy(update={"fate": LineFate.AGAIN, "told": told, "reading": None})
    why = {"follows": after(before), "again_because": by.again_because}
    return line.model_copy(update={"reading": reading.model_copy(update=why)})


# What becomes of a claim: its fate, what is told of it, the word that is asked about, the reading that it would be.
Fate = Callable[[LineFate, str, str, Reading | None], ImportedLine]


class _Ways:
    """A job's steps by what a file may call them, and how its cells are read."""

    def __init__(self, job: Job, steps: tuple[Step, ...], shape: ReadingShape, by: Taking) -> None:
        self.shape, self.by = shape, by
        self.known = {(one.step, one.subject): one for one in steps}
        self.circuits = _names(job)

    def line(self, claim: Claim) -> ImportedLine:
        """One claim's fate, before it is compared with what is there."""
        cell = claim.cells

        def fate(kind: LineFate, told: str, asks: str, reading: Reading | None) -> ImportedLine:
            return ImportedLine(
                number=claim.number, words=claim.words, fate=kind, told=told, asks=asks, reading=reading
            )

        key = step_of(cell["step"], self.shape)
        if key is None:
            told = f"“{cell['step']}” is no step that is known: say which it is."
            return fate(LineFate.NO_STEP, told, cell["step"], None)
        if key in HOLDS:
            return fate(
                LineFate.REFUSED, "A hold is signed by a person on its own screen; no file brings one.", "", None
            )
        step = self._step(key, cell["circuit"])
        if step is None:
            told = f"This job asks for no such step of “{cell['circuit'] or 'no circuit'}”: say which circuit it is."
            return fate(LineFate.NO_CIRCUIT, told, cell["circuit"], None)
        found = said(cell["value"], cell["outcome"], self.shape.mark, self.shape.tops)
        if found.doubt is not None or found.outcome is None:
            kind, told = _no_figure(found.doubt, cell["value"] or cell["outcome"])
            return fate(kind, told, cell["value"], None)
        return self._of_figure(step, found, cell, fate)

    def _of_figure(self, step: Step, found: Said, cell: dict[str, str], fate: Fate) -> ImportedLine:
        """The fate of a claim whose step and figure are known: its unit, its time, and whether the step takes it."""
        value, unit, factor = found.value, found.unit or cell["unit"], 1.0
        if found.outcome is Outcome.OVER_RANGE and value is None:
            value, unit = self.shape.tops.get(step.unit), ""
            if value is None:
                told = f"“{cell['value'] or cell['outcome']}”: past its range. Say where that ends, in {step.unit}."
                return fate(LineFate.WHICH_TOP, told, step.unit, None)
        if value is not None and unit:
            converted = factor_of(unit, step.unit)
            if converted is None:
                return fate(LineFate.WRONG_UNIT, f"{unit} where {step.unit or 'no unit'} is read.", "", None)
            factor = converted
        taken_at, voltage = self._time(cell), whole_volts(cell["voltage"])
        if isinstance(taken_at, Doubt):
            told = f"“{taken_at.words}”: which comes first, the day or the month?"
            return fate(LineFate.WHICH_DAY, told, taken_at.words, None)
        if taken_at is None or (cell["voltage"] and voltage is None):
            told = f"“{cell['voltage']}” or “{cell['day']} {cell['time']}” is no voltage, or no time."
            return fate(LineFate.REFUSED, told, "", None)
        try:
            reading = Reading(
                step=step.step,
                subject=step.subject,
                outcome=found.outcome,
                value=None if value is None else round(value * factor, 6),
                reason="as the file says" if found.outcome in LEFT.values() else "",
                instrument=cell["instrument"] or self.by.instrument,
                test_voltage_v=voltage,
                taken_by=self.by.taken_by,
                taken_at=taken_at,
            )
        except ValidationError as error:
            return fate(LineFate.REFUSED, input_errors(error)[0].message, "", None)
        refused = self._unfit(reading)
        if refused:
            return fate(LineFate.REFUSED, refused, "", None)
        if factor != 1.0:
            return fate(LineFate.CONVERTED, f"{value:g} {unit} is {reading.value:g} {step.unit}.", "", reading)
        return fate(LineFate.TAKEN, "", "", reading)

    def _unfit(self, reading: Reading) -> str:
        """Why a reading can't be: yet to come (whoever brings a file in measured before), or not what its step asks."""
        if reading.taken_at > self.by.taken_at + AHEAD:
            return f"{reading.taken_at:%-d %B %Y} is yet to come: set the instrument's clock."
        unfit = misfit(reading)
        return unfit.message if unfit is not None else ""

    def _step(self, key: StepKey, circuit: str) -> Step | None:
        """The step of a key that a file's word for a circuit means: itself, a name or way that only one has."""
        if (key, circuit) in self.known:
            return self.known[key, circuit]
        meant = self.shape.circuits.get(circuit) or self.circuits.get(plainly(circuit), "")
        if (key, meant) in self.known:
            return self.known[key, meant]
        # What is read at the origin, or of a guard before a circuit, is one step whatever the file calls its place.
        found = [one for (step, _), one in self.known.items() if step is key]
        of_circuit = [one for one in found if meant and one.circuit == meant]
        if len(of_circuit) == 1:
            return of_circuit[0]
        at_origin = [one for one in found if one.subject == "origin"]
        return found[0] if len(found) == 1 and (not circuit or at_origin) else None

    def _time(self, cell: dict[str, str]) -> datetime | Doubt | None:
        words = " ".join(filter(None, (cell["day"], cell["time"])))
        return time_in(words, day_first=self.shape.day_first) if words else self.by.taken_at


def _names(job: Job) -> dict[str, str]:
    """Circuits by what a file may call them, where only one is called so: name, way, board and way."""
    called: dict[str, set[str]] = {}
    boards = {one.id: one.name for one in job.boards}
    for circuit in job.circuits:
        ways = (
            f"{prefix}{circuit.way}" for prefix in ("", "way ", "circuit ", f"{boards.get(circuit.from_board, '')} ")
        )
        for words in (circuit.name, *(ways if circuit.way else ())):
            called.setdefault(plainly(words), set()).add(circuit.id)
    return {words: next(iter(found)) for words, found in called.items() if len(found) == 1 and words}


def whole_volts(words: str) -> int | None:
    """A test voltage as a file writes it, in whole volts; None where it is none.

    >>> whole_volts("500 V"), whole_volts("500.0"), whole_volts("many")
    (500, 500, None)
    """
    digits = words.lower().removesuffix("d.c.").removesuffix("dc").strip().removesuffix("v").strip()
    try:
        return int(float(digits)) if digits else None
    except (ValueError, OverflowError):
        return None


def _no_figure(doubt: Doubt | None, words: str) -> tuple[LineFate, str]:
    if doubt is not None and doubt.what == "mark":
        return LineFate.WHICH_MARK, f"“{words}”: does the comma part decimals or thousands?"
    if doubt is not None:
        return LineFate.NO_FIGURE, f"“{words}”: less than what it can read is no figure. Write what it showed."
    if may_be_a_thousand(words.lstrip("> ")):
        return LineFate.WHICH_MARK, f"“{words}”: does the comma part decimals or thousands?"
    return LineFate.NO_FIGURE, f"“{words}” is neither a figure nor an outcome."


def _same(reading: Reading, *, timed: bool = True) -> tuple[object, ...]:
    """What makes two readings one and the same."""
    what = (reading.step, reading.subject, reading.outcome, reading.value, reading.instrument)
    return (*what, reading.taken_at) if timed else what
