"""What the interface is given: sentences in pieces, workings in the owner's units, fields as typed."""

from dataclasses import dataclass, replace

import pytest
from jsonpointer import JsonPointer, JsonPointerException
from pydantic import ValidationError

from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import parse
from vast_harbor.core.figures.workings import Sentence, computed, typed
from vast_harbor.formats import rig_file as files
from vast_harbor.telling.figures import range_text
from vast_harbor.telling.inputs import plain_number
from vast_harbor.web.base.views import FigureView, TokenView, View, tokens, view_of, workings_view
from web.conftest import patch

KG = typed("k", "Weight", 20.5, "kg", "/x")
VOLTS = typed("v", "Volts", 12.8, "V", "/y")
PRODUCT = computed(
    "p", "Product", 262.4, "kg", "{kg} · {V_nom} + 0", {"kg": KG, "V_nom": VOLTS}, low=100, high=300
)


def test_a_sentence_becomes_words_and_figures() -> None:
    found = tokens(Sentence("It weighs {w}, {{braces}} and all.", {"w": KG}), Style())
    assert [(t.text, t.key) for t in found] == [
        ("It weighs ", None),
        ("20 kg", "k"),
        (", {braces} and all.", None),
    ]


def test_workings_are_in_the_units_of_the_owner() -> None:
    view = workings_view(PRODUCT, Style("us", "USD"), None)
    assert (view.text, view.exact) == ("578 lb", "578.493 lb")
    assert [t.text for t in view.formula] == ["45.19476 lb", " · ", "12.8 V", " + 0"]
    assert [t.symbol for t in view.formula] == ["kg", None, "V_nom", None]
    assert view.range == "220 lb to 661 lb"
    assert view.default == "—"


class PartView(View):
    key: str
    kg: FigureView
    cost: FigureView | None
    says: list[TokenView]
    by_bank: dict[str, list[FigureView]]
    here: bool


@dataclass
class Part:
    key: str
    kg: object
    cost: object
    says: Sentence
    by_bank: dict
    unseen: str = "not told"


def test_a_part_of_the_core_is_shown_by_the_names_of_its_fields() -> None:
    part = Part("p", KG, None, Sentence("{w} in total", {"w": KG}), {"a": (KG, VOLTS)})
    view = view_of(PartView, part, Style("us", "USD"), here=True)
    assert (view.key, view.kg.text, view.cost, view.here) == ("p", "45 lb", None, True)
    assert [t.text for t in view.says] == ["45 lb", " in total"]
    assert [f.text for f in view.by_bank["a"]] == ["45 lb", "12.8 V"]
    # What the part does not have, or has of another kind, is not passed over.
    with pytest.raises(AttributeError):
        view_of(PartView, part, Style())
    with pytest.raises(TypeError, match="has no field hear"):
        view_of(PartView, part, Style(), here=True, hear=True)
    with pytest.raises(ValidationError):
        view_of(PartView, replace(part, kg=Sentence("heavy")), Style(), here=True)


def test_a_range_of_nothing_is_not_told() -> None:
    assert range_text(None, 3, "V", Style()) == range_text(2, 2, "V", Style()) == ""
    assert range_text(1, 2, "years", Style()) == "1 year to 2 years"


@pytest.mark.parametrize(
    ("value", "unit", "typed"),
    [(20.5, "kg", "45.2"), (483, "mm", "19.02"), (25, "mm", "0.984"), (-11, "°C", "12.2"), (0, "°C", "32"),
     (0, "kg", "0"), (1500, "kg", "3307"), (20.5, "V", "20.5")],
)  # fmt: skip
def test_an_input_in_us_units_has_no_more_figures_than_it_takes(value, unit, typed) -> None:
    assert plain_number(value, unit, Style("us")) == typed
    assert parse(typed, unit, "us") == pytest.approx(value, rel=1e-3)


def rig_after(client, name: str):
    made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]["id"]
    return client.get(f"/api/rigs/{made}").get_json()


_NOTHING = object()
# Fields typed again in one edit.
TOGETHER = 100


@pytest.mark.parametrize(
    ("name", "region"), [*zip(data.DEMO_RIGS, ("de-DE", "en-US", "fr-FR", "de-CH", ""), strict=True)]
)
def test_every_field_reads_back_as_it_is_shown(client, reference, name, region) -> None:
    # What stands in a field, typed again just so, changes nothing: display and reading are one.
    view = rig_after(client, name)
    view = patch(client, view, {"op": "replace", "path": "/rig/numbers", "value": region}).get_json()
    document = view["document"]
    skip = (
        "/id",
        "/format",
        "/version",
        "/model",
        "/units",
        "/kind",
        "/battery_class",
        "/supply",
        "/use",
        "/value",
        "/place",
        "/season",
        "/climate",
        "/bank",
        "/second_bank",
    )
    fields = [
        (path, text)
        for path, text in view["fields"].items()
        if not (path.endswith((*skip, "/unit")) or path.startswith("/plan/"))
    ]
    for start in range(0, len(fields), TOGETHER):
        some = fields[start : start + TOGETHER]
        operations = [{"op": "replace", "path": path, "value": text} for path, text in some]
        answer = client.patch(
            f"/api/rigs/{view['id']}", json={"revision": view["revision"], "operations": operations}
        )
        assert answer.status_code == 200, (some, answer.get_json())
        found = files.read(answer.get_json()["document"], reference)
        assert found == files.read(document, reference), some
        view["revision"] = answer.get_json()["revision"]


