"""Response models of a rig with all its stops."""

from typing import Any

from pydantic import Field

from vast_harbor.web.base.views import FigureView, FindingView, OperationView, View
from vast_harbor.web.plan.topics import TopicView
from vast_harbor.web.stops.banks.card_models import BanksView
from vast_harbor.web.stops.changeover.models import ChangeoverView
from vast_harbor.web.stops.charging.models import SourceView
from vast_harbor.web.stops.compare.table_models import CompareView
from vast_harbor.web.stops.day.models import DayView
from vast_harbor.web.stops.need.models import AssumptionView, NeedView
from vast_harbor.web.stops.rig.models import VoltageView


class StripView(View):
    """One stop on the strip: its live figure and whether something there needs attention."""

    stop: str
    figure: str
    attention: str
    findings: int
    was: str | None = Field(default=None, description="What it is in the plan, while something is tried")


class WhatIfView(View):
    """What is being tried beside the plan."""

    tried: list[str]


class RigView(View):
    """A rig with its strip, and the parts of the stop that is open."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    document: dict[str, Any] = Field(description="The rig file, see docs/formats.md")
    fields: dict[str, str] = Field(description="JSON pointer → value as it stands in its input")
    units: dict[str, str] = Field(description="Stored unit of a field → what stands beside its input")
    dates: str = Field(description="The English in which dates are written: en-US or en-GB")
    strip: list[StripView]
    stop: str = Field(description="The stop whose parts are here; empty where those of all are")
    assumptions: list[AssumptionView]
    day: DayView | None = None
    need: NeedView | None = None
    banks: BanksView | None = None
    compare: CompareView | None = None
    changeover: ChangeoverView | None = None
    voltages: list[VoltageView] | None = None
    seasons: dict[str, FigureView] | None = Field(
        default=None, description="Battery temperature by its place in each season"
    )
    sources: list[SourceView] | None = None
    topics: list[TopicView] = Field(description="What the plan rests on, and what of it is stated")
    stale: bool = Field(description="Whether trial and year are still those before the last edit")
    searching: bool = Field(description="Whether the catalogue is still to be looked through for the verdict")
    what_if: WhatIfView | None
    findings: list[FindingView] = Field(description="Of all stops, without those of single candidates")


class RigAnswer(View):
    """The rig as it stands: whole, or as it differs from a view that the asker still has."""

    version: str = Field(description="Of the view that this leads to; to be told with the next request")
    revision: int
    did: str = Field(default="", description="Label of the edit that was taken back or done again")
    whole: RigView | None = None
    patch: list[OperationView] | None = Field(
        default=None, description="JSON Patch from the view whose version was told"
    )
