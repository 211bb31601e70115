"""One clear sentence for each field that a job document cannot hold."""

from __future__ import annotations

import re
from typing import Any

from pydantic import ValidationError

from fulmen.core.errors import InputError
from fulmen.core.model.base import FIRST_YEAR, ID_PATTERN, IP_PATTERN, LAST_YEAR, PHOTO_PATTERN, SUBJECT_PATTERN
from fulmen.core.units import unit_of, words_of

LIST_WORDS = {
    "boards": "board",
    "circuits": "circuit",
    "charge_points": "charge point",
    "route": "section",
    "incomer": "guard",
    "groups": "group",
    "guards": "guard",
    "holds": "hold",
    "boxes": "box",
    "readings": "reading",
    "decisions": "decision",
    "inspections": "inspection",
    "signatures": "signature",
    "bonded_services": "bonded service",
    "maker_cables": "cable from its maker",
    "defects": "defect",
    "letters": "letter",
    "other_loads": "load",
    "loads": "load",
    "appliances": "appliance",
    "ratings": "rating",
    "readings_ohm": "reading",
    "data_ways": "way for data",
    "functions": "function",
    "accuracies": "accuracy",
    "hazards": "hazard",
    "sources": "own source",
    "tails": "length of tails",
    "instruments": "instrument",
    "against": "ground",
}
# Our own sentences, which need nothing around them.
PLAIN = ("unshowable", "one_line", "tiny", "year", "one_rating")
NOT_DAY = ("date_type", "date_parsing", "date_from_datetime_parsing", "date_from_datetime_inexact")
NOT_TIME = ("datetime_type", "datetime_parsing", "datetime_from_date_parsing", "timezone_aware")
DAY, TIME = "a day such as 2026-06-30", "a time with its zone such as 2026-06-30T10:15:00+01:00"
YEARS = f"between the years {FIRST_YEAR} and {LAST_YEAR}"
# What a value of each kind must be, in plain words.
MUST_BE = {
    "string_type": "text",
    "bool_type": "true or false",
    "bool_parsing": "true or false",
    **dict.fromkeys(("tuple_type", "list_type"), "a list"),
    **dict.fromkeys(("dict_type", "model_type", "model_attributes_type"), "several facts together"),
    **dict.fromkeys(NOT_DAY, f"{DAY}, {YEARS}"),
    **dict.fromkeys(NOT_TIME, f"{TIME}, {YEARS}"),
}
# The same for a text that has a form.
MUST_LOOK = {
    ID_PATTERN: "a short name: lower-case letters, digits and hyphens, at most 40",
    SUBJECT_PATTERN: "a short name, after a box's “:before” or “:behind”",
    IP_PATTERN: "a code such as IP54",
    r"^[a-z0-9_]+/[a-z0-9-]+$": "the name of a rule, a slash, and what it is about",
    r"^[a-z0-9_]+(\.[a-z0-9_]+){0,8}$": "the path of a field, such as supply.earthing",
    PHOTO_PATTERN: "a kept photo, or empty",
}
# Plain names, and what is not: one-time words, keys and links, which only a program sends, each of its own form.
A_NAME = re.compile(r"\^\[a-z(0-9)?_\]\{\d+,\d+\}\$$")
NAME, LETTERS = "a name of lower-case letters, digits and underscores", "a name of lower-case letters and underscores"
OTHER_FORM = "of the form that docs/openapi.json gives it"
NOT_NUMBER = ("float_type", "float_parsing", "int_type", "int_parsing", "int_from_float", "finite_number")


def input_errors(error: ValidationError) -> list[InputError]:
    """Every field at fault in a pydantic error, each with its sentence, the first one first."""
    return [
        field_error(entry["loc"], entry["type"], entry.get("ctx", {}), entry["input"], entry["msg"])
        for entry in error.errors(include_url=False)
    ]


def field_error(loc: tuple[int | str, ...], kind: str, context: dict[str, Any], given: Any, message: str) -> InputError:
    """The sentence for one fault at one place."""
    field = ".".join(str(part) for part in loc)
    unit = unit_of(_name(loc))
    return InputError(field, f"{place(loc)} {_fault(kind, context, given, message, unit)}.")


def place(loc: tuple[int | str, ...]) -> str:
    """Where a field stands, as a person would say it.

    >>> place(("circuits", 0, "route", 1, "length_m"))
    'Circuit 1, section 2: length'
    """
    where, name = place_and_name(loc)
    text = where + (": " if where and name else "") + name
    return capital(text) or "The job file"


def capital(text: str) -> str:
    """As it stands at the beginning of a sentence."""
    return text[:1].upper() + text[1:]


def place_and_name(loc: tuple[int | str, ...]) -> tuple[str, str]:
    """Which of several things a field belongs to, empty where there is only one, and what it is called there."""
    where: list[str] = []
    rest: list[str] = []
    for index, part in enumerate(loc):
        if isinstance(part, int):
            rest.clear()
            where.append(f"{LIST_WORDS.get(str(loc[index - 1]), 'entry')} {part + 1}")
        else:
            rest.append(words_of(part))
    return ", ".join(where), " ".join(rest)


def _fault(kind: str, context: dict[str, Any], given: Any, message: str, unit: str) -> str:
    if kind in NOT_NUMBER:
        whole = "whole " if kind.startswith("int") else ""
        return f"must be a {whole}number{' in ' + unit if unit else ''}; you gave {_shown(given)}"
    if kind == "greater_than_equal":
        return f"must be at least {context['ge']:g} {unit}".rstrip() + f"; you gave {_shown(given)}"
    if kind == "less_than_equal":
        return f"must be at most {context['le']:g} {unit}".rstrip() + f"; you gave {_shown(given)}"
    if kind in MUST_BE:
        return f"must be {MUST_BE[kind]}; you gave {_shown(given)}"
    if kind == "string_pattern_mismatch":
        return f"must be {_looks(context['pattern'])}; you gave {_shown(given)}"
    if kind == "missing":
        return "is missing"
    if kind == "extra_forbidden":
        return "is not a field of a job file"
    if kind in ("literal_error", "enum"):
        return f"must be {context['expected']}; you gave {_shown(given)}"
    if kind in ("string_too_short", "too_short") and isinstance(given, str):
        return f"must have at least {context['min_length']} characters"
    if kind in ("string_too_long", "too_long"):
        return f"is too long: at most {context['max_length']}"
    if kind in PLAIN:
        return message
    if kind == "csa":
        return f"{message}; you gave {_shown(given)}"
    return f"cannot be taken: {message[:1].lower()}{message[1:]}"


def _name(loc: tuple[int | str, ...]) -> str:
    names = [part for part in loc if isinstance(part, str)]
    return names[-1] if names else ""


def _looks(pattern: str) -> str:
    """How a text of a form looks, in words that are true of nothing else."""
    name = A_NAME.match(pattern)
    if name is None:
        return MUST_LOOK.get(pattern, OTHER_FORM)
    return NAME if name[1] else LETTERS


def _shown(given: Any) -> str:
    text = repr(given) if isinstance(given, str) else str(given)
    return text if len(text) <= 40 else f"{text[:37]}…"