def test_strip_marks_the_worst_finding_of_the_plan(client) -> None:
    strip = {s["stop"]: s for s in rig_after(client, "tern-rock")["strip"]}
    # The bank of the verdict is no worry but for its weight; that others are out is no mark of the plan.
    assert strip["banks"]["attention"] == "caution" and strip["banks"]["findings"] >= 2
    assert strip["need"]["attention"] == "" and strip["need"]["findings"] == 0


@pytest.mark.whole_catalogue
def test_pictures_are_given_as_points(client) -> None:
    compare = rig_after(client, "long-haul")["compare"]
    assert len(compare["cumulative"]) == len(compare["compared_banks"])
    # The candidates, and the bank that the verdict found in the catalogue.
    assert compare["compared_banks"][-1]["index"] == -1
    lifetime = next(r for r in compare["rows"] if r["key"] == "lifetime")["figures"]
    for line, column, cost in zip(compare["cumulative"], compare["compared_banks"], lifetime, strict=True):
        assert line["id"] == column["id"]
        assert line["points"][0][0] == 0 and line["points"][-1][0] == 10
        assert line["points"][-1][1] == pytest.approx(cost["value"], abs=0.01)


def test_day_is_given_as_steps_that_add_up(client) -> None:
    day = rig_after(client, "mulga")["day"]
    lengths = [b - a for a, b in zip(day["edges_h"], day["edges_h"][1:], strict=False)]
    area = sum(w * h for w, h in zip(day["watts"], lengths, strict=True))
    assert area == pytest.approx(day["total"]["value"], rel=1e-3)
    assert day["kwh"][-1] == pytest.approx(day["total"]["value"] / 1000, rel=1e-3)
    assert all(ac <= w + 0.01 for ac, w in zip(day["ac_watts"], day["watts"], strict=True))


def test_openapi_describes_every_call(client) -> None:
    found = client.get("/api/openapi.json").get_json()
    calls = {(m.upper(), p) for p, methods in found["paths"].items() for m in methods}
    expected = """
    GET /api/rigs, POST /api/rigs, GET /api/rigs/{rig_id}, PATCH /api/rigs/{rig_id},
    DELETE /api/rigs/{rig_id}, POST /api/rigs/{rig_id}/undo, GET /api/rigs/{rig_id}/workings,
    GET /api/rigs/{rig_id}/changes, GET /api/rigs/{rig_id}/loads.csv, POST /api/rigs/{rig_id}/loads/preview,
    POST /api/rigs/import, GET /api/reference
    """
    for call in expected.split(","):
        assert tuple(call.split()) in calls


def test_a_24_v_rig_is_asked_for_its_own_volts_and_stores_them_as_for_12_v(client) -> None:
    view = rig_after(client, "long-haul")
    at = f"/sources/{next(i for i, s in enumerate(view['document']['sources']) if s['kind'] == 'mains')}"

    def typed(name: str, text: str):
        return patch(client, view, {"op": "replace", "path": f"{at}/{name}", "value": text})

    refused = typed("absorption_v", "14.4").get_json()["problems"]
    assert refused[0]["message"] == ("The voltage for a 24 V system must be between 24 and 33 V, not 14.4 V.")
    view = typed("absorption_v", "28.6").get_json()
    view = typed("positions", "28.8/27.2, 29.4/27.6").get_json()
    source = view["document"]["sources"][int(at[-1])]
    assert source["absorption_v"] == pytest.approx(14.3)
    assert source["positions"] == [pytest.approx([14.4, 13.6]), pytest.approx([14.7, 13.8])]
    assert view["fields"][f"{at}/absorption_v"] == "28.6"
    assert view["fields"][f"{at}/positions"] == "28.8/27.2, 29.4/27.6"
    # A file holds numbers as for 12 V whatever the system.
    view = patch(client, view, {"op": "replace", "path": f"{at}/float_v", "value": 13.6}).get_json()
    assert view["fields"][f"{at}/float_v"] == "27.2"
    told = client.get(f"/api/rigs/{view['id']}/help?field={at}/float_v").get_json()
    assert told["unknown"].startswith("27.2 V is usual.")


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_every_figure_that_was_entered_leads_to_its_place_in_the_document(
    demo_results, reference, name
) -> None:
    """An owner opens the workings and follows an input to where it was typed."""
    document = files.read(data.demo_rig(name), reference).model_dump(mode="json")
    results = demo_results(name)
    paths = {f.path for f in results.figures().values() if f.path}
    for finding in results.findings:
        paths |= {f.path for f in finding.says.figures.values() if f.path}
    assert len(paths) > 50
    lost = [
        path for path in paths if not path.startswith("/plan/overrides/") and not resolves(document, path)
    ]
    assert lost == []


def resolves(document: object, path: str) -> bool:
    """Whether a JSON pointer leads to a value."""
    try:
        return JsonPointer(path).resolve(document, _NOTHING) is not _NOTHING
    except JsonPointerException:
        return False
