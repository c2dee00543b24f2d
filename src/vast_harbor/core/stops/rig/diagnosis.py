"""Is the old bank really the culprit? What its signs say, and who else may be at fault."""

from vast_harbor.core.battery.health_signs import (
    HealthSign,
    HealthTogether,
    Span,
    by_age,
    by_nights,
    by_sag,
    by_test,
    charge_by_volts,
    clipped,
    together,
)
from vast_harbor.core.battery.terminal_voltage import Terminal, unit_resistance
from vast_harbor.core.figures.normal import Z_90
from vast_harbor.core.figures.workings import Figure, Sentence, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.core.rig.topics import LOADS
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.rig.old_bank import tested_health
from vast_harbor.core.stops.rig.suspects import (
    AT_FAULT,
    BANK,
    CHARGER,
    DRAIN,
    POSSIBLE,
    UNKNOWN,
    UNLIKELY,
    USE,
    Diagnosis,
    Sign,
    Suspect,
)
from vast_harbor.phrases import and_list, phrase

# A bank below this is worn; above the other it is sound; and how likely that must be.
WORN, SOUND, SURE = 0.75, 0.85, 0.8
FULL_SOC = 0.9
# Name of the sign that says least.
AGE = "age"
DRAIN_SHARE = 0.15
# A sag so many times that of a new bank, and of so many volts at 12 V, is no wear any more [-], [V].
BROKEN_SAG, BROKEN_SAG_V = 8.0, 1.0
GROWN, GROWN_MUCH = 1.15, 1.4
LAB_C = 15.0
# Share of a lead-acid bank’s life that each accident takes: below a fifth for over a day, emptied and
# recharged within a day, left empty for a week, frozen.
LOW_WEAR, FLAT_WEAR, EMPTY_WEAR, FROZEN_WEAR = 0.02, 0.05, 0.3, 1.0


# What is left of an old bank of which nothing is known [-]: it is to be replaced, so it is worn.
UNKNOWN_HEALTH = 0.7


def old_health(diagnosis: Diagnosis | None, unknown: float = UNKNOWN_HEALTH) -> float:
    """State of health of the old bank that its figures are computed with [-]: from 0.05 to 1.

    Args:
        diagnosis: what the signs say; None without signs.
        unknown: what it is where nothing is known of it.
    """
    health = None if diagnosis is None else diagnosis.health
    return unknown if health is None or not health.value else max(0.05, min(1.0, health.value))


def diagnose(plan: Plan, assumptions: Assumptions, need: Need) -> Diagnosis | None:
    """What the owner knows of the old bank, put together; None without one.

    Args:
        plan, assumptions, need: the plan and what follows from it.

    Returns:
        The diagnosis.
    """
    old = plan.old_bank
    if old is None:
        return None
    charge = _charge(old, plan)
    ratio = _use_ratio(old, need)
    test = tested_health(plan, assumptions)
    signs = _signs(plan, old, assumptions, charge, ratio, test)
    found = together([s for _, s in signs], WORN, SOUND) if signs else None
    health = test if test is not None else _health(signs, found)
    danger = _danger(old)
    suspects = (
        _bank(old, health, found, danger, {name for name, _ in signs}), _charger(old, charge),
        _drain(plan, need), _use(old, need, ratio),
    )  # fmt: skip
    shown = tuple(Sign(name, *sign.span) for name, sign in signs)
    agree = found is None or found.agree
    return Diagnosis(danger, health, shown, agree, suspects, _answer(suspects, danger, health))


def _per_12(old: OldBank) -> float:
    cells = old.series * old.unit_v / old.battery_class.cell_v
    return cells / (6 if old.battery_class.is_lead_acid else 4)


def _charge(old: OldBank, plan: Plan) -> Span | None:
    if old.rested_v is None:
        return None
    return charge_by_volts(old.battery_class, old.rested_v / _per_12(old), old.rested_hours)


def _use_ratio(old: OldBank, need: Need) -> float:
    now = need.day.bank_wh.number
    return now / old.day_then_wh if old.day_then_wh and now > 0 else 1.0


