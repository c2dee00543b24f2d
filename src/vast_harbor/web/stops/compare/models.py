"""What the interface is given of the verdict when it asks: doubt, turns, rules, options, loads, terms."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, TokenView, View


class BandView(View):
    """Money spent by the end of each year, over the simulated scenarios."""

    id: str
    years: list[float]
    p10: list[float]
    p90: list[float]


class BreakEvenView(View):
    """Where two banks cost the same."""

    key: str
    name: str
    now: FigureView
    at: list[FigureView]
    says: list[TokenView]


class SwingView(View):
    """How far one assumption moves the saving."""

    key: str
    name: str
    low: FigureView
    high: FigureView
    at_low: FigureView
    at_high: FigureView
    changes_winner: bool


class TornadoView(View):
    """What moves the saving, the most first."""

    winner: str
    rival: str
    saving: FigureView
    swings: list[SwingView]


class UseMapView(View):
    """Who is cheapest, by nights a year and years kept."""

    nights: list[float]
    years: list[float]
    ids: list[str]
    cheapest: list[list[int]] = Field(description="Index into ids, a row for each number of years")
    gap: list[list[float]] = Field(description="How much the next one costs more, as a share")
    here: list[float] = Field(description="This owner's nights and years")
    supposed: bool


class DoubtView(View):
    """How sure the answer is, and what would change it."""

    draws: int
    bands: list[BandView]
    break_evens: list[BreakEvenView]
    tornado: TornadoView | None
    map: UseMapView | None


class VerdictChangeView(View):
    """Nights a year, or years kept, from which the verdict is another."""

    at: FigureView
    before: list[TokenView]
    after: list[TokenView]
    buys_before: str = Field(description="Class of the bank that it says to buy; empty for none")
    buys_after: str


class VerdictChangesView(View):
    """Where the verdict itself changes, and where the owner is."""

    verdict_changes: list[VerdictChangeView]
    years_changes: list[VerdictChangeView]
    nights: float
    years: float
    buys: str


class RuleVerdictView(View):
    """The verdict under one house rule."""

    key: str
    name: str
    argues: str
    headline: list[TokenView]
    card: list[list[TokenView]]
    need: FigureView
    cost: FigureView | None
    same: bool
    here: bool


class RuleVerdictsView(View):
    """The verdict under each house rule."""

    verdicts: list[RuleVerdictView]


class OptionView(View):
    """One way to come by the bank."""

    key: str
    name: str
    says: list[TokenView]
    lifetime: FigureView
    more: FigureView
    cash: FigureView
    works: bool


class PurchaseSizeView(View):
    """One size of a purchase."""

    key: str
    name: str
    strings: int
    cash: FigureView
    usable: FigureView
    nights: FigureView
    buys: list[str]
    leaves: list[str]


class PurchaseSizesView(View):
    """The packages of one candidate."""

    id: str
    purchase_sizes: list[PurchaseSizeView]


class WhenView(View):
    """When to buy and how much at once."""

    purchase_options: list[OptionView]
    candidates: list[PurchaseSizesView]


class LoadCostView(View):
    """What one load costs in battery."""

    id: str
    name: str
    index: int
    bank_wh: FigureView
    money: FigureView
    kg: FigureView
    kept: FigureView
    quarter: FigureView | None
    strings: int
    saves: FigureView | None
    says: list[TokenView] | None
    better: bool


class LoadCostsView(View):
    """The cheapest watt-hour."""

    bank: str
    loads: list[LoadCostView]


class BeliefView(View):
    """A common belief, settled on this rig."""

    key: str
    claim: str
    answer: str = Field(description="true, half, false or unknown, on this rig")
    says: list[TokenView]
    compared: list[FigureView] = Field(description="The two figures that decide; none where unknown")
    names: list[str] = Field(description="What each of them is")
    shares: list[float] = Field(description="Each as a share of the larger; none in different units")
    follows: str
    stop: str


class BeliefsView(View):
    """Common beliefs about house batteries."""

    beliefs: list[BeliefView]


class DifferencesView(View):
    """How every cell of the comparison differs from that of one candidate."""

    rows: dict[str, list[str]] = Field(
        description="By the row's key; empty where there is nothing to compare"
    )


class EqualTermsView(View):
    """The candidates made equal in one way."""

    key: str
    says: str
    figures: dict[str, dict[str, FigureView]]


class EqualTermsListView(View):
    """The candidates on equal terms."""

    equal_terms: list[EqualTermsView]


class OpenTopicView(View):
    """A topic that the owner did not state, and how far it could move the answer."""

    key: str
    swing: str = Field(description="Money that it moves at most; empty where that is not known")
    turns: list[TokenView] = Field(description="What else the verdict would say, and if what")


class OpenTopicsView(View):
    """What is not stated: what could turn the verdict first."""

    provisional: bool
    asks: str = Field(description="Key of the topic to ask for first; empty where nothing could turn it")
    topics: list[OpenTopicView]
