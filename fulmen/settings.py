"""Settings, each an environment variable; every one is listed in docs/settings.md."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]


@dataclass(frozen=True)
class Settings:
    """Where the data lies and where the app listens."""

    database: Path = ROOT / "var" / "fulmen.sqlite"
    frontend: Path = ROOT / "frontend" / "dist"
    host: str = "127.0.0.1"
    port: int = 8750

    def database_url(self) -> str:
        """The SQLAlchemy address of the database."""
        return f"sqlite:///{self.database}"


def read_settings() -> Settings:
    """The settings of this process: FULMEN_DATABASE, FULMEN_FRONTEND, FULMEN_HOST, FULMEN_PORT.

    Raises:
        ValueError: the port is no number between 1 and 65535.
    """
    usual = Settings()
    port = os.environ.get("FULMEN_PORT", str(usual.port))
    if not port.isdigit() or not 1 <= int(port) <= 65535:
        raise ValueError(f"FULMEN_PORT must be a number from 1 to 65535; it is {port!r}")
    return Settings(
        database=Path(os.environ.get("FULMEN_DATABASE", usual.database)),
        frontend=Path(os.environ.get("FULMEN_FRONTEND", usual.frontend)),
        host=os.environ.get("FULMEN_HOST", usual.host),
        port=int(port),
    )
