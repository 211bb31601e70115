"""Protecting people, worked out from what is sent: ways, broken-PEN bench, electrode, residual chain."""

from __future__ import annotations

from flask import Response

from fulmen.core.alternatives.arrangements import ArrangementOptions, arrangement_options
from fulmen.core.editing.job_file import check_structure
from fulmen.core.electrical.electrode import ElectrodeOutlook, ElectrodePlan, electrode_outlook
from fulmen.core.errors import InputError
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.reference.soil import soils
from fulmen.core.simulations.benches.pen_bench import Bench, BenchResult, presets, run_bench
from fulmen.core.simulations.benches.residual_chain import ChainQuestion, ResidualChain, residual_chain
from fulmen.web.design.schemas import PointQuestion, Teaching
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.replies import reply

protection = api_blueprint("protection")


@protection.post("/protection/arrangements", responses={200: ArrangementOptions})
@allows(Role.ELECTRICIAN)
def list_arrangements(body: PointQuestion) -> Response:
    """Judge every way to protect people at one charge point."""
    job = body.job
    check_structure(job)
    places = [place for place, one in enumerate(job.charge_points) if one.id == body.charge_point]
    if not places:
        raise InputError("charge_point", f"There is no charge point “{body.charge_point}”.")
    return reply(arrangement_options(job, rule_set(job.rule_set), places[0]))


@protection.get("/protection/teaching", responses={200: Teaching})
@allows(Role.ELECTRICIAN)
def read_teaching() -> Response:
    """Read the streets that teach, and the soils to plan with."""
    return reply(Teaching(presets=list(presets()), soils=list(soils())))


@protection.post("/protection/bench", responses={200: BenchResult})
@allows(Role.ELECTRICIAN)
def break_pen(body: Bench) -> Response:
    """Break the PEN of a street and tell what happens."""
    return reply(run_bench(body, rule_set()))


@protection.post("/protection/electrode", responses={200: ElectrodeOutlook})
@allows(Role.ELECTRICIAN)
def plan_electrode(body: ElectrodePlan) -> Response:
    """Tell what an electrode is expected to come to."""
    return reply(electrode_outlook(body, rule_set()))


@protection.post("/protection/chain", responses={200: ResidualChain})
@allows(Role.ELECTRICIAN)
def ask_chain(body: ChainQuestion) -> Response:
    """Tell what each residual-current device makes of a residual current."""
    check_structure(body.job)
    return reply(residual_chain(body, rule_set(body.job.rule_set)))
