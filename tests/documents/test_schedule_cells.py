"""The certificates of three demo jobs, cell by cell: the text of the PDF against what stands in the job file.

What is expected is put together here from the file's own JSON, not by the code that makes the paper.
"""

import io
import json
import re
import unittest
from datetime import UTC, datetime
from typing import Any

from pypdf import PdfReader

from fulmen.core.evaluate import evaluate
from fulmen.core.findings.caution import CAUTION
from fulmen.core.model.job import Job
from fulmen.core.papers.circuits import board_rows
from fulmen.core.papers.judged_job import JudgedJob, judged_job
from fulmen.core.papers.rcds import front_rcds
from fulmen.core.papers.supply import CarElectrode, car_electrodes, fault_levels
from fulmen.core.reference.rule_set import rule_set
from fulmen.documents.certificate import certificate_html, render_certificate
from fulmen.store.issues import prepare_issue
from tests.core.test_earth_readings import read
from tests.documents.test_certificate import issue, plain
from tests.documents.test_chain_certificate import complete
from tests.jobs import BOX_AT_GARAGE, DEVICE_IN_UNIT, SHARED_FRONT, TREATED_AS_PME, TT, evaluation, example_text, job
from tests.trials.test_planted import planted


def made_of(whole: Job) -> JudgedJob:
    return judged_job(whole, evaluate(whole, rule_set()), rule_set())


AT = datetime(2026, 11, 24, 9, 30, tzinfo=UTC)
DECIMALS = {"r1_r2": 2, "r1_rn": 2, "zs": 2, "ze": 2, "main_bonding": 2, "earthing_conductor": 2, "electrode": 1,
            "fault_current_neutral": 2, "fault_current_earth": 2, "connector_earth": 2, "proximity": 0, "earth_open": 0}  # fmt: skip
ZS_LIMIT = {DEVICE_IN_UNIT: "0.87", TREATED_AS_PME: "0.55", TT: "1667"}
TWELVE = ("half_ac", "half_pulse", "ac", "pulse", "five_ac", "five_pulse")


class File:
    """An example's own JSON, and its readings as a form's cells hold them."""

    def __init__(self, name: str) -> None:
        self.data: dict[str, Any] = json.loads(example_text(name))
        self.readings = {(one["step"], one["subject"]): one for one in self.data["readings"]}

    def cell(self, step: str, subject: str = "ev") -> str:
        one = self.readings.get((step, subject))
        if one is None:
            return "–"
        if one["outcome"] == "right":
            return "✓"
        if one["outcome"] == "over_range":
            return f">{one['value']:g}"
        return f"{one['value']:.{DECIMALS.get(step, 1)}f}"

    def longest(self, *steps: str, subject: str = "ev") -> str:
        read = [self.readings[step, subject]["value"] for step in steps if (step, subject) in self.readings]
        return f"{max(read):.1f}" if read else "–"


