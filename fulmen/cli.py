"""The command line: design, certify, instruments, serve, demo, backup, restore, doctor, verify, schema, openapi."""

from __future__ import annotations

import argparse
import json
import logging
import os
import sys
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING

from sqlalchemy.exc import DatabaseError

from fulmen.core.editing.acts import as_history, history_words
from fulmen.core.editing.job_file import MAX_BYTES, read_job
from fulmen.core.errors import JobFileError, PaperError
from fulmen.core.evaluate import Evaluation, evaluate
from fulmen.core.findings.caution import CAUTION
from fulmen.core.findings.finding import Finding
from fulmen.core.findings.words import verdict_words
from fulmen.core.model.base import Part
from fulmen.core.model.job import Job
from fulmen.core.reference.charge_point_catalogue import ChargePointRecord
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.verification.readings.reading_fit import misfits
from fulmen.settings import Settings, read_settings
from fulmen.store.errors import StoreError as FulmenError
from fulmen.told import disk_trouble, file_trouble

if TYPE_CHECKING:
    from fulmen.store.chain import ChainHead

OK, FALLS_SHORT, BAD_INPUT = 0, 1, 2
SCHEMAS: dict[str, type[Part]] = {"job": Job, "charge-point": ChargePointRecord}


def main(arguments: list[str] | None = None) -> int:
    """Run one command; the exit code is 0, 1 where something falls short, 2 for input that can't be taken."""
    parsed = _parser().parse_args(arguments)
    try:
        return int(parsed.run(parsed))
    except JobFileError as error:
        for problem in error.problems[:MOST_TOLD]:
            print(str(problem), file=sys.stderr)
        if len(error.problems) > MOST_TOLD:
            print(f"and {len(error.problems) - MOST_TOLD} more", file=sys.stderr)
    except BrokenPipeError:
        # Whoever read the output has seen enough of it; nothing more is written, not at the end either.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    except KeyboardInterrupt:
        print("fulmen: stopped", file=sys.stderr)
    except UnicodeDecodeError:
        print("fulmen: the file is no text in UTF-8.", file=sys.stderr)
    except OSError as error:
        print(f"fulmen: {file_trouble(error)}", file=sys.stderr)
    except DatabaseError as error:
        trouble = disk_trouble(str(error.orig))
        print(f"fulmen: {trouble[1] if trouble else f'The database can not be used: {error.orig}.'}", file=sys.stderr)
    except (ValueError, FulmenError, PaperError) as error:
        print(f"fulmen: {error}", file=sys.stderr)
    return BAD_INPUT


# How many things at fault in one file are told.
MOST_TOLD = 20


