"""What can't be shown can't be kept: refused at the door with the field's name; what older stores hold reads on, cleaned."""

import json
import re
import sqlite3
import unittest
import xml.etree.ElementTree as ElementTree
from contextlib import closing
from datetime import date, datetime
from io import BytesIO
from typing import Annotated, Any, get_args

from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel, TypeAdapter, ValidationError
from pypdf import PdfReader

import fulmen.web.app  # noqa: F401 (every model of the API is loaded with it)
from fulmen.core.errors import JobFileError
from fulmen.core.model.base import UNSHOWABLE
from fulmen.core.model.job import Job
from fulmen.documents.certificate import render_certificate
from fulmen.store.issues import prepare_issue
from fulmen.store.operations import create_job, load_job
from tests.app import NOW, AppCase
from tests.jobs import DEVICE_IN_UNIT, example_text, job
from tests.sampling import tries

API = "/api/v1"
POISON = ("\ud800", "\udfff", "a\x00b", "\x1b[31m", "\x7f", "\x85", "\ufffe", "\uffff", "\U0001fffe", "\ufdd0",
          # What turns the text around it, what nobody sees, and a joiner that joins no picture.
          "\u202e1.09", "\u2066", "\u200f", "\u200b", "\xad", "\ufeff", "\u2028", "\U000e0041", "a\u200db", "\u3164")  # fmt: skip
# Where texts of every kind stand in a job.
TEXTS = ("title", "reference", "site.householder", "site.address", "boards.0.name", "circuits.0.name",
         "charge_points.0.serial_number", "certificate.departures", "site.route_notes", "decisions.0.reason")  # fmt: skip
FIGURES = ("supply.maximum_demand_a", "circuits.0.route.0.length_m", "circuits.0.slack_m", "circuits.0.route.0.insulation_mm",
           "charge_points.0.connector_height_m")  # fmt: skip


def with_value(field: str, value: object) -> Any:
    data = json.loads(example_text(DEVICE_IN_UNIT))
    target = data
    *path, last = field.split(".")
    for part in path:
        target = target[int(part) if isinstance(target, list) else part]
    target[last] = value
    return data


def parts_of(annotation: Any) -> list[Any]:
    return [annotation, *(part for one in get_args(annotation) for part in parts_of(one))]


def models() -> list[type[BaseModel]]:
    """Every model that takes something from outside: reachable from a job, or a body, path or query of the API."""
    found: list[type[BaseModel]] = []
    waiting: list[type[BaseModel]] = [BaseModel]
    while waiting:
        for one in waiting.pop().__subclasses__():
            waiting.append(one)
            if one.__module__.startswith("fulmen."):
                found.append(one)
    return found


TAKEN = {"Job"} | {name for name in json.dumps(Job.model_json_schema()["$defs"]).split('"') if name[:1].isupper()}


class Types(unittest.TestCase):
    def test_every_text_figure_and_day_of_a_job_is_of_the_one_type(self) -> None:
        """None takes a character that can't be shown, a figure that means nothing, a year of another age."""
        checked = 0
        for model in models():
            if model.__name__ not in TAKEN or not model.__module__.startswith("fulmen.core.model"):
                continue
            for name, field in model.model_fields.items():
                kinds = parts_of(field.annotation)
                for kind, poison in (
                    (str, "aa\x00"),
                    (float, 1e-308),
                    (date, "9999-01-01"),
                    (datetime, "9999-01-01T10:00:00Z"),
                ):
                    if kind not in kinds:
                        continue
                    checked += 1
                    said = (field.annotation, *field.metadata)
                    one: TypeAdapter[Any] = TypeAdapter(Annotated[said] if field.metadata else field.annotation)  # type: ignore[valid-type]
                    with self.subTest(model=model.__name__, name=name), self.assertRaises(ValidationError):
                        one.validate_python(poison)
        self.assertGreater(checked, 120)


