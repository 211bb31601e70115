"""A day on the supply, minute by minute from noon to noon: house, car under a load limit, and how long it takes.

The clamp tells the charge point what the house draws; within a control step of a few seconds the car has followed,
to no less than 6 A (IEC 61851-1), else it pauses. What flows before it has followed is told apart.
"""

from __future__ import annotations

from random import Random

from fulmen.core.demand.demand import car_current_a
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.base import Part
from fulmen.core.model.day import ChargingDay
from fulmen.core.model.job import Job
from fulmen.core.reference.rule_set import RuleSet
from fulmen.core.simulations.benches.charging_time import charging_hours, charging_power_kw
from fulmen.core.simulations.benches.house_day import MINUTES, NOON, house_minutes

ASSUMED_BATTERY_KWH = 60.0
ASSUMED_ONBOARD_KW = {1: 7.4, 3: 11.0}


class SupplyDay(Part):
    """One simulated day. Lists hold one figure a minute from 12:00.

    `over_a` is what stands above the limit before the car has followed, for one control step at most. `start_min`
    and `full_min` are clock times, None if it never begins or does not get full.
    """

    house_a: tuple[float, ...]
    car_a: tuple[float, ...]
    total_a: tuple[float, ...]
    limit_a: float | None
    fuse_a: float | None
    peak_a: float
    over_a: float
    over_fuse_min: int
    battery_kwh: float
    drawn_kwh: float
    wanted_kwh: float
    charging_min: int
    throttled_min: int
    paused_min: int
    start_min: int | None
    full_min: int | None
    alone_hours: float
    power_kw: float
    answer: str
    assumed: tuple[str, ...]


def supply_day(job: Job, rules: RuleSet) -> SupplyDay:
    """Simulate the day that the job describes. The same job gives the same day.

    Energy into the battery is efficiency times energy drawn, and stops at what was wanted.
    """
    day, u0_v = job.day, rules.value("u0_v")
    battery_kwh = day.battery_kwh or ASSUMED_BATTERY_KWH
    wanted_kwh = max(0.0, day.to_percent - day.from_percent) / 100 * battery_kwh
    # The last charge point of a twin waits its turn: the question is about one car.
    point_a = job.charge_points[0].design_current_a() if job.charge_points else car_current_a(installation_of(job))
    phases = charging_phases(job)
    onboard_kw = day.onboard_kw or ASSUMED_ONBOARD_KW[phases]
    power_kw = charging_power_kw(point_a, onboard_kw, u0_v, phases) if point_a else 0.0
    house_a = house_minutes(job.load.appliances, day, u0_v)
    car = _Car(power_kw * 1000 / (phases * u0_v), wanted_kwh, phases * u0_v, rules)
    allowed = _allowed_minutes(day, rules)
    for minute in range(MINUTES):
        car.step(house_a[minute], job.supply.load_limit_a, allowed=allowed[minute], minute=minute)
    fuse_a = None if job.supply.cut_out_fuse_a is None else float(job.supply.cut_out_fuse_a)
    total_a = [house + amps for house, amps in zip(house_a, car.amps, strict=True)]
    efficiency = rules.value("charging_efficiency")
    alone = charging_hours(wanted_kwh, power_kw, efficiency) if power_kw else 0.0
    full_min = None if car.full_at is None else (car.full_at + NOON) % MINUTES
    return SupplyDay(
        house_a=_rounded(house_a),
        car_a=_rounded(car.amps),
        total_a=_rounded(total_a),
        limit_a=job.supply.load_limit_a,
        fuse_a=fuse_a,
        peak_a=round(max(total_a), 1),
        over_a=round(car.over_a, 1),
        over_fuse_min=0 if fuse_a is None else sum(amps > fuse_a for amps in total_a),
        battery_kwh=car.battery_kwh,
        drawn_kwh=car.drawn_kwh,
        wanted_kwh=wanted_kwh,
        charging_min=sum(amps > 0 for amps in car.amps),
        throttled_min=car.throttled_min,
        paused_min=car.paused_min,
        start_min=None if car.began_at is None else (car.began_at + NOON) % MINUTES,
        full_min=full_min,
        alone_hours=alone,
        power_kw=power_kw,
        answer=_answer(car, wanted_kwh, alone, day),
        assumed=_assumed(job),
    )


def charging_phases(job: Job) -> int:
    """On how many phases the first charge point charges: three where unit and supply both have them."""
    three = bool(job.charge_points) and job.charge_points[0].phase_count == 3 and job.supply.phase_count == 3
    return 3 if three else 1


