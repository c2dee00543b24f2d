"""Main cable, fuse, and what a dead short would draw."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.figures.display import awg
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.installation.cables import (
    FUSE_MARGIN,
    FUSE_WITHIN_MM,
    FuseKind,
    ampacity,
    breaking_a,
    resistance,
    short_circuit_current,
)
from vast_harbor.core.stops.banks.checks.check import CAUTION, NOTE, OK, Build, Check
from vast_harbor.core.stops.banks.reasons import FUSE, SHORT_CIRCUIT, will_not_do
from vast_harbor.phrases import phrase

# From here on no strip fuse breaks the short circuit [A]: worth a note even where a common fuse does.
NO_STRIP_A = 6000.0


def checks(build: Build) -> Iterator[Check]:
    """Drop and ampacity of the main cable, the main fuse, and its breaking capacity.

    None of them speaks against a bank: cable and fuse are renewed with it where they are too small.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _cable(build)
    yield from _short_circuit(build)


def _cable(build: Build) -> Iterator[Check]:
    amps, there = build.main_a, build.plan.installed
    if there.cable_mm2 is None:
        sized = build.criteria.sized
        if sized is None:
            yield Check(
                "cable", phrase("checks.cable_and_fuse.cable_title"), CAUTION,
                Sentence(phrase("checks.cable_and_fuse.cable"),
                         {"I": amps, "L": build.cable_m}),
                phrase("checks.cable_and_fuse.cable_remedy"), amps,
            )  # fmt: skip
            return
        mm2 = Figure(
            f"{build.at}.main_mm2", phrase("checks.cable_and_fuse.main_mm2"), sized.mm2, "mm²", REFERENCE,
            source=build.reference.cables.source, inputs={"I": amps, "L": build.cable_m},
        )  # fmt: skip
        yield Check(
            "cable", phrase("checks.cable_and_fuse.cable_title"), OK,
            Sentence(
                phrase("checks.cable_and_fuse.over_l_needs_mm2", fuse_a=f'{sized.fuse_a:g}'),
                {"I": amps, "L": build.cable_m, "mm2": mm2, "near": Figure(
                    f"{build.at}.fuse_near", phrase("checks.cable_and_fuse.fuse_near"), FUSE_WITHIN_MM, "mm",
                    REFERENCE, source=phrase("checks.cable_and_fuse.fuse_near_source"),
                )},
            ),
            figure=mm2,
        )  # fmt: skip
        return
    mm2 = build.entered(
        "rig", "cable_mm2", phrase("checks.cable_and_fuse.main_cable"), there.cable_mm2, "mm²"
    )
    ohm = resistance(there.cable_mm2, build.cable_m.number, there.clad)
    drop = computed(
        f"{build.at}.drop",
        phrase("checks.cable_and_fuse.drop"),
        amps.number * ohm / build.plan.system_v,
        "%",
        "{I} · 0.02" + (" · 1.6" if there.clad else "") + " · 2 · {L} / {A} / {V}",
        {
            "I": amps,
            "L": build.cable_m,
            "A": mm2,
            "V": build.entered(
                "rig", "system_v", phrase("terms.names.system_voltage"), build.plan.system_v, "V"
            ),
        },
        phrase("checks.cable_and_fuse.drop_source")
        + (phrase("checks.cable_and_fuse.drop_copper_clad_aluminium_1_source") if there.clad else ""),
    )
    most = build.assumptions.figure("cable_drop")._replace(unit="%")
    yield build.compare_to_limit(
        "cable_drop",
        phrase("checks.cable_and_fuse.cable_drop_title"),
        drop,
        most,
        phrase("checks.cable_and_fuse.cable_drop_holds"),
        phrase("checks.cable_and_fuse.cable_drop_broken"),
        _thicker(build),
        I=amps,
    )
    carries = Figure(
        f"{build.at}.ampacity", phrase("checks.cable_and_fuse.ampacity"),
        ampacity(there.cable_mm2, build.reference.cables, there.clad), "A",
        REFERENCE, source=build.reference.cables.source, inputs={"A": mm2},
    )  # fmt: skip
    yield build.compare_to_limit(
        "cable_load",
        phrase("checks.cable_and_fuse.cable_load_title"),
        amps,
        carries,
        phrase("checks.cable_and_fuse.cable_load_holds"),
        phrase("checks.cable_and_fuse.cable_load_broken"),
        _thicker(build),
    )
    if there.fuse_a is None:
        return
    fuse = build.entered("rig", "fuse_a", phrase("checks.cable_and_fuse.main_fuse"), there.fuse_a, "A")
    wanted = computed(
        f"{build.at}.fuse_least",
        phrase("checks.cable_and_fuse.fuse_least"),
        FUSE_MARGIN * amps.number,
        "A",
        "1.25 · {I}",
        {"I": amps},
    )
    if there.fuse_a > carries.number * (1 + 1e-9):
        yield replace(
            build.compare_to_limit(
                FUSE,
                phrase("checks.cable_and_fuse.fuse_title"),
                fuse,
                carries,
                "",
                phrase("checks.cable_and_fuse.fuse_broken"),
                phrase("checks.cable_and_fuse.fuse_remedy"),
            )
        )
        return
    yield build.compare_to_limit(
        FUSE,
        phrase("checks.cable_and_fuse.fuse_title"),
        fuse,
        wanted,
        phrase("checks.cable_and_fuse.fuse_holds"),
        phrase("checks.cable_and_fuse.fuse_less_than_1_25_broken"),
        phrase("checks.cable_and_fuse.fuse_fit_larger_fuse_cable_remedy"),
        is_minimum=True,
    )


