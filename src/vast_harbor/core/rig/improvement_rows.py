"""What can be done beside the bank, as data: the kinds that ship, and the rows of a plan."""

from dataclasses import dataclass

# What something is to a bank: needed by it, or wanted whatever the bank.
NEEDED, WANTED = "needed", "wanted"
PLANNED, REFUSED = "planned", "refused"


@dataclass(frozen=True, slots=True)
class ImprovementKind:
    """Shipped data of a kind of improvement: what can be done beside the bank.

    Attributes:
        key: name of the kind.
        unit, sizes: what is sold; no sizes where it has none.
        base, each: low, likely and high price: fixed, and for one unit of the size [money].
        hours, hours_each: work: fixed, and for one unit of the size [h].
        skill: ``anyone``, ``handy`` or ``electrician``.
        life_years: until it is bought again [years].
        kept: share of its price that its unused life fetches [-].
        kg_each, m2_each: mass and roof for one unit of the size [kg], [m²].
        source: where the figures come from.
    """

    key: str
    unit: str
    sizes: tuple[float, ...]
    base: tuple[float, float, float]
    each: tuple[float, float, float]
    hours: float
    skill: str
    life_years: float
    kept: float
    source: str
    hours_each: float = 0.0
    kg_each: float = 0.0
    m2_each: float = 0.0


@dataclass(frozen=True, slots=True)
class PlannedImprovement:
    """A row of the plan: an improvement that the owner plans, or one that is not possible for them.

    Attributes:
        id: name within the rig.
        kind: key of its kind.
        size: in the unit of its kind; 0 where it has none.
        target: id of the load or source that it changes; empty for none.
        price: what its owner knows that it costs [money]; None for the shipped price.
        state: ``planned`` or ``refused``; a kind without size and target is refused as a whole.
        tag: ``needed`` for this bank, or ``wanted`` whatever the bank.
    """

    id: str
    kind: str
    size: float = 0.0
    target: str = ""
    price: float | None = None
    state: str = PLANNED
    tag: str = NEEDED
