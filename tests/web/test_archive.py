"""A rig with its log, readings and pictures as one ZIP: it comes back equal, and what does not belong, or is
not what it says, leaves nothing behind."""

import io
import json
import zipfile

import numpy as np
import pytest
from PIL import Image

from vast_harbor.formats import rig_archive
from vast_harbor.store import monitor, pictures, rigs
from vast_harbor.web.harbor import archive

ARCHIVE = "/api/rigs/import-archive"
HEAD = b"at,offset_min,volts,amps,soc,celsius\n"


def jpeg(seed: int, exif: bytes = b"") -> bytes:
    noise = np.random.default_rng(seed).integers(0, 255, (60, 90, 3), dtype=np.uint8)
    out = io.BytesIO()
    Image.fromarray(noise).save(out, "JPEG", exif=exif)
    return out.getvalue()


@pytest.fixture
def full(client):
    """The address of a rig with a log, readings and pictures."""
    made = client.post("/api/rigs/demo", json={"name": "kittiwake"}).get_json()["rigs"][0]
    at = f"/api/rigs/{made['id']}"
    first = client.get(f"{at}/log").get_json()["entries"][0]["id"]
    for n, place in enumerate((f"entry:{first}", "wiring", "step:photo")):
        sent = client.post(f"{at}/pictures?id=p{n}&place={place}&name=n{n}.jpg", data=jpeg(n))
        assert sent.status_code == 200
    return at


def packed(client, at: str) -> bytes:
    answer = client.get(f"{at}/archive")
    assert answer.status_code == 200 and "-with-log.zip" in answer.headers["Content-Disposition"]
    return answer.data


def members(body: bytes) -> dict[str, bytes]:
    with zipfile.ZipFile(io.BytesIO(body)) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


def put(body: bytes, name: str, content: bytes | None) -> bytes:
    """The archive with another member in place of one; None takes it out."""
    held = members(body)
    held.pop(name, None)
    if content is not None:
        held[name] = content
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in held.items():
            archive.writestr(name, content)
    return out.getvalue()


def edited(body: bytes, name: str, change) -> bytes:
    said = json.loads(members(body)[name])
    change(said)
    return put(body, name, json.dumps(said).encode())


def all_of(client, at: str) -> dict:
    """Everything that a rig shows of its log."""
    held = members(packed(client, at))
    file = json.loads(held.pop("rig.json"))
    file["rig"].pop("name")
    days = client.get(f"{at}/log/days?limit=400").get_json()
    health = client.get(f"{at}/log/health").get_json()
    return {"members": held, "file": file, "days": days, "health": health}


def test_what_is_exported_comes_back_equal_and_once(client, full) -> None:
    body = packed(client, full)
    made = client.post(f"{ARCHIVE}?key=k1", data=body)
    assert made.status_code == 201 and made.get_json()["name"] == "Kittiwake (2)"
    again = f"/api/rigs/{made.get_json()['id']}"
    before, after = all_of(client, full), all_of(client, again)
    assert len(before["members"]) == 9 and len(before["members"]["readings/0.csv"]) > 100_000
    assert after == before
    # Sent again after an answer that was lost, it is there once.
    assert client.post(f"{ARCHIVE}?key=k1", data=body).get_json() == made.get_json()
    assert client.get(f"{again}/log").get_json()["count"] == client.get(f"{full}/log").get_json()["count"]


def test_a_copy_that_another_program_packed_anew_is_taken(client, full) -> None:
    body = packed(client, full)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as anew:
        for name in ("my boat/", "my boat/pictures/", "__MACOSX/"):
            anew.mkdir(name)
        for name, inside in reversed(members(body).items()):
            anew.writestr(f"my boat/{name}", inside)
        for name in ("__MACOSX/my boat/._rig.json", "my boat/.DS_Store", "my boat/pictures/Thumbs.db"):
            anew.writestr(name, b"x")
    made = client.post(ARCHIVE, data=out.getvalue())
    assert made.status_code == 201, made.get_json()
    assert all_of(client, f"/api/rigs/{made.get_json()['id']}") == all_of(client, full)


def bomb(body: bytes) -> bytes:
    return put(body, "readings/0.csv", b"0" * 250_000_000)


