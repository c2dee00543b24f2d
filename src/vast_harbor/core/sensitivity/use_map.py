"""Who is cheapest, by off-grid nights a year and years kept."""

from dataclasses import dataclass

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.cost.monte_carlo import middle_costs
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.sensitivity.runner_up import AtNights
from vast_harbor.core.stops.banks import COVERS_NEED
from vast_harbor.core.stops.compare import uncertainty_of

MOST_NIGHTS, MOST_YEARS = 365.0, 40.0


@dataclass(frozen=True, slots=True)
class UseMap:
    """Who is cheapest, by nights a year and years kept.

    Attributes:
        nights, years: of the cells, ascending, shapes (40,) and (20,).
        ids: candidates in it.
        cheapest: index into ``ids``, by the middle of the scenarios, shape (years, nights).
        gap: how much the next more expensive one costs more, as a share, same shape.
        supposed: whether banks are in it that will not do, because fewer than two will.
    """

    nights: Floats
    years: Floats
    ids: tuple[str, ...]
    cheapest: np.ndarray
    gap: Floats
    supposed: bool


CELLS = 40, 20
# Scenarios of each cell.
LOOKED_AT = 300


def cheapest_map(results: Results, reference: Reference) -> UseMap | None:
    """The map of use, 40 × 20, of the candidates that will do; None without two.

    Where fewer than two will do, those that cover the need are supposed to.
    """
    plan, verdict = results.plan, results.verdict
    columns = results.compare.compared_banks
    compared_banks = [c for c in columns if c in verdict.suitable]
    supposed = len(compared_banks) < 2
    if supposed:
        compared_banks = [c for c in columns if all(f.code != COVERS_NEED for f in c.hard)]
    if len(compared_banks) < 2:
        return None
    most = min(MOST_NIGHTS, max(120.0, 2 * plan.off_grid_nights))
    nights = np.unique(np.round(np.linspace(1, most, CELLS[0]), 1))
    years = np.linspace(1, max(20.0, min(MOST_YEARS, 2 * plan.years_kept)), CELLS[1])
    at, doubt = AtNights(results, reference), uncertainty_of(results.assumptions)
    spacings = np.array([at.spacing(n) for n in nights])
    costs = np.zeros((len(compared_banks), len(years), len(nights)))
    for spacing in np.unique(spacings):
        where = spacings == spacing
        probe = nights[where]
        grid_n, grid_h = np.meshgrid(probe, years)
        life_cost_inputs = at.life_cost_inputs(float(probe[0]))
        for i, compared in enumerate(compared_banks):
            costs[i][:, where] = middle_costs(life_cost_inputs[compared.id], doubt, grid_h, grid_n, LOOKED_AT)
    ranked = np.sort(costs, axis=0)
    gap = (ranked[1] - ranked[0]) / np.maximum(1.0, np.abs(ranked[0]))
    return UseMap(nights, years, tuple(c.id for c in compared_banks), np.argmin(costs, axis=0), gap, supposed)
