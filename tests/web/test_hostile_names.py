"""Whatever owners call things: every paper, drawing, table and calendar of a rig shows it as text."""

import csv
import io
import re
import unicodedata
import xml.etree.ElementTree as ET
import zipfile
from datetime import UTC, datetime
from html.parser import HTMLParser

import pytest

from hostile import HOSTILE, MOST_AT_ONCE, hostile_rig
from sampled import sampled
from vast_harbor.formats.csv_table import BOM

# Of what is asked for these are never missing.
NAMED = {"report", "shopping.csv", "drawing.svg", "print?what=booklet", "print?what=work_order", "duties.ics"}
SCRIPTED = ("script", "iframe", "object", "embed", "form")


class Tags(HTMLParser):
    """What a browser would build of a page."""

    def __init__(self) -> None:
        super().__init__()
        self.harm: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        odd = [name for name, _ in attrs if name.startswith("on")]
        source = dict(attrs).get("src") or ""
        if tag in SCRIPTED or odd or (tag == "img" and not source.startswith("data:")):
            self.harm.append(f"{tag} {attrs}")


def harm_of(kind: str, body: bytes) -> list[str]:
    """What in an answer would do something."""
    text = body.decode()
    if kind == "text/html":
        page = Tags()
        page.feed(text)
        return page.harm
    if kind == "image/svg+xml":
        found = ET.fromstring(text).iter()
        return [
            one.tag
            for one in found
            if one.tag.endswith("script") or any(a.startswith("on") for a in one.attrib)
        ]
    if kind == "text/csv":
        cells = [cell for row in csv.reader(io.StringIO(text.removeprefix(BOM))) for cell in row]
        return [c for c in cells if unicodedata.normalize("NFKC", c)[:1] in ("=", "@", "\t", "\r", "\n")]
    if kind == "text/calendar":
        # A line that goes on begins with a space. A duty that was made up has no name of its own.
        lines = [line for line in text.split("\r\n") if line and line[0] != " "]
        odd = [line for line in lines if not re.match("[A-Z-]+[;:]", line)]
        own = sum(line.startswith("UID:") for line in lines)
        return odd if lines.count("BEGIN:VEVENT") == own else [*odd, "BEGIN:VEVENT"]
    return []


def addresses(client, rig: int) -> list[str]:
    """Every address that gives a paper, a table, a drawing or a calendar of a rig."""
    described = client.get("/api/openapi.json").get_json()["paths"]
    found = []
    for path, calls in described.items():
        kinds = set(calls.get("get", {}).get("responses", {}).get("200", {}).get("content", {}))
        if kinds & {"text/html", "text/csv", "image/svg+xml", "text/calendar"} and "{picture_id}" not in path:
            found.append(path.replace("{rig_id}", str(rig)))
    papers = [f"/api/rigs/{rig}/changeover/print?what={what}" for what in ("booklet", "work_order")]
    return [*found, *papers, f"/api/rigs/{rig}/wiring.svg?candidate=used"]


@pytest.mark.parametrize("text", sampled(HOSTILE, *MOST_AT_ONCE))
def test_papers_tables_drawings_and_calendars_show_it_as_text(client, text) -> None:
    made = client.post("/api/rigs/import", json=hostile_rig(text))
    assert made.status_code == 201, made.text
    rig, name = made.get_json()["id"], made.get_json()["name"]
    kept = client.get(f"/api/rigs/{rig}").get_json()["document"]["rig"]["name"]
    assert not [c for c in name + kept if unicodedata.category(c) in ("Cc", "Cf")]
    entry = {"id": "odd", "line": f"12.9 V {text}", "at": int(datetime.now(UTC).timestamp()), "offset_min": 0}
    assert client.post(f"/api/rigs/{rig}/log", json=entry).status_code == 200
    asked = addresses(client, rig)
    shown = set()
    for address in asked:
        answer = client.get(address)
        if answer.status_code == 200:
            shown.add(address)
            assert not harm_of(answer.mimetype, answer.data), address
            told = answer.headers.get("Content-Disposition", "")
            assert not set("\r\n/\\<>") & set(told), told
    archive = zipfile.ZipFile(io.BytesIO(client.get(f"/api/rigs/{rig}/archive").data))
    assert not [n for n in archive.namelist() if n.startswith("/") or ".." in n]
    assert len(shown) > 17 and {at.rsplit("/", 1)[-1] for at in shown} >= NAMED
