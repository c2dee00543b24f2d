"""From equal labels to the true comparison, one correction at a time."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Figure, computed
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class Correction:
    """One step from the naive comparison of equal labels to the true one.

    Attributes:
        key, name, says: which correction, and what it does.
        figures: money for what the label is then worth, one for each column.
        ratios: the same against the first column [-].
    """

    key: str
    name: str
    says: str
    figures: tuple[Figure, ...]
    ratios: tuple[Figure, ...]


def same_label(plan: Plan, compared_banks: Sequence[ComparedBank]) -> list[Correction]:
    """Money for one label of amp-hours, and then for what it is really worth."""
    if len(compared_banks) < 2:
        return []
    steps: list[tuple[str, str, str, str]] = [
        (
            "label",
            phrase("compare.equal_label.same_rated_capacity"),
            phrase("compare.equal_label.price_per_rated_amp"),
            "Ah",
        ),
        ("voltage", phrase("compare.equal_label.voltage"), phrase("compare.equal_label.amp_hours_12_8"), "V"),
        (
            "depth",
            phrase("terms.names.usable_depth"),
            phrase("compare.equal_label.use_part_rated_capacity"),
            "DoD",
        ),
        (
            "temperature",
            phrase("terms.names.temperature"),
            phrase("compare.equal_label.cold_battery_gives_less"),
            "k_T",
        ),
        ("rate", phrase("terms.names.rate"), phrase("compare.equal_label.lead_acid_gives_less"), "k_rate"),
        ("age", phrase("terms.names.age"), phrase("compare.equal_label.older_bank_gives_less"), "k_age"),
        (
            "life",
            phrase("compare.equal_label.life"),
            phrase("compare.equal_label.bank_lasts_longer_supplies"),
            "years",
        ),
    ]
    out: list[Correction] = []
    worth: list[Figure] = []
    for key, name, says, symbol in steps:
        figures = []
        for i, compared in enumerate(compared_banks):
            factor = _factor(symbol, compared, plan)
            at = f"label.{compared.banked.candidate.id}.{key}"
            unit = "money/Ah" if key == "label" else "money/kWh" if key != "life" else "money/kWh·year"
            if key == "label":
                value = compared.banked["purchase"].number / factor.number
                figure = computed(
                    at, name, value, unit, "{P} / {Ah}", {"P": compared.banked["purchase"], "Ah": factor}
                )
            elif key == "voltage":
                value = worth[i].number / factor.number * 1000
                figure = computed(
                    at, name, value, unit, "{before} / {V} · 1000", {"before": worth[i], "V": factor}
                )
            else:
                figure = computed(
                    at,
                    name,
                    worth[i].number / factor.number,
                    unit,
                    f"{{before}} / {{{symbol}}}",
                    {"before": worth[i], symbol: factor},
                )
            figures.append(figure)
        worth = figures
        ratios = tuple(
            computed(
                f"{f.key}.ratio",
                phrase("compare.equal_label.ratio", name=name),
                f.number / figures[0].number if figures[0].number else None,
                "1",
                "{x} / {first}" if figures[0].number else "",
                {"x": f, "first": figures[0]},
            )
            for f in figures
        )
        out.append(Correction(key, name, says, tuple(figures), ratios))
    return out


def _factor(symbol: str, compared: ComparedBank, plan: Plan) -> Figure:
    banked = compared.banked
    plain = {"Ah": "nameplate_ah", "V": "volts", "DoD": "dod", "k_T": "temperature", "k_rate": "rate"}
    if symbol in plain:
        return banked[plain[symbol]]
    if symbol == "k_age":
        return banked["usable_wh"].inputs["k_age"]
    served = min(compared.life.years, plan.years_kept)
    return computed(
        f"label.{banked.candidate.id}.served",
        phrase("compare.equal_label.served"),
        served,
        "years",
        "min({life}, {H})" if compared.life["years"].value is not None else "{H}",
        {"life": compared.life["years"], "H": compared.cost["per_year"].inputs["H"]},
    )
