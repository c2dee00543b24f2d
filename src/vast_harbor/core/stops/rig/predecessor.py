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
from vast_harbor.phrases import phrase

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
    wear = wear_a_year(plan, old, assumptions, days, use_c, rest_c)
    age = typed(
        "rig.old.age_years",
        phrase("rig.predecessor.age_years"),
        old.age_years,
        "years",
        "/old_bank/age_years",
    )
    lead, health = old.battery_class.is_lead_acid, seen.likely
    evidence = weigh(
        age.number * wear.number, health, seen.doubt, accident_wear(old), lead, life.high / life.low
    )
    expected = computed(
        f"{at}.expected", phrase("rig.predecessor.expected"), evidence.expected, "%",
        "{age} · {w}", {"age": age, "w": wear}, phrase("rig.predecessor.expected_source"),
    )  # fmt: skip
    shown = Figure(
        f"{at}.soh", phrase("rig.predecessor.soh"), min(1.05, max(0.05, health)), "%",
        REFERENCE, source=phrase("rig.predecessor.soh_source"),
    )  # fmt: skip
    beyond = lead and shown.number < 0.8
    accidents = Figure(
        f"{at}.accidents", phrase("rig.predecessor.accidents"), accident_wear(old), "%", REFERENCE,
        source=phrase("rig.predecessor.accidents_source"),
    )  # fmt: skip
    faded = "1 + ((1 − {SoH}) / 0.2 − 1) / 3" if beyond else "(1 − {SoH}) / 0.2"
    worn = computed(
        f"{at}.worn", phrase("rig.predecessor.worn"), evidence.worn, "%",
        f"max(0, {faded} − {{w_acc}})", {"SoH": shown, "w_acc": accidents},
        phrase("rig.predecessor.worn_source"),
    )  # fmt: skip
    return _factor(at, old, assumptions, evidence, expected, worn)


def _factor(
    at: str, old: OldBank, assumptions: Assumptions, evidence: Evidence, expected: Figure, worn: Figure
) -> Figure:
    trust = Figure(
        f"{at}.trust", phrase("rig.predecessor.trust"), evidence.trust, "%", REFERENCE,
        source=phrase("rig.predecessor.trust_source"),
    )  # fmt: skip
    share = assumptions.figure("predecessor_share")
    return computed(
        f"{at}.factor", phrase("rig.predecessor.factor", short=old.battery_class.short),
        evidence.factor(share.number), "1", "1 / (1 + {s} · {trust} · ({w_old} / {w_exp} − 1))",
        {"w_exp": expected, "w_old": worn, "trust": trust, "s": share},
        phrase("rig.predecessor.factor_source"),
        phrase("rig.predecessor.factor_note"),
    )  # fmt: skip


def wear_a_year(
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
            "rig.predecessor.cycles", phrase("rig.predecessor.cycles"), cycles, "1/year", REFERENCE,
            source=phrase("rig.predecessor.cycles_source"),
        ),
        "w_years": Figure(
            "rig.predecessor.years", phrase("rig.predecessor.years"), by_age, "1/year", REFERENCE,
            source=phrase("rig.predecessor.years_source"),
        ),
    }  # fmt: skip
    return computed(
        "rig.predecessor.wear", phrase("rig.predecessor.wear"), cycles + by_age, "1/year",
        "{w_cycles} + {w_years}", parts, phrase("rig.predecessor.wear_source"),
    )  # fmt: skip


def predecessor_finding(factor: Figure | None, battery_class: BatteryClass) -> tuple[Finding, ...]:
    """A sentence where the old bank moves the life of its class by more than a tenth."""
    if factor is None or abs(factor.number - 1) < NOTABLE:
        return ()
    fast = factor.number < 1
    says = phrase(
        "rig.predecessor.old_bank_aged_use",
        fast="faster" if fast else phrase("rig.predecessor.old_bank_aged_use_fast"),
        short=battery_class.short,
    )
    remedy = (
        phrase("rig.predecessor.find_cause_heat_charger")
        if fast
        else phrase("rig.predecessor.treat_batteries_well_treat")
    )
    return (Finding("predecessor", "note", "rig", Sentence(says, {"factor": factor}), remedy),)
