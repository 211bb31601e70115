"""Acts for the tests: what an example tells of is signed again, as a person would at a screen."""

from __future__ import annotations

from typing import Any

from fulmen.core.editing.acts import without_acts
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS
from fulmen.store.acts import CERTIFICATE, Act, ActKind, Call, Warrant, draw_words, hold, settle_call, sign_hold
from fulmen.store.database import Sessions
from fulmen.store.errors import MovedOn
from fulmen.store.operations import StoredJob, create_job, load_job
from tests.when import NOW

DEVICE = "d" * 32
OUR_PAGE = {"Origin": "http://localhost"}


def warrant(sessions: Sessions, job_id: int, act: Act = CERTIFICATE, device: str = DEVICE, at: Any = NOW) -> Warrant:
    """A word drawn for an act."""
    word, _ = draw_words(sessions, job_id, [act], device, at)[act]
    return Warrant(word, device)


def sign_as_told(sessions: Sessions, job_id: int, told: Job, at: Any = NOW) -> StoredJob:
    """Sign every hold and settle every call that a job tells of; a call that is none here is left alone."""
    for reading in told.readings:
        if reading.step in HOLDS:
            act = hold(reading.step.value, reading.subject)
            sign_hold(sessions, job_id, reading, warrant(sessions, job_id, act, at=at), at)
    for decision in told.decisions:
        call = Call(
            finding=decision.key,
            condition=decision.condition,
            standing=decision.standing,
            reason=decision.reason,
            name=decision.name,
            decided_at=decision.decided_at or at,
        )
        try:
            settle_call(sessions, job_id, call, warrant(sessions, job_id, Act(ActKind.CALL, decision.key), at=at), at)
        except MovedOn:
            continue
    return load_job(sessions, job_id)


def signed_job(sessions: Sessions, told: Job, at: Any = NOW) -> StoredJob:
    """A job in the store, what it tells of acts signed there by a person."""
    return sign_as_told(sessions, create_job(sessions, without_acts(told), at).id, told, at)


def word_header(client: Any, job_id: int, kind: str = "signature", about: str = "certificate") -> dict[str, str]:
    """What a page sends with an act: where it comes from, and the word that it drew."""
    drawn = client.post(
        f"/api/v1/jobs/{job_id}/words", json={"acts": [{"kind": kind, "about": about}]}, headers=OUR_PAGE
    )
    return {**OUR_PAGE, "Fulmen-Word": drawn.get_json()["words"][0]["word"]}
