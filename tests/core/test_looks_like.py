"""What readings look like together: the algebra against numpy and scipy, the register complete, one case of each door."""

import unittest
from datetime import UTC, datetime, timedelta
from itertools import product
from random import Random
from typing import Any

import numpy
from scipy import integrate

from fulmen.core.editing.job_file import parse_job
from fulmen.core.evaluate import evaluate
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.reference.cable_catalogue import cable_records
from fulmen.core.verification.faults.diagnosis import Diagnosis, Sureness
from fulmen.core.verification.faults.faults import fault_infos
from fulmen.core.verification.faults.weighing import Weighing, inverse
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, RULES, job
from tests.sampling import SEED

BEGUN = datetime(2026, 11, 26, 10, 0, tzinfo=UTC)
UNTOLD = {"small_earth", "copied", "swapped", "misread"}


class Algebra(unittest.TestCase):
    """Against general-purpose libraries, on random symmetric positive matrices."""

    def setUp(self) -> None:
        self.chance = Random(SEED)

    def _covariance(self, size: int) -> Any:
        half = numpy.array([[self.chance.gauss(0, 1) for _ in range(size)] for _ in range(size)])
        return half @ half.T + numpy.eye(size) * 0.1

    def test_the_inverse_is_numpys(self) -> None:
        for size in (1, 2, 5, 12):
            matrix = self._covariance(size)
            with self.subTest(size):
                numpy.testing.assert_allclose(inverse(matrix.tolist()), numpy.linalg.inv(matrix), rtol=1e-6, atol=1e-9)

    def test_the_evidence_is_the_integral_over_the_sizes(self) -> None:
        """Small sizes as often as ten times bigger ones; where readings tell the size well, within a per cent or two."""
        for size, (least, most) in product((2, 4, 7), ((0.1, 3.0), (-3.0, -0.1))):
            matrix = self._covariance(size) * 1e-4
            along = [1.0 + self.chance.random() for _ in range(size)]
            true = self.chance.uniform(0.5, 1.5) * (1 if least > 0 else -1)
            residuals = [true * one + self.chance.gauss(0, 0.01) for one in along]
            solved = numpy.linalg.inv(matrix)
            found = Weighing(residuals, matrix.tolist()).along(along, least, most)

            def likelihood(
                x: float, r: Any = residuals, d: Any = along, inv: Any = solved, top: float = found.size
            ) -> float:
                off, at_top = (numpy.array(r) - one * numpy.array(d) for one in (x, top))
                return float(numpy.exp(-0.5 * (off @ inv @ off - at_top @ inv @ at_top)) / abs(x))

            area, _ = integrate.quad(likelihood, least, most, points=[found.size], limit=200)
            top = numpy.array(residuals) - found.size * numpy.array(along)
            exact = numpy.log(area / abs(numpy.log(most / least))) - 0.5 * top @ solved @ top
            with self.subTest(size, least=least):
                self.assertAlmostEqual(found.log_evidence, float(exact), delta=0.02)

    def test_a_reading_left_out_leaves_the_rest_as_if_it_had_never_been(self) -> None:
        matrix, residuals = self._covariance(5), [self.chance.gauss(0, 1) for _ in range(5)]
        rest = [0, 1, 3, 4]
        small = matrix[numpy.ix_(rest, rest)]
        less = numpy.array(residuals)[rest]
        # Both leave out −½·ln det of the whole covariance and its powers of 2π.
        told = (
            -0.5 * less @ numpy.linalg.inv(small) @ less
            - 0.5 * numpy.linalg.slogdet(small)[1]
            - 2 * numpy.log(2 * numpy.pi)
        )
        whole = -0.5 * numpy.linalg.slogdet(matrix)[1] - 2.5 * numpy.log(2 * numpy.pi)
        self.assertAlmostEqual(Weighing(residuals, matrix.tolist()).without(2), float(told - whole), places=6)


