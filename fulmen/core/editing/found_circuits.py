"""Saying of a circuit that it is there already, or that it is fitted: what was chosen is not what is found.

Its device, cable and surroundings go on being reckoned with, marked as not seen until somebody says each of them.
"""

from __future__ import annotations

from fulmen.core.installation.unseen import found_facts
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import RcdMark
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.seen import Seen


def said_found(job: Job, circuit_id: str, *, found: bool) -> Job:
    """The job with a circuit said to be there already, or to be fitted with this job."""
    index = next(at for at, one in enumerate(job.circuits) if one.id == circuit_id)
    circuit = job.circuits[index]
    own = {f"circuits.{index}.{field}" for field in found_facts(circuit)}
    known_how = {path: how for path, how in job.known_how.items() if path not in own}
    if found:
        known_how |= dict.fromkeys(sorted(own), KnownHow.NOT_SEEN)
    changed = _as_found(circuit) if found else circuit.model_copy(update={"fitted_with_this_job": True})
    circuits = (*job.circuits[:index], changed, *job.circuits[index + 1 :])
    return job.model_copy(update={"circuits": circuits, "known_how": known_how})


def _as_found(circuit: Circuit) -> Circuit:
    """What was to be ordered says nothing of what stands there: marks are read, not taken over."""
    device = circuit.device.model_copy(
        update={
            "poles": None, "voltage_v": None, "energy_class": None, "both_ways": Seen.NOT_SEEN,
            "rcd": RcdMark() if circuit.device.rcd is not None else None,
        }
    )  # fmt: skip
    return circuit.model_copy(update={"fitted_with_this_job": False, "looked_at": Seen.NOT_SEEN, "device": device})
