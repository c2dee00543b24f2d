"""Response models of a rig with all its stops."""

from typing import Any

from pydantic import Field

from vast_harbor.web.views import FigureView, FindingView, OperationView, SchoolView, TokenView, View


class StripView(View):
    """One stop on the strip: its live figure and whether something there needs attention."""

    stop: str
    figure: str
    attention: str
    findings: int
    was: str | None = Field(default=None, description="What it is in the plan, while something is tried")


class LoadView(View):
    """A load's figures on the day that is shown."""

    id: str
    wh: FigureView
    bank_wh: FigureView
    share: FigureView
    blocks: list[tuple[float, float]] = Field(description="When it is on, clock hours within the day")
    runs: bool = Field(description="Whether it runs on this kind of day at all")
    own: bool = Field(description="Whether this kind of day has other times than usual")
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
    schools: list[SchoolView]
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


class RuntimeView(View):
    """How long something runs on one kilowatt-hour, and on the old bank where that is known."""

    id: str
    name: str
    on_kwh: FigureView
    on_old: FigureView | None


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
    runtimes: list[RuntimeView]


class RemedyView(View):
    """Something that may be done about a check, and the JSON Patch that tries it."""

    key: str
    says: str
    price: FigureView | None
    operations: list[OperationView]


class CheckView(View):
    """One thing that was looked at."""

    code: str
    name: str
    verdict: str
    says: list[TokenView]
    remedy: str
    margin: FigureView | None
    gap: str = Field(description="How the margin is called: to spare, over by, short by")
    remedies: list[RemedyView]


class PurchaseStepView(View):
    """A step in which a bank is bought."""

    index: int
    strings: int
    money: FigureView
    so_far: FigureView
    usable: FigureView
    covered: FigureView
    nights: FigureView


class CandidateView(View):
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
    grade: str = Field(description="Confidence in its datasheet, A to C; empty when it cannot be built")
    no_switch: bool = Field(description="Whether an external BMS or cut-offs must guard it")
    figures: dict[str, FigureView]
    checks: list[CheckView] = Field(description="Those that do not pass; the rest is asked for")
    passed: int = Field(description="How many pass")
    stages: list[PurchaseStepView]
    findings: list[FindingView] = Field(description="Why it cannot be built; what is built has checks")


class SignView(View):
    """What one sign says of the old bank's health, as a range of shares."""

    name: str
    text: str
    low: float
    high: float


class SuspectView(View):
    """One that may be at fault."""

    key: str
    verdict: str
    says: list[TokenView]
    next: str


class DiagnosisView(View):
    """Whether the old bank is the culprit."""

    says: str
    danger: str
    health: FigureView | None
    range: str
    agree: bool
    signs: list[SignView]
    suspects: list[SuspectView]


class BanksView(View):
    """The candidates and the old bank."""

    candidates: list[CandidateView]
    old_carries: dict[str, FigureView] = Field(
        description="What is left of the old bank; empty where unknown"
    )
    diagnosis: DiagnosisView | None
    old: list[FigureView] = Field(description="Label energy and weight of the old bank; empty without one")


class RequiredExtraView(View):
    """Something that a bank asks for besides itself, with the JSON Patches that price, strike or do it."""

    key: str
    name: str
    price: FigureView
    hours: str
    skill: str
    hidden: str
    hard: bool
    state: str = Field(description="counted, advised, struck or covered")
    price_it: list[OperationView]
    strike: list[OperationView] = Field(description="Strikes it out, or takes that back")
    do: list[OperationView] = Field(description="Carries it out everywhere; empty where that is by hand")


class ItemView(View):
    """One item of a lifetime cost; credits negative."""

    key: str
    name: str
    amount: str
    value: float
    per: float | None = Field(description="For one cycle of the plan")
    per_text: str


class ComparedBankView(View):
    """A column of the comparison."""

    id: str
    index: int
    code: str
    battery_class: str
    title: str
    layout: str
    ends: str
    stop: bool = Field(description="Whether the verdict leaves it out")
    money: dict[str, FigureView]
    difficulty: str
    required_extras: list[RequiredExtraView]
    items: list[ItemView]