def _port(text: str) -> int:
    """A port as it is typed."""
    if not (text.isascii() and text.isdecimal() and int(text) <= 65535):
        raise argparse.ArgumentTypeError(f"must be a number from 0 to 65535; it is {text!r}")
    return int(text)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="fulmen", description=__doc__)
    commands = parser.add_subparsers(required=True)
    design = commands.add_parser("design", help="print the run and every check of a job file")
    design.add_argument("job", type=Path)
    design.add_argument("--json", action="store_true", help="print the evaluation as JSON")
    design.set_defaults(run=_design)
    certify = commands.add_parser("certify", help="write a draft of a job file's certificate as PDF")
    certify.add_argument("job", type=Path)
    certify.add_argument("-o", "--output", type=Path, required=True)
    certify.set_defaults(run=_certify)
    serve = commands.add_parser("serve", help="migrate the database and serve the app")
    serve.set_defaults(run=_serve)
    instruments = commands.add_parser(
        "instruments", help="serve the simulated test set of a job, or write what it reads"
    )
    instruments.add_argument("job", type=Path)
    instruments.add_argument(
        "--fault", action="append", default=[], metavar="KEY[=SIZE][@CIRCUIT]", help="what is wrong as built"
    )
    instruments.add_argument("--seed", type=int, default=0)
    instruments.add_argument("--port", type=_port, default=8751)
    instruments.add_argument("--csv", type=Path, help="write the readings to this file instead")
    instruments.add_argument("--json", type=Path, help="write the readings to this file instead")
    instruments.set_defaults(run=_instruments)
    demo = commands.add_parser("demo", help="load the demo jobs into an empty database, then serve")
    demo.set_defaults(run=_demo)
    backup = commands.add_parser("backup", help="copy the live database to a new file")
    backup.add_argument("target", type=Path)
    backup.set_defaults(run=_backup)
    restore = commands.add_parser("restore", help="put a backup in the database's place, where there is none")
    restore.add_argument("backup", type=Path)
    restore.set_defaults(run=_restore)
    doctor = commands.add_parser("doctor", help="look the whole store over; the first fault is named")
    doctor.add_argument(
        "--head", action="append", default=[], type=Path, metavar="FILE",
        help="hold the chain against the head on a certificate, or in a file beside a backup",
    )  # fmt: skip
    doctor.set_defaults(run=_doctor)
    verify = commands.add_parser("verify", help="tell whether a certificate is genuine")
    verify.add_argument("pdf", type=Path)
    verify.set_defaults(run=_verify)
    schema = commands.add_parser("schema", help="print the JSON Schema of the job file, or of a charge point record")
    schema.add_argument("what", nargs="?", choices=sorted(SCHEMAS), default="job")
    schema.set_defaults(run=_schema)
    rules = commands.add_parser("rules", help="print the register of rules with clauses and limits")
    rules.set_defaults(run=_rules)
    openapi = commands.add_parser("openapi", help="print the OpenAPI document of the web API")
    openapi.set_defaults(run=_openapi)
    return parser


def _read(path: Path) -> Job:
    with path.open("rb") as source:
        data = source.read(MAX_BYTES + 1)
    return as_history(read_job(data.decode("utf-8"), misfits))


def _design(parsed: argparse.Namespace) -> int:
    job = _read(parsed.job)
    evaluation = evaluate(job, rule_set(job.rule_set))
    if parsed.json:
        print(evaluation.model_dump_json(indent=2))
    else:
        print("\n".join(design_lines(job, evaluation)))
    return FALLS_SHORT if evaluation.falls_short() else OK


def design_lines(job: Job, evaluation: Evaluation) -> list[str]:
    """The run, the sentence and every check with its working, as lines of text."""
    lines = [job.title, f"To {evaluation.edition}", ""]
    for profile in evaluation.profiles:
        lines.append(
            "Run: cut-out, " + ", ".join(f"{s.name} {s.length_m:g} m" for s in profile.sections) + ", charge point"
        )
        lines.append(f"     {profile.volts_lost_percent:.2f} % volts lost, loop {profile.zs_ohm:.2f} Ω hot")
    for sentence in evaluation.sentences:
        lines += ["", "".join(part.text for part in sentence.parts)]
    for finding in evaluation.findings:
        lines += ["", *finding_lines(finding)]
    history = history_words(job)
    if history:
        lines += ["", "Signed elsewhere, counts for nothing here:", *(f"    {one}" for one in history)]
    return [*lines, "", CAUTION]


def finding_lines(finding: Finding) -> list[str]:
    """One finding as text: verdict, title, figures, why, clause, working, mend."""
    figures = f": {finding.figures()}" if finding.figures() else ""
    whose = f", {finding.whose}" if finding.whose else ""
    lines = [f"{verdict_words(finding)}  {finding.title}{whose}{figures}"]
    lines += [f"    {text}" for text in (finding.detail, finding.clause) if text]
    lines += [f"    | {line.text()}" for line in finding.working]
    if finding.fear:
        lines.append(f"    What can happen: {finding.fear}")
    if finding.remedy:
        lines.append(f"    To mend: {finding.remedy}")
    if finding.decision:
        lines.append(f"    Decided: “{finding.decision.reason}” {finding.decision.name}, {finding.decision.decided_on}")
    return lines


