"""Main cable, fuse, and what a dead short would draw."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.figures.display import awg
from vast_harbor.core.figures.interpolation import interpolate
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.installation.cables import (
    BREAKING_MARGIN,
    FUSE_MARGIN,
    FUSE_WITHIN_MM,
    fuse_kind,
    resistance,
    short_circuit_current,
)
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, OK, Build, Check


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
                "cable", "Main cable", CARE,
                Sentence("No single cable of the table carries {I} over {L} with so little drop.",
                         {"I": amps, "L": build.cable_m}),
                "Two cables in parallel, a shorter way, or a system of more volts.", amps,
            )  # fmt: skip
            return
        mm2 = Figure(
            f"{build.at}.main_mm2", "Main cable that would do", sized.mm2, "mm²", REFERENCE,
            source=build.reference.cables.source, inputs={"I": amps, "L": build.cable_m},
        )  # fmt: skip
        yield Check(
            "cable", "Main cable", OK,
            Sentence(
                f"{{I}} over {{L}} want {{mm2}} and a fuse of {sized.fuse_a:g} A, "
                "within {near} of the positive.",
                {"I": amps, "L": build.cable_m, "mm2": mm2, "near": Figure(
                    f"{build.at}.fuse_near", "The fuse stands so near to the positive", FUSE_WITHIN_MM, "mm",
                    REFERENCE, source="Practice: what lies before the fuse is not guarded",
                )},
            ),
            figure=mm2,
        )  # fmt: skip
        return
    mm2 = build.entered("rig", "cable_mm2", "Main cable", there.cable_mm2, "mm²")
    ohm = resistance(there.cable_mm2, build.cable_m.number, there.clad)
    drop = computed(
        f"{build.at}.drop", "Drop in the main cable", amps.number * ohm / build.plan.system_v, "%",
        "{I} · 0.02" + (" · 1.6" if there.clad else "") + " · 2 · {L} / {A} / {V}",
        {"I": amps, "L": build.cable_m, "A": mm2,
         "V": build.entered("rig", "system_v", "System voltage", build.plan.system_v, "V")},
        "R = ρ·2L/A, ρ 0.020 Ω·mm²/m warm copper" + ("; copper-clad aluminium × 1.6" if there.clad else ""),
    )  # fmt: skip
    most = replace(build.assumptions.figure("cable_drop"), unit="%")
    yield build.compare_to_limit(
        "cable_drop", "Drop in the main cable", drop, most, "Loses {x} at {I}; {limit} are allowed.",
        "Loses {x} at {I}; {limit} are allowed.", CARE, _thicker(build), I=amps,
    )  # fmt: skip
    carries = Figure(
        f"{build.at}.ampacity", "Current that the cable may carry",
        interpolate(build.reference.cables.ampacity,
        there.cable_mm2) / (1.6**0.5 if there.clad else 1.0), "A",
        REFERENCE, source=build.reference.cables.source, inputs={"A": mm2},
    )  # fmt: skip
    yield build.compare_to_limit(
        "cable_load", "Load of the main cable", amps, carries, "Carries {x} of the {limit} that it may.",
        "{x} are more than the {limit} that it may carry: it gets hot.", CARE, _thicker(build),
    )  # fmt: skip
    if there.fuse_a is None:
        return
    fuse = build.entered("rig", "fuse_a", "Main fuse", there.fuse_a, "A")
    wanted = computed(
        f"{build.at}.fuse_least", "Least fuse", FUSE_MARGIN * amps.number, "A", "1.25 · {I}", {"I": amps}
    )
    if there.fuse_a > carries.number * (1 + 1e-9):
        yield replace(
            build.compare_to_limit(
                "fuse", "Main fuse", fuse, carries, "", "The fuse of {x} lets through more than the {limit} "
                "that the cable may carry: the cable burns first.", CARE,
                "A smaller fuse, or a thicker cable.",
            ),
        )  # fmt: skip
        return
    yield build.compare_to_limit(
        "fuse", "Main fuse", fuse, wanted, "{x}: above {limit} and within what the cable carries.",
        "{x} are less than 1.25 times the lasting current, {limit}: it blows in use.", CARE,
        "A larger fuse where the cable carries it, else the next cable too.", is_minimum=True,
    )  # fmt: skip


def _thicker(build: Build) -> str:
    sized = build.criteria.sized
    if sized is None:
        return "Two cables in parallel, a shorter way, or a system of more volts."
    return (
        f"{sized.mm2:g} mm² ({awg(sized.mm2)}) with a fuse of {sized.fuse_a:g} A would do, or a shorter way."
    )


def _short_circuit(build: Build) -> Iterator[Check]:
    bank, battery_class = build.bank, build.bank.model.battery_class
    class_v = build.bank.series * build.bank.model.unit_class_v
    ohm = bank_resistance(bank)
    short = short_circuit_current(battery_class, class_v, ohm)
    volts = Figure(
        f"{build.at}.v_full", "Rested volts, full", short * ohm, "V", REFERENCE, source="Table of the class"
    )
    figure = computed(
        f"{build.at}.short_a", "Short-circuit current to interrupt", BREAKING_MARGIN * short, "A",
        "1.5 · {V_full} / {R}",
        {"V_full": volts, "R": Figure(
            f"{build.at}.ohm_new", "Resistance, new, at 25 °C", ohm, "Ω", REFERENCE,
            source="R_ref·(class/12)·(100/Ah)·n_s/n_p")},
        "New, full, at 25 °C; with half as much again",
    )  # fmt: skip
    highest = max(battery_class.absorption_v, build.plan.charge_v or 0.0) * class_v / 12
    kind = fuse_kind(build.reference.cables.kinds, highest, short)
    fit = f"A {kind.name} does, for up to {kind.volts:g} V." if kind else "No usual fuse does: ask the maker."
    breaks = build.plan.installed.fuse_breaks_a
    if breaks is None:
        hard = kind is None or kind.interrupts_a >= 10_000
        yield Check(
            "short_circuit", "Short circuit", NOTE if hard else OK,
            Sentence("The main fuse must interrupt {x} when a spanner falls across the bank. " + fit,
                     {"x": figure}),
            "Look at the fuse’s interrupting rating, not only at its amps." if hard else "", figure,
        )  # fmt: skip
        return
    limit = build.entered("rig", "fuse_breaks_a", "What your fuse interrupts", breaks, "A")
    yield build.compare_to_limit(
        "short_circuit", "Short circuit", figure, limit, "A dead short asks {x}; your fuse interrupts "
            "{limit}.",
        "A dead short asks {x}, but your fuse interrupts {limit}: it would arc on and burn.", CARE, fit,
    )  # fmt: skip
