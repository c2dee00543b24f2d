"""The booklet of the changeover and the work order, each as one HTML document that needs nothing else."""

from collections.abc import Mapping
from typing import Any

from markupsafe import Markup

from vast_harbor.formats.html_page import PAPERS, page_template

BOOKLET, WORK_ORDER = "booklet", "work_order"


def booklet(
    view: Mapping[str, Any], name: str, today: str, svg: str, what: str = BOOKLET, paper: str = "a4"
) -> str:
    """The changeover on paper.

    Args:
        view: the changeover as the interface is given it.
        name: of the rig.
        today: the date on it, as its owner writes it.
        svg: the wiring with its measuring points; empty for none.
        what: ``booklet`` for own hands, ``work_order`` for a workshop.
        paper: ``a4`` or ``letter``.

    Returns:
        HTML.
    """
    return page_template(__file__, "booklet.html").render(
        view=view, name=name, today=today, svg=Markup(svg), order=what == WORK_ORDER, paper=PAPERS[paper],
    )  # fmt: skip
