"""Pages of the log, each as one HTML document that needs nothing else."""

from collections.abc import Mapping
from functools import lru_cache
from pathlib import Path
from typing import Any

from jinja2 import Environment, FileSystemLoader, select_autoescape

from vast_harbor.formats.report.document import PAPERS
from vast_harbor.phrases import phrase


@lru_cache(maxsize=1)
def _environment() -> Environment:
    environment = Environment(
        loader=FileSystemLoader(Path(__file__).parent), autoescape=select_autoescape(), trim_blocks=True,
        lstrip_blocks=True,
    )  # fmt: skip
    environment.globals["phrase"] = phrase
    return environment


def paper(template: str, view: Mapping[str, Any], name: str, today: str, size: str = "a4") -> str:
    """A page of the log.

    Args:
        template: ``review.html`` or ``warranty.html``.
        view: what is on it, as the interface is given it.
        name: of the rig.
        today: date on it, as it is written.
        size: ``a4`` or ``letter``.

    Returns:
        HTML.
    """
    return _environment().get_template(template).render(view=view, name=name, today=today, paper=PAPERS[size])
