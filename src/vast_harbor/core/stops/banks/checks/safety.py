"""What happens when one part fails, and what a person must lift."""

from collections.abc import Iterator

from vast_harbor.core.battery.datasheet import CUT_OFFS, EXTERNAL_BMS, MONITOR, OWN_SWITCH
from vast_harbor.core.figures.workings import Sentence, escaped
from vast_harbor.core.installation.lifting import HOIST_KG, TWO_KG
from vast_harbor.core.rig.loads import SECOND
from vast_harbor.core.stops.banks.checks.check import CAUTION, NOTE, OK, Build, Check
from vast_harbor.core.stops.banks.reasons import UNSWITCHED
from vast_harbor.phrases import phrase


def checks(build: Build) -> Iterator[Check]:
    """Critical loads, the switch of a lithium battery, and the heaviest piece.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _redundancy(build)
    yield from _switch(build)
    yield from _heaviest(build)


def _critical(build: Build) -> list[str]:
    second = build.plan.second is not None
    return [x.name for x in build.plan.loads if x.critical and not (second and x.bank == SECOND)]


def _redundancy(build: Build) -> Iterator[Check]:
    name, names, bank = phrase("checks.safety.part_fails"), _critical(build), build.bank
    if not names:
        yield Check("redundancy", name, OK, Sentence(phrase("checks.safety.redundancy")))
        return
    listed = escaped(", ".join(names[:3]) + (phrase("checks.safety.and_more") if len(names) > 3 else ""))
    one = bank.parallel == 1
    bms = bank.model.bms
    if build.lead:
        says = phrase("checks.safety.dead_cell_stops_whole", listed=listed) if one else (
            phrase("checks.safety.string_own_fuse_faulty", listed=listed)
        )  # fmt: skip
        yield Check(
            "redundancy", name, NOTE if one and bank.series > 1 else OK, Sentence(says),
            phrase("checks.safety.redundancy_remedy") if one else "",
        )  # fmt: skip
        return
    warns = bms is not None and bms.warns
    if not one:
        yield Check(
            "redundancy", name, OK,
            Sentence(phrase("checks.safety.listed_one_bms_shuts", listed=listed)),
        )  # fmt: skip
        return
    yield Check(
        "redundancy", name, NOTE if warns else CAUTION,
        Sentence(
            phrase("checks.safety.listed_one_bms_supplies", listed=listed)
            + (phrase("checks.safety.ends_warned") if warns else phrase("checks.safety.ends_unwarned"))
        ),
        phrase("checks.safety.redundancy_use_two_smaller_batteries_remedy"),
    )  # fmt: skip


def _switch(build: Build) -> Iterator[Check]:
    bms = build.bank.model.bms
    if build.lead or bms is None:
        return
    name = phrase("checks.safety.disconnects_emergency")
    if bms.switch == OWN_SWITCH:
        says = phrase("checks.safety.own_bms_shuts_down") + (
            phrase("checks.safety.after_warning") if bms.warns else phrase("checks.safety.without_warning")
        )
        says += (
            phrase("checks.safety.reconnects_itself")
            if bms.resets == "itself"
            else phrase("checks.safety.charger_wake_again")
        )
        asleep = bms.resets != "itself"
        yield Check(
            "bms_reset", name, NOTE if asleep else OK, Sentence(says),
            phrase("checks.safety.bms_reset_remedy")
            if asleep else "",
        )  # fmt: skip
        return
    what = (
        phrase("checks.safety.monitors_cells")
        if bms.switch == MONITOR
        else phrase("checks.safety.neither_monitor_nor_switch")
    )
    guard = build.candidate.protection
    if guard == EXTERNAL_BMS:
        yield Check(UNSWITCHED, name, OK, Sentence(phrase("checks.safety.external_bms", what=what)))
        return
    if guard == CUT_OFFS:
        yield Check(
            UNSWITCHED, name, CAUTION,
            Sentence(
                phrase("checks.safety.what_cut_offs_inverter", what=what)
            ),
            phrase("checks.safety.external_bms_remedy"),
        )  # fmt: skip
        return
    yield Check(
        UNSWITCHED, name, build.verdict(UNSWITCHED, CAUTION),
        Sentence(phrase("checks.safety.what_nothing_stops_overcharging", what=what)),
        phrase("checks.safety.external_bms_buy_external_bms_contactor_remedy"),
    )  # fmt: skip


def _heaviest(build: Build) -> Iterator[Check]:
    kg = build.of_entry("unit_kg", phrase("terms.names.weight_battery"), build.bank.model.kg, "kg")
    limit = build.of_entry("lift_kg", phrase("checks.safety.lift_kg"), TWO_KG, "kg", "Practice.")
    hoist = build.bank.model.kg > HOIST_KG
    yield build.compare_to_limit(
        "heaviest", phrase("checks.safety.heaviest_title"), kg, limit, phrase("checks.safety.heaviest_holds"),
        phrase("checks.safety.heaviest_broken") + (phrase("checks.safety.heaviest_use_hoist_broken") if hoist
                                           else phrase("checks.safety.heaviest_two_people_must_lift_broken")),
        phrase("checks.safety.heaviest_remedy"), severity=CAUTION if hoist else NOTE,
    )  # fmt: skip
