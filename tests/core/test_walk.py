"""The walk: what was not seen stays open, to the right person; the householder's answers; the charge point catalogue."""

import unittest
from typing import Any

from fulmen.core.editing.blank_job import blank_job
from fulmen.core.editing.changes import apply_changes
from fulmen.core.errors import InputError, JobFileError
from fulmen.core.evaluate import evaluate
from fulmen.core.findings.finding import Stage
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.stops import Stop
from fulmen.core.reference.charge_point_catalogue import charge_point_records, parse_record
from fulmen.core.survey.householder import QUESTIONS, answer_changes, checked_answer, plain_question
from fulmen.core.survey.walk import FACTS, Ask, known, point_facts, switch_facts, tails_facts
from tests.jobs import ALL_ELECTRIC, AT_SURVEY, OWN_BOARD, RULES, THREE_PHASE, TT, evaluation, job


class Walk(unittest.TestCase):
    def test_a_blank_sheet_asks_for_every_fact_it_wants(self) -> None:
        blank = blank_job("Drive")
        asked = {question.field for question in evaluate(blank, RULES).questions}
        self.assertEqual(
            asked,
            {
                fact.field
                for fact in (*FACTS, *tails_facts(blank), *switch_facts(installation_of(blank)), *point_facts(blank))
                if fact.wanted(blank)
            },
        )
        self.assertGreater(len(asked), 30)
        self.assertEqual({question.ask for question in evaluate(blank, RULES).questions}, set(Ask))

    def test_every_fact_is_a_field_of_the_job(self) -> None:
        for fact in (
            *FACTS,
            *tails_facts(job(OWN_BOARD)),
            *switch_facts(installation_of(job(THREE_PHASE))),
            *point_facts(job(THREE_PHASE)),
        ):
            with self.subTest(fact.field):
                where = OWN_BOARD if fact.field.startswith("supply.tails") else THREE_PHASE
                self.assertIn(known(job(where), fact), (True, False))

    def test_counts_and_questions_agree(self) -> None:
        for name in (AT_SURVEY, ALL_ELECTRIC, TT):
            found = evaluation(name)
            for state in found.stops:
                asked = sum(question.stop is state.stop for question in found.questions)
                self.assertEqual(state.facts - state.known, asked, state.stop)

    def test_own_sources_are_open_questions_until_they_are_told(self) -> None:
        solar: dict[str, Any] = {"supply.own_generation": "yes"}
        source = {"kind": "solar", "board": "board", "feeds_a": 16.0, "runs_alone": "no"}
        for told, wanted in ((None, 1), (source | {"board": "", "feeds_a": None}, 2), (source, 0)):
            changes = solar | ({} if told is None else {"supply.sources": [told]})
            asked = [one for one in evaluation(TT, changes).questions if one.field.startswith("supply.sources")]
            self.assertEqual(len(asked), wanted)

    def test_every_finding_of_the_survey_has_its_stop(self) -> None:
        for name in (AT_SURVEY, ALL_ELECTRIC, TT):
            for one in evaluation(name).findings:
                if one.stage is Stage.SURVEY and one.rule != "operator":
                    self.assertIsNotNone(one.place, one.rule)
        self.assertEqual([state.stop for state in evaluation().stops], list(Stop))

    def test_every_charge_point_has_its_own_questions_by_name(self) -> None:
        second = {"charge_points.1.serial_number": "", "charge_points.1.provenance": "second_hand"}
        asked = {one.field: one.text for one in evaluation(THREE_PHASE, second).questions}
        self.assertEqual(asked["charge_points.1.serial_number"], "What is the serial number of Charge point, right?")
        self.assertIn("charge_points.1.built_year", asked)
        self.assertNotIn("charge_points.0.built_year", asked)
        one = {
            question.field: question.text
            for question in evaluation(changes={"charge_points.0.serial_number": ""}).questions
        }
        self.assertEqual(one["charge_points.0.serial_number"], "What is the serial number of the unit?")

    def test_asking_a_fact_only_where_it_matters(self) -> None:
        def asks(changes: dict[str, Any]) -> set[str]:
            return {question.field for question in evaluation(changes=changes).questions}

        self.assertIn("supply.neighbour_charge_point", asks({"supply.looped": "yes"}))
        self.assertNotIn("supply.neighbour_charge_point", asks({}))
        self.assertIn("site.way_proven_clear", asks({"site.hazards": ["old_duct"]}))
        self.assertIn("charge_points.0.built_year", asks({"charge_points.0.provenance": "second_hand"}))
        self.assertIn("supply.tns_confirmation", asks({"supply.earthing": "tn_s", "supply.tns_school": "as_found"}))
        self.assertNotIn(
            "boards.0.spare_ways", asks({"boards.0.fitted_with_this_job": True, "boards.0.spare_ways": None})
        )


class DemoJobs(unittest.TestCase):
    def test_the_two_at_survey_differ_in_everything_that_the_survey_asks(self) -> None:
        one, other = job(AT_SURVEY), job(ALL_ELECTRIC)
        for part, fields in {
            "site": ("ownership", "parking_on_own_land", "hazards", "data_ways"),
            "supply": ("earthing", "looped", "cut_out_condition", "cut_out_fuse_a", "fuse_proven", "meter", "isolator", "tails",
                       "earth_terminal", "main_bonding_csa_mm2", "bonding_near_entry", "own_generation", "load_limit_a"),
            "load": ("method", "half_hours"),
            "day": ("onboard_kw", "battery_kwh", "weekend", "plug_in_min"),
        }.items():  # fmt: skip
            for field in fields:
                with self.subTest(field):
                    self.assertNotEqual(getattr(getattr(one, part), field), getattr(getattr(other, part), field))
        for field in ("make_up", "enclosure", "incomer", "surge_protection", "spare_ways", "labels_complete"):
            self.assertNotEqual(getattr(one.boards[0], field), getattr(other.boards[0], field))
        for field in ("provenance", "open_pen_inside", "current_clamp", "smart", "tethered"):
            self.assertNotEqual(getattr(one.charge_points[0], field), getattr(other.charge_points[0], field))
        self.assertNotEqual(evaluation(AT_SURVEY).operator.route, evaluation(ALL_ELECTRIC).operator.route)


