"""An installation as somebody built it, drawn at random about what the job file says: lengths, metal, contacts, supply."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from random import Random
from typing import Any

from tests.independent.physics import ARMOUR_MM2, FINE, FLAT_EARTH, SOLID, Edge, between, copper, pole_ohm, steel

TINY = 1e-5
Job = dict[str, Any]


@dataclass
class Run:
    """One circuit as built: ohms of its line, neutral and earth, of its armour if that is an earth too, its contacts."""

    id: str
    before: str
    feeds: str
    line: float
    neutral: float
    earth: float
    armour: float | None
    pole: float
    switches: float
    link: float
    joints: dict[str, float] = field(default_factory=lambda: {"L": 0.0, "N": 0.0, "E": 0.0})
    mohm: dict[str, float] = field(default_factory=dict)
    crossed: str = ""
    open: set[str] = field(default_factory=set)
    beside: float | None = None
    terminal: float = 0.0
    shares: dict[str, float] = field(default_factory=dict)

    def part(self, name: str) -> Run:
        """What lies up to a box that parts the cable, or behind it; what is wrong with the cable is in its last part."""
        share = self.shares[name]
        ohms = {"line": share * self.line, "neutral": share * self.neutral, "earth": share * self.earth}
        armour = None if self.armour is None else share * self.armour
        if name == list(self.shares)[-1]:
            return replace(self, id=name, armour=armour, **ohms)
        return Run(name, self.before, self.feeds, armour=armour, pole=0.0, switches=0.0, link=self.link, **ohms)

    def edges(self) -> list[Edge]:
        """Its conductors from the board, `0`, to the far end, `1`."""
        ends = {one: one for one in "LNE"}
        if self.crossed:
            one, other = self.crossed
            ends[one], ends[other] = other, one
        ohm = {"L": self.line, "N": self.neutral, "E": self.earth}
        found = [
            (f"{self.id}.{one}0", f"{self.id}.{ends[one]}1", ohm[one] + self.joints[one])
            for one in "LNE"
            if one not in self.open
        ]
        if self.armour is not None:
            found.append((f"{self.id}.E0", f"{self.id}.E1", self.armour))
        if self.beside is not None:
            found.append((f"{self.id}.E1", "met", self.beside))
        return found


@dataclass
class House:
    """Supply, earths and circuits as built. `rod` is the installation's electrode, `car_rod` that of each car's own."""

    job: Job
    chance: Random
    warm_c: float
    runs: dict[str, Run]
    line: float
    back: float
    earth: float
    main: float
    tails: float
    earthing: float
    bond: float
    rod: float | None
    car_rods: dict[str, float]
    leads: dict[str, tuple[float, float]]
    pipe: float | None = None
    joined: float | None = None
    neutral_lost: float = 0.0
    bond_off: bool = False
    earthing_off: bool = False
    swapped: bool = False

    @property
    def kind(self) -> str:
        """The supply's earthing."""
        return str(self.job["supply"]["earthing"])

    def supply(self) -> list[Edge]:
        """From the transformer to the cut-out, and the means of earthing."""
        edges = [("star", "cut.L", self.line), ("star", "cut.N", self.back + self.neutral_lost)]
        if self.kind == "tn_c_s":
            return [*edges, ("cut.N", "means", TINY)]
        return [*edges, ("star", "means", self.earth + (self.rod or 0.0))]

    def live(self) -> list[Edge]:
        """Everything that leads while everything is on and a car charges."""
        edges = self.supply()
        edges += [("cut.L", "main.L", self.main + self.tails), ("cut.N", "main.N", self.main + self.tails)]
        edges += [] if self.earthing_off else [("means", "met", self.earthing)]
        edges += [] if self.bond_off else [("met", "service", self.bond)]
        edges += [] if self.pipe is None else [("service", "star", self.pipe)]
        return [*edges, *self.inside()]

    def inside(self) -> list[Edge]:
        """Circuits with what joins them at their boards, and the leads of the cars."""
        edges: list[Edge] = []
        for run in self.runs.values():
            edges += run.edges()
            line, neutral, earth = (
                (f"{run.before}.{one}1" for one in "LNE") if run.before else ("main.L", "main.N", "met")
            )
            edges += [
                (line, f"{run.id}.L0", run.pole + run.switches + run.terminal),
                (neutral, f"{run.id}.N0", run.switches),
                (earth, f"{run.id}.E0", TINY),
            ]
        return [*edges, *self.cars()]

    def cars(self) -> list[Edge]:
        """Contactor, lead and plug of each unit; one on a rod of its own has no house earth."""
        edges: list[Edge] = []
        for point, (line, earth) in self.leads.items():
            run = next(one for one in self.runs.values() if one.feeds == point)
            edges += [(f"{run.id}.L1", f"{point}.L", line), (f"{run.id}.N1", f"{point}.N", line)]
            edges.append((f"{point}.bar", f"{point}.E", earth))
            if point in self.car_rods:
                edges.append((f"{point}.bar", "star", self.car_rods[point] + self.earth))
                if self.joined is not None:
                    edges.append((f"{point}.bar", f"{run.id}.E1", self.joined))
            else:
                edges.append((f"{run.id}.E1", f"{point}.bar", TINY))
        return edges

    def dead(self, run: Run, link: str, a: str, b: str) -> float:
        """What reads between two points of a circuit that is off, with two of its conductors linked at the board."""
        earths = [
            one for one in self.live() if all("E" in end or end in ("met", "means", "service") for end in one[:2])
        ]
        links = [(f"{run.id}.{link[0]}0", f"{run.id}.{link[1]}0", run.link)] if link else []
        return between([*run.edges(), *links, *[one for one in earths if not one[0].startswith(f"{run.id}.E0")]], a, b)

    def cable(self, subject: str) -> Run | None:
        """What a dead test is of: a circuit's cable, or the part of one."""
        whole = self.runs.get(self.circuit(subject))
        return whole.part(subject) if whole is not None and subject in whole.shares else whole

    def circuit(self, subject: str) -> str:
        """The circuit of a part of a cable; anything else is its own."""
        return next((one.id for one in self.runs.values() if subject in one.shares), subject)

    def loop(self, a: str, b: str) -> float:
        """The loop that a tester finds between two live points, the source shorted."""
        return between(self.live(), a, b)


