"""Pages to print, each as one HTML document that needs nothing else: their templates and papers."""

import base64
from functools import cache, lru_cache
from pathlib import Path

from jinja2 import Environment, FileSystemLoader, Template, select_autoescape
from markupsafe import Markup

from vast_harbor.phrases import phrase

PAPERS = {"a4": "A4", "letter": "letter"}
# What papers are set in: the family of the text, and that of the headings.
SANS, SERIF = "Source Sans 3", "Source Serif 4"
FONTS = {SANS: "source-sans-3.woff2", SERIF: "source-serif-4.woff2"}


@cache
def font_face(family: str) -> str:
    """A font as a rule of a style sheet that holds it, so that a page looks the same on every computer.

    Args:
        family: :data:`SANS` or :data:`SERIF`.
    """
    held = base64.b64encode((Path(__file__).parent / "fonts" / FONTS[family]).read_bytes()).decode()
    source = f'url(data:font/woff2;base64,{held}) format("woff2")'
    return f'@font-face {{ font-family: "{family}"; font-weight: 200 900; src: {source}; }}'


@lru_cache(maxsize=8)
def _environment(folder: Path) -> Environment:
    environment = Environment(
        loader=FileSystemLoader(folder), autoescape=select_autoescape(), trim_blocks=True, lstrip_blocks=True
    )
    environment.globals["phrase"] = phrase
    environment.globals["fonts"] = Markup("\n".join(map(font_face, FONTS)))
    return environment


def page_template(beside: str, name: str) -> Template:
    """A template that lies beside a module.

    Args:
        beside: the module's ``__file__``.
        name: of the template.
    """
    return _environment(Path(beside).parent).get_template(name)
