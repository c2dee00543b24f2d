"""Steps that build the bank in: the place, each battery charged alone, the connections."""

from collections.abc import Iterator

from vast_harbor.core.installation.lifting import lifters
from vast_harbor.core.rig.source_remedies import TRADE
from vast_harbor.core.stops.changeover.measurements import equal_v, inequality
from vast_harbor.core.stops.changeover.order_of_work.step import (
    AC,
    ACID,
    AMPS,
    COLD,
    CONNECT,
    EQUAL,
    GAS,
    HEAVY,
    METER,
    PLACE,
    Step,
)
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.phrases import phrase


def place(work: Work) -> Iterator[Step]:
    """How the place is made ready."""
    plan, build = work.plan, work.build
    if plan.old_bank is not None and plan.old_bank.battery_class.is_lead_acid:
        yield Step(
            "neutralise",
            PLACE,
            phrase("changeover.steps.neutralise"),
            phrase("changeover.steps.neutralise_why"),
            phrase("changeover.steps.neutralise_how"),
            20,
            1,
            (ACID,),
            ("part-consumables", "tool-goggles"),
        )
    yield Step(
        "clean",
        PLACE,
        phrase("changeover.steps.clean"),
        phrase("changeover.steps.clean_why"),
        phrase("changeover.steps.clean_how"),
        20,
        parts=("part-consumables",),
    )
    yield Step(
        "dry_fit",
        PLACE,
        phrase("changeover.steps.dry_fit"),
        phrase("changeover.steps.dry_fit_why"),
        phrase("changeover.steps.dry_fit_how"),
        20,
        lifters(build.bank.model.kg),
        (HEAVY,) if lifters(build.bank.model.kg) > 1 else (),
        (
            "part-hold_down",
            "part-covers",
            *(f"extra-{e.id or i}" for i, e in enumerate(build.candidate.extras)),
        ),
    )
    if work.flooded:
        yield Step(
            "vent",
            PLACE,
            phrase("changeover.steps.vent"),
            phrase("changeover.steps.vent_why"),
            phrase(
                "changeover.steps.vent_how",
                area=f"{build.criteria.opening_cm2:.0f}",
                spark=f"{build.criteria.spark_mm:.0f}",
            ),
            60,
            1,
            (GAS,),
            ("check-ventilation", "check-living_space"),
        )
    for source, rung in work.remedies:
        yield Step(
            f"fit-{source.id}-{rung.key}",
            PLACE,
            f"{work.name(source)}: {rung.says}",
            phrase("changeover.steps.fit_why"),
            rung.hidden,
            60 * rung.work,
            1,
            (AC,) if rung.skill == TRADE else (),
            (f"fix-{source.id}",),
            source.id,
        )
    for required in work.required:
        if required.met and required.key.startswith("source-") and required.fix is not None:
            yield Step(
                f"fit-{required.fix.source}-{required.fix.remedy}",
                PLACE,
                required.name,
                phrase("changeover.steps.fit_why"),
                required.hidden,
                60 * required.hours,
                1,
                (AC,) if required.skill == TRADE else (),
                (required.key,),
                required.fix.source,
            )
        elif required.key.startswith("improvement-") and (required.met or required.wanted) and required.hours:
            yield Step(
                required.key,
                PLACE,
                required.name,
                phrase("changeover.steps.improve_why"),
                required.hidden,
                60 * required.hours,
                1,
                (AC,) if required.skill == TRADE else (),
                (required.key,),
            )
        elif required.met and required.key == "check-external_bms":
            yield Step(
                "bms",
                PLACE,
                required.name,
                phrase("changeover.steps.bms_why"),
                phrase("changeover.steps.bms_how"),
                60 * required.hours,
                parts=(required.key,),
            )


