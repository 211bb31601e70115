"""Sound sets and planted ones, judged as a user's are: how many alarms are false, and how many faults are named.

`python -m tests.independent.run 1000` draws a seed after everything is written, and prints it; with a seed it draws the
same again. The judge is told what a tester tells it: how warm, which lead, what the instrument's sheet says.
"""

from __future__ import annotations

import json
import sys
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from functools import cache
from math import inf
from random import Random, SystemRandom
from typing import Any

from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Finding, Topic, Verdict
from fulmen.core.verification.faults.diagnosis import Candidate, Diagnosis
from tests.independent.faults import KINDS, Kind
from tests.independent.house import built
from tests.independent.instruments import ORDINARY, POOR, Set
from tests.independent.named import CALLED, IN_A_CABLE, SAY_THEMSELVES
from tests.independent.round import Asked, Reading, Tester, site, truth
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, FALLS_SHORT, FUNCTIONS, RULES, TT, job

ISLAND = {"car_earth": "own_electrode", "electrode_conductor_csa_mm2": 16.0, "electrode_conductor_protection": "guarded",
          "electrode_design_ohm": 32.0}  # fmt: skip
# Every example that can be tested as it was meant; the one that was drawn to fall short is no sound house.
NAMES = tuple(sorted({one.stem for one in EXAMPLES.glob("*.json")} - {FALLS_SHORT}))
OFFERED = ("r2", "ir_line_earth", "ir_neutral_earth", "rcd_five", "zs_cable")


@dataclass(frozen=True)
class Base:
    """A job that nobody has tested yet: an example, its lead, its school, perhaps on an electrode of its own."""

    name: str
    socketed: bool
    twelve: bool
    island: bool


@dataclass
class Judged:
    """One set judged: what was open about it, what was planted, and whether that could be seen at all."""

    base: Base
    alarms: list[Finding]
    readings: list[Reading]
    kind: Kind | None = None
    circuit: str = ""
    seen: bool = True
    looks_like: tuple[Diagnosis, ...] = ()
    parts: dict[str, str] = field(default_factory=dict)
    after: tuple[Diagnosis, ...] = ()

    @property
    def kind_first(self) -> bool:
        """Whether the first that the ledger names is what was planted."""
        return self._first(self.looks_like)

    @property
    def kind_among(self) -> bool:
        """Whether what was planted is among the few that the first diagnosis names."""
        return bool(self.looks_like) and any(self._is(one) for one in self.looks_like[0].candidates)

    @property
    def kind_after(self) -> bool:
        """Whether it is the first once the one further test that is told was taken too, where one is told."""
        return self._first(self.after or self.looks_like)

    @property
    def cable_right(self) -> bool:
        """Whether the first that is named is in the cable that it is in."""
        return bool(self.looks_like) and self._circuit(self.looks_like[0].candidates[0].subject) == self.circuit

    def _first(self, told: tuple[Diagnosis, ...]) -> bool:
        return bool(told) and self._is(told[0].candidates[0])

    def _is(self, one: Candidate) -> bool:
        assert self.kind is not None
        return one.fault == CALLED.get(self.kind.name)

    def _circuit(self, subject: str) -> str:
        return self.parts.get(subject, subject)

    @property
    def named(self) -> bool:
        """Whether a finding that is no mere question names what was planted, in the circuit that it is in."""
        assert self.kind is not None
        return any(
            one.verdict in (Verdict.FALLS_SHORT, Verdict.YOUR_CALL) and one.rule.startswith(self.kind.caught)
            for one in self.alarms
        )


@cache
def steps_of(text: str) -> tuple[tuple[Asked, bool], ...]:
    """The steps of a job, and whether its papers wait for each."""
    found = evaluate(parse_job(json.loads(text)), RULES).steps
    return tuple((Asked(one.step.value, one.subject, one.kind, one.guard, one.unit), one.required) for one in found)


