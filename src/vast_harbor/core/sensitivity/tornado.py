"""How far each assumption over its range moves what the winner saves."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import partial
from typing import NamedTuple

from vast_harbor.core.cost.life_cost import AS_PLANNED, LifeCostInputs, Scenario
from vast_harbor.core.cost.monte_carlo import middle_cost
from vast_harbor.core.figures.workings import REFERENCE, Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.sensitivity.runner_up import winner_and_rival
from vast_harbor.core.stops.compare import ComparedBank, uncertainty_of
from vast_harbor.phrases import phrase

MOST_YEARS = 40.0


def _factor(key: str, x: float) -> Scenario:
    """A change of price, cycles or calendar life by a factor."""
    return {"price": Scenario(price=x), "cycles": Scenario(cycles=x), "calendar": Scenario(calendar=x)}[key]


def _set(p: LifeCostInputs, key: str, x: float) -> LifeCostInputs:
    """A bank with another share at the end, or another discount rate."""
    return replace(p, exit_share=x) if key == "exit_share" else replace(p, discount=x)


@dataclass(frozen=True, slots=True)
class Swing:
    """How far one assumption over its range moves the saving of the winner.

    Attributes:
        key, name: which.
        low, high: what it is at the ends of its range.
        at_low, at_high: saving against the rival there [money].
        changes_winner: whether the rival is cheaper at either end.
    """

    key: str
    name: str
    low: Figure
    high: Figure
    at_low: Figure
    at_high: Figure
    changes_winner: bool


@dataclass(frozen=True, slots=True)
class Tornado:
    """What moves the saving, the most first.

    Attributes:
        winner, rival: ids.
        saving: as planned [money].
        swings: one for each assumption.
    """

    winner: str
    rival: str
    saving: Figure
    swings: tuple[Swing, ...]


class _Range(NamedTuple):
    """An assumption over its range: its key, name and unit, its ends, and what is saved at each [money]."""

    key: str
    name: str
    unit: str
    ends: tuple[float, float]
    saved: tuple[float, float]


def tornado(results: Results) -> Tornado | None:
    """How far each assumption over its range moves what the winner saves; None without a rival."""
    pair = winner_and_rival(results)
    if pair is None:
        return None
    duel = _Duel(results, *pair)
    base = duel.saving(AS_PLANNED, AS_PLANNED)
    swings = [
        _swing(one, base)
        for one in duel.ranges()
        if max(abs(v - base) for v in one.saved) >= 0.5 and one.ends[0] != one.ends[1]
    ]
    swings.sort(key=lambda s: -abs(s.at_high.number - s.at_low.number))
    saved = Figure("verdict.swing.base", phrase("changes.tornado.base"), base, "money", REFERENCE,
                  source=phrase("changes.tornado.base_source"))  # fmt: skip
    return Tornado(duel.winner.id, duel.rival.id, saved, tuple(swings))


def _swing(one: _Range, base: float) -> Swing:
    at, source = f"verdict.swing.{one.key}", phrase("changes.tornado.lifetime_cost_runner_up")
    (low, high), (at_low, at_high) = (
        [Figure(f"{at}.{start}{k}", name, x, unit, REFERENCE, source=says)
         for k, x in zip(("low", "high"), numbers, strict=True)]
        for start, name, unit, says, numbers in (
            ("", one.name, one.unit, phrase("changes.tornado.end_range"), one.ends),
            ("at_", phrase("changes.tornado.saving_end", name=one.name.lower()), "money", source, one.saved),
        )
    )  # fmt: skip
    return Swing(one.key, one.name, low, high, at_low, at_high, min(one.saved) < 0 <= base)


class _Duel:
    """The winner and its rival, each in numbers, and the doubt about both."""

    def __init__(self, results: Results, winner: ComparedBank, rival: ComparedBank) -> None:
        numbers = {p.id: p for p in results.verdict.life_cost_inputs}
        self.results, self.winner, self.rival = results, winner, rival
        self.a, self.b = numbers[winner.id], numbers[rival.id]
        self.doubt, self.years = uncertainty_of(results.assumptions), results.plan.years_kept

    def saving(
        self,
        ours: Scenario,
        theirs: Scenario,
        years: float | None = None,
        change: Callable[[LifeCostInputs], LifeCostInputs] = lambda inputs: inputs,
    ) -> float:
        """What the winner saves when each meets a scenario, and both are changed in one thing [money]."""
        h = self.years if years is None else years
        dear, cheap = (
            middle_cost(change(p), self.doubt, h, scenario)
            for p, scenario in ((self.b, theirs), (self.a, ours))
        )
        return dear - cheap

    def ranges(self) -> Iterator[_Range]:
        """Every assumption over its range."""
        yield from self._of_one(self.winner, self.a, lambda changed: self.saving(changed, AS_PLANNED))
        yield from self._of_one(self.rival, self.b, lambda changed: self.saving(AS_PLANNED, changed))
        yield from self._of_use()
        yield from self._of_prices()
        if self.a.lead or self.b.lead:
            yield self._of_accidents()

    def _of_one(
        self, compared: ComparedBank, p: LifeCostInputs, saving: Callable[[Scenario], float]
    ) -> Iterator[_Range]:
        name = compared.title
        for key, words, ends, scale, unit in (
            ("price", phrase("changes.tornado.price"), p.price, compared.banked["purchase"].number, "money"),
            ("cycles", phrase("changes.tornado.cycle_life"), p.cycles,
             compared.life["design_cycles"].number, "cycles"),
            ("calendar", phrase("changes.tornado.calendar_life"), p.calendar, float(p.years_25), "years"),
        ):  # fmt: skip
            yield _Range(
                f"{key}.{compared.id}", f"{words} of {name}", unit, (ends[0] * scale, ends[1] * scale),
                (saving(_factor(key, ends[0])), saving(_factor(key, ends[1]))),
            )  # fmt: skip
        if (extras := float(p.extras)) > 0:
            yield _Range(
                f"extras.{compared.id}", phrase("changes.tornado.extras_labour", name=name), "money",
                (extras * 0.5, extras * 1.5), (saving(Scenario(extras=0.5)), saving(Scenario(extras=1.5))),
            )  # fmt: skip

    def _of_use(self) -> Iterator[_Range]:
        plan, h, warm = self.results.plan, self.years, (-self.doubt.warmer, self.doubt.warmer)
        nights = (max(1.0, plan.off_grid_nights * 0.5), min(365.0, plan.off_grid_nights * 1.5))
        years = (max(1.0, h * 0.5), min(MOST_YEARS, h * 1.5))
        here = self.results.need.day.battery_c.number
        yield _Range("use", phrase("changes.tornado.use"), "%", self.doubt.use,
                     self._both(lambda x: Scenario(use=x), self.doubt.use))  # fmt: skip
        yield _Range("nights", phrase("terms.names.nights_off_grid_year"), "nights", nights,
                     self._both(lambda x: Scenario(nights=x), nights))  # fmt: skip
        yield _Range(
            "years", phrase("terms.names.years_keep_rig"), "years", years,
            (self.saving(AS_PLANNED, AS_PLANNED, years[0]), self.saving(AS_PLANNED, AS_PLANNED, years[1])),
        )  # fmt: skip
        yield _Range("temperature", phrase("changes.tornado.temperature"), "°C",
                     (here + warm[0], here + warm[1]),
                     self._both(lambda x: Scenario(warmer=x), warm))  # fmt: skip

    def _of_prices(self) -> Iterator[_Range]:
        doubt, tariff = self.doubt, self.doubt.tariff
        for key, name, drift, lead in (
            ("drift.lead_acid", phrase("changes.tornado.yearly_change_lead_acid"), doubt.drift_lead, True),
            ("drift.lfp", phrase("changes.tornado.yearly_change_lfp_prices"), doubt.drift_lfp, False),
        ):
            low, high = (
                self.saving(
                    Scenario(drift=x * (self.a.lead == lead)), Scenario(drift=x * (self.b.lead == lead))
                )
                for x in (drift[0] - drift[1], drift[2] - drift[1])
            )
            yield _Range(key, name, "1/year", (drift[0], drift[2]), (low, high))
        yield _Range("tariff", phrase("changes.tornado.tariff"), "money/kWh",
                     (tariff[0] * self.a.tariff, tariff[1] * self.a.tariff),
                     self._both(lambda x: Scenario(tariff=x), tariff))  # fmt: skip
        for key, name, unit, ends in (
            ("exit_share", phrase("changes.tornado.resale_value_unused_life"), "%", (0.0, 0.5)),
            ("discount", phrase("changes.tornado.discount_rate"), "1/year", (0.0, 0.06)),
        ):
            low, high = (
                self.saving(AS_PLANNED, AS_PLANNED, change=partial(_set, key=key, x=x)) for x in ends
            )
            yield _Range(key, name, unit, ends, (low, high))

    def _of_accidents(self) -> _Range:
        expected = self.results.assumptions.get("accidents_per_year")
        each, ends = (
            self.results.assumptions.value("wear_per_accident"),
            (expected.low or 0.0, expected.high or 0.0),
        )

        def saving(n: float) -> float:
            return self.saving(
                AS_PLANNED, AS_PLANNED, change=lambda p: replace(p, accidents=n * each) if p.lead else p
            )

        return _Range("accidents", phrase("changes.tornado.accidents"), "times", ends,
                      (saving(ends[0]), saving(ends[1])))  # fmt: skip

    def _both(self, make: Callable[[float], Scenario], ends: tuple[float, float]) -> tuple[float, float]:
        low, high = (self.saving(make(x), make(x)) for x in ends)
        return low, high
