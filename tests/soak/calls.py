"""Calls by the API's own document: every route, with what fits its schema, what nearly does, and what does not.

Every answer must be one that the document names, none a failure, none slow.
"""

from __future__ import annotations

import copy
import json
import random
import resource
import time
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from flask.testing import FlaskClient

from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, HALFWAY, ROOT, TT, example_text
from tests.soak.filled import Known

DOCUMENT = json.loads((ROOT / "docs" / "openapi.json").read_text(encoding="utf-8"))
JOBS = [json.loads(example_text(name)) for name in (DEVICE_IN_UNIT, GARAGE, TT, HALFWAY, FALLS_SHORT)]
ODD: tuple[Any, ...] = (
    None, True, 0, -1, 1, 2**31, 2**63, 2**70, 1e-308, 1e308, "", "x", "x" * 5000, "\ud800", "a\x00b", "\ufffe", "9999-12-31",
    [], {}, [[]], [None] * 300, {"a": {"b": {"c": []}}}, "ev", "charge-point", "board", "yes", float("nan"), float("inf"),
    -float("inf"), "\u202e1.09", "\u200b", "0001-01-01T00:00:00+23:59", "9999-12-31T23:59:59-23:59", "inf", "1e999", "٣", "," * 50_000,
    '"' * 50_000, "9" * 5000, "2026-11-20T10:00:00",
)  # fmt: skip
SLOW_S = 2.0
ROUTES = [
    (method, path, operation)
    for path, operations in DOCUMENT["paths"].items()
    for method, operation in operations.items()
    if method in ("get", "post", "put", "delete", "patch")
]
OUR_PAGE = {"Origin": "http://localhost"}


@dataclass
class Answers:
    """What came of some calls."""

    slow_s: float = SLOW_S
    calls: int = 0
    failures: list[str] = field(default_factory=list)
    slow: list[str] = field(default_factory=list)
    undocumented: Counter[str] = field(default_factory=Counter)
    asked: set[str] = field(default_factory=set)
    done: set[str] = field(default_factory=set)
    statuses: Counter[int] = field(default_factory=Counter)
    grown_mb: float = 0.0

    def words(self) -> str:
        """In one line."""
        return (
            f"{self.calls} calls: {len(self.failures)} of 5xx, {len(self.slow)} over {self.slow_s:.1f} s, "
            f"{self.undocumented.total()} undocumented, memory grew by {self.grown_mb:.0f} MB; "
            f"{len(self.asked)} operations of {len(ROUTES)} asked, {len(self.done)} of them done"
        )


def call_all(client: FlaskClient, calls: int, chance: random.Random, known: Known, slow_s: float = SLOW_S) -> Answers:
    """Make calls, each to some route of the document, half of them by somebody who knows what is there."""
    answers, settled_kb = Answers(slow_s=slow_s), 0
    for number in range(calls):
        if number == calls // 10:
            settled_kb = _resident_kb()
        method, path, operation = chance.choice(ROUTES)
        _call(client, Call(method, path, operation, chance, known), answers)
    answers.grown_mb = max(0.0, (_resident_kb() - settled_kb) / 1000)
    return answers


def _resident_kb() -> int:
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss


@dataclass(frozen=True)
class Call:
    """A call about to be made: its operation, the chance that draws what it sends, and what its caller may know."""

    method: str
    path: str
    operation: dict[str, Any]
    chance: random.Random
    known: Known

    def knows(self) -> bool:
        """Whether its caller sends what they know at this place."""
        return self.chance.random() < 0.6


def _call(client: FlaskClient, call: Call, answers: Answers) -> None:
    method, path, operation, chance = call.method, call.path, call.operation, call.chance
    asked = path
    query: dict[str, str] = {}
    headers = {"If-Match": str(chance.choice([1, 1, 1, 2, 3, 99, "x"]))}
    for parameter in operation.get("parameters", []):
        value = _parameter(parameter, call)
        if parameter["in"] == "path":
            asked = asked.replace(f"{{{parameter['name']}}}", value)
        elif parameter["in"] == "query" and chance.random() < 0.7:
            query[parameter["name"]] = value
        elif parameter["in"] == "header" and parameter["name"] not in headers and chance.random() < 0.3:
            headers[parameter["name"]] = value
    data, kind = _body(call)
    if "Fulmen-Word" in {one["name"] for one in operation.get("parameters", [])} and chance.random() < 0.7:
        headers |= OUR_PAGE | {"Fulmen-Word": _word(client, asked, data)}
    if path.endswith("/words") and call.knows():
        headers |= OUR_PAGE
    started = time.perf_counter()
    answer = client.open(
        asked, method=method.upper(), query_string=query, data=data, content_type=kind, headers=headers
    )
    took_s = time.perf_counter() - started
    answers.calls += 1
    answers.statuses[answer.status_code] += 1
    answers.asked.add(f"{method} {path}")
    if answer.status_code < 300:
        answers.done.add(f"{method} {path}")
    told = f"{method} {asked[:80]} {answer.status_code}"
    if answer.status_code >= 500:
        answers.failures.append(f"{told} {answer.text[:200]} {data[:300]!r}")
    if took_s > answers.slow_s:
        answers.slow.append(f"{told} {took_s:.1f} s")
    if str(answer.status_code) not in operation["responses"] and answer.status_code not in (404, 405):
        answers.undocumented[f"{method} {path} {answer.status_code}"] += 1
    if answer.status_code >= 400 and answer.mimetype != "application/problem+json":
        answers.undocumented[f"{method} {path} {answer.mimetype}"] += 1


