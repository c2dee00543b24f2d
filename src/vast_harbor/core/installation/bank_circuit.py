"""The measuring points of a bank as it is wired, and what a meter shows at each, sound or with a fault."""

from dataclasses import dataclass, replace

from vast_harbor.core.battery.terminal_voltage import Terminal, unit_resistance
from vast_harbor.core.installation.cables import COPPER
from vast_harbor.core.installation.wiring import LINK_M, Wiring, fuses_per_string

# Kinds of measuring points: across one battery; across a string, its cables on and the bars off; across the
# bank; behind the main fuse; behind the battery switch; along a link; along each main cable; current of a
# string.
UNIT, STRING, BANK, FUSED, ISOLATED = "unit", "string", "bank", "fused", "isolated"
LINK, PLUS, MINUS, SHARE = "link", "plus", "minus", "share"
DROPS = (LINK, PLUS, MINUS)
# When it is measured: strings not joined, bank joined and at rest, bank under a known load, at the end of
# the acceptance test, and while it is charged.
APART, JOINED, LOADED, SPENT, FED = "apart", "joined", "loaded", "spent", "fed"
# A crimped and torqued joint, and a fuse in its holder [Ω]: good practice, 0.05 to 0.2 mΩ and 0.1 to 0.5 mΩ.
JOINT_OHM, FUSE_OHM = 0.0001, 0.0003

REVERSED, LOOSE, WEAK, ASLEEP = "reversed", "loose", "weak", "asleep"
STRING_FUSE, MAIN_FUSE, ISOLATOR_OFF, UNEQUAL = "string_fuse", "main_fuse", "isolator_off", "unequal"
DEAD_CELL = "dead_cell"
AMPS_SOCKET, SWAPPED = "amps_socket", "swapped"


@dataclass(frozen=True, slots=True)
class Point:
    """A place where something is measured.

    Attributes:
        number: its number on the drawing, M1 and so on.
        kind: one of the kinds above.
        string, at: string, and battery or link in it from the negative end, both from 1; 0 where it is not of
            one.
    """

    number: int
    kind: str
    string: int = 0
    at: int = 0

    @property
    def id(self) -> str:
        """Name that stays when the numbers change: ``unit-1-2``."""
        return "-".join(str(x) for x in (self.kind, self.string, self.at) if x)

    @property
    def unit(self) -> str:
        """What is read there: ``V``, or ``A`` of a clamp."""
        return "A" if self.kind == SHARE else "V"


def points(wiring: Wiring) -> tuple[Point, ...]:
    """The measuring points of a wiring, in the order in which they are measured."""
    bank = wiring.bank
    strings, places = range(1, bank.parallel + 1), range(1, bank.series + 1)
    found = [(UNIT, s, n) for s in strings for n in places]
    if bank.units > 1:
        found += [(STRING, s, 0) for s in strings]
    found += [(BANK, 0, 0), (FUSED, 0, 0), (ISOLATED, 0, 0)]
    found += [(LINK, s, n) for s in strings for n in places[:-1]]
    found += [(SHARE, s, 0) for s in strings] if bank.parallel > 1 else []
    found += [(PLUS, 0, 0), (MINUS, 0, 0)]
    return tuple(Point(i, *one) for i, one in enumerate(found, 1))


@dataclass(frozen=True, slots=True)
class Fault:
    """Something that is wrong.

    Attributes:
        kind: one of the kinds above.
        string, at: where; battery or link from 1. ``at`` 0 is the string's own cable, ``string`` 0 of a loose
            joint the positive main cable.
        size: how bad: resistance of a loose joint [Ω], share of the charge that is missing, health of a weak
            battery [-].
    """

    kind: str
    string: int = 0
    at: int = 0
    size: float = 0.0


# How bad a fault is that is switched on for trial.
TYPICAL = {LOOSE: 0.02, WEAK: 0.6, UNEQUAL: 0.4}


