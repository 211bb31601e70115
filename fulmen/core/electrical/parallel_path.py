"""What lies beside a conductor, from what it reads with it and what it would read alone."""

from __future__ import annotations


def parallel_path_ohm(alone_ohm: float, together_ohm: float) -> float | None:
    """The resistance that brings a conductor's figure down: 1/Rp = 1/R − 1/R_alone, so Rp = R·R_alone/(R_alone − R).

    Args:
        alone_ohm: the conductor by itself [Ω], above 0.
        together_ohm: what is read [Ω], above 0.

    Returns:
        The parallel path [Ω]; None where the reading is not lower, or is so low that no path explains it.

    >>> round(parallel_path_ohm(0.10, 0.05), 3)
    0.1
    >>> parallel_path_ohm(0.10, 0.12) is None
    True
    """
    if not 0 < together_ohm < alone_ohm:
        return None
    return together_ohm * alone_ohm / (alone_ohm - together_ohm)
