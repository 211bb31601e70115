"""The moves between two steps of the tests, true to the hand: what has to be so for a step, and what that takes.

Links go in and come out again; the earthing conductor comes off only with everything off, and goes back before anything
is switched on; a unit is opened once and closed once; what tripped is set again where it stands; a unit that latched is
reset, and every fault is tried from state C; in a box that no test goes through the cores come out of the device, or
are joined past it, and go back. What each takes stands in `moves.toml`.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cache

from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.instruments import Function
from fulmen.core.model.readings import HOLDS, StepKey
from fulmen.core.reference.tables import read_toml
from fulmen.core.verification.instruments.dials import Point, dial
from fulmen.core.verification.steps.sequence import Step
from fulmen.core.verification.steps.site_map import SiteMap


class MoveKind(StrEnum):
    """What a move is."""

    LEAD = "lead"
    LINK = "link"
    DIAL = "dial"
    ADAPTER = "adapter"
    WALK = "walk"
    SWITCH = "switch"
    EARTH = "earth"
    UNIT = "unit"
    BOX = "box"
    RESET = "reset"
    SIGN = "sign"


# A unit latches after these, and each is tried from state C.
FAULTS = frozenset({StepKey.EARTH_OPEN, StepKey.DIODE, StepKey.PILOT_SHORTED})
LATCHES = FAULTS | {StepKey.DC_DETECTION}
FROM_C = FAULTS | {StepKey.PILOT_D}
# The way a supply's own loop is read: its earth off, and so nothing on.
EARTH_IS_OFF = frozenset({StepKey.EARTHING_CONDUCTOR, StepKey.ZE, StepKey.ELECTRODE_LOOP})
TRIPS_BY_HAND = frozenset({StepKey.RCD_BUTTON, StepKey.RCD_ORIGIN_TRIP})


@dataclass(frozen=True, slots=True)
class Act:
    """One move: its kind, what it does to what, and how long it takes."""

    kind: MoveKind
    what: str
    to: str
    duration_s: float
    jack: str = ""


@dataclass(frozen=True, slots=True)
class Wants:
    """What has to be so for a step; empty or None is no matter."""

    place: str
    dial: str = ""
    leads: tuple[tuple[str, str], ...] = ()
    link: tuple[str, str] | None = None
    cores_out: frozenset[str] = frozenset()
    joined: frozenset[str] = frozenset()
    made_up: str = ""
    bare: bool = False
    adapter: str = ""
    from_c: bool = False
    unit: str = ""
    opened: bool | None = None
    earth_off: bool | None = None
    main_on: bool | None = None
    trips_at: str = ""
    latches: bool = False
    sign: bool = False
    energises: bool = False


@dataclass(frozen=True, slots=True)
class Setup:
    """How things stand: leads by jack, the link and where it is, the boxes where cores are out of the device
    or joined past it, dial, adapter, the unit that is open, what tripped.
    """

    place: str = ORIGIN
    dial: str = ""
    leads: tuple[tuple[str, str], ...] = ()
    link: tuple[str, str] | None = None
    cores_out: frozenset[str] = frozenset()
    joined: frozenset[str] = frozenset()
    adapter: str = ""
    opened: frozenset[str] = frozenset()
    earth_off: bool = False
    main_on: bool = False
    tripped_at: str = ""
    latched_at: str = ""


@cache
def seconds() -> dict[str, float]:
    """What each move takes [s]."""
    return read_toml(__package__, "moves")


def wants(step: Step, site: SiteMap) -> Wants:
    """What has to be so for a step, from where its leads go and what its instrument does."""
    points = {point for lead in step.leads for point in lead.at}
    at_unit, dead = step.place in site.points, step.stage == "dead"
    bare_cable = any(point.value.startswith(("far.", "unit.")) for point in points)
    of_cable = any(point.value.startswith(("near.", "far.")) for point in points)
    trips = step.step in TRIPS_BY_HAND or (step.function is Function.RCD and dial(step.dial).multiple >= 1)
    earth_off = step.step in EARTH_IS_OFF
    powered = not dead and not earth_off and (step.place != ORIGIN or Point.MAIN_L in points)
    return Wants(
        place=step.place,
        dial=step.dial if step.leads else "",
        leads=tuple(sorted((lead.jack, _target(lead.terminal, step.place)) for lead in step.leads)),
        link=(step.links, step.linked_at) if step.links else None,
        cores_out=frozenset(step.cores_out),
        joined=frozenset(step.cores_joined),
        made_up=step.subject if step.step is StepKey.BOX_MADE_UP else "",
        bare=dead and of_cable and not step.links,
        adapter=step.adapter,
        from_c=step.step in FROM_C,
        unit=step.place if at_unit else "",
        opened=(True if bare_cable else False if step.adapter or powered else None) if at_unit else None,
        earth_off=True if earth_off else None if dead else False,
        main_on=False if earth_off and not dead else True if powered else None,
        trips_at=(step.stands_at or step.place) if trips else "",
        latches=step.step in LATCHES,
        sign=step.step in HOLDS,
        energises=step.step is StepKey.SAFE_TO_ENERGISE,
    )


def _target(terminal: str, place: str) -> str:
    """A terminal is another one at another place; the adapter's go with it."""
    return terminal if terminal.startswith("adapter") else f"{terminal} {place}"


