"""Shipped reference data that the interface offers: classes, house rules, appliances."""

from dataclasses import asdict
from typing import Any

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.data import Appliance
from vast_harbor.formats.door import admitted
from vast_harbor.formats.rig_document import QUESTIONS
from vast_harbor.formats.rig_file_kept import load_to_keep
from vast_harbor.phrases import phrase
from vast_harbor.store import appliances
from vast_harbor.store.appliances import OwnAppliance
from vast_harbor.telling.times import usual_time
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.views import ProblemsView, view_of

api = Blueprint(
    "reference",
    __name__,
    url_prefix="/api",
    abp_tags=[Tag(name="reference")],
    abp_responses={422: ProblemsView},
)


class ClassView(BaseModel):
    """A battery class."""

    key: str
    code: str
    name: str
    short: str
    lead_acid: bool
    unit_v: float
    rated_hours: float


class RuleView(BaseModel):
    """A house rule."""

    key: str
    name: str
    argues: str
    life_basis: str


class ChoiceView(BaseModel):
    """One of a few words, with what it means."""

    key: str
    name: str
    why: str = ""


class ApplianceView(BaseModel):
    """An entry of the appliance list, shipped or the owner's own."""

    name: str
    room: str
    kinds: list[str] = Field(description="Kinds of rig that have such a thing; empty for all")
    note: str
    words: str = Field(default="", description="What else people call it, for the search")
    says: str = Field(description="Draw, supply and usual time in words")
    critical: bool
    own: int | None = Field(default=None, description="Number in the owner's list")
    load: dict[str, Any] = Field(description="The load as an edit of a rig takes it, without id")


class CommonLoadView(BaseModel):
    """Something that many rigs have, to tick by picture."""

    key: str
    name: str
    appliance: str
    quantity: int
    kinds: list[str] = Field(description="Kinds of rig that have it; empty for all")
    big: bool


class PatternView(BaseModel):
    """A pattern of use."""

    key: str
    name: str
    why: str
    kinds: list[str] = Field(description="Kinds of rig that it suits")


class RegionView(BaseModel):
    """A place to choose a site from."""

    key: str
    name: str
    latitude: float
    longitude: float
    utc_offset_h: float
    climate: str


class ModelNameView(BaseModel):
    """A battery of the catalogue by its name."""

    model: str
    title: str
    battery_class: str


class ReferenceView(BaseModel):
    """All shipped reference data that the interface offers."""

    classes: list[ClassView]
    rules: list[RuleView]
    life_bases: list[ChoiceView]
    appliances: list[ApplianceView]
    regions: list[RegionView]
    climates: list[ChoiceView]
    commonest: list[CommonLoadView]
    patterns: list[PatternView]
    guide: list[str] = Field(description="The questions of the guided start, in their order")
    catalogue: list[ModelNameView]
    numbers: list[str] = Field(description="Regions whose way of writing numbers may be chosen")


class KeepAppliance(BaseModel):
    """An appliance for the owner's list."""

    load: dict[str, Any] = Field(description="A load as it stands in a rig file")


class AppliancePath(BaseModel):
    """Which of the owner's appliances."""

    appliance_id: int = Field(ge=1, le=2**53)


class AppliancesView(BaseModel):
    """The owner's own appliances."""

    appliances: list[ApplianceView]


def _shipped(entry: Appliance) -> ApplianceView:
    load = entry.load
    return view_of(
        ApplianceView,
        entry,
        says=f"{load['draw']} {load['supply'].upper()} · {usual_time(load)}",
        own=None,
        critical=False,
        load=dict(load),
    )


def _own(entry: OwnAppliance) -> ApplianceView:
    load = entry.load
    draw = load["draw"]
    return ApplianceView(
        name=entry.name,
        room=phrase("answers.reference.own"),
        kinds=[],
        note="",
        says=f"{draw['value']:g} {draw['unit']} {load['supply'].upper()} · {usual_time(load)}",
        critical=load["critical"],
        own=entry.id,
        load=load,
    )


@api.get("/reference", responses={200: ReferenceView})
def get_reference() -> Response:
    """Battery classes, house rules and the appliance list."""
    reference = data.reference()
    classes = [
        view_of(ClassView, c, lead_acid=c.is_lead_acid, unit_v=c.nominal_v(12))
        for c in reference.classes.values()
    ]
    rules = [
        view_of(RuleView, r, life_basis=reference.life_bases[r.life_basis][0])
        for r in reference.rules.values()
    ]
    bases = [ChoiceView(key=k, name=name, why=why) for k, (name, why) in reference.life_bases.items()]
    climates = [ChoiceView(key=c.key, name=c.name, why=c.like) for c in reference.climates.values()]
    patterns = [
        PatternView(key=k, name=p["name"], why=p["like"], kinds=p["kinds"])
        for k, p in data.patterns().items()
    ]
    view = ReferenceView(
        classes=classes,
        rules=rules,
        life_bases=bases,
        appliances=[_shipped(a) for a in data.appliances()],
        regions=[RegionView(**asdict(r)) for r in reference.regions.values()],
        climates=climates,
        commonest=[CommonLoadView(**asdict(c)) for c in data.commonest()],
        patterns=patterns,
        guide=list(QUESTIONS),
        catalogue=[
            ModelNameView(model=m.id, title=m.title, battery_class=m.battery_class.key)
            for m in reference.catalogue.values()
        ],
        numbers=list(LOCALES),
    )
    return json_response(view)


@api.get("/appliances", responses={200: AppliancesView})
def list_own() -> Response:
    """The owner's own appliances."""
    with database().reading() as db:
        return json_response(AppliancesView(appliances=[_own(a) for a in appliances.listed(db)]))


@api.post("/appliances", responses={200: AppliancesView})
def keep_own(body: KeepAppliance) -> Response:
    """Keep a load in the owner's list, to be found in every rig; one of the same name is replaced."""
    load = load_to_keep(admitted(body.load))
    with database().writing() as db:
        appliances.keep(db, load["name"], load)
        return json_response(AppliancesView(appliances=[_own(a) for a in appliances.listed(db)]))


@api.delete("/appliances/<int:appliance_id>", responses={200: AppliancesView})
def forget_own(path: AppliancePath) -> Response:
    """Take an appliance out of the owner's list."""
    with database().writing() as db:
        appliances.forget(db, path.appliance_id)
        return json_response(AppliancesView(appliances=[_own(a) for a in appliances.listed(db)]))
