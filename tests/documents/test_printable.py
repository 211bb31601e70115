"""Paper and data read alike: what no font of ours has is told before a paper is made, on every machine the same."""

import contextlib
import io
import json
import tempfile
import unittest
from datetime import UTC, datetime
from pathlib import Path
from unittest.mock import patch

from pypdf import PdfReader

from fulmen import cli
from fulmen.core.errors import PaperError
from fulmen.documents.certificate import certificate_html, render_certificate
from fulmen.documents.printable import check_printable
from fulmen.store import papers
from fulmen.store.issues import draft_issue, prepare_issue
from tests.app import NOW, AppCase
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, example, job

WRITTEN = "Ŵynne Ó Dálaigh-Łukasz, “Õ's”, 2 × 6 mm² ≤ 0.3 Ω, 5 °C, ½ £ €"
UNPRINTED = ("漢字", "שלום", "مرحبا", "नमस्ते", "Ольга", "Nguyễn", "🔌", "\u2b50", "ﷺ", "\ue000")


class Printable(unittest.TestCase):
    def test_every_example_is(self) -> None:
        """Also the marks of our own drawings and tables: no other machine's font has to have them."""
        for file in sorted(EXAMPLES.glob("*.json")):
            with self.subTest(file.stem):
                check_printable(certificate_html(draft_issue(example(file.stem), datetime(2026, 11, 30, tzinfo=UTC))))

    def test_what_no_font_has_is_named_with_what_is_around_it(self) -> None:
        check_printable(f"<p title='漢'>{WRITTEN}</p><style>p::before {{content: '漢'}}</style>")
        for text in UNPRINTED:
            with self.subTest(text), self.assertRaises(PaperError) as caught:
                check_printable(f"<td>Householder</td><td>A. {text} B.</td>")
            self.assertRegex(
                str(caught.exception), r"can't print “.” \(U\+[0-9A-F]{4,6}\) in “.*A\. .*Nothing was made"
            )

    def test_the_fonts_in_a_certificate_are_ours(self) -> None:
        whole = job(changes={"site.householder": WRITTEN})
        reader = PdfReader(io.BytesIO(render_certificate(prepare_issue(whole, "FC-2026-0001", NOW, None))))
        names = {
            font.get_object()["/BaseFont"].partition("+")[2]
            for page in reader.pages
            for font in page["/Resources"].get("/Font", {}).values()  # type: ignore[union-attr]
        }
        self.assertEqual({name.partition("-")[0] for name in names} - {"Text", "TextExt", "Symbols", "Figures"}, set())


class Refused(AppCase):
    def test_no_paper_is_made_and_it_says_why(self) -> None:
        stored = self.store(DEVICE_IN_UNIT, {"site.householder": "Smith 漢字"})
        signatures = {"signatures": [one.model_dump(mode="json") for one in job().certificate.signatures]}
        self.app.extensions["issuing"]._render = render_certificate
        state = self.issued_over_http(stored.id, signatures)
        self.assertEqual(state["state"], "refused")
        self.assertIn("can't print “漢” (U+6F22)", state["refused"])
        self.assertEqual(papers.list_papers(self.sessions, stored.id), [])
        form = self.client.get(f"/api/v1/jobs/{stored.id}/operator-form.pdf")
        self.assertEqual((form.status_code, form.get_json()["title"]), (409, "Can't be printed"))

    def test_nor_a_draft(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file, out, err = Path(folder) / "job.json", Path(folder) / "out.pdf", io.StringIO()
            data = json.loads((EXAMPLES / f"{DEVICE_IN_UNIT}.json").read_text(encoding="utf-8"))
            data["site"]["householder"] = "Smith 漢字"
            file.write_text(json.dumps(data), encoding="utf-8")
            with patch("sys.stderr", err), contextlib.redirect_stdout(io.StringIO()):
                self.assertEqual(cli.main(["certify", str(file), "-o", str(out)]), 2)
            self.assertIn("can't print “漢”", err.getvalue())
            self.assertFalse(out.exists())
