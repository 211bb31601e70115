"""What is bought for such a circuit: sizes of cable, ratings of breakers and of the fuses in a fused switch."""

from __future__ import annotations

from fulmen.core.model.guards import DeviceRatingA

SIZES_MM2 = (2.5, 4.0, 6.0, 10.0, 16.0, 25.0)
BREAKERS_A: tuple[DeviceRatingA, ...] = (6, 10, 16, 20, 25, 32, 40, 50, 63)
FUSES_A: tuple[DeviceRatingA, ...] = (32, 40, 50, 63, 80, 100)
