"""Gas while charging: living space, air flow and openings."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, OK, STOP, Build, Check

IEC = "After IEC 62485-2, written for stationary batteries; taken as the careful guide"


def checks(build: Build) -> Iterator[Check]:
    """Gassing batteries in a living space, and the openings that their locker needs.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    battery_class, locker = build.bank.model.battery_class, build.plan.locker
    name = "Air"
    if battery_class.vented == "no":
        yield Check("ventilation", name, OK, Sentence("Makes no gas in use; leave it room to cool."))
        return
    always = battery_class.vented == "always"
    if build.criteria.in_living_space:
        yield Check(
            "living_space", "Living space", STOP if always else CARE,
            Sentence(
                "It gives off hydrogen and acid mist while charging, and it stands where people sleep."
                if always
                else "Sealed, but charged wrongly it vents hydrogen, and it stands where people sleep."
            ),
            "A box closed to the room and vented to the outside, or a place outside; no flames near it."
            if always else "A box vented to the outside, and a charger that compensates for temperature.",
        )  # fmt: skip
    flow, opening, spark = _air(build)
    figures = {"flow": flow, "opening": opening, "spark": spark}
    keep = " Nothing that sparks within {spark}."
    if locker.vent_cm2 is None:
        yield Check(
            "ventilation", name, NOTE,
            Sentence(
                "Charging it wants {flow} of air: two openings of {opening} each, low and high." + keep,
                figures
            ),
            "Measure the free area of the openings, grilles taken off, and enter it on the Rig stop."
            if always else "Only where its locker is closed.", opening,
        )  # fmt: skip
        return
    there = build.entered("rig", "vent_cm2", "Free area of each opening", locker.vent_cm2, "cm²")
    yield build.compare_to_limit(
        "ventilation", name, there, opening,
        "{flow} of air through openings of {x} each; {limit} are wanted." + keep,
        "Charging it wants {flow} of air, two openings of {limit} each, but yours have {x}." + keep,
        STOP if always else CARE, "Larger openings, one low and one high, or a class that does not gas.",
        is_minimum=True, flow=flow, spark=spark,
    )  # fmt: skip


def _air(build: Build) -> tuple[Figure, Figure, Figure]:
    battery_class, criteria = build.bank.model.battery_class, build.criteria
    cell_v = (build.plan.charge_v or battery_class.absorption_v) / 6
    equalises = build.plan.equalises and battery_class.water
    at = build.at
    i_gas = Figure(
        f"{at}.gas_ma", "Gassing current", criteria.gassing, "mA/Ah", REFERENCE, source=IEC,
        note="At least 50 mA/Ah, or the charger’s current, while equalising." if equalises
        else f"{battery_class.gas_ma[1]:g} mA/Ah at 2.40 V a cell, × e^(11·(V − 2.40)) above; "
        f"charged at {cell_v:.2f} V.",
    )  # fmt: skip
    n = Figure(
        f"{at}.cells",
        "Cells in series",
        float(build.bank.series * build.bank.model.cells),
        "1",
        REFERENCE,
        source="Of the layout",
    )
    flow = computed(
        f"{at}.air", "Air that must flow", criteria.air_m3h, "m³/h", "0.05 · {n} · {I_gas} · "
            "{C} / 1000",
        {"n": n, "I_gas": i_gas, "C": build.figures["nameplate_ah"]}, IEC,
    )  # fmt: skip
    opening = computed(
        f"{at}.opening",
        "Free area of each opening",
        criteria.opening_cm2,
        "cm²",
        "28 · {Q}",
        {"Q": flow},
        IEC,
    )
    spark = computed(
        f"{at}.spark", "Distance from what sparks", criteria.spark_mm, "mm",
        "28.8 · ({I_gas} · {C})^(1 / 3)", {"I_gas": i_gas, "C": build.figures["nameplate_ah"]}, IEC,
    )  # fmt: skip
    return flow, opening, spark
