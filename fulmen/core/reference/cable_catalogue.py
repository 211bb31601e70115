"""The catalogue of cable records: which table rates them, and what their protective conductor is.

Generic records are data; a maker's own record comes with the job (`model.cables.MakerCable`) and serves the same way.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cache
from math import sqrt

from fulmen.core.errors import InputError, TableError
from fulmen.core.model.base import CSA_MM2
from fulmen.core.model.cables import Cable, MakerCable, Protective
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job
from fulmen.core.model.route import Section
from fulmen.core.reference.tables import Table, read_toml, table

OPERATING_C = {"pvc_70": 70.0, "xlpe_90": 90.0}
K_COPPER = {"pvc_70": 115.0, "xlpe_90": 143.0}
K_STEEL = {"pvc_70": 51.0, "xlpe_90": 46.0}
# A bare or singly insulated conductor beside a cable; in 90 °C insulation it would be 176.
K_SEPARATE_COPPER = 143.0
K_SOURCE = "BS 7671 Tables 43.1, 54.3 and 54.4"


@dataclass(frozen=True)
class InventedPrice:
    """What a metre costs and how long it takes: invented, until the user's own list says otherwise."""

    first: float
    per_mm2: float
    work_min: float


# The table of flat twin-and-earth, which has no method B of its own.
FLAT_TWIN = "4d5"


@dataclass(frozen=True)
class CableRecord:
    """A kind of cable, by the properties that the arithmetic needs; one entry of the data file says them all.

    `outdoors` says whether it stands sun and wet. `suits` ranks the families of stretches where the search tries it.
    `own` are a maker's ratings.
    """

    id: str
    name: str
    rating_table: str
    insulation: str
    cpc: str
    armour: str
    earthed_metal_cover: bool
    sizes_mm2: tuple[float, ...]
    phases: tuple[int, ...]
    overall: str
    rating_table_70: str = ""
    suits: Mapping[str, int] = field(default_factory=dict, hash=False)
    fine_strands: bool = False
    spare_cores: bool = False
    outdoors: bool = True
    invented_price: InventedPrice | None = None
    overall_mm: float | None = None
    source: str = ""
    own: Table | None = field(default=None, hash=False)
    own_drop_mv: Mapping[tuple[float, int], float] = field(default_factory=dict, hash=False)

    def ratings(self) -> Table:
        """The table that rates this cable: a published one, or its maker's."""
        return self.own if self.own is not None else table(self.rating_table)

    @property
    def methods(self) -> tuple[str, ...]:
        """The reference methods that rate it."""
        return tuple(sorted({column.split(".")[0] for column in self.ratings().columns}))

    @property
    def flat(self) -> bool:
        """Whether it is flat twin-and-earth, whose table has methods of its own and none for an enclosure."""
        return self.rating_table == FLAT_TWIN

    @property
    def takes_b(self) -> bool:
        """Whether method B of another cable of its insulation rates it in an enclosure, as its own table has none."""
        return "B" not in self.methods and (bool(self.armour) or self.flat)

    def operating_c(self) -> float:
        """The highest continuous conductor temperature of the insulation [°C]."""
        return OPERATING_C[self.insulation]

    def cpc_mm2(self, csa_mm2: float) -> float:
        """Size of the core that goes with a line conductor of this size as protective conductor [mm²]."""
        return table("4d5_cpc").at("cpc_mm2", csa_mm2) if self.cpc == "table" else csa_mm2

    def armour_mohm_per_m(self, csa_mm2: float) -> float:
        """Resistance of its armour at 20 °C [mΩ/m].

        Raises:
            TableError: the cable has no armour, or no figure for this size.
        """
        return self._armour(csa_mm2, "mohm_per_m")

    def armour_mm2(self, csa_mm2: float) -> float:
        """Cross-section of its armour [mm²]; raises as `armour_mohm_per_m`."""
        return self._armour(csa_mm2, "area_mm2")

    def _armour(self, csa_mm2: float, figure: str) -> float:
        if not self.armour:
            raise TableError(f"{self.name} has no armour that could serve")
        return table("armour").at(f"{self.armour}_{figure}", csa_mm2)

    def overall_diameter_mm(self, csa_mm2: float) -> float:
        """Overall diameter [mm], the usual one of such a cable; makers differ."""
        return self.overall_mm if self.overall_mm is not None else table("cable_diameter").at(self.overall, csa_mm2)

    def at_70(self) -> CableRecord:
        """This cable rated as if its insulation stood 70 °C, for terminals that stand no more."""
        if not self.rating_table_70:
            return self
        return replace(self, rating_table=self.rating_table_70, insulation="pvc_70")


@cache
def cable_records() -> dict[str, CableRecord]:
    """Every generic cable record, by its id, in the order of the data file."""
    raw = read_toml(__package__, "cables")
    return {
        key: CableRecord(
            id=key,
            **{
                **entry,
                "sizes_mm2": tuple(float(size) for size in entry["sizes_mm2"]),
                "phases": tuple(entry["phases"]),
                "invented_price": InventedPrice(**entry["invented_price"]),
            },
        )
        for key, entry in raw.items()
    }


