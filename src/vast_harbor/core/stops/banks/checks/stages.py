"""A bank that is bought in steps: money, need covered, and strings of different age."""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.battery.ageing import MOST_GAP, cycles_at_depth, wear_by_plan
from vast_harbor.core.battery.datasheet import months_between
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, typed
from vast_harbor.core.stops.banks.checks.check import BLOCKING, CAUTION, NOTE, Build, Check
from vast_harbor.phrases import phrase


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
        units = typed(
            f"{at}.strings", phrase("checks.stages.strings"), stage.strings, "strings", f"{path}/strings"
        )
        other = typed(
            f"{at}.other",
            stage.other or phrase("checks.stages.other"),
            stage.other_price,
            "money",
            f"{path}/other_price",
        )
        n_s = f["series"]
        money = computed(
            f"{at}.money", phrase("checks.stages.money"),
            stage.strings * build.bank.series * f["unit_paid"].number + stage.other_price, "money",
            "{n} · {n_s} · {P} + {X}", {"n": units, "n_s": n_s, "P": f["unit_paid"], "X": other},
        )  # fmt: skip
        so_far = (
            money
            if spent is None
            else computed(
                f"{at}.so_far",
                phrase("checks.stages.so_far"),
                spent.number + money.number,
                "money",
                "{before} + {now}",
                {"before": spent, "now": money},
            )
        )
        spent = so_far
        have = Figure(
            f"{at}.have",
            phrase("checks.stages.have"),
            float(strings),
            "strings",
            REFERENCE,
            source=phrase("checks.stages.have_source"),
        )
        usable = computed(
            f"{at}.usable",
            phrase("checks.stages.usable"),
            f["usable_wh"].number * strings / total,
            "Wh",
            "{E} · {n} / {n_p}",
            {"E": f["usable_wh"], "n": have, "n_p": f["parallel"]},
            phrase("checks.stages.usable_source"),
        )
        has = need.energy.number > 0
        covered = computed(
            f"{at}.covered",
            phrase("checks.stages.covered"),
            usable.number / need.energy.number if has else None,
            "%",
            "{E} / {E_need}" if has else "",
            {"E": usable, "E_need": need.energy},
        )
        day = need.energy.inputs["E_bank"]
        nights = computed(
            f"{at}.nights",
            phrase("checks.stages.nights"),
            usable.number / day.number if day.number else None,
            "nights",
            "{E} / {E_bank}" if day.number else "",
            {"E": usable, "E_bank": day},
        )
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
    name, bought = phrase("checks.stages.bought_steps"), sum(s.strings for s in stages)
    if bought != build.bank.parallel:
        yield Check(
            "stages_sum", name, CAUTION,
            Sentence(phrase("checks.stages.stages_sum", bought=bought, parallel=build.bank.parallel)),
            phrase("checks.stages.stages_sum_remedy"), build.figures["parallel"],
        )  # fmt: skip
    if stages[0].strings == 0:
        yield Check(
            "stages_first", name, CAUTION, Sentence(phrase("checks.stages.stages_first")),
            phrase("checks.stages.stages_first_remedy"),
        )  # fmt: skip
    dated = [s for s in stages if s.strings and s.when]
    if any(months_between(a.when, b.when) < 0 for a, b in itertools.pairwise(dated)):
        yield Check(
            "stages_order",
            name,
            CAUTION,
            Sentence(phrase("checks.stages.stages_order")),
            phrase("checks.stages.stages_order_remedy"),
        )
    buying = [s for s in stages if s.strings]
    if len(buying) < 2:
        return
    if build.lead:
        yield Check(
            "mixed_ages", phrase("checks.stages.mixed_ages_title"), BLOCKING,
            Sentence(phrase("checks.stages.mixed_ages")),
            phrase("checks.stages.mixed_ages_remedy"),
        )  # fmt: skip
        return
    first = buying[0].when or build.plan.today
    if not first or not buying[-1].when:
        yield Check(
            "mixed_ages", phrase("checks.stages.mixed_ages_title"), NOTE,
            Sentence(phrase("checks.stages.enter_when_buy_each")),
            phrase("checks.stages.mixed_ages_enter_months_steps_card_remedy"),
        )  # fmt: skip
        return
    gap = _gap(build, months_between(first, buying[-1].when))
    most = Figure(
        f"{build.at}.gap_most", phrase("checks.stages.gap_most"), MOST_GAP, "%", REFERENCE,
        source=phrase("checks.stages.gap_most_source"),
    )  # fmt: skip
    yield build.compare_to_limit(
        "mixed_ages", phrase("checks.stages.mixed_ages_title"), gap, most,
        phrase("checks.stages.mixed_ages_holds"),
        phrase("checks.stages.mixed_ages_broken"), phrase("checks.stages.mixed_ages_sooner_remedy"),
        severity=BLOCKING,
    )  # fmt: skip


def _gap(build: Build, months: int) -> Figure:
    model, assume = build.bank.model, build.assumptions
    key = model.battery_class.key
    nights, n = build.plan.off_grid_nights, build.need.nights.number
    depth = build.figures["dod"].number
    cycles = cycles_at_depth(model.cycles, assume.value(f"cycle_exponent.{key}"), depth)
    wear = wear_by_plan(nights, n, cycles, assume.value(f"calendar_years.{key}"))
    per_year = Figure(
        f"{build.at}.wear_first", phrase("checks.stages.wear_first"), wear, "1/year", REFERENCE,
        source=phrase("checks.stages.wear_first_source"),
    )  # fmt: skip
    age = Figure(
        f"{build.at}.gap_months",
        phrase("checks.stages.gap_months"),
        float(max(0, months)),
        "months",
        REFERENCE,
        source=phrase("checks.stages.gap_months_source"),
    )
    return computed(
        f"{build.at}.gap", phrase("checks.stages.gap"), 0.2 * wear * max(0, months) / 12, "%", "0.2 · {w} · "
            "{m} / 12",
        {"w": per_year, "m": age}, phrase("checks.stages.gap_source"),
    )  # fmt: skip
