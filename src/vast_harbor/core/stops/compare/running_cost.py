"""What a bank costs each year while it is used, with its workings."""

from collections.abc import Sequence

from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.stops.banks import BankFigures, Use
from vast_harbor.core.stops.trial import YearOf
from vast_harbor.phrases import and_list, phrase


def running(
    f: dict[str, Figure],
    assumptions: Assumptions,
    banked: BankFigures,
    use: Use,
    year: YearOf | None,
    beside: Sequence[tuple[Improvement, Figure]] = (),
) -> None:
    """Put ``maintenance``, ``water``, ``lost`` with ``lost_kwh``, ``fuel``, ``elsewhere``, ``critical``,
    ``beside`` and ``running_per_year``.

    Args:
        f: figures of the money so far, with ``kwh_delivered``.
        assumptions: what holds for the plan.
        banked: the candidate.
        use: how the rig uses it, in numbers.
        year: its run year; None for the hand estimate.
        beside: what is planned beside the bank, and its price.
    """
    key, at = banked.battery_class.key, f"cost.{banked.candidate.id}"
    hours, rate = assumptions.figure(f"care_hours.{key}"), assumptions.figure("hour_rate")
    f["maintenance"] = computed(
        f"{at}.maintenance",
        phrase("compare.running_cost.maintenance"),
        hours.number * rate.number,
        "money",
        "{h_care} · {c_h}",
        {"h_care": hours, "c_h": rate},
    )
    water = assumptions.figure("water_cost")
    f["water"] = computed(
        f"{at}.water",
        phrase("compare.running_cost.water"),
        water.number if banked.battery_class.water else 0.0,
        "money",
        "{C_water}" if banked.battery_class.water else "0",
        {"C_water": water},
    )
    _lost(f, assumptions, key, at, use, year)
    f["fuel"] = computed(
        f"{at}.fuel",
        phrase("compare.running_cost.fuel"),
        use.fuel,
        "money",
        "{fuel}" if year is not None else "0",
        {} if year is None else {"fuel": year["fuel"]},
        phrase("compare.running_cost.fuel_source"),
    )
    price = assumptions.figure("night_elsewhere")
    f["elsewhere"] = computed(
        f"{at}.elsewhere", phrase("compare.running_cost.elsewhere"), use.elsewhere * price.number, "money",
        "{n} · {c_night}" if year is not None else "0",
        {} if year is None else {"n": year["elsewhere"], "c_night": price},
        phrase("compare.running_cost.elsewhere_source"),
    )  # fmt: skip
    dark = assumptions.figure("critical_night")
    dark_year = year if year is not None and year["critical_nights"].number > 0 else None
    f["critical"] = computed(
        f"{at}.critical", phrase("compare.running_cost.critical"), use.critical * dark.number, "money",
        "{nights} · max(0, 1 − {most} / {share}) · {c_crit}" if dark_year is not None else "0",
        {} if dark_year is None else {
            "nights": dark_year["critical_nights"], "share": dark_year["critical_share"],
            "most": assumptions.figure("verdict_critical"), "c_crit": dark,
        },
        phrase("compare.running_cost.critical_source"),
    )  # fmt: skip
    names = ["maintenance", "water", "lost", "fuel", "elsewhere", "critical"]
    yearly = [one for one, _ in beside if one.yearly]
    if yearly:
        f["beside"] = Figure(
            f"{at}.beside", phrase("compare.running_cost.beside"), sum(one.yearly for one in yearly), "money",
            REFERENCE, source=and_list([one.kind.source for one in yearly]),
        )  # fmt: skip
        names.append("beside")
    parts = {name: f[name] for name in names}
    f["running_per_year"] = computed(
        f"{at}.running_year",
        phrase("compare.running_cost.running_year"),
        sum(p.number for p in parts.values()),
        "money",
        " + ".join(f"{{{name}}}" for name in names),
        parts,
    )


def _lost(
    f: dict[str, Figure], assumptions: Assumptions, key: str, at: str, use: Use, year: YearOf | None
) -> None:
    kwh = f["kwh_delivered"]
    years = kwh.inputs["H"]
    eta, tariff = assumptions.figure(f"energy_efficiency.{key}"), assumptions.figure("tariff")
    share = assumptions.figure("mains_share")
    # Of a run year the part from hook-up; what a generator makes is in its fuel.
    if year is not None and not assumptions.overridden("mains_share") and year["hook_up"].value is not None:
        share = year["hook_up"]
    f["lost_kwh"] = computed(
        f"{at}.lost_kwh", phrase("compare.running_cost.lost_kwh"),
        use.lost_kwh, "kWh",
        "{kWh} / {H} · (1 / {η} − 1) · {s_mains}", {"kWh": kwh, "H": years, "η": eta, "s_mains": share},
    )  # fmt: skip
    f["lost"] = computed(
        f"{at}.lost", phrase("compare.running_cost.lost"), f["lost_kwh"].number * tariff.number, "money",
        "{E} · {c_kWh}", {"E": f["lost_kwh"], "c_kWh": tariff}, phrase("compare.running_cost.lost_source"),
    )  # fmt: skip
