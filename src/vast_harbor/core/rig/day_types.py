"""The kinds of day that a rig has, and how a load differs from one to the other."""

from dataclasses import dataclass

from vast_harbor.core.figures.clock import Block

OFF_GRID, TRAVELLING, HOOK_UP, LAID_UP = "off_grid", "travelling", "hook_up", "laid_up"
KINDS = (OFF_GRID, TRAVELLING, HOOK_UP, LAID_UP)
# Days on which the bank carries the rig alone; on the others mains does, or nobody is there.
CARRIED = (OFF_GRID, TRAVELLING)


@dataclass(frozen=True, slots=True)
class DayType:
    """A kind of day.

    Attributes:
        id: name within the rig, used in the keys of figures.
        name: what the owner calls it.
        kind: ``off_grid``, ``travelling``, ``hook_up`` or ``laid_up``.
        season: ``spring``, ``summer``, ``autumn`` or ``winter``.
        battery_c: temperature of the battery on such a day [°C]; None for the rig's, or by its place.
        air_c: temperature of the outside air [°C]; None for the climate's.
        charge_from, charge_to: clock hours between which the bank is charged [h]; None for daylight (or the
            drive, on a travelling day).
        measured_wh: what a monitor counted over such a day [Wh]; None for none.
        measured_hours: over how many hours it counted [h].
    """

    id: str
    name: str
    kind: str = OFF_GRID
    season: str = "summer"
    battery_c: float | None = None
    air_c: float | None = None
    charge_from: float | None = None
    charge_to: float | None = None
    measured_wh: float | None = None
    measured_hours: float = 24.0

    @property
    def carried(self) -> bool:
        """Whether the bank must carry such a day alone."""
        return self.kind in CARRIED


@dataclass(frozen=True, slots=True)
class Times:
    """When a load runs on one kind of day, where that is not as usual; fields as in ``Load``."""

    use: str
    hours: float = 0
    uses: float = 0
    minutes: float = 0
    starts_at: float | None = None
    windows: tuple[Block, ...] = ()


PLAIN_DAY = DayType("day", "Off-grid day")
