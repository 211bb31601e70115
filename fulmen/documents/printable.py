"""Whether a paper prints what its data says: a character that no font of ours has would be a box, or a guess."""

from __future__ import annotations

import re
from functools import cache
from html import unescape
from pathlib import Path

from fulmen.core.errors import PaperError

FONTS = Path(__file__).parent / "fonts"
# Around the character that is told.
BEFORE = AFTER = 12


def check_printable(html: str) -> None:
    """Refuse a paper that could not be read as its data reads.

    Raises:
        PaperError: it holds a character that no font of ours has; it names the character and what is around it.
    """
    text = unescape(re.sub(r"(?s)<(style|script).*?</\1>|<[^>]*>", "\n", html))
    for place, character in enumerate(text):
        if ord(character) not in _printable() and not character.isspace():
            around = " ".join(text[max(0, place - BEFORE) : place + AFTER].split())
            raise PaperError(
                f"The paper can't print “{character}” (U+{ord(character):04X}) in “{around}”: "
                "write it in Latin letters, then try again. Nothing was made."
            )


@cache
def _printable() -> frozenset[int]:
    """Every character that a font of ours has."""
    from fontTools.ttLib import TTFont

    return frozenset(code for file in sorted(FONTS.glob("*.woff2")) for code in TTFont(file, lazy=True).getBestCmap())
