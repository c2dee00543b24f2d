"""What there is to say about the rig: its year, what it can carry, and what may be spent (part of Rig)."""

from collections.abc import Iterator

from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.loading import coupling_change, locker_litres, trim_moment
from vast_harbor.core.plan import Plan
from vast_harbor.core.stops.banks import BankFigures, Banks
from vast_harbor.core.stops.days import Days
from vast_harbor.core.workings import REFERENCE, Figure, Finding, Sentence, computed, typed


def findings(plan: Plan, assumptions: Assumptions, days: Days, banks: Banks) -> tuple[Finding, ...]:
    """All findings of the rig itself, and of what it can carry for each candidate."""
    found = [*_year(plan), *_locker(plan, days)]
    for banked in banks.candidates:
        if banked.bank is not None:
            found += [*_weight(plan, banked, banks), *_budget(plan, banked)]
    return tuple(found)


def _year(plan: Plan) -> Iterator[Finding]:
    off = typed(
        "rig.off_grid_nights",
        "Off-grid nights a year",
        plan.off_grid_nights,
        "nights",
        "/rig/off_grid_nights",
    )
    hook = typed(
        "rig.hook_up_nights", "Nights on hook-up", plan.hook_up_nights, "nights", "/rig/hook_up_nights"
    )
    if plan.off_grid_nights + plan.hook_up_nights > 366:
        yield Finding(
            "nights_of_year",
            "care",
            "rig",
            Sentence(
                "{off} off-grid and {hook} on hook-up are more than a year has.", {"off": off, "hook": hook}
            ),
            "Lower one of them; off-grid nights are what the money is counted by.",
        )
    row = plan.nights_in_a_row
    if row is not None and row > plan.off_grid_nights:
        yield Finding(
            "row_beyond_year",
            "note",
            "rig",
            Sentence(
                "{row} in a row are more than the {off} of the whole year.",
                {
                    "row": typed(
                        "rig.nights_in_a_row", "Nights in a row", row, "nights", "/rig/nights_in_a_row"
                    ),
                    "off": off,
                },
            ),
            "One of the two is a slip.",
        )


def _locker(plan: Plan, days: Days) -> Iterator[Finding]:
    """A first look at the space, by volume; the sizes of real batteries decide."""
    if plan.loading.locker_mm is None or days.need.energy.number <= 0:
        return
    litres = locker_litres(*plan.loading.locker_mm)
    room = Figure(
        "rig.locker_l",
        "Room in the locker",
        litres,
        "l",
        REFERENCE,
        source="Inside measures less 25 mm at the sides and 50 mm over the terminals",
        path="/rig/locker_length",
    )
    asks = {}
    for key in ("agm", "lfp"):
        need = days.need.classes[key]
        density = need.battery_class.wh_per_l
        asks[key] = computed(
            f"rig.locker.{key}", f"Space of such a bank, {need.battery_class.short}",
            need.nameplate_wh.number / density, "l", "{E_label} / {w}",
            {"E_label": need.nameplate_wh,
             "w": Figure(f"rig.locker.{key}.w", "Energy in the space that batteries take", density, "Wh/l",
                         REFERENCE, source="Reference value of the battery class")},
        )  # fmt: skip
    if min(asks["agm"].number, asks["lfp"].number) > litres or asks["agm"].number > litres:
        fits = asks["lfp"].number <= litres
        yield Finding(
            "locker_space", "care", "rig",
            Sentence(
                "By volume the locker holds {room}; the need asks about {agm} as AGM and {lfp} as LFP.",
                {"room": room, "agm": asks["agm"], "lfp": asks["lfp"]},
            ),
            "Only LFP has a chance to fit here; measure real cases before you buy." if fits
            else "Neither fits: find a second place, or plan for less.",
        )  # fmt: skip


