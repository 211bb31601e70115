"""Sub-mains above 100 A: switch-fuses, moulded-case breakers and cables above 25 mm² go by their makers' figures alone."""

import unittest
from typing import Any

from fulmen.core.alternatives.choice_menu import alternatives
from fulmen.core.editing.job_file import read_job, write_job
from fulmen.core.electrical.fault_energy import device_energy_a2s
from fulmen.core.electrical.fault_loop import device_zs_limit_ohm
from fulmen.core.electrical.selectivity import opener_of, opens_between_s, selective_up_to_a
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Verdict
from fulmen.core.materials.materials import materials
from fulmen.core.model.guards import Device, DeviceKind
from fulmen.core.reference.cable_catalogue import maker_record
from tests.jobs import RULES, THREE_PHASE, evaluation, job

MEETS, SHORT, NEEDS, CALL = Verdict.MEETS, Verdict.FALLS_SHORT, Verdict.NEEDS, Verdict.YOUR_CALL
AT = "circuits.0"
CABLE: dict[str, Any] = {
    "id": "own-4x35", "name": "Armoured 4 × 35", "source": "its maker's sheet", "insulation": "xlpe_90", "armoured": True,
    "fine_strands": False, "overall_mm": 32.0,
    "ratings": [
        {"method": method, "csa_mm2": 35.0, "loaded": 3, "rating_a": amps, "drop_mv_per_a_m": lost}
        for method, amps, lost in (("C", 158.0, 1.15), ("D", 140.0, None), ("E", 154.0, None))
    ],
}  # fmt: skip
MOULDED: dict[str, Any] = {
    "kind": "moulded_case", "rating_a": 125, "breaking_capacity_ka": 25.0, "poles": 4, "voltage_v": 400,
    "maker_zs_ohm": 0.28, "maker_opens_s": 0.1, "maker_energy_a2s": 600000.0, "maker_source": "its maker's curves",
}  # fmt: skip
LAID = {"record": "own-4x35", "csa_mm2": 35.0, "protective": "separate", "separate_csa_mm2": 16.0}
BIG: dict[str, Any] = {
    "maker_cables": [CABLE], f"{AT}.device": MOULDED, f"{AT}.cable": LAID, "supply.cut_out_fuse_a": 200, "readings": [],
}  # fmt: skip


def device(**other: Any) -> dict[str, Any]:
    return {f"{AT}.device": {**MOULDED, **other}}


def cable(**other: Any) -> dict[str, Any]:
    return {"maker_cables": [{**CABLE, **other}]}


# rule, what is changed of the sub-main, verdict. Its loop at the yard is about 0.19 Ω, hot; a fault drives 1.2 kA there.
TRIALS: list[tuple[str, dict[str, Any], Verdict | None]] = [
    ("disconnection", {}, MEETS),
    ("disconnection", device(maker_zs_ohm=None), NEEDS),
    ("disconnection", device(maker_opens_s=None), NEEDS),
    ("disconnection", device(maker_zs_ohm=0.15), SHORT),
    ("disconnection", device(kind="fuse"), MEETS),
    ("disconnection", device(kind="fuse", maker_zs_ohm=None), NEEDS),
    ("disconnection", device(kind="fuse", rating_a=100, maker_zs_ohm=None), MEETS),
    ("survives_fault", {}, MEETS),
    ("survives_fault", device(maker_energy_a2s=None), NEEDS),
    # 143·16 = 2288, squared 5.23 million.
    ("survives_fault", device(maker_energy_a2s=5_230_000.0), MEETS),
    ("survives_fault", device(maker_energy_a2s=5_240_000.0), SHORT),
    # 0.32 Ω is 683 A: for five seconds 2.33 million, which 10.7 mm² stand.
    ("survives_fault", device(maker_opens_s=5.0, maker_zs_ohm=0.32), MEETS),
    (
        "survives_fault",
        device(maker_opens_s=5.0, maker_zs_ohm=0.32) | {f"{AT}.cable": {**LAID, "separate_csa_mm2": 10.0}},
        SHORT,
    ),
    ("weakest_section", {}, MEETS),
    ("weakest_section", device(rating_a=160), SHORT),
    ("cable_size", {}, None),
    ("cable_size", cable(ratings=[{**one, "drop_mv_per_a_m": None} for one in CABLE["ratings"]]), NEEDS),
    ("cable_size", {f"{AT}.cable": {**LAID, "protective": "core_and_armour"}}, NEEDS),
    ("cable_size", cable(fine_strands=None), NEEDS),
    ("breaking_capacity", {}, MEETS),
    ("breaking_capacity", device(breaking_capacity_ka=1.0), NEEDS),
    ("guard_poles", {}, MEETS),
    ("guard_poles", device(poles=2), SHORT),
    ("guard_poles", device(poles=None), NEEDS),
    ("selectivity", {}, CALL),
    ("device_kind", {}, None),
    ("device_kind", device(maker_source=""), NEEDS),
]


