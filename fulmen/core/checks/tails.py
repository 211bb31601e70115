"""The tails to every board: usual size for the fuse, what they carry as they run, and their length."""

from __future__ import annotations

from fulmen.core.circuit.origin import carried_a
from fulmen.core.circuit.run_figures import Case
from fulmen.core.electrical.fault_energy import cut_out_energy_a2s, least_csa_mm2
from fulmen.core.electrical.tails_rating import tails_iz_a
from fulmen.core.errors import TableError
from fulmen.core.findings.finding import Finding, WorkingLine
from fulmen.core.findings.question import Question, ask
from fulmen.core.findings.rules.supply import TAILS_CAPACITY, TAILS_LENGTH, TAILS_SIZE
from fulmen.core.findings.words import word
from fulmen.core.installation.run import ORIGIN
from fulmen.core.model.boards import Board
from fulmen.core.model.seen import Seen
from fulmen.core.model.supply import Earthing
from fulmen.core.model.tails import TailsRun, TailsStretch
from fulmen.core.plain import plain
from fulmen.core.reference.cable_catalogue import K_COPPER
from fulmen.core.reference.tables import table


def tails_findings(case: Case) -> list[Finding]:
    """Every finding about the tails to every board that they feed; the weakest stretch on the way decides."""
    found, installation = [], case.installation
    for board in case.job.boards:
        if board.id not in installation.tree.feeders:
            path = installation.tails_to[board.id]
            found += [_size(case, board, path), _capacity(case, board, path), _length(case, board, path)]
    return [one for one in found if one is not None]


def how_they_run_asked(case: Case) -> tuple[str, ...]:
    """The fields of the stretches that carry too little if nobody says how they run."""
    fuse_a, ratings, found = case.job.supply.cut_out_fuse_a, table("tails_rating"), []
    for place, one in enumerate(case.job.supply.tails):
        if fuse_a is None or one.csa_mm2 is None or not ratings.has("B.2", one.csa_mm2):
            continue
        if one.runs is TailsRun.NOT_SEEN and not _carries(case, one, float(fuse_a)).stands:
            found.append(f"supply.tails.{place}.runs")
    return tuple(found)


def _subject(case: Case, board: Board) -> str:
    """The tails to the first board are the origin's; those to another one are named after it."""
    return ORIGIN if board is case.installation.tree.origin else board.id


def _size(case: Case, board: Board, path: tuple[TailsStretch, ...]) -> Finding:
    """The operator's usual size for the fuse, which their word in writing settles up to the current that it names."""
    rules, fuse_a, subject = case.rules, case.job.supply.cut_out_fuse_a, _subject(case, board)
    sizes = [(one.csa_mm2, one) for one in path if one.csa_mm2 is not None]
    if not sizes or len(sizes) < len(path) or fuse_a is None:
        return ask(TAILS_SIZE, rules, subject).needs_fact("Enter the tails' size and the cut-out fuse.")
    if fuse_a > FUSES_WITH_A_USUAL_SIZE_A:
        return _by_letter(ask(TAILS_SIZE, rules, subject), fuse_a, [one for _, one in sizes], "There is no usual size")
    name = "tails_csa_to_80_a_mm2" if fuse_a <= 80 else "tails_csa_to_100_a_mm2"
    asked, least = ask(TAILS_SIZE, rules, subject, variant=name), rules.value(name)
    small = [one for csa_mm2, one in sizes if csa_mm2 < least]
    smallest = min(csa_mm2 for csa_mm2, _ in sizes)
    if small and all(one.accepted_in_writing is Seen.YES for one in small):
        return _by_letter(asked, fuse_a, small, f"{smallest:g} mm² is smaller than usual")
    return asked.judged(
        value=smallest,
        limit=least,
        unit="mm²",
        decimals=0,
        at_least=True,
        detail=f"behind {fuse_a} A",
        remedy="Replace the tails, have the operator accept them in writing, or ask for a smaller fuse.",
    )


FUSES_WITH_A_USUAL_SIZE_A = 100


