"""How the old bank aged, and what that says of the life of a new one of its class."""

from vast_harbor.core.battery.ageing import calendar_wear, cycles_at_depth
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.predecessor import Evidence, weigh
from vast_harbor.core.battery.temperature import calendar_years
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.rig.diagnosis import accident_wear, charger_at_fault, health_seen

# From here on it is worth a sentence [-].
NOTABLE = 0.1


def life_factor(
    plan: Plan, assumptions: Assumptions, days: Days, use_c: float, rest_c: float
) -> Figure | None:
    """Factor on cycles and years of the old bank's class, by how the old bank aged.

    Args:
        plan, assumptions, days: the plan and what holds for it.
        use_c, rest_c: temperatures that age a bank in use, and for the rest of the year [°C].

    Returns:
        The factor with its workings; None without an age, without a sign of its health other than its age,
        and where it was never filled: that killed it, and says nothing of its class.
    """
    old, need = plan.old_bank, days.need
    if old is None or not old.age_years or charger_at_fault(plan):
        return None
    seen = health_seen(plan, assumptions, need)
    life = assumptions.get(f"calendar_years.{old.battery_class.key}")
    if seen is None or not life.low or not life.high:
        return None
    at = "rig.predecessor"
    wear = _wear_a_year(plan, old, assumptions, days, use_c, rest_c)
    age = typed("rig.old.age_years", "Age of the old bank", old.age_years, "years", "/old_bank/age_years")
    lead, health = old.battery_class.is_lead_acid, seen.likely
    evidence = weigh(
        age.number * wear.number, health, seen.doubt, accident_wear(old), lead, life.high / life.low
    )
    expected = computed(
        f"{at}.expected", "Wear that use and years should have made of it", evidence.expected, "1",
        "{age} · {w}", {"age": age, "w": wear}, "Use as it is planned now",
    )  # fmt: skip
    shown = Figure(
        f"{at}.soh", "Its state of health, without what its age says", min(1.05, max(0.05, health)), "1",
        REFERENCE, source="Its capacity test, volts and nights",
    )  # fmt: skip
    beyond = lead and shown.number < 0.8
    accidents = Figure(
        f"{at}.accidents", "Wear of what is known to have happened to it", accident_wear(old), "1", REFERENCE,
        source="Times left low, emptied, left empty, frozen",
    )  # fmt: skip
    faded = "1 + ((1 − {SoH}) / 0.2 − 1) / 3" if beyond else "(1 − {SoH}) / 0.2"
    worn = computed(
        f"{at}.worn", "Wear that its health shows", evidence.worn, "1",
        f"max(0, {faded} − {{w_acc}})", {"SoH": shown, "w_acc": accidents},
        "SoH = 1 − 0.2 · wear, accidents taken off",
    )  # fmt: skip
    return _factor(at, old, assumptions, evidence, expected, worn)


def _factor(
    at: str, old: OldBank, assumptions: Assumptions, evidence: Evidence, expected: Figure, worn: Figure
) -> Figure:
    trust = Figure(
        f"{at}.trust", "How much of the difference is the class’s", evidence.trust, "1", REFERENCE,
        source="σ_class² / (σ_class² + σ_bank²): spread of the class against the doubt about one bank",
    )  # fmt: skip
    share = assumptions.figure("predecessor_share")
    return computed(
        f"{at}.factor", f"Life of {old.battery_class.short} here, by the old bank",
        evidence.factor(share.number), "1", "1 / (1 + {s} · {trust} · ({w_old} / {w_exp} − 1))",
        {"w_exp": expected, "w_old": worn, "trust": trust, "s": share},
        "What the old bank lasted, against what was to be expected, weighed by its doubt",
        "A factor on the cycles and the years of its class.",
    )  # fmt: skip


def _wear_a_year(
    plan: Plan, old: OldBank, assumptions: Assumptions, days: Days, use_c: float, rest_c: float
) -> Figure:
    """Wear by cycles and years that its class makes a year in this rig."""
    key, need = old.battery_class.key, days.need
    label = old.series * old.unit_v * old.parallel * old.unit_ah
    agm = assumptions.value("agm_life_factor") if key == "agm" else 1.0
    now = days.day.bank_wh.number
    day = now if old.day_then_wh is None else (now + old.day_then_wh) / 2
    of_class = ((old.battery_class.cycles_at_dod, old.battery_class.cycles.likely),)
    depth = min(1.0, need.nights.number * day / label)
    stands = cycles_at_depth(of_class, assumptions.value(f"cycle_exponent.{key}"), depth) * agm
    cycles = plan.off_grid_nights / need.nights.number / stands
    years = assumptions.value(f"calendar_years.{key}") * agm
    use, rest = (calendar_years(years, c) for c in (use_c, rest_c))
    by_age = float(calendar_wear(use, rest, min(1.0, plan.off_grid_nights / 365)))
    parts = {
        "w_cycles": Figure(
            "rig.predecessor.cycles", "Wear of its class by cycles", cycles, "1/year", REFERENCE,
            source="Off-grid nights / N over the cycles that the class stands at that depth",
        ),
        "w_years": Figure(
            "rig.predecessor.years", "Wear of its class by years", by_age, "1/year", REFERENCE,
            source="1 / calendar life of the class at the temperatures of the rig",
        ),
    }  # fmt: skip
    return computed(
        "rig.predecessor.wear", "Wear a year of such a bank", cycles + by_age, "1/year",
        "{w_cycles} + {w_years}", parts, "By hand, as a new one is reckoned without a run year",
    )  # fmt: skip


def predecessor_finding(factor: Figure | None, battery_class: BatteryClass) -> tuple[Finding, ...]:
    """A sentence where the old bank moves the life of its class by more than a tenth."""
    if factor is None or abs(factor.number - 1) < NOTABLE:
        return ()
    fast = factor.number < 1
    says = (
        f"The old bank aged {'faster' if fast else 'more slowly'} than its use and age explain, so a new "
        f"{battery_class.short} bank is reckoned with {{factor}} times the usual life."
    )
    remedy = (
        "Find out why: heat, a charger that leaves it short, times when it was left flat. Once that is "
        "mended, set how much the old bank counts to 0."
        if fast
        else "It is in good hands: treat the next one likewise."
    )
    return (Finding("predecessor", "note", "rig", Sentence(says, {"factor": factor}), remedy),)
