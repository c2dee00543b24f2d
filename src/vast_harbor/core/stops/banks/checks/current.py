"""Whether a bank carries the load and takes the charge."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.stops.banks.checks.check import CARE, STOP, Build, Check


def checks(build: Build) -> Iterator[Check]:
    """Running and starting current, sag under the hardest moment, and charge current.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _limits(build)
    yield from _sag(build)
    yield from _charge(build)


def _at_power(build: Build, key: str, name: str, watts: Figure) -> Figure | None:
    """I = (V₀ − √(V₀² − 4·R·P))/(2R) at the floor, cold, aged, through the cable; None where it cannot."""
    amps = build.criteria.amps_at(watts.number)
    if amps is None:
        return None
    source, ohm = build.criteria.at_floor
    at = f"{build.at}.floor"
    inputs = {
        "V_0": Figure(
            f"{at}.v0", "Volts behind the resistance, at the floor",
            source, "V", REFERENCE,
            source="Rested volts of the class, less the knee of lead-acid",
        ),
        "R": Figure(
            f"{at}.ohm", "Resistance of bank and cable, cold and aged",
            ohm, "Ω", REFERENCE,
            source="R_ref·(class/12)·(100/Ah)·n_s/n_p, with cold, age and cable",
        ),
        "P": watts,
    }  # fmt: skip
    return computed(
        f"{build.at}.{key}", name, amps, "A", "({V_0} − ({V_0}^2 − 4 · {R} · {P})^0.5) / (2 · {R})", inputs,
        "I = (OCV − √(OCV² − 4·R·P)) / (2R)",
    )  # fmt: skip


def _watts(build: Build, key: str, name: str, watts: float, says: str) -> Figure:
    day = build.hardest_day
    return Figure(f"{build.at}.{key}", f"{name} on “{day.type.name}”", watts, "W", REFERENCE, source=says)


def _cannot(code: str, name: str, watts: Figure) -> Check:
    return Check(
        code, name, STOP,
        Sentence("At its floor, cold and aged, it cannot give {P} at all: its volts collapse.", {"P": watts}),
        "A larger bank, more strings, thicker cable, or a smaller load.", watts,
    )  # fmt: skip


def _shared(build: Build, key: str, name: str, amps: float) -> Figure:
    """n_p · limit · f: what strings side by side may bear."""
    one = build.of_entry(f"{key}_one", f"{name} of one", amps, "A")
    n_p = build.figures["parallel"]
    if build.bank.parallel == 1:
        return computed(
            f"{build.at}.{key}", name, amps, "A", "{n_p} · {I}", {"n_p": n_p, "I": one}, "One string"
        )
    sharing = build.assumptions.figure("sharing")
    return computed(
        f"{build.at}.{key}", name, build.criteria.shared(amps), "A", "{n_p} · {I} · {f}",
        {"n_p": n_p, "I": one, "f": sharing}, "Sharing is never equal",
    )  # fmt: skip


def _limits(build: Build) -> Iterator[Check]:
    bms, most = build.criteria.bms, build.criteria.gives_a
    name = "Running current"
    if most is None:
        yield build.unknown(
            "continuous_current", name, "Its entry gives no highest discharge current; the sag below decides."
        )
        return
    running = _watts(
        build, "lasting_w", "Largest power", build.criteria.lasting_w,
        "What runs at once, with starts that last longer than the BMS's peak, losses included",
    )  # fmt: skip
    whose = "its BMS" if bms is not None else "it"
    amps = _at_power(build, "running_a", "Running current at the floor", running)
    limit = _shared(build, "continuous_a", "Current that it may give for ever", most)
    if amps is None:
        yield _cannot("continuous_current", name, running)
    else:
        yield build.compare_to_limit(
            "continuous_current", name, amps, limit, f"Draws {{x}} running; {whose} passes {{limit}}.",
            f"Draws {{x}} running, but {whose} passes {{limit}} for ever"
            + (" and opens: everything goes dark." if bms is not None else "."),
            STOP, "More strings, a model of more current, or do not run the big loads together.",
        )  # fmt: skip
    if bms is None:
        return
    start = _watts(
        build,
        "start_w",
        "Hardest moment",
        build.criteria.start_w,
        "What runs at once and the largest start on top",
    )
    name = "Starting current"
    amps = _at_power(build, "starting_a", "Starting current at the floor", start)
    if amps is None:
        yield _cannot("starting_current", name, start)
        return
    stated = bms.peak_a is not None
    limit = _shared(
        build, "peak_a", "Current for a moment" if stated else "Current for ever, no peak being stated",
        bms.peak_a or most,
    )  # fmt: skip
    seconds = f" for {bms.peak_s:g} s" if stated and bms.peak_s else ""
    yield build.compare_to_limit(
        "starting_current", name, amps, limit, f"Starts draw {{x}}; its BMS passes {{limit}}{seconds}.",
        f"A start draws {{x}}, but its BMS passes {{limit}}{seconds}"
        + ("." if stated else ", as it states no peak."),
        STOP,
        "A model of more current, more strings, a soft start, or a separate battery for that motor."
        if stated else
        "Ask its maker what it passes for a moment; else take a model that states it, or more strings.",
    )  # fmt: skip


