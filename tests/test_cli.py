"""The command line."""

import json
import re
import socket
import subprocess
import sys

import pytest

from vast_harbor import cli
from vast_harbor.formats.rig_file import new_rig
from vast_harbor.formats.signal_k import line_of, subscription, values_of
from vast_harbor.store import rigs
from vast_harbor.store.database import Database


@pytest.mark.parametrize("name", ["kittiwake", "mulga"])
def test_compare_prints_the_headline_rows_of_a_demo_rig(capsys, name) -> None:
    assert cli.main(["compare", "--demo", name]) == 0
    out = capsys.readouterr().out
    for row in (
        "Usable energy",
        "Weight",
        "Rated cycles at the planned depth",
        "Lifetime cost per cycle of use",
    ):
        assert row in out
    assert "planning aid" in out


def test_compare_prints_all_workings_as_json(capsys) -> None:
    assert cli.main(["compare", "--demo", "pebble", "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["verdict"]["winner"] == "dual" and found["verdict"]["headline"].startswith("Buy Marram")
    assert sum(found["verdict"]["cheapest_in"].values()) == pytest.approx(1)
    (advised,) = [one for one in found["packages"] if one["advised"]]
    assert advised["bank"] in found["verdict"]["headline"] and not advised["does"]
    for row in found["rows"]:
        assert all(key in found["figures"] for key in row["figures"])
    for figure in found["figures"].values():
        assert all(key in found["figures"] for key in figure.get("inputs", {}).values())


def test_report_prints_a_document_that_needs_nothing_else(capsys) -> None:
    assert cli.main(["report", "--demo", "mulga", "--paper", "letter"]) == 0
    html = capsys.readouterr().out
    assert (
        html.startswith("<!doctype html>")
        and "size: letter" in html
        and html.count("data:image/svg+xml") == 4
    )
    assert (
        "Add 200 W of solar panels, then buy 3\u00a0×\u00a0Quenby Ember 280" in html
        and "not a design certificate" in html
        and html.index("The bank alone") < html.index("Reasons for it")
    )
    # Nothing is fetched: no address but the names of SVG, which are names.
    sources = re.findall(r'(?:src|href)="([^"#][^"]*)"', html)
    assert (
        all(s.startswith("data:") for s in sources)
        and "@import" not in html
        and "url(" not in html.replace("url(#", "").replace("url(data:font/woff2", "")
    )


def test_demo_rigs_have_different_right_answers(demo_results) -> None:
    def winner(name: str) -> tuple[str, bool]:
        verdict = demo_results(name).verdict
        assert verdict.winner is not None
        return verdict.winner.banked.battery_class.key, verdict.decided[1]

    assert winner("pebble") == ("flooded_dual", "purse")
    assert winner("kittiwake") == ("agm", "purse")
    assert winner("tern-rock") == ("lfp", "cold")
    assert winner("mulga") == ("lfp", "big_loads")
    assert winner("long-haul") == ("lfp", "money")


@pytest.mark.parametrize(
    ("content", "says"),
    [(None, "No such file"), ("nonsense", "not JSON"), ('{"format": "x"}', "not a rig file")],
)
def test_compare_says_what_is_wrong_with_a_file(tmp_path, capsys, content, says) -> None:
    path = tmp_path / "rig.json"
    if content is not None:
        path.write_text(content)
    assert cli.main(["compare", str(path)]) == 2
    assert says in capsys.readouterr().err


def test_demo_never_touches_rigs_of_the_owner(tmp_path, capsys) -> None:
    path = tmp_path / "own.sqlite3"
    with Database(path).writing() as db:
        rigs.add(db, new_rig("Mine"))
    assert cli.main(["demo", "--data", str(path), "--port", "0"]) == 2
    assert "your own rigs" in capsys.readouterr().err
    with Database(path).reading() as db:
        assert rigs.names(db) == {"Mine"}


def test_the_simulated_signal_k_server_plays_the_trial_of_a_rig() -> None:
    command = [sys.executable, "-m", "vast_harbor.cli", "signal-k", "--demo", "pebble", "--port", "0"]
    with subprocess.Popen([*command, "--hours-per-second", "2000"], stdout=subprocess.PIPE, text=True) as run:
        try:
            assert run.stdout is not None
            port = int(re.findall(r"port (\d+)", run.stdout.readline())[0])
            with socket.create_connection(("127.0.0.1", port), 20) as line, line.makefile() as said:
                # It says who it is, and plays once it is asked.
                heard = [json.loads(said.readline())]
                line.sendall(line_of(subscription()))
                heard += [json.loads(one) for one in said]
        finally:
            run.terminate()
    assert heard[0]["version"] == "1.7.0" and len(heard) > 600
    found = [value for message in heard for value in values_of(message)]
    volts = [v.value for v in found if v.quantity == "volts"]
    assert len(volts) == len(heard) - 1 and 10 < min(volts) < max(volts) < 15.5