class AtTheDoor(AppCase):
    def refused(self, answer: Any, field: str) -> None:
        self.assertEqual(answer.status_code, 422, answer.text[:200])
        self.assertEqual(answer.get_json()["field"], field)

    def test_no_poisoned_text_gets_in(self) -> None:
        self.store(DEVICE_IN_UNIT)
        for field in TEXTS:
            for poison in POISON:
                body = json.dumps(with_value(field, f"ok {poison} ok"))
                for answer in (
                    self.client.post(f"{API}/jobs", data=body, content_type="application/json"),
                    self.client.put(
                        f"{API}/jobs/1", data=body, content_type="application/json", headers={"If-Match": "1"}
                    ),
                ):
                    with self.subTest(field=field, poison=ascii(poison)):
                        self.refused(answer, field)
        self.assertEqual(self.client.get(f"{API}/jobs").get_json()["total"], 1)
        self.assertEqual(load_job(self.sessions, 1).version, 1)

    def test_no_figure_that_means_nothing_and_no_year_of_another_age(self) -> None:
        for field in FIGURES:
            self.refused(self.client.post(f"{API}/evaluate", json=with_value(field, 1e-308)), field)
        for year in ("0001", "1899", "2101", "9999"):
            field = "certificate.signatures.0.signed_on"
            self.refused(self.client.post(f"{API}/evaluate", json=with_value(field, f"{year}-01-01")), field)
        lines = with_value("circuits.0.name", "two\nlines")
        self.refused(self.client.post(f"{API}/evaluate", json=lines), "circuits.0.name")

    def test_numbers_past_every_row_and_names_past_every_disk(self) -> None:
        for path in (
            f"jobs/{2**63}",
            f"jobs/{10**30}",
            f"papers/{2**63}.pdf",
            f"jobs/1/photos?stop={'x' * 300}",
            f"issues/{2**64}",
        ):
            with self.subTest(path[:40]):
                self.assertIn(self.client.get(f"{API}/{path}").status_code, (404, 422))
        for path in ("x" * 300, "x/" * 200, "%00", "a%00b", "..%2f..%2fetc"):
            with self.subTest(path[:20]):
                self.assertIn(self.client.get(f"/{path}").status_code, (200, 404, 503))
        self.assertEqual(self.client.get(f"{API}/jobs?search=%00&limit=1").status_code, 422)
        self.assertEqual(self.client.get(f"{API}/jobs?offset={2**70}").status_code, 422)

    def test_a_householders_answer_never_spoils_the_page(self) -> None:
        self.store(DEVICE_IN_UNIT)
        made = self.client.post(f"{API}/jobs/1/links", json={"made_by": "R. Quillfeather"}).get_json()
        secret = made["address"].rpartition("/")[2]
        for question, value in (
            *(("position", f"le{poison}ft") for poison in POISON), ("position", "two\nlines"), ("ownership", []),
            ("ownership", ["tenant"]), ("ownership", {}), ("appliances", []), ("appliances", "shower"), ("battery", True),
            ("battery", "50"), ("battery", 1e-308), ("battery", None), ("position", 7), ("data", [[]]),
        ):  # fmt: skip
            body = json.dumps({"value": value})
            answer = self.client.put(
                f"{API}/householder/{secret}/answers/{question}", data=body, content_type="application/json"
            )
            with self.subTest(question, value=ascii(value)):
                self.assertEqual(answer.status_code, 422, answer.text[:200])
        self.assertEqual(self.client.get(f"{API}/householder/{secret}").status_code, 200)
        self.assertEqual(self.client.get(f"{API}/jobs/1/links").status_code, 200)


class Older(AppCase):
    def poisoned(self, field: str, value: object) -> None:
        """An older version's row, written past every check."""
        with closing(sqlite3.connect(self.settings.database)) as database, database:
            document = with_value(field, value)
            for part in ("readings", "letters"):
                document.pop(part)
            database.execute("UPDATE job SET document = ?", (json.dumps(document),))

    def test_it_reads_on_cleaned_and_told(self) -> None:
        self.store(DEVICE_IN_UNIT)
        for field, value in (
            *((field, f"ok {poison} ok") for field in TEXTS for poison in POISON), ("circuits.0.name", "two\nlines\x00"),
            ("supply.maximum_demand_a", 1e-308), ("certificate.signatures.0.signed_on", "9999-12-31"),
        ):  # fmt: skip
            self.poisoned(field, value)
            answer = self.client.get(f"{API}/jobs/1")
            with self.subTest(field=field, value=ascii(value)):
                self.assertEqual(answer.status_code, 200, answer.text[:300])
                self.assertEqual(answer.get_json()["cleaned"], [field])
                answer.text.encode()
        self.poisoned("title", "whole again")
        self.assertEqual(self.client.get(f"{API}/jobs/1").get_json()["cleaned"], [])

    def test_what_is_wrong_in_another_way_is_still_refused(self) -> None:
        self.store(DEVICE_IN_UNIT)
        self.poisoned("circuits.0.slack_m", -5)
        with self.assertRaises(JobFileError):
            load_job(self.sessions, 1)

    def test_an_older_answer_reads_on(self) -> None:
        self.store(DEVICE_IN_UNIT)
        made = self.client.post(f"{API}/jobs/1/links", json={"made_by": "R. Quillfeather"}).get_json()
        secret = made["address"].rpartition("/")[2]
        self.client.put(f"{API}/householder/{secret}/answers/position", json={"value": "left"})
        with closing(sqlite3.connect(self.settings.database)) as database, database:
            database.execute("UPDATE householder_answer SET value = ?", (json.dumps("left \ud800"),))
        for path in (f"householder/{secret}", "jobs/1/links"):
            with self.subTest(path):
                self.assertEqual(self.client.get(f"{API}/{path}").status_code, 200)


class Shown(AppCase):
    @tries(40)
    @given(st.text(min_size=1, max_size=60))
    def test_any_text_that_is_kept_makes_a_drawing_that_is_well_formed(self, text: str) -> None:
        kept = re.sub(r"[\t\n\r]", " ", UNSHOWABLE.sub("", text)).strip() or "x"
        whole = job(
            changes={"title": kept[:120], "boards.0.name": kept, "circuits.0.name": kept, "charge_points.0.name": kept}
        )
        answer = self.client.post(
            f"{API}/run.svg", json={"job": whole.model_dump(mode="json"), "charge_point": "charge-point"}
        )
        self.assertEqual(answer.status_code, 200)
        ElementTree.fromstring(answer.data)

    def test_and_a_paper_whose_metadata_is(self) -> None:
        whole = job(changes={"title": "<&>\"' ]]> é", "site.householder": "</rdf:li>&#0;"})
        create_job(self.sessions, whole, NOW)
        pdf = render_certificate(prepare_issue(whole, "FC-2026-0001", NOW, None))
        metadata = PdfReader(BytesIO(pdf)).root_object["/Metadata"].get_object().get_data()  # type: ignore[attr-defined]
        ElementTree.fromstring(metadata)
