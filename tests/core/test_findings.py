"""Findings, workings, runs, sentences, rule sets: the small parts everything else is made of."""

import unittest
from dataclasses import fields
from functools import cache
from typing import Any

from pydantic import TypeAdapter

from fulmen.core.errors import InputError, JobFileError
from fulmen.core.field_messages import place
from fulmen.core.findings.finding import Finding, Stage, Verdict, WorkingLine
from fulmen.core.findings.question import ask
from fulmen.core.findings.rules.run import VOLT_DROP
from fulmen.core.findings.words import WORDS, verdict_words, word
from fulmen.core.installation.installation import installation_of
from fulmen.core.model.arrangement import CarEarth
from fulmen.core.reference.rule_set import rule_set
from fulmen.core.units import unit_of, words_of
from tests.jobs import DEVICE_IN_UNIT, EXAMPLES, TT, evaluation, in_front, job, mark


def finding(value: float, limit: float, **more: Any) -> Finding:
    return ask(VOLT_DROP, rule_set(), "s").judged(value=value, limit=limit, **{"unit": "A", **more})


class Judged(unittest.TestCase):
    def test_below_at_and_above(self) -> None:
        for value, at_most, at_least in (
            (9.99, "meets", "falls_short"),
            (10, "meets", "meets"),
            (10.01, "falls_short", "meets"),
        ):
            with self.subTest(value):
                self.assertEqual(finding(value, 10).verdict, at_most)
                self.assertEqual(finding(value, 10, at_least=True).verdict, at_least)

    def test_a_rounding_error_is_no_failure(self) -> None:
        self.assertEqual(finding(0.1 + 0.2, 0.3).verdict, Verdict.MEETS)

    def test_a_figure_just_past_its_limit_reads_as_past_it(self) -> None:
        for value, told in ((69.6, "70 °C, at most 70"), (70.0, "70 °C, at most 70"), (70.04, "70.04 °C, at most 70.00"),
                            (70.4, "70.4 °C, at most 70.0"), (71.2, "71 °C, at most 70")):  # fmt: skip
            found = finding(value, 70.0, unit="°C", decimals=0)
            self.assertEqual(found.figures(), told)

    def test_margin_is_the_share_left_over(self) -> None:
        self.assertAlmostEqual(finding(4, 5).margin or 0, 0.2)
        self.assertAlmostEqual(finding(6, 5).margin or 0, -0.2)
        self.assertAlmostEqual(finding(47, 40, at_least=True).margin or 0, 0.175)

    def test_the_mend_is_kept_only_where_it_is_needed(self) -> None:
        self.assertEqual(finding(4, 5, remedy="Do it.").remedy, "")
        self.assertEqual(finding(6, 5, remedy="Do it.").remedy, "Do it.")

    def test_figures_read_as_text(self) -> None:
        self.assertEqual(finding(4, 5).figures(), "4.00 A, at most 5.00")
        self.assertEqual(finding(47, 40, at_least=True, decimals=0).figures(), "47 A, at least 40")

    def test_open_until_met_or_decided(self) -> None:
        self.assertFalse(finding(4, 5).is_open)
        self.assertTrue(finding(6, 5).is_open)
        self.assertTrue(finding(6, 5, otherwise=Verdict.YOUR_CALL).is_open)

    def test_words_of_what_is_waited_for(self) -> None:
        self.assertEqual(verdict_words(finding(6, 5, otherwise=Verdict.NEEDS)), "Needs a fact")
        self.assertEqual(verdict_words(finding(6, 5, otherwise=Verdict.NEEDS, waits_for="reading")), "Needs a reading")


class Workings(unittest.TestCase):
    def test_a_line_without_formula_or_value(self) -> None:
        self.assertEqual(WorkingLine(symbol="k", value=115, decimals=0, source="Table").text(), "k = 115   [Table]")
        self.assertEqual(WorkingLine(symbol="expected", figures="1 to 2").text(), "expected = 1 to 2")

    def test_the_working_ends_with_the_value_that_is_judged(self) -> None:
        findings = {one.rule: one for one in evaluation(DEVICE_IN_UNIT).findings}
        for rule in ("volt_drop", "weakest_section", "terminal_temperature", "breaking_capacity"):
            with self.subTest(rule):
                self.assertEqual(findings[rule].working[-1].value, findings[rule].value)

    def test_stages_are_named(self) -> None:
        self.assertEqual([word(stage) for stage in Stage], ["Survey", "Design", "Dead tests", "Live tests"])


