"""Response models of the Trial stop."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, TokenView, View


class EventView(View):
    """Something that happened to a bank."""

    step: int
    until: int
    at: str
    code: str
    severity: str
    says: list[TokenView]


class BankRunView(View):
    """One bank through the stretch."""

    id: str
    title: str
    battery_class: str
    code: str = Field(description="Letter of its class")
    floor: float = Field(description="Its planned floor [-]")
    soc: list[float]
    volts: list[float]
    amps: list[float]
    events: list[EventView]
    figures: dict[str, FigureView]


class TrialDayView(View):
    """A day of the stretch."""

    name: str
    weather: str
    kind: str
    drives: bool
    pitch: str
    air: str


class SpanView(View):
    """A span of time from the start of the stretch [h]."""

    begins: float
    ends: float


class StretchView(View):
    """A stretch that can be tried."""

    key: str
    name: str
    says: str
    own_days: bool


class TrialRunView(View):
    """Every bank through one stretch of days."""

    stretch: str
    says: str
    month: int
    seed: int
    nights: int
    days: list[TrialDayView]
    step_h: float
    air: list[float] = Field(description="Of the outside air, in the owner's unit, by step")
    battery: list[float] = Field(description="Of the battery, in the owner's unit, by step")
    night: list[SpanView] = Field(description="Darkness")
    banks: list[BankRunView]
    drawn: list[str] = Field(description="Banks that are drawn until others are picked, the verdict's last")
    outcomes: list[list[TokenView]] = Field(description="What came of it, a sentence each")
    stretches: list[StretchView]
    months: list[str]


class FlowView(View):
    """One flow of power at every step."""

    key: str
    name: str
    kind: str
    watts: list[float]


class StateView(View):
    """What a bit of the state means."""

    bit: int
    name: str


class FlowsView(View):
    """All flows of one bank, for the small picture at a moment."""

    id: str
    into: list[FlowView] = Field(description="Sources")
    out: list[FlowView] = Field(description="Loads and heater")
    unserved: list[float]
    bank: list[float] = Field(description="Into the bank, negative out of it [W]")
    state: list[int]
    states: list[StateView]
    labels: list[str] = Field(description="Clock of each step")


class RunDownView(View):
    """How long a bank lasts with no charging."""

    id: str
    title: str
    battery_class: str
    state: str = Field(description="new, worn (at the end of its life), or now for the old bank")
    until_empty: str
    soc: list[float] = Field(description="Charge left at the end of each hour, until something is not served")
    runs: list[str] = Field(description="How long each load runs alone, in the order of the loads")


class HowLongView(View):
    """How long every bank lasts with no charging, on whole days and under one load alone."""

    start_h: float = Field(description="Clock time at which the banks are full")
    loads: list[str]
    banks: list[RunDownView]


class BankYearView(View):
    """A year of one bank."""

    id: str
    title: str
    battery_class: str
    figures: dict[str, FigureView]
    depths: list[float]


class YearView(View):
    """The year of every candidate."""

    says: str = Field(description="Why there is none; empty where there is")
    sample: str
    unequal: list[TokenView] = Field(
        description="Why banks of the same usable energy differ; empty where none do"
    )
    banks: list[BankYearView]


class LaidUpRowView(View):
    """A bank through the months without use."""

    id: str
    title: str
    battery_class: str
    connected: bool
    lasts: str
    recharge: str
    lowest: str
    cold: str
    frost: str


class LaidUpView(View):
    """Every bank through the months without use."""

    says: str
    rows: list[LaidUpRowView]


class BankOddsView(View):
    """How often a bank went dark."""

    id: str
    title: str
    battery_class: str
    dark: str
    share: float
    lowest: str