def acts(setup: Setup, then: Wants, site: SiteMap) -> tuple[Setup, list[Act]]:
    """How things stand for a step, and the moves that get there, in the order they are made."""
    mover = _Mover(setup, site)
    mover.go_through(then)
    return mover.setup, mover.made


def put_back(setup: Setup, site: SiteMap) -> tuple[Setup, list[Act]]:
    """What is left to do after the last step: set what tripped, close what is open, earth on, link out."""
    mover = _Mover(setup, site)
    mover.set_again()
    mover.unlatch()
    mover.links_out()
    mover.boxes_made_up()
    mover.earth_on()
    for unit in sorted(mover.setup.opened):
        mover.close(unit)
    return mover.setup, mover.made


class _Mover:
    """One hand that moves things about; it keeps how they stand and what it did."""

    def __init__(self, setup: Setup, site: SiteMap) -> None:
        self.setup, self.site, self.made = setup, site, list[Act]()

    def go_through(self, then: Wants) -> None:
        """Everything that a step wants, from the farthest away to the nearest."""
        setup = self.setup
        if then.main_on or (then.latches and setup.tripped_at):
            self.set_again()
        if setup.link is not None and (then.bare or then.energises or (then.link not in (None, setup.link))):
            self.links_out()
        self._boxes(then)
        if then.link is not None and self.setup.link != then.link:
            self._walk(then.link[1])
            self._do(MoveKind.LINK, "in", then.link[0], "link_in")
            self.setup = replace(self.setup, link=then.link)
        if then.energises:
            for unit in sorted(self.setup.opened):
                self.close(unit)
        self._unit(then)
        self._supply(then)
        if then.adapter:
            self.unlatch()
        self._walk(then.place)
        self._at_hand(then)
        self.setup = replace(
            self.setup,
            tripped_at=then.trips_at or self.setup.tripped_at,
            latched_at=then.place if then.latches else self.setup.latched_at,
        )

    def unlatch(self) -> None:
        """A unit that latched: back to nobody there, and reset."""
        if self.setup.latched_at:
            self._walk(self.setup.latched_at)
            self._do(MoveKind.RESET, "latch", self.setup.latched_at, "latch")
            self.setup = replace(self.setup, latched_at="", adapter="A")

    def _supply(self, then: Wants) -> None:
        """The earthing conductor and the main switch: nothing is on while the earth is off."""
        if then.earth_off and not self.setup.earth_off:
            self._main(on=False)
            self._walk(ORIGIN)
            self._do(MoveKind.EARTH, "off", ORIGIN, "earth_off")
            self.setup = replace(self.setup, earth_off=True)
        if then.earth_off is False or then.energises or then.main_on:
            self.earth_on()
        if then.main_on is not None:
            self._main(on=then.main_on)

    def earth_on(self) -> None:
        """The earthing conductor back on its terminal."""
        if self.setup.earth_off:
            self._walk(ORIGIN)
            self._do(MoveKind.EARTH, "on", ORIGIN, "earth_on")
            self.setup = replace(self.setup, earth_off=False)

    def _main(self, *, on: bool) -> None:
        if self.setup.main_on is not on:
            self._walk(ORIGIN)
            self._do(MoveKind.SWITCH, "on" if on else "off", ORIGIN, "main_switch")
            self.setup = replace(self.setup, main_on=on)

    def set_again(self) -> None:
        """An RCD that tripped, where it stands."""
        if self.setup.tripped_at:
            self._walk(self.setup.tripped_at)
            self._do(MoveKind.RESET, "rcd", self.setup.tripped_at, "set_again")
            self.setup = replace(self.setup, tripped_at="")

    def links_out(self) -> None:
        """The link out of its board."""
        if self.setup.link is not None:
            self._walk(self.setup.link[1])
            self._do(MoveKind.LINK, "out", self.setup.link[0], "link_out")
            self.setup = replace(self.setup, link=None)

    def _boxes(self, then: Wants) -> None:
        """Cores out of the devices that no test goes through; back in before anything is switched on."""
        for box in sorted((then.cores_out | then.joined) - self.setup.cores_out):
            self._main(on=False)
            self._at_box("out", box)
            self.setup = replace(self.setup, cores_out=self.setup.cores_out | {box})
        for box in sorted(then.joined - self.setup.joined):
            self._at_box("join", box)
            self.setup = replace(self.setup, joined=self.setup.joined | {box})
        for box in sorted(then.cores_out & self.setup.joined):
            self._part(box)
        if then.made_up:
            self.make_up(then.made_up)
        if then.energises or then.main_on:
            self.boxes_made_up()

    def boxes_made_up(self) -> None:
        """Every box with its cores back in the device."""
        for box in sorted(self.setup.cores_out):
            self.make_up(box)

    def make_up(self, box: str) -> None:
        """A box made up again: what was joined past its device parted, every core back in it, cover on."""
        if box not in self.setup.cores_out:
            return
        if self.setup.link is not None and self.setup.link[1] == box:
            self.links_out()
        if box in self.setup.joined:
            self._part(box)
        self._at_box("in", box)
        self.setup = replace(self.setup, cores_out=self.setup.cores_out - {box})

    def _part(self, box: str) -> None:
        self._at_box("part", box)
        self.setup = replace(self.setup, joined=self.setup.joined - {box})

    def _at_box(self, what: str, box: str) -> None:
        self._walk(box)
        self._do(MoveKind.BOX, what, box, f"box_{what}")

    def _unit(self, then: Wants) -> None:
        if then.opened is None or (then.unit in self.setup.opened) is then.opened:
            return
        if not then.opened:
            self.close(then.unit)
            return
        # Nobody opens a unit that is on; a loop at its bare terminals is switched on once it is open.
        self._main(on=False)
        self._walk(then.unit)
        self._do(MoveKind.UNIT, "open", then.unit, "unit_opened")
        self.setup = replace(self.setup, opened=self.setup.opened | {then.unit})

    def close(self, unit: str) -> None:
        """A unit's cover back on."""
        if unit in self.setup.opened:
            self._walk(unit)
            self._do(MoveKind.UNIT, "close", unit, "unit_closed")
            self.setup = replace(self.setup, opened=self.setup.opened - {unit})

    def _at_hand(self, then: Wants) -> None:
        """What is done where the tester stands: adapter, dial, leads, a signature."""
        if then.from_c and self.setup.adapter != "C":
            self._turn("C")
        if then.adapter and then.adapter != self.setup.adapter:
            self._turn(then.adapter)
        if then.dial and then.dial != self.setup.dial:
            self._do(MoveKind.DIAL, "dial", then.dial, "dial")
            self.setup = replace(self.setup, dial=then.dial)
        hanging = dict(self.setup.leads)
        for jack, target in then.leads:
            if hanging.get(jack) != target:
                self._do(MoveKind.LEAD, "lead", target, "lead", jack=jack)
        if then.leads:
            self.setup = replace(self.setup, leads=then.leads)
        if then.sign:
            self._do(MoveKind.SIGN, "sign", then.place, "signed")

    def _turn(self, position: str) -> None:
        self._do(MoveKind.ADAPTER, "adapter", position, "adapter")
        self.setup = replace(self.setup, adapter=position)

    def _walk(self, place: str) -> None:
        """To another place; what is within reach is none."""
        if place == self.setup.place:
            return
        metres, told = self.site.metres(self.setup.place, place), seconds()
        if metres > told["reach_m"]:
            walk_s = told["walk_begins"] + metres * told["walk_a_metre"]
            self.made.append(Act(MoveKind.WALK, "walk", place, walk_s))
        self.setup = replace(self.setup, place=place)

    def _do(self, kind: MoveKind, what: str, to: str, key: str, *, jack: str = "") -> None:
        self.made.append(Act(kind, what, to, seconds()[key], jack))


