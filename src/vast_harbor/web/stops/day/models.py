"""What the Day stop shows."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, View


class LoadView(View):
    """A load's figures on the day that is shown."""

    id: str
    wh: FigureView
    bank_wh: FigureView
    share: FigureView
    blocks: list[tuple[float, float]] = Field(description="When it is on, clock hours within the day")
    runs: bool = Field(description="Whether it runs on this kind of day at all")
    own: bool = Field(description="Whether this kind of day has other times than usual")
    says: str = Field(description="What it draws and when it runs on this kind of day, in one line")
    duty: str = Field(description="Duty where the weather sets it; empty otherwise")
    measured: bool


class DayTypeView(View):
    """A kind of day beside the others."""

    id: str
    index: int
    total: FigureView
    governs: bool
    carried: bool = Field(description="Whether the bank must carry it alone")
    need: FigureView
    labels: list[FigureView] = Field(description="What the label must say, by class in their order")


class HabitView(View):
    """The same day by other habits."""

    key: str
    figure: FigureView


class DayView(View):
    """One kind of day in figures, with the power profile as steps."""

    type: str
    index: int
    types: list[DayTypeView]
    chosen: bool = Field(description="Whether the owner chose the day to plan for")
    loads: list[LoadView]
    idle: FigureView
    standby: FigureView
    standby_left: FigureView | None
    inverter_hours: FigureView
    total: FigureView
    listed: FigureView
    cautious: FigureView
    habits: list[HabitView]
    measured: FigureView | None
    mean_current: FigureView
    peak: FigureView
    peak_current: FigureView
    peak_loads: list[str]
    peak_at: str = Field(description="Clock time of the hardest moment")
    air: FigureView
    battery: FigureView
    sun: str = Field(description="Sunrise and sunset in words; empty without a site")
    night: list[tuple[float, float]]
    charge: str = Field(description="When it is charged, in words")
    edges_h: list[float]
    watts: list[float]
    ac_watts: list[float] = Field(description="The part of it through the inverter")
    kwh: list[float] = Field(description="Energy so far at each edge")
