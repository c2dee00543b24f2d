"""Trials of load: streams, half-open connections, costly questions, many rigs, a large one, and memory."""

import json
import random
import socket
import sqlite3
import sys
import tempfile
import threading
import time
import urllib.request
from contextlib import ExitStack, closing
from http.client import HTTPConnection
from pathlib import Path
from statistics import median

from bench_browser import memory_mb
from bench_rigs import large_rig
from served import server
from torture_client import Client, Editor, Told, p95, spread

COSTLY = (
    "compare/doubt", "compare/turns", "compare/house-rules", "report", "find", "compare/when",
    "compare/loads", "trial", "trial/year", "charging", "compare/beliefs",
)  # fmt: skip
LOAD = "/day/loads/0/draw/value"


def streams(count: int) -> Told:
    """Many open streams of a monitor; an edit beside them."""
    with server("demo") as (address, _), ExitStack() as listening:
        client = Client(address)
        port = int(address.rsplit(":", 1)[1])
        answers = []
        bank = client.get("/api/rigs/1?stop=trial")["whole"]["document"]["candidates"][0]["id"]
        for i in range(count):
            connection = listening.enter_context(closing(HTTPConnection("127.0.0.1", port, timeout=60)))
            connection.request("GET", f"/api/rigs/1/monitor?bank={bank}&hours_per_second=0.01&page=p{i}")
            # Held: it would be closed with its last name.
            answers.append(connection.getresponse())
        playing = sum(answer.status == 200 for answer in answers)
        editor = Editor(client, 1)
        times = [editor.edit(LOAD, 40 + i % 7)[1] for i in range(30)]
    found = f"{playing} play, {count - playing} refused with a sentence; an edit takes {spread(times)}"
    return Told(f"{count} streams asked for", found, 0 < playing < count and p95(times) < 500)


def half_open(count: int) -> Told:
    """Connections that begin a request and never end it; an edit beside them."""
    with server("demo") as (address, _), ExitStack() as open_ones:
        port = int(address.rsplit(":", 1)[1])
        for i in range(count):
            half = open_ones.enter_context(socket.create_connection(("127.0.0.1", port), timeout=30))
            half.sendall(b"POST /api/rigs HTTP/1.1\r\nContent-Length: 99\r\n\r\n{" if i % 2 else b"GET / HT")
        editor = Editor(Client(address), 1)
        times = [editor.edit(LOAD, 40 + i % 7)[1] for i in range(30)]
    return Told(f"{count} half-open connections", f"an edit takes {spread(times)}", p95(times) < 500)


def costly(count: int) -> Told:
    """Costly questions all at once; edits beside them."""
    with server("demo") as (address, _):
        client = Client(address, 600)
        for rig in range(1, 6):
            client.get(f"/api/rigs/{rig}")
        editor = Editor(client, 1)
        for i in range(5):
            editor.edit(LOAD, 50 + i)
        failed: list[str] = []

        def ask(i: int) -> None:
            what = COSTLY[i % len(COSTLY)]
            status, _ = client.ask(f"/api/rigs/{1 + i % 5}/{what}")
            if status != 200:
                failed.append(f"{what} {status}")

        asking = [threading.Thread(target=ask, args=(i,)) for i in range(count)]
        began = time.monotonic()
        for one in asking:
            one.start()
        times = []
        while any(one.is_alive() for one in asking):
            times.append(editor.edit(LOAD, 40 + len(times) % 7)[1])
        took = time.monotonic() - began
    found = f"all answered after {took:.0f} s; an edit meanwhile takes {spread(times)} {' '.join(failed)}"
    return Told(f"{count} costly questions at once", found, not failed and max(times) < 500)


