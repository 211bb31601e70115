"""The flexible tail of a unit is a conductor like any other: Tables 4F1A and 4F3A, 433.1.1, 434.5.2; from memory."""

import unittest
from typing import Any

from fulmen.core.checks.flexible_tail import tabled_a
from fulmen.core.findings.finding import Verdict
from fulmen.core.reference.tables import table
from tests.jobs import HALFWAY, finding

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL


def tail(csa_mm2: float, **more: Any) -> dict[str, Any]:
    """A tail of 2 m, the unit of 32 A behind B32, nothing read; more facts of the unit, or of the device."""
    device = {"rating_a", "kind", "curve"}
    point = {"flex_tail": True, "flex_csa_mm2": csa_mm2, "flex_length_m": 2.0, "max_current_a": 32.0,
             "device_min_a": 32.0, "device_max_a": 40.0} | {n: v for n, v in more.items() if n not in device}  # fmt: skip
    own = {"rating_a": 32} | {n: v for n, v in more.items() if n in device}
    return {
        "readings": [],
        **{f"charge_points.0.{name}": value for name, value in point.items()},
        **{f"circuits.0.device.{name}": value for name, value in own.items()},
    }


# The tail, and what is said of it. 1.5 mm² 16 A, 2.5 mm² 25 A, 4 mm² 30 A, 6 mm² 39 A, 10 mm² 51 A.
RATING: tuple[tuple[str, dict[str, Any], Verdict], ...] = (
    ("1.5 mm² at 32 A behind B40", tail(1.5, rating_a=40), SHORT),
    ("4 mm² at 32 A", tail(4.0), SHORT),
    ("6 mm² at 32 A behind B32", tail(6.0), MEETS),
    ("6 mm² behind B40, the maker allows 40 A", tail(6.0, rating_a=40), MEETS),
    ("6 mm² behind B40, the maker not asked", tail(6.0, rating_a=40, device_max_a=None), NEEDS),
    ("6 mm² behind B50, the maker allows 40 A", tail(6.0, rating_a=50), SHORT),
    ("10 mm² behind B50", tail(10.0, rating_a=50), MEETS),
    ("2.5 mm² for 16 A behind B20", tail(2.5, max_current_a=16.0, rating_a=20), MEETS),
    ("2.5 mm² for 25 A behind B25", tail(2.5, max_current_a=25.0, rating_a=25), MEETS),
    (
        "4 mm², set to 16 A and locked, of a unit of 32 A",
        tail(4.0, set_current_a=16.0, set_current_locked="yes"),
        SHORT,
    ),
    ("what it can take not known", tail(6.0, max_current_a=None), NEEDS),
    ("its phases not known", tail(6.0, phases=None), NEEDS),
    ("16 mm², which no table has", tail(16.0), NEEDS),
    ("16 mm², by its maker", tail(16.0, flex_rating_a=70.0), MEETS),
    ("4 mm², by its maker 32 A", tail(4.0, flex_rating_a=32.0), MEETS),
)
# A maker's figure above the table's, or where there is none, wants what was seen.
CLAIMED = ((4.0, 32.0, True), (4.0, 30.0, False), (16.0, 70.0, True))


class Rating(unittest.TestCase):
    def test_each(self) -> None:
        for what, changes, verdict in RATING:
            with self.subTest(what):
                found = finding("flex_rating", HALFWAY, changes)
                self.assertIs(found.verdict, verdict, found.detail)

    def test_a_makers_figure_is_a_claim(self) -> None:
        for csa_mm2, rating_a, claimed in CLAIMED:
            with self.subTest(csa_mm2=csa_mm2, rating_a=rating_a):
                changes = tail(csa_mm2, flex_rating_a=rating_a)
                if claimed:
                    self.assertIs(finding("claim", HALFWAY, changes).verdict, CALL)
                else:
                    self.assertRaises(AssertionError, finding, "claim", HALFWAY, changes)

    def test_the_table_of_three_loaded_conductors_is_never_kinder(self) -> None:
        for size in table("flex_rating").rows:
            two, three, clipped = tabled_a(size, 1), tabled_a(size, 3), table("4d2a").at("C.2", size)
            self.assertTrue(two is not None and three is not None and three <= two < clipped, size)
        self.assertIsNone(tabled_a(16, 1))


class Survives(unittest.TestCase):
    def test_at_the_joint(self) -> None:
        """Class 3, B up to 40 A: 0.5 kA at the joint let 1.5 mm² live (k 115), what a fuse lets through does not."""
        for what, changes, verdict in (
            ("6 mm²", tail(6.0), MEETS),
            ("1.5 mm² behind a 63 A fuse", tail(1.5, kind="fuse", rating_a=63), SHORT),
            ("6 mm² behind a 63 A fuse", tail(6.0, kind="fuse", rating_a=63), MEETS),
        ):
            with self.subTest(what):
                found = finding("flex_survives", HALFWAY, changes)
                self.assertIs(found.verdict, verdict, found.detail)
