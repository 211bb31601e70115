"""A load limit holds once its clamp was seen to see the house, and the unit to turn the car down."""

from __future__ import annotations

from fulmen.core.circuit.run_figures import Case
from fulmen.core.demand.clamp_proof import ClampCause, ClampVerdict, clamp_verdict
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.question import Question
from fulmen.core.model.clamp import ClampProof
from fulmen.core.model.seen import Seen

WRONG = {
    ClampCause.REVERSED: ("It goes down when a load is switched on: the clamp sits the wrong way.",
                          "Turn it so that its arrow points with the current."),
    ClampCause.BOTH_CONDUCTORS: ("It sees nothing: round both conductors, not closed, or an unnoticed dead pair.",
                                 "Close it round the line tail alone; ring the pair out."),
    ClampCause.WRONG_TAIL: ("It sees something, but not this load: it sits on another tail or circuit.",
                            "Put it on the incoming line, before everything else."),
    ClampCause.DEAD_PAIR: ("The unit reports no clamp: a broken or crossed pair.",
                           "Ring the pair out, or take another one; two doubled where the maker says so."),
}  # fmt: skip


def load_clamp_finding(asked: Question, case: Case, limit_a: float) -> Finding:
    """Whether the test of a unit's clamp bears the limit out."""
    proof = case.run.charge_point.clamp_proof or ClampProof()
    unsaid = _unsaid(proof)
    if unsaid:
        return asked.needs_reading(f"Until it is proven the limit is open: say {', '.join(unsaid)}.")
    assert proof.limit_set_a is not None
    if proof.limit_set_a > limit_a:
        detail = f"Set to {proof.limit_set_a:g} A; the demand is reckoned with {limit_a:g} A."
        return asked.falls_short(detail, remedy=f"Set the unit's load limit to {limit_a:g} A, and test again.")
    for seen, told, remedy in (
        (proof.arrow_with_current, "Its arrow is against the current.", "Turn the clamp."),
        (proof.round_line_only, "It is not round the line tail alone.", "Put it round the line tail alone."),
    ):
        if seen is Seen.NO:
            return asked.falls_short(told, remedy=remedy)
    car_a = case.run.charge_point.design_current_a()
    return _as_tested(asked, proof, clamp_verdict(proof, limit_a, car_a, case.rules), limit_a)


def _unsaid(proof: ClampProof) -> list[str]:
    """What was not looked at yet."""
    wanted = (
        (proof.limit_set_a is None, "what limit the unit is set to"),
        (proof.arrow_with_current is Seen.NOT_SEEN, "which way its arrow points"),
        (proof.round_line_only is Seen.NOT_SEEN, "whether it is round the line tail alone"),
        (not proof.wire_pair, "on which pair it is wired"),
        (proof.tested_by is None, "who tested it"),
    )
    return [words for lacking, words in wanted if lacking]


def _as_tested(asked: Question, proof: ClampProof, verdict: ClampVerdict, limit_a: float) -> Finding:
    cause, should_a = verdict.cause, verdict.should_offer_a
    basis = {"cause": cause, "limit_a": limit_a, "known_load_a": proof.known_load_a}
    if cause is ClampCause.NOT_TESTED:
        return asked.needs_reading("Switch on a known load and see the car turn down: write what the unit shows.")
    if cause is ClampCause.NOT_ENOUGH_LOAD:
        return asked.needs_reading(
            "That load leaves room for what the car was offered: nothing had to turn down. Switch on more, or turn the "
            "limit down for the test."
        )
    if cause in WRONG:
        detail, remedy = WRONG[cause]
        return asked.falls_short(detail, basis=basis, remedy=remedy)
    turned = "" if should_a is None else "pause" if should_a == 0 else f"offer at most {should_a:.0f} A"
    load_a, offered_a = proof.known_load_a or 0, proof.offered_with_a or 0
    told = f"With {load_a:g} A switched on the unit must {turned}; it offered {offered_a:g} A"
    if cause is ClampCause.LIMIT_NOT_SET:
        return asked.falls_short(f"{told}: the limit is not set.", basis=basis, remedy="Set the limit, and test again.")
    if cause is ClampCause.TOO_SLOW:
        return asked.your_call(
            f"{told}, after {proof.follows_s or 0:g} s: longer than a fuse likes. Say why it may.", basis=basis
        )
    if cause is ClampCause.RIGHT:
        return asked.meets(f"{told} after {proof.follows_s or 0:g} s. Tested by {proof.tested_by}.")
    return asked.needs_reading("The figures fit neither a right clamp nor a wrong one: test again with one load alone.")
