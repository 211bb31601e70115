"""The verbs of the survey: photos, the householder's link, letters, the stand-in desk, own charge points."""

from datetime import date, timedelta

from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError

from fulmen.core.errors import InputError
from fulmen.core.model.letters import Letter, LetterFacts, LetterKind
from fulmen.core.model.stops import Stop
from fulmen.core.network_operator.form import operator_form
from fulmen.core.network_operator.notification import OperatorState
from fulmen.core.reference.charge_point_catalogue import charge_point_records, parse_record
from fulmen.core.reference.rule_set import rule_set
from fulmen.photos import make_photo
from fulmen.simulators.operator_desk import desk_answers, sent_letter
from fulmen.store import desk, links, operations, photos
from fulmen.store.charge_points import keep_record, own_records, remove_record
from fulmen.store.errors import AppendOnly, Conflict, InUse, LinkGone, NotFound, TooMany
from fulmen.store.tables import SurveyLinkRow
from tests.app import NOW, AppCase
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, HALFWAY, job
from tests.photos import picture

PHOTO = make_photo(picture(size=(60, 40)))
CUT_OUT = photos.Place(Stop.CUT_OUT)
WEEK = timedelta(days=7)


class Photos(AppCase):
    def test_kept_shown_and_removed(self) -> None:
        stored = self.store(HALFWAY)
        row = photos.add_photo(self.sessions, stored.id, PHOTO, CUT_OUT, NOW)
        self.assertEqual(photos.load_photo(self.sessions, row.id).jpeg, PHOTO.jpeg)
        self.assertEqual([one.stop for one in photos.list_photos(self.sessions, stored.id)], ["cut_out"])
        photos.remove_photo(self.sessions, stored.id, row.id, NOW)
        self.assertEqual(photos.list_photos(self.sessions, stored.id), [])

    def test_a_photo_belongs_to_its_job(self) -> None:
        mine, other = self.store(HALFWAY), self.store(DEVICE_IN_UNIT)
        row = photos.add_photo(self.sessions, mine.id, PHOTO, CUT_OUT, NOW)
        with self.assertRaises(NotFound):
            photos.remove_photo(self.sessions, other.id, row.id, NOW)
        with self.assertRaises(NotFound):
            photos.add_photo(self.sessions, 99, PHOTO, CUT_OUT, NOW)

    def test_what_the_job_rests_on_stays(self) -> None:
        stored = self.store(HALFWAY, {"supply.tns_confirmation": PHOTO.sha256()})
        row = photos.add_photo(self.sessions, stored.id, PHOTO, CUT_OUT, NOW)
        with self.assertRaises(InUse):
            photos.remove_photo(self.sessions, stored.id, row.id, NOW)

    def test_the_photo_of_a_reading_stays(self) -> None:
        reading = {**job(HALFWAY).readings[-1].model_dump(mode="json"), "photo": PHOTO.sha256()}
        stored = self.store(HALFWAY, {"readings": [reading]})
        row = photos.add_photo(self.sessions, stored.id, PHOTO, CUT_OUT, NOW)
        with self.assertRaises(InUse):
            photos.remove_photo(self.sessions, stored.id, row.id, NOW)

    def test_a_job_holds_so_many_and_no_more(self) -> None:
        stored = self.store(HALFWAY)
        with self.sessions() as session, session.begin():
            for _ in range(photos.MOST_PER_JOB):
                photos.insert_photo(session, stored.id, PHOTO, CUT_OUT, NOW)
        with self.assertRaises(TooMany):
            photos.add_photo(self.sessions, stored.id, PHOTO, CUT_OUT, NOW)


