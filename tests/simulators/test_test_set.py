"""The simulated test set over its line protocol, in files, on the command line, and taken by the app; each fault of the line told."""

import csv
import io
import json
import socket
import socketserver
import threading
from contextlib import closing
from dataclasses import replace
from typing import Any

from fulmen.core.model.readings import Outcome
from fulmen.core.verification.faults.faults import Fault
from fulmen.simulators.test_set import House, TestSetServer, answer
from fulmen.simulators.test_set_client import TestSetError, ask
from fulmen.simulators.test_set_files import COLUMNS, fault_named, written_csv, written_json
from fulmen.web.app import create_app
from tests.app import AppCase
from tests.jobs import AT_SURVEY, DEVICE_IN_UNIT, GARAGE, job

FRESH = {"readings": []}


def house(fault: str = "", seed: int = 3) -> House:
    whole = job(DEVICE_IN_UNIT, FRESH)
    return House(whole, (fault_named(fault, whole),) if fault else (), seed)


def asked(question: str, built: House | None = None) -> str:
    return answer(question, lambda number: (built or house()) if number == "0" else None)


class Line(socketserver.StreamRequestHandler):
    """A line that answers every question with the next of some texts, or goes."""

    texts: tuple[str | None, ...] = ()

    def handle(self) -> None:
        for text in self.texts:
            if not self.rfile.readline() or text is None:
                return
            self.wfile.write(text.encode())


class Protocol(AppCase):
    def serve(self, *texts: str | None) -> int:
        """Something else than a test set at a free port."""
        kind = type("Odd", (Line,), {"texts": texts})
        server = socketserver.TCPServer(("127.0.0.1", 0), kind)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        return int(server.server_address[1])

    def test_questions_and_answers(self) -> None:
        self.assertEqual(asked("HELLO"), "FULMEN-TEST-SET 1 Simulated test set")
        self.assertRegex(asked("READ 0 r1_r2 ev"), r"^VALUE r1_r2 ev measured 0\.\d+ Ω -$")
        self.assertRegex(asked("READ 0 ir_live_earth ev"), r"^VALUE ir_live_earth ev over_range 999 MΩ 500$")
        self.assertEqual(asked("READ 0 polarity_dead ev"), "VALUE polarity_dead ev right - - -")
        for wrong in (
            "",
            "READ",
            "READ 1 r1_r2 ev",
            "READ 0 guess ev",
            "READ 0 r1_r2 nowhere",
            "SING 0 r1_r2 ev",
            "\x00",
        ):
            self.assertTrue(asked(wrong).startswith("ERROR "), wrong)

    def test_a_step_reads_the_same_however_often_it_is_asked(self) -> None:
        self.assertEqual(len({asked("READ 0 zs ev") for _ in range(5)}), 1)
        self.assertNotEqual(asked("READ 0 zs ev"), asked("READ 0 zs ev", house("earth_joint=0.4")))

    def test_the_set_as_somebody_placed_it(self) -> None:
        """A wrong lead, link or dial gives what it gives."""
        as_asked = asked("READ 0 r1_r2 ev")
        self.assertEqual(asked("READ 0 r1_r2 ev linked=line_earth dial=low_ohms 1=far.L 2=far.E"), as_asked)
        self.assertRegex(asked("READ 0 r1_r2 ev linked=none"), "over_range 19.99 Ω -$")
        self.assertRegex(asked("READ 0 ir_line_neutral ev dial=insulation_250"), "over_range 999 MΩ 250$")
        self.assertRegex(asked("READ 0 ir_line_neutral ev linked=line_neutral"), "measured 0 MΩ 500$")
        self.assertRegex(asked("READ 0 r1_r2 ev 1=far.E"), r"measured 0(\.0\d*)? Ω")
        self.assertTrue(asked("READ 0 r1_r2 ev 1=-").startswith("ERROR nothing Both leads"))

    def test_a_set_that_can_t_stand_so_says_which_word(self) -> None:
        for words, field in (
            ("dial=guess", "dial"), ("linked=all", "linked"), ("3=far.L", "jack"), ("1=far.Q", "point"),
            ("1=far.L+far.N+far.E", "point"), ("dial=low_ohms dial=low_ohms", "question"), ("aloud", "jack"),
        ):  # fmt: skip
            with self.subTest(words):
                self.assertTrue(
                    asked(f"READ 0 r1_r2 ev {words}").startswith(f"ERROR {field} "), asked(f"READ 0 r1_r2 ev {words}")
                )

    def test_a_job_without_a_route_reads_nothing(self) -> None:
        told = asked("READ 0 ze origin", House(job(AT_SURVEY, {"circuits.0.route": []})))
        self.assertTrue(told.startswith("ERROR route"), told)

    def test_over_the_line(self) -> None:
        with TestSetServer(lambda number: house() if number == "7" else None) as server:
            server.start()
            shown = ask(server.port, "7", "zs", "ev")
            self.assertEqual(
                (shown.outcome, shown.unit, shown.instrument), (Outcome.MEASURED, "Ω", "Simulated test set")
            )
            with self.assertRaisesRegex(TestSetError, "there is no house 8"):
                ask(server.port, "8", "zs", "ev")
            with closing(socket.create_connection(("127.0.0.1", server.port))) as line:
                line.sendall(b"READ " + b"x" * 400 + b"\n")
                self.assertIn(b"too long", line.recv(200))
            server.shutdown()

    def test_whatever_goes_wrong_on_the_line_is_told(self) -> None:
        good = "FULMEN-TEST-SET 1 Set\n"
        for texts, told in (
            (("SSH-2.0\n", "VALUE zs ev measured 0.3 Ω -\n"), "is no test set"),
            ((None,), "No test set answers"),
            ((good, None), "No test set answers"),
            ((good, "0.29 ohms or so\n"), "is no reading"),
            ((good, "VALUE r1_r2 ev measured 0.3 Ω -\n"), "is no reading"),
            ((good, "VALUE zs ev measured many Ω -\n"), "is no reading"),
            ((good, "VALUE zs ev guessed 0.3 Ω -\n"), "is no reading"),
            ((good, "ERROR route no route yet\n"), "says: no route yet"),
        ):
            with self.subTest(texts), self.assertRaisesRegex(TestSetError, told) as caught:
                ask(self.serve(*texts), "1", "zs", "ev")
            self.assertIn("Nothing was taken", str(caught.exception))
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            with self.assertRaisesRegex(TestSetError, "No test set answers"):
                ask(free.getsockname()[1], "1", "zs", "ev")


