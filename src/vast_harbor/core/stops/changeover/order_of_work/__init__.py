"""The order of work of a changeover."""

from vast_harbor.core.stops.changeover.order_of_work.gates import gates
from vast_harbor.core.stops.changeover.order_of_work.starting_up import test_cautions
from vast_harbor.core.stops.changeover.order_of_work.step import Gate, Step

__all__ = ["Gate", "Step", "gates", "test_cautions"]
