"""Compare: candidates as columns, the headline rows first, then pictures and one plain sentence."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core import money
from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.plan import Plan, Reference
from vast_harbor.core.rundown import Rundown, nights_without_charge, run_down
from vast_harbor.core.stops import cost as cost_stop
from vast_harbor.core.stops import life as life_stop
from vast_harbor.core.stops.banks import BankFigures, Banks
from vast_harbor.core.stops.cost import Cost
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.life import Life
from vast_harbor.core.stops.need import Need
from vast_harbor.core.workings import Figure, Finding, Sentence, computed

# The hour at which the run-down begins: charged through the day, off-grid from the evening.
EVENING_H = 18.0
# Within this share two lifetime costs are called the same.
ALIKE = 0.05
# Usable energies further apart than this are not compared like with like.
UNEQUAL = 0.10
HIGH, LOW = "high", "low"


@dataclass(frozen=True, slots=True)
class Column:
    """One candidate with all that is known of it."""

    banked: BankFigures
    life: Life
    cost: Cost
    figures: dict[str, Figure]


@dataclass(frozen=True, slots=True)
class Row:
    """One line of the comparison.

    Attributes:
        key, name, group: which line.
        better: ``high``, ``low`` or empty where neither is better.
        headline: one of the four lines that owners decide on.
        figures: one for each column.
    """

    key: str
    name: str
    group: str
    better: str
    headline: bool
    figures: tuple[Figure, ...]

    @property
    def best(self) -> tuple[int, ...]:
        """Columns with the best value; empty where all are equal or nothing can be said."""
        values = [f.value for f in self.figures]
        known = [v for v in values if v is not None]
        if not self.better or len(known) < 2 or max(known) - min(known) < 1e-9 * max(map(abs, known)):
            return ()
        top = max(known) if self.better == HIGH else min(known)
        return tuple(i for i, v in enumerate(values) if v == top)


@dataclass(frozen=True, slots=True)
class Correction:
    """One step from the naive comparison of equal labels to the true one.

    Attributes:
        key, name, says: which correction, and what it does.
        figures: money for what the label is then worth, one for each column.
        ratios: the same against the first column [-].
    """

    key: str
    name: str
    says: str
    figures: tuple[Figure, ...]
    ratios: tuple[Figure, ...]


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


def evaluate(plan: Plan, reference: Reference, assumptions: Assumptions, day: Day, need: Need,
             banks: Banks) -> Compare:
    """Compare all candidates that can be built.

    Args:
        plan, reference, assumptions: the plan and what holds for it.
        day, need, banks: in figures.

    Returns:
        The comparison with its workings.
    """
    columns = []
    for banked in banks.candidates:
        if banked.bank is None:
            continue
        life = life_stop.evaluate(plan, reference, assumptions, day, need, banked)
        cost = cost_stop.evaluate(plan, assumptions, day, need, banked, life, banks.old_kg)
        columns.append(Column(banked, life, cost, _further(banked, day)))
    rows = tuple(_rows(columns)) if columns else ()
    ends = ("usable_new_wh", "usable_end_wh")
    rundown = None
    if columns and day.bank_wh.number > 0:
        rundown = run_down(day.profile, EVENING_H, [c.banked[e].number for c in columns for e in ends])
    return Compare(tuple(columns), rows, _sentence(plan, day, columns),
                   tuple(_corrections(plan, columns)), rundown, _findings(columns, need))


def _further(banked: BankFigures, day: Day) -> dict[str, Figure]:
    out = cost_stop.usable_quotients(banked)
    for name, title, energy in (("nights_new", "Nights without charging, new", "usable_new_wh"),
                                ("nights_end", "Nights without charging, at the end of its life",
                                 "usable_end_wh")):
        has = day.bank_wh.number > 0
        out[name] = computed(f"compare.{banked.candidate.id}.{name}", title,
                             nights_without_charge(banked[energy].number, day.bank_wh.number), "nights",
                             "{E_usable} / {E_bank}" if has else "",
                             {"E_usable": banked[energy], "E_bank": day.bank_wh})
    return out


def _rows(columns: Sequence[Column]) -> list[Row]:
    energy, body, life, purse, lasting = ("What it gives", "Weight", "How long it lasts", "Money",
                                          "Without charging")
    table: list[tuple[str, str, str, str, bool, list[Figure]]] = [
        ("usable_wh", "Usable capacity", energy, HIGH, True, [c.banked["usable_wh"] for c in columns]),
        ("kg", "Weight", body, LOW, True, [c.banked["kg"] for c in columns]),
        ("design_cycles", "Cycle life at the design depth", life, HIGH, True,
         [c.life["design_cycles"] for c in columns]),
        ("per_cycle", "Lifetime cost per cycle", purse, LOW, True, [c.cost["per_cycle"] for c in columns]),
        ("usable_ah", "Usable amp-hours", energy, "", False, [c.banked["usable_ah"] for c in columns]),
        ("nameplate_wh", "Energy on the label", energy, "", False,
         [c.banked["nameplate_wh"] for c in columns]),
        ("nights_new", "New", lasting, HIGH, False, [c.figures["nights_new"] for c in columns]),
        ("nights_end", "At the end of its life", lasting, HIGH, False,
         [c.figures["nights_end"] for c in columns]),
        ("kg_per_kwh", "Weight per usable kWh", body, LOW, False,
         [c.figures["kg_per_kwh"] for c in columns]),
        ("years", "Years until worn out", life, HIGH, False, [c.life["years"] for c in columns]),
        ("cycles_per_year", "Cycles made a year", life, "", False,
         [c.life["cycles_per_year"] for c in columns]),
        ("depth", "Depth of each cycle", life, "", False, [c.life["depth"] for c in columns]),
        ("replacement_count", "Times replaced while kept", life, LOW, False,
         [c.cost["replacement_count"] for c in columns]),
        ("purchase", "Batteries to buy", purse, LOW, False, [c.banked["purchase"] for c in columns]),
        ("outlay", "Batteries and extras", purse, LOW, False, [c.figures["outlay"] for c in columns]),
        ("price_per_kwh", "Batteries per usable kWh", purse, LOW, False,
         [c.figures["price_per_kwh"] for c in columns]),
        ("lifetime", "Lifetime cost", purse, LOW, False, [c.cost["lifetime"] for c in columns]),
        ("per_cycle_bare", "Per cycle without extras", purse, LOW, False,
         [c.cost["per_cycle_bare"] for c in columns]),
        ("per_kwh", "Per kWh delivered", purse, LOW, False, [c.cost["per_kwh"] for c in columns]),
        ("per_year", "Per year kept", purse, LOW, False, [c.cost["per_year"] for c in columns]),
        ("per_night", "Per off-grid night", purse, LOW, False, [c.cost["per_night"] for c in columns]),
        ("label_per_cycle", "Purchase ÷ label cycles", purse, "", False,
         [c.cost["label_per_cycle"] for c in columns]),
    ]
    if all("kg_change" in c.banked.figures for c in columns):
        table.append(("kg_change", "Change against the old bank", body, LOW, False,
                      [c.banked["kg_change"] for c in columns]))
    order = [energy, lasting, body, life, purse]
    rows = [Row(k, n, g, b, h, tuple(f)) for k, n, g, b, h, f in table]
    return [r for r in rows if r.headline] + sorted((r for r in rows if not r.headline),
                                                    key=lambda r: order.index(r.group))


def _sentence(plan: Plan, day: Day, columns: Sequence[Column]) -> Sentence:
    if day.bank_wh.number <= 0:
        return Sentence("List the loads of a day, and the comparison appears here.")
    if len(columns) < 2:
        return Sentence("Put up at least two banks that can be built, and they are compared here.")
    fit = [c for c in columns if not _stopped(c)]
    out = [c for c in columns if _stopped(c)]
    ranked = fit if len(fit) > 1 else list(columns)
    counted = all((c.cost["cycles_made"].value or 0) >= plan.years_kept for c in ranked)
    key = "per_cycle" if counted else "per_year"
    ranked.sort(key=lambda c: c.cost[key].number)
    first, second = ranked[:2]
    a, b = first.cost[key], second.cost[key]
    figures = {"H": columns[0].cost["per_year"].inputs["H"], "nights": life_stop.nights_a_year(plan),
               "a": a, "b": b,
               "more": computed("compare.more", "Dearer by", b.number - a.number, a.unit, "{b} − {a}",
                                {"b": b, "a": a})}
    names = (_short(first, columns), _short(second, columns))
    among = " of those that will do" if out and ranked == fit else ""
    start = "Kept {H} with {nights} off-grid a year"
    if b.number - a.number < ALIKE * abs(b.number):
        says = f"{start}, {names[0]} and {names[1]} cost about the same: {{a}} and {{b}}."
    else:
        says = (f"{start}, {names[0]} is cheapest{among} at {{a}}; next is {names[1]} at {{b}}, {{more}} "
                "more.")
    if first.figures["outlay"].number > second.figures["outlay"].number:
        says += f" On the day you buy it, {names[0]} costs more: {{out_a}} against {{out_b}}."
        figures |= {"out_a": first.figures["outlay"], "out_b": second.figures["outlay"]}
    return Sentence(says + _left_out(out, columns, bool(among)), figures)


def _stopped(column: Column) -> bool:
    return any(f.severity == "stop" for f in column.banked.findings)


def _left_out(out: Sequence[Column], columns: Sequence[Column], ranked_without: bool) -> str:
    """Who will not do as it stands, in words."""
    if not out:
        return ""
    names = [_short(c, columns) for c in out]
    listed = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
    verb = "does" if len(names) == 1 else "do"
    if ranked_without:
        return f" Left out: {listed}, which {verb} not serve as it stands; Banks says why."
    return f" But {listed} will not do as it stands; Banks says why."


def _short(column: Column, columns: Sequence[Column]) -> str:
    """A candidate inside a sentence: its class, with the model where two share the class."""
    same = [c for c in columns if c.banked.battery_class.key == column.banked.battery_class.key]
    assert column.banked.bank is not None
    if len(same) > 1:
        return f"{column.banked.bank.model.title} × {column.banked.bank.units}".replace("{", "{{")
    return column.banked.battery_class.short


def _corrections(plan: Plan, columns: Sequence[Column]) -> list[Correction]:
    """Money for one label of amp-hours, and then for what it is really worth."""
    if len(columns) < 2:
        return []
    steps: list[tuple[str, str, str, str]] = [
        ("label", "Same label", "Money per amp-hour on the label, as a shop window compares them.", "Ah"),
        ("voltage", "Voltage", "Amp-hours at 12.8 V are more watt-hours than at 12 V.", "V"),
        ("depth", "Usable depth", "Only part of the label may be taken out each cycle.", "DoD"),
        ("temperature", "Temperature", "A cold battery gives less.", "k_T"),
        ("rate", "Rate", "A hard draw leaves part of a lead-acid bank behind.", "k_rate"),
        ("age", "Age", "An older bank gives less; both are held to the same allowance.", "k_age"),
        ("life", "Life", "A bank that lasts longer gives its watt-hours for more years.", "years"),
    ]
    out: list[Correction] = []
    worth: list[Figure] = []
    for key, name, says, symbol in steps:
        figures = []
        for i, column in enumerate(columns):
            factor = _factor(symbol, column, plan)
            at = f"label.{column.banked.candidate.id}.{key}"
            unit = "money/Ah" if key == "label" else "money/kWh" if key != "life" else "money/kWh·year"
            if key == "label":
                value = column.banked["purchase"].number / factor.number
                figure = computed(at, name, value, unit, "{P} / {Ah}",
                                  {"P": column.banked["purchase"], "Ah": factor})
            elif key == "voltage":
                value = worth[i].number / factor.number * 1000
                figure = computed(at, name, value, unit, "{before} / {V} · 1000",
                                  {"before": worth[i], "V": factor})
            else:
                figure = computed(at, name, worth[i].number / factor.number, unit,
                                  f"{{before}} / {{{symbol}}}", {"before": worth[i], symbol: factor})
            figures.append(figure)
        worth = figures
        ratios = tuple(
            computed(f"{f.key}.ratio", f"{name}, against the first", f.number / figures[0].number
                     if figures[0].number else None, "1", "{x} / {first}" if figures[0].number else "",
                     {"x": f, "first": figures[0]})
            for f in figures
        )
        out.append(Correction(key, name, says, tuple(figures), ratios))
    return out


def _factor(symbol: str, column: Column, plan: Plan) -> Figure:
    banked = column.banked
    plain = {"Ah": "nameplate_ah", "V": "volts", "DoD": "dod", "k_T": "temperature", "k_rate": "rate"}
    if symbol in plain:
        return banked[plain[symbol]]
    if symbol == "k_age":
        return banked["usable_wh"].inputs["k_age"]
    served = min(column.life.years, plan.years_kept)
    return computed(f"label.{banked.candidate.id}.served", "Years it serves while the rig is kept", served,
                    "years", "min({life}, {H})" if column.life["years"].value is not None else "{H}",
                    {"life": column.life["years"], "H": column.cost["per_year"].inputs["H"]})


def _findings(columns: Sequence[Column], need: Need) -> tuple[Finding, ...]:
    found: list[Finding] = []
    usable = [c.banked["usable_wh"] for c in columns]
    if len(usable) > 1 and need.energy.number > 0:
        most, least = max(usable, key=lambda f: f.number), min(usable, key=lambda f: f.number)
        if most.number > least.number * (1 + UNEQUAL):
            found.append(Finding(
                "unequal", "note", "compare",
                Sentence("The banks are not equal: the largest gives {most} usable, the smallest {least}.",
                         {"most": most, "least": least}),
                "Batteries come in whole units; the cost per cycle counts the same need for all. Choose "
                "other models to bring them closer."))
    for column in columns:
        if column.life.ends == life_stop.CYCLES and column.life["years"].value is not None:
            likely = column.life["years_likely"]
            if column.life["years"].number > 2 * likely.number:
                found.append(Finding(
                    "label_years", "care", "compare",
                    Sentence("By label cycles alone it would last {label}; age ends it after about "
                             "{likely}.", {"label": column.life["years"], "likely": likely}),
                    "Reckon life by likely values unless you have a reason.",
                    column.banked.candidate.id))
    return tuple(found)


def cumulative(column: Column) -> list[tuple[float, float]]:
    """Cost so far over the years of one column, as (years, money) points."""
    return money.cumulative(column.cost.payments)
