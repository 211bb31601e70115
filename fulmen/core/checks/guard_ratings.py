"""What stands in front carries what hangs behind it, opens poles enough at its voltage, and either way of current.

What an RCD is marked with is held against what is made.
"""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import RCD_MARK
from fulmen.core.findings.rules.run import BOTH_WAYS, FEEDS_BACK, GUARD_POLES, GUARD_RATING, GUARD_VOLTAGE
from fulmen.core.findings.rules.supply import MAIN_SWITCH_POLES
from fulmen.core.installation.guards import PlacedGuard, Stands, feeds_others_behind
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import GuardKind
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing

LEAST_POLES, ALL_POLES, LINE_POLES = 2, 4, 3
# What opens a live conductor by contacts of its own; of an overcurrent device only the lines are asked for.
ISOLATES = (GuardKind.SWITCH, GuardKind.RCCB, GuardKind.DC_DETECTOR)


def guard_rating_findings(case: Case) -> list[Finding]:
    """Every finding about what switches and RCDs in front carry, and whether devices open both ways."""
    new = {chained.circuit.id for chained in case.new_circuits}
    here = [one for one in case.guards if one.circuit in new and one.part is not None]
    carried = [_carries(case, one) for one in here if one.guard is not None]
    opens = (check(case, one) for one in here for check in (_poles, _voltage, _mark))
    return [*carried, *(one for one in opens if one is not None), *_both_ways(case, new)]


def _poles(case: Case, guard: PlacedGuard) -> Finding | None:
    """461.2: what isolates opens every line and the neutral; a device on a three-phase circuit every line.

    The main switch and an open-PEN device are judged by rules of their own, an RCD's neutral by those of RCDs.
    """
    lines_only, stored = guard.device is not None, guard.guard
    isolates = stored is not None and stored.kind in ISOLATES and stored is not case.installation.main_switch
    switches = guard.device is not None and guard.device.opens_poles
    if not isolates and not (switches and guard.phases > 1):
        return None
    asked = ask(GUARD_POLES, case.rules, guard.subject, guard=guard.name, where=guard.where)
    least = guard.phases if lines_only else guard.phases + 1
    if guard.poles is None and not (guard.opens_live is not None and guard.phases == 1):
        return asked.needs_fact("How many poles does it open?")
    poles = guard.poles if guard.poles is not None else least if guard.opens_live else guard.phases
    what = {1: "line", 2: "line and neutral", 3: "three lines", 4: "three lines and the neutral"}[least]
    opens = f"It opens {poles} pole{'s' if poles > 1 else ''}; {what} pass it."
    return asked.meets(opens) if poles >= least else asked.falls_short(opens, remedy=f"Use one of {least} poles.")


def _voltage(case: Case, guard: PlacedGuard) -> Finding | None:
    """512.1.1: across three lines stand 400 V; on one line to neutral nothing that is made is rated below 230 V."""
    if guard.phases == 1 or guard.part is None:
        return None
    asked = ask(GUARD_VOLTAGE, case.rules, guard.subject, guard=guard.name, where=guard.where)
    if guard.part.voltage_v is None:
        return asked.needs_fact("Read its rated voltage: three lines pass it.")
    least_v = case.rules.value("line_voltage_v")
    told = f"Made for {guard.part.voltage_v} V; {least_v:g} V stand between the lines that pass it."
    if guard.part.voltage_v >= least_v:
        return asked.meets(told)
    return asked.falls_short(told, remedy=f"Use one that is made for {least_v:g} V.")


def _mark(case: Case, guard: PlacedGuard) -> Finding | None:
    """No time-delayed RCD as sensitive as those that open at once is made: the mark was misread."""
    rcd, most_ma = guard.rcd, case.rules.value("rcd_residual_ma")
    if rcd is None or not rcd.time_delayed or rcd.residual_ma > most_ma:
        return None
    asked = ask(RCD_MARK, case.rules, guard.subject, rcd=guard.name)
    return asked.needs_fact(f"No time-delayed RCD of {most_ma:g} mA or less is made: read its mark again.")


def main_switch_findings(case: Case) -> list[Finding]:
    """Whether the main switch opens every pole that it must (462.1.201)."""
    switch = case.installation.main_switch
    if switch is None:
        return []
    asked, three = ask(MAIN_SWITCH_POLES, case.rules, ORIGIN), case.job.supply.phase_count == 3
    poles = switch.poles
    if poles is None:
        return [asked.needs_fact("How many poles does the main switch open?")]
    if not three:
        if poles >= LEAST_POLES:
            return [asked.meets("It opens line and neutral.")]
        return [asked.falls_short("It leaves the neutral closed.", remedy="Fit a double-pole main switch.")]
    if poles >= ALL_POLES:
        return [asked.meets("It opens three lines and the neutral.")]
    if poles == LINE_POLES and case.job.supply.earthing not in (Earthing.TT, Earthing.NOT_SEEN):
        detail = (
            "It opens three lines and leaves the neutral closed: allowed where the neutral is surely at earth. Say why."
        )
        return [asked.your_call(detail, basis={"poles": poles})]
    return [
        asked.falls_short(f"{poles} poles on three phases: a conductor stays live.", remedy="Fit a four-pole switch.")
    ]


