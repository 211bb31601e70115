"""The guards of a run in a row beneath its chain, for the papers: by symbol and caption, none over another.

The screen draws the same row from the same list; see `run/useGuardRail.ts`.
"""

from __future__ import annotations

from html import escape

from fulmen.core.circuit.guard_views import GuardView

WIDEST_PX, HALF_PX = 84.0, 11
CONTACT = "M0 -12V-6M0 12V5L-8 -5"
TRIPS = "M-3 -9l6 6m0 -6l-6 6"
SUMS = "M-8 8a8 3.2 0 1 0 16 0a8 3.2 0 1 0 -16 0"
FUSE = "M-6 -11h12v22h-12zM0 -11V11"
SYMBOLS = {
    "fuse": FUSE,
    "rewirable": FUSE,
    "switch": CONTACT,
    "breaker": CONTACT + TRIPS,
    "rcbo": CONTACT + TRIPS + SUMS,
    "rccb": CONTACT + SUMS,
    "open_pen_device": CONTACT + "M5 2H11M6.5 5H9.5M8 -4V2",
    "dc_detector": "M-10.5 0a10.5 10.5 0 1 0 21 0a10.5 10.5 0 1 0 -21 0M-6 -2.5H6M-6 3h3M-1.5 3h3M3 3h3",
}


def guard_rail(guards: list[tuple[GuardView, float]], ends: tuple[float, float], chain_y: float, colour: str) -> str:
    """The row as SVG.

    Args:
        guards: each guard with where on the chain it stands.
        ends: the left and the right end of the row.
        chain_y: the height of the chain above it.
        colour: of lines and words.
    """
    gap = min(WIDEST_PX, (ends[1] - ends[0]) / max(1, len(guards)))
    places = spread([x for _, x in guards], gap, ends[0] + gap / 2, ends[1] - gap / 2)
    y = chain_y + 50
    parts = []
    for (guard, from_x), x in zip(guards, places, strict=True):
        leader = f"M{from_x:.1f} {chain_y + 28:.1f}V{y - 18:.1f}H{x:.1f}V{y - 13:.1f}"
        parts.append(f'<path d="{leader}" fill="none" stroke="{colour}" stroke-width="0.7"/>')
        parts.append(
            f'<path transform="translate({x:.1f} {y:.1f})" d="{SYMBOLS[guard.kind]}" fill="none" stroke="{colour}" '
            'stroke-width="1.5"/>'
        )
        for number, line in enumerate(caption_lines(guard.short, int(gap / 5.6))):
            words = f'text-anchor="middle" fill="{colour}" font-size="10">{escape(line)}</text>'
            parts.append(f'<text x="{x:.1f}" y="{y + 24 + 11 * number:.1f}" {words}')
    return "".join(parts)


def spread(wanted: list[float], gap: float, low: float, high: float) -> list[float]:
    """Positions as near as can be to the wanted ones, in order, at least a gap apart, between two ends.

    >>> spread([10, 10, 10], 20, 0, 100)
    [0.0, 20.0, 40.0]
    """
    blocks: list[tuple[float, int]] = []
    for index, x in enumerate(wanted):
        total, count = x - index * gap, 1
        # Neighbours that would come too close move as one block, about the mean of where they want to be.
        while blocks and blocks[-1][0] / blocks[-1][1] > total / count:
            before = blocks.pop()
            total, count = total + before[0], count + before[1]
        blocks.append((total, count))
    means = [total / count for total, count in blocks for _ in range(count)]
    most = high - (len(wanted) - 1) * gap
    return [float(max(low, min(most, mean)) + index * gap) for index, mean in enumerate(means)]


def caption_lines(words: str, most: int) -> list[str]:
    """A caption in at most two lines, the longer as short as can be.

    >>> caption_lines("B40 A 30 mA", 8)
    ['B40 A', '30 mA']
    """
    parts = words.split(" ")
    if len(words) <= most or len(parts) == 1:
        return [words]
    pairs = [[" ".join(parts[:place]), " ".join(parts[place:])] for place in range(1, len(parts))]
    return min(pairs, key=lambda pair: max(len(one) for one in pair))
