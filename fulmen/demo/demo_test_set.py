"""The demo's test set: it stands in every house of the store, built as designed."""

from __future__ import annotations

from fulmen.settings import Settings
from fulmen.simulators.test_set import House, TestSetServer
from fulmen.store.database import open_database, sessions
from fulmen.store.errors import NotFound
from fulmen.store.operations import load_job


def demo_test_set(settings: Settings, port: int) -> TestSetServer:
    """A simulated set at work; where the port is taken, at a free one."""
    made = sessions(open_database(settings))

    def house(number: str) -> House | None:
        try:
            return House(load_job(made, int(number)).job, seed=int(number))
        except (NotFound, ValueError):
            return None

    try:
        server = TestSetServer(house, port)
    except OSError:
        server = TestSetServer(house)
    server.start()
    return server
