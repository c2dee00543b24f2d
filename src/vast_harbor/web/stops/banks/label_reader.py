"""The label reader: what a battery's label says, brought to figures that can be compared."""

from typing import Annotated

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.battery import label
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Unreadable, parse
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.fields import Choice
from vast_harbor.formats.parts import CLASSES
from vast_harbor.phrases import phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.views import ProblemsView

api = Blueprint(
    "label", __name__, url_prefix="/api", abp_tags=[Tag(name="label")], abp_responses={422: ProblemsView}
)

# Field → stored unit, least and most that a label may say, and how the field is called.
FIELDS = {
    "volts": ("V", 1, 60, phrase("terms.names.the_volts")),
    "ah": ("Ah", 0.5, 5000, phrase("answers.banks_label_reader.capacity")),
    "hours": ("h", 0.05, 240, phrase("answers.banks_label_reader.hours")),
    "ah_2": ("Ah", 0.5, 5000, phrase("answers.banks_label_reader.second_capacity")),
    "hours_2": ("h", 0.05, 240, phrase("answers.banks_label_reader.second_hours")),
    "reserve_minutes": ("min", 5, 1500, phrase("answers.banks_label_reader.reserve_minutes")),
    "wh": ("Wh", 5, 100_000, phrase("answers.banks_label_reader.energy")),
    "cycles": ("times", 1, 50_000, phrase("answers.banks_label_reader.cycles")),
    "cycles_at_dod": ("1", 0.05, 1, phrase("answers.banks_label_reader.depth_cycles")),
}
# A reserve under this was read in hours: no house battery gives 25 A for so short a time.
SHORTEST_RESERVE = 15


class LabelText(BaseModel):
    """What stands on a label, as typed; empty for what does not."""

    battery_class: Annotated[str, Choice(phrase("terms.names.battery_class"), *CLASSES)] = "agm"
    volts: str = Field(default="12", max_length=40)
    ah: str = Field(default="", max_length=40)
    hours: str = Field(default="", max_length=40)
    ah_2: str = Field(default="", max_length=40)
    hours_2: str = Field(default="", max_length=40)
    reserve_minutes: str = Field(default="", max_length=40)
    wh: str = Field(default="", max_length=40)
    cycles: str = Field(default="", max_length=40)
    cycles_at_dod: str = Field(default="", max_length=40)
    house_rule: str = Field(default="customary", max_length=40)


class LabelFigure(BaseModel):
    """One thing that follows from a label, with where it comes from."""

    name: str
    text: str
    source: str


class LabelView(BaseModel):
    """What follows from a label, what it leaves open, and what was mistyped."""

    figures: list[LabelFigure]
    remarks: list[str]


@api.post("/label", responses={200: LabelView})
def read_label(body: LabelText) -> Response:
    """Read a label."""
    values: dict[str, float] = {}
    problems: list[files.Problem] = []
    remarks: list[str] = []
    for name, (unit, least, most, called) in FIELDS.items():
        text = getattr(body, name)
        if not text.strip():
            continue
        try:
            value = parse(text, unit)
        except Unreadable as error:
            problems.append(files.Problem(f"/{name}", str(error)))
            continue
        if name == "reserve_minutes" and value < SHORTEST_RESERVE:
            said = phrase(
                "answers.banks_label_reader.mean_hours_minutes_reserve",
                value=f"{value:g}",
                value_2=f"{value * 60:g}",
            )
            problems.append(files.Problem(f"/{name}", said))
        elif not least <= value <= most:
            said = phrase(
                "answers.banks_label_reader.label_must_between",
                called=called,
                least=f"{least:g}",
                most=f"{most:g}",
                value=f"{value:g}",
            )
            problems.append(files.Problem(f"/{name}", said))
        else:
            values[name] = value
    reference = data.reference()
    battery_class = reference.classes[body.battery_class]
    if problems:
        raise files.RigFileError(problems)
    volts = values.setdefault("volts", battery_class.nominal_v(12))
    cell = battery_class.cell_v
    if battery_class.is_lead_acid and abs(volts / cell - round(volts / cell)) > 0.05:
        lead = round(volts / cell) * cell if volts not in (12.8, 25.6, 51.2) else volts / 12.8 * 12
        remarks.append(
            phrase("answers.banks_label_reader.v_nominal_lead_acid", volts=f"{volts:g}", lead=f"{lead:g}")
        )
        values["volts"] = lead
    rule = reference.rules.get(body.house_rule, reference.rules["customary"])
    reading = label.read(label.Label(battery_class, **values), rule.dod[battery_class.key])
    style = Style()
    figures = [
        LabelFigure(name=f.name, text=style.text(f.value, f.unit), source=f.source) for f in reading.figures
    ]
    return json_response(LabelView(figures=figures, remarks=remarks + list(reading.remarks)))
