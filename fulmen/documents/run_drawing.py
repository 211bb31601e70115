"""The run as SVG for the papers: chain, sections and the three tracks, from the same profile as the band on screen."""

from __future__ import annotations

from html import escape
from typing import NamedTuple

from fulmen.core.circuit.run_profile import ProfileNode, RunProfile

WIDTH, HEIGHT = 860, 330
LABEL_X, START_X, BOARD_X, END_X = 6, 92, 186, 720
CHAIN_Y = 62
COPPER, INK, QUIET, LINE, OVER = "#a9522a", "#1c2430", "#555b66", "#c9c2b4", "#b3261e"

Point = tuple[float, float]


class _Scale:
    """Distances along the run to the width of the drawing; the stretch before the board is not to scale."""

    def __init__(self, profile: RunProfile) -> None:
        self.length_m = profile.length_m or 1.0

    def x(self, at_m: float) -> float:
        """Where a distance from the board lies."""
        return BOARD_X + (END_X - BOARD_X) * at_m / self.length_m


def run_drawing(profile: RunProfile) -> str:
    """One run as an SVG document, with a title and a description for who can't see it."""
    scale = _Scale(profile)
    parts = [
        *_chain(profile, scale),
        *_volts(profile, scale, 130),
        *_loop(profile, scale, 195),
        *_amps(profile, scale, 265),
    ]
    told = (
        f"{profile.length_m:.1f} m from the board; {profile.volts_lost_v:.1f} V lost, at most "
        f"{profile.volts_limit_v:.1f}; loop {profile.zs_ohm:.2f} Ω at the charge point."
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEIGHT}" width="{WIDTH}" height="{HEIGHT}" '
        f'role="img" font-family="Text, Symbols, sans-serif" font-size="12" fill="{INK}">'
        f"<title>The run to {escape(profile.charge_point)}</title><desc>{escape(told)}</desc>{''.join(parts)}</svg>"
    )


def _text(x: float, y: float, words: str, *, anchor: str = "start", fill: str = INK, size: int = 12) -> str:
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" text-anchor="{anchor}" fill="{fill}" font-size="{size}">{escape(words)}</text>'
    )


def _line(start: Point, end: Point, colour: str, width: float = 1, dash: str = "") -> str:
    dashed = f' stroke-dasharray="{dash}"' if dash else ""
    return (
        f'<line x1="{start[0]:.1f}" y1="{start[1]:.1f}" x2="{end[0]:.1f}" y2="{end[1]:.1f}" '
        f'stroke="{colour}" stroke-width="{width}"{dashed}/>'
    )


def _path(points: list[Point], colour: str) -> str:
    steps = " ".join(f"{'M' if index == 0 else 'L'}{x:.1f} {y:.1f}" for index, (x, y) in enumerate(points))
    return f'<path d="{steps}" fill="none" stroke="{colour}" stroke-width="2"/>'


def _chain(profile: RunProfile, scale: _Scale) -> list[str]:
    parts = [_line((START_X, CHAIN_Y), (END_X, CHAIN_Y), COPPER, 4)]
    for section in profile.sections:
        x1, x2 = scale.x(section.from_m), scale.x(section.to_m)
        parts.append(_line((x2, CHAIN_Y - 6), (x2, CHAIN_Y + 6), COPPER, 1.5))
        words = f"{section.index + 1} {section.name} {section.length_m:g} m"
        fits = words if len(words) * 6 < x2 - x1 else str(section.index + 1) if x2 - x1 > 9 else ""
        parts.append(_text((x1 + x2) / 2, CHAIN_Y + 22, fits, anchor="middle", size=10))
    named_to_x = 0.0
    for node in profile.nodes:
        x = START_X if node.kind == "cut_out" else scale.x(node.at_m)
        # A name with no room beside the one before is left to the table.
        named = x > named_to_x
        parts.extend(_node(node, x, named=named))
        if named:
            named_to_x = x + 6.5 * max(len(node.name), *(len(note) for note in node.notes[:2]))
    return parts


def _node(node: ProfileNode, x: float, *, named: bool) -> list[str]:
    """A node with its name and notes: above it, the charge point's beside it, a joint's nowhere."""
    if node.kind in ("gland_box", "breakout_box"):
        return [_square(x, 5)]
    if node.kind == "charge_point":
        lines = [_text(x + 16, CHAIN_Y - 12, node.name), *_notes(node, x + 16, CHAIN_Y + 2)]
        return [_square(x, 9), *lines]
    if not named:
        return [_square(x, 9)]
    return [_square(x, 9), _text(x - 9, CHAIN_Y - 40, node.name), *_notes(node, x - 9, CHAIN_Y - 27)]


def _notes(node: ProfileNode, x: float, y: float) -> list[str]:
    return [_text(x, y + 12 * index, note, fill=QUIET, size=10) for index, note in enumerate(node.notes[:2])]


def _square(x: float, half: float) -> str:
    side = 2 * half
    return (
        f'<rect x="{x - half:.1f}" y="{CHAIN_Y - half:.1f}" width="{side:g}" height="{side:g}" rx="2" fill="#fff" '
        f'stroke="{INK}" stroke-width="1.5"/>'
    )


