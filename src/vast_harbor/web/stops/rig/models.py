"""What the Rig stop shows."""

from pydantic import Field

from vast_harbor.web.base.views import FigureView, View


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
