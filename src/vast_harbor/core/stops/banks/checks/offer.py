"""Price, doubt, and packs with everything in one case."""

from collections.abc import Iterator

from vast_harbor.core.battery.datasheet import months_between
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.rig.loads import AC, DC
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, STOP, Build, Check

OLD_MONTHS = 12


def checks(build: Build) -> Iterator[Check]:
    """Ceiling, age of the price, confidence in the datasheet, portable packs.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _budget(build)
    yield from _age(build)
    model = build.bank.model
    if model.grade == "C":
        yield Check(
            "confidence", "How sure its datasheet is", NOTE,
            Sentence(
                "Little backs up its datasheet (grade C): the ranges of its life and price are taken wider."
            ),
            "Ask for a certificate, the cycle curve, and what the BMS does at its limits.",
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
            f"{build.at}.outlay", "Batteries and extras", total.number + extras.number, "money", "{P} + {X}",
            {"P": total, "X": extras},
        )  # fmt: skip
    ceiling = build.entered("rig", "budget", "Most to spend at once", build.plan.budget, "money")
    yield build.compare_to_limit(
        "budget", "Within the ceiling", total, ceiling, "Costs {x} of the {limit} that you want to spend.",
        "It costs {x}, more than the {limit} that you want to spend at once.", CARE,
        "Plan for fewer nights, buy in steps, or take a cheaper class.",
    )  # fmt: skip


def _age(build: Build) -> Iterator[Check]:
    candidate, model = build.candidate, build.bank.model
    dated = candidate.price_date if candidate.unit_price is not None else model.offer.dated
    if not dated or not build.plan.today:
        return
    months = months_between(dated, build.plan.today)
    age = Figure(
        f"{build.at}.price_age", "Age of the price", float(months), "months", REFERENCE, source=dated
    )
    limit = Figure(
        f"{build.at}.price_age_most", "Oldest that is taken as it is", OLD_MONTHS, "months", REFERENCE,
        source="Practice",
    )  # fmt: skip
    yield build.compare_to_limit(
        "price_age", "Age of the price", age, limit, "The price is {x} old.",
        "The price is {x} old: LFP has grown cheaper since, lead dearer.", CARE, "Ask for a new quote.",
    )  # fmt: skip


def _portable(build: Build) -> Iterator[Check]:
    pack, day, plan = build.bank.model.portable, build.hardest_day, build.plan
    assert pack is not None
    watts = day.ac_peak_w
    running = Figure(
        f"day.{day.type.id}.ac_peak_w", "AC loads at once", watts, "W", REFERENCE, source="Without losses"
    )
    limit = build.of_entry("ac_w", "Its inverter, for long", pack.ac_w, "W")
    yield build.compare_to_limit(
        "pack_power", "Sockets of the pack", running, limit, "AC loads take {x} at once; it gives {limit}.",
        "AC loads take {x} at once, but its inverter gives {limit}.", STOP,
        "Fewer loads at once, a larger pack, or a battery with an inverter of its own.",
    )  # fmt: skip
    direct = [x.name for x in plan.loads if x.supply == DC and x.watts > 0]
    yield Check(
        "pack_fixed", "Portable pack", CARE if direct else NOTE,
        Sentence(
            "Everything is in one case: it cannot be expanded, its charger takes at most {in_w}, and "
            "what fails "
            "takes all with it." + (" DC loads hang on its sockets." if direct else ""),
            {"in_w": build.of_entry("in_w", "Its inputs", pack.in_w, "W")},
        ),
        "Check that wires and fuses of the rig can be fed from its socket." if direct else "Compare it "
            "with battery, inverter and charger together.",
    )  # fmt: skip
    if any(x.supply == AC for x in plan.loads) and plan.inverter.rated_w:
        yield Check(
            "pack_inverter", "Inverter", NOTE,
            Sentence("It brings its own inverter; the one in the rig is not needed with it."),
            "Leave its idle draw out of the day to compare fairly.",
        )  # fmt: skip
