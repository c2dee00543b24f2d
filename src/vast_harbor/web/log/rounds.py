"""Rounds with the meter: what was read of each battery at rest, a row for each time."""

from datetime import UTC, datetime

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.log.entry import PRESENT, Entry
from vast_harbor.core.log.readings import DAY_S
from vast_harbor.core.log.sharing import off_batteries, rounds
from vast_harbor.store import log
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.log.health import EPOCH, followed_bank, off_text
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "rounds", __name__, url_prefix="/api", abp_tags=[Tag(name="log")], abp_responses={404: ProblemsView},
)  # fmt: skip

# Rounds that are shown in rows; the picture shows more of them.
ROWS, DRAWN = 4, 24


class RoundView(View):
    """What was read of each battery in one round."""

    day: str = Field(description="ISO date")
    at: int = Field(description="Of its first reading, seconds since 1970 UTC")
    volts: list[float | None] = Field(description="Of each battery [V]; null where it was not read")
    texts: list[str] = Field(description="The same, as it is read")
    apart: str = Field(description="From the lowest to the highest")


class RoundsView(View):
    """The last rounds with the meter, the newest last; none where no two batteries were read together."""

    numbers: list[int] = Field(description="The batteries, one for each column")
    rounds: list[RoundView]
    rows: int = Field(description="How many of the last ones are shown in rows")
    off: list[int] = Field(description="Batteries that are not like the others")
    says: list[str] = Field(description="How those are off, one sentence each")


@api.get("/rigs/<int:rig_id>/log/rounds", responses={200: RoundsView})
def last_rounds(path: RigPath) -> Response:
    """The last rounds with the meter, and which battery falls behind."""
    rig_file, _, results = evaluated_results(path.rig_id)
    bank = followed_bank(results, counted_today())
    # What was read of the old bank before it was replaced is not told of the new one.
    began = 0 if bank is None or bank.since is None else (bank.since - EPOCH) * DAY_S
    with database().reading() as db:
        rows = [row for row in log.each(db, path.rig_id) if row["bank"] == PRESENT and row["at"] >= began]
    entries = [Entry(**row) for row in rows]
    offset = {e.at: 60 * e.offset_min for e in entries}
    found = rounds(entries)[-DRAWN:]
    style = rig_file.style
    numbers = sorted({n for _, volts in found for n in volts})
    off = () if bank is None else off_batteries(entries, bank.unit_v)
    views = [
        RoundView(
            day=datetime.fromtimestamp(at + offset.get(at, 0), UTC).date().isoformat(),
            at=at,
            volts=[volts.get(n) for n in numbers],
            texts=[style.meter_volts(volts[n]) if n in volts else "" for n in numbers],
            apart=style.meter_volts(max(volts.values()) - min(volts.values())),
        )
        for at, volts in found
    ]
    return json_response(
        RoundsView(
            numbers=numbers, rounds=views, rows=ROWS, off=[one.number for one in off],
            says=[off_text(one, style) for one in off],
        )
    )  # fmt: skip
