"""What the winner saves beside the runner-up, and when it has paid back what it asks more."""

from collections.abc import Sequence

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.monte_carlo import COUNT
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.phrases import phrase

Saving = tuple[Figure, Figure, Figure]
DRAWN = phrase("compare.verdict.simulated_scenarios_price_cycles", count=COUNT)


def saving_of(winner: ComparedBank, runner_up: ComparedBank, drawn: Floats) -> Saving:
    """What the winner costs less than the runner-up: P10, as planned, P90 [money].

    Args:
        winner, runner_up: the two.
        drawn: what it costs less in each draw [money], shape (draws,).
    """
    low, high = (float(x) for x in np.percentile(drawn, (10, 90)))
    ours, theirs = winner.cost["lifetime"], runner_up.cost["lifetime"]
    planned = computed(
        "verdict.saving",
        phrase("compare.verdict.saving"),
        theirs.number - ours.number,
        "money",
        "{b} − {a}",
        {"a": ours, "b": theirs},
        phrase("compare.verdict.saving_source"),
        low=low,
        high=high,
    )
    of = [
        Figure(
            f"verdict.saving.{k}",
            phrase("compare.verdict.saving_w", w=w),
            v,
            "money",
            REFERENCE,
            source=DRAWN,
        )
        for k, w, v in (
            ("p10", phrase("compare.verdict.low_1_10_scenarios"), low),
            ("p90", phrase("compare.verdict.high_1_10_scenarios"), high),
        )
    ]
    return of[0], planned, of[1]


def pays_back_of(winner: ComparedBank, runner_up: ComparedBank) -> Figure | None:
    """When a winner that asks more on the day has cost less from then on [years].

    None where it asks less on the day, or never does within the years of keeping.
    """
    ours, theirs = (cash_flow.cumulative(c.cost.payments) for c in (winner, runner_up))
    if winner.cost.outlay.number <= runner_up.cost.outlay.number:
        return None
    times = sorted({t for t, _ in (*ours, *theirs)})
    dearer = [t for t in times if _at(ours, t) > _at(theirs, t) + 1e-9]
    after = [t for t in times if t > max(dearer)] if dearer else times
    if not after:
        return None
    return Figure(
        "verdict.pays_back", phrase("compare.verdict.pays_back"), after[0], "years", REFERENCE,
        source=phrase("compare.verdict.pays_back_source"),
    )  # fmt: skip


def _at(points: Sequence[tuple[float, float]], t: float) -> float:
    """Money spent by a time, after what is paid at it."""
    before = [p for p in points if p[0] <= t]
    (t0, v0), after = before[-1], next((p for p in points if p[0] > t), None)
    if after is None or t == t0:
        return v0
    return v0 + (after[1] - v0) * (t - t0) / (after[0] - t0)
