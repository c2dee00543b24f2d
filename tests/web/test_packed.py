"""What goes over the wire is packed for who can unpack it, and is the same once it is unpacked."""

import gzip
import json

import brotli
import pytest

from vast_harbor import data
from vast_harbor.web.server.app import LEAST_PACKED, STATIC

UNPACK = {"br": brotli.decompress, "gzip": gzip.decompress}


@pytest.mark.parametrize("coding", ["br", "gzip"])
def test_what_is_sent_packed_unpacks_to_what_is_sent_plain(client, coding) -> None:
    client.post("/api/rigs/import", data=json.dumps(data.demo_rig("kittiwake")))
    script = max((STATIC / "assets").glob("*.js"), key=lambda file: file.stat().st_size)
    for address in (
        f"/assets/{script.name}", "/sw.js", "/api/rigs/1", 
        "/api/rigs/1/report/comparison.csv", "/api/rigs/1/report",
    ):  # fmt: skip
        plain = client.get(address)
        packed = client.get(address, headers={"Accept-Encoding": f"{coding}, identity;q=0.5"})
        assert "Content-Encoding" not in plain.headers
        assert packed.headers.get("Content-Encoding") == coding, address
        assert len(packed.data) < 0.7 * len(plain.data)
        assert "Accept-Encoding" in packed.headers["Vary"]
        UNPACK[coding](packed.data)
        for header in ("Content-Type", "Cache-Control", "Content-Security-Policy"):
            assert packed.headers.get(header) == plain.headers.get(header), (address, header)
    found = client.get(f"/assets/{script.name}", headers={"Accept-Encoding": coding})
    assert UNPACK[coding](found.data) == script.read_bytes()
    assert "immutable" in found.headers["Cache-Control"]


def test_what_is_small_or_a_picture_or_comes_bit_by_bit_goes_as_it_is(client) -> None:
    made = client.post("/api/rigs/import", data=json.dumps(data.demo_rig("kittiwake"))).get_json()["id"]
    gz = {"Accept-Encoding": "gzip"}
    bank = client.get(f"/api/rigs/{made}").get_json()["document"]["candidates"][0]["id"]
    stream = f"/api/rigs/{made}/monitor?bank={bank}&hours_per_second=2000&page=p"
    for address in (f"/api/rigs/{made}/log", "/mark-192.png", stream):
        answer = client.get(address, headers=gz)
        assert answer.status_code == 200 and "Content-Encoding" not in answer.headers, address
    assert len(client.get(f"/api/rigs/{made}/log").data) < LEAST_PACKED
