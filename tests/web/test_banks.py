"""What the Banks stop asks for apart from the plan: banks found, reasons, locker, wiring, volts, a meter, "
"CSV."""

import csv
import io
import re
import xml.etree.ElementTree as ET

import pytest

from vast_harbor import data
from web.conftest import patch

SVG = "{http://www.w3.org/2000/svg}"


@pytest.fixture
def demo(client):
    """The path of a demo rig, and the rig."""

    def at(name: str) -> tuple[str, dict]:
        made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]["id"]
        return f"/api/rigs/{made}", client.get(f"/api/rigs/{made}").get_json()

    return at


def test_found_banks_can_be_added_as_they_were_found(client, demo) -> None:
    path, rig = demo("pebble")
    found = client.get(f"{path}/find").get_json()
    assert found["models"] == len(data.reference().catalogue) + 1
    assert len(found["found"]) + sum(d["count"] for d in found["dropped"]) >= found["models"] - 20
    best = next(f for f in found["found"] if f["front"])
    value = {k: best[k] for k in ("battery_class", "model", "series", "parallel")} | {"id": "found"}
    view = patch(client, rig, {"op": "add", "path": "/candidates/-", "value": value}).get_json()
    card = view["banks"]["candidates"][-1]
    assert card["figures"]["usable_wh"]["text"] == best["usable"]
    assert card["figures"]["purchase"]["text"] == best["purchase"]
    assert all(c["verdict"] != "blocking" for c in card["checks"]) and card["passed"] > 10
    column = next(i for i, c in enumerate(view["compare"]["compared_banks"]) if c["id"] == "found")
    rows = {r["key"]: r["figures"][column]["text"] for r in view["compare"]["rows"]}
    # What it needs in addition is in it; a run year changes it a little against the estimate by hand.
    told, here = (float(re.sub(r"[^0-9.]", "", x)) for x in (best["lifetime"], rows["lifetime"]))
    assert told == pytest.approx(here, rel=0.1)


def test_why_not_tells_every_reason(client, demo) -> None:
    path, _ = demo("pebble")
    for dropped in client.get(f"{path}/find").get_json()["dropped"]:
        for model in dropped["models"][:2]:
            why = client.get(f"{path}/why", query_string={"model": model["model"]}).get_json()
            stops = [c for c in why["checks"] if c["verdict"] == "blocking"]
            assert bool(why["unfit"]) != bool(stops), model
    assert client.get(f"{path}/why?model=none").status_code == 404


def test_a_ceiling_in_place_of_the_need(client, demo) -> None:
    path, _ = demo("mulga")
    view = client.get(f"{path}/find", query_string={"money": "1300"}).get_json()
    assert view["ceiling"] and view["within"][0]["covered"].endswith("%")
    assert any("one more string" in w["later"] for w in view["within"])
    wrong = client.get(f"{path}/find", query_string={"money": "lots"})
    assert wrong.status_code == 422 and wrong.get_json()["problems"][0]["path"] == "/money"


def test_the_drawing_shows_every_battery_and_its_fuses(client, demo) -> None:
    path, rig = demo("long-haul")
    modules = next(c for c in rig["banks"]["candidates"] if c["id"] == "modules")
    sent = client.get(f"{path}/wiring.svg?candidate=modules")
    assert sent.mimetype == "image/svg+xml" and "attachment" in sent.headers["Content-Disposition"]
    words = [t.text for t in ET.fromstring(sent.data).iter(f"{SVG}text")]
    assert sum(w.startswith("Battery ") for w in words) == modules["series"] * modules["parallel"] == 6
    assert {"battery switch", "shunt", "main fuse", "− busbar", "+ busbar"} <= set(words)
    parts = client.get(f"{path}/wiring?candidate=modules").get_json()["parts"]
    counts = {p["what"].split(",")[0]: p["count"] for p in parts}
    # Three strings of two: three links, six cables to the bars, a fuse in each string.
    assert counts["series link"] == 3 and counts["cable from a string to a busbar"] == 6
    assert counts["string fuse"] == 3
    assert client.get(f"{path}/wiring.svg?candidate=rack").status_code == 404


def test_a_name_in_the_drawing_stays_words(client, demo) -> None:
    path, rig = demo("kittiwake")
    name = '<script>alert("x")</script> & sons'
    patch(client, rig, {"op": "replace", "path": "/own_models/0/name", "value": name})
    svg = client.get(f"{path}/wiring.svg?candidate=used").data
    drawn = ET.fromstring(svg)
    assert b"<script" not in svg and any(name in (t.text or "") for t in drawn.iter(f"{SVG}text"))
    # The file knows no page whose colours it could take.
    paints = {one.get(what) for one in drawn.iter() for what in ("fill", "stroke")} - {None}
    assert len(paints) > 5 and all(re.fullmatch("none|#[0-9a-f]{6}", paint) for paint in paints)
    # What is no word of CSS in a font name stands in quotes: else strict programs draw no text.
    for font in drawn.get("font-family").split(", "):
        assert font[0] == font[-1] == "'" or re.fullmatch(r"[A-Za-z-]+( [A-Za-z-]+)*", font), font
    assert name in drawn.findtext(f"{SVG}title") and "planning aid" in drawn.findtext(f"{SVG}desc")