def _by_letter(asked: Question, fuse_a: int, stretches: list[TailsStretch], why: str) -> Finding:
    """What the operator took in writing, as far as the current that the letter names."""
    if any(one.accepted_in_writing is not Seen.YES for one in stretches):
        return asked.needs_fact(f"{why} behind a {fuse_a} A fuse: have the operator accept the tails in writing.")
    named = [one.accepted_to_a for one in stretches if one.accepted_to_a is not None]
    if len(named) < len(stretches):
        return asked.needs_fact(f"{why}: up to which current does the operator's letter accept the tails?")
    basis = {"accepted_to_a": min(named), "fuse_a": fuse_a}
    if min(named) >= fuse_a:
        return asked.meets(f"{why}; accepted by the operator in writing up to {min(named):g} A.", basis=basis)
    return asked.falls_short(
        f"{why}; the operator's letter accepts the tails up to {min(named):g} A, and a {fuse_a} A fuse stands there.",
        basis=basis,
        remedy="Replace the tails, or ask for a smaller fuse.",
    )


@plain
class _Carries:
    """What one stretch carries as it runs and would carry clipped, what can flow in it, and its load [A]."""

    stretch: TailsStretch
    iz_a: float
    clipped_a: float
    most_a: float
    load_a: float | None
    source: str

    @property
    def working(self) -> tuple[WorkingLine, ...]:
        return (WorkingLine(symbol="Iz", value=self.iz_a, decimals=0, unit="A", source=self.source),)

    @property
    def load_fits(self) -> bool:
        """433.3.1: whether the load is not likely to pass what it carries."""
        return self.load_a is not None and self.load_a <= self.iz_a

    @property
    def stands(self) -> bool:
        """Whether nothing more is asked: it carries what can flow, or its load where it would carry that clipped."""
        unseen = self.stretch.runs is TailsRun.NOT_SEEN
        usual = unseen and self.clipped_a >= self.most_a
        return self.iz_a >= self.most_a or (usual and self.load_fits)

    @property
    def how(self) -> str:
        unseen = self.stretch.runs is TailsRun.NOT_SEEN
        return "as if in conduit or trunking" if unseen else word(self.stretch.runs)


def _capacity(case: Case, board: Board, path: tuple[TailsStretch, ...]) -> Finding | None:
    """Iz of the tails as they run, against the fuse or what holds their load behind them; first the fuse's energy."""
    fuse_a, asked = case.job.supply.cut_out_fuse_a, ask(TAILS_CAPACITY, case.rules, _subject(case, board))
    if fuse_a is None or any(one.csa_mm2 is None for one in path) or not path:
        return None
    try:
        weakest = min((_carries(case, one, float(fuse_a)) for one in path), key=lambda one: one.iz_a / one.most_a)
    except TableError as error:
        return asked.needs_fact(f"{error}: ask what they carry, or replace them.")
    burnt, unjudged = _burnt(case, asked, path, fuse_a)
    return burnt or _too_little(asked, weakest, fuse_a) or _enough(asked, weakest, unjudged)


def _carries(case: Case, one: TailsStretch, fuse_a: float) -> _Carries:
    """Raises TableError for a size that the table lacks."""
    assert one.csa_mm2 is not None
    held_a, phases = case.demand.held_a, case.job.supply.phase_count
    iz_a, source = tails_iz_a(one.csa_mm2, one.runs, phases)
    return _Carries(
        stretch=one,
        iz_a=iz_a,
        clipped_a=tails_iz_a(one.csa_mm2, TailsRun.CLIPPED, phases)[0],
        most_a=min(fuse_a, _held_a(case, one)),
        load_a=None if held_a is None else carried_a(case.installation, one, held_a),
        source=source,
    )


def _held_a(case: Case, one: TailsStretch) -> float:
    """What devices behind a stretch, or the load limit, hold its load to [A]; without end where nothing does."""
    boards = case.installation.boards_behind[one.id]
    # A limit holds what a clamp tells the units; without one it is a wish.
    clamped = all(one.current_clamp is Seen.YES for one in case.job.charge_points)
    limited = case.job.supply.load_limit_a is not None and case.demand.held_a is not None and clamped
    limit_a = case.demand.held_a if limited and case.demand.held_a is not None else float("inf")
    if not boards or any(board.feeds_others is not Seen.NO or board.other_loads for board in boards):
        return limit_a
    leaving = case.installation.tree.leaving
    devices_a = sum(circuit.device.rating_a for board in boards for circuit in leaving[board.id])
    return min(limit_a, float(devices_a) or float("inf"))


