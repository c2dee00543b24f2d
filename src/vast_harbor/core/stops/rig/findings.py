"""What there is to say about the rig: its year, and the space that it has."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.installation.axle_load import locker_litres
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.need import Days


def rig_findings(plan: Plan, days: Days) -> tuple[Finding, ...]:
    """All findings of the rig itself."""
    return (*_year(plan), *_locker(plan, days))


def forgotten(plan: Plan, assumptions: Assumptions) -> tuple[Finding, ...]:
    """Assumptions that the owner set and that this version of the program does not have any more."""
    return tuple(
        Finding(
            "assumption_gone",
            "note",
            "rig",
            Sentence(
                f"The assumption “{escaped(key)}”, which you set, is not known any more: it is left aside."
            ),
            "Look among the assumptions whether another one took its place.",
        )
        for key in plan.overrides
        if key not in assumptions
    )


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
    if not plan.locker.rooms or days.need.energy.number <= 0:
        return
    litres = sum(locker_litres(*room) for room in plan.locker.rooms)
    room = Figure(
        "rig.locker_l",
        "Room in the locker",
        litres,
        "l",
        REFERENCE,
        source="Inside measures less 25 mm at the sides and 50 mm over the terminals",
        path="/rig/locker_length",
    )
    label_requirement = {}
    for key in ("agm", "lfp"):
        need = days.need.classes[key]
        density = need.battery_class.wh_per_l
        label_requirement[key] = computed(
            f"rig.locker.{key}", f"Space of such a bank, {need.battery_class.short}",
            need.nameplate_wh.number / density, "l", "{E_label} / {w}",
            {"E_label": need.nameplate_wh,
             "w": Figure(f"rig.locker.{key}.w", "Energy in the space that batteries take", density, "Wh/l",
                         REFERENCE, source="Reference value of the battery class")},
        )  # fmt: skip
    if (
        min(label_requirement["agm"].number, label_requirement["lfp"].number) > litres
        or label_requirement["agm"].number > litres
    ):
        fits = label_requirement["lfp"].number <= litres
        yield Finding(
            "locker_space", "care", "rig",
            Sentence(
                "By volume the locker holds {room}; the need asks about {agm} as AGM and {lfp} as LFP.",
                {"room": room, "agm": label_requirement["agm"], "lfp": label_requirement["lfp"]},
            ),
            "Only LFP has a chance to fit here; measure real cases before you buy." if fits
            else "Neither fits: find a second place, or plan for less.",
        )  # fmt: skip
