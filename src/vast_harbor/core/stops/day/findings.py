"""What there is to say about the days: slips, traps, doubts, and loads that weigh too much."""

import re
from collections.abc import Iterator, Mapping

from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.rig.loads import AC, DC, STANDBY
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.day.energy_audit import Day
from vast_harbor.core.stops.day.load_energy import LoadFigures, hangs_on_second
from vast_harbor.phrases import phrase

DOMINATES = 0.4
# A load sets the peak alone when the hardest moment without it is less than this part of it.
ALONE, NOTABLE_W = 0.6, 500.0
MAINS_WORDS = re.compile(
    r"kettle|microwave|toaster|coffee|hair|iron\b|washing|induction|hob|vacuum|air.?condition|oven|household",
    re.I,
)
HEATS = re.compile(
    r"kettle|toaster|coffee|hair|iron\b|induction|hob|oven|heat|radiator|towel|blanket|cook|fryer", re.I
)
COOLS = re.compile(r"fridge|freezer|cool|chest", re.I)
MEASURED_OFF = 0.1


def day_findings(
    plan: Plan, days: Mapping[str, Day], day: Day, label_ah: Mapping[str, Figure]
) -> tuple[Finding, ...]:
    """All findings of the days, those of the governing day first.

    Args:
        plan: the plan.
        days: each kind of day, by its id.
        day: the one that governs.
        label_ah: what the need of that day asks of a label, by battery class [Ah].

    Returns:
        Findings of the Day stop.
    """
    found = [*_inverter(plan, day), *_heavy(day, label_ah), *_slips(plan, day), *_measured(days)]
    return (*found, *_second(plan, day))


def _note(code: str, text: Sentence, remedy: str, severity: str = "note", subject: str = "") -> Finding:
    return Finding(code, severity, "day", text, remedy, subject)


def _inverter(plan: Plan, day: Day) -> Iterator[Finding]:
    stated = plan.inverter.hours_on
    hours = day.inverter_hours
    union = hours.inputs["h_AC"]
    if stated is not None and stated < union.number - 1e-6:
        yield _note(
            "inverter_hours",
            Sentence(
                phrase("day.findings.inverter_hours"), {"union": union, "stated": hours.inputs["h_stated"]}
            ),
            phrase("day.findings.inverter_hours_remedy"),
        )
    if plan.loads and union.number <= 0 and stated:
        yield _note(
            "inverter_idle",
            Sentence(phrase("day.findings.inverter_idle"), {"stated": hours.inputs["h_stated"]}),
            phrase("day.findings.inverter_idle_remedy"),
        )
    if union.number > 0 and plan.inverter.efficiency >= 0.995 and plan.inverter.idle_w == 0:
        yield _note(
            "inverter_forgotten",
            Sentence(phrase("day.findings.inverter_forgotten")),
            phrase("day.findings.inverter_forgotten_remedy"),
            "caution",
        )
    rated = plan.inverter.rated_w
    hardest = max((f.load.run_w for f in day.loads if f.runs and f.load.supply == AC), default=0.0)
    if rated is not None and hardest > rated:
        worst = max((f for f in day.loads if f.load.supply == AC and f.runs), key=lambda f: f.load.run_w)
        yield _note(
            "inverter_too_small",
            Sentence(
                phrase("day.findings.inverter_too_small", name=escaped(worst.load.name)),
                {
                    "P": typed(
                        f"day.load.{worst.load.id}.run_w",
                        phrase("day.findings.run_w"),
                        worst.load.run_w,
                        "W",
                        "",
                    ),
                    "rated": typed(
                        "day.inverter.rated_w",
                        phrase("terms.names.inverter_rated_power"),
                        rated,
                        "W",
                        "/day/inverter/rated_w",
                    ),
                },
            ),
            phrase("day.findings.inverter_too_small_remedy"),
            "blocking",
            worst.load.id,
        )
    elif rated is not None and day.ac_peak_w > rated * (1 + 1e-9):
        yield _inverter_together(day, rated)
    for load in plan.loads:
        if load.supply == DC and load.watts >= 300 and MAINS_WORDS.search(load.name):
            yield _note(
                "mains_appliance",
                Sentence(phrase("day.findings.mains_appliance", name=escaped(load.name))),
                phrase("day.findings.mains_appliance_remedy"),
                "note",
                load.id,
            )


