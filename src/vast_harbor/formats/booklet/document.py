"""The booklet of the changeover and the work order, each as one HTML document that needs nothing else."""

from collections.abc import Mapping
from functools import lru_cache
from pathlib import Path
from typing import Any

from jinja2 import Environment, FileSystemLoader, select_autoescape
from markupsafe import Markup

from vast_harbor.formats.report.document import PAPERS
from vast_harbor.phrases import phrase

BOOKLET, WORK_ORDER = "booklet", "work_order"


@lru_cache(maxsize=1)
def _environment() -> Environment:
    environment = Environment(
        loader=FileSystemLoader(Path(__file__).parent), autoescape=select_autoescape(), trim_blocks=True,
        lstrip_blocks=True,
    )  # fmt: skip
    environment.globals["phrase"] = phrase
    return environment


def booklet(
    view: Mapping[str, Any], name: str, today: str, svg: str, what: str = BOOKLET, paper: str = "a4"
) -> str:
    """The changeover on paper.

    Args:
        view: the changeover as the interface is given it.
        name: of the rig.
        today: ISO date on it.
        svg: the wiring with its measuring points; empty for none.
        what: ``booklet`` for own hands, ``work_order`` for a workshop.
        paper: ``a4`` or ``letter``.

    Returns:
        HTML.
    """
    template = _environment().get_template("booklet.html")
    return template.render(
        view=view, name=name, today=today, svg=Markup(svg), order=what == WORK_ORDER, paper=PAPERS[paper],
    )  # fmt: skip