def accident_wear(old: OldBank) -> float:
    """Wear by all that happened to it [-]."""
    kinds = (
        (old.left_low, LOW_WEAR), (old.deep_accidents, FLAT_WEAR), (old.left_empty, EMPTY_WEAR),
        (old.frozen, FROZEN_WEAR),
    )  # fmt: skip
    return sum(times * wear for times, wear in kinds)


def charger_at_fault(plan: Plan) -> bool:
    """Whether the old bank is seen never to be filled."""
    charge = _charge(plan.old_bank, plan) if plan.old_bank is not None else None
    return charge is not None and charge[1] < FULL_SOC


def health_seen(plan: Plan, assumptions: Assumptions, need: Need) -> HealthSign | None:
    """Health of the old bank by all signs but its age; None where there is no other."""
    old = plan.old_bank
    if old is None:
        return None
    test = tested_health(plan, assumptions)
    signs = _signs(plan, old, assumptions, _charge(old, plan), _use_ratio(old, need), test)
    seen = [sign for name, sign in signs if name != AGE]
    if not seen:
        return None
    found = together(seen, WORN, SOUND)
    return HealthSign(found.likely, (found.high - found.low) / 2 / Z_90)


def _signs(
    plan: Plan, old: OldBank, assumptions: Assumptions, charge: Span | None, ratio: float, test: Figure | None
) -> tuple[tuple[str, HealthSign], ...]:
    """What each sign says, by its name."""
    if old.logged is not None:
        return ((phrase("rig.diagnosis.logged"), old.logged),)
    out: list[tuple[str, HealthSign]] = []
    lead = old.battery_class.is_lead_acid
    if test is not None and test.low is not None and test.high is not None:
        out.append((phrase("rig.diagnosis.capacity_test"), by_test(test.low, test.high)))
    if old.loaded_v is not None and old.load_a and old.rested_v is not None and old.rested_v > old.loaded_v:
        class_v, ah = 12 * _per_12(old), old.parallel * old.unit_ah
        ohm = unit_resistance(old.battery_class, class_v, ah)
        new = float(Terminal(old.battery_class, class_v, ohm, celsius=LAB_C).resistance(1.0, 1.0))
        sag = by_sag(lead, new, old.rested_v, old.loaded_v, old.load_a, old.load_a / ah, _per_12(old))
        out.append((phrase("rig.diagnosis.voltage_under_load"), sag))
    if old.nights_then and old.nights_now is not None:
        nights = by_nights(old.nights_then, max(0.01, old.nights_now), ratio, charge)
        out.append((phrase("rig.diagnosis.nights_then_now"), nights))
    if old.age_years is not None:
        life = assumptions.get(f"calendar_years.{old.battery_class.key}")
        wear = accident_wear(old) if lead else 0.0
        low, high = life.low or life.figure().number, life.high or life.figure().number
        out.append((AGE, by_age(old.age_years, low, high, wear, lead)))
    return tuple(out)


def _health(signs: tuple[tuple[str, HealthSign], ...], found: HealthTogether | None) -> Figure | None:
    """The likely health by all signs together."""
    if found is None:
        return None
    low, high = clipped(found.low, found.high)
    _, likely = clipped(found.likely, found.likely)
    names = ", ".join(name for name, _ in signs)
    return Figure(
        "rig.old.health", phrase("rig.diagnosis.health"), likely, "%",
        source=phrase("rig.diagnosis.health_source", names=names),
        note=phrase("rig.diagnosis.health_note"), low=low, high=high,
    )  # fmt: skip


def _danger(old: OldBank) -> str:
    seen = [
        word
        for there, word in (
            (old.smells, phrase("rig.diagnosis.smells_rotten_eggs")),
            (old.warm, phrase("rig.diagnosis.gets_warm_while_charging")),
            (old.bulges, phrase("rig.diagnosis.bulging_case")),
        )
        if there
    ]
    if not seen:
        return ""
    return phrase("rig.diagnosis.bank_stop_charging_ventilate", seen=and_list(seen))


