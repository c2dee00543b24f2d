"""Banks made equal on paper: in usable energy, in depth, or by the label, and whom that flatters."""

from collections.abc import Mapping
from dataclasses import dataclass

from vast_harbor.core.cost.monte_carlo import spread
from vast_harbor.core.figures.workings import REFERENCE, Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.compare import ComparedBank, uncertainty_of
from vast_harbor.phrases import phrase

USABLE, DEPTH, LABEL, BOUGHT = "usable", "depth", "label", "bought"
EQUAL_DEPTH = 0.5
FLATTERS = {
    USABLE: phrase("changes.equal_terms.every_bank_exactly_large"),
    DEPTH: phrase("changes.equal_terms.half_every_bank_used"),
    LABEL: phrase("changes.equal_terms.same_rated_watt_hours"),
    BOUGHT: phrase("changes.equal_terms.sold_whole_batteries_favours"),
}


@dataclass(frozen=True, slots=True)
class EqualTerms:
    """The candidates made equal in one way.

    Attributes:
        key: ``usable``, ``depth``, ``label`` or ``bought``.
        says: what is equal, and whom that flatters.
        figures: of each candidate by its id: ``usable`` [Wh], ``kg``, ``purchase`` and ``lifetime`` [money],
            ``per_cycle`` [money/cycle].
    """

    key: str
    says: str
    figures: Mapping[str, Mapping[str, Figure]]


def equal_terms(results: Results) -> tuple[EqualTerms, ...]:
    """The candidates on four sets of equal terms.

    Args:
        results: the plan in figures.

    Returns:
        Equal usable energy first.
    """
    compared_banks = results.verdict.compared_banks
    if not compared_banks or not results.need.energy.number:
        return ()
    return tuple(
        EqualTerms(
            key,
            says,
            {c.id: _figures(key, i, c, compared_banks, results) for i, c in enumerate(compared_banks)},
        )
        for key, says in FLATTERS.items()
    )


def _size(
    key: str, compared: ComparedBank, compared_banks: tuple[ComparedBank, ...], results: Results
) -> tuple[float, float]:
    """Batteries against those it has, and depth of its cycles against what it is [-]."""
    usable, label = compared.banked["usable_wh"].number, compared.banked["nameplate_wh"].number
    need = results.need.energy.number
    if key == BOUGHT or usable <= 0:
        return 1.0, 1.0
    if key == LABEL:
        largest = max(c.banked["nameplate_wh"].number for c in compared_banks)
        return largest / label, label / largest
    share = need / usable
    if key == DEPTH:
        share *= compared.banked["dod"].number / EQUAL_DEPTH
    return share, 1 / share


def _figures(
    key: str, index: int, compared: ComparedBank, compared_banks: tuple[ComparedBank, ...], results: Results
) -> dict[str, Figure]:
    share, depth = _size(key, compared, compared_banks, results)
    inputs = results.verdict.life_cost_inputs[index].scaled(share, depth)
    _, total, _ = spread(inputs, uncertainty_of(results.assumptions), results.plan.years_kept)
    at, cycles = f"verdict.terms.{key}.{compared.id}", compared.cost["cycles_made"].number

    def figure(name: str, words: str, value: float | None, unit: str) -> Figure:
        source = (
            phrase("changes.equal_terms.bank_scaled_times_size", share=f"{share:.3g}")
            if share != 1
            else phrase("changes.equal_terms.sold")
        )
        return Figure(f"{at}.{name}", words, value, unit, REFERENCE, source=source)

    return {
        "usable": figure(
            "usable", phrase("terms.names.usable_energy"), compared.banked["usable_wh"].number * share, "Wh"
        ),
        "kg": figure("kg", phrase("terms.names.weight"), compared.banked["kg"].number * share, "kg"),
        "purchase": figure("purchase", phrase("terms.names.batteries_buy"), float(inputs.batteries), "money"),
        "lifetime": figure("lifetime", phrase("terms.names.lifetime_cost"), total, "money"),
        "per_cycle": figure(
            "per_cycle",
            phrase("terms.names.lifetime_cost_per_cycle"),
            total / cycles if cycles else None,
            "money/cycle",
        ),
    }
