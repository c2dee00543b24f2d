"""A bank that is bought in steps: money, need covered, and strings of different age."""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.battery.ageing import cycles_at_depth, wear_by_plan
from vast_harbor.core.battery.datasheet import months_between
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, typed
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, STOP, Build, Check

# Strings of LFP may be joined within this difference of health.
MOST_GAP = 0.10


@dataclass(frozen=True, slots=True)
class PurchaseStepFigures:
    """One step of a purchase.

    Attributes:
        index: its place in the list.
        when: month, ISO; empty for at once.
        strings: strings that there are after it.
        money: what it costs [money].
        so_far: what was spent until then [money].
        usable: usable energy after it [Wh].
        covered: share of the need [%]; no value without a need.
        nights: nights that it carries; no value on a day without use.
    """

    index: int
    when: str
    strings: int
    money: Figure
    so_far: Figure
    usable: Figure
    covered: Figure
    nights: Figure


def steps(build: Build) -> tuple[PurchaseStepFigures, ...]:
    """The steps in which a bank is bought; none where it is bought at once."""
    out: list[PurchaseStepFigures] = []
    f, need, total = build.figures, build.need, build.bank.parallel
    strings, spent = 0, None
    for i, stage in enumerate(build.candidate.stages):
        at, path = f"{build.at}.stage.{i}", f"{build.path}/stages/{i}"
        strings += stage.strings
        units = typed(f"{at}.strings", "Strings bought", stage.strings, "strings", f"{path}/strings")
        other = typed(
            f"{at}.other", stage.other or "Besides", stage.other_price, "money", f"{path}/other_price"
        )
        n_s = f["series"]
        money = computed(
            f"{at}.money", "Money of this step",
            stage.strings * build.bank.series * f["unit_paid"].number + stage.other_price, "money",
            "{n} · {n_s} · {P} + {X}", {"n": units, "n_s": n_s, "P": f["unit_paid"], "X": other},
        )  # fmt: skip
        so_far = money if spent is None else computed(
            f"{at}.so_far", "Spent until then", spent.number + money.number, "money", "{before} + {now}",
            {"before": spent, "now": money},
        )  # fmt: skip
        spent = so_far
        have = Figure(
            f"{at}.have", "Strings then", float(strings), "strings", REFERENCE, source="Bought so far"
        )
        usable = computed(
            f"{at}.usable", "Usable then", f["usable_wh"].number * strings / total, "Wh", "{E} · {n} / {n_p}",
            {"E": f["usable_wh"], "n": have, "n_p": f["parallel"]},
            "In proportion: fewer strings also feel a hard draw more",
        )  # fmt: skip
        has = need.energy.number > 0
        covered = computed(
            f"{at}.covered", "Share of the need", usable.number / need.energy.number if has else None, "%",
            "{E} / {E_need}" if has else "", {"E": usable, "E_need": need.energy},
        )  # fmt: skip
        day = need.energy.inputs["E_bank"]
        nights = computed(
            f"{at}.nights", "Nights that it carries", usable.number / day.number if day.number else None,
            "nights",
            "{E} / {E_bank}" if day.number else "", {"E": usable, "E_bank": day},
        )  # fmt: skip
        out.append(PurchaseStepFigures(i, stage.when, strings, money, so_far, usable, covered, nights))
    return tuple(out)


def checks(build: Build) -> Iterator[Check]:
    """Whether the steps add up to the bank, and strings of different age may be joined.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    stages = build.candidate.stages
    if not stages:
        return
    name, bought = "Bought in steps", sum(s.strings for s in stages)
    if bought != build.bank.parallel:
        yield Check(
            "stages_sum", name, CARE,
            Sentence(f"The steps buy {bought} strings; the bank has {build.bank.parallel}."),
            "Change the steps, or the strings.", build.figures["parallel"],
        )  # fmt: skip
    if stages[0].strings == 0:
        yield Check(
            "stages_first", name, CARE, Sentence("The first step buys no battery: nothing runs until "
                "the second."),
            "Put the first string into the first step.",
        )  # fmt: skip
    dated = [s for s in stages if s.strings and s.when]
    if any(months_between(a.when, b.when) < 0 for a, b in itertools.pairwise(dated)):
        yield Check(
            "stages_order", name, CARE, Sentence("A later step has an earlier date."), "Put them in order.",
        )  # fmt: skip
    buying = [s for s in stages if s.strings]
    if len(buying) < 2:
        return
    if build.lead:
        yield Check(
            "mixed_ages", "Batteries of different age", STOP,
            Sentence("Lead-acid of different age in one bank: the old ones draw the new ones down."),
            "Buy all of them at once, or buy the charger first and all the batteries later.",
        )  # fmt: skip
        return
    first = buying[0].when or build.plan.today
    if not first or not buying[-1].when:
        yield Check(
            "mixed_ages", "Batteries of different age", NOTE,
            Sentence("Say when each step is bought: the gap in age decides whether they may be joined."),
            "Enter the months of the steps on its card.",
        )  # fmt: skip
        return
    gap = _gap(build, months_between(first, buying[-1].when))
    most = Figure(
        f"{build.at}.gap_most", "Most between strings", MOST_GAP, "%", REFERENCE,
        source="LFP of one model; the maker's limit goes before it",
    )  # fmt: skip
    yield build.compare_to_limit(
        "mixed_ages", "Batteries of different age", gap, most,
        "The first string has lost {x} when the last one joins; {limit} are the most.",
        "The first string has lost {x} of its health when the last one joins; {limit} are the most.", STOP,
        "Join them sooner, or keep the old string as a bank of its own.",
    )  # fmt: skip


def _gap(build: Build, months: int) -> Figure:
    model, assume = build.bank.model, build.assumptions
    key = model.battery_class.key
    nights, n = build.plan.off_grid_nights, build.need.nights.number
    depth = build.figures["dod"].number
    cycles = cycles_at_depth(model.cycles, assume.value(f"cycle_exponent.{key}"), depth)
    wear = wear_by_plan(nights, n, cycles, assume.value(f"calendar_years.{key}"))
    per_year = Figure(
        f"{build.at}.wear_first", "Wear a year until then", wear, "1/year", REFERENCE,
        source="One cycle to the planned depth for each spell between charges, and the calendar",
    )  # fmt: skip
    age = Figure(f"{build.at}.gap_months", "Months between", float(max(0, months)), "months", REFERENCE,
                 source="Dates of the steps")  # fmt: skip
    return computed(
        f"{build.at}.gap", "Health lost meanwhile", 0.2 * wear * max(0, months) / 12, "%", "0.2 · {w} · "
            "{m} / 12",
        {"w": per_year, "m": age}, "SoH = 1 − 0.2·wear",
    )  # fmt: skip