def faults(wiring: Wiring, sleeps: bool) -> tuple[Fault, ...]:
    """The faults that a wiring can have, one of a kind in each place, of their typical size.

    Args:
        wiring: the bank as it is wired.
        sleeps: whether its batteries have a BMS that can be asleep.
    """
    bank = wiring.bank
    places = [(s, n) for s in range(1, bank.parallel + 1) for n in range(1, bank.series + 1)]
    out = [Fault(REVERSED, s, n) for s, n in places]
    out += [Fault(LOOSE, s, n, TYPICAL[LOOSE]) for s, n in places if n < bank.series]
    out += [Fault(LOOSE, s, 0, TYPICAL[LOOSE]) for s in range(1, bank.parallel + 1) if bank.parallel > 1]
    out += [Fault(LOOSE, 0, 0, TYPICAL[LOOSE])]
    out += [Fault(WEAK, s, n, TYPICAL[WEAK]) for s, n in places]
    out += [Fault(UNEQUAL, s, n, TYPICAL[UNEQUAL]) for s, n in places]
    out += [Fault(ASLEEP if sleeps else DEAD_CELL, s, n) for s, n in places]
    if fuses_per_string(bank):
        out += [Fault(STRING_FUSE, s) for s in range(1, bank.parallel + 1)]
    return (*out, Fault(MAIN_FUSE), Fault(ISOLATOR_OFF), Fault(AMPS_SOCKET), Fault(SWAPPED))