class Words(unittest.TestCase):
    def test_every_value_of_every_choice_has_words(self) -> None:
        for kind, words in WORDS.items():
            self.assertEqual(set(words), set(kind), kind.__name__)

    def test_the_same_value_may_mean_two_things(self) -> None:
        self.assertEqual(word(CarEarth.HOUSE_EARTH), "the house earth")
        by_name = {kind.__name__: words for kind, words in WORDS.items()}
        self.assertEqual((by_name["OpenPenMeasure"]["none"], by_name["RdcDdPlace"]["none"]), ("nothing", "nowhere"))

    def test_units_and_words_of_names(self) -> None:
        for name, unit, words in (("length_m", "m", "length"), ("soil_km_per_w", "K·m/W", "soil"), ("csa_mm2", "mm²", "csa"),
                                  ("insulation_mohm", "MΩ", "insulation"), ("title", "", "title")):  # fmt: skip
            with self.subTest(name):
                self.assertEqual((unit_of(name), words_of(name)), (unit, words))

    def test_places_as_a_person_says_them(self) -> None:
        self.assertEqual(place(()), "The job file")
        self.assertEqual(place(("boards", 0, "incomer", 0, "rating_a")), "Board 1, guard 1: rating")
        self.assertEqual(place(("supply", "bonded_services", 1)), "Bonded service 2")


class RuleSets(unittest.TestCase):
    def test_every_limit_has_unit_and_clause(self) -> None:
        for name, limit in rule_set().limits.items():
            with self.subTest(name):
                self.assertTrue(limit.unit and limit.clause)

    def test_a_clause_names_its_publication_and_a_practice_stands_alone(self) -> None:
        self.assertEqual(rule_set().clause("touch_voltage_v"), "BS 7671 411.5.3")
        self.assertEqual(rule_set().clause("insulation_worry_mohm"), "common practice, no source")


class Runs(unittest.TestCase):
    def test_a_run_is_the_path_from_the_origin(self) -> None:
        run = installation_of(job()).runs[0]
        self.assertEqual([link.circuit.id for link in run.chain], ["ev"])
        self.assertEqual(run.final().board.id, "board")

    def test_an_unfed_charge_point_has_an_empty_run(self) -> None:
        found = evaluation(DEVICE_IN_UNIT, {"circuits": [], "readings": []})
        self.assertEqual((found.profiles, found.sentences, found.steps), ((), (), ()))
        self.assertIn("route", [one.rule for one in found.findings if one.is_open])

    def test_errors_read_as_sentences(self) -> None:
        error = JobFileError([InputError("a.b", "It is wrong."), InputError("c", "So is this.")])
        self.assertEqual(str(error), "a.b: It is wrong.")
        self.assertEqual(str(InputError("", "It is wrong.")), "It is wrong.")


class Sentences(unittest.TestCase):
    def sentence(self, name: str = DEVICE_IN_UNIT, **changes: Any) -> str:
        return "".join(part.text for part in evaluation(name, changes).sentences[0].parts)

    def test_it_follows_the_arrangement(self) -> None:
        self.assertIn("The supply is TT, so the car is earthed through the house electrode.", self.sentence(TT))
        own = self.sentence(**{"charge_points.0.arrangement.car_earth": "own_electrode"})
        self.assertIn("its own electrode (TT island), apart from the house earth.", own)
        bare = {"circuits.0.device.rcd": None}
        self.assertIn("with no RCD", self.sentence(**bare))
        inside = {"charge_points.0.rcd_inside": mark("A")}
        self.assertIn("with only the RCD in the unit", self.sentence(**bare, **inside))
        front = {"boards.0.incomer": in_front(mark("A"))}
        self.assertIn("with the Type A 30 mA RCCB in front, Consumer unit", self.sentence(**bare, **front))
        self.assertIn("neutral not switched", self.sentence(**{"circuits.0.device.rcd.switches_neutral": False}))

    def test_one_section_is_one(self) -> None:
        route = [one.model_dump(mode="json") for one in job().circuits[0].route][:1]
        self.assertIn("along 1 section, 4.2 m.", self.sentence(**{"circuits.0.route": route}))


@cache
def checker(kind: type[Any]) -> TypeAdapter[Any]:
    """What checks a kind of thing field by field: made once."""
    return TypeAdapter(kind)


class Made(unittest.TestCase):
    """What the core makes without checking it again would pass the check, field by field."""

    def test_every_finding_and_step_of_the_examples(self) -> None:
        for path in sorted(EXAMPLES.glob("*.json")):
            found = evaluation(path.stem)
            for one in (*found.findings, *found.steps):
                told = {each.name: getattr(one, each.name) for each in fields(one)}
                with self.subTest(path=path.stem, one=one.title):
                    again = checker(type(one)).validate_python(told)
                    self.assertEqual(again, one)
                    self.assertEqual(checker(type(one)).dump_json(again), checker(type(one)).dump_json(one))

    def test_what_may_be_left_out_has_its_default(self) -> None:
        self.assertEqual(WorkingLine(symbol="x"), WorkingLine(symbol="x"))
