"""Gas while charging: living space, air flow and openings."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.stops.banks.checks.check import CAUTION, NOTE, OK, Build, Check
from vast_harbor.core.stops.banks.reasons import LIVING_SPACE, VENTILATION
from vast_harbor.phrases import phrase

IEC = phrase("checks.ventilation.after_iec_62485_2")


def checks(build: Build) -> Iterator[Check]:
    """Gassing batteries in a living space, and the openings that their locker needs.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    battery_class, locker = build.bank.model.battery_class, build.plan.locker
    name = phrase("checks.ventilation.ventilation_title")
    if battery_class.vented == "no":
        yield Check(VENTILATION, name, OK, Sentence(phrase("checks.ventilation.ventilation")))
        return
    always = battery_class.vented == "always"
    if build.criteria.in_living_space:
        yield Check(
            LIVING_SPACE, phrase("checks.ventilation.living_space_title"),
            build.verdict(LIVING_SPACE, CAUTION),
            Sentence(
                phrase("checks.ventilation.living_space")
                if always
                else phrase("checks.ventilation.sealed_but_wrong_charging")
            ),
            phrase("checks.ventilation.living_space_remedy")
            if always else phrase("checks.ventilation.living_space_use_box_vented_outside_remedy"),
        )  # fmt: skip
    flow, opening, spark = _air(build)
    figures = {"flow": flow, "opening": opening, "spark": spark}
    keep = phrase("checks.ventilation.keep_anything_sparks_least")
    if locker.vent_cm2 is None:
        yield Check(
            VENTILATION, name, NOTE,
            Sentence(
                phrase("checks.ventilation.charging_needs_flow_air") + keep,
                figures
            ),
            phrase("checks.ventilation.ventilation_remedy")
            if always else phrase("checks.ventilation.closed_locker_remedy"), opening,
        )  # fmt: skip
        return
    there = build.entered(
        "rig", "vent_cm2", phrase("checks.ventilation.free_area_opening"), locker.vent_cm2, "cm²"
    )
    yield build.compare_to_limit(
        VENTILATION, name, there, opening,
        phrase("checks.ventilation.ventilation_holds") + keep,
        phrase("checks.ventilation.ventilation_broken") + keep,
        phrase("checks.ventilation.ventilation_make_openings_larger_one_remedy"),
        is_minimum=True, flow=flow, spark=spark,
    )  # fmt: skip


def _air(build: Build) -> tuple[Figure, Figure, Figure]:
    battery_class, criteria = build.bank.model.battery_class, build.criteria
    cell_v = (build.plan.charge_v or battery_class.absorption_v) / 6
    equalises = build.plan.equalises and battery_class.water
    at = build.at
    i_gas = Figure(
        f"{at}.gas_ma",
        phrase("checks.ventilation.gas_ma"),
        criteria.gassing,
        "mA/Ah",
        REFERENCE,
        source=IEC,
        note=phrase("checks.ventilation.gas_ma_note")
        if equalises
        else phrase(
            "checks.ventilation.gas_ma_note_2", gas_ma=f"{battery_class.gas_ma[1]:g}", cell_v=f"{cell_v:.2f}"
        ),
    )
    n = Figure(
        f"{at}.cells",
        phrase("checks.ventilation.cells"),
        float(build.bank.series * build.bank.model.cells),
        "1",
        REFERENCE,
        source=phrase("checks.ventilation.cells_source"),
    )
    flow = computed(
        f"{at}.air", phrase("checks.ventilation.air_flow"), criteria.air_m3h, "m³/h",
        "0.05 · {n} · {I_gas} · {C} / 1000",
        {"n": n, "I_gas": i_gas, "C": build.figures["nameplate_ah"]}, IEC,
    )  # fmt: skip
    opening = computed(
        f"{at}.opening",
        phrase("checks.ventilation.opening"),
        criteria.opening_cm2,
        "cm²",
        "28 · {Q}",
        {"Q": flow},
        IEC,
    )
    spark = computed(
        f"{at}.spark", phrase("checks.ventilation.spark"), criteria.spark_mm, "mm",
        "28.8 · ({I_gas} · {C})^(1 / 3)", {"I_gas": i_gas, "C": build.figures["nameplate_ah"]}, IEC,
    )  # fmt: skip
    return flow, opening, spark
