"""Whatever is sent, the answer is a changed rig or a sentence, and a rig that was readable stays so."""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from vast_harbor import data
from vast_harbor.formats import rig_file as files
from vast_harbor.store.database import Database
from vast_harbor.web.server.app import create_app

TYPED = st.one_of(
    st.text(max_size=12),
    st.sampled_from(
        [
            "",
            " ",
            "-5",
            "1e9",
            "NaN",
            "inf",
            "25",
            "1,5",
            "1h30",
            "12A",
            "20°F",
            "0",
            "∞",
            "½",
            "1,030",
            "=1+1",
            "{N}",
        ]
    ),
    st.floats(),
    st.integers(),
    st.none(),
    st.booleans(),
    st.lists(st.integers(), max_size=2),
    st.dictionaries(st.text(max_size=5), st.integers(), max_size=2),
)
FIELDS = """
/rig/name /rig/system_v /rig/off_grid_nights /rig/years_kept /rig/currency /rig/units /rig/battery_c /rig/kind
/old_bank /old_bank/unit_v /old_bank/series /day/loads /day/loads/0 /day/loads/0/draw /day/loads/0/hours
/day/loads/0/duty /day/loads/1/uses /day/loads/1/minutes /day/loads/0/use /day/loads/0/starts_at
/day/loads/0/quantity /day/loads/0/name /day/inverter/efficiency /day/inverter/hours_on /day/standby_w
/plan/house_rule /plan/life_basis /plan/overrides /plan/overrides/nights /plan/overrides/dod.lfp
/plan/overrides/peukert.agm /candidates/0/model /candidates/0/series /candidates/0/parallel
/candidates/0/unit_price /candidates/0/extras /candidates/2/extras/0/price /own_models /format /version / /nix
"""
PATHS = st.sampled_from(["", *FIELDS.split()])


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    return create_app(Database(tmp_path_factory.mktemp("fuzz") / "h.sqlite3")).test_client()


@pytest.fixture(scope="module")
def made(client):
    """One rig of each demo, by its name; edits are undone after each example."""
    return {
        name: client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]["id"]
        for name in data.DEMO_RIGS
    }


@settings(max_examples=20, suppress_health_check=[HealthCheck.too_slow])
@given(
    path=PATHS,
    op=st.sampled_from(["add", "replace", "remove"]),
    value=TYPED,
    rig=st.sampled_from(data.DEMO_RIGS),
)
def test_any_edit_is_taken_or_refused_with_a_sentence(client, made, path, op, value, rig) -> None:
    at = f"/api/rigs/{made[rig]}"
    before = client.get(f"{at}?stop=rig").get_json()
    answer = client.patch(
        at,
        json={
            "revision": before["revision"],
            "stop": "compare",
            "operations": [{"op": op, "path": path, "value": value}],
            "field": path[:200],
        },
    )
    assert answer.status_code in (200, 409, 422)
    if answer.status_code != 200:
        assert all(p["message"].strip().endswith(".") for p in answer.get_json()["problems"])
        return
    compare = answer.get_json()["whole"]["compare"]
    assert all(len(row["figures"]) == len(compare["compared_banks"]) for row in compare["rows"])
    again = client.get(f"{at}?stop=rig")
    assert again.status_code == 200
    files.read(again.get_json()["whole"]["document"], data.reference())
    undone = client.post(f"{at}/undo?stop=rig", json={"revision": answer.get_json()["revision"]}).get_json()[
        "whole"
    ]
    assert undone["document"] == before["whole"]["document"]
