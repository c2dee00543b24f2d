"""Response models of what the Banks stop asks for apart from the plan."""

from pydantic import BaseModel, Field

from vast_harbor.web.base.views import FigureView, TokenView, View
from vast_harbor.web.stops.banks.card_models import CheckView


class FoundView(BaseModel):
    """A bank that would do."""

    model: str
    battery_class: str
    title: str
    layout: str
    series: int
    parallel: int
    usable: str
    kg: str
    purchase: str
    lifetime: str
    years: str
    nights: str
    front: bool
    purchase_at: float = Field(description="In shown units, for the picture; the next two likewise")
    kg_at: float
    lifetime_at: float


class NamedView(BaseModel):
    """A model by its name."""

    model: str
    title: str


class DroppedView(BaseModel):
    """A reason and how many models fell to it."""

    key: str
    says: str
    count: int
    models: list[NamedView]


class WithinView(BaseModel):
    """The best bank of a class within a ceiling."""

    found: FoundView
    covered: str
    later: str = Field(description="What to add first later, in words")
    against: list[str]


class ShapeView(BaseModel):
    """A bank seen by the number of its pieces."""

    found: FoundView
    units: str
    heaviest: str
    current: str
    one_gone: str
    joints: int


class PairView(BaseModel):
    """One large unit against several small ones, of one class."""

    battery_class: str
    few: ShapeView
    many: ShapeView


class FindView(BaseModel):
    """What a search found."""

    looked_at: int
    models: int
    found: list[FoundView]
    dropped: list[DroppedView]
    pairs: list[PairView]
    ceiling: bool
    within: list[WithinView]
    money_unit: str
    kg_unit: str


class WhyView(BaseModel):
    """Everything that is checked of a model."""

    model: str
    title: str
    layout: str
    unfit: str
    checks: list[CheckView]


class BoxView(BaseModel):
    """A battery in its place, in millimetres."""

    number: int
    compartment: int
    x: float
    y: float
    length: float
    width: float
    height: float
    pose: str
    turned: bool
    wrong: str


class RoomView(BaseModel):
    """A compartment, in millimetres, and in words."""

    length: float
    width: float
    height: float
    text: str


class LockerView(BaseModel):
    """The locker to scale."""

    rooms: list[RoomView]
    boxes: list[BoxView]
    count: int
    side: float
    over: float
    side_text: str
    over_text: str
    poses: list[str]
    terminal_side: str
    own: bool = Field(description="Whether the owner placed the boxes")
    case_text: str
    says: list[TokenView]
    verdict: str


class WiringPartView(BaseModel):
    """A line of the list of parts."""

    count: int
    what: str
    size: str
    note: str


class WiringView(BaseModel):
    """The wiring of a bank."""

    svg: str
    says: str
    parts: list[WiringPartView]
    source: str


class CurveView(BaseModel):
    """One bank over currents, and over a steady discharge."""

    id: str
    battery_class: str
    title: str
    by_charge: list[float]
    by_volts: list[float]
    hours: list[float]
    volts: list[float]
    ended: str
    left: str
    says: list[TokenView]


class RatesView(BaseModel):
    """Banks side by side at steady currents."""

    amps: list[float]
    current: str
    cut_off_v: float
    curves: list[CurveView]


class ActView(BaseModel):
    """A moment at which somebody or something acts."""

    key: str
    name: str
    soc: FigureView
    rested: FigureView
    loaded: FigureView
    blind: bool


class ActsOfView(BaseModel):
    """Volts to act on of one candidate."""

    id: str
    battery_class: str
    title: str
    acts: list[ActView]
    flat: bool = Field(description="Whether volts say nothing over most of its charge")


class ActsView(BaseModel):
    """Volts to act on of all candidates."""

    temperature: FigureView
    banks: list[ActsOfView]


class MeterView(BaseModel):
    """What a number of volts may mean."""

    low: float | None
    high: float | None
    text: str
    wide: bool
    why: list[str]


class LayoutView(View):
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


class UnfitView(View):
    """A model that cannot make the system voltage."""

    model: str
    title: str
    reason: str
    own: bool


class ProposalView(View):
    """What the tool would propose for a class, and every model of it."""

    battery_class: str
    best: str | None = Field(description="Least lifetime cost with all it needs")
    alternatives: dict[str, str] = Field(description="Models that are smallest, lightest, cheapest to buy")
    layouts: list[LayoutView]
    unfit: list[UnfitView]


class CatalogueView(View):
    """Every model by class."""

    classes: list[ProposalView]


class ChecksView(BaseModel):
    """Everything that was looked at of a candidate."""

    checks: list[CheckView]