def _inverter_together(day: Day, rated: float) -> Finding:
    """AC loads that may run at once, each small enough for the inverter, but not together."""
    together = Figure(
        f"day.{day.type.id}.ac_peak_w", phrase("day.findings.ac_peak_w"), day.ac_peak_w, "W", REFERENCE,
        source=phrase("day.findings.ac_peak_w_source"),
    )  # fmt: skip
    most = typed(
        "day.inverter.rated_w",
        phrase("terms.names.inverter_rated_power"),
        rated,
        "W",
        "/day/inverter/rated_w",
    )
    over = computed(
        f"day.{day.type.id}.ac_over_w", phrase("day.findings.ac_over_w"), day.ac_peak_w - rated, "W",
        "{P} − {rated}", {"P": together, "rated": most},
    )  # fmt: skip
    return _note(
        "inverter_together",
        Sentence(phrase("day.findings.inverter_together"), {"P": together, "rated": most, "over": over}),
        phrase("day.findings.inverter_together_remedy"),
        "caution",
    )


def _heavy(day: Day, label_ah: Mapping[str, Figure]) -> Iterator[Finding]:
    running = [f for f in day.loads if f.runs]
    total = day.listed_wh.number
    if len(running) >= 2 and total > 0:
        heaviest = max(running, key=lambda f: f.from_bank_wh)
        if heaviest.from_bank_wh > DOMINATES * total:
            yield _note(
                "dominates",
                Sentence(
                    phrase("day.findings.dominates", name=escaped(heaviest.load.name)),
                    {"share": heaviest.share(day.listed_wh)}
                    | {key: _part_of_label(label_ah[key], heaviest, day, key) for key in ("agm", "lfp")},
                ),
                _instead(heaviest),
                "caution",
                heaviest.load.id,
            )
    yield from _peak_alone(day)


def _part_of_label(label: Figure, figures: LoadFigures, day: Day, key: str) -> Figure:
    """What of the label of a class a load is the reason for [Ah]."""
    share = figures.share(day.listed_wh)
    return computed(
        f"day.{figures.type.id}.load.{figures.load.id}.{key}_ah",
        phrase("day.findings.rated_capacity", name=figures.load.name),
        label.number * share.number,
        "Ah",
        "{Ah} · {share}",
        {"Ah": label, "share": share},
        phrase("day.findings.share_day_applied_rated"),
    )


def _instead(figures: LoadFigures) -> str:
    load = figures.load
    if COOLS.search(load.name):
        return phrase("day.findings.better_insulation_air_flow")
    if load.supply == AC and HEATS.search(load.name):
        return phrase("day.findings.heat_gas_diesel_instead")
    if load.use == STANDBY:
        return phrase("day.findings.switch_off_when_nobody")
    return phrase("day.findings.measure_before_buy_battery")


def _peak_alone(day: Day) -> Iterator[Finding]:
    peak = day.peak
    loads = {f.load.id: f.load for f in day.loads}
    share: dict[str, float] = {}
    for figures in day.loads:
        load = figures.load
        if load.id in peak.ids and figures.runs:
            share[load.id] = load.run_w / figures.eta.number
    if peak.start is not None:
        share[peak.start.id] = share.get(peak.start.id, 0.0) + peak.watts - peak.running_w
    if len(share) < 2 or peak.watts < NOTABLE_W:
        return
    worst = max(share, key=lambda k: share[k])
    if peak.watts - share[worst] < ALONE * peak.watts:
        soft = (
            phrase("day.findings.fit_soft_start_choose")
            if peak.start
            else phrase("day.findings.choose_draws_less")
        )
        yield _note(
            "peak_alone",
            Sentence(
                phrase("day.findings.peak_alone", name=escaped(loads[worst].name)),
                {"peak": day.peak_w, "amps": day.peak_a},
            ),
            phrase("day.findings.peak_alone_remedy", soft=soft),
            "note",
            worst,
        )


