"""Figures and texts as people enter them, for property tests: none tinier than means anything, none that can't be shown."""

from __future__ import annotations

from hypothesis import strategies as st

from fulmen.core.model.base import UNSHOWABLE


def figures(low: float, high: float) -> st.SearchStrategy[float]:
    """Numbers between two ends, to four places."""
    return st.floats(low, high).map(lambda figure: min(max(round(figure, 4), low), high))


def lines(most: int) -> st.SearchStrategy[str]:
    """Texts of one line."""
    return st.text(max_size=most).map(lambda text: " ".join(UNSHOWABLE.sub("", text).split()))
