"""When to buy and how much at once: now, later, over a bridge, or in steps."""

from dataclasses import dataclass, replace

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.life_cost import costs_of
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, escaped
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks import NEED, layouts, quick_life_cost
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.phrases import phrase

RUN_ON_YEARS = (1, 2, 3)
# A bridge is thrown away after so long at the latest.
LONGEST_BRIDGE = 3.0
SOURCE = phrase("changes.purchase_timing.payments_present_value_over")


@dataclass(frozen=True, slots=True)
class PurchaseOption:
    """One way to go about it.

    Attributes:
        key, name: which.
        says: what it gives and what it leaves open.
        lifetime: cost over the years of keeping [money].
        more: against buying all now [money]; negative where it is cheaper.
        cash: on the day [money].
        works: whether the nights between two charges are carried meanwhile.
    """

    key: str
    name: str
    says: Sentence
    lifetime: Figure
    more: Figure
    cash: Figure
    works: bool


def purchase_options(results: Results, reference: Reference) -> tuple[PurchaseOption, ...]:
    """The ways to come by the bank that the verdict recommends; none where it recommends none.

    Args:
        results: the plan in figures.
        reference: shipped data.

    Returns:
        Buying all now first.
    """
    winner = results.verdict.winner
    if winner is None:
        return ()
    teller = _PurchaseOptions(results, reference, winner)
    running = teller.run_on()
    wait = None if running else teller.wait()
    made = [teller.now(), *running, teller.bridge(), wait, teller.steps()]
    return tuple(o for o in made if o is not None)


