"""Reading a paper that comes from outside: its number, the state of the store it names, the job inside, its pages.

A file may be made to hurt whoever opens it. So it is read in a process of its own, with bounds on memory, processor
time and patience, that ends with what it read or with nothing.
"""

from __future__ import annotations

import hashlib
import json
import re
import resource
import subprocess
import sys
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

MOST_MEMORY, MOST_CPU_S, PATIENCE_S, MOST_PAGES = 2_000_000_000, 60, 120, 60
# Pages are drawn at 108 dots an inch; so many dots may differ a little, none more than so much of 255.
SCALE, MOST_DOTS, MOST_SHADE = 1.5, 3, 48
# Where more than this share of the dark dots lies elsewhere, the whole page was drawn anew.
ALL_OVER = 0.3
NUMBER = re.compile(r"\bFC-\d{4}-(?:R[B-Z]{3}-)?\d{4,}\b")
STATE = re.compile(r"entry (\d{1,12}), ((?:[0-9a-f]\s*){64})")


@dataclass(frozen=True)
class PaperRead:
    """What a paper says of itself.

    `number`, `entry` and `head` are as printed; `job_sha256` is of the job file inside, empty where there is none;
    `page` is the first one that is not the kept paper's, 0 where all are, or none was compared; `anew` says that every
    line of a page lies elsewhere, as where it was printed or scaled: then nothing on it can be told apart.
    """

    number: str = ""
    entry: int = 0
    head: str = ""
    job_sha256: str = ""
    page: int = 0
    anew: bool = False


# A certificate with all its pages, as it may come back from another program.
MOST_BYTES = 10_000_000


def paper_in(file: Path) -> bytes:
    """The bytes of a file that may be a paper.

    Raises:
        UnreadablePaper: it is longer than any paper.
        OSError: it can't be read.
    """
    with file.open("rb") as source:
        pdf = source.read(MOST_BYTES + 1)
    if len(pdf) > MOST_BYTES:
        raise UnreadablePaper(f"{file} is longer than any certificate: at most {MOST_BYTES / 1e6:.0f} MB are read.")
    return pdf


class UnreadablePaper(ValueError):
    """It is no PDF that can be read."""


def read_paper(pdf: bytes, kept: bytes = b"") -> PaperRead:
    """Read a paper, and compare its pages with those of the one that was kept.

    Raises:
        UnreadablePaper: it can't be read within the bounds.
    """
    given = len(pdf).to_bytes(8, "big") + pdf + kept
    command = [sys.executable, "-m", "fulmen.documents.paper_reader"]
    root = Path(__file__).resolve().parents[2]
    try:
        done = subprocess.run(command, input=given, capture_output=True, timeout=PATIENCE_S, cwd=root, check=False)
    except subprocess.TimeoutExpired:
        raise UnreadablePaper("It takes too long to read.") from None
    if done.returncode != 0:
        raise UnreadablePaper("It is no PDF that can be read.")
    return PaperRead(**json.loads(done.stdout))


def _bounded() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (MOST_CPU_S, MOST_CPU_S))


def _read(pdf: bytes, kept: bytes) -> PaperRead:
    import pypdfium2  # type: ignore[import-untyped]

    paper = pypdfium2.PdfDocument(pdf)
    if len(paper) > MOST_PAGES:
        raise UnreadablePaper("It has too many pages.")
    # The certificate's own pages, before its schedules.
    text = "".join(paper[place].get_textpage().get_text_range() for place in range(min(2, len(paper))))
    number, state = NUMBER.search(text), STATE.search(text)
    page, anew = _first_other_page(paper, pypdfium2.PdfDocument(kept)) if kept else (0, False)
    return PaperRead(
        number=number[0] if number else "",
        entry=int(state[1]) if state else 0,
        head="".join(state[2].split()) if state else "",
        job_sha256=_job_inside(paper),
        page=page,
        anew=anew,
    )


def _job_inside(paper: Any) -> str:
    for place in range(paper.count_attachments()):
        inside = paper.get_attachment(place)
        if inside.get_name() == "job.json":
            return hashlib.sha256(bytes(inside.get_data())).hexdigest()
    return ""


def _first_other_page(paper: Any, kept: Any) -> tuple[int, bool]:
    """The first page that shows something else, and whether any was drawn anew altogether."""
    anew = False
    for place in range(max(len(paper), len(kept))):
        if place >= len(paper) or place >= len(kept):
            return place + 1, False
        share = _share_apart(paper[place], kept[place])
        if 0 < share <= ALL_OVER or (share and _says_something_else(paper[place], kept[place])):
            return place + 1, False
        anew = anew or share > ALL_OVER
    return 0, anew


def _says_something_else(one: Any, other: Any) -> bool:
    """Whether the text of two pages differs; a page that is a picture says nothing."""
    said, issued = ("".join(page.get_textpage().get_text_range().split()) for page in (one, other))
    return bool(said) and said != issued


def _share_apart(one: Any, other: Any) -> float:
    """How much of what a page shows is elsewhere, as a share of the kept one's dark dots; 0 where it is nothing."""
    from PIL import ImageChops

    if one.get_size() != other.get_size():
        return 1.0
    drawn = [page.render(scale=SCALE, grayscale=True).to_pil().convert("L") for page in (one, other)]
    apart = sum(ImageChops.difference(*drawn).histogram()[MOST_SHADE + 1 :])
    dark = sum(drawn[1].histogram()[:128])
    return 0.0 if apart <= MOST_DOTS else apart / max(dark, 1)


def main() -> None:
    """Read what comes in, and tell it as JSON."""
    _bounded()
    given = sys.stdin.buffer.read()
    length = int.from_bytes(given[:8], "big")
    sys.stdout.write(json.dumps(asdict(_read(given[8 : 8 + length], given[8 + length :]))))


if __name__ == "__main__":
    main()
