"""Trials of disk and database: kills, synced commits, a full disk, locks, damage, backup and restore."""

import json
import os
import random
import shutil
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from http.client import HTTPException
from pathlib import Path

from served import begin, server
from torture_client import Client, Editor, Told


def kills(rounds: int) -> Told:
    """Kill the server (SIGKILL) in a storm of edits, again and again; what was acknowledged is there."""
    acknowledged: dict[int, int] = {}
    lost = edits = 0
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "harbor.sqlite3"
        for turn in range(rounds):
            address, process = begin("serve", data)
            client = Client(address, 20)
            if turn == 0:
                for rig in client.make(3):
                    acknowledged[rig] = 0
            for rig, number in acknowledged.items():
                document = client.get(f"/api/rigs/{rig}?stop=rig")["whole"]["document"]
                lost += number > 0 and _number(document["rig"]["notes"]) < number
            stop = threading.Event()

            def storm(rig: int, client: Client = client, stop: threading.Event = stop) -> None:
                try:
                    editor = Editor(client, rig, "rig")
                    while not stop.is_set():
                        number = acknowledged[rig] + 1
                        if editor.edit("/rig/notes", f"edit {number}")[0] == 200:
                            acknowledged[rig] = number
                except (OSError, ValueError, HTTPException):
                    # The server is gone.
                    return

            threads = [threading.Thread(target=storm, args=(rig,)) for rig in acknowledged]
            for thread in threads:
                thread.start()
            # On a slow machine the storm takes a while to rise.
            begun, until = sum(acknowledged.values()), time.monotonic() + 30
            while sum(acknowledged.values()) == begun and time.monotonic() < until:
                time.sleep(0.02)
            time.sleep(random.uniform(0.2, 1.0))
            process.send_signal(signal.SIGKILL)
            process.wait()
            stop.set()
            for thread in threads:
                thread.join()
        edits = sum(acknowledged.values())
    return Told(
        f"{rounds} kills in a storm of edits",
        f"{lost} of {edits} acknowledged edits lost",
        lost == 0 and edits > 0,
    )


def _number(notes: str) -> int:
    return int(notes.removeprefix("edit ")) if notes.startswith("edit ") else 0


def synced(edits: int) -> Told:
    """Count the calls that wait for the disk, as the system sees them."""
    tracer = shutil.which("strace")
    if tracer is None:
        return Told("Commits wait for the disk", "not counted: strace is not installed", True)
    with server("demo") as (address, process), tempfile.TemporaryDirectory() as folder:
        log = Path(folder) / "calls"
        editor = Editor(Client(address), 1, "rig")
        line = [tracer, "-f", "-qq", "-e", "trace=fsync,fdatasync", "-o", str(log), "-p", str(process)]
        with subprocess.Popen(line, stderr=subprocess.DEVNULL) as trace:
            time.sleep(1)
            for i in range(edits):
                assert editor.edit("/rig/notes", f"synced {i}")[0] == 200
            trace.terminate()
        calls = log.read_text().count("sync(")
    return Told(f"{edits} edits wait for the disk", f"{calls} calls of fsync or fdatasync", calls >= edits)


@contextmanager
def small_disk(kilobytes: int) -> Iterator[Path | None]:
    """A disk of its own of so little room; None where this system does not let us mount one."""
    with tempfile.TemporaryDirectory() as folder:
        mounted = subprocess.run(
            ["mount", "-t", "tmpfs", "-o", f"size={kilobytes}k", "tmpfs", folder], capture_output=True
        ).returncode
        try:
            yield Path(folder) if mounted == 0 else None
        finally:
            if mounted == 0:
                subprocess.run(["umount", folder], capture_output=True)


