"""What the simulated test set writes: every step of a job as CSV or JSON; and faults by the name they are asked for."""

from __future__ import annotations

import csv
import io
import json

from fulmen.core.simulations.faults import Fault, FaultKind, fault_info
from fulmen.core.simulations.simulated_set import INSTRUMENT
from fulmen.simulators.test_set import House

COLUMNS = ("step", "circuit", "outcome", "value", "unit", "test_voltage_v", "instrument")


def fault_named(text: str) -> Fault:
    """A fault from `key` or `key=size`; without a size the least that matters.

    Raises:
        ValueError: there is no such fault, or the size is no number.

    >>> fault_named("earth_joint=0.3").size
    0.3
    """
    key, _, size = text.partition("=")
    if key not in tuple(FaultKind):
        raise ValueError(f"there is no fault “{key}”; choose one of {', '.join(FaultKind)}")
    kind = FaultKind(key)
    try:
        return Fault(kind, float(size) if size else fault_info(kind).least)
    except ValueError:
        raise ValueError(f"the size of “{key}” must be a number; it is “{size}”") from None


def rows(house: House) -> list[dict[str, object]]:
    """Every step that the set can show, in the order of the sequence."""
    found: list[dict[str, object]] = []
    for step in house.steps():
        shown = house.shown(step) if step.offered_with is None or step.required else None
        if shown is not None and step.kind != "hold":
            volts = 500 if step.function == "insulation" and shown.value is not None else None
            cells = (step.step.value, step.subject, shown.outcome.value, shown.value, step.unit, volts, INSTRUMENT)
            found.append(dict(zip(COLUMNS, cells, strict=True)))
    return found


def written_csv(house: House) -> str:
    """The readings of a house as CSV."""
    text = io.StringIO()
    table = csv.DictWriter(text, COLUMNS, lineterminator="\n")
    table.writeheader()
    table.writerows(rows(house))
    return text.getvalue()


def written_json(house: House) -> str:
    """The readings of a house as JSON."""
    return json.dumps(rows(house), ensure_ascii=False, indent=1) + "\n"
