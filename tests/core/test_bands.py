"""What a band is made of: each part no wider than its reason, the sum as told, and what nobody said never meets."""

import unittest
from random import Random
from typing import Any
from unittest.mock import patch

from fulmen.core.errors import JobFileError
from fulmen.core.findings.finding import Finding, Verdict
from fulmen.core.model.instruments import Measures
from fulmen.core.model.readings import StepKey
from fulmen.core.reference.tables import read_toml, table
from fulmen.core.verification.instruments.accuracy import TOGETHER, InstrumentError, off_together, usual_accuracies
from fulmen.core.verification.steps import contents
from fulmen.core.verification.steps.band import Band, BandPart
from fulmen.core.verification.steps.contents import allowances, pole_ohm
from tests.core.test_readings import reading
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, HALFWAY, TESTER, WITH_TESTER, evaluation, finding, job

MEETS, NEEDS, CALL = Verdict.MEETS, Verdict.NEEDS, Verdict.YOUR_CALL
PARTS = contents.__package__
# Copper of 100 % IACS, ohm·mm²/m at 20 °C (IEC 60028, from memory).
IACS = 0.017241


class Reasons(unittest.TestCase):
    """No part is wider than its reason."""

    def test_every_part_says_why(self) -> None:
        for key, entry in allowances().items():
            with self.subTest(key):
                self.assertGreater(len(str(entry["reason"])), 20)

    def test_metal(self) -> None:
        """A conductor drawn to its nominal area in pure copper has less than the table's most: by 5 % and more."""
        for size_mm2 in (1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0):
            most = table("conductor_resistance").at("mohm_per_m", size_mm2)
            with self.subTest(size_mm2):
                self.assertLessEqual(allowances()["metal"]["share"], 1 - 1000 * IACS / size_mm2 / most + 1e-3)

    def test_a_pole_by_the_heat_that_its_standard_allows(self) -> None:
        """IEC 60898-1, watts per pole (from memory): P/In²."""
        for rating_a, watts in (
            (6, 3.0),
            (10, 3.0),
            (16, 3.5),
            (20, 4.5),
            (25, 4.5),
            (32, 6.0),
            (40, 7.5),
            (50, 9.0),
            (63, 13.0),
        ):
            with self.subTest(rating_a):
                self.assertAlmostEqual(pole_ohm(rating_a) * rating_a**2, watts)

    def test_contacts_that_carry_32_a_do_not_burn(self) -> None:
        """A contact of 3 mΩ makes 3 W at 32 A, which a terminal bears; ten times that would scorch it."""
        for key in ("switch", "contactor", "connector", "joint"):
            with self.subTest(key):
                self.assertLessEqual(allowances()[key]["high_ohm"] * 32**2, 3.1)

    def test_lengths_and_warmth(self) -> None:
        self.assertLessEqual(allowances()["length_by_tape"]["share"], 0.03)
        self.assertLessEqual(allowances()["length_by_steps"]["share"], 0.10)
        self.assertLessEqual(allowances()["lead"]["share"], 0.05)
        self.assertLessEqual(allowances()["warmth_c"]["kelvin"], 5.0)
        self.assertEqual(set(allowances()) - {"length_by_tape", "length_by_steps", "lead", "warmth_c", "metal", "link", "switch", "contactor", "connector", "joint"}, set())  # fmt: skip

    def test_an_ordinary_instrument_is_far_within_its_standard(self) -> None:
        """IEC 61557 (from memory): 30 % of a continuity, insulation or loop reading, 10 % of an RCD's limit."""
        for measures, one in usual_accuracies().items():
            with self.subTest(measures):
                self.assertLessEqual(one.share_percent, 5.0)
                self.assertLessEqual(one.digits, 5)

    def test_instruments_together(self) -> None:
        """By chance: shares and digits anywhere within their sheets pass 1.3·√Σe² in fewer than four of a thousand."""
        chance, loop, low_ohms = Random(26), InstrumentError(0.05, 0.03), InstrumentError(0.02, 0.02)
        read = [(loop, 0.20), (low_ohms, 0.15), (loop, 0.40)]
        allowed, past, tries = off_together(read), 0, 20_000
        for _ in range(tries):
            off = sum(
                one.share * value * chance.uniform(-1, 1) + one.besides * chance.uniform(-1, 1) for one, value in read
            )
            past += abs(off) > allowed
        self.assertLess(past / tries, 0.004)
        self.assertEqual(off_together(read[:1]), loop.of(0.20), "one alone is off by all that its sheet allows")
        self.assertGreater(TOGETHER, 1)


