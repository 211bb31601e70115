"""Asking a rule about one subject: the only place where findings are made.

A check names its question once, with `ask`, and gives one of the answers. Title, stage, stop and what can happen come
from the register, clause and limits from the edition.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, NamedTuple, Protocol

from fulmen.core.findings.finding import Condition, Finding, Proof, RuleKey, Stage, Verdict, WaitsFor, WorkingLine
from fulmen.core.findings.rules.rule import Rule
from fulmen.core.model.stops import Stop
from fulmen.core.units import telling_decimals

# Words in a title that name whose finding it is.
NAMES_WHOSE = {"board", "circuit"}
# An answer that holds leans on something; one that falls short or waits does not yet.
HOLDING = (Verdict.MEETS, Verdict.YOUR_CALL)
Facts = Mapping[str, object]
NO_FACTS: Facts = {}


class Edition(Protocol):
    """What a question needs of an edition's rules, see `reference.rule_set.RuleSet`."""

    def rule_clause(self, rule: RuleKey, variant: str = "") -> str:
        """The clause that a rule rests on."""

    def value(self, name: str) -> float:
        """The figure of a limit."""


class Question(NamedTuple):
    """One rule asked about one subject by one edition."""

    rule: Rule
    edition: Edition
    subject: str
    title: str
    clause: str
    stage: Stage
    asked_at: Stage
    named: bool
    on_the_walk: bool = True
    proven_by: tuple[Proof, ...] = ()
    place: Stop | None = None

    def shown_at(self, stage: Stage, *, named: bool) -> Question:
        """The same question where another stage answers it; `named` where its title says whose it is."""
        return self._replace(stage=stage, asked_at=stage, named=named)

    def further_on(self) -> Question:
        """The same question about something that the walk does not reach: it is entered with the design."""
        return self._replace(stage=Stage.DESIGN, asked_at=Stage.DESIGN, on_the_walk=False)

    def placed(self, stop: Stop | None, stage: Stage) -> Question:
        """The same question asked somewhere else than its rule is: at another stop, at another stage."""
        return self._replace(place=stop, stage=stage, asked_at=stage, on_the_walk=stop is not None)

    def leaning_on(self, *proofs: Proof) -> Question:
        """The same question answered by leaning on something that a test has to prove."""
        return self._replace(proven_by=proofs)

    def meets(self, detail: str, *, basis: Facts = NO_FACTS, working: tuple[WorkingLine, ...] = ()) -> Finding:
        """It holds."""
        return self._finding(Verdict.MEETS, detail, basis, working=working)

    def falls_short(
        self, detail: str, *, basis: Facts = NO_FACTS, remedy: str = "", working: tuple[WorkingLine, ...] = ()
    ) -> Finding:
        """It does not hold, and what would put it right."""
        return self._finding(Verdict.FALLS_SHORT, detail, basis, remedy=remedy, working=working)

    def your_call(
        self,
        detail: str,
        *,
        basis: Facts,
        remedy: str = "",
        working: tuple[WorkingLine, ...] = (),
        conditions: tuple[Condition, ...] | None = None,
    ) -> Finding:
        """Allowed both ways: a reason is asked for, and holds while the basis stays what it is.

        Args:
            conditions: of the rule's conditions those that the facts bear out; all of them where not given.
        """
        more = {} if conditions is None else {"conditions": conditions}
        return self._finding(Verdict.YOUR_CALL, detail, basis, remedy=remedy, working=working, **more)

    def needs_fact(self, detail: str, *, basis: Facts = NO_FACTS, working: tuple[WorkingLine, ...] = ()) -> Finding:
        """It waits for a fact, where that is entered."""
        asked = self._replace(stage=self.asked_at)
        return asked._finding(Verdict.NEEDS, detail, basis, waits_for="fact", working=working)

    def needs_reading(self, detail: str, *, stage: Stage = Stage.LIVE, basis: Facts = NO_FACTS) -> Finding:
        """It waits for a reading."""
        return self._replace(stage=stage)._finding(Verdict.NEEDS, detail, basis, waits_for="reading")

    def judged(  # noqa: PLR0913 (every one of them by name)
        self,
        *,
        value: float,
        limit: float,
        unit: str,
        detail: str = "",
        at_least: bool = False,
        decimals: int = 2,
        working: tuple[WorkingLine, ...] = (),
        remedy: str = "",
        otherwise: Verdict = Verdict.FALLS_SHORT,
        holding: Verdict = Verdict.MEETS,
        waits_for: WaitsFor = "fact",
        basis: Facts = NO_FACTS,
        conditions: tuple[Condition, ...] | None = None,
    ) -> Finding:
        """The verdict follows from a value and a limit; exactly at the limit meets.

        Args:
            at_least: the value must reach the limit; otherwise it must not pass it.
            otherwise: the verdict when it does not hold.
            holding: the verdict when it does: less than Meets where a condition stays that nobody can check.
            remedy: what would put it right, kept only when it does not hold.
            basis: what the verdict rests on besides value and limit.
            conditions: where it is your call, those of the rule's conditions that the facts bear out.
        """
        holds = value >= limit - 1e-9 if at_least else value <= limit + 1e-9
        spare = (value - limit) if at_least else (limit - value)
        facts = {"value": round(value, decimals), "limit": round(limit, decimals), **basis}
        verdict = holding if holds else otherwise
        more = {"conditions": conditions} if conditions is not None and verdict is Verdict.YOUR_CALL else {}
        return self._finding(
            verdict,
            detail,
            facts,
            remedy="" if holds else remedy,
            working=working,
            **({"waits_for": waits_for} if verdict is Verdict.NEEDS else {}),
            value=value,
            limit=limit,
            unit=unit,
            decimals=decimals if holds else telling_decimals(value, limit, decimals),
            at_least=at_least,
            margin=spare / limit if limit else None,
            **more,
        )

    def _finding(self, verdict: Verdict, detail: str, basis: Facts, **more: Any) -> Finding:
        rule = self.rule
        # Thousands of findings are made in a search: what is usual is left to the default.
        if verdict is Verdict.FALLS_SHORT:
            more["fear"] = rule.can_happen
            if self.stage is not Stage.DEAD:
                more["offers"] = "remedies"
        elif verdict is Verdict.YOUR_CALL:
            more["offers"] = "reason"
            if rule.schools is not None:
                more["school"] = rule.schools.words()
            if rule.conditions:
                more.setdefault("conditions", rule.conditions)
        place = self.place or rule.stop
        if place is not None and self.on_the_walk:
            more["place"] = place
        if rule.step is not None:
            more["step"] = rule.step
        if self.named:
            more["named"] = True
        if self.proven_by and verdict in HOLDING:
            more["proven_by"] = self.proven_by
        return Finding(
            key=f"{rule.key}/{self.subject}",
            rule=rule.key,
            subject=self.subject,
            stage=self.stage,
            title=self.title,
            verdict=verdict,
            is_open=verdict is not Verdict.MEETS,
            protects=rule.protects_people,
            detail=detail,
            clause=self.clause,
            # A check names facts of the shape; a decision that comes from outside is held to it.
            basis=basis,  # type: ignore[arg-type]
            topics=rule.topics,
            **more,
        )


def ask(rule: Rule, edition: Edition, subject: str, *, variant: str = "", **words: str) -> Question:
    """A rule asked about one subject.

    Args:
        rule: the entry of the register.
        edition: the limits and clauses it is judged by.
        subject: the id of what it is about, or `origin`.
        variant: which of the rule's clauses, where the edition has several; the name of a limit gives that limit's.
        words: what the places in its title stand for.
    """
    return Question(
        rule,
        edition,
        subject,
        rule.title.format(**words) if words else rule.title,
        edition.rule_clause(rule.key, variant),
        rule.stage,
        rule.asked_at or rule.stage,
        not NAMES_WHOSE.isdisjoint(words),
    )
