"""Whether a cable may lie where it lies, and a guard is what a rule leans on: one place for the checks and the search.

Each answers yes, no, or that nobody has said yet; None where the question does not arise. A check dresses the answer
with its words, the options search takes it bare.
"""

from __future__ import annotations

from fulmen.core.electrical.selectivity import rcds_selective
from fulmen.core.installation.guards import PlacedGuard
from fulmen.core.model.charge_point import ChargePoint
from fulmen.core.model.guards import Rcd
from fulmen.core.model.route import MAY_BE_OUTDOORS, OUT_OF_DOORS, Section, Surroundings
from fulmen.core.model.seen import Seen
from fulmen.core.reference.cable_catalogue import CableRecord


def stands_weather(section: Section, record: CableRecord) -> Seen | None:
    """Whether a section sees no more sun and wet than its cable stands; a cable made for both is not asked about."""
    if record.outdoors:
        return None
    if section.surroundings in OUT_OF_DOORS or section.outdoors:
        return Seen.NO
    if section.outdoors is False:
        return Seen.YES
    return Seen.NOT_SEEN if section.surroundings in MAY_BE_OUTDOORS else None


def guarded_in_ground(section: Section, record: CableRecord) -> Seen | None:
    """Whether a buried section has earthed armour or a metal sheath, or lies in a duct that guards as well."""
    if section.surroundings is not Surroundings.BURIED:
        return None
    return Seen.YES if record.earthed_metal_cover or section.in_duct else Seen.NO


def in_safe_zone(section: Section, record: CableRecord) -> Seen | None:
    """Whether a section hidden less than 50 mm deep without earthed metal runs where people expect a cable."""
    if record.earthed_metal_cover:
        return None
    if "concealed_under_50_mm" in section.unknown():
        return Seen.NOT_SEEN
    return section.in_zone if section.concealed_under_50_mm else None


def maker_takes(point: ChargePoint, rating_a: float) -> Seen:
    """Whether the unit's maker allows a device of some rating [A] before it."""
    if point.device_min_a is None or point.device_max_a is None:
        return Seen.NOT_SEEN
    return Seen.YES if point.device_min_a <= rating_a <= point.device_max_a else Seen.NO


def opens_at_once(rcd: Rcd | None, most_ma: float) -> bool:
    """Whether there is an RCD that opens without delay on at most so much [mA]."""
    return rcd is not None and rcd.residual_ma <= most_ma and not rcd.time_delayed


def stays_closed(guard: PlacedGuard, behind: tuple[PlacedGuard, ...]) -> bool:
    """Whether an RCD stays closed for a fault that one behind it opens: it is selective with every one of those."""
    others = [one.rcd for one in behind if one.rcd is not None]
    rcd = guard.rcd
    return rcd is not None and bool(others) and all(rcds_selective(rcd, one) for one in others)
