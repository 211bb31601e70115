"""Photos as they come: the four kinds, upright, without a tag; and what is no picture, too big or broken."""

import time
import tracemalloc
import unittest
from io import BytesIO

from PIL import Image

from fulmen.core.errors import InputError
from fulmen.documents.rendering import warm_up
from fulmen.photos import KEPT_PX, MAX_BYTES, MAX_PIXELS, THUMBNAIL_PX, make_photo
from tests.photos import GPS, huge_png, picture


def opened(data: bytes) -> Image.Image:
    return Image.open(BytesIO(data))


class Kinds(unittest.TestCase):
    def test_each_kind_a_phone_makes(self) -> None:
        for kind in ("JPEG", "PNG", "WEBP", "HEIF"):
            with self.subTest(kind):
                photo = make_photo(picture(kind))
                self.assertEqual((photo.width_px, photo.height_px), (400, 300))
                self.assertEqual(opened(photo.jpeg).format, "JPEG")
                self.assertLessEqual(max(opened(photo.thumbnail).size), THUMBNAIL_PX)
                red = opened(photo.jpeg).getpixel((50, 150))
                self.assertGreater(red[0], red[1] + 100)

    def test_location_and_every_other_tag_are_gone(self) -> None:
        for kind in ("JPEG", "PNG", "WEBP", "HEIF"):
            data = picture(kind)
            self.assertTrue(opened(data).getexif().get_ifd(GPS), "the test's own picture carries a place")
            for made in (make_photo(data).jpeg, make_photo(data).thumbnail):
                self.assertEqual(dict(opened(made).getexif()), {})
                self.assertNotIn(b"Exif", made)

    def test_orientation_is_applied(self) -> None:
        """Tag 6: the camera was turned; what is left in the file is on top of the picture."""
        photo = make_photo(picture(turned=6))
        self.assertEqual((photo.width_px, photo.height_px), (300, 400))
        top, bottom = opened(photo.jpeg).getpixel((150, 50)), opened(photo.jpeg).getpixel((150, 350))
        self.assertGreater(top[0], top[1] + 100)
        self.assertGreater(bottom[1], 200)

    def test_a_large_photo_is_kept_smaller(self) -> None:
        photo = make_photo(picture(size=(4000, 3000)))
        self.assertEqual((photo.width_px, photo.height_px), (KEPT_PX, KEPT_PX * 3 // 4))

    def test_transparency_and_few_colours(self) -> None:
        target = BytesIO()
        Image.new("P", (40, 40)).save(target, "PNG", transparency=0)
        self.assertEqual(opened(make_photo(target.getvalue()).jpeg).mode, "RGB")


class Refused(unittest.TestCase):
    def refused(self, data: bytes) -> str:
        with self.assertRaises(InputError) as caught:
            make_photo(data)
        self.assertEqual(caught.exception.field, "photo")
        return caught.exception.message

    def test_sixty_megapixels_cost_nothing(self) -> None:
        data = huge_png(10_000, 6_000)
        self.assertLess(len(data), 100_000)
        tracemalloc.start()
        start = time.process_time()
        message = self.refused(data)
        took, peak = time.process_time() - start, tracemalloc.get_traced_memory()[1]
        tracemalloc.stop()
        self.assertEqual(message, "The photo has 60 megapixels (10000 × 6000); at most 50 megapixels can be taken.")
        self.assertLess(took, 0.5)
        self.assertLess(peak, 5_000_000)

    def test_the_limit_of_pixels_itself(self) -> None:
        side = MAX_PIXELS // 10_000
        self.assertEqual(make_photo(huge_png(10_000, side)).width_px, KEPT_PX)
        self.refused(huge_png(10_000, side + 1))

    def test_the_limit_of_bytes(self) -> None:
        self.assertIn("at most 20 MB", self.refused(b"\xff" * (MAX_BYTES + 1)))

    def test_what_is_no_picture(self) -> None:
        svg = b"<svg xmlns='http://www.w3.org/2000/svg'/>"
        bitmap = BytesIO()
        Image.new("RGB", (4, 4)).save(bitmap, "GIF")
        for data in (b"", b"%PDF-1.7", svg, bitmap.getvalue(), b"\x00" * 100):
            with self.subTest(data[:8]):
                self.assertIn("no JPEG, PNG, WebP or HEIC", self.refused(data))

    def test_pictures_that_break_off(self) -> None:
        """Also after the paper renderer was loaded, which tells the picture library to let them pass."""
        warm_up()
        for kind in ("JPEG", "PNG", "WEBP", "HEIF"):
            data = picture(kind, size=(800, 600))
            with self.subTest(kind):
                self.assertRegex(self.refused(data[: len(data) // 2]), "broken")
