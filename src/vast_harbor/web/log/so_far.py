"""What the bank in use went through and cost so far, and its warranty with the evidence on paper."""

import base64
import sqlite3
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.duties import DUE
from vast_harbor.core.log.entry import CAPACITY_TEST, CHARGE, FAULT, PRESENT, RECEIPT, Entry
from vast_harbor.core.log.readings import DAY_S
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import PROVED, bank_in_use, duties_of
from vast_harbor.core.review.charging import TAIL_C, Panels, panels
from vast_harbor.core.review.so_far import FULL as FULL_SOC
from vast_harbor.core.review.so_far import SoFar, Spent, spent
from vast_harbor.core.review.warranty import FULL, NONE, OVER, PRO_RATA, UNKNOWN, Claim, claim
from vast_harbor.core.rig.changeover import Purchase
from vast_harbor.core.rig.sources import SOLAR
from vast_harbor.core.stops.charging import clear_sky_amps
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.store import log, pictures
from vast_harbor.store.log import last_days
from vast_harbor.telling.times import day_text
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import HTML, ON_LOG, WORKED_OUT, Blueprint
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.log.health import EPOCH, LoggedHealth, logged_health
from vast_harbor.web.log.review import PaperQuery, printed
from vast_harbor.web.log.views import entry_view
from vast_harbor.web.log.went import went_so_far
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "so_far", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

# Duties that a maker asks for.
UPKEEP = ("water", "equalise", "full", "recharge", "look_stored")
# What its monitor counted that is told to a maker.
COUNTED = ("energy", "full_cycles", "low", "warm")
# From so many charges on absorption is judged; panels that give less than this of a clear sky are told [-].
LEAST_CHARGES, DARK_PANELS = 3, 0.6
# Entries and pictures that are evidence, at most.
MOST_ENTRIES, MOST_PICTURES = 60, 24


class ComparedView(View):
    """Something so far, against the plan."""

    key: str
    name: str
    now: str
    planned: str


class RecordView(View):
    """Something that a claim needs."""

    key: str
    name: str
    there: bool
    how: str = Field(description="How to get it, where it is missing")


class WarrantyView(View):
    """The warranty of the bank in use."""

    state: str
    says: str
    threshold: str
    conditions: str
    record: list[RecordView]


class SoFarView(View):
    """What the bank in use went through and cost so far."""

    title: str = Field(description="Empty where the rig has no bank")
    age: str
    logged: str = Field(description="How much of its life the monitor logged")
    wear: list[ComparedView]
    charging: list[ComparedView] = Field(description="Amps of the sources, as logged and as planned")
    charging_says: list[str]
    money: list[ComparedView]
    money_says: list[str]
    warranty: WarrantyView | None


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


@dataclass(frozen=True, slots=True)
class _Told:
    """All that is told of the bank in use."""

    rig_file: RigFile
    results: Results
    style: Style
    today: int
    health: LoggedHealth
    went: SoFar | None = None
    panels: Panels | None = None
    entries: tuple[Entry, ...] = ()
    cost: Spent | None = None
    claim: Claim | None = None
    purchase: Purchase = field(default_factory=Purchase)

    @property
    def bought(self) -> bool:
        """Whether the bank was bought by this plan."""
        return self.claim is not None


@api.get("/rigs/<int:rig_id>/log/so-far", lane=WORKED_OUT, rests_on=ON_LOG, responses={200: SoFarView})
def look_so_far(path: RigPath) -> Response:
    """What the bank in use went through and cost so far, against the plan."""
    told = _told(path.rig_id)
    bank = told.health.bank
    if bank is None or told.went is None:
        none = SoFarView(
            title=bank.title if bank else "", age="", logged="", wear=[], charging=[], charging_says=[],
            money=[], money_says=[], warranty=None,
        )  # fmt: skip
        return json_response(none)
    style, went = told.style, told.went
    view = SoFarView(
        title=bank.title,
        age=style.text(went.years, "years") if went.years >= 1 else style.text(12 * went.years, "months"),
        logged=phrase("log.so_far.logged", days=went.days, share=style.text(went.covered, "%"))
        if went.days
        else phrase("log.so_far.not_logged"),
        wear=list(_wear(told, went)),
        charging=list(_sources(told)),
        charging_says=list(_charging(told)),
        money=list(_money(told)),
        money_says=list(_money_says(told)),
        warranty=_warranty(told),
    )
    return json_response(view)


