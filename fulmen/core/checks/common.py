"""What several checks share."""

from __future__ import annotations

from fulmen.core.findings import Finding, Stage, Verdict, stated


def needs_fact(rule: str, subject: str, title: str, detail: str, clause: str, stage: Stage = Stage.SURVEY) -> Finding:
    """A finding that waits for a fact; its stage is where the fact is entered."""
    return stated(rule, subject, title, Verdict.NEEDS, detail, clause, stage=stage)


def needs_reading(rule: str, subject: str, title: str, detail: str, clause: str) -> Finding:
    """A finding that waits for a live reading."""
    return stated(rule, subject, title, Verdict.NEEDS, detail, clause, stage=Stage.LIVE, waits_for="reading")