class Above100A(unittest.TestCase):
    def test_each(self) -> None:
        for rule, changes, expected in TRIALS:
            with self.subTest(rule, changes=changes):
                found = {one.key: one for one in evaluation(THREE_PHASE, {**BIG, **changes}).findings}
                one = found.get(f"{rule}/sub-main")
                self.assertEqual(one and one.verdict, expected, one and f"{one.figures()} {one.detail}")

    def test_what_nobody_was_asked_is_never_reckoned(self) -> None:
        bare = {**BIG, **device(maker_zs_ohm=None, maker_opens_s=None, maker_energy_a2s=None)}
        met = {
            one.rule for one in evaluation(THREE_PHASE, bare).findings if one.subject == "sub-main" and not one.is_open
        }
        self.assertFalse(met & {"disconnection", "survives_fault"})

    def test_a_table_goes_no_further_than_it_is_printed(self) -> None:
        for kind, rating_a, by_maker in (("fuse", 100, False), ("fuse", 125, True), ("breaker", 125, False),
                                         ("breaker", 160, True), ("moulded_case", 100, True), ("rewirable", 100, False)):  # fmt: skip
            with self.subTest(kind, rating_a=rating_a):
                bare = Device(kind=DeviceKind(kind), rating_a=rating_a)  # type: ignore[arg-type]
                self.assertEqual(bare.by_maker, by_maker)
                asked = evaluation(THREE_PHASE, {**BIG, **device(kind=kind, rating_a=rating_a)}).asked
                self.assertEqual(f"{AT}.device.maker_zs_ohm" in asked, by_maker)
                if by_maker:
                    self.assertIsNone(device_zs_limit_ohm(bare, 5.0, u0_v=230, cmin=0.95))
                    with self.assertRaises(TableError):
                        device_energy_a2s(bare, 3.0, 500.0)

    def test_a_figure_for_five_seconds_serves_no_final_circuit(self) -> None:
        slow = Device(kind=DeviceKind.MOULDED_CASE, rating_a=125, maker_zs_ohm=0.3, maker_opens_s=5.0)
        self.assertEqual(device_zs_limit_ohm(slow, 5.0, u0_v=230, cmin=0.95), 0.3)
        self.assertIsNone(device_zs_limit_ohm(slow, 0.4, u0_v=230, cmin=0.95))

    def test_what_opens_first(self) -> None:
        opener = opener_of(job(THREE_PHASE, BIG).circuits[0])
        self.assertEqual(opens_between_s(opener, 800.0, to_earth=True), (0.0, 0.1))
        self.assertEqual(opens_between_s(opener, 700.0, to_earth=True)[1], float("inf"))
        after = opener_of(job(THREE_PHASE, BIG).circuits[1])
        self.assertEqual(selective_up_to_a(opener, after), 0.0, "nobody knows: either may go first")

    def test_two_loaded_lose_more_than_three(self) -> None:
        record = maker_record(job(THREE_PHASE, BIG).maker_cables[0])
        self.assertAlmostEqual(record.own_drop_mv[35.0, 2], 1.15 * 2 / 3**0.5)

    def test_it_is_bought_written_and_read(self) -> None:
        made = job(THREE_PHASE, BIG)
        self.assertIn("moulded-case", {one.key for one in materials(made)})
        self.assertEqual(read_job(write_job(made)), made)

    def test_another_device_starts_without_its_makers_figures(self) -> None:
        for one in alternatives(job(THREE_PHASE, BIG), "sub-main", "device", RULES):
            changed = {change.field: change.value for change in one.changes}
            self.assertEqual(changed.get(f"{AT}.device.maker_zs_ohm", 0.28), 0.28 if one.chosen else None, one.label)