def document(base: Base, chance: Random) -> dict[str, Any]:
    """The job as its tester has it before testing; what they tell of the day is left to the round."""
    made = job(base.name, {"readings": [], "decisions": []}).model_dump(mode="json")
    for point in made["charge_points"]:
        point["tethered"] = not base.socketed
        point["socket"] = "type_2" if base.socketed else point["socket"]
        point["lead_length_m"], point["lead_csa_mm2"] = (
            (None, None) if base.socketed else (chance.choice([5.0, 7.5, 10.0]), 6.0)
        )
        if base.island:
            point["arrangement"] |= ISLAND
    made["testing"] |= {
        "rcd_school": "twelve" if base.twelve else "one",
        "conductors_c": float(chance.choice([2, 6, 9, 14, 19])),
    }
    made["testing"]["test_lead_ohm"] = chance.choice([0.01, 0.03, 0.05]) if base.socketed else None
    return made


def base_for(chance: Random, where: str = "") -> Base:
    """Any example, tethered or socketed, in either school; one in twelve an island. A kind may want one of them."""
    name, socketed, twelve = chance.choice(NAMES), chance.random() < 0.5, chance.random() < 0.25
    island = where == "island" or (not where and chance.random() < 1 / 12)
    name = DEVICE_IN_UNIT if island else TT if where == "tt" else name
    return Base(name, socketed, twelve or where == "twelve", island)


def judged(seed: str, sheet: dict[str, tuple[float, float, float]], kind: Kind | None = None) -> Judged | None:
    """One set of a seed; None where such a fault can't be in such a house."""
    chance = Random(seed)
    base = base_for(chance, kind.where if kind else "")
    made = document(base, chance)
    every = steps_of(json.dumps(made, sort_keys=True))
    offered = {step for step in OFFERED if chance.random() < 0.5}
    steps = [one for one, required in every if required or one.step in offered]
    house = built(made, chance, made["testing"]["conductors_c"])
    place, tester = site(house, steps, chance), Tester(Set(sheet, chance), chance, made["testing"]["conductors_c"])
    circuits = sorted({house.circuit(one.subject) for one in steps if one.step == "r1_r2"})
    circuit, seen = chance.choice(circuits), True
    if kind is not None and kind.plant is not None:
        circuit = circuit if circuit in place.units else chance.choice([circuit, *place.units])
        before, state = truth(place, steps), chance.getstate()
        without = tester.write(place, steps)
        if not kind.plant(place, circuit, Random(f"{seed}/planted")):
            return None
        chance.setstate(state)
        if tester.write(place, steps) == without:
            # Nobody reads there what is wrong: such a house has no such guard, or no such step.
            return None
        chance.setstate(state)
        seen = _shows(before, truth(place, steps), tester.tools) or place_differs(kind)
    readings = tester.write(place, steps)
    if kind is not None and kind.slip is not None and not kind.slip(readings, circuit, chance):
        return None
    instrument = {
        "name": "Own tester", "serial_number": "1", "calibration_due": "2027-12-31", "functions": FUNCTIONS,
        "accuracies": tester.tools.accuracies(), **((kind.register if kind else None) or {}),
    }  # fmt: skip
    made["testing"]["instruments"], made["readings"] = [instrument], readings
    found = evaluate(parse_job(made), RULES)
    alarms = [one for one in found.findings if one.is_open and {Topic.READING, Topic.AGREEMENT} & set(one.topics)]
    parts = {part: run.id for run in house.runs.values() for part in run.shares}
    further = next((one.further for one in found.looks_like if one.further is not None), None)
    after: tuple[Diagnosis, ...] = ()
    if further is not None:
        asked = [one for one, _ in every if (one.step, one.subject) == (further.step, further.subject)]
        made["readings"] = [*readings, *tester.write(place, asked)]
        after = evaluate(parse_job(made), RULES).looks_like
    return Judged(base, alarms, readings, kind, circuit, seen, found.looks_like, parts, after)


def place_differs(kind: Kind) -> bool:
    """Whether a kind shows in something else than a figure of the network."""
    return kind.caught[0].startswith(("reading_polarity", "reading_dc", "reading_open", "reading_pilot", "reading_diode", "reading_earth_open", "reading_reset", "reading_surge", "reading_rcd_button", "agree_offered", "agree_proximity", "cant_be", "earths_apart"))  # fmt: skip


