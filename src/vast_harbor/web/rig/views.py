"""The old bank and the rig at other voltages, as the interface is given them."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.rig import VoltageChoice
from vast_harbor.web.rig.models import DiagnosisView, SignView, SuspectView, VoltageView
from vast_harbor.web.views import figure_view, range_text, tokens


def diagnosis_view(results: Results, style: Style) -> DiagnosisView | None:
    found = results.banks.diagnosis
    if found is None:
        return None
    health = found.health
    return DiagnosisView(
        says=found.says,
        danger=found.danger,
        health=figure_view(health, style) if health else None,
        range=range_text(health.low, health.high, health.unit, style) if health else "",
        agree=found.agree,
        signs=[
            SignView(name=s.name, text=range_text(s.low, s.high, "%", style), low=s.low, high=s.high)
            for s in found.signs
        ],
        suspects=[
            SuspectView(key=s.key, verdict=s.verdict, says=tokens(s.says, style), next=s.next)
            for s in found.suspects
        ],
    )


def voltage_view(choice: VoltageChoice, results: Results, style: Style) -> VoltageView:
    return VoltageView(
        system_v=choice.system_v,
        here=choice.system_v == results.plan.system_v,
        peak=figure_view(choice.peak_a, style),
        cable=figure_view(choice.cable, style),
        lost=figure_view(choice.converter_wh, style),
        need=figure_view(choice.need_wh, style),
        labels=[figure_view(f, style) for f in choice.label_ah.values()],
        replaced=list(choice.replaced),
    )