def _certify(parsed: argparse.Namespace) -> int:
    from fulmen.documents.certificate import render_certificate
    from fulmen.store.issues import draft_issue

    issue = draft_issue(_read(parsed.job), datetime.now(UTC))
    parsed.output.write_bytes(render_certificate(issue))
    print(f"{parsed.output}: draft, no certificate. Signed and issued is on the screen only. Still open:")
    for gap in issue.evaluation.gaps:
        print(f"  {gap.text}")
    return FALLS_SHORT if issue.evaluation.falls_short() else OK


def _instruments(parsed: argparse.Namespace) -> int:
    from fulmen.simulators.test_set import House, TestSetServer
    from fulmen.simulators.test_set_files import fault_named, written_csv, written_json

    job = _read(parsed.job)
    house = House(job, tuple(fault_named(one, job) for one in parsed.fault), parsed.seed)
    for path, written in ((parsed.csv, written_csv), (parsed.json, written_json)):
        if path is not None:
            path.write_text(written(house), encoding="utf-8")
            print(f"{path}: written, simulated")
    if parsed.csv is None and parsed.json is None:
        with TestSetServer(lambda number: house if number == "0" else None, parsed.port) as server:
            print(f"Simulated test set at 127.0.0.1:{server.port}  (Ctrl-C stops it)", flush=True)
            server.serve_forever()
    return OK


def _serve(parsed: argparse.Namespace) -> int:
    from fulmen.store.places import one_server
    from fulmen.store.upkeep import migrate

    settings = read_settings()
    with one_server(settings.database):
        _migrated(migrate(settings))
        _run_server(settings)
    return OK


def _migrated(copy: Path | None) -> None:
    if copy is not None:
        print(f"The database was brought to this version; as it was, it lies at {copy}", flush=True)


def _demo(parsed: argparse.Namespace) -> int:
    from fulmen.demo import load_demo
    from fulmen.store.places import one_server
    from fulmen.store.upkeep import migrate
    from fulmen.web.app import create_app

    settings = read_settings()
    with one_server(settings.database):
        _migrated(migrate(settings))
        loaded = load_demo(create_app(settings), datetime.now(UTC))
        print(f"{loaded} demo jobs loaded" if loaded else "Jobs are there already; no demo data loaded", flush=True)
        _run_server(_with_test_set(settings))
    return OK


DEMO_TEST_SET_PORT = 8751


def _with_test_set(settings: Settings) -> Settings:
    """The demo's settings with a simulated test set at work, where none is said to answer."""
    from fulmen.demo.demo_test_set import demo_test_set

    if settings.test_set_port:
        return settings
    server = demo_test_set(settings, DEMO_TEST_SET_PORT)
    print(f"Simulated test set at 127.0.0.1:{server.port}, for every job", flush=True)
    return replace(settings, test_set_port=server.port)


def _run_server(settings: Settings) -> None:
    from fulmen.documents.render_process import RenderProcess
    from fulmen.store.papers import let_go_of_claims
    from fulmen.web.app import create_app
    from fulmen.web.doors.listening import open_doors
    from fulmen.web.doors.policy import Role

    if not (settings.frontend / "index.html").is_file():
        raise ValueError(f"The front end is not built at {settings.frontend}: run make demo once.")
    logging.basicConfig(level=logging.WARNING, format="%(asctime)s %(levelname)s %(message)s")
    # A queue is what a server has when many come at once; nobody needs a line for each of them.
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    render = RenderProcess()
    app = create_app(settings, render=render, state=render.state)
    # A door of its own: whoever comes through it reaches a link's questions and nothing else.
    door = create_app(settings, Role.HOUSEHOLDER) if settings.householder_port else None
    try:
        serve = open_doors(settings, app, door)
    except ValueError:
        render.stop()
        raise
    # Off the request path: neither the first certificate nor the first search need wait for what they load.
    render.start()
    app.extensions["lookings"].start()
    # What waited when the last server stopped has its turn now, and what that one was at.
    let_go_of_claims(app.extensions["sessions"])
    app.extensions["issuing"].wake()
    if door is not None:
        print(f"Householders' links open at {settings.householder_host}:{settings.householder_port}", flush=True)
    print(f"Fulmen is at http://{settings.host}:{settings.port}/  (Ctrl-C stops it)", flush=True)
    serve()


