"""What there is to say about the need: stays, sunny-week planning, the governing day."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.rig.loads import DC
from vast_harbor.core.rig.plan import Plan, Reference
from vast_harbor.core.stops.need.governing_day import Days


def need_findings(plan: Plan, reference: Reference, days: Days) -> tuple[Finding, ...]:
    """All findings of the need."""
    if days.day.bank_wh.number <= 0:
        return (
            _note(
                "no_use",
                Sentence("The day has no energy yet, so there is no need to work out."),
                "List the loads on the Day stop.",
            ),
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
            Sentence("Overnight is counted from five in the afternoon to nine in the morning."),
            "Choose a site on the Rig stop, or state when it is charged on the Day stop.",
        )
    if not plan.overnight and need.nights.number < 1:
        yield _note(
            "short_nights",
            Sentence("Planned for {N} without a charge: one cloudy day empties it.", {"N": need.nights}),
            "Plan for at least one night unless the bank is charged every day.",
        )
    sunny = plan.overnight or need.nights.number <= 1
    if sunny and need.reserve.number < 0.2 and need.day.type.carried:
        yield _note(
            "sunny_week",
            Sentence(
                "This is a plan for a sunny week: {N} without a charge and a reserve of only {m}.",
                {"N": need.nights, "m": need.reserve},
            ),
            "A week of rain decides how much is enough; two nights and a quarter are customary.",
            "care",
        )
    row = plan.nights_in_a_row
    if row is not None and 0 < row < need.nights.number - 1e-9:
        yield _note(
            "nights_in_a_row",
            Sentence(
                "Planned for {N} without a charge, but you are never out for more than {row} in a row.",
                {
                    "N": need.nights,
                    "row": typed(
                        "rig.nights_in_a_row", "Nights in a row", row, "nights", "/rig/nights_in_a_row"
                    ),
                },
            ),
            "Plan for that many, if hook-up fills it every time.",
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
        f"rig.stay.{field}", f"Nights until {first} ends", known[first], "nights", f"/rig/stay/{field}"
    )
    carries = computed(
        "need.carries", "Nights that such a bank carries",
        need.nights.number * (1 + need.reserve.number), "nights", "{N} · (1 + {m})",
        {"N": need.nights, "m": need.reserve}, "The reserve carries nights too when nothing goes wrong",
    )  # fmt: skip
    if need.nights.number > known[first] + 1e-9:
        yield _note(
            "outlasts_stay",
            Sentence(
                f"Such a bank lasts {{carries}}, but {first} ends the stay after {{limit}}: part of it is "
                "never used.",
                {"carries": carries, "limit": limit},
            ),
            f"Plan for fewer nights, or carry more {first if first != 'the waste tank' else 'tank'}.",
            "care",
        )


def _governing(reference: Reference, days: Days) -> Iterator[Finding]:
    if len(days.days) > 1 and days.disagree and not days.chosen:
        key, other = next(iter(days.disagree.items()))
        more = days.needs[other].classes[key].nameplate_ah
        yield _note(
            "governing_differs",
            Sentence(
                f"“{escaped(days.day.type.name)}” governs on the whole, but for "
                f"{reference.classes[key].short} “{escaped(days.days[other].type.name)}” asks more: {{ah}}.",
                {"ah": more},
            ),
            "Choose that day on the Day stop to plan for it.",
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
                    f"You plan for “{escaped(days.day.type.name)}”, though "
                    f"“{escaped(days.days[most].type.name)}” "
                    "asks more: {more} instead of {less}.",
                    {"more": days.needs[most].energy, "less": days.need.energy},
                ),
                "On such days the bank will not last.",
                "care",
            )


def standby_days(plan: Plan, days: Days) -> Figure | None:
    """Days until the needed usable energy is gone with everything off; None without standby."""
    if plan.standby_w <= 0 or days.need.energy.number <= 0:
        return None
    return computed(
        "need.standby_days", "Until it is down by standby alone",
        days.need.energy.number / days.day.standby_wh.number, "days", "{E_need} / {E_standby}",
        {"E_need": days.need.energy, "E_standby": days.day.standby_wh},
        "Usable energy ÷ what the monitor reads with everything off",
        "Self-discharge and the BMS come on top.",
    )  # fmt: skip


def _standby(plan: Plan, days: Days) -> Iterator[Finding]:
    share = days.day.standby_wh.number / days.day.bank_wh.number
    left = standby_days(plan, days)
    if share > 0.15 and left is not None:
        yield _note(
            "standby_drain",
            Sentence(
                "With everything off {E} a day go all the same; that alone brings such a bank to its floor "
                "in {left}.",
                {"E": days.day.standby_wh, "left": left},
            ),
            "Pull fuses one by one until the monitor falls: the one that matters is the hidden drain.",
            "care",
        )
    at_12 = [f for f in days.day.loads if f.load.supply == DC and f.load.draw.unit == "A"]
    if at_12 and plan.system_v > 12 and any(abs(f.load.volts - 12) < 2.5 for f in at_12):
        yield _note(
            "amps_of_appliances",
            Sentence("Some loads are given in amps at 12 V, while the bank has more volts."),
            "They are counted in watts; do not add their amps to those of the bank.",
        )
