"""The proof of a load limit: how its clamp sits, and what was seen when a known load was switched on."""

from __future__ import annotations

from typing import Annotated

from fulmen.core.model.base import Line, LoadA, Moment, Name, Part, number
from fulmen.core.model.seen import Seen

# A clamp that sits the wrong way shows a current below nothing.
ShownA = Annotated[float, number(-400, 400)]


class ClampProof(Part):
    """The guided test at one unit. What was not looked at is null or not seen.

    `limit_set_a` is what the unit is left at; `test_limit_a` what it was turned down to for the test, if it was.
    `shown_*_a` is the house's current as the unit shows it: before and with the known load, the car not charging, and
    with the car alone. `offered_*_a` is what the car is offered, without and with the known load; 0 where it paused.
    """

    limit_set_a: LoadA | None = None
    arrow_with_current: Seen = Seen.NOT_SEEN
    round_line_only: Seen = Seen.NOT_SEEN
    wire_pair: Line = ""
    known_load_a: LoadA | None = None
    test_limit_a: LoadA | None = None
    shown_without_a: ShownA | None = None
    shown_with_a: ShownA | None = None
    shown_with_car_a: ShownA | None = None
    offered_without_a: LoadA | None = None
    offered_with_a: LoadA | None = None
    follows_s: Annotated[float, number(0, 600)] | None = None
    reports_fault: Seen = Seen.NOT_SEEN
    tested_by: Name | None = None
    tested_at: Moment | None = None
