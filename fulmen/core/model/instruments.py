"""The register of instruments: what a reading was taken with, and until when it is calibrated."""

from __future__ import annotations

from enum import StrEnum

from fulmen.core.model.base import Day, Line, Name, Part


class Function(StrEnum):
    """What an instrument can measure or do; each step of the tests asks for one."""

    VOLTAGE = "voltage"
    CONTINUITY = "continuity"
    INSULATION = "insulation"
    ELECTRODE = "electrode"
    LOOP = "loop"
    RCD = "rcd"
    DIRECT_RESIDUAL = "direct_residual"
    PHASE_SEQUENCE = "phase_sequence"
    VEHICLE = "vehicle"
    CURRENT = "current"


class Instrument(Part):
    """One instrument. Readings name it by its `name`, so the name stays once a reading was taken with it.

    `calibration_due` is null until somebody looked at its label; `functions` are what it can do.
    """

    name: Name
    serial_number: Line = ""
    calibration_due: Day | None = None
    functions: tuple[Function, ...] = ()