def _sag(build: Build) -> Iterator[Check]:
    name = "Volts under the hardest load"
    if build.criteria.start_w <= 0:
        return
    watts = _watts(
        build,
        "start_w",
        "Hardest moment",
        build.criteria.start_w,
        "What runs at once and the largest start on top",
    )
    amps = _at_power(build, "starting_a", "Starting current at the floor", watts)
    sag = build.criteria.sag
    if amps is None or sag is None:
        yield _cannot("sag", name, watts)
        return
    volts = computed(
        f"{build.at}.sag_v", "Volts at that moment", sag.value, "V", "{V_0} − {I} · {R}",
        {"V_0": amps.inputs["V_0"], "I": amps, "R": amps.inputs["R"]},
        "V = OCV − I·R, at the floor, at the lowest temperature, aged, cable included",
    )  # fmt: skip
    lvc = build.assumptions.figure("inverter_cut_off_v")
    limit = computed(
        f"{build.at}.lvc_v", "Cut-off of the inverter", sag.limit, "V",
        "{V_LVC} · {V} / 12",
        {"V_LVC": lvc, "V": build.entered("rig", "system_v", "System voltage", build.plan.system_v, "V")},
    )  # fmt: skip
    inverter = build.criteria.has_inverter
    yield build.compare_to_limit(
        "sag", name, volts, limit,
        "At the floor, cold, it still holds {x}; " + ("the inverter gives up at {limit}." if inverter
                                                      else "{limit} is where many appliances give up."),
        "At the floor, cold, {I} pull it down to {x}; " + (
            "the inverter gives up at {limit} with the bank not empty." if inverter
            else "many appliances give up at {limit}, and lights dip."),
        STOP if inverter else CARE,
        "A larger bank, shorter or thicker cable, or start the big load while the bank is fuller.",
        is_minimum=True, I=amps,
    )  # fmt: skip


def _charge(build: Build) -> Iterator[Check]:
    name, charge = "Charge current", build.plan.charge_a
    model = build.bank.model
    one = build.of_entry(
        "charge_one", "Highest charge current of one", model.charge_a, "A",
        "" if model.limits.charge_a else f"Not stated: {model.battery_class.charge_c_rate:g} C of its class.",
    )  # fmt: skip
    limit = computed(
        f"{build.at}.charge_a", "Charge current that it may take", build.criteria.takes_a, "A",
        "{n_p} · {I}", {"n_p": build.figures["parallel"], "I": one},
    )  # fmt: skip
    if charge is None:
        yield build.unknown(
            "charge_current", name,
            "It may take {limit}. Say on the Rig stop what all your chargers give at once.", limit=limit,
        )  # fmt: skip
        return
    given = build.entered("rig", "charge_a", "All chargers at once", charge, "A")
    yield build.compare_to_limit(
        "charge_current", name, given, limit, "Your chargers give {x} at once; it may take {limit}.",
        "Your chargers give {x} at once, but it may take {limit}.", STOP,
        "Limit the chargers, charge from one source at a time, or take a larger bank.",
    )  # fmt: skip
