"""Steps and gates of the work."""

from dataclasses import dataclass

from vast_harbor.core.rig.changeover import NOT_TOUCHED, Tick
from vast_harbor.core.stops.changeover.measurements import OUT, Measurement

ARRIVAL, OUT_OLD, PLACE, EQUAL, CONNECT, SETTINGS, PROOF, LATER = (
    "arrival",
    "old",
    "place",
    "equal",
    "connect",
    "set",
    "proof",
    "later",
)
GATES = (ARRIVAL, OUT_OLD, PLACE, EQUAL, CONNECT, SETTINGS, PROOF, LATER)
AMPS, ACID, GAS, AC, COLD, HEAVY, DAMAGED = "amps", "acid", "gas", "ac", "cold", "heavy", "damaged"
METER, RECHARGE, FROST = "meter", "recharge", "frost"


@dataclass(frozen=True, slots=True)
class Step:
    """One step of the work.

    Attributes:
        key, gate: its name, and the gate that it belongs to.
        title, why, how: what is done; why, in a sentence; how, in a few.
        minutes: how long it takes [min].
        people: how many lift; 3 for a hoist.
        cautions: keys of what may hurt.
        parts: lines of the shopping list that go in here.
        source: id of the source that it is about; empty for none.
        measured: what is measured in it.
        tick: what the owner said of it.
    """

    key: str
    gate: str
    title: str
    why: str
    how: str = ""
    minutes: float = 5
    people: int = 1
    cautions: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    source: str = ""
    measured: tuple[Measurement, ...] = ()
    tick: Tick = NOT_TOUCHED

    @property
    def wrong(self) -> tuple[Measurement, ...]:
        """Readings that are not as they should be."""
        return tuple(m for m in self.measured if m.verdict == OUT)

    @property
    def stopped(self) -> bool:
        """Whether a reading stops its gate; not where the owner states why it may be passed."""
        return bool(self.wrong) and not self.tick.passed.strip()


@dataclass(frozen=True, slots=True)
class Gate:
    """Steps that must be done before the next ones.

    Attributes:
        key, title: which.
        steps: in their order.
    """

    key: str
    title: str
    steps: tuple[Step, ...]

    @property
    def stopped(self) -> bool:
        """Whether a reading in it is not as it should be."""
        return any(step.stopped for step in self.steps)

    @property
    def done(self) -> bool:
        """Whether all of it is done and nothing stops it."""
        return all(step.tick.done for step in self.steps) and not self.stopped
