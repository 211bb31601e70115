"""Alembic's environment. Everything that one start migrates is one transaction: whole, or not at all.

Foreign keys stay off while tables are rebuilt, or their rows would cascade away. The lock is taken at once, so that of
two starts one waits and then finds nothing to do.
"""

from __future__ import annotations

import sqlite3

from alembic import context
from sqlalchemy import Connection, create_engine, event

from fulmen.store.tables import Base

engine = create_engine(context.config.attributes["url"])


@event.listens_for(engine, "connect")
def prepare(connection: sqlite3.Connection, _record: object) -> None:
    # The driver would commit by itself before a table is made.
    connection.isolation_level = None
    connection.execute("PRAGMA busy_timeout=60000")
    connection.execute("PRAGMA foreign_keys=OFF")
    connection.execute("PRAGMA synchronous=FULL")


@event.listens_for(engine, "begin")
def begin(connection: Connection) -> None:
    connection.exec_driver_sql("BEGIN IMMEDIATE")


with engine.connect() as connection:
    context.configure(
        connection=connection, target_metadata=Base.metadata, render_as_batch=True, transaction_per_migration=False
    )
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
