"""Photos as they come from a phone: checked, turned upright, stripped of every tag and written anew."""

from __future__ import annotations

import hashlib
import threading
from dataclasses import dataclass
from io import BytesIO

import pi_heif
from PIL import Image, ImageFile, ImageOps, UnidentifiedImageError

from fulmen.core.errors import InputError

MAX_BYTES = 20_000_000
MAX_PIXELS = 50_000_000
KEPT_PX = 2400
THUMBNAIL_PX = 360
FORMATS = ("JPEG", "PNG", "WEBP", "HEIF")

pi_heif.register_heif_opener()


@dataclass(frozen=True)
class Photo:
    """A photo made anew: JPEG without any tag, and its thumbnail."""

    jpeg: bytes
    thumbnail: bytes
    width_px: int
    height_px: int

    def sha256(self) -> str:
        """Identifies the photo by its bytes."""
        return hashlib.sha256(self.jpeg).hexdigest()


def make_photo(data: bytes) -> Photo:
    """A photo from the bytes of a JPEG, PNG, WebP or HEIC file.

    The size in pixels is read from the file's head before anything is decoded, so that a huge picture costs nothing. A
    JPEG is decoded no bigger than it will be kept, and pictures are decoded one at a time, so that memory is bounded.

    Raises:
        InputError: field ``photo``: too big in bytes or pixels, no picture of these kinds, or broken.
    """
    if len(data) > MAX_BYTES:
        raise InputError(
            "photo", f"The photo is {len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be taken."
        )
    with ONE_AT_A_TIME:
        return _made(data)


ONE_AT_A_TIME = threading.Lock()


def _made(data: bytes) -> Photo:
    # The paper renderer tells the library, for the whole process, to accept pictures that break off. Photos must not.
    ImageFile.LOAD_TRUNCATED_IMAGES = False
    try:
        with Image.open(BytesIO(data), formats=FORMATS) as source:
            _check_pixels(*source.size)
            source.draft("RGB", (KEPT_PX, KEPT_PX))
            upright = ImageOps.exif_transpose(source).convert("RGB")
    except UnidentifiedImageError:
        raise InputError("photo", "This is no JPEG, PNG, WebP or HEIC picture, or it is broken.") from None
    except (OSError, SyntaxError, ValueError, EOFError, Image.DecompressionBombError) as error:
        raise InputError("photo", "The picture is broken and can't be opened.") from error
    upright.thumbnail((KEPT_PX, KEPT_PX))
    small = upright.copy()
    small.thumbnail((THUMBNAIL_PX, THUMBNAIL_PX))
    return Photo(_jpeg(upright, 85), _jpeg(small, 78), *upright.size)


def _check_pixels(width_px: int, height_px: int) -> None:
    pixels = width_px * height_px
    if pixels > MAX_PIXELS:
        size = f"{pixels / 1e6:.0f} megapixels ({width_px} × {height_px})"
        raise InputError("photo", f"The photo has {size}; at most {MAX_PIXELS / 1e6:.0f} megapixels can be taken.")


def _jpeg(image: Image.Image, quality: int) -> bytes:
    """Written without metadata: a new image takes none along."""
    bare = Image.new("RGB", image.size)
    bare.paste(image)
    target = BytesIO()
    bare.save(target, "JPEG", quality=quality, optimize=True)
    return target.getvalue()
