"""What is tried on each circuit of a layout: kinds of cable by stretch family, sizes, devices.

A stretch family is what a kind of cable is chosen for: inside the building, in the open, in the ground. A hole
through a wall goes with what follows it, since nobody joints a cable inside a wall.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise, product
from typing import Any

from fulmen.core.circuit.circuit_load import CircuitLoad
from fulmen.core.circuit.fitness import stands_weather
from fulmen.core.circuit.laid_cable import (
    CablePerMetre,
    LaidCable,
    SectionFigures,
    cable_per_metre,
    flex_of,
    laid_together,
    section_figures,
)
from fulmen.core.errors import TableError
from fulmen.core.installation.installation import Installation
from fulmen.core.model.cables import Cable
from fulmen.core.model.circuits import Circuit, TerminalSchool
from fulmen.core.model.guards import Curve, Device, DeviceKind
from fulmen.core.model.route import Section, Surroundings
from fulmen.core.model.seen import Seen
from fulmen.core.reference.cable_catalogue import CableRecord, cable_of, cable_records
from fulmen.core.reference.places import follows_from, rated_methods
from fulmen.core.reference.usual_sizes import BREAKERS_A, FUSES_A, sizes_before

Cables = Mapping[str, CableRecord]


class Family(StrEnum):
    """What a kind of cable is chosen for."""

    BUILDING = "building"
    OPEN = "open"
    GROUND = "ground"


FAMILY = {
    Surroundings.IN_WALL: Family.BUILDING,
    Surroundings.UNDER_FLOOR: Family.BUILDING,
    Surroundings.LOFT: Family.BUILDING,
    Surroundings.LOFT_UNDER: Family.BUILDING,
    Surroundings.CONDUIT_OR_TRUNKING: Family.BUILDING,
    Surroundings.TRAY: Family.BUILDING,
    Surroundings.CLIPPED: Family.OPEN,
    Surroundings.POST: Family.OPEN,
    Surroundings.BURIED: Family.GROUND,
    Surroundings.DUCT: Family.GROUND,
}
# A sub-main is chosen as one family, whatever its stretches.
SUB_MAIN = "sub_main"


def families(route: tuple[Section, ...]) -> list[Family]:
    """The family of every section, in the order of walking."""
    found: list[Family | None] = [FAMILY.get(section.surroundings) for section in route]
    for index in reversed(range(len(found) - 1)):
        found[index] = found[index] or found[index + 1]
    for index in range(1, len(found)):
        found[index] = found[index] or found[index - 1]
    return [one or Family.OPEN for one in found]


@dataclass(frozen=True)
class Kinds:
    """Which kind of cable each section of a circuit has."""

    records: tuple[str, ...]

    def joints(self) -> int:
        """How often the kind of cable changes on the way."""
        return sum(one != after for one, after in pairwise(self.records))


# Every joint is a fault to come: no more than this are proposed, unless more stand already.
MOST_JOINTS = 1


def kinds_to_try(
    cables: Cables, circuit: Circuit, phases: int, *, sub_main: bool, most_joints: int = MOST_JOINTS
) -> list[Kinds]:
    """Every sensible kind of cable for the sections of a circuit, the standing one first."""
    standing = Kinds(tuple((section.cable or circuit.cable).record for section in circuit.route))
    if sub_main:
        everywhere = {section.surroundings for section in circuit.route}
        tried = [Kinds((name,) * len(circuit.route)) for name in _offered(cables, SUB_MAIN, everywhere, phases)]
    else:
        where = families(circuit.route)
        there = list(dict.fromkeys(where))
        places = {one: set[Surroundings]() for one in there}
        for section, one in zip(circuit.route, where, strict=True):
            places[one].add(section.surroundings)
        offered = [_offered(cables, one, places[one], phases) for one in there]
        tried = [
            Kinds(tuple(dict(zip(there, names, strict=True))[one] for one in where)) for names in product(*offered)
        ]
    most = max(most_joints, standing.joints())
    fit = (one for one in tried if one.joints() <= most and _stands_weather(cables, circuit, one))
    return list(dict.fromkeys([standing, *fit]))


def _stands_weather(cables: Cables, circuit: Circuit, kinds: Kinds) -> bool:
    """Whether no cable that stands neither sun nor wet lies where there may be any: nobody said it is indoors."""
    return all(
        stands_weather(section, cables[name]) in (None, Seen.YES)
        for section, name in zip(circuit.route, kinds.records, strict=True)
    )


def _offered(cables: Cables, family: str, places: set[Surroundings], phases: int) -> list[str]:
    """The kinds to try in some places: suited to them, made with enough cores, rated by their table in every one.

    A maker's own cable is tried everywhere.
    """
    generic = cable_records()
    suited = sorted((one for one in generic.values() if family in one.suits), key=lambda one: one.suits[family])
    kinds = [*(one.id for one in suited), *(name for name in cables if name not in generic)]
    names = [name for name in kinds if _made_for(cables[name], phases)]
    rated = []
    for name in names:
        record = cables[name]
        laid = {place: follows_from(Section(surroundings=place, length_m=1), record).method.value for place in places}
        if all(method in rated_methods(record, place) for place, method in laid.items()):
            rated.append(name)
    return rated or names


def _made_for(record: CableRecord, phases: int) -> bool:
    """Made with enough cores; a cable with cores to spare is left out where one without will do."""
    return phases in record.phases and not (phases == 1 and record.spare_cores)


def devices_to_try(circuit: Circuit, ib_a: float, *, sub_main: bool) -> list[Device]:
    """The two least ratings that carry the load, by every curve, and fuses at a sub-main; the standing one first.

    A circuit that is there already keeps its device.
    """
    if not circuit.fitted_with_this_job:
        return [circuit.device]
    now = circuit.device
    breaking = max(6.0, now.breaking_capacity_ka)
    ratings = [rating for rating in BREAKERS_A if rating >= ib_a][:2]
    same: dict[str, Any] = {"poles": now.poles, "voltage_v": now.voltage_v, "rcd": now.rcd}
    tried = [Device(curve=curve, rating_a=rating, breaking_capacity_ka=breaking, **same)
             for curve, rating in product((Curve.B, Curve.C), ratings)]  # fmt: skip
    if sub_main or not ratings:
        fuses = [rating for rating in FUSES_A if rating >= ib_a][:2]
        tried += [Device(kind=DeviceKind.FUSE, rating_a=rating, **same) for rating in fuses]
    return list(dict.fromkeys([circuit.device, *tried]))


class CableBench:
    """Lays a circuit's sections in any cable; what was worked out for a section and a cable is kept."""

    def __init__(self, installation: Installation, circuit: Circuit, phases: int, load: CircuitLoad) -> None:
        self.cables, self.circuit, self.phases, self.load = installation.cables, circuit, phases, load
        self._families, self._flex = families(circuit.route), flex_of(installation, circuit, load)
        self._known: dict[tuple[int, str, float], SectionFigures | None] = {}
        self._metres: dict[Cable, CablePerMetre] = {}

    def laid(self, kinds: Kinds, sizes_mm2: tuple[float, ...]) -> LaidCable | None:
        """The circuit laid in these kinds and sizes, section by section; None where a kind is not made in its size."""
        found = []
        for key in zip(range(len(sizes_mm2)), kinds.records, sizes_mm2, strict=True):
            one = self._section(*key)
            if one is None:
                return None
            found.append(one)
        return laid_together(tuple(found), self.load, self._flex, self.circuit.slack_m)

    def to_box(self, kinds: Kinds, in_a: float, most_mm2: float) -> Iterator[tuple[float, LaidCable]]:
        """The circuit in one kind in every size that a unit's terminals don't take, ended in a box before its last
        section, which goes on in the thickest that they do.
        """
        sizes_mm2 = self.cables[kinds.records[-1]].sizes_mm2
        tail_mm2 = max((size for size in sizes_mm2 if size <= most_mm2), default=None)
        for csa_mm2 in sizes_before(in_a):
            if tail_mm2 is None or csa_mm2 <= most_mm2:
                continue
            laid = self.laid(kinds, (*(csa_mm2,) * (len(kinds.records) - 1), tail_mm2))
            if laid is not None:
                yield csa_mm2, laid

    def every_laid(self, kinds: Kinds, in_a: float) -> Iterator[tuple[float, LaidCable]]:
        """The circuit in these kinds in every size, with the size that goes through.

        A run of one size whose weakest stretch carries less than the least device is tried with that stretch's
        family alone one and two sizes bigger, where the kind of cable changes there anyway.
        """
        for csa_mm2 in sizes_before(in_a):
            laid = self.laid(kinds, (csa_mm2,) * len(kinds.records))
            if laid is None:
                continue
            yield csa_mm2, laid
            for sizes_mm2 in self._eased(kinds, csa_mm2, laid, in_a):
                eased = self.laid(kinds, sizes_mm2)
                if eased is not None:
                    yield csa_mm2, eased

    def _eased(self, kinds: Kinds, csa_mm2: float, laid: LaidCable, in_a: float) -> Iterator[tuple[float, ...]]:
        if laid.weakest is None or (laid.sections[laid.weakest].rating.iz_a or 0.0) >= in_a:
            return
        weak = [family is self._families[laid.weakest] for family in self._families]
        ends = [place for place in range(1, len(weak)) if weak[place] != weak[place - 1]]
        if not ends or any(kinds.records[place] == kinds.records[place - 1] for place in ends):
            return
        for bigger_mm2 in [size for size in sizes_before(in_a) if size > csa_mm2][:2]:
            yield tuple(bigger_mm2 if one else csa_mm2 for one in weak)

    def _section(self, index: int, record: str, csa_mm2: float) -> SectionFigures | None:
        key = (index, record, csa_mm2)
        if key not in self._known:
            self._known[key] = self._worked_out(*key)
        return self._known[key]

    def _worked_out(self, index: int, name: str, csa_mm2: float) -> SectionFigures | None:
        record = self.cables[name]
        if csa_mm2 not in record.sizes_mm2:
            return None
        old = self.circuit.route[index]
        standing = old.cable or self.circuit.cable
        protective = standing.protective if standing.record == name else Cable().protective
        cable = Cable(record=name, csa_mm2=csa_mm2, protective=protective)
        # The standing cable keeps a method chosen by hand; another one takes what follows from the place.
        section = old if standing.record == name else old.model_copy(update={"method": None})
        school = self.circuit.terminals is TerminalSchool.RATE_AT_70
        try:
            return section_figures(
                section, cable, self._metre(record, cable), self.phases, self.load, rate_at_70=school
            )
        except TableError:
            return None

    def _metre(self, record: CableRecord, cable: Cable) -> CablePerMetre:
        if cable not in self._metres:
            self._metres[cable] = cable_per_metre(record, cable)
        return self._metres[cable]


def laid_circuit(circuit: Circuit, laid: LaidCable) -> Circuit:
    """The circuit as laid: the cable of most metres is the circuit's, others stand at their sections."""
    standing = [cable_of(circuit, section) for section in circuit.route]
    if standing == [one.cable for one in laid.sections]:
        return circuit
    metres: dict[Cable, float] = {}
    for one in laid.sections:
        metres[one.cable] = metres.get(one.cable, 0.0) + one.section.length_m
    main = max(metres, key=lambda cable: metres[cable])
    route = tuple(
        one.section.model_copy(update={"cable": None if one.cable == main else one.cable}) for one in laid.sections
    )
    return circuit.model_copy(update={"cable": main, "route": route})
