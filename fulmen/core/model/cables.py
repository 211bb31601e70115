"""Which cable: a record of the catalogue with a size, and a maker's own record where no table serves."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from fulmen.core.model.base import CsaMm2, Id, Part, Text, number
from fulmen.core.model.reference_method import ReferenceMethod


class Protective(StrEnum):
    """What serves as the protective conductor: a core, the armour alone, both, or a conductor run beside the cable."""

    CORE = "core"
    ARMOUR = "armour"
    CORE_AND_ARMOUR = "core_and_armour"
    SEPARATE = "separate"


class Cable(Part):
    """The cable of a circuit or of one section: a record of the catalogue, a size, its protective conductor.

    `separate_csa_mm2` is the copper protective conductor run beside it, where one is; null is not known.
    """

    record: Id = "swa-3-core"
    csa_mm2: CsaMm2 = 6
    protective: Protective = Protective.CORE
    separate_csa_mm2: CsaMm2 | None = None


class Insulation(StrEnum):
    """What the conductors may reach: 70 °C thermoplastic or 90 °C thermosetting."""

    PVC_70 = "pvc_70"
    XLPE_90 = "xlpe_90"


class MakerRating(Part):
    """What a cable's maker says one size carries, laid one way, with so many loaded conductors, and what it loses.

    `drop_mv_per_a_m` is in mV/A/m; above 25 mm² no table has it.
    """

    method: ReferenceMethod
    csa_mm2: CsaMm2
    loaded: Literal[2, 3] = 2
    rating_a: Annotated[float, number(1, 500)]
    drop_mv_per_a_m: Annotated[float, number(0.1, 60)] | None = None


class MakerCable(Part):
    """A maker's record of a cable, kept with the job: it replaces the table, and its source is named.

    `fine_strands` says whether its cores are flexible; until somebody says so they are taken to resist as such.
    """

    id: Id
    name: Annotated[Text, Field(min_length=2, max_length=80)]
    source: Annotated[Text, Field(min_length=3, max_length=200)]
    insulation: Insulation = Insulation.PVC_70
    armoured: bool = False
    fine_strands: bool | None = None
    overall_mm: Annotated[float, number(4, 80)] | None = None
    ratings: tuple[MakerRating, ...] = Field(min_length=1, max_length=60)
