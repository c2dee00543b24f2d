"""All checks of a bank, one module for each kind of reason why it will not do (part of Banks)."""

from vast_harbor.core.stops.checks import (
    air,
    cabling,
    current,
    energy,
    offer,
    safety,
    space,
    stages,
    warmth,
    weight,
)
from vast_harbor.core.stops.checks.check import Build, Check

KINDS = (energy, current, cabling, space, weight, air, warmth, safety, stages, offer)


def run(build: Build) -> tuple[Check, ...]:
    """Every check of a bank.

    Args:
        build: the bank in its rig.

    Returns:
        Checks, the need first.
    """
    return tuple(check for kind in KINDS for check in kind.checks(build))
