"""What the simulated test set writes: every step of a job as CSV or JSON; and faults by the name they are asked for."""

from __future__ import annotations

import csv
import io
import json
from math import nan

from fulmen.core.circuit.run_figures import cases_of
from fulmen.core.judging.known import known_for
from fulmen.core.model.job import Job
from fulmen.core.model.readings import LEFT_OUT
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.simulations.as_built.possible_faults import possible_faults
from fulmen.core.simulations.as_built.simulated_set import INSTRUMENT
from fulmen.core.verification.faults.faults import Fault, fault_info, planted_kinds
from fulmen.core.verification.instruments.dials import dial
from fulmen.core.verification.steps.sequence import sequence
from fulmen.simulators.test_set import House

# No fault is larger, in whatever unit it is told.
MOST_SIZE = 1e6
COLUMNS = ("step", "circuit", "outcome", "value", "unit", "test_voltage_v", "instrument")


def fault_named(text: str, job: Job) -> Fault:
    """A fault from `key`, `key=size`, or either with `@circuit`; without a size the least that matters.

    Raises:
        ValueError: there is no such fault or circuit, the size is no number, or the house can't have it.
    """
    text, _, circuit = text.partition("@")
    key, _, size = text.partition("=")
    if key not in planted_kinds():
        raise ValueError(f"there is no fault “{key}”; choose one of {', '.join(planted_kinds())}")
    circuits = [one.id for one in job.circuits]
    if circuit and circuit not in circuits:
        raise ValueError(f"there is no circuit “{circuit}”; choose one of {', '.join(circuits)}")
    info = fault_info(key)
    if key not in possible_in(job, circuit):
        where = f" on the way through “{circuit}”" if circuit else ""
        raise ValueError(f"“{key}” can’t be in this house{where}: no test of it would meet {info.words}")
    if circuit and not info.in_one_cable:
        raise ValueError(f"“{key}” is in no cable: leave “@{circuit}” away")
    try:
        found = float(size) if size else info.least
    except ValueError:
        found = nan
    if not 0 <= found <= MOST_SIZE:
        raise ValueError(f"the size of “{key}” must be a number from 0 to {MOST_SIZE:g}; it is “{size}”")
    if not found and info.least:
        raise ValueError(f"“{key}” of size 0 is no fault: leave it away, or give from {info.least:g} {info.unit} on")
    return Fault(key, found, circuit)


def possible_in(job: Job, circuit: str = "") -> set[str]:
    """The faults that a house may have, on the way through one of its circuits."""
    cases = cases_of(known_for(job, rule_set(job.rule_set)))
    steps = sequence(cases, job.readings)
    ways = [one for one in cases if one.figures is not None and not one.to_loads]
    passing = [one for one in ways if not circuit or circuit in {each.circuit.id for each in one.run.chain}]
    return {kind for one in passing for kind in possible_faults(one, steps)}


def rows(house: House) -> list[dict[str, object]]:
    """Every step that the set can show, in the order of the sequence."""
    found: list[dict[str, object]] = []
    for step in house.steps():
        shown = house.shown(step) if step.offered_with is None or step.required else None
        if shown is not None and step.kind != "hold" and shown.outcome not in LEFT_OUT:
            volts = dial(step.dial).test_voltage_v if shown.value is not None else None
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