@api.get("/rigs/<int:rig_id>/log/warranty/paper", lane=WORKED_OUT, rests_on=ON_LOG, answers=HTML)
def warranty_paper(path: RigPath, query: PaperQuery) -> Response:
    """The evidence for a claim under warranty as one HTML document."""
    told = _told(path.rig_id)
    with database().reading() as db:
        shown = list(_pictures(db, path.rig_id))
    tests = [e for e in told.entries if e.kind in (CAPACITY_TEST, RECEIPT, FAULT)][-MOST_ENTRIES:]
    view = EvidenceView(
        title=told.health.bank.title if told.health.bank else "",
        facts=list(_facts(told)),
        tests=[_entry_row(e, told) for e in tests],
        counters=[
            EvidenceRowView(name=one.name, text=one.now)
            for one in (_wear(told, told.went) if told.went is not None else ())
            if one.key in COUNTED
        ],
        pictures=shown,
    )
    return printed("warranty.html", view, told.rig_file.rig.name, told.style, query)


def _told(rig_id: int) -> _Told:
    today = counted_today()
    rig_file, plan, results = evaluated_results(rig_id)
    health = logged_health(rig_id, results, today)
    begin = _Told(rig_file, results, rig_file.style, today, health)
    if health.bank is None or health.bank.since is None or health.health is None:
        return begin
    began = (health.bank.since - EPOCH) * 24
    in_use = bank_in_use(results)
    counted = went_so_far(rig_id, results, health)
    assert counted is not None
    hours, went = counted
    with database().reading() as db:
        entries = tuple(
            Entry(**row)
            for row in log.each(db, rig_id)
            if row["bank"] == PRESENT and row["at"] + 60 * row["offset_min"] >= began * 3600
        )
        last, shown = last_days(db, rig_id), len(pictures.listed(db, rig_id))
    timeline, system_v = results.simulated.trial.timeline, plan.system_v
    so_far_of_day = np.interp(np.arange(25), results.day.profile.edges_h, results.day.profile.energy_so_far())
    gave = panels(hours, clear_sky_amps(timeline), np.diff(so_far_of_day) / system_v)
    if in_use is None or not in_use.changed_over or results.changeover is None:
        return _Told(rig_file, results, begin.style, today, health, went, gave, entries)
    made = results.changeover
    compared, model = made.work.compared, made.work.build.bank.model
    paid = made.shopping.spent.number or compared.cost["outlay"].number
    logged = sum(e.price or 0.0 for e in entries if e.kind != RECEIPT)
    cost = spent(
        paid, logged, went, compared.life["cycles_per_year"].number, results.day.bank_wh.number,
        plan.off_grid_nights,
    )  # fmt: skip
    purchase = next((line.purchase for line in made.shopping.lines if line.key == "batteries"), Purchase())
    overdue = [d.key for d in duties_of(results, last, today) if d.state == DUE and d.key in UPKEEP]
    held = claim(
        model.warranty, in_use.since, today, purchase, plan.changeover.tick(PROVED).done, last.kinds, shown,
        overdue,
    )  # fmt: skip
    return _Told(rig_file, results, begin.style, today, health, went, gave, entries, cost, held, purchase)


