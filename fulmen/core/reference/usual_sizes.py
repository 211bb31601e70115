"""What is bought for such a circuit: sizes of cable, ratings of breakers and of the fuses in a fused switch."""

from __future__ import annotations

from fulmen.core.model.guards import DeviceRatingA

SIZES_MM2 = (2.5, 4.0, 6.0, 10.0, 16.0, 25.0)
# Nobody pulls more than this to a device of one unit's size: common practice, no source.
ONE_UNIT_A, ONE_UNIT_MM2 = 40.0, 16.0


def sizes_before(device_a: float) -> tuple[float, ...]:
    """The sizes of cable that are sensible before a device of this rating.

    >>> sizes_before(32)[-1], sizes_before(63)[-1]
    (16.0, 25.0)
    """
    return tuple(size for size in SIZES_MM2 if size <= ONE_UNIT_MM2 or device_a > ONE_UNIT_A)


BREAKERS_A: tuple[DeviceRatingA, ...] = (6, 10, 16, 20, 25, 32, 40, 50, 63)
FUSES_A: tuple[DeviceRatingA, ...] = (32, 40, 50, 63, 80, 100)
