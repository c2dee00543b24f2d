"""The changeover as the API serves it: choosing, readings, the simulated meter, the list and the papers."""

import csv
import io
import re
from itertools import pairwise

import pytest

from .conftest import back, patch


@pytest.fixture
def rig(client):
    """A demo rig with a bank chosen."""

    def make(name: str = "kittiwake", choose: str | None = "lfp"):
        made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]
        view = client.get(f"/api/rigs/{made['id']}?stop=changeover").get_json()
        if choose is None:
            return view
        return patch(client, view, put("/changeover/chosen", choose), stop="changeover").get_json()

    return make


def put(path: str, value, op: str = "replace"):
    return {"op": op, "path": path, "value": value}


def strip_of(view) -> str:
    return next(s["figure"] for s in view["strip"] if s["stop"] == "changeover")


def measured(view) -> dict:
    return {m["key"]: m for g in view["changeover"]["gates"] for s in g["steps"] for m in s["measured"]}


def test_a_bank_is_chosen_taken_back_and_nothing_ticked_is_lost(client, rig) -> None:
    view = rig(choose=None)
    assert view["changeover"]["chosen"] == "" and strip_of(view) == "no choice yet"
    choices = view["changeover"]["choices"]
    first = next(c for c in choices if c["verdict"])
    assert all(c["against"] for c in choices if not c["verdict"])
    # The verdict names a bank that nobody put up: it becomes a candidate with the choice.
    view = patch(client, view, *first["operations"], stop="changeover").get_json()
    chosen = view["changeover"]["chosen"]
    assert view["changeover"]["title"] == first["title"] and not view["changeover"]["against"]
    assert strip_of(view).startswith("0 of ")
    view = patch(
        client, view, put("/changeover/done/packing", "2026-11-28", "add"), stop="changeover"
    ).get_json()
    assert strip_of(view).startswith("1 of ")
    view = patch(client, view, put("/changeover/chosen", ""), stop="changeover").get_json()
    assert strip_of(view) == "no choice yet"
    view = patch(client, view, put("/changeover/chosen", chosen), stop="changeover").get_json()
    assert view["changeover"]["done"] == 1
    # A candidate that is gone is told, and what was ticked stays.
    index = [c["id"] for c in view["document"]["candidates"]].index(chosen)
    view = patch(client, view, {"op": "remove", "path": f"/candidates/{index}"}, stop="changeover").get_json()
    assert "no longer among the banks" in view["changeover"]["gone"]
    assert view["document"]["changeover"]["done"] == {"packing": "2026-11-28"}
    assert back(client, view).status_code == 200


def test_what_is_paid_is_told_on_the_strip_and_moves_the_money(client, rig) -> None:
    view = rig()
    lines = {line["key"]: line for line in view["changeover"]["lines"]}
    before = view["changeover"]["cost"]["value"]
    paid = lines["batteries"]["estimate"]["value"] - 100
    view = patch(client, view, put(lines["batteries"]["paid_path"], f"{paid:.2f}", "add"), stop="changeover")
    view = view.get_json()
    assert view["changeover"]["cost"]["value"] == pytest.approx(before - 100, abs=0.02)
    assert strip_of(view).startswith("€") and " of €" in strip_of(view)
    view = patch(
        client, view, put(lines["part-covers"]["price_path"], "7", "add"), stop="changeover"
    ).get_json()
    tags = {line["key"]: line["tag"] for line in view["changeover"]["lines"]}
    assert tags["part-covers"] == "needed"
    sheet = client.get(f"/api/rigs/{view['id']}/changeover/shopping.csv").data.decode("utf-8-sig")
    rows = list(csv.reader(io.StringIO(sheet)))
    assert len(rows) == 1 + len(view["changeover"]["lines"]) and float(rows[1][7]) == round(paid, 2)


@pytest.mark.parametrize(
    ("unit", "typed", "says"),
    [
        ("V", "12.8 A", "is in amps, but this field takes volts"),
        ("A", "12.8 V", "is in volts, but this field takes amps"),
        ("V", "nothing", "is not volts"),
        ("V", "12800", "must be between -200 and 200 V"),
        ("x", "12.8", "must end in V, A or C"),
    ],
)
def test_a_reading_that_cannot_be_is_refused_at_its_field(client, rig, unit, typed, says) -> None:
    path = f"/changeover/readings/lfp.arrived.unit-1-1.{unit}"
    answer = patch(client, rig(), put(path, typed, "add"), typed=True)
    assert answer.status_code == 422
    problem = answer.get_json()["problems"][0]
    assert says in problem["message"].replace("−", "-")
    assert problem["path"] == path


