"""Phones over the local network: nothing but the pairing page until one is paired, and never their list."""

import pytest

from vast_harbor import data
from vast_harbor.store import phones
from vast_harbor.store.database import Database
from vast_harbor.web.server import pairing
from vast_harbor.web.server.app import create_app
from vast_harbor.web.server.pairing import LENGTH, MOST_WRONG, SIGNS, VALID_S, Codes, let_phones_in

LAPTOP, PHONE = {"REMOTE_ADDR": "127.0.0.1"}, {"REMOTE_ADDR": "192.0.2.7"}
HOST = {"Host": "192.0.2.2:8650"}


@pytest.fixture
def lan(tmp_path):
    app = create_app(Database(tmp_path / "h.sqlite3"), frozenset({"127.0.0.1", "localhost", "192.0.2.2"}))
    let_phones_in(app, 8650, ["192.0.2.2"])
    return app


def code(lan) -> str:
    return lan.test_client().post("/api/phones/code", environ_base=LAPTOP).get_json()["code"]


def paired(lan, name: str = "Locker"):
    phone = lan.test_client()
    answer = phone.post("/pair", data={"code": code(lan), "name": name}, environ_base=PHONE, headers=HOST)
    assert answer.status_code == 303
    return phone, answer


@pytest.mark.parametrize("path", ["/", "/rigs/1/rig", "/assets/x.js", "/sw.js", "/about", "/mark.svg"])
def test_who_is_not_paired_sees_the_pairing_page_only(lan, path) -> None:
    answer = lan.test_client().get(path, environ_base=PHONE, headers=HOST)
    assert (answer.status_code, answer.headers["Location"]) == (302, "/pair")
    page = lan.test_client().get("/pair", environ_base=PHONE, headers=HOST)
    assert page.status_code == 200 and 'name="code"' in page.text


@pytest.mark.parametrize(
    ("method", "path"),
    [("GET", "/api/rigs"), ("POST", "/api/rigs"), ("GET", "/api/backup"), ("POST", "/api/phones/code"),
     ("GET", "/api/openapi.json"), ("DELETE", "/api/phones/1"), ("GET", "/calendar/x"),
     ("GET", "/calendar/a/b.ics"), ("GET", "/calendar/")],
)  # fmt: skip
def test_who_is_not_paired_is_told_nothing(lan, method, path) -> None:
    answer = lan.test_client().open(path, method=method, json={}, environ_base=PHONE, headers=HOST)
    if not path.startswith("/api/"):
        assert (answer.status_code, answer.headers["Location"]) == (302, "/pair")
        return
    assert answer.status_code == 401
    assert "not paired" in answer.get_json()["problems"][0]["message"]


def test_a_code_pairs_one_phone_and_its_cookie_lets_it_in(lan) -> None:
    phone, answer = paired(lan)
    cookie = answer.headers["Set-Cookie"]
    assert "HttpOnly" in cookie and "SameSite=Strict" in cookie
    assert phone.get("/api/rigs", environ_base=PHONE, headers=HOST).status_code == 200
    made = phone.post("/api/rigs", json={"name": "From the locker"}, environ_base=PHONE, headers=HOST)
    assert made.status_code == 201
    # Phones, and all rigs at once, are the laptop's business.
    for method, path in (
        ("GET", "phones"), ("GET", "backup"), ("GET", "kept"), ("POST", "restore"), ("POST", "kept/restore")
    ):  # fmt: skip
        refused = phone.open(f"/api/{path}", method=method, json={}, environ_base=PHONE, headers=HOST)
        assert refused.status_code == 403, path
    seen = lan.test_client().get("/api/phones", environ_base=LAPTOP).get_json()
    assert [p["name"] for p in seen["phones"]] == ["Locker"] and seen["address"] == "http://192.0.2.2:8650"
    # Only a hash of what the phone shows is kept.
    with lan.config["DATABASE"].reading() as db:
        kept = db.execute("SELECT token_hash FROM phone").fetchone()[0]
    assert kept not in cookie and len(kept) == 64
    left = lan.test_client().delete(f"/api/phones/{seen['phones'][0]['id']}", environ_base=LAPTOP).get_json()
    assert left["phones"] == []
    assert phone.get("/api/rigs", environ_base=PHONE, headers=HOST).status_code == 401