class _Car:
    """The car and its charge point through the day. `volts_v` is what each ampere on a line conductor is worth."""

    def __init__(self, most_a: float, wanted_kwh: float, volts_v: float, rules: RuleSet) -> None:
        self.most_a, self.wanted_kwh, self.volts_v = most_a, wanted_kwh, volts_v
        self.least_a, self.efficiency = rules.value("car_min_a"), rules.value("charging_efficiency")
        self.lag = rules.value("clamp_follows_within_s") / 60
        self.amps: list[float] = []
        self.battery_kwh = self.drawn_kwh = self.over_a = 0.0
        self.throttled_min = self.paused_min = 0
        self.began_at: int | None = None
        self.full_at: int | None = None

    def step(self, house_a: float, limit_a: float | None, *, allowed: bool, minute: int) -> None:
        """One minute: the car follows the house within the control step, then holds."""
        before = self.amps[-1] if self.amps else 0.0
        wanting = allowed and self.wanted_kwh - self.battery_kwh > 1e-9
        now = self._offered(house_a, limit_a) if wanting else 0.0
        if limit_a is not None and before > 0 and wanting:
            self.over_a = max(self.over_a, house_a + before - max(limit_a, house_a))
        if wanting:
            self.throttled_min += 0 < now < self.most_a - 1e-9
            self.paused_min += now == 0
            self._charge(before * self.lag + now * (1 - self.lag), minute)
        self.amps.append(now)
        if now > 0 and self.began_at is None:
            self.began_at = minute

    def _offered(self, house_a: float, limit_a: float | None) -> float:
        if limit_a is None:
            return self.most_a
        room_a = limit_a - house_a
        return min(self.most_a, room_a) if room_a >= self.least_a else 0.0

    def _charge(self, mean_a: float, minute: int) -> None:
        drawn = mean_a * self.volts_v / 1000 / 60
        drawn = min(drawn, (self.wanted_kwh - self.battery_kwh) / self.efficiency)
        self.drawn_kwh += drawn
        self.battery_kwh += drawn * self.efficiency
        if self.wanted_kwh - self.battery_kwh <= 1e-9 and self.full_at is None:
            self.full_at = minute + 1


def _allowed_minutes(day: ChargingDay, rules: RuleSet) -> list[bool]:
    """The minutes in which the charge point may charge: plugged in, off-peak, after the random delay."""
    delay_min = 0
    if day.random_delay:
        delay_min = round(Random(f"{day.seed}/delay").uniform(0, rules.value("random_delay_max_s")) / 60)
    plugged = (day.plug_in_min - NOON) % MINUTES
    allowed, waited = [], 0
    for minute in range(MINUTES):
        open_now = minute >= plugged and (not day.off_peak or _in_window(day, (minute + NOON) % MINUTES))
        waited = waited + 1 if open_now else 0
        allowed.append(open_now and waited > delay_min)
    return allowed


def _in_window(day: ChargingDay, clock_min: int) -> bool:
    start, end = day.off_peak_from_min, day.off_peak_to_min
    return start <= clock_min < end if start < end else clock_min >= start or clock_min < end


def _answer(car: _Car, wanted_kwh: float, alone_hours: float, day: ChargingDay) -> str:
    """The householder's answer in plain words."""
    if wanted_kwh == 0:
        return "Nothing to charge: it has what is wanted."
    if car.full_at is None or car.began_at is None:
        share = car.battery_kwh / wanted_kwh
        return f"Not full by noon: {car.battery_kwh:.0f} of {wanted_kwh:.0f} kWh ({share:.0%}) is in."
    clock = (car.full_at + NOON) % MINUTES
    took = (car.full_at - car.began_at) / 60
    begun = (car.began_at + NOON) % MINUTES
    slower = f" Alone it would take {hours_words(alone_hours)}." if took > alone_hours + 0.25 else ""
    return f"About {hours_words(took)}: from {clock_words(begun)}, ready by {clock_words(clock)}.{slower}"


def hours_words(hours: float) -> str:
    """Hours as a person says them, to the quarter.

    >>> hours_words(5.9), hours_words(0.4)
    ('6 hours', '½ hour')
    """
    quarters = max(1, round(hours * 4))
    whole, rest = divmod(quarters, 4)
    text = (str(whole) if whole else "") + ["", "¼", "½", "¾"][rest]
    return f"{text} hour{'' if quarters <= 4 else 's'}"


def clock_words(minute: int) -> str:
    """A clock time.

    >>> clock_words(330)
    '05:30'
    """
    return f"{minute // 60:02d}:{minute % 60:02d}"


def _assumed(job: Job) -> tuple[str, ...]:
    """What was not known and is taken as usual."""
    day = job.day
    found = []
    if day.battery_kwh is None:
        found.append(f"a battery of {ASSUMED_BATTERY_KWH:g} kWh")
    if day.onboard_kw is None:
        found.append(f"an onboard charger of {ASSUMED_ONBOARD_KW[charging_phases(job)]:g} kW")
    elif day.onboard_kw > 7.4 and job.supply.phase_count == 1:
        found.append("a three-phase onboard charger that takes 32 A on one phase; some take only 16 A")
    if not job.load.appliances:
        found.append("a usual house, since no appliance is entered")
    return tuple(found)


def _rounded(amps: list[float]) -> tuple[float, ...]:
    return tuple(round(each, 2) for each in amps)
