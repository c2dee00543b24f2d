"""How each model of the catalogue could cover a need."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank, BatteryModel, series_count
from vast_harbor.core.errors import InvalidInput

Usable = Callable[[Bank], float]


@dataclass(frozen=True, slots=True)
class SizedLayout:
    """How one model could serve.

    Attributes:
        bank: the smallest layout that covers the need, or the largest permitted one.
        usable_wh: its usable energy at the ageing allowance [Wh].
        covers: whether it covers the need.
    """

    bank: Bank
    usable_wh: float
    covers: bool


# More lead-acid strings than this share the current badly and are not proposed.
LEAD_ACID_STRINGS = 3


def most_strings(model: BatteryModel) -> int:
    """Strings up to what the maker permits and practice advises."""
    return (
        min(model.max_parallel, LEAD_ACID_STRINGS) if model.battery_class.is_lead_acid else model.max_parallel
    )


def size_layout(model: BatteryModel, system_v: float, need_wh: float, usable: Usable) -> SizedLayout | None:
    """The fewest strings of a model that cover the need.

    Args:
        model: battery model.
        system_v: class volts of the system [V].
        need_wh: usable energy wanted [Wh].
        usable: usable energy of a bank [Wh].

    Returns:
        The fit, at the highest advisable number of strings when even that does not cover; None when
        the model cannot make the system voltage.
    """
    try:
        series = series_count(system_v, model.unit_class_v)
    except InvalidInput:
        return None
    if series > model.max_series:
        return None
    most = most_strings(model)
    # No layout gives more than its label: fewer strings than that takes need not be looked at.
    label = Bank(model, series, 1).nameplate_wh
    first = max(1, min(most, int(need_wh / label))) if label > 0 else 1
    for parallel in range(first, most + 1):
        bank = Bank(model, series, parallel)
        if (got := usable(bank)) >= need_wh * (1 - 1e-9):
            return SizedLayout(bank, got, True)
    return SizedLayout(bank, got, False)


def offered(layouts: Sequence[SizedLayout]) -> list[SizedLayout]:
    """Those that the tool may propose by itself: used batteries and packs are for its owner."""
    return [f for f in layouts if f.bank.model.used is None and f.bank.model.portable is None]


def smallest(layouts: Sequence[SizedLayout]) -> SizedLayout | None:
    """The bank with the least usable energy that covers the need; then the cheaper, the lighter.

    Args:
        layouts: what :func:`size_layout` found for the models of one battery class.

    Returns:
        The best fit; when none covers, the one that comes nearest; None without any.
    """
    plain = offered(layouts)
    covering = [f for f in plain if f.covers]
    if not covering:
        return max(plain, key=lambda f: f.usable_wh, default=None)
    return min(covering, key=lambda f: (round(f.usable_wh, 3), f.bank.units * f.bank.model.price, f.bank.kg))
