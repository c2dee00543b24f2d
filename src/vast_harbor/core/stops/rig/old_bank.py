"""The bank that is there now, with its workings."""

from vast_harbor.core.battery.capacity_test import health_range, left_below_stop, state_of_health, stop_v
from vast_harbor.core.battery.health_signs import clipped
from vast_harbor.core.battery.peukert import capacity_at_current, rate_factor
from vast_harbor.core.battery.sizing import usable_energy
from vast_harbor.core.battery.temperature import temperature_factor
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.core.stops.need import Need
from vast_harbor.phrases import phrase

# A test says most when it is no faster than this and neither cold nor hot.
FASTEST_C, COLDEST_C, HOTTEST_C = 0.2, 10.0, 30.0
TEST_AT_C = 20.0


def old_bank_kg(plan: Plan) -> Figure | None:
    """Weight of the bank that is there now [kg]; None without one."""
    old = plan.old_bank
    if old is None:
        return None
    n = typed("rig.old.units", phrase("rig.old_bank.units"), old.series * old.parallel, "1", "/old_bank")
    if old.unit_kg is not None:
        unit = typed(
            "rig.old.unit_kg", phrase("rig.old_bank.unit_kg"), old.unit_kg, "kg", "/old_bank/unit_kg"
        )
    else:
        density = Figure(
            "rig.old.density",
            phrase("rig.old_bank.density"),
            old.battery_class.wh_per_kg,
            "Wh/kg",
            REFERENCE,
            source=phrase("terms.names.reference_value_battery_class"),
        )
        volts = typed("rig.old.unit_v", phrase("rig.old_bank.unit_v"), old.unit_v, "V", "/old_bank/unit_v")
        ah = typed(
            "rig.old.unit_ah",
            phrase("terms.names.rated_capacity_battery"),
            old.unit_ah,
            "Ah",
            "/old_bank/unit_ah",
        )
        unit = computed(
            "rig.old.unit_kg",
            phrase("rig.old_bank.weight_one_old_battery"),
            old.unit_v * old.unit_ah / old.battery_class.wh_per_kg,
            "kg",
            "{V} · {Ah} / {density}",
            {"V": volts, "Ah": ah, "density": density},
            phrase("rig.old_bank.unit_kg_source"),
        )
    return computed(
        "rig.old.kg",
        phrase("rig.old_bank.kg"),
        n.number * unit.number,
        "kg",
        "{n} · {kg}",
        {"n": n, "kg": unit},
    )


def old_bank_wh(plan: Plan) -> Figure | None:
    """Energy on the label of the bank that is there now [Wh]; None without one."""
    old = plan.old_bank
    if old is None:
        return None
    at = "rig.old"
    inputs = {
        "n_s": typed(
            f"{at}.series",
            phrase("terms.names.batteries_series"),
            old.series,
            "batteries",
            "/old_bank/series",
        ),
        "V": typed(f"{at}.unit_v", phrase("rig.old_bank.unit_v"), old.unit_v, "V", "/old_bank/unit_v"),
        "n_p": typed(
            f"{at}.parallel", phrase("rig.old_bank.parallel"), old.parallel, "strings", "/old_bank/parallel"
        ),
        "Ah": typed(
            f"{at}.unit_ah",
            phrase("terms.names.rated_capacity_battery"),
            old.unit_ah,
            "Ah",
            "/old_bank/unit_ah",
        ),
    }
    value = old.series * old.unit_v * old.parallel * old.unit_ah
    return computed(
        f"{at}.wh",
        phrase("rig.old_bank.wh"),
        value,
        "Wh",
        "{n_s} · {V} · {n_p} · {Ah}",
        inputs,
        phrase("rig.old_bank.wh_source"),
        phrase("rig.old_bank.wh_note"),
    )