def _word(client: FlaskClient, path: str, data: bytes) -> str:
    """A word drawn for the act that a call is about to do, where it is one."""
    try:
        body = json.loads(data)
        act = {
            "holds": lambda: {"kind": "hold", "about": f"{body['step']}/{body['subject']}"},
            "calls": lambda: {"kind": "call", "about": body["finding"]},
            "papers": lambda: {"kind": "signature", "about": "certificate"},
        }[path.rpartition("/")[2]]()
        drawn = client.post(f"{path.rpartition('/')[0]}/words", json={"acts": [act]}, headers=OUR_PAGE)
        return str(drawn.get_json()["words"][0]["word"])
    except (ValueError, KeyError, TypeError, RecursionError):
        return "x" * 32


def _parameter(parameter: dict[str, Any], call: Call) -> str:
    name = parameter["name"]
    if name in call.known.paths and call.knows():
        return call.known.paths["sent_photo_id" if name == "photo_id" and "{secret}" in call.path else name]
    usual = ["1", "1", "1", "2", "0", "-1", str(2**63), str(2**70), "x", "ev", "x" * 300, "%00", "board", "cut_out"]
    if name == "secret":
        usual = ["s" * 43, "x"]
    if name == "question":
        usual = ["photo_way", "own_land", "x"]
    return call.chance.choice(usual)


def _body(call: Call) -> tuple[bytes, str]:
    chance, told = call.chance, call.known.bodies.get(f"{call.method} {call.path}")
    if told is not None and call.knows():
        data, kind = told
        if kind == "application/json" and chance.random() < 0.4:
            return json.dumps(_mutated(json.loads(data), chance)).encode(), kind
        return told
    content = call.operation.get("requestBody", {}).get("content", {})
    schema = content.get("application/json", {}).get("schema")
    if schema is None:
        return (b"", "application/json") if chance.random() < 0.7 else (_noise(chance), "image/jpeg")
    dice = chance.random()
    if dice < 0.04:
        return _noise(chance), chance.choice(["application/json", "text/plain", "image/png"])
    body = _made(schema, chance, 0)
    if dice > 0.5:
        body = _mutated(body, chance)
    return json.dumps(body).encode(), "application/json"


def _noise(chance: random.Random) -> bytes:
    return chance.choice(
        [b"", b"{", b"[]", b"null", b"\xff\xfe\x00", b'{"a":1}' * 3, chance.randbytes(40), b"[" * 5000]
    )


def _made(schema: dict[str, Any], chance: random.Random, depth: int) -> Any:
    """Something that a schema takes, roughly; a job is one of the examples."""
    name = schema.get("$ref", "").rpartition("/")[2]
    if name == "Job":
        return copy.deepcopy(chance.choice(JOBS))
    if name:
        schema = DOCUMENT["components"]["schemas"][name]
    for several in ("anyOf", "oneOf", "allOf"):
        if several in schema:
            return _made(chance.choice(schema[several]), chance, depth)
    if "enum" in schema:
        return chance.choice(schema["enum"])
    if "const" in schema:
        return schema["const"]
    kind = schema.get("type")
    if kind == "object":
        wanted = set(schema.get("required", ()))
        return {
            key: _made(one, chance, depth + 1)
            for key, one in schema.get("properties", {}).items()
            if key in wanted or (depth < 4 and chance.random() < 0.4)
        }
    if kind == "array":
        most = min(schema.get("maxItems", 3), 3)
        return [
            _made(schema.get("items", {}), chance, depth + 1)
            for _ in range(chance.randint(0, most) if depth < 6 else 0)
        ]
    if kind in ("number", "integer"):
        low, high = schema.get("minimum", 0), schema.get("maximum", 100)
        return chance.randint(int(low), int(min(high, low + 1000))) if kind == "integer" else chance.uniform(low, high)
    if kind == "boolean":
        return chance.random() < 0.5
    if kind == "string":
        return _text(schema, chance)
    return copy.deepcopy(chance.choice(ODD))


def _text(schema: dict[str, Any], chance: random.Random) -> str:
    if schema.get("format") == "date":
        return "2026-11-20"
    if schema.get("format") == "date-time":
        return "2026-11-20T10:00:00+00:00"
    return chance.choice(["ev", "charge-point", "origin", "board", "board-1", "open_pen/ev", "A name", "c4 t.4"])


def _mutated(body: Any, chance: random.Random) -> Any:
    """One or two places of it made odd."""
    for _ in range(chance.randint(1, 2)):
        target, path = body, []
        while isinstance(target, dict | list) and target and (chance.random() < 0.85 or not path):
            key = chance.choice(list(target)) if isinstance(target, dict) else chance.randrange(len(target))
            path.append((target, key))
            target = target[key]
        if path:
            holder, key = path[-1]
            if chance.random() < 0.15 and isinstance(holder, dict):
                holder.pop(key)
            else:
                holder[key] = copy.deepcopy(chance.choice(ODD))
    return body
