"""The firm's standing reasons: read, keep and forget them, and which fit a job's open calls."""

from __future__ import annotations

from flask import Response

from fulmen.core.editing.standing_reasons import ReasonedFacts, StandingReason, StandingReasons, fitting_reasons
from fulmen.core.model.job import Job
from fulmen.store.kept import keep, kept
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.replies import now, reply, store
from fulmen.web.jobs.replies import judged
from fulmen.web.jobs.schemas import FittingList

KEY = "standing_reasons"

standing = api_blueprint("standing")


@standing.get("/standing-reasons", responses={200: StandingReasons})
@allows(Role.ELECTRICIAN)
def read_standing_reasons() -> Response:
    """Read the standing reasons."""
    return reply(kept(store(), KEY, StandingReasons))


@standing.post("/standing-reasons", responses={200: StandingReasons})
@allows(Role.ELECTRICIAN)
def keep_standing_reason(body: StandingReason) -> Response:
    """Keep one, in the place of another for the same rule and facts."""
    reasons = kept(store(), KEY, StandingReasons).keeping(body)
    keep(store(), KEY, reasons, now(), body.rule)
    return reply(reasons)


@standing.post("/standing-reasons/forget", responses={200: StandingReasons})
@allows(Role.ELECTRICIAN)
def forget_standing_reason(body: ReasonedFacts) -> Response:
    """Forget the one for a rule and its facts; what was decided by it stays decided."""
    reasons = kept(store(), KEY, StandingReasons).without(body)
    keep(store(), KEY, reasons, now(), f"without {body.rule}")
    return reply(reasons)


@standing.post("/standing-reasons/fitting", responses={200: FittingList})
@allows(Role.ELECTRICIAN)
def list_fitting_reasons(body: Job) -> Response:
    """List the standing reasons that fit a job's open calls: same rule, same facts; nothing is stored."""
    reasons = kept(store(), KEY, StandingReasons)
    found = judged(body).findings if reasons.reasons else ()
    return reply(FittingList(fitting=list(fitting_reasons(found, reasons))))