def broken(body: bytes) -> bytes:
    return body[: len(body) // 2]


def lying(body: bytes) -> bytes:
    """A member that unfolds to more than its directory says."""
    where = body.rindex(b"PK\x01\x02")
    place = body.index(b"log.json", body.index(b"PK\x01\x02")) - 46 + 24
    assert where and body[place - 24 : place - 20] == b"PK\x01\x02"
    return body[:place] + (5).to_bytes(4, "little") + body[place + 4 :]


def first_entry(**fields):
    return lambda said: said["entries"][0].update(fields)


def retold(other: object):
    """Another account of what was found in the file of a monitor."""

    def change(said) -> None:
        of = said["readings"][0]
        whole = json.loads(of["told"])
        of["told"] = json.dumps({**whole, **other} if isinstance(other, dict) and other else other)

    return change


BAD = {
    "climbs": (lambda b: put(b, "../../etc/passwd", b"x"), "does not belong"),
    "absolute": (lambda b: put(b, "/tmp/x", b"x"), "does not belong"),
    "climbing picture": (lambda b: put(b, "pictures/../x.jpg", b"x"), "does not belong"),
    "two folders": (lambda b: put(put(b, "a/x", b"x"), "b/x", b"x"), "does not belong"),
    "bomb": (bomb, "would unfold to"),
    "half": (broken, "damaged"),
    "lying": (lying, "damaged"),
    "no zip": (lambda b: b"hello", "not a ZIP file of a rig"),
    "no rig": (lambda b: put(b, "rig.json", None), "“rig.json” is missing"),
    "no readings": (lambda b: put(b, "readings/0.csv", None), "“readings/0.csv” is missing"),
    "not named": (lambda b: put(b, "pictures/other.jpg", jpeg(5)), "“pictures/other.jpg” is missing"),
    "bad rig": (lambda b: edited(b, "rig.json", lambda d: d["rig"].update(system_v=13)), "system"),
    "bad list": (lambda b: edited(b, "archive.json", lambda d: d.update(version=9)), "cannot be read"),
    "told nothing": (lambda b: edited(b, "archive.json", retold({})), "cannot be read"),
    "told no number": (lambda b: edited(b, "archive.json", retold({"offset_min": "x"})), "cannot be read"),
    "told a list": (lambda b: edited(b, "archive.json", retold([1])), "cannot be read"),
    "told no time": (lambda b: edited(b, "archive.json", retold({"gaps": 1, "longest_gap": [1e300, 0]})),
                     "cannot be read"),
    "bad readings": (lambda b: put(b, "readings/0.csv", b"at,offset_min\n1,2\n"), "cannot be read"),
    "words": (lambda b: put(b, "readings/0.csv", HEAD + b"1,2,a,b,c,d\n"), "cannot be read"),
    "130 V": (lambda b: edited(b, "log.json", first_entry(volts=130.0)), "130 V"),
    "bad entry": (lambda b: edited(b, "log.json", first_entry(at="soon")), "Entry 1 of the log"),
    "unknown field": (lambda b: edited(b, "log.json", first_entry(rig_id=1)), "Entry 1 of the log"),
    "twice": (lambda b: edited(b, "log.json", lambda d: d["entries"].append(d["entries"][0])), "Entry 8"),
    "no picture": (lambda b: put(b, "pictures/p1.jpg", b"GIF89a"), "The picture “n1.jpg”"),
}  # fmt: skip


def test_what_cannot_be_taken_is_told_and_leaves_nothing(client, full) -> None:
    body = packed(client, full)
    for name, (make, says) in BAD.items():
        answer = client.post(ARCHIVE, data=make(body))
        assert answer.status_code == 422, name
        assert says in answer.get_json()["problems"][0]["message"], (name, answer.get_json())
    assert [r["name"] for r in client.get("/api/rigs").get_json()["rigs"]] == ["Kittiwake"]


def test_the_place_in_a_picture_that_was_put_in_from_outside_does_not_come_in(client, full) -> None:
    exif = Image.Exif()
    exif[0x8825] = {1: "N", 2: (54.0, 30.0, 0.0)}
    tracked = put(packed(client, full), "pictures/p1.jpg", jpeg(1, exif.tobytes()))
    at = f"/api/rigs/{client.post(ARCHIVE, data=tracked).get_json()['id']}"
    with Image.open(io.BytesIO(client.get(f"{at}/pictures/p1.jpg").data)) as shown:
        assert not shown.getexif() and shown.size == (90, 60)


SECRET = b"Home at 54.5 N"


@pytest.mark.parametrize(
    "marker", [b"\xff\xe0", b"\xff\xe1", b"\xff\xe4", b"\xff\xeb", b"\xff\xec", b"\xff\xfe", b""]
)
def test_nothing_beside_the_picture_comes_in_with_it(client, full, marker) -> None:
    plain = jpeg(1)
    if marker:
        said = b"JFXX\0" + SECRET
        hidden = plain[:2] + marker + (len(said) + 2).to_bytes(2) + said + plain[2:]
    else:
        # Behind its end, where no viewer looks.
        hidden = plain + SECRET
    sent = put(packed(client, full), "pictures/p1.jpg", hidden)
    at = f"/api/rigs/{client.post(ARCHIVE, data=sent).get_json()['id']}"
    kept = client.get(f"{at}/pictures/p1.jpg").data
    assert SECRET not in kept
    with Image.open(io.BytesIO(kept)) as shown:
        assert shown.size == (90, 60)
    # One without anything beside it stays as it is, to the byte.
    again = put(packed(client, full), "pictures/p1.jpg", plain)
    at = f"/api/rigs/{client.post(ARCHIVE, data=again).get_json()['id']}"
    assert client.get(f"{at}/pictures/p1.jpg").data == plain


@pytest.fixture
def in_small_slices(monkeypatch):
    monkeypatch.setattr(archive, "READINGS_AT_ONCE", 50)
    monkeypatch.setattr(rig_archive, "BLOCK", 200)


def kept_of(client, rig_id: int) -> int:
    """Rows of readings of a rig, whether it is shown or not."""
    with client.application.config["DATABASE"].reading() as db:
        found = db.execute("SELECT count(*) FROM monitor_reading WHERE rig_id = ?", (rig_id,)).fetchone()
    return int(found[0])


def test_others_write_while_an_archive_comes_which_is_shown_when_it_is_whole(
    client, full, in_small_slices, monkeypatch
) -> None:
    body, add = packed(client, full), monitor.add
    seen = []

    def between_slices(db, rig_id, *rest):
        # Nobody else is in the way: what is kept so far is no long transaction.
        seen.append(
            (rig_id, [r["id"] for r in client.get("/api/rigs").get_json()["rigs"]], kept_of(client, rig_id))
        )
        return add(db, rig_id, *rest)

    monkeypatch.setattr(monitor, "add", between_slices)
    made = client.post(ARCHIVE, data=body).get_json()["id"]
    assert len(seen) > 5 and all(rig_id == made and made not in shown for rig_id, shown, _ in seen)
    counts = [count for _, _, count in seen]
    assert counts == sorted(counts) and counts[-1] > counts[0]
    assert client.get(f"/api/rigs/{made}").status_code == 200
    assert all_of(client, f"/api/rigs/{made}") == all_of(client, full)


@pytest.mark.parametrize("restarted", [False, True])
def test_what_did_not_come_whole_is_given_up(client, full, in_small_slices, monkeypatch, restarted) -> None:
    body, where = packed(client, full), client.application.config["DATABASE"]

    def broken(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(pictures, "add", broken)
    if restarted:
        # Nothing is cleared away by a program that is killed.
        monkeypatch.setattr(rigs, "drop_coming", lambda *_: None)
    assert client.post(ARCHIVE, data=body).status_code == 507
    monkeypatch.undo()
    if restarted:
        assert kept_of(client, 2) > 0 and client.get("/api/kept").get_json()["deleted"] == []
        assert client.post("/api/rigs/2/restore").status_code == 404
        with where.writing() as db:
            rigs.drop_coming(db)
    assert kept_of(client, 2) == 0 and len(client.get("/api/rigs").get_json()["rigs"]) == 1


def test_what_did_not_come_whole_is_not_taken_for_made_when_it_is_sent_again(
    client, full, in_small_slices, monkeypatch
) -> None:
    body = packed(client, full)

    def broken(*_: object) -> None:
        raise OSError(28, "No space left on device")

    with monkeypatch.context() as full_disk:
        # Nor can it be cleared away for want of room.
        full_disk.setattr(pictures, "add", broken)
        full_disk.setattr(rigs, "drop_coming", broken)
        assert client.post(f"{ARCHIVE}?key=mine", data=body).status_code == 507
    made = client.post(f"{ARCHIVE}?key=mine", data=body).get_json()["id"]
    assert all_of(client, f"/api/rigs/{made}") == all_of(client, full)
    with client.application.config["DATABASE"].reading() as db:
        assert db.execute("SELECT count(*) FROM rig").fetchone()[0] == 2


def test_more_readings_than_anybody_has_are_refused_before_any_is_kept(client, full, monkeypatch) -> None:
    monkeypatch.setattr(rig_archive, "MOST_READINGS", 100)
    answer = client.post(ARCHIVE, data=packed(client, full))
    assert answer.status_code == 422 and "million readings" in answer.get_json()["problems"][0]["message"]


def test_readings_that_cannot_be_are_left_out(client, full) -> None:
    rows = HEAD + b"".join(
        b"%d,60,%s,-3.0,0.8,nan\n" % (1_780_000_000 + 60 * n, b"130.0" if n == 2 else b"12.6")
        for n in range(9)
    )
    made = client.post(ARCHIVE, data=put(packed(client, full), "readings/0.csv", rows)).get_json()
    held = members(client.get(f"/api/rigs/{made['id']}/archive").data)["readings/0.csv"].decode()
    assert held.count("12.6") == 8 and "130" not in held and held.count("\n") == 10
