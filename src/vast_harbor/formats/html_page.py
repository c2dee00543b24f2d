"""Pages to print, each as one HTML document that needs nothing else: their templates and papers."""

from functools import lru_cache
from pathlib import Path

from jinja2 import Environment, FileSystemLoader, Template, select_autoescape

from vast_harbor.phrases import phrase

PAPERS = {"a4": "A4", "letter": "letter"}


@lru_cache(maxsize=8)
def _environment(folder: Path) -> Environment:
    environment = Environment(
        loader=FileSystemLoader(folder), autoescape=select_autoescape(), trim_blocks=True, lstrip_blocks=True
    )
    environment.globals["phrase"] = phrase
    return environment


def page_template(beside: str, name: str) -> Template:
    """A template that lies beside a module.

    Args:
        beside: the module's ``__file__``.
        name: of the template.
    """
    return _environment(Path(beside).parent).get_template(name)