class Links(AppCase):
    def setUp(self) -> None:
        super().setUp()
        self.job = self.store(HALFWAY)
        self.link, self.secret = links.make_link(self.sessions, self.job.id, "R. Quillfeather", 7, NOW)

    def answer_id(self, question: str) -> int:
        state = links.list_links(self.sessions, self.job.id)[0]
        return next(one.id for one in state.answers if one.question == question)

    def test_the_secret_is_long_and_only_its_hash_is_kept(self) -> None:
        self.assertGreaterEqual(len(self.secret), 43)
        with self.sessions() as session:
            row = session.scalars(select(SurveyLinkRow)).one()
            everything = "".join(
                str(session.execute(text(f"SELECT * FROM {table}")).all()) for table in ("survey_link", "audit")
            )
        self.assertNotIn(self.secret, everything)
        self.assertEqual(len(row.secret_sha256), 64)
        self.assertNotEqual(links.make_link(self.sessions, self.job.id, "R. Q.", 7, NOW)[1], self.secret)

    def test_it_works_until_the_moment_it_expires(self) -> None:
        links.open_link(self.sessions, self.secret, NOW + WEEK - timedelta(seconds=1))
        for ask in (
            lambda: links.open_link(self.sessions, self.secret, NOW + WEEK),
            lambda: links.give_answer(self.sessions, self.secret, "own_land", "yes", NOW + WEEK),
            lambda: links.give_photo(self.sessions, self.secret, "photo_way", PHOTO, NOW + WEEK),
        ):
            with self.assertRaisesRegex(LinkGone, "has run out"):
                ask()
        with self.assertRaises(NotFound):
            links.open_link(self.sessions, "x" * 43, NOW)

    def test_withdrawn_it_ends_at_once_and_what_came_stays(self) -> None:
        links.give_answer(self.sessions, self.secret, "own_land", "yes", NOW)
        links.withdraw_link(self.sessions, self.job.id, self.link.id, NOW)
        with self.assertRaisesRegex(LinkGone, "was withdrawn"):
            links.open_link(self.sessions, self.secret, NOW)
        self.assertEqual(len(links.list_links(self.sessions, self.job.id)[0].answers), 1)
        with self.assertRaises(NotFound):
            links.withdraw_link(self.sessions, self.job.id + 1, self.link.id, NOW)

    def test_an_answer_waits_until_it_is_accepted(self) -> None:
        links.give_answer(self.sessions, self.secret, "supply_number", "S 1", NOW)
        links.give_answer(self.sessions, self.secret, "supply_number", "S 22", NOW)
        self.assertNotEqual(operations.load_job(self.sessions, self.job.id).job.supply.supply_number, "S 22")
        with self.assertRaises(Conflict):
            links.accept_answer(self.sessions, self.job.id, self.answer_id("supply_number"), 9, NOW)
        stored = links.accept_answer(self.sessions, self.job.id, self.answer_id("supply_number"), 1, NOW)
        self.assertEqual((stored.version, stored.job.supply.supply_number), (2, "S 22"))

    def test_asked_again_until_a_new_answer_comes(self) -> None:
        links.give_photo(self.sessions, self.secret, "photo_cable", PHOTO, NOW)
        links.ask_again(self.sessions, self.job.id, self.answer_id("photo_cable"), "Closer, please", NOW)
        answer = links.open_link(self.sessions, self.secret, NOW).answers[0]
        self.assertEqual((answer.state, answer.note), (links.ASKED_AGAIN, "Closer, please"))
        links.give_photo(self.sessions, self.secret, "photo_cable", PHOTO, NOW)
        state = links.open_link(self.sessions, self.secret, NOW)
        self.assertEqual((state.answers[0].state, state.answers[0].note, len(state.photos)), (links.ARRIVED, "", 2))

    def test_bad_answers_are_refused_and_nothing_is_kept(self) -> None:
        for question, value in (("own_land", "perhaps"), ("battery", 9e9), ("photo_way", "x"), ("no_such", "x")):
            with self.subTest(question), self.assertRaises(InputError):
                links.give_answer(self.sessions, self.secret, question, value, NOW)
        with self.assertRaises(InputError):
            links.give_photo(self.sessions, self.secret, "own_land", PHOTO, NOW)
        self.assertEqual(links.open_link(self.sessions, self.secret, NOW).answers, [])

    def test_a_link_takes_so_many_photos_and_no_more(self) -> None:
        for _ in range(photos.MOST_PER_LINK):
            links.give_photo(self.sessions, self.secret, "photo_way", PHOTO, NOW)
        with self.assertRaisesRegex(TooMany, "at most 40"):
            links.give_photo(self.sessions, self.secret, "photo_way", PHOTO, NOW)

    def test_another_links_photo_is_not_shown(self) -> None:
        photo = links.give_photo(self.sessions, self.secret, "photo_way", PHOTO, NOW).photos[0]
        other, _ = links.make_link(self.sessions, self.job.id, "R. Q.", 7, NOW)
        with self.assertRaises(NotFound):
            photos.load_photo(self.sessions, photo.id, other.id)


class Letters(AppCase):
    LETTER = Letter(kind=LetterKind.ACCEPTED, dated=NOW.date(), about=LetterFacts(demand_a=74, car_a=32))

    def test_only_ever_added(self) -> None:
        stored = self.store(HALFWAY)
        kept = operations.add_letters(self.sessions, stored.id, (self.LETTER,), NOW)
        self.assertEqual(kept.job.letters, (self.LETTER,))
        for letters in ((self.LETTER, self.LETTER), (self.LETTER.model_copy(update={"text": "more"}),)):
            with self.assertRaises(AppendOnly) as caught:
                operations.save_job(
                    self.sessions, stored.id, 1, stored.job.model_copy(update={"letters": letters}), NOW
                )
            self.assertEqual(caught.exception.field, "letters")
        saved = operations.save_job(self.sessions, stored.id, 1, stored.job, NOW)
        self.assertEqual(saved.job.letters, (self.LETTER,))
        for statement in ("DELETE FROM letter", "UPDATE letter SET job_id = 1"):
            with self.assertRaises(IntegrityError), self.sessions() as session, session.begin():
                session.execute(text(statement))