def _backup(parsed: argparse.Namespace) -> int:
    from fulmen.store.upkeep import back_up

    back_up(read_settings(), parsed.target)
    print(f"{parsed.target}: backed up")
    return OK


def _restore(parsed: argparse.Namespace) -> int:
    from fulmen.store.upkeep import restore

    settings = read_settings()
    done = restore(settings, parsed.backup, datetime.now(UTC))
    for left in done.moved_away:
        print(f"{left}: left behind by the store that was here, moved out of the way")
    print(f"{settings.database}: restored from {parsed.backup}")
    print(f"Certificates that it issues bear the mark {done.mark}: numbers given since the backup are not given again")
    return OK


def _doctor(parsed: argparse.Namespace) -> int:
    from fulmen.store.doctor import first_fault
    from fulmen.store.upkeep import newest_here

    settings = read_settings()
    newest_here(settings.database)
    outside = tuple(head for file in parsed.head for head in _heads(file))
    fault = first_fault(settings.database, _progress, outside)
    print(fault or "Every paper, reading, letter, photo and log entry is as it was kept.")
    return FALLS_SHORT if fault else OK


def _heads(file: Path) -> tuple[ChainHead, ...]:
    """The heads that a certificate bears, or that a file tells of."""
    from fulmen.documents.paper_reader import paper_in, read_paper
    from fulmen.store.chain import ChainHead
    from fulmen.store.upkeep import heads_in

    with file.open("rb") as source:
        is_paper = source.read(4) == b"%PDF"
    if is_paper:
        read = read_paper(paper_in(file))
        found = [ChainHead(read.entry, read.head)] if read.head else []
    else:
        found = list(heads_in(file))
    if not found:
        raise ValueError(f"{file} bears no head of a chain.")
    return tuple(found)


def _progress(done: int, of: int) -> None:
    if sys.stderr.isatty():
        print(f"\r{done} of {of} entries", end="\n" if done == of else "", file=sys.stderr, flush=True)


def _verify(parsed: argparse.Namespace) -> int:
    from fulmen.documents.paper_reader import paper_in, read_paper
    from fulmen.store.database import open_database, sessions
    from fulmen.store.upkeep import newest_here
    from fulmen.store.verifying import GENUINE, SAVED_AGAIN, verify

    settings = read_settings()
    newest_here(settings.database)
    found = verify(sessions(open_database(settings)), paper_in(parsed.pdf), read_paper)
    print(f"{found.title}: {found.words}")
    return OK if found.verdict in (GENUINE, SAVED_AGAIN) else FALLS_SHORT


def _schema(parsed: argparse.Namespace) -> int:
    print(json.dumps(SCHEMAS[parsed.what].model_json_schema(), indent=2, ensure_ascii=False))
    return OK


def _rules(parsed: argparse.Namespace) -> int:
    from fulmen.documents.rules_page import rules_page

    print(rules_page(rule_set()), end="")
    return OK


def _openapi(parsed: argparse.Namespace) -> int:
    from tempfile import TemporaryDirectory

    from fulmen.web.doors.blueprint import document_routes

    document_routes()
    from fulmen.web.app import create_app

    with TemporaryDirectory() as folder:
        app = create_app(Settings(database=Path(folder) / "none.sqlite"))
        print(json.dumps(app.api_doc, indent=2, ensure_ascii=False))
    return OK


if __name__ == "__main__":
    sys.exit(main())
