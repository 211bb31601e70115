"""What is reckoned with though nobody has seen it: facts of circuits that are there already, and what rests on them.

Device, cable and surroundings of such a circuit always hold a value, so that figures can be worked out; `known_how`
says of each that it was not seen. Nothing that rests on one meets.
"""

from __future__ import annotations

from collections.abc import Iterator

from fulmen.core.installation.legs import legs_of
from fulmen.core.installation.tree import Tree, guards_along, guards_in
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.guards import DeviceKind
from fulmen.core.model.job import Job
from fulmen.core.model.known_how import KnownHow
from fulmen.core.model.seen import Seen

UNSEEN = (KnownHow.NOT_SEEN, KnownHow.EARLIER_VERSION)
DEVICE = {"kind": "what its device is", "rating_a": "its rated current", "curve": "its curve"}
CABLE = {"record": "its kind of cable", "csa_mm2": "its size", "protective": "its protective conductor"}


def found_facts(circuit: Circuit) -> dict[str, str]:
    """What has to be seen of a circuit that is there already, by its field below the circuit's, in words."""
    facts = {f"device.{name}": words for name, words in DEVICE.items()}
    if circuit.device.kind is not DeviceKind.BREAKER:
        del facts["device.curve"]
    facts |= {f"cable.{name}": words for name, words in CABLE.items()}
    return facts | {
        f"route.{place}.surroundings": f"where section {place + 1} lies" for place in range(len(circuit.route))
    }


def not_seen_of(job: Job, index: int) -> tuple[str, ...]:
    """What nobody has seen of a circuit that is there already, in words."""
    circuit, known = job.circuits[index], job.known_how
    if circuit.fitted_with_this_job or not known:
        return ()
    return tuple(
        words for field, words in found_facts(circuit).items() if known.get(f"circuits.{index}.{field}") in UNSEEN
    )


def unseen_subjects(job: Job, tree: Tree) -> frozenset[str]:
    """What nothing is said to meet of: circuits not looked at, those that they feed, and the guards beside them."""
    unseen = [
        one
        for index, one in enumerate(job.circuits)
        if not one.fitted_with_this_job and (one.looked_at is not Seen.YES or not_seen_of(job, index))
    ]
    return frozenset(subject for one in unseen for subject in _resting_on(one, tree)) if unseen else frozenset()


def _resting_on(circuit: Circuit, tree: Tree) -> Iterator[str]:
    """A circuit with its sections, the guards before it at its board, and all that it feeds."""
    yield circuit.id
    yield from (leg.subject for leg in legs_of(circuit))
    yield from (f"{circuit.id}-{number}" for number in range(1, len(circuit.route) + 1))
    yield from (guard.id for guard in (*guards_along(circuit), *guards_in(tree.boards[circuit.from_board])))
    fed = tree.boards.get(circuit.feeds)
    if fed is not None:
        for one in tree.leaving[fed.id]:
            yield from _resting_on(one, tree)
