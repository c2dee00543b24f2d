"""Make the logs of the demo rigs: what a trial gives, with noise and gaps, and what an owner would note.

    .venv/bin/python tools/demo_logs.py

Seeded: the same files come out again. Days are counted back from the day on which a demo rig is added.
"""

import csv
import gzip
import io
from pathlib import Path

import numpy as np

from vast_harbor import data
from vast_harbor.core.passage import evaluate
from vast_harbor.core.stops.trial import readings
from vast_harbor.formats import rig_file as files

FOLDER = Path(data.__file__).parent / "demo" / "logs"
STEP_S = 900


def write(name: str, entries: list[tuple[int, str, str]], rows: list[tuple[float, ...]] = ()) -> None:
    """Keep the log of a demo rig: lines by days back and clock, and readings by seconds back."""
    text = io.StringIO()
    table = csv.writer(text, lineterminator="\n")
    table.writerow(("days_back", "clock", "line"))
    table.writerows(sorted(entries, key=lambda e: (-e[0], e[1])))
    (FOLDER / f"{name}.csv").write_text(text.getvalue(), "utf-8")
    if rows:
        text = io.StringIO()
        table = csv.writer(text, lineterminator="\n")
        table.writerow(("seconds_back", "volts", "amps", "soc", "celsius"))
        table.writerows(rows)
        packed = gzip.compress(text.getvalue().encode(), 9, mtime=0)
        (FOLDER / f"{name}.monitor.csv.gz").write_bytes(packed)


def kittiwake() -> None:
    """A boat whose monitor logged six weeks."""
    rng = np.random.default_rng(11)
    reference = data.reference()
    rig = files.read(data.demo_rig("kittiwake"), reference)
    results = evaluate(files.to_plan(rig, reference, "2026-11-01"), reference)
    trial = results.simulated.trial
    stretch = next(r for r in trial.candidates if not r.dark)
    once = list(readings(trial, stretch))
    days = 42
    count = days * 86_400 // STEP_S
    gap = range(count // 2, count // 2 + 70)
    off, rows = 0.0, []
    for i in range(count):
        r = once[i % len(once)]
        if i % 96 == 0:
            off = rng.normal(1, 0.07)
        if i in gap or rng.random() < 0.004:
            continue
        amps = r.amps * off if r.amps < 0 else r.amps
        amps += rng.normal(0, 0.1) - 16.0 / 12.7
        rows.append(
            ((count - i) * STEP_S, round(r.volts, 2), round(amps, 1), round(r.soc, 3), round(r.celsius, 1))
        )
    entries = [
        (41, "18:20", "12.7 V load 3 A 88 %"),
        (36, "09:05", "water pump seal replaced, dry since"),
        (30, "08:40", "12.6 V 8 C rested"),
        (27, "16:10", "cleaned terminals, one was green"),
        (20, "19:30", "generator 1h20"),
        (12, "08:15", "12.5 V 6 C rested"),
        (5, "21:00", "low volts alarm at night, kettle on the inverter"),
    ]
    write("kittiwake", entries, rows)


def long_haul() -> None:
    """A truck whose eight batteries are read one by one, now and then."""
    rng = np.random.default_rng(12)
    own = rng.normal(0, 0.006, 9)
    entries = [
        (340, "10:00", "water 1.1 l"),
        (255, "17:30", "equalised 4 h"),
        (238, "10:20", "water 0.8 l"),
        (171, "09:45", "paid 38 for distilled water and gloves"),
        (120, "18:00", "equalised 4 h"),
        (96, "09:10", "water 1.3 l"),
        (61, "12:00", "generator 2h10"),
        (33, "15:00", "work: torqued all lugs"),
    ]
    for days in (330, 281, 226, 170, 112, 60, 18):
        level = 6.28 + 0.05 * rng.random()
        for n in range(1, 9):
            if rng.random() < 0.06:
                continue
            volts = level + own[n] + rng.normal(0, 0.007)
            if n == 5:
                volts -= 0.012 + 0.00035 * (330 - days)
            entries.append((days, f"07:{10 + 2 * n:02}", f"battery {n} {volts:.2f} V rested"))
    write("long-haul", entries)


def mulga() -> None:
    """A caravan whose old bank is tested each year."""
    rng = np.random.default_rng(13)
    entries = [
        (1010, "11:00", "cleaned terminals"),
        (420, "16:20", "paid 22 for terminal grease"),
        (150, "08:30", "12.8 V 18 C rested"),
        (45, "17:45", "generator 0h40"),
    ]
    for days, health in ((1385, 0.995), (1020, 0.985), (655, 0.965), (290, 0.95), (25, 0.94)):
        # 240 Ah over 20 h; at 12 A nearly all of it.
        hours = 240 * health * (1 + rng.normal(0, 0.012)) / 12
        entries.append((days, "08:00", f"capacity test 12 A {hours:.1f} h {rng.integers(19, 25)} C"))
    write("mulga", entries)


if __name__ == "__main__":
    FOLDER.mkdir(exist_ok=True)
    for make in (kittiwake, long_haul, mulga):
        make()
    for path in sorted(FOLDER.iterdir()):
        print(path.name, path.stat().st_size)