def _sags_too_far(old: OldBank) -> bool:
    """Whether the sag under a known load is beyond that of any bank that is only worn."""
    if old.loaded_v is None or not old.load_a or old.rested_v is None:
        return False
    class_v, ah = 12 * _per_12(old), old.parallel * old.unit_ah
    ohm = unit_resistance(old.battery_class, class_v, ah)
    new = float(Terminal(old.battery_class, class_v, ohm, celsius=LAB_C).resistance(1.0, 1.0))
    # A worn-out bank sags three times as far as a new one; from eight times on something is broken.
    least = max(BROKEN_SAG_V * _per_12(old), BROKEN_SAG * old.load_a * new)
    return old.rested_v - old.loaded_v > least


def _bank(
    old: OldBank, health: Figure | None, found: HealthTogether | None, danger: str, names: set[str]
) -> Suspect:
    if danger:
        return Suspect(
            BANK,
            AT_FAULT,
            Sentence(phrase("rig.diagnosis.smell_warmth_bulge_means")),
            phrase("rig.diagnosis.replace_bank"),
        )
    dead = old.battery_class.is_lead_acid and old.rested_v is not None and old.rested_v / _per_12(old) < 11.2
    if dead:
        return Suspect(
            BANK,
            AT_FAULT,
            Sentence(phrase("rig.diagnosis.resting_voltage_low_after")),
            phrase("rig.diagnosis.measure_battery_separately_after"),
        )
    if _sags_too_far(old):
        return Suspect(
            BANK,
            AT_FAULT,
            Sentence(phrase("rig.diagnosis.sags_beyond_wear")),
            phrase("rig.diagnosis.measure_battery_and_joints"),
        )
    if health is None or found is None:
        return Suspect(
            BANK, UNKNOWN, Sentence(phrase("rig.diagnosis.nothing_known_about_health")),
            phrase("rig.diagnosis.enter_how_many_nights"),
        )  # fmt: skip
    span = Sentence(phrase("rig.diagnosis.about_rated_capacity_left"), {"soh": health})
    # How old a bank is convicts it of nothing: some last twice as long as others.
    if found.worn > SURE and names != {AGE}:
        return Suspect(BANK, AT_FAULT, span, phrase("rig.diagnosis.worn_out"))
    if found.sound > SURE:
        return Suspect(BANK, UNLIKELY, span, phrase("rig.diagnosis.healthy_look_another_cause"))
    return Suspect(BANK, POSSIBLE, span, phrase("rig.diagnosis.capacity_test_gives_answer"))


def _charger(old: OldBank, charge: Span | None) -> Suspect:
    if charge is None:
        just = old.rested_v is not None
        return Suspect(
            CHARGER, UNKNOWN,
            Sentence(phrase("rig.diagnosis.voltage_just_after_charging") if just
                     else phrase("rig.diagnosis.known_whether_bank_ever")),
            phrase("rig.diagnosis.read_voltage_everything_off"),
        )  # fmt: skip
    low, high = (
        Figure(f"rig.old.soc_{name}", phrase("rig.diagnosis.state_charge_voltage", name=name), value, "%",
               source=phrase("rig.diagnosis.resting_voltage_class_uncertainty"))
        for name, value in zip(("lowest", "highest"), charge, strict=True)
    )  # fmt: skip
    says = Sentence(phrase("rig.diagnosis.when_charger_showed_full"), {"low": low, "high": high})
    if high.number < FULL_SOC:
        return Suspect(
            CHARGER, AT_FAULT, says,
            phrase("rig.diagnosis.charger_fill_check_chargers"),
        )  # fmt: skip
    if low.number < FULL_SOC - 0.15:
        wait = phrase("rig.diagnosis.let_bank_rest_eight") if old.battery_class.is_lead_acid else (
            phrase("rig.diagnosis.voltage_tells_little_about")
        )  # fmt: skip
        return Suspect(CHARGER, POSSIBLE, says, wait)
    return Suspect(CHARGER, UNLIKELY, says, phrase("rig.diagnosis.charger_fills"))


