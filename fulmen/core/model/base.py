"""The base of every part of the job document, and its numbers with their ranges and units."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import date, datetime
from functools import cache
from typing import Annotated, Any, Self

from annotated_types import Ge, GroupedMetadata, Le
from pydantic import AfterValidator, AwareDatetime, BaseModel, ConfigDict, Field, Strict
from pydantic_core import PydanticCustomError

CSA_MM2 = (1.0, 1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0, 35.0, 50.0, 70.0, 95.0)


class Part(BaseModel):
    """A frozen part of the job document: no unknown field, no NaN, no infinity."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, str_strip_whitespace=True)

    @classmethod
    def made(cls, **values: Any) -> Self:
        """A part of values that the core computed itself: they are of their types already and are not checked again.

        An evaluation makes a hundred of them, a search thousands; a test holds that they would pass the check.
        """
        one = cls.__new__(cls)
        object.__setattr__(one, "__dict__", {**_defaults(cls), **values})
        object.__setattr__(one, "__pydantic_fields_set__", set(values))
        object.__setattr__(one, "__pydantic_extra__", None)
        object.__setattr__(one, "__pydantic_private__", None)
        return one


@cache
def _defaults(part: type[Part]) -> dict[str, Any]:
    """The fields of a part that may be left out; one without a default has to be given."""
    fields = part.model_fields.items()
    return {name: field.get_default(call_default_factory=True) for name, field in fields if not field.is_required()}


# Below this a figure is a slip of a program, not a measurement: it would print as nought and divide into infinity.
LEAST_FIGURE = 1e-6


class number(GroupedMetadata):
    """A strict number between two ends, both allowed: text and booleans are not numbers."""

    def __init__(self, low: float, high: float) -> None:
        self.low, self.high = low, high

    def __iter__(self) -> Iterator[object]:
        yield from (Strict(), Ge(self.low), Le(self.high), AfterValidator(plain_figure))


def plain_figure(figure: float) -> float:
    """A figure that means something: nought, or not smaller than a millionth."""
    if figure and abs(figure) < LEAST_FIGURE:
        raise PydanticCustomError("tiny", "is too small to mean anything; give 0 or a figure")
    return figure


def showable(text: str) -> str:
    """A text that every screen, drawing and paper shows as it is kept: no control characters but line ends and tabs, no
    half characters, none that Unicode keeps for programs, none that nobody sees or that turns others round.
    """
    if text.isascii() and text.isprintable():
        return text
    found = UNSHOWABLE.search(text)
    if found is not None:
        context = {"code": f"U+{ord(found[0]):04X}", "place": found.start() + 1}
        told = "holds {code} at place {place}, which can't be shown: type the text again"
        raise PydanticCustomError("unshowable", told, context)
    return text


# What can't be shown anywhere: the last two characters of every plane of Unicode are kept for programs.
_LAST_OF_PLANES = "".join(chr(plane * 0x10000 + last) for plane in range(17) for last in (0xFFFE, 0xFFFF))
# What changes the direction of the text around it, or parts its lines.
_TURNING = "\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069"
# What takes no room, or looks like a space without being one (Unicode's default ignorable characters, and fillers).
_UNSEEN = (
    "\xad\u034f\u115f\u1160\u17b4\u17b5\u180b-\u180f\u200b\u200c\u2060-\u2065\u206a-\u206f\u2800\u3164\ufe00-\ufe0d"
    "\ufeff\uffa0\ufff0-\ufffb\U0001bca0-\U0001bca3\U0001d173-\U0001d17a\U000e0000-\U000e0fff"
)
# Two that join or colour the picture before them are seen with it, and with nothing else.
_PICTURE = "\xa9\xae\u203c\u2049\u2122\u2139\u2190-\u2bff\u3030\u303d\u3297\u3299\ufe0f\U0001f000-\U0001faff"
_ALONE = f"(?<![{_PICTURE}])[\u200d\ufe0e\ufe0f]"
UNSHOWABLE = re.compile(
    f"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufdd0-\ufdef{_LAST_OF_PLANES}{_TURNING}{_UNSEEN}]|{_ALONE}"
)


