"""All checks of a bank, one module for each kind of reason why it will not do."""

from vast_harbor.core.stops.banks.checks import (
    cable_and_fuse,
    capacity,
    current,
    locker,
    offer,
    safety,
    stages,
    temperature,
    ventilation,
    weight,
)
from vast_harbor.core.stops.banks.checks.check import Build, Check

KINDS = (capacity, current, cable_and_fuse, locker, weight, ventilation, temperature, safety, stages, offer)


def run_checks(build: Build) -> tuple[Check, ...]:
    """Every check of a bank.

    Args:
        build: the bank in its rig.

    Returns:
        Checks, the need first.
    """
    return tuple(check for kind in KINDS for check in kind.checks(build))