class _Told(NamedTuple):
    """What stands at the end of a track: the figure, its limit, and whether it is over it."""

    value: str
    limit: str
    over: bool


def _track(title: str, top: float, points: list[Point], limits: list[tuple[Point, Point]], told: _Told) -> list[str]:
    """A figure along the run under its limit; `top` is the upper edge, 46 units above the base line."""
    value, limit, over = told
    colour = OVER if over else COPPER
    mark = "▲ " if over else ""
    parts = [
        _text(LABEL_X, top + 30, title, fill=QUIET),
        _line((START_X, top + 46), (END_X, top + 46), LINE),
        _path(points, colour),
        *(_line(start, end, INK, 1, "5 3") for start, end in limits),
        _text(END_X + 10, points[-1][1] + 4, mark + value, fill=colour),
    ]
    if limits and limit:
        value_y, limit_y = points[-1][1], limits[-1][1][1]
        if abs(limit_y - value_y) < 14:
            limit_y = value_y + 14 if over else value_y - 14
        parts.append(_text(END_X + 10, limit_y + 4, limit, fill=QUIET, size=10))
    return parts


def _volts(profile: RunProfile, scale: _Scale, top: float) -> list[str]:
    most = max(profile.volts_limit_v, profile.volts_lost_v) * 1.08

    def y(volts: float) -> float:
        return top + 46 * (1 - volts / most)

    along = [(START_X, y(0.0)), (float(BOARD_X), y(profile.board_volts_lost_v))]
    along += [(scale.x(one.to_m), y(one.volts_lost_v)) for one in profile.sections]
    limit = [((float(START_X), y(profile.volts_limit_v)), (float(END_X), y(profile.volts_limit_v)))]
    value = f"{profile.volts_lost_v:.1f} V, {profile.volts_lost_percent:.1f} %"
    over = profile.volts_lost_v > profile.volts_limit_v
    return _track("Volts lost", top, along, limit, _Told(value, f"limit {profile.volts_limit_v:.1f} V", over))


def _loop(profile: RunProfile, scale: _Scale, top: float) -> list[str]:
    limits_ohm = [chained.zs_limit_ohm for chained in profile.chain if chained.zs_limit_ohm is not None]
    most = max([profile.zs_ohm, *limits_ohm, *(mark.value for mark in profile.marks)]) * 1.08

    def y(ohm: float) -> float:
        return top + 46 * (1 - ohm / most)

    along = [(float(START_X), y(profile.origin_loop_ohm)), (float(BOARD_X), y(profile.board_loop_ohm))]
    along += [(scale.x(one.to_m), y(one.loop_ohm)) for one in profile.sections]
    limits = [
        ((scale.x(chained.from_m), y(chained.zs_limit_ohm)), (scale.x(chained.to_m), y(chained.zs_limit_ohm)))
        for chained in profile.chain
        if chained.zs_limit_ohm is not None
    ]
    last = profile.chain[-1].zs_limit_ohm
    limit = f"limit {last:.2f} Ω" if last is not None else ""
    over = last is not None and profile.zs_ohm > last
    parts = _track("Loop, hot", top, along, limits, _Told(f"{profile.zs_ohm:.2f} Ω", limit, over))
    for mark in profile.marks:
        x = START_X if mark.at == "cut_out" else scale.x(mark.at_m)
        fill = "#fff" if mark.expected else INK
        parts.append(f'<circle cx="{x:.1f}" cy="{y(mark.value):.1f}" r="4" fill="{fill}" stroke="{INK}"/>')
    return parts


def _amps(profile: RunProfile, scale: _Scale, top: float) -> list[str]:
    ratings = [one.iz_a for one in profile.sections if one.iz_a is not None]
    most = max([*ratings, *(chained.device_a for chained in profile.chain)]) * 1.1

    def y(amps: float) -> float:
        return top + 46 * (1 - amps / most)

    parts = [_text(LABEL_X, top + 30, "Cable, amps", fill=QUIET), _line((BOARD_X, top + 46), (END_X, top + 46), LINE)]
    for one in profile.sections:
        x1, x2 = scale.x(one.from_m), scale.x(one.to_m)
        if one.iz_a is None:
            parts.append(_text((x1 + x2) / 2, top + 20, "?", anchor="middle", fill=OVER))
            continue
        weak = one.iz_a < one.device_a
        parts.append(_line((x1, y(one.iz_a)), (x2, y(one.iz_a)), OVER if weak else COPPER, 3))
        if x2 - x1 > 26:
            parts.append(_text((x1 + x2) / 2, y(one.iz_a) - 4, f"{one.iz_a:.0f}", anchor="middle", size=10))
    for chained in profile.chain:
        x1, x2 = scale.x(chained.from_m), scale.x(chained.to_m)
        parts.append(_line((x1, y(chained.device_a)), (x2, y(chained.device_a)), INK, 1, "5 3"))
        parts.append(_line((x1, y(chained.load_a)), (x2, y(chained.load_a)), QUIET, 1, "1 3"))
    parts.append(_text(END_X + 10, top + 20, f"device {profile.device_a:.0f} A", size=10))
    parts.append(_text(END_X + 10, top + 36, f"load {profile.load_a:.0f} A", fill=QUIET, size=10))
    return parts
