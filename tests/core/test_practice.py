"""Practice: sets, mishaps, marks. What is a mishap is common practice, no source (dead before live: BS 7671 Part 6)."""

import unittest
from dataclasses import replace

from fulmen.core.errors import InputError
from fulmen.core.findings.finding import Stage
from fulmen.core.model.readings import Outcome, StepKey
from fulmen.core.practice.acts import Act, Connect, Cover, Judge, Name, Sign, Switch, Take, TestClamp, Unlink
from fulmen.core.practice.course import Course, played
from fulmen.core.practice.exercise import Exercise, untested
from fulmen.core.practice.marks import Marks, marked
from fulmen.core.practice.mishaps import MishapKey
from fulmen.core.practice.scene import scene
from fulmen.core.practice.sets import OWN_SIZE, SOUND, hidden, own_faults, practice_sets
from fulmen.core.practice.shown_by import doubts, shown_by
from fulmen.core.simulations.as_built.flow import flow
from fulmen.core.simulations.as_built.set_up import Setup
from fulmen.core.verification.faults.faults import Fault, fault_info, planted_kinds
from fulmen.core.verification.instruments.dials import Link, Point
from tests.core.practised import exercise, step_of, taking, well_done
from tests.jobs import EXAMPLES, FALLS_SHORT, GARAGE, TT, job
from tests.sampling import some

OPEN = [Cover(place=one, off=True) for one in ("board", "unit")]
SHUT = [Cover(place=one, off=False) for one in ("board", "unit")]
ISOLATED, ENERGISE = Sign(step=StepKey.ISOLATED), Sign(step=StepKey.SAFE_TO_ENERGISE)
BLANK = Name(fault=None)


def points(marks: Marks) -> dict[str, int]:
    return {one.title: one.got for one in marks.marks}


class Sets(unittest.TestCase):
    def test_every_exercise_of_every_set_can_be_done(self) -> None:
        """Done as the steps ask, with nothing missed, an exercise gives every point there is. A few of each set are played."""
        for its in practice_sets():
            for what in some(its.faults, 1, its.key):
                with self.subTest(its.key, what=what):
                    whole = exercise(its.key, what)
                    course = played(whole, well_done(whole))
                    self.assertIsNone(course.mishap)
                    if what == SOUND:
                        self.assertEqual([one.rule for one in doubts(course.judged())], [])
                    else:
                        self.assertIn(what, own_faults(whole.job, whole.charge_point))
                        self.assertTrue(doubts(course.judged()) or course.dead_missing())
                    marks = marked(course)
                    self.assertEqual(marks.total, 100, marks)

    def test_there_are_enough_and_they_get_harder(self) -> None:
        kinds = {what for its in practice_sets() for what in its.faults} - {SOUND}
        self.assertEqual(kinds, set(planted_kinds()))
        self.assertEqual([one.grade for one in practice_sets()], sorted(one.grade for one in practice_sets()))

    def test_the_same_acts_give_the_same_course(self) -> None:
        acts = well_done(exercise("garage", "earth_joint"))
        once, again = (played(exercise("garage", "earth_joint"), acts) for _ in range(2))
        self.assertEqual([one.shown for one in once.entries], [one.shown for one in again.entries])

    def test_on_a_job_of_ones_own(self) -> None:
        for name in (GARAGE, TT):
            whole = job(name)
            point = whole.charge_points[0].id
            offered = own_faults(whole, point)
            self.assertIn(SOUND, offered)
            self.assertNotIn("clamp_reversed", offered)
            self.assertEqual("high_ze" in offered, name != TT)

    def test_whatever_is_hidden_in_any_job_shows_in_some_test_of_it(self) -> None:
        """A few of the kinds on each example."""
        for path in sorted(EXAMPLES.glob("*.json")):
            whole = untested(job(path.stem))
            if path.stem == FALLS_SHORT:
                continue
            for point in whole.charge_points:
                for what in some(own_faults(whole, point.id), 1, f"{path.stem} {point.id}"):
                    with self.subTest(path.stem, point=point.id, what=what):
                        found = shown_by(hidden(whole, point.id, what, OWN_SIZE, 5))
                        self.assertEqual(bool(found), what != SOUND, found)

    def test_what_it_was_not_made_for(self) -> None:
        """Crossed twice is right again at the car, and found on the way; a missing earth beside which a thin wire leads
        shows as more than the cable has."""
        whole = exercise("garage")
        crossed = tuple(Fault("line_neutral_crossed", 1.0, one) for one in ("sub-main", "ev"))
        found = shown_by(replace(whole, faults=crossed))
        self.assertEqual(len([one for one in found if one.startswith("Polarity, dead")]), 2)
        wire = (Fault("no_earth", 1.0, "ev"), Fault("parallel_earth", 8.0, "ev"))
        self.assertTrue(any(one.startswith("Continuity, R1+R2") for one in shown_by(replace(whole, faults=wire))))

    def test_no_way_to_test_no_practice(self) -> None:
        bare = job(GARAGE, {"circuits.1.route": []})
        with self.assertRaisesRegex(InputError, "no route yet"):
            own_faults(bare, bare.charge_points[0].id)
        unseen = job(GARAGE, {"supply.earthing": "not_seen"})
        with self.assertRaisesRegex(InputError, "supply.earthing: nobody has said"):
            own_faults(unseen, unseen.charge_points[0].id)
        short = job(FALLS_SHORT)
        with self.assertRaisesRegex(InputError, r"would not hold \(Continuity, R1\+R2"):
            own_faults(short, short.charge_points[0].id)
        with self.assertRaisesRegex(InputError, "no circuit leads"):
            own_faults(job(GARAGE), "attic")


