"""The chain of residual-current devices: each type at, below and above its limits, and which goes blind."""

import unittest
from typing import Any

from fulmen.core.simulations.benches.residual_chain import (
    ChainDevice,
    ChainQuestion,
    Reaction,
    ResidualChain,
    Waveform,
    residual_chain,
)
from tests.core.test_arrangements import BASE, rcd, way
from tests.jobs import RULES, job

R = Reaction


def chain(waveform: str, residual_ma: float, standing_dc_ma: float = 0.0, **changes: Any) -> ResidualChain:
    """The unit has a DC detector where the arrangement relies on it, unless said otherwise."""
    inside = "yes" if changes.get("dc") == "in_unit" else "no"
    made = job(changes=BASE | way(**{"dc": "none", "dc_seen": inside, **changes}))
    asked = ChainQuestion(job=made, waveform=Waveform(waveform), residual_ma=residual_ma, standing_dc_ma=standing_dc_ma)
    return residual_chain(asked, RULES)


def one(kind: str, waveform: str, residual_ma: float, standing_dc_ma: float = 0.0) -> ChainDevice:
    return chain(waveform, residual_ma, standing_dc_ma, board=rcd(kind)).devices[0]


class OneDevice(unittest.TestCase):
    def test_each_type_at_its_limits(self) -> None:
        """30 mA: AC from 30 mA, pulsating from 1.4·30 = 42 mA, smooth from 2·30 = 60 mA; half of 30 mA stays closed."""
        rows = [
            ("AC", "ac", 30, R.OPENS), ("AC", "ac", 29.9, R.MAY_OPEN), ("AC", "ac", 15.1, R.MAY_OPEN), ("AC", "ac", 15, R.STAYS),
            ("AC", "pulsating", 300, R.SEES_NOTHING), ("AC", "smooth", 1, R.BLIND), ("A", "ac", 30, R.OPENS), ("A", "pulsating", 42, R.OPENS),
            ("A", "pulsating", 41.9, R.MAY_OPEN), ("A", "smooth", 6, R.SEES_NOTHING), ("A", "smooth", 6.1, R.BLIND), ("F", "pulsating", 42, R.OPENS),
            ("F", "smooth", 10, R.SEES_NOTHING), ("F", "smooth", 10.1, R.BLIND), ("B", "ac", 30, R.OPENS), ("B", "pulsating", 42, R.OPENS),
            ("B", "smooth", 60, R.OPENS), ("B", "smooth", 59.9, R.MAY_OPEN), ("B", "smooth", 6, R.STAYS),
        ]  # fmt: skip
        for kind, waveform, residual_ma, expected in rows:
            with self.subTest(kind, waveform=waveform, residual_ma=residual_ma):
                self.assertIs(one(kind, waveform, residual_ma).reaction, expected)

    def test_standing_dc_blinds_what_would_have_opened(self) -> None:
        for kind, stands_ma, blind_ma in (("AC", 0, 0.1), ("A", 6, 6.1), ("F", 10, 10.1)):
            self.assertIs(one(kind, "ac", 30, stands_ma).reaction, R.OPENS, kind)
            self.assertIs(one(kind, "ac", 30, blind_ma).reaction, R.BLIND, kind)
        self.assertIs(one("B", "ac", 30, 60).reaction, R.OPENS)

    def test_each_type_sees_all_that_the_ones_before_it_see(self) -> None:
        for waveform in Waveform:
            seen = [one(kind, waveform.value, 300).reaction is R.OPENS for kind in ("AC", "A", "F", "B")]
            self.assertEqual(seen, sorted(seen), waveform)

    def test_a_time_delayed_one_takes_longer(self) -> None:
        self.assertEqual(one("A", "ac", 30).opens_s, 0.3)
        self.assertEqual(chain("ac", 100, board=rcd("A", 100, late=True)).devices[0].opens_s, 0.5)


class DcDetection(unittest.TestCase):
    def detector(self, dc_ma: float) -> ChainDevice:
        return chain("smooth", dc_ma, dc="in_unit").devices[-1]

    def test_its_times(self) -> None:
        for dc_ma, reaction, opens_s in ((3, R.STAYS, None), (3.1, R.MAY_OPEN, None), (5.9, R.MAY_OPEN, None), (6, R.OPENS, 10.0),
                                         (59.9, R.OPENS, 10.0), (60, R.OPENS, 0.3), (200, R.OPENS, 0.1)):  # fmt: skip
            with self.subTest(dc_ma):
                self.assertEqual((self.detector(dc_ma).reaction, self.detector(dc_ma).opens_s), (reaction, opens_s))

    def test_it_does_not_see_alternating_current(self) -> None:
        self.assertIs(chain("ac", 30, dc="in_unit").devices[-1].reaction, R.SEES_NOTHING)

    def test_it_ends_the_blindness_of_what_stands_before_it(self) -> None:
        with_it, without = chain("smooth", 60, dc="in_unit"), chain("smooth", 60)
        self.assertTrue(with_it.interrupted)
        self.assertIn("until the DC detector has opened", with_it.devices[0].told)
        self.assertFalse(without.interrupted)
        self.assertIn("is blind", without.told)

    def test_one_that_is_only_said_to_be_there_is_not_drawn(self) -> None:
        self.assertEqual(len(chain("ac", 30, dc="in_unit", dc_seen="no").devices), 1)
        self.assertEqual(len(chain("ac", 30, dc="before_unit").devices), 2)
        self.assertEqual(len(chain("ac", 30, dc="none", dc_seen="yes").devices), 2, "what is there counts")


class Chain(unittest.TestCase):
    def test_in_order_from_the_street_to_the_car(self) -> None:
        found = chain("ac", 30, front=rcd("A", 100, late=True), inside=rcd("B"), dc="in_unit")
        self.assertEqual(
            [device.name for device in found.devices],
            ["Type A S, 100 mA", "Type A, 30 mA", "Type B, 30 mA", "6 mA DC detection"],
        )

    def test_a_type_b_lets_dc_pass_that_blinds_a_type_a_before_it(self) -> None:
        found = chain("smooth", 30, front=rcd("A"), board=rcd("B"))
        self.assertEqual([device.reaction for device in found.devices], [R.BLIND, R.MAY_OPEN])

    def test_without_any_device_it_says_so(self) -> None:
        self.assertEqual(chain("ac", 30, board=None).told, "No residual-current device stands on this circuit.")
        empty = residual_chain(ChainQuestion(job=job(changes={"charge_points": [], "circuits": []})), RULES)
        self.assertEqual(empty.devices, ())