AT_A_BOX = {
    "out": "Cores out of the device in", "join": "Join the cores past the device in",
    "part": "Part the cores again in", "in": "Cores back in the device, cover on:",
}  # fmt: skip


def _pair(links: str) -> str:
    """Which conductors a link joins; the board has its name in the walk before it."""
    return links.partition(", at")[0]


def told(made: list[Act], step: Step | None, site: SiteMap) -> Iterator[tuple[Act, str]]:
    """Each move with its words."""
    terminals = {lead.jack: lead.terminal for lead in step.leads} if step is not None else {}
    for one in made:
        name = site.name(one.to)
        yield (
            one,
            {
                MoveKind.WALK: f"Go to {name}",
                MoveKind.LINK: f"{'Link' if one.what == 'in' else 'Link out:'} {_pair(one.to)}",
                MoveKind.SWITCH: f"Main switch {one.what}",
                MoveKind.EARTH: f"Earthing conductor {one.what}, at {name}",
                MoveKind.UNIT: f"{one.what.capitalize()} {name}",
                MoveKind.BOX: f"{AT_A_BOX[one.what]} {name}" if one.kind is MoveKind.BOX else "",
                MoveKind.RESET: f"Reset {name}" if one.what == "latch" else f"Set the RCD again, at {name}",
                MoveKind.ADAPTER: f"Adapter to {one.to}",
                MoveKind.DIAL: f"Dial: {dial(one.to).words}" if one.kind is MoveKind.DIAL else "",
                MoveKind.LEAD: f"Lead {one.jack} to {terminals.get(one.jack, '')}",
                MoveKind.SIGN: "Sign",
            }[one.kind],
        )
