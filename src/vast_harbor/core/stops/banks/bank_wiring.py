"""How a candidate is wired in its rig."""

from vast_harbor.core.installation.wiring import Wiring, wire
from vast_harbor.core.stops.banks.checks.check import Build


def wiring_of(build: Build) -> Wiring:
    """The wiring of a candidate for the largest lasting current of its rig."""
    assume = build.assumptions
    return wire(
        build.bank, max(1.0, build.main_a.number), build.cable_m.number, build.plan.system_v,
        assume.value("cable_drop"), assume.value("sharing"), build.reference.cables,
    )  # fmt: skip
