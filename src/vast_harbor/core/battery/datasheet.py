"""What a datasheet, a shop and a seller say of a battery beyond its capacity."""

from dataclasses import dataclass

UPRIGHT, ON_SIDES, ANY = "upright", "sides", "any"
OWN_SWITCH, MONITOR, NO_SWITCH = "own", "monitor", "none"
BY_ITSELF, BY_CHARGER = "itself", "charger"
NO_PROTECTION, EXTERNAL_BMS, CUT_OFFS = "none", "external_bms", "cut_offs"


@dataclass(frozen=True, slots=True)
class Case:
    """The outside of a battery.

    Attributes:
        length_mm, width_mm, height_mm: outer measures, terminals included [mm]; None where not known.
        orientation: ``upright`` only, also on its ``sides``, or ``any``.
        terminals: their kind, in words; empty where not known.
        terminal_side: where they sit: ``ends``, ``long_side`` or ``one_end``.
        ingress: ingress protection class; empty where not stated.
        water: whether caps must be opened to top up water.
    """

    length_mm: float | None = None
    width_mm: float | None = None
    height_mm: float | None = None
    orientation: str = UPRIGHT
    terminals: str = ""
    terminal_side: str = "ends"
    ingress: str = ""
    water: bool = False

    @property
    def size(self) -> tuple[float, float, float] | None:
        """Length, width, height [mm]; None where one of them is not known."""
        if self.length_mm is None or self.width_mm is None or self.height_mm is None:
            return None
        return self.length_mm, self.width_mm, self.height_mm


@dataclass(frozen=True, slots=True)
class Bms:
    """The battery management system of a lithium battery.

    Attributes:
        switch: ``own`` switch, ``monitor`` only, or ``none``.
        continuous_a: current that it passes for ever [A]; None without a switch.
        peak_a, peak_s: current that it passes for so many seconds [A], [s].
        cut_v, reconnect_v: volts of the unit at which it opens and closes again [V]; None where not stated.
        resets: ``itself``, or only by a ``charger``.
        warns: whether it warns before it opens.
        stops_cold_charge: whether it stops charging in the cold.
        balance_v: volts of the unit above which it balances its cells [V]; None where not stated.
    """

    switch: str = OWN_SWITCH
    continuous_a: float | None = None
    peak_a: float | None = None
    peak_s: float = 0.0
    cut_v: float | None = None
    reconnect_v: float | None = None
    resets: str = BY_ITSELF
    warns: bool = False
    stops_cold_charge: bool = True
    balance_v: float | None = None


@dataclass(frozen=True, slots=True)
class Limits:
    """What a battery may be asked to do; None for what is usual of its class.

    Attributes:
        charge_a, discharge_a: highest currents of one unit [A].
        charge_c, discharge_c, storage_c: least and most temperature of the battery [°C].
    """

    charge_a: float | None = None
    discharge_a: float | None = None
    charge_c: tuple[float, float] | None = None
    discharge_c: tuple[float, float] | None = None
    storage_c: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Warranty:
    """What the maker answers for.

    Attributes:
        years: until when it answers at all, pro-rata years included.
        full_years: of these, replaced free.
        conditions: what must be kept to, in words.
    """

    years: float
    full_years: float = 0.0
    conditions: str = ""


@dataclass(frozen=True, slots=True)
class Offer:
    """A price and what goes with it.

    Attributes:
        low, high: range of the price of one [money]; None where not known.
        dated: ISO date of the price; empty where not known.
        tax: share that is added [-].
        delivery: once for the order [money].
        deposit: for each battery, given back for an old one [money].
        discount: share that is taken off [-].
    """

    low: float | None = None
    high: float | None = None
    dated: str = ""
    tax: float = 0.0
    delivery: float = 0.0
    deposit: float = 0.0
    discount: float = 0.0


@dataclass(frozen=True, slots=True)
class Proof:
    """What backs up a datasheet.

    Attributes:
        certifications: standards that it is certified to, in words.
        curve_published: whether cycle life is published as a curve over the depth.
        serviceable: whether it can be opened and repaired.
        support_years: years of spare parts or support.
        radio: whether it can be read by radio.
    """

    certifications: str = ""
    curve_published: bool = False
    serviceable: bool = False
    support_years: float = 0.0
    radio: bool = False


@dataclass(frozen=True, slots=True)
class Used:
    """What is known of a battery that is bought used.

    Attributes:
        cycles_made: cycles by its counter or by its seller.
        age_years: years since it was made.
        measured_ah: capacity by a test [Ah]; None without one.
        spread_mv: difference between its highest and lowest cell [mV]; None where not read.
        faults: faults in its log.
        spare: whether a spare one is kept in place of a warranty.
    """

    cycles_made: float = 0.0
    age_years: float = 0.0
    measured_ah: float | None = None
    spread_mv: float | None = None
    faults: float = 0.0
    spare: bool = False


@dataclass(frozen=True, slots=True)
class Portable:
    """A portable pack with everything in one case; it can not be expanded.

    Attributes:
        ac_w, surge_w: what its inverter gives for ever, and for a moment [W].
        in_w: what it takes in at most, from all its inputs [W].
    """

    ac_w: float
    surge_w: float
    in_w: float


# How much of the class's doubt is left or added by the proof that a maker gives.
WIDENING = {"A": 1.0, "B": 1.25, "C": 1.6}


def confidence_grade(proof: Proof, ratings: int, bms: Bms | None, lithium: bool) -> str:
    """How far a datasheet can be trusted: A, B or C.

    One point each for a certification, a published curve, five years of support or a case that can be
    opened, and for a label that says more than the least: two capacities of lead-acid, or of lithium a BMS
    whose peak and cut-off volts are stated.

    Args:
        proof: what backs it up.
        ratings: how many capacities the label gives.
        bms: the BMS, None without one.
        lithium: whether it is lithium.

    Returns:
        A with all four points, B with two or three, C with fewer. It widens ranges and never moves the
        middle.
    """
    stated = ratings > 1
    if lithium:
        stated = bms is not None and bms.peak_a is not None and bms.cut_v is not None
    points = (
        bool(proof.certifications),
        proof.curve_published,
        proof.support_years >= 5 or proof.serviceable,
        stated,
    )
    count = sum(points)
    return "A" if count == 4 else "B" if count >= 2 else "C"


def widened(low: float, likely: float, high: float, grade: str) -> tuple[float, float]:
    """The range about a likely value as a confidence grade leaves it.

    Args:
        low, likely, high: the range.
        grade: A, B or C.

    Returns:
        Least and most, the least not under a tenth of the likely value. The middle stays where it is.
    """
    factor = WIDENING[grade]
    return max(likely / 10, likely - (likely - low) * factor), likely + (high - likely) * factor


def months_between(earlier: str, later: str) -> int:
    """Whole months from one ISO date to another (``2026-03`` or ``2026-03-14``); negative backwards."""
    (y1, m1), (y2, m2) = ((int(d[:4]), int(d[5:7])) for d in (earlier, later))
    months = (y2 - y1) * 12 + m2 - m1
    if len(earlier) >= 10 and len(later) >= 10 and int(later[8:10]) < int(earlier[8:10]):
        months -= 1
    return months