@dataclass(frozen=True, slots=True)
class Circuit:
    """A bank at one moment of the work.

    Attributes:
        wiring: as it is wired.
        stage: ``apart``, ``joined``, ``loaded``, ``spent`` or ``fed``.
        soc: state of charge of its sound batteries [-]; when ``spent``, of a bank without a fault.
        celsius: temperature of the batteries [°C].
        amps: load on the whole bank, or charge into it [A]; counts when ``loaded``, ``spent`` or ``fed``.
        cable_m: main cable, one way [m].
        health: of its sound batteries [-].
    """

    wiring: Wiring
    stage: str
    soc: float
    celsius: float
    amps: float
    cable_m: float
    health: float = 1.0

    @property
    def load_a(self) -> float:
        """Current that flows out of the bank [A]; below 0 into it."""
        return {LOADED: self.amps, SPENT: self.amps, FED: -self.amps}.get(self.stage, 0.0)

    def _terminal(self, health: float) -> Terminal:
        model = self.wiring.bank.model
        ohm = unit_resistance(model.battery_class, model.unit_class_v, model.rated_ah)
        return Terminal(model.battery_class, model.unit_class_v, ohm, 0.0, self.celsius, health)

    def _battery(self, fault: Fault | None, string: int, at: int, soc: float) -> tuple[float, float]:
        """Volts behind the resistance, and the resistance, of one battery [V], [Ω]; inf where it is open."""
        hit = fault is not None and (fault.string, fault.at) == (string, at)
        kind = fault.kind if fault is not None and hit else ""
        if kind == ASLEEP:
            return 0.0, float("inf")
        missing = fault.size if fault is not None and kind == UNEQUAL else 0.0
        health = self.health * (fault.size if fault is not None and kind == WEAK else 1.0)
        left = max(0.0, 1 - (1 - soc) * self.health / health - missing)
        terminal = self._terminal(health)
        volts = float(terminal.source_volts(left, left))
        if kind == DEAD_CELL:
            volts *= 1 - 1 / self.wiring.bank.model.cells
        return (-volts if kind == REVERSED else volts), float(terminal.resistance(left, left))

    def link_ohm(self, fault: Fault | None, string: int, at: int) -> float:
        """Resistance of the link after a battery; with ``at`` 0, of a string's cables to the bars [Ω]."""
        link = self.wiring.link
        cable = COPPER * LINK_M / (link.mm2 if link is not None else 50.0)
        count = 1 if at else 2 * (self.wiring.bank.parallel > 1)
        ohm = count * (cable + 2 * JOINT_OHM)
        if not at and fuses_per_string(self.wiring.bank):
            ohm += FUSE_OHM
        if fault is not None and fault.kind == LOOSE and (fault.string, fault.at) == (string, at) != (0, 0):
            ohm += fault.size
        return ohm

    def main_ohm(self, kind: str, fault: Fault | None = None) -> float:
        """Resistance of a main cable one way, its joints, and of the positive its fuse and isolator [Ω]."""
        main = self.wiring.main
        ohm = COPPER * self.cable_m / (main.mm2 if main is not None else 120.0) + 4 * JOINT_OHM
        if kind == PLUS:
            ohm += 2 * FUSE_OHM
            if fault is not None and fault.kind == LOOSE and not fault.string:
                ohm += fault.size
        return ohm

    def _string(self, fault: Fault | None, string: int, soc: float) -> tuple[float, float]:
        """Volts behind the resistance, and the resistance, of a string up to the bars [V], [Ω]."""
        volts, ohm = 0.0, self.link_ohm(fault, string, 0)
        series = self.wiring.bank.series
        # The sound batteries of a string are alike, so one of them is worked out for all.
        sound = self._battery(None, string, 0, soc)
        for at in range(1, series + 1):
            hit = fault is not None and (fault.string, fault.at) == (string, at)
            one = self._battery(fault, string, at, soc) if hit else sound
            volts, ohm = volts + one[0], ohm + one[1]
            if at < series:
                ohm += self.link_ohm(fault, string, at)
        if fault is not None and fault.kind == STRING_FUSE and fault.string == string:
            ohm = float("inf")
        return volts, ohm

    def _socs(self, fault: Fault | None) -> list[float]:
        """State of charge of the sound batteries of each string [-].

        Strings side by side give together what the bank has given, each so much that their volts stay equal.
        """
        count = self.wiring.bank.parallel
        same = [self.soc] * count
        if self.stage != SPENT or count == 1 or fault is None or not fault.string:
            return same
        hit, low, high = fault.string - 1, self.soc, 1.0
        for _ in range(40):
            middle = (low + high) / 2
            others = self.soc - (middle - self.soc) / (count - 1)
            weak = self._string(fault, fault.string, middle)
            sound = self._string(None, fault.string, max(0.0, others))
            if weak[0] < sound[0]:
                low = middle
            else:
                high = middle
        return [
            low if i == hit else max(0.0, self.soc - (low - self.soc) / (count - 1)) for i in range(count)
        ]

    def reading(self, point: Point, fault: Fault | None = None) -> float:
        """What a meter shows at a point [V]; of a share, a clamp [A].

        Args:
            point: where.
            fault: what is wrong; None for nothing.
        """
        if fault is not None and point.kind != SHARE:
            if fault.kind == AMPS_SOCKET:
                return 0.0
            if fault.kind == SWAPPED:
                return -self.reading(point)
        socs = self._socs(fault)
        if self.stage == APART:
            if point.kind == UNIT:
                volts, ohm = self._battery(fault, point.string, point.at, self.soc)
                # Across its own posts it is the right way round, however it was put in.
                return 0.0 if ohm == float("inf") else abs(volts)
            volts, ohm = self._string(fault, point.string or 1, self.soc)
            return 0.0 if ohm == float("inf") else volts
        return self._joined(point, fault, socs)

    def _joined(self, point: Point, fault: Fault | None, socs: list[float]) -> float:
        strings = [self._string(fault, s, soc) for s, soc in enumerate(socs, 1)]
        conductance = sum(1 / ohm for _, ohm in strings)
        load = self.load_a
        if fault is not None and fault.kind in (MAIN_FUSE, ISOLATOR_OFF):
            load = 0.0
        bank_v = (sum(v / ohm for v, ohm in strings) - load) / conductance if conductance else 0.0
        amps = [(v - bank_v) / ohm if ohm != float("inf") else 0.0 for v, ohm in strings]
        if point.kind == SHARE:
            # A clamp is put on so that it shows the current of the moment as positive.
            return -amps[point.string - 1] if self.stage == FED else amps[point.string - 1]
        if point.kind == LINK:
            return amps[point.string - 1] * self.link_ohm(fault, point.string, point.at)
        if point.kind in (PLUS, MINUS):
            return load * self.main_ohm(point.kind, fault)
        if point.kind == UNIT:
            volts, ohm = self._battery(fault, point.string, point.at, socs[point.string - 1])
            return 0.0 if ohm == float("inf") else volts - amps[point.string - 1] * ohm
        if fault is not None and point.kind in (FUSED, ISOLATED) and fault.kind == MAIN_FUSE:
            return 0.0
        if fault is not None and point.kind == ISOLATED and fault.kind == ISOLATOR_OFF:
            return 0.0
        return bank_v - (load * self.main_ohm(PLUS, fault) if point.kind == ISOLATED else 0.0)

    def at(self, stage: str, soc: float, amps: float = 0.0) -> "Circuit":
        """The same bank at another moment."""
        return replace(self, stage=stage, soc=soc, amps=amps)
