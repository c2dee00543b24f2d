"""What there is to say about the rig: its year, and the space that it has."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.installation.axle_load import locker_litres
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.months import days_of_use
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.need import Days
from vast_harbor.phrases import phrase


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
            Sentence(phrase("rig.findings.changed_assumption_longer_exists", key=escaped(key))),
            phrase("rig.findings.check_list_assumptions_replaces"),
        )
        for key in plan.overrides
        if key not in assumptions
    )


def _year(plan: Plan) -> Iterator[Finding]:
    off = typed(
        "rig.off_grid_nights",
        phrase("terms.names.off_grid_nights_year"),
        plan.off_grid_nights,
        "nights",
        "/rig/off_grid_nights",
    )
    hook = typed(
        "rig.hook_up_nights",
        phrase("rig.findings.hook_up_nights"),
        plan.hook_up_nights,
        "nights",
        "/rig/hook_up_nights",
    )
    if plan.off_grid_nights + plan.hook_up_nights > 366:
        yield Finding(
            "nights_of_year",
            "caution",
            "rig",
            Sentence(phrase("rig.findings.off_grid_hook_up"), {"off": off, "hook": hook}),
            phrase("rig.findings.reduce_running_costs_depend"),
        )
    if plan.months and plan.off_grid_nights > days_of_use(plan):
        days = Figure(
            "rig.days_of_use",
            phrase("rig.findings.days_of_use"),
            float(days_of_use(plan)),
            "days",
            REFERENCE,
            source=phrase("rig.findings.days_of_use_source"),
        )
        yield Finding(
            "nights_of_months",
            "caution",
            "rig",
            Sentence(phrase("rig.findings.off_grid_months"), {"off": off, "days": days}),
            phrase("rig.findings.add_months"),
        )
    row = plan.nights_in_a_row
    if row is not None and row > plan.off_grid_nights:
        yield Finding(
            "row_beyond_year",
            "note",
            "rig",
            Sentence(
                phrase("rig.findings.run_longer_whole_year"),
                {
                    "row": typed(
                        "rig.nights_in_a_row",
                        phrase("terms.names.longest_run_off_grid"),
                        row,
                        "nights",
                        "/rig/nights_in_a_row",
                    ),
                    "off": off,
                },
            ),
            phrase("rig.findings.correct_two"),
        )


def _locker(plan: Plan, days: Days) -> Iterator[Finding]:
    """A first look at the space, by volume; the sizes of real batteries decide."""
    if not plan.locker.rooms or days.need.energy.number <= 0:
        return
    litres = sum(locker_litres(*room) for room in plan.locker.rooms)
    room = Figure(
        "rig.locker_l",
        phrase("rig.findings.locker_l"),
        litres,
        "l",
        REFERENCE,
        source=phrase("rig.findings.locker_l_source"),
        path="/rig/locker_length",
    )
    label_requirement = {}
    for key in ("agm", "lfp"):
        need = days.need.classes[key]
        density = need.battery_class.wh_per_l
        label_requirement[key] = computed(
            f"rig.locker.{key}", phrase("rig.findings.space_bank", short=need.battery_class.short),
            need.nameplate_wh.number / density, "l", "{E_label} / {w}",
            {"E_label": need.nameplate_wh,
             "w": Figure(f"rig.locker.{key}.w", phrase("rig.findings.w"), density, "Wh/l",
                         REFERENCE, source=phrase("terms.names.reference_value_battery_class"))},
        )  # fmt: skip
    if (
        min(label_requirement["agm"].number, label_requirement["lfp"].number) > litres
        or label_requirement["agm"].number > litres
    ):
        fits = label_requirement["lfp"].number <= litres
        yield Finding(
            "locker_space", "caution", "rig",
            Sentence(
                phrase("rig.findings.locker_volume_bank_needs"),
                {"room": room, "agm": label_requirement["agm"], "lfp": label_requirement["lfp"]},
            ),
            phrase("rig.findings.lfp_fit_check_real") if fits
            else phrase("rig.findings.neither_fits_find_second"),
        )  # fmt: skip