def test_boxes_placed_by_hand_are_judged(client, demo) -> None:
    path, rig = demo("kittiwake")
    seen = client.get(f"{path}/locker?candidate=lfp").get_json()
    assert len(seen["boxes"]) == seen["count"] > 1 and seen["verdict"] == "ok" and not seen["own"]
    places = [
        {"compartment": 0, "x": b["x"], "y": b["y"], "pose": b["pose"], "turned": b["turned"]}
        for b in seen["boxes"]
    ]
    places[1] |= {"x": places[0]["x"] + 30, "y": places[0]["y"]}
    view = patch(client, rig, {"op": "replace", "path": "/candidates/2/places", "value": places}).get_json()
    assert (
        next(c for c in view["banks"]["candidates"][2]["checks"] if c["code"] == "fit")["verdict"]
        == "blocking"
    )
    moved = client.get(f"{path}/locker?candidate=lfp").get_json()
    assert moved["own"] and moved["boxes"][1]["wrong"] == "overlap"


def test_volts_and_rates(client, demo) -> None:
    path, _ = demo("kittiwake")
    acts = client.get(f"{path}/volts").get_json()["banks"]
    gel = {a["key"]: a for a in next(b for b in acts if b["id"] == "gel")["acts"]}
    assert gel["floor"]["soc"]["text"] == "50 %" and gel["alarm"]["soc"]["text"] == "60 %"
    assert gel["disconnect"]["loaded"]["value"] == 11.5 and gel["reconnect"]["loaded"]["value"] == 12.6
    rates = client.get(f"{path}/rates?amps=40").get_json()
    assert rates["current"] == "40 A" and len(rates["curves"]) == len(acts)
    for curve in rates["curves"]:
        assert len(curve["hours"]) == len(curve["volts"]) > 20
    for amps, says in (("0", "0.1 and 5000"), ("many", "not amps")):
        wrong = client.get(f"{path}/rates", query_string={"amps": amps})
        assert wrong.status_code == 422 and says in wrong.get_json()["problems"][0]["message"]


def test_a_meter_is_read_for_the_old_bank_and_for_candidates(client, demo) -> None:
    path, _ = demo("kittiwake")

    def read(**text):
        return client.post(f"{path}/meter", json=text)

    old = read(bank="old", volts="12,36", state="rested").get_json()
    assert old["text"] == "56 to 64 % charged" and not old["wide"]
    lfp = read(bank="lfp", volts="13.18 V", state="rested").get_json()
    assert lfp["wide"] and "battery monitor" in lfp["why"][0]
    for text, field in (
        ({"bank": "old", "volts": "", "state": "rested"}, "/volts"),
        ({"bank": "old", "volts": "25", "state": "rested"}, "/volts"),
        ({"bank": "old", "volts": "12", "state": "loaded"}, "/amps"),
        ({"bank": "gone", "volts": "12", "state": "rested"}, "/bank"),
    ):
        answer = read(**text)
        assert answer.status_code == 422 and answer.get_json()["problems"][0]["path"] == field


def test_the_cable_tool(client) -> None:
    wanted = {"amps": "206 A", "length": "3 m", "volts": "12", "drop": "3 %", "clad": False}
    sized = client.post("/api/cable", json=wanted).get_json()
    assert (sized["size"], sized["awg"], sized["fuse"]) == ("70 mm²", "AWG 2/0", "300 A")
    assert sum(r["chosen"] for r in sized["rows"]) == 1 and "ISO 10133" in sized["source"]
    # 3 bare feet are 0.914 m.
    feet = client.post("/api/cable", json=wanted | {"length": "3", "units": "us"}).get_json()
    assert feet["size"] == "70 mm²" and feet["drop"].startswith("0.108")
    none = client.post("/api/cable", json=wanted | {"amps": "900"}).get_json()
    assert none["size"] == "" and "No single cable" in none["says"]
    wrong = client.post("/api/cable", json=wanted | {"amps": "", "drop": "40 %"})
    assert {p["path"] for p in wrong.get_json()["problems"]} == {"/amps", "/drop"}


