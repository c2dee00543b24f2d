"""What leaves and enters, tried with software that other people wrote: ``make clients``.

Usage: clients.py FOLDER PYTHON, a folder to work in and the Python that has what ``tools/clients.txt`` lists.
Everything that the demo rigs give out is fetched from a server on the loopback address and read there. What
can come in again is compared with what came of the file as we wrote it. Prints a table; with ``--write`` puts
it into ``docs/formats.md``.
"""

import json
import shutil
import subprocess
import sys
import urllib.request
from pathlib import Path
from typing import Any

from playwright.sync_api import sync_playwright
from served import CHROMIUM, FLAGS, server

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs" / "formats.md"
BEGIN, END = "<!-- clients -->", "<!-- /clients -->"
# What each rig gives out, by the name of the file.
FILES = {
    "loads.csv": "loads.csv", "catalogue.csv": "../../catalogue.csv", "batteries.csv": "models.csv",
    "comparison.csv": "report/comparison.csv", "cash-flow.csv": "report/cash-flow.csv", "log.csv": "log.csv",
    "readings.csv": "log/readings.csv", "shopping.csv": "changeover/shopping.csv",
    "monitor.csv": "monitor.csv?bank={bank}", "wiring.svg": "wiring.svg?candidate={bank}",
    "duties.ics": "log/duties.ics", "plan.rig.json": "file",
}  # fmt: skip


def asked(address: str, data: bytes | None = None) -> bytes | None:
    """What is answered; None where there is none."""
    kind = {"Content-Type": "text/csv"} if data is not None else {}
    try:
        with urllib.request.urlopen(urllib.request.Request(address, data, kind), timeout=120) as answer:
            return bytes(answer.read())
    except urllib.error.HTTPError as error:
        if error.code == 404:
            return None
        raise


def fetch(address: str, folder: Path) -> dict[str, str]:
    """Every file of the demo rigs into a folder for each; the address of each rig."""
    rigs = {}
    for card in json.loads(asked(f"{address}/api/rigs") or b"")["rigs"]:
        rig, place = f"{address}/api/rigs/{card['id']}", folder / f"rig-{card['id']}"
        place.mkdir(parents=True)
        bank = json.loads(asked(rig) or b"")["whole"]["document"]["candidates"][0]["id"]
        for name, at in FILES.items():
            url = (
                address + "/api/catalogue.csv" if name == "catalogue.csv" else f"{rig}/{at.format(bank=bank)}"
            )
            if (body := asked(url)) is not None:
                (place / name).write_bytes(body)
        rigs[place.name] = rig
    (folder / "openapi.json").write_bytes(asked(f"{address}/api/openapi.json") or b"")
    shutil.copy(ROOT / "docs" / "rig-file.schema.json", folder)
    return rigs


def picture(folder: Path) -> None:
    """Every drawing as the browser shows it."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page()
        for file in folder.rglob("*.svg"):
            page.goto(file.as_uri())
            page.locator("svg").first.screenshot(path=file.with_suffix(".browser.png"))
        browser.close()


def preview(rig: str, what: str, body: bytes) -> list[dict[str, Any]]:
    """What came of a table, line by line."""
    found: list[dict[str, Any]] = json.loads(asked(f"{rig}/{what}/preview", body) or b"")["rows"]
    return found


def returned(rigs: dict[str, str], folder: Path) -> list[tuple[str, str, bool, str]]:
    """What comes of the tables that others wrote anew, beside the same as we wrote it."""
    out: dict[str, list[bool]] = {}
    for place, rig in rigs.items():
        for name, what in (("loads", "loads"), ("catalogue", "models")):
            plain = preview(rig, what, (folder / place / f"{name}.csv").read_bytes())
            for file in sorted((folder / place).glob(f"{name}.*.csv")):
                program = {"duckdb": "DuckDB", "libreoffice": "LibreOffice"}.get(p := file.suffixes[0][1:], p)
                out.setdefault(program, []).append(preview(rig, what, file.read_bytes()) == plain)
    return [
        (program, "CSV written anew and taken in", all(same), f"{sum(same)} of {len(same)} tables equal")
        for program, same in out.items()
    ]


def main() -> int:
    """Try all of it; 1 where something failed."""
    folder, python = Path(sys.argv[1]).resolve(), sys.argv[2]
    shutil.rmtree(folder, ignore_errors=True)
    with server("demo") as (address, _):
        rigs = fetch(address, folder)
        picture(folder)
        subprocess.run([python, ROOT / "tools" / "clients_read.py", folder], check=True)
        found = json.loads((folder / "found.json").read_text("utf-8"))
        found += returned(rigs, folder)
    lines = ["| Program | What | Result |", "|---|---|---|"]
    lines += [f"| {name} | {what} | {says if did else f'**{says}**'} |" for name, what, did, says in found]
    table = "\n".join(lines)
    print(table)
    if "--write" in sys.argv:
        text = PAGE.read_text("utf-8")
        before, rest = text.split(BEGIN)
        PAGE.write_text(f"{before}{BEGIN}\n{table}\n{END}{rest.split(END)[1]}", "utf-8")
    return 0 if all(did for _, _, did, _ in found) else 1


if __name__ == "__main__":
    sys.exit(main())