def _drain(plan: Plan, need: Need) -> Suspect:
    standby, day = need.day.standby_wh, need.day.bank_wh
    if plan.standby_w <= 0:
        return Suspect(
            DRAIN, UNKNOWN, Sentence(phrase("rig.diagnosis.entered_still_drawn_everything")),
            phrase("rig.diagnosis.switch_everything_off_read"),
        )  # fmt: skip
    share = computed(
        "rig.old.drain_share",
        phrase("rig.diagnosis.drain_share"),
        standby.number / day.number if day.number else 0.0,
        "%",
        "{E_standby} / {E_bank}" if day.number else "0",
        {"E_standby": standby, "E_bank": day},
    )
    says = Sentence(phrase("rig.diagnosis.even_everything_off_day"), {"E": standby, "share": share})
    if plan.stated.get(LOADS) is False:
        # What a pattern filled in clears nobody, and convicts nobody.
        return Suspect(
            DRAIN, UNKNOWN, Sentence(phrase("rig.diagnosis.standby_only_assumed"), {"E": standby}),
            phrase("rig.diagnosis.switch_everything_off_read"),
        )  # fmt: skip
    if share.number > DRAIN_SHARE:
        return Suspect(DRAIN, AT_FAULT, says, phrase("rig.diagnosis.pull_fuses_until_reading"))
    if share.number > DRAIN_SHARE / 2:
        return Suspect(DRAIN, POSSIBLE, says, phrase("rig.diagnosis.hour_spent_checking_fuses"))
    return Suspect(DRAIN, UNLIKELY, says, phrase("rig.diagnosis.normal"))


def _use(old: OldBank, need: Need, ratio: float) -> Suspect:
    day = need.day.bank_wh
    if old.day_then_wh is None or day.number <= 0:
        return Suspect(
            USE, UNKNOWN, Sentence(phrase("rig.diagnosis.entered_how_much_used")),
            phrase("rig.diagnosis.think_added_since_fridge"),
        )  # fmt: skip
    then = typed(
        "rig.old.day_then_wh",
        phrase("rig.diagnosis.day_then_wh"),
        old.day_then_wh,
        "Wh",
        "/old_bank/day_then_wh",
    )
    says = Sentence(phrase("rig.diagnosis.used_day_then_use"), {"then": then, "now": day})
    if ratio > GROWN_MUCH:
        return Suspect(USE, AT_FAULT, says, phrase("rig.diagnosis.new_bank_same_size"))
    if ratio > GROWN:
        return Suspect(USE, POSSIBLE, says, phrase("rig.diagnosis.part_loss_higher_use"))
    return Suspect(USE, UNLIKELY, says, phrase("rig.diagnosis.use_grown"))


NAMES = {
    BANK: phrase("rig.diagnosis.bank"),
    CHARGER: phrase("terms.names.charger"),
    DRAIN: phrase("rig.diagnosis.hidden_drain"),
    USE: phrase("rig.diagnosis.higher_use"),
}


def _answer(suspects: tuple[Suspect, ...], danger: str, health: Figure | None) -> str:
    if danger:
        return phrase("rig.diagnosis.bank_damaged")
    at_fault = [NAMES[s.key] for s in suspects if s.verdict == AT_FAULT]
    if not at_fault:
        if suspects[0].verdict == UNLIKELY:
            return phrase("rig.diagnosis.bank_healthy_other_cause")
        if suspects[0].verdict == POSSIBLE:
            return phrase("rig.diagnosis.bank_worn_out_certain")
        return phrase("rig.diagnosis.enough_information_yet")
    listed = (
        at_fault[0]
        if len(at_fault) == 1
        else phrase("rig.diagnosis.and", at_fault=", ".join(at_fault[:-1]), at_fault_2=at_fault[-1])
    )
    if suspects[0].verdict == AT_FAULT:
        also = phrase("rig.diagnosis.fix_rest_well_next") if len(at_fault) > 1 else ""
        return phrase("rig.diagnosis.cause", listed=listed, also=also)
    if suspects[0].verdict == UNLIKELY:
        return phrase("rig.diagnosis.cause_bank_fix_before", listed=listed)
    return phrase("rig.diagnosis.cause_fix_first_then", listed=listed)
