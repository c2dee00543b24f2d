"""What the bank in use went through and cost so far, and its warranty with the evidence on paper."""

from collections.abc import Iterator

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.log.entry import CHARGE
from vast_harbor.core.review.charging import TAIL_C
from vast_harbor.core.review.so_far import FULL as FULL_SOC
from vast_harbor.core.review.so_far import SoFar
from vast_harbor.core.review.warranty import FULL, NONE, OVER, PRO_RATA, UNKNOWN, Claim
from vast_harbor.core.rig.sources import SOLAR
from vast_harbor.phrases import phrase
from vast_harbor.telling.times import day_text
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import ON_LOG, WORKED_OUT, Blueprint
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.log.bank_so_far import BankSoFar, bank_so_far

api = Blueprint(
    "so_far", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

# From so many charges on absorption is judged; panels that give less than this of a clear sky are told [-].
LEAST_CHARGES, DARK_PANELS = 3, 0.6


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


@api.get("/rigs/<int:rig_id>/log/so-far", lane=WORKED_OUT, rests_on=ON_LOG, responses={200: SoFarView})
def look_so_far(path: RigPath) -> Response:
    """What the bank in use went through and cost so far, against the plan."""
    so_far = bank_so_far(path.rig_id)
    bank = so_far.health.bank
    if bank is None or so_far.went is None:
        none = SoFarView(
            title=bank.title if bank else "", age="", logged="", wear=[], charging=[], charging_says=[],
            money=[], money_says=[], warranty=None,
        )  # fmt: skip
        return json_response(none)
    style, went = so_far.style, so_far.went
    view = SoFarView(
        title=bank.title,
        age=style.text(went.years, "years") if went.years >= 1 else style.text(12 * went.years, "months"),
        logged=phrase("log.so_far.logged", days=went.days, share=style.text(went.covered, "%"))
        if went.days
        else phrase("log.so_far.not_logged"),
        wear=list(wear_rows(so_far, went)),
        charging=list(_sources(so_far)),
        charging_says=list(_charging(so_far)),
        money=list(_money(so_far)),
        money_says=list(_money_says(so_far)),
        warranty=warranty_view(so_far),
    )
    return json_response(view)


def wear_rows(so_far: BankSoFar, went: SoFar) -> Iterator[ComparedView]:
    """Wear, cycles and low charges so far, each beside the figure in the plan."""
    style, health = so_far.style, so_far.health.health

    def row(key: str, name: str, now: str, planned: str = "") -> ComparedView:
        return ComparedView(key=key, name=name, now=now, planned=planned)

    if health is not None:
        used, planned = (
            min(1.0, so_far.health.now / max(end, 0.01)) for end in (health.ends[1], health.before[1])
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


def _sources(so_far: BankSoFar) -> Iterator[ComparedView]:
    """Sources whose amps were noted, against what they give by the plan."""
    style, plan = so_far.style, so_far.results.plan
    for source in plan.sources:
        noted = [abs(e.amps) for e in so_far.entries if e.kind == CHARGE and e.source == source.id and e.amps]
        if noted and source.kind != SOLAR:
            now = phrase("log.so_far.amps", amps=style.text(float(np.median(noted)), "A"), count=len(noted))
            planned = style.text(source.most_a(plan.system_v), "A")
            yield ComparedView(key=source.id, name=source.name or source.id, now=now, planned=planned)


def _charging(so_far: BankSoFar) -> Iterator[str]:
    style, absorbed, gave = so_far.style, so_far.health.absorbed, so_far.panels
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
            if so_far.went is not None and so_far.went.short_days > so_far.went.days_told / 2:
                yield phrase("log.so_far.not_full", full=style.text(FULL_SOC, "%"))
    if gave is not None:
        share, clear = style.text(gave.share, "%"), style.text(gave.clear_a, "A")
        if gave.share < DARK_PANELS:
            yield phrase("log.so_far.panels_low", share=share, clear=clear, count=gave.days)
        else:
            yield phrase("log.so_far.panels", share=share, clear=clear, count=gave.days)


def _money(so_far: BankSoFar) -> Iterator[ComparedView]:
    if so_far.cost is None or so_far.results.changeover is None:
        return
    style, cost = so_far.style, so_far.cost
    planned = so_far.results.changeover.work.compared.cost
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


def _money_says(so_far: BankSoFar) -> Iterator[str]:
    if so_far.cost is None:
        yield phrase("log.so_far.no_price")
        return
    if so_far.cost.logged:
        yield phrase("log.so_far.noted", money=so_far.style.text(so_far.cost.logged, "money"))
    yield phrase("log.so_far.falls")


def warranty_view(so_far: BankSoFar) -> WarrantyView | None:
    """The warranty of the bank in use; None where it has none."""
    if so_far.claim is None or so_far.results.changeover is None:
        return None
    held, style = so_far.claim, so_far.style
    warranty = so_far.results.changeover.work.build.bank.model.warranty
    until = day_text(held.until, style) if held.until is not None else ""
    months = (
        ""
        if held.until is None
        else style.text(float(max(0, round((held.until - so_far.today) / 30.44))), "months")
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
    health = so_far.health.health
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
