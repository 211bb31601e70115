"""What a cell of a file says: a figure with its unit or past a range, an outcome, a day and a time."""

from __future__ import annotations

import re
from datetime import datetime
from typing import NamedTuple
from zoneinfo import ZoneInfo

from fulmen.core.model.readings import Outcome
from fulmen.core.verification.readings.brought.shape import DecimalMark

# What one of a unit is in each step's own unit: instruments write them in many ways.
UNITS: dict[str, dict[str, float]] = {
    "Ω": {"Ω": 1.0, "ohm": 1.0, "ohms": 1.0, "r": 1.0, "mΩ": 1e-3, "mohm": 1e-3, "mohms": 1e-3, "kΩ": 1e3, "kohm": 1e3},
    "MΩ": {"MΩ": 1.0, "Mohm": 1.0, "Mohms": 1.0, "megohm": 1.0, "kΩ": 1e-3, "kohm": 1e-3, "GΩ": 1e3, "Gohm": 1e3},
    "ms": {"ms": 1.0, "s": 1e3},
    "kA": {"kA": 1.0, "A": 1e-3},
    "mA": {"mA": 1.0, "A": 1e3},
    "V": {"V": 1.0, "mV": 1e-3},
    "%": {"%": 1.0},
}
# The ohm sign has a place of its own in Unicode besides the Greek letter.
OHM_SIGN = "\u2126"
LEFT = {"lim": Outcome.COULD_NOT_TEST, "n/a": Outcome.NOT_APPLICABLE, "na": Outcome.NOT_APPLICABLE}
SAID = {"right": Outcome.RIGHT, "pass": Outcome.RIGHT, "ok": Outcome.RIGHT, "yes": Outcome.RIGHT, "✓": Outcome.RIGHT,
        "wrong": Outcome.WRONG, "fail": Outcome.WRONG, "no": Outcome.WRONG, "✗": Outcome.WRONG}  # fmt: skip
# Past the range, whose end is not said.
PASSED = {"ol", "o.l", "o.l.", "or", "over", "overload", "over range", "∞", "inf", ">range", ">max"}
NOTHING = {"", "-", "--", "---", "–", "—", "not tested", "n.t."}

# Digits as instruments write them: other scripts' digits, signs and exponents are none.
FIGURE = re.compile(
    r"(?P<sign>>=|>|≥|≧|<|≤|<=)?\s*(?P<digits>[0-9][0-9.,'\u00a0\u202f ]*|[.,][0-9]+)\s*(?P<unit>[^\d\s].*)?"
)
GROUPED = {
    DecimalMark.POINT: re.compile(r"[0-9]{1,3}([,'][0-9]{3})+(\.[0-9]*)?"),
    DecimalMark.COMMA: re.compile(r"[0-9]{1,3}([.'][0-9]{3})+(,[0-9]*)?"),
}
PLAIN = re.compile(r"[0-9]{1,9}([.,][0-9]{0,9})?|[.,][0-9]{1,9}")
A_THOUSAND = re.compile(r"[1-9][0-9]{0,2},[0-9]{3}")
SPACES = re.compile(r"(?<=[0-9])[\u00a0\u202f ](?=[0-9]{3}(?![0-9]))")


class Doubt(NamedTuple):
    """Why a cell says nothing yet: what could be meant is for a person to say."""

    what: str
    words: str


class Said(NamedTuple):
    """What a cell says: how it ended, the figure if any, its unit, and what is still to be asked."""

    outcome: Outcome | None = None
    value: float | None = None
    unit: str = ""
    doubt: Doubt | None = None


def figure_in(words: str, mark: DecimalMark | None = None) -> float | None:
    """The figure that a text is; None where it is none, or could be two.

    >>> figure_in("0,10"), figure_in(".09"), figure_in("1,000"), figure_in("-0.2"), figure_in("١٢")
    (0.1, 0.09, None, None, None)
    >>> figure_in("1,000", DecimalMark.POINT), figure_in("1,000", DecimalMark.COMMA), figure_in("1.234,5")
    (1000.0, 1.0, 1234.5)
    """
    plain = SPACES.sub("", words)
    plain = plain.replace("'", "") if BY_MARKS.fullmatch(plain) else plain
    for kind in (mark,) if mark else tuple(DecimalMark):
        both = "," in plain and "." in plain
        if GROUPED[kind].fullmatch(plain) and (mark or both):
            thousands = "," if kind is DecimalMark.POINT else "."
            return float(plain.replace(thousands, "").replace(",", "."))
    if not PLAIN.fullmatch(plain) or (mark is None and may_be_a_thousand(plain)):
        return None
    if mark is DecimalMark.POINT and "," in plain:
        return None
    return float(plain.replace(",", "."))


BY_MARKS = re.compile(r"[0-9]{1,3}('[0-9]{3})+([.,][0-9]*)?")


def may_be_a_thousand(words: str) -> bool:
    """Whether a comma stands where thousands are parted, and could as well part decimals.

    >>> may_be_a_thousand("1,000"), may_be_a_thousand("0,125"), may_be_a_thousand("1,25")
    (True, False, False)
    """
    return A_THOUSAND.fullmatch(words) is not None


