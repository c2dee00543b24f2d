"""What programs of other people make of our files; runs with those of ``tools/clients.txt``, not with ours.

Usage: clients_read.py FOLDER. It holds a folder for each rig with its files. Loads and batteries are written
anew beside them as ``NAME.PROGRAM.csv``, drawings as ``NAME.PROGRAM.png``; what was found goes to
``found.json``: a list of [program, what, whether it did, what it said].
"""

import csv
import json
import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

Found = tuple[str, str, bool, str]


def tried(program: str, what: str, work: Callable[[], str]) -> Found:
    """What came of a trial; what it raises is the answer."""
    try:
        return program, what, True, work()
    except Exception as error:
        return program, what, False, f"{type(error).__name__}: {str(error)[:160]}"


def heading(file: Path) -> list[str]:
    """The first row as the table has it."""
    with file.open(encoding="utf-8-sig", newline="") as text:
        return next(csv.reader(text))


def is_number(name: str) -> bool:
    """Whether a column holds numbers, by the unit in its heading."""
    return name.endswith("]")


def tables(folder: Path) -> list[Path]:
    """Every table as we wrote it."""
    return sorted(f for f in folder.rglob("*.csv") if f.suffixes == [".csv"])


def by_pandas(folder: Path) -> str:
    """Every table, with the columns that we named and numbers where a unit stands."""
    import pandas

    for file in tables(folder):
        table = pandas.read_csv(file)
        assert list(table.columns) == heading(file), file.name
        numbers = [c for c in table if is_number(c) and table[c].notna().any()]
        words = [c for c in numbers if not pandas.api.types.is_numeric_dtype(table[c])]
        assert not words, (file.name, words)
        if file.stem in ("loads", "catalogue"):
            pandas.read_csv(file, dtype=str, keep_default_na=False).to_csv(
                file.with_suffix(".pandas.csv"), index=False
            )
    return f"{len(tables(folder))} tables"


def by_polars(folder: Path) -> str:
    """The same."""
    import polars

    for file in tables(folder):
        table = polars.read_csv(file, infer_schema_length=None)
        assert table.columns == heading(file), (file.name, table.columns[:2])
        numbers = [c for c in table.columns if is_number(c) and table[c].drop_nulls().len()]
        words = [c for c in numbers if table[c].dtype == polars.String]
        assert not words, (file.name, words)
    return f"{len(tables(folder))} tables"


def by_duckdb(folder: Path) -> str:
    """The same, and tables written anew as it writes them."""
    import duckdb

    for file in tables(folder):
        table = duckdb.sql(f"SELECT * FROM read_csv('{file}', sample_size = -1)")
        assert table.columns == heading(file), (file.name, table.columns[:2])
        if file.stem in ("loads", "catalogue"):
            duckdb.sql(f"COPY ({table.sql_query()}) TO '{file.with_suffix('.duckdb.csv')}' (HEADER)")
    return f"{len(tables(folder))} tables"


def by_spreadsheet(folder: Path) -> str:
    """Loads and batteries through a workbook, as owners of a spreadsheet keep them."""
    import openpyxl

    count = 0
    for file in tables(folder):
        if file.stem not in ("loads", "catalogue"):
            continue
        book = openpyxl.Workbook()
        sheet = book.active
        with file.open(encoding="utf-8-sig", newline="") as text:
            for row in csv.reader(text):
                sheet.append([as_typed(cell) for cell in row])
        book.save(file.with_suffix(".xlsx"))
        rows = openpyxl.load_workbook(file.with_suffix(".xlsx")).active.values
        with file.with_suffix(".openpyxl.csv").open("w", encoding="utf-8", newline="") as out:
            csv.writer(out, delimiter=";").writerows(rows)
        count += 1
    return f"{count} workbooks"


def as_typed(cell: str) -> Any:
    """A cell as a spreadsheet understands it."""
    try:
        return float(cell)
    except ValueError:
        return cell or None


def drawn(folder: Path, program: str, draw: Callable[[str], bytes]) -> str:
    """Every drawing, near to what the browser drew of it."""
    import io

    import numpy as np
    from PIL import Image

    worst, least = 0.0, 2.0
    for file in sorted(folder.rglob("*.svg")):
        picture = draw(file.read_text("utf-8"))
        file.with_suffix(f".{program}.png").write_bytes(picture)
        theirs = Image.open(io.BytesIO(picture)).convert("L")
        ours = Image.open(file.with_suffix(".browser.png")).convert("L").resize(theirs.size)
        apart = np.abs(np.asarray(theirs, float) - np.asarray(ours, float)) > 96
        worst = max(worst, float(apart.mean()))
        # All of the ink is there, the words too, and nothing else.
        ink = [float((np.asarray(one) < 128).mean()) for one in (theirs, ours)]
        least = min(least, ink[0] / ink[1], ink[1] / ink[0])
    assert worst < 0.04, f"{worst:.1%} of the points differ"
    assert least > 0.85, f"{least:.0%} of the ink is there"
    return f"at most {worst:.1%} of the points differ, {least:.0%} of the ink"


