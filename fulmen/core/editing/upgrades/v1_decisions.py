"""What a decision of version 1 rested on: told from the one sentence that version wrote for it.

The sentences are frozen here as that version wrote them. Where a sentence did not say what it rested on (a depth, a
margin), the basis stays unknown, and the question is asked again: the safe side.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from typing import Any

Document = dict[str, Any]
Basis = dict[str, Any]
Telling = Callable[[Document, str, "re.Match[str]"], Basis | None]

HAZARDS = {
    "drains or waste pipes": "drains",
    "cladding": "cladding",
    "block paving": "paving",
    "rough or dry-stone wall": "rough_wall",
    "existing duct: blocked until proven clear": "old_duct",
    "close to the road: can be hit": "near_road",
}


def basis_of(document: Document, decision: Document) -> Basis | None:
    """The basis of a decision of version 1, or None where it can't be told."""
    key, about = decision.get("key"), decision.get("about")
    if not isinstance(key, str) or not isinstance(about, str):
        return None
    rule, _, subject = key.partition("/")
    for pattern, telling in SENTENCES.get(rule, ()):
        found = re.fullmatch(pattern, about, re.DOTALL)
        if found:
            return telling(document, subject, found)
    return None


def _always(**basis: Any) -> Telling:
    return lambda document, subject, found: dict(basis)


def _figures(*names: str) -> Telling:
    return lambda document, subject, found: {name: float(found[place]) for place, name in enumerate(names, 1)}


def _part(document: Document, group: str, name: str, value: str) -> Document:
    entries = document.get(group)
    parts = [one for one in entries if isinstance(one, dict)] if isinstance(entries, list) else []
    return next((one for one in parts if one.get(name) == value), {})


def _inner(document: Document, name: str) -> Document:
    part = document.get(name)
    return part if isinstance(part, dict) else {}


def _board_case(document: Document, subject: str, found: re.Match[str]) -> Basis:
    new = _part(document, "boards", "id", subject).get("fitted_with_this_job", False)
    return {"enclosure": "plastic", "new": new}


def _tns(document: Document, subject: str, found: re.Match[str]) -> Basis:
    return {"school": "as_found", "confirmation": _inner(document, "supply").get("tns_confirmation", "")}


def _data_way(document: Document, subject: str, found: re.Match[str]) -> Basis:
    feeder = _part(document, "circuits", "id", subject)
    point = _part(document, "charge_points", "id", feeder.get("feeds", subject))
    return {"asks_for": point.get("data_ways", []), "found": _inner(document, "site").get("data_ways", [])}


def _maker_device(document: Document, subject: str, found: re.Match[str]) -> Basis:
    rating = _inner(_part(document, "circuits", "id", subject), "device").get("rating_a")
    low, high, least = (float(found[place]) for place in (1, 2, 3))
    return {"min_a": low, "max_a": high, "least_a": least, "rating_a": rating}


def _hazards(document: Document, subject: str, found: re.Match[str]) -> Basis | None:
    told = [next((key for words, key in HAZARDS.items() if one.startswith(f"{words}: ")), None)
            for one in found[1].split("; ")]  # fmt: skip
    return None if None in told else {"hazards": told}


def _selectivity(document: Document, subject: str, found: re.Match[str]) -> Basis | None:
    circuit = _part(document, "circuits", "id", subject)
    feeder = _part(document, "circuits", "feeds", circuit.get("from_board", ""))
    before = _inner(feeder, "device")
    if not before:
        fuse_a = _inner(document, "supply").get("cut_out_fuse_a")
        before = {"kind": "fuse", "curve": "", "rating_a": fuse_a}
    return {**_device("nearer", _inner(circuit, "device")), **_device("further", before)}


def _device(which: str, device: Document) -> Basis:
    return {
        f"{which}_kind": device.get("kind", "breaker"),
        f"{which}_curve": device.get("curve", "B"),
        f"{which}_a": device.get("rating_a", 40),
    }


NUMBER = r"([\d.]+)"
SENTENCES: Mapping[str, tuple[tuple[str, Telling], ...]] = {
    "isolator": ((r"No isolator between meter and board: .*", _always(isolator="no")),),
    "tails_sleeved": ((r"Marking is missing: .*", _always(sleeved="no")),),
    "own_land": ((r"A lead must not lie across .*", _always(own_land="no")),),
    "danger_left": ((r"Left as found: (.*)\. Say in writing .*", lambda *call: {"left": [call[2][1][:100]]}),),
    "gland_entry": ((r"The unit has no entry .*", _always(takes_armour="no")),),
    "flex_tail": ((r"It comes with a flexible tail: .*", _always(flex_tail=True)),),
    "smart": ((r"No off-peak default, .*", _always(smart="no")),),
    "data_way": ((r"It asks for: .*", _data_way),),
    "board_labels": ((r"Labels are missing: .*", _always(labels_complete="no")),),
    "board_case": ((r"Plastic\. .*", _board_case),),
    "surge": ((r"None is fitted\. .*", _always(fitted="no")),),
    "tns_school": ((r"Accepted as found .*", _tns),),
    "rcd_at_board": ((r"You rely on the RCD in the unit; .*", _always(at_board=False)),),
    "rcd_neutral": ((r"It leaves the neutral closed: .*", _always(switches_neutral=False, unit_opens_both=True)),),
    "slack": ((r"None: the next unit .*", _always(slack_m=0)),),
    "section_hazard": ((r"(.*)\. Say how you deal with it\.", _hazards),),
    "selectivity": ((r"The one before is no bigger, .*", _selectivity),),
    "connector_height": (
        (rf"{NUMBER} m above ground; {NUMBER} to {NUMBER} m is wanted\.", _figures("height_m", "low_m", "high_m")),
    ),
    "maker_device": ((rf"The maker allows {NUMBER} to {NUMBER} A; {NUMBER} A would do\. .*", _maker_device),),
    "agree_fault_current": ((rf"Read {NUMBER} kA; Ze {NUMBER} Ω .*", _figures("fault_ka", "ze_ohm")),),
} | {
    rule: ((rf"Read {NUMBER}, expected {NUMBER} to {NUMBER} Ω: .*", _figures("value", "low", "high")),)
    for rule in ("agree_r1_r2", "agree_r1_rn", "agree_ze", "agree_zs")
}  # fmt: skip
