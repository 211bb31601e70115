"""The base of every part of the job document, and its numbers with their ranges and units."""

from __future__ import annotations

from functools import cache
from typing import Annotated, Any, Self

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

CSA_MM2 = (1.0, 1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0, 35.0)


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


# What a verdict, a decision or a letter rests on: named facts, never a sentence.
Fact = float | bool | Annotated[str, Field(max_length=100)] | None
Basis = Annotated[
    dict[Annotated[str, Field(pattern=r"^[a-z0-9_]{1,40}$")], Fact | Annotated[tuple[Fact, ...], Field(max_length=40)]],
    Field(max_length=30),
]


def number(low: float, high: float) -> object:
    """A strict number between two ends, both allowed: text and booleans are not numbers."""
    return Field(strict=True, ge=low, le=high)


def made_size(csa_mm2: float) -> float:
    """A conductor size that is made; anything else is refused by name."""
    if csa_mm2 not in CSA_MM2:
        sizes = ", ".join(f"{size:g}" for size in CSA_MM2)
        raise PydanticCustomError("csa", "is not a size that is made; choose one of {sizes} mm²", {"sizes": sizes})
    return csa_mm2


Id = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$", description="short name, lower case")]
IpCode = Annotated[str, Field(pattern=r"^IP[0-6][0-9]$")]
Line = Annotated[str, Field(max_length=200)]
Paragraph = Annotated[str, Field(max_length=4000)]
PhotoRef = Annotated[str, Field(pattern=r"^([0-9a-f]{64})?$", description="SHA-256 of a kept photo, or empty")]

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
