"""Whether a bank gives enough, and may be joined as it is."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import Figure, Sentence, computed
from vast_harbor.core.installation.wiring import fuses_per_string
from vast_harbor.core.stops.banks.checks.check import CAUTION, NOTE, Build, Check
from vast_harbor.core.stops.banks.proposals import LEAD_ACID_STRINGS
from vast_harbor.core.stops.banks.reasons import COVERS_NEED
from vast_harbor.phrases import phrase


def checks(build: Build) -> Iterator[Check]:
    """The need, the number in series and in parallel, and batteries of one age.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    f, need, bank = build.figures, build.need, build.bank
    yield build.compare_to_limit(
        COVERS_NEED, phrase("checks.capacity.covers_need_title"), f["usable_wh"], need.energy,
        phrase("checks.capacity.covers_need_holds"),
        phrase("checks.capacity.covers_need_broken"),
        phrase("checks.capacity.covers_need_remedy"), is_minimum=True,
        short=_short(build),
    )  # fmt: skip
    model = bank.model
    most_s = build.of_entry("max_series", phrase("checks.capacity.max_series"), model.max_series, "batteries")
    most_p = build.of_entry(
        "max_parallel", phrase("checks.capacity.max_parallel"), model.max_parallel, "strings"
    )
    yield build.compare_to_limit(
        "series_limit",
        phrase("checks.capacity.series_limit_title"),
        f["series"],
        most_s,
        phrase("checks.capacity.series_limit_holds"),
        phrase("checks.capacity.series_limit_broken"),
        phrase("checks.capacity.series_limit_remedy"),
    )
    yield build.compare_to_limit(
        "parallel_limit",
        phrase("terms.names.strings_parallel"),
        f["parallel"],
        most_p,
        phrase("checks.capacity.parallel_limit_holds"),
        phrase("checks.capacity.parallel_limit_broken"),
        phrase("checks.capacity.parallel_limit_remedy"),
    )
    if build.lead and bank.parallel > LEAD_ACID_STRINGS:
        yield Check(
            "many_strings", phrase("checks.capacity.many_strings_title"), CAUTION,
            Sentence(phrase("checks.capacity.many_strings", parallel=bank.parallel)),
            phrase("checks.capacity.many_strings_remedy"), f["parallel"],
        )  # fmt: skip
    advised = build.assumptions.figure("strings_advised")
    if bank.parallel > advised.number:
        yield Check(
            "strings_advised", phrase("checks.capacity.strings_advised_title"), CAUTION,
            Sentence(phrase("checks.capacity.strings_advised"),
                     {"n": f["parallel"], "most": advised}),
            phrase("checks.capacity.strings_advised_remedy"), f["parallel"],
        )  # fmt: skip
    if fuses_per_string(bank):
        yield Check(
            "string_fuses", phrase("checks.capacity.string_fuses_title"), NOTE,
            Sentence(phrase("checks.capacity.string_fuses"),
                     {"n": f["parallel"]}),
            phrase("checks.capacity.string_fuses_remedy"),
        )  # fmt: skip
    if bank.parallel > 1 and not build.lead:
        yield Check(
            "joining", phrase("checks.capacity.joining_title"), NOTE,
            Sentence(phrase("checks.capacity.joining")),
            phrase("checks.capacity.joining_remedy"),
        )  # fmt: skip
    yield from _used(build)


def _short(build: Build) -> Figure:
    f, need = build.figures, build.need
    return computed(
        f"{build.at}.short",
        phrase("checks.capacity.short"),
        need.energy.number - f["usable_wh"].number,
        "Wh",
        "{E_need} − {E_usable}",
        {"E_need": need.energy, "E_usable": f["usable_wh"]},
    )


# More than so many millivolts between cells show a weak one.
WEAK_CELL_MV = 50.0


def _used(build: Build) -> Iterator[Check]:
    used = build.bank.model.used
    if used is None:
        return
    if used.spread_mv is not None:
        spread = build.of_entry("spread_mv", phrase("checks.capacity.spread_mv"), used.spread_mv, "mV")
        limit = build.of_entry(
            "spread_limit", phrase("checks.capacity.spread_limit"), WEAK_CELL_MV, "mV", "Practice."
        )
        yield build.compare_to_limit(
            "cell_spread",
            phrase("checks.capacity.cell_spread_title"),
            spread,
            limit,
            phrase("checks.capacity.cell_spread_holds"),
            phrase("checks.capacity.cell_spread_broken"),
            phrase("checks.capacity.cell_spread_remedy"),
        )
    if used.measured_ah is None:
        yield Check(
            "used_untested", phrase("checks.capacity.used_untested_title"), CAUTION,
            Sentence(phrase("checks.capacity.used_untested")),
            phrase("checks.capacity.used_untested_remedy"),
        )  # fmt: skip
    if used.faults > 0:
        yield Check(
            "used_faults", phrase("checks.capacity.used_faults_title"), CAUTION,
            Sentence(phrase("checks.capacity.used_faults"), {
                "n": build.of_entry("faults", phrase("checks.capacity.faults"), used.faults, "times")}),
            phrase("checks.capacity.used_faults_remedy"),
        )  # fmt: skip
    worn = build.figures.get("start_wear")
    says = phrase("checks.capacity.bought_used_life_gone")
    yield Check(
        "used", phrase("terms.names.bought_used"), NOTE if used.spare else CAUTION,
        Sentence(says + (phrase("checks.capacity.used") if used.spare else ""), {"wear": worn})
        if worn is not None else Sentence(phrase("checks.capacity.bought_used_without_warranty")),
        phrase("checks.capacity.used_remedy")
        if used.spare else phrase("checks.capacity.used_keep_spare_place_warranty_remedy"),
    )  # fmt: skip
