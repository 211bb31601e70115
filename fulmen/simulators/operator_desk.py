"""A stand-in for the network operator's desk. It reads the form as a desk would and plans its letters.

Waiting times are invented. No operator takes part, so every letter is marked `stand_in` and never counts as an
operator's word.
"""

from __future__ import annotations

from datetime import date, timedelta

from fulmen.core.model.letters import Letter, LetterKind
from fulmen.core.network_operator.form import OperatorForm
from fulmen.core.network_operator.notification import Route

SIGNED = "Simulated operator's desk (stand-in)"
ASK_AFTER_DAYS, ACCEPT_AFTER_DAYS, BOOK_AFTER_DAYS, WORK_AFTER_DAYS = 2, 5, 8, 21
BIGGEST_FUSE_A = 100


def sent_letter(form: OperatorForm, today: date) -> Letter:
    """The letter by which the form is handed in."""
    kind = LetterKind.NOTICE if form.route is Route.NOTIFY_AFTER else LetterKind.APPLICATION
    return Letter(kind=kind, dated=today, about=form.about, text="Handed in at the simulated desk.", stand_in=True)


def desk_answers(form: OperatorForm, received_on: date) -> tuple[Letter, ...]:
    """What the desk will write, each letter with its day, in order.

    Missing facts are asked for; a looped service is booked to be un-looped; a demand above the fuse or an old
    cut-out gets the operator's own work booked; anything else is accepted.
    """
    unknown = [*form.missing, *(["looped or not"] if form.looped == "not seen yet" else [])]
    if unknown:
        text = f"Please tell us: {', '.join(unknown)}."
        return (_letter(form, LetterKind.MORE_WANTED, received_on + timedelta(days=ASK_AFTER_DAYS), text),)
    if form.looped == "yes":
        return _work(form, LetterKind.UNLOOPING_BOOKED, received_on, "The service has to be un-looped first.")
    over = form.held_a is not None and form.cut_out_fuse_a is not None and form.held_a > form.cut_out_fuse_a
    if over and (form.cut_out_fuse_a or 0) >= BIGGEST_FUSE_A:
        text = "No bigger single-phase fuse is to be had: limit the load, or ask for three phases."
        return (_letter(form, LetterKind.MORE_WANTED, received_on + timedelta(days=ASK_AFTER_DAYS), text),)
    if over:
        return _work(form, LetterKind.FUSE_UPGRADE_BOOKED, received_on, f"A {BIGGEST_FUSE_A} A fuse will be fitted.")
    if not form.cut_out_condition.startswith("sound"):
        return _work(form, LetterKind.FUSE_UPGRADE_BOOKED, received_on, "The cut-out will be replaced.")
    accepted = received_on + timedelta(days=ACCEPT_AFTER_DAYS)
    return (_letter(form, LetterKind.ACCEPTED, accepted, "No work on the supply is needed."),)


def _work(form: OperatorForm, kind: LetterKind, received_on: date, text: str) -> tuple[Letter, ...]:
    booked = received_on + timedelta(days=BOOK_AFTER_DAYS)
    done = booked + timedelta(days=WORK_AFTER_DAYS)
    return (
        _letter(form, kind, booked, text, done),
        _letter(form, LetterKind.WORK_DONE, done, "Our work is done; yours may go on. Look at the supply again first."),
    )


def _letter(form: OperatorForm, kind: LetterKind, dated: date, text: str, booked_on: date | None = None) -> Letter:
    full = f"{text} {SIGNED}."
    return Letter(kind=kind, dated=dated, about=form.about, text=full, booked_on=booked_on, stand_in=True)
