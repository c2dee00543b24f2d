"""What there is to say about the need: stays, sunny-week planning, the governing day."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.rig.loads import DC
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.need.governing_day import Days
from vast_harbor.phrases import phrase


def need_findings(plan: Plan, reference: Reference, days: Days) -> tuple[Finding, ...]:
    """All findings of the need."""
    if days.day.bank_wh.number <= 0:
        return (
            _note("no_use", Sentence(phrase("need.findings.no_use")), phrase("need.findings.no_use_remedy")),
        )
    return (
        *_nights(plan, days), *_stay(plan, days), *_governing(reference, days), *_standby(plan, days),
    )  # fmt: skip


def _note(code: str, text: Sentence, remedy: str, severity: str = "note") -> Finding:
    return Finding(code, severity, "need", text, remedy)


def _nights(plan: Plan, days: Days) -> Iterator[Finding]:
    need = days.need
    if plan.overnight and need.day.sun is None and need.day.type.charge_from is None:
        yield _note(
            "overnight_window",
            Sentence(phrase("need.findings.overnight_window")),
            phrase("need.findings.overnight_window_remedy"),
        )
    if not plan.overnight and need.nights.number < 1:
        yield _note(
            "short_nights",
            Sentence(phrase("need.findings.short_nights"), {"N": need.nights}),
            phrase("need.findings.short_nights_remedy"),
        )
    sunny = plan.overnight or need.nights.number <= 1
    if sunny and need.reserve.number < 0.2 and need.day.type.carried:
        yield _note(
            "sunny_week",
            Sentence(phrase("need.findings.sunny_week"), {"N": need.nights, "m": need.reserve}),
            phrase("need.findings.sunny_week_remedy"),
            "caution",
        )
    row = plan.nights_in_a_row
    if row is not None and 0 < row < need.nights.number - 1e-9:
        yield _note(
            "nights_in_a_row",
            Sentence(
                phrase("need.findings.nights_in_a_row"),
                {
                    "N": need.nights,
                    "row": typed(
                        "rig.nights_in_a_row",
                        phrase("terms.names.longest_run_off_grid"),
                        row,
                        "nights",
                        "/rig/nights_in_a_row",
                    ),
                },
            ),
            phrase("need.findings.nights_in_a_row_remedy"),
        )


def _stay(plan: Plan, days: Days) -> Iterator[Finding]:
    """What else ends a stay: a bank that outlasts it is partly unused."""
    stay, need = plan.stay, days.need
    ends = {
        "water": stay.water_nights, "the waste tank": stay.waste_nights, "gas": stay.gas_nights,
    }  # fmt: skip
    known = {name: nights for name, nights in ends.items() if nights is not None}
    if not known:
        return
    first = min(known, key=lambda name: known[name])
    field = {"water": "water_nights", "the waste tank": "waste_nights", "gas": "gas_nights"}[first]
    limit = typed(
        f"rig.stay.{field}",
        phrase("need.findings.nights_until_limit", first=first),
        known[first],
        "nights",
        f"/rig/{field}",
    )
    carries = computed(
        "need.carries", phrase("need.findings.carries"),
        need.nights.number * (1 + need.reserve.number), "nights", "{N} · (1 + {m})",
        {"N": need.nights, "m": need.reserve}, phrase("need.findings.carries_source"),
    )  # fmt: skip
    if need.nights.number > known[first] + 1e-9:
        yield _note(
            "outlasts_stay",
            Sentence(
                phrase("need.findings.outlasts_stay", first=first), {"carries": carries, "limit": limit}
            ),
            phrase(
                "need.findings.outlasts_stay_remedy", first=first if first != "the waste tank" else "tank"
            ),
            "caution",
        )


def _governing(reference: Reference, days: Days) -> Iterator[Finding]:
    if len(days.days) > 1 and days.disagree and not days.chosen:
        key, other = next(iter(days.disagree.items()))
        more = days.needs[other].classes[key].nameplate_ah
        yield _note(
            "governing_differs",
            Sentence(
                phrase(
                    "need.findings.governing_differs",
                    name=escaped(days.day.type.name),
                    short=reference.classes[key].short,
                    name_2=escaped(days.days[other].type.name),
                ),
                {"ah": more},
            ),
            phrase("need.findings.governing_differs_remedy"),
        )
    if days.chosen:
        most = max(
            days.label_requirement,
            key=lambda k: days.label_requirement[k].total if days.days[k].type.carried else 0.0,
        )
        if (
            most != days.governing
            and days.label_requirement[most].total > days.label_requirement[days.governing].total
        ):
            yield _note(
                "governing_chosen",
                Sentence(
                    phrase(
                        "need.findings.governing_chosen",
                        name=escaped(days.day.type.name),
                        name_2=escaped(days.days[most].type.name),
                    ),
                    {"more": days.needs[most].energy, "less": days.need.energy},
                ),
                phrase("need.findings.governing_chosen_remedy"),
                "caution",
            )


def standby_days(plan: Plan, days: Days) -> Figure | None:
    """Days until the needed usable energy is gone with everything off; None without standby."""
    if plan.standby_w <= 0 or days.need.energy.number <= 0:
        return None
    return computed(
        "need.standby_days", phrase("need.findings.standby_days"),
        days.need.energy.number / days.day.standby_wh.number, "days", "{E_need} / {E_standby}",
        {"E_need": days.need.energy, "E_standby": days.day.standby_wh},
        phrase("need.findings.standby_days_source"),
        phrase("need.findings.standby_days_note"),
    )  # fmt: skip


def _standby(plan: Plan, days: Days) -> Iterator[Finding]:
    share = days.day.standby_wh.number / days.day.bank_wh.number
    left = standby_days(plan, days)
    if share > 0.15 and left is not None:
        yield _note(
            "standby_drain",
            Sentence(phrase("need.findings.standby_drain"), {"E": days.day.standby_wh, "left": left}),
            phrase("need.findings.standby_drain_remedy"),
            "caution",
        )
    at_12 = [f for f in days.day.loads if f.load.supply == DC and f.load.draw.unit == "A"]
    if at_12 and plan.system_v > 12 and any(abs(f.load.volts - 12) < 2.5 for f in at_12):
        yield _note(
            "amps_of_appliances",
            Sentence(phrase("need.findings.amps_of_appliances")),
            phrase("need.findings.amps_of_appliances_remedy"),
        )
