"""From version 2: guards stand in the tree, and every charge point has an arrangement of its own.

The main switch stood with the supply, the RCD in front beside its board, a separate open-PEN device with the
arrangement, a DC detector before the unit nowhere at all; one arrangement served every charge point.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

Document = dict[str, Any]
MAIN_SWITCH = {"standard": "BS EN 60947-3", "location": "", "poles": 2, "rating_a": None, "voltage_v": 230}
OPEN_PEN = {"sensing": "line_neutral_window", "opens_protective_conductor": True, "opens_within_s": 5}


def guards_stand_in_boards(document: Document) -> Document:
    """The main switch becomes the first guard of the origin's board; an RCD in front one of its board's or group's.

    What a main switch says that equals the old default was never asked for: it arrives as not known, unless readings
    were taken, since then a paper may rest on it.
    """
    names, boards = _Names(document), _parts(document, "boards")
    fed = [one.get("feeds") for one in _parts(document, "circuits")]
    origin = next((board for board in boards if board.get("id") not in fed), None)

    def with_guards(board: Document) -> Document:
        incomer = [_main_switch(document, names)] if board is origin else []
        return _with_front_rcd(board, incomer, names)

    after = _each(document, "boards", with_guards)
    after = _each(after, "circuits", lambda circuit: _in_group(circuit, _parts(after, "boards")))
    supply = document.get("supply")
    if not isinstance(supply, dict):
        return after
    return {**after, "supply": {name: value for name, value in supply.items() if name != "main_switch"}}


def _main_switch(document: Document, names: _Names) -> Document:
    supply = document.get("supply")
    stored = supply.get("main_switch") if isinstance(supply, dict) else None
    said = {**MAIN_SWITCH, **(stored if isinstance(stored, dict) else {})}
    if not document.get("readings"):
        blank = {"standard": "", "poles": None, "voltage_v": None}
        said |= {name: value for name, value in blank.items() if said[name] == MAIN_SWITCH[name]}
    return {"id": names.free("main-switch"), "kind": "switch", **said}


def _with_front_rcd(board: Document, incomer: list[Document], names: _Names) -> Document:
    """The RCD in front of the new way: of all ways, or of the RCD side where the board is a split load."""
    kept = {name: value for name, value in board.items() if name != "front_rcd"}
    rcd = board.get("front_rcd")
    if rcd is None:
        return {**kept, "incomer": incomer} if incomer else kept
    guard = {
        "id": names.free("front-rcd"), "kind": "rccb", "rcd": rcd,
        "fitted_with_this_job": board.get("fitted_with_this_job", False),
    }  # fmt: skip
    delayed = isinstance(rcd, dict) and rcd.get("time_delayed") is True
    if board.get("make_up") != "split_load" or delayed:
        return {**kept, "incomer": [*incomer, guard]}
    group = {"id": names.free("rcd-side"), "name": "RCD side", "guards": [guard]}
    return {**kept, "incomer": incomer, "groups": [group]}


def _in_group(circuit: Document, boards: list[Document]) -> Document:
    """A circuit of a board with an RCD side came from behind that RCD."""
    board = next((one for one in boards if one.get("id") == circuit.get("from_board")), {})
    return {**circuit, "group": board["groups"][0]["id"]} if board.get("groups") else circuit


def arrangement_for_each_point(document: Document) -> Document:
    """Every charge point gets the job's arrangement; what it relies on before the unit stands in a box there."""
    arrangement = document.get("arrangement")
    shared = arrangement if isinstance(arrangement, dict) else {}
    own = {name: value for name, value in shared.items() if name != "separate_device"}
    names, points = _Names(document), [one.get("id") for one in _parts(document, "charge_points")]
    guards = list(_relied_on(document, shared))

    def with_box(circuit: Document) -> Document:
        relies = guards and circuit.get("feeds") in points
        return {**circuit, "boxes": [_box(circuit, guards, names)]} if relies else circuit

    after = {name: value for name, value in document.items() if name != "arrangement"}
    after = _each(after, "charge_points", lambda point: {**point, "arrangement": own})
    return _each(after, "circuits", with_box)


