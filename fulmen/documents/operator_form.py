"""What the network operator is told, as PDF with the same content as JSON inside it."""

from __future__ import annotations

from datetime import datetime

from fulmen.core.findings.caution import CAUTION
from fulmen.core.network_operator.form import OperatorForm
from fulmen.core.network_operator.notification import Held, Route
from fulmen.documents.rendering import Inside, environment, write_pdf

ATTACHMENT = "operator-form.json"
TITLES = {
    Route.NOTIFY_AFTER: "Notice of a new charge point",
    Route.APPLY_BEFORE: "Application to connect a charge point",
}
TAKEN_AWAY = "Notice of a charge point taken away"
HOLDS = {Held.YES: "holds", Held.NO: "does not hold", Held.NOT_KNOWN: "not known"}


def render_operator_form(form: OperatorForm, made_at: datetime) -> bytes:
    """The form's bytes; the same form made at the same time gives the same bytes."""
    data = form.model_dump_json(indent=2)
    inside = Inside(ATTACHMENT, "The same content as data", data)
    return write_pdf(operator_form_html(form, made_at), inside, made_at)


def operator_form_html(form: OperatorForm, made_at: datetime) -> str:
    """The form as HTML, before it becomes pages."""
    template = environment().get_template("operator_form.html.j2")
    title = TAKEN_AWAY if form.taken_away else TITLES[form.route]
    return template.render(form=form, title=title, made_at=made_at, holds=HOLDS, caution=CAUTION)
