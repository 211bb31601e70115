"""Designing the run over HTTP: routes, layouts, search, mends, materials, prices, drawing; bad input names the field."""

import json
from typing import Any

from tests.app import AppCase
from tests.jobs import DEVICE_IN_UNIT, FALLS_SHORT, GARAGE, HALFWAY, example_text

API = "/api/v1"


def document(name: str = DEVICE_IN_UNIT) -> dict[str, Any]:
    return dict(json.loads(example_text(name)))


class Design(AppCase):
    def post(self, what: str, body: Any, status: int = 200) -> Any:
        answer = self.client.post(f"{API}/{what}", json=body)
        self.assertEqual(answer.status_code, status, answer.text[:300])
        return answer.get_json() if answer.mimetype.endswith("json") else answer.text

    def route(self, act: str, status: int = 200, **more: Any) -> Any:
        return self.post("route", {"job": document(), "circuit": "ev", "act": act, **more}, status)

    def test_every_act_on_a_route(self) -> None:
        self.assertEqual(len(self.route("write", text="c3 t.4")["route"]), 7)
        self.assertEqual(len(self.route("add")["route"]), 6)
        cut = document()
        cut["circuits"][0]["route"] = self.route("split", index=2, at_m=2.0)["route"]
        self.assertEqual(len(cut["circuits"][0]["route"]), 6)
        question = {"job": cut, "circuit": "ev", "act": "join", "index": 2}
        self.assertEqual(len(self.post("route", question)["route"]), 5)
        moved = self.route("surround", index=0, surroundings="tray")["route"][0]
        self.assertEqual((moved["surroundings"], moved["method"]), ("tray", None))
        self.assertEqual(len(self.route("rate")["route"]), 5)
        laid = self.route("cable", index=4, cable={"record": "ev-power-data", "csa_mm2": 6.0})["route"][4]
        self.assertEqual(laid["cable"]["record"], "ev-power-data")

    def test_what_cannot_be_done_to_a_route_names_the_field(self) -> None:
        for act, more, field in (
            ("write", {"text": "x9"}, "text"),
            ("split", {"index": 2, "at_m": 99.0}, "at_m"),
            ("split", {"index": 9, "at_m": 1.0}, "index"),
            ("join", {"index": 4}, "index"),
            ("join", {"index": 0}, "index"),
            ("surround", {"index": 5, "surroundings": "tray"}, "index"),
            ("surround", {"index": 0, "surroundings": "sea"}, "surroundings"),
            ("dance", {}, "act"),
            ("cable", {"index": 0, "cable": {"record": "string", "csa_mm2": 6.0}}, "cable.record"),
        ):
            with self.subTest(act=act, more=more):
                self.assertEqual(self.route(act, 422, **more)["field"], field)
        self.assertEqual(
            self.post("route", {"job": document(), "circuit": "shed", "act": "add"}, 422)["field"], "circuit"
        )

    def test_layouts_and_charge_points(self) -> None:
        question = {"job": document(), "charge_point": "charge-point"}
        self.assertEqual(len(self.post("layouts", question)["layouts"]), 3)
        self.assertEqual(self.post("layouts", question | {"charge_point": "none"}, 422)["field"], "charge_point")

    def test_acts_on_the_tree(self) -> None:
        part = {"job": document(), "node": "charge-point"}
        kinds = [one["kind"] for one in self.post("tree/acts", part)["acts"]]
        self.assertEqual(kinds, ["duplicate"])
        changes = self.post("tree/act", part | {"act": {"kind": "duplicate"}})["changes"]
        self.assertEqual([one["field"] for one in changes], ["circuits", "charge_points"])
        only = self.post("tree/act", part | {"act": {"kind": "take_out"}}, 422)
        self.assertEqual((only["field"], only["detail"]), ("act", "It is the only charge point of this job."))
        for path, more in (("tree/acts", {}), ("tree/act", {"act": {"kind": "duplicate"}})):
            self.assertEqual(self.post(path, part | {"node": "none"} | more, 422)["field"], "node")

    def test_how_far_a_design_holds(self) -> None:
        found = self.looked("reach", {"job": document(), "charge_point": "charge-point"})
        self.assertEqual(found[0]["key"], "route")
        self.assertGreater(found[0]["holds_to"], 0)
        self.assertEqual(self.looked("reach", {"job": document(FALLS_SHORT), "charge_point": "charge-point"}), [])
        self.assertEqual(
            self.post("reach", {"job": document(), "charge_point": "nobody"}, 422)["field"], "charge_point"
        )

    def test_unknown_facts_come_with_what_they_could_upset(self) -> None:
        asked = document()
        asked["supply"]["looped"] = "not_seen"
        found = self.looked("unknowns", asked)
        self.assertEqual(found[0]["field"], "supply.looped")
        self.assertEqual(found[0]["could_upset"], ["Service not looped to a neighbour"])

    def test_a_search_and_a_mend(self) -> None:
        found = self.looked("search", {"job": document(FALLS_SHORT), "charge_point": "charge-point"})
        self.assertGreater(found["tried"], 1_000)
        self.assertTrue(found["few"] and found["reasons"] and found["sizes"])
        mended = self.looked("remedies", {"job": document(FALLS_SHORT), "finding": "volt_drop/ev"})
        self.assertEqual(mended[0]["words"], "10 mm² cable")
        self.assertEqual(self.post("remedies", {"job": document(), "finding": "volt_drop/ev"}, 422)["field"], "finding")
        broken = document()
        broken["circuits"][0]["feeds"] = "nowhere"
        for what, more in (("search", {"charge_point": "charge-point"}), ("remedies", {"finding": "volt_drop/ev"})):
            self.assertEqual(self.post(what, {"job": broken, **more}, 422)["field"], "circuits.0.feeds")

    def test_a_search_is_stopped_and_who_comes_later_asks_again(self) -> None:
        from unittest.mock import patch

        with patch("fulmen.web.looking.views.ANSWERED_WITHIN_S", 0.0):
            told = self.post("search", {"job": document(HALFWAY), "charge_point": "charge-point"})
        self.assertEqual((told["state"], told["tried"], told["found"]), ("goes_on", 0, None))
        self.assertEqual(self.client.delete(f"{API}/looking/{told['ticket']}").status_code, 204)
        stopped = self.client.get(f"{API}/search/{told['ticket']}").get_json()
        self.assertEqual(stopped["state"], "stopped")
        # Whoever has heard of the end is not told again; a ticket that nobody gave is like one that is over.
        for ticket in (told["ticket"], "x" * 22):
            self.assertEqual(self.client.get(f"{API}/search/{ticket}").status_code, 410)
        self.assertEqual(self.client.delete(f"{API}/looking/{'x' * 22}").status_code, 204)
        self.assertEqual(self.client.get(f"{API}/search/short").status_code, 422)

    def test_materials_and_the_drawing(self) -> None:
        listed = self.post("materials", document(GARAGE))
        self.assertTrue(all(line["price"] is not None for line in listed["lines"]))
        rows = self.post("materials.csv", document(GARAGE)).splitlines()
        self.assertEqual(len(rows), len(listed["lines"]) + 1)
        formula = document()
        formula["circuits"][0]["name"] = "=1+1"
        self.assertIn("'=1+1: 16.9 m walked", self.post("materials.csv", formula))
        self.assertIn("<svg", self.post("run.svg", {"job": document(), "charge_point": "charge-point"}))
        empty = document()
        empty["circuits"][0]["route"] = []
        self.assertEqual(
            self.post("run.svg", {"job": empty, "charge_point": "charge-point"}, 422)["field"], "charge_point"
        )


