"""Steps before the new batteries go in: their arrival, and the old bank out."""

from collections.abc import Iterator

from vast_harbor.core.installation.lifting import lifters
from vast_harbor.core.rig.sources import ENGINE, GENERATOR, MAINS, SOLAR, STREAM
from vast_harbor.core.stops.changeover.order_of_work.step import (
    AC,
    ACID,
    AMPS,
    ARRIVAL,
    DAMAGED,
    GAS,
    HEAVY,
    METER,
    OUT_OLD,
    Step,
)
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.phrases import phrase


def arrival(work: Work) -> Iterator[Step]:
    """What is looked at when the batteries arrive."""
    bank, model = work.build.bank, work.build.bank.model
    heavy = (HEAVY,) if lifters(model.kg) > 1 else ()
    yield Step(
        "packing",
        ARRIVAL,
        phrase("changeover.steps.packing"),
        phrase("changeover.steps.packing_why"),
        phrase("changeover.steps.packing_how"),
        10,
        lifters(model.kg),
        (DAMAGED, *heavy),
        ("batteries", "spare"),
    )
    yield Step(
        "serials",
        ARRIVAL,
        phrase("changeover.steps.serials"),
        phrase("changeover.steps.serials_why"),
        phrase("changeover.steps.serials_how", count=bank.units),
        5,
    )
    yield Step(
        "entry",
        ARRIVAL,
        phrase("changeover.steps.entry"),
        phrase("changeover.steps.entry_why"),
        phrase(
            "changeover.steps.entry_how",
            title=model.title,
            volts=f"{model.nominal_v:g}",
            ah=f"{model.rated_ah:g}",
            series=bank.series,
            parallel=bank.parallel,
        ),
        10,
    )
    yield Step(
        "arrived",
        ARRIVAL,
        phrase("changeover.steps.arrived"),
        phrase("changeover.steps.arrived_why"),
        phrase("changeover.steps.arrived_how_sleeps")
        if work.sleeps
        else phrase("changeover.steps.arrived_how"),
        2 + 2 * bank.units,
        1,
        (DAMAGED, METER),
        ("tool-multimeter",),
    )


def old(work: Work) -> Iterator[Step]:
    """How the old bank is taken out."""
    plan, kinds = work.plan, {s.kind for s in work.plan.sources}
    yield Step(
        "photo",
        OUT_OLD,
        phrase("changeover.steps.photo"),
        phrase("changeover.steps.photo_why"),
        phrase("changeover.steps.photo_how"),
        15,
    )
    if plan.old_bank is not None and any(s.charges for s in plan.sources):
        yield Step(
            "sources_before",
            OUT_OLD,
            phrase("changeover.steps.sources_before"),
            phrase("changeover.steps.sources_before_why"),
            phrase("changeover.steps.sources_before_how"),
            15,
            parts=("tool-clamp",),
        )
    if SOLAR in kinds:
        yield Step(
            "off_solar",
            OUT_OLD,
            phrase("changeover.steps.off_solar"),
            phrase("changeover.steps.off_solar_why"),
            phrase("changeover.steps.off_solar_how"),
            5,
        )
    if STREAM in kinds:
        yield Step(
            "off_stream",
            OUT_OLD,
            phrase("changeover.steps.off_stream"),
            phrase("changeover.steps.off_stream_why"),
            "",
            5,
        )
    if kinds & {MAINS, GENERATOR}:
        yield Step(
            "off_mains",
            OUT_OLD,
            phrase("changeover.steps.off_mains"),
            phrase("changeover.steps.off_mains_why"),
            phrase("changeover.steps.off_mains_how"),
            5,
            1,
            (AC,),
        )
    if ENGINE in kinds:
        yield Step(
            "off_engine",
            OUT_OLD,
            phrase("changeover.steps.off_engine"),
            phrase("changeover.steps.off_engine_why"),
            phrase("changeover.steps.off_engine_how"),
            5,
        )
    yield Step(
        "off_loads",
        OUT_OLD,
        phrase("changeover.steps.off_loads"),
        phrase("changeover.steps.off_loads_why"),
        phrase("changeover.steps.off_loads_how_inverter") if work.inverter else "",
        5,
    )
    old = plan.old_bank
    if old is None:
        return
    yield Step(
        "off_negative",
        OUT_OLD,
        phrase("changeover.steps.off_negative"),
        phrase("changeover.steps.off_negative_why"),
        phrase("changeover.steps.off_negative_how"),
        15,
        1,
        (AMPS, *((GAS,) if old.battery_class.water else ())),
        ("tool-spanners",),
    )
    kg = old.unit_kg or old.unit_v * old.unit_ah / old.battery_class.wh_per_kg
    yield Step(
        "lift_out",
        OUT_OLD,
        phrase("changeover.steps.lift_out"),
        phrase("changeover.steps.lift_out_why"),
        phrase("changeover.steps.lift_out_how", kg=f"{kg:.0f}", count=old.series * old.parallel),
        5 + 5 * old.series * old.parallel,
        lifters(kg),
        ((HEAVY,) if lifters(kg) > 1 else ()) + ((ACID,) if old.battery_class.is_lead_acid else ()),
        ("tool-goggles",) if old.battery_class.is_lead_acid else (),
    )
