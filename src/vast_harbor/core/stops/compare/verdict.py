"""The verdict over the whole catalogue, by visible rules: nothing to do, out, unserved, money, cares."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from vast_harbor.core.cost.life_cost import LifeCostInputs
from vast_harbor.core.cost.monte_carlo import SampledCosts, sample_costs
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.stops.banks import (
    COLD_UNGUARDED,
    COVERS_NEED,
    FIT,
    LIVING_SPACE,
    ORIENTATION,
    UNSWITCHED,
    VENTILATION,
)
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.old_bank_verdict import OldBankVerdict
from vast_harbor.core.stops.compare.package import Answer
from vast_harbor.core.stops.compare.priorities import choose
from vast_harbor.core.stops.compare.questions import Question, question_of
from vast_harbor.core.stops.compare.uncertainty import uncertainty_of, weigh, weighed_cost
from vast_harbor.core.stops.compare.winner_saving import DRAWN, Saving, pays_back_of, saving_of
from vast_harbor.phrases import phrase

KEEP, MEND, HOOK_UP, BUY, NONE = "keep", "mend", "hook_up", "buy", "none"
# Up to so much more on the day is hardly more [-].
HARDLY_MORE = 0.10
# A bank of the catalogue joins where it costs less by so much than the candidates of its class [-].
BETTER = 0.02
# Findings about gas, acid and fire, which rule a bank out even where hardly any use is made of it.
HARMFUL = (LIVING_SPACE, VENTILATION, UNSWITCHED, COLD_UNGUARDED, ORIENTATION, FIT)


@dataclass(frozen=True, slots=True)
class Out:
    """A candidate that is out, why, and what it would need.

    Attributes:
        compared: the candidate.
        says: why.
        needs: what would bring it back.
    """

    compared: ComparedBank
    says: Sentence
    needs: str


@dataclass(frozen=True, repr=False)
class Verdict(OldBankVerdict):
    """The answer for a rig.

    Attributes:
        candidates: the owner's candidates.
        find: finds the best of each class in the catalogue.
        smallest: finds the cheapest bank of the catalogue that does no harm, whatever it carries.
        answer: the packages, once they were looked for.
    """

    candidates: tuple[ComparedBank, ...]
    find: Callable[[], tuple[ComparedBank, ...]] = tuple
    smallest: Callable[[], ComparedBank | None] = lambda: None
    answer: Answer = field(default_factory=Answer)

    @cached_property
    def compared_banks(self) -> tuple[ComparedBank, ...]:
        """The field: the owner's candidates, and what was found for them."""
        small = self._smallest
        return (*self.candidates, *self.found, *(() if small is None else (small,)))

    @cached_property
    def _smallest(self) -> ComparedBank | None:
        """The cheapest bank that does no harm, where next to no nights are asked of one."""
        if not self._few or self.kept or self.mended or not self._wants_some:
            return None
        small = self.smallest()
        known = {c.banked.bank for c in (*self.candidates, *self.found)}
        return None if small is None or small.banked.bank in known else small

    @property
    def _few(self) -> bool:
        return self.plan.off_grid_nights <= self.assumptions.value("verdict_nights")

    @property
    def _wants_some(self) -> bool:
        """Whether a bank is wanted although it carries next to nothing: there is none, or a dangerous one."""
        return self.plan.off_grid_nights > 0 or self.plan.old_bank is None or bool(self.danger)

    @cached_property
    def found(self) -> tuple[ComparedBank, ...]:
        """The best of each class in the catalogue, where it costs less than the candidates of that class."""

        def weighed(compared: ComparedBank) -> float:
            return weighed_cost(compared.cost.inputs, self.assumptions, self.plan.years_kept)

        out, layouts = [], [c.banked.bank for c in self.candidates]
        for compared in self.find():
            key = compared.banked.battery_class.key
            if compared.banked.bank in layouts:
                continue
            same = [c for c in self.candidates if c.banked.battery_class.key == key and c.stopping is None]
            if not same or weighed(compared) < (1 - BETTER) * min(weighed(c) for c in same):
                out.append(compared)
        return tuple(out)

    @cached_property
    def life_cost_inputs(self) -> tuple[LifeCostInputs, ...]:
        """The candidates in numbers."""
        return tuple(c.cost.inputs for c in self.compared_banks)

    @cached_property
    def sampled_costs(self) -> SampledCosts:
        """What every candidate costs in every draw."""
        return sample_costs(self.life_cost_inputs, uncertainty_of(self.assumptions), self.plan.years_kept)

    @cached_property
    def outs(self) -> tuple[Out, ...]:
        """Candidates that rule 2 leaves out."""
        out = []
        for compared in self.compared_banks:
            found = self._hard(compared)
            if found is not None:
                out.append(found)
        return tuple(out)

    @cached_property
    def suitable(self) -> tuple[ComparedBank, ...]:
        """Candidates that will do."""
        gone = {o.compared.id for o in self.outs}
        return tuple(c for c in self.compared_banks if c.id not in gone)

    @cached_property
    def shares(self) -> Mapping[str, Figure]:
        """How often each of those that will do is the cheapest of them [%], by the candidate's id."""
        places = [i for i, c in enumerate(self.compared_banks) if c in self.suitable]
        return {
            self.compared_banks[i].id: Figure(
                f"verdict.{self.compared_banks[i].id}.share",
                phrase("compare.verdict.share"),
                share,
                "%",
                REFERENCE,
                source=DRAWN,
                note=phrase("compare.verdict.share_note"),
            )
            for i, share in self.sampled_costs.cheapest(places).items()
        }

    @cached_property
    def spreads(self) -> Mapping[str, tuple[Figure, Figure, Figure]]:
        """P10, P50 and P90 of the lifetime cost of each candidate [money], by its id."""
        names = (
            ("p10", phrase("compare.verdict.low_1_10_scenarios")),
            ("p50", phrase("compare.verdict.middle")),
            ("p90", phrase("compare.verdict.high_1_10_scenarios")),
        )
        out = {}
        for i, compared in enumerate(self.compared_banks):
            values = self.sampled_costs.percentiles(i)
            out[compared.id] = tuple(
                Figure(
                    f"verdict.{compared.id}.{key}",
                    phrase("compare.verdict.lifetime_cost", words=words),
                    value,
                    "money",
                    REFERENCE,
                    source=DRAWN,
                )
                for (key, words), value in zip(names, values, strict=True)
            )
        return out  # type: ignore[return-value]

    # Rule 1

    @cached_property
    def kind(self) -> str:
        """Which kind of answer it is."""
        if not self.days.day.bank_wh.number:
            return NONE
        if self.kept:
            return KEEP
        if self.mended:
            return MEND
        if self._few:
            return HOOK_UP
        if not self.suitable:
            return NONE
        return HOOK_UP if self.without is not None else BUY

    @cached_property
    def without(self) -> tuple[Figure, Figure] | None:
        """What the cheapest bank costs for each night, and what a night elsewhere costs [money/night].

        None where the bank costs no more: then it is bought.
        """
        if self._few or not self.suitable:
            return None
        price = self.assumptions.figure("night_elsewhere")
        # The middle of the scenarios is the lifetime cost; its workings are put together where they are told.
        middle = {c.id: self.spreads[c.id][1].number for c in self.suitable}
        cheapest = min(self.suitable, key=lambda c: middle[c.id])
        if middle[cheapest.id] <= self.elsewhere_instead:
            return None
        each = cheapest.cost["per_night"]
        return None if each.value is None or each.number <= price.number else (each, price)

    @property
    def elsewhere_instead(self) -> float:
        """What it would cost to spend every off-grid night of the years elsewhere [money]."""
        nights = self.plan.off_grid_nights * self.plan.years_kept
        return self.assumptions.value("night_elsewhere") * nights

    # Rule 2

    def _hard(self, compared: ComparedBank) -> Out | None:
        return None if compared.stopping is None else Out(compared, *compared.stopping)

    @cached_property
    def charge_missing(self) -> bool:
        """Whether no bank serves the critical loads as wished: charge is missing, not battery."""
        left = [c.year["critical_share"].number for c in self.compared_banks
                if c.year is not None and c.stopping is None]  # fmt: skip
        return bool(left) and min(left) > self.assumptions.value("verdict_critical")

    # Rule 4

    @cached_property
    def decided(self) -> tuple[ComparedBank, str] | None:
        """The winner, and what decided: ``only``, ``money``, the key of a care, ``risk``, or empty for the
        price on the day."""
        if self.kind == HOOK_UP:
            return self._harmless()
        if self.kind != BUY:
            return None
        if len(self.suitable) == 1:
            return self.suitable[0], "only"
        if len(self.near) == 1:
            return self.near[0], "money"
        chosen, why = choose(
            self.near, self.plan.cares[:2], self.weighed, self.assumptions.value("verdict_purse")
        )
        if self.clear and why in ("risk", ""):
            return chosen, "money"
        return chosen, why

    @cached_property
    def class_shares(self) -> Mapping[str, float]:
        """How often one of a class is the cheapest of those that will do [-], by the class."""
        out: dict[str, float] = {}
        for c in self.suitable:
            key = c.banked.battery_class.key
            out[key] = out.get(key, 0.0) + self.shares[c.id].number
        return out

    def class_share(self, compared: ComparedBank) -> float:
        """How often one of its class is the cheapest [-]."""
        return self.class_shares[compared.banked.battery_class.key]

    @cached_property
    def clear(self) -> bool:
        """Whether money decides between the classes: the cheapest is of one that nearly always is."""
        return self.class_share(self._cheapest) > self.assumptions.value("verdict_clear")

    @cached_property
    def weighed(self) -> Mapping[str, float]:
        """What each that will do costs, the dear futures weighed too [money]."""
        ends = {c.id: [f.number for f in self.spreads[c.id][1:]] for c in self.suitable}
        return {id_: weigh(self.assumptions, *both) for id_, both in ends.items()}

    @cached_property
    def _free(self) -> tuple[ComparedBank, ...]:
        return tuple(c for c in self.suitable if not self.beaten(c))

    @cached_property
    def _cheapest(self) -> ComparedBank:
        return min(self._free, key=lambda c: self.weighed[c.id])

    def beaten(self, compared: ComparedBank) -> bool:
        """Whether another that will do asks hardly more on the day, and neither costs nor weighs more."""

        def terms(c: ComparedBank) -> tuple[float, ...]:
            _, p50, p90 = self.spreads[c.id]
            return p50.number, p90.number, c.banked["kg"].number

        mine, most = terms(compared), (1 + HARDLY_MORE) * compared.cost.outlay.number
        return any(
            other.cost.outlay.number <= most
            and terms(other) != mine
            and all(a <= b for a, b in zip(terms(other), mine, strict=True))
            for other in self.suitable
            if other is not compared
        )

    @cached_property
    def near(self) -> tuple[ComparedBank, ...]:
        """Those that money leaves in the running: of the class that is clearly cheapest, where one is."""
        cheapest, seldom = self._cheapest, self.assumptions.value("verdict_near")
        pool = [
            c
            for c in self._free
            if (
                c.banked.battery_class.key == cheapest.banked.battery_class.key
                or (not self.clear and self.class_share(c) >= seldom)
            )
        ]
        least = self.weighed[cheapest.id]
        most = least + self.assumptions.value("verdict_within") * abs(least)
        return tuple(c for c in pool if self.weighed[c.id] <= most)

    def _harmless(self) -> tuple[ComparedBank, str] | None:
        """The cheapest to buy that does no harm; none is needed where the old bank is not dangerous."""
        if not self._wants_some or (self.without is not None and self.has_sound_bank):
            return None
        suitable = [c for c in self.compared_banks if all(f.code == COVERS_NEED for f in c.hard)]
        suitable = suitable or [c for c in self.compared_banks if not any(f.code in HARMFUL for f in c.hard)]
        return (min(suitable, key=lambda c: c.cost.outlay.number), "price") if suitable else None

    @cached_property
    def question(self) -> Question | None:
        """What is not known and could turn it; None where nothing is, and the verdict holds as it stands."""
        if self.kind != BUY or self.winner is None or self.winner not in self.suitable:
            return None
        others = [c for c in self.suitable if c is not self.winner]
        return question_of(self.plan, self.winner, others, dict(self.weighed), self.charge_missing)

    @property
    def is_decided(self) -> bool:
        """Whether all that an edit shows of it is worked out already."""
        return "decided" in self.__dict__

    @property
    def winner(self) -> ComparedBank | None:
        """The bank that it says to buy; None where it says to buy none."""
        return self.decided[0] if self.decided is not None else None

    @cached_property
    def runner_up(self) -> ComparedBank | None:
        """The next best of those that will do; else the cheapest of the others."""
        if self.winner is None or self.kind != BUY:
            return None
        rest = [c for c in self.near if c is not self.winner]
        rest = rest or [c for c in self.suitable if c is not self.winner]
        if rest:
            return max(rest, key=lambda c: (self.shares[c.id].number, -c.cost["lifetime"].number))
        others = [o.compared for o in self.outs]
        sized = [c for c in others if not any(f.code == COVERS_NEED for f in c.hard)] or others
        return min(sized, key=lambda c: c.cost["lifetime"].number) if sized else None

    # What it saves, and whether that is more than its doubt

    @cached_property
    def saving(self) -> Saving | None:
        """What the winner costs less than the runner-up: P10, as planned, P90 [money]; None without both."""
        if self.winner is None or self.runner_up is None:
            return None
        a, b = self.compared_banks.index(self.winner), self.compared_banks.index(self.runner_up)
        return saving_of(
            self.winner, self.runner_up, self.sampled_costs.costs[b] - self.sampled_costs.costs[a]
        )

    @cached_property
    def pays_back(self) -> Figure | None:
        """When a winner that asks more on the day has cost less than the runner-up from then on [years].

        None where it asks less on the day, or never does within the years of keeping.
        """
        if self.winner is None or self.runner_up is None:
            return None
        return pays_back_of(self.winner, self.runner_up)

    def figures(self) -> list[Figure]:
        """All figures of its own."""
        out = [*self.shares.values(), *(f for three in self.spreads.values() for f in three)]
        out += [f for o in self.outs for f in o.says.figures.values()]
        out += list(self.saving or ())
        return out + ([self.pays_back] if self.pays_back is not None else [])