def equal(work: Work) -> Iterator[Step]:
    """How each battery is charged alone."""
    build = work.build
    model = build.bank.model
    cold = () if work.lead else (COLD,)
    volts = model.battery_class.absorption_v * model.unit_class_v / 12
    yield Step(
        "charge_each",
        EQUAL,
        phrase("changeover.steps.charge_each"),
        phrase("changeover.steps.charge_each_why"),
        phrase(
            "changeover.steps.charge_each_how",
            volts=f"{volts:.1f}",
            amps=f"{model.charge_a:.0f}",
            rest=phrase("changeover.steps.rest_lead") if work.lead else phrase("changeover.steps.rest_lfp"),
        ),
        30,
        1,
        ((GAS,) if work.flooded else ()) + cold,
        ("tool-charger",),
    )
    yield Step(
        "charged",
        EQUAL,
        phrase("changeover.steps.charged"),
        phrase("changeover.steps.charged_why"),
        phrase("changeover.steps.charged_how"),
        2 + 2 * build.bank.units,
        cautions=(METER,),
        parts=("tool-multimeter",),
    )


def connect(work: Work) -> Iterator[Step]:
    """How the bank is connected."""
    build, wiring = work.build, work.wiring
    bank, kg = build.bank, build.bank.model.kg
    yield Step(
        "lift_in",
        CONNECT,
        phrase("changeover.steps.lift_in"),
        phrase("changeover.steps.lift_in_why"),
        phrase("changeover.steps.lift_in_how"),
        5 + 5 * bank.units,
        lifters(kg),
        (HEAVY,) if lifters(kg) > 1 else (),
        ("part-hold_down", "part-covers"),
    )
    if bank.units > 1:
        yield Step(
            "links",
            CONNECT,
            phrase("changeover.steps.links"),
            phrase("changeover.steps.links_why"),
            phrase("changeover.steps.links_how"),
            10 * bank.units,
            1,
            (AMPS,),
            ("part-links", "part-string_fuses", "tool-torque", "tool-crimper"),
        )
        yield Step(
            "strings",
            CONNECT,
            phrase("changeover.steps.strings"),
            phrase("changeover.steps.strings_why"),
            _apart(work),
            2 + 2 * bank.parallel,
            1,
            (AMPS, METER),
            ("tool-multimeter",),
        )
    main = wiring.main
    fuse = phrase("changeover.steps.fuse_unknown") if main is None else f"{main.fuse_a:g} A"
    yield Step(
        "main_cables",
        CONNECT,
        phrase("changeover.steps.main_cables"),
        phrase("changeover.steps.main_cables_why"),
        phrase("changeover.steps.main_cables_how", fuse=fuse)
        + (phrase("changeover.steps.corners") if bank.parallel > 1 else ""),
        40,
        1,
        (AMPS,),
        ("check-cable", "part-links", "part-shunt", "wire-isolator", "wire-main_cable", "tool-crimper"),
    )
    yield Step(
        "closed",
        CONNECT,
        phrase("changeover.steps.closed"),
        phrase("changeover.steps.closed_why"),
        phrase("changeover.steps.closed_how"),
        10,
        1,
        (AMPS, METER),
        ("tool-multimeter",),
    )
    yield Step(
        "fused",
        CONNECT,
        phrase("changeover.steps.fused", fuse=fuse),
        phrase("changeover.steps.fused_why"),
        phrase("changeover.steps.fused_how"),
        5,
        1,
        (AMPS, METER),
        ("check-fuse", "check-short_circuit", "wire-main_fuse"),
    )
    if work.inverter:
        yield Step(
            "precharge",
            CONNECT,
            phrase("changeover.steps.precharge"),
            phrase("changeover.steps.precharge_why"),
            phrase("changeover.steps.precharge_how"),
            5,
            1,
            (AMPS,),
            ("tool-resistor",),
        )
    yield Step(
        "isolated",
        CONNECT,
        phrase("changeover.steps.isolated"),
        phrase("changeover.steps.isolated_why"),
        phrase("changeover.steps.isolated_how"),
        5,
        cautions=(METER,),
    )


def _apart(work: Work) -> str:
    """How strings are measured, and what to do where they differ."""
    how = phrase("changeover.steps.strings_how")
    if work.build.bank.parallel < 2:
        return how
    most = f"{equal_v(work):.2g}"
    how += phrase("changeover.steps.strings_equal", most=most)
    apart = inequality(work)
    if apart is None or apart.equal:
        return how
    return how + phrase(
        "changeover.steps.strings_apart",
        volts=f"{apart.volts:.2f}",
        low=apart.low,
        ah=f"{apart.ah:.0f}",
        amps=f"{apart.amps:.0f}",
        hours=f"{apart.hours:.1f}",
    )
