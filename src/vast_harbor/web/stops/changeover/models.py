"""Response models of the changeover."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, OperationView, TokenView, View


class BankChoiceView(View):
    """A bank that may be bought."""

    id: str
    battery_class: str
    title: str
    layout: str
    verdict: bool = Field(description="Whether it is what the verdict says")
    hard: bool = Field(description="Whether it will not do")
    against: list[TokenView]
    outlay: FigureView
    operations: list[OperationView] = Field(description="JSON Patch that chooses it")


class QuestionView(View):
    """Something to know before buying."""

    key: str
    title: str
    how: str
    state: str
    says: str
    stop: str
    part: str
    done: bool
    settled: bool


class LineView(View):
    """A line of the shopping list."""

    key: str
    count: int | None
    name: str
    size: str
    reason: str
    tag: str
    estimate: FigureView | None
    price_path: str = Field(
        description="JSON pointer of the price quoted for it; for one, where it is the bank"
    )
    paid_path: str
    contents: list[str]
    got: bool
    have: bool


class CauseView(View):
    """What may be wrong."""

    kind: str
    says: str
    next: str


class MeasurementView(View):
    """Something that is measured."""

    key: str
    path: str = Field(description="JSON pointer of the reading")
    mark: str = Field(description="Its number on the drawing, M1 and so on; empty for none")
    label: str
    unit: str
    likely: str
    range: str
    under: str = Field(description="At which temperature and charge that is meant")
    value: str
    verdict: str
    remark: str
    before: str = Field(description="The same as read into the old bank; empty for nothing")
    causes: list[CauseView]


class WorkStepView(View):
    """A step of the work."""

    key: str
    gate: str
    title: str
    why: str
    how: str
    minutes: int
    people: int
    cautions: list[str]
    parts: list[str]
    source: str
    done: bool
    on: str
    stopped: bool
    late: str = Field(description="Said where it was done after the last day to return")
    measured: list[MeasurementView]


class WorkGateView(View):
    """Steps that must be done before the next ones."""

    key: str
    title: str
    stopped: bool
    done: bool
    steps: list[WorkStepView]


class SettingRowView(View):
    """One setting."""

    key: str
    name: str
    should: str
    now: str
    now_path: str = Field(description="JSON pointer of the field that says what it is now; empty for none")
    unit: str
    can: str
    can_path: str
    done: bool
    on: str


class SettingGroupView(View):
    """Settings of one device."""

    key: str
    name: str
    note: str
    rows: list[SettingRowView]


class ConflictView(View):
    """Settings that work against each other."""

    key: str
    says: str
    remedy: str


class GuardView(View):
    """Something that acts on the bank, and at what value."""

    key: str
    name: str
    at: str


class ProofView(View):
    """The acceptance test."""

    load: str
    amps: str
    stop_v: str
    hours: str
    hours_range: str
    every: float = Field(description="Minutes between two readings of a simulated monitor")
    expected_ah: str
    least_ah: str
    temperature: str
    warm_enough: bool
    cautions: list[str] = Field(description="What to know before it starts")
    curve: list[tuple[float, float]] = Field(description="Hours and volts of a bank as labelled")
    least: list[tuple[float, float]] = Field(description="The same of the worst within the tolerance")
    measured: list[tuple[float, float]]
    rows: list[tuple[str, str, str]] = Field(description="Readings: minutes, volts, amps")
    taken: str
    verdict: str
    says: str


class FaultView(View):
    """A fault that the simulated meter can show."""

    key: str
    name: str


class ChangeoverView(View):
    """The changeover of a rig."""

    chosen: str
    title: str
    layout: str
    battery_class: str
    choices: list[BankChoiceView]
    against: list[TokenView]
    hard: bool
    done: int
    total: int
    work: str
    next: str
    opens_at: str = Field(description="Part where the work is")
    spent: FigureView | None
    cost: FigureView | None
    contingency: FigureView | None
    own_hands: str
    workshop: str
    questions: list[QuestionView]
    lines: list[LineView]
    gates: list[WorkGateView]
    settings: list[SettingGroupView]
    emptied: list[GuardView] = Field(description="What acts as the bank is emptied, the first one first")
    rising: list[GuardView] = Field(description="What limits the current, the least first")
    conflicts: list[ConflictView]
    watching: list[tuple[str, str, str]]
    proof: ProofView | None
    faults: list[FaultView]
    unplaced: list[str]
    gone: str = Field(description="Said where the bank that was chosen is no longer there")


class TestMomentView(View):
    """What a simulated monitor shows at one moment of the acceptance test."""

    volts: float
    amps: float
    ended: bool = Field(description="Whether the volts have come down to where the test stops")


class ReadingView(View):
    """What a simulated meter shows."""

    text: str
    value: float
