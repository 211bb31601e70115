"""Who may call each route. There is no sign-in yet; the table stands from the first day all the same.

A test holds every route of the app to this table.
"""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum
from typing import Any, TypeVar

from flask import abort, current_app, g

View = TypeVar("View", bound=Callable[..., Any])


class Role(StrEnum):
    """What a caller is."""

    ELECTRICIAN = "electrician"
    HOUSEHOLDER = "householder"
    ANYONE = "anyone"


# Endpoint → the roles that may call it.
POLICY: dict[str, frozenset[Role]] = {}


def allows(*roles: Role) -> Callable[[View], View]:
    """Declare on a view who may call it."""

    def mark(view: View) -> View:
        view.allowed_roles = frozenset(roles)  # type: ignore[attr-defined]
        return view

    return mark


def register(endpoint: str, view: Callable[..., Any]) -> None:
    """Enter a view in the policy table; a view that declares nobody is let through to nobody."""
    POLICY[endpoint] = getattr(view, "allowed_roles", frozenset())


def check(endpoint: str | None) -> None:
    """Refuse a call that the table does not allow.

    Without sign-in, whoever reaches the app is the electrician; the householders' door (see `create_app`) knows
    no electrician. A householder's route asks the store for the link of the secret in its path.
    """
    allowed = POLICY.get(endpoint or "", frozenset())
    g.roles = current_app.config["ROLES"]
    if not allowed & (g.roles | {Role.ANYONE}):
        abort(403, "This address is not for you.")
