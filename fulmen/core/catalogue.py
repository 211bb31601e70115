"""The catalogue of generic cable records: which table rates them, and what their protective conductor is."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from fulmen.core.errors import InputError
from fulmen.core.tables import read_toml, table

OPERATING_C = {"pvc_70": 70.0, "xlpe_90": 90.0}
K_COPPER = {"pvc_70": 115.0, "xlpe_90": 143.0}
K_SOURCE = "BS 7671 Tables 43.1 and 54.3"


@dataclass(frozen=True)
class CableRecord:
    """A kind of cable, by the properties that the arithmetic needs."""

    id: str
    name: str
    rating_table: str
    insulation: str
    cpc: str
    armour: str
    earthed_metal_cover: bool
    sizes_mm2: tuple[float, ...]

    def operating_c(self) -> float:
        """The highest continuous conductor temperature of the insulation [°C]."""
        return OPERATING_C[self.insulation]

    def cpc_mm2(self, csa_mm2: float) -> float:
        """Size of the protective conductor that goes with a line conductor of this size [mm²]."""
        return table("4d5_cpc").at("cpc_mm2", csa_mm2) if self.cpc == "table" else csa_mm2


@cache
def cable_records() -> dict[str, CableRecord]:
    """Every cable record, by its id, in the order of the data file."""
    raw = read_toml("fulmen.core", "cables")
    return {
        key: CableRecord(id=key, **{**entry, "sizes_mm2": tuple(float(s) for s in entry["sizes_mm2"])})
        for key, entry in raw.items()
    }


def cable_record(record: str) -> CableRecord:
    """The cable record of this id.

    Raises:
        InputError: the catalogue holds no such cable.
    """
    records = cable_records()
    if record not in records:
        raise InputError("cable.record", f"There is no cable “{record}”; choose one of {', '.join(records)}.")
    return records[record]