class RowView(View):
    """A row of the comparison."""

    key: str
    name: str
    group: str
    headline: bool
    best: list[int]
    none: str = Field(description="What a cell without a value says; empty for a dash")
    better: str = Field(description="high, low, or empty where neither is better")
    figures: list[FigureView]


class CorrectionView(View):
    """A step from equal labels to the true comparison."""

    key: str
    name: str
    says: str
    figures: list[FigureView]
    ratios: list[FigureView]


class RundownView(View):
    """Remaining usable energy of one candidate at the hours of the picture."""

    id: str
    state: str = Field(description="new or worn")
    kwh: list[float]


class SeriesView(View):
    """A line of a picture: points of (x, y)."""

    id: str
    points: list[tuple[float, float]]


class ReasonView(View):
    """A reason for or against, and the stop where it is looked at."""

    side: str
    says: list[TokenView]
    stop: str
    cared: bool


class RuleStepView(View):
    """What one rule of the verdict came to."""

    rule: int
    name: str
    says: list[TokenView]


class OutView(View):
    """A candidate that is out, why, and what it would need."""

    id: str
    rule: int
    says: list[TokenView]
    needs: str


class CandidateShareView(View):
    """How a candidate fares in the futures drawn."""

    id: str
    share: FigureView | None = Field(description="Cheapest in this share of them; none where it is out")
    p10: FigureView
    p50: FigureView
    p90: FigureView


class VerdictView(View):
    """The answer."""

    kind: str = Field(description="buy, keep, mend, hook_up or none")
    headline: list[TokenView]
    card: list[list[TokenView]]
    winner: str | None
    runner_up: str | None
    runner_text: str
    reasons: list[ReasonView]
    steps: list[RuleStepView]
    outs: list[OutView]
    candidates: list[CandidateShareView]
    danger: str


class CompareView(View):
    """The comparison with its pictures."""

    verdict: VerdictView
    unequal: bool = Field(description="Whether the usable energies differ by more than a tenth")
    compared_banks: list[ComparedBankView]
    rows: list[RowView]
    sentence: list[TokenView]
    corrections: list[CorrectionView]
    rundown_start_h: float
    rundown_hours: list[float]
    rundown: list[RundownView]
    cumulative: list[SeriesView]
    capacity: list[SeriesView] = Field(description="Usable kWh over the years")


class UnitsView(View):
    """Names of the owner's units."""

    weight: str
    temperature: str
    length: str
    small_length: str
    currency: str


class VoltageView(View):
    """The rig at one system voltage."""

    system_v: float
    here: bool
    peak: FigureView
    cable: FigureView
    lost: FigureView
    need: FigureView
    labels: list[FigureView] = Field(description="AGM and LFP")
    replaced: list[str]


class WhatIfView(View):
    """What is being tried beside the plan."""

    tried: list[str]


class SourceView(View):
    """A source as a row of the energy picture."""

    id: str
    index: int
    kind: str
    name: str
    most: str = Field(description="The most that it gives at once, in words")
    worst: str = Field(description="Worst verdict beside any candidate; ok where it suits all")


class RigView(View):
    """A rig with its strip, and the parts of the stop that is open."""

    id: int
    revision: int
    undo: str | None
    redo: str | None
    document: dict[str, Any] = Field(description="The rig file, see docs/formats.md")
    fields: dict[str, str] = Field(description="JSON pointer → value as it stands in its input")
    units: UnitsView
    strip: list[StripView]
    stop: str = Field(description="The stop whose parts are here; empty where those of all are")
    assumptions: list[AssumptionView]
    day: DayView | None = None
    need: NeedView | None = None
    banks: BanksView | None = None
    compare: CompareView | None = None
    voltages: list[VoltageView] | None = None
    seasons: dict[str, FigureView] | None = Field(
        default=None, description="Battery temperature by its place in each season"
    )
    sources: list[SourceView] | None = None
    stale: bool = Field(description="Whether trial and year are still those before the last edit")
    what_if: WhatIfView | None
    findings: list[FindingView] = Field(description="Of all stops, without those of single candidates")


class RigAnswer(View):
    """The rig as it stands: whole, or as it differs from a view that the asker still has."""

    version: str = Field(description="Of the view that this leads to; to be told with the next request")
    revision: int
    whole: RigView | None = None
    patch: list[OperationView] | None = Field(
        default=None, description="JSON Patch from the view whose version was told"
    )
