"""Evaluating without storing, and the catalogue."""

from __future__ import annotations

from functools import cache

from flask import Response, current_app

from fulmen.core.answer import Answer, answer_for
from fulmen.core.findings.caution import CAUTION
from fulmen.core.findings.words import WORDS, word
from fulmen.core.model.guards import RATINGS_A
from fulmen.core.model.job import Job
from fulmen.core.reference.cable_catalogue import cable_records
from fulmen.core.reference.places import places
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.reference.usual_appliances import usual_appliances
from fulmen.core.reference.usual_defects import USUAL_DEFECTS
from fulmen.core.verification.instruments.accuracy import usual_accuracies
from fulmen.core.verification.steps.steps import step_texts
from fulmen.store.database import kept_designs
from fulmen.web.doors.blueprint import api_blueprint
from fulmen.web.doors.policy import Role, allows
from fulmen.web.doors.replies import asker, reply, store
from fulmen.web.jobs.schemas import CableOption, Catalogue, Option

evaluation = api_blueprint("evaluation")


@evaluation.post("/evaluate", responses={200: Answer})
@allows(Role.ELECTRICIAN)
def evaluate_job(body: Job) -> Response:
    """Evaluate a job document without storing it, as far as the page shows it that asks (`Fulmen-Shows`)."""
    return reply(answer_for(asker(), body, rule_set(body.rule_set), kept_designs(store())))


@evaluation.get("/catalogue", responses={200: Catalogue})
@allows(Role.ELECTRICIAN)
def read_catalogue() -> Response:
    """Read what the screens need to know once."""
    there = bool(current_app.config["TEST_SET_PORT"])
    return reply(_catalogue().model_copy(update={"test_set": there}))


@cache
def _catalogue() -> Catalogue:
    choices = {
        kind.__name__: [Option(value=value, words=words) for value, words in words_of_kind.items()]
        for kind, words_of_kind in WORDS.items()
    }
    cables = [
        CableOption(
            id=record.id,
            name=record.name,
            sizes_mm2=list(record.sizes_mm2),
            methods=list(record.methods),
            phases=list(record.phases),
            armoured=bool(record.armour),
        )
        for record in cable_records().values()
    ]
    return Catalogue(
        shorthand=[Option(value=place.letter, words=word(surroundings)) for surroundings, place in places().items()],
        caution=CAUTION,
        edition=rule_set().title,
        choices=choices,
        cables=cables,
        ratings_a=list(RATINGS_A),
        accuracies=list(usual_accuracies().values()),
        appliances=list(usual_appliances()),
        usual_defects=list(USUAL_DEFECTS),
        steps=step_texts(),
    )
