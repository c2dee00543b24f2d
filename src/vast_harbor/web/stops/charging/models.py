"""Response models of the Charging stop."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, OperationView, TokenView, View


class PointView(View):
    """One thing that a source does to a bank."""

    code: str
    severity: str
    says: list[TokenView]


class RungView(View):
    """A remedy, with the JSON Patch that takes it or takes it back."""

    key: str
    says: str
    price: str
    hours: str
    skill: str
    hidden: str
    leaves: str
    chosen: bool
    operations: list[OperationView]


class SuitabilityView(View):
    """A source beside a candidate."""

    source: str
    name: str
    verdict: str
    points: list[PointView]
    solved: list[PointView] = Field(description="What the remedies chosen have set right")
    rungs: list[RungView]


class AuditView(View):
    """All sources beside one candidate."""

    id: str
    title: str
    battery_class: str
    suitability: list[SuitabilityView]


class ChargeStageView(View):
    """A stage of a charge, and when it begins."""

    name: str
    hours: float


class ChargeCurveView(View):
    """A charge of one bank over time."""

    id: str
    title: str
    battery_class: str
    hours: list[float]
    soc: list[float]
    amps: list[float]
    volts: list[float]
    stages: list[ChargeStageView]
    to_80: str
    to_95: str
    to_full: str
    ends: str = Field(description="The charge that it comes to")


class MonthSunView(View):
    """Sun of a mean day of a month."""

    name: str
    kwh: float
    text: str
    used: bool


class NeededView(View):
    """How much source one candidate needs."""

    id: str
    title: str
    battery_class: str
    figures: dict[str, FigureView]


class WeekView(View):
    """What charging costs and wastes in a mean week of use."""

    id: str
    title: str
    battery_class: str
    generator: str
    litres: str
    fuel: str
    sun_left: str
    short: str


class SettingView(View):
    """A line of the settings sheet."""

    name: str
    value: str
    now: str


class SheetView(View):
    """The settings sheet of one source."""

    source: str
    name: str
    settings: list[SettingView]
    note: str


class ChargingView(View):
    """Everything of the Charging stop but the curves."""

    audits: list[AuditView]
    sun: list[MonthSunView]
    sun_says: str
    sun_own: bool
    design: str = Field(description="The month of use with the least sun; empty without sun")
    needed: list[NeededView]
    weeks: list[WeekView]
    sheets: list[SheetView]
    sheets_of: str = Field(description="The candidate for which the sheets are")
    acts: list[SettingView] = Field(description="Settings of the discharge side")


class CurvesView(View):
    """Charge curves of every bank by the sources asked for."""

    curves: list[ChargeCurveView]
    by: str = Field(description="What charges, in words")
    says: str = Field(description="Why there is none; empty where there are curves")


class ExplainedView(View):
    """What a measured charge says."""

    says: list[TokenView]
    edit_says: str
    operations: list[OperationView]


class SourceView(View):
    """A source as a row of the energy picture."""

    id: str
    index: int
    kind: str
    name: str
    most: str = Field(description="The most that it gives at once, in words")
    worst: str = Field(description="Worst verdict beside any candidate; ok where it suits all")