def many_rigs(count: int) -> Told:
    """The first page of a harbor with very many rigs, and a search."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "harbor.sqlite3"
        with server("demo", data):
            pass
        _multiply(data, count)
        with server("serve", data) as (address, _):
            client = Client(address)
            times = []
            for path in (
                "/api/rigs",
                "/api/rigs?page=3",
                "/api/rigs?search=boat",
                "/api/rigs?search=no+such",
            ):
                began = time.perf_counter()
                client.get(path)
                times.append((time.perf_counter() - began) * 1e3)
    found = f"first cards {times[0]:.0f} ms, another page {times[1]:.0f} ms, a search {max(times[2:]):.0f} ms"
    return Told(f"A harbor of {count} rigs", found, times[0] < 300)


def _multiply(data: Path, count: int) -> None:
    with closing(sqlite3.connect(data)) as db, db:
        rows = db.execute("SELECT document, created_at, updated_at FROM rig").fetchall()
        for i in range(count - len(rows)):
            document, created, updated = rows[i % len(rows)]
            changed = json.loads(document)
            changed["rig"]["name"] += f" {i}"
            db.execute(
                "INSERT INTO rig (document, created_at, updated_at) VALUES (?, ?, ?)",
                (json.dumps(changed), created, updated),
            )


def largest(edits: int) -> Told:
    """Edits of the largest rig that is let in: 300 loads, 12 sources, 8 banks."""
    with server("serve") as (address, _):
        rig = _large(address, 8)
        times = []
        for stop, path, values in (
            ("day", LOAD, range(60, 90)),
            ("compare", "/rig/off_grid_nights", range(20, 50)),
        ):
            editor = Editor(Client(address), rig, stop)
            for value in list(values)[:edits]:
                status, took = editor.edit(path, value)
                assert status == 200
                times.append(took)
    return Told("An edit of 300 loads, 12 sources and 8 banks", spread(times), max(times) < 1000)


def _large(address: str, banks: int) -> int:
    """A rig of 300 loads and 12 sources on a server: its id."""
    document = large_rig(300, banks)
    sources = document["sources"]
    document["sources"] = [{**sources[i % len(sources)], "id": f"s{i}"} for i in range(12)]
    request = urllib.request.Request(f"{address}/api/rigs/import", json.dumps(document).encode())
    return int(json.load(urllib.request.urlopen(request, timeout=60))["id"])


def flat(edits: int) -> Told:
    """Memory of the server over many edits of one large rig, from the 300th on."""
    with server("serve") as (address, process):
        editor = Editor(Client(address, 60), _large(address, 8), "day")
        first = highest = 0
        for i in range(edits):
            # Two of three are only noted, the third is worked out anew.
            path, value = (LOAD, 30 + i % 90) if i % 3 == 0 else ("/rig/notes", f"Day {i}")
            status, _ = editor.edit(path, value)
            assert status == 200, status
            if i + 1 == 300:
                first = memory_mb(process)
            if i % 100 == 99:
                highest = max(highest, memory_mb(process))
    found = f"{first} MB after 300, {highest} MB at most"
    return Told(f"{edits} edits of 300 loads, 12 sources and 8 banks", found, highest - first <= 20)


def memory(edits: int, rigs: int) -> Told:
    """Memory of the server over many edits of many rigs: what it usually takes in the last two quarters of
    them, when it is warm, and whether that grows; what works at a moment takes more for that moment."""
    random.seed(7)
    with server("serve") as (address, process):
        client = Client(address)
        ids = client.make(rigs)
        editors: dict[int, Editor] = {}
        begin = memory_mb(process)
        taken: list[int] = []
        stops = ("day", "rig", "compare", "banks")
        for i in range(edits):
            if i % 20 == 0:
                rig = random.choice(ids)
                editors[rig] = Editor(client, rig, random.choice(stops))
            path, value = (LOAD, 30 + i % 90) if i % 3 else ("/rig/off_grid_nights", 20 + i % 200)
            status, _ = editors[rig].edit(path, value)
            assert status in (200, 422), status
            if i % 20 == 19:
                taken.append(memory_mb(process))
            if i % 5000 == 4999:
                print(f"  {i + 1} edits: {taken[-1]} MB", file=sys.stderr, flush=True)
    quarter = len(taken) // 4
    third, last = (round(median(part)) for part in (taken[-2 * quarter : -quarter], taken[-quarter:]))
    found = f"{begin} MB before; {third} MB in the third quarter, {last} MB in the last, {max(taken)} at most"
    return Told(f"{edits} edits over {rigs} rigs", found, last < 300 and last - third <= 20)
