"""Maximum demand: the house, the charge point in full (BS 7671 722.311.201), a load limit, and what must carry it."""

from __future__ import annotations

from fulmen.core.demand.diversity import DiversityLine, diversity_lines
from fulmen.core.demand.half_hours import half_hour_a
from fulmen.core.electrical.tails_rating import tails_iz_a
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import WorkingLine
from fulmen.core.installation.installation import Installation
from fulmen.core.model.circuits import Phase
from fulmen.core.model.job import Job
from fulmen.core.model.load import Appliance, DemandMethod, LoadKind
from fulmen.core.model.supply import Supply
from fulmen.core.plain import plain
from fulmen.core.reference.rule_set import RuleSet


@plain
class Demand:
    """The demand of the whole house. `total_a` is without a load limit, `held_a` with it; None where not known."""

    method: DemandMethod
    lines: tuple[DiversityLine, ...]
    house_a: float | None
    car_a: float
    total_a: float | None
    held_a: float | None
    source: str
    working: tuple[WorkingLine, ...]


def demand_of(installation: Installation, rules: RuleSet) -> Demand:
    """The maximum demand of a job, by the method it names.

    Entered: the figure is the total with the charge point. Added up: diversity, then the charge point in full.
    Measured: the recorded maximum, then the charge point in full.
    """
    job, car_a = installation.job, car_current_a(installation)
    lines = diversity_lines(_appliances(job), rules)
    house_a, source = _house_a(job, lines, car_a, rules)
    total_a = None if house_a is None else house_a + car_a
    return Demand(
        method=job.load.method,
        lines=lines,
        house_a=house_a,
        car_a=car_a,
        total_a=total_a,
        held_a=held_demand_a(house_a, car_a, job.supply.load_limit_a),
        source=source,
        working=_working(job.supply, house_a, car_a, source),
    )


def car_current_a(installation: Installation) -> float:
    """Current of the charge points that this job fits, in full; at three phases in the most loaded conductor [A]."""
    tree, points = installation.tree, installation.job.charge_points
    if installation.job.supply.phase_count == 1:
        return sum(point.design_current_a() for point in points)
    balanced_a = sum(point.design_current_a() for point in points if point.phase_count == 3)
    on: dict[Phase, float] = dict.fromkeys(Phase, 0.0)
    for point in points:
        circuit = tree.feeders.get(point.id)
        if point.phase_count == 1:
            on[tree.line_of(circuit) if circuit else Phase.L1] += point.design_current_a()
    return balanced_a + max(on.values())


def existing_cars_a(job: Job, rules: RuleSet) -> float:
    """Current of the charge points that are there already, entered among the house's appliances, in full [A]."""
    there = [one for one in job.load.appliances if one.kind is LoadKind.CAR]
    return sum(one.rating_a or (one.rating_kw or 0.0) * 1000 / rules.value("u0_v") for one in there)


def _appliances(job: Job) -> tuple[Appliance, ...]:
    """The house's appliances, what garage and outbuilding boards feed besides the cars, and what this job wires."""
    if job.load.method is not DemandMethod.ADDED_UP:
        return job.load.appliances
    wired = [one for circuit in job.circuits for one in circuit.loads]
    return (*job.load.appliances, *(one for board in job.boards for one in board.other_loads), *wired)


def _house_a(job: Job, lines: tuple[DiversityLine, ...], car_a: float, rules: RuleSet) -> tuple[float | None, str]:
    load = job.load
    if load.method is DemandMethod.ENTERED:
        entered_a = job.supply.maximum_demand_a
        return (None if entered_a is None else max(0.0, entered_a - car_a)), "as entered"
    if load.method is DemandMethod.ADDED_UP:
        return (sum(line.counted_a for line in lines) if lines else None), "added up with diversity"
    if load.half_hours is not None:
        peak_a = half_hour_a(load.half_hours.peak_kwh, rules.value("u0_v"))
        return peak_a, f"half hour of {load.half_hours.peak_at:%-d %b %Y, %H:%M}"
    return load.measured_a, "measured maximum"


def held_demand_a(house_a: float | None, car_a: float, limit_a: float | None) -> float | None:
    """Demand that a load limit holds: I = min(house + car, max(limit, house)) [A].

    The limit turns the car down; what the house draws without the car it can't hold.

    Args:
        house_a: the house without the charge point [A], or None where it is not known.
        car_a: the charge point in full [A].
        limit_a: the load limit [A], or None without one.

    >>> held_demand_a(50, 32, 60), held_demand_a(70, 32, 60), held_demand_a(50, 32, None)
    (60, 70, 82)
    """
    if house_a is None:
        return None
    total_a = house_a + car_a
    return total_a if limit_a is None else min(total_a, max(limit_a, house_a))


def _working(supply: Supply, house_a: float | None, car_a: float, source: str) -> tuple[WorkingLine, ...]:
    if house_a is None:
        return ()
    lines = [
        WorkingLine(symbol="I house", value=house_a, decimals=1, unit="A", source=source),
        WorkingLine(
            symbol="Imax",
            formula="I house + I car",
            figures=f"{house_a:.1f} + {car_a:g}",
            value=house_a + car_a,
            decimals=1,
            unit="A",
            source="the charge point in full, BS 7671 722.311.201",
        ),
    ]
    if supply.load_limit_a is not None:
        lines.append(
            WorkingLine(
                symbol="I",
                formula="min(Imax, max(load limit, I house))",
                figures=f"min({house_a + car_a:.1f}, max({supply.load_limit_a:g}, {house_a:.1f}))",
                value=held_demand_a(house_a, car_a, supply.load_limit_a),
                decimals=1,
                unit="A",
            )
        )
    return tuple(lines)


def tails_carry_a(installation: Installation) -> float | None:
    """What the main tails carry as they run, at their weakest [A]; None where a size was not seen or has no figure."""
    phases, carried = installation.job.supply.phase_count, []
    for one in installation.main_tails:
        try:
            carried.append(tails_iz_a(one.csa_mm2 or 0.0, one.runs, phases)[0])
        except TableError:
            return None
    return min(carried, default=None)


def least_carried_a(installation: Installation) -> float | None:
    """The least of cut-out fuse, tails and main switch, as far as they were seen [A]; None if none was."""
    switch, fuse_a = installation.main_switch, installation.job.supply.cut_out_fuse_a
    known = [fuse_a, tails_carry_a(installation), switch.rating_a if switch is not None else None]
    return min((float(one) for one in known if one is not None), default=None)