def built(job: Job, chance: Random, told_c: float) -> House:
    """A house drawn about what its job says.

    Args:
        told_c: how warm the tester says that the conductors are; they are within three kelvin of that.
    """
    warm_c = told_c + chance.uniform(-3, 3)
    by_board = {one["feeds"]: one["id"] for one in job["circuits"]}
    runs = {one["id"]: _run(job, one, by_board.get(one["from_board"], ""), chance, warm_c) for one in job["circuits"]}
    kind, enquired = job["supply"]["earthing"], job["supply"]["ze_enquiry_ohm"]
    spread = {"tn_c_s": (0.10, 0.33), "tn_s": (0.20, 0.38), "tt": (0.12, 0.33)}[kind]
    ze = enquired * chance.uniform(0.9, 1.1) if enquired and kind != "tt" else chance.uniform(*spread)
    line = ze * chance.uniform(0.4, 0.6)
    tails = sum(
        copper(SOLID.get(one["csa_mm2"], 0.727), one["length_m"], warm_c)
        for one in job["supply"]["tails"][:1]
        if one["csa_mm2"] and one["length_m"]
    )
    # A sheath is the poorer way back; on TT the ground is, and the neutral as good as anybody's.
    neutral = (ze - line) * chance.uniform(0.4, 0.9) if kind == "tn_s" else ze - line
    earth = {"tn_c_s": 0.0, "tn_s": ze - line, "tt": chance.uniform(0.5, 12.0)}[kind]
    designed = job["supply"]["electrode_design_ohm"] or 60.0
    own = [one for one in job["charge_points"] if one["arrangement"]["car_earth"] == "own_electrode"]
    return House(
        job=job, chance=chance, warm_c=warm_c, runs=runs, line=line, back=neutral, earth=earth,
        main=chance.uniform(0.0002, 0.0015), tails=tails, earthing=chance.uniform(0.001, 0.01),
        bond=chance.uniform(0.005, 0.03), rod=designed * chance.uniform(0.7, 1.4) if kind == "tt" else None,
        # Metal that is bonded and lies in the ground is an earth of its own, where the supply's is a conductor.
        pipe=chance.uniform(2.0, 40.0) if kind != "tt" and chance.random() < 0.4 else None,
        car_rods={
            one["id"]: (one["arrangement"]["electrode_design_ohm"] or 30.0) * chance.uniform(0.7, 1.4) for one in own
        },
        leads={one["id"]: _lead(job, one, chance, warm_c) for one in job["charge_points"]},
    )  # fmt: skip


