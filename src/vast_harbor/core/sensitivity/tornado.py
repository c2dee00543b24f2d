"""How far each assumption over its range moves what the winner saves."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from vast_harbor.core.cost.life_cost import AS_PLANNED, LifeCostInputs, Scenario
from vast_harbor.core.cost.monte_carlo import middle_cost
from vast_harbor.core.figures.workings import REFERENCE, Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.sensitivity.runner_up import winner_and_rival
from vast_harbor.core.stops.compare import uncertainty_of
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


def tornado(results: Results) -> Tornado | None:
    """How far each assumption over its range moves what the winner saves; None without a rival."""
    pair = winner_and_rival(results)
    if pair is None:
        return None
    winner, rival = pair
    by_id = {p.id: p for p in results.verdict.life_cost_inputs}
    a, b, plan = by_id[winner.id], by_id[rival.id], results.plan
    doubt = uncertainty_of(results.assumptions)
    h = plan.years_kept

    def saving(one: LifeCostInputs, other: LifeCostInputs, ca: Scenario, cb: Scenario, years: float) -> float:
        return middle_cost(other, doubt, years, cb) - middle_cost(one, doubt, years, ca)

    base = saving(a, b, AS_PLANNED, AS_PLANNED, h)
    swings = []

    def swing(key: str, name: str, unit: str, ends: tuple[float, float], values: tuple[float, float]) -> None:
        if max(abs(v - base) for v in values) < 0.5 or ends[0] == ends[1]:
            return
        at = f"verdict.swing.{key}"
        at_ends = [Figure(f"{at}.{k}", name, x, unit, REFERENCE, source=phrase("changes.tornado.end_range"))
                for k, x in zip(("low", "high"), ends, strict=True)]  # fmt: skip
        money = [
            Figure(
                f"{at}.at_{k}",
                phrase("changes.tornado.saving_end", name=name.lower()),
                v,
                "money",
                REFERENCE,
                source=phrase("changes.tornado.lifetime_cost_runner_up"),
            )
            for k, v in zip(("low", "high"), values, strict=True)
        ]
        swings.append(Swing(key, name, at_ends[0], at_ends[1], money[0], money[1], min(values) < 0 <= base))

    def common(make: Callable[[float], Scenario], ends: tuple[float, float]) -> tuple[float, float]:
        low, high = (saving(a, b, make(x), make(x), h) for x in ends)
        return low, high

    for compared, p, mine in ((winner, a, True), (rival, b, False)):
        name = compared.title
        base_of: tuple[tuple[str, str, tuple[float, float], float, str], ...] = (
            ("price", phrase("changes.tornado.price"), p.price, compared.banked["purchase"].number, "money"),
            (
                "cycles",
                phrase("changes.tornado.cycle_life"),
                p.cycles,
                compared.life["design_cycles"].number,
                "cycles",
            ),
            ("calendar", phrase("changes.tornado.calendar_life"), p.calendar, float(p.years_25), "years"),
        )
        for key, words, ends, scale, unit in base_of:
            changes = [_factor(key, x) for x in ends]
            values = tuple(
                saving(a, b, c if mine else AS_PLANNED, AS_PLANNED if mine else c, h) for c in changes
            )
            swing(f"{key}.{compared.id}", f"{words} of {name}", unit, (ends[0] * scale, ends[1] * scale),
                  (values[0], values[1]))  # fmt: skip
        extras = float(p.extras)
        if extras > 0:
            values = tuple(
                saving(a, b, *((c, AS_PLANNED) if mine else (AS_PLANNED, c)), h)
                for c in (Scenario(extras=0.5), Scenario(extras=1.5))
            )
            swing(f"extras.{compared.id}", phrase("changes.tornado.extras_labour", name=name), "money",
                  (extras * 0.5, extras * 1.5), (values[0], values[1]))  # fmt: skip
    swing("use", phrase("changes.tornado.use"), "%", doubt.use, common(lambda x: Scenario(use=x), doubt.use))
    nights = (max(1.0, plan.off_grid_nights * 0.5), min(365.0, plan.off_grid_nights * 1.5))
    swing(
        "nights",
        phrase("terms.names.nights_off_grid_year"),
        "nights",
        nights,
        common(lambda x: Scenario(nights=x), nights),
    )
    years = (max(1.0, h * 0.5), min(MOST_YEARS, h * 1.5))
    swing(
        "years",
        phrase("terms.names.years_keep_rig"),
        "years",
        years,
        (saving(a, b, AS_PLANNED, AS_PLANNED, years[0]), saving(a, b, AS_PLANNED, AS_PLANNED, years[1])),
    )
    for key, name, drift, lead in (
        ("drift.lead_acid", phrase("changes.tornado.yearly_change_lead_acid"), doubt.drift_lead, True),
        ("drift.lfp", phrase("changes.tornado.yearly_change_lfp_prices"), doubt.drift_lfp, False),
    ):
        values = tuple(
            saving(a, b, Scenario(drift=x * (a.lead == lead)), Scenario(drift=x * (b.lead == lead)), h)
            for x in (drift[0] - drift[1], drift[2] - drift[1])
        )
        swing(key, name, "1/year", (drift[0], drift[2]), (values[0], values[1]))
    warm = (-doubt.warmer, doubt.warmer)
    here = results.need.day.battery_c.number
    swing(
        "temperature",
        phrase("changes.tornado.temperature"),
        "°C",
        (here + warm[0], here + warm[1]),
        common(lambda x: Scenario(warmer=x), warm),
    )
    tariff = doubt.tariff
    swing(
        "tariff",
        phrase("changes.tornado.tariff"),
        "money/kWh",
        (tariff[0] * a.tariff, tariff[1] * a.tariff),
        common(lambda x: Scenario(tariff=x), tariff),
    )
    for key, name, unit, ends in (
        ("exit_share", phrase("changes.tornado.resale_value_unused_life"), "%", (0.0, 0.5)),
        ("discount", phrase("changes.tornado.discount_rate"), "1/year", (0.0, 0.06)),
    ):
        values = tuple(saving(_set(a, key, x), _set(b, key, x), AS_PLANNED, AS_PLANNED, h) for x in ends)
        swing(key, name, unit, ends, (values[0], values[1]))
    if a.lead or b.lead:
        expected = results.assumptions.get("accidents_per_year")
        low, high = expected.low or 0.0, expected.high or 0.0
        each = results.assumptions.value("wear_per_accident")

        def suffering(n: float) -> float:
            one, other = (replace(p, accidents=n * each) if p.lead else p for p in (a, b))
            return saving(one, other, AS_PLANNED, AS_PLANNED, h)

        values = suffering(low), suffering(high)
        swing("accidents", phrase("changes.tornado.accidents"), "times", (low, high), (values[0], values[1]))
    swings.sort(key=lambda s: -abs(s.at_high.number - s.at_low.number))
    saved = Figure("verdict.swing.base", phrase("changes.tornado.base"), base, "money", REFERENCE,
                  source=phrase("changes.tornado.base_source"))  # fmt: skip
    return Tornado(winner.id, rival.id, saved, tuple(swings))
