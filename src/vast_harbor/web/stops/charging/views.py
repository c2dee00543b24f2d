"""The sources, as the interface is given them."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.stops.charging import WORST
from vast_harbor.web.stops.charging.models import SourceView
from vast_harbor.web.stops.charging.source_text import source_text


def source_view(results: Results, index: int, style: Style) -> SourceView:
    source = results.plan.sources[index]
    verdicts = [j.verdict for one in results.suitability.values() for j in one if j.source == source.id]
    return SourceView(
        id=source.id,
        index=index,
        kind=source.kind,
        name=name_of(source),
        most=source_text(source, results.plan.system_v, style),
        worst=max(verdicts, key=lambda v: WORST[v], default="ok"),
    )
