"""The certificate: what it holds, what is inside it, its fonts, its bytes."""

import io
import re
import unittest
from datetime import UTC, datetime
from pathlib import Path

from fontTools.ttLib import TTFont
from pypdf import PdfReader

from fulmen.core.editing.job_file import digest, read_job, write_job
from fulmen.core.findings.caution import CAUTION
from fulmen.core.findings.words import word
from fulmen.core.model.inspections import InspectionItem
from fulmen.documents import certificate
from fulmen.documents.certificate import ATTACHMENT, certificate_html, render_certificate
from fulmen.store.issues import Issue, prepare_issue
from tests.jobs import DEVICE_IN_UNIT, TREATED_AS_PME, TT, evaluation, job

AT = datetime(2026, 11, 24, 9, 30, tzinfo=UTC)


def issue(name: str = DEVICE_IN_UNIT, **changes: object) -> Issue:
    return prepare_issue(job(name, changes), "FC-2026-0007", AT, "FC-2026-0003")


def plain(text: str) -> str:
    # pypdf puts a NUL before characters of a font with a two-byte encoding of its own.
    return re.sub(r"\s+", " ", text.replace("\x00", ""))


class Content(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.pdf = render_certificate(issue())
        cls.reader = PdfReader(io.BytesIO(cls.pdf))
        cls.text = plain(" ".join(page.extract_text() for page in cls.reader.pages))

    def test_what_the_model_form_asks_for(self) -> None:
        wanted = [
            "Electrical Installation Certificate", "FC-2026-0007", "Supersedes FC-2026-0003", "M. Thistlewood",
            "7 Lime Kiln Lane", "addition", "One new circuit", "R. Quillfeather", "Design", "Construction",
            "Inspection and testing", "Departures from the standard", "TN-C-S", "single-phase, two-wire", "230 V", "50 Hz",
            "1.26 kA", "0.19 Ω", "BS 88-3", "80 A", "74 A", "copper, 16 mm²", "copper, 10 mm² to water, gas", "BS EN 60947-3",
            "Comments on the existing installation", "Screws of the board cover", "within 5 years", "Schedule of inspections",
            "Schedule of circuit details and test results", "BS EN 61009-1", ">999", "0.29", "21.3", "Arrangement",
            "broken-PEN protection by the device inside the unit", "Earthing for the charge point the house earth (TN-C-S)",
            "722.411.4.1 (iv), opens within 5 s", "RDC-DD", "40 A device; a 32 A one runs hot",
        ]  # fmt: skip
        for words in wanted:
            with self.subTest(words):
                self.assertIn(words, self.text)

    def test_every_heading_of_the_schedule_of_inspections(self) -> None:
        for item in InspectionItem:
            self.assertIn(word(item), self.text)

    def test_the_caution_and_the_edition_are_on_it(self) -> None:
        self.assertIn(CAUTION, self.text)
        self.assertIn("Amendment 3:2024", self.text)

    def test_the_job_file_is_inside_and_its_hash_is_printed(self) -> None:
        inside = self.reader.attachments[ATTACHMENT][0].decode()
        self.assertEqual(read_job(inside), job())
        self.assertEqual(write_job(read_job(inside)), inside)
        self.assertIn(digest(inside), self.text.replace(" ", ""))

    def test_it_is_written_as_pdf_a_3(self) -> None:
        metadata = self.reader.xmp_metadata
        assert metadata is not None
        raw = metadata.stream.get_data().decode()
        self.assertRegex(raw, r"pdfaid:part[^0-9]*3")
        self.assertTrue(self.reader.trailer["/Root"]["/MarkInfo"]["/Marked"])

    def test_only_the_shipped_fonts_are_used_and_all_are_embedded(self) -> None:
        names = set()
        for page in self.reader.pages:
            for font in page["/Resources"]["/Font"].values():
                names.add(str(font.get_object()["/BaseFont"]).split("+")[-1])
        self.assertLessEqual(
            names, {"Text", "Text-Bold", "TextExt", "TextExt-Bold", "Symbols", "Symbols-Bold", "Figures"}
        )

    def test_the_same_issue_gives_the_same_bytes_and_no_glyph_is_missing(self) -> None:
        with self.assertNoLogs("weasyprint", "WARNING"):
            again = render_certificate(issue())
        self.assertEqual(again, self.pdf)


class Others(unittest.TestCase):
    def test_tt_shows_its_electrode_and_delayed_rcd(self) -> None:
        html = plain(certificate_html(issue(TT)))
        for words in ("installation&#39;s electrode", "48.0 Ω", "Type A S 100 mA", "214.0 ms", "flower bed"):
            with self.subTest(words):
                self.assertIn(words, html)

    def test_cautious_tn_s_and_its_decisions(self) -> None:
        html = plain(certificate_html(issue(TREATED_AS_PME)))
        for words in (
            "treat as PME",
            "load limit 60 A",
            "Owner declines surge protection",
            "a separate device before the unit",
        ):
            with self.subTest(words):
                self.assertIn(words, html)

    def test_three_people_sign_three_parts(self) -> None:
        data = [one.model_dump(mode="json") for one in job().certificate.signatures]
        for one, name in zip(data, ("D. Signer", "C. Signer", "T. Signer"), strict=True):
            one["name"] = name
        html = plain(certificate_html(issue(**{"certificate.signatures": data})))
        for name in ("D. Signer", "C. Signer", "T. Signer"):
            self.assertIn(name, html)

    def test_text_is_never_markup(self) -> None:
        html = certificate_html(issue(**{"site.householder": "<b>& Sons</b>"}))
        self.assertIn("&lt;b&gt;&amp; Sons&lt;/b&gt;", html)

    def test_every_character_of_the_papers_has_a_glyph_in_the_shipped_fonts(self) -> None:
        covered: set[int] = set()
        for path in (Path(certificate.__file__).parent / "fonts").glob("*.woff2"):
            covered |= set(TTFont(path).getBestCmap())
        for name in (DEVICE_IN_UNIT, TREATED_AS_PME, TT):
            missing = {
                char for char in certificate_html(issue(name)) if ord(char) not in covered and not char.isspace()
            }
            self.assertEqual(missing, set())

    def test_letters_beyond_latin_one_have_their_glyphs(self) -> None:
        reader = PdfReader(io.BytesIO(render_certificate(issue(**{"site.householder": "Łucja Dvořák"}))))
        self.assertIn("Łucja Dvořák", plain(reader.pages[0].extract_text()))
        for page in reader.pages:
            for font in page["/Resources"]["/Font"].values():
                self.assertNotRegex(str(font.get_object()["/BaseFont"]), "(?i)dejavu|tofu|lastresort")


class Schools(unittest.TestCase):
    def test_the_reason_for_the_other_school_stands_on_the_schedule_with_name_and_time(self) -> None:
        about = evaluation(changes={"boards.0.surge_protection": "no"}).findings
        surge = next(one for one in about if one.rule == "surge")
        decision = {"key": surge.key, "about": surge.detail, "basis": surge.basis, "reason": "The owner declined in writing.", "name": "R. Quillfeather",
                    "decided_on": "2026-11-23", "decided_at": "2026-11-23T14:05:00"}  # fmt: skip
        kept = [one.model_dump(mode="json") for one in job().decisions]
        # Without surge protection nobody looks at its indicator.
        readings = [one.model_dump(mode="json") for one in job().readings if one.step != "surge_indicator"]
        changes = {"boards.0.surge_protection": "no", "decisions": [*kept, decision], "readings": readings}
        html = certificate_html(issue(**changes))
        schedule = html[html.index("<h3>Arrangement</h3>") : html.index("<h1>Design record</h1>")]
        self.assertIn("“The owner declined in writing.” R. Quillfeather, 23 November 2026, 14:05", schedule)
        self.assertIn("Cautious school: fit surge protection.", schedule)
        self.assertNotIn("The owner declined in writing.", html[html.index("<h1>Design record</h1>") :])
