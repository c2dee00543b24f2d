"""Where a bank stands, and how far from what it feeds."""

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.installation.packing import Clash, Packing, Place, clashes, pack
from vast_harbor.core.stops.banks.criteria.bank_in_rig import BankInRig


class RoomCriteria(BankInRig):
    """The room of a bank."""

    @cached_property
    def packing(self) -> Packing | None:
        """The bank in the locker as the search stands it, or as its owner does; None without measures."""
        case, rooms = self.bank.model.case, self.plan.locker.rooms
        if case.size is None or not rooms:
            return None
        found = pack(rooms, case.size, case.orientation, self.bank.units)
        if self.placed:
            return Packing(self.placed, self.bank.units, found.free_l)
        return found

    @property
    def placed(self) -> tuple[Place, ...]:
        """Where the owner stands the boxes; none where the number does not agree any more."""
        return self.places if len(self.places) == self.bank.units else ()

    @cached_property
    def clashes(self) -> tuple[Clash, ...]:
        """What is wrong with where the owner stands the boxes."""
        case = self.bank.model.case
        if case.size is None or not self.placed:
            return ()
        return tuple(clashes(self.plan.locker.rooms, case.size, case.orientation, self.placed))

    @cached_property
    def in_second(self) -> bool:
        """Whether a part of it stands in the second compartment, with more cable to it."""
        if self.plan.locker.second_cable_m <= 0 or self.packing is None:
            return False
        return any(p.compartment for p in self.packing.places)

    @cached_property
    def cable_m(self) -> float:
        """Main cable, one way, to where the bank stands [m]."""
        return self.assumptions.value("main_cable_m") + self.plan.locker.second_cable_m * self.in_second
