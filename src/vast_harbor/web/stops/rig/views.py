"""The old bank and the rig at other voltages, as the interface is given them."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.rig import VoltageChoice
from vast_harbor.web.base.views import figure_view, view_of
from vast_harbor.web.stops.rig.models import VoltageView


def voltage_view(choice: VoltageChoice, results: Results, style: Style) -> VoltageView:
    return view_of(
        VoltageView,
        choice,
        style,
        here=choice.system_v == results.plan.system_v,
        peak=figure_view(choice.peak_a, style),
        lost=figure_view(choice.converter_wh, style),
        need=figure_view(choice.need_wh, style),
        labels=[figure_view(f, style) for f in choice.label_ah.values()],
    )
