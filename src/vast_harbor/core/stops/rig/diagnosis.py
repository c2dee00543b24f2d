"""Is the old bank really the culprit? What its signs say, and who else may be at fault."""

from dataclasses import dataclass

from vast_harbor.core.battery.health_signs import (
    TENTH,
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
from vast_harbor.core.figures.workings import Figure, Sentence, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.rig.old_bank import tested_health

AT_FAULT, POSSIBLE, UNLIKELY, UNKNOWN = "at fault", "possible", "unlikely", "not known"
BANK, CHARGER, DRAIN, USE = "bank", "charger", "drain", "use"
# A bank below this is worn; above the other it is sound; and how likely that must be.
WORN, SOUND, SURE = 0.75, 0.85, 0.8
FULL_SOC = 0.9
# Name of the sign that says least.
AGE = "age"
DRAIN_SHARE = 0.15
GROWN, GROWN_MUCH = 1.15, 1.4
LAB_C = 15.0
# Share of a lead-acid bank’s life that each accident takes: below a fifth for over a day, emptied and
# recharged within a day, left empty for a week, frozen.
LOW_WEAR, FLAT_WEAR, EMPTY_WEAR, FROZEN_WEAR = 0.02, 0.05, 0.3, 1.0


@dataclass(frozen=True, slots=True)
class Suspect:
    """One that may be at fault.

    Attributes:
        key: ``bank``, ``charger``, ``drain`` or ``use``.
        verdict: ``at fault``, ``possible``, ``unlikely`` or ``not known``.
        says: why.
        next: what to do or to find out.
    """

    key: str
    verdict: str
    says: Sentence
    next: str


@dataclass(frozen=True, slots=True)
class Sign:
    """What one sign says of the health: its name and range [-]."""

    name: str
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Diagnosis:
    """What the signs say together.

    Attributes:
        danger: a sentence when the battery must not be used on; empty otherwise.
        health: likely state of health with its range; None when nothing is known.
        signs: what each sign says of it.
        agree: whether the signs agree.
        suspects: the bank, the charger, a hidden drain, grown use.
        says: the answer in a sentence.
    """

    danger: str
    health: Figure | None
    signs: tuple[Sign, ...]
    agree: bool
    suspects: tuple[Suspect, ...]
    says: str


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
        _bank(old, health, found, danger), _charger(old, charge), _drain(plan, need), _use(old, need, ratio)
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
    return HealthSign(found.likely, (found.high - found.low) / 2 / TENTH)


def _signs(
    plan: Plan, old: OldBank, assumptions: Assumptions, charge: Span | None, ratio: float, test: Figure | None
) -> tuple[tuple[str, HealthSign], ...]:
    """What each sign says, by its name."""
    out: list[tuple[str, HealthSign]] = []
    lead = old.battery_class.is_lead_acid
    if test is not None and test.low is not None and test.high is not None:
        out.append(("capacity test", by_test(test.low, test.high)))
    if old.loaded_v is not None and old.load_a and old.rested_v is not None and old.rested_v > old.loaded_v:
        class_v, ah = 12 * _per_12(old), old.parallel * old.unit_ah
        ohm = unit_resistance(old.battery_class, class_v, ah)
        new = float(Terminal(old.battery_class, class_v, ohm, celsius=LAB_C).resistance(1.0, 1.0))
        sag = by_sag(lead, new, old.rested_v, old.loaded_v, old.load_a, old.load_a / ah, _per_12(old))
        out.append(("volts under a load", sag))
    if old.nights_then and old.nights_now is not None:
        nights = by_nights(old.nights_then, max(0.01, old.nights_now), ratio, charge)
        out.append(("nights then and now", nights))
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
        "rig.old.health", "State of health of the old bank, by its signs", likely, "%",
        source=f"From {names}: the product of their likelihoods; the range holds eight cases of ten",
        note="A capacity test says far more than any of the others.", low=low, high=high,
    )  # fmt: skip


def _danger(old: OldBank) -> str:
    seen = [
        word for there, word in (
            (old.smells, "smells of rotten eggs"), (old.warm, "gets warm while charging"),
            (old.bulges, "has a bulging case"),
        ) if there
    ]  # fmt: skip
    if not seen:
        return ""
    return (
        f"It {' and '.join(seen)}: stop charging it, air the place, keep sparks away and do not use it on. "
        "Have it taken out."
    )


def _bank(old: OldBank, health: Figure | None, found: HealthTogether | None, danger: str) -> Suspect:
    if danger:
        return Suspect(
            BANK, AT_FAULT, Sentence("Smell, warmth or a bulge mean a damaged cell."), "Replace it."
        )
    dead = old.battery_class.is_lead_acid and old.rested_v is not None and old.rested_v / _per_12(old) < 11.2
    if dead:
        return Suspect(
            BANK,
            AT_FAULT,
            Sentence(
                "Rested volts this low after a charge mean a dead cell, or a bank that was never charged."
            ),
            "Measure each battery by itself after a full charge.",
        )
    if health is None or found is None:
        return Suspect(
            BANK, UNKNOWN, Sentence("Nothing is known of its health yet."),
            "Enter the nights then and now, or make the capacity test below.",
        )  # fmt: skip
    span = Sentence("Its capacity is about {soh} of the label.", {"soh": health})
    if found.worn > SURE:
        return Suspect(BANK, AT_FAULT, span, "It is worn out.")
    if found.sound > SURE:
        return Suspect(BANK, UNLIKELY, span, "It is sound: look further before you buy.")
    return Suspect(BANK, POSSIBLE, span, "A capacity test would tell; it takes a lamp, a clock and a meter.")