def _wear(told: _Told, went: SoFar) -> Iterator[ComparedView]:
    style, health = told.style, told.health.health

    def row(key: str, name: str, now: str, planned: str = "") -> ComparedView:
        return ComparedView(key=key, name=name, now=now, planned=planned)

    if health is not None:
        used, planned = (
            min(1.0, told.health.now / max(end, 0.01)) for end in (health.ends[1], health.before[1])
        )
        yield row("life", phrase("log.so_far.life"), style.text(used, "%"), style.text(planned, "%"))
    if not went.days:
        return
    yield row("energy", phrase("log.so_far.energy"), style.text(went.out_wh, "Wh"))
    yield row("full_cycles", phrase("log.so_far.full_cycles"), style.text(went.full_cycles, "cycles"))
    if not np.isnan(went.cycle_wear):
        yield row(
            "wear", phrase("log.so_far.cycle_wear"), style.text(went.cycle_wear, "%"),
            "" if np.isnan(went.planned_wear) else style.text(went.planned_wear, "%"),
        )  # fmt: skip
        yield row(
            "short", phrase("log.so_far.short", full=style.text(FULL_SOC, "%")),
            phrase("log.so_far.of_days", count=went.days_told, number=went.short_days),
        )  # fmt: skip
        yield row("low", phrase("log.so_far.low"), style.text(went.low_hours, "duration"))
    if went.warm_hours:
        yield row("warm", phrase("log.so_far.warm"), style.text(went.warm_hours, "duration"))


def _sources(told: _Told) -> Iterator[ComparedView]:
    """Sources whose amps were noted, against what they give by the plan."""
    style, plan = told.style, told.results.plan
    for source in plan.sources:
        noted = [abs(e.amps) for e in told.entries if e.kind == CHARGE and e.source == source.id and e.amps]
        if noted and source.kind != SOLAR:
            now = phrase("log.so_far.amps", amps=style.text(float(np.median(noted)), "A"), count=len(noted))
            planned = style.text(source.most_a(plan.system_v), "A")
            yield ComparedView(key=source.id, name=source.name or source.id, now=now, planned=planned)


def _charging(told: _Told) -> Iterator[str]:
    style, absorbed, gave = told.style, told.health.absorbed, told.panels
    if absorbed is not None and absorbed.count >= LEAST_CHARGES:
        end, tail = style.text(absorbed.end_c, "%"), style.text(TAIL_C, "%")
        if absorbed.dropped > absorbed.count / 2:
            yield phrase(
                "log.so_far.dropped", count=absorbed.count, number=absorbed.dropped, end=end, tail=tail
            )
        elif absorbed.left > absorbed.count / 2:
            yield phrase("log.so_far.left", count=absorbed.count, number=absorbed.left, end=end, tail=tail)
        else:
            early = absorbed.dropped + absorbed.left
            yield phrase("log.so_far.absorbed", count=absorbed.count, number=absorbed.count - early)
            if told.went is not None and told.went.short_days > told.went.days_told / 2:
                yield phrase("log.so_far.not_full", full=style.text(FULL_SOC, "%"))
    if gave is not None:
        share, clear = style.text(gave.share, "%"), style.text(gave.clear_a, "A")
        if gave.share < DARK_PANELS:
            yield phrase("log.so_far.panels_low", share=share, clear=clear, count=gave.days)
        else:
            yield phrase("log.so_far.panels", share=share, clear=clear, count=gave.days)


def _money(told: _Told) -> Iterator[ComparedView]:
    if told.cost is None or told.results.changeover is None:
        return
    style, cost = told.style, told.cost
    planned = told.results.changeover.work.compared.cost
    names = (
        ("per_cycle", phrase("log.so_far.per_cycle")),
        ("per_kwh", phrase("log.so_far.per_kwh")),
        ("per_night", phrase("log.so_far.per_night")),
    )
    yield ComparedView(
        key="all", name=phrase("log.so_far.spent"), now=style.text(cost.all, "money"),
        planned=style.text(planned["outlay"].value, "money"),
    )  # fmt: skip
    for (key, name), each in zip(names, cost.each, strict=True):
        now = "—" if np.isnan(each) else style.text(each, "money")
        yield ComparedView(key=key, name=name, now=now, planned=style.text(planned[key].value, "money"))


def _money_says(told: _Told) -> Iterator[str]:
    if told.cost is None:
        yield phrase("log.so_far.no_price")
        return
    if told.cost.logged:
        yield phrase("log.so_far.noted", money=told.style.text(told.cost.logged, "money"))
    yield phrase("log.so_far.falls")


