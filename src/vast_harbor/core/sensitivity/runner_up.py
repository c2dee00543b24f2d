"""The two banks between which the answer lies, at any number of nights a year."""

from dataclasses import dataclass, field, replace

from vast_harbor.core.cost.life_cost import LifeCostInputs, Scenario
from vast_harbor.core.cost.monte_carlo import middle_cost
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.schedule.year_calendar import YearCalendar
from vast_harbor.core.stops.compare import ComparedBank, uncertainty_of


def winner_and_rival(results: Results) -> tuple[ComparedBank, ComparedBank] | None:
    """The winner and the bank that it is compared with; None without both.

    The rival is the best of the other family that will do; else the runner-up; else the cheapest of the rest.
    """
    verdict = results.verdict
    winner = verdict.winner
    if winner is None:
        return None
    lead = winner.banked.battery_class.is_lead_acid
    suitable = [c for c in verdict.suitable if c is not winner]
    other = [c for c in suitable if c.banked.battery_class.is_lead_acid != lead]
    if other:
        return winner, max(other, key=lambda c: verdict.shares[c.id].number)
    return (winner, verdict.runner_up) if verdict.runner_up is not None else None


@dataclass(frozen=True)
class AtNights:
    """The candidates in numbers for any number of nights a year.

    A simulated year is scaled by the nights as long as stays are as far apart. Where that changes, another
    year is simulated, in one weather: a few of them serve for all.

    Attributes:
        results: the plan in figures.
        reference: shipped data.
    """

    results: Results
    reference: Reference
    _runs: dict[float, dict[str, LifeCostInputs]] = field(default_factory=dict)

    def spacing(self, nights: float) -> float:
        """Days between two stays, as one of a few [days]."""
        return self._calendar(nights).spacing

    def _calendar(self, nights: float) -> YearCalendar:
        return YearCalendar(replace(self.results.plan, off_grid_nights=nights))

    def life_cost_inputs(self, nights: float) -> dict[str, LifeCostInputs]:
        """The candidates by their id, as they are at so many nights."""
        spacing = self.spacing(nights)
        if spacing not in self._runs:
            now = self.results.plan.off_grid_nights
            if now > 0 and spacing == self.spacing(now):
                made = self.results
            else:
                there = self._calendar(max(1.0, nights)).nights_at(spacing)
                made = self.results.roughly_at(replace(self.results.plan, off_grid_nights=there))
            self._runs[spacing] = self._by_id(made)
        return self._runs[spacing]

    def _by_id(self, made: Results) -> dict[str, LifeCostInputs]:
        """Ours in another run: a bank that was found here may there be no better than the candidates."""
        inputs = {p.id: p for p in made.verdict.life_cost_inputs}
        missing = {c.id for c in self.results.verdict.compared_banks} - set(inputs)
        if missing:
            inputs |= {c.id: c.cost.inputs for c in made.verdict.find() if c.id in missing}
        return inputs

    def cost(self, id: str, nights: float, years: float) -> float:
        """Lifetime cost of a candidate at so many nights a year, the middle of the scenarios [money]."""
        doubt = uncertainty_of(self.results.assumptions)
        return middle_cost(self.life_cost_inputs(nights)[id], doubt, years, Scenario(nights=nights))
