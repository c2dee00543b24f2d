"""Compare: candidates as columns, the headline rows first, then pictures and one plain sentence."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache, partial

from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.life_cost import BY_LABEL
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.nights_without_charge import nights_without_charge
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.banks import BankFigures, Banks, QuickLifeCost
from vast_harbor.core.stops.charging import Suitability
from vast_harbor.core.stops.compare import cost as cost_stop
from vast_harbor.core.stops.compare import life as life_stop
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.comparison_rows import Row, blank, rows_of
from vast_harbor.core.stops.compare.equal_label import Correction, same_label
from vast_harbor.core.stops.compare.required_extras import required_extras
from vast_harbor.core.stops.compare.summary_sentence import result_sentence
from vast_harbor.core.stops.compare.unit_costs import usable_quotients
from vast_harbor.core.stops.compare.verdict import Verdict
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need import Days, Need
from vast_harbor.core.stops.trial import SimulationResult, YearOf
from vast_harbor.phrases import phrase

# The hour at which the run-down begins: charged through the day, off-grid from the evening.
# Usable energies further apart than this are not compared like with like.
UNEQUAL = 0.10
NO_YEARS: Mapping[str, YearOf] = {}
NO_TRIAL: Mapping[str, SimulationResult] = {}
NO_AUDIT: Mapping[str, tuple[Suitability, ...]] = {}


@dataclass(frozen=True)
class Compare:
    """The comparison; what only its own screen shows is put together when somebody asks for it.

    Attributes:
        plan, days: the plan and its days.
        candidates: candidates that can be built.
        verdict: the answer.
    """

    plan: Plan
    days: Days
    candidates: tuple[ComparedBank, ...]
    verdict: Verdict

    @cached_property
    def compared_banks(self) -> tuple[ComparedBank, ...]:
        """The columns: the candidates, and the bank that the verdict found in its place, if any."""
        winner = self.verdict.winner
        return self.candidates if winner is None or winner in self.candidates else (*self.candidates, winner)

    @cached_property
    def rows(self) -> tuple[Row, ...]:
        """The table."""
        out = tuple(c not in self.verdict.suitable for c in self.compared_banks)
        return tuple(rows_of(self.compared_banks, out)) if self.compared_banks else ()

    @cached_property
    def sentence(self) -> Sentence:
        """The result in plain words."""
        suitable = tuple(c for c in self.compared_banks if c in self.verdict.suitable)
        return result_sentence(self.plan, self.days.day, self.compared_banks, suitable)

    @cached_property
    def corrections(self) -> tuple[Correction, ...]:
        """The same-label comparison, step by step."""
        return tuple(same_label(self.plan, self.compared_banks))

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What is to be looked at."""
        return _findings(self.candidates, self.days.need)

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the comparison but those of its banks."""
        for correction in self.corrections:
            yield from (*correction.figures, *correction.ratios)
        yield from self.sentence.figures.values()
        yield from (f for row in self.rows for f in row.figures)


def evaluate(
    plan: Plan,
    assumptions: Assumptions,
    days: Days,
    banks: Banks,
    years: Mapping[str, YearOf] = NO_YEARS,
    simulated: Mapping[str, SimulationResult] = NO_TRIAL,
    suitability: Mapping[str, tuple[Suitability, ...]] = NO_AUDIT,
    find: Callable[[], tuple[ComparedBank, ...]] = tuple,
    smallest: Callable[[], ComparedBank | None] = lambda: None,
) -> Compare:
    """Compare all candidates that can be built.

    Args:
        plan, assumptions: the plan and what holds for it.
        days, banks: in figures.
        years: a run year of each candidate, by its id; none to go by the hand estimate.
        simulated: how each went through the trial, by its id.
        suitability: its sources, by its id.
        find: finds the banks of the catalogue that the verdict looks at beyond them.
        smallest: finds the cheapest bank of the catalogue that does no harm.

    Returns:
        The comparison with its workings.
    """
    look = QuickLifeCost(banks.rig_limits)
    compared_banks = tuple(
        compared_bank(
            look, banked, banks.old_kg, years.get(id), partial(simulated.get, id), suitability.get(id, ())
        )
        for banked in banks.candidates
        if banked.bank is not None and (id := banked.candidate.id)
    )
    return Compare(
        plan, days, compared_banks, Verdict(plan, assumptions, days, banks, compared_banks, find, smallest)
    )


def compared_bank(
    look: QuickLifeCost,
    banked: BankFigures,
    old_kg: Figure | None,
    year: YearOf | None = None,
    go: Callable[[], SimulationResult | None] = lambda: None,
    suitability: tuple[Suitability, ...] = (),
) -> ComparedBank:
    """A bank with its life and its money.

    Args:
        look: what banks meet and cost in the rig.
        banked: in figures; its bank must exist.
        old_kg: weight of the old bank [kg]; None without one.
        year: its run year; None where none is run.
        go: runs it through the trial.
        suitability: its sources.
    """
    assert banked.bank is not None
    required = required_extras(banked.build, banked.checks, suitability) if banked.build is not None else ()
    numbers = year.numbers if year is not None else None
    use = look.use(banked.bank, numbers)
    inputs = look.inputs(banked.bank, numbers, banked.candidate)
    life = lru_cache(1)(partial(life_stop.evaluate, look.rig_limits, banked, use, inputs, year))
    cost = cost_stop.evaluate(look, banked, life, use, inputs, old_kg, year, required)
    further = partial(_further, banked, look.rig_limits.days.day, year)
    return ComparedBank(banked, inputs.basis, life, cost, further, year, go, suitability)


def _further(banked: BankFigures, day: Day, year: YearOf | None) -> dict[str, Figure]:
    out = usable_quotients(banked)
    for name, title, energy in (
        ("nights_new", phrase("compare.comparison.nights_without_charging_new"), "usable_new_wh"),
        ("nights_end", phrase("compare.comparison.nights_without_charging_end"), "usable_end_wh"),
    ):
        has = day.bank_wh.number > 0
        at = f"compare.{banked.candidate.id}.{name}"
        out[name] = computed(
            at,
            title,
            nights_without_charge(banked[energy].number, day.bank_wh.number),
            "nights",
            "{E_usable} / {E_bank}" if has else "",
            {"E_usable": banked[energy], "E_bank": day.bank_wh},
        )
        falls = year is not None and has and day.bank_wh.number > year["offered"].number
        inputs = {"E_usable": banked[energy], "E_bank": day.bank_wh}
        inputs |= {"E_in": year["offered"]} if year is not None else {}
        fall = day.bank_wh.number - year["offered"].number if year is not None else 0.0
        out[f"{name}_charged"] = computed(
            f"{at}_charged",
            f"{title.replace('without', 'with')}",
            banked[energy].number / fall if falls else None,
            "nights",
            "{E_usable} / ({E_bank} − {E_in})" if falls else "",
            inputs,
            phrase("compare.comparison.energy_sources_average_off")
            if falls or year is None
            else phrase("compare.comparison.average_off_grid_day"),
        )
    return out | _limits(banked)


def _limits(banked: BankFigures) -> dict[str, Figure]:
    """What it may give and take for long, how cold it may be charged, how long its maker answers."""
    bank, build = banked.bank, banked.build
    if bank is None or build is None:
        return {}
    model = bank.model
    at = f"compare.{banked.candidate.id}"
    checks = {c.code: c for c in banked.checks}
    gives = checks["continuous_current"].limit if "continuous_current" in checks else None
    silent = blank(phrase("compare.comparison.continuous_discharge_current"), "A")
    one = build.of_entry("charge_a_one", phrase("compare.comparison.charge_a_one"), model.charge_a, "A")
    ohm = Figure(
        f"{at}.ohm",
        phrase("compare.comparison.ohm"),
        1000 * bank_resistance(bank),
        "mΩ",
        REFERENCE,
        source="R_ref·(class/12)·(100/Ah)·n_s/n_p",
        note=phrase("compare.comparison.ohm_note"),
    )
    return {
        "ohm": ohm,
        "gives_a": gives or silent,
        "takes_a": computed(
            f"{at}.takes_a",
            phrase("compare.comparison.takes_a"),
            bank.parallel * model.charge_a,
            "A",
            "{n_p} · {I}",
            {"n_p": banked["parallel"], "I": one},
        ),
        "cold": build.of_entry(
            "charge_least_c",
            phrase("compare.comparison.charge_least_c"),
            model.charge_c[0],
            "°C",
            phrase("compare.comparison.built_heater_allows_lower") if model.heater_w else "",
        ),
        "warranty": build.of_entry(
            "warranty_years",
            phrase("terms.names.warranty"),
            model.warranty.years or None,
            "years",
            model.warranty.conditions,
        ),
    }


def _findings(compared_banks: Sequence[ComparedBank], need: Need) -> tuple[Finding, ...]:
    found: list[Finding] = []
    usable = [c.banked["usable_wh"] for c in compared_banks]
    if len(usable) > 1 and need.energy.number > 0:
        most, least = max(usable, key=lambda f: f.number), min(usable, key=lambda f: f.number)
        if most.number > least.number * (1 + UNEQUAL):
            found.append(
                Finding(
                    "unequal",
                    "note",
                    "compare",
                    Sentence(
                        phrase("compare.comparison.banks_differ_size_largest"), {"most": most, "least": least}
                    ),
                    phrase("compare.comparison.batteries_come_whole_units"),
                )
            )
    for compared in compared_banks:
        if compared.basis != BY_LABEL:
            continue
        years, likely = compared.life["years"], compared.life["years_likely"]
        if years.value is not None and years.number > 2 * likely.number:
            found.append(
                Finding(
                    "label_years", "caution", "compare",
                    Sentence(
                        phrase("compare.comparison.rated_cycles_alone_last"),
                        {"label": years, "likely": likely},
                    ),
                    phrase("compare.comparison.use_likely_life_unless"), compared.id,
                )
            )  # fmt: skip
    return tuple(found)


def cumulative(compared: ComparedBank) -> list[tuple[float, float]]:
    """Cost so far over the years of one column, as (years, money) points.

    The last step is what the doubt adds, so that the line ends at the lifetime cost.
    """
    points = cash_flow.cumulative(compared.cost.payments)
    return [*points, (points[-1][0], compared.cost["lifetime"].number)]