def _warranty(told: _Told) -> WarrantyView | None:
    if told.claim is None or told.results.changeover is None:
        return None
    held, style = told.claim, told.style
    warranty = told.results.changeover.work.build.bank.model.warranty
    until = day_text(held.until) if held.until is not None else ""
    months = (
        ""
        if held.until is None
        else style.text(float(max(0, round((held.until - told.today) / 30.44))), "months")
    )
    says = {
        FULL: phrase("log.warranty.full", until=until, months=months),
        PRO_RATA: phrase(
            "log.warranty.pro_rata", until=until, months=months, share=style.text(held.share, "%")
        ),
        OVER: phrase("log.warranty.over", until=until),
        NONE: phrase("log.warranty.none"),
        UNKNOWN: phrase("log.warranty.unknown"),
    }
    health = told.health.health
    now = "" if health is None else style.text(health.now[1], "%")
    return WarrantyView(
        state=held.state,
        says=says[held.state],
        threshold=phrase("log.warranty.threshold", health=now) if held.state in (FULL, PRO_RATA) else "",
        conditions=warranty.conditions,
        record=_record(held),
    )


def _record(held: Claim) -> list[RecordView]:
    names = {
        "receipt": (phrase("log.warranty.receipt"), phrase("log.warranty.receipt_how")),
        "serials": (phrase("log.warranty.serials"), phrase("log.warranty.serials_how")),
        "installed": (phrase("log.warranty.installed"), phrase("log.warranty.installed_how")),
        "proved": (phrase("log.warranty.proved"), phrase("log.warranty.proved_how")),
        "tested": (phrase("log.warranty.tested"), phrase("log.warranty.tested_how")),
        "pictures": (phrase("log.warranty.pictures"), phrase("log.warranty.pictures_how")),
        "kept_up": (phrase("log.warranty.kept_up"), phrase("log.warranty.kept_up_how")),
    }
    return [
        RecordView(key=key, name=names[key][0], there=there, how="" if there else names[key][1])
        for key, there in held.record.items()
    ]


def _facts(told: _Told) -> Iterator[EvidenceRowView]:
    def row(name: str, text: str) -> EvidenceRowView:
        return EvidenceRowView(name=name, text=text or phrase("log.warranty.not_noted"))

    purchase, since = told.purchase, told.health.bank.since if told.health.bank else None
    if told.bought:
        yield row(phrase("log.warranty.fact_serials"), purchase.serial)
        yield row(phrase("log.warranty.fact_bought"), _bought(told))
    yield row(phrase("log.warranty.fact_since"), "" if since is None else day_text(since))
    warranty = _warranty(told)
    if warranty is not None:
        yield row(phrase("log.warranty.fact_warranty"), warranty.says)
        yield row(phrase("log.warranty.fact_conditions"), warranty.conditions)
    if told.health.health is not None:
        low, likely, high = (told.style.text(x, "%") for x in told.health.health.now)
        text = phrase("log.review.health_logged", likely=likely, low=low, high=high)
        yield row(phrase("log.warranty.fact_health"), text)


def _bought(told: _Told) -> str:
    purchase, parts = told.purchase, list[str]()
    if purchase.on:
        parts.append(day_text(date.fromisoformat(purchase.on).toordinal()))
    if purchase.seller:
        parts.append(purchase.seller)
    if purchase.paid is not None:
        parts.append(told.style.text(purchase.paid, "money"))
    return ", ".join(parts)


def _entry_row(entry: Entry, told: _Told) -> EvidenceRowView:
    view = entry_view(entry, 0, told.rig_file, told.style)
    said = ", ".join(s.text for s in view.said)
    day = day_text((entry.at + 60 * entry.offset_min) // DAY_S + EPOCH)
    parts: Sequence[str] = [view.kind_name, said, entry.text]
    return EvidenceRowView(name=day, text=". ".join(p for p in parts if p))


def _pictures(db: sqlite3.Connection, rig_id: int) -> Iterator[EvidencePictureView]:
    for one in pictures.listed(db, rig_id)[:MOST_PICTURES]:
        body = base64.b64encode(pictures.content(db, rig_id, one.id, False)).decode()
        day = day_text(one.at // DAY_S + EPOCH)
        yield EvidencePictureView(
            name=", ".join(p for p in (one.name, day) if p), source=f"data:image/jpeg;base64,{body}"
        )
