"""Texts in a CSV that a spreadsheet opens: none of them is taken for a formula, whatever somebody named a thing."""

from __future__ import annotations

# What a spreadsheet takes for the beginning of a formula.
FORMULA = ("=", "+", "-", "@", "\t", "\r")
# A mark before them is put, and taken away again; before a mark of the text's own too.
MARKED = (*FORMULA, "'")


def cell(text: str) -> str:
    """A text as a cell that stays a text.

    >>> cell("=1+1"), cell("Gland"), text_of(cell("-5 °C clip"))
    ("'=1+1", 'Gland', '-5 °C clip')
    """
    return f"'{text}" if text.startswith(MARKED) else text


def text_of(written: str) -> str:
    """The text of such a cell."""
    return written[1:] if written.startswith("'") and written[1:].startswith(MARKED) else written