def test_a_reading_is_judged_and_says_what_to_look_at(client, rig) -> None:
    view = rig()
    key = "arrived.unit-1-1"
    path = measured(view)[key]["path"]

    def after(text: str):
        edited = patch(client, view, put(path, text, "add"), typed=True, stop="changeover").get_json()
        one = measured(edited)[key]
        view["revision"] = edited["revision"]
        return edited, one

    edited, one = after("1280 mV")
    assert edited["fields"][path] == "1.28" and one["verdict"] == "out"
    assert next(s for s in edited["strip"] if s["stop"] == "changeover")["attention"] == "blocking"
    assert [c["kind"] for c in one["causes"]][:2]
    edited, one = after("−13.2")
    assert "minus sign" in one["remark"] and one["causes"][0]["kind"] == "swapped"
    edited, one = after("13.2")
    assert one["verdict"] == "ok" and not one["causes"]
    # With fewer strings the reading of one that is gone is kept, and told.
    gone = measured(view)["arrived.unit-2-1"]["path"]
    edited = patch(client, edited, put(gone, "13.2", "add"), typed=True, stop="changeover").get_json()
    edited = patch(client, edited, put("/candidates/2/parallel", 1), stop="changeover").get_json()
    assert edited["changeover"]["unplaced"] == ["arrived.unit-2-1: 13.20 V"]


def test_the_simulated_meter_shows_this_bank_and_its_faults(client, rig) -> None:
    view = rig()
    at = f"/api/rigs/{view['id']}/changeover/meter"
    made = measured(view)
    sound = client.get(f"{at}?key=arrived.unit-1-1").get_json()
    assert sound["text"] == made["arrived.unit-1-1"]["likely"]
    asleep = client.get(f"{at}?key=arrived.unit-1-1&fault=asleep-1-1").get_json()
    assert asleep["value"] == 0
    wrong = client.get(f"{at}?key=arrived.unit-1-1&fault=flood")
    assert wrong.status_code == 422 and "flood" in wrong.get_json()["problems"][0]["message"]
    assert client.get(f"{at}?key=nothing.there").status_code == 404
    assert client.get(at.replace(str(view["id"]), "999") + "?key=a").status_code == 404
    assert client.get(f"/api/rigs/{rig(choose=None)['id']}/changeover/meter?key=a").status_code == 404


def test_the_simulated_monitor_reads_the_test_until_it_ends(client, rig) -> None:
    view = rig()
    at = f"/api/rigs/{view['id']}/changeover/monitor"
    first = client.get(f"{at}?minutes=0").get_json()
    assert first["volts"] == pytest.approx(view["changeover"]["proof"]["curve"][0][1], abs=0.01)
    assert not first["ended"] and client.get(f"{at}?minutes=20000").get_json()["ended"]
    assert client.get(f"{at}?minutes=0&fault=main_fuse").get_json()["volts"] == 0
    assert client.get(f"{at}?minutes=-1").status_code == 422
    assert client.get(f"{at}?minutes=0&fault=flood").status_code == 422
    assert client.get(f"/api/rigs/{rig(choose=None)['id']}/changeover/monitor?minutes=0").status_code == 404


def test_the_verdict_is_chosen_where_it_stands(client, rig) -> None:
    view = rig(choose=None)
    verdict = client.get(f"/api/rigs/{view['id']}?stop=compare").get_json()["compare"]["verdict"]
    view = patch(client, view, *verdict["buying"], stop="changeover").get_json()
    assert view["changeover"]["chosen"] and not view["changeover"]["against"]


def test_what_a_device_is_set_to_and_whether_it_can_be_is_kept(client, rig) -> None:
    view = rig("mulga", "lfp")
    path = "/changeover/devices/disconnect_v"

    def row(view) -> dict:
        rows = {r["key"]: r for g in view["changeover"]["settings"] for r in g["rows"]}
        return rows["setting.loads.disconnect"]

    assert row(view)["can"] == "unknown" and row(view)["now_path"] == path
    refused = patch(client, view, put(path, "230"), typed=True, stop="changeover")
    assert refused.status_code == 422 and refused.get_json()["problems"][0]["path"] == path
    # Volts are typed for the rig's own system.
    volts = view["document"]["rig"]["system_v"]
    typed = f"{10.5 * volts / 12:.1f}"
    view = patch(client, view, put(path, typed), typed=True, stop="changeover").get_json()
    view = patch(client, view, put(row(view)["can_path"], False, "add"), stop="changeover").get_json()
    assert row(view)["can"] == "no" and row(view)["now"].startswith(typed)
    assert any(c["key"] == "stuck-loads-disconnect" for c in view["changeover"]["conflicts"])


def test_the_papers_need_nothing_else_and_hold_every_step_and_point(client, rig) -> None:
    view = rig("tern-rock", None)
    at = f"/api/rigs/{view['id']}/changeover"
    svg = client.get(f"{at}/drawing.svg").get_data(as_text=True)
    marks = {m["mark"] for m in measured(view).values() if m["mark"]}
    assert all(f">{mark}</text>" in svg for mark in marks)
    whole = client.get(f"{at}/print").get_data(as_text=True)
    places = [whole.find(f"<h3>{s['title']}") for g in view["changeover"]["gates"] for s in g["steps"]]
    assert min(places) > 0 and all(a < b for a, b in pairwise(places))
    order = client.get(f"{at}/print?what=work_order&paper=letter&save=true")
    text = order.get_data(as_text=True)
    assert "Work order" in text and "size: letter" in text and "Tests and readings" in text
    assert "attachment" in order.headers["Content-Disposition"] and len(text) < len(whole)
    assert "http" not in text.replace("http://www.w3.org/2000/svg", "")
    # It is set in its own fonts, on every computer, and may take them from nowhere else.
    assert text.count("@font-face") == text.count("url(data:font/woff2;base64,") == 2
    assert "font-src 'self' data:" in order.headers["Content-Security-Policy"]


