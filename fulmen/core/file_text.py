"""The text of a file as programs write it: UTF-8, UTF-16 with its mark or without, or an old Western code page."""

from __future__ import annotations

import codecs

from fulmen.core.errors import InputError

MARKS = ((codecs.BOM_UTF8, "utf-8-sig"), (codecs.BOM_UTF16_LE, "utf-16"), (codecs.BOM_UTF16_BE, "utf-16"))
# Of plain text in UTF-16 nearly every other byte is nought; no other encoding of text has any.
SAMPLE, HALF_NOUGHT = 400, 0.3


def text_of(data: bytes, field: str) -> str:
    """What a file says.

    Args:
        data: its bytes.
        field: the field of the file, for what is told.

    Raises:
        InputError: it is no text.

    >>> text_of("Ω".encode("utf-16"), "file"), text_of(b"\\xb5", "file")
    ('Ω', 'µ')
    """
    encoding = next((name for mark, name in MARKS if data.startswith(mark)), None) or _unmarked(data)
    try:
        return data.decode(encoding)
    except UnicodeDecodeError:
        pass
    try:
        # What is no UTF-8 comes from an older program.
        return data.decode("cp1252")
    except UnicodeDecodeError:
        raise InputError(field, "The file is no text: choose the one that the instrument exports as CSV.") from None


def _unmarked(data: bytes) -> str:
    even, odd = (data[start:SAMPLE:2].count(0) for start in (0, 1))
    half = max(1, len(data[:SAMPLE]) // 2)
    if odd / half > HALF_NOUGHT:
        return "utf-16-le"
    return "utf-16-be" if even / half > HALF_NOUGHT else "utf-8"