def _too_little(asked: Question, weakest: _Carries, fuse_a: int) -> Finding | None:
    """Where the weakest stretch carries less than can flow: asked, your call, or falls short."""
    runs, unseen = weakest.stretch.runs, weakest.stretch.runs is TailsRun.NOT_SEEN
    if weakest.stands:
        return None
    if unseen and weakest.clipped_a >= weakest.most_a:
        return asked.needs_fact("How do the tails run: clipped, in conduit or trunking, or in an insulated wall?")
    below = f"{weakest.iz_a:g} A {weakest.how}, below the {weakest.most_a:g} A that can flow"
    basis, remedy = {"iz_a": weakest.iz_a, "fuse_a": fuse_a, "runs": runs}, "Replace the tails, or use a smaller fuse."
    if not weakest.load_fits or weakest.load_a is None:
        return asked.falls_short(f"{below}.", basis=basis, working=weakest.working, remedy=remedy)
    load = f"the load of {weakest.load_a:.0f} A is not likely to pass it: say why that stays so"
    more = {"load_a": round(weakest.load_a)}
    return asked.your_call(f"{below}; {load}.", basis=basis | more, working=weakest.working, remedy=remedy)


def _burnt(case: Case, asked: Question, path: tuple[TailsStretch, ...], fuse_a: int) -> tuple[Finding | None, str]:
    """S ≥ √(I²t)/k behind the cut-out fuse; a fault that opens it late is the operator's, whose fuse it is.

    Where no table has its energy, or it opens too late, that is not judged, and said.
    """
    supply, source_v = case.job.supply, case.rules.value("u0_v") * case.rules.value("voltage_factor_min")
    loop_ohm = case.origin.neutral_loop_ohm
    if supply.earthing is not Earthing.TT:
        loop_ohm = max(loop_ohm, case.origin.ze.value)
    try:
        energy, source = cut_out_energy_a2s(float(fuse_a), supply.cut_out_fuse_standard, source_v / loop_ohm)
    except TableError as error:
        return None, f"; the fuse's energy in them is not judged, {error}"
    smallest = min(one.csa_mm2 for one in path if one.csa_mm2 is not None)
    least = least_csa_mm2(energy, K_COPPER["pvc_70"])
    if smallest >= least:
        return None, ""
    found = asked.judged(
        value=smallest, limit=least, unit="mm²", decimals=1, at_least=True,
        working=(WorkingLine(symbol="I²t", value=energy, decimals=0, unit="A²s", source=source),),
        detail="the cut-out fuse lets more through at a fault than they stand",
        remedy="Replace the tails, or ask for a smaller fuse.",
    )  # fmt: skip
    return found, ""


def _enough(asked: Question, weakest: _Carries, unjudged: str) -> Finding:
    by_load = weakest.iz_a < weakest.most_a and weakest.load_a is not None
    return asked.judged(
        value=weakest.iz_a,
        limit=weakest.load_a if by_load and weakest.load_a is not None else weakest.most_a,
        unit="A",
        decimals=0,
        at_least=True,
        working=weakest.working,
        detail=f"{weakest.how}, against {'the load, which is not likely to pass it' if by_load else 'what can flow'}"
        f"{unjudged}",
    )


def _length(case: Case, board: Board, path: tuple[TailsStretch, ...]) -> Finding:
    asked = ask(TAILS_LENGTH, case.rules, _subject(case, board))
    known_m = [one.length_m for one in path if one.length_m is not None]
    if not path or len(known_m) < len(path):
        return asked.needs_fact("Enter the length of the tails.")
    return asked.judged(
        unit="m",
        decimals=1,
        value=sum(known_m),
        limit=case.rules.value("tails_length_m"),
        detail="" if len(path) == 1 else f"{len(path)} stretches from the cut-out to {board.name}",
        remedy="Fit a switch-fuse near the meter.",
    )