def test_a_date_after_the_last_day_to_return_is_told(client, rig) -> None:
    view = rig()
    operations = (
        put("/changeover/return_by", "2026-12-01"),
        put("/changeover/done/packing", "2026-12-05", "add"),
    )
    view = patch(client, view, *operations, stop="changeover").get_json()
    step = view["changeover"]["gates"][0]["steps"][0]
    assert "(1 Dec 2026)" in step["late"]
    bad = patch(client, view, put("/changeover/return_by", "soon"), typed=True)
    assert bad.status_code == 422 and "25 Nov 2026" in bad.get_json()["problems"][0]["message"]


def test_the_acceptance_test_takes_readings_as_they_come(client, rig) -> None:
    view = rig()
    proof = view["changeover"]["proof"]
    assert proof["verdict"] == "none" and len(proof["curve"]) > 20
    for minutes, (_, volts) in enumerate(proof["curve"][:3]):
        reading = {"id": f"r{minutes}", "minutes": str(60 * minutes), "volts": f"{volts}", "amps": "20"}
        answer = patch(
            client, view, put("/changeover/proof/-", reading, "add"), typed=True, stop="changeover"
        )
        view = answer.get_json()
    assert view["changeover"]["proof"]["verdict"] == "running"
    assert view["changeover"]["proof"]["taken"] == "40 Ah"


def test_a_bank_that_runs_is_told_before_the_verdict_wherever_that_is_told(client, rig) -> None:
    view = rig()
    at = f"/api/rigs/{view['id']}"
    assert client.get(f"{at}?stop=compare").get_json()["compare"]["verdict"]["runs"] == []
    ticked = patch(client, view, put("/changeover/done/isolated", "2026-10-01", "add")).get_json()
    runs = client.get(f"{at}?stop=compare").get_json()["compare"]["verdict"]["runs"]
    told = "".join(t["text"] for t in runs)
    assert ticked["revision"] > view["revision"] and told.endswith("is in and running.")
    card = client.get(f"{at}/card").get_json()
    assert "".join(t["text"] for t in card["result"]) == told
    assert told in client.get(f"{at}/report").text


def test_what_the_acceptance_test_measured_is_the_first_that_is_known_of_the_health(client, rig) -> None:
    view = patch(client, rig(), put("/changeover/done/isolated", "2026-10-01", "add")).get_json()
    at = f"/api/rigs/{view['id']}"
    assert client.get(f"{at}/log/health").get_json()["seen"] == []
    proof = view["changeover"]["proof"]
    stop, expected = (float(proof[key].split()[0]) for key in ("stop_v", "expected_ah"))
    amps = 0.9 * expected / 4
    for minutes, volts in ((0, stop + 2), (240, stop)):
        reading = {"id": f"r{minutes}", "minutes": f"{minutes}", "volts": f"{volts}", "amps": f"{amps}"}
        edited = patch(client, view, put("/changeover/proof/-", reading, "add"), stop="changeover")
        assert edited.status_code == 200, edited.get_json()
        view = edited.get_json()
    (seen,) = client.get(f"{at}/log/health").get_json()["seen"]
    assert seen["kind"] == "test" and seen["health"] == pytest.approx(0.9, abs=0.01)
    assert seen["low"] < 0.88 < 0.92 < seen["high"] and seen["day"] == "2026-10-01"


def test_a_check_whose_remedy_is_priced_in_is_a_care_on_the_card_too(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "pebble"}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    cells = {"id": "cells", "battery_class": "lfp", "model": "moule-bare-230", "series": 1, "parallel": 1}
    view = patch(client, view, put("/candidates/-", cells, "add")).get_json()
    card = next(c for c in view["banks"]["candidates"] if c["id"] == "cells")
    check = next(c for c in card["checks"] if c["code"] == "external_bms")
    assert check["verdict"] == "caution" and check["remedy"].startswith(
        "Counted in its price: Buy an external BMS"
    )


def test_owners_of_the_us_read_no_metric_measure(client, rig) -> None:
    view = rig()
    told = patch(client, view, put("/rig/units", "us"), stop="changeover").get_json()["changeover"]
    texts = [text for q in told["questions"] for text in (q["how"], q["says"])]
    texts += [text for g in told["gates"] for s in g["steps"] for text in (s["title"], s["why"], s["how"])]
    texts += [line["reason"] for line in told["lines"]]
    metric = re.compile(r"\d (mm|cm|m|kg|cm²|l|°C)(?!\w)")
    assert [text for text in texts if metric.search(text)] == []
    assert any(" in" in text for text in texts) and any(" lb" in text for text in texts)