class Mishaps(unittest.TestCase):
    def after(self, acts: list[Act], what: str = SOUND, set_key: str = "plain") -> Course:
        return played(exercise(set_key, what), acts)

    def ends(self, key: MishapKey, acts: list[Act], what: str = SOUND, set_key: str = "plain") -> Course:
        course = self.after(acts, what, set_key)
        self.assertIsNotNone(course.mishap, course.entries[-1])
        assert course.mishap is not None
        self.assertIs(course.mishap.key, key)
        return course

    def test_each(self) -> None:
        whole = exercise()
        r1_r2, ir, ze, zs = (step_of(whole, one) for one in ("r1_r2", "ir_line_neutral", "ze", "zs"))
        self.ends(MishapKey.LIVE_BY_OHMS, [taking(r1_r2)])
        self.ends(MishapKey.LIVE_BY_OHMS, [taking(ir)])
        at_supply = {"1": (Point.SUPPLY_L,), "2": (Point.SUPPLY_N,)}
        open_unit = Cover(place="unit", off=True)
        self.ends(MishapKey.LIVE_BY_OHMS, [ISOLATED, taking(r1_r2, leads=at_supply)])
        self.ends(MishapKey.LIVE_TERMINALS, [Connect(connected=True)])
        self.ends(MishapKey.UNIT_TESTED, [ISOLATED, open_unit, Connect(connected=True), taking(ir)])
        self.ends(MishapKey.EARTH_OFF, [taking(ze)])
        self.ends(MishapKey.NOT_DEAD_TESTED, [ISOLATED, ENERGISE])
        self.ends(MishapKey.NOT_DEAD_TESTED, [ISOLATED, Switch(on=True)])
        self.ends(MishapKey.LIVE_TOO_EARLY, [ISOLATED, open_unit, Connect(connected=True), taking(zs)])

    def dead_tests(self, whole: Exercise) -> list[Act]:
        """The acts of who does it well, up to the last cover put back."""
        acts = well_done(whole)
        return acts[: acts.index(ENERGISE)]

    def test_a_link_left_in_or_a_cover_left_off_at_switching_on(self) -> None:
        whole = exercise()
        dead, r1_r2 = self.dead_tests(whole), taking(step_of(whole, "r1_r2"))
        self.assertTrue(self.after([*dead, ENERGISE]).energised)
        linked = [*dead, *OPEN, r1_r2, *SHUT]
        ended = self.ends(MishapKey.LINK_LEFT_IN, [*linked, ENERGISE])
        assert ended.mishap is not None
        self.assertIn("Charge point on the drive", ended.mishap.told)
        self.assertTrue(self.after([*linked, Unlink(subject="ev"), ENERGISE]).energised)
        # A test without a link takes it out too.
        insulation = taking(step_of(whole, "ir_live_earth"))
        self.assertTrue(self.after([*dead, *OPEN, r1_r2, insulation, *SHUT, ENERGISE]).energised)
        ended = self.ends(MishapKey.COVERS_OFF, [*dead, OPEN[0], ENERGISE])
        assert ended.mishap is not None
        self.assertIn("Cover of", ended.mishap.told)

    def test_off_and_on_again_is_switching_on_too(self) -> None:
        on = [*self.dead_tests(exercise()), ENERGISE, Switch(on=False), Cover(place="board", off=True)]
        self.ends(MishapKey.COVERS_OFF, [*on, Switch(on=True)])
        self.assertIsNone(self.after([*on, Cover(place="board", off=False), Switch(on=True)]).mishap)

    def test_nobody_walks_away_from_open_live_parts_or_reaches_into_them(self) -> None:
        whole = exercise()
        on, off = [*self.dead_tests(whole), ENERGISE], Cover(place="board", off=True)
        self.ends(MishapKey.COVER_LEFT_OFF, [*on, off, taking(step_of(whole, "zs"))])
        self.assertIsNone(self.after([*on, off, taking(step_of(whole, "fault_current_earth"))]).mishap)
        self.ends(MishapKey.LIVE_TERMINALS, [*on, Unlink(subject="ev")])
        self.ends(MishapKey.LIVE_TERMINALS, [*on, Connect(connected=False)])

    def test_what_is_closed_shows_nothing_and_hurts_nobody(self) -> None:
        whole = exercise()
        shown = self.after([ISOLATED, taking(step_of(whole, "r1_r2"))]).entries[-1].shown
        assert shown is not None
        self.assertEqual((shown.outcome, "take it off first" in shown.words), (Outcome.COULD_NOT_TEST, True))
        self.assertFalse(self.after([ISOLATED, Connect(connected=True)]).connected)
        with self.assertRaisesRegex(InputError, "act.place: there is no cover"):
            self.after([Cover(place="attic", off=True)])

    def test_what_is_not_one(self) -> None:
        whole = exercise()
        ir, earth = step_of(whole, "ir_live_earth"), step_of(whole, "ir_line_neutral")
        for acts in (
            [ISOLATED, *OPEN, Connect(connected=True), taking(ir)],
            [ISOLATED, taking(earth)],
            # Off, and never on again.
            [Switch(on=False)],
            # A loop tester on a dead circuit shows nothing.
            [ISOLATED, taking(step_of(whole, "r1_r2"), dial="loop_no_trip")],
            # Ze itself needs no more than the main switch off.
            [ISOLATED, taking(step_of(whole, "ze"))],
        ):
            with self.subTest(acts=[one.kind for one in acts]):
                self.assertIsNone(self.after(acts).mishap)

    def test_on_tt_the_electrode_is_the_earth_that_is_off(self) -> None:
        whole = job(TT)
        own = hidden(whole.model_copy(update={"readings": ()}), whole.charge_points[0].id, SOUND, 0, 1)
        course = played(own, [taking(step_of(own, "electrode"))])
        assert course.mishap is not None
        self.assertIs(course.mishap.key, MishapKey.EARTH_OFF)

    def test_a_failed_dead_test_holds_it_back_and_what_would_have_happened_is_told(self) -> None:
        whole = exercise("plain", "no_earth")
        dead = [one for one in well_done(whole) if isinstance(one, Take)]
        course = self.ends(MishapKey.NOT_DEAD_TESTED, [ISOLATED, *OPEN, *dead, ENERGISE], "no_earth")
        assert course.mishap is not None
        self.assertIn("no earth", course.mishap.then)
        nicked = exercise("plain", "damaged_cable")
        dead = [one for one in well_done(nicked) if isinstance(one, Take)]
        self.ends(MishapKey.DEAD_TESTS_FAILED, [ISOLATED, *OPEN, *dead, *SHUT, ENERGISE], "damaged_cable")

    def test_a_figure_that_was_taken_wrongly_does_not_count(self) -> None:
        whole = exercise()
        taken = [one for one in well_done(whole) if isinstance(one, Take) and one.step is not StepKey.R2]
        dead = [one for one in taken if whole.steps[one.step, one.subject].stage is Stage.DEAD]
        unlinked = [one.model_copy(update={"linked": Link.NONE}) if one.step is StepKey.R1_R2 else one for one in dead]
        course = self.ends(MishapKey.NOT_DEAD_TESTED, [ISOLATED, *OPEN, *unlinked, ENERGISE])
        assert course.mishap is not None
        self.assertIn("R1+R2", course.mishap.told)
        self.assertTrue(self.after([ISOLATED, *OPEN, *dead, *SHUT, ENERGISE]).energised)

    def test_nothing_comes_after_the_end(self) -> None:
        with self.assertRaisesRegex(InputError, "act: .*has ended"):
            self.after([ISOLATED, ENERGISE, Switch(on=False)])