def _relied_on(document: Document, arrangement: Document) -> Iterator[Document]:
    """The kinds of guard that an arrangement counted on before the unit, though they stood nowhere."""
    supply = document.get("supply")
    tt = isinstance(supply, dict) and supply.get("earthing") == "tt"
    island = arrangement.get("car_earth") == "own_electrode"
    if arrangement.get("open_pen") == "separate_device" and not tt and not island:
        device = arrangement.get("separate_device")
        yield {"kind": "open_pen_device", "open_pen": {**OPEN_PEN, **(device if isinstance(device, dict) else {})}}
    if arrangement.get("rdc_dd") == "before_unit":
        yield {"kind": "dc_detector"}


def _box(circuit: Document, guards: list[Document], names: _Names) -> Document:
    fitted = circuit.get("fitted_with_this_job", True)
    held = [
        {"id": names.free("open-pen" if one["kind"] == "open_pen_device" else "dc-detector"),
         "fitted_with_this_job": fitted, **one}
        for one in guards
    ]  # fmt: skip
    return {
        "id": names.free("box-before-unit"), "name": "Box before the unit", "guards": held,
        "fitted_with_this_job": fitted,
    }  # fmt: skip


def tails_in_stretches(document: Document) -> Document:
    """The tails were one conductor to the first board; now they are its first stretch, from cut-out to board."""
    supply = document.get("supply")
    if not isinstance(supply, dict):
        return document
    names, moved = (
        _Names(document),
        {"tails_csa_mm2": "csa_mm2", "tails_length_m": "length_m", "tails_sleeved": "sleeved"},
    )
    fed = [one.get("feeds") for one in _parts(document, "circuits")]
    origin = next((one.get("id") for one in _parts(document, "boards") if one.get("id") not in fed), "")
    stretch = {
        "id": names.free("tails"),
        "board": origin,
        **{new: supply[old] for old, new in moved.items() if old in supply},
    }
    return {
        **document,
        "supply": {**{old: value for old, value in supply.items() if old not in moved}, "tails": [stretch]},
    }


def reliance_names_the_unit(document: Document) -> Document:
    """The call to rely on the RCD in the unit rested on there being none at the board; it rests on the unit's too."""
    decisions = document.get("decisions")
    if not isinstance(decisions, list):
        return document
    return {**document, "decisions": [_reliance(document, one) for one in decisions]}


def _reliance(document: Document, decision: Any) -> Any:
    if not isinstance(decision, dict) or not isinstance(decision.get("basis"), dict):
        return decision
    rule, _, subject = str(decision.get("key", "")).partition("/")
    if rule != "rcd_at_board" or "at_board" not in decision["basis"]:
        return decision
    feeds = next((one.get("feeds") for one in _parts(document, "circuits") if one.get("id") == subject), None)
    point = next((one for one in _parts(document, "charge_points") if one.get("id") == feeds), {})
    rcd = point.get("rcd_inside")
    if not isinstance(rcd, dict):
        return decision
    relied = {"relies_on": ["unit"], "types": [rcd.get("type")], "residual_ma": [rcd.get("residual_ma", 30)]}
    return {**decision, "basis": {**decision["basis"], **relied}}


class _Names:
    """Ids that the document has not used yet."""

    def __init__(self, document: Document) -> None:
        self._taken = {"origin"}
        for group in ("boards", "circuits", "charge_points", "maker_cables"):
            for one in _parts(document, group):
                self._taken |= _ids(one)

    def free(self, wanted: str) -> str:
        """The wanted id, or the next free one after it."""
        tried = (wanted, *(f"{wanted}-{number}" for number in range(2, 999)))
        found = next(name for name in tried if name not in self._taken)
        self._taken.add(found)
        return found


def _ids(part: Document) -> set[str]:
    """The id of a part, and of what stands inside it."""
    found = {part["id"]} if isinstance(part.get("id"), str) else set()
    for value in part.values():
        for inner in value if isinstance(value, list) else ():
            found |= _ids(inner) if isinstance(inner, dict) else set()
    return found


def _parts(document: Document, group: str) -> list[Document]:
    entries = document.get(group)
    return [one for one in entries if isinstance(one, dict)] if isinstance(entries, list) else []


def _each(document: Document, group: str, change: Callable[[Document], Document]) -> Document:
    entries = document.get(group)
    if not isinstance(entries, list):
        return document
    return {**document, group: [change(one) if isinstance(one, dict) else one for one in entries]}