def _charger(old: OldBank, charge: Span | None) -> Suspect:
    if charge is None:
        just = old.rested_v is not None
        return Suspect(
            CHARGER, UNKNOWN,
            Sentence("Volts just after charging say nothing about being full." if just
                     else "Whether it is ever filled is not known."),
            "Read the volts the morning after the charger said full, with everything off.",
        )  # fmt: skip
    low, high = (
        Figure(f"rig.old.soc_{name}", f"State of charge by its volts, {name}", value, "%",
               source="Rested volts of the class, with the doubt of the reading")
        for name, value in zip(("lowest", "highest"), charge, strict=True)
    )  # fmt: skip
    says = Sentence("After the charger said full it held {low} to {high}.", {"low": low, "high": high})
    if high.number < FULL_SOC:
        return Suspect(
            CHARGER, AT_FAULT, says,
            "It is not filled: check the charger’s volts and times, its fuse and its cable before you buy.",
        )  # fmt: skip
    if low.number < FULL_SOC - 0.15:
        wait = "Let it rest for eight hours and read again." if old.battery_class.is_lead_acid else (
            "Volts say little of LFP: read a counting shunt, or charge until the current falls away."
        )  # fmt: skip
        return Suspect(CHARGER, POSSIBLE, says, wait)
    return Suspect(CHARGER, UNLIKELY, says, "It is filled.")


def _drain(plan: Plan, need: Need) -> Suspect:
    standby, day = need.day.standby_wh, need.day.bank_wh
    if plan.standby_w <= 0:
        return Suspect(
            DRAIN, UNKNOWN, Sentence("What still draws with everything off is not entered."),
            "Switch everything off and read the monitor; enter it on the Day stop.",
        )  # fmt: skip
    share = computed(
        "rig.old.drain_share", "Standby against the day", standby.number / day.number if day.number else 0.0,
        "%", "{E_standby} / {E_bank}" if day.number else "0", {"E_standby": standby, "E_bank": day},
    )  # fmt: skip
    says = Sentence(
        "With everything off {E} a day go all the same, {share} of the day.", {"E": standby, "share": share}
    )
    if share.number > DRAIN_SHARE:
        return Suspect(DRAIN, AT_FAULT, says, "Pull fuses one by one until the monitor falls.")
    if share.number > DRAIN_SHARE / 2:
        return Suspect(DRAIN, POSSIBLE, says, "Worth an hour with the fuses.")
    return Suspect(DRAIN, UNLIKELY, says, "That is in order.")


def _use(old: OldBank, need: Need, ratio: float) -> Suspect:
    day = need.day.bank_wh
    if old.day_then_wh is None or day.number <= 0:
        return Suspect(
            USE, UNKNOWN, Sentence("What a day took when the bank was new is not entered."),
            "Think of what has come since: a fridge, a heater, a router.",
        )  # fmt: skip
    then = typed("rig.old.day_then_wh", "A day then", old.day_then_wh, "Wh", "/old_bank/day_then_wh")
    says = Sentence("A day took {then} then and takes {now} now.", {"then": then, "now": day})
    if ratio > GROWN_MUCH:
        return Suspect(USE, AT_FAULT, says, "Even a new bank of the same size would not last as it did.")
    if ratio > GROWN:
        return Suspect(USE, POSSIBLE, says, "Part of the missing nights is use.")
    return Suspect(USE, UNLIKELY, says, "Use has not grown.")


NAMES = {BANK: "the bank", CHARGER: "the charger", DRAIN: "a hidden drain", USE: "grown use"}


def _answer(suspects: tuple[Suspect, ...], danger: str, health: Figure | None) -> str:
    if danger:
        return "The bank is damaged."
    at_fault = [NAMES[s.key] for s in suspects if s.verdict == AT_FAULT]
    if not at_fault:
        if suspects[0].verdict == UNLIKELY:
            return "The bank is sound; nothing else stands out yet."
        if suspects[0].verdict == POSSIBLE:
            return "The bank may be worn; it is not sure yet."
        return "Not enough is known yet."
    listed = at_fault[0] if len(at_fault) == 1 else f"{', '.join(at_fault[:-1])} and {at_fault[-1]}"
    if suspects[0].verdict == AT_FAULT:
        also = " Mend the rest too, or the next one goes the same way." if len(at_fault) > 1 else ""
        return f"At fault: {listed}.{also}"
    if suspects[0].verdict == UNLIKELY:
        return f"At fault: {listed}, not the bank. Mend that before you buy."
    return f"At fault: {listed}. Mend that first; then see whether the bank still fails."
