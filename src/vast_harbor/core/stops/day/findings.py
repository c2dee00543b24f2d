"""What there is to say about the days: slips, traps, doubts, and loads that weigh too much."""

import re
from collections.abc import Iterator, Mapping

from vast_harbor.core.figures.workings import Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.rig.loads import AC, DC, STANDBY
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.day.energy_audit import Day
from vast_harbor.core.stops.day.load_energy import LoadFigures, hangs_on_second

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
                "AC loads run {union} a day, longer than the {stated} for which the inverter is said to be "
                "on; {union} is used.",
                {"union": union, "stated": hours.inputs["h_stated"]},
            ),
            "State more hours, or leave the field empty.",
        )
    if plan.loads and union.number <= 0 and stated:
        yield _note(
            "inverter_idle",
            Sentence(
                "The inverter is on {stated} a day with no AC load listed.",
                {"stated": hours.inputs["h_stated"]},
            ),
            "List what it is on for, or switch it off.",
        )
    if union.number > 0 and plan.inverter.efficiency >= 0.995 and plan.inverter.idle_w == 0:
        yield _note(
            "inverter_forgotten",
            Sentence("AC loads are listed, but the inverter loses nothing and idles on nothing."),
            "Put its efficiency near 0.90 and its idle draw between 3 and 25 W: the bank carries both.",
            "care",
        )
    rated = plan.inverter.rated_w
    hardest = max((f.load.run_w for f in day.loads if f.runs and f.load.supply == AC), default=0.0)
    if rated is not None and hardest > rated:
        worst = max((f for f in day.loads if f.load.supply == AC and f.runs), key=lambda f: f.load.run_w)
        yield _note(
            "inverter_too_small",
            Sentence(
                f"“{escaped(worst.load.name)}” draws {{P}}, more than the {{rated}} that the inverter gives.",
                {
                    "P": typed(f"day.load.{worst.load.id}.run_w", "It draws", worst.load.run_w, "W", ""),
                    "rated": typed(
                        "day.inverter.rated_w", "Inverter rating", rated, "W", "/day/inverter/rated_w"
                    ),
                },
            ),
            "A smaller appliance, or a larger inverter with cable and fuse for it.",
            "stop",
            worst.load.id,
        )
    for load in plan.loads:
        if load.supply == DC and load.watts >= 300 and MAINS_WORDS.search(load.name):
            yield _note(
                "mains_appliance",
                Sentence(
                    f"“{escaped(load.name)}” is listed as DC, but such appliances mostly run on mains volts."
                ),
                "If it runs from the inverter, set its supply to AC: the inverter’s losses are then counted.",
                "note",
                load.id,
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
                    f"“{escaped(heaviest.load.name)}” makes up {{share}} of the day: {{agm}} of an AGM "
                    "label or {lfp} of an LFP one are for it alone.",
                    {"share": heaviest.share(day.listed_wh)}
                    | {key: _part_of_label(label_ah[key], heaviest, day, key) for key in ("agm", "lfp")},
                ),
                _instead(heaviest),
                "care",
                heaviest.load.id,
            )
    yield from _peak_alone(day)


def _part_of_label(label: Figure, figures: LoadFigures, day: Day, key: str) -> Figure:
    """What of the label of a class a load is the reason for [Ah]."""
    share = figures.share(day.listed_wh)
    return computed(
        f"day.{figures.type.id}.load.{figures.load.id}.{key}_ah", f"Of the label for {figures.load.name}",
        label.number * share.number, "Ah", "{Ah} · {share}", {"Ah": label, "share": share},
        "Its share of the day, of what the label must say",
    )  # fmt: skip