def old_bank_carries(
    plan: Plan, assumptions: Assumptions, need: Need, soh: Figure | None
) -> dict[str, Figure]:
    """What is left of the old bank: ``soh``, ``usable_wh`` and ``nights`` that it still carries.

    Args:
        plan, assumptions: the plan and what holds for it.
        need: the need in figures.
        soh: its state of health; None where nothing is known of it.

    Returns:
        Figures by name; empty without a state of health.
    """
    old = plan.old_bank
    if old is None or soh is None:
        return {}
    of_class = need.classes[old.battery_class.key]
    label = old_bank_wh(plan)
    assert label is not None
    exponent = assumptions.figure(f"peukert.{old.battery_class.key}")
    ah = old.parallel * old.unit_ah
    hours = Figure(
        "rig.old.r",
        phrase("terms.names.rated_time"),
        old.battery_class.rated_hours,
        "h",
        REFERENCE,
        source=phrase("terms.names.typical_class"),
    )
    label_ah = typed("rig.old.ah", phrase("rig.old_bank.ah"), ah, "Ah", "/old_bank/unit_ah")
    draws = of_class.mean_current.number > 0
    rate = computed(
        "rig.old.k_rate",
        phrase("terms.names.rate_factor"),
        rate_factor(ah, hours.number, exponent.number, of_class.mean_current.number),
        "%",
        "min(1, ({Ah} / {r} / {I_mean})^({k} − 1))" if draws else "1",
        {"Ah": label_ah, "r": hours, "I_mean": of_class.mean_current, "k": exponent},
        phrase("terms.names.peukert_1897"),
    )
    usable = computed(
        "rig.old.usable_wh",
        phrase("rig.old_bank.usable_wh"),
        usable_energy(
            label.number, of_class.dod.number, of_class.temperature.number, rate.number, soh.number
        ),
        "Wh",
        "{E_label} · {DoD} · {k_T} · {k_rate} · {SoH}",
        {"E_label": label, "DoD": of_class.dod, "k_T": of_class.temperature, "k_rate": rate, "SoH": soh},
        phrase("rig.old_bank.usable_wh_source"),
    )
    day = need.energy.inputs["E_bank"]
    nights = computed(
        "rig.old.nights", phrase("rig.old_bank.nights"),
        usable.number / day.number if day.number else None, "nights",
        "{E_usable} / {E_bank}" if day.number else "", {"E_usable": usable, "E_bank": day},
        phrase("terms.names.usable_energy_energy_used"),
    )  # fmt: skip
    return {"soh": soh, "usable_wh": usable, "nights": nights}


def tested_health(plan: Plan, assumptions: Assumptions) -> Figure | None:
    """State of health of the old bank as measured: by its log, or by a capacity test that is stated.

    Returns:
        The health with its range; None without a log and without a whole test.
    """
    old = plan.old_bank
    if old is not None and old.logged is not None:
        low, high = clipped(*old.logged.span)
        return Figure(
            "rig.old.soh", phrase("rig.old_bank.soh"), clipped(old.logged.likely, old.logged.likely)[0], "%",
            REFERENCE, source=phrase("rig.old_bank.logged_source"), low=low, high=high,
        )  # fmt: skip
    if old is None or not old.test_a or not old.test_minutes:
        return None
    return _soh(old, assumptions)


