"""Surge protection at the first board of the run (BS 7671 443.4.1)."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.protection import SURGE
from fulmen.core.model.seen import Seen


def surge_findings(case: Case) -> list[Finding]:
    """One finding: fitted, looked for, or left out with the owner's word."""
    if not case.run.chain:
        return []
    board = case.run.chain[0].board
    asked = ask(SURGE, case.rules, board.id)
    if board.surge_protection is Seen.YES:
        return [asked.meets("A surge protective device is fitted.")]
    if board.surge_protection is Seen.NOT_SEEN:
        return [asked.needs_fact(f"Look whether {board.name} has one.")]
    house = case.installation.tree.origin
    elsewhere = house is not None and house.id != board.id and house.surge_protection is Seen.YES
    where = f" at {board.name}; {house.name} has one" if elsewhere and house is not None else ""
    detail = f"None is fitted{where}. Fit one, or keep the owner's written refusal and say so."
    return [asked.your_call(detail, basis={"fitted": board.surge_protection})]
