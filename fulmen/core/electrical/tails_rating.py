"""What tails carry by how they run: singles in 70 °C insulation, two loaded or three (BS 7671 Table 4D1A)."""

from __future__ import annotations

from fulmen.core.model.tails import TailsRun
from fulmen.core.reference.tables import table

# Those that nobody looked at are taken in conduit or trunking.
METHODS = {TailsRun.CLIPPED: "C", TailsRun.ENCLOSED: "B", TailsRun.INSULATED_WALL: "A", TailsRun.NOT_SEEN: "B"}


def tails_iz_a(csa_mm2: float, runs: TailsRun, phases: int) -> tuple[float, str]:
    """Iz of a stretch of the tails [A], and the table cell used.

    Args:
        csa_mm2: size [mm²].
        runs: how they run.
        phases: 1 or 3, of the supply.

    Raises:
        TableError: the table has no such size.

    >>> tails_iz_a(16.0, TailsRun.CLIPPED, 1)[0], tails_iz_a(16.0, TailsRun.NOT_SEEN, 1)[0]
    (87.0, 76.0)
    """
    ratings, column = table("tails_rating"), f"{METHODS[runs]}.{2 if phases == 1 else 3}"
    return ratings.at(column, csa_mm2), ratings.source(column, csa_mm2)
