"""When the tests take place."""

from datetime import UTC, datetime

NOW = datetime(2026, 11, 24, 9, 30, tzinfo=UTC)
