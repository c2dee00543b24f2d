"""The candidates and the old bank as the simulation takes them."""

from collections.abc import Sequence

from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.datasheet import Warranty
from vast_harbor.core.battery.kibam import Wells, fit_wells, wells_rate
from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.source_remedies import sources_of
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.simulation.simulated_bank import CutOffs, SimulatedBank, simulate_bank_as
from vast_harbor.core.stops.banks import Banks, Build, label_or_class_exponent
from vast_harbor.core.stops.charging import as_built
from vast_harbor.core.stops.rig import old_health
from vast_harbor.phrases import phrase

OLD = "old"


def cut_offs(plan: Plan, assumptions: Assumptions, lead: bool) -> CutOffs:
    """When things switch off in a rig."""
    family = "lead_acid" if lead else "lfp"
    none = plan.disconnect == "none"
    return CutOffs(
        assumptions.value("inverter_cut_off_v"),
        assumptions.value("inverter_restart_v"),
        None if none else assumptions.value(f"disconnect_v.{family}"),
        assumptions.value(f"reconnect_v.{family}"),
        plan.disconnect == "not_critical",
    )


def _wells(model: BatteryModel, exponent: float) -> Wells:
    """The wells of one string of a model."""
    return fit_wells(model.ratings, exponent, wells_rate(model.battery_class))


def in_order(sources: Sequence[Source]) -> tuple[Source, ...]:
    """Sources in an order of their own: which of them comes first at the bank is not up to the list."""
    return tuple(sorted(sources, key=lambda s: (s.kind, s.watts or 0.0, s.amps or 0.0, s.id)))


def simulated_candidate(build: Build) -> SimulatedBank:
    """A candidate at the age that the need is planned for, with its sources and what is done about them."""
    build = as_built(build)
    plan, assumptions, model = build.plan, build.assumptions, build.bank.model
    return simulate_bank_as(
        build.candidate.id,
        build.bank,
        _wells(model, label_or_class_exponent(assumptions, model)),
        build.criteria.terminal.health,
        build.criteria.terminal.cable_ohm,
        build.criteria.terminal.ohm,
        assumptions.value("sharing"),
        cut_offs(plan, assumptions, build.lead),
        in_order(build.sources),
        assumptions.value(f"coulombic.{model.battery_class.key}"),
    )


def old_bank_as_bank(plan: Plan) -> Bank | None:
    """The bank that is there now, with the values of its class; None without one, or of other volts."""
    old = plan.old_bank
    if old is None or abs(old.series * old.unit_v - plan.system_v) > 0.11 * plan.system_v:
        return None
    battery_class = old.battery_class
    model = BatteryModel(
        OLD, "", phrase("terms.names.old_bank"), battery_class, round(old.unit_v / battery_class.cell_v),
        ((old.unit_ah, battery_class.rated_hours),),
        ((battery_class.cycles_at_dod, battery_class.cycles.likely),), 1.0, 0.0, Warranty(0), 24, 12,
    )  # fmt: skip
    return Bank(model, old.series, old.parallel + old.joined)


def _with_new_strings(plan: Plan, health: float) -> float:
    """State of health of the old bank together with the new strings that are joined to it [-]."""
    old = plan.old_bank
    if old is None or not old.joined:
        return health
    return (old.parallel * health + old.joined) / (old.parallel + old.joined)


def simulated_old_bank(plan: Plan, assumptions: Assumptions, banks: Banks) -> SimulatedBank | None:
    """The bank that is there now, as worn as it is; None without one, or where it does not make the volts."""
    bank = old_bank_as_bank(plan)
    if bank is None:
        return None
    model, battery_class = bank.model, bank.model.battery_class
    health = _with_new_strings(plan, old_health(banks.diagnosis))
    exponent = assumptions.value(f"peukert.{battery_class.key}")
    return simulate_bank_as(
        OLD, bank, _wells(model, exponent), health, 0.0, bank_resistance(bank),
        assumptions.value("sharing"), cut_offs(plan, assumptions, battery_class.is_lead_acid),
        in_order(sources_of(plan, Candidate(OLD, battery_class.key), battery_class, assumptions)),
        assumptions.value(f"coulombic.{battery_class.key}"),
    )  # fmt: skip


def simulated_banks(
    plan: Plan, assumptions: Assumptions, banks: Banks, with_old: bool = True
) -> tuple[SimulatedBank, ...]:
    """Every candidate that can be built, and the old bank last."""
    out = [simulated_candidate(c.build) for c in banks.candidates if c.build is not None]
    old = simulated_old_bank(plan, assumptions, banks) if with_old else None
    return tuple(out + ([old] if old is not None else []))
