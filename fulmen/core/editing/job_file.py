"""The job file: reading, writing and checking the whole document. Text in, text out; no disk.

A file written by Fulmen reads back to the same job and writes again to the same bytes; an older one is upgraded.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any, NoReturn

from pydantic import ValidationError

from fulmen.core.editing.upgrades import OLDEST, is_older, upgraded
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.field_messages import input_errors
from fulmen.core.model.guards import Guard
from fulmen.core.model.job import SCHEMA_VERSION, Job
from fulmen.core.reference.cable_catalogue import cable_record, cables_for
from fulmen.core.reference.rule_set import rule_set

MAX_BYTES = 1_000_000


Look = Callable[[Job], list[InputError]]


def _nothing(job: Job) -> list[InputError]:
    return []


def read_job(text: str, look: Look = _nothing) -> Job:
    """The job that a job file holds; `look` finds what a file of the present version must not hold besides.

    Raises:
        JobFileError: the text is too long, is no JSON, or a field cannot be taken; it names each field.
    """
    size = len(text.encode())
    if size > MAX_BYTES:
        _refuse("", f"The job file is {size / 1e6:.1f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be taken.")
    try:
        data = json.loads(text, parse_constant=_no_constant)
    except RecursionError:
        _refuse("", "The job file is nested too deeply to be a job file.")
    except json.JSONDecodeError as error:
        _refuse("", f"The job file breaks off or is no JSON at line {error.lineno}, column {error.colno}.")
    job = parse_job(data)
    problems = [] if is_older(data.get("schema_version", SCHEMA_VERSION)) else look(job)
    if problems:
        raise JobFileError(problems)
    return job


def parse_job(data: Any) -> Job:
    """The job of already decoded JSON, checked field by field and as a tree.

    Raises:
        JobFileError: it names each field at fault.
    """
    if not isinstance(data, dict):
        _refuse("", "The job file must hold one JSON object.")
    version = data.get("schema_version", SCHEMA_VERSION)
    if not is_older(version) and (type(version) is not int or version != SCHEMA_VERSION):
        known = f"{OLDEST} to {SCHEMA_VERSION}"
        _refuse("schema_version", f"Schema version must be {known}; this file says {version!r:.40}.")
    document = upgraded(data, version)
    try:
        job = Job.model_validate(document)
    except ValidationError as error:
        raise JobFileError(input_errors(error), invalid=(error, document)) from None
    check_structure(job)
    return job


def write_job(job: Job) -> str:
    """The job file of a job: every field, in model order, two spaces deep, one final newline."""
    return json.dumps(job.model_dump(mode="json"), ensure_ascii=False, indent=2, allow_nan=False) + "\n"


def digest(text: str) -> str:
    """SHA-256 of a text in UTF-8, as hexadecimal."""
    return hashlib.sha256(text.encode()).hexdigest()


def check_structure(job: Job) -> None:
    """Boards and circuits must form a tree, and every name must be known.

    Raises:
        JobFileError: a repeated, unknown or circular reference; it names the field.
    """
    problems = [*_repeated_ids(job), *_repeated_instruments(job), *_unlike_units(job), *_unknown_references(job)]
    problems = problems or _loops(job) or _tails_references(job)
    if problems:
        raise JobFileError(problems)


def _repeated_ids(job: Job) -> list[InputError]:
    problems, seen = [], set()
    for field, name in _named_parts(job):
        if name in seen or name == "origin":
            problems.append(InputError(f"{field}.id", f"The name “{name}” is used twice."))
        seen.add(name)
    return problems


def _unlike_units(job: Job) -> list[InputError]:
    """A unit shares the facts of another one that has its own."""
    with_own = {one.id for one in job.charge_points if not one.like}
    return [
        InputError(f"charge_points.{place}.like", f"“{one.like}” is no charge point with facts of its own.")
        for place, one in enumerate(job.charge_points)
        if one.like and one.like not in with_own
    ]


def _repeated_instruments(job: Job) -> list[InputError]:
    names = [one.name for one in job.testing.instruments]
    return [
        InputError(f"testing.instruments.{place}.name", f"There is another instrument “{name}”.")
        for place, name in enumerate(names)
        if name in names[:place]
    ]


def _named_parts(job: Job) -> Iterator[tuple[str, str]]:
    """Path and id of everything that has a name of its own; readings and findings are kept by it."""
    for index, board in enumerate(job.boards):
        yield f"boards.{index}", board.id
        yield from _guards(f"boards.{index}.incomer", board.incomer)
        for place, group in enumerate(board.groups):
            yield f"boards.{index}.groups.{place}", group.id
            yield from _guards(f"boards.{index}.groups.{place}.guards", group.guards)
    for index, circuit in enumerate(job.circuits):
        yield f"circuits.{index}", circuit.id
        for place, box in enumerate(circuit.boxes):
            yield f"circuits.{index}.boxes.{place}", box.id
            yield from _guards(f"circuits.{index}.boxes.{place}.guards", box.guards)
    yield from ((f"supply.tails.{index}", one.id) for index, one in enumerate(job.supply.tails))
    yield from ((f"charge_points.{index}", point.id) for index, point in enumerate(job.charge_points))
    yield from ((f"maker_cables.{index}", cable.id) for index, cable in enumerate(job.maker_cables))


def _guards(field: str, guards: tuple[Guard, ...]) -> Iterator[tuple[str, str]]:
    return ((f"{field}.{place}", guard.id) for place, guard in enumerate(guards))


def _unknown_references(job: Job) -> list[InputError]:
    problems: list[InputError] = []
    boards = {board.id for board in job.boards}
    fed: dict[str, str] = {}
    cables = cables_for(job)
    groups = {board.id: {group.id for group in board.groups} for board in job.boards}
    ends = boards | {point.id for point in job.charge_points}
    for index, circuit in enumerate(job.circuits):
        here = f"circuits.{index}"
        if circuit.from_board not in boards:
            problems.append(InputError(f"{here}.from_board", f"There is no board “{circuit.from_board}”."))
        elif circuit.group and circuit.group not in groups[circuit.from_board]:
            message = f"Board “{circuit.from_board}” has no group “{circuit.group}”."
            problems.append(InputError(f"{here}.group", message))
        if circuit.feeds and circuit.loads:
            problems.append(InputError(f"{here}.loads", "A circuit feeds a board or a unit, or loads of its own."))
        if not circuit.feeds:
            pass
        elif circuit.feeds not in ends:
            problems.append(InputError(f"{here}.feeds", f"There is no board or charge point “{circuit.feeds}”."))
        elif circuit.feeds in fed:
            message = f"“{circuit.feeds}” is fed twice, by “{fed[circuit.feeds]}” and “{circuit.id}”."
            problems.append(InputError(f"{here}.feeds", message))
        fed[circuit.feeds] = circuit.id
        problems.extend(_checked(partial(cable_record, cables, circuit.cable.record), f"{here}.cable.record"))
        for place, section in enumerate(circuit.route):
            if section.cable is not None:
                look_up = partial(cable_record, cables, section.cable.record)
                problems.extend(_checked(look_up, f"{here}.route.{place}.cable.record"))
    problems.extend(_checked(partial(rule_set, job.rule_set), "rule_set"))
    return problems


def _tails_references(job: Job) -> list[InputError]:
    """A stretch of the tails goes on from one before it in the list, and feeds a board that no circuit feeds."""
    boards, fed = {board.id for board in job.boards}, {circuit.feeds for circuit in job.circuits}
    problems, before, reached = [], {""}, set[str]()
    for index, one in enumerate(job.supply.tails):
        here = f"supply.tails.{index}"
        if one.after not in before:
            message = f"No stretch “{one.after}” stands before this one in the list."
            problems.append(InputError(f"{here}.after", message))
        if one.board and (one.board not in boards or one.board in fed or one.board in reached):
            message = f"“{one.board}” is no board that only these tails feed."
            problems.append(InputError(f"{here}.board", message))
        before.add(one.id)
        reached.add(one.board)
    return problems


def _checked(look_up: Callable[[], object], field: str) -> list[InputError]:
    try:
        look_up()
    except InputError as error:
        return [InputError(field, error.message)]
    return []


def _loops(job: Job) -> list[InputError]:
    """Following a board's feeding circuit upwards must reach the origin."""
    feeder = {circuit.feeds: (index, circuit) for index, circuit in enumerate(job.circuits)}
    for start in job.boards:
        board, passed = start.id, {start.id}
        while board in feeder:
            index, circuit = feeder[board]
            board = circuit.from_board
            if board in passed:
                message = f"Circuit “{circuit.id}” closes a loop: a board would feed itself."
                return [InputError(f"circuits.{index}.feeds", message)]
            passed.add(board)
    return []


def _no_constant(name: str) -> NoReturn:
    _refuse("", f"The job file holds {name}; every number must be finite.")


def _refuse(field: str, message: str) -> NoReturn:
    raise JobFileError([InputError(field, message)])
