"""A decision: a choice where practice differs, kept with its reason, name and day."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fulmen.core.model.base import Basis, Day, Moment, Name, Paragraph, Part, Reason


class Decision(Part):
    """Why a finding that is the designer's call was settled as it stands.

    `key` names the finding and `basis` keeps what it rested on: when those facts change the question is open again.
    `about` is what it said then, for who reads the papers. `condition` is which of the rule's conditions makes it
    sound, where the rule has some; `standing` says that its words are the firm's standing reason. A decision of an
    older file has no basis that can be told from its sentence: it is kept, and the question is asked again.
    """

    key: Annotated[str, Field(pattern=r"^[a-z0-9_]+/[a-z0-9-]+$", max_length=100)]
    about: Paragraph = ""
    basis: Basis | None = None
    condition: Annotated[str, Field(pattern=r"^[a-z_]{0,40}$")] = ""
    standing: bool = False
    reason: Reason
    name: Name
    decided_on: Day
    decided_at: Moment | None = None