def by_resvg(folder: Path) -> str:
    """Drawings by resvg."""
    import resvg_py

    return drawn(folder, "resvg", lambda text: bytes(resvg_py.svg_to_bytes(svg_string=text)))


def by_cairosvg(folder: Path) -> str:
    """Drawings by CairoSVG."""
    import cairosvg

    return drawn(folder, "cairosvg", lambda text: cairosvg.svg2png(bytestring=text.encode()))


def by_rsvg(folder: Path) -> str:
    """Drawings by librsvg, the library of many desktops."""
    return drawn(folder, "rsvg", lambda text: piped(["rsvg-convert"], text))


def by_inkscape(folder: Path) -> str:
    """Drawings by Inkscape."""
    line = ["inkscape", "--pipe", "--export-type=png", "--export-filename=-"]
    return drawn(folder, "inkscape", lambda text: piped(line, text))


def piped(line: list[str], text: str) -> bytes:
    """What a program makes of a text."""
    return subprocess.run(line, input=text.encode(), capture_output=True, check=True).stdout


def by_libreoffice(folder: Path) -> str:
    """Loads and batteries opened and saved again by LibreOffice, with its default settings."""
    count = 0
    for file in tables(folder):
        if file.stem in ("loads", "catalogue"):
            out = file.parent / "libreoffice"
            line = ["soffice", "--headless", "--convert-to", "csv", "--outdir", str(out), str(file)]
            subprocess.run(line, capture_output=True, check=True)
            shutil.copy(out / file.name, file.with_suffix(".libreoffice.csv"))
            shutil.rmtree(out)
            count += 1
    return f"{count} tables"


def calendars(folder: Path) -> Iterator[tuple[Path, int]]:
    """Every calendar, and how many events it holds."""
    for file in sorted(folder.rglob("*.ics")):
        yield file, file.read_text("utf-8").count("BEGIN:VEVENT")


def by_icalendar(folder: Path) -> str:
    """Calendars by icalendar."""
    import icalendar

    total = 0
    for file, count in calendars(folder):
        read = icalendar.Calendar.from_ical(file.read_bytes())
        assert len(read.walk("VEVENT")) == count, file
        total += count
    return f"{total} events"


def by_ics(folder: Path) -> str:
    """Calendars by ics."""
    import ics

    total = 0
    for file, count in calendars(folder):
        assert len(ics.Calendar(file.read_text("utf-8")).events) == count, file
        total += count
    return f"{total} events"


def by_vobject(folder: Path) -> str:
    """Calendars by vobject."""
    import vobject

    total = 0
    for file, count in calendars(folder):
        read = next(vobject.readComponents(file.read_text("utf-8")))
        assert len(read.contents.get("vevent", ())) == count, file
        total += count
    return f"{total} events"


def by_jsonschema(folder: Path) -> str:
    """Rig files against the schema that we publish."""
    import jsonschema

    schema = json.loads((folder / "rig-file.schema.json").read_text("utf-8"))
    rigs = sorted(folder.rglob("*.rig.json"))
    for file in rigs:
        jsonschema.Draft202012Validator(schema).validate(json.loads(file.read_text("utf-8")))
    return f"{len(rigs)} rig files"


def by_fastjsonschema(folder: Path) -> str:
    """The same."""
    import fastjsonschema

    validate = fastjsonschema.compile(json.loads((folder / "rig-file.schema.json").read_text("utf-8")))
    rigs = sorted(folder.rglob("*.rig.json"))
    for file in rigs:
        validate(json.loads(file.read_text("utf-8")))
    return f"{len(rigs)} rig files"


def by_openapi_spec_validator(folder: Path) -> str:
    """The description of the API."""
    import openapi_spec_validator

    described = json.loads((folder / "openapi.json").read_text("utf-8"))
    openapi_spec_validator.validate(described)
    return f"{len(described['paths'])} addresses"


TRIALS = (
    ("pandas", "CSV", by_pandas), ("Polars", "CSV", by_polars), ("DuckDB", "CSV", by_duckdb),
    ("openpyxl", "CSV through a workbook", by_spreadsheet), ("resvg", "wiring drawing", by_resvg),
    ("CairoSVG", "wiring drawing", by_cairosvg), ("icalendar", "calendar", by_icalendar),
    ("ics", "calendar", by_ics), ("vobject", "calendar", by_vobject),
    ("jsonschema", "rig file", by_jsonschema), ("fastjsonschema", "rig file", by_fastjsonschema),
    ("openapi-spec-validator", "description of the API", by_openapi_spec_validator),
)  # fmt: skip
# Tried where they are installed.
INSTALLED = (
    ("rsvg-convert", "librsvg", "wiring drawing", by_rsvg),
    ("inkscape", "Inkscape", "wiring drawing", by_inkscape),
    ("soffice", "LibreOffice", "CSV", by_libreoffice),
)


def main() -> None:
    """Try all of them."""
    folder = Path(sys.argv[1])
    there = [(name, what, of) for command, name, what, of in INSTALLED if shutil.which(command)]
    found = [tried(name, what, lambda of=of: of(folder)) for name, what, of in (*TRIALS, *there)]
    (folder / "found.json").write_text(json.dumps(found), "utf-8")


if __name__ == "__main__":
    main()
