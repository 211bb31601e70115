"""What the core works out itself: plain classes with slots. Pydantic stands at the border, where what comes in is read.

An evaluation makes hundreds of them, a search hundreds of thousands. The type checker holds that none is changed once
it is made; to hold that at run time would cost three times the making.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import TypeVar, dataclass_transform

T = TypeVar("T")


@dataclass_transform(frozen_default=True)
def plain(cls: type[T]) -> type[T]:
    """A class of fields that stay as they were made."""
    return dataclass(slots=True, unsafe_hash=True)(cls)


def changed(one: T, **fields: object) -> T:
    """Another one, with some fields of its own; the rest are those of the first."""
    made = object.__new__(type(one))
    for name in one.__slots__:  # type: ignore[attr-defined]
        setattr(made, name, fields[name] if name in fields else getattr(one, name))
    return made
