"""Appliances and circuits to pick from, with their usual ratings; common practice, no source."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files

from fulmen.core.model.load import Appliance


@cache
def usual_appliances() -> tuple[Appliance, ...]:
    """Every appliance that can be picked, in the order of the data file."""
    text = files("fulmen.core.reference").joinpath("appliances.toml").read_text(encoding="utf-8")
    return tuple(Appliance.model_validate(entry) for entry in tomllib.loads(text).values())
