"""The parts of a plan that say where the rig stands and what it carries."""

from dataclasses import dataclass, replace

from vast_harbor.core.installation.packing import Size
from vast_harbor.core.weather.climate import Climate

# How much of the day's swing of the air reaches a battery, and how much of that goes through insulation [-].
SWING, THROUGH_INSULATION = 0.5, 0.4


@dataclass(frozen=True, slots=True)
class Site:
    """Where the rig is used.

    Attributes:
        latitude, longitude: degrees, north and east positive; None where it is not known.
        utc_offset_h: standard time against UTC [h]; None for the nautical zone of the longitude.
        climate: kind of climate; None where it is not known.
    """

    latitude: float | None = None
    longitude: float | None = None
    utc_offset_h: float | None = None
    climate: Climate | None = None

    @property
    def south(self) -> bool:
        """Whether it lies in the southern half of the world."""
        return (self.latitude or 0.0) < 0


@dataclass(frozen=True, slots=True)
class Stay:
    """What else ends a stay: nights that water, waste tank and gas last; None for not asked."""

    water_nights: float | None = None
    waste_nights: float | None = None
    gas_nights: float | None = None


@dataclass(frozen=True, slots=True)
class Loading:
    """What the rig can still carry, and where.

    Attributes:
        payload_kg: what may still be loaded, the old bank being in [kg].
        base_m: wheelbase of a vehicle, or axle to coupling of a caravan [m].
        coupling_kg: load on the coupling now, and
        coupling_max_kg: the most that it may be [kg].
        old_x_m, new_x_m: where the old and the new bank stand: ahead of the (rear) axle, or of the middle of
            a boat [m].
        front_kg, rear_kg: what the front and the rear axle may still take [kg].
    """

    payload_kg: float | None = None
    base_m: float | None = None
    coupling_kg: float | None = None
    coupling_max_kg: float | None = None
    old_x_m: float | None = None
    new_x_m: float | None = None
    front_kg: float | None = None
    rear_kg: float | None = None


@dataclass(frozen=True, slots=True)
class Locker:
    """Where the bank is to stand.

    Attributes:
        rooms: inside length, width and height of the compartments, at most two [mm]; none where not measured.
        second_cable_m: main cable more, one way, to reach the second compartment [m].
        opens: ``top`` or ``front``.
        vented: whether it is closed to the living space and vented to the outside.
        vent_cm2: free area of each of its two openings [cm²]; None where not measured.
        insulated: whether it is lined all round, so that the battery follows less of the day's swing.
        entered: name of each compartment in the rig file; one that is measured alone may be the second there.
    """

    rooms: tuple[Size, ...] = ()
    second_cable_m: float = 0.0
    opens: str = "top"
    vented: bool = False
    vent_cm2: float | None = None
    insulated: bool = False
    entered: tuple[str, str] = ("locker", "locker2")

    def measuring(self, compartment: str, axis: int, mm: float) -> "Locker":
        """The same with another measure.

        Args:
            compartment: its name in the rig file; of one that there is not, the other measures are 0.
            axis: 0 length, 1 width, 2 height.
            mm: inside [mm].
        """
        rooms = [list(room) for room in self.rooms]
        at = self.entered.index(compartment)
        while len(rooms) <= at:
            rooms.append([0.0, 0.0, 0.0])
        rooms[at][axis] = mm
        return replace(self, rooms=tuple((length, width, height) for length, width, height in rooms))

    @property
    def swing_share(self) -> float:
        """How much of the day's swing of the air reaches a battery in it, which is heavy [-]."""
        return SWING * (THROUGH_INSULATION if self.insulated else 1.0)


@dataclass(frozen=True, slots=True)
class Installed:
    """What is installed and must go with the bank; None where the owner did not say.

    Attributes:
        cable_mm2: cross-section of the main cable [mm²].
        clad: whether it is copper-clad aluminium.
        fuse_a, fuse_breaks_a: rated current of the main fuse, and the short circuit that it interrupts [A].
        lugs: for which terminals its lugs are.
        charge_a: what all chargers together give at once [A].
        charge_v: absorption volts for a 12 V bank [V].
        equalises: whether the charger equalises.
    """

    cable_mm2: float | None = None
    clad: bool = False
    fuse_a: float | None = None
    fuse_breaks_a: float | None = None
    lugs: str = ""
    charge_a: float | None = None
    charge_v: float | None = None
    equalises: bool = False
