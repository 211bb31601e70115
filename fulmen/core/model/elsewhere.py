"""What was signed elsewhere: the acts that a job file brought. They are shown as history and count for nothing here."""

from __future__ import annotations

from pydantic import Field

from fulmen.core.model.base import Part
from fulmen.core.model.certificate import Signature
from fulmen.core.model.decisions import Decision
from fulmen.core.model.readings import Reading

# Of each kind; of a file that tells of more, the newest are kept.
MOST_TOLD = 1000


class Elsewhere(Part):
    """Holds, calls and signatures as another store, or an older version of this one, had them.

    Nothing that judges a job reads this: whoever signs here looks and signs again.
    """

    holds: tuple[Reading, ...] = Field(default=(), max_length=MOST_TOLD)
    decisions: tuple[Decision, ...] = Field(default=(), max_length=MOST_TOLD)
    signatures: tuple[Signature, ...] = Field(default=(), max_length=MOST_TOLD)