def _thicker(build: Build) -> str:
    sized = build.criteria.sized
    if sized is None:
        return phrase("checks.cable_and_fuse.use_two_cables_parallel")
    return phrase(
        "checks.cable_and_fuse.use_mm_fuse_shorter",
        mm2=f"{sized.mm2:g}",
        awg=awg(sized.mm2),
        fuse_a=f"{sized.fuse_a:g}",
    )


def _short_circuit(build: Build) -> Iterator[Check]:
    bank, battery_class = build.bank, build.bank.model.battery_class
    class_v = build.bank.series * build.bank.model.unit_class_v
    ohm = bank_resistance(bank)
    short = short_circuit_current(battery_class, class_v, ohm)
    volts = Figure(
        f"{build.at}.v_full",
        phrase("checks.cable_and_fuse.v_full"),
        short * ohm,
        "V",
        REFERENCE,
        source=phrase("checks.cable_and_fuse.v_full_source"),
    )
    dead = computed(
        f"{build.at}.short_a", phrase("checks.cable_and_fuse.short_a"), short, "A",
        "{V_full} / {R}",
        {"V_full": volts, "R": Figure(
            f"{build.at}.ohm_new", phrase("checks.cable_and_fuse.ohm_new"), ohm, "Ω", REFERENCE,
            source="R_ref·(class/12)·(100/Ah)·n_s/n_p")},
        phrase("checks.cable_and_fuse.short_a_source"),
    )  # fmt: skip
    figure = computed(
        f"{build.at}.breaks_a", phrase("checks.cable_and_fuse.breaks_a"), breaking_a(bank), "A",
        "1.5 · {I}", {"I": dead}, phrase("checks.cable_and_fuse.breaks_a_source"),
    )  # fmt: skip
    kind = build.main_fuse_kind
    says = Sentence(
        phrase("checks.cable_and_fuse.short_circuit") + _fit(build, kind), {"x": figure, "short": dead}
    )
    if kind is None:
        divided = not will_not_do(SHORT_CIRCUIT, build.criteria)
        yield Check(
            SHORT_CIRCUIT, phrase("checks.cable_and_fuse.short_circuit_title"),
            build.verdict(SHORT_CIRCUIT, CAUTION),
            says,
            phrase("checks.cable_and_fuse.short_circuit_strings")
            if divided
            else phrase("checks.cable_and_fuse.short_circuit_none"),
            figure,
        )  # fmt: skip
        return
    breaks = build.plan.installed.fuse_breaks_a
    if breaks is None:
        hard = figure.number >= NO_STRIP_A
        yield Check(
            SHORT_CIRCUIT, phrase("checks.cable_and_fuse.short_circuit_title"), NOTE if hard else OK, says,
            phrase("checks.cable_and_fuse.short_circuit_remedy") if hard else "", figure,
        )  # fmt: skip
        return
    limit = build.entered(
        "rig", "fuse_breaks_a", phrase("checks.cable_and_fuse.fuse_breaking_capacity"), breaks, "A"
    )
    yield build.compare_to_limit(
        SHORT_CIRCUIT,
        phrase("checks.cable_and_fuse.short_circuit_title"),
        figure,
        limit,
        phrase("checks.cable_and_fuse.short_circuit_holds"),
        phrase("checks.cable_and_fuse.short_circuit_broken"),
        _fit(build, kind).strip(),
        short=dead,
    )


def _fit(build: Build, kind: FuseKind | None) -> str:
    """Which kind of fuse breaks the short circuit."""
    if kind is None:
        return phrase("checks.cable_and_fuse.common_fuse_ask_maker")
    if kind.dc_label:
        return phrase("checks.cable_and_fuse.fuse_kind_label", name=kind.name)
    return phrase("checks.cable_and_fuse.fuse_kind_does", name=kind.name, volts=f"{build.plan.system_v:g}")