# In place of a character that can't be shown.
PUT_FOR_IT = "\ufffd"


def shown(text: str) -> str:
    """A text with a mark in the place of each character that can't be shown."""
    return UNSHOWABLE.sub(PUT_FOR_IT, text)


def one_line(text: str) -> str:
    """A text without line ends or tabs."""
    if "\n" in text or "\t" in text or "\r" in text:
        raise PydanticCustomError("one_line", "must be one line, without tabs")
    return text


# No job is older than the first charge points, and none is certified in another lifetime.
FIRST_YEAR, LAST_YEAR = 1990, 2100


def near_day(day: date) -> date:
    """A day of our time: a year that was typed wrong is refused."""
    if not FIRST_YEAR <= day.year <= LAST_YEAR:
        years = {"first": FIRST_YEAR, "last": LAST_YEAR}
        raise PydanticCustomError("year", "must lie between the years {first} and {last}", years)
    return day


def made_size(csa_mm2: float) -> float:
    """A conductor size that is made; anything else is refused by name."""
    if csa_mm2 not in CSA_MM2:
        sizes = ", ".join(f"{size:g}" for size in CSA_MM2)
        raise PydanticCustomError("csa", "is not a size that is made; choose one of {sizes} mm²", {"sizes": sizes})
    return csa_mm2


ID_PATTERN = r"^[a-z0-9][a-z0-9-]{0,39}$"
IP_PATTERN = r"^IP[0-6][0-9]$"
PHOTO_PATTERN = r"^([0-9a-f]{64})?$"
SUBJECT_PATTERN = r"^[a-z0-9][a-z0-9-]{0,39}(:before|:behind)?$"
Id = Annotated[str, Field(pattern=ID_PATTERN, description="short name, lower case")]
# What a reading is of: a circuit, a unit, a guard, the origin; or the part of a cable before or behind a box.
Subject = Annotated[str, Field(pattern=SUBJECT_PATTERN, description="short name, lower case")]
IpCode = Annotated[str, Field(pattern=IP_PATTERN)]
# Every text that a person writes is one of these, every day and time too; a test holds that.
Text = Annotated[str, AfterValidator(showable)]
OneLine = Annotated[Text, AfterValidator(one_line)]
Line = Annotated[OneLine, Field(max_length=200)]
Name = Annotated[OneLine, Field(min_length=2, max_length=200)]
Paragraph = Annotated[Text, Field(max_length=4000)]
Reason = Annotated[Text, Field(min_length=3, max_length=1000)]
Day = Annotated[date, AfterValidator(near_day)]
Moment = Annotated[datetime, AfterValidator(near_day)]
Zoned = Annotated[AwareDatetime, AfterValidator(near_day)]
# What a verdict, a decision or a letter rests on: named facts, never a sentence.
Fact = float | bool | Annotated[Text, Field(max_length=100)] | None
Basis = Annotated[
    dict[Annotated[str, Field(pattern=r"^[a-z0-9_]{1,40}$")], Fact | Annotated[tuple[Fact, ...], Field(max_length=40)]],
    Field(max_length=30),
]
PhotoRef = Annotated[str, Field(pattern=PHOTO_PATTERN, description="SHA-256 of a kept photo, or empty")]

SectionLengthM = Annotated[float, number(0.1, 500)]
FlexLengthM = Annotated[float, number(0.1, 20)]
TailsLengthM = Annotated[float, number(0.1, 50)]
Ohm = Annotated[float, number(0, 2000)]
LoopOhm = Annotated[float, number(0.01, 500)]
ElectrodeOhm = Annotated[float, number(0.1, 2000)]
FaultKa = Annotated[float, number(0.01, 50)]
LoadA = Annotated[float, number(0, 400)]
ChargeCurrentA = Annotated[float, number(6, 80)]
CsaMm2 = Annotated[float, Field(strict=True, json_schema_extra={"enum": list(CSA_MM2)}), AfterValidator(made_size)]
HeightM = Annotated[float, number(0, 5)]
Minute = Annotated[int, Field(strict=True, ge=0, le=1439, description="minutes after midnight")]
