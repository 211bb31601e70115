"""The graded sets of exercises, read from `sets.toml`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from random import Random
from typing import Any

from fulmen.core.editing.changes import Change, apply_changes
from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Verdict
from fulmen.core.model.job import Job
from fulmen.core.practice.exercise import Exercise, Help, untested
from fulmen.core.practice.shown_by import shown_by
from fulmen.core.reference.tables import read_toml
from fulmen.core.simulations.as_built.possible_faults import possible_faults
from fulmen.core.verification.faults.faults import Fault, fault_info

# An exercise in which nothing is wrong.
SOUND = "sound"
# How big a fault is on a job of one's own, and what is told there.
OWN_SIZE, OWN_HELP = 0.3, Help.EXPECTED
# What no test of a house would show is made bigger in these steps.
BIGGER = (0.5, 0.75, 1.0)
# How far a house and a fault differ from exercise to exercise. Our own, no source.
TRIES, DAYS_C = 5, (2, 5, 9, 14, 18)
ANEW_LENGTH, ANEW_ZE, ANEW_SIZE = (0.85, 1.2), (0.9, 1.1), (0.0, 0.15)


@dataclass(frozen=True)
class PracticeSet:
    """One set: `sets.toml` says what each field means."""

    key: str
    title: str
    about: str
    grade: int
    help: Help
    size: float
    house: str
    faults: tuple[str, ...]
    changes: tuple[tuple[str, Any], ...] = ()

    def job(self, example: Job) -> Job:
        """Its house, untested, from the example it is made of."""
        return untested(apply_changes(example, tuple(Change(field=name, value=value) for name, value in self.changes)))


@cache
def practice_sets() -> tuple[PracticeSet, ...]:
    """Every set, easy ones first."""
    return tuple(
        PracticeSet(
            **{
                **entry,
                "help": Help(entry["help"]),
                "faults": tuple(entry["faults"]),
                "changes": tuple(entry.get("changes", {}).items()),
            }
        )
        for entry in read_toml(__package__, "sets")["set"]
    )


def practice_set(key: str) -> PracticeSet:
    """One set.

    Raises:
        InputError: there is none of that key.
    """
    found = next((one for one in practice_sets() if one.key == key), None)
    if found is None:
        raise InputError(
            "set", f"there is no set “{key}”; choose one of {', '.join(one.key for one in practice_sets())}"
        )
    return found


def house_anew(its: PracticeSet, example: Job, chance: Random) -> Job:
    """The house of a set with other lengths, another day and another supply, so that nobody knows it by heart.

    A house whose own tests would fall short as designed is drawn again; after a few it stays as the set has it.
    """
    plain = its.job(example)
    for _ in range(TRIES):
        job = apply_changes(plain, tuple(_drawn(plain, chance)))
        if not shown_by(Exercise(job, job.charge_points[0].id, (), 0), (Verdict.FALLS_SHORT,)):
            return job
    return plain


def _drawn(job: Job, chance: Random) -> Iterator[Change]:
    yield Change(field="testing.conductors_c", value=float(chance.choice(DAYS_C)))
    ze_ohm = job.supply.ze_enquiry_ohm
    if ze_ohm is not None:
        yield Change(field="supply.ze_enquiry_ohm", value=round(ze_ohm * chance.uniform(*ANEW_ZE), 2))
    for number, circuit in enumerate(job.circuits):
        for place, section in enumerate(circuit.route):
            length_m = round(section.length_m * chance.uniform(*ANEW_LENGTH), 1)
            yield Change(field=f"circuits.{number}.route.{place}.length_m", value=length_m)


def size_anew(its: PracticeSet, chance: Random) -> float:
    """How big a fault is this time, about what the set says."""
    return min(1.0, max(0.0, its.size + chance.uniform(*ANEW_SIZE)))


def hidden(job: Job, charge_point: str, what: str, size: float, seed: int) -> Exercise:
    """An exercise with a fault of a kind, or with none, somewhere in a job's run.

    Args:
        job: untested, see `untested`.
        what: a kind of fault, or "sound".
        size: how far between the least that matters (0) and the most that is tried (1) it is.
        seed: of the instruments, and of the cable that it sits in.
    """
    if what == SOUND:
        return Exercise(job, charge_point, (), seed)
    info = fault_info(what)
    chain = [one.circuit.id for one in Exercise(job, charge_point, (), 0).case.run.chain]
    circuit = Random(seed).choice(chain) if info.in_one_cable else chain[-1]
    for share in (size, *(one for one in BIGGER if one > size)):
        big = round(info.least + share * (info.most - info.least), 4)
        exercise = Exercise(job, charge_point, (Fault(what, big, circuit),), seed)
        if shown_by(exercise):
            break
    return exercise


def own_faults(job: Job, charge_point: str) -> tuple[str, ...]:
    """What may be hidden in a job of one's own; one in eight is sound.

    Raises:
        InputError: there is no such run, it has no route yet, or its tests would fall short even if nothing were wrong.
    """
    sound = Exercise(untested(job), charge_point, (), 0)
    fallen = shown_by(sound, (Verdict.FALLS_SHORT,))
    if fallen:
        told = ", ".join(fallen[:3])
        raise InputError("charge_point", f"built as designed, its tests would not hold ({told}): mend the design first")
    kinds = possible_faults(sound.case, sound.steps.values())
    return (*kinds, *[SOUND] * max(1, len(kinds) // 8))