class Householder(unittest.TestCase):
    ANSWERS: tuple[tuple[str, Any, str, Any], ...] = (
        ("ownership", "tenant", "site.ownership", "tenant"), ("own_land", "no", "site.parking_on_own_land", "no"),
        ("car_place", "indoors_only", "site.car_place", "indoors_only"), ("generation", "yes", "supply.own_generation", "yes"),
        ("position", "Left of the door", "site.wanted_position", "Left of the door"), ("battery", 52, "day.battery_kwh", 52.0),
        ("supply_number", "S 123", "supply.supply_number", "S 123"), ("car", "small", "day.car", "small"),
        ("data", ["none", "wifi"], "site.data_ways", ["wifi"]),
    )  # fmt: skip

    def test_each_answer_changes_its_field_and_the_job_stays_whole(self) -> None:
        blank = blank_job("Drive")
        for key, value, field, stored in self.ANSWERS:
            with self.subTest(key):
                changes = answer_changes(blank, key, checked_answer(plain_question(key), value))
                self.assertEqual({change.field: change.value for change in changes}[field], stored)
                apply_changes(blank, changes)

    def test_appliances_are_added_once(self) -> None:
        after = apply_changes(
            blank_job("Drive"), answer_changes(blank_job("Drive"), "appliances", ["shower", "cooker"])
        )
        self.assertEqual((len(after.load.appliances), after.load.method.value), (6, "added_up"))
        self.assertEqual(len(apply_changes(after, answer_changes(after, "appliances", ["shower"])).load.appliances), 6)
        self.assertEqual(len(apply_changes(after, answer_changes(after, "appliances", ["hot_tub"])).load.appliances), 7)
        every = [answer.value for answer in plain_question("appliances").answers]
        self.assertEqual(
            len(apply_changes(blank_job("D"), answer_changes(blank_job("D"), "appliances", every)).load.appliances), 12
        )

    def test_not_sure_changes_nothing(self) -> None:
        for key in ("ownership", "own_land", "car_place", "generation"):
            self.assertEqual(answer_changes(blank_job("D"), key, "not_seen"), ())

    def test_what_is_no_answer_is_refused_in_plain_words(self) -> None:
        for key, value in [("ownership", "king"), ("data", "wifi"), ("data", ["sea"]), ("position", ""), ("position", "x" * 201),
                           ("battery", 0), ("battery", 251), ("battery", "big"), ("photo_way", "x"), ("car", 5), ("own_land", None)]:  # fmt: skip
            with self.subTest(key, value=value), self.assertRaises(InputError) as caught:
                checked_answer(plain_question(key), value)
            self.assertEqual(caught.exception.field, key)
        with self.assertRaises(InputError):
            plain_question("nonsense")

    def test_keys_are_unique_and_texts_plain(self) -> None:
        self.assertEqual(len({question.key for question in QUESTIONS}), len(QUESTIONS))
        for question in QUESTIONS:
            self.assertNotRegex(question.text, r"TN-|PME|RCD|PEN|Ω")


class Catalogue(unittest.TestCase):
    def test_every_record_that_ships_can_be_fitted(self) -> None:
        records = charge_point_records()
        self.assertGreaterEqual(len(records), 6)
        for record in records:
            with self.subTest(record.id):
                self.assertTrue(record.invented)
                changes = {
                    f"charge_points.0.{name}": value for name, value in record.facts.model_dump(mode="json").items()
                }
                evaluation(changes=changes | {"charge_points.0.record": record.id})

    def test_the_choice_drives_load_rcd_pen_and_gland_rules(self) -> None:
        def rules(identity: str) -> dict[str, str]:
            facts = next(one.facts for one in charge_point_records() if one.id == identity).model_dump(mode="json")
            found = evaluation(changes={f"charge_points.0.{name}": value for name, value in facts.items()})
            return {one.rule: one.verdict.value for one in found.findings} | {"car": str(found.demand.car_a)}

        inside, bare, small = rules("tethered-all-inside"), rules("bare-socket"), rules("small-tethered")
        self.assertEqual(
            (inside["open_pen"], inside["dc_protection"], inside["gland_entry"]), ("meets", "meets", "your_call")
        )
        self.assertEqual((bare["open_pen"], bare["dc_protection"], bare["maker_rcd"]), ("falls_short",) * 3)
        self.assertEqual((small["car"], small["terminals"]), ("16.0", "falls_short"))

    def test_a_users_own_record_names_what_is_wrong(self) -> None:
        good = {"id": "mine", "name": "My unit", "facts": {"max_current_a": 16}}
        self.assertEqual(parse_record(good).facts.max_current_a, 16)
        for wrong, field in [({"facts": {"max_current_a": 5}}, "facts.max_current_a"), ({"id": "Not Good"}, "id"), ({"colour": "red"}, "colour"),
                             ({"facts": {"upstream_rcd": "Z"}}, "facts.upstream_rcd"), ({"facts": {"terminal_max_mm2": 7}}, "facts.terminal_max_mm2")]:  # fmt: skip
            with self.subTest(field), self.assertRaises(JobFileError) as caught:
                parse_record(good | wrong)
            self.assertEqual(caught.exception.problems[0].field, field)
