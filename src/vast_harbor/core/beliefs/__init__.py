"""Common beliefs about house batteries, each settled on the owner's own rig."""

from vast_harbor.core.beliefs import capacity, charging, cold_and_safety, life_and_cost
from vast_harbor.core.beliefs.belief import FALSE, HALF, TRUE, UNKNOWN, Belief, Ground
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference

__all__ = ("FALSE", "HALF", "TRUE", "UNKNOWN", "Belief", "beliefs")


def beliefs(results: Results, reference: Reference) -> tuple[Belief, ...]:
    """Every belief with its answer on a rig.

    Args:
        results: the plan in figures, everything run.
        reference: shipped data.

    Returns:
        About twenty-five, in a fixed order.
    """
    ground = Ground(results, reference)
    out = []
    for module in (capacity, life_and_cost, charging, cold_and_safety):
        for claim in module.claims():
            go_on()
            out.append(claim.on(ground))
    return tuple(out)
