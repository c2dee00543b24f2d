"""What the log of a monitor takes: importing it, drawing a year of minutes, and what is made of it."""

import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np
from bench_rigs import Row, row, timed

from vast_harbor import data
from vast_harbor.formats import rig_file as files
from vast_harbor.store import rigs
from vast_harbor.store.database import Database
from vast_harbor.web.server.app import create_app

DAY = 86_400


def minutes(begin: int, count: int) -> bytes:
    """A log of so many minutes, as a spreadsheet of central Europe writes it."""
    rng = np.random.default_rng(5)
    at = begin + 60 * np.arange(count)
    stamps = np.datetime_as_string(at.astype("datetime64[s]"))
    clock = at % DAY
    amps = np.where((clock > 9 * 3600) & (clock < 15 * 3600), 14, -6) + rng.normal(0, 1, count)
    volts = 12.7 + 0.05 * amps / 6 + rng.normal(0, 0.02, count)
    soc = 70 + 20 * np.sin(at / DAY * 2 * np.pi)
    rows = (
        f"{s[8:10]}.{s[5:7]}.{s[:4]} {s[11:19]};{v:.2f};{a:.1f};{c:.0f};18".replace(".", ",").replace(
            ",", ".", 2
        )
        for s, v, a, c in zip(stamps.tolist(), volts.tolist(), amps.tolist(), soc.tolist(), strict=True)
    )
    return "\n".join(["Zeit;Spannung [V];Strom [A];Ladezustand [%];Temperatur [°C]", *rows]).encode()


def log() -> Iterator[Row]:
    """Rows of the table."""
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder) / "bench.sqlite3")
        client = create_app(database).test_client()
        document = files.to_document(files.read(data.demo_rig("kittiwake"), data.reference()))
        with database.writing() as db:
            rig = f"/api/rigs/{rigs.add(db, document)}"
        begin = int(time.time()) // DAY * DAY - 366 * DAY

        def bring(content: bytes) -> float:
            start = time.perf_counter()
            at = f"{rig}/log/files"
            token = client.post(at, data=content, query_string={"zone": "UTC"}).get_json()["token"]
            client.get(f"{at}/{token}/import").get_data()
            return time.perf_counter() - start

        yield Row("Importing 200 000 readings of a monitor", (round(bring(minutes(begin, 200_000)), 1),), "s")
        bring(minutes(begin + 60 * 200_000, 525_600 - 200_000))
        last = client.get(f"{rig}/log/monitor").get_json()
        assert last["count"] > 500_000
        week = f"?from_day={last['last'] - 7}&to_day={last['last'] - 1}"
        drawn = timed(lambda: client.get(f"{rig}/log/monitor").get_data(), 20)
        yield row("A year of minutes, ready to be drawn", drawn)
        yield row("A week of it", timed(lambda: client.get(f"{rig}/log/monitor{week}").get_data(), 20))
        yield row("Its days", timed(lambda: client.get(f"{rig}/log/days").get_data(), 20))
        yield row("Use against the plan from it", timed(lambda: client.get(f"{rig}/log/use").get_data(), 20))
        yield row("Health from it", timed(lambda: client.get(f"{rig}/log/health").get_data(), 5))
        yield once("The season review with it", lambda: client.get(f"{rig}/log/review"))
        yield once("What the bank went through and cost", lambda: client.get(f"{rig}/log/so-far"))
        packed: list[bytes] = []
        yield once(
            "The rig with all of it as a ZIP", lambda: packed.append(client.get(f"{rig}/archive").data)
        )
        yield once("Taking that ZIP in", lambda: client.post("/api/rigs/import-archive", data=packed[0]))


def once(name: str, what: Callable[[], object]) -> Row:
    """What is asked for once, and then known."""
    start = time.perf_counter()
    what()
    return Row(name, (round(time.perf_counter() - start, 1),), "s")
