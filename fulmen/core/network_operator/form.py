"""What the network operator is told, assembled from the job: one form for notifying and for applying."""

from __future__ import annotations

from fulmen.core.demand.demand import demand_of
from fulmen.core.demand.diversity import DiversityLine
from fulmen.core.findings.words import word
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.model.letters import LetterFacts
from fulmen.core.model.load import Appliance, LoadKind
from fulmen.core.model.seen import Seen
from fulmen.core.model.site import WorkKind
from fulmen.core.model.stops import Stop
from fulmen.core.network_operator.notification import Reason, Route, energised_on, operator_matter
from fulmen.core.reference.rule_set import RuleSet


class FormChargePoint(Part):
    """A charge point as the operator needs to know it."""

    name: str
    phases: int
    max_current_a: float | None
    set_current_a: float
    power_kw: float
    load_limit_a: float | None
    smart: str


class OperatorForm(Part):
    """The content of the form; empty texts are facts that are not known."""

    route: Route
    deadline: str
    reasons: tuple[Reason, ...]
    reference: str
    householder: str
    address: str
    supply_number: str
    earthing: str
    phases: int
    cut_out_fuse_a: int | None
    fuse_proven: str
    cut_out_condition: str
    looped: str
    neighbour_charge_point: str
    tails_csa_mm2: float | None
    own_generation: str
    sources: tuple[str, ...]
    heat_pumps: tuple[str, ...]
    demand_source: str
    demand_lines: tuple[DiversityLine, ...]
    house_a: float | None
    total_a: float | None
    held_a: float | None
    charge_points: tuple[FormChargePoint, ...]
    photos: tuple[str, ...]
    missing: tuple[str, ...]
    about: LetterFacts
    about_words: str
    taken_away: bool = False


def operator_form(job: Job, rules: RuleSet, photo_stops: tuple[Stop, ...] = ()) -> OperatorForm:
    """The form's content.

    Args:
        job: the job document.
        rules: the edition and its thresholds.
        photo_stops: the stop of each photo that is kept with the job.

    Returns:
        the form; `missing` names what the operator will ask for and the job does not hold.
    """
    installation, supply = installation_of(job), job.supply
    demand = demand_of(installation, rules)
    matter = operator_matter(job, rules, demand, energised_on(job.readings))
    u0_v = rules.value("u0_v")
    points = tuple(
        FormChargePoint(
            name=point.name,
            phases=point.phase_count,
            max_current_a=point.max_current_a,
            set_current_a=point.design_current_a(),
            power_kw=round(point.design_current_a() * u0_v * point.phase_count / 1000, 2),
            load_limit_a=supply.load_limit_a,
            smart=word(point.smart),
        )
        for point in job.charge_points
    )
    return OperatorForm(
        route=matter.route,
        deadline=matter.deadline_words,
        reasons=matter.reasons,
        reference=job.reference,
        householder=job.site.householder,
        address=job.site.address,
        supply_number=supply.supply_number,
        earthing=word(supply.earthing),
        phases=supply.phase_count,
        cut_out_fuse_a=supply.cut_out_fuse_a,
        fuse_proven=word(supply.fuse_proven),
        cut_out_condition=word(supply.cut_out_condition),
        looped=word(supply.looped),
        neighbour_charge_point=word(supply.neighbour_charge_point),
        tails_csa_mm2=min((one.csa_mm2 for one in installation.main_tails if one.csa_mm2), default=None),
        own_generation=word(supply.own_generation),
        sources=_sources(job),
        heat_pumps=tuple(_rated(one) for one in job.load.appliances if one.kind is LoadKind.HEAT_PUMP),
        demand_source=demand.source,
        demand_lines=demand.lines,
        house_a=demand.house_a,
        total_a=demand.total_a,
        held_a=demand.held_a,
        charge_points=points,
        photos=_photos(photo_stops),
        missing=_missing(job, demand.total_a, cut_out_photo=Stop.CUT_OUT in photo_stops),
        about=matter.about,
        about_words=matter.about_words,
        taken_away=job.site.work is WorkKind.REMOVED,
    )


def _sources(job: Job) -> tuple[str, ...]:
    """What feeds the house besides the network: own sources, and units that feed back."""
    own = job.supply.sources if job.supply.own_generation is Seen.YES else ()
    told = [f"{word(one.kind)}, {'–' if one.feeds_a is None else f'{one.feeds_a:g}'} A" for one in own]
    back = [one for one in job.charge_points if one.feeds_back is Seen.YES]
    return (*told, *(f"{one.name}, feeds back {one.design_current_a():g} A" for one in back))


def _rated(one: Appliance) -> str:
    rated = f"{one.rating_a:g} A" if one.rating_a is not None else f"{one.rating_kw:g} kW"
    return f"{one.name or word(one.kind)}, {rated}"


def _photos(photo_stops: tuple[Stop, ...]) -> tuple[str, ...]:
    """How many photos show each stop, in the order of the walk."""
    return tuple(f"{word(stop)}: {photo_stops.count(stop)}" for stop in Stop if stop in photo_stops)


def _missing(job: Job, total_a: float | None, *, cut_out_photo: bool) -> tuple[str, ...]:
    wanted = (
        (job.site.householder, "the householder's name"),
        (job.site.address, "the address"),
        (job.supply.supply_number, "the supply number"),
        (job.supply.cut_out_fuse_a, "the cut-out fuse"),
        (total_a, "the maximum demand"),
        (job.charge_points, "the charge point"),
        (all(one.max_current_a for one in job.charge_points), "the charge point's current"),
        (cut_out_photo, "a photo of the cut-out"),
    )
    return tuple(words for value, words in wanted if not value)
