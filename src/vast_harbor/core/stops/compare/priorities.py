"""What an owner cares about, as something by which banks can be told apart."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from math import inf

from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.stops.compare.compared_bank import ComparedBank

# Nearer than this two banks serve a care alike.
ALIKE = 0.05


@dataclass(frozen=True, slots=True)
class Care:
    """One thing that owners care about.

    Attributes:
        key: as in the rig file.
        name: inside a sentence: “you care about …”.
        loss: what a bank costs by it; less is better.
        figure: the figure that shows it.
        best, worst: of a bank that is best by it, that is not; inside a sentence after its name.
    """

    key: str
    name: str
    loss: Callable[[ComparedBank], float]
    figure: Callable[[ComparedBank], Figure]
    best: str
    worst: str


def _cold(compared: ComparedBank) -> float:
    """How far it stays behind in the cold: what it cannot be charged in, then the capacity that it loses."""
    build = compared.banked.build
    assert build is not None
    model = build.bank.model
    short = max(0.0, model.charge_c[0] - build.coldest.number) if model.heater_w is None else 0.0
    return short + 1 - compared.banked["temperature"].number


def _big_loads(compared: ComparedBank) -> float:
    bank = compared.banked.bank
    assert bank is not None
    return bank_resistance(bank)


def _lasts(compared: ComparedBank) -> float:
    return compared.cost["replacement_count"].number + (
        1 / compared.life.years if compared.life.years < inf else 0
    )


CARES = {
    c.key: c
    for c in (
        Care("purse", "little money now", lambda c: c.cost.outlay.number, lambda c: c.cost.outlay,
             "asks least on the day", "asks more on the day"),
        Care("weight", "little weight", lambda c: c.banked["kg"].number, lambda c: c.banked["kg"],
             "is the lightest", "is heavier"),
        Care("cold", "the cold", _cold, lambda c: replace(c.banked["temperature"], unit="%"),
             "keeps most of its capacity at the temperature planned for",
             "is worse off in the cold"),
        Care("no_upkeep", "no upkeep", lambda c: c.cost["care"].inputs["h_care"].number,
             lambda c: c.cost["care"].inputs["h_care"], "wants least care", "wants more care"),
        Care("big_loads", "big loads", _big_loads, lambda c: c.figures["ohm"],
             "sags least under big loads", "sags more under big loads"),
        Care("short_keeping", "selling soon", lambda c: c.cost["lifetime"].number,
             lambda c: c.cost["lifetime"], "costs least until you sell", "costs more until you sell"),
        Care("long_keeping", "keeping it for long", _lasts, lambda c: c.life["years"],
             "lasts longest", "lasts less long"),
    )
}  # fmt: skip


def choose(
    near: Sequence[ComparedBank], cares: Sequence[str], weighed: Mapping[str, float], purse: float
) -> tuple[ComparedBank, str]:
    """The bank that serves the strongest cares best, then that of least cost, then the cheaper to buy.

    Args:
        near: banks in the running, at least one.
        cares: keys of the cares, the strongest first.
        weighed: cost of each by its id, the dear futures weighed too [money].
        purse: how much more one may cost that asks less on the day [-].

    Returns:
        The bank, and the key of the care that decided; ``risk`` where cost did; empty where money on the
        day did.
    """
    left = list(near)
    for key in cares:
        if key == "purse":
            # Money today decides only between those that cost alike over the years.
            left = _alike(left, weighed, purse)
            if len(left) == 1 < len(near):
                return left[0], "risk"
        losses = [CARES[key].loss(c) for c in left]
        least = min(losses)
        rest = [c for c, x in zip(left, losses, strict=True) if x - least <= ALIKE * max(abs(least), 1e-9)]
        if len(rest) == 1 and len(left) > 1:
            return rest[0], key
        left = rest
    alike = _alike(left, weighed, ALIKE)
    if len(alike) == 1 and len(left) > 1:
        return alike[0], "risk"
    return min(alike, key=lambda c: c.cost.outlay.number), ""


def _alike(banks: Sequence[ComparedBank], weighed: Mapping[str, float], band: float) -> list[ComparedBank]:
    """Those that cost hardly more than the cheapest of them."""
    least = min(weighed[c.id] for c in banks)
    return [c for c in banks if weighed[c.id] <= least + band * abs(least)]
