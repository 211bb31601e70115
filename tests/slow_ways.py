"""Looking for other ways that takes its time, for tests of what is seen meanwhile: processes import it by name."""

from __future__ import annotations

import time
from collections.abc import Iterator
from typing import Any

from fulmen.core.so_far import SoFar
from fulmen.web.looking import child

looks_for_other_ways, looks_for_remedies, looks_how_far = child.other_ways, child.remedies, child.how_far_it_holds


def slow_other_ways(*given: Any) -> Iterator[SoFar[Any]]:
    """The search, so slow that it goes on for minutes."""
    return _slowed(looks_for_other_ways(*given))


def slow_remedies(*given: Any) -> Iterator[SoFar[Any]]:
    """The remedies, as slow."""
    return _slowed(looks_for_remedies(*given))


def slow_reach(*given: Any) -> Iterator[SoFar[Any]]:
    """How far it holds, as slow."""
    return _slowed(looks_how_far(*given))


def _slowed(steps: child.Steps) -> Iterator[SoFar[Any]]:
    for one in steps:
        yield one
        time.sleep(0.5)
