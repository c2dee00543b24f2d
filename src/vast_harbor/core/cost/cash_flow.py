"""What a bank costs over the years that the rig is kept."""

from dataclasses import dataclass
from math import ceil, floor, inf

BATTERIES, EXTRAS, OLD_BANK = "batteries", "extras", "old bank"
REPLACEMENT, RUNNING, EXIT = "replacement", "running", "exit"


def replacement_times(life_years: float, years: float) -> tuple[float, ...]:
    """When the bank is replaced: t = j · life while t < H − 1e-9.

    Args:
        life_years: life of one bank [years]; infinite when it never wears out.
        years: years of keeping, H.

    Returns:
        Times [years], ascending, without 0.
    """
    if life_years == inf or life_years <= 0:
        return ()
    count = ceil((years - 1e-9) / life_years) - 1
    return tuple(j * life_years for j in range(1, count + 1))


def price_at(price: float, drift: float, t: float) -> float:
    """Price of a bank t years from now: P · (1 + drift)^t.

    Args:
        price: price now [money].
        drift: yearly change [1/year].
        t: years from now.

    Returns:
        Price [money].
    """
    return float(price * (1 + drift) ** t)


def exit_credit(
    price: float, drift: float, years: float, life_years: float, share: float, refit: float = 0.0
) -> float:
    """What the unused life of the last bank is worth: κ · (remaining share) · P · (1 + drift)^H, less refit.

    Args:
        price: price of a bank now [money].
        drift: yearly change of the price [1/year].
        years: years of keeping, H.
        life_years: life of one bank [years].
        share: κ [-].
        refit: what taking it along costs [money].

    Returns:
        Credit at the end [money], 0 or more.
    """
    if life_years == inf:
        return max(0.0, share * price_at(price, drift, years) - refit)
    last = (replacement_times(life_years, years) or (0.0,))[-1]
    remaining = max(0.0, 1 - (years - last) / life_years)
    return max(0.0, share * remaining * price_at(price, drift, years) - refit)


@dataclass(frozen=True, slots=True)
class Costs:
    """What goes into the lifetime cost of a bank, in the rig's currency.

    Attributes:
        batteries: purchase of the bank.
        extras: what comes besides, once.
        old_bank: what the old bank fetches, a credit.
        drift: yearly change of the batteries' price [1/year].
        swap: labour less scrap at each replacement.
        running: care, water and energy lost, a year.
        exit_share: κ [-].
        discount: r [1/year].
        refit: what taking the last bank along costs.
        again: (price, life) of extras that are bought again after their life [money], [years].
    """

    batteries: float
    extras: float = 0.0
    old_bank: float = 0.0
    drift: float = 0.0
    swap: float = 0.0
    running: float = 0.0
    exit_share: float = 0.0
    discount: float = 0.0
    refit: float = 0.0
    again: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True, slots=True)
class Payment:
    """One payment at its present value.

    Attributes:
        t: years from now.
        item: what it is for.
        amount: present value [money]; credits are negative.
    """

    t: float
    item: str
    amount: float


def payments(costs: Costs, life_years: float, years: float) -> tuple[Payment, ...]:
    """All payments for one bank over the years of keeping, discounted by (1 + r)^−t.

    Running costs count at mid-year; a part of a year at the end counts in part.

    Args:
        costs: what there is to pay.
        life_years: life of one bank [years], may be infinite.
        years: years of keeping, H.

    Returns:
        Payments in the order of time; their sum is the lifetime cost.
    """

    def now(t: float) -> float:
        return float((1 + costs.discount) ** -t)

    out = [
        Payment(0.0, BATTERIES, costs.batteries),
        Payment(0.0, EXTRAS, costs.extras),
        Payment(0.0, OLD_BANK, -costs.old_bank),
    ]
    for t in replacement_times(life_years, years):
        amount = price_at(costs.batteries, costs.drift, t) + costs.swap
        out.append(Payment(t, REPLACEMENT, amount * now(t)))
    for price, lasts in costs.again:
        out += [Payment(t, EXTRAS, price * now(t)) for t in replacement_times(lasts, years)]
    start = 0.0
    while start < years - 1e-9:
        length = min(1.0, years - start)
        middle = start + length / 2
        out.append(Payment(middle, RUNNING, costs.running * length * now(middle)))
        start += 1.0
    credit = exit_credit(costs.batteries, costs.drift, years, life_years, costs.exit_share, costs.refit)
    out.append(Payment(years, EXIT, -credit * now(years)))
    return tuple(sorted(out, key=lambda p: p.t))


def lifetime_cost(costs: Costs, life_years: float, years: float) -> float:
    """Sum of all payments at present value [money]; arguments as :func:`payments`."""
    return sum(p.amount for p in payments(costs, life_years, years))


def cumulative(paid: tuple[Payment, ...]) -> list[tuple[float, float]]:
    """Cost so far over the years: steps at purchases, a slope while it is used.

    Args:
        paid: payments of one bank, as :func:`payments` gives them.

    Returns:
        (years, money) points to be joined by straight lines; a step is two points at one time.
    """
    end = max(p.t for p in paid)
    lumps = [p for p in paid if p.item != RUNNING]
    slopes = [(floor(p.t), min(floor(p.t) + 1.0, end), p.amount) for p in paid if p.item == RUNNING]

    def running(t: float) -> float:
        return sum(a * min(1.0, max(0.0, (t - s) / (e - s))) for s, e, a in slopes)

    points: list[tuple[float, float]] = []
    for t in sorted({0.0, end, *(p.t for p in lumps), *(e for _, e, _ in slopes)}):
        before = running(t) + sum(p.amount for p in lumps if p.t < t)
        after = running(t) + sum(p.amount for p in lumps if p.t <= t)
        points.append((t, before))
        if after != before:
            points.append((t, after))
    return points


def yearly(paid: tuple[Payment, ...]) -> list[dict[str, float]]:
    """Payments gathered by the year in which they fall.

    Args:
        paid: payments of one bank, as :func:`payments` gives them.

    Returns:
        Item → amount [money], first what is paid today, then year by year; all together the lifetime cost.
    """
    years = ceil(max(p.t for p in paid) - 1e-9)
    out: list[dict[str, float]] = [{} for _ in range(years + 1)]
    for payment in paid:
        year = out[min(years, ceil(payment.t - 1e-9))]
        year[payment.item] = year.get(payment.item, 0.0) + payment.amount
    return out
