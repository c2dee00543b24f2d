"""Remedies for a source that does not suit a bank, from a switch to a new unit."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.sources import DC_DC, ENGINE, MAINS, MPPT, PWM, SOLAR, Source
from vast_harbor.phrases import phrase

# Highest threshold at which such chargers can be told to start again, and what reaches LFP's balancing volts.
HIGHEST_REBULK_V = 13.3
BALANCES_V = (14.2, 14.6)
EASY, HANDY, TRADE = "anyone", "handy", "electrician"


@dataclass(frozen=True, slots=True)
class Rung:
    """One remedy.

    Attributes:
        key: its name.
        says: what is done.
        apply: what it makes of the source.
        parts: price of parts at the price level of the rig [money].
        hours: work [h].
        skill: ``anyone``, ``handy`` or ``electrician``.
        hidden: work that comes with it; empty for none.
        hidden_parts, hidden_hours: what that takes [money], [h].
        leaves: what remains wrong after it; empty for nothing.
    """

    key: str
    says: str
    apply: Callable[[Source], Source]
    parts: float = 0.0
    hours: float = 0.25
    skill: str = EASY
    hidden: str = ""
    leaves: str = ""
    hidden_parts: float = 0.0
    hidden_hours: float = 0.0

    @property
    def price(self) -> float:
        """All parts, those of the work that comes with it too [money]."""
        return self.parts + self.hidden_parts

    @property
    def work(self) -> float:
        """All hours, those of the work that comes with it too [h]."""
        return self.hours + self.hidden_hours


def _profile(source: Source, battery_class: BatteryClass) -> Source:
    """The source set as the class wants it."""
    lfp = not battery_class.is_lead_acid
    return replace(
        source, absorption_v=battery_class.absorption_v, float_v=battery_class.float_v, timeout_h=None,
        equalise_v=None if lfp or not battery_class.equalise_v else source.equalise_v,
        compensates=not lfp, rests=False if lfp else source.rests,
    )  # fmt: skip


def suits(battery_class: BatteryClass, absorption_v: float) -> bool:
    """Whether absorption volts suit a class: LFP 14.2 to 14.6 V, gel and AGM not much over their own."""
    if not battery_class.is_lead_acid:
        return BALANCES_V[0] <= absorption_v <= BALANCES_V[1]
    over = 0.1 if not battery_class.water else 0.4
    return battery_class.absorption_v - 0.35 <= absorption_v <= battery_class.absorption_v + over


def ladder(
    source: Source, battery_class: BatteryClass, assumptions: Assumptions, system_v: float
) -> list[Rung]:
    """The remedies that a source offers for a class, the least first.

    Args:
        source: as it is.
        battery_class: the class of the candidate.
        assumptions: prices.
        system_v: class volts of the system [V].

    Returns:
        Remedies; those that need a switch, a setting, a board or a version only where the owner said that
        this unit has it.
    """
    lfp = not battery_class.is_lead_acid
    rests = phrase("rig.source_remedies.still_stops_after_float") if lfp and source.rests else ""
    out = [
        _position(i, absorption, hold, rests, system_v / 12)
        for i, (absorption, hold) in enumerate(source.positions)
        if suits(battery_class, absorption)
    ]
    if source.adjustable:
        at, hold = (v * system_v / 12 for v in (battery_class.absorption_v, battery_class.float_v))
        volts = phrase("rig.source_remedies.v_float_v", at=f"{at:g}", hold=f"{hold:g}")
        others = phrase("rig.source_remedies.equalising_temperature_compensation") if lfp else ""
        says = phrase("rig.source_remedies.set_manually_without_time", volts=volts, others=others)
        out.append(
            Rung(
                "settings", says, lambda s: replace(_profile(s, battery_class), rests=s.rests), hours=0.5,
                skill=HANDY, leaves=rests,
            )
        )  # fmt: skip
    if source.adjustable and source.rests:
        says = phrase("rig.source_remedies.switch_off_rest_stage")
        out.append(Rung("no_rest", says, lambda s: replace(s, rests=False), skill=HANDY))
    if source.adjustable and source.rests:
        says = phrase(
            "rig.source_remedies.raise_restart_voltage_v",
            highest_rebulk_v=f"{HIGHEST_REBULK_V * system_v / 12:g}",
        )
        leaves = phrase("rig.source_remedies.still_cycles_bank_between")
        out.append(
            Rung("rebulk", says, lambda s: replace(s, rebulk_v=HIGHEST_REBULK_V), skill=HANDY, leaves=leaves)
        )
    if source.adjustable and source.equalise_v:
        says = phrase("rig.source_remedies.switch_off_equalising_desulphation")
        out.append(Rung("no_equalise", says, lambda s: replace(s, equalise_v=None)))
    if source.adjustable and lfp and source.compensates:
        says = phrase("rig.source_remedies.switch_off_temperature_compensation")
        out.append(Rung("no_compensation", says, lambda s: replace(s, compensates=False)))
    if source.adjustable and not lfp and not source.compensates and source.kind == MAINS:
        out.append(
            Rung(
                "sensor", phrase("rig.source_remedies.sensor"), lambda s: replace(s, compensates=True),
                assumptions.value("sensor_price"), 0.5, HANDY, phrase("rig.source_remedies.cable_battery"),
            )
        )  # fmt: skip
    if source.firmware and lfp:
        out.append(
            Rung(
                "firmware", phrase("rig.source_remedies.firmware"),
                lambda s: _profile(s, battery_class),
                assumptions.value("firmware_price"), 1, HANDY, phrase("rig.source_remedies.send"),
            )
        )  # fmt: skip
    if source.board and lfp:
        out.append(
            Rung(
                "board", phrase("rig.source_remedies.board"),
                lambda s: _profile(s, battery_class),
                assumptions.value("board_price"), 1.5, TRADE,
                phrase("rig.source_remedies.must_removed_mains_disconnected"), hidden_hours=0.5,
            )
        )  # fmt: skip
    new = _new_unit(source, battery_class, assumptions, system_v)
    return out if new is None else [*out, new]


def _position(index: int, absorption: float, hold: float, leaves: str, scale: float) -> Rung:
    says = phrase(
        "rig.source_remedies.set_switch_v", absorption=f"{absorption * scale:g}", hold=f"{hold * scale:g}"
    )
    return Rung(
        f"position-{index}", says, lambda s: replace(s, absorption_v=absorption, float_v=hold), leaves=leaves
    )


def _new_unit(
    source: Source, battery_class: BatteryClass, assumptions: Assumptions, system_v: float
) -> Rung | None:
    """A new unit in place of the source; None where there is none to be had."""
    amps = source.amps or 30.0

    def price(unit: str, size: float, each: str) -> float:
        return assumptions.value(unit) + assumptions.value(each) * size

    small = assumptions.value("hidden_price")
    if source.kind == MAINS:
        hidden, hours = phrase("rig.source_remedies.ac_supply_plus_cable"), 1.0
        if source.built_in:
            hidden = phrase("rig.source_remedies.old_charger_built_into")
            hidden += phrase("rig.source_remedies.ac_supply_plus_cable_fuse")
            hours = 2.5
        return Rung(
            "new", phrase("rig.source_remedies.new", amps=f'{amps:g}', short=battery_class.short),
            lambda s: replace(
                _profile(s, battery_class), rests=False, wakes=True, adjustable=True, built_in=False
            ),
            price("charger_price", amps * system_v / 12, "charger_price_a"), 2, TRADE, hidden,
            hidden_parts=small, hidden_hours=hours,
        )  # fmt: skip
    if source.kind == ENGINE and source.is_relay:
        rated = min(60.0, max(20.0, round(source.alternator_a / 2 / 10) * 10.0))
        return Rung(
            "dc_dc", phrase("rig.source_remedies.dc_dc", rated=f'{rated:g}'),
            lambda s: replace(
                _profile(s, battery_class), link=DC_DC, amps=rated, rests=False, wakes=True, adjustable=True
            ),
            price("dc_dc_price", rated * system_v / 12, "charger_price_a"), 3, HANDY,
            phrase("rig.source_remedies.fuses_both_ends_wire"),
            hidden_parts=small, hidden_hours=1,
        )  # fmt: skip
    if source.kind == ENGINE:
        return Rung(
            "new", phrase("rig.source_remedies.new_amps_dc_dc", amps=f'{amps:g}'),
            lambda s: replace(_profile(s, battery_class), wakes=True, adjustable=True),
            price("dc_dc_price", amps * system_v / 12, "charger_price_a"), 2, HANDY,
        )  # fmt: skip
    if source.kind == SOLAR:
        what = (
            phrase("rig.source_remedies.new_solar_controller")
            if source.controller == MPPT
            else phrase("rig.source_remedies.new_mppt_solar_controller")
        )
        return Rung(
            "new",
            phrase("rig.source_remedies.what_settings_short", what=what, short=battery_class.short),
            lambda s: replace(_profile(s, battery_class), controller=MPPT, adjustable=True),
            price("controller_price", source.watts, "controller_price_w"),
            1,
            HANDY,
            phrase("rig.source_remedies.disconnect_panels_before_replace")
            if source.controller == PWM
            else "",
        )
    return None


NAMES = {
    "mains": phrase("rig.source_remedies.mains_charger"),
    "generator": phrase("terms.names.generator"),
    "solar": phrase("rig.source_remedies.solar"),
    "engine": phrase("rig.source_remedies.engine"),
    "stream": phrase("rig.source_remedies.wind_water"),
    "upkeep": phrase("rig.source_remedies.starting_battery_maintainer"),
}


def name_of(source: Source) -> str:
    """What a source is called."""
    return source.name or NAMES[source.kind]


def chosen(
    plan: Plan, candidate: Candidate, battery_class: BatteryClass, assumptions: Assumptions
) -> list[tuple[Source, Rung]]:
    """The remedies chosen beside a candidate, each with its source as it is before any of them."""
    out = []
    for source in plan.sources:
        keys = {f.remedy for f in candidate.fixes if f.source == source.id}
        if keys:
            offered = ladder(source, battery_class, assumptions, plan.system_v)
            out += [(source, rung) for rung in offered if rung.key in keys]
    return out


def sources_of(
    plan: Plan, candidate: Candidate, battery_class: BatteryClass, assumptions: Assumptions
) -> tuple[Source, ...]:
    """The sources as they are beside a candidate, its chosen remedies carried out.

    Args:
        plan: with its sources.
        candidate: with its chosen remedies.
        battery_class: its class.
        assumptions: prices.

    Returns:
        Sources in the plan's order; a remedy that is not offered any more changes nothing.
    """
    made = {s.id: s for s in plan.sources}
    for source, rung in chosen(plan, candidate, battery_class, assumptions):
        made[source.id] = rung.apply(made[source.id])
    return tuple(made.values())
