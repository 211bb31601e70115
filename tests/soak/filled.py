"""A store with one of everything, and what a caller who knows it would send: most operations do something then."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from flask import Flask

from fulmen.core.model.stops import Stop
from fulmen.photos import make_photo
from fulmen.store import operations, papers, photos, practice
from fulmen.store.links import give_answer, give_photo, make_link
from fulmen.store.operations import load_job
from tests.acts import signed_job, warrant
from tests.app import NOW
from tests.core.practised import exercise
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, HALFWAY, as_file, job
from tests.photos import picture

TAKEN = {"taken_by": "R. Quillfeather", "taken_at": "2026-11-20T10:12:00+00:00"}


@dataclass(frozen=True)
class Known:
    """What stands in the paths of a store that somebody knows, and bodies that its operations take, by method and path."""

    paths: dict[str, str]
    bodies: dict[str, tuple[bytes, str]]


def fill(app: Flask) -> Known:
    """Put one of everything into an empty store; the jobs are 1, 2 and 3."""
    sessions = app.extensions["sessions"]
    whole = signed_job(sessions, job(DEVICE_IN_UNIT))
    for name in (HALFWAY, AT_SURVEY):
        operations.create_job(sessions, job(name), NOW)
    asked = papers.ask_for_certificate(
        sessions, whole.id, papers.Seen(whole.version), job().certificate.signatures, warrant(sessions, whole.id), NOW
    )
    made = papers.issue_next(sessions, lambda issue: b"%PDF-", lambda: NOW)
    assert made is not None
    photo = photos.add_photo(sessions, whole.id, make_photo(picture()), photos.Place(Stop.CUT_OUT), NOW)
    # One to withdraw, and one that stays.
    link, _ = make_link(sessions, whole.id, "R. Quillfeather", 60, NOW)
    _, secret = make_link(sessions, whole.id, "R. Quillfeather", 60, NOW)
    given = give_answer(sessions, secret, "own_land", "yes", NOW).answers[0]
    sent = give_photo(sessions, secret, "photo_way", make_photo(picture()), NOW).photos[0]
    begun = practice.begin(
        sessions, practice.Begun("Wren", "plain", "Plain", "no_earth", exercise("plain", "no_earth", 1)), NOW
    )
    paths = {
        "job_id": str(whole.id), "paper_id": str(made.paper_id), "issue_id": str(asked.wish.id), "photo_id": str(photo.id),
        "link_id": str(link.id), "secret": secret, "answer_id": str(given.id), "question": "own_land",
        "exercise_id": str(begun.id), "record_id": "mine", "sent_photo_id": str(sent.id),
    }  # fmt: skip
    return Known(paths, _bodies(app, load_job(sessions, whole.id)))


def _bodies(app: Flask, stored: Any) -> dict[str, tuple[bytes, str]]:
    document = stored.job.model_dump(mode="json")
    record = app.test_client().get("/api/v1/charge-points").get_json()["shipped"][0]
    reading = {"step": "zs", "subject": "ev", "outcome": "measured", "value": 0.3, **TAKEN}
    finding = stored.evaluation.findings[0].key
    of_job, jobs = "/api/v1/jobs/{job_id}", {"job": document, "charge_point": document["charge_points"][0]["id"]}
    bodies: dict[str, Any] = {
        f"post {of_job}/readings": reading,
        f"post {of_job}/readings/many": {"readings": [reading, reading]},
        f"post {of_job}/readings/file": {"data": as_file("step,circuit,value,unit\nzs,ev,0.3,Ω\n"), **TAKEN},
        f"post {of_job}/letters": {"kind": "accepted", "dated": "2026-11-20"},
        f"post {of_job}/words": {"acts": [{"kind": "hold", "about": "isolated/ev"}]},
        f"post {of_job}/holds": {"step": "isolated", "subject": "ev", "outcome": "right", **TAKEN},
        f"post {of_job}/calls": {
            "finding": finding,
            "reason": "Seen",
            "name": "R. Q.",
            "decided_at": TAKEN["taken_at"],
        },
        f"post {of_job}/papers": {"job": document, "signatures": document["certificate"]["signatures"]},
        f"put {of_job}": document,
        "post /api/v1/half-hours": {"text": "start,kWh\n2026-01-14 17:30,0.5\n"},
        "post /api/v1/prices/csv": {"text": "key,name,unit,price,work_min\ngland,Gland,each,1,1\n"},
        "post /api/v1/protection/bench": {"street": {}},
        "post /api/v1/remedies": {"job": document, "finding": finding},
        "post /api/v1/tests/drawing": {**jobs, "step": "zs", "subject": "ev"},
        "post /api/v1/practice/{exercise_id}/acts": {"after": 0, "act": {"kind": "sign", "step": "isolated"}},
        "put /api/v1/charge-points/{record_id}": record | {"id": "mine"},
        "put /api/v1/householder/{secret}/answers/{question}": {"value": "yes"},
        f"post {of_job}/answers/{{answer_id}}/asked-again": {"note": "Once more, please"},
    }
    jpeg = make_photo(picture()).jpeg
    files = {
        f"post {of_job}/photos": (jpeg, "image/jpeg"),
        "post /api/v1/householder/{secret}/photos/{question}": (jpeg, "image/jpeg"),
        "post /api/v1/papers/verify": (b"%PDF-1.7 of somebody else", "application/pdf"),
    }
    return {**{key: (json.dumps(one).encode(), "application/json") for key, one in bodies.items()}, **files}