class _PurchaseOptions:
    """The options of one bank."""

    def __init__(self, results: Results, reference: Reference, winner: ComparedBank) -> None:
        self.results, self.plan, self.winner = results, results.plan, winner
        self.reference = reference
        inputs = winner.cost.inputs
        self.costs, self.life = costs_of(inputs), winner.life.years
        self.batteries, self.drift = float(inputs.batteries), float(inputs.drift)
        self.base, self.doubt = winner.cost["lifetime_planned"].number, winner.cost["doubt"].number

    def _figure(self, key: str, what: str, name: str, value: float) -> Figure:
        return Figure(f"verdict.when.{key}.{what}", name, value, "money", REFERENCE, source=SOURCE)

    def _option(
        self, key: str, name: str, says: Sentence, lifetime: float, cash: float, works: bool = True
    ) -> PurchaseOption:
        return PurchaseOption(
            key,
            name,
            says,
            self._figure(
                key,
                "lifetime",
                phrase("changes.purchase_timing.over_years_keep_rig", name=name),
                lifetime + self.doubt,
            ),
            self._figure(
                key,
                "more",
                phrase("changes.purchase_timing.compared_buying_now", name=name),
                lifetime - self.base,
            ),
            self._figure(key, "cash", phrase("changes.purchase_timing.up_front_cost", name=name), cash),
            works,
        )

    def later(self, years: float) -> float:
        """Cost of the bank bought so much later, the years of keeping ending as they do [money]."""
        left = self.plan.years_kept - years
        if left <= 0:
            return 0.0
        costs = replace(self.costs, batteries=cash_flow.price_at(self.batteries, self.drift, years))
        total = float(cash_flow.lifetime_cost(costs, self.life, left))
        return total * float((1 + self.costs.discount) ** -years)

    def lost(self, years: float) -> float:
        """What the nights cost that are lost while the old bank, or none, has to do [money]."""
        carries, wanted = self.results.banks.old_carries, self.results.need.nights.number
        has = carries["nights"].value if carries and self.plan.old_bank is not None else None
        share = 1.0 if self.results.verdict.danger else max(0.0, 1 - (has or 0.0) / wanted)
        each = self.results.assumptions.value("night_elsewhere")
        return share * self.plan.off_grid_nights * each * years

    def now(self) -> PurchaseOption:
        says = Sentence(phrase("changes.purchase_timing.once", title=self.winner.title))
        return self._option(
            "now", phrase("changes.purchase_timing.now"), says, self.base, self.winner.cost["outlay"].number
        )

    def run_on(self) -> list[PurchaseOption]:
        """The old bank for some years more, as long as it carries a night at all."""
        carries, out = self.results.banks.old_carries, []
        if self.plan.old_bank is None or not carries or carries["nights"].value is None:
            return []
        nights, soh = carries["nights"], carries["soh"]
        for k in RUN_ON_YEARS:
            if k >= self.plan.years_kept:
                break
            years = Figure(
                f"verdict.when.run_on_{k}.years",
                phrase("changes.purchase_timing.years_old_bank"),
                float(k),
                "years",
                REFERENCE,
                source=phrase("changes.purchase_timing.years_source"),
            )
            wanted = self.results.need.nights.number
            enough = nights.number >= wanted and not self.results.verdict.danger
            warns = phrase("changes.purchase_timing.dangerous") if self.results.verdict.danger else (
                "" if enough else phrase("changes.purchase_timing.need_hook_up_often")
            )  # fmt: skip
            grow = phrase("changes.purchase_timing.meanwhile_batteries_become_prices", grow=self._grow())
            figures = {"k": years, "soh": soh, "nights": nights, "wanted": self.results.need.nights,
                       "x": self._change(k)}  # fmt: skip
            says = Sentence(
                phrase("changes.purchase_timing.old_bank_rated_capacity", warns=warns, grow=grow), figures
            )
            if k > RUN_ON_YEARS[0]:
                says = Sentence(phrase("changes.purchase_timing.same", grow=grow), figures)
            out.append(
                self._option(
                    f"run_on_{k}",
                    phrase("changes.purchase_timing.run_on", count=k),
                    says,
                    self.later(k) + self.lost(k),
                    0.0,
                    enough,
                )
            )
        return out

    def _grow(self) -> str:
        return "cheaper" if self.drift < 0 else "dearer"

    def _change(self, years: float) -> Figure:
        then = float(cash_flow.price_at(self.batteries, self.drift, years))
        return Figure(
            f"verdict.when.change.{years:g}",
            phrase("changes.purchase_timing.price_change_until_then"),
            abs(then - self.batteries),
            "money",
            REFERENCE,
            source=phrase("changes.purchase_timing.p_1_drift_t"),
        )

    def bridge(self) -> PurchaseOption | None:
        """The cheapest new battery that carries one night, until it is worn, then the bank."""
        plan, found = (
            self.plan,
            quick_life_cost(self.plan, self.reference, self.results.assumptions, self.results.days),
        )
        night = self.results.day.bank_wh.number
        best: tuple[float, Bank] | None = None
        for model in plan.models.values():
            if model.used is not None or not model.battery_class.is_lead_acid:
                continue
            for bank in layouts(model, plan.system_v):
                if found.rig_limits.usable_wh(bank) < night:
                    continue
                reasons = set(found.rig_limits.against(bank)) - {NEED}
                price = found.purchase(bank)
                if not reasons and (best is None or price < best[0]):
                    best = price, bank
        if best is None or best[0] >= self.batteries:
            return None
        price, bank = best
        years = min(found.years(bank), LONGEST_BRIDGE)
        if years >= plan.years_kept:
            return None
        when = Figure(
            "verdict.when.bridge.years",
            phrase("changes.purchase_timing.until_worn_no_longer"),
            years,
            "years",
            REFERENCE,
            source=phrase("changes.purchase_timing.years_life_three_years_most_source"),
        )
        usable = Figure("verdict.when.bridge.usable", phrase("changes.purchase_timing.usable"),
                        found.rig_limits.usable_wh(bank), "Wh", REFERENCE,
                        source=phrase("changes.purchase_timing.usable_source"))  # fmt: skip
        count = f"{bank.units} × " if bank.units > 1 else ""
        says = Sentence(
            phrase("changes.purchase_timing.gives_night_then_buy", count=escaped(count + bank.model.title)),
            {"t": when, "usable": usable},
        )
        total = price - float(self.costs.old_bank) + self.later(years)
        return self._option("bridge", phrase("changes.purchase_timing.bridge"), says, total, price, False)

    def wait(self) -> PurchaseOption | None:
        """What prices do in a year, whatever happens meanwhile."""
        if self.plan.years_kept <= 1:
            return None
        says = Sentence(
            phrase("changes.purchase_timing.year_batteries_become_prices", grow=self._grow()),
            {"x": self._change(1)},
        )
        return self._option(
            "wait", phrase("changes.purchase_timing.wait"), says, self.later(1) + self.lost(1), 0.0, False
        )

    def steps(self) -> PurchaseOption | None:
        """Half of the strings now, the rest in a year; lead-acid may not be mixed in age."""
        bank = self.winner.banked.bank
        assert bank is not None
        if bank.parallel < 2 or self.winner.banked.battery_class.is_lead_acid or self.plan.years_kept <= 1:
            return None
        first = (bank.parallel + 1) // 2
        share = first / bank.parallel
        drifted = float(cash_flow.price_at(self.batteries, self.drift, 1)) * float(
            (1 + self.costs.discount) ** -1
        )
        second = (1 - share) * drifted
        total = self.base - (1 - share) * self.batteries + second
        usable = Figure("verdict.when.steps.usable", phrase("changes.purchase_timing.usable_first_year"),
                        self.winner.banked["usable_wh"].number * share, "Wh", REFERENCE,
                        source=phrase("changes.purchase_timing.usable_by_strings_source"))  # fmt: skip
        says = Sentence(
            phrase("changes.purchase_timing.strings_now_rest_year", first=first, parallel=bank.parallel),
            {"usable": usable},
        )
        cash = self.winner.cost["outlay"].number - (1 - share) * self.batteries
        covers = usable.number >= self.results.need.energy.number
        return self._option("steps", phrase("changes.purchase_timing.steps"), says, total, cash, covers)