class Desk(AppCase):
    """The stand-in desk with its own calendar; what it says never counts as an operator's word."""

    def hand_in(self, name: str, changes: dict[str, object]) -> operations.StoredJob:
        stored = self.store(name, changes)
        form = operator_form(stored.job, rule_set(), (Stop.CUT_OUT,))
        answers = desk_answers(form, NOW.date())
        return desk.open_case(
            self.sessions, stored.id, form.model_dump(mode="json"), sent_letter(form, NOW.date()), answers, NOW
        )

    def test_letters_arrive_on_their_simulated_days_and_no_sooner(self) -> None:
        stored = self.hand_in(AT_SURVEY, {"supply.supply_number": "S 1"})
        self.assertEqual(stored.evaluation.operator.state, OperatorState.WAITING)
        early = desk.pass_days(self.sessions, stored.id, 7, NOW)
        self.assertEqual([one.kind for one in early.job.letters], [LetterKind.APPLICATION])
        booked = desk.pass_days(self.sessions, stored.id, 1, NOW)
        self.assertEqual(
            (booked.evaluation.operator.state, booked.evaluation.operator.hold), (OperatorState.BOOKED, True)
        )
        self.assertEqual(booked.job.letters[-1].booked_on, NOW.date() + timedelta(days=29))
        done = desk.pass_days(self.sessions, stored.id, 21, NOW)
        self.assertEqual(done.job.letters[-1].kind, LetterKind.WORK_DONE)
        self.assertTrue(all(one.stand_in for one in done.job.letters))
        self.assertEqual(next(one.verdict.value for one in done.evaluation.findings if one.rule == "operator"), "needs")
        self.assertEqual(desk.pass_days(self.sessions, stored.id, 60, NOW).job.letters, done.job.letters)

    def test_each_answer_the_desk_knows(self) -> None:
        whole = {"supply.supply_number": "S 1", "letters": [], "defects": []}
        cases = [
            ({}, LetterKind.ACCEPTED), ({"supply.supply_number": ""}, LetterKind.MORE_WANTED), ({"supply.looped": "yes"}, LetterKind.UNLOOPING_BOOKED),
            ({"supply.looped": "not_seen"}, LetterKind.MORE_WANTED), ({"supply.cut_out_condition": "old"}, LetterKind.FUSE_UPGRADE_BOOKED),
            ({"supply.maximum_demand_a": 80.0}, LetterKind.ACCEPTED), ({"supply.maximum_demand_a": 81.0}, LetterKind.FUSE_UPGRADE_BOOKED),
            ({"supply.maximum_demand_a": 130.0, "supply.cut_out_fuse_a": 100}, LetterKind.MORE_WANTED),
        ]  # fmt: skip
        for changes, kind in cases:
            with self.subTest(changes):
                stored = self.hand_in(DEVICE_IN_UNIT, whole | {"supply.load_limit_a": None} | changes)
                self.assertEqual(desk.pass_days(self.sessions, stored.id, 8, NOW).job.letters[1].kind, kind)

    def test_a_new_form_ends_the_older_case(self) -> None:
        stored = self.hand_in(AT_SURVEY, {"supply.supply_number": "S 1"})
        form = operator_form(stored.job, rule_set(), (Stop.CUT_OUT,))
        desk.open_case(self.sessions, stored.id, {}, sent_letter(form, NOW.date()), (), NOW)
        self.assertEqual(len(desk.pass_days(self.sessions, stored.id, 60, NOW).job.letters), 2)
        case = desk.newest_case(self.sessions, stored.id)
        assert case is not None
        self.assertEqual(case.today, date(2027, 1, 23))

    def test_nothing_handed_in(self) -> None:
        with self.assertRaises(NotFound):
            desk.pass_days(self.sessions, self.store(HALFWAY).id, 1, NOW)


class OwnChargePoints(AppCase):
    def test_kept_replaced_and_removed(self) -> None:
        mine = {"id": "mine", "name": "My unit", "facts": {"max_current_a": 16}}
        keep_record(self.sessions, parse_record(mine), NOW)
        keep_record(self.sessions, parse_record(mine | {"name": "My unit, newer"}), NOW)
        self.assertEqual([one.name for one in own_records(self.sessions)], ["My unit, newer"])
        remove_record(self.sessions, "mine", NOW)
        self.assertEqual(own_records(self.sessions), [])
        with self.assertRaises(NotFound):
            remove_record(self.sessions, "mine", NOW)

    def test_what_ships_is_not_replaced(self) -> None:
        with self.assertRaises(InputError) as caught:
            keep_record(self.sessions, charge_point_records()[0], NOW)
        self.assertEqual(caught.exception.field, "id")
