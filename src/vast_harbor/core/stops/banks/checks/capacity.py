"""Whether a bank gives enough, and may be joined as it is."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import Figure, Sentence, computed
from vast_harbor.core.installation.wiring import fuses_per_string
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, STOP, Build, Check
from vast_harbor.core.stops.banks.proposals import LEAD_ACID_STRINGS


def checks(build: Build) -> Iterator[Check]:
    """The need, the number in series and in parallel, and batteries of one age.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    f, need, bank = build.figures, build.need, build.bank
    yield build.compare_to_limit(
        "covers_need", "Covers the need", f["usable_wh"], need.energy,
        "Gives {x} usable; {limit} are needed.",
        "Gives {x} usable, {short} short of the {limit} needed.",
        STOP, "Add a string, choose a larger model, or plan for fewer nights.", is_minimum=True,
        short=_short(build),
    )  # fmt: skip
    model = bank.model
    most_s = build.of_entry("max_series", "Most in series", model.max_series, "batteries")
    most_p = build.of_entry("max_parallel", "Most strings", model.max_parallel, "strings")
    yield build.compare_to_limit(
        "series_limit", "Batteries in series", f["series"], most_s, "{x} in series; the maker permits "
            "up to {limit}.",
        "{x} in series, but the maker permits {limit}.", STOP, "Take units of more volts, fewer in series.",
    )  # fmt: skip
    yield build.compare_to_limit(
        "parallel_limit", "Strings in parallel", f["parallel"], most_p, "{x} side by side; the maker "
            "permits up to {limit}.",
        "{x} in parallel, but the maker permits {limit}.", STOP, "Use fewer strings of a larger model.",
    )  # fmt: skip
    if build.lead and bank.parallel > LEAD_ACID_STRINGS:
        yield Check(
            "many_strings", "Lead-acid strings", CARE,
            Sentence(f"{bank.parallel} lead-acid strings in parallel share the current badly."),
            "Prefer larger units, two or six volts, in fewer strings.", f["parallel"],
        )  # fmt: skip
    advised = build.assumptions.figure("strings_advised")
    if bank.parallel > advised.number:
        yield Check(
            "strings_advised", "Strings side by side", CARE,
            Sentence("{n} side by side; this house rule advises {most}: fewer, larger ones share better.",
                     {"n": f["parallel"], "most": advised}),
            "Prefer larger units in fewer strings.", f["parallel"],
        )  # fmt: skip
    if fuses_per_string(bank):
        yield Check(
            "string_fuses", "Fuses of the strings", NOTE,
            Sentence("{n} in parallel: a fuse in each string, so that one that fails is not fed by the rest.",
                     {"n": f["parallel"]}),
            "The wiring drawing shows them, with their size.",
        )  # fmt: skip
    if bank.parallel > 1 and not build.lead:
        yield Check(
            "joining", "Joining the strings", NOTE,
            Sentence("Charge each battery to its own full before they are joined, then within 0.05 V."),
            "Else the fullest one pours into the others at once.",
        )  # fmt: skip
    yield from _used(build)


def _short(build: Build) -> Figure:
    f, need = build.figures, build.need
    return computed(
        f"{build.at}.short", "Short of the need", need.energy.number - f["usable_wh"].number, "Wh",
        "{E_need} − {E_usable}", {"E_need": need.energy, "E_usable": f["usable_wh"]},
    )  # fmt: skip


# More than so many millivolts between cells show a weak one.
WEAK_CELL_MV, OLD_YEARS = 50.0, 8.0


def _used(build: Build) -> Iterator[Check]:
    used = build.bank.model.used
    if used is None:
        return
    if used.spread_mv is not None:
        spread = build.of_entry("spread_mv", "Spread of its cells", used.spread_mv, "mV")
        limit = build.of_entry("spread_limit", "Most between its cells", WEAK_CELL_MV, "mV", "Practice.")
        yield build.compare_to_limit(
            "cell_spread", "Cells alike", spread, limit, "{x} between its cells.",
            "{x} between its cells: one of them is weak.", CARE,
            "Ask for another one, or let it balance at full charge for days and read again.",
        )  # fmt: skip
    if used.measured_ah is None:
        yield Check(
            "used_untested", "Tested before it is bought", CARE,
            Sentence("Used, and its capacity was not measured: it is counted as if it were new."),
            "Ask for a capacity test, and enter what it gave.",
        )  # fmt: skip
    if used.faults > 0:
        yield Check(
            "used_faults", "Its log", CARE,
            Sentence("Its log holds {n} faults.", {
                "n": build.of_entry("faults", "Faults in its log", used.faults, "times")}),
            "Ask which: over-temperature and cell faults come back, a cut at empty need not.",
        )  # fmt: skip
    worn = build.figures.get("start_wear")
    says = "Used: {wear} of its life is gone, and no maker answers for it."
    yield Check(
        "used", "Bought used", NOTE if used.spare else CARE,
        Sentence(says + (" A spare one is bought with it." if used.spare else ""), {"wear": worn})
        if worn is not None else Sentence("Used: no maker answers for it."),
        "Keep the spare one at half charge and cool, and check it every three months."
        if used.spare else "Keep a spare one in place of the warranty, or take it off the price.",
    )  # fmt: skip
