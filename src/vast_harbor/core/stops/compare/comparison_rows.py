"""The rows of the comparison, in the order of what the owner looks for."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.phrases import phrase

HIGH, LOW = "high", "low"


@dataclass(frozen=True, slots=True)
class Row:
    """One line of the comparison.

    Attributes:
        key, name, group: which line.
        better: ``high``, ``low`` or empty where neither is better.
        headline: one of the eight lines that owners decide on.
        figures: one for each column.
        stopped: of each column, whether the verdict leaves its bank out.
        none: what a cell without a value says; empty for a dash.
    """

    key: str
    name: str
    group: str
    better: str
    headline: bool
    figures: tuple[Figure, ...]
    stopped: tuple[bool, ...]
    none: str = ""

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


def blank(name: str, unit: str) -> Figure:
    """A cell of which nothing is known."""
    return Figure(
        f"compare.none.{name}", name, None, unit, source=phrase("compare.comparison.known_rig_bank")
    )


ENERGY, NIGHTS, BODY, LASTING, PURSE, USE, LIMITS = (
    phrase("compare.comparison.energy"),
    phrase("compare.comparison.nights_until_empty"),
    phrase("compare.comparison.weight_space"),
    phrase("compare.comparison.life"),
    phrase("compare.comparison.cost"),
    phrase("compare.comparison.use"),
    phrase("compare.comparison.limits"),
)


@dataclass(frozen=True, slots=True)
class _Line:
    """How one row is made."""

    key: str
    name: str
    group: str
    better: str
    of: Callable[[ComparedBank], Figure]
    none: str = ""


def _year(name: str, unit: str) -> Callable[[ComparedBank], Figure]:
    return lambda c: c.year[name] if c.year is not None else blank(name, unit)


def _ran(name: str, unit: str) -> Callable[[ComparedBank], Figure]:
    return lambda c: c.simulated[name] if c.simulated is not None else blank(name, unit)


# What owners decide on: the four quantities first.
HEADLINES = (
    "usable_wh", "kg", "design_cycles", "per_cycle", "outlay", "lifetime", "years", "served_share",
)  # fmt: skip

LINES = (
    _Line("usable_wh", phrase("compare.comparison.usable_wh"), ENERGY, HIGH, lambda c: c.banked["usable_wh"]),
    _Line("kg", phrase("terms.names.weight"), BODY, LOW, lambda c: c.banked["kg"]),
    _Line(
        "design_cycles",
        phrase("compare.comparison.design_cycles"),
        LASTING,
        HIGH,
        lambda c: c.life["design_cycles"],
    ),
    _Line(
        "per_cycle", phrase("terms.names.lifetime_cost_per_cycle"), PURSE, LOW, lambda c: c.cost["per_cycle"]
    ),
    _Line("usable_ah", phrase("terms.names.usable_amp_hours"), ENERGY, "", lambda c: c.banked["usable_ah"]),
    _Line(
        "nameplate_wh",
        phrase("compare.comparison.nameplate_wh"),
        ENERGY,
        "",
        lambda c: c.banked["nameplate_wh"],
    ),
    _Line(
        "nights_new", phrase("compare.comparison.nights_new"), NIGHTS, HIGH, lambda c: c.figures["nights_new"]
    ),
    _Line(
        "nights_end", phrase("compare.comparison.nights_end"), NIGHTS, HIGH, lambda c: c.figures["nights_end"]
    ),
    _Line(
        "nights_new_charged",
        phrase("compare.comparison.nights_new_charged"),
        NIGHTS,
        HIGH,
        lambda c: c.figures["nights_new_charged"],
        phrase("compare.comparison.limit"),
    ),
    _Line(
        "nights_end_charged",
        phrase("compare.comparison.nights_end_charged"),
        NIGHTS,
        HIGH,
        lambda c: c.figures["nights_end_charged"],
        phrase("compare.comparison.limit"),
    ),
    _Line("served_share", phrase("compare.comparison.served_share"), USE, HIGH, _year("served_share", "%")),
    _Line("short_share", phrase("terms.names.off_grid_days_ending"), USE, LOW, _year("short_share", "%")),
    _Line(
        "first_dark",
        phrase("compare.comparison.first_dark"),
        USE,
        HIGH,
        _ran("first_dark", "moment"),
        "never",
    ),
    _Line(
        "care_hours",
        phrase("compare.comparison.care_hours"),
        USE,
        LOW,
        lambda c: c.cost["maintenance"].inputs["h_care"],
    ),
    _Line("gives_a", phrase("compare.comparison.gives_a"), LIMITS, "", lambda c: c.figures["gives_a"]),
    _Line("ohm", phrase("compare.comparison.internal_resistance"), LIMITS, LOW, lambda c: c.figures["ohm"]),
    _Line("takes_a", phrase("compare.comparison.takes_a"), LIMITS, HIGH, lambda c: c.figures["takes_a"]),
    _Line("cold", phrase("compare.comparison.cold"), LIMITS, LOW, lambda c: c.figures["cold"]),
    _Line("warranty", phrase("terms.names.warranty"), LIMITS, HIGH, lambda c: c.figures["warranty"], "none"),
    _Line(
        "kg_per_kwh",
        phrase("terms.names.weight_per_usable_kwh"),
        BODY,
        LOW,
        lambda c: c.figures["kg_per_kwh"],
    ),
    _Line(
        "l_per_kwh", phrase("terms.names.space_per_usable_kwh"), BODY, LOW, lambda c: c.figures["l_per_kwh"]
    ),
    _Line("kg_change", phrase("compare.comparison.kg_change"), BODY, LOW, lambda c: c.banked["kg_change"]),
    _Line("years", phrase("terms.names.expected_life"), LASTING, HIGH, lambda c: c.life["years"]),
    _Line("by_cycles", phrase("compare.comparison.by_cycles"), LASTING, HIGH, lambda c: c.life["by_cycles"]),
    _Line("by_years", phrase("compare.comparison.by_years"), LASTING, HIGH, lambda c: c.life["by_years"]),
    _Line(
        "cycles_per_year",
        phrase("compare.comparison.cycles_per_year"),
        LASTING,
        "",
        lambda c: c.life["cycles_per_year"],
    ),
    _Line("depth", phrase("compare.comparison.depth"), LASTING, "", lambda c: c.life["depth"]),
    _Line(
        "cycles_made", phrase("compare.comparison.cycles_made"), LASTING, "", lambda c: c.cost["cycles_made"]
    ),
    _Line(
        "replacement_count",
        phrase("compare.comparison.replacement_count"),
        LASTING,
        LOW,
        lambda c: c.cost["replacement_count"],
    ),
    _Line("purchase", phrase("terms.names.batteries_buy"), PURSE, LOW, lambda c: c.banked["purchase"]),
    _Line("extra_cost", phrase("terms.names.extras_labour"), PURSE, LOW, lambda c: c.cost["extra_cost"]),
    _Line("outlay", phrase("terms.names.up_front_cost"), PURSE, LOW, lambda c: c.cost["outlay"]),
    _Line(
        "price_per_kwh",
        phrase("terms.names.batteries_per_usable_kwh"),
        PURSE,
        LOW,
        lambda c: c.figures["price_per_kwh"],
    ),
    _Line("lifetime", phrase("terms.names.lifetime_cost"), PURSE, LOW, lambda c: c.cost["lifetime"]),
    _Line(
        "per_cycle_bare",
        phrase("compare.comparison.per_cycle_bare"),
        PURSE,
        LOW,
        lambda c: c.cost["per_cycle_bare"],
    ),
    _Line("per_kwh", phrase("compare.comparison.per_kwh"), PURSE, LOW, lambda c: c.cost["per_kwh"]),
    _Line("per_year", phrase("compare.comparison.per_year"), PURSE, LOW, lambda c: c.cost["per_year"]),
    _Line("per_night", phrase("compare.comparison.per_night"), PURSE, LOW, lambda c: c.cost["per_night"]),
    _Line("ready", phrase("compare.comparison.ready"), PURSE, LOW, lambda c: c.cost["ready"]),
    _Line(
        "label_per_cycle",
        phrase("compare.comparison.label_per_cycle"),
        PURSE,
        "",
        lambda c: c.cost["label_per_cycle"],
    ),
    _Line(
        "label_per_kwh",
        phrase("compare.comparison.label_per_kwh"),
        PURSE,
        "",
        lambda c: c.cost["label_per_kwh"],
    ),
)


ORDER = (ENERGY, NIGHTS, USE, LIMITS, BODY, LASTING, PURSE)


def rows_of(compared_banks: Sequence[ComparedBank], out: tuple[bool, ...]) -> list[Row]:
    """Every row of the table, and its headline."""
    has_old = all("kg_change" in c.banked.figures for c in compared_banks)

    simulated = any(c.year is not None for c in compared_banks)
    lines = [
        x
        for x in LINES
        if (x.key != "kg_change" or has_old) and (simulated or not x.key.endswith("_charged"))
    ]
    firsts = {key: i - len(HEADLINES) for i, key in enumerate(HEADLINES)}
    lines.sort(key=lambda x: firsts.get(x.key, ORDER.index(x.group)))
    made = [
        Row(
            x.key, x.name, x.group, x.better, x.key in HEADLINES, tuple(x.of(c) for c in compared_banks), out,
            x.none,
        )
        for x in lines
    ]  # fmt: skip
    # A row of which nothing is known for any bank tells nothing.
    return [r for r in made if r.headline or r.none or any(f.value is not None for f in r.figures)]
