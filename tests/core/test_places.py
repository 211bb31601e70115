"""The place decides the method: for every kind of cable, place and size nothing carries more than the place allows.

The greatest that a place allows is written here a second time, from the published tables' columns alone (BS 7671
Appendix 4, Tables 4A2, 4D2A to 4E4A and 52.2, from memory); what has no column there is common practice, no source.
"""

import unittest
from itertools import product

from hypothesis import given
from hypothesis import strategies as st

from fulmen.core.alternatives.remedies import remedies
from fulmen.core.editing.changes import apply_changes
from fulmen.core.electrical.cable_rating import section_rating
from fulmen.core.model.reference_method import ReferenceMethod
from fulmen.core.model.route import Section, Surroundings
from fulmen.core.reference.cable_catalogue import CableRecord, cable_record, cable_records
from fulmen.core.reference.places import methods_in
from fulmen.core.reference.tables import table
from tests.figures import figures
from tests.jobs import DEVICE_IN_UNIT, RULES, finding, job
from tests.sampling import tries

SURROUNDED = 0.50
UNARMOURED = {"4d4a": "4d2a", "4e4a": "4e2a", "4d5": "4d2a"}
GROUND = {"4d2a": "4d4a", "4e2a": "4e4a", "4d5": "4d4a"}


def printed(record: CableRecord, column: str, csa_mm2: float, loaded: int) -> float:
    """What the cable's table prints, lent columns included; nothing where it prints none."""
    key, name = record.rating_table, f"{column}.{loaded}"
    if not table(key).has(name, csa_mm2):
        key = UNARMOURED.get(key, key) if column == "B" else GROUND.get(key, key) if column == "D" else key
    return table(key).at(name, csa_mm2) if table(key).has(name, csa_mm2) else 0.0


def greatest_a(record: CableRecord, place: str, csa_mm2: float, loaded: int, insulated: bool) -> float:
    """The most that a place allows, in air at 30 °C or in usual soil, alone; insulation is met for half a metre."""

    def most(*columns: str) -> float:
        return max(printed(record, column, csa_mm2, loaded) for column in columns)

    wrapped = SURROUNDED * most("C")
    by_length = SURROUNDED if insulated else 1.0
    if place in ("buried", "duct"):
        return 0.90 * most("D")
    if place == "in_wall":
        return most("A", "102", "103") or wrapped
    if place == "loft_under":
        return most("101") or wrapped
    if place in ("conduit_or_trunking", "post"):
        return most("B") * by_length or wrapped
    if place == "under_floor" and insulated:
        return most("100", "101") or by_length * most("B", "C")
    allowed = {"tray": ("E", "C"), "under_floor": ("B", "C", "E", "100"), "loft": ("C", "100")}.get(place, ("C",))
    return by_length * most(*allowed)


class Greatest(unittest.TestCase):
    def test_no_method_entered_is_kinder_than_the_place_allows(self) -> None:
        entered = [None, *ReferenceMethod]
        for record, place, phases in product(cable_records().values(), Surroundings, (1, 3)):
            for method, insulated in product(entered, (False, True)):
                section = Section(surroundings=place, method=method, length_m=5, insulation_mm=500.0 * insulated)
                for csa_mm2 in record.sizes_mm2:
                    rating = section_rating(section, record, csa_mm2, phases)
                    most = greatest_a(record, place.value, csa_mm2, 2 if phases == 1 else 3, insulated)
                    with self.subTest(record=record.id, place=place, method=method, csa=csa_mm2, insulated=insulated):
                        self.assertLessEqual(rating.iz_a or 0.0, most + 1e-9)

    @tries(200)
    @given(
        st.sampled_from(list(cable_records().values())),
        st.sampled_from(list(Surroundings)),
        st.sampled_from([None, *ReferenceMethod]),
        figures(0.1, 3),
        figures(0, 600),
    )
    def test_what_follows_from_the_place_is_never_less_kind_than_a_choice_it_refuses(
        self, record: CableRecord, place: Surroundings, method: ReferenceMethod | None, length_m: float, mm: float
    ) -> None:
        section = Section(surroundings=place, method=method, length_m=length_m, insulation_mm=mm)
        refused = method not in {one.method for one in methods_in(section, record)}
        if refused:
            follows = section_rating(section.model_copy(update={"method": None}), record, 6)
            self.assertLessEqual(section_rating(section, record, 6).iz_a or 0.0, (follows.iz_a or 0.0) + 1e-9)

    def test_the_kinds_of_fault_that_trial_jobs_met(self) -> None:
        armoured = cable_records()["swa-3-core"]
        for place, method, csa_mm2, most_a in (
            ("buried", "E", 4, 43),
            ("loft_under", "C", 4, 24.5),
            ("in_wall", "C", 4, 24.5),
        ):
            section = Section(surroundings=Surroundings(place), method=ReferenceMethod(method), length_m=5)
            with self.subTest(place):
                self.assertLessEqual(section_rating(section, armoured, csa_mm2).iz_a or 0.0, most_a)


class OnAJob(unittest.TestCase):
    def test_a_method_that_is_too_kind_is_told(self) -> None:
        post = {"circuits.0.route.4.surroundings": "post", "circuits.0.route.4.method": "E"}
        found = finding("weakest_section", DEVICE_IN_UNIT, post)
        self.assertIn("section 5: method E is kinder than its place, post, allows: B rates it", found.detail)

    def test_a_remedy_never_lends_a_method(self) -> None:
        walled = {"circuits.0.route.2.surroundings": "in_wall", "circuits.0.cable.record": "twin-and-earth",
                  "circuits.0.cable.csa_mm2": 4.0, "circuits.0.route.3.surroundings": "clipped"}  # fmt: skip
        for offered in remedies(job(DEVICE_IN_UNIT, walled), "weakest_section/ev", RULES):
            then = apply_changes(job(DEVICE_IN_UNIT, walled), offered.changes)
            for section in then.circuits[0].route:
                record = cable_record(cable_records(), (section.cable or then.circuits[0].cable).record)
                with self.subTest(offered.words):
                    self.assertIn(section.method, {None, *(one.method for one in methods_in(section, record))})


if __name__ == "__main__":
    unittest.main()