def test_the_catalogue_goes_out_and_comes_back_as_own_batteries(client, demo) -> None:
    path, rig = demo("pebble")
    sent = client.get("/api/catalogue.csv").get_data(as_text=True)
    rows = list(csv.DictReader(io.StringIO(sent.lstrip("\ufeff"))))
    assert len(rows) == len(data.reference().catalogue)
    # The same names would be there twice; under other names every line is taken.
    again = client.post(f"{path}/models/preview", data=sent.encode()).get_json()["rows"]
    assert all("already a battery" in r["problems"][0] for r in again)
    renamed = sent.replace("Marram,", "Marram II,")
    back = client.post(f"{path}/models/preview", data=renamed.encode()).get_json()["rows"]
    good = [r for r in back if r["model"]]
    assert len(good) == sum(r["maker"] == "Marram" for r in rows)
    operations = [
        {"op": "add", "path": "/own_models/-", "value": r["model"] | {"id": f"in-{r['line']}"}} for r in good
    ]
    view = patch(client, rig, *operations).get_json()
    assert len(view["document"]["own_models"]) == len(good) + 1
    out = client.get(f"{path}/models.csv").get_data(as_text=True)
    assert out.count("Marram II") == len(good)


def test_a_list_of_ten_thousand_is_refused_in_a_sentence(client, demo) -> None:
    path, _ = demo("pebble")
    text = "name,battery_class,unit_v,rated_ah,kg,price\n" + "x,agm,12,100,30,200\n" * 10_000
    wrong = client.post(f"{path}/models/preview", data=text.encode())
    assert wrong.status_code == 422
    assert "10000 batteries. You can have 100 of your own" in wrong.get_json()["problems"][0]["message"]


@pytest.mark.parametrize(
    ("field", "value", "says", "reading"),
    [
        ("length_mm", "33 m", "not 33\u202f000 mm", "33 cm, 330 mm"),
        ("length_mm", "13", "not 13 mm", "13 cm, 130 mm"),
        ("bms_continuous_a", "0", "would never supply anything", None),
        ("cycles_2", "5000", "deeper cycles cannot wear it less", None),
        ("battery_class", "starting", "a few deep discharges ruin it", None),
        ("battery_class", "cobalt", "fewer cycles and is less stable", None),
        ("unit_v", "7", "do not come in 7 V", None),
        ("name", "Plain 100", "already a battery named “Skerry Plain 100”", None),
        ("price_date", "last year", "is not a date that can be read. Try 25 Nov 2026.", None),
        ("warranty_full_years", "9", "cannot be longer than it", None),
        ("charge_min_c", "50", "is not above the lowest", None),
    ],
)  # fmt: skip
def test_an_entry_that_cannot_be_is_questioned_at_its_field(
    client, demo, field, value, says, reading
) -> None:
    _, rig = demo("pebble")
    entry = {"id": "mine", "maker": "Skerry", "name": "Own", "cycles_at_2": 1.0, "cycles_2": 1500}
    entry |= {"charge_min_c": 0, "charge_max_c": 45}
    rig = patch(client, rig, {"op": "add", "path": "/own_models/-", "value": entry}).get_json()
    path = f"/own_models/{len(rig['document']['own_models']) - 1}/{field}"
    answer = patch(client, rig, {"op": "replace", "path": path, "value": value})
    problem = answer.get_json()["problems"][0]
    assert answer.status_code == 422 and says in problem["message"], problem
    assert problem["path"].startswith("/own_models/1/")
    assert reading is None or reading in [r["label"] for r in problem["interpretations"]]


def test_the_catalogue_marks_what_costs_least_and_what_is_smallest_lightest_cheapest(client, demo) -> None:
    path, _ = demo("kittiwake")
    for proposal in client.get(f"{path}/catalogue").get_json()["classes"]:
        covering = {x["model"]: x for x in proposal["layouts"] if x["covers"]}
        if not covering:
            assert proposal["alternatives"] == {}
            continue
        assert proposal["best"] in covering and set(proposal["alternatives"].values()) <= set(covering)
        lightest = covering[proposal["alternatives"]["lightest"]]["kg"]["value"]
        offered = [x for x in covering.values() if "used" not in x["model"] and "lantern" not in x["model"]]
        assert lightest == min(x["kg"]["value"] for x in offered)


def test_a_charge_into_the_old_bank_is_explained_too(client, demo) -> None:
    path, rig = demo("kittiwake")
    asked = {"candidate": "old", "source": rig["document"]["sources"][0]["id"], "amps": "4", "volts": "13.1",
             "soc": "60 %", "hour": "12:00", "month": 5}  # fmt: skip
    answer = client.get(f"{path}/charging/measured", query_string=asked)
    assert answer.status_code == 200 and answer.get_json()["says"]
    gone = client.get(f"{path}/charging/measured", query_string=asked | {"candidate": "nobody"})
    assert gone.status_code == 404