class Placed(unittest.TestCase):
    def test_the_jacks_may_come_in_any_order(self) -> None:
        """JSON sorts its keys: which lead is which hangs on its name."""
        whole = exercise()
        for key in ("r1_r2", "ze"):
            act = taking(step_of(whole, key))
            turned = act.model_copy(update={"leads": dict(reversed(act.leads.items()))})
            once, again = (played(whole, [ISOLATED, *OPEN, one]).entries[-1] for one in (act, turned))
            self.assertEqual((once.shown, once.rightly), (again.shown, True))


class Refused(unittest.TestCase):
    def test_each_bad_act_names_its_field(self) -> None:
        whole = exercise()
        r1_r2 = step_of(whole, "r1_r2")
        for act, field in (
            (taking(r1_r2, dial="guess"), "act.dial"),
            (taking(r1_r2).model_copy(update={"subject": "attic"}), "act.step"),
            (Take(step=StepKey.ISOLATED, subject="origin", dial="volts", leads={}), "act.step"),
            (Judge(step=StepKey.ZS, subject="ev", right=True), "act.step"),
            (Name(fault="no_earth", place="attic"), "act.place"),
            (TestClamp(), "act.kind"),
            (Unlink(subject="attic"), "act.subject"),
            (Cover(place="attic", off=True), "act.place"),
            (Name(fault="gremlins", place="cable:ev"), "act.fault"),
        ):
            with self.subTest(act=act), self.assertRaises(InputError) as raised:
                played(whole, [ISOLATED, act])
            self.assertEqual(raised.exception.field, field)