def _soh(old: OldBank, assumptions: Assumptions) -> Figure:
    assert old.test_a and old.test_minutes
    at, battery_class = "rig.old", old.battery_class
    celsius = TEST_AT_C if old.test_c is None else old.test_c
    exponent = assumptions.figure(f"peukert.{battery_class.key}")
    ah, hours = old.parallel * old.unit_ah, battery_class.rated_hours
    k_t = temperature_factor(battery_class, celsius)
    amps = typed(f"{at}.test_a", phrase("rig.old_bank.test_a"), old.test_a, "A", "/old_bank/test_a")
    minutes = typed(
        f"{at}.test_minutes",
        phrase("rig.old_bank.test_minutes"),
        old.test_minutes,
        "min",
        "/old_bank/test_minutes",
    )
    warmth = typed(f"{at}.test_c", phrase("rig.old_bank.test_c"), celsius, "°C", "/old_bank/test_c")
    expected = computed(
        f"{at}.expected",
        phrase("rig.old_bank.expected"),
        capacity_at_current(ah, hours, exponent.number, old.test_a),
        "Ah",
        "min(1.05 · {C}, {C} · ({C} / {r} / {I})^({k} − 1))",
        {
            "C": typed(f"{at}.ah", phrase("rig.old_bank.ah"), ah, "Ah", "/old_bank/unit_ah"),
            "r": Figure(
                f"{at}.r",
                phrase("terms.names.rated_time"),
                hours,
                "h",
                REFERENCE,
                source=phrase("terms.names.typical_class"),
            ),
            "I": amps,
            "k": exponent,
        },
        phrase("terms.names.peukert_1897"),
    )
    factor = Figure(
        f"{at}.test_k_T",
        phrase("rig.old_bank.temperature_factor_test"),
        k_t,
        "%",
        REFERENCE,
        inputs={"T": warmth},
        source=phrase("rig.old_bank.table_class_interpolated"),
    )
    below = left_below_stop(battery_class, old.test_a / ah)
    left = Figure(
        f"{at}.test_left", phrase("rig.old_bank.test_left"), below, "%", REFERENCE,
        source=phrase("rig.old_bank.test_left_source", volts=f"{stop_v(battery_class):g}"),
    )  # fmt: skip
    low, high = health_range(
        old.test_a, old.test_minutes, ah, hours,
        (assumptions.get(exponent.assumption).low or exponent.number,
         assumptions.get(exponent.assumption).high or exponent.number), k_t, below,
    )  # fmt: skip
    soh = computed(
        f"{at}.soh",
        phrase("rig.old_bank.soh"),
        state_of_health(old.test_a, old.test_minutes, ah, hours, exponent.number, k_t, below),
        "%",
        "{I} · {t} / 60 / ({C_I} · {k_T} · (1 − {left}))",
        {"I": amps, "t": minutes, "C_I": expected, "k_T": factor, "left": left},
        phrase("rig.old_bank.soh_source"),
        phrase("rig.old_bank.soh_note"),
    )
    return soh._replace(low=low, high=high)


def old_bank_findings(plan: Plan, figures: dict[str, Figure], need: Need) -> tuple[Finding, ...]:
    """What there is to say about the test of the old bank, and whether it still serves."""
    old = plan.old_bank
    if old is None or not figures:
        return ()
    found: list[Finding] = []
    soh, amps = figures["soh"], figures["soh"].inputs.get("I")
    if amps is not None and old.test_a and old.test_a > FASTEST_C * old.parallel * old.unit_ah * (1 + 1e-9):
        found.append(
            Finding(
                "test_current",
                "note",
                "rig",
                Sentence(phrase("rig.old_bank.test_current_fifth_rated"), {"I": amps}),
                phrase("rig.old_bank.smaller_current_gives_better"),
            )
        )
    if amps is not None and not COLDEST_C <= soh.inputs["k_T"].inputs["T"].number <= HOTTEST_C:
        found.append(
            Finding(
                "test_temperature",
                "note",
                "rig",
                Sentence(phrase("rig.old_bank.battery_during_test"), {"T": soh.inputs["k_T"].inputs["T"]}),
                phrase("rig.old_bank.result_reliable_between_10"),
            )
        )
    nights = figures["nights"]
    wanted = need.nights.number * (1 + need.reserve.number)
    if amps is not None and nights.value is not None and nights.value >= wanted:
        found.append(
            Finding(
                "old_bank_serves",
                "note",
                "rig",
                Sentence(phrase("rig.old_bank.old_bank_still_lasts"), {"nights": nights}),
                phrase("rig.old_bank.check_charger_look_hidden"),
            )
        )
    return tuple(found)
