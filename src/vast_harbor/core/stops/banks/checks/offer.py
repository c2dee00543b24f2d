"""Price, doubt, and packs with everything in one case."""

from collections.abc import Iterator

from vast_harbor.core.battery.datasheet import months_between
from vast_harbor.core.battery.plausibility import ENDURANCE, PRICE, PRICE_MISSING, SPACE, WEIGHT
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.rig.loads import AC, DC
from vast_harbor.core.stops.banks.checks.check import CAUTION, NOTE, Build, Check
from vast_harbor.phrases import phrase

OLD_MONTHS = 12


def checks(build: Build) -> Iterator[Check]:
    """Ceiling, age of the price, confidence in the datasheet, portable packs.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    wrong = build.criteria.implausible
    if wrong:
        says = {
            PRICE_MISSING: phrase("checks.offer.label_price_missing"),
            WEIGHT: phrase("checks.offer.label_weight"),
            SPACE: phrase("checks.offer.label_space"),
            ENDURANCE: phrase("checks.offer.label_cycles"),
            PRICE: phrase("checks.offer.label_price"),
        }
        yield Check(
            "label", phrase("checks.offer.label_title"), build.verdict("label", CAUTION),
            Sentence(says[wrong]),
            phrase("checks.offer.label_remedy"),
        )  # fmt: skip
    yield from _budget(build)
    yield from _age(build)
    model = build.bank.model
    if model.grade == "C":
        yield Check(
            "confidence", phrase("checks.offer.confidence_title"), NOTE,
            Sentence(
                phrase("checks.offer.confidence")
            ),
            phrase("checks.offer.confidence_remedy"),
        )  # fmt: skip
    if model.portable is not None:
        yield from _portable(build)


def _budget(build: Build) -> Iterator[Check]:
    if build.plan.budget is None:
        return
    f = build.figures
    total, extras = f["purchase"], f.get("extras")
    if extras is not None and extras.number > 0:
        total = computed(
            f"{build.at}.outlay",
            phrase("checks.offer.outlay"),
            total.number + extras.number,
            "money",
            "{P} + {X}",
            {"P": total, "X": extras},
        )
    ceiling = build.entered("rig", "budget", phrase("terms.names.spending_limit"), build.plan.budget, "money")
    yield build.compare_to_limit(
        "budget", phrase("checks.offer.budget_title"), total, ceiling, phrase("checks.offer.budget_holds"),
        phrase("checks.offer.budget_broken"), phrase("checks.offer.budget_remedy"),
    )  # fmt: skip


def _age(build: Build) -> Iterator[Check]:
    candidate, model = build.candidate, build.bank.model
    dated = candidate.price_date if candidate.unit_price is not None else model.offer.dated
    if not dated or not build.plan.today:
        return
    months = months_between(dated, build.plan.today)
    age = Figure(
        f"{build.at}.price_age",
        phrase("checks.offer.price_age"),
        float(months),
        "months",
        REFERENCE,
        source=dated,
    )
    limit = Figure(
        f"{build.at}.price_age_most", phrase("checks.offer.price_age_most"), OLD_MONTHS, "months", REFERENCE,
        source=phrase("checks.offer.price_age_most_source"),
    )  # fmt: skip
    yield build.compare_to_limit(
        "price_age",
        phrase("checks.offer.price_age_title"),
        age,
        limit,
        phrase("checks.offer.price_age_holds"),
        phrase("checks.offer.price_age_broken"),
        phrase("checks.offer.price_age_remedy"),
    )


def _portable(build: Build) -> Iterator[Check]:
    pack, day, plan = build.bank.model.portable, build.hardest_day, build.plan
    assert pack is not None
    watts = day.ac_peak_w
    running = Figure(
        f"day.{day.type.id}.ac_peak_w",
        phrase("checks.offer.ac_peak_w"),
        watts,
        "W",
        REFERENCE,
        source=phrase("checks.offer.ac_peak_w_source"),
    )
    limit = build.of_entry("ac_w", phrase("checks.offer.ac_w"), pack.ac_w, "W")
    yield build.compare_to_limit(
        "pack_power",
        phrase("checks.offer.pack_power_title"),
        running,
        limit,
        phrase("checks.offer.pack_power_holds"),
        phrase("checks.offer.pack_power_broken"),
        phrase("checks.offer.pack_power_remedy"),
    )
    direct = [x.name for x in plan.loads if x.supply == DC and x.watts > 0]
    yield Check(
        "pack_fixed", phrase("checks.offer.pack_fixed_title"), CAUTION if direct else NOTE,
        Sentence(
            phrase("checks.offer.pack_fixed") + (phrase("checks.offer.dc_loads_run_from") if direct else ""),
            {"in_w": build.of_entry("in_w", phrase("checks.offer.in_w"), pack.in_w, "W")},
        ),
        phrase("checks.offer.pack_fixed_remedy") if direct else phrase("checks.offer.pack_compare_remedy"),
    )  # fmt: skip
    if any(x.supply == AC for x in plan.loads) and plan.inverter.rated_w:
        yield Check(
            "pack_inverter", phrase("terms.names.inverter"), NOTE,
            Sentence(phrase("checks.offer.pack_inverter")),
            phrase("checks.offer.pack_inverter_remedy"),
        )  # fmt: skip
