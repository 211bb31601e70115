"""Diversity for one dwelling, line by line with its rule (BS 7671 311.1; the shares are limits of the rule set).

Lighting 66 %; fixed heating the first 10 A in full and half the rest; each cooker 10 A, 30 % of the rest and 5 A
where its unit holds a socket; the two largest showers in full and a quarter of the rest; the largest socket
circuit in full and 40 % of the rest; everything else in full. From memory.
"""

from __future__ import annotations

from collections.abc import Callable

from fulmen.core.findings.finding import WorkingLine
from fulmen.core.findings.words import word
from fulmen.core.model.load import Appliance, LoadKind
from fulmen.core.plain import plain
from fulmen.core.reference.rule_set import RuleSet


@plain
class DiversityLine:
    """One kind of load: what is connected, what of it counts, and by which rule."""

    kind: LoadKind
    name: str
    rule: str
    connected_a: float
    counted_a: float
    working: WorkingLine


def appliance_a(appliance: Appliance, u0_v: float) -> float:
    """Current of one appliance: its amps, or I = P/U0 at unity power factor.

    Args:
        appliance: with either amps or kilowatts.
        u0_v: nominal voltage to earth [V].

    Returns:
        current [A].

    >>> round(appliance_a(Appliance(kind="shower", rating_kw=10.5), 230), 1)
    45.7
    """
    if appliance.rating_a is not None:
        return appliance.rating_a
    assert appliance.rating_kw is not None
    return appliance.rating_kw * 1000 / u0_v


def diversity_lines(appliances: tuple[Appliance, ...], rules: RuleSet) -> tuple[DiversityLine, ...]:
    """One line for each kind of load that is there, in the order of the kinds."""
    u0_v = rules.value("u0_v")
    by_kind = {kind: [one for one in appliances if one.kind is kind] for kind in LoadKind}
    return tuple(_line(kind, found, u0_v, rules) for kind, found in by_kind.items() if found)


def diversified_a(appliances: tuple[Appliance, ...], rules: RuleSet) -> float:
    """What some appliances come to together, after diversity [A]; nothing is 0."""
    return sum(line.counted_a for line in diversity_lines(appliances, rules))


def _line(kind: LoadKind, found: list[Appliance], u0_v: float, rules: RuleSet) -> DiversityLine:
    amps = sorted((appliance_a(one, u0_v) for one in found), reverse=True)
    sockets = sum(one.socket_in_unit for one in found)
    rule, figures, counted_a = RULES.get(kind, _in_full)(amps, sockets, rules)
    return DiversityLine(
        kind=kind,
        name=word(kind),
        rule=rule,
        connected_a=sum(amps),
        counted_a=counted_a,
        working=WorkingLine(
            symbol="I",
            formula=rule,
            figures=figures,
            value=counted_a,
            decimals=1,
            unit="A",
            source=rules.clause("diversity_lighting_share"),
        ),
    )


Counted = tuple[str, str, float]


def _in_full(amps: list[float], sockets: int, rules: RuleSet) -> Counted:
    return "all in full", " + ".join(f"{each:.1f}" for each in amps), sum(amps)


def _lighting(amps: list[float], sockets: int, rules: RuleSet) -> Counted:
    share = rules.value("diversity_lighting_share")
    return f"{share:.0%} of all", f"{share:g}·{sum(amps):.1f}", share * sum(amps)


def _heating(amps: list[float], sockets: int, rules: RuleSet) -> Counted:
    first_a, share = rules.value("diversity_heating_first_a"), rules.value("diversity_heating_rest_share")
    total = sum(amps)
    counted = min(total, first_a) + share * max(0.0, total - first_a)
    figures = f"{min(total, first_a):.1f} + {share:g}·{max(0.0, total - first_a):.1f}"
    return f"first {first_a:g} A in full, {share:.0%} of the rest", figures, counted


def _cooker(amps: list[float], sockets: int, rules: RuleSet) -> Counted:
    first_a, share = rules.value("diversity_cooker_first_a"), rules.value("diversity_cooker_rest_share")
    socket_a = rules.value("diversity_cooker_socket_a")
    counted = sum(min(each, first_a) + share * max(0.0, each - first_a) for each in amps) + socket_a * sockets
    parts = [f"{min(each, first_a):.1f} + {share:g}·{max(0.0, each - first_a):.1f}" for each in amps]
    figures = " + ".join([*parts, *([f"{sockets}·{socket_a:g}"] if sockets else [])])
    rule = f"each {first_a:g} A and {share:.0%} of the rest"
    return rule + (f", {socket_a:g} A for a socket in its unit" if sockets else ""), figures, counted


def _shower(amps: list[float], sockets: int, rules: RuleSet) -> Counted:
    return _largest(2, amps, rules.value("diversity_shower_rest_share"))


def _sockets(amps: list[float], sockets: int, rules: RuleSet) -> Counted:
    return _largest(1, amps, rules.value("diversity_socket_rest_share"))


def _largest(whole: int, amps: list[float], share: float) -> Counted:
    rest = sum(amps[whole:])
    figures = " + ".join(f"{each:.1f}" for each in amps[:whole]) + (f" + {share:g}·{rest:.1f}" if rest else "")
    rule = f"the {'largest' if whole == 1 else 'two largest'} in full, {share:.0%} of the rest"
    return rule, figures, sum(amps[:whole]) + share * rest


RULES: dict[LoadKind, Callable[[list[float], int, RuleSet], Counted]] = {
    LoadKind.LIGHTING: _lighting,
    LoadKind.HEATING: _heating,
    LoadKind.COOKER: _cooker,
    LoadKind.SHOWER: _shower,
    LoadKind.SOCKETS: _sockets,
}
