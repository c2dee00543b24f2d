"""The bank that is there now, with its workings (part of Rig)."""

from vast_harbor.core.plan import Plan
from vast_harbor.core.workings import REFERENCE, Figure, computed, typed


def old_bank_kg(plan: Plan) -> Figure | None:
    """Weight of the bank that is there now [kg]; None without one."""
    old = plan.old_bank
    if old is None:
        return None
    n = typed("rig.old.units", "Old batteries", old.series * old.parallel, "1", "/old_bank")
    if old.unit_kg is not None:
        unit = typed("rig.old.unit_kg", "Weight of one old battery", old.unit_kg, "kg", "/old_bank/unit_kg")
    else:
        density = Figure(
            "rig.old.density",
            "Energy density of the class",
            old.battery_class.wh_per_kg,
            "Wh/kg",
            REFERENCE,
            source="Reference value of the battery class",
        )
        volts = typed("rig.old.unit_v", "Volts of one", old.unit_v, "V", "/old_bank/unit_v")
        ah = typed("rig.old.unit_ah", "Label of one", old.unit_ah, "Ah", "/old_bank/unit_ah")
        unit = computed(
            "rig.old.unit_kg",
            "Weight of one old battery, estimated",
            old.unit_v * old.unit_ah / old.battery_class.wh_per_kg,
            "kg",
            "{V} · {Ah} / {density}",
            {"V": volts, "Ah": ah, "density": density},
            "Estimated from its class: weigh it to be sure",
        )
    return computed(
        "rig.old.kg",
        "Weight of the old bank",
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
        "n_s": typed(f"{at}.series", "In series", old.series, "batteries", "/old_bank/series"),
        "V": typed(f"{at}.unit_v", "Volts of one", old.unit_v, "V", "/old_bank/unit_v"),
        "n_p": typed(f"{at}.parallel", "Strings", old.parallel, "strings", "/old_bank/parallel"),
        "Ah": typed(f"{at}.unit_ah", "Label of one", old.unit_ah, "Ah", "/old_bank/unit_ah"),
    }
    value = old.series * old.unit_v * old.parallel * old.unit_ah
    return computed(
        f"{at}.wh",
        "The old bank by its label",
        value,
        "Wh",
        "{n_s} · {V} · {n_p} · {Ah}",
        inputs,
        "Wh = V · Ah; in series volts add, in parallel amp-hours",
        "When new. What is left of it a capacity test shows.",
    )
