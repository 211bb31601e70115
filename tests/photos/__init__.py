"""Pictures for the tests, drawn here: nothing is anybody's photo."""

from __future__ import annotations

from io import BytesIO
from pathlib import Path
from typing import Any

from PIL import Image

ORIENTATION, GPS = 0x0112, 0x8825
# Drawn by the lines below and written once: no encoder of HEIC is without the GPL.
HEIC = Path(__file__).parent / "heic"


def picture(kind: str = "JPEG", size: tuple[int, int] = (400, 300), turned: int = 1, **how: Any) -> bytes:
    """A picture whose left half is red, in the file format asked for, with orientation and a place in its tags."""
    if kind == "HEIF":
        return (HEIC / f"{size[0]}x{size[1]}.heic").read_bytes()
    image = Image.new("RGB", size, "white")
    image.paste((200, 0, 0), (0, 0, size[0] // 2, size[1]))
    tags = Image.Exif()
    tags[ORIENTATION] = turned
    tags.get_ifd(GPS).update({1: "N", 2: (51.0, 30.0, 0.0), 3: "W", 4: (0.0, 7.0, 0.0)})
    target = BytesIO()
    image.save(target, kind, exif=tags.tobytes(), **how)
    return target.getvalue()


def huge_png(width_px: int, height_px: int) -> bytes:
    """A whole, tiny file whose picture is huge: one colour, one bit a pixel."""
    target = BytesIO()
    Image.new("1", (width_px, height_px)).save(target, "PNG", optimize=True)
    return target.getvalue()
