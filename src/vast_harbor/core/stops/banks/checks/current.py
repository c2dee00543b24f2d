"""Whether a bank carries the load and takes the charge."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.stops.banks.checks.check import CAUTION, Build, Check
from vast_harbor.phrases import phrase


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
            f"{at}.v0", phrase("checks.current.v0"),
            source, "V", REFERENCE,
            source=phrase("checks.current.v0_source"),
        ),
        "R": Figure(
            f"{at}.ohm", phrase("checks.current.ohm"),
            ohm, "Ω", REFERENCE,
            source=phrase("checks.current.ohm_source"),
        ),
        "P": watts,
    }  # fmt: skip
    return computed(
        f"{build.at}.{key}", name, amps, "A", "({V_0} − ({V_0}^2 − 4 · {R} · {P})^0.5) / (2 · {R})", inputs,
        phrase("checks.current.i_ocv_ocv_4"),
    )  # fmt: skip


def _watts(build: Build, key: str, name: str, watts: float, says: str) -> Figure:
    day = build.hardest_day
    return Figure(f"{build.at}.{key}", f"{name} on “{day.type.name}”", watts, "W", REFERENCE, source=says)


def _cannot(build: Build, code: str, name: str, watts: Figure) -> Check:
    return Check(
        code, name, build.verdict(code, CAUTION),
        Sentence(phrase("checks.current.planned_minimum_charge_cold"), {"P": watts}),
        phrase("checks.current.use_larger_bank_strings"), watts,
    )  # fmt: skip


def _shared(build: Build, key: str, name: str, amps: float) -> Figure:
    """n_p · limit · f: what strings side by side may bear."""
    one = build.of_entry(f"{key}_one", phrase("checks.current.name_one_string", name=name), amps, "A")
    n_p = build.figures["parallel"]
    if build.bank.parallel == 1:
        return computed(
            f"{build.at}.{key}",
            name,
            amps,
            "A",
            "{n_p} · {I}",
            {"n_p": n_p, "I": one},
            phrase("checks.current.string"),
        )
    sharing = build.assumptions.figure("sharing")
    return computed(
        f"{build.at}.{key}", name, build.criteria.shared(amps), "A", "{n_p} · {I} · {f}",
        {"n_p": n_p, "I": one, "f": sharing}, phrase("checks.current.strings_never_share_equally"),
    )  # fmt: skip


def _limits(build: Build) -> Iterator[Check]:
    bms, most = build.criteria.bms, build.criteria.gives_a
    name = phrase("checks.current.running_current")
    if most is None:
        yield build.unknown(
            "continuous_current", name, phrase("checks.current.datasheet_gives_maximum_discharge")
        )
        return
    running = _watts(
        build, "lasting_w", phrase("checks.current.highest_running_power"), build.criteria.lasting_w,
        phrase("checks.current.loads_run_together_including"),
    )  # fmt: skip
    whose = phrase("checks.current.bms") if bms is not None else "it"
    amps = _at_power(build, "running_a", phrase("checks.current.running_current_planned_minimum"), running)
    limit = _shared(build, "continuous_a", phrase("checks.current.continuous_discharge_current"), most)
    if amps is None:
        yield _cannot(build, "continuous_current", name, running)
    else:
        yield build.compare_to_limit(
            "continuous_current",
            name,
            amps,
            limit,
            phrase("checks.current.continuous_current_holds", whose=whose),
            phrase("checks.current.continuous_current_broken", whose=whose)
            + (
                phrase("checks.current.continuous_current_shuts_down_everything_loses_broke")
                if bms is not None
                else "."
            ),
            phrase("checks.current.continuous_current_remedy"),
        )
    if bms is None:
        return
    start = _watts(
        build,
        "start_w",
        phrase("terms.names.highest_peak_power"),
        build.criteria.start_w,
        phrase("checks.current.loads_run_together_plus"),
    )
    name = phrase("checks.current.starting_current")
    amps = _at_power(build, "starting_a", phrase("checks.current.starting_current_planned_minimum"), start)
    if amps is None:
        yield _cannot(build, "starting_current", name, start)
        return
    stated = bms.peak_a is not None
    limit = _shared(
        build,
        "peak_a",
        phrase("checks.current.peak_discharge_current")
        if stated
        else phrase("checks.current.continuous_discharge_current_because"),
        bms.peak_a or most,
    )
    seconds = phrase("checks.current.s", peak_s=f"{bms.peak_s:g}") if stated and bms.peak_s else ""
    yield build.compare_to_limit(
        "starting_current",
        name,
        amps,
        limit,
        phrase("checks.current.starting_current_holds", seconds=seconds),
        phrase("checks.current.starting_current_broken", seconds=seconds)
        + ("." if stated else phrase("checks.current.starting_current_because_no_peak_current_broken")),
        phrase("checks.current.starting_current_remedy")
        if stated
        else phrase("checks.current.starting_current_ask_maker_peak_current_remedy"),
    )


def _sag(build: Build) -> Iterator[Check]:
    name = phrase("checks.current.voltage_under_highest_load")
    if build.criteria.start_w <= 0:
        return
    watts = _watts(
        build,
        "start_w",
        phrase("terms.names.highest_peak_power"),
        build.criteria.start_w,
        phrase("checks.current.loads_run_together_plus"),
    )
    amps = _at_power(build, "starting_a", phrase("checks.current.starting_current_planned_minimum"), watts)
    sag = build.criteria.sag
    if amps is None or sag is None:
        yield _cannot(build, "sag", name, watts)
        return
    volts = computed(
        f"{build.at}.sag_v", phrase("checks.current.sag_v"), sag.value, "V", "{V_0} − {I} · {R}",
        {"V_0": amps.inputs["V_0"], "I": amps, "R": amps.inputs["R"]},
        phrase("checks.current.sag_v_source"),
    )  # fmt: skip
    lvc = build.assumptions.figure("inverter_cut_off_v")
    limit = computed(
        f"{build.at}.lvc_v",
        phrase("checks.current.lvc_v"),
        sag.limit,
        "V",
        "{V_LVC} · {V} / 12",
        {
            "V_LVC": lvc,
            "V": build.entered(
                "rig", "system_v", phrase("terms.names.system_voltage"), build.plan.system_v, "V"
            ),
        },
    )
    inverter = build.criteria.has_inverter
    yield build.compare_to_limit(
        "sag", name, volts, limit,
        phrase("checks.current.sag_holds") + (phrase("checks.current.inverter_cuts_off_limit") if inverter
                                                      else phrase("checks.current.many_appliances_cut_off")),
        phrase("checks.current.sag_broken") + (
            phrase("checks.current.sag_inverter_cuts_off_limit_broken") if inverter
            else phrase("checks.current.sag_many_appliances_cut_off_broken")),
        phrase("checks.current.sag_remedy"),
        is_minimum=True, I=amps,
    )  # fmt: skip


def _charge(build: Build) -> Iterator[Check]:
    name, charge = phrase("checks.current.charge_current"), build.plan.charge_a
    model = build.bank.model
    one = build.of_entry(
        "charge_one",
        phrase("checks.current.charge_one"),
        model.charge_a,
        "A",
        ""
        if model.limits.charge_a
        else phrase(
            "checks.current.stated_c_typical_class", charge_c_rate=f"{model.battery_class.charge_c_rate:g}"
        ),
    )
    limit = computed(
        f"{build.at}.charge_a", phrase("checks.current.charge_a"), build.criteria.takes_a, "A",
        "{n_p} · {I}", {"n_p": build.figures["parallel"], "I": one},
    )  # fmt: skip
    if charge is None:
        yield build.unknown(
            "charge_current", name,
            phrase("checks.current.take_enter_total_current"), limit=limit,
        )  # fmt: skip
        return
    together = build.entered("rig", "charge_a", phrase("checks.current.chargers_together"), charge, "A")
    arrives = build.criteria.arriving_a or 0.0
    given = together
    if arrives < charge * (1 - 1e-9):
        given = Figure(
            f"{build.at}.arriving_a", phrase("checks.current.arriving_a"), arrives, "A", REFERENCE,
            source=phrase("checks.current.arriving_a_source"), inputs={"I": together},
        )  # fmt: skip
    yield build.compare_to_limit(
        "charge_current", name, given, limit, phrase("checks.current.charge_current_holds"),
        phrase("checks.current.charge_current_broken"), phrase("checks.current.charge_current_remedy"),
    )  # fmt: skip
