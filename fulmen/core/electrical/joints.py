"""Joints: wherever the cable changes along a route stands a box, and the box is a node of the run."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of


@dataclass(frozen=True)
class Joint:
    """A joint before a section (index from 0): a gland box where armour ends, else a breakout box."""

    section: int
    at_m: float
    kind: Literal["gland_box", "breakout_box"]
    name: str
    words: str


def joints_of(circuit: Circuit, cables: Mapping[str, CableRecord]) -> list[Joint]:
    """The joints of a circuit, in the order of walking; its cables stand among the records."""
    joints, at_m = [], 0.0
    for index, section in enumerate(circuit.route):
        if index:
            before, after = cable_of(circuit, circuit.route[index - 1]), cable_of(circuit, section)
            if before != after:
                records = [cables[cable.record] for cable in (before, after)]
                gland = records[0].armour != records[1].armour
                words = f"{_words(before, records[0].name)} to {_words(after, records[1].name)}"
                joints.append(
                    Joint(index, at_m, "gland_box", "Gland box", words)
                    if gland
                    else Joint(index, at_m, "breakout_box", "Breakout box", words)
                )
        at_m += section.length_m
    return joints


def _words(cable: Cable, name: str) -> str:
    return f"{cable.csa_mm2:g} mm² {name}"
