"""What ships with Fulmen and under which licence: `make licences`. Ends with 1 where something may not ship.

Read from what is installed: the metadata of every package of requirements.txt, the libraries that lie inside their
wheels, the front end's lock file. Only choices, families and libraries without metadata are written down, in
licences.toml.
"""

from __future__ import annotations

import json
import sys
import tomllib
from collections.abc import Iterator
from importlib.metadata import Distribution, distribution
from pathlib import Path
from typing import Any, NamedTuple

ROOT = Path(__file__).parents[1]
PERMISSIVE = {
    "0BSD", "Apache-2.0", "BSD-2-Clause", "BSD-3-Clause", "FTL", "IJG", "ISC", "MIT", "MIT-0", "MIT-CMU", "MPL-1.1",
    "MPL-2.0", "OFL-1.1", "PSF-2.0", "ZPL-2.1", "libpng-2.0", "libtiff",
}  # fmt: skip
# The words that metadata had before there were expressions.
CLASSIFIED = {
    "MIT License": "MIT",
    "Apache Software License": "Apache-2.0",
    "Zope Public License": "ZPL-2.1",
    "GNU Lesser General Public License v3 (LGPLv3)": "LGPL-3.0-only",
}


class Shipped(NamedTuple):
    """One thing that ships: its name, where it comes from, its licence, and why it may not ship."""

    name: str
    source: str
    licence: str
    fault: str


def written_down() -> dict[str, dict[str, str]]:
    """What licences.toml says."""
    found: dict[str, dict[str, str]] = tomllib.loads((ROOT / "scripts/licences.toml").read_text(encoding="utf-8"))
    return found


def shipped(told: dict[str, dict[str, str]]) -> Iterator[Shipped]:
    """Everything that ships, each with its licence."""
    for name in required():
        package = distribution(name)
        yield judged(name, "Python package", licences_of(package), told)
        for library in libraries_in(package):
            yield judged(library, f"inside {name}", [told["inside"].get(library, "")], told)
    for name, licence in bundled():
        yield judged(name, "npm package", choices(licence), told)
    for name, licence in told["of_the_machine"].items():
        yield judged(name, "of the machine", [licence], told)


def required() -> list[str]:
    """The packages that requirements.txt locks."""
    lines = (ROOT / "requirements.txt").read_text(encoding="utf-8").splitlines()
    return [line.split("==")[0] for line in lines if line and not line.startswith("#")]


def licences_of(package: Distribution) -> list[str]:
    """The licences that a package's metadata name; several are a choice."""
    meta: Any = package.metadata
    if meta.get("License-Expression"):
        return choices(meta["License-Expression"])
    classified = [one.split(" :: ")[-1] for one in meta.get_all("Classifier") or [] if one.startswith("License :: ")]
    if classified:
        return [CLASSIFIED.get(one, one) for one in classified]
    return [meta.get("License") or ""]


def libraries_in(package: Distribution) -> list[str]:
    """The shared libraries that lie beside a wheel's own modules, by name."""
    files = [file for file in package.files or [] if file.parent.name.endswith(".libs")]
    return sorted({file.name.split("-")[0].split(".so")[0] for file in files})


def bundled() -> Iterator[tuple[str, str]]:
    """The packages of the front end that are not for building alone."""
    packages = json.loads((ROOT / "frontend/package-lock.json").read_text(encoding="utf-8"))["packages"]
    for place, one in packages.items():
        if place and not one.get("dev") and not one.get("optional"):
            yield place.removeprefix("node_modules/"), one.get("license", "")


def choices(expression: str) -> list[str]:
    """The licences among which an expression lets choose."""
    return [one.strip(" ()") for one in expression.replace(" or ", " OR ").split(" OR ")]


def judged(name: str, source: str, offered: list[str], told: dict[str, dict[str, str]]) -> Shipped:
    """One thing with the licence that it ships under, or why it may not ship."""
    taken = told["taken"].get(name) or told["said"].get(name)
    if taken is None and len(offered) > 1:
        return Shipped(name, source, " or ".join(offered), "a choice: name the one taken under [taken]")
    licence = taken or offered[0]
    if licence in PERMISSIVE:
        return Shipped(name, source, licence, "")
    if licence.startswith("LGPL-"):
        return Shipped(name, source, licence, "" if name in told["replaceable"] else "say how it is replaced")
    return Shipped(name, source, licence or "not known", "neither permissive nor replaceable")


def main() -> int:
    """List everything; 1 where something may not ship."""
    told = written_down()
    faults = 0
    for one in shipped(told):
        how = told["replaceable"].get(one.name, "")
        print(f"{one.name:36} {one.licence:20} {one.source}{f'. {how}' if how else ''}")
        if one.fault:
            faults += 1
            print(f"  may not ship: {one.fault}", file=sys.stderr)
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
