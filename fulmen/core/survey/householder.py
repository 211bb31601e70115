"""What the householder can answer from a phone: plain questions, each with what its answer changes in the job."""

from __future__ import annotations

from typing import Any, Literal

from fulmen.core.editing.changes import Change
from fulmen.core.errors import InputError
from fulmen.core.model.base import UNSHOWABLE, Part
from fulmen.core.model.job import Job
from fulmen.core.model.load import Appliance, DemandMethod, LoadKind
from fulmen.core.model.stops import Stop

QuestionKind = Literal["choice", "many", "text", "number", "photo"]


class PlainAnswer(Part):
    """One answer to choose: its words, and the value it stands for."""

    value: str
    words: str


class PlainQuestion(Part):
    """One question in plain language. A photo is an answer too."""

    key: str
    stop: Stop
    kind: QuestionKind
    text: str
    hint: str = ""
    answers: tuple[PlainAnswer, ...] = ()


def _choice(key: str, stop: Stop, text: str, hint: str = "", *, many: bool = False, **answers: str) -> PlainQuestion:
    options = tuple(PlainAnswer(value=value, words=words) for value, words in answers.items())
    return PlainQuestion(key=key, stop=stop, kind="many" if many else "choice", text=text, hint=hint, answers=options)


def _ask(key: str, stop: Stop, kind: QuestionKind, text: str, hint: str = "") -> PlainQuestion:
    return PlainQuestion(key=key, stop=stop, kind=kind, text=text, hint=hint)


UNSURE = "Not sure"
QUESTIONS = (
    _choice("ownership", Stop.OWNERSHIP, "Whose home is it?",
            owner_lives_there="I own it and live there", owner_lets_it="I own it and let it", tenant="I rent it",
            not_seen=UNSURE),
    _choice("own_land", Stop.PARKING, "Does the car stand on land that belongs to the home?",
            yes="Yes, on its drive, yard or garage", no="No, on the street or on shared land", not_seen=UNSURE),
    _choice("car_place", Stop.PARKING, "Where will the car be charged?",
            outdoors="Outdoors, or the lead can reach outdoors", indoors_only="Only indoors, never outdoors",
            not_seen=UNSURE),
    _ask("position", Stop.PARKING, "text", "Where would you like the charge point?",
         "For example: left of the garage door."),
    _choice("data", Stop.DATA, "What works where the car stands?", "Try your phone there.", many=True,
            wifi="Home Wi-Fi", mobile="Mobile signal", none="Neither"),
    _choice("generation", Stop.METER, "Do you have solar panels or a home battery?",
            yes="Yes", no="No", not_seen=UNSURE),
    _ask("supply_number", Stop.METER, "text", "The supply number on your electricity bill",
         "A long number, often in a box with an S."),
    _choice("appliances", Stop.LOADS, "Which of these do you have?", many=True,
            shower="Electric shower", second_shower="A second electric shower", cooker="Electric cooker or hob",
            immersion="Hot water cylinder heated by electricity", heat_pump="Heat pump", storage="Storage heaters",
            hot_tub="Hot tub", other_car="Another charge point"),
    _ask("car", Stop.CHARGE_POINT, "text", "Which car is it, if you know?"),
    _ask("battery", Stop.CHARGE_POINT, "number", "Size of its battery in kWh, if you know"),
    _ask("photo_cut_out", Stop.CUT_OUT, "photo", "The whole meter box, door open",
         "Step back so that everything is in the picture. Touch nothing inside."),
    _ask("photo_cable", Stop.CUT_OUT, "photo", "Close up: where the street cable comes in",
         "The block with the fuse, and every cable that goes in or out of it."),
    _ask("photo_board_closed", Stop.BOARD, "photo", "The fuse board, door closed"),
    _ask("photo_board_open", Stop.BOARD, "photo", "The fuse board, front flap up",
         "Only lift the flap that opens by hand. Undo no screws."),
    _ask("photo_way", Stop.ROUTE, "photo", "The way from the fuse board to the car, indoors and out"),
    _ask("photo_parking", Stop.PARKING, "photo", "Where the car stands, with the wall you would like it on"),
)  # fmt: skip