def cables_for(job: Job) -> Mapping[str, CableRecord]:
    """Every cable that a job can choose, by its name: the generic ones, then its makers' own."""
    generic = cable_records()
    return {**generic, **{one.id: maker_record(one) for one in job.maker_cables}} if job.maker_cables else generic


def cable_record(cables: Mapping[str, CableRecord], name: str) -> CableRecord:
    """The record of a name among those that can be chosen.

    Raises:
        InputError: there is no such cable.
    """
    found = cables.get(name)
    if found is None:
        raise InputError("cable.record", f"There is no cable “{name}”; choose one of {', '.join(cable_records())}.")
    return found


def maker_record(own: MakerCable) -> CableRecord:
    """A maker's record in the form that the arithmetic uses."""
    rows = tuple(sorted({rating.csa_mm2 for rating in own.ratings}))
    names = sorted({f"{rating.method.value}.{rating.loaded}" for rating in own.ratings})
    cells = {(f"{one.method.value}.{one.loaded}", one.csa_mm2): one.rating_a for one in own.ratings}
    ratings = Table(
        key=own.id, title=own.name, publication=own.source, number="maker's ratings", unit="A", from_memory=False,
        how_checked="as entered by the user", row_name="csa_mm2", rows=rows,
        columns={name: tuple(cells.get((name, row)) for row in rows) for name in names},
    )  # fmt: skip
    return CableRecord(
        id=own.id,
        name=own.name,
        rating_table="",
        insulation=own.insulation.value,
        cpc="same",
        armour="three_core" if own.armoured else "",
        earthed_metal_cover=own.armoured,
        sizes_mm2=tuple(size for size in CSA_MM2 if size in rows),
        phases=(1, 3),
        overall="swa_3_core" if own.armoured else "round_3_core",
        fine_strands=own.fine_strands is not False,
        overall_mm=own.overall_mm,
        source=own.source,
        own=ratings,
        own_drop_mv=_own_drop_mv(own),
    )


def _own_drop_mv(own: MakerCable) -> dict[tuple[float, int], float]:
    """What its maker says it loses by size and loaded conductors, the most of it; two loaded lose 2/√3 of what
    three do.
    """
    said: dict[tuple[float, int], float] = {}
    for one in own.ratings:
        if one.drop_mv_per_a_m is not None:
            key = (one.csa_mm2, one.loaded)
            said[key] = max(one.drop_mv_per_a_m, said.get(key, 0.0))
    other = {2: (3, 2 / sqrt(3)), 3: (2, sqrt(3) / 2)}
    found = {}
    for csa_mm2 in {size for size, _ in said}:
        for loaded, (from_other, factor) in other.items():
            own_mv = said.get((csa_mm2, loaded))
            found[csa_mm2, loaded] = own_mv if own_mv is not None else said[csa_mm2, from_other] * factor
    return found


def cable_of(circuit: Circuit, section: Section) -> Cable:
    """The cable of one section: its own, else the circuit's."""
    return section.cable or circuit.cable


def last_cable(circuit: Circuit) -> Cable:
    """The cable that reaches the end of a circuit."""
    return cable_of(circuit, circuit.route[-1]) if circuit.route else circuit.cable


def cables_of(circuit: Circuit) -> list[Cable]:
    """The different cables along a circuit, in the order of walking; the circuit's where it has no route."""
    found: list[Cable] = []
    for section in circuit.route:
        # Most sections have the circuit's own, found by identity; to hash each of them would cost more than all else.
        if (cable := cable_of(circuit, section)) not in found:
            found.append(cable)
    return found or [circuit.cable]


def armour_alone(record: CableRecord, cable: Cable) -> bool:
    """Whether the armour is the only protective conductor."""
    if cable.protective is Protective.SEPARATE:
        return False
    return cable.protective is Protective.ARMOUR or record.cpc == "armour"


def protective_metal(record: CableRecord, cable: Cable) -> float:
    """The protective conductor's own size [mm²]: the core, the armour where it serves alone, or the one beside.

    Raises:
        TableError: the size of the one beside the cable is not known, or the armour has no figure.
    """
    if cable.protective is Protective.SEPARATE:
        if cable.separate_csa_mm2 is None:
            raise TableError("the size of the protective conductor beside the cable is not known")
        return cable.separate_csa_mm2
    alone = armour_alone(record, cable)
    return record.armour_mm2(cable.csa_mm2) if alone else record.cpc_mm2(cable.csa_mm2)


def protective_k(record: CableRecord, cable: Cable) -> float:
    """k of the protective conductor: copper in the cable, copper beside it (as in 70 °C insulation), or steel."""
    if cable.protective is Protective.SEPARATE:
        return K_SEPARATE_COPPER
    return (K_STEEL if armour_alone(record, cable) else K_COPPER)[record.insulation]


def copper_protective_mm2(record: CableRecord, cable: Cable) -> float:
    """Copper in the protective conductor [mm²]: none where the armour serves alone."""
    if cable.protective is Protective.SEPARATE:
        return cable.separate_csa_mm2 or 0.0
    return 0.0 if armour_alone(record, cable) else record.cpc_mm2(cable.csa_mm2)
