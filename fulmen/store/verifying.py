"""Whether a PDF is a certificate of this store: genuine, superseded, altered, or none of ours."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import undefer

from fulmen.store.chain import is_sealed
from fulmen.store.database import Sessions
from fulmen.store.tables import PaperRow

GENUINE, SUPERSEDED, ALTERED, UNKNOWN = "genuine", "superseded", "altered", "unknown"


@dataclass(frozen=True)
class Verified:
    """What a file is, and that in words."""

    verdict: str
    words: str


def verify(sessions: Sessions, pdf: bytes) -> Verified:
    """Compare a file, byte for byte, with the papers of the store."""
    digest = hashlib.sha256(pdf).digest()
    with sessions() as session:
        for paper in session.scalars(select(PaperRow).options(undefer(PaperRow.pdf)).execution_options(yield_per=20)):
            if hashlib.sha256(paper.pdf).digest() == digest:
                if not is_sealed(session.connection(), "paper", paper):
                    words = (
                        f"It is what the store holds as {paper.number}, but the store itself was altered: run doctor."
                    )
                    return Verified(ALTERED, words)
                later = session.scalar(select(PaperRow.number).where(PaperRow.supersedes_id == paper.id))
                if later is not None:
                    return Verified(SUPERSEDED, f"Genuine, {paper.number}; superseded by {later}.")
                return Verified(GENUINE, f"Genuine: {paper.number}, issued {paper.issued_at:%-d %B %Y}, in force.")
        for paper in session.scalars(select(PaperRow)):
            if _identifier(paper) in pdf:
                return Verified(ALTERED, f"Altered: it was {paper.number}, and is not what was issued.")
    return Verified(UNKNOWN, "Unknown: no certificate of this store.")


def _identifier(paper: PaperRow) -> bytes:
    """How a certificate's bytes name it: the first half of its data's SHA-256, as a string of the file's trailer."""
    written = bytes.fromhex(paper.sha256[:32]).replace(b"\\", b"\\\\")
    return written.replace(b"(", b"\\(").replace(b")", b"\\)")
