"""OpenDSS (opendssdirect 0.9), a general-purpose distribution network library from the package registry.

Streets with a whole and a broken PEN are built element by element (source, spans, services, loads, electrodes as
resistances) and solved there; every house's earth terminal and line-to-neutral voltage must agree within 0.5 %.
"""

import unittest
from itertools import product
from random import Random

import opendssdirect as dss

from fulmen.core.electrical.open_pen import electrode_limit_ohm, met_voltage_v
from fulmen.core.simulations.benches.pen_network import House, HouseVolts, Street, street_volts

U0_V = 230.0


def random_street(seed: int) -> Street:
    """A street of two to thirteen houses, single- and three-phase mixed, some with electrodes."""
    chance = Random(seed)
    houses = []
    for _ in range(chance.randint(2, 13)):
        loads = [0.0, 0.0, 0.0]
        for phase in range(3) if chance.random() < 0.2 else (chance.randrange(3),):
            loads[phase] = round(chance.uniform(0.5, 60), 1)
        electrode = chance.choice([None, 2.0, 8.0, 32.0, 150.0])
        houses.append(House(loads_a=(loads[0], loads[1], loads[2]), electrode_ohm=electrode))
    here = chance.randrange(len(houses))
    broken = ("nowhere", "service", "main")[seed % 3]
    return Street.model_validate({
        "houses": [one.model_dump() for one in houses], "here": here, "broken": broken,
        "broken_before": chance.randint(0, here), "star_electrode_ohm": chance.choice([0.5, 1.0, 5.0, 20.0]),
        "span_ohm": chance.choice([0.005, 0.02]), "service_ohm": chance.choice([0.01, 0.05]),
    })  # fmt: skip


def by_library(street: Street) -> list[tuple[float, list[float]]]:
    """Earth terminal and line-to-neutral voltages of every house, from the library."""
    run = dss.Text.Command
    run("clear")
    # A stiff source between the lines and a star point of its own; node 0 of a bus is true earth.
    run(f"new circuit.street basekv={U0_V * 3**0.5 / 1000} pu=1 phases=3 bus1=lines.1.2.3 bus2=star.1.1.1 "
        "r1=1e-7 x1=1e-7 r0=1e-7 x0=1e-7")  # fmt: skip
    resistances = {"star": ("star.1", "star.0", street.star_electrode_ohm)}
    for place, house in enumerate(street.houses):
        before = "star.1" if place == 0 else f"tap{place - 1}.1"
        if not (street.broken == "main" and street.broken_before == place):
            resistances[f"span{place}"] = (before, f"tap{place}.1", street.span_ohm)
        if not (street.broken == "service" and street.here == place):
            resistances[f"service{place}"] = (f"tap{place}.1", f"met{place}.1", street.service_ohm)
        for phase, load_a in enumerate(house.loads_a):
            if load_a:
                resistances[f"load{place}_{phase}"] = (f"lines.{phase + 1}", f"met{place}.1", U0_V / load_a)
        if house.electrode_ohm:
            resistances[f"rod{place}"] = (f"met{place}.1", f"met{place}.0", house.electrode_ohm)
    for name, (one, other, ohm) in resistances.items():
        run(f"new reactor.{name} phases=1 bus1={one} bus2={other} r={ohm} x=0")
    run("solve mode=direct")
    lines = volts("lines")
    return [
        (abs(met), [abs(line - met) for line in lines])
        for met in (volts(f"met{p}")[0] for p in range(len(street.houses)))
    ]


def volts(bus: str) -> list[complex]:
    dss.Circuit.SetActiveBus(bus)
    flat = dss.Bus.Voltages()
    return [complex(real, imaginary) for real, imaginary in zip(flat[::2], flat[1::2], strict=True)]


class Streets(unittest.TestCase):
    def agrees(self, ours: HouseVolts, met_v: float, line_neutral_v: list[float]) -> None:
        self.assertAlmostEqual(ours.met_v, met_v, delta=0.005 * met_v + 1e-3)
        for one, other in zip(ours.line_neutral_v, line_neutral_v, strict=True):
            self.assertAlmostEqual(one, other, delta=0.005 * other)

    def test_thirty_streets(self) -> None:
        lifted = 0
        for seed in range(30):
            street = random_street(seed)
            theirs = by_library(street)
            for place, ours in enumerate(street_volts(street, U0_V, U0_V)):
                with self.subTest(seed=seed, place=place, broken=street.broken):
                    self.agrees(ours, *theirs[place])
                    lifted += theirs[place][0] > 20
        # The streets are no easy ones: many terminals are lifted.
        self.assertGreater(lifted, 25)


class ClosedForm(unittest.TestCase):
    """One house, its service's PEN open: V = C·U0·RA/(RA + U0/I) where the star point's electrode is nothing."""

    def test_the_network_comes_to_the_closed_form(self) -> None:
        for load_a, electrode_ohm in product((1.0, 10.0, 40.0, 80.0), (0.5, 2.2, 32.0, 200.0)):
            house = House(loads_a=(load_a, 0.0, 0.0), electrode_ohm=electrode_ohm)
            street = Street(houses=(house,), broken="service", star_electrode_ohm=0.1)
            # The star point's electrode lies in series with the house's.
            formula_v = met_voltage_v(electrode_ohm + 0.1, load_a, U0_V, 1.1) * electrode_ohm / (electrode_ohm + 0.1)
            with self.subTest(load_a=load_a, electrode_ohm=electrode_ohm):
                self.assertAlmostEqual(
                    street_volts(street, 1.1 * U0_V, U0_V)[0].met_v, formula_v, delta=1e-3 * formula_v
                )

    def test_the_electrode_of_the_clause_holds_just_seventy_volts(self) -> None:
        for load_a in (20.0, 40.0, 60.0):
            limit_ohm = electrode_limit_ohm(load_a, U0_V, 1.1, 70.0)
            house = House(loads_a=(load_a, 0.0, 0.0), electrode_ohm=limit_ohm)
            street = Street(houses=(house,), broken="service", star_electrode_ohm=0.1)
            self.assertAlmostEqual(street_volts(street, 1.1 * U0_V, U0_V)[0].met_v, 70.0, delta=2.5)
            self.assertLess(street_volts(street, 1.1 * U0_V, U0_V)[0].met_v, 70.0)


class Balance(unittest.TestCase):
    def test_a_balanced_main_does_not_shift_and_one_lone_phase_takes_it_all(self) -> None:
        even = tuple(House(loads_a=(10.0, 10.0, 10.0)) for _ in range(4))
        street = Street(houses=even, broken="main", broken_before=0)
        self.assertLess(max(one.met_v for one in street_volts(street, U0_V, U0_V)), 0.01)
        lone = (House(loads_a=(10.0, 0.0, 0.0)),)
        street = Street(houses=lone, broken="main", broken_before=0)
        self.assertAlmostEqual(street_volts(street, U0_V, U0_V)[0].met_v, U0_V, delta=0.01)
