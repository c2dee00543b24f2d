"""One sheet of settings for the bank: its sources, the discharge side, the monitor; and what conflicts."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.rig.changeover import Tick
from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.stops.banks import acts, label_or_class_exponent
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.core.stops.charging import Setting, sheets
from vast_harbor.phrases import phrase

YES, UNKNOWN = "yes", "unknown"
LOADS, MONITOR, BMS = "loads", "monitor", "bms"
# Above this LFP is kept full by its float, for a 12 V bank [V].
FLOAT_FULL_V = 13.5
# A monitor calls the bank full at so much below absorption, for 12 V [V], below this tail for some minutes.
BELOW_ABSORPTION_V, LEAD_TAIL, LFP_TAIL, TAIL_MIN = 0.2, 0.02, 0.04, 3


@dataclass(frozen=True, slots=True)
class Row:
    """One setting.

    Attributes:
        key: in the record of what is done.
        setting: what it should be, and what it is now.
        can: whether this unit can be set so: ``yes``, or ``unknown`` where the owner did not say.
        tick: what the owner said of it.
    """

    key: str
    setting: Setting
    can: str
    tick: Tick


@dataclass(frozen=True, slots=True)
class Group:
    """Settings of one device.

    Attributes:
        key, name: which.
        rows: its settings.
        note: what cannot be set.
    """

    key: str
    name: str
    rows: tuple[Row, ...]
    note: str = ""


@dataclass(frozen=True, slots=True)
class Conflict:
    """Two settings that work against each other.

    Attributes:
        key: which.
        says, remedy: what is wrong, and what to do.
    """

    key: str
    says: str
    remedy: str


def settings(work: Work) -> tuple[Group, ...]:
    """All settings for a bank, by device.

    Args:
        work: the bank that is bought.
    """
    by_id = {s.id: s for s in work.sources}
    out = []
    for sheet in sheets(work.build):
        source = by_id[sheet.source]
        can = YES if source.adjustable or source.positions else UNKNOWN
        rows = tuple(_row(work, sheet.source, s, can) for s in sheet.settings)
        out.append(Group(sheet.source, sheet.name, rows, sheet.note))
    return (*out, *_discharge(work))


def _row(work: Work, group: str, setting: Setting, can: str = UNKNOWN) -> Row:
    key = f"setting.{group}.{setting.key}"
    return Row(key, setting, can, work.record.tick(key))


def _discharge(work: Work) -> Iterator[Group]:
    loads = [Setting(a.name, a.loaded.value, "V", key=a.key) for a in acts(work.build)]
    scale = work.plan.system_v / 12
    assume, model = work.build.assumptions, work.build.bank.model
    if work.inverter:
        cut = assume.value("inverter_cut_off_v") * scale
        high = (15.0 if work.lead else 14.8) * scale
        loads.append(Setting(phrase("changeover.settings.inverter_low"), cut, "V", key="inverter_low"))
        loads.append(Setting(phrase("changeover.settings.inverter_high"), high, "V", key="inverter_high"))
    yield Group(LOADS, phrase("changeover.settings.loads"), tuple(_row(work, LOADS, s) for s in loads))
    full = model.battery_class.absorption_v * scale - BELOW_ABSORPTION_V * scale
    tail = (LEAD_TAIL if work.lead else LFP_TAIL) * work.build.bank.rated_ah
    exponent = label_or_class_exponent(assume, model)
    monitor = [
        Setting(phrase("changeover.settings.capacity"), work.build.bank.rated_ah, "Ah", key="capacity"),
        Setting(phrase("changeover.settings.charged"), full, "V", key="charged"),
        Setting(phrase("changeover.settings.tail"), tail, "A", key="tail"),
        Setting(phrase("changeover.settings.minutes"), TAIL_MIN, "min", key="minutes"),
        Setting(phrase("changeover.settings.exponent"), exponent, "1", key="exponent"),
        Setting(
            phrase("changeover.settings.efficiency"),
            model.battery_class.coulombic.likely,
            "%",
            key="efficiency",
        ),
        Setting(
            phrase("changeover.settings.zero"), None, "", phrase("changeover.settings.zero_says"), key="zero"
        ),
    ]
    yield Group(
        MONITOR, phrase("changeover.settings.monitor"), tuple(_row(work, MONITOR, s) for s in monitor)
    )
    bms = model.bms
    if bms is None or not work.sleeps:
        return
    series = work.build.bank.series
    limits = [
        Setting(
            phrase("changeover.settings.bms_low"),
            None if bms.cut_v is None else bms.cut_v * series,
            "V",
            key="low",
        ),
        Setting(
            phrase("changeover.settings.bms_amps"),
            None if bms.continuous_a is None else bms.continuous_a * work.build.bank.parallel,
            "A",
            key="amps",
        ),
        Setting(
            phrase("changeover.settings.bms_reset"),
            None,
            "",
            phrase("changeover.settings.bms_itself")
            if bms.resets == "itself"
            else phrase("changeover.settings.bms_charger"),
            key="reset",
        ),
    ]
    yield Group(
        BMS,
        phrase("changeover.settings.bms"),
        tuple(_row(work, BMS, s) for s in limits),
        phrase("changeover.settings.bms_note"),
    )


def conflicts(work: Work) -> tuple[Conflict, ...]:
    """Settings that work against each other, or against this bank.

    Args:
        work: the bank that is bought.
    """
    return tuple(_conflicts(work))


def _conflicts(work: Work) -> Iterator[Conflict]:
    scale, model = work.plan.system_v / 12, work.build.bank.model
    by_key = {a.key: a for a in acts(work.build)}
    rested = float(rested_volts(model.battery_class, work.plan.system_v, 1.0))
    reconnect, disconnect = by_key["reconnect"].loaded.number, by_key["disconnect"].loaded.number
    alarm = by_key["alarm"].loaded.number
    if reconnect >= rested:
        yield Conflict(
            "reconnect",
            phrase("changeover.conflicts.reconnect", volts=f"{reconnect:.1f}", rested=f"{rested:.1f}"),
            phrase("changeover.conflicts.reconnect_remedy", volts=f"{rested - 0.1 * scale:.1f}"),
        )
    cut = work.build.assumptions.value("inverter_cut_off_v") * scale
    if work.inverter and cut >= alarm:
        yield Conflict(
            "inverter",
            phrase("changeover.conflicts.inverter", cut=f"{cut:.1f}", alarm=f"{alarm:.1f}"),
            phrase("changeover.conflicts.inverter_remedy"),
        )
    if disconnect >= alarm:
        yield Conflict(
            "alarm",
            phrase("changeover.conflicts.alarm", volts=f"{disconnect:.1f}", alarm=f"{alarm:.1f}"),
            phrase("changeover.conflicts.alarm_remedy"),
        )
    bms = model.bms
    if work.sleeps and bms is not None and bms.cut_v is not None:
        opens = bms.cut_v * work.build.bank.series
        if opens >= disconnect:
            yield Conflict(
                "bms",
                phrase("changeover.conflicts.bms", opens=f"{opens:.1f}", volts=f"{disconnect:.1f}"),
                phrase("changeover.conflicts.bms_remedy", volts=f"{opens + 0.5 * scale:.1f}"),
            )
    if not work.lead:
        yield from _of_lfp_chargers(work, scale)


def _of_lfp_chargers(work: Work, scale: float) -> Iterator[Conflict]:
    floor = 1 - work.build.figures["dod"].number
    at_floor = float(rested_volts(work.build.bank.model.battery_class, 12, floor))
    for source in work.sources:
        name = work.name(source)
        if source.kind == MAINS and (source.float_v or 0) >= FLOAT_FULL_V:
            yield Conflict(
                f"float-{source.id}",
                phrase("changeover.conflicts.float", name=name, volts=f"{(source.float_v or 0) * scale:.1f}"),
                phrase("changeover.conflicts.float_remedy", volts=f"{13.4 * scale:.1f}"),
            )
        if source.rests and source.rebulk_v < at_floor:
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
