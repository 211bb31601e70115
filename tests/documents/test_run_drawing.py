"""The run drawn for the papers: well-formed, every figure of the profile in it, nothing unescaped."""

import unittest
from datetime import UTC, datetime
from xml.etree import ElementTree

from fulmen.documents.certificate import certificate_html
from fulmen.documents.run_drawing import run_drawing
from fulmen.store.papers import prepare_issue
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, THREE_PHASE, TT, evaluation, job

SVG = "{http://www.w3.org/2000/svg}"


class Drawing(unittest.TestCase):
    def texts(self, svg: str) -> list[str]:
        return ["".join(one.itertext()) for one in ElementTree.fromstring(svg).iter(f"{SVG}text")]

    def test_every_example_draws(self) -> None:
        for name in (DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, THREE_PHASE, TT):
            for profile in evaluation(name).profiles:
                with self.subTest(name, point=profile.charge_point):
                    texts = self.texts(run_drawing(profile))
                    self.assertTrue(any(f"{profile.zs_ohm:.2f} Ω" in one for one in texts))
                    self.assertTrue(any(f"{profile.volts_lost_v:.1f} V" in one for one in texts))
                    self.assertIn("Cut-out", texts)

    def test_it_has_a_title_and_a_description(self) -> None:
        root = ElementTree.fromstring(run_drawing(evaluation(GARAGE).profiles[0]))
        self.assertTrue(root.findtext(f"{SVG}title") and root.findtext(f"{SVG}desc"))

    def test_over_the_limit_is_marked_by_shape_too(self) -> None:
        self.assertTrue(
            any(one.startswith("▲") for one in self.texts(run_drawing(evaluation(FALLS_SHORT).profiles[0])))
        )
        self.assertFalse(any(one.startswith("▲") for one in self.texts(run_drawing(evaluation().profiles[0]))))

    def test_one_limit_for_each_circuit_and_none_on_tt(self) -> None:
        dashed = run_drawing(evaluation(GARAGE).profiles[0]).count('stroke-dasharray="5 3"')
        self.assertEqual(dashed, 1 + 2 + 2)  # volts; loop and device of sub-main and final circuit
        on_tt = self.texts(run_drawing(evaluation(TT).profiles[0]))
        self.assertFalse(any(one.startswith("limit") and one.endswith("Ω") for one in on_tt))

    def test_names_are_escaped(self) -> None:
        svg = run_drawing(evaluation(DEVICE_IN_UNIT, {"boards.0.name": "<Board> & co"}).profiles[0])
        self.assertIn("<Board> & co", self.texts(svg))

    def test_two_hundred_sections_and_none_rated(self) -> None:
        route = [{"surroundings": "clipped", "method": "C", "length_m": 0.1}] * 200
        self.assertTrue(self.texts(run_drawing(evaluation(DEVICE_IN_UNIT, {"circuits.0.route": route}).profiles[0])))
        unrated = {"circuits.0.route": [{"method": "103", "length_m": 5.0}]}
        self.assertIn("?", self.texts(run_drawing(evaluation(DEVICE_IN_UNIT, unrated).profiles[0])))

    def test_it_stands_in_the_certificate_with_what_goes_off(self) -> None:
        issue = prepare_issue(job(DEVICE_IN_UNIT), "FC-2026-0001", datetime(2026, 11, 24, tzinfo=UTC), None)
        html = certificate_html(issue)
        self.assertEqual(html.count("<svg"), 1)
        self.assertIn("What goes off", html)
        self.assertIn("B40, Charge point on the drive opens within", html)
