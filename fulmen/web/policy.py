"""Who may call each route. The demo has a single person; the table stands from the first day all the same.

A test holds every route of the app to this table.
"""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum
from typing import Any, TypeVar

from flask import abort, g

View = TypeVar("View", bound=Callable[..., Any])


class Role(StrEnum):
    """What a caller is."""

    ELECTRICIAN = "electrician"
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
    """Refuse a call that the table does not allow. Without sign-in the single person is the electrician."""
    allowed = POLICY.get(endpoint or "", frozenset())
    g.role = Role.ELECTRICIAN
    if Role.ANYONE not in allowed and g.role not in allowed:
        abort(403)
