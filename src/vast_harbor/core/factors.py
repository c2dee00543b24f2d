"""The factors between label and usable energy, as figures with their workings."""

from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.chemistry import BatteryClass
from vast_harbor.core.plan import Plan
from vast_harbor.core.tables import bracket
from vast_harbor.core.temperature import temperature_factor
from vast_harbor.core.workings import REFERENCE, Figure, computed, typed

PEUKERT = "Peukert (1897)"


def battery_temperature(plan: Plan) -> Figure:
    """The temperature of the battery in use, as entered [°C]."""
    return typed(
        "rig.battery_c",
        "Battery temperature in use",
        plan.battery_c,
        "°C",
        "/rig/battery_c",
        "Of the battery, not of the air.",
    )


def temperature(plan: Plan, assumptions: Assumptions, battery_class: BatteryClass) -> Figure:
    """k_T of a class at the rig's temperature, or the owner's override.

    Args:
        plan: for the temperature of the battery.
        assumptions: for an override.
        battery_class: one of the five classes.

    Returns:
        k_T [-], interpolated in the table of the class.
    """
    key = f"temperature_factor.{battery_class.key}"
    shown = assumptions.figure(key)
    if shown.value is not None:
        return shown
    (t_1, k_1), (t_2, k_2) = bracket(battery_class.temperature_factor, plan.battery_c)
    at = f"need.{battery_class.key}.k_T"
    value = temperature_factor(battery_class, plan.battery_c)

    def point(which: str, value: float, unit: str, name: str) -> Figure:
        return Figure(f"{at}.{which}", name, value, unit, REFERENCE, source=shown.source)

    if t_1 == t_2:
        inputs = {"k_end": point("k1", k_1, "1", f"Table value at {t_1:g} °C")}
        formula = "{k_end}"
    else:
        inputs = {
            "k_1": point("k1", k_1, "1", f"Table value at {t_1:g} °C"),
            "k_2": point("k2", k_2, "1", f"Table value at {t_2:g} °C"),
            "T": battery_temperature(plan),
            "T_1": point("t1", t_1, "°C", "Lower point of the table"),
            "T_2": point("t2", t_2, "°C", "Upper point of the table"),
        }
        formula = "{k_1} + ({k_2} − {k_1}) · ({T} − {T_1}) / ({T_2} − {T_1})"
    return Figure(
        at,
        shown.name,
        value,
        "1",
        formula=formula,
        inputs=inputs,
        source=shown.source,
        note=shown.note,
        assumption=key,
    )


def mean_current(at: str, profile_wh: Figure, squared: Figure, volts: Figure) -> Figure:
    """I_mean = Σ(P²·t) / (Σ(P·t) · V), as a figure.

    Args:
        at: key prefix.
        profile_wh: Σ(P·t) [Wh].
        squared: Σ(P²·t) [W²h].
        volts: nominal volts [V].

    Returns:
        Energy-weighted mean current [A].
    """
    has = profile_wh.number > 0
    value = squared.number / (profile_wh.number * volts.number) if has else 0.0
    return computed(
        f"{at}.I_mean",
        "Energy-weighted mean current",
        value,
        "A",
        "{P²t} / ({Pt} · {V})" if has else "0",
        {"P²t": squared, "Pt": profile_wh, "V": volts},
        "Mean of the current over the energy of the day: hard draws weigh more",
        "Loads without a time of day are given a sensible one; a duty cycle is spread evenly.",
    )
