"""Pages of the log, each as one HTML document that needs nothing else."""

from collections.abc import Mapping
from typing import Any

from vast_harbor.formats.html_page import PAPERS, page_template


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
    return page_template(__file__, template).render(view=view, name=name, today=today, paper=PAPERS[size])
