"""The old bank kept: how it would do in a rig, how long it lasts, and what keeping it costs."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from vast_harbor.core.cost.cash_flow import annuity
from vast_harbor.core.cost.life_cost import LifeCostInputs, running_a_year
from vast_harbor.core.cost.monte_carlo import Uncertainty, spread
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import HOUR_OF, OldBank
from vast_harbor.core.stops.banks import Banks, QuickLifeCost
from vast_harbor.core.stops.rig import old_health
from vast_harbor.core.stops.trial import SimulatedRuns, YearOf, old_bank_as_bank

# A bank is not counted on for less than this, nor for longer than the other [years].
LEAST_YEARS, MOST_YEARS = 0.5, 8.0


@dataclass(frozen=True, slots=True)
class Beside:
    """What is done beside a bank that is kept, in money.

    Attributes:
        once: on the day, labour included [money].
        yearly: a year from then on [money].
        wanted: on the day, for what the owner wants whatever the bank; charged to none [money].
    """

    once: float
    yearly: float
    wanted: float


@dataclass(frozen=True, slots=True)
class KeptBank:
    """The old bank in a rig.

    Attributes:
        year: its simulated year at the health that it has today.
        years: how long it still lasts [years].
        running: what a year with it costs: upkeep, fuel, nights and critical loads that it does not serve
            [money].
        hour: price of an hour of work [money].
        discount: r [1/year].
    """

    year: YearOf
    years: float
    running: float
    hour: float
    discount: float

    def beside(self, improvements: Sequence[Improvement], prices: Sequence[float]) -> Beside:
        """What improvements cost.

        Args:
            improvements: what is done.
            prices: the likely price of each [money].
        """
        charged = [(one, price) for one, price in zip(improvements, prices, strict=True) if not one.wanted]
        parts = sum(price for _, price in charged)
        hours = sum(one.hours for one, _ in charged)
        yearly, wanted = sum(one.yearly for one, _ in charged), sum(prices) - parts
        return Beside(parts + hours * self.hour, yearly, wanted)

    def cost(
        self, beside: Beside, later: LifeCostInputs, uncertainty: Uncertainty, years: float
    ) -> tuple[float, float]:
        """What keeping it costs: until it is worn out, and with what is bought then.

        Args:
            beside: what is done beside it.
            later: the bank that is bought then, in numbers.
            uncertainty: of the draws.
            years: H, of keeping the rig [years].

        Returns:
            P50 and P90 [money].
        """
        stays = min(self.years, years)
        until = beside.once + (self.running + beside.yearly) * float(annuity(stays, self.discount))
        left = years - stays
        if left <= 0:
            return until, until
        then = (1 + self.discount) ** -stays
        # What stands beside the bank is bought now, and not once more with the new one.
        new = replace(later, extras=max(0.0, float(later.extras) - beside.once))
        _, middle, dear = spread(new, uncertainty, left)
        return until + then * middle, until + then * dear


def kept_bank(now: Banks, after: Banks, runs: SimulatedRuns) -> KeptBank | None:
    """The old bank in a rig.

    Args:
        now: the plan's banks, with what the old bank shows today.
        after: the banks of the rig as it is then.
        runs: simulates the rig as it is then.

    Returns:
        None where there is none, where it is dangerous or not to be kept, where nobody knows its health, or
        where no year can be run.
    """
    limits, diagnosis = after.rig_limits, now.diagnosis
    plan, value = limits.plan, limits.assumptions.value
    old, bank = plan.old_bank, old_bank_as_bank(plan)
    if old is None or bank is None or not old.kept or diagnosis is None or diagnosis.danger:
        return None
    if diagnosis.health is None or diagnosis.health.value is None:
        return None
    year = runs.year_of_old(after)
    if year is None:
        return None
    running = float(running_a_year(QuickLifeCost(limits).inputs(bank, year.numbers)))
    years = years_left(old, old_health(diagnosis), limits.assumptions)
    return KeptBank(year, years, running, value(HOUR_OF[plan.labour]), value("discount_rate"))


def years_left(old: OldBank, health: float, assumptions: Assumptions) -> float:
    """How long a bank that is in use still lasts [years].

    It goes on wearing at the pace that brought it from new to its health; without its age, by the years of
    its class.

    Args:
        old: the bank.
        health: its state of health [-].
        assumptions: what holds for the plan.
    """
    lead = old.battery_class.is_lead_acid
    end = assumptions.value("worn_out.lead_acid") if lead else assumptions.value("worn_out_floor.lfp")
    of_class = assumptions.value(f"calendar_years.{old.battery_class.key}")
    pace = (1 - end) / of_class
    if old.age_years and health < 1:
        pace = max(pace / 2, (1 - health) / old.age_years)
    return min(MOST_YEARS, max(LEAST_YEARS, (health - end) / pace))
