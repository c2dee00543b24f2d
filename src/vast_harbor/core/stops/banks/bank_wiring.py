"""How a candidate is wired in its rig."""

from vast_harbor.core.installation.wiring import Wiring, wire
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.stops.banks.checks.check import Build


def wiring_of(build: Build) -> Wiring:
    """The wiring of a candidate for the largest lasting current of its rig, and of each of its sources."""
    assume, volts = build.assumptions, build.plan.system_v
    joining = [(s.id, name_of(s), s.conductor_a(volts)) for s in build.sources if s.charges]
    return wire(
        build.bank, max(1.0, build.main_a.number), build.cable_m.number, volts,
        assume.value("cable_drop"), assume.value("sharing"), build.reference.cables,
        [joint for joint in joining if joint[2] > 0], assume.value("source_cable_m"),
    )  # fmt: skip
