"""Every table that leaves: by one rule for all, and read back after other programs wrote it anew."""

import csv
import io
import re

import pytest
from flask.testing import FlaskClient

from sampled import sampled
from vast_harbor import data
from vast_harbor.formats.csv_table import BOM

HEADING = re.compile(r"[^\[\]]*( \[[^\[\]]+\])?")


def tables(client: FlaskClient) -> list[str]:
    """The address of every table, with the id of a rig still open."""
    rules = [r.rule for r in client.application.url_map.iter_rules() if r.rule.endswith(".csv")]
    return [rule.replace("<int:rig_id>", "{rig}") for rule in rules]


@pytest.mark.parametrize("name", sampled(data.DEMO_RIGS, "long-haul"))
def test_every_table_is_written_by_one_rule(client, name) -> None:
    made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    bank = view["document"]["candidates"][0]["id"]
    addresses = tables(client)
    assert len(addresses) >= 9
    for address in addresses:
        query = {"bank": bank} if address.endswith("monitor.csv") else {}
        answer = client.get(address.format(rig=made["id"]), query_string=query)
        if answer.status_code == 404:
            assert address.endswith(("shopping.csv", "monitor.csv")), address
            continue
        text = answer.data.decode("utf-8")
        assert answer.mimetype == "text/csv" and text.startswith(BOM), address
        assert text.count("\n") == text.count("\r\n"), address
        heading, *lines = csv.reader(io.StringIO(text.removeprefix(BOM), newline=""))
        assert len(set(heading)) == len(heading) and all(HEADING.fullmatch(h) for h in heading), address
        assert {len(line) for line in lines} <= {len(heading)}, address
        # What is below nought is a number, and no text that a spreadsheet was kept from.
        assert not [c for line in lines for c in line if re.fullmatch(r"'-[\d.]+", c)], address
        for at, column in enumerate(heading):
            if "[" in column:
                numbers = [float(line[at]) for line in lines if line[at]]
                assert "%" not in column or all(0 <= n <= 100 for n in numbers), (address, column)


def by_spreadsheet(cell: str) -> str:
    """A cell as a spreadsheet of the Germans saves it: times with their seconds, a comma before decimals."""
    if re.fullmatch(r"\d\d:\d\d", cell):
        return f"{cell}:00"
    return cell.replace(".", ",") if re.fullmatch(r"-?\d+\.\d+", cell) else cell


def by_american_spreadsheet(cell: str) -> str:
    """The same of the Americans: times by half days."""
    if not re.fullmatch(r"\d\d:\d\d", cell):
        return cell
    hour = int(cell[:2])
    return f"{hour % 12 or 12:02d}:{cell[3:]}:00 {'PM' if hour >= 12 else 'AM'}"


def by_database(cell: str) -> str:
    """A cell as a database writes it: times with their seconds, truths as words, numbers with decimals."""
    if re.fullmatch(r"\d\d:\d\d", cell):
        return f"{cell}:00"
    return {"yes": "true", "no": "false"}.get(cell, f"{cell}.0" if re.fullmatch(r"-?\d+", cell) else cell)


@pytest.mark.parametrize(
    ("writes", "delimiter", "mark"),
    [(by_spreadsheet, ";", BOM), (by_american_spreadsheet, ",", ""), (by_database, ",", ""), (str, "\t", "")],
)
@pytest.mark.parametrize("what", ["loads", "models"])
def test_a_table_that_another_program_wrote_anew_says_the_same(client, writes, delimiter, mark, what) -> None:
    name = "kittiwake" if what == "loads" else "mulga"
    made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]
    rig = f"/api/rigs/{made['id']}"
    address = f"{rig}/loads.csv" if what == "loads" else "/api/catalogue.csv"
    text = client.get(address).data.decode("utf-8-sig")
    rows = list(csv.reader(io.StringIO(text, newline="")))[:40]
    out = io.StringIO()
    out.write(mark)
    heading, *lines = rows
    for line in lines:
        line[heading.index("name")] += " II"
    again = csv.writer(out, delimiter=delimiter, lineterminator="\n")
    again.writerows([heading, *([writes(cell) for cell in line] for line in lines)])

    def read(content: str) -> list[dict[str, object]]:
        sent = {"data": content.encode(), "headers": {"Content-Type": "text/csv"}}
        found = client.post(f"{rig}/{what}/preview", **sent).get_json()["rows"]
        assert len(found) == len(lines) and all(not row["problems"] for row in found), found
        return found

    plain = io.StringIO()
    csv.writer(plain).writerows(rows)
    assert read(out.getvalue()) == read(plain.getvalue())