def text_of(pdf: bytes) -> str:
    return plain(" ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages))


class ThreeJobs(unittest.TestCase):
    papers: dict[str, bytes]
    texts: dict[str, str]

    @classmethod
    def setUpClass(cls) -> None:
        cls.papers = {name: render_certificate(issue(name)) for name in (DEVICE_IN_UNIT, TREATED_AS_PME, TT)}
        cls.texts = {name: text_of(pdf) for name, pdf in cls.papers.items()}

    def holds(self, words: str, text: str) -> None:
        self.assertIn(plain(words), text)

    def test_the_row_of_test_results(self) -> None:
        for name, text in self.texts.items():
            file = File(name)
            one_ms = file.longest("rcd_trip", "rcd_ac_0", "rcd_ac_180")
            cells = [file.data["circuits"][0]["way"], file.cell("r1_r2"), file.cell("r2"), file.cell("r1_rn"), "500",
                     file.cell("ir_line_neutral"), "–", file.cell("ir_live_earth"), "–", "–", file.cell("polarity_dead"),
                     file.cell("zs"), "–", ZS_LIMIT[name], one_ms, "–", "–"]  # fmt: skip
            with self.subTest(name):
                self.holds(" ".join(cells), text)

    def test_each_rcd_with_its_standard_and_its_figures(self) -> None:
        for name, text in self.texts.items():
            file = File(name)
            device = file.data["circuits"][0]["device"]
            pairs = [f"{file.cell(f'rcd_{one}_0')} {file.cell(f'rcd_{one}_180')}" for one in TWELVE]
            one_ms = file.longest("rcd_trip", "rcd_ac_0", "rcd_ac_180")
            five_ms = file.longest(
                "rcd_five", *(f"rcd_five_{form}_{angle}" for form in ("ac", "pulse") for angle in (0, 180))
            )
            row = f"BS EN 61009-1 {device['rating_a']} Type A, 30 mA {' '.join(pairs)} – – {one_ms} {five_ms} ✓"
            with self.subTest(name):
                self.holds(row, text)

    def test_a_time_delayed_rcd_stands_with_its_own_figures(self) -> None:
        self.assertRegex(self.texts[TT], r"BS EN 61008-1 \S+ Type A, 100 mA, time- ?delayed.*? 214\.0 – ✓")

    def test_what_was_read_at_the_origin(self) -> None:
        for name, text in self.texts.items():
            file = File(name)
            ka = [file.readings[f"fault_current_{way}", "origin"]["value"] for way in ("neutral", "earth")]
            with self.subTest(name):
                self.holds(
                    f"Prospective fault current Ipf {max(ka):.2f} kA; line–neutral {ka[0]:.2f} kA, line–earth {ka[1]:.2f} kA, measured",
                    text,
                )
                self.holds(f"Ze {file.cell('ze', 'origin')} Ω, measured", text)
                self.holds(f"continuity {file.cell('earthing_conductor', 'origin')} Ω", text)
                self.holds(f"continuity {file.cell('main_bonding', 'origin')} Ω", text)
                self.holds("Isolated and proved dead ✓; leads nulled ✓; fit to energise ✓", text)
        self.holds(f"Electrode, resistance {File(TT).cell('electrode', 'origin')} Ω", self.texts[TT])

    def test_the_charge_points_own_tests(self) -> None:
        for name, text in self.texts.items():
            file = File(name)
            with self.subTest(name):
                for title, step, unit in (
                    ("State A: nobody there", "pilot_a", "V"), ("State B: a car, not ready", "pilot_b", "V"),
                    ("State C: charging", "pilot_c", "V"), ("Earth of the lead broken", "earth_open", "ms"),
                    ("Earth through to the connector", "connector_earth", "Ω"), ("Proximity coding of the lead", "proximity", "Ω"),
                ):  # fmt: skip
                    self.holds(f"{title} {file.cell(step)} {unit}", text)
                self.holds(f"Current that the unit offers {file.cell('pilot_duty')} % offers 32.0 A", text)
                for title in (
                    "State D: ventilation asked for",
                    "Pilot shorted to earth",
                    "Car's diode missing or shorted",
                ):
                    self.holds(f"{title} ✓", text)

    def test_instruments_by_serial_number_and_function(self) -> None:
        for name, text in self.texts.items():
            for one in File(name).data["testing"]["instruments"]:
                due = datetime.fromisoformat(one["calibration_due"])
                with self.subTest(name, instrument=one["name"]):
                    self.holds(f"{one['name']} {one['serial_number']} {due:%-d %b %Y}", text)
            self.assertRegex(text, r"Tester 4 \S+ 14 Mar 2027 continuity, insulation,")

    def test_who_and_when(self) -> None:
        for text in self.texts.values():
            self.holds("Tested by R. Quillfeather, 18 November 2026.", text)

    def test_both_schools_are_stated(self) -> None:
        self.holds("held against 80 % of the limit, as conductors are cold", self.texts[DEVICE_IN_UNIT])
        self.holds("Each RCD: one test at the rated current", self.texts[DEVICE_IN_UNIT])
        self.holds(
            "held against the limit less what the conductors rise by; conductors at 9 °C", self.texts[TREATED_AS_PME]
        )
        self.holds("Each RCD: ½×, 1× and 5×, both half-waves, every form of current", self.texts[TREATED_AS_PME])

    def test_the_clamps_test_is_printed(self) -> None:
        self.holds(
            "set to 60 A; blue pair, the other left for the network; with 40 A switched on", self.texts[TREATED_AS_PME]
        )

    def test_no_page_holds_only_the_caution(self) -> None:
        for name, pdf in self.papers.items():
            pages = PdfReader(io.BytesIO(pdf)).pages
            texts = [plain(page.extract_text()).replace(plain(CAUTION), "") for page in pages]
            self.assertTrue(all(len(text) > 200 for text in texts), name)


class Others(unittest.TestCase):
    def html(self, whole: Any) -> str:
        return plain(re.sub(r"<[^>]+>", " ", certificate_html(prepare_issue(whole, "FC-2026-0009", AT, None))))

    def test_every_board_has_its_own_circuits(self) -> None:
        text = self.html(complete())
        self.assertLess(text.index("Sub-main to the garage"), text.index("Charge point on the garage wall"))
        for board in complete().boards:
            self.assertIn(plain(f"{board.name} {board.location or 'Place not given'}"), text)

    def test_the_islands_own_electrode_stands_in_the_particulars(self) -> None:
        whole = planted({"on": DEVICE_IN_UNIT, "island": True})
        self.assertEqual(
            car_electrodes(made_of(whole)),
            (CarElectrode("Electrode of Charge point alone", "32.0 Ω, conductor 16 mm² copper"),),
        )

    def test_a_circuits_row_holds_the_figures_of_every_rcd_that_guards_it(self) -> None:
        unit, house, box = (
            read("rcd_trip", ms, subject) for ms, subject in ((15.3, "ev"), (24.6, "house-rcd"), (18.0, "box-rccb"))
        )
        left = {**house, "outcome": "could_not_test", "value": None, "reason": "the freezer must not go off"}
        for name, readings, words, ms in (
            (SHARED_FRONT, [unit, house], "Type A, 30 mA, in front of RCD side, Consumer unit, then Type A, 30 mA, in the unit", "24.6 / 15.3"),
            (SHARED_FRONT, [unit, left], "Type A, 30 mA, in front of RCD side, Consumer unit, then Type A, 30 mA, in the unit", "LIM / 15.3"),
            (BOX_AT_GARAGE, [box], "Type A, 30 mA, in RCD box", "18.0"),
            (DEVICE_IN_UNIT, [unit], "Type A, 30 mA", "15.3"),
        ):  # fmt: skip
            rows = [row for board in board_rows(made_of(job(name, {"readings": readings}))) for row in board.circuits]
            row = next(one for one in rows if one.circuit == "ev")
            with self.subTest(name):
                self.assertEqual((row.rcd, row.rcd_ms), (words, ms))

    def test_three_phases_state_their_own_level_and_voltage(self) -> None:
        readings = [read("fault_current_neutral", 1.4, "origin"), read("fault_current_earth", 1.3, "origin")]
        whole = job("two-cars-three-phase", {"readings": readings})
        self.assertEqual(
            fault_levels(made_of(whole)),
            "2.80 kA three-phase, taken as twice; line–neutral 1.40 kA, line–earth 1.30 kA, measured",
        )

    def test_a_front_rcd_stands_on_page_one_at_the_origin_alone(self) -> None:
        self.assertEqual([one.where for one in front_rcds(made_of(job(TT)))], ["RCD in front, Consumer unit"])
        self.assertEqual(front_rcds(made_of(job("garage-wired-anew"))), ())

    def test_a_retest_and_a_limitation_are_told_beside_the_circuit(self) -> None:
        first = [one.model_dump(mode="json") for one in job().readings]
        again = {**next(one for one in first if one["step"] == "zs"), "value": 0.28, "taken_at": "2026-11-18T14:30:00Z",
                 "again_because": "terminal tightened"}  # fmt: skip
        whole = job(DEVICE_IN_UNIT, {"readings": [*first, again], "circuits.0.remarks": "Runs beside the gas pipe."})
        text = self.html(whole)
        told = "Runs beside the gas pipe. Loop at the car, Zs: 0.29 by R. Quillfeather before; terminal tightened."
        self.assertTrue(told in text, "the retest is not told")

    def test_a_new_board_without_its_circuits_is_not_certified(self) -> None:
        gaps = [one.text for one in evaluation("garage-sub-main").gaps if "Enter each circuit" in one.text]
        self.assertEqual(len(gaps), 1)


if __name__ == "__main__":
    unittest.main()
