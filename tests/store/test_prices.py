"""The price list as kept: in its own order, replaced whole, forgotten, and written into the audit trail."""

import sqlite3
from contextlib import closing

from fulmen.core.materials.prices import PriceLine, PriceList, invented_prices
from fulmen.store.prices import forget_prices, keep_prices, price_list
from tests.app import NOW, AppCase

LINES = tuple(PriceLine(key=key, name=key.title(), unit="piece", price=price, work_min=1.5) for key, price in (("zinc", 2.0), ("label", 0.5)))  # fmt: skip


class Kept(AppCase):
    def test_invented_until_the_user_keeps_one(self) -> None:
        self.assertEqual(price_list(self.sessions), invented_prices())
        keep_prices(self.sessions, PriceList(lines=LINES), NOW)
        self.assertEqual(price_list(self.sessions).lines, LINES)
        keep_prices(self.sessions, PriceList(lines=LINES[:1]), NOW)
        self.assertEqual(price_list(self.sessions).lines, LINES[:1])
        forget_prices(self.sessions, NOW)
        self.assertEqual(price_list(self.sessions), invented_prices())

    def test_what_was_done_stands_in_the_audit_trail(self) -> None:
        keep_prices(self.sessions, PriceList(lines=LINES), NOW)
        forget_prices(self.sessions, NOW)
        with closing(sqlite3.connect(self.settings.database)) as database:
            names = {name for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            (table,) = [name for name in names if "audit" in name]
            said = [str(row) for row in database.execute(f"SELECT * FROM {table}")]
        self.assertTrue(any("prices kept" in row for row in said) and any("prices forgotten" in row for row in said))
