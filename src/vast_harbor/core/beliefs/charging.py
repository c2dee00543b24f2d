"""Beliefs about charging, meters and the sun."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.battery import soc_from_voltage
from vast_harbor.core.beliefs.belief import FALSE, HALF, TRUE, Claim, Ground, Settled, graded, near
from vast_harbor.core.beliefs.capacity import said
from vast_harbor.core.figures.workings import Figure, computed
from vast_harbor.core.rig.sources import ENGINE, MAINS, MPPT, MPPT_EFFICIENCY, RELAY, SOLAR, Source
from vast_harbor.core.stops.charging import MONTHS, curve, design_month
from vast_harbor.phrases import phrase

# Volts of a charge for 12 V, a level that LFP usually balances above, and volts at which PWM is rated.
CHARGE_V, BALANCE_V, PWM_V = 14.0, 14.0, 18.0
# What is looked at of a charge: lead-acid takes days for its last hundredths.
FROM_SOC, FULL_SOC = 0.2, 0.98


def claims() -> Iterator[Claim]:
    """The beliefs of this module."""
    yield Claim(
        "v13_5_fills_lfp",
        phrase("beliefs.v13_5_fills_lfp.claim"),
        "charging",
        phrase("beliefs.v13_5_fills_lfp.needs"),
        _v13_5_fills_lfp,
    )
    yield Claim(
        "engine_charger_needed",
        phrase("beliefs.engine_charger_needed.claim"),
        "charging",
        phrase("beliefs.engine_charger_needed.needs"),
        _engine_charger_needed,
    )
    yield Claim(
        "v13_after_charge_is_full",
        phrase("beliefs.v13_after_charge_is_full.claim"),
        "banks",
        phrase("beliefs.v13_after_charge_is_full.needs"),
        _v13_after_charge_is_full,
    )
    yield Claim(
        "v12_1_is_half",
        phrase("beliefs.v12_1_is_half.claim"),
        "banks",
        phrase("beliefs.v12_1_is_half.needs"),
        _v12_1_is_half,
    )
    yield Claim(
        "hours_are_ah_over_a",
        phrase("beliefs.hours_are_ah_over_a.claim"),
        "charging",
        phrase("beliefs.hours_are_ah_over_a.needs"),
        _hours_are_ah_over_a,
    )
    yield Claim(
        "more_battery_than_panel",
        phrase("beliefs.more_battery_than_panel.claim"),
        "charging",
        phrase("beliefs.more_battery_than_panel.needs"),
        _more_battery_than_panel,
    )
    yield Claim(
        "six_amps_per_100_w",
        phrase("beliefs.six_amps_per_100_w.claim"),
        "charging",
        phrase("beliefs.six_amps_per_100_w.needs"),
        _six_amps_per_100_w,
    )


def _v13_5_fills_lfp(ground: Ground) -> Settled | None:
    bank = ground.lfp.banked.bank if ground.lfp is not None else None
    if bank is None:
        return None
    battery_class, bms = bank.model.battery_class, bank.model.bms
    per_12 = ground.results.plan.system_v / 12
    stated = bms.balance_v * bank.series if bms is not None and bms.balance_v is not None else None
    soc = Figure(
        "belief.v13_5_fills_lfp.soc", phrase("beliefs.v13_5_fills_lfp.soc"),
        soc_from_voltage.soc_at(battery_class, 12.0, 13.5), "%",
        source=phrase("charging.suitability.resting_voltage_class_state"),
    )  # fmt: skip
    balance = Figure(
        "belief.v13_5_fills_lfp.balance", phrase("beliefs.v13_5_fills_lfp.balance"),
        stated or BALANCE_V * per_12, "V",
        source=phrase("beliefs.v13_5_fills_lfp.balance_source"),
    )  # fmt: skip
    return Settled(
        HALF if soc.number >= 0.9 else FALSE,
        phrase("beliefs.v13_5_fills_lfp.says"),
        {"soc": soc, "balance": balance, "volts": _on_system(ground, "v13_5_fills_lfp", 13.5)},
        {HALF: phrase("beliefs.v13_5_fills_lfp.half"), FALSE: phrase("beliefs.v13_5_fills_lfp.false")},
    )


def _engine_charger_needed(ground: Ground) -> Settled | None:
    if ground.lfp is None:
        return None
    engines = [s for s in ground.results.plan.sources if s.kind == ENGINE]
    lfp = ground.lfp.banked["nameplate_wh"]
    limit = ground.results.assumptions.figure("dc_dc_over_wh")
    judged = {s.source: s for s in ground.lfp.suitability}
    relays = [s for s in engines if s.link == RELAY]
    unsuitable = any(s.id in judged and (judged[s.id].counts or judged[s.id].chosen) for s in relays)
    return Settled(
        TRUE if unsuitable else HALF if engines and not relays else FALSE,
        phrase("beliefs.engine_charger_needed.says")
        if engines
        else phrase("beliefs.engine_charger_needed.none"),
        {"lfp": lfp, "limit": limit},
        {
            TRUE: phrase("beliefs.engine_charger_needed.true"),
            HALF: phrase("beliefs.engine_charger_needed.half"),
            FALSE: phrase("beliefs.engine_charger_needed.false"),
        },
    )


def _on_system(ground: Ground, key: str, volts_12: float) -> Figure:
    """The voltage that people name for 12 V, on the system of this rig."""
    volts = volts_12 * ground.results.plan.system_v / 12
    name, source = phrase("beliefs.v12_1_is_half.volts"), phrase("beliefs.v12_1_is_half.volts_source")
    return Figure(f"belief.{key}.volts", name, volts, "V", source=source)


def _read(ground: Ground, key: str, volts_12: float, state: str) -> tuple[Figure, Figure] | None:
    """What a reading may mean of the class of the old bank, else of the recommended one."""
    old = ground.results.plan.old_bank
    build = ground.chosen.banked.build if ground.chosen is not None else None
    if build is None:
        return None
    terminal = build.criteria.terminal
    if old is not None:
        terminal = replace(terminal, battery_class=old.battery_class)
    reading = soc_from_voltage.read(terminal, volts_12 * terminal.class_v / 12, state)
    if reading.low is None or reading.high is None:
        return None
    at, source = f"belief.{key}", phrase("charging.suitability.resting_voltage_class_state")
    return (
        Figure(f"{at}.low", phrase("beliefs.v13_after_charge_is_full.low"), reading.low, "%", source=source),
        Figure(
            f"{at}.high", phrase("beliefs.v13_after_charge_is_full.high"), reading.high, "%", source=source
        ),
    )


def _v13_after_charge_is_full(ground: Ground) -> Settled | None:
    found = _read(ground, "v13_after_charge_is_full", 13.0, soc_from_voltage.JUST_CHARGED)
    if found is None:
        return None
    low, high = found
    return Settled(
        TRUE if low.number >= 0.95 else HALF if high.number >= 0.95 else FALSE,
        phrase("beliefs.v13_after_charge_is_full.says"),
        {"low": low, "high": high, "volts": _on_system(ground, "v13_after_charge_is_full", 13.0)},
        {
            TRUE: phrase("beliefs.v13_after_charge_is_full.true"),
            HALF: phrase("beliefs.v13_after_charge_is_full.half"),
            FALSE: phrase("beliefs.v13_after_charge_is_full.false"),
        },
    )


def _v12_1_is_half(ground: Ground) -> Settled | None:
    found = _read(ground, "v12_1_is_half", 12.1, soc_from_voltage.RESTED)
    if found is None:
        return None
    low, high = found
    within = low.number <= 0.5 <= high.number
    return Settled(
        TRUE if within else HALF if min(abs(low.number - 0.5), abs(high.number - 0.5)) <= 0.1 else FALSE,
        phrase("beliefs.v12_1_is_half.says"),
        {"low": low, "high": high, "volts": _on_system(ground, "v12_1_is_half", 12.1)},
        {
            TRUE: phrase("beliefs.v12_1_is_half.true"),
            HALF: phrase("beliefs.v12_1_is_half.half"),
            FALSE: phrase("beliefs.v12_1_is_half.false"),
        },
    )


def _hours_are_ah_over_a(ground: Ground) -> Settled | None:
    results = ground.results
    simulated = {s.id: s for s in results.simulated.trial.simulated_banks}
    chosen = ground.chosen
    if chosen is None or chosen.id not in simulated:
        chosen = ground.best(lambda c: c.id in simulated)
    mains = [s for s in results.plan.sources if s.kind == MAINS and s.amps]
    if chosen is None or not mains:
        return None
    strongest = max(mains, key=lambda s: s.amps or 0)
    mine = tuple(s for s in simulated[chosen.id].sources if s.id == strongest.id)
    made = curve(simulated[chosen.id], mine, FROM_SOC, FULL_SOC, results.day.battery_c.number)
    at, ah = "belief.hours_are_ah_over_a", chosen.banked["nameplate_ah"]
    amps = Figure(f"{at}.a", phrase("charging.measured_charge.could"), strongest.amps, "A")
    simple = computed(
        f"{at}.simple", phrase("beliefs.hours_are_ah_over_a.simple"),
        (FULL_SOC - FROM_SOC) * ah.number / amps.number, "h", "0.78 · {Ah} / {I}", {"Ah": ah, "I": amps},
    )  # fmt: skip
    follows = {
        TRUE: phrase("beliefs.hours_are_ah_over_a.true"),
        HALF: phrase("beliefs.hours_are_ah_over_a.half"),
        FALSE: phrase("beliefs.hours_are_ah_over_a.false"),
    }
    source = phrase("beliefs.hours_are_ah_over_a.real_source")
    if made.ends_soc < FULL_SOC:
        end = Figure(
            f"{at}.end", phrase("beliefs.hours_are_ah_over_a.end"), made.ends_soc, "%", source=source
        )
        return Settled(
            FALSE, phrase("beliefs.hours_are_ah_over_a.never"), {"simple": simple, "end": end}, follows
        )
    real = Figure(
        f"{at}.real", phrase("beliefs.hours_are_ah_over_a.real"), float(made.hours[-1]), "h", source=source
    )
    return Settled(
        near(max(real.number, simple.number), simple.number, 0.15, 0.5),
        phrase("beliefs.hours_are_ah_over_a.says"),
        {"simple": simple, "real": real},
        follows,
    )


def _panels(ground: Ground) -> Source | None:
    return next((s for s in ground.results.plan.sources if s.kind == SOLAR and s.watts), None)


def _more_battery_than_panel(ground: Ground) -> Settled | None:
    year = ground.chosen.year if ground.chosen is not None else None
    day = ground.results.day.bank_wh
    if year is None or _panels(ground) is None or not day.number:
        return None
    offered = year.figures["offered"]
    return Settled(
        graded(offered.number / day.number, 1.0, 0.9),
        phrase("beliefs.more_battery_than_panel.says"),
        {"offered": offered, "day": day},
        {
            TRUE: phrase("beliefs.more_battery_than_panel.true"),
            HALF: phrase("beliefs.more_battery_than_panel.half"),
            FALSE: phrase("beliefs.more_battery_than_panel.false"),
        },
    )


def _six_amps_per_100_w(ground: Ground) -> Settled | None:
    simulated, panels = ground.results.simulated, _panels(ground)
    over = simulated.timeline.sunshine_of(panels) if panels is not None else None
    if over is None or panels is None or not simulated.sun.monthly:
        return None
    month = design_month(simulated.timeline, simulated.sun)
    noon = float(over.clear[month - 1].max()) / 1000
    volts = CHARGE_V * ground.results.plan.system_v / 12
    dirt = ground.results.assumptions.value("panel_dirt")
    watts = 100 * noon * dirt
    pwm_v = PWM_V * ground.results.plan.system_v / 12
    amps = Figure(
        "belief.six_amps_per_100_w.amps", phrase("beliefs.six_amps_per_100_w.amps"),
        watts * MPPT_EFFICIENCY / volts if panels.controller == MPPT else watts / pwm_v, "A",
        source=phrase("beliefs.six_amps_per_100_w.amps_source"),
    )  # fmt: skip
    return Settled(
        graded(amps.number, 5.5, 4.0),
        phrase("beliefs.six_amps_per_100_w.says", month=MONTHS[month - 1]),
        {"amps": amps, "said": said("six_amps_per_100_w", phrase("beliefs.six_amps_per_100_w.said"), 6, "A")},
        {
            TRUE: phrase("beliefs.six_amps_per_100_w.true"),
            HALF: phrase("beliefs.six_amps_per_100_w.half"),
            FALSE: phrase("beliefs.six_amps_per_100_w.false"),
        },
    )
