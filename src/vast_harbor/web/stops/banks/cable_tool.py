"""The cable tool: a current over a length, as a size and a fuse."""

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.figures.display import Style, awg
from vast_harbor.core.figures.parsing import Unreadable, parse, parse_share
from vast_harbor.core.installation.cables import FUSE_WITHIN_MM, ampacity, resistance, size
from vast_harbor.formats import rig_file as files
from vast_harbor.phrases import phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.views import ProblemsView

api = Blueprint(
    "cable", __name__, url_prefix="/api", abp_tags=[Tag(name="cable")], abp_responses={422: ProblemsView}
)

# Field → stored unit, least and most, and how it is called.
FIELDS = {
    "amps": ("A", 0.1, 2000, phrase("answers.banks_cable_tool.current")),
    "length": ("m", 0.05, 60, phrase("answers.banks_cable_tool.length")),
    "volts": ("V", 6, 60, phrase("terms.names.the_volts")),
    "drop": ("1", 0.001, 0.2, phrase("answers.banks_cable_tool.voltage_drop")),
}


class CableText(BaseModel):
    """A cable that is wanted, as typed."""

    amps: str = Field(default="", max_length=40)
    length: str = Field(default="", max_length=40)
    volts: str = Field(default="12", max_length=40)
    drop: str = Field(default="3 %", max_length=40)
    clad: bool = False
    units: str = Field(default="metric", max_length=10)


class CableRowView(BaseModel):
    """One size of the table."""

    size: str
    awg: str
    carries: str
    drop: str
    chosen: bool


class CableView(BaseModel):
    """The size and the fuse, with the sizes about it."""

    size: str
    awg: str
    fuse: str
    drop: str
    says: str
    rows: list[CableRowView]
    source: str


@api.post("/cable", responses={200: CableView})
def size_cable(body: CableText) -> Response:
    """Size a cable and its fuse."""
    values: dict[str, float] = {}
    wrong: list[files.Problem] = []
    for name, (unit, least, most, called) in FIELDS.items():
        text = getattr(body, name)
        try:
            if not text.strip():
                value = None
            elif unit == "1":
                value = parse_share(text, least, most)
            else:
                value = parse(text, unit, body.units)
        except Unreadable as error:
            wrong.append(files.Problem(f"/{name}", str(error)))
            continue
        if value is None:
            wrong.append(files.Problem(f"/{name}", phrase("answers.banks_cable_tool.missing", called=called)))
        elif not least <= value <= most:
            said = phrase(
                "answers.banks_cable_tool.must_between",
                called=called,
                least=f"{least:g}",
                most=f"{most:g}",
                unit=unit if unit != "1" else "",
            ).rstrip()
            wrong.append(
                files.Problem(
                    f"/{name}", phrase("answers.banks_cable_tool.not", said=said, value=f"{value:g}")
                )
            )
        else:
            values[name] = value
    if wrong:
        raise files.RigFileError(wrong)
    amps, length, volts = values["amps"], values["length"], values["volts"]
    cables, style = data.reference().cables, Style(body.units)
    best = size(amps, length, volts, values["drop"], cables, body.clad)
    rows = []
    for mm2, _ in cables.ampacity:
        carries = ampacity(mm2, cables, body.clad)
        lost = amps * resistance(mm2, length, body.clad) / volts
        rows.append(
            CableRowView(
                size=f"{mm2:g} mm²",
                awg=awg(mm2),
                carries=style.text(carries, "A"),
                drop=style.text(lost, "%"),
                chosen=best is not None and mm2 == best.mm2,
            )
        )
    if best is None:
        says = phrase("answers.banks_cable_tool.single_cable_table_large")
        return json_response(
            CableView(size="", awg="", fuse="", drop="", says=says, rows=rows, source=cables.source)
        )
    says = phrase(
        "answers.banks_cable_tool.protect_fuse_within_about",
        fuse_a=f"{best.fuse_a:g}",
        fuse_within_mm=style.text(FUSE_WITHIN_MM, "mm"),
    )
    return json_response(
        CableView(
            size=f"{best.mm2:g} mm²",
            awg=awg(best.mm2),
            fuse=f"{best.fuse_a:g} A",
            drop=f"{style.text(best.drop_v, 'V')}, {style.text(best.drop, '%')}",
            says=says,
            rows=rows,
            source=cables.source,
        )
    )
