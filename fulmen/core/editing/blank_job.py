"""A blank sheet: the least job that can be worked on, every fact still to be seen, every choice at its usual start."""

from __future__ import annotations

from fulmen.core.model.boards import Board
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import Device, Guard, GuardKind, RcdType, ordered_rcd
from fulmen.core.model.job import Job
from fulmen.core.model.supply import Supply
from fulmen.core.model.tails import TailsStretch


def blank_job(title: str, reference: str = "") -> Job:
    """A job with one board, one charge point and a circuit between them whose route is empty.

    >>> blank_job("Drive").circuits[0].route
    ()
    """
    device = Device(rating_a=32, rcd=ordered_rcd(RcdType.A))
    return Job(
        title=title,
        reference=reference,
        boards=(Board(id="board", name="Consumer unit", incomer=(Guard(id="main-switch", kind=GuardKind.SWITCH),)),),
        supply=Supply(tails=(TailsStretch(id="tails", board="board"),)),
        circuits=(Circuit(id="ev", name="Charge point", from_board="board", feeds="charge-point", device=device),),
        charge_points=(ChargePoint(id="charge-point", name="Charge point"),),
    )
