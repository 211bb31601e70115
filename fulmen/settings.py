"""Settings, each an environment variable; every one is listed in docs/commands.md."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import urlsplit

from sqlalchemy import URL

ROOT = Path(__file__).resolve().parents[1]


@dataclass(frozen=True)
class Settings:
    """Where the data lies and where the app listens."""

    database: Path = ROOT / "var" / "fulmen.sqlite"
    frontend: Path = ROOT / "frontend" / "dist"
    host: str = "127.0.0.1"
    port: int = 8750
    householder_host: str = "127.0.0.1"
    householder_port: int = 0
    householder_url: str = ""
    test_set_port: int = 0

    def database_url(self) -> URL:
        """The SQLAlchemy address of the database: an object, since a path may hold any character."""
        return URL.create("sqlite", database=str(self.database.resolve()))

    def link_url(self) -> str:
        """What a made link begins with; empty: where the electrician's browser is."""
        own_door = f"http://{self.householder_host}:{self.householder_port}" if self.householder_port else ""
        return self.householder_url or own_door

    def host_names(self) -> frozenset[str]:
        """The host names that the app answers to, beside this machine's own."""
        url_host = urlsplit(self.householder_url).hostname
        return frozenset({self.host, self.householder_host, *([url_host] if url_host else [])})


def read_settings() -> Settings:
    """The settings of this process: FULMEN_DATABASE, FULMEN_FRONTEND, FULMEN_HOST, FULMEN_PORT,
    FULMEN_HOUSEHOLDER_HOST, FULMEN_HOUSEHOLDER_PORT, FULMEN_HOUSEHOLDER_URL, FULMEN_TEST_SET_PORT.

    Raises:
        ValueError: a port is no number up to 65535, or the householders' address is no http address.
    """
    usual = Settings()
    url = os.environ.get("FULMEN_HOUSEHOLDER_URL", usual.householder_url)
    if url and not _is_http(url):
        raise ValueError(f"FULMEN_HOUSEHOLDER_URL must begin with http:// or https://; it is {url!r}")
    return Settings(
        database=Path(os.environ.get("FULMEN_DATABASE", usual.database)),
        frontend=Path(os.environ.get("FULMEN_FRONTEND", usual.frontend)),
        host=os.environ.get("FULMEN_HOST", usual.host),
        port=_port("FULMEN_PORT", usual.port, 1),
        householder_host=os.environ.get("FULMEN_HOUSEHOLDER_HOST", usual.householder_host),
        householder_port=_port("FULMEN_HOUSEHOLDER_PORT", usual.householder_port, 0),
        householder_url=url,
        test_set_port=_port("FULMEN_TEST_SET_PORT", usual.test_set_port, 0),
    )


def _is_http(url: str) -> bool:
    try:
        return urlsplit(url).scheme in ("http", "https") and bool(urlsplit(url).hostname)
    except ValueError:
        return False


def _port(name: str, usual: int, least: int) -> int:
    port = os.environ.get(name, str(usual))
    if not (port.isascii() and port.isdecimal()) or not least <= int(port) <= 65535:
        raise ValueError(f"{name} must be a number from {least} to 65535; it is {port!r}")
    return int(port)
