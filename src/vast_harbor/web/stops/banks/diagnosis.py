"""Whether the old bank is the culprit, as the interface is given it."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.telling.figures import range_text
from vast_harbor.web.base.views import FigureView, TokenView, View, figure_view, tokens, view_of


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


def diagnosis_view(results: Results, style: Style) -> DiagnosisView | None:
    found = results.banks.diagnosis
    if found is None:
        return None
    health = found.health
    return view_of(
        DiagnosisView,
        found,
        style,
        health=figure_view(health, style) if health else None,
        range=range_text(health.low, health.high, health.unit, style) if health else "",
        signs=[
            SignView(name=s.name, text=range_text(s.low, s.high, "%", style), low=s.low, high=s.high)
            for s in found.signs
        ],
        suspects=[
            SuspectView(key=s.key, verdict=s.verdict, says=tokens(s.says, style), next=s.next)
            for s in found.suspects
        ],
    )
