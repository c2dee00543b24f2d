"""The comparison itself, its pictures and the verdict."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, OperationView, TokenView, View


class RequiredExtraView(View):
    """Something that a bank needs with its batteries, with the JSON Patches that price, strike or do it."""

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
    index: int = Field(description="Place among the candidates; -1 for a bank that was found for the owner")
    code: str
    battery_class: str
    title: str
    layout: str
    ends: str
    out: bool = Field(description="Whether the verdict leaves it out")
    own: bool = Field(description="Whether it is a real battery that the owner entered; else a typical one")
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
    says: list[TokenView]
    needs: str


class CandidateShareView(View):
    """How a candidate does over the simulated scenarios."""

    id: str
    share: FigureView | None = Field(description="Cheapest in this share of them; none where it is out")
    p10: FigureView
    p50: FigureView
    p90: FigureView


class FoundForYouView(View):
    """The best bank of a class in the catalogue, which is not a candidate of the owner."""

    id: str
    battery_class: str
    model: str
    series: int
    parallel: int
    title: str
    layout: str
    wins: bool
    out: bool
    figures: dict[str, FigureView] = Field(description="outlay, kg, p50, p90, share where it will do")


class VerdictView(View):
    """The answer."""

    kind: str = Field(description="buy, keep, mend, hook_up or none")
    runs: list[TokenView] = Field(description="That the bank bought is in and runs; empty before")
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
    question: str = Field(description="Stop where the question is answered that could turn it; else empty")
    found: list[FoundForYouView]
    buying: list[OperationView] = Field(description="The edit that chooses the winner as the bank to buy")
    doubt: list[TokenView] = Field(description="Why the cheapest in the middle is not chosen; else nothing")


class CompareView(View):
    """The comparison with its pictures."""

    verdict: VerdictView
    unequal: bool = Field(description="Whether the usable energies differ by more than a tenth")
    compared_banks: list[ComparedBankView]
    rows: list[RowView]
    sentence: list[TokenView]
    corrections: list[CorrectionView]
    cumulative: list[SeriesView]
    capacity: list[SeriesView] = Field(description="Usable kWh over the years")
