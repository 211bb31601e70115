"""Errors of the core: raised for impossible input only. A rule that fails is a finding, not an error."""

from __future__ import annotations

from typing import Any


class CoreError(Exception):
    """Root of every error the core raises on purpose."""


class TableError(CoreError):
    """A published table holds no such row or column; nothing is extrapolated."""


class PaperError(CoreError):
    """A paper can't be made as it would have to read; one sentence says why."""


class InputError(CoreError):
    """One field holds something it cannot hold.

    Args:
        field: path of the field in the job file, such as ``circuits.0.route.1.length_m``.
        message: one clear sentence saying what is wrong and what is allowed.
    """

    def __init__(self, field: str, message: str) -> None:
        super().__init__(field, message)
        self.field = field
        self.message = message

    def __str__(self) -> str:
        return f"{self.field}: {self.message}" if self.field else self.message


class JobFileError(CoreError):
    """A job file cannot be taken. Holds every field at fault, the first one first.

    Args:
        problems: at least one `InputError`.
        invalid: what refused the document, and the document; for who can mend it.
    """

    def __init__(self, problems: list[InputError], invalid: tuple[Any, dict[str, Any]] | None = None) -> None:
        super().__init__(problems)
        self.problems = problems
        self.invalid = invalid

    def __str__(self) -> str:
        return str(self.problems[0])
