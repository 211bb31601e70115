"""How every paper becomes a PDF: templates, fonts, and the data it was made from inside it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from functools import cache
from hashlib import sha256
from pathlib import Path
from typing import TYPE_CHECKING

from jinja2 import Environment, FileSystemLoader, StrictUndefined

from fulmen.core.findings.words import verdict_words, word
from fulmen.core.papers.cells import figure
from fulmen.documents.printable import check_printable

if TYPE_CHECKING:
    from weasyprint.text.fonts import FontConfiguration

FOLDER = Path(__file__).parent


@dataclass(frozen=True)
class Inside:
    """The data that a paper carries inside it."""

    name: str
    description: str
    data: str


def write_pdf(html: str, inside: Inside, made_at: datetime) -> bytes:
    """The paper's bytes, written as PDF/A-3; the same input gives the same bytes.

    Raises:
        PaperError: it holds what no font of ours can print.
    """
    from weasyprint import HTML, Attachment

    check_printable(html)
    created = made_at.replace(tzinfo=None)
    attachment = Attachment(
        string=inside.data.encode(),
        name=inside.name,
        description=inside.description,
        created=created,
        modified=created,
        relationship="Data",
    )
    pdf: bytes = HTML(string=html, base_url=f"{FOLDER}/").write_pdf(
        font_config=_fonts(),
        attachments=[attachment],
        pdf_variant="pdf/a-3a",
        pdf_identifier=sha256(inside.data.encode()).digest()[:16],
    )
    return pdf


def warm_up() -> None:
    """Load the renderer and its fonts before the first paper is asked for."""
    import weasyprint

    weasyprint.HTML(string="<p>Ω</p>").write_pdf(font_config=_fonts())


@cache
def environment() -> Environment:
    """The templates, with the words and figures of the trade as filters."""
    made = Environment(
        loader=FileSystemLoader(FOLDER / "templates"),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )
    made.filters["words"] = word
    made.filters["verdict_words"] = verdict_words
    made.filters["figure"] = figure
    return made


@cache
def _fonts() -> FontConfiguration:
    from weasyprint.text.fonts import FontConfiguration

    return FontConfiguration()
