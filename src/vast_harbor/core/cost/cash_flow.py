"""Cash flow: what a bank costs over the years that the rig is kept, payment by payment.

One set of functions serves a single bank and many at once: whatever differs may be an array.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from math import ceil, floor

import numpy as np

from vast_harbor.core.arrays import Floats

Many = float | Floats
NO_VALUES: Floats = np.zeros(0)

BATTERIES, EXTRAS, OLD_BANK = "batteries", "extras", "old bank"
REPLACEMENT, RUNNING, EXIT = "replacement", "running", "exit"
# A replacement due within this of the end is not made [years].
AT_THE_END = 1e-9


@dataclass(frozen=True, slots=True)
class Costs:
    """What goes into the lifetime cost of a bank, in the rig's currency; any of it may be an array.

    Attributes:
        batteries: purchase of the bank.
        extras: what is bought with it, once.
        old_bank: what the old bank fetches, a credit.
        drift: yearly change of the batteries' price [1/year].
        swap: labour less scrap at each replacement.
        running: maintenance, water, lost energy and fuel, a year.
        exit_share: κ [-].
        discount: r [1/year].
        refit: what taking the last bank along costs.
        again: (price, life) of extras that are bought again after their life [money], [years].
        kept: (price, life, share) of extras that fetch this share of their unused life at the end [money],
            [years], [-].
        again_share: factor on the price of both [-].
        warranty_years, full_years: of the maker's warranty, and the part of it that replaces in full [years].
    """

    batteries: Many
    extras: Many = 0.0
    old_bank: Many = 0.0
    drift: Many = 0.0
    swap: Many = 0.0
    running: Many = 0.0
    exit_share: Many = 0.0
    discount: float = 0.0
    refit: Many = 0.0
    again: tuple[tuple[float, float], ...] = ()
    kept: tuple[tuple[float, float, float], ...] = ()
    again_share: Many = 1.0
    warranty_years: Many = 0.0
    full_years: Many = 0.0


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


@dataclass(frozen=True, slots=True)
class Lump:
    """The same payment of many banks, or in many futures, at once.

    Attributes:
        t: years from now.
        item: what it is for.
        amount: present value [money]; nought where it does not fall.
    """

    t: Many
    item: str
    amount: Many


def price_at(price: Many, drift: Many, t: Many) -> Many:
    """Price of a bank t years from now: P · (1 + drift)^t.

    Args:
        price: price now [money].
        drift: yearly change [1/year].
        t: years from now.

    Returns:
        Price [money].
    """
    return price * (1 + drift) ** t


def annuity(years: Many, discount: float) -> Many:
    """Present value of one a year, paid at mid-year; a part of a year at the end counts in part.

    Args:
        years: H.
        discount: r [1/year].

    Returns:
        Σ length · (1 + r)^−t over the years.
    """
    if abs(discount) < 1e-12:
        return years
    log_q = -np.log1p(discount)
    whole = np.floor(np.asarray(years) + 1e-9)
    part = np.maximum(0.0, np.asarray(years) - whole)
    full = np.exp(log_q / 2) * -np.expm1(whole * log_q) * (1 + discount) / discount
    return np.asarray(full + part * np.exp(log_q * (whole + part / 2)))


def life_left(served_years: Many, life_years: Many) -> Floats:
    """Share of its life that a bank has left after so many years [-]; 1 where nothing ends it."""
    life = np.asarray(life_years, float)
    with np.errstate(invalid="ignore", divide="ignore"):
        left = 1 - np.asarray(served_years) / life
    return np.where(np.isinf(life), 1.0, np.maximum(0.0, left))


def warranty_credit(age: Many, warranty_years: Many, full_years: Many) -> Floats:
    """Share of its price that the maker gives for a bank that fails early: in full, then pro rata.

    Args:
        age: at which it fails [years].
        warranty_years: of the warranty; 0 for none [years].
        full_years: the part of it that replaces in full [years].

    Returns:
        Share [-].
    """
    age, warranty = np.asarray(age, float), np.asarray(warranty_years, float)
    pro_rata = np.maximum(0.0, 1 - age / np.where(warranty > 0, warranty, 1.0))
    return np.where(warranty > 0, np.where(age <= full_years, 1.0, pro_rata), 0.0)


def lump_payments(
    costs: Costs, life_years: Many, years: Many, fails: Floats = NO_VALUES, *, in_full: bool = False
) -> Iterator[Lump]:
    """Every payment but the running ones, discounted by (1 + r)^−t.

    A bank is replaced at t = j · life while t < H − 1e-9, or when it fails before.

    Args:
        costs: what there is to pay.
        life_years: life of one bank [years], may be infinite.
        years: years of keeping, H.
        fails: age at which each bank fails early, one after the other, shape (banks, ...) [years].
        in_full: credit the unused life of the last bank in full (κ 1), so that cost is continuous.

    Yields:
        The payments; where the arguments are arrays, their times and amounts are arrays too.
    """
    shape = np.broadcast_shapes(
        *(np.shape(x) for x in (life_years, years, costs.batteries, costs.drift, costs.swap)), fails.shape[1:]
    )
    life = np.broadcast_to(np.asarray(life_years, float), shape)
    horizon = np.broadcast_to(np.asarray(years, float), shape)
    drift, q = np.asarray(costs.drift, float), 1 + costs.discount

    def now(t: Many) -> Many:
        return q**-t if costs.discount else 1.0

    yield Lump(0.0, BATTERIES, costs.batteries)
    yield Lump(0.0, EXTRAS, costs.extras)
    yield Lump(0.0, OLD_BANK, -np.asarray(costs.old_bank))
    began, bank = np.zeros(shape), 0
    bought: Many = costs.batteries
    while True:
        served, failed = life, None
        if bank < len(fails):
            failed = fails[bank] < life
            served = np.where(failed, fails[bank], life)
        ends = began + served
        active = ends < horizon - AT_THE_END
        if not active.any():
            break
        when = np.where(active, ends, 0.0)
        price = price_at(costs.batteries, drift, when)
        paid = price + costs.swap
        if failed is not None:
            credit = warranty_credit(served, costs.warranty_years, costs.full_years)
            paid = paid - np.where(failed, credit * bought, 0.0)
        yield Lump(when, REPLACEMENT, np.where(active, paid * now(when), 0.0))
        began, bought = np.where(active, ends, began), np.where(active, price, bought)
        bank += 1
    for again, lasts in costs.again:
        for j in range(1, int(np.max(horizon) / lasts) + 1):
            t = j * lasts
            paid = again * np.asarray(costs.again_share) * now(t)
            yield Lump(t, EXTRAS, np.where(t < horizon - AT_THE_END, paid, 0.0))
    for once, lasts, share in costs.kept:
        bought_again = np.maximum(0.0, np.ceil((horizon - AT_THE_END) / lasts) - 1)
        unused = life_left(horizon - bought_again * lasts, lasts)
        fetched = share * unused * once * np.asarray(costs.again_share)
        yield Lump(horizon, EXTRAS, -fetched * now(horizon))
    exit_share, refit = (1.0, 0.0) if in_full else (costs.exit_share, costs.refit)
    left = life_left(horizon - began, life)
    # Never above the part of what was paid that is not used up.
    then = price_at(costs.batteries, drift, horizon)
    worth = np.maximum(0.0, left * np.minimum(exit_share * then, bought) - refit)
    yield Lump(horizon, EXIT, -worth * now(horizon))


def lifetime_cost(
    costs: Costs, life_years: Many, years: Many, fails: Floats = NO_VALUES, *, in_full: bool = False
) -> Floats:
    """Lifetime cost at present value [money]: all payments together; arguments as :func:`lump_payments`."""
    total = np.asarray(costs.running * annuity(years, costs.discount), float)
    for payment in lump_payments(costs, life_years, years, fails, in_full=in_full):
        total = total + payment.amount
    return total


def spent_by(costs: Costs, life_years: Many, years: Many, at: Floats, fails: Floats = NO_VALUES) -> Floats:
    """What has been spent by given times, without the worth at the end.

    Args:
        costs, life_years, years, fails: as of :func:`lump_payments`.
        at: times, shape (times,) [years].

    Returns:
        Money, shape (times, ...).
    """
    lumps = [p for p in lump_payments(costs, life_years, years, fails) if p.item != EXIT]
    out = []
    for when in at:
        paid = [np.where(np.asarray(p.t) <= when + AT_THE_END, p.amount, 0.0) for p in lumps]
        out.append(sum(paid, np.asarray(costs.running * annuity(when, costs.discount), float)))
    return np.array(np.broadcast_arrays(*out)) if out else np.zeros((0,))


def payments(costs: Costs, life_years: float, years: float) -> tuple[Payment, ...]:
    """All payments for one bank over the years of keeping, in the order of time; they add up to its cost.

    Running costs count at mid-year; a part of a year at the end counts in part.

    Args:
        costs: what there is to pay, in plain numbers.
        life_years: life of one bank [years], may be infinite.
        years: years of keeping, H.

    Returns:
        Payments in plain numbers.
    """
    out = [Payment(float(p.t), p.item, float(p.amount)) for p in lump_payments(costs, life_years, years)]
    for start in range(ceil(years - AT_THE_END)):
        end = min(start + 1.0, years)
        share = float(annuity(end, costs.discount)) - float(annuity(float(start), costs.discount))
        out.append(Payment((start + end) / 2, RUNNING, float(costs.running) * share))
    return tuple(sorted(out, key=lambda p: p.t))


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
