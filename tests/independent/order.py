"""A second small solver for the order of the tests on one circuit: exact, and it shares no code with the coach.

Every legal order is tried by the shortest way through what is done and how things stand (Dijkstra). What a move takes
comes from the same file of seconds; what has to be so for a step, and how one gets there, is written here anew.
"""

from __future__ import annotations

import heapq
import tomllib
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import count
from pathlib import Path
from typing import Any, NamedTuple

DATA = Path(__file__).resolve().parents[2] / "fulmen" / "core" / "verification" / "steps" / "moves.toml"
S: dict[str, float] = tomllib.loads(DATA.read_text(encoding="utf-8"))
CHAIN = ["pilot_a", "pilot_b", "pilot_duty", "pilot_c", ("earth_open", "diode", "pilot_shorted"), "pilot_d", "reset"]
TRIP_FREE = ("half",)


@dataclass(frozen=True)
class Test:
    """One test, as plain facts."""

    key: str
    live: bool
    rank: int
    spot: str
    dial: str
    leads: tuple[tuple[str, str], ...]
    ends: frozenset[str]
    link: str
    adapter: str
    hold: bool
    common: bool
    trips: bool


class Now(NamedTuple):
    """How things stand; `spot` is "house" (origin and its board, within reach of each other) or "car"."""

    spot: str = "house"
    dial: str = ""
    leads: tuple[tuple[str, str], ...] = ()
    link: str = ""
    adapter: str = ""
    cover: bool = True
    earth: bool = True
    on: bool = False
    tripped: bool = False
    latched: bool = False


def cost(now: Now, test: Test, way_s: float) -> tuple[float, Now]:
    """The cheapest way to stand ready for a test, and how things stand after it."""
    taken, here = 0.0, now
    at_car = test.spot == "car"
    bare = at_car and any(end.startswith(("far", "unit")) for end in test.ends)
    own_supply = test.key in ("earthing_conductor", "ze", "electrode_loop")
    needs_on = test.live and not own_supply and (at_car or test.spot == "board" or "main.L" in test.ends)
    jobs: list[tuple[str, str, dict[str, Any]]] = []
    if needs_on and here.tripped:
        jobs.append(("house", "set_again", {"tripped": False}))
    no_link = not test.live and not test.link and any(end.startswith(("near", "far")) for end in test.ends)
    if here.link and (no_link or test.key == "safe_to_energise" or (test.link and test.link != here.link)):
        jobs.append(("house", "link_out", {"link": ""}))
    if test.link and test.link != here.link:
        jobs.append(("house", "link_in", {"link": test.link}))
    if test.key == "safe_to_energise" and not here.cover:
        jobs.append(("car", "unit_closed", {"cover": True}))
    if at_car and bare and here.cover:
        if here.on:
            jobs.append(("house", "main_switch", {"on": False}))
        jobs.append(("car", "unit_opened", {"cover": False}))
    if at_car and not bare and (test.adapter or needs_on) and not here.cover:
        jobs.append(("car", "unit_closed", {"cover": True}))
    if own_supply and here.earth:
        jobs += [("house", "main_switch", {"on": False})] if here.on else []
        jobs.append(("house", "earth_off", {"earth": False}))
    if not here.earth and not own_supply and (test.live or test.key == "safe_to_energise"):
        jobs.append(("house", "earth_on", {"earth": True}))
    if needs_on and not here.on:
        jobs.append(("house", "main_switch", {"on": True}))
    if test.adapter and here.latched:
        jobs.append(("car", "latch", {"latched": False, "adapter": "A"}))
    for spot, what, change in jobs:
        taken += S[what] + (way_s if spot != here.spot else 0.0)
        here = here._replace(spot=spot, **change)
    spot = "car" if at_car else "house"
    taken += way_s if spot != here.spot else 0.0
    for position in (["C"] if test.key in ("earth_open", "diode", "pilot_shorted", "pilot_d") else []) + [test.adapter]:
        if position and position != here.adapter:
            taken, here = taken + S["adapter"], here._replace(adapter=position)
    if test.leads:
        taken += S["dial"] if test.dial != here.dial else 0.0
        hanging = dict(here.leads)
        taken += S["lead"] * sum(hanging.get(jack) != at for jack, at in test.leads)
        here = here._replace(dial=test.dial, leads=test.leads)
    taken += S["signed"] if test.hold else 0.0
    latches = test.key in ("earth_open", "diode", "pilot_shorted", "dc_detection")
    return taken, here._replace(spot=spot, tripped=here.tripped or test.trips, latched=here.latched or latches)


def afterwards(now: Now, way_s: float) -> float:
    """What is left to put back."""
    taken = 0.0
    left = [("house", "set_again", now.tripped), ("car", "latch", now.latched), ("house", "link_out", bool(now.link)),
            ("house", "earth_on", not now.earth), ("car", "unit_closed", not now.cover)]  # fmt: skip
    spot = now.spot
    for at, what, so in left:
        if so:
            taken, spot = taken + S[what] + (way_s if at != spot else 0.0), at
    return taken


def comes_first(one: Test, other: Test) -> bool:
    """Whether Part 6, a signature or the states put one test before another."""
    if one.hold or other.hold or one.live != other.live:
        return (one.live, one.rank) < (other.live, other.rank)
    if one.key == "leads_nulled":
        return other.dial in ("low_ohms",)
    places = [
        next((at for at, keys in enumerate(CHAIN) if test.key == keys or test.key in keys), -1) for test in (one, other)
    ]
    if min(places) >= 0 and not (one.common or other.common):
        return places[0] < places[1]
    if one.common == other.common:
        return one.rank < other.rank
    return max(one.rank, other.rank) <= 8 and one.rank < other.rank


def shortest_s(tests: Iterable[Test], way_s: float) -> float:
    """The least time that any legal order of some tests takes [s]."""
    tests = list(tests)
    before = [sum(1 << at for at, one in enumerate(tests) if comes_first(one, other)) for other in tests]
    every, number = (1 << len(tests)) - 1, count()
    heap: list[tuple[float, int, int, Now | None]] = [(0.0, next(number), 0, Now())]
    best: dict[tuple[int, Now | None], float] = {(0, Now()): 0.0}
    while heap:
        taken, _, done, now = heapq.heappop(heap)
        if now is None:
            return taken
        if taken > best[done, now]:
            continue
        ways = [(taken + afterwards(now, way_s), done, None)] if done == every else []
        for at, test in enumerate(tests):
            if not done >> at & 1 and not before[at] & ~done:
                step_s, then = cost(now, test, way_s)
                ways.append((taken + step_s, done | 1 << at, then))  # type: ignore[arg-type]
        for after_s, mask, then in ways:
            if after_s < best.get((mask, then), float("inf")) - 1e-9:
                best[mask, then] = after_s
                heapq.heappush(heap, (after_s, next(number), mask, then))
    raise AssertionError("no legal order")
