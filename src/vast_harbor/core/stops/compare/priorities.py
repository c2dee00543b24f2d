"""What an owner cares about, as something by which banks can be told apart."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import inf

from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.phrases import phrase

# Nearer than this two banks serve a priority alike.
ALIKE = 0.05


@dataclass(frozen=True, slots=True)
class Priority:
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


PRIORITIES = {
    c.key: c
    for c in (
        Priority(
            "purse",
            phrase("compare.priorities.purse"),
            lambda c: c.cost.outlay.number,
            lambda c: c.cost.outlay,
            phrase("compare.priorities.lowest_up_front_cost"),
            phrase("compare.priorities.higher_up_front_cost"),
        ),
        Priority(
            "weight",
            phrase("compare.priorities.weight"),
            lambda c: c.banked["kg"].number,
            lambda c: c.banked["kg"],
            phrase("compare.priorities.lightest"),
            phrase("compare.priorities.heavier"),
        ),
        Priority(
            "cold",
            phrase("compare.priorities.cold_weather"),
            _cold,
            lambda c: c.banked["temperature"]._replace(unit="%"),
            phrase("compare.priorities.keeps_capacity_planned_temperature"),
            phrase("compare.priorities.keeps_less_capacity_cold"),
        ),
        Priority(
            "no_upkeep",
            phrase("compare.priorities.no_upkeep"),
            lambda c: c.cost["maintenance"].inputs["h_care"].number,
            lambda c: c.cost["maintenance"].inputs["h_care"],
            phrase("compare.priorities.needs_least_maintenance"),
            phrase("compare.priorities.needs_maintenance"),
        ),
        Priority(
            "big_loads",
            phrase("compare.priorities.large_loads"),
            _big_loads,
            lambda c: c.figures["ohm"],
            phrase("compare.priorities.holds_voltage_best_under"),
            phrase("compare.priorities.loses_voltage_under_large"),
        ),
        Priority(
            "short_keeping",
            phrase("compare.priorities.short_keeping"),
            lambda c: c.cost["lifetime"].number,
            lambda c: c.cost["lifetime"],
            phrase("compare.priorities.costs_least_until_sell"),
            phrase("compare.priorities.costs_until_sell"),
        ),
        Priority(
            "long_keeping",
            phrase("compare.priorities.long_keeping"),
            _lasts,
            lambda c: c.life["years"],
            phrase("compare.priorities.lasts_longest"),
            phrase("compare.priorities.lasts_less_long"),
        ),
    )
}


def choose(
    near: Sequence[ComparedBank], cares: Sequence[str], weighed: Mapping[str, float], purse: float
) -> tuple[ComparedBank, str]:
    """The bank that serves the strongest priorities best, then that of least cost, then the cheaper to buy.

    Args:
        near: banks in the running, at least one.
        cares: keys of the priorities, the strongest first.
        weighed: cost of each by its id, the dear futures weighed too [money].
        purse: how much more one may cost that asks less on the day [-].

    Returns:
        The bank, and the key of the priority that decided; ``risk`` where cost did; empty where money on the
        day did.
    """
    left = list(near)
    for key in cares:
        if key == "purse":
            # Money today decides only between those that cost alike over the years.
            left = _alike(left, weighed, purse)
            if len(left) == 1 < len(near):
                return left[0], "risk"
        losses = [PRIORITIES[key].loss(c) for c in left]
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