class EveryKindOfCable(unittest.TestCase):
    def test_whatever_is_odd_in_any_job_is_told_and_breaks_nothing(self) -> None:
        """Every example, every cable record and size about it: a loop, a joint and a pair that are off, whatever is the earth."""
        for path in sorted(EXAMPLES.glob("*.json")):
            made = job(path.stem, {"readings": [], "decisions": []}).model_dump(mode="json")
            circuits = [one["id"] for one in made["circuits"] if one["route"]]
            for record in sorted(cable_records()) if path.stem == DEVICE_IN_UNIT else ["as drawn"]:
                for size in cable_records()[record].sizes_mm2 if record != "as drawn" else [None]:
                    if size is not None:
                        made["circuits"][0]["cable"] |= {"record": record, "csa_mm2": size}
                    made["readings"] = [
                        {"step": step, "subject": circuit, "outcome": "measured", "value": value, "taken_by": "A. Tester",
                         "taken_at": BEGUN.isoformat(), **({"test_voltage_v": 500} if step.startswith("ir_") else {})}
                        for circuit in circuits
                        for step, value in (("r1_r2", 1.9), ("r1_rn", 0.3), ("zs", 2.5), ("ir_live_earth", 0.2))
                    ]  # fmt: skip
                    with self.subTest(path.stem, record=record, size=size):
                        self.assertTrue(not circuits or evaluate(parse_job(made), RULES).findings)


class Register(unittest.TestCase):
    def test_every_kind_says_what_tells_it_and_where_to_look(self) -> None:
        for kind, info in fault_infos().items():
            with self.subTest(kind):
                self.assertTrue(info.words and info.why and info.tells and info.look)
                looks = (info.adds, info.opens, info.crossed, info.poor, info.shown)
                self.assertTrue(any(looks) or kind in UNTOLD)

    def test_every_step_and_kind_that_it_names_exists(self) -> None:
        for kind, info in fault_infos().items():
            for step in (*info.opens, *info.crossed, *info.poor, *(one.step for one in info.shown if one.step)):
                with self.subTest(kind):
                    self.assertIn(step, tuple(StepKey))
            self.assertLessEqual(set(info.brings), set(fault_infos()))


def looks_like(figures: dict[str, float], **outcomes: Outcome) -> tuple[Diagnosis, ...]:
    """What some readings of a plain job look like; one without a figure ends as told."""
    taken = [
        {"step": step, "value": value, "outcome": "measured"} for step, value in figures.items()
    ] + [{"step": step, "value": 19.99 if how is Outcome.OVER_RANGE else None, "outcome": how.value, "reason": "found so"}
         for step, how in outcomes.items()]  # fmt: skip
    readings = [
        {
            **one, "subject": "origin" if one["step"] in ("ze", "earthing_conductor") else "ev", "taken_by": "A. Tester",
            "taken_at": (BEGUN + timedelta(minutes=place)).isoformat(), "instrument": "Own tester",
            **({"test_voltage_v": 500} if str(one["step"]).startswith("ir_") else {}),
        }
        for place, one in enumerate(taken)
    ]  # fmt: skip
    made = job(DEVICE_IN_UNIT, {"readings": [], "testing.conductors_c": 10.0}).model_dump(mode="json")
    return evaluate(parse_job(made | {"readings": readings}), RULES).looks_like


def expected(step: str) -> tuple[float, float]:
    whole = job(DEVICE_IN_UNIT, {"readings": [], "testing.conductors_c": 10.0})
    found = next(one for one in evaluate(whole, RULES).steps if one.step == step)
    assert found.expected_low is not None and found.expected_high is not None
    return found.expected_low, found.expected_high