def full_disk() -> Told:
    """Fill the disk under a running server; it says so, and goes on when there is room again."""
    what = "A full disk"
    with small_disk(8000) as disk:
        if disk is None:
            return Told(what, "not tried: no disk can be mounted here", True)
        with server("serve", disk / "harbor.sqlite3") as (address, _):
            client = Client(address)
            rig = client.ask("/api/rigs", {"name": "Skua", "kind": "boat"})[1]["id"]
            editor = Editor(client, rig, "rig")
            assert editor.edit("/rig/notes", "before")[0] == 200
            ballast = disk / "ballast"
            with suppress(OSError), ballast.open("wb", buffering=0) as out:
                while True:
                    out.write(bytes(4096))
            refused, said = 0, ""
            for i in range(200):
                status, _ = editor.edit("/rig/notes", f"{i} " + "x" * 1900)
                if status != 200:
                    refused = status
                    break
            status, found = client.ask("/api/rigs", {"name": "Tern", "kind": "boat"})
            said = found["problems"][0]["message"]
            read = client.ask("/api/rigs")[0]
            ballast.unlink()
            after = editor.edit("/rig/notes", "after")[0]
    kept = (refused, status, read, after) == (507, 507, 200, 200) and "disk is full" in said
    return Told(what, f"edit {refused}, new rig {status}, list {read}; with room again {after}", kept)


def lock(seconds: float) -> Told:
    """Another program holds the file locked; edits are refused meanwhile, and taken after it."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "harbor.sqlite3"
        with server("demo", data) as (address, _):
            client = Client(address)
            editor = Editor(client, 1, "rig")
            with closing(sqlite3.connect(data, isolation_level=None)) as other:
                other.execute("BEGIN IMMEDIATE")
                until, refused, worst = time.monotonic() + seconds, 0, 0.0
                while time.monotonic() < until:
                    refused += editor.edit("/rig/notes", "while locked")[0] == 503
                    began = time.perf_counter()
                    client.get("/api/rigs")
                    worst = max(worst, (time.perf_counter() - began) * 1e3)
                other.execute("ROLLBACK")
            after = editor.edit("/rig/notes", "then")[0]
    return Told(
        f"The file locked for {seconds:g} s",
        f"{refused} edits refused, then taken ({after}); the list meanwhile at worst {worst:.0f} ms",
        refused > 0 and after == 200,
    )


def restore(rigs: int) -> Told:
    """All rigs as one file, another computer, and back: everything is equal."""

    def all_of(client: Client, ids: list[int]) -> list[object]:
        return [client.get(f"/api/rigs/{i}/file") for i in ids]

    with server("serve") as (address, _):
        client = Client(address)
        ids = client.make(rigs)
        before = all_of(client, ids)
        file = client.get("/api/backup")
    with server("serve") as (address, _):
        client = Client(address)
        client.ask("/api/rigs", {"name": "Another", "kind": "van"})
        put = _send(f"{address}/api/restore", file)
        equal = all_of(client, ids) == before and client.get("/api/rigs")["all"] == rigs
    return Told(
        f"{rigs} rigs as one file and back", f"{put} rigs, {'equal' if equal else 'not equal'}", equal
    )


def _send(url: str, body: bytes) -> int:
    request = urllib.request.Request(url, body, {"Content-Type": "application/octet-stream"})
    with urllib.request.urlopen(request, timeout=120) as answer:
        return int(json.load(answer)["rigs"])


def damage(rigs: int) -> Told:
    """Overwrite pages in the middle; the program says so, and saves what can be read."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "harbor.sqlite3"
        with server("serve", data) as (address, _):
            Client(address).make(rigs)
        pages = data.stat().st_size // 4096
        with data.open("r+b") as file:
            file.seek(pages // 2 * 4096)
            file.write(os.urandom(3 * 4096))
        done = subprocess.run(
            [sys.executable, "-m", "vast_harbor.cli", "serve", "--port", "0", "--data", str(data)],
            capture_output=True, text=True, timeout=120,
        )  # fmt: skip
        saved = list(data.parent.glob("*-saved-*.sqlite3"))
        count = 0
        if saved:
            with closing(sqlite3.connect(saved[0])) as db:
                count = db.execute("SELECT count(*) FROM rig").fetchone()[0]
    kept = (
        done.returncode == 2 and "is damaged" in done.stderr and count > 0 and "Traceback" not in done.stderr
    )
    return Told("Three pages damaged in the middle", f"{count} of {rigs} rigs saved", kept)
