"""Harbor: rigs made, copied, exported and imported."""

import re
import sqlite3
import time
from math import inf
from typing import Any, Literal

from flask import Response, request
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.plan import CABIN
from vast_harbor.core.rig.topics import stated_by
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.bank_parts import CandidatePart
from vast_harbor.formats.door import clean
from vast_harbor.formats.parts import made
from vast_harbor.formats.patterns import FILLED, from_pattern, nothing_stated, pattern_for, typical_sources
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.store import rigs
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import JSON, Blueprint
from vast_harbor.web.base.database import database, today
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import KeyQuery, RigPath
from vast_harbor.web.base.views import MadeView, OperationView, ProblemsView, operations_of
from vast_harbor.web.log.demo_log import add_demo_log

api = Blueprint(
    "harbor",
    __name__,
    url_prefix="/api",
    abp_tags=[Tag(name="harbor")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)


class NewRig(BaseModel):
    """What a new rig starts with."""

    name: str = ""
    kind: str = "van"
    pattern: str = Field(
        default="",
        description="Pattern of use to fill it with, usual for the one of its kind; an empty rig without",
    )
    region: str = Field(default="", description="Region where it is used")
    sources: list[Literal["mains", "solar", "engine"]] = Field(
        default_factory=list,
        max_length=3,
        description="What charges it; of a pattern its usual ones if empty",
    )
    units: str = ""
    currency: str = ""
    guide: str = Field(
        default="", max_length=20, description="The question of the guided start to go on with"
    )


class PatternPath(RigPath):
    """Which pattern of use, for which rig."""

    pattern: str = Field(max_length=40)


class PatternEditView(BaseModel):
    """A pattern of use as an edit of a rig."""

    name: str
    operations: list[OperationView]


class MadeListView(BaseModel):
    """Rigs that were made."""

    rigs: list[MadeView]


class DemoName(BaseModel):
    """Which demo rig; all of them when empty."""

    name: str = ""


def free_name(wanted: str, taken: set[str]) -> str:
    """``wanted``, or with the next free number behind it."""
    if wanted not in taken:
        return wanted
    base = re.sub(r" \(\d+\)$", "", wanted)[:72]
    number = 2
    while f"{base} ({number})" in taken:
        number += 1
    return f"{base} ({number})"


def store_document(document: dict[str, object], key: str = "", place: int = 0) -> MadeView:
    """Store a checked document as a new rig under a free name; once, where a key says that it is the same."""
    with database().writing() as db:
        return make_in(db, document, key, place)[0]


def make_in(
    db: sqlite3.Connection, document: dict[str, object], key: str = "", place: int = 0, *, whole: bool = True
) -> tuple[MadeView, bool]:
    """As :func:`store_document`, as part of a write transaction; and whether the rig is new.

    One that is not ``whole`` is shown only once it is revealed.
    """
    if (known := rigs.made_under(db, key)) is not None:
        return MadeView(id=known[0], name=known[1]), False
    rig = document["rig"]
    assert isinstance(rig, dict)
    rig["name"] = free_name(str(rig["name"]), rigs.names(db))
    return MadeView(id=rigs.add(db, document, key, place, whole=whole), name=rig["name"]), True


USUAL_PATTERN = "usual"


def named_pattern(key: str, kind: str) -> str:
    """A pattern by its key; for ``usual`` the one that such rigs follow most often."""
    return pattern_for(data.patterns(), kind) if key == USUAL_PATTERN else key


def data_of_pattern(key: str, kind: str, south: bool) -> dict[str, Any]:
    """What a pattern of use fills a rig of some kind with, as it would be typed."""
    appliances = {a.name: a.load for a in data.appliances()}
    return from_pattern(data.patterns()[key], appliances, kind, south)


@api.post("/rigs", responses={201: MadeView})
def make_rig(body: NewRig, query: KeyQuery) -> Response:
    """Make a rig: empty, or filled from a pattern of use."""
    reference = data.reference()
    document = files.new_rig("New rig")
    fields: dict[str, Any] = {"name": clean(body.name).strip() or "New rig", "kind": body.kind}
    if body.region:
        if body.region not in reference.regions:
            raise files.RigFileError(
                [files.Problem("", phrase("answers.harbor_routes.region", region=body.region))]
            )
        region = reference.regions[body.region]
        fields |= {
            "region": region.key,
            "latitude": region.latitude,
            "longitude": region.longitude,
            "utc_offset_h": region.utc_offset_h,
            "climate": region.climate,
            "currency": region.currency,
            "units": region.units,
            "numbers": region.numbers,
        }
    stated = nothing_stated() | {"where": bool(body.region)}
    if body.pattern:
        pattern = named_pattern(body.pattern, body.kind)
        if pattern not in data.patterns():
            raise files.RigFileError(
                [files.Problem("", phrase("answers.harbor_routes.pattern", pattern=pattern))]
            )
        south = fields.get("latitude", 0.0) < 0
        filled = data_of_pattern(pattern, body.kind, south)
        fields |= filled["rig"]
        document["day"] |= filled["day"]
        document["plan"] |= filled["plan"]
        document["sources"] = filled["sources"]
    if body.sources:
        document["sources"] = typical_sources(list(dict.fromkeys(body.sources)), assumed=False)
        stated["charging"] = True
    if body.kind == CABIN:
        document["day"]["types"] = [t for t in document["day"]["types"] if t["kind"] != "travelling"]
    document["stated"], document["guide"] = stated, body.guide
    document["rig"] |= fields | {k: v for k, v in (("units", body.units), ("currency", body.currency)) if v}
    checked = _begin_level(files.read(document, reference, typed=True), today())
    return json_response(store_document(files.to_document(checked), query.key), 201)


_BEGUN: LruCache[tuple[str, str], list[str]] = LruCache(64)


def _begin_level(rig: RigFile, today: str) -> RigFile:
    """A new rig with the better of each pair as candidates: flooded, AGM or gel, and LFP."""
    reference = data.reference()

    def best() -> list[str]:
        proposals = evaluate(files.to_plan(rig, reference, today), reference, found=()).banks.proposals

        def cost(key: str) -> float:
            return min((p.lifetime for p in proposals[key].suitable), default=inf)

        return [min(pair, key=cost) for pair in (("flooded_deep", "flooded_dual"), ("agm", "gel"), ("lfp",))]

    # Rigs that are made alike begin alike; what they are called does not matter.
    unnamed = rig.model_copy(update={"rig": rig.rig.model_copy(update={"name": ""}), "guide": ""})
    classes = _BEGUN.of((unnamed.model_dump_json(), today), best)
    candidates = [made(CandidatePart, id=key, battery_class=key) for key in classes]
    return rig.model_copy(update={"candidates": candidates})


@api.get("/rigs/<int:rig_id>/patterns/<pattern>", responses={200: PatternEditView})
def pattern_edit(path: PatternPath) -> Response:
    """What a pattern of use fills this rig with, as one edit of it; its topics are then assumed.

    ``usual`` stands for the pattern that such rigs follow most often.
    """
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    rig, said = document["rig"], document.get("stated") or {}
    key = named_pattern(path.pattern, rig["kind"])
    if key not in data.patterns():
        return problems(404, files.Problem("", phrase("answers.harbor_routes.pattern", pattern=key)))
    filled = data_of_pattern(key, rig["kind"], (rig["latitude"] or 0.0) < 0)
    values = {f"/rig/{name}": value for name, value in filled["rig"].items()}
    values |= {f"/day/{name}": value for name, value in filled["day"].items()}
    values |= {"/plan/overrides": filled["plan"]["overrides"], "/sources": filled["sources"]}
    values |= {f"/stated/{topic}": False for topic in (*FILLED, "charging")}
    # A pattern fills only what nobody has stated.
    kept = {topic for topic in (*FILLED, "charging") if said.get(topic)}
    values = {
        at: value
        for at, value in values.items()
        if at.removeprefix("/stated/") not in kept and not kept & set(stated_by(at))
    }
    operations = [{"op": "replace", "path": path, "value": value} for path, value in values.items()]
    name = data.patterns()[key]["name"]
    return json_response(PatternEditView(name=name, operations=operations_of(operations)))


@api.post("/rigs/demo", responses={201: MadeListView})
def add_demo(body: DemoName) -> Response:
    """Add a demo rig, or all of them, beside the owner's own."""
    names = [body.name] if body.name else list(data.DEMO_RIGS)
    if unknown := [n for n in names if n not in data.DEMO_RIGS]:
        raise files.RigFileError(
            [files.Problem("", phrase("answers.harbor_routes.demo_rig", unknown=unknown[0]))]
        )
    documents = [files.to_document(files.read(data.demo_rig(n), data.reference())) for n in names]
    made = [store_document(document, place=1000 * i) for i, document in enumerate(documents)]
    with database().writing() as db:
        for one, name in zip(made, names, strict=True):
            add_demo_log(db, one.id, name, int(time.time()))
    return json_response(MadeListView(rigs=made), 201)


@api.post("/rigs/import", takes=JSON, responses={201: MadeView})
def import_rig(query: KeyQuery) -> Response:
    """Take a rig file, sent as the body of the request."""
    document = files.loads_text(request.get_data())
    checked = files.read(document, data.reference())
    return json_response(store_document(files.to_document(checked), query.key), 201)


@api.get("/rigs/<int:rig_id>/file")
def export_rig(path: RigPath) -> Response:
    """The rig file of a rig, to be kept or passed on."""
    with database().reading() as db:
        stored = rigs.get(db, path.rig_id)
    return as_file(files.to_json(stored.document), "application/json", stored.name, ".rig.json")


@api.post("/rigs/<int:rig_id>/copy", responses={201: MadeView})
def copy_rig(path: RigPath, query: KeyQuery) -> Response:
    """Copy a rig."""
    with database().reading() as db:
        stored = rigs.get(db, path.rig_id)
    # A rig that cannot be read is refused with what is wrong with it.
    document = files.to_document(files.read(stored.document, data.reference()))
    document["rig"]["name"] = phrase("answers.harbor_routes.copy", name=stored.name[:70])
    return json_response(store_document(document, query.key), 201)


@api.post("/rigs/<int:rig_id>/restore", responses={200: MadeView})
def restore_rig(path: RigPath) -> Response:
    """Bring a deleted rig back."""
    with database().writing() as db:
        rigs.restore(db, path.rig_id)
        name = rigs.get(db, path.rig_id).name
    return json_response(MadeView(id=path.rig_id, name=name))
