"""Pictures: what a camera adds is gone, what is none is told, what is sent twice is kept once."""

import io

import pytest
from PIL import Image

KENT = {1: "N", 2: (51.0, 12.0, 0.0), 3: "E", 4: (0.0, 30.0, 0.0)}


@pytest.fixture
def rig(client):
    """A demo rig: its address."""
    return f"/api/rigs/{client.post('/api/rigs/demo', json={'name': 'pebble'}).get_json()['rigs'][0]['id']}"


def photo(kind="JPEG", size=(2400, 1200), turned=False) -> bytes:
    """A picture whose left half is red, with the place where it was taken."""
    image = Image.new("RGB", size, "white")
    image.paste("red", (0, 0, size[0] // 2, size[1]))
    exif = Image.Exif()
    exif[0x010F] = "Made-up Camera"
    if turned:
        exif[0x0112] = 6
    exif.get_ifd(0x8825).update(KENT)
    out = io.BytesIO()
    image.save(out, kind, **({"exif": exif} if kind != "PNG" else {}))
    return out.getvalue()


def send(client, rig, data: bytes, id="one", place="wiring", **more):
    return client.post(f"{rig}/pictures", data=data, query_string={"id": id, "place": place, **more})


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_picture_is_kept_small_and_without_its_place(client, rig, kind) -> None:
    made = send(client, rig, photo(kind), name="IMG_1.jpg").get_json()
    assert (made["width"], made["height"], made["name"]) == (1600, 800, "IMG_1.jpg")
    for end, longest in (("one.jpg", 1600), ("one/small.jpg", 320)):
        answer = client.get(f"{rig}/pictures/{end}")
        shown = Image.open(io.BytesIO(answer.data))
        assert answer.mimetype == "image/jpeg" and max(shown.size) == longest
        assert dict(shown.getexif()) == {} and b"Made-up" not in answer.data
        assert shown.getpixel((2, 2))[1] < 40 and shown.getpixel((shown.width - 3, 2))[1] > 215


def test_it_stands_as_the_camera_was_held(client, rig) -> None:
    made = send(client, rig, photo(turned=True)).get_json()
    assert (made["width"], made["height"]) == (800, 1600)
    shown = Image.open(io.BytesIO(client.get(f"{rig}/pictures/one.jpg").data))
    assert shown.getpixel((400, 10))[1] < 40 and shown.getpixel((400, 1590))[1] > 215


def test_it_is_kept_once_removed_and_brought_back(client, rig) -> None:
    send(client, rig, photo(), place="entry:e1")
    send(client, rig, photo(), place="entry:e1")
    send(client, rig, photo(), id="two", place="step:isolated")
    places = [(p["id"], p["place"]) for p in client.get(f"{rig}/pictures").get_json()["pictures"]]
    assert places == [("one", "entry:e1"), ("two", "step:isolated")]
    assert len(client.delete(f"{rig}/pictures/one").get_json()["pictures"]) == 1
    assert client.get(f"{rig}/pictures/one.jpg").status_code == 404
    assert client.delete(f"{rig}/pictures/one").status_code == 404
    assert len(client.post(f"{rig}/pictures/one/restore").get_json()["pictures"]) == 2
    other = client.post("/api/rigs/demo", json={"name": "mulga"}).get_json()["rigs"][0]["id"]
    assert client.get(f"/api/rigs/{other}/pictures/one.jpg").status_code == 404


@pytest.mark.parametrize(
    ("data", "status", "says"),
    [
        (b"", 422, "This picture cannot be read"),
        (b"GIF89a" + b"\0" * 50, 422, "This picture cannot be read"),
        (b"<svg onload='alert(1)'/>", 422, "This picture cannot be read"),
        (lambda: photo()[:3000], 422, "damaged or cut off"),
        (lambda: photo("PNG", (6000, 4300)), 422, "25 million points"),
        (b"x" * 8_100_000, 413, "8 MB; at most 8 MB"),
    ],
)
def test_what_is_no_picture_is_told(client, rig, data, status, says) -> None:
    # A large one is made only where it is sent.
    answer = send(client, rig, data if isinstance(data, bytes) else data())
    assert answer.status_code == status and says in answer.get_json()["problems"][0]["message"]
    assert client.get(f"{rig}/pictures").get_json()["pictures"] == []
    assert send(client, rig, photo(size=(8, 8)), place="../../etc").status_code == 422
