"""About the program: its version, where it keeps what, and the licences of what it is made of."""

import json
import platform
import re
import sqlite3
from functools import lru_cache
from importlib.metadata import Distribution, distribution
from pathlib import Path
from typing import Literal

from flask import Response
from flask_openapi3.models.tag import Tag
from packaging.requirements import Requirement
from packaging.utils import canonicalize_name
from pydantic import BaseModel, Field

from vast_harbor import __version__
from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import phrase
from vast_harbor.store import backup
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.views import ProblemsView

api = Blueprint("about", __name__, url_prefix="/api", abp_tags=[Tag(name="about")])

# Written when the interface is built: the packages that are part of it.
OF_THE_INTERFACE = Path(__file__).parents[1] / "static" / "licences.json"
NAME = "vast-harbor"


class PackageView(BaseModel):
    """A package that is shipped."""

    name: str
    version: str
    licence: str
    part: Literal["server", "interface"]


class AboutView(BaseModel):
    """The program."""

    version: str
    python: str
    sqlite: str
    file: str = Field(description="The database file")
    copies: str = Field(description="The folder with the copies of each day")
    packages: list[PackageView]


class PackageQuery(BaseModel):
    """Which package."""

    name: str = Field(max_length=200)


class LicenceView(BaseModel):
    """The text of a licence."""

    name: str
    text: str


@api.get("/about", responses={200: AboutView})
def about() -> Response:
    """Version, data folder, and what is shipped."""
    file = database().path.resolve()
    return json_response(
        AboutView(
            version=__version__,
            python=platform.python_version(),
            sqlite=sqlite3.sqlite_version,
            file=str(file),
            copies=str(file.parent / backup.FOLDER),
            packages=[view for view, _ in _packages().values()],
        )
    )


@api.get("/about/licence", responses={200: LicenceView, 404: ProblemsView})
def licence(query: PackageQuery) -> Response:
    """The text of the licence of a package."""
    found = _packages().get(query.name)
    if found is None:
        return problems(404, Problem("/name", phrase("answers.about.package_name")))
    return json_response(LicenceView(name=query.name, text=found[1]))


@lru_cache(maxsize=1)
def _packages() -> dict[str, tuple[PackageView, str]]:
    """What is shipped by its name, with the texts of the licences."""
    found: dict[str, tuple[PackageView, str]] = {}
    for one in _needed(NAME, set()):
        name = one.metadata["Name"]
        view = PackageView(name=name, version=one.version, licence=_licence_of(one), part="server")
        found[name] = (view, _text_of(one))
    if OF_THE_INTERFACE.is_file():
        for package in json.loads(OF_THE_INTERFACE.read_text("utf-8")):
            text = package.pop("text")
            found[package["name"]] = (PackageView(**package, part="interface"), text)
    return dict(sorted(found.items(), key=lambda item: item[0].lower()))


def _needed(name: str, seen: set[str]) -> list[Distribution]:
    """The packages that one needs at run time, and those that they need."""
    out: list[Distribution] = []
    for line in distribution(name).requires or []:
        wanted = Requirement(line)
        key = canonicalize_name(wanted.name)
        if key in seen or (wanted.marker and not wanted.marker.evaluate({"extra": ""})):
            continue
        seen.add(key)
        out += [distribution(key), *_needed(key, seen)]
    return out


def _licence_of(one: Distribution) -> str:
    said = next(
        (t for field in ("License-Expression", "License") for t in one.metadata.get_all(field) or []), ""
    )
    if said and len(said) < 60 and "\n" not in said:
        return str(said)
    of_list = [c.split(" :: ")[-1] for c in one.metadata.get_all("Classifier") or [] if "License ::" in c]
    return ", ".join(of_list) or phrase("answers.about.see_text")


def _text_of(one: Distribution) -> str:
    texts = []
    for file in one.files or []:
        if ".dist-info" in str(file) and re.search(r"licen[cs]e|copying|notice", file.name.lower()):
            path = Path(str(one.locate_file(file)))
            if path.is_file():
                texts.append(path.read_text("utf-8", errors="replace").strip())
    return "\n\n—\n\n".join(texts) or _licence_of(one)
