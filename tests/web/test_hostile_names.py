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

from hostile import HOSTILE, renamed
from sampled import sampled
from vast_harbor import data

SCRIPTED = ("script", "iframe", "object", "embed", "form")


class Tags(HTMLParser):
    """What a browser would build of a page."""

    def __init__(self) -> None:
        super().__init__()
        self.harm: list[str] = []
        self.texts: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        odd = [name for name, _ in attrs if name.startswith("on")]
        source = dict(attrs).get("src") or ""
        if tag in SCRIPTED or odd or (tag == "img" and not source.startswith("data:")):
            self.harm.append(f"{tag} {attrs}")

    def handle_data(self, data: str) -> None:
        self.texts.append(data)


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
        cells = [cell for row in csv.reader(io.StringIO(text)) for cell in row]
        return [c for c in cells if unicodedata.normalize("NFKC", c)[:1] in ("=", "@", "\t", "\r", "\n")]
    if kind == "text/calendar":
        # A line that goes on begins with a space.
        names = [re.split("[;:]", line)[0] for line in text.split("\r\n") if line and line[0] != " "]
        return [x for x in names if not re.fullmatch("[A-Z-]+", x)] + (
            ["events"]
            if names.count("BEGIN") != names.count("END") or "\n" in text.replace("\r\n", "")
            else []
        )
    return []


def addresses(client, rig: int) -> list[str]:
    """Every address that gives a paper, a table, a drawing or a calendar of a rig."""
    described = client.get("/api/openapi.json").get_json()["paths"]
    found = []
    for path, calls in described.items():
        kinds = set(calls.get("get", {}).get("responses", {}).get("200", {}).get("content", {}))
        if kinds & {"text/html", "text/csv", "image/svg+xml", "text/calendar"} and "{picture_id}" not in path:
            found.append(path.replace("{rig_id}", str(rig)))
    return found


@pytest.mark.parametrize("text", sampled(HOSTILE, HOSTILE[0], HOSTILE[3], HOSTILE[4], HOSTILE[6]))
def test_papers_tables_drawings_and_calendars_show_it_as_text(client, text) -> None:
    made = client.post("/api/rigs/import", json=renamed(data.demo_rig("kittiwake"), text))
    assert made.status_code == 201, made.text
    rig, name = made.get_json()["id"], made.get_json()["name"]
    kept = client.get(f"/api/rigs/{rig}").get_json()["document"]["rig"]["name"]
    assert not [c for c in name + kept if unicodedata.category(c) in ("Cc", "Cf")]
    entry = {"id": "odd", "line": f"12.9 V {text}", "at": int(datetime.now(UTC).timestamp()), "offset_min": 0}
    assert client.post(f"/api/rigs/{rig}/log", json=entry).status_code == 200
    asked = addresses(client, rig)
    assert len(asked) > 12
    for address in asked:
        answer = client.get(address)
        if answer.status_code == 200:
            assert not harm_of(answer.mimetype, answer.data), address
            told = answer.headers.get("Content-Disposition", "")
            assert not set("\r\n/\\<>") & set(told), told
    archive = zipfile.ZipFile(io.BytesIO(client.get(f"/api/rigs/{rig}/archive").data))
    assert not [n for n in archive.namelist() if n.startswith("/") or ".." in n]