class Display(unittest.TestCase):
    def test_nothing_shows_of_what_is_off_or_not_connected(self) -> None:
        whole = exercise()
        acts = well_done(whole)
        on = next(at for at, one in enumerate(acts) if one == ENERGISE)
        zs, off, unit = taking(step_of(whole, "zs")), Switch(on=False), Connect(connected=False)
        cover, back = (Cover(place="unit", off=one) for one in (True, False))
        for before, told in (
            ([off, cover, unit, back, Switch(on=True)], "not connected"),
            ([off], "main switch is off"),
        ):
            shown = played(whole, [*acts[: on + 1], *before, zs]).entries[-1].shown
            assert shown is not None
            self.assertIs(shown.outcome, Outcome.COULD_NOT_TEST)
            self.assertIn(told, shown.words)

    def test_leads_that_warm_up_are_seen_when_they_are_joined_again(self) -> None:
        whole = exercise("quiet", "leads_not_nulled")
        nulled, r1_r2 = taking(step_of(whole, "leads_nulled")), taking(step_of(whole, "r1_r2"))
        cold, warm = (
            played(whole, acts).entries[-1].shown for acts in ([ISOLATED, nulled], [ISOLATED, *OPEN, r1_r2, nulled])
        )
        assert cold is not None and warm is not None
        self.assertEqual((cold.outcome, warm.outcome), (Outcome.RIGHT, Outcome.WRONG))
        self.assertIn("0.10", warm.words)

    def test_what_flows_where(self) -> None:
        whole = exercise("garage")
        for key, subject, wires in (
            ("r1_r2", "ev", {"ev.L", "ev.link", "ev.E"}),
            ("zs", "ev", {"supply.L", "tails.L", "sub-main.L", "ev.L", "plug.L", "plug.E", "ev.E", "sub-main.E", "earthing",
                          "supply.E", "supply.N"}),
            ("ze", "origin", {"supply.L", "supply.E", "supply.N"}),
            ("ir_live_earth", "ev", set()),
        ):  # fmt: skip
            step = step_of(whole, key, subject)
            found = flow(whole.sound, step, Setup.of(step))
            with self.subTest(key):
                self.assertEqual({one.wire for one in found}, wires)
                self.assertTrue(all(one.share > 0.99 for one in found))

    def test_a_path_beside_takes_its_share(self) -> None:
        whole = exercise("against", "parallel_earth")
        step = step_of(whole, "zs", "ev")
        shares = {one.wire: one.share for one in flow(whole.house, step, Setup.of(step))}
        self.assertAlmostEqual(shares["beside"] + shares["ev.E"], 1.0, delta=0.01)

    def test_every_lead_of_every_step_has_a_terminal_to_go_to(self) -> None:
        for its in practice_sets():
            whole = exercise(its.key)
            drawn = scene(whole)
            places, last = {one.key for one in drawn.places}, drawn.cables[-1].circuit
            for step in whole.steps.values():
                offered = drawn.terminals.get(step.circuit, drawn.terminals[last])
                with self.subTest(its.key, step=step.step):
                    self.assertLessEqual({at for lead in step.leads for at in lead.at}, {one.point for one in offered})
                    self.assertLessEqual({one.place for one in offered}, places)
                    self.assertEqual(len({one.words for one in offered}), len(offered))


