"""Making the Flask app."""

from __future__ import annotations

from threading import Lock

from flask_openapi import OpenAPI

from fulmen import __version__
from fulmen.core.editing.job_file import MAX_BYTES
from fulmen.core.papers.certificate import certificate_contents
from fulmen.documents.certificate import render_certificate
from fulmen.settings import Settings
from fulmen.store.database import open_database, sessions
from fulmen.store.issues import Render, State
from fulmen.web.design.prices import prices
from fulmen.web.design.protection import protection
from fulmen.web.design.views import design
from fulmen.web.doors import policy
from fulmen.web.doors.compression import register_compression
from fulmen.web.doors.earlier_documents import bring_up_to_date
from fulmen.web.doors.frontend import frontend
from fulmen.web.doors.guard import MORE_THAN_A_JOB, register_guard
from fulmen.web.doors.limits import Buckets, OneEach
from fulmen.web.doors.policy import Role
from fulmen.web.doors.problems import Problem, register_problems, validation_response
from fulmen.web.doors.replies import now
from fulmen.web.householder.links import links
from fulmen.web.householder.views import householder
from fulmen.web.jobs.acts import acts
from fulmen.web.jobs.evaluation import evaluation
from fulmen.web.jobs.signing import SESSION_LASTS, StoreSessions
from fulmen.web.jobs.standing_reasons import standing
from fulmen.web.jobs.views import jobs
from fulmen.web.looking.lookings import Lookings
from fulmen.web.looking.views import looking
from fulmen.web.papers.issuing import IssuingQueue
from fulmen.web.papers.views import papers
from fulmen.web.practice.views import practice
from fulmen.web.survey.charge_points import charge_points
from fulmen.web.survey.operator import operator
from fulmen.web.survey.photos import photos
from fulmen.web.survey.supply import supply
from fulmen.web.survey.usual_answers import usual
from fulmen.web.testing.beside import Beside
from fulmen.web.testing.views import testing

# The framework knows no addresses full of colons: on IPv6 the machine is reached by its name.
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost"})


def create_app(
    settings: Settings,
    door: Role = Role.ELECTRICIAN,
    render: Render = render_certificate,
    state: State = certificate_contents,
) -> OpenAPI:
    """The app on an already migrated database.

    Args:
        settings: where the data lies and where it listens.
        door: the electrician's door opens everything; the householder's only what a link's secret leads to.
        render: makes a certificate's bytes; a server has a process of its own for it.
        state: works out what a certificate states, there too.
    """
    app = OpenAPI(
        __name__,
        info={"title": "Fulmen", "version": __version__},
        validation_error_model=Problem,
        validation_error_callback=validation_response,
        doc_ui=False,
        static_folder=None,
    )
    app.openapi_version = "3.1.0"
    _configure(app, settings, door)
    made = app.extensions["sessions"] = sessions(open_database(settings))
    app.session_interface = StoreSessions()
    # Secrets that don't exist, by the address that tries them: twenty, then one every half minute.
    app.extensions["beside"] = Beside()
    app.extensions["guesses"] = Buckets(20, 1 / 30)
    app.extensions.update(at_test_set=OneEach(), reading_paper=Lock(), lookings=Lookings())
    app.extensions.update(issuing=IssuingQueue(made, state, render, now))
    for blueprint in (
        jobs,
        acts,
        evaluation,
        papers,
        photos,
        links,
        householder,
        supply,
        operator,
        charge_points,
        protection,
        design,
        looking,
        prices,
        usual,
        standing,
        testing,
        practice,
    ):
        app.register_api(blueprint)
    app.register_blueprint(frontend)
    for endpoint, view in app.view_functions.items():
        policy.register(endpoint, view)
    register_problems(app)
    register_guard(app)
    register_compression(app)
    app.before_request(bring_up_to_date)
    return app


def _configure(app: OpenAPI, settings: Settings, door: Role) -> None:
    app.config.update(
        MAX_CONTENT_LENGTH=MAX_BYTES + MORE_THAN_A_JOB,
        FRONTEND=settings.frontend,
        # A foreign host name that resolves here must not read the data.
        TRUSTED_HOSTS=sorted(LOCAL_HOSTS | settings.host_names()),
        HOUSEHOLDER_URL=settings.link_url(),
        TEST_SET_PORT=settings.test_set_port,
        ROLES=frozenset({door, Role.HOUSEHOLDER}),
        # A browser keeps one jar for all doors of a machine.
        SESSION_COOKIE_NAME=f"fulmen_{settings.port}",
        SESSION_COOKIE_SAMESITE="Strict",
        PERMANENT_SESSION_LIFETIME=SESSION_LASTS,
    )