def _slips(plan: Plan, day: Day) -> Iterator[Finding]:
    for figures in day.loads:
        load = figures.load
        on_second = hangs_on_second(plan, load) and plan.second is not None
        system = plan.second.system_v if on_second and plan.second else plan.system_v
        if load.draw.unit == "A" and load.draw.value > 0 and abs(load.volts - system) > system * 0.15:
            power = figures.wh.inputs.get("P")
            if power is not None and "I" in power.inputs:
                yield _note(
                    "amps_at_other_volts",
                    Sentence(
                        phrase("day.findings.amps_at_other_volts", name=escaped(load.name)),
                        {"I": power.inputs["I"], "V": power.inputs["V"], "P": power},
                    ),
                    phrase("day.findings.amps_at_other_volts_remedy"),
                    "note",
                    load.id,
                )
        yield from _crossed(figures)
        if load.measured_wh is not None and load.measured_hours < 4 and load.duty < 1:
            yield _note(
                "short_measurement",
                Sentence(phrase("day.findings.short_measurement", name=escaped(load.name))),
                phrase("day.findings.short_measurement_remedy"),
                "note",
                load.id,
            )
    if plan.loads and plan.standby_w == 0 and not any(x.use == STANDBY for x in plan.loads):
        yield _note(
            "standby_missing",
            Sentence(phrase("day.findings.standby_missing")),
            phrase("day.findings.standby_missing_remedy"),
        )
    worst = day.doubtful
    if worst is not None:
        at = f"day.{day.type.id}.doubt"
        extra = computed(
            f"{at}.wh", phrase("day.findings.wh"), worst.high_wh - worst.from_bank_wh, "Wh", "",
            {"E": worst.bank_wh}, phrase("day.findings.wh_source"),
        )  # fmt: skip
        yield _note(
            "doubt",
            Sentence(phrase("day.findings.doubt", name=escaped(worst.load.name)), {"wh": extra}),
            phrase("day.findings.doubt_remedy"),
            "note",
            worst.load.id,
        )


def _crossed(figures: LoadFigures) -> Iterator[Finding]:
    """Limits and starts that lie on the wrong side of the draw."""
    load = figures.load
    at, name = f"day.load.{load.id}", escaped(load.name)
    unit = load.draw.unit
    draw = typed(f"{at}.draw", phrase("day.findings.power_drawn"), load.draw.value, unit, "")
    wrong = [
        (load.low is not None and load.low > load.draw.value, load.low, unit, phrase("day.findings.least")),
        (load.high is not None and load.high < load.draw.value, load.high, unit, phrase("day.findings.less")),
        (
            load.start_w is not None and load.start_w < load.watts,
            load.start_w,
            "W",
            phrase("day.findings.while_starting_less_while"),
        ),
    ]
    for i, (is_wrong, value, its_unit, says) in enumerate(wrong):
        if is_wrong:
            limit = typed(f"{at}.limit{i}", phrase("day.findings.entered"), value, its_unit, "")
            yield _note(
                "limits_crossed",
                Sentence(
                    phrase("day.findings.limits_crossed", name=name, says=says),
                    {"limit": limit, "draw": draw},
                ),
                phrase("day.findings.limits_crossed_remedy"),
                "caution",
                load.id,
            )


def _measured(days: Mapping[str, Day]) -> Iterator[Finding]:
    for day in days.values():
        if day.measured_wh is None or day.listed_wh.number <= 0:
            continue
        more = day.measured_wh.number > day.listed_wh.number
        off = abs(day.measured_wh.number / day.listed_wh.number - 1)
        if off <= MEASURED_OFF:
            continue
        gap = computed(
            f"day.{day.type.id}.gap", phrase("day.findings.gap"), off, "%",
            "{E_m} / {E_l} − 1" if more else "1 − {E_m} / {E_l}",
            {"E_m": day.measured_wh, "E_l": day.listed_wh},
        )  # fmt: skip
        yield _note(
            "measured_differs",
            Sentence(
                phrase(
                    "day.findings.measured_differs",
                    name=escaped(day.type.name),
                    more="more" if more else "less",
                ),
                {"m": day.measured_wh, "l": day.listed_wh, "gap": gap},
            ),
            phrase("day.findings.measured_differs_remedy")
            if more
            else phrase("day.findings.measured_differs_loads_may_run_less_remedy"),
            "caution",
        )


def _second(plan: Plan, day: Day) -> Iterator[Finding]:
    if plan.second is None or day.second_wh is None:
        return
    mean_w = day.second_wh.number / 24
    if mean_w > plan.second.limit_w:
        mean = computed(
            f"day.{day.type.id}.second_mean_w", phrase("day.findings.second_mean_w"), mean_w, "W",
            "{E_2} / 24", {"E_2": day.second_wh},
        )  # fmt: skip
        yield _note(
            "second_limit",
            Sentence(phrase("day.findings.second_limit", name=escaped(plan.second.name)), {"mean": mean}),
            phrase("day.findings.second_limit_remedy"),
            "blocking",
        )
