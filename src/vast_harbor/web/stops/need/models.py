"""What the Need stop shows, and the assumptions."""

from pydantic import Field

from vast_harbor.web.base.views import ByRuleView, FigureView, View


class StepView(View):
    """A step of the way from the day's energy to the label."""

    name: str
    figure: FigureView
    added: str = Field(description="By how much the step raised it; empty for the first")


class ClassNeedView(View):
    """What one battery class needs."""

    battery_class: str
    dod: FigureView
    temperature: FigureView
    rate: FigureView
    ageing: FigureView
    nameplate_wh: FigureView
    nameplate_ah: FigureView
    classical_ah: FigureView | None
    year_wh: FigureView | None = Field(description="By a year's weather; none where no year is run")
    peak_current: FigureView
    steps: list[StepView]


class AssumptionView(View):
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
    by_rule: list[ByRuleView]
    overridden: bool
    source: str
    note: str


class RuleNeedView(View):
    """What a house rule would make of the same day: the need, and the labels by class in their order."""

    key: str
    need: str
    labels: list[str]


class SecondView(View):
    """The need of the second bank."""

    day: FigureView
    energy: FigureView
    from_main: FigureView
    labels: list[FigureView] = Field(description="By class in their order")


class NeedView(View):
    """The need for every battery class side by side."""

    day_name: str = Field(description="The kind of day that governs")
    day: FigureView
    energy: FigureView
    nights: FigureView
    reserve: FigureView
    ageing: FigureView
    overnight: FigureView
    overnight_text: str = Field(description="From when to when, in words")
    classes: list[ClassNeedView]
    rules: list[RuleNeedView]
    second: SecondView | None
