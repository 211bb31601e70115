"""What was measured with what: every reading's instrument is in the register, in date, and can measure what it read."""

from __future__ import annotations

from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Edition, Question, ask
from fulmen.core.findings.rules.readings import (
    INSTRUMENT_DUE,
    INSTRUMENT_EXACT,
    INSTRUMENT_FITS,
    INSTRUMENT_KNOWN,
    INSTRUMENT_NAMED,
    STRAY_READING,
)
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.instruments import Instrument
from fulmen.core.model.readings import ByStep, Outcome, Reading, StepKey
from fulmen.core.verification.instruments.accuracy import measures_with, usual_accuracies
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.steps import definition_of

WITH_A_FIGURE = (Outcome.MEASURED, Outcome.OVER_RANGE)


def instrument_findings(
    register: tuple[Instrument, ...], readings: tuple[Reading, ...], edition: Edition
) -> list[Finding]:
    """Every finding about the instruments of a job's figures, once something was measured."""
    figures = [one for one in readings if one.outcome in WITH_A_FIGURE]
    if not figures:
        return []
    found = [_named(figures, edition), _known(register, figures, edition)]
    for at, instrument in enumerate(register, 1):
        with_it = [one for one in figures if one.instrument == instrument.name]
        if with_it:
            subject = f"instrument-{at}"
            found += [check(instrument, with_it, subject, edition) for check in (_due, _fits, _exact)]
    return found


def _named(figures: list[Reading], edition: Edition) -> Finding:
    asked = ask(INSTRUMENT_NAMED, edition, ORIGIN)
    unnamed = list(dict.fromkeys(one.step for one in figures if not one.instrument))
    if not unnamed:
        return asked.meets("Each does.")
    titles = ", ".join(definition_of(step).title for step in unnamed)
    detail = f"Not told for {titles}. Take them again with it named, or say which it was and how you know."
    return asked.your_call(detail, basis={"steps": tuple(unnamed)})


def _known(register: tuple[Instrument, ...], figures: list[Reading], edition: Edition) -> Finding:
    asked = ask(INSTRUMENT_KNOWN, edition, ORIGIN)
    names = {one.name for one in register}
    unknown = dict.fromkeys(one.instrument for one in figures if one.instrument and one.instrument not in names)
    if not unknown:
        return asked.meets("They are.")
    return asked.needs_fact(f"Enter {'; '.join(unknown)}: serial number, calibration, what it measures.")


def _due(instrument: Instrument, figures: list[Reading], subject: str, edition: Edition) -> Finding:
    asked = ask(INSTRUMENT_DUE, edition, subject, instrument=instrument.name)
    if not instrument.serial_number:
        return asked.needs_fact("Its serial number goes on the schedule.")
    due = instrument.calibration_due
    if due is None:
        return asked.needs_fact("Look at its label: when is its next calibration due?")
    last = max(one.taken_at.date() for one in figures)
    if last <= due:
        return asked.meets(f"Due {due:%-d %B %Y}.")
    detail = f"It was due on {due:%-d %B %Y} and read on {last:%-d %B %Y}. Say how you know that it reads right."
    return asked.your_call(detail, basis={"due": due.isoformat(), "last": last.isoformat()})


def _fits(instrument: Instrument, figures: list[Reading], subject: str, edition: Edition) -> Finding:
    asked = ask(INSTRUMENT_FITS, edition, subject, instrument=instrument.name)
    if not instrument.functions:
        return asked.needs_fact("Say what it can measure.")
    wanted = dict.fromkeys(definition_of(one.step).function for one in figures)
    beyond = [one for one in wanted if one not in instrument.functions]
    if not beyond:
        return asked.meets("It can.")
    words = ", ".join(word(one) for one in beyond)
    return asked.falls_short(
        f"By the register it can't measure {words}.", remedy="Name the one that did, or mend the register."
    )


def _exact(instrument: Instrument, figures: list[Reading], subject: str, edition: Edition) -> Finding:
    asked = ask(INSTRUMENT_EXACT, edition, subject, instrument=instrument.name)
    wanted = dict.fromkeys(measures_with(definition_of(one.step).dial) for one in figures)
    unknown = [one for one in wanted if one is not None and instrument.accuracy(one) is None]
    if not unknown:
        return _coarsest(asked, instrument)
    words = ", ".join(usual_accuracies()[one].words.lower() for one in unknown)
    return asked.needs_fact(f"Say what its sheet gives, ± % and digits: {words}. An ordinary one is reckoned with.")


# Past this nothing that matters shows: a joint of 0.06 Ω in a cable of 0.1 Ω, an earth a size too small. Half of what
# IEC 61557 lets pass (from memory); common practice, no source.
COARSE_PERCENT, COARSE_DIGITS = 15.0, 10


def _coarsest(asked: Question, instrument: Instrument) -> Finding:
    """A sheet that lets everything agree is a claim: the tester's to explain."""
    coarse = next(
        (one for one in instrument.accuracies if one.share_percent > COARSE_PERCENT or one.digits > COARSE_DIGITS), None
    )
    if coarse is None:
        return asked.meets("By its sheet.")
    words = f"{usual_accuracies()[coarse.measures].words}, ±({coarse.share_percent:g} % + {coarse.digits} digits)"
    return asked.your_call(
        f"{words}: so coarse that a poor joint agrees too. Is that what its sheet says?",
        basis={"measures": coarse.measures, "share_percent": coarse.share_percent, "digits": coarse.digits},
    )


def stray_findings(readings: ByStep, steps: tuple[Step, ...], edition: Edition) -> list[Finding]:
    """Readings of steps that the design no longer asks for: another circuit, another school, an RCD that is gone."""
    if not readings.taken:
        return []
    asked, known = ask(STRAY_READING, edition, ORIGIN), {(one.step, one.subject) for one in steps}
    stray = [one for one in readings.taken if one not in known]
    if not stray:
        return [asked.meets("Each does.")]
    titles = "; ".join(_what_was_read(readings, step, subject) for step, subject in stray)
    detail = f"The design asks for no such step any more: {titles}. Say what became of what was read."
    return [asked.your_call(detail, basis={"steps": tuple(f"{step}/{subject}" for step, subject in stray[:MOST_TOLD])})]


def _what_was_read(readings: ByStep, step: StepKey, subject: str) -> str:
    """A step with the figure that it gave: an electrode that was given up stands on the paper with its reading."""
    defined, figure = definition_of(step), readings.figure(step, subject)
    read = "" if figure is None else f", {figure:g} {defined.unit}"
    return f"{defined.title} ({subject}){read}"


# A basis holds so many facts.
MOST_TOLD = 40
