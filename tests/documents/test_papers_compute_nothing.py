"""Papers compute nothing: what a certificate states is worked out when it is wished for, kept, and only set in type."""

import importlib
import io
import pkgutil
import re
import sys
import unittest
from dataclasses import replace
from datetime import UTC, datetime
from enum import Enum
from pathlib import Path
from types import FrameType, ModuleType

from pypdf import PdfReader

import fulmen.documents
from fulmen.core.editing.job_file import read_job
from fulmen.core.evaluate import evaluate
from fulmen.core.model.job import Job
from fulmen.core.network_operator.form import operator_form
from fulmen.core.papers.certificate import CertificateContents, certificate_contents
from fulmen.core.reference.rule_set import rule_set
from fulmen.documents.certificate import certificate_html, render_certificate
from fulmen.documents.operator_form import operator_form_html
from fulmen.examples import example
from fulmen.store.issues import Issue, draft_issue
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, TT, job

AT = datetime(2026, 12, 1, 9, 30, tzinfo=UTC)
# Rooms that a paper may call: the job's own fields, findings and words, and what an answer says of itself.
SAYS = ("core/model/", "core/findings/", "core/papers/", "core/plain.py", "core/errors.py", "core/units.py")
CORE = f"{Path(fulmen.__file__).parent}/core/"


def drafts() -> dict[str, Issue]:
    return {name: draft_issue(example(name), AT) for name in sorted(one.stem for one in EXAMPLES.glob("*.json"))}


def called_while(make: object) -> set[str]:
    """The modules of the core in which any function was entered."""
    entered: set[str] = set()

    def note(frame: FrameType, event: str, _: object) -> None:
        if event == "call" and frame.f_code.co_filename.startswith(CORE):
            entered.add(f"core/{frame.f_code.co_filename.removeprefix(CORE)}")

    sys.setprofile(note)
    try:
        make()  # type: ignore[operator]
    finally:
        sys.setprofile(None)
    return entered


class Rooms(unittest.TestCase):
    def test_documents_import_answers_and_words_only(self) -> None:
        modules = [
            importlib.import_module(f"fulmen.documents.{one.name}")
            for one in pkgutil.iter_modules(fulmen.documents.__path__)
        ]
        self.assertGreater(len(modules), 8)
        for module in modules:
            for name, one in vars(module).items():
                if self._is_computing(module, one):
                    self.fail(f"{module.__name__} imports {name} of {one.__module__}: a paper computes nothing")

    def _is_computing(self, module: ModuleType, one: object) -> bool:
        """A function of the core, other than what it says in words and the one that states a certificate."""
        home = getattr(one, "__module__", "") or ""
        if not home.startswith("fulmen.core.") or isinstance(one, type | Enum):
            return False
        if home.startswith("fulmen.core.findings."):
            return False
        return not home.startswith("fulmen.core.papers.")

    def test_setting_a_certificate_in_type_enters_no_room_that_computes(self) -> None:
        for name, issue in drafts().items():
            entered = called_while(lambda issue=issue: certificate_html(issue))
            with self.subTest(name):
                self.assertTrue(entered, "nothing was watched")
                self.assertEqual([one for one in sorted(entered) if not one.startswith(SAYS)], [])
                self.assertLessEqual({one for one in entered if "/papers/" in one}, {"core/papers/cells.py"})

    def test_nor_does_the_operators_form(self) -> None:
        form = operator_form(job(DEVICE_IN_UNIT), rule_set())
        entered = called_while(lambda: operator_form_html(form, AT))
        self.assertEqual([one for one in sorted(entered) if not one.startswith(SAYS)], [])


class Kept(unittest.TestCase):
    def test_the_paper_follows_from_what_is_kept(self) -> None:
        """Made again from the two texts that the store keeps, with nothing worked out: the same page."""
        for name, issue in drafts().items():
            kept = CertificateContents.model_validate_json(issue.contents.model_dump_json(warnings="error"))
            again = replace(issue, job=read_job(issue.data), contents=kept, evaluation=None)  # type: ignore[arg-type]
            with self.subTest(name):
                self.assertEqual(kept.model_dump_json(warnings="error"), issue.contents.model_dump_json())
                self.assertEqual(certificate_html(again), certificate_html(issue))

    def test_every_cell_is_one_of_the_contents(self) -> None:
        """A figure put into the contents is the one that is printed: no cell is taken from elsewhere."""
        issue = draft_issue(job(DEVICE_IN_UNIT), AT)
        told = issue.contents.model_dump(mode="json")
        row = told["boards"][0]["circuits"][0]
        put = {"way": "W77", "cable": "Kabel", "methods": "Meth", "line_mm2": "71", "cpc_mm2": "72", "length_m": "73.1",
               "device_standard": "Std", "curve": "Crv", "rating_a": "74", "breaks_ka": "75", "within_s": "7.6",
               "rcd": "Rrr", "zs_limit_ohm": "7.77", "test_voltages_v": "778", "rcd_ms": "77.9", "remarks": "Rmk"}  # fmt: skip
        row.update(put)
        told.update(fault_levels="79.1 kA", demand_a=79.0, tails="Tls", tested="Tst", schools="Scl", edition="Edn")
        told["drawn"][0]["reach"] = "Rch"
        html = certificate_html(replace(issue, contents=CertificateContents.model_validate(told)))
        cells = re.sub(r"<[^>]+>", " ", html).split()
        wanted = [*put.values(), "79.1", "79", "Tls", "Tst.", "Scl", "Edn", "Rch."]
        self.assertEqual([one for one in wanted if one not in cells], [])


class Figures(unittest.TestCase):
    """BS 7671 Table 41.1 at U0 230 V: 0.4 s on TN and 0.2 s on TT for a final circuit, 5 s and 1 s for distribution."""

    def within_s(self, whole: Job) -> list[str]:
        boards = draft_issue(whole, AT).contents.boards
        return [row.within_s for board in boards for row in board.circuits]

    def test_the_time_that_each_circuit_must_go_off_in(self) -> None:
        self.assertEqual(self.within_s(job(DEVICE_IN_UNIT)), ["0.4"])
        self.assertEqual(self.within_s(job(TT)), ["0.2"])
        self.assertEqual(self.within_s(job("garage-sub-main"))[:2], ["5", "0.4"])

    def test_a_circuits_limit_is_its_own_and_no_steps(self) -> None:
        whole = job(DEVICE_IN_UNIT)
        stepless = evaluate(whole, rule_set()).model_copy(update={"steps": ()})
        (row,) = certificate_contents(whole, stepless).boards[0].circuits
        self.assertEqual(row.zs_limit_ohm, "0.87")

    def test_they_stand_on_the_paper(self) -> None:
        reader = PdfReader(io.BytesIO(render_certificate(draft_issue(job(TT), AT))))
        text = " ".join(page.extract_text().replace("\x00", "") for page in reader.pages)
        self.assertIn("Opens", text)
        self.assertRegex(re.sub(r"\s+", " ", text), r"within s")


if __name__ == "__main__":
    unittest.main()
