"""Compare: candidates as columns, the headline rows first, then pictures and one plain sentence."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vast_harbor.core import money
from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.plan import Plan, Reference
from vast_harbor.core.rundown import Rundown, nights_without_charge, run_down
from vast_harbor.core.stops import cost as cost_stop
from vast_harbor.core.stops import life as life_stop
from vast_harbor.core.stops.banks import BankFigures, Banks
from vast_harbor.core.stops.column import Column
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.prices import usable_quotients
from vast_harbor.core.stops.result import result_sentence
from vast_harbor.core.stops.same_label import Correction, same_label
from vast_harbor.core.stops.trial.year import YearOf
from vast_harbor.core.workings import Figure, Finding, Sentence, computed

# The hour at which the run-down begins: charged through the day, off-grid from the evening.
EVENING_H = 18.0
# Usable energies further apart than this are not compared like with like.
UNEQUAL = 0.10
HIGH, LOW = "high", "low"
NO_YEARS: Mapping[str, YearOf] = {}


@dataclass(frozen=True, slots=True)
class Row:
    """One line of the comparison.

    Attributes:
        key, name, group: which line.
        better: ``high``, ``low`` or empty where neither is better.
        headline: one of the four lines that owners decide on.
        figures: one for each column.
        stopped: of each column, whether its bank will not do as it stands.
    """

    key: str
    name: str
    group: str
    better: str
    headline: bool
    figures: tuple[Figure, ...]
    stopped: tuple[bool, ...]

    @property
    def best(self) -> tuple[int, ...]:
        """Columns with the best value, of banks that will do where any does.

        Empty where all are equal, or there is nothing to be better than.
        """
        out = self.stopped if not all(self.stopped) else (False,) * len(self.stopped)
        values = [None if o else f.value for f, o in zip(self.figures, out, strict=True)]
        known = [v for v in values if v is not None]
        if not self.better or len(known) < 2 or max(known) - min(known) <= 1e-9 * max(map(abs, known)):
            return ()
        top = max(known) if self.better == HIGH else min(known)
        return tuple(i for i, v in enumerate(values) if v == top)


@dataclass(frozen=True, slots=True)
class Compare:
    """The comparison.

    Attributes:
        columns: candidates that can be built.
        rows: the table.
        sentence: the result in plain words.
        corrections: the same-label comparison, step by step.
        rundown: remaining energy of each column, new and then at the end of life.
        findings: what is to be looked at.
    """

    columns: tuple[Column, ...]
    rows: tuple[Row, ...]
    sentence: Sentence
    corrections: tuple[Correction, ...]
    rundown: Rundown | None
    findings: tuple[Finding, ...]


def evaluate(
    plan: Plan,
    reference: Reference,
    assumptions: Assumptions,
    day: Day,
    need: Need,
    banks: Banks,
    years: Mapping[str, YearOf] = NO_YEARS,
) -> Compare:
    """Compare all candidates that can be built.

    Args:
        plan, reference, assumptions: the plan and what holds for it.
        day, need, banks: in figures.
        years: a run year of each candidate, by its id; none to go by the hand estimate.

    Returns:
        The comparison with its workings.
    """
    columns = []
    for banked in banks.candidates:
        if banked.bank is None:
            continue
        year = years.get(banked.candidate.id)
        life = life_stop.evaluate(plan, reference, assumptions, day, need, banked, year)
        cost = cost_stop.evaluate(plan, assumptions, day, need, banked, life, banks.old_kg, year)
        columns.append(Column(banked, life, cost, _further(banked, day)))
    rows = tuple(_rows(columns)) if columns else ()
    ends = ("usable_new_wh", "usable_end_wh")
    rundown = None
    if columns and day.bank_wh.number > 0:
        rundown = run_down(day.profile, EVENING_H, [c.banked[e].number for c in columns for e in ends])
    return Compare(
        tuple(columns),
        rows,
        result_sentence(plan, day, columns),
        tuple(same_label(plan, columns)),
        rundown,
        _findings(columns, need),
    )


def _further(banked: BankFigures, day: Day) -> dict[str, Figure]:
    out = usable_quotients(banked)
    for name, title, energy in (
        ("nights_new", "Nights without charging, new", "usable_new_wh"),
        ("nights_end", "Nights without charging, at the end of its life", "usable_end_wh"),
    ):
        has = day.bank_wh.number > 0
        out[name] = computed(
            f"compare.{banked.candidate.id}.{name}",
            title,
            nights_without_charge(banked[energy].number, day.bank_wh.number),
            "nights",
            "{E_usable} / {E_bank}" if has else "",
            {"E_usable": banked[energy], "E_bank": day.bank_wh},
        )
    return out


def _rows(columns: Sequence[Column]) -> list[Row]:
    energy, body, life, purse, lasting = (
        "What it gives",
        "Weight",
        "How long it lasts",
        "Money",
        "Without charging",
    )
    table: list[tuple[str, str, str, str, bool, list[Figure]]] = [
        ("usable_wh", "Usable capacity", energy, HIGH, True, [c.banked["usable_wh"] for c in columns]),
        ("kg", "Weight", body, LOW, True, [c.banked["kg"] for c in columns]),
        (
            "design_cycles",
            "Cycle life at the design depth",
            life,
            HIGH,
            True,
            [c.life["design_cycles"] for c in columns],
        ),
        ("per_cycle", "Lifetime cost per cycle", purse, LOW, True, [c.cost["per_cycle"] for c in columns]),
        ("usable_ah", "Usable amp-hours", energy, "", False, [c.banked["usable_ah"] for c in columns]),
        (
            "nameplate_wh",
            "Energy on the label",
            energy,
            "",
            False,
            [c.banked["nameplate_wh"] for c in columns],
        ),
        ("nights_new", "New", lasting, HIGH, False, [c.figures["nights_new"] for c in columns]),
        (
            "nights_end",
            "At the end of its life",
            lasting,
            HIGH,
            False,
            [c.figures["nights_end"] for c in columns],
        ),
        ("kg_per_kwh", "Weight per usable kWh", body, LOW, False, [c.figures["kg_per_kwh"] for c in columns]),
        ("years", "Years until worn out", life, HIGH, False, [c.life["years"] for c in columns]),
        (
            "cycles_per_year",
            "Cycles made a year",
            life,
            "",
            False,
            [c.life["cycles_per_year"] for c in columns],
        ),
        ("depth", "Depth of each cycle", life, "", False, [c.life["depth"] for c in columns]),
        (
            "replacement_count",
            "Times replaced while kept",
            life,
            LOW,
            False,
            [c.cost["replacement_count"] for c in columns],
        ),
        ("purchase", "Batteries to buy", purse, LOW, False, [c.banked["purchase"] for c in columns]),
        ("outlay", "Batteries and extras", purse, LOW, False, [c.figures["outlay"] for c in columns]),
        (
            "price_per_kwh",
            "Batteries per usable kWh",
            purse,
            LOW,
            False,
            [c.figures["price_per_kwh"] for c in columns],
        ),
        ("lifetime", "Lifetime cost", purse, LOW, False, [c.cost["lifetime"] for c in columns]),
        (
            "per_cycle_bare",
            "Per cycle without extras",
            purse,
            LOW,
            False,
            [c.cost["per_cycle_bare"] for c in columns],
        ),
        ("per_kwh", "Per kWh delivered", purse, LOW, False, [c.cost["per_kwh"] for c in columns]),
        ("per_year", "Per year kept", purse, LOW, False, [c.cost["per_year"] for c in columns]),
        ("per_night", "Per off-grid night", purse, LOW, False, [c.cost["per_night"] for c in columns]),
        (
            "label_per_cycle",
            "Purchase ÷ label cycles",
            purse,
            "",
            False,
            [c.cost["label_per_cycle"] for c in columns],
        ),
    ]
    if all("kg_change" in c.banked.figures for c in columns):
        table.append(
            (
                "kg_change",
                "Change against the old bank",
                body,
                LOW,
                False,
                [c.banked["kg_change"] for c in columns],
            )
        )
    order = [energy, lasting, body, life, purse]
    stopped = tuple(c.stopped for c in columns)
    rows = [Row(k, n, g, b, h, tuple(f), stopped) for k, n, g, b, h, f in table]
    return [r for r in rows if r.headline] + sorted(
        (r for r in rows if not r.headline), key=lambda r: order.index(r.group)
    )


def _findings(columns: Sequence[Column], need: Need) -> tuple[Finding, ...]:
    found: list[Finding] = []
    usable = [c.banked["usable_wh"] for c in columns]
    if len(usable) > 1 and need.energy.number > 0:
        most, least = max(usable, key=lambda f: f.number), min(usable, key=lambda f: f.number)
        if most.number > least.number * (1 + UNEQUAL):
            found.append(
                Finding(
                    "unequal",
                    "note",
                    "compare",
                    Sentence(
                        "The banks are not equal: the largest gives {most} usable, the smallest {least}.",
                        {"most": most, "least": least},
                    ),
                    "Batteries come in whole units; the cost per cycle counts the same need for all. Choose "
                    "other models to bring them closer.",
                )
            )
    for column in columns:
        if column.life.ends == life_stop.CYCLES and column.life["years"].value is not None:
            likely = column.life["years_likely"]
            if column.life["years"].number > 2 * likely.number:
                found.append(
                    Finding(
                        "label_years",
                        "care",
                        "compare",
                        Sentence(
                            "By label cycles alone it would last {label}; age ends it after about {likely}.",
                            {"label": column.life["years"], "likely": likely},
                        ),
                        "Reckon life by likely values unless you have a reason.",
                        column.banked.candidate.id,
                    )
                )
    return tuple(found)


def cumulative(column: Column) -> list[tuple[float, float]]:
    """Cost so far over the years of one column, as (years, money) points."""
    return money.cumulative(column.cost.payments)
