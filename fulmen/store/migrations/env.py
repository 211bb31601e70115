"""Alembic's environment. Foreign keys stay off while tables are rebuilt, or their rows would cascade away."""

from __future__ import annotations

from alembic import context
from sqlalchemy import create_engine, text

from fulmen.store.tables import Base

engine = create_engine(context.config.get_main_option("sqlalchemy.url") or "")
with engine.connect() as connection:
    connection.execute(text("PRAGMA foreign_keys=OFF"))
    connection.commit()
    context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
engine.dispose()
