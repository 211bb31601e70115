"""The run that other ways are looked for: it leads to a charge point, and its circuit has a route."""

from __future__ import annotations

from fulmen.core.errors import InputError
from fulmen.core.installation.installation import Installation
from fulmen.core.installation.run import Run


def routed_run(installation: Installation, charge_point: str) -> Run:
    """The run to a charge point.

    Raises:
        InputError: no circuit with a route feeds such a charge point.
    """
    run = installation.run_to(charge_point)
    if run is None or not run.chain or not run.final().circuit.route:
        raise InputError("charge_point", f"No circuit with a route feeds “{charge_point}” yet: enter the route first.")
    return run