def _instead(figures: LoadFigures) -> str:
    load = figures.load
    if COOLS.search(load.name):
        return (
            "Better insulation, air behind it, a cooler place or a smaller one may cost less than battery "
            "for it; measure it over a day first."
        )
    if load.supply == AC and HEATS.search(load.name):
        return "Heat from gas or diesel takes no battery; or keep it for hook-up days."
    if load.use == STANDBY:
        return "Switch it off while nobody needs it, or find one that idles on less."
    return "Measure it before you buy battery for it; an hour less a day may be the cheaper way."


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
            "A soft start, or one that draws less, spares the bank" if peak.start else "One that draws less"
        )
        yield _note(
            "peak_alone",
            Sentence(
                f"“{escaped(loads[worst].name)}” sets the hardest moment nearly alone: {{peak}}, {{amps}} at "
                "the bank.",
                {"peak": day.peak_w, "amps": day.peak_a},
            ),
            f"{soft}; or let nothing else run with it. Bank, fuse and cable are sized by this moment.",
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
                        f"{{I}} of “{escaped(load.name)}” are at {{V}}: that is {{P}}, not {{I}} of the "
                        "bank. "
                        "Amp-hours at different volts are never added; watt-hours are.",
                        {"I": power.inputs["I"], "V": power.inputs["V"], "P": power},
                    ),
                    "Check that these are the volts to which its amps refer.",
                    "note",
                    load.id,
                )
        yield from _crossed(figures)
        if load.measured_wh is not None and load.measured_hours < 4 and load.duty < 1:
            yield _note(
                "short_measurement",
                Sentence(f"“{escaped(load.name)}” was measured over less than four hours, though it cycles."),
                "A day and a night of measuring say more.",
                "note",
                load.id,
            )
    if plan.loads and plan.standby_w == 0 and not any(x.use == STANDBY for x in plan.loads):
        yield _note(
            "standby_missing",
            Sentence("Nothing draws while all is off, by this list; most rigs read 0.1 to 1 A then."),
            "Switch everything off and enter what the monitor still reads.",
        )
    worst = day.doubtful
    if worst is not None:
        at = f"day.{day.type.id}.doubt"
        extra = computed(
            f"{at}.wh", "What its doubt may add to the day", worst.high_wh - worst.from_bank_wh, "Wh", "",
            {"E": worst.bank_wh}, "Its high draw against its likely one, losses included",
        )  # fmt: skip
        yield _note(
            "doubt",
            Sentence(
                f"The doubt about “{escaped(worst.load.name)}” costs most battery: up to {{wh}} a day "
                "more than listed.",
                {"wh": extra},
            ),
            "Measure this one first.",
            "note",
            worst.load.id,
        )


def _crossed(figures: LoadFigures) -> Iterator[Finding]:
    """Limits and starts that lie on the wrong side of the draw."""
    load = figures.load
    at, name = f"day.load.{load.id}", escaped(load.name)
    unit = load.draw.unit
    draw = typed(f"{at}.draw", "Draw", load.draw.value, unit, "")
    wrong = [
        (
            load.low is not None and load.low > load.draw.value,
            load.low,
            unit,
            "at least {limit}, more than its {draw}",
        ),
        (
            load.high is not None and load.high < load.draw.value,
            load.high,
            unit,
            "at most {limit}, less than its {draw}",
        ),
        (
            load.start_w is not None and load.start_w < load.watts,
            load.start_w,
            "W",
            "{limit} while it starts, less than it runs at",
        ),
    ]
    for i, (is_wrong, value, its_unit, says) in enumerate(wrong):
        if is_wrong:
            limit = typed(f"{at}.limit{i}", "As stated", value, its_unit, "")
            yield _note(
                "limits_crossed",
                Sentence(f"“{name}” is said to draw {says}.", {"limit": limit, "draw": draw}),
                "One of the two is a slip; until then the draw itself is used.",
                "care",
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
            f"day.{day.type.id}.gap", "Measured against listed", off, "%",
            "{E_m} / {E_l} − 1" if more else "1 − {E_m} / {E_l}",
            {"E_m": day.measured_wh, "E_l": day.listed_wh},
        )  # fmt: skip
        yield _note(
            "measured_differs",
            Sentence(
                f"{escaped(day.type.name)}: the monitor counted {{m}}, the list says {{l}}: {{gap}} "
                f"{'more' if more else 'less'}.",
                {"m": day.measured_wh, "l": day.listed_wh, "gap": gap},
            ),
            "Something is missing from the list, runs longer than you think, or draws with everything off."
            if more
            else "Loads may run shorter or draw less than listed, it was a light day, or a charger helped.",
            "care",
        )


def _second(plan: Plan, day: Day) -> Iterator[Finding]:
    if plan.second is None or day.second_wh is None:
        return
    mean_w = day.second_wh.number / 24
    if mean_w > plan.second.limit_w:
        mean = computed(
            f"day.{day.type.id}.second_mean_w", "Mean power of the second bank's loads", mean_w, "W",
            "{E_2} / 24", {"E_2": day.second_wh},
        )  # fmt: skip
        yield _note(
            "second_limit",
            Sentence(
                f"The loads on {escaped(plan.second.name)} take {{mean}} on average, more than its "
                "charger gives.",
                {"mean": mean},
            ),
            "A larger DC-DC charger, or hang some loads on the main bank.",
            "stop",
        )
