"""What puts charge back: mains, generator, sun, engine, wind and water; and what a starting battery takes."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from vast_harbor.core.figures.clock import DAY_H

MAINS, GENERATOR, SOLAR, ENGINE, STREAM, UPKEEP = (
    "mains", "generator", "solar", "engine", "stream", "upkeep",
)  # fmt: skip
KINDS = (MAINS, GENERATOR, SOLAR, ENGINE, STREAM, UPKEEP)
RELAY, DC_DC = "relay", "dc_dc"
MPPT, PWM = "mppt", "pwm"
# What a controller that seeks the best point makes of the panel, what a DC-DC charger and a mains charger
# make of their input, and what a generator bears of its rating for hours.
MPPT_EFFICIENCY, DC_DC_EFFICIENCY, MAINS_EFFICIENCY, GENERATOR_SHARE = 0.95, 0.88, 0.85, 0.8
# Volts of a 12 V panel at its best point: what a PWM controller passes is a current.
PANEL_V = 18.0
# A smart alternator falls to about these volts once the starting battery is full.
SMART_V = 12.4
# Volts at which a charger's power is turned into current where it matters little, for 12 V.
CHARGE_V = 14.0
# Hours of float after which a charger with a rest stage rests.
REST_AFTER_H = 2.0
# What charges such rigs as a rule: fields of a source, to begin with and to try where nothing is known.
USUAL: Mapping[str, Mapping[str, Any]] = {
    MAINS: {"amps": 20.0, "absorption_v": 14.4, "float_v": 13.6},
    SOLAR: {"watts": 200.0, "absorption_v": 14.4, "float_v": 13.6, "adjustable": True},
    ENGINE: {"link": RELAY, "alternator_a": 90.0},
}
PITCHES = {"open": 1.0, "half": 0.6, "trees": 0.2}


@dataclass(frozen=True, slots=True)
class Source:
    """One source of charge (or the upkeep of a starting battery, which takes some).

    Volts are those for a 12 V bank and scale with the system.

    Attributes:
        id, name: how it is called.
        assumed: whether nobody has said yet that it is there; it came with a pattern of use.
        kind: one of :data:`KINDS`.
        amps: rated charge current [A]: of a mains or DC-DC charger; the most that a solar controller gives;
            what the upkeep takes. None where nothing limits it.
        absorption_v: None for a charger of one voltage only, its float.
        float_v: None where it switches off when it is done.
        timeout_h: ends absorption after so long, done or not [h]; None where only the current decides.
        rests: whether it rests after float, and
        rebulk_v: below which rested volts it starts again.
        equalise_v: volts of its equalising or desulphating; None where it has none, or it is off.
        compensates: whether it follows the temperature of the battery.
        wakes: whether it charges a battery that shows no volts.
        positions: (absorption, float) of other positions of its switch.
        adjustable: whether each setting can be set freely.
        firmware: whether its maker offers a version that knows LFP.
        board: whether its maker sells a control board that knows LFP.
        built_in: whether it is a part of the distribution panel.
        watts: peak of the panels, or what a generator gives [W].
        controller: ``mppt`` or ``pwm``.
        tilt, azimuth: of the panels [°], 0 flat, north 0 and east 90.
        starter_share: share of its charge that goes to the starting battery [-].
        litres_per_h, litre_price: fuel of a generator at work [l/h], [money].
        quiet_from, quiet_to: clock hours between which it may not run [h].
        start_soc, stop_soc: charge at which it is started and stopped [-].
        link: ``relay`` or ``dc_dc``.
        alternator_a, alternator_v: rating and volts of the alternator [A], [V].
        smart: whether it lowers its volts.
        cable_mohm: cable from alternator to bank, both ways [mΩ].
        drop_out_v: volts at which the relay opens.
        fridge_w: what a fridge takes from the alternator while driving [W].
        monthly_w: mean power of wind or water by month, January first [W].
        hours: hours a day that upkeep takes its amps [h].
    """

    id: str
    kind: str
    name: str = ""
    amps: float | None = None
    absorption_v: float | None = 14.4
    float_v: float | None = 13.6
    timeout_h: float | None = None
    rests: bool = False
    rebulk_v: float = 12.6
    equalise_v: float | None = None
    compensates: bool = False
    wakes: bool = False
    positions: tuple[tuple[float, float], ...] = ()
    adjustable: bool = False
    firmware: bool = False
    board: bool = False
    built_in: bool = False
    watts: float = 0.0
    controller: str = MPPT
    tilt: float = 0.0
    azimuth: float = 180.0
    starter_share: float = 0.0
    litres_per_h: float = 0.0
    litre_price: float = 0.0
    quiet_from: float = 21.0
    quiet_to: float = 8.0
    start_soc: float = 0.4
    stop_soc: float = 0.85
    link: str = DC_DC
    alternator_a: float = 90.0
    alternator_v: float = 14.2
    smart: bool = False
    cable_mohm: float = 25.0
    drop_out_v: float = 12.7
    fridge_w: float = 0.0
    monthly_w: tuple[float, ...] = ()
    hours: float = 0.0
    assumed: bool = False

    @property
    def charges(self) -> bool:
        """Whether it puts charge into the bank by itself; a generator does so through the mains charger."""
        return self.kind not in (GENERATOR, UPKEEP)

    @property
    def plugged(self) -> bool:
        """Whether it is a charger on mains."""
        return self.kind == MAINS

    @property
    def is_relay(self) -> bool:
        """Whether it ties the bank to the alternator without a charger between."""
        return self.kind == ENGINE and self.link == RELAY

    @property
    def set_v(self) -> float:
        """Volts at which it absorbs [V]: its float where it has one voltage only."""
        if self.is_relay:
            return SMART_V if self.smart else self.alternator_v
        return self.absorption_v or self.float_v or 0.0

    @property
    def hold_v(self) -> float:
        """Volts at which it holds the bank when it is done [V]; 0 where it switches off."""
        return self.set_v if self.is_relay else (self.float_v or 0.0)

    def most_a(self, system_v: float) -> float:
        """The most that it ever gives [A].

        Args:
            system_v: class volts of the bank [V].

        Returns:
            Current at the bank; of a relay half the alternator's rating, which is what one should count on.
        """
        n = system_v / 12
        if self.kind == SOLAR:
            volts = PANEL_V if self.controller == PWM else (self.set_v or 14.4)
            given = self.watts * (1.0 if self.controller == PWM else MPPT_EFFICIENCY) / (volts * n)
            return min(given * (1 - self.starter_share), self.amps or given)
        if self.kind == STREAM:
            return max(self.monthly_w, default=0.0) / ((self.set_v or 14.4) * n)
        if self.is_relay:
            return self.alternator_a / 2
        return (self.amps or 0.0) if self.charges else 0.0

    def conductor_a(self, system_v: float) -> float:
        """The most that its cable, its fuse and what it flows through ever carry [A].

        Args:
            system_v: class volts of the bank [V].

        Returns:
            As :meth:`most_a`; of a relay the whole rating of the alternator, which an empty LFP bank draws.
        """
        return self.alternator_a if self.is_relay else self.most_a(system_v)

    @property
    def run_hours(self) -> float:
        """Hours of a day in which a generator may run [h]."""
        return (
            DAY_H - (self.quiet_to - self.quiet_from) % DAY_H if self.quiet_from != self.quiet_to else DAY_H
        )


def together(sources: Iterable[Source], amps: Callable[[Source], float]) -> float:
    """What sources give at once [A].

    Mains and engine do not charge together; sun, wind and water do with either.

    Args:
        sources: what charges.
        amps: current of one [A].
    """
    given = dict.fromkeys(KINDS, 0.0)
    for source in sources:
        if source.charges:
            given[source.kind] += amps(source)
    return given[SOLAR] + given[STREAM] + max(given[MAINS], given[ENGINE])


def generator_watts(source: Source) -> float:
    """DC power that a generator gives through a mains charger for hours [W]."""
    return source.watts * GENERATOR_SHARE * MAINS_EFFICIENCY


def engine_watts(source: Source) -> float:
    """Power that the alternator can spare for the bank: half its rating, less the fridge [W]."""
    return max(0.0, source.alternator_a / 2 * source.alternator_v - source.fridge_w)
