"""The run as SVG for the papers: chain, sections and the three tracks, from the same profile as the band on screen."""

from __future__ import annotations

from html import escape

from fulmen.core.circuit.guard_views import GuardView
from fulmen.core.circuit.run_profile import ProfileNode, RunProfile
from fulmen.core.circuit.run_tracks import RunTrack
from fulmen.core.installation.guards import Stands
from fulmen.documents.guard_rail import guard_rail

WIDTH, HEIGHT = 860, 400
LABEL_X, START_X, BOARD_X, END_X = 6, 92, 186, 720
CHAIN_Y = 62
TRACK_TOPS, AMPS_TOP, TRACK_PX = (200, 265), 335, 46
COPPER, INK, QUIET, LINE, OVER = "#a9522a", "#1c2430", "#555b66", "#c9c2b4", "#b3261e"

Point = tuple[float, float]


class _Scale:
    """Distances along the run to the width of the drawing; the stretch before the board is not to scale."""

    def __init__(self, profile: RunProfile) -> None:
        self.length_m = profile.length_m or 1.0

    def x(self, at_m: float | None) -> float:
        """Where a distance from the board lies; none is the cut-out, before the board."""
        if at_m is None:
            return START_X
        return BOARD_X + (END_X - BOARD_X) * at_m / self.length_m


def run_drawing(profile: RunProfile, guards: tuple[GuardView, ...]) -> str:
    """One run as an SVG document, with a title and a description for who can't see it."""
    scale = _Scale(profile)
    parts = [
        *_chain(profile, scale),
        guard_rail(_placed(guards, scale), (LABEL_X, WIDTH - LABEL_X), CHAIN_Y, INK),
        *(part for top, track in zip(TRACK_TOPS, profile.tracks, strict=True) for part in _track(track, scale, top)),
        *_marks(profile, scale),
        *_amps(profile, scale, AMPS_TOP),
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


def _placed(guards: tuple[GuardView, ...], scale: _Scale) -> list[tuple[GuardView, float]]:
    """Each guard with where on the chain it stands."""
    return [(one, START_X if one.stands is Stands.CUT_OUT else scale.x(one.at_m)) for one in guards]


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


def _y(value: float, most: float, top: float) -> float:
    """The height of a figure on a track whose scale ends at `most`."""
    return top + TRACK_PX * (1 - value / (most or 1.0))


def _track(track: RunTrack, scale: _Scale, top: float) -> list[str]:
    """A figure along the run under its limits; `top` is the upper edge."""
    colour = OVER if track.over else COPPER
    along = zip(track.at_m, track.values, strict=True)
    points = [(scale.x(at_m), _y(value, track.most, top)) for at_m, value in along]
    end_y = points[-1][1]
    parts = [
        _text(LABEL_X, top + 30, track.title, fill=QUIET),
        _line((START_X, top + TRACK_PX), (END_X, top + TRACK_PX), LINE),
        _path(points, colour),
        _text(END_X + 10, end_y + 4, ("⚠ " if track.over else "") + track.value_words, fill=colour),
    ]
    for one in track.limits:
        y = _y(one.value, track.most, top)
        parts.append(_line((scale.x(one.from_m), y), (scale.x(one.to_m), y), INK, 1, "5 3"))
    if track.limit_words:
        limit_y = _y(track.limits[-1].value, track.most, top)
        if abs(limit_y - end_y) < 14:
            limit_y = end_y + 14 if track.over else end_y - 14
        parts.append(_text(END_X + 10, limit_y + 4, track.limit_words, fill=QUIET, size=10))
    return parts


def _marks(profile: RunProfile, scale: _Scale) -> list[str]:
    """Readings on the loop's track: filled where read, open where expected."""
    loop, top = profile.tracks[1], TRACK_TOPS[1]
    parts = []
    for mark in profile.marks:
        x = START_X if mark.at == "cut_out" else scale.x(mark.at_m)
        fill = "#fff" if mark.expected else INK
        y = _y(mark.value, loop.most, top)
        parts.append(f'<circle cx="{x:.1f}" cy="{y:.1f}" r="4" fill="{fill}" stroke="{INK}"/>')
    return parts


def _amps(profile: RunProfile, scale: _Scale, top: float) -> list[str]:
    amps = profile.amps
    base = top + TRACK_PX
    parts = [_text(LABEL_X, top + 30, amps.title, fill=QUIET), _line((BOARD_X, base), (END_X, base), LINE)]
    for one in profile.sections:
        x1, x2 = scale.x(one.from_m), scale.x(one.to_m)
        if one.iz_a is None:
            parts.append(_text((x1 + x2) / 2, top + 20, "?", anchor="middle", fill=OVER))
            continue
        y = _y(one.iz_a, amps.most, top)
        parts.append(_line((x1, y), (x2, y), OVER if one.index in amps.weak else COPPER, 3))
        if x2 - x1 > 26:
            parts.append(_text((x1 + x2) / 2, y - 4, f"{one.iz_a:.0f}", anchor="middle", size=10))
    for chained in profile.chain:
        x1, x2 = scale.x(chained.from_m), scale.x(chained.to_m)
        for value, colour, dash in ((chained.device_a, INK, "5 3"), (chained.load_a, QUIET, "1 3")):
            y = _y(value, amps.most, top)
            parts.append(_line((x1, y), (x2, y), colour, 1, dash))
    parts.append(_text(END_X + 10, top + 20, amps.value_words, fill=INK if amps.holds else OVER, size=10))
    parts.append(_text(END_X + 10, top + 36, amps.load_words, fill=QUIET, size=10))
    return parts
