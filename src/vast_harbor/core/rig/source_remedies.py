"""Remedies for a source that does not suit a bank, from a switch to a new unit."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.sources import DC_DC, ENGINE, MAINS, MPPT, PWM, SOLAR, Source

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
        parts: price of parts at the price level of the rig [money].
        hours: work [h].
        skill: ``anyone``, ``handy`` or ``electrician``.
        hidden: work that hangs on it; empty for none.
        leaves: what remains wrong after it; empty for nothing.
        apply: what it makes of the source.
    """

    key: str
    says: str
    parts: float
    hours: float
    skill: str
    hidden: str
    leaves: str
    apply: Callable[[Source], Source]


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
        Remedies; those that need a switch or setting only where it is there.
    """
    lfp, out = not battery_class.is_lead_acid, []
    for i, (absorption, hold) in enumerate(source.positions):
        if suits(battery_class, absorption):
            left = "It still rests after float." if lfp and source.rests else ""
            out.append(_position(i, absorption, hold, left))
    if source.adjustable:
        float_v = battery_class.float_v
        out.append(
            Rung(
                "settings",
                f"Set it by hand: {battery_class.absorption_v:g} V, float {float_v:g} V, no time-out"
                + (", no equalising, no compensation." if lfp else "."),
                0,
                0.5,
                HANDY,
                "",
                "It still rests after float." if lfp and source.rests else "",
                lambda s: replace(_profile(s, battery_class), rests=s.rests),
            )
        )
        if source.rests:
            out.append(
                Rung(
                    "no_rest",
                    "Switch its rest stage off.",
                    0,
                    0.25,
                    HANDY,
                    "",
                    "",
                    lambda s: replace(s, rests=False),
                )
            )
    if source.rests:
        out.append(
            Rung(
                "rebulk",
                f"Raise the volts at which it starts again to {HIGHEST_REBULK_V:g} V, where it allows that.",
                0,
                0.25,
                HANDY,
                "",
                "It still cycles the bank between full and that threshold.",
                lambda s: replace(s, rebulk_v=HIGHEST_REBULK_V),
            )
        )
    if source.equalise_v:
        out.append(
            Rung(
                "no_equalise",
                "Switch equalising and desulphating off.",
                0,
                0.25,
                EASY,
                "",
                "",
                lambda s: replace(s, equalise_v=None),
            )
        )
    if lfp and source.compensates:
        out.append(
            Rung(
                "no_compensation",
                "Unplug its temperature sensor, or switch compensation off.",
                0,
                0.25,
                EASY,
                "",
                "",
                lambda s: replace(s, compensates=False),
            )
        )
    if not lfp and not source.compensates and source.kind == MAINS:
        out.append(
            Rung(
                "sensor",
                "Add its temperature sensor.",
                assumptions.value("sensor_price"),
                0.5,
                HANDY,
                "A cable to the battery.",
                "",
                lambda s: replace(s, compensates=True),
            )
        )
    if source.firmware and lfp:
        out.append(
            Rung(
                "firmware",
                "Have its firmware renewed to the version that knows LFP.",
                assumptions.value("firmware_price"),
                1,
                HANDY,
                "It may have to be sent in.",
                "",
                lambda s: _profile(s, battery_class),
            )
        )
    out += _new_units(source, battery_class, assumptions, system_v)
    return out


def _position(index: int, absorption: float, hold: float, leaves: str) -> Rung:
    return Rung(
        f"position-{index}", f"Set its switch to {absorption:g} / {hold:g} V.", 0, 0.25, EASY, "", leaves,
        lambda s: replace(s, absorption_v=absorption, float_v=hold),
    )  # fmt: skip


def _new_units(
    source: Source, battery_class: BatteryClass, assumptions: Assumptions, system_v: float
) -> list[Rung]:
    n = system_v / 12
    amps = source.amps or 30.0
    if source.kind == MAINS:
        price = assumptions.value("charger_price") + assumptions.value("charger_price_a") * amps * n
        return [
            Rung(
                "new",
                f"A new charger of {amps:g} A with settings for {battery_class.short}.",
                price,
                2,
                TRADE,
                "Its AC supply; cable and fuse for its current.",
                "",
                lambda s: replace(_profile(s, battery_class), rests=False, wakes=True, adjustable=True),
            )
        ]
    if source.kind == ENGINE and source.is_relay:
        rated = min(60.0, max(20.0, round(source.alternator_a / 2 / 10) * 10.0))
        price = assumptions.value("dc_dc_price") + assumptions.value("charger_price_a") * rated * n
        return [
            Rung(
                "dc_dc",
                f"A DC-DC charger of {rated:g} A in place of the relay.",
                price,
                3,
                HANDY,
                "Fuses at both ends; a wire that tells it when the engine runs.",
                "",
                lambda s: replace(
                    _profile(s, battery_class),
                    link=DC_DC,
                    amps=rated,
                    rests=False,
                    wakes=True,
                    adjustable=True,
                ),
            )
        ]
    if source.kind == ENGINE:
        price = assumptions.value("dc_dc_price") + assumptions.value("charger_price_a") * amps * n
        return [
            Rung(
                "new",
                f"A new DC-DC charger of {amps:g} A.",
                price,
                2,
                HANDY,
                "",
                "",
                lambda s: replace(_profile(s, battery_class), wakes=True, adjustable=True),
            )
        ]
    if source.kind == SOLAR:
        price = assumptions.value("controller_price") + assumptions.value("controller_price_w") * source.watts
        word = "a new controller" if source.controller == MPPT else "a controller that seeks the best point"
        return [
            Rung(
                "new",
                f"{word[0].upper()}{word[1:]}, with settings for {battery_class.short}.",
                price,
                1,
                HANDY,
                "Panels off before it is changed." if source.controller == PWM else "",
                "",
                lambda s: replace(_profile(s, battery_class), controller=MPPT, adjustable=True),
            )
        ]
    return []


NAMES = {
    "mains": "Mains charger", "generator": "Generator", "solar": "Solar", "engine": "Engine",
    "stream": "Wind or water", "upkeep": "Upkeep of the starting battery",
}  # fmt: skip


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
