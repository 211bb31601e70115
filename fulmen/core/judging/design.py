"""The design layer: a job judged by what is built and found, without its readings.

It takes the job without them, and the few figures that a design goes by as `Measured`: a reading typed leaves it as it
was, and what is kept of it is kept by those two.
"""

from __future__ import annotations

from dataclasses import dataclass

from fulmen.core.checks.around import dwelling_findings, place_of_unit_findings
from fulmen.core.checks.board_makers import board_maker_findings
from fulmen.core.checks.boards import board_findings
from fulmen.core.checks.charge_point import charge_point_findings, place_findings
from fulmen.core.checks.claims import claim_findings
from fulmen.core.checks.contradictions import contradiction_findings, doubted
from fulmen.core.checks.disconnection import disconnection_findings
from fulmen.core.checks.earth_separation import earth_separation_findings
from fulmen.core.checks.earthing import earthing_findings, exported_earth_findings
from fulmen.core.checks.fault_withstand import fault_withstand_findings
from fulmen.core.checks.front_rcds import front_rcd_findings, goes_off_findings
from fulmen.core.checks.guard_ratings import guard_rating_findings, main_switch_findings
from fulmen.core.checks.laying import joint_findings, laying_findings
from fulmen.core.checks.left_as import stays_connected_findings, to_come_findings
from fulmen.core.checks.load import load_findings
from fulmen.core.checks.overcurrent import overcurrent_findings
from fulmen.core.checks.own_sources import busbar_findings, own_source_findings
from fulmen.core.checks.phases import phase_findings
from fulmen.core.checks.removal import removal_findings
from fulmen.core.checks.residual_current import load_circuit_findings, residual_current_findings
from fulmen.core.checks.ring_final import ring_final_findings
from fulmen.core.checks.selectivity import selectivity_findings
from fulmen.core.checks.supply import supply_findings
from fulmen.core.checks.surge import surge_findings
from fulmen.core.checks.survey import survey_findings
from fulmen.core.checks.volt_drop import volt_drop_findings
from fulmen.core.circuit.measured import Measured
from fulmen.core.circuit.run_figures import Case, cases_of, known_of
from fulmen.core.demand.demand import Demand, demand_of
from fulmen.core.findings.finding import Finding, Proof
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import CHARGE_POINT
from fulmen.core.installation.installation import Installation, installation_of
from fulmen.core.installation.run import ORIGIN
from fulmen.core.judging.merging import Open, once_each
from fulmen.core.judging.resting import reckoned_with
from fulmen.core.model.job import Job
from fulmen.core.model.site import WorkKind
from fulmen.core.reference.rule_set import RuleSet

ORIGIN_CHECKS = (
    supply_findings,
    main_switch_findings,
    load_findings,
    survey_findings,
    dwelling_findings,
    own_source_findings,
)
DESIGN_CHECKS = (
    earthing_findings,
    earth_separation_findings,
    residual_current_findings,
    front_rcd_findings,
    goes_off_findings,
    guard_rating_findings,
    surge_findings,
    overcurrent_findings,
    volt_drop_findings,
    disconnection_findings,
    fault_withstand_findings,
    phase_findings,
    joint_findings,
    exported_earth_findings,
    selectivity_findings,
    laying_findings,
    board_findings,
    board_maker_findings,
    ring_final_findings,
    busbar_findings,
    place_findings,
    place_of_unit_findings,
    charge_point_findings,
    contradiction_findings,
    claim_findings,
    to_come_findings,
    stays_connected_findings,
)
LOAD_CHECKS = (
    load_circuit_findings,
    overcurrent_findings,
    volt_drop_findings,
    disconnection_findings,
    fault_withstand_findings,
    joint_findings,
    laying_findings,
    board_findings,
    board_maker_findings,
    ring_final_findings,
    claim_findings,
    stays_connected_findings,
)


@dataclass(frozen=True, slots=True)
class Design:
    """A design worked out and judged. `at_origin` are the findings about the origin, `along` those of the runs,
    `proofs` the tests of what it leans on, `still` what is open.

    Without a charge point nothing can be judged, and `along` asks for one. Of a unit that is taken away only how that
    was done is judged.
    """

    installation: Installation
    rules: RuleSet
    demand: Demand
    cases: tuple[Case, ...]
    at_origin: tuple[Finding, ...]
    along: tuple[Finding, ...]
    proofs: frozenset[Proof]
    still: Open

    @property
    def has_charge_point(self) -> bool:
        """Whether one is designed, so that its runs can be judged."""
        return bool(self.installation.runs) and not self.is_removal

    @property
    def is_removal(self) -> bool:
        """Whether a unit is taken away, and nothing takes its place."""
        return self.installation.job.site.work is WorkKind.REMOVED


def design_of(job: Job, measured: Measured, rules: RuleSet) -> Design:
    """Judge a design by one edition.

    Args:
        job: the job without its readings, see `unread`; its structure must have been checked.
        measured: the few figures that it takes from them, see `measured_of`.
        rules: the limits of the edition, see `rule_set`.
    """
    assert not job.readings
    installation = installation_of(job)
    demand = demand_of(installation, rules)
    cases = tuple(cases_of(known_of(installation, rules, demand, measured)))
    if job.site.work is WorkKind.REMOVED:
        left = once_each(removal_findings(job, rules), job, Open())
        return Design(installation, rules, demand, cases, (), left, frozenset(), Open())
    if not installation.runs:
        asked = ask(CHARGE_POINT, rules, ORIGIN)
        told = asked.needs_fact("Add the charge point: everything else follows from it.")
        return Design(installation, rules, demand, cases, (), once_each([told], job, Open()), frozenset(), Open())
    of_origin = (finding for check in ORIGIN_CHECKS for finding in check(cases[0]))
    of_runs = [
        finding
        for case in cases
        for check in (LOAD_CHECKS if case.to_loads else DESIGN_CHECKS)
        for finding in check(case)
    ]
    # Of one question that several runs answer the worst is told; what each of them leans on is tested.
    proofs = frozenset(proof for finding in of_runs for proof in finding.proven_by)
    still = Open(installation.unseen, reckoned_with(installation, demand), doubted(cases))
    at_origin, along = (once_each(each, job, still) for each in (of_origin, of_runs))
    return Design(installation, rules, demand, cases, at_origin, along, proofs, still)
