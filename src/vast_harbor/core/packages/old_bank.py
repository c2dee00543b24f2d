"""The old bank kept: how it would do in a rig, how long it lasts, and what keeping it costs."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import inf

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.ageing import MOST_GAP, wear_at_health
from vast_harbor.core.cost.cash_flow import annuity
from vast_harbor.core.cost.life_cost import (
    LifeCostInputs,
    Scenario,
    lifetime,
    running_a_year,
    years_until_worn,
)
from vast_harbor.core.cost.monte_carlo import Uncertainty, sampled_scenarios
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import HOUR_OF, OldBank
from vast_harbor.core.stops.banks import Banks, QuickLifeCost
from vast_harbor.core.stops.compare import uncertainty_of
from vast_harbor.core.stops.rig import Diagnosis, old_health
from vast_harbor.core.stops.trial import SimulatedRuns, YearOf, old_bank_as_bank

# A bank is not counted on for less than this, nor for longer than the others: lead-acid, LFP [years].
LEAST_YEARS, MOST_YEARS = 0.5, {True: 8.0, False: 15.0}


@dataclass(frozen=True, slots=True)
class Beside:
    """What is done beside a bank that is kept, in money.

    Attributes:
        once: on the day, labour and contingency included [money].
        yearly: a year from then on [money].
        wanted: on the day, for what the owner wants whatever the bank; charged to none [money].
        again: (price, life) of what is bought again after its life [money], [years].
        kept: (price, life, share) of what fetches this share of its unused life at the end [money], [years],
            [-].
    """

    once: float
    yearly: float
    wanted: float
    again: tuple[tuple[float, float], ...] = ()
    kept: tuple[tuple[float, float, float], ...] = ()

    def alone(self, like: LifeCostInputs) -> LifeCostInputs:
        """It as a bank that costs nothing, in the money of a bank beside it."""
        return replace(
            like, batteries=0.0, old_bank=0.0, swap=0.0, refit=0.0, lost_kwh=0.0, fuel=0.0, elsewhere=0.0,
            extras=self.once, maintenance=self.yearly, again=self.again, kept=self.kept,
        )  # fmt: skip

    def left_out(self, inputs: LifeCostInputs) -> LifeCostInputs:
        """A bank to which it is charged, without it."""
        return replace(
            inputs,
            extras=np.maximum(0.0, inputs.extras - self.once),
            maintenance=inputs.maintenance - self.yearly,
            again=tuple(one for one in inputs.again if one not in self.again),
            kept=tuple(one for one in inputs.kept if one not in self.kept),
        )


@dataclass(frozen=True)
class KeptBank:
    """The old bank in a rig.

    Attributes:
        year: its simulated year at the health that it has today.
        inputs: the bank in the rig, in numbers, with the wear that it has today.
        most_years: for longer it is not counted on, whatever its pace [years].
        pace_years: how long it would last at the pace of its past [years]; no limit where that is not known.
        uncertainty: of the draws.
        hour: price of an hour of work [money].
        discount: r [1/year].
    """

    year: YearOf
    inputs: LifeCostInputs
    most_years: float
    pace_years: float
    uncertainty: Uncertainty
    hour: float
    discount: float

    @cached_property
    def scenario(self) -> Scenario:
        """The draws of the old bank."""
        return sampled_scenarios((self.inputs,), self.uncertainty)[0]

    @cached_property
    def lasts(self) -> Floats:
        """How long it still lasts in every draw [years], shape (draws,).

        It wears as a new one of its kind would in this rig: by cycles, heat and neglect. Where it has worn
        faster than that so far, it goes on at that pace.
        """
        by_year = years_until_worn(self.inputs, self.scenario)
        by_year = np.broadcast_to(by_year, np.shape(self.scenario.calendar)).astype(float)
        middle = float(np.median(by_year))
        slower = min(1.0, self.pace_years / middle) if middle > 0 else 1.0
        return np.clip(by_year * slower, LEAST_YEARS, self.most_years)

    @property
    def years(self) -> float:
        """The middle of that [years]."""
        return float(np.median(self.lasts))

    def beside(
        self, improvements: Sequence[Improvement], prices: Sequence[float], contingency: float
    ) -> Beside:
        """What improvements cost.

        Args:
            improvements: what is done.
            prices: the likely price of each [money].
            contingency: share of parts and labour that is put aside [-].
        """
        charged = [(one, price) for one, price in zip(improvements, prices, strict=True) if not one.wanted]
        parts = sum(price for _, price in charged)
        hours = sum(one.hours for one, _ in charged)
        return Beside(
            once=(1 + contingency) * (parts + hours * self.hour),
            yearly=sum(one.yearly for one, _ in charged),
            wanted=sum(prices) - parts,
            again=tuple((price, one.kind.life_years) for one, price in charged),
            kept=tuple((price, one.kind.life_years, one.kind.kept) for one, price in charged),
        )

    def cost(self, beside: Beside, later: LifeCostInputs, years: float) -> tuple[float, float]:
        """What keeping it costs: until it is worn out, and with what is bought then.

        Args:
            beside: what is done beside it.
            later: the bank that is bought then, in numbers.
            years: H, of keeping the rig [years].

        Returns:
            P50 and P90 [money].
        """
        stays = np.minimum(self.lasts, years)
        running = np.asarray(running_a_year(self.inputs, self.scenario))
        costs = running * annuity(stays, self.discount)
        # What stands beside the bank is bought now, and not once more with the new one.
        alone, new = beside.alone(later), beside.left_out(later)
        of_beside, of_new = sampled_scenarios((alone, new), self.uncertainty)
        costs = costs + lifetime(alone, of_beside, years)
        left = years - stays
        if left.any():
            then = lifetime(new, of_new, np.maximum(left, LEAST_YEARS / 10))
            costs = costs + np.where(left > 0, (1 + self.discount) ** -stays * then, 0.0)
        middle, dear = np.percentile(costs, (50, 90))
        return float(middle), float(dear)


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
    if old.joined and not may_be_joined(diagnosis):
        return None
    year = runs.year_of_old(after)
    if year is None:
        return None
    lead, health = old.battery_class.is_lead_acid, old_health(diagnosis)
    inputs = QuickLifeCost(limits).inputs(bank, year.numbers)
    inputs = replace(
        inputs,
        start_wear=float(wear_at_health(health, lead)),
        most_years=max(LEAST_YEARS, float(inputs.most_years) - (old.age_years or 0)),
    )
    return KeptBank(
        year, inputs, MOST_YEARS[lead], pace_years(old, health, limits.assumptions),
        uncertainty_of(limits.assumptions), value(HOUR_OF[plan.labour]), value("discount_rate"),
    )  # fmt: skip


def may_be_joined(diagnosis: Diagnosis | None) -> bool:
    """Whether new strings may be joined to the bank that is there: it has lost no more of its health than
    batteries of one bank may differ by.

    Args:
        diagnosis: what it shows; None where there is none.
    """
    if diagnosis is None or diagnosis.danger or diagnosis.health is None or diagnosis.health.value is None:
        return False
    return old_health(diagnosis) >= 1 - MOST_GAP - 1e-9


def pace_years(old: OldBank, health: float, assumptions: Assumptions) -> float:
    """How long a bank that is in use still lasts at the pace that brought it from new to its health [years].

    Args:
        old: the bank.
        health: its state of health [-].
        assumptions: what holds for the plan.

    Returns:
        No limit where its age is not known, or where it shows no wear.
    """
    lead = old.battery_class.is_lead_acid
    end = assumptions.value("worn_out.lead_acid") if lead else assumptions.value("worn_out_floor.lfp")
    if not old.age_years or health >= 1:
        return inf
    return (health - end) * old.age_years / (1 - health)