class Doors(unittest.TestCase):
    """Facts of the trade, common practice, no source: which readings share what."""

    def setUp(self) -> None:
        self.r1_r2, self.r1_rn, self.r2 = (sum(expected(step)) / 2 for step in ("r1_r2", "r1_rn", "r2"))

    def first(self, figures: dict[str, float], **outcomes: Outcome) -> str:
        found = looks_like(figures, **outcomes)
        return found[0].candidates[0].fault if found else ""

    def test_nothing_disagrees_nothing_is_named(self) -> None:
        self.assertEqual(looks_like({"r1_r2": round(self.r1_r2, 2), "r1_rn": round(self.r1_rn, 2)}), ())

    def test_a_joint_is_in_what_the_high_readings_share(self) -> None:
        table = {
            "earth_joint": (0.3, 0.0, 0.3), "neutral_joint": (0.0, 0.3, 0.0), "line_joint": (0.3, 0.3, 0.0),
            "leads_not_nulled": (0.2, 0.2, 0.2),
        }  # fmt: skip
        for kind, more in table.items():
            read = [round(one + add, 2) for one, add in zip((self.r1_r2, self.r1_rn, self.r2), more, strict=True)]
            figures = dict(zip(("r1_r2", "r1_rn", "r2"), read, strict=True))
            if kind == "leads_not_nulled":
                figures["earthing_conductor"] = 0.21
            with self.subTest(kind):
                self.assertEqual(self.first(figures), kind)

    def test_what_is_open_and_what_is_crossed(self) -> None:
        over, wrong, right = Outcome.OVER_RANGE, Outcome.WRONG, Outcome.RIGHT
        rn = {"r1_rn": round(self.r1_rn, 2)}
        self.assertEqual(self.first(rn, r1_r2=over, polarity_dead=right), "no_earth")
        self.assertEqual(self.first(rn, r1_r2=over, polarity_dead=wrong), "line_neutral_crossed")
        self.assertEqual(self.first({"r1_r2": round(self.r1_r2, 2)}, r1_rn=over, polarity_dead=right), "no_neutral")
        self.assertEqual(self.first({}, r1_r2=over, r1_rn=over, polarity_dead=right), "no_line")

    def test_two_that_read_alike_are_both_told_with_the_test_that_parts_them(self) -> None:
        (found,) = looks_like({"ir_live_earth": 0.4, "ir_line_neutral": 500.0})
        self.assertEqual({one.fault for one in found.candidates}, {"neutral_to_earth", "damaged_cable"})
        self.assertIs(found.sure, Sureness.OPEN)
        assert found.further is not None
        self.assertIn(found.further.step, (StepKey.IR_LINE_EARTH, StepKey.IR_NEUTRAL_EARTH))
        after = looks_like(
            {"ir_live_earth": 0.4, "ir_line_neutral": 500.0, "ir_line_earth": 500.0, "ir_neutral_earth": 0.4}
        )
        self.assertEqual([one.fault for one in after[0].candidates], ["neutral_to_earth"])

    def test_two_faults_at_once_each_explain_their_own(self) -> None:
        """A joint explains nothing of Ze: what it leaves is looked at again, and no finding is explained twice."""
        found = looks_like({
            "r1_r2": round(self.r1_r2 + 0.3, 2), "r1_rn": round(self.r1_rn, 2), "r2": round(self.r2 + 0.3, 2), "ze": 0.45,
        })  # fmt: skip
        kinds = {one.candidates[0].fault: set(one.explains) for one in found}
        self.assertEqual(set(kinds), {"earth_joint", "high_ze"})
        self.assertNotIn("agree_ze/origin", kinds["earth_joint"])
        self.assertFalse(set.intersection(*kinds.values()))

    def test_a_slow_time_at_five_may_be_the_other_one(self) -> None:
        """One fault, or two figures changed over: told together, both findings explained once."""
        (found,) = looks_like({"rcd_trip": 25.0, "rcd_five": 62.0})
        self.assertEqual([one.fault for one in found.candidates], ["rcd_slow", "swapped"])
        self.assertEqual(set(found.explains), {"reading_rcd_five/ev", "agree_rcd_five/ev"})

    def test_where_nothing_explains_it_nothing_is_named(self) -> None:
        self.assertEqual(looks_like({"r1_r2": 19.0, "r1_rn": 6.0, "r2": 19.0}), ())

    def test_what_is_settled_is_not_named_again(self) -> None:
        """A call that was decided is no longer open."""
        found = looks_like({"r1_r2": round(self.r1_r2 + 0.3, 2), "r1_rn": round(self.r1_rn, 2)})
        self.assertTrue(found and all("/" in key for key in found[0].explains))


if __name__ == "__main__":
    unittest.main()