FIELD_OF = {
    "ownership": "site.ownership", "own_land": "site.parking_on_own_land", "car_place": "site.car_place",
    "position": "site.wanted_position", "generation": "supply.own_generation", "supply_number": "supply.supply_number",
    "car": "day.car",
}  # fmt: skip
APPLIANCE_OF = {
    "shower": Appliance(kind=LoadKind.SHOWER, name="Electric shower", rating_kw=9.5),
    "second_shower": Appliance(kind=LoadKind.SHOWER, name="Second electric shower", rating_kw=9.5),
    "cooker": Appliance(kind=LoadKind.COOKER, name="Cooker with hob", rating_kw=10),
    "immersion": Appliance(kind=LoadKind.WATER_HEATER, name="Immersion heater", rating_kw=3),
    "heat_pump": Appliance(kind=LoadKind.HEAT_PUMP, name="Heat pump", rating_kw=5),
    "storage": Appliance(kind=LoadKind.STORAGE_HEATING, name="Storage heaters", rating_kw=7.5),
    "hot_tub": Appliance(kind=LoadKind.OTHER, name="Hot tub", rating_kw=3),
    "other_car": Appliance(kind=LoadKind.CAR, name="Charge point that is there already", rating_a=32),
}
# What every dwelling has, added when the householder names the rest.
ALWAYS = (
    Appliance(kind=LoadKind.LIGHTING, name="Lighting circuit", rating_a=6),
    Appliance(kind=LoadKind.LIGHTING, name="Lighting circuit", rating_a=6),
    Appliance(kind=LoadKind.SOCKETS, name="Socket ring", rating_a=32),
    Appliance(kind=LoadKind.SOCKETS, name="Socket ring", rating_a=32),
)


def plain_question(key: str) -> PlainQuestion:
    """The question of this key.

    Raises:
        InputError: there is none.
    """
    found = next((question for question in QUESTIONS if question.key == key), None)
    if found is None:
        raise InputError("question", f"There is no question “{key[:40]}”.")
    return found


def checked_answer(question: PlainQuestion, value: Any) -> Any:
    """The householder's answer, if it is one that this question can have.

    Raises:
        InputError: it is not; the message is plain.
    """
    offered = {answer.value for answer in question.answers}
    if question.kind == "choice" and isinstance(value, str) and value in offered:
        return value
    if question.kind == "many" and isinstance(value, list) and value and set(map(str, value)) <= offered:
        return sorted(set(map(str, value)))
    if question.kind == "text" and isinstance(value, str) and 0 < len(value.strip()) <= 200:
        return _shown(question, value.strip())
    is_number = isinstance(value, int | float) and not isinstance(value, bool)
    if question.kind == "number" and is_number and 1 <= value <= 250:
        return float(value)
    wanted = {
        "choice": "Choose one of the answers.",
        "many": "Choose from the answers.",
        "text": "Write up to 200 characters.",
        "number": "Give a number from 1 to 250.",
        "photo": "Send a photo for this one.",
    }
    raise InputError(question.key, wanted[question.kind])


def _shown(question: PlainQuestion, text: str) -> str:
    """One line of text that every page can show."""
    if UNSHOWABLE.search(text) or any(one in "\t\n\r" for one in text):
        raise InputError(question.key, "There is a character in it that can't be shown: write it again.")
    return text


def answer_words(question: PlainQuestion, value: Any) -> str:
    """An answer as the householder read it.

    >>> answer_words(plain_question("data"), ["mobile", "wifi"])
    'Mobile signal, Home Wi-Fi'
    """
    if question.kind == "photo":
        return "photo"
    words = {answer.value: answer.words for answer in question.answers}
    values = value if isinstance(value, list) else [value]
    return ", ".join(words.get(str(each), f"{each:g}" if isinstance(each, float) else str(each)) for each in values)


def answer_changes(job: Job, key: str, value: Any) -> tuple[Change, ...]:
    """What accepting an answer changes in the job; "not sure" and photos change nothing."""
    if value == "not_seen" or plain_question(key).kind == "photo":
        return ()
    if key in FIELD_OF:
        return (Change(field=FIELD_OF[key], value=value),)
    if key == "battery":
        return (Change(field="day.battery_kwh", value=float(value)),)
    if key == "data":
        ways = [way for way in value if way != "none"]
        return (Change(field="site.data_ways", value=ways), Change(field="site.data_looked_for", value="yes"))
    there = {(one.kind, one.name) for one in job.load.appliances}
    named = [*ALWAYS, *(APPLIANCE_OF[each] for each in value)] if not there else [APPLIANCE_OF[each] for each in value]
    new = [one.model_dump(mode="json") for one in named if (one.kind, one.name) not in there]
    appliances = [*(one.model_dump(mode="json") for one in job.load.appliances), *new]
    unknown = job.load.method is DemandMethod.ENTERED and job.supply.maximum_demand_a is None
    method: DemandMethod = DemandMethod.ADDED_UP if unknown else job.load.method
    return (Change(field="load.appliances", value=appliances), Change(field="load.method", value=method.value))
