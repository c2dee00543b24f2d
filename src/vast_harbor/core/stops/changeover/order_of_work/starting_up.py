"""Steps that start the bank up: settings, proof, and what is looked at later."""

from collections.abc import Iterator

from vast_harbor.core.battery.charge_acceptance import COLD_C
from vast_harbor.core.battery.temperature import FREEZING_MARGIN_K, freezing_point_c
from vast_harbor.core.rig.sources import MAINS, SOLAR
from vast_harbor.core.stops.changeover.measurements import into_bank, strongest_source
from vast_harbor.core.stops.changeover.order_of_work.step import (
    AC,
    AMPS,
    COLD,
    FROST,
    LATER,
    METER,
    PROOF,
    RECHARGE,
    SETTINGS,
    Step,
)
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.phrases import phrase


def settings(work: Work) -> Iterator[Step]:
    """What is set, and what comes on again."""
    for source in work.sources:
        if source.charges and not source.is_relay:
            yield Step(
                f"set-{source.id}",
                SETTINGS,
                phrase("changeover.steps.set_source", name=work.name(source)),
                phrase("changeover.steps.set_source_why"),
                phrase("changeover.steps.set_source_how"),
                10,
                source=source.id,
            )
    yield Step(
        "set_loads",
        SETTINGS,
        phrase("changeover.steps.set_loads"),
        phrase("changeover.steps.set_loads_why"),
        phrase("changeover.steps.set_loads_how"),
        15,
        parts=("watch-disconnect",),
    )
    yield Step(
        "set_monitor",
        SETTINGS,
        phrase("changeover.steps.set_monitor"),
        phrase("changeover.steps.set_monitor_why"),
        phrase("changeover.steps.set_monitor_how"),
        10,
        parts=("part-shunt", "watch-gauge", "watch-buzzer"),
    )
    kinds = {s.kind for s in work.plan.sources}
    others = bool(kinds - {SOLAR})
    if others:
        yield Step(
            "sources_on",
            SETTINGS,
            phrase("changeover.steps.sources_on"),
            phrase("changeover.steps.sources_on_why"),
            "",
            10,
            1,
            (AC,) if MAINS in kinds else (),
            ("part-upkeep",),
        )
    if SOLAR in kinds:
        yield Step(
            "solar_on",
            SETTINGS,
            phrase("changeover.steps.solar_on"),
            phrase("changeover.steps.solar_on_why"),
            "",
            5,
        )


def proof(work: Work) -> Iterator[Step]:
    """How the bank is proved."""
    bank = work.build.bank
    load = phrase("changeover.steps.load", name=work.load.name, amps=f"{work.load.amps:.1f}")
    yield Step(
        "loaded",
        PROOF,
        phrase("changeover.steps.loaded"),
        phrase("changeover.steps.loaded_why"),
        phrase("changeover.steps.loaded_how", load=load),
        15,
        1,
        (AMPS, METER),
        ("tool-multimeter", "tool-clamp", "tool-resistor"),
    )
    if bank.parallel > 1:
        yield Step(
            "shared",
            PROOF,
            phrase("changeover.steps.shared"),
            phrase("changeover.steps.shared_why"),
            phrase("changeover.steps.shared_how"),
            10,
            parts=("tool-clamp",),
        )
    yield Step(
        "joints",
        PROOF,
        phrase("changeover.steps.joints"),
        phrase("changeover.steps.joints_why"),
        phrase("changeover.steps.joints_how"),
        10,
        parts=("tool-thermometer",),
    )
    yield Step(
        "acceptance",
        PROOF,
        phrase("changeover.steps.acceptance"),
        phrase("changeover.steps.acceptance_why"),
        phrase("changeover.steps.acceptance_how", load=load),
        60,
        cautions=test_cautions(work),
    )
    yield Step(
        "spent",
        PROOF,
        phrase("changeover.steps.spent"),
        phrase("changeover.steps.spent_why"),
        phrase("changeover.steps.spent_how"),
        2 + 2 * bank.units,
        cautions=(METER,),
        parts=("tool-multimeter",),
    )
    if any(s.charges for s in work.sources):
        yield Step(
            "sources",
            PROOF,
            phrase("changeover.steps.sources"),
            phrase("changeover.steps.sources_why"),
            phrase("changeover.steps.sources_how"),
            15,
            1,
            () if work.lead else (COLD,),
            ("tool-clamp",),
        )
    strongest = strongest_source(work)
    if bank.parallel > 1 and strongest is not None:
        yield Step(
            "shared_in",
            PROOF,
            phrase("changeover.steps.shared_in"),
            phrase("changeover.steps.shared_in_why"),
            phrase(
                "changeover.steps.shared_in_how",
                name=work.name(strongest),
                amps=f"{into_bank(work, strongest):.0f}",
            ),
            10,
            parts=("tool-clamp",),
        )


def test_cautions(work: Work) -> tuple[str, ...]:
    """What to know before a bank is emptied on purpose; an empty lead-acid bank freezes, and suffers soon."""
    if not work.lead:
        return (RECHARGE, COLD) if work.build.coldest.number < COLD_C else (RECHARGE,)
    frost = work.build.coldest.number < freezing_point_c(0.0) + FREEZING_MARGIN_K
    return (RECHARGE, FROST) if frost else (RECHARGE,)


def later(work: Work) -> Iterator[Step]:
    """What is looked at later."""
    yield Step(
        "day_after",
        LATER,
        phrase("changeover.steps.day_after"),
        phrase("changeover.steps.day_after_why"),
        phrase("changeover.steps.day_after_how"),
        15,
    )
    if any(s.kind == MAINS for s in work.plan.sources):
        yield Step(
            "fortnight",
            LATER,
            phrase("changeover.steps.fortnight"),
            phrase("changeover.steps.fortnight_why"),
            phrase("changeover.steps.fortnight_how"),
            10,
        )
    if work.build.coldest.number < 10:
        yield Step(
            "cold_morning",
            LATER,
            phrase("changeover.steps.cold_morning"),
            phrase("changeover.steps.cold_morning_why"),
            phrase("changeover.steps.cold_morning_lead")
            if work.lead
            else phrase("changeover.steps.cold_morning_lfp"),
            10,
        )
    yield Step(
        "quarter",
        LATER,
        phrase("changeover.steps.quarter"),
        phrase("changeover.steps.quarter_why"),
        phrase("changeover.steps.quarter_how"),
        30,
        parts=("tool-torque",),
    )