class Marked(unittest.TestCase):
    def marks(self, acts: list[Act], what: str = SOUND) -> dict[str, int]:
        return points(marked(played(exercise("plain", what), acts)))

    def test_guessing_at_once_gives_nothing(self) -> None:
        for what, named in (
            ("no_earth", Name(fault="no_earth", place="cable:ev")),
            ("no_earth", BLANK),
            (SOUND, BLANK),
        ):
            with self.subTest(what=what, named=named.fault):
                self.assertEqual(sum(self.marks([named], what).values()), 0)

    def test_what_was_never_tested_is_not_sound(self) -> None:
        """Every test but one, and nothing wrong: neither complete nor called sound; with it, both."""
        acts = well_done(exercise("plain"))
        without = [one for one in acts if not (isinstance(one, Take | Judge) and one.step is StepKey.RCD_TRIP)]
        (most, less) = (self.marks(one) for one in (acts, without))
        self.assertEqual((most["Complete"], most["Fault"], most["Place"]), (15, 20, 10))
        self.assertLess(less["Complete"], 15)
        self.assertEqual((less["Fault"], less["Place"]), (0, 0))

    def test_the_right_fault_elsewhere(self) -> None:
        proof = [ISOLATED, *OPEN, taking(step_of(exercise("plain", "no_earth"), "r1_r2"))]
        found = self.marks([*proof, Name(fault="no_earth", place="supply")], "no_earth")
        self.assertEqual((found["Fault"], found["Place"]), (20, 0))

    def test_a_mishap_takes_its_hold_and_the_fault(self) -> None:
        found = self.marks([ISOLATED, ENERGISE], "no_earth")
        self.assertEqual(
            (found["Hold: isolated"], found["Hold: fit to energise"], found["Fault"], found["Place"]), (10, 0, 0, 0)
        )

    def test_tests_out_of_their_turn(self) -> None:
        whole = exercise()
        ir, r1_r2 = taking(step_of(whole, "ir_live_earth")), taking(step_of(whole, "r1_r2"))
        self.assertEqual(self.marks([ISOLATED, *OPEN, r1_r2, ir, BLANK])["Order"], 15)
        self.assertEqual(self.marks([ISOLATED, *OPEN, ir, r1_r2, BLANK])["Order"], 8)

    def test_a_lead_before_the_hold(self) -> None:
        bond = taking(step_of(exercise(), "main_bonding"))
        self.assertEqual(self.marks([OPEN[0], bond, ISOLATED, BLANK])["Hold: isolated"], 0)

    def test_readings_by_how_they_were_taken_and_judged(self) -> None:
        step = step_of(exercise(), "r1_r2")
        take, wrong = taking(step), taking(step, linked=Link.NONE)
        right, not_right = (Judge(step=step.step, subject=step.subject, right=one) for one in (True, False))
        for acts, got in (([take, right], 20), ([take, not_right], 10), ([take], 10), ([wrong, right], 0)):
            whole: list[Act] = [ISOLATED, *OPEN, *acts, BLANK]
            with self.subTest(acts=len(acts), got=got):
                self.assertEqual(self.marks(whole)["Readings"], got)

    def test_the_explanation_says_what_shows_it(self) -> None:
        for what in ("high_ze", "rcd_dead"):
            (told,) = marked(played(exercise("plain", what), [BLANK])).explained
            info = fault_info(what)
            self.assertEqual((told.words, told.tells, told.why), (info.words, info.tells, info.why))
            self.assertTrue(told.shown_by)


if __name__ == "__main__":
    unittest.main()
