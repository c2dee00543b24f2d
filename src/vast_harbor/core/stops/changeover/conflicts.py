"""Settings that work against each other or against the bank, each with its remedy."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.rig.sources import MAINS, Source
from vast_harbor.core.stops.changeover.settings import BMS, LOADS, MONITOR, Group, row_of
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.phrases import phrase

# Above this LFP is kept full by its float, for a 12 V bank [V]; at this it is not.
FLOAT_FULL_V, FLOAT_REST_V = 13.5, 13.4
# Under load lead-acid is empty at 1.75 V a cell: for a 12 V bank [V].
EMPTY_LEAD_V = 10.5
# Loads are disconnected so far above where the BMS opens, for a 12 V bank [V].
ABOVE_BMS_V = 0.5
# What many 12 V appliances can take at most, where no inverter says so [V]: 15 to 16.
APPLIANCES_V = 15.0


@dataclass(frozen=True, slots=True)
class Conflict:
    """Two settings that work against each other, or one that works against the bank.

    Attributes:
        key: which.
        says, remedy: what is wrong, and what to do.
    """

    key: str
    says: str
    remedy: str


def conflicts(work: Work, groups: tuple[Group, ...]) -> tuple[Conflict, ...]:
    """Settings that work against each other, or against this bank.

    A device that can be set, or of which that is not known, counts as set as it should be; one that cannot,
    as it stands now.

    Args:
        work: the bank that is bought.
        groups: its settings.
    """
    return (*_of_loads(work, groups), *_stuck(work, groups), *_of_chargers(work, groups))


def _stands(groups: tuple[Group, ...], group: str, key: str) -> float | None:
    row = row_of(groups, group, key)
    return None if row is None else row.stands


def _of_loads(work: Work, groups: tuple[Group, ...]) -> Iterator[Conflict]:
    scale, bank = work.plan.system_v / 12, work.build.bank
    rested = float(rested_volts(bank.model.battery_class, work.plan.system_v, 1.0))
    alarm, disconnect = (_stands(groups, LOADS, key) or 0.0 for key in ("alarm", "disconnect"))
    for key in ("reconnect", "inverter_restart"):
        again = _stands(groups, LOADS, key)
        if again is not None and again >= rested:
            says = (
                phrase("changeover.conflicts.reconnect", volts=f"{again:.1f}", rested=f"{rested:.1f}")
                if key == "reconnect"
                else phrase("changeover.conflicts.restart", volts=f"{again:.1f}", rested=f"{rested:.1f}")
            )
            yield Conflict(
                key,
                says,
                phrase("changeover.conflicts.reconnect_remedy", volts=f"{rested - 0.1 * scale:.1f}"),
            )
    cut = _stands(groups, LOADS, "inverter_low")
    if cut is not None and cut >= alarm:
        yield Conflict(
            "inverter",
            phrase("changeover.conflicts.inverter", cut=f"{cut:.1f}", alarm=f"{alarm:.1f}"),
            phrase("changeover.conflicts.inverter_remedy"),
        )
    yield from _of_low_cut_off(work, groups, cut)
    if disconnect >= alarm:
        yield Conflict(
            "alarm",
            phrase("changeover.conflicts.alarm", volts=f"{disconnect:.1f}", alarm=f"{alarm:.1f}"),
            phrase("changeover.conflicts.alarm_remedy"),
        )
    opens = _stands(groups, BMS, "low")
    if opens is not None and opens >= disconnect:
        yield Conflict(
            "bms",
            phrase("changeover.conflicts.bms", opens=f"{opens:.1f}", volts=f"{disconnect:.1f}"),
            phrase("changeover.conflicts.bms_remedy", volts=f"{opens + ABOVE_BMS_V * scale:.1f}"),
        )
    yield from _of_high_cut_off(work, groups)


def _of_low_cut_off(work: Work, groups: tuple[Group, ...], cut: float | None) -> Iterator[Conflict]:
    """An inverter that stops only when the bank is empty, or its BMS has opened."""
    opens = _stands(groups, BMS, "low")
    if cut is None:
        return
    if opens is not None and cut <= opens:
        yield Conflict(
            "late",
            phrase("changeover.conflicts.late_bms", cut=f"{cut:.1f}", opens=f"{opens:.1f}"),
            phrase("changeover.conflicts.late_remedy"),
        )
    elif work.lead and cut < EMPTY_LEAD_V * work.plan.system_v / 12 - 1e-9:
        yield Conflict(
            "late",
            phrase("changeover.conflicts.late_lead", cut=f"{cut:.1f}"),
            phrase("changeover.conflicts.late_remedy"),
        )


def _of_high_cut_off(work: Work, groups: tuple[Group, ...]) -> Iterator[Conflict]:
    """Sources that hold more volts than the inverter, or other appliances, can take."""
    scale = work.plan.system_v / 12
    stated = _stands(groups, LOADS, "inverter_high")
    high = APPLIANCES_V * scale if stated is None else stated
    for source in work.sources:
        held = _stands(groups, source.id, "absorption")
        if held is None:
            continue
        yield from _in_the_cold(work, source, held, high)
        if stated is not None and held >= high:
            yield Conflict(
                f"high-{source.id}",
                phrase(
                    "changeover.conflicts.high",
                    name=work.name(source),
                    volts=f"{held:.1f}",
                    high=f"{high:.1f}",
                ),
                phrase("changeover.conflicts.high_remedy"),
            )
        row = row_of(groups, source.id, "equalise")
        at = [] if row is None else [v for v in (row.setting.is_now, row.setting.value) if v is not None]
        now = max(at, default=0.0)
        if now >= high:
            yield Conflict(
                f"equalise-{source.id}",
                phrase(
                    "changeover.conflicts.equalise",
                    name=work.name(source),
                    volts=f"{now:.1f}",
                    high=f"{high:.1f}",
                ),
                phrase("changeover.conflicts.equalise_remedy"),
            )


def _in_the_cold(work: Work, source: Source, held: float, high: float) -> Iterator[Conflict]:
    """A charger that raises its volts in the cold, above what inverter or appliances can take."""
    celsius = work.build.coldest.number
    per_k = work.build.bank.model.battery_class.compensation * work.plan.system_v / 12
    raised = held + per_k * min(0.0, celsius - 25)
    if source.compensates and raised >= high > held:
        yield Conflict(
            f"cold-{source.id}",
            phrase(
                "changeover.conflicts.cold", name=work.name(source), volts=f"{raised:.1f}",
                celsius=f"{celsius:.0f}", high=f"{high:.1f}",
            ),
            phrase("changeover.conflicts.cold_remedy"),
        )  # fmt: skip


def _stuck(work: Work, groups: tuple[Group, ...]) -> Iterator[Conflict]:
    """Devices that cannot be set as they should be; what an inverter may not be has conflicts of its own."""
    for group in groups:
        for row in group.rows:
            own = row.setting.key.startswith("inverter")
            if own or not row.stuck or row.stands is None or row.setting.value is None:
                continue
            remedy = (
                phrase("changeover.conflicts.stuck_loads")
                if group.key == LOADS
                else phrase("changeover.conflicts.stuck_monitor")
                if group.key == MONITOR
                else phrase("changeover.conflicts.stuck_source")
            )
            unit = row.setting.unit
            yield Conflict(
                f"stuck-{group.key}-{row.setting.key}",
                phrase(
                    "changeover.conflicts.stuck", device=group.name, name=row.setting.name,
                    now=_number(row.stands, unit), should=_number(row.setting.value, unit),
                ),
                remedy,
            )  # fmt: skip


def _number(value: float, unit: str) -> str:
    if unit == "%":
        return f"{100 * value:.0f} %"
    return f"{value:.2f}" if unit == "1" else f"{value:.1f} {unit}"


def _of_chargers(work: Work, groups: tuple[Group, ...]) -> Iterator[Conflict]:
    if work.lead:
        return
    scale = work.plan.system_v / 12
    floor = 1 - work.build.figures["dod"].number
    at_floor = float(rested_volts(work.build.bank.model.battery_class, 12, floor))
    for source in work.sources:
        name = work.name(source)
        set_right = {r.setting.key for g in groups if g.key == source.id for r in g.rows if r.tick.done}
        if source.kind == MAINS and (source.float_v or 0) >= FLOAT_FULL_V and "float" not in set_right:
            yield Conflict(
                f"float-{source.id}",
                phrase("changeover.conflicts.float", name=name, volts=f"{(source.float_v or 0) * scale:.1f}"),
                phrase("changeover.conflicts.float_remedy", volts=f"{FLOAT_REST_V * scale:.1f}"),
            )
        if source.rests and source.rebulk_v < at_floor and "rest" not in set_right:
            yield Conflict(
                f"rest-{source.id}",
                phrase(
                    "changeover.conflicts.rest",
                    name=name,
                    volts=f"{source.rebulk_v * scale:.1f}",
                    floor=f"{at_floor * scale:.1f}",
                ),
                phrase("changeover.conflicts.rest_remedy"),
            )
