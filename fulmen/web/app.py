"""Making the Flask app."""

from __future__ import annotations

from flask_openapi import OpenAPI

from fulmen import __version__
from fulmen.core.job_file import MAX_BYTES
from fulmen.settings import Settings
from fulmen.store.database import open_database, sessions
from fulmen.web import policy
from fulmen.web.evaluation import evaluation
from fulmen.web.frontend import frontend
from fulmen.web.guard import register_guard
from fulmen.web.jobs import jobs
from fulmen.web.papers import papers
from fulmen.web.problems import Problem, register_problems, validation_response

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})


def create_app(settings: Settings) -> OpenAPI:
    """The app on an already migrated database."""
    app = OpenAPI(
        __name__,
        info={"title": "Fulmen", "version": __version__},
        validation_error_model=Problem,
        validation_error_callback=validation_response,
        doc_ui=False,
        static_folder=None,
    )
    app.openapi_version = "3.1.0"
    # A job travels inside a question with little around it, so bodies get some room above the file's limit.
    app.config.update(
        MAX_CONTENT_LENGTH=MAX_BYTES + 50_000, FRONTEND=settings.frontend, KNOWN_HOSTS=LOCAL_HOSTS | {settings.host}
    )
    app.extensions["sessions"] = sessions(open_database(settings))
    for blueprint in (jobs, evaluation, papers):
        app.register_api(blueprint)
    app.register_blueprint(frontend)
    for endpoint, view in app.view_functions.items():
        policy.register(endpoint, view)
    register_problems(app)
    register_guard(app)
    return app