def asked(changes: dict[str, Any], *readings: dict[str, Any], rule: str = "agree_zs") -> Finding:
    return finding(rule, HALFWAY, {**WITH_TESTER, "readings": list(readings), **changes})


ZE, R1_R2 = reading("ze", 0.21, subject="origin"), reading("r1_r2", 0.09)
WORSE = {**TESTER, "accuracies": [{**one, "share_percent": 10.0} for one in TESTER["accuracies"]]}
NOT_SAID = {**TESTER, "accuracies": []}
LEAD = "charge_points.0"


class Unsaid(unittest.TestCase):
    """A fact that is not said widens what may be, and never what meets."""

    def test_each_fact(self) -> None:
        cases: tuple[tuple[dict[str, Any], float, Verdict], ...] = (
            # The lead: with it, without it said, by its earth as read, and thicker or longer than that.
            ({}, 0.40, MEETS),
            ({f"{LEAD}.lead_length_m": None}, 0.42, NEEDS),
            ({f"{LEAD}.lead_csa_mm2": None}, 0.42, NEEDS),
            ({f"{LEAD}.lead_length_m": None}, 0.25, NEEDS),
            ({f"{LEAD}.lead_length_m": None}, 0.35, MEETS),
            ({f"{LEAD}.lead_length_m": None}, 0.60, CALL),
            ({f"{LEAD}.lead_length_m": 10.0}, 0.45, MEETS),
            ({}, 0.45, CALL),
            # A socket: the tester's own lead.
            ({f"{LEAD}.tethered": False}, 0.45, NEEDS),
            ({f"{LEAD}.tethered": False, "testing.test_lead_ohm": 0.06}, 0.45, MEETS),
            ({f"{LEAD}.tethered": False, "testing.test_lead_ohm": 0.0}, 0.45, CALL),
            # The instrument: its sheet said, not said, worse than usual; one that is not in the register is none.
            ({"testing.instruments": [NOT_SAID]}, 0.40, NEEDS),
            ({"testing.instruments": [WORSE]}, 0.45, MEETS),
            ({"testing.instruments": []}, 0.40, NEEDS),
        )
        for changes, zs_ohm, verdict in cases:
            with self.subTest(zs_ohm=zs_ohm, changes=[*changes]):
                self.assertEqual(asked(changes, ZE, R1_R2, reading("zs", zs_ohm)).verdict, verdict)

    def test_the_lead_by_its_earth_as_read(self) -> None:
        through = reading("connector_earth", 0.02)
        for changes, more, verdict in (
            ({}, (), NEEDS),
            ({}, (through,), MEETS),
            ({"testing.instruments": []}, (through,), NEEDS),
        ):
            with self.subTest(verdict, more=len(more)):
                found = asked({f"{LEAD}.lead_length_m": None, **changes}, ZE, R1_R2, reading("zs", 0.42), *more)
                self.assertEqual(found.verdict, verdict)

    def test_the_leads_own_earth(self) -> None:
        """5 m of fine 6 mm²: 0.0165 Ω, contact 0.003, instrument 0.0203: 0 to 0.04."""
        for ohm, verdict in ((0.02, MEETS), (0.04, MEETS), (0.05, CALL), (0.5, CALL)):
            self.assertEqual(asked({}, reading("connector_earth", ohm), rule="agree_lead").verdict, verdict)

    def test_a_sheet_that_lets_everything_agree_is_asked_about(self) -> None:
        for share, digits, verdict in ((15.0, 10, MEETS), (15.1, 10, CALL), (15.0, 11, CALL), (30.0, 99, CALL)):
            register = {
                **TESTER,
                "accuracies": [{**one, "share_percent": share, "digits": digits} for one in TESTER["accuracies"]],
            }
            changes = {**WITH_TESTER, "testing.instruments": [register], "readings": [ZE, R1_R2]}
            found = {one.key: one.verdict for one in evaluation(HALFWAY, changes).findings}
            with self.subTest(share, digits=digits):
                self.assertEqual(found["instrument_exact/instrument-1"], verdict)

    def test_a_sheet_gives_each_error_once(self) -> None:
        twice = {**TESTER, "accuracies": [TESTER["accuracies"][0], TESTER["accuracies"][0]]}
        with self.assertRaisesRegex(JobFileError, "accuracies.*twice"):
            job(HALFWAY, {"testing.instruments": [twice]})

    def test_warmth(self) -> None:
        for said_c, ohm, verdict in ((9.0, 0.125, MEETS), (None, 0.125, NEEDS), (None, 0.15, CALL)):
            with self.subTest(said_c, ohm=ohm):
                found = asked({"testing.conductors_c": said_c}, reading("r1_r2", ohm), rule="agree_r1_r2")
                self.assertEqual(found.verdict, verdict)

    def test_a_fact_taken_back_never_makes_an_odd_reading_meet(self) -> None:
        """Every hundredth up to an ohm: what does not meet with all said does not meet with less said."""
        for hundredths in range(2, 100, 2):
            taken = (ZE, R1_R2, reading("zs", hundredths / 100))
            if asked({}, *taken).verdict is MEETS:
                continue
            for less in (
                {f"{LEAD}.lead_length_m": None},
                {f"{LEAD}.tethered": None},
                {"testing.instruments": [NOT_SAID]},
            ):
                with self.subTest(hundredths, less=less):
                    self.assertIsNot(asked(less, *taken).verdict, MEETS)

    def test_the_sheet_is_asked_once_an_instrument_is_used(self) -> None:
        for register, verdict in (
            (TESTER, MEETS),
            (NOT_SAID, NEEDS),
            ({**TESTER, "accuracies": TESTER["accuracies"][:1]}, NEEDS),
        ):
            changes = {**WITH_TESTER, "testing.instruments": [register], "readings": [ZE, R1_R2]}
            found = {one.key: one for one in evaluation(HALFWAY, changes).findings}
            self.assertEqual(found["instrument_exact/instrument-1"].verdict, verdict)


