"""Whether a paper prints what its data says: a character that no font of ours has would be a box, or a guess."""

from __future__ import annotations

import re
from functools import cache
from html import unescape
from pathlib import Path

from fulmen.core.errors import PaperError

FONTS = Path(__file__).parent / "fonts"
BETWEEN_TAGS = re.compile(r"(?s)<style.*?</style>|<[^>]*>")
# How much of a long text is told with the character.
AROUND = 30


def check_printable(html: str) -> None:
    """Refuse a paper that could not be read as its data reads.

    Raises:
        PaperError: it holds a character that no font of ours has; it names the character and what is around it.
    """
    for piece in BETWEEN_TAGS.split(html):
        text = unescape(piece)
        found = next((one for one in text if ord(one) not in _printable() and not one.isspace()), None)
        if found is not None:
            raise PaperError(
                f"The paper can't print “{found}” (U+{ord(found):04X}) in “{_around(text, found)}”: "
                "write it in Latin letters, then try again. Nothing was made."
            )


def _around(text: str, found: str) -> str:
    """The text, or what of a long one is around a character of it."""
    at = text.index(found)
    return " ".join(text[max(0, at - AROUND) : at + AROUND].split())


@cache
def _printable() -> frozenset[int]:
    """Every character that a font of ours has."""
    from fontTools.ttLib import TTFont

    found: set[int] = set()
    for file in sorted(FONTS.glob("*.woff2")):
        with TTFont(file, lazy=True) as font:
            found.update(font.getBestCmap())
    return frozenset(found)
