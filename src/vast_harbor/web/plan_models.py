"""Response models of a rig with all its stops."""

from typing import Any

from pydantic import BaseModel, Field

from vast_harbor.web.views import FigureView, FindingView, SchoolView, TokenView


class StripView(BaseModel):
    """One stop on the strip: its live figure and whether something there needs attention."""

    stop: str
    figure: str
    attention: str
    findings: int


class LoadView(BaseModel):
    """A load's figures."""

    id: str
    wh: FigureView
    bank_wh: FigureView
    share: FigureView
    blocks: list[tuple[float, float]] = Field(description="When it is on, clock hours within the day")


class DayView(BaseModel):
    """The day in figures, with the power profile as steps."""

    loads: list[LoadView]
    idle: FigureView
    standby: FigureView
    inverter_hours: FigureView
    total: FigureView
    edges_h: list[float]
    watts: list[float]
    ac_watts: list[float] = Field(description="The part of it through the inverter")
    kwh: list[float] = Field(description="Energy so far at each edge")


class StepView(BaseModel):
    """A step of the way from the day's energy to the label."""

    name: str
    figure: FigureView
    added: str = Field(description="By how much the step raised it; empty for the first")


class ClassNeedView(BaseModel):
    """What one battery class needs."""

    battery_class: str
    dod: FigureView
    temperature: FigureView
    rate: FigureView
    ageing: FigureView
    nameplate_wh: FigureView
    nameplate_ah: FigureView
    classical_ah: FigureView | None
    steps: list[StepView]


class AssumptionView(BaseModel):
    """One assumption that may be overridden."""

    key: str
    name: str
    symbol: str
    group: str
    text: str
    value: float | None
    field: str
    default: str
    range: str
    schools: list[SchoolView]
    overridden: bool
    source: str
    note: str


class NeedView(BaseModel):
    """The need for every battery class side by side."""

    energy: FigureView
    nights: FigureView
    reserve: FigureView
    ageing: FigureView
    classes: list[ClassNeedView]
    assumptions: list[AssumptionView]


class CandidateView(BaseModel):
    """A candidate with its figures by name; none when it cannot be built."""

    id: str
    index: int
    battery_class: str
    title: str
    layout: str
    model: str | None
    proposed_model: bool
    proposed_parallel: bool
    series: int | None
    parallel: int | None
    figures: dict[str, FigureView]
    findings: list[FindingView]


class FitView(BaseModel):
    """How a model of the catalogue could serve."""

    model: str
    title: str
    layout: str
    covers: bool
    usable: FigureView
    kg: FigureView
    purchase: FigureView
    note: str
    own: bool


class UnfitView(BaseModel):
    """A model that cannot make the system voltage."""

    model: str
    title: str
    reason: str
    own: bool


class ProposalView(BaseModel):
    """What the tool would put up for a class, and every model of it."""

    battery_class: str
    best: str | None
    fits: list[FitView]
    unfit: list[UnfitView]


class BanksView(BaseModel):
    """Candidates and proposals."""

    candidates: list[CandidateView]
    proposals: list[ProposalView]
    old_tested: dict[str, FigureView] = Field(description="What a capacity test says; empty without one")
    old_range: str = Field(description="Range of the state of health that the test allows")
    old: list[FigureView] = Field(description="Label energy and weight of the old bank; empty without one")


class ColumnView(BaseModel):
    """A column of the comparison."""

    id: str
    battery_class: str
    title: str
    layout: str
    ends: str
    stop: bool


class RowView(BaseModel):
    """A row of the comparison."""

    key: str
    name: str
    group: str
    headline: bool
    best: list[int]
    figures: list[FigureView]


class CorrectionView(BaseModel):
    """A step from equal labels to the true comparison."""

    key: str
    name: str
    says: str
    figures: list[FigureView]
    ratios: list[FigureView]


class RundownView(BaseModel):
    """Remaining usable energy of one candidate at the hours of the picture."""

    id: str
    state: str = Field(description="new or worn")
    kwh: list[float]


class SeriesView(BaseModel):
    """A line of a picture: points of (x, y)."""

    id: str
    points: list[tuple[float, float]]


class CompareView(BaseModel):
    """The comparison with its pictures."""

    columns: list[ColumnView]
    rows: list[RowView]
    sentence: list[TokenView]
    corrections: list[CorrectionView]
    rundown_start_h: float
    rundown_hours: list[float]
    rundown: list[RundownView]
    cumulative: list[SeriesView]


class UnitsView(BaseModel):
    """Names of the owner's units."""

    weight: str
    temperature: str
    currency: str


class RigView(BaseModel):
    """A rig with all its stops."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    document: dict[str, Any] = Field(description="The rig file, see docs/formats.md")
    fields: dict[str, str] = Field(description="JSON pointer → value as it stands in its input")
    units: UnitsView
    strip: list[StripView]
    day: DayView
    need: NeedView
    banks: BanksView
    compare: CompareView
    findings: list[FindingView]
