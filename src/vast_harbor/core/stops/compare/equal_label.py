"""From equal labels to the true comparison, one correction at a time."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Figure, computed
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.compared_bank import ComparedBank


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
        ("label", "Same label", "Money per amp-hour on the label, as a shop window compares them.", "Ah"),
        ("voltage", "Voltage", "Amp-hours at 12.8 V are more watt-hours than at 12 V.", "V"),
        ("depth", "Usable depth", "Only part of the label may be taken out each cycle.", "DoD"),
        ("temperature", "Temperature", "A cold battery gives less, a warm one a little more.", "k_T"),
        ("rate", "Rate", "A hard draw leaves part of a lead-acid bank behind.", "k_rate"),
        ("age", "Age", "An older bank gives less; both are held to the same allowance.", "k_age"),
        ("life", "Life", "A bank that lasts longer gives its watt-hours for more years.", "years"),
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
                f"{name}, against the first",
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
        "Years it serves while the rig is kept",
        served,
        "years",
        "min({life}, {H})" if compared.life["years"].value is not None else "{H}",
        {"life": compared.life["years"], "H": compared.cost["per_year"].inputs["H"]},
    )
