"""Tables load with their provenance, look up exactly or on the safe side, and never extrapolate."""

import unittest
from unittest.mock import patch

from fulmen.core.errors import InputError, TableError
from fulmen.core.reference.cable_catalogue import cable_record, cable_records
from fulmen.core.reference.rule_set import rule_set, rule_set_keys
from fulmen.core.reference.tables import PROVENANCE, read_toml, table, table_keys

GOOD = read_toml("fulmen.core.reference.tables", "cd")


class Provenance(unittest.TestCase):
    def test_every_table_loads_with_its_provenance(self) -> None:
        self.assertGreaterEqual(len(table_keys()), 14)
        for key in table_keys():
            with self.subTest(key):
                loaded = table(key)
                self.assertTrue(loaded.title and loaded.publication and loaded.number and loaded.how_checked)

    def test_no_table_loads_without_its_provenance(self) -> None:
        for name in PROVENANCE:
            with self.subTest(name), patch("fulmen.core.reference.tables.read_toml") as read:
                read.return_value = {field: value for field, value in GOOD.items() if field != name}
                with self.assertRaisesRegex(TableError, name):
                    table.__wrapped__("cd")

    def test_rows_must_rise_and_columns_must_be_full(self) -> None:
        for wrong in ({"rows": [0.7, 0.5, 1.0]}, {"columns": {"cd": [1.03, 1.0]}}):
            with self.subTest(wrong), patch("fulmen.core.reference.tables.read_toml", return_value={**GOOD, **wrong}):
                with self.assertRaises(TableError):
                    table.__wrapped__("cd")

    def test_every_edition_names_its_amendment(self) -> None:
        for key in rule_set_keys():
            self.assertTrue(rule_set(key).amendment_date)
        with self.assertRaisesRegex(InputError, "no edition"):
            rule_set("of_next_year")


class LookUp(unittest.TestCase):
    def test_exact_row(self) -> None:
        self.assertEqual(table("4d5").at("103.2", 10), 32)

    def test_at_below_and_above_a_row(self) -> None:
        air = table("ca_air")
        self.assertEqual(air.at_or_above("pvc_70", 34.9), (0.94, 35))
        self.assertEqual(air.at_or_above("pvc_70", 35.0), (0.94, 35))
        self.assertEqual(air.at_or_above("pvc_70", 35.1), (0.87, 40))

    def test_below_the_first_row_the_first_serves(self) -> None:
        self.assertEqual(table("ca_air").at_or_above("xlpe_90", -20), (1.02, 25))

    def test_nothing_is_extrapolated(self) -> None:
        with self.assertRaisesRegex(TableError, "past its last row"):
            table("ca_air").at_or_above("pvc_70", 60.1)

    def test_no_such_row_column_or_cell(self) -> None:
        self.assertFalse(table("4d5").has("E.2", 6))
        for column, row in (("E.2", 6), ("C.2", 5), ("buried_touching", 8)):
            with self.subTest(column), self.assertRaises(TableError):
                table("cg" if column.startswith("b") else "4d5").at(column, row)

    def test_every_cable_record_is_rated_in_every_size(self) -> None:
        for record in cable_records().values():
            for size in record.sizes_mm2:
                with self.subTest(record=record.id, size=size):
                    self.assertGreater(table(record.rating_table).at("C.2", size), 0)
                    self.assertGreater(record.cpc_mm2(size), 0)

    def test_unknown_cable_names_those_there_are(self) -> None:
        with self.assertRaisesRegex(InputError, "swa-3-core"):
            cable_record(cable_records(), "rope")