def test_what_a_removed_phone_listens_to_ends(lan, monkeypatch) -> None:
    monkeypatch.setattr(pairing, "LOOK_AGAIN_S", -1.0)
    phone, _ = paired(lan)
    laptop = lan.test_client()
    rig = laptop.post("/api/rigs/import", json=data.demo_rig("pebble"), environ_base=LAPTOP).get_json()["id"]
    path = f"/api/rigs/{rig}/monitor?bank=dual&hours_per_second=2000"
    heard = iter(phone.get(path, environ_base=PHONE, headers=HOST, buffered=False).response)
    assert next(heard) and next(heard)
    (listed,) = laptop.get("/api/phones", environ_base=LAPTOP).get_json()["phones"]
    laptop.delete(f"/api/phones/{listed['id']}", environ_base=LAPTOP)
    assert list(heard) == []


def test_more_than_a_form_is_read_from_this_machine_and_paired_phones_only(lan) -> None:
    _, answer = paired(lan)
    cookie = answer.headers["Set-Cookie"].split(";")[0]
    may = pairing.may_send(lan)
    assert may("127.0.0.1", "") and may("192.0.2.7", cookie)
    assert not may("192.0.2.7", "") and not may("192.0.2.7", f"{cookie}x") and not may("192.0.2.7", "a=b")


def test_a_code_counts_once_for_a_while_and_not_after_many_wrong_ones() -> None:
    now = [0.0]
    codes = Codes(clock=lambda: now[0])
    assert not codes.take("")
    first = codes.fresh()
    assert len(first) == LENGTH and set(first) <= set(SIGNS)
    # As people type it.
    assert codes.take(f" {first[:4].lower()}-{first[4:]} ") and not codes.take(first)
    second = codes.fresh()
    now[0] += VALID_S + 1
    assert not codes.take(second)
    third = codes.fresh()
    for _ in range(MOST_WRONG):
        assert not codes.take("WRONGWRO" if third != "WRONGWRO" else "RONGWROW")
    assert not codes.take(third)
    assert codes.fresh() != third


def test_a_wrong_code_keeps_what_was_typed(lan) -> None:
    code(lan)
    answer = lan.test_client().post(
        "/pair", data={"code": "AB<i>", "name": "N&1"}, environ_base=PHONE, headers=HOST
    )
    assert answer.status_code == 403 and "does not count" in answer.text
    assert "AB&lt;i&gt;" in answer.text and "N&amp;1" in answer.text


def test_a_name_that_points_here_from_elsewhere_is_refused(lan) -> None:
    answer = lan.test_client().get("/pair", environ_base=PHONE, headers={"Host": "evil.example"})
    assert answer.status_code == 403


def test_without_lan_there_is_no_code(tmp_path) -> None:
    app = create_app(Database(tmp_path / "h.sqlite3"))
    assert app.test_client().get("/api/phones").get_json() == {"listens": False, "address": "", "phones": []}
    answer = app.test_client().post("/api/phones/code")
    assert answer.status_code == 404 and "serve --lan" in answer.get_json()["problems"][0]["message"]


def test_the_phone_seen_longest_ago_makes_room(tmp_path) -> None:
    database = Database(tmp_path / "h.sqlite3")
    with database.writing() as db:
        tokens = [phones.pair(db, f"p{i}") for i in range(phones.MOST + 2)]
        assert len(phones.listed(db)) == phones.MOST
        assert phones.known(db, tokens[0]) is None and phones.known(db, tokens[-1]) is not None
