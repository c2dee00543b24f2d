"""The order of work: steps in gates, only those that this rig and this bank ask for."""

from collections.abc import Iterator, Mapping
from dataclasses import replace

from vast_harbor.core.stops.changeover.measurements import measurements
from vast_harbor.core.stops.changeover.order_of_work.building_in import connect, equal, place
from vast_harbor.core.stops.changeover.order_of_work.starting_up import later, proof, settings
from vast_harbor.core.stops.changeover.order_of_work.step import (
    ARRIVAL,
    CONNECT,
    EQUAL,
    GATES,
    LATER,
    OUT_OLD,
    PLACE,
    PROOF,
    SETTINGS,
    Gate,
    Step,
)
from vast_harbor.core.stops.changeover.order_of_work.taking_out import arrival, old
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.phrases import phrase


def _titles() -> Mapping[str, str]:
    return {
        ARRIVAL: phrase("changeover.gates.arrival"),
        OUT_OLD: phrase("changeover.gates.old"),
        PLACE: phrase("changeover.gates.place"),
        EQUAL: phrase("changeover.gates.equal"),
        CONNECT: phrase("changeover.gates.connect"),
        SETTINGS: phrase("changeover.gates.set"),
        PROOF: phrase("changeover.gates.proof"),
        LATER: phrase("changeover.gates.later"),
    }


def gates(work: Work) -> tuple[Gate, ...]:
    """The order of work for a bank in its rig.

    Args:
        work: the bank that is bought.

    Returns:
        Gates that have a step, in order; every step with what the owner ticked, noted and measured.
    """
    measured = measurements(work)
    by_gate: dict[str, list[Step]] = {key: [] for key in GATES}
    for step in _steps(work):
        full = replace(step, measured=measured.get(step.key, ()), tick=work.record.tick(step.key))
        by_gate[step.gate].append(full)
    titles = _titles()
    return tuple(Gate(key, titles[key], tuple(steps)) for key, steps in by_gate.items() if steps)


def _steps(work: Work) -> Iterator[Step]:
    for part in (arrival, old, place, equal, connect, settings, proof, later):
        yield from part(work)
