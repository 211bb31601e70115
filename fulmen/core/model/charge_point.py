"""The charge point: what it takes, what it holds inside, and where it is fixed."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.model.base import ChargeCurrentA, HeightM, Id, Line, Part
from fulmen.core.model.boards import Rcd
from fulmen.core.model.supply import Seen


class OpenPenSensing(StrEnum):
    """How an open-PEN device notices: main earth terminal to true earth, or line-to-neutral window."""

    MET_VOLTAGE = "met_voltage"
    LINE_NEUTRAL_WINDOW = "line_neutral_window"


class OpenPenDevice(Part):
    """An open-PEN detection device, in the charge point or before it."""

    sensing: OpenPenSensing = OpenPenSensing.LINE_NEUTRAL_WINDOW
    opens_protective_conductor: bool = True
    opens_within_s: Annotated[float, Field(strict=True, ge=0.01, le=60)] = 5


class ChargePoint(Part):
    """One charge point, by the facts that matter electrically."""

    id: Id
    name: Line
    serial_number: Line = ""
    phases: Literal[1, 3] = 1
    max_current_a: ChargeCurrentA = 32
    set_current_a: ChargeCurrentA | None = None
    tethered: bool = True
    device_min_a: ChargeCurrentA | None = None
    device_max_a: ChargeCurrentA | None = None
    open_pen_inside: Seen = Seen.NOT_SEEN
    open_pen_device: OpenPenDevice = OpenPenDevice()
    rdc_dd_inside: Seen = Seen.NOT_SEEN
    rcd_inside: Rcd | None = None
    ip_code: Annotated[str, Field(pattern=r"^IP[0-6][0-9]$")] | None = None
    connector_height_m: HeightM | None = None

    def design_current_a(self) -> float:
        """Ib, the current the charge point is set to, or the most it can take."""
        return self.max_current_a if self.set_current_a is None else self.set_current_a
