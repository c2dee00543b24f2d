"""The cards of the candidates, as the Banks stop shows them."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, FindingView, OperationView, TokenView, View
from vast_harbor.web.stops.banks.diagnosis import DiagnosisView


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
    priced: bool = Field(description="Whether it would rule the bank out without the remedy in its price")
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
    no_switch: bool = Field(description="Whether an external BMS or cut-offs must guard it")
    figures: dict[str, FigureView]
    checks: list[CheckView] = Field(description="Those that do not pass; the rest is asked for")
    passed: int = Field(description="How many pass")
    stages: list[PurchaseStepView]
    findings: list[FindingView] = Field(description="Why it cannot be built; what is built has checks")


class BanksView(View):
    """The candidates and the old bank."""

    candidates: list[CandidateView]
    old_carries: dict[str, FigureView] = Field(
        description="What is left of the old bank; empty where unknown"
    )
    diagnosis: DiagnosisView | None
    old: list[FigureView] = Field(description="Label energy and weight of the old bank; empty without one")
