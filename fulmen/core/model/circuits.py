"""A circuit: its protective device, its cable and its route."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from fulmen.core.model.base import Id, Line, LoadA, Part, number
from fulmen.core.model.cables import Cable
from fulmen.core.model.guards import Device, DeviceKind, GuardBox
from fulmen.core.model.load import Appliance
from fulmen.core.model.route import Section
from fulmen.core.model.seen import Seen


class Phase(StrEnum):
    """The line conductor that a single-phase circuit takes from a three-phase board."""

    L1 = "L1"
    L2 = "L2"
    L3 = "L3"


class TerminalSchool(StrEnum):
    """How 90 °C cable meets 70 °C terminals: the conductor stays cool at the load, or the 70 °C table rates it."""

    BY_TEMPERATURE = "by_temperature"
    RATE_AT_70 = "rate_at_70"


class StaysConnected(StrEnum):
    """What stays connected to a cable that was there already while its insulation is tested."""

    SURGE_PROTECTION = "surge_protection"
    ELECTRONICS = "electronics"
    UNIT = "unit"


class Circuit(Part):
    """A circuit from a board, or from one of its groups: to a charge point, to another board, or to loads of its own.

    One to a charge point or to `loads` (sockets, lights) is final, one to another board a sub-main; `feeds` is empty
    where it feeds its loads.

    `phases` is a sub-main's; a final circuit has its charge point's. `phase` names the line conductor of a
    single-phase circuit at a three-phase board. `load_limit_a` is what a clamp on this circuit holds it to. One that
    is not fitted with this job is there already: judged and tested like the others, but not bought nor varied;
    `looked_at` says whether its device and its cable are as they were found, `serves_others` whether it feeds more than
    its charge point. `ring` says whether it goes round its loads and back to its own board, null where nobody looked;
    what is fitted with this job does so only where that was chosen. `stays_connected` is what can't be taken off
    one that was there already while its insulation is tested, null until somebody said it. `remarks` go beside its
    test results.
    """

    id: Id
    name: Line
    way: Line = ""
    from_board: Id
    group: Id | Literal[""] = ""
    feeds: Id | Literal[""] = ""
    loads: tuple[Appliance, ...] = Field(default=(), max_length=12)
    phases: Literal[1, 3] = 1
    phase: Phase = Phase.L1
    load_limit_a: LoadA | None = None
    fitted_with_this_job: bool = True
    looked_at: Seen = Seen.NOT_SEEN
    serves_others: Seen = Seen.NOT_SEEN
    ring: bool | None = None
    device: Device = Device()
    cable: Cable = Cable()
    terminals: TerminalSchool = TerminalSchool.BY_TEMPERATURE
    slack_m: Annotated[float, number(0, 20)] = 1.0
    route: tuple[Section, ...] = Field(default=(), max_length=200)
    boxes: tuple[GuardBox, ...] = Field(default=(), max_length=4)
    stays_connected: tuple[StaysConnected, ...] | None = None
    remarks: Line = ""

    @model_validator(mode="after")
    def _found_is_said(self) -> Self:
        """What stands there already is said, never supposed; what nobody has seen of it is named in `known_how`."""
        if self.fitted_with_this_job:
            return self
        missing = [name for name in FOUND if name not in self._said()]
        if missing:
            raise PydanticCustomError(
                "found_circuit", "{field}: say what stands there; name it in known_how if nobody has seen it",
                {"field": missing[0]},
            )  # fmt: skip
        return self

    def _said(self) -> set[str]:
        """The fields of device and cable that were given."""
        device = {f"device.{name}" for name in self.device.model_fields_set}
        device |= {"device.curve"} if self.device.kind is not DeviceKind.BREAKER else set()
        cable = {f"cable.{name}" for name in self.cable.model_fields_set}
        return device | cable


# What a circuit that is there already must say of itself.
FOUND = ("device.kind", "device.rating_a", "device.curve", "cable.record", "cable.csa_mm2")
