"""What would change the answer: at which prices, life, extras, depth and warmth the lifetime costs meet."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import isinf

import numpy as np

from vast_harbor.core.cost.life_cost import AS_PLANNED, LifeCostInputs, Scenario
from vast_harbor.core.cost.monte_carlo import middle_cost
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, escaped
from vast_harbor.core.passage import Results
from vast_harbor.core.sensitivity.runner_up import winner_and_rival
from vast_harbor.core.stops.compare import ComparedBank, uncertainty_of
from vast_harbor.phrases import and_list, phrase

SOURCE = phrase("changes.break_even.middle_of_scenarios")
# Scenarios behind each look: the costs meet within a unit or two of where they do in all of them.
LOOKED_AT = 400
# Of a root: difference of the two costs [money].
WITHIN = 1.0


@dataclass(frozen=True, slots=True)
class BreakEven:
    """Where the two banks cost the same.

    Attributes:
        key, name: what is moved.
        now: its value in the plan.
        at: every value at which they meet, ascending; none where they never do within the range.
        below: id of the bank that is cheaper below the first, or everywhere.
        says: that in a sentence.
    """

    key: str
    name: str
    now: Figure
    at: tuple[Figure, ...]
    below: str
    says: Sentence


def crossings(difference: Callable[[float], float], grid: Sequence[float]) -> list[float]:
    """Every root of a difference of costs on a range, by Brent's method.

    Args:
        difference: cost of one less cost of the other [money].
        grid: points between which a change of sign is looked for, ascending.

    Returns:
        Roots, ascending; where the difference only jumps over nought there is none.
    """
    # Half of the time of a start, and only asked for here.
    from scipy.optimize import brentq

    values = [difference(x) for x in grid]
    roots = []
    for (a, fa), (b, fb) in pairwise(zip(grid, values, strict=True)):
        if fa == 0:
            roots.append(a)
        elif fa * fb < 0:
            x = float(brentq(difference, a, b, xtol=1e-9, rtol=1e-12))
            if abs(difference(x)) < WITHIN:
                roots.append(x)
    return roots


def break_evens(results: Results) -> tuple[BreakEven, ...]:
    """Where the lifetime costs of winner and rival meet: in price, life, extras, depth and temperature.

    At which nights and years the answer changes is the verdict's own: see ``verdict_changes``.

    Args:
        results: the plan in figures.

    Returns:
        One for each; none without a winner and a rival.
    """
    pair = winner_and_rival(results)
    if pair is None:
        return ()
    teller = _BreakEvens(results, *pair)
    return tuple(f for f in teller.all() if f is not None)


def _name(compared: ComparedBank, same_class: bool) -> str:
    """What tells the two apart, safe inside a template."""
    bank = compared.banked.bank
    assert bank is not None
    return escaped(bank.model.title) if same_class else compared.banked.battery_class.short


class _BreakEvens:
    """Moves one thing after the other, and looks where winner and rival cost the same."""

    def __init__(self, results: Results, winner: ComparedBank, rival: ComparedBank) -> None:
        self.results, self.plan = results, results.plan
        self.winner, self.rival = winner, rival
        self.doubt = uncertainty_of(results.assumptions)
        by_id = {p.id: p for p in results.verdict.life_cost_inputs}
        self.a, self.b = by_id[winner.id], by_id[rival.id]
        lead = winner.banked.battery_class.is_lead_acid
        both = lead == rival.banked.battery_class.is_lead_acid
        self.lfp = None if both and lead else rival if lead else winner
        self.lead = None if both and not lead else winner if lead else rival
        same = winner.banked.battery_class.key == rival.banked.battery_class.key
        self.names = {c.id: _name(c, same) for c in (winner, rival)}

    def all(self) -> list[BreakEven | None]:
        return [self.price(), self.life(), self.extras(), *self.depths(), self.temperature()]

    def difference(
        self, a: LifeCostInputs, b: LifeCostInputs, change_a: Scenario, change_b: Scenario
    ) -> float:
        """Lifetime cost of one less that of the other, each the middle of the scenarios [money]."""
        years = self.plan.years_kept
        one = middle_cost(a, self.doubt, years, change_a, LOOKED_AT)
        return one - middle_cost(b, self.doubt, years, change_b, LOOKED_AT)

    def _moved(self, compared: ComparedBank, moved: Scenario) -> tuple[Scenario, Scenario]:
        return (moved, AS_PLANNED) if compared is self.winner else (AS_PLANNED, moved)

    def _factor(
        self,
        key: str,
        name: str,
        compared: ComparedBank,
        base: float,
        unit: str,
        make: Callable[[float], Scenario],
        grid: Sequence[float],
    ) -> BreakEven:
        def gap(x: float) -> float:
            changes = self._moved(compared, make(x / base))
            return self.difference(self.a, self.b, *changes)

        return self._flip(key, name, base, unit, gap, [base * g for g in grid])

    def price(self) -> BreakEven | None:
        compared = self.lfp
        if compared is None or not compared.banked["purchase"].number:
            return None
        base = compared.banked["purchase"].number
        return self._factor(
            "price",
            phrase("changes.break_even.price", names=self.names[compared.id]),
            compared,
            base,
            "money",
            lambda x: Scenario(price=x),
            [*np.linspace(0.05, 4, 20)],
        )

    def life(self) -> BreakEven | None:
        compared = self.lead
        if compared is None or isinf(compared.life.years):
            return None
        base = compared.life.years
        return self._factor(
            "life",
            phrase("changes.break_even.life", names=self.names[compared.id]),
            compared,
            base,
            "years",
            lambda x: Scenario(lasts=x),
            [*np.linspace(0.2, 4, 20)],
        )

    def extras(self) -> BreakEven | None:
        compared = max((self.winner, self.rival), key=lambda c: c.cost["extra_cost"].number)
        base = compared.cost["extra_cost"].number
        if base <= 0:
            return None
        return self._factor(
            "extras",
            phrase("changes.break_even.extras", names=self.names[compared.id]),
            compared,
            base,
            "money",
            lambda x: Scenario(extras=x),
            [*np.linspace(0, 8, 17)],
        )

    def depths(self) -> list[BreakEven]:
        return [self._depth(c) for c in (self.lead, self.lfp) if c is not None]

    def _depth(self, compared: ComparedBank) -> BreakEven:
        now = compared.banked["dod"].number
        inputs = self.a if compared is self.winner else self.b

        def gap(x: float) -> float:
            sized = inputs.scaled(now / x, x / now)
            a, b = (sized, self.b) if compared is self.winner else (self.a, sized)
            return self.difference(a, b, AS_PLANNED, AS_PLANNED)

        return self._flip(
            f"depth_{'lead' if compared is self.lead else 'lfp'}",
            phrase("changes.break_even.usable_depth", names=self.names[compared.id]),
            now,
            "%",
            gap,
            [*np.linspace(0.2, 1, 17)],
        )

    def temperature(self) -> BreakEven:
        now = self.results.need.day.battery_c.number

        def gap(x: float) -> float:
            warmer = Scenario(warmer=x - now)
            return self.difference(self.a, self.b, warmer, warmer)

        return self._flip("temperature", phrase("changes.break_even.temperature"), now, "°C", gap,
                          [*np.linspace(now - 15, now + 30, 16)])  # fmt: skip

    def _flip(
        self, key: str, name: str, now: float, unit: str, gap: Callable[[float], float], grid: Sequence[float]
    ) -> BreakEven:
        at = f"verdict.flip.{key}"
        roots = crossings(gap, grid)
        figures = tuple(
            Figure(
                f"{at}.{i}",
                phrase("changes.break_even.equal_cost", name=name),
                x,
                unit,
                REFERENCE,
                source=SOURCE,
                note=phrase("changes.break_even.found_brents_method_both"),
            )
            for i, x in enumerate(roots)
        )
        low = self.winner if gap(grid[0]) <= 0 else self.rival
        other = self.rival if low is self.winner else self.winner
        here = Figure(f"{at}.now", name, now, unit, REFERENCE, source=phrase("changes.break_even.now_source"))
        ends = {
            "least": Figure(
                f"{at}.least",
                name,
                grid[0],
                unit,
                REFERENCE,
                source=phrase("changes.break_even.least_source"),
            ),
            "most": Figure(
                f"{at}.most", name, grid[-1], unit, REFERENCE, source=phrase("changes.break_even.most_source")
            ),
        }
        if not figures:
            says = Sentence(
                phrase("changes.break_even.costs_less", name=name, names=self.names[low.id]), ends
            )
        elif len(figures) == 1:
            says = Sentence(
                phrase(
                    "changes.break_even.below_costs_less_above",
                    name=name,
                    names=self.names[low.id],
                    names_2=self.names[other.id],
                ),
                {"x": figures[0]},
            )
        else:
            words = and_list(f"{{x{i}}}" for i in range(len(figures)))
            says = Sentence(
                phrase(
                    "changes.break_even.cost_same_below_first",
                    name=name,
                    words=words,
                    names=self.names[low.id],
                ),
                {f"x{i}": f for i, f in enumerate(figures)},
            )
        return BreakEven(key, name, here, figures, low.id, says)
