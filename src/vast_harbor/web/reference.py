"""Shipped reference data that the interface offers: classes, house rules, appliances."""

from flask import Response
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel

from vast_harbor import data
from vast_harbor.web.harbor import json_response

api = APIBlueprint("reference", __name__, url_prefix="/api", abp_tags=[Tag(name="reference")])


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
    """An entry of the appliance list."""

    name: str
    room: str
    supply: str
    draw: str
    use: str
    hours: float
    uses: float
    minutes: float
    duty: float
    starts_at: float | None
    note: str


class ReferenceView(BaseModel):
    """All shipped reference data that the interface offers."""

    classes: list[ClassView]
    rules: list[RuleView]
    life_bases: list[ChoiceView]
    appliances: list[ApplianceView]


@api.get("/reference", responses={200: ReferenceView})
def get_reference() -> Response:
    """Battery classes, house rules and the appliance list."""
    reference = data.reference()
    classes = [
        ClassView(
            key=c.key,
            code=c.code,
            name=c.name,
            short=c.short,
            lead_acid=c.is_lead_acid,
            unit_v=c.nominal_v(12),
            rated_hours=c.rated_hours,
        )
        for c in reference.classes.values()
    ]
    rules = [
        RuleView(key=r.key, name=r.name, argues=r.argues, life_basis=reference.life_bases[r.life_basis][0])
        for r in reference.rules.values()
    ]
    bases = [ChoiceView(key=k, name=name, why=why) for k, (name, why) in reference.life_bases.items()]
    appliances = [
        ApplianceView(**({"hours": 0, "uses": 0, "minutes": 0, "duty": 1, "starts_at": None} | row))
        for row in data.appliances()
    ]
    return json_response(ReferenceView(classes=classes, rules=rules, life_bases=bases, appliances=appliances))
