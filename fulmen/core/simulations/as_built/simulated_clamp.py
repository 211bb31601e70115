"""What a unit shows while its clamp is proven in a house as built: currents add up in what the clamp is round."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime
from random import Random

from fulmen.core.model.clamp import ClampProof
from fulmen.core.model.seen import Seen
from fulmen.core.simulations.as_built.as_installed import AsInstalled

# What the clamp sees of the house and of the car [A], by how it sits.
SEES: dict[str, Callable[[float, float], float]] = {
    "reversed": lambda house, car: -(house + car),
    "blind": lambda house, car: 0.0,
    "car_alone": lambda house, car: car,
}
KNOWN_LOAD_A = 39.0


def clamp_shown(house: AsInstalled, seed: int, tested_by: str, tested_at: datetime) -> ClampProof:
    """A clamp's test with a 9 kW shower as the known load.

    Args:
        house: as built; its job has a load limit.
        seed: of what the house takes besides.
    """
    limit_a = house.case.job.supply.load_limit_a
    assert limit_a is not None
    car_a, chance = house.case.run.charge_point.design_current_a(), Random(seed)
    rest_a = round(chance.uniform(2, 8), 1)
    sees = next((SEES[one.built.clamp] for one in house.faults if one.built.clamp), lambda load, car: load + car)
    # Turned down for the test where the load would leave room for the car.
    test_limit_a = min(limit_a, round(rest_a + KNOWN_LOAD_A + 0.5 * car_a))
    obeys = not house.has(lambda built: built.obeys_not)

    def offered(load_a: float) -> float:
        room = test_limit_a - sees(load_a, 0.0) if obeys else car_a
        return float(int(min(car_a, room))) if room >= house.case.rules.value("car_min_a") else 0.0

    dead = house.has(lambda built: built.reports)
    return ClampProof(
        limit_set_a=limit_a,
        arrow_with_current=Seen.YES,
        round_line_only=Seen.YES,
        wire_pair="pair 1",
        known_load_a=KNOWN_LOAD_A,
        test_limit_a=test_limit_a,
        shown_without_a=round(sees(rest_a, 0.0), 1),
        shown_with_a=round(sees(rest_a + KNOWN_LOAD_A, 0.0), 1),
        shown_with_car_a=round(sees(rest_a, car_a), 1),
        offered_without_a=offered(rest_a),
        offered_with_a=offered(rest_a + KNOWN_LOAD_A),
        follows_s=round(chance.uniform(1.5, 4.0), 1),
        reports_fault=Seen.YES if dead else Seen.NO,
        tested_by=tested_by,
        tested_at=tested_at,
    )