class Prices(AppCase):
    def test_kept_taken_out_and_forgotten(self) -> None:
        before = self.client.get(f"{API}/prices").get_json()
        self.assertTrue(all(line["invented"] for line in before["lines"]))
        lines = [
            line | {"price": 99.5, "invented": False} if line["key"] == "label" else line for line in before["lines"]
        ]
        self.assertEqual(self.client.put(f"{API}/prices", json={"lines": lines}).status_code, 200)
        kept = next(one for one in self.client.get(f"{API}/prices").get_json()["lines"] if one["key"] == "label")
        self.assertEqual((kept["price"], kept["invented"]), (99.5, False))
        text = self.client.get(f"{API}/prices.csv").text
        self.assertIn("label,label,piece,99.5,2,no", text)
        self.assertEqual(self.client.post(f"{API}/prices/csv", json={"text": text}).status_code, 200)
        self.assertEqual(self.client.get(f"{API}/prices").get_json()["lines"], lines)
        self.assertEqual(self.client.delete(f"{API}/prices").get_json(), before)
        self.assertEqual(self.client.get(f"{API}/prices").get_json(), before)

    def test_a_bad_list_is_told_and_the_old_one_stays(self) -> None:
        before = self.client.get(f"{API}/prices").get_json()
        bad = self.client.post(f"{API}/prices/csv", json={"text": "key,name,unit,price,work_min\nx,X,m,dear,1\n"})
        self.assertEqual((bad.status_code, bad.get_json()["field"]), (422, "prices"))
        twice = {"lines": [before["lines"][0]] * 2}
        self.assertEqual(self.client.put(f"{API}/prices", json=twice).status_code, 422)
        minus = {"lines": [before["lines"][0] | {"price": -1}]}
        self.assertEqual(self.client.put(f"{API}/prices", json=minus).get_json()["field"], "lines.0.price")
        self.assertEqual(self.client.get(f"{API}/prices").get_json(), before)

    def test_the_users_prices_are_what_materials_cost(self) -> None:
        lines = [line | {"price": 1000.0} for line in self.client.get(f"{API}/prices").get_json()["lines"]]
        self.client.put(f"{API}/prices", json={"lines": lines})
        listed = self.client.post(f"{API}/materials", json=document()).get_json()
        self.assertAlmostEqual(listed["price"], sum(1000 * line["material"]["quantity"] for line in listed["lines"]))
