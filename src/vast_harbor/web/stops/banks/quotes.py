"""Banks: a label or an offer as pasted, read into a battery; nothing is taken in yet."""

from typing import Any

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field, ValidationError

from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.rig.assumptions import PRICE_FACTOR
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.csv_table import reason
from vast_harbor.formats.door import clean
from vast_harbor.formats.fields import Measure
from vast_harbor.formats.model_part import ModelPart, contradictions
from vast_harbor.formats.parts import CLASSES
from vast_harbor.formats.quotes import LONGEST, Ask, Quote, Said, offers_in, read_quote
from vast_harbor.phrases import phrase
from vast_harbor.store import rigs
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView

api = Blueprint(
    "quotes", __name__, url_prefix="/api", abp_tags=[Tag(name="banks")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

NAMES = {
    "battery_class": phrase("answers.quotes.battery_class"),
    "name": phrase("answers.quotes.name"),
    "unit_v": phrase("answers.quotes.unit_v"),
    "rated_ah": phrase("answers.quotes.rated_ah"),
    "rated_hours": phrase("answers.quotes.rated_hours"),
    "ah_2": phrase("answers.quotes.another_ah"),
    "hours_2": phrase("answers.quotes.another_hours"),
    "ah_3": phrase("answers.quotes.another_ah"),
    "hours_3": phrase("answers.quotes.another_hours"),
    "kg": phrase("answers.quotes.kg"),
    "length_mm": phrase("answers.quotes.length"),
    "width_mm": phrase("answers.quotes.width"),
    "height_mm": phrase("answers.quotes.height"),
    "price": phrase("answers.quotes.price"),
    "cycles": phrase("answers.quotes.cycles"),
    "cycles_at_dod": phrase("answers.quotes.cycles_at_dod"),
    "warranty_years": phrase("answers.quotes.warranty"),
    "bms_continuous_a": phrase("answers.quotes.bms_continuous"),
    "bms_peak_a": phrase("answers.quotes.bms_peak"),
    "charge_a": phrase("answers.quotes.charge"),
    "reserve_minutes": phrase("answers.quotes.reserve"),
    "heater_w": phrase("answers.quotes.heater"),
    "charge_min_c": phrase("answers.quotes.charge_min"),
    "charge_max_c": phrase("answers.quotes.charge_max"),
    "discharge_min_c": phrase("answers.quotes.discharge_min"),
    "discharge_max_c": phrase("answers.quotes.discharge_max"),
    "max_series": phrase("answers.quotes.max_series"),
    "max_parallel": phrase("answers.quotes.max_parallel"),
}


class QuoteText(BaseModel):
    """What was pasted."""

    text: str = Field(max_length=LONGEST)
    battery_class: str = Field(default="lfp", description="Class where the text names none")
    which: int = Field(default=0, ge=0, le=1000, description="Which of the offers of a list")
    answers: dict[str, float] = Field(
        default={},
        max_length=40,
        description="By field, what the owner answered to a question about the text",
    )


class SaidView(BaseModel):
    """One field, what it is, and from which words."""

    field: str
    name: str
    text: str
    source: str


class PossibleValueView(BaseModel):
    """An answer that can be chosen, and its value."""

    text: str
    value: float


class AskView(BaseModel):
    """A question about the text: until it is answered, what is asked does not count."""

    field: str
    name: str
    source: str
    choices: list[PossibleValueView]


class QuoteView(BaseModel):
    """A battery as it was understood."""

    title: str
    count: int = Field(description="How many offers the text holds")
    said: list[SaidView]
    asks: list[AskView]
    filled: list[SaidView] = Field(description="Typical of the class: the text does not say it")
    model: dict[str, Any] | None = Field(
        description="As in the rig file, without id; none where not enough is known"
    )
    problems: list[str]


@api.post("/rigs/<int:rig_id>/quote", responses={200: QuoteView})
def read_offer(path: RigPath, body: QuoteText) -> Response:
    """Read a label or an offer."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    reference = data.reference()
    rig = files.read(document, reference, stored=document)
    if body.battery_class not in CLASSES:
        raise files.RigFileError([files.Problem("/battery_class", phrase("answers.quotes.no_class"))])
    cells = {key: c.cell_v for key, c in reference.classes.items()}
    offers = offers_in(clean(body.text))
    text = offers[min(body.which, len(offers) - 1)]
    assumptions = reference.assumptions(rig.plan.house_rule, rig.plan.overrides, rig.rig.currency)
    quote = read_quote(
        text, reference.catalogue.values(), cells, body.battery_class, body.answers, rig.rig.currency,
        reference.price_levels, assumptions.value(PRICE_FACTOR),
    )  # fmt: skip
    model, problems = _entry(quote)
    style = rig.style
    return json_response(
        QuoteView(
            count=len(offers),
            title=str(quote.fields.get("name", "")),
            said=[_view(s, style) for s in quote.said],
            asks=[_asked(ask, style) for ask in quote.asks],
            filled=[_view(s, style) for s in quote.filled],
            model=model,
            problems=problems,
        )
    )


def _entry(quote: Quote) -> tuple[dict[str, Any] | None, list[str]]:
    if quote.missing:
        return None, [phrase("answers.quotes.no_capacity")]
    typical = [s.field for s in quote.filled if s.field not in ("name", "battery_class")]
    given = {"id": "quote", **quote.fields, "maker": "", "typical": typical}
    try:
        part = ModelPart.model_validate(given, context={"reference": data.reference()})
    except ValidationError as error:
        return None, [reason(dict(e)) for e in error.errors(include_url=False)]
    if wrong := [said for _, said in contradictions(part)]:
        return None, wrong
    return part.model_dump(mode="json", exclude={"id"}), []


def _asked(ask: Ask, style: Style) -> AskView:
    choices = [
        PossibleValueView(text=_text(Said(ask.field, value), style), value=value) for value in ask.values
    ]
    return AskView(field=ask.field, name=NAMES[ask.field], source=ask.source, choices=choices)


def _view(said: Said, style: Style) -> SaidView:
    return SaidView(field=said.field, name=NAMES[said.field], text=_text(said, style), source=said.source)


def _text(said: Said, style: Style) -> str:
    if said.field == "battery_class":
        return data.reference().classes[said.value].name
    if isinstance(said.value, str):
        return said.value
    marks = [m for m in ModelPart.model_fields[said.field].metadata if isinstance(m, Measure)]
    unit = marks[0].unit if marks else "1"
    if unit == "times":
        return f"{said.value:g}"
    return style.text(float(said.value), "%" if marks and marks[0].percent else unit, exact=True)
