"""The demo: the example job files, loaded once into an empty store, never over a user's data.

What their files tell of acts is signed here anew, through the door that a screen uses.
"""

from __future__ import annotations

from datetime import UTC, datetime, time, timedelta
from typing import Any

from flask import Flask

from fulmen.core.editing.acts import without_acts
from fulmen.core.model.job import Job
from fulmen.core.model.readings import HOLDS
from fulmen.examples import EXAMPLES, example
from fulmen.store.database import Sessions
from fulmen.store.operations import create_job, is_empty

# An example that tells no time of a call made it at noon.
NOON = time(12, tzinfo=UTC)


def load_demo(app: Flask, now: datetime) -> int:
    """Load every example into an empty store; how many were loaded, 0 where jobs stand there already."""
    sessions: Sessions = app.extensions["sessions"]
    if not is_empty(sessions):
        return 0
    files = sorted(EXAMPLES.glob("*.json"))
    page = Page(app)
    for minutes, path in enumerate(reversed(files)):
        job = example(path.stem)
        stored = create_job(sessions, without_acts(job), now + timedelta(seconds=minutes), "demo")
        page.sign(stored.id, job)
    return len(files)


class Page:
    """What a page of ours sends when somebody signs: the demo has no door of its own."""

    def __init__(self, app: Flask) -> None:
        self._client = app.test_client()
        self._from_here = {"Origin": "http://localhost"}

    def sign(self, job_id: int, job: Job) -> None:
        """Sign every hold and settle every call that a job tells of; its certificate is for whoever tries the demo."""
        for reading in job.readings:
            if reading.step in HOLDS:
                body = reading.model_dump(mode="json")
                self._act(job_id, "holds", {"kind": "hold", "about": f"{reading.step.value}/{reading.subject}"}, body)
        for decision in job.decisions:
            body = {
                "finding": decision.key,
                "condition": decision.condition,
                "standing": decision.standing,
                "reason": decision.reason,
                "name": decision.name,
                "decided_at": (decision.decided_at or datetime.combine(decision.decided_on, NOON)).isoformat(),
            }
            self._act(job_id, "calls", {"kind": "call", "about": decision.key}, body)

    def word(self, job_id: int, act: dict[str, str]) -> str:
        """The one-time word of an act."""
        drawn = self._sent(f"/api/v1/jobs/{job_id}/words", {"acts": [act]})
        return str(drawn["words"][0]["word"])

    def _act(self, job_id: int, door: str, act: dict[str, str], body: dict[str, Any]) -> None:
        self._sent(f"/api/v1/jobs/{job_id}/{door}", body, {"Fulmen-Word": self.word(job_id, act)})

    def _sent(self, address: str, body: dict[str, Any], headers: dict[str, str] | None = None) -> dict[str, Any]:
        answer = self._client.post(address, json=body, headers=self._from_here | (headers or {}))
        if answer.status_code != 201:
            raise ValueError(f"The demo could not sign: {answer.text}")
        return dict(answer.get_json())
