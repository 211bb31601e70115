"""How long looking for other ways may go on: asked before every step, told what was left out.

The core knows no clock and no caller: whoever asks says whether it goes on.
"""

from __future__ import annotations

from collections.abc import Callable


class Budget:
    """Says whether the next step is still wanted; once it is not, none is."""

    def __init__(self, goes_on: Callable[[], bool] = lambda: True) -> None:
        self._goes_on = goes_on
        self.spent = False

    def allows(self) -> bool:
        """Whether one more step may be taken."""
        if not self.spent:
            self.spent = not self._goes_on()
        return not self.spent