class Files(AppCase):
    def test_csv_and_json_hold_the_same(self) -> None:
        table, listed = list(csv.DictReader(io.StringIO(written_csv(house())))), json.loads(written_json(house()))
        self.assertEqual(tuple(table[0]), COLUMNS)
        self.assertEqual([one["step"] for one in table], [one["step"] for one in listed])
        zs = next(one for one in listed if one["step"] == "zs")
        self.assertEqual((zs["unit"], zs["outcome"], zs["instrument"]), ("Ω", "measured", "Simulated test set"))

    def test_a_fault_by_name(self) -> None:
        whole = job(GARAGE)
        self.assertEqual(fault_named("no_earth", whole), Fault("no_earth", 1.0))
        self.assertEqual(fault_named("earth_joint=0.3@sub-main", whole).circuit, "sub-main")
        for wrong, told in (
            ("gremlins", "there is no fault"),
            ("earth_joint=much", "must be a number"),
            ("no_earth@attic", "there is no circuit “attic”"),
            ("earths_joined", "can’t be in this house"),
            ("lines_swapped", "can’t be in this house"),
            ("poor_supply_neutral", "can’t be in this house"),
            ("rcd_slow@sub-main", "is in no cable"),
            ("earth_joint=0", "of size 0 is no fault"),
        ):
            with self.subTest(wrong), self.assertRaisesRegex(ValueError, told):
                fault_named(wrong, whole)

    def test_where_nothing_can_be_read_it_says_so(self) -> None:
        self.assertTrue(asked("READ 0 zs ev", house("line_neutral_crossed")).startswith("ERROR nothing No line"))


class InTheApp(AppCase):
    def take(self, step: str, port: int, subject: str = "ev") -> Any:
        self.store(DEVICE_IN_UNIT, FRESH)
        app = create_app(replace(self.settings, test_set_port=port))
        self.addCleanup(lambda: app.extensions["sessions"].kw["bind"].dispose())
        return app.test_client().post("/api/v1/jobs/1/test-set", json={"step": step, "subject": subject})

    def test_a_reading_is_shown_and_not_kept(self) -> None:
        with TestSetServer(lambda number: house()) as server:
            server.start()
            shown = self.take("zs", server.port).get_json()
            server.shutdown()
        self.assertEqual((shown["outcome"], shown["instrument"]), ("measured", "Simulated test set"))
        self.assertEqual(self.client.get("/api/v1/jobs/1").get_json()["job"]["readings"], [])

    def test_no_set_a_broken_one_and_a_wrong_unit_are_told(self) -> None:
        good = "FULMEN-TEST-SET 1 Set\n"
        odd = type("Odd", (Line,), {"texts": (good, "VALUE zs ev measured 290 mΩ -\n")})
        with socketserver.TCPServer(("127.0.0.1", 0), odd) as server:
            threading.Thread(target=server.serve_forever, daemon=True).start()
            answers = [self.take("zs", port) for port in (0, int(server.server_address[1]))]
            server.shutdown()
        for found, status, told in zip(answers, (404, 503), ("There is no test set", "shows mΩ where"), strict=True):
            self.assertEqual(found.status_code, status)
            self.assertIn(told, found.get_json()["detail"])
            self.assertIn("Nothing was taken", found.get_json()["detail"])

    def test_the_catalogue_says_whether_there_is_one(self) -> None:
        for port in (0, 8751, 0):
            app = create_app(replace(self.settings, test_set_port=port))
            self.addCleanup(lambda app=app: app.extensions["sessions"].kw["bind"].dispose())
            self.assertEqual(app.test_client().get("/api/v1/catalogue").get_json()["test_set"], bool(port))
