"""From version 6: the cut-out fuse's standard is one of those that are known, since its loop in 5 s depends on it."""

from __future__ import annotations

from typing import Any

Document = dict[str, Any]
# What somebody wrote, by the number that stands in it.
STANDARDS = {"88-3": "bs_88_3", "1361": "bs_1361"}


def fuse_standard_is_chosen(document: Document) -> Document:
    """The text of the fuse's standard as a choice; what names none that is known is kept as the fuse's mark."""
    supply = document.get("supply")
    if not isinstance(supply, dict) or not isinstance(written := supply.get("cut_out_fuse_standard"), str):
        return document
    found = [standard for number, standard in STANDARDS.items() if number in written]
    chosen = found[0] if len(found) == 1 else "other" if written.strip() else "not_seen"
    changed = {**supply, "cut_out_fuse_standard": chosen}
    if chosen == "other":
        changed["cut_out_fuse_mark"] = written
    return {**document, "supply": changed}
