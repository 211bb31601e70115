"""The run drawn for the papers: well-formed, every figure of the profile in it, nothing unescaped."""

import unittest
from datetime import UTC, datetime
from itertools import pairwise
from xml.etree import ElementTree

from fulmen.core.evaluate import Evaluation
from fulmen.documents.certificate import certificate_html
from fulmen.documents.run_drawing import run_drawing
from fulmen.store.issues import prepare_issue
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, SEVEN, THREE_PHASE, TT, evaluation, job


def drawing(found: Evaluation, place: int = 0) -> str:
    """One run of an evaluation, drawn."""
    profile = found.profiles[place]
    return run_drawing(profile, found.guards_to(profile.charge_point))


SVG = "{http://www.w3.org/2000/svg}"


class Drawing(unittest.TestCase):
    def texts(self, svg: str) -> list[str]:
        return ["".join(one.itertext()) for one in ElementTree.fromstring(svg).iter(f"{SVG}text")]

    def test_every_example_draws(self) -> None:
        for name in (DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, THREE_PHASE, TT):
            found = evaluation(name)
            for place, profile in enumerate(found.profiles):
                with self.subTest(name, point=profile.charge_point):
                    texts = self.texts(drawing(found, place))
                    self.assertTrue(any(f"{profile.zs_ohm:.2f} Ω" in one for one in texts))
                    self.assertTrue(any(f"{profile.volts_lost_v:.1f} V" in one for one in texts))
                    self.assertIn("Cut-out", texts)

    def test_every_guard_stands_in_it_and_none_over_another(self) -> None:
        for name in SEVEN:
            found = evaluation(name)
            for place, profile in enumerate(found.profiles):
                guards = found.guards_to(profile.charge_point)
                root = ElementTree.fromstring(drawing(found, place))
                symbols = [one.get("transform") or "" for one in root.iter(f"{SVG}path") if one.get("transform")]
                x = [float(one.removeprefix("translate(").split()[0]) for one in symbols]
                with self.subTest(name, point=profile.charge_point):
                    self.assertEqual(len(x), len(guards))
                    self.assertTrue(all(later - before > 40 for before, later in pairwise(x)), x)
                    self.assertTrue(x[0] > 0 and x[-1] < 860)

    def test_it_has_a_title_and_a_description(self) -> None:
        root = ElementTree.fromstring(drawing(evaluation(GARAGE)))
        self.assertTrue(root.findtext(f"{SVG}title") and root.findtext(f"{SVG}desc"))

    def test_over_the_limit_is_marked_by_shape_too(self) -> None:
        self.assertTrue(any(one.startswith("⚠") for one in self.texts(drawing(evaluation(FALLS_SHORT)))))
        self.assertFalse(any(one.startswith("⚠") for one in self.texts(drawing(evaluation()))))

    def test_one_limit_for_each_circuit_and_none_on_tt(self) -> None:
        dashed = drawing(evaluation(GARAGE)).count('stroke-dasharray="5 3"')
        self.assertEqual(dashed, 1 + 2 + 2)  # volts; loop and device of sub-main and final circuit
        on_tt = self.texts(drawing(evaluation(TT)))
        self.assertFalse(any(one.startswith("limit") and one.endswith("Ω") for one in on_tt))

    def test_names_are_escaped(self) -> None:
        svg = drawing(evaluation(DEVICE_IN_UNIT, {"boards.0.name": "<Board> & co"}))
        self.assertIn("<Board> & co", self.texts(svg))

    def test_two_hundred_sections_and_none_rated(self) -> None:
        route = [{"surroundings": "clipped", "method": "C", "length_m": 0.1}] * 200
        self.assertTrue(self.texts(drawing(evaluation(DEVICE_IN_UNIT, {"circuits.0.route": route}))))
        unrated = {
            "circuits.0.route": [{"surroundings": "buried", "length_m": 5.0}],
            "circuits.0.cable.record": "nyy-j",
        }
        self.assertIn("?", self.texts(drawing(evaluation(DEVICE_IN_UNIT, unrated))))

    def test_it_stands_in_the_certificate_with_what_goes_off(self) -> None:
        issue = prepare_issue(job(DEVICE_IN_UNIT), "FC-2026-0001", datetime(2026, 11, 24, tzinfo=UTC), None)
        html = certificate_html(issue)
        self.assertEqual(html.count("<svg"), 1)
        self.assertIn("What goes off", html)
        self.assertIn("B40, Charge point on the drive opens within", html)
