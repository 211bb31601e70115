"""Which part of the suite a module belongs to: its folder says. Parts stand in the order they are begun, the long ones first."""

from __future__ import annotations

from pathlib import Path

# Part → the folders under tests/ whose modules it runs; "" is tests/ itself.
PARTS: dict[str, tuple[str, ...]] = {
    "browser": ("browser",),
    "static": ("static",),
    "documents": ("documents", "photos"),
    "store and web": ("store", "web", "simulators", ""),
    "trials": ("trials", "validation", "independent"),
    "core": ("core",),
}


def modules(root: Path) -> dict[str, list[str]]:
    """Part → the names of its modules."""
    found: dict[str, list[str]] = {part: [] for part in PARTS}
    part_of = {folder: part for part, folders in PARTS.items() for folder in folders}
    tests = root / "tests"
    for path in sorted(tests.rglob("test_*.py")):
        folder = path.parent.relative_to(tests).parts[:1]
        found[part_of[folder[0] if folder else ""]].append(".".join(path.relative_to(root).with_suffix("").parts))
    return found