def _lead(job: Job, point: dict[str, Any], chance: Random, warm_c: float) -> tuple[float, float]:
    """Line with its contactor, and earth, from the unit's terminals into the adapter."""
    contacts = chance.uniform(0.0004, 0.002), chance.uniform(0.0002, 0.0012)
    if point["tethered"] is False:
        half = (job["testing"]["test_lead_ohm"] or 0.0) / 2 * chance.uniform(0.95, 1.05)
    else:
        length_m = (point["lead_length_m"] or 5.0) * chance.uniform(0.98, 1.03)
        half = copper(FINE[point["lead_csa_mm2"] or 6.0] * chance.uniform(0.96, 1.0), length_m, warm_c)
    return half + contacts[0] + chance.uniform(0.0004, 0.002), half + contacts[1]


def _run(job: Job, circuit: dict[str, Any], before: str, chance: Random, warm_c: float) -> Run:
    line = neutral = earth = 0.0
    wires: float | None = 0.0
    metal = {one: chance.uniform(0.955, 1.0) for one in "LNE"}
    of_metal = chance.uniform(0.96, 1.0)
    longer = {"tape": chance.uniform(0.975, 1.025), "steps": chance.uniform(0.92, 1.08)}
    sections = circuit["route"]
    for place, section in enumerate(sections):
        cable = section["cable"] or circuit["cable"]
        length_m = section["length_m"] * longer[section["length_by"]]
        length_m += circuit["slack_m"] * chance.uniform(0.9, 1.1) if place == len(sections) - 1 else 0.0
        record, size = cable["record"], cable["csa_mm2"]
        ohms = FINE if record == "ev-power-data" else SOLID
        earth_mm2 = FLAT_EARTH[size] if record == "twin-and-earth" else cable["separate_csa_mm2"] or size
        # One drum of cable: its cores differ among themselves by a per cent or two.
        line += copper(ohms[size] * of_metal * min(1.0, metal["L"] + 0.02), length_m, warm_c)
        neutral += copper(ohms[size] * of_metal * min(1.0, metal["N"] + 0.02), length_m, warm_c)
        earth += copper(ohms[earth_mm2] * of_metal * min(1.0, metal["E"] + 0.02), length_m, warm_c)
        cores = int(record[4]) if record.startswith("swa-") else 0
        wires = wires + steel(ARMOUR_MM2[cores][size], length_m, warm_c) if cores and wires is not None else None
    contact = [chance.uniform(0.0001, 0.0008) for _ in range(4)]
    boxes = 1 + len(circuit["boxes"])
    return Run(
        shares=_shares(circuit),
        id=circuit["id"], before=before, feeds=circuit["feeds"], line=line + contact[0], neutral=neutral + contact[1],
        earth=earth + contact[2],
        # Armour is on its gland at both ends, or stops short of the unit.
        armour=wires if wires and chance.random() < 0.6 else None,
        pole=pole_ohm(circuit["device"]["rating_a"]) * chance.uniform(0.25, 0.95),
        switches=boxes * chance.uniform(0.0002, 0.0015), link=chance.uniform(0.0005, 0.004),
    )  # fmt: skip


def _shares(circuit: dict[str, Any]) -> dict[str, float]:
    """How much of a cable lies in each part, where a device that opens everything or has electronics parts it."""
    metres, at = [one["length_m"] for one in circuit["route"]], 0
    metres[-1] += circuit["slack_m"]
    found: dict[str, float] = {}
    name = ""
    for box in sorted(
        circuit["boxes"], key=lambda one: len(metres) if one["after_section"] is None else one["after_section"]
    ):
        here = box["after_section"]
        kinds = {guard["kind"] for guard in box["guards"]}
        blind = any(
            guard["kind"] == "rccb" and (guard["rcd"] or {}).get("type") in (None, "B") for guard in box["guards"]
        )
        if not (blind or kinds & {"open_pen_device", "dc_detector"}) or not here or not at < here < len(metres):
            continue
        found[f"{box['id']}:before"] = sum(metres[at:here]) / sum(metres)
        name, at = box["id"], here
    return {**found, f"{name}:behind": sum(metres[at:]) / sum(metres)} if found else {}
