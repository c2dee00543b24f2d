"""What a plan rests on, as the interface is given it: each topic, what the plan has of it, and from whom."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.topics import topics_of
from vast_harbor.formats.topic_text import topic_text
from vast_harbor.web.base.views import View, view_of


class TopicView(View):
    """A topic, and what the plan has of it."""

    key: str
    name: str
    asks: str
    question: str
    stop: str
    part: str
    status: str
    says: str


def topic_views(results: Results, region: str, style: Style) -> list[TopicView]:
    """The topics of a rig.

    Args:
        results: its figures.
        region: key of its region.
        style: the owner's units.

    Returns:
        Those that matter to it, in the order of their usual weight.
    """
    return [
        view_of(
            TopicView, t, style, status=t.status(results.plan), says=topic_text(t, results, style, region)
        )
        for t in topics_of(results.plan)
    ]
