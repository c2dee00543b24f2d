"""What the Rig stop shows."""

from pydantic import Field

from vast_harbor.web.views import FigureView, TokenView, View


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
