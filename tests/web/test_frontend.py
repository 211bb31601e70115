"""Serving the built front end: pages fall back to the app, files are cached, a missing build says what to do."""

import tempfile
from pathlib import Path

from tests.app import AppCase


class Frontend(AppCase):
    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.app.config["FRONTEND"] = self.folder

    def build(self) -> None:
        (self.folder / "assets").mkdir()
        (self.folder / "index.html").write_text("<title>Fulmen</title>")
        (self.folder / "mark.svg").write_text("<svg/>")
        (self.folder / "assets" / "a-1.js").write_text("1")

    def test_every_page_is_the_app(self) -> None:
        self.build()
        for page in ("/", "/jobs/3/design", "/nowhere"):
            with self.subTest(page):
                answer = self.client.get(page)
                self.assertEqual((answer.status_code, answer.headers["Cache-Control"]), (200, "no-store"))
                self.assertIn("Fulmen", answer.text)
                answer.close()

    def test_files_are_served_and_built_ones_kept(self) -> None:
        self.build()
        asset, mark = self.client.get("/assets/a-1.js"), self.client.get("/mark.svg")
        self.assertIn("immutable", asset.headers["Cache-Control"])
        self.assertEqual(mark.mimetype, "image/svg+xml")
        asset.close()
        mark.close()

    def test_nothing_outside_the_folder_is_served(self) -> None:
        self.build()
        for page in ("/../settings.py", "/assets/../../settings.py", "/assets/nothing.js"):
            with self.subTest(page):
                answer = self.client.get(page)
                self.assertNotIn("FULMEN_PORT", answer.text)
                answer.close()

    def test_without_a_build_it_says_what_to_do(self) -> None:
        answer = self.client.get("/")
        self.assertEqual(answer.status_code, 503)
        self.assertIn("make demo", answer.get_json()["detail"])