def _shows(before: dict[Any, tuple[str, float]], after: dict[Any, tuple[str, float]], tools: Set) -> bool:
    """Whether any figure moved by more than its instrument may be off there."""
    for key, (what, was) in before.items():
        now = after[key][1]
        if what == "current":
            # A current is read as the loop that it is of.
            what = "loop"
        if (now == inf) != (was == inf) or (now < inf and abs(now - was) > tools.within(what, max(now, was))):
            return True
    return False


def sound(seed: str, count: int, sheet: dict[str, tuple[float, float, float]]) -> Iterator[Judged]:
    """Sound sets."""
    for number in range(count):
        found = judged(f"{seed}/sound/{number}", sheet)
        assert found is not None
        yield found


def planted(seed: str, count: int, sheet: dict[str, tuple[float, float, float]]) -> Iterator[Judged]:
    """Sets with one fault each, every kind as often as any other."""
    for number in range(count):
        kind = KINDS[number % len(KINDS)]
        tries = (judged(f"{seed}/{kind.name}/{number}/{again}", sheet, kind) for again in range(60))
        found = next((one for one in tries if one is not None), None)
        assert found is not None, kind.name
        yield found


def named(every: Iterable[Judged]) -> dict[str, float]:
    """Of what could be seen: the share of which the ledger names the kind first, among those told, first after the one
    further test, and the cable; of kinds that a finding names by itself none is asked.
    """
    asked = [one for one in every if one.seen and one.kind is not None and one.kind.name not in SAY_THEMSELVES]
    in_cables = [one for one in asked if one.kind is not None and one.kind.name in IN_A_CABLE]
    return {
        "first": _share(one.kind_first for one in asked),
        "among": _share(one.kind_among for one in asked),
        "after": _share(one.kind_after for one in asked),
        "cable": _share(one.cable_right for one in in_cables),
    }


def _share(held: Iterable[bool]) -> float:
    held = list(held)
    return sum(held) / len(held)


def told(one: Judged) -> str:
    """A false alarm with its sum."""
    return "; ".join(f"{alarm.key} {alarm.verdict.value}: {alarm.detail}" for alarm in one.alarms)


def shares(seed: str, count: int, sheet: dict[str, tuple[float, float, float]]) -> tuple[float, float]:
    """The part of sound sets with an alarm, and the part of what could be seen that was named."""
    false = sum(bool(one.alarms) for one in sound(seed, count, sheet))
    shown = [one for one in planted(seed, count, sheet) if one.seen]
    return false / count, sum(one.named for one in shown) / len(shown)


def main(count: int, seed: str) -> None:
    """Print what was found, ordinary instruments and poor ones."""
    sys.stdout.write(f"seed {seed}, {count} sets of each\n")
    for words, sheet in (("ordinary", ORDINARY), ("poor", POOR)):
        fine = list(sound(seed, count, sheet))
        false = [one for one in fine if one.alarms]
        every = list(planted(seed, count, sheet))
        shown = [one for one in every if one.seen]
        missed = Counter(one.kind.name for one in shown if one.kind and not one.named)
        caught = sum(one.named for one in shown)
        sys.stdout.write(f"{words}: false alarms {len(false)} of {count} ({100 * len(false) / count:.1f} %); caught {caught} of {len(shown)} "
                         f"({100 * caught / len(shown):.1f} %), {len(every) - len(shown)} below the instrument's error apart\n")  # fmt: skip
        sys.stdout.write(f"  looks like: nothing in {100 * _share(not one.looks_like for one in fine):.1f} % of sound sets; of planted ones "
                         + ", ".join(f"{name} {100 * share:.1f} %" for name, share in named(every).items()) + "\n")  # fmt: skip
        for one in false:
            sys.stdout.write(f"  false in {one.base}: {told(one)}\n")
        for name, times in missed.most_common():
            of = [one for one in shown if one.kind is not None and one.kind.name == name]
            lost = next(one for one in of if not one.named)
            sys.stdout.write(
                f"  missed {times} of {len(of)}: {name}; as in {lost.base} {lost.circuit}: {told(lost)[:300]}\n"
            )


if __name__ == "__main__":
    main(
        int(sys.argv[1]) if len(sys.argv) > 1 else 100,
        sys.argv[2] if len(sys.argv) > 2 else str(SystemRandom().randrange(10**6)),
    )