def said(value: str, outcome: str, mark: DecimalMark | None, tops: dict[str, float]) -> Said:
    """What a line's figure and outcome say together.

    Args:
        value: the cell of the figure, which may hold its unit, a sign before it or a word in its place.
        outcome: the cell of the outcome, if there is one.
        mark: what parts decimals, where somebody said it.
        tops: where the range ends, by the step's unit.
    """
    told, cell = outcome.strip().lower(), value.strip()
    if cell.lower() in PASSED or told in PASSED or (told == Outcome.OVER_RANGE and cell.lower() in NOTHING):
        return Said(Outcome.OVER_RANGE)
    found = FIGURE.fullmatch(cell)
    figure = figure_in(found["digits"].strip(), mark) if found else None
    unit = (found["unit"] or "").strip() if found else ""
    for words in (cell.lower(), told):
        if words in LEFT:
            return Said(LEFT[words])
        if words in SAID:
            # What is wrong may have been measured all the same.
            wrong = SAID[words] is Outcome.WRONG
            return Said(SAID[words], figure if wrong else None, unit if wrong else "")
    if found is None:
        return Said()
    if figure is None:
        doubt = Doubt("mark", cell) if may_be_a_thousand(SPACES.sub("", found["digits"].strip())) else None
        return Said(doubt=doubt)
    if found["sign"] in ("<", "≤", "<="):
        return Said(doubt=Doubt("below", cell))
    over = bool(found["sign"]) or told == Outcome.OVER_RANGE
    return Said(Outcome.OVER_RANGE if over else Outcome.MEASURED, figure, unit)


def factor_of(unit: str, wanted: str) -> float | None:
    """What one of a unit is in another; None where they are of two kinds. Case counts where it tells milli from mega.

    >>> factor_of("mΩ", "Ω"), factor_of("OHM", "Ω"), factor_of("MΩ", "Ω")
    (0.001, 1.0, None)
    """
    known = UNITS.get(wanted, {})
    plain = unit.replace(OHM_SIGN, "Ω").strip()
    if plain in known:
        return known[plain]
    first = plain[:1]
    spelt = first + plain[1:].lower() if first in ("m", "M", "k", "G") else plain.lower()
    return known.get(spelt) or known.get(spelt.replace("ω", "Ω"))


LONDON = ZoneInfo("Europe/London")
DAYS = re.compile(r"(?P<a>[0-9]{1,4})[./-](?P<b>[0-9]{1,2})[./-](?P<c>[0-9]{1,4})")
NAMED_DAYS = ("%d %b %Y", "%d %B %Y", "%d-%b-%Y", "%d-%b-%y", "%d %b %y")
HOURS = re.compile(
    r"(?P<h>[0-9]{1,2})[:.](?P<m>[0-9]{2})([:.](?P<s>[0-9]{2})([.,][0-9]+)?)?\s*(?P<half>[AaPp]\.?[Mm]\.?)?"
)


def time_in(words: str, *, day_first: bool | None) -> datetime | Doubt | None:
    """When a reading was taken; a time without a zone is the clock's where the house stands. None where it is no time.

    >>> time_in("26/11/2026 10:12", day_first=None).isoformat(), time_in("03/04/2026 10:12", day_first=None).what
    ('2026-11-26T10:12:00+00:00', 'day')
    """
    plain = words.strip()
    try:
        exact = datetime.fromisoformat(plain)
        return exact if exact.tzinfo is not None else exact.replace(tzinfo=LONDON)
    except ValueError:
        pass
    day, _, hour = plain.replace("T", " ", 1).rpartition(" ") if HOURS.search(plain) else (plain, "", "")
    if hour.lower().rstrip(".") in ("am", "pm", "a.m", "p.m"):
        day, _, clock = day.rpartition(" ")
        hour = f"{clock} {hour}"
    found = _day(day.strip(" ,"), day_first=day_first)
    clock_ = HOURS.fullmatch(hour.strip()) if hour else None
    if not isinstance(found, datetime):
        return found
    if hour and clock_ is None:
        return None
    hours = int(clock_["h"]) if clock_ else 12
    if clock_ and clock_["half"]:
        hours = hours % 12 + (12 if clock_["half"].lower().startswith("p") else 0)
    try:
        at = found.replace(
            hour=hours, minute=int(clock_["m"]) if clock_ else 0, second=int(clock_["s"] or 0) if clock_ else 0
        )
    except ValueError:
        return None
    return at.replace(tzinfo=LONDON)


def _day(words: str, *, day_first: bool | None) -> datetime | Doubt | None:
    for form in NAMED_DAYS:
        try:
            return datetime.strptime(words, form)
        except ValueError:
            continue
    found = DAYS.fullmatch(words)
    if found is None:
        return None
    a, b, c = int(found["a"]), int(found["b"]), int(found["c"])
    if len(found["a"]) == 4:
        year, month, day = a, b, c
    else:
        year = c + 2000 if len(found["c"]) <= 2 else c
        if day_first is None and a <= 12 and b <= 12 and a != b:
            return Doubt("day", words)
        first = day_first if a <= 12 and b <= 12 and day_first is not None else a > 12 or a == b
        day, month = (a, b) if first else (b, a)
    try:
        return datetime(year, month, day)
    except ValueError:
        return None
