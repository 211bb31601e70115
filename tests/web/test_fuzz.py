"""Whatever is sent, the API answers with a result or a 4xx problem, never with a 500."""

import json
from typing import Any

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, example_text
from tests.sampling import tries

VALUES = (
    st.none()
    | st.booleans()
    | st.integers(-(10**6), 10**6)
    | st.floats()
    | st.text(max_size=12)
    | st.just([])
    | st.just({})
)
WHOLE = json.loads(example_text(DEVICE_IN_UNIT))


def paths(value: Any, before: tuple[str | int, ...] = ()) -> list[tuple[str | int, ...]]:
    """Every place in a document."""
    found = [before] if before else []
    entries = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, inner in entries:
        found += paths(inner, (*before, key))
    return found


PLACES = paths(WHOLE)


class Fuzz(AppCase):
    def answered(self, response: Any) -> None:
        self.assertLess(response.status_code, 500, response.text[:300])
        if response.status_code >= 400:
            self.assertEqual(response.mimetype, "application/problem+json")
            self.assertTrue(response.get_json()["detail"])

    @settings(tries(250), suppress_health_check=list(HealthCheck))
    @given(st.lists(st.tuples(st.sampled_from(PLACES), VALUES), min_size=1, max_size=3))
    def test_a_job_with_some_fields_replaced(self, changes: list[tuple[tuple[str | int, ...], Any]]) -> None:
        document = json.loads(json.dumps(WHOLE))
        for place, value in changes:
            target: Any = document
            for part in place[:-1]:
                target = target[part] if isinstance(target, (dict, list)) and self.holds(target, part) else None
            if isinstance(target, (dict, list)) and self.holds(target, place[-1]):
                target[place[-1]] = value
        self.answered(self.client.post("/api/v1/evaluate", json=document))

    def holds(self, target: Any, part: Any) -> bool:
        return part in target if isinstance(target, dict) else isinstance(part, int) and part < len(target)

    @settings(tries(60), suppress_health_check=list(HealthCheck))
    @given(
        st.sampled_from(
            [
                "jobs",
                "jobs/blank",
                "evaluate",
                "alternatives",
                "jobs/1/readings",
                "jobs/1/papers",
                "half-hours",
                "supply-day",
                "protection/ways",
                "protection/bench",
                "protection/electrode",
                "protection/chain",
                "jobs/1/letters",
                "jobs/1/links",
                "jobs/1/photos?stop=board",
            ]
        ),
        st.binary(max_size=60),
    )
    def test_any_bytes(self, address: str, body: bytes) -> None:
        headers = {"If-Match": "1"}
        self.answered(
            self.client.post(f"/api/v1/{address}", data=body, content_type="application/json", headers=headers)
        )

    def test_nesting_and_bombs(self) -> None:
        for body in (b"[" * 200_000, b'{"a":' * 100_000, b'"' + b"\\u0000" * 1000 + b'"', b'{"title": 1e999}', b'{"title": "' + b"9" * 5000 + b'"}',
                     b'{"title":"x","supply":{"ze_enquiry_ohm":' + b"9" * 5000 + b"}}"):  # fmt: skip
            with self.subTest(body[:20]):
                self.answered(self.client.post("/api/v1/jobs", data=body, content_type="application/json"))
                self.answered(self.client.post("/api/v1/evaluate", data=body, content_type="application/json"))