class Once(unittest.TestCase):
    def test_no_data_file_is_read_twice(self) -> None:
        """What ships as data is read once a process: an evaluation that opens files at every keystroke is slow."""
        names = (DEVICE_IN_UNIT, HALFWAY)
        for name in names:
            evaluation(name, WITH_TESTER)
        with patch("fulmen.core.reference.tables.files", side_effect=AssertionError("a data file is read again")):
            for name in names:
                evaluation(name, WITH_TESTER)


class Sum(unittest.TestCase):
    def test_the_band_is_the_sum_of_its_parts_everywhere(self) -> None:
        """Over every example and step: what is told as expected is what its parts come to, and none is told twice."""
        told = 0
        for path in sorted(EXAMPLES.glob("*.json")):
            for step in evaluation(path.stem, {"testing.instruments": [TESTER], "readings": []}).steps:
                names = [one.rpartition(": ")[0] for one in step.expected_parts]
                self.assertEqual(len(names), len(set(names)), (path.stem, step.step, names))
                told += bool(names)
        self.assertGreater(told, 60)

    def test_by_hand(self) -> None:
        band = Band.of(
            [BandPart("cable", 0.09, 0.10), BandPart("lead", 0.0, 0.03, "How long?"), BandPart("error", -0.02, 0.02)],
            "",
            0.1,
        )
        self.assertEqual((band.low, band.high, band.asks), (0.07, 0.15, ("How long?",)))
        for value, surely, perhaps in (
            (0.069, False, False),
            (0.07, False, True),
            (0.099, False, True),
            (0.10, True, True),
            (0.12, True, True),
            (0.121, False, True),
            (0.15, False, True),
            (0.151, False, False),
        ):
            with self.subTest(value):
                self.assertEqual((band.surely_holds(value), band.holds(value)), (surely, perhaps))
        self.assertAlmostEqual(band.beyond(0.17), 0.02)
        self.assertEqual([one.told for one in band.parts], ["0.090 to 0.100", "0.000 to 0.030", "±0.020"])

    def test_an_alarm_says_how_far_beyond_and_why(self) -> None:
        found = asked({}, ZE, R1_R2, reading("zs", 0.60))
        self.assertRegex(found.detail, r"0\.1\d\d Ω beyond\. Higher means")
        self.assertIn("the car's lead, 5 m of 6 mm²", [one.symbol for one in found.working])

    def test_steps_show_their_sum(self) -> None:
        steps = {one.step: one for one in evaluation(DEVICE_IN_UNIT, WITH_TESTER).steps}
        self.assertIn("contactor: 0.000 to 0.003", steps[StepKey.ZS].expected_parts)
        self.assertEqual(len({one.measures for one in job().testing.instruments[0].accuracies}), len(Measures))
        self.assertIn("least_share", read_toml(PARTS, "breaker_loss"))


if __name__ == "__main__":
    unittest.main()
