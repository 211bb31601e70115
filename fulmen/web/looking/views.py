"""Looking for other ways: begun by a question, asked for by its ticket until it ends, stopped. Nothing is stored."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask import Response, current_app

from fulmen.core.model.job import Job
from fulmen.store.prices import price_list
from fulmen.web.design.schemas import FindingQuestion, PointQuestion
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.problems import Problem, problem_response
from fulmen.web.doors.replies import reply, store
from fulmen.web.looking import child
from fulmen.web.looking.lookings import Lookings
from fulmen.web.looking.schemas import (
    AlternativesQuestion,
    AlternativesSoFar,
    LookingPath,
    LookingSoFar,
    ReachSoFar,
    RemediesSoFar,
    SearchSoFar,
    TestOrderSoFar,
    UnknownsSoFar,
)

looking = api_blueprint("looking")

# What is left of a second and a half is for reading the question and writing the answer.
ANSWERED_WITHIN_S = 1.2


def lookings() -> Lookings:
    """Who looks at this server."""
    found: Lookings = current_app.extensions["lookings"]
    return found


def _begun(kind: type[LookingSoFar[Any]], steps_of: Callable[..., child.Steps], *given: Any) -> Response:
    """Somebody looks: all of it where that is quick, else the best so far."""
    return _told(kind, lookings().begin(steps_of, *given), ANSWERED_WITHIN_S)


@looking.errorhandler(child.TooBig)
def too_big(error: child.TooBig) -> Response:
    """A job that is too big to be looked into is told so."""
    return problem_response(Problem(title="Too big", status=503, detail=str(error)))


def _told(kind: type[LookingSoFar[Any]], ticket: str, wait_s: float = 0.0) -> Response:
    one = lookings().told(ticket, wait_s)
    told = one.told
    return reply(kind(ticket=ticket, state=one.state, tried=told.tried, of=told.of, found=told.found))


@looking.delete("/looking/<string:ticket>", responses={204: None})
@allows(Role.ELECTRICIAN)
def stop_looking(path: LookingPath) -> Response:
    """Stop looking; what was found until then is told once more to whoever asks."""
    lookings().stop(path.ticket)
    return Response(status=204)


@looking.post("/search", responses={200: SearchSoFar})
@allows(Role.ELECTRICIAN)
def search_ways(body: PointQuestion) -> Response:
    """Try every sensible way to feed one charge point."""
    return _begun(SearchSoFar, child.other_ways, body.job, body.charge_point, price_list(store()))


@looking.get("/search/<string:ticket>", responses={200: SearchSoFar, 410: Problem})
@allows(Role.ELECTRICIAN)
def search_ways_so_far(path: LookingPath) -> Response:
    """Tell the same so far."""
    return _told(SearchSoFar, path.ticket)


@looking.post("/reach", responses={200: ReachSoFar})
@allows(Role.ELECTRICIAN)
def tell_how_far_it_holds(body: PointQuestion) -> Response:
    """Tell how far one charge point's design holds: route, loop, load, heat, company, insulation, fuse."""
    return _begun(ReachSoFar, child.how_far_it_holds, body.job, body.charge_point)


@looking.get("/reach/<string:ticket>", responses={200: ReachSoFar, 410: Problem})
@allows(Role.ELECTRICIAN)
def tell_how_far_it_holds_so_far(path: LookingPath) -> Response:
    """Tell the same so far."""
    return _told(ReachSoFar, path.ticket)


@looking.post("/unknowns", responses={200: UnknownsSoFar})
@allows(Role.ELECTRICIAN)
def list_unknown_facts(body: Job) -> Response:
    """List the facts that nobody knows yet, in the order of what they could upset."""
    return _begun(UnknownsSoFar, child.unknown_facts, body)


@looking.get("/unknowns/<string:ticket>", responses={200: UnknownsSoFar, 410: Problem})
@allows(Role.ELECTRICIAN)
def list_unknown_facts_so_far(path: LookingPath) -> Response:
    """Tell the same so far."""
    return _told(UnknownsSoFar, path.ticket)


@looking.post("/remedies", responses={200: RemediesSoFar})
@allows(Role.ELECTRICIAN)
def list_remedies(body: FindingQuestion) -> Response:
    """Work out the smallest changes that make a finding hold."""
    return _begun(RemediesSoFar, child.remedies, body.job, body.finding)


@looking.get("/remedies/<string:ticket>", responses={200: RemediesSoFar, 410: Problem})
@allows(Role.ELECTRICIAN)
def list_remedies_so_far(path: LookingPath) -> Response:
    """Tell the same so far."""
    return _told(RemediesSoFar, path.ticket)


@looking.post("/alternatives", responses={200: AlternativesSoFar})
@allows(Role.ELECTRICIAN)
def list_alternatives(body: AlternativesQuestion) -> Response:
    """Say for every way to fill a choice what it would do."""
    return _begun(AlternativesSoFar, child.alternatives, body.job, body.circuit, body.choice)


@looking.get("/alternatives/<string:ticket>", responses={200: AlternativesSoFar, 410: Problem})
@allows(Role.ELECTRICIAN)
def list_alternatives_so_far(path: LookingPath) -> Response:
    """Tell the same so far."""
    return _told(AlternativesSoFar, path.ticket)


@looking.post("/tests/order", responses={200: TestOrderSoFar})
@allows(Role.ELECTRICIAN)
def order_tests(body: Job) -> Response:
    """Look for the order of a job's test steps with the fewest moves, told beside the book's."""
    return _begun(TestOrderSoFar, child.order_of_tests, body)


@looking.get("/tests/order/<string:ticket>", responses={200: TestOrderSoFar, 410: Problem})
@allows(Role.ELECTRICIAN)
def order_tests_so_far(path: LookingPath) -> Response:
    """Tell the same so far."""
    return _told(TestOrderSoFar, path.ticket)
