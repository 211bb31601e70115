"""The demand against what must carry it, cut-out fuse and main switch; and how far a record can be trusted."""

from __future__ import annotations

from datetime import datetime

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.findings.rules.supply import DEMAND, DEMAND_ENTERED, DEMAND_MAIN_SWITCH, METER_RECORD
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.load import DemandMethod, HalfHours

REMEDY = "Set a load limit with a current clamp, turn the charge point down, or ask for a bigger fuse."
WINTER_MONTHS = {11, 12, 1, 2}


def load_findings(case: Case) -> list[Finding]:
    """Every finding about the demand."""
    supply, switch = case.job.supply, case.installation.main_switch
    findings = [
        _carried(case, DEMAND, supply.cut_out_fuse_a, "the cut-out fuse"),
        _carried(case, DEMAND_MAIN_SWITCH, switch.rating_a if switch is not None else None, "its rating"),
        _entered(case),
        _meter_record(case),
    ]
    return [finding for finding in findings if finding is not None]


def _carried(case: Case, rule: Rule, limit_a: float | None, missing: str) -> Finding:
    demand, asked = case.demand, ask(rule, case.rules, ORIGIN)
    if demand.held_a is None or demand.total_a is None:
        return asked.needs_fact("Enter the maximum demand, add up the appliances, or bring in a meter's record.")
    if limit_a is None:
        return asked.needs_fact(f"Enter {missing}.")
    limited = case.job.supply.load_limit_a is not None
    return asked.judged(
        value=demand.held_a,
        limit=float(limit_a),
        unit="A",
        decimals=0,
        working=demand.working if rule is DEMAND else (),
        detail=f"{demand.source}; {'with the load limit' if limited else 'charge point at full load'}",
        remedy=REMEDY,
    )


def _entered(case: Case) -> Finding | None:
    """A total that was entered holds the house and the car: less than both together is the house's alone, or wrong."""
    entered_a, load = case.job.supply.maximum_demand_a, case.job.load
    if load.method is not DemandMethod.ENTERED or entered_a is None or not case.job.charge_points:
        return None
    asked, car_a = ask(DEMAND_ENTERED, case.rules, ORIGIN), case.demand.car_a
    listed_a = sum(line.counted_a for line in case.demand.lines)
    if entered_a < car_a + listed_a - 0.5:
        listed = f" and {listed_a:.0f} A of appliances" if listed_a else ""
        return asked.needs_fact(
            f"{entered_a:g} A is less than {car_a:g} A for charging{listed}: enter the total with the car in it."
        )
    left_a, least_a = entered_a - car_a, case.rules.value("least_house_a")
    if left_a >= least_a:
        return asked.meets(f"{entered_a:g} A, {car_a:g} A of it for charging.")
    detail = f"{entered_a:g} A leaves {left_a:g} A for the whole house: is the car in it? Say how it is known."
    return asked.your_call(detail, basis={"entered_a": entered_a, "car_a": car_a})


def _meter_record(case: Case) -> Finding | None:
    """A record that is short, or has no winter in it, may have missed the peak."""
    load = case.job.load
    if load.method is not DemandMethod.MEASURED or load.half_hours is None:
        return None
    record, asked = load.half_hours, ask(METER_RECORD, case.rules, ORIGIN)
    least, days = case.rules.value("meter_record_days"), record.entries / 48
    winter = bool(_months(record.first_at, record.last_at) & WINTER_MONTHS)
    told = f"{days:.0f} days from {record.first_at:%-d %b %Y} to {record.last_at:%-d %b %Y}"
    told += f", {record.missing} half hours missing." if record.missing else "."
    if record.near_peak_hours:
        told += f" It stays near its peak for {record.near_peak_hours:g} h in a row at the longest."
    long_h = _hot_for_h(case, record)
    if days >= least and winter and not long_h:
        return asked.meets(told)
    if days >= least and winter:
        detail = f"{told} With the car the cut-out is then within a tenth of its fuse for hours: say why it serves."
        return asked.your_call(detail, basis={"near_peak_hours": long_h}, remedy=REMEDY)
    why = f" Less than {least:.0f} days." if days < least else ""
    why += "" if winter else " No winter month is in it."
    detail = f"{told}{why} A mean over half an hour also hides short peaks: say why it serves."
    basis = {
        "entries": record.entries,
        "missing": record.missing,
        "first_at": f"{record.first_at:%Y-%m-%d}",
        "last_at": f"{record.last_at:%Y-%m-%d}",
    }
    return asked.your_call(detail, basis=basis)


# A stretch this long near the peak heats a fuse and its carrier through, where this little of the fuse is left; common
# practice, no source.
LONG_STRETCH_H, LITTLE_LEFT = 2.0, 0.1


def _hot_for_h(case: Case, record: HalfHours) -> float:
    """How long the cut-out carries nearly its fuse's rating in a row [h]; 0 where it is short, or enough is left."""
    fuse_a, held_a, stretch_h = case.job.supply.cut_out_fuse_a, case.demand.held_a, record.near_peak_hours or 0.0
    if fuse_a is None or held_a is None or held_a <= fuse_a * (1 - LITTLE_LEFT) or stretch_h < LONG_STRETCH_H:
        return 0.0
    return stretch_h


def _months(first: datetime, last: datetime) -> set[int]:
    """Every month that the record touches."""
    count = (last.year - first.year) * 12 + last.month - first.month + 1
    return {(first.month - 1 + step) % 12 + 1 for step in range(min(count, 12))}