def _weight(plan: Plan, banked: BankFigures, banks: Banks) -> Iterator[Finding]:
    loading, kg, at = plan.loading, banked["kg"], f"bank.{banked.candidate.id}"
    old = banks.old_kg
    old_kg = old.number if old else 0.0
    change = banked.figures.get("kg_change", kg)
    if loading.payload_kg is not None and plan.kind != "cabin" and change.number > loading.payload_kg:
        limit = typed("rig.payload_kg", "Payload left", loading.payload_kg, "kg", "/rig/payload_kg")
        yield Finding(
            "payload", "stop", "banks",
            Sentence("It adds {kg}, but only {limit} of payload are left.", {"kg": change, "limit": limit}),
            "A lighter bank, a smaller one, or unload something else.", banked.candidate.id,
        )  # fmt: skip
    if loading.old_x_m is None or loading.new_x_m is None:
        return
    x = {
        "x_new": typed("rig.new_x_m", "Lever of the new bank", loading.new_x_m, "m", "/rig/new_x_m"),
        "x_old": typed("rig.old_x_m", "Lever of the old bank", loading.old_x_m, "m", "/rig/old_x_m"),
        "m_new": kg,
        "m_old": old
        or Figure("rig.old.none_kg", "No old bank", 0.0, "kg", REFERENCE, source="None is entered"),
    }
    if plan.kind == "boat":
        moment = computed(
            f"{at}.trim", "Change of the trim moment",
            trim_moment(kg.number, loading.new_x_m, old_kg, loading.old_x_m), "kg·m",
            "{m_new} · {x_new} − {m_old} · {x_old}", x, "Positive trims her by the bow",
        )  # fmt: skip
        if abs(moment.number) >= 50:
            yield Finding(
                "trim", "note", "banks",
                Sentence("It changes the trim by {moment}.", {"moment": moment}),
                "Look at how she sits now: a bank further aft or forward may right her.", banked.candidate.id,
            )  # fmt: skip
        return
    if loading.base_m is None or plan.kind == "cabin":
        return
    base = typed("rig.base_m", "Axle to coupling, or wheelbase", loading.base_m, "m", "/rig/base_m")
    shift = computed(
        f"{at}.coupling", "Change at the coupling" if plan.kind == "caravan" else "Change on the front axle",
        coupling_change(kg.number, loading.new_x_m, old_kg, loading.old_x_m, loading.base_m), "kg",
        "({m_new} · {x_new} − {m_old} · {x_old}) / {L}", {**x, "L": base},
        "Levers about the (rear) axle; what lies ahead of it presses on the coupling or the front axle",
    )  # fmt: skip
    if plan.kind == "caravan" and loading.coupling_kg is not None and loading.coupling_max_kg is not None:
        now = typed(
            "rig.coupling_kg", "Load on the coupling now", loading.coupling_kg, "kg", "/rig/coupling_kg"
        )
        most = typed(
            "rig.coupling_max_kg",
            "Most that it may be",
            loading.coupling_max_kg,
            "kg",
            "/rig/coupling_max_kg",
        )
        then = computed(
            f"{at}.coupling_then",
            "Load on the coupling with it",
            now.number + shift.number,
            "kg",
            "{now} + {change}",
            {"now": now, "change": shift},
        )
        if then.number > most.number:
            yield Finding(
                "coupling",
                "stop",
                "banks",
                Sentence(
                    "With it {then} press on the coupling; {most} are permitted.",
                    {"then": then, "most": most},
                ),
                "Stand it nearer the axle or behind it, or choose a lighter bank.",
                banked.candidate.id,
            )
        elif then.number <= 0:
            yield Finding(
                "coupling_light",
                "stop",
                "banks",
                Sentence(
                    "With it only {then} press on the coupling: the caravan would snake.", {"then": then}
                ),
                "Stand it further forward.",
                banked.candidate.id,
            )


def _budget(plan: Plan, banked: BankFigures) -> Iterator[Finding]:
    if plan.budget is None:
        return
    purchase, extras = banked["purchase"], banked.figures.get("extras")
    total = purchase
    if extras is not None and extras.number > 0:
        total = computed(
            f"bank.{banked.candidate.id}.outlay",
            "Batteries and extras",
            purchase.number + extras.number,
            "money",
            "{P} + {X}",
            {"P": purchase, "X": extras},
        )
    if total.number > plan.budget:
        ceiling = typed("rig.budget", "Most to spend at once", plan.budget, "money", "/rig/budget")
        yield Finding(
            "budget", "care", "banks",
            Sentence("It costs {total}, more than the {ceiling} that you want to spend at once.",
                     {"total": total, "ceiling": ceiling}),
            "Plan for fewer nights, buy in steps, or take a cheaper class.", banked.candidate.id,
        )  # fmt: skip
