"""The evidence for a claim under warranty, as one page."""

import base64
import sqlite3
from collections.abc import Iterator, Sequence

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.entry import CAPACITY_TEST, FAULT, RECEIPT, Entry
from vast_harbor.core.log.readings import DAY_S
from vast_harbor.phrases import phrase
from vast_harbor.store import pictures
from vast_harbor.telling.times import day_text
from vast_harbor.web.base.blueprint import HTML, ON_LOG, WORKED_OUT, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.log.bank_so_far import BankSoFar, bank_so_far
from vast_harbor.web.log.health import EPOCH
from vast_harbor.web.log.review import PaperQuery, printed
from vast_harbor.web.log.so_far import warranty_view, wear_rows
from vast_harbor.web.log.views import entry_view

api = Blueprint(
    "warranty_paper", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

# What its monitor counted that is told to a maker.
COUNTED = ("energy", "full_cycles", "low", "warm")
# Entries and pictures that are evidence, at most.
MOST_ENTRIES, MOST_PICTURES = 60, 24


class EvidenceRowView(View):
    """A row of the evidence: a name with what is known, or a day with what was done."""

    name: str
    text: str


class EvidencePictureView(View):
    """A picture of the evidence."""

    name: str
    source: str = Field(description="The picture itself, as a data address")


class EvidenceView(View):
    """The evidence for a claim under warranty."""

    title: str
    facts: list[EvidenceRowView]
    tests: list[EvidenceRowView]
    counters: list[EvidenceRowView]
    pictures: list[EvidencePictureView]


@api.get("/rigs/<int:rig_id>/log/warranty/paper", lane=WORKED_OUT, rests_on=ON_LOG, answers=HTML)
def warranty_paper(path: RigPath, query: PaperQuery) -> Response:
    """The evidence for a claim under warranty as one HTML document."""
    so_far = bank_so_far(path.rig_id)
    with database().reading() as db:
        shown = list(_pictures(db, path.rig_id, so_far.style))
    tests = [e for e in so_far.entries if e.kind in (CAPACITY_TEST, RECEIPT, FAULT)][-MOST_ENTRIES:]
    view = EvidenceView(
        title=so_far.health.bank.title if so_far.health.bank else "",
        facts=list(_facts(so_far)),
        tests=[_entry_row(e, so_far) for e in tests],
        counters=[
            EvidenceRowView(name=one.name, text=one.now)
            for one in (wear_rows(so_far, so_far.went) if so_far.went is not None else ())
            if one.key in COUNTED
        ],
        pictures=shown,
    )
    return printed("warranty.html", view, so_far.rig_file.rig.name, so_far.style, query)


def _facts(so_far: BankSoFar) -> Iterator[EvidenceRowView]:
    def row(name: str, text: str) -> EvidenceRowView:
        return EvidenceRowView(name=name, text=text or phrase("log.warranty.not_noted"))

    purchase, since = so_far.purchase, so_far.health.bank.since if so_far.health.bank else None
    if so_far.bought:
        yield row(phrase("log.warranty.fact_serials"), purchase.serial)
        yield row(phrase("log.warranty.fact_bought"), _bought(so_far))
    yield row(phrase("log.warranty.fact_since"), "" if since is None else day_text(since, so_far.style))
    warranty = warranty_view(so_far)
    if warranty is not None:
        yield row(phrase("log.warranty.fact_warranty"), warranty.says)
        yield row(phrase("log.warranty.fact_conditions"), warranty.conditions)
    if so_far.health.health is not None:
        low, likely, high = (so_far.style.text(x, "%") for x in so_far.health.health.now)
        text = phrase("log.review.health_logged", likely=likely, low=low, high=high)
        yield row(phrase("log.warranty.fact_health"), text)


def _bought(so_far: BankSoFar) -> str:
    purchase, parts = so_far.purchase, list[str]()
    if purchase.on:
        parts.append(so_far.style.date(purchase.on))
    if purchase.seller:
        parts.append(purchase.seller)
    if purchase.paid is not None:
        parts.append(so_far.style.text(purchase.paid, "money"))
    return ", ".join(parts)


def _entry_row(entry: Entry, so_far: BankSoFar) -> EvidenceRowView:
    view = entry_view(entry, 0, so_far.rig_file, so_far.style)
    said = ", ".join(s.text for s in view.said)
    day = day_text((entry.at + 60 * entry.offset_min) // DAY_S + EPOCH, so_far.style)
    parts: Sequence[str] = [view.kind_name, said, entry.text]
    return EvidenceRowView(name=day, text=". ".join(p for p in parts if p))


def _pictures(db: sqlite3.Connection, rig_id: int, style: Style) -> Iterator[EvidencePictureView]:
    for one in pictures.listed(db, rig_id)[:MOST_PICTURES]:
        body = base64.b64encode(pictures.content(db, rig_id, one.id, False)).decode()
        day = day_text(one.at // DAY_S + EPOCH, style)
        yield EvidencePictureView(
            name=", ".join(p for p in (one.name, day) if p), source=f"data:image/jpeg;base64,{body}"
        )
