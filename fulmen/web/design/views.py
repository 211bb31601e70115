"""Designing the run, worked out from what is sent: route, layouts, materials, drawing."""

from __future__ import annotations

import csv
from io import StringIO

from flask import Response

from fulmen.core.editing.chain_editing import layout_choices
from fulmen.core.editing.job_file import check_structure
from fulmen.core.editing.route_editing import (
    join_sections,
    rated_again,
    route_from_shorthand,
    section_in,
    split_section,
    surrounded,
    with_cable,
)
from fulmen.core.editing.tree_editing import acts_on, after_act
from fulmen.core.errors import InputError
from fulmen.core.materials.cells import cell
from fulmen.core.materials.materials import MaterialsList, materials_list
from fulmen.core.model.circuits import Circuit
from fulmen.core.model.job import Job
from fulmen.core.model.route import LengthBy, Section
from fulmen.documents.run_drawing import run_drawing
from fulmen.store.prices import price_list
from fulmen.web.design.schemas import (
    ActQuestion,
    FindingQuestion,
    LayoutList,
    NodeQuestion,
    PointQuestion,
    RouteAnswer,
    RouteQuestion,
    TreeActs,
    WholeFinding,
)
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.replies import reply, store
from fulmen.web.jobs.replies import judged
from fulmen.web.jobs.schemas import ChangeList

design = api_blueprint("design")


@design.post("/route", responses={200: RouteAnswer})
@allows(Role.ELECTRICIAN)
def write_route(body: RouteQuestion) -> Response:
    """Write, add to, split, join or move sections of a circuit's route; nothing is stored."""
    check_structure(body.job)
    circuit = next((one for one in body.job.circuits if one.id == body.circuit), None)
    if circuit is None:
        raise InputError("circuit", f"There is no circuit “{body.circuit}”.")
    return reply(RouteAnswer(route=list(_route(body, circuit))))


def _route(body: RouteQuestion, circuit: Circuit) -> tuple[Section, ...]:
    job, route = body.job, circuit.route
    if body.act == "write":
        return (*route, *route_from_shorthand(body.text, job, circuit))
    if body.act == "add":
        return (*route, section_in(body.surroundings, 1.0, LengthBy.TAPE, fitted=circuit.fitted_with_this_job))
    if body.act == "split":
        return split_section(route, body.index, body.at_m)
    if body.act == "join":
        return join_sections(route, body.index)
    if body.act == "rate":
        return rated_again(circuit, job)
    if body.act == "cable":
        return with_cable(route, circuit, body.index, body.cable or circuit.cable, job)
    if body.index >= len(route):
        raise InputError("index", f"There is no section {body.index + 1}.")
    moved = surrounded(route[body.index], body.surroundings, fitted=circuit.fitted_with_this_job)
    return (*route[: body.index], moved, *route[body.index + 1 :])


@design.post("/layouts", responses={200: LayoutList})
@allows(Role.ELECTRICIAN)
def list_layouts(body: PointQuestion) -> Response:
    """List the ways to feed one charge point: from the board, an own board, a sub-main."""
    return reply(LayoutList(layouts=list(layout_choices(body.job, body.charge_point))))


@design.post("/tree/acts", responses={200: TreeActs})
@allows(Role.ELECTRICIAN)
def list_tree_acts(body: NodeQuestion) -> Response:
    """List what can be done with one part of the tree."""
    return reply(TreeActs(acts=list(acts_on(body.job, body.node))))


@design.post("/tree/act", responses={200: ChangeList})
@allows(Role.ELECTRICIAN)
def act_on_tree(body: ActQuestion) -> Response:
    """Take a part of the tree out, duplicate it or move it, with all that hangs behind it; nothing is stored."""
    return reply(ChangeList(changes=list(after_act(body.job, body.node, body.act))))


@design.post("/materials", responses={200: MaterialsList})
@allows(Role.ELECTRICIAN)
def list_materials(body: Job) -> Response:
    """List what a job needs, with prices and working times of the list that counts."""
    check_structure(body)
    return reply(materials_list(body, price_list(store())))


@design.post("/materials.csv", responses={200: None})
@allows(Role.ELECTRICIAN)
def download_materials(body: Job) -> Response:
    """Download the same list as CSV."""
    check_structure(body)
    out = StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(["item", "quantity", "unit", "price", "work_min", "invented price", "why"])
    for line in materials_list(body, price_list(store())).lines:
        made = line.material
        price, work = ("" if figure is None else f"{figure:.2f}" for figure in (line.price, line.work_min))
        writer.writerow(
            [
                cell(made.name),
                f"{made.quantity:g}",
                made.unit,
                price,
                work,
                "yes" if line.invented else "",
                cell(made.why),
            ]
        )
    headers = {"Content-Disposition": 'attachment; filename="materials.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=headers)


@design.post("/finding", responses={200: WholeFinding})
@allows(Role.ELECTRICIAN)
def tell_finding(body: FindingQuestion) -> Response:
    """Tell all of one finding, by its key: a list shows what is settled as a row. Nothing is stored."""
    found = next((one for one in judged(body.job).findings if one.key == body.finding), None)
    if found is None:
        raise InputError("finding", f"There is no check “{body.finding}” in this job.")
    return reply(WholeFinding(finding=found))


@design.post("/run.svg", responses={200: None})
@allows(Role.ELECTRICIAN)
def draw_run(body: PointQuestion) -> Response:
    """Draw the run to one charge point as SVG."""
    found = judged(body.job)
    profile = next((one for one in found.profiles if one.charge_point == body.charge_point), None)
    if profile is None:
        raise InputError("charge_point", f"The run to “{body.charge_point}” has no route yet.")
    headers = {"Content-Disposition": 'attachment; filename="run.svg"'}
    return Response(
        run_drawing(profile, found.guards_to(profile.charge_point)), mimetype="image/svg+xml", headers=headers
    )
