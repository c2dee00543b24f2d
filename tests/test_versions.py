"""Rig files and databases of earlier versions, as they were written then: they stay readable.

``tests/versions`` holds a rig file for each shape that the format has had, and a database of each version, in
which one rig was edited, one deleted, and an appliance kept. One that lands with a new shape adds its own.
"""

import gzip
from datetime import timedelta
from pathlib import Path

import pytest

from sampled import sampled
from vast_harbor.core.passage import evaluate
from vast_harbor.formats import rig_file as files
from vast_harbor.store import backup, rigs
from vast_harbor.store.database import Database
from vast_harbor.store.versions import scripts
from vast_harbor.web.server.app import create_app

FOLDER = Path(__file__).parent / "versions"
FILES = sorted(FOLDER.glob("*.rig.json"))
DATABASES = sorted(FOLDER.glob("database-*.db.gz"))


@pytest.mark.parametrize("file", sampled(FILES, *FILES[::3], FILES[-1]), ids=lambda p: p.name)
def test_a_rig_file_of_an_earlier_version_is_read(file, reference) -> None:
    rig = files.read(files.loads_text(file.read_bytes()), reference)
    written = files.to_document(rig)
    # What is written today says the same, and is computed.
    assert files.read(written, reference) == rig
    assert evaluate(files.to_plan(rig, reference), reference, found=()).day.bank_wh.number > 0


def test_every_version_of_the_database_is_here() -> None:
    numbers = [int(p.name.split("-")[1].split(".")[0]) for p in DATABASES]
    # The newest one is made by this program.
    assert numbers == list(range(1, len(numbers) + 1)) and len(numbers) >= len(scripts()) - 1


@pytest.mark.parametrize("packed", sampled(DATABASES, DATABASES[0], DATABASES[-1]), ids=lambda p: p.name)
def test_a_database_of_an_earlier_version_is_opened_with_all_it_holds(packed, tmp_path) -> None:
    path = tmp_path / "harbor.sqlite3"
    path.write_bytes(gzip.decompress(packed.read_bytes()))
    before = int(packed.name.split("-")[1].split(".")[0])
    database = Database(path)
    assert [p.name for p in backup.kept(path)] == [f"harbor-version-{before}.sqlite3"]
    client = create_app(database).test_client()
    cards = client.get("/api/rigs").get_json()["rigs"]
    assert len(cards) == 4
    for card in cards:
        assert client.get(f"/api/rigs/{card['id']}?stop=rig").status_code == 200, card["name"]
    # One is worked out in full; that every rig can be does not depend on the database.
    assert client.get(f"/api/rigs/{cards[-1]['id']}/card").status_code == 200
    # The journal of the edit that an earlier version made still leads back.
    rig = client.get("/api/rigs/1").get_json()["whole"]
    assert rig["document"]["rig"]["notes"] == "Edited by an older version"
    answer = client.post("/api/rigs/1/undo", json={"revision": rig["revision"]})
    assert answer.get_json()["did"] == "notes"
    assert (
        client.get("/api/rigs/1").get_json()["whole"]["document"]["rig"]["notes"]
        != rig["document"]["rig"]["notes"]
    )
    own = client.get("/api/appliances").get_json()["appliances"]
    assert [a["name"] for a in own] == (["My old pump"] if before > 1 else [])
    with database.writing() as db:
        # It was deleted when the file was made, which is long ago by now.
        db.execute("UPDATE rig SET deleted_at = ? WHERE id = 2", (rigs.days_ago(timedelta(days=1)),))
        rigs.restore(db, 2)
    assert client.get("/api/rigs/2").status_code == 200
    # It can be put in place of what is here, too.
    put = client.post("/api/restore", data=gzip.decompress(packed.read_bytes()))
    assert put.get_json()["rigs"] == 4 and client.get("/api/rigs/2").status_code == 404


def test_an_import_that_names_a_battery_which_is_gone_is_refused(reference) -> None:
    document = files.loads_text(FILES[-1].read_bytes())
    document["candidates"][0]["model"] = "gone-100"
    with pytest.raises(files.RigFileError, match="no battery “gone-100”"):
        files.read(document, reference)
