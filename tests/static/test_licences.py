"""What ships may ship: nothing under the GPL alone, every choice of licences made, what is LGPL replaceable."""

import unittest
from pathlib import Path

from scripts import licences

TOLD = licences.written_down()


class Licences(unittest.TestCase):
    def test_everything_that_ships_may(self) -> None:
        found = list(licences.shipped(TOLD))
        self.assertGreater(len(found), 80)
        self.assertEqual([one for one in found if one.fault], [])

    def test_each_kind_of_fault_is_told(self) -> None:
        """By expressions and classifiers as the registries have them."""
        for name, offered, told in (
            ("libx265", [""], "neither"),
            ("codec", ["GPL-2.0-or-later"], "neither"),
            ("codec", ["AGPL-3.0-only"], "neither"),
            ("codec", ["GNU General Public License v2 (GPLv2)"], "neither"),
            ("codec", licences.choices("GPL-3.0-only OR MIT"), "a choice"),
            ("codec", licences.choices("(MPL-2.0 OR Apache-2.0)"), "a choice"),
            ("codec", ["LGPL-2.1-or-later"], "say how"),
            ("codec", ["UNKNOWN"], "neither"),
            ("codec", ["MIT"], ""),
            ("libheif", ["LGPL-3.0-or-later"], ""),
        ):
            with self.subTest(name=name, offered=offered):
                fault = licences.judged(name, "", offered, TOLD).fault
                self.assertTrue(fault.startswith(told) if told else not fault, fault)

    def test_a_licence_that_is_taken_is_one_of_those_offered(self) -> None:
        self.assertIn("MPL-1.1", TOLD["taken"]["pyphen"])
        offered = licences.licences_of(licences.distribution("pyphen"))
        self.assertTrue(any("MPL 1.1" in one for one in offered), offered)
        self.assertIn("BSD-3-Clause", licences.distribution("pypdfium2").metadata["License"])

    def test_nothing_is_written_down_of_what_does_not_ship(self) -> None:
        names = {one.name for one in licences.shipped(TOLD)}
        for part in ("taken", "said", "inside", "replaceable"):
            self.assertEqual(set(TOLD[part]) - names, set(), part)

    def test_no_encoder_of_the_gpl_lies_beside_ours(self) -> None:
        """Looked for on the disk, past every list: the two that come with picture and film libraries."""
        for name in licences.required():
            package = licences.distribution(name)
            bad = [file for file in package.files or [] if Path(file).name.startswith(("libx264", "libx265"))]
            self.assertEqual(bad, [], name)


if __name__ == "__main__":
    unittest.main()