def _carries(case: Case, guard: PlacedGuard) -> Finding:
    """536.4.202: at least the device before it, at least the sum of the devices behind, or its maker says so."""
    stored = guard.guard
    assert stored is not None
    asked = ask(GUARD_RATING, case.rules, guard.subject, guard=guard.name, where=guard.where)
    if stored.carries_by_maker is Seen.YES:
        return asked.meets("Its maker takes what hangs behind it.")
    if stored.rating_a is None:
        return asked.needs_fact("Read its rated current.")
    before_a, before = _before(case, guard)
    if before_a is not None and stored.rating_a >= before_a:
        return asked.meets(f"{stored.rating_a:g} A behind the {before}.")
    behind_a, others = _behind(case, guard)
    if not others and stored.rating_a >= behind_a:
        return asked.meets(f"{stored.rating_a:g} A; the devices behind it come to {behind_a:g} A.")
    if before_a is None:
        return asked.needs_fact(f"Which fuse stands before it? {stored.rating_a:g} A is less than may hang behind it.")
    more = f"the devices behind it come to {behind_a:g} A{' and others' if others else ''}"
    return asked.falls_short(
        f"{stored.rating_a:g} A behind the {before}, and {more}: diversity or a load limit alone is not enough.",
        remedy="Fit one of a larger rating, put less behind it, or get its maker's word.",
    )


def _before(case: Case, guard: PlacedGuard) -> tuple[float | None, str]:
    """The overcurrent device before a guard: its way's, or of the circuit before its board; else the cut-out fuse."""
    devices = [one for one in case.guards[: case.guards.index(guard)] if one.device is not None]
    if devices and devices[-1].device is not None:
        return float(devices[-1].device.rating_a), devices[-1].name
    fuse_a = case.job.supply.cut_out_fuse_a
    return (float(fuse_a), f"{fuse_a} A cut-out fuse") if fuse_a else (None, "")


def _behind(case: Case, guard: PlacedGuard) -> tuple[float, bool]:
    """The sum of the devices behind a guard [A], and whether circuits that nobody has entered hang there too."""
    chained = next(one for one in case.run.chain if one.circuit.id == guard.circuit)
    if guard.stands is Stands.BOX:
        fed = case.installation.tree.leaving.get(chained.circuit.feeds, ())
        board = case.installation.tree.boards.get(chained.circuit.feeds)
        own_a = float(chained.circuit.device.rating_a)
        if board is None:
            return own_a, False
        return float(sum(one.device.rating_a for one in fed)), feeds_others_behind(board, Stands.INCOMER, "")
    leaving = case.installation.tree.leaving[chained.board.id]
    behind = [one for one in leaving if _of_group(one, guard, chained.circuit)]
    return float(sum(one.device.rating_a for one in behind)), feeds_others_behind(
        chained.board, guard.stands, chained.circuit.group
    )


def _of_group(one: Circuit, guard: PlacedGuard, circuit: Circuit) -> bool:
    return guard.stands is not Stands.GROUP or one.group == circuit.group


def _both_ways(case: Case, new: set[str]) -> Iterator[Finding]:
    """530.3.201: a device that current passes both ways opens whichever way it flows."""
    supply, point = case.job.supply, case.run.point
    if point is not None and point.feeds_back is Seen.NOT_SEEN:
        asked = ask(FEEDS_BACK, case.rules, point.id)
        yield asked.needs_fact("Look in the unit's data: can it feed the car's battery back into the house?")
    back = point is not None and point.feeds_back is Seen.YES
    if not back and supply.own_generation is not Seen.YES:
        return
    for guard in case.guards:
        part = guard.device or guard.guard
        if (
            part is None
            or guard.circuit not in new
            or (guard.guard and guard.guard.kind not in (GuardKind.RCCB, GuardKind.OPEN_PEN_DEVICE))
        ):
            continue
        # What the house generates passes its incomer and sub-mains; what the car gives back, every device on its way.
        passed = back or guard.stands is Stands.INCOMER or (guard.device is not None and guard.circuit != case.subject)
        if not passed:
            continue
        asked = ask(BOTH_WAYS, case.rules, guard.subject, guard=guard.name)
        if part.both_ways is Seen.YES:
            yield asked.meets("It opens whichever way the current flows.")
        elif part.both_ways is Seen.NO:
            remedy = "Use one that its maker allows to be fed from either side."
            yield asked.falls_short("Current passes it both ways, and it opens in one direction only.", remedy=remedy)
        else:
            yield asked.needs_fact(f"Current passes the {guard.name} both ways: does its maker allow that?")
