"""One sheet of settings for the bank: its sources, the discharge side, the monitor, and what acts first."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from vast_harbor.core.rig.changeover import Tick
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.sources import UPKEEP, Source
from vast_harbor.core.stops.banks import acts, label_or_class_exponent
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.core.stops.charging import Setting, sheets
from vast_harbor.phrases import phrase

YES, NO, UNKNOWN = "yes", "no", "unknown"
LOADS, MONITOR, BMS = "loads", "monitor", "bms"
# Fields of ``Devices``, by device and setting.
FIELDS = {
    (LOADS, "alarm"): "alarm_v",
    (LOADS, "disconnect"): "disconnect_v",
    (LOADS, "reconnect"): "reconnect_v",
    (LOADS, "inverter_low"): "inverter_low_v",
    (LOADS, "inverter_restart"): "inverter_restart_v",
    (LOADS, "inverter_high"): "inverter_high_v",
    (MONITOR, "capacity"): "capacity_ah",
    (MONITOR, "charged"): "charged_v",
    (MONITOR, "tail"): "tail_a",
    (MONITOR, "minutes"): "minutes",
    (MONITOR, "exponent"): "exponent",
    (MONITOR, "efficiency"): "efficiency",
}
# Fields of a source, by setting.
SOURCE_FIELDS = {"absorption": "absorption_v", "float": "float_v", "equalise": "equalise_v", "amps": "amps"}
# Within so much a device stands where it should: volts of a 12 V bank [V], and all else as a share [-].
NEAR_V, NEAR = 0.05, 0.02


@dataclass(frozen=True, slots=True)
class Row:
    """One setting.

    Attributes:
        key: in the record of what is done.
        setting: what it should be, and what it is now.
        can: whether this unit can be set so: ``yes``, ``no``, or ``unknown`` where the owner did not say.
        tick: what the owner said of it.
        field: JSON pointer of the field that says what it is now; empty where there is none.
        near: how far from what it should be it may stand [unit of the setting].
    """

    key: str
    setting: Setting
    can: str
    tick: Tick
    field: str = ""
    near: float = 0.0

    @property
    def stands(self) -> float | None:
        """Where the device will stand: as it should, or as it is now where it cannot be set so."""
        setting = self.setting
        if self.can == NO and setting.is_now is not None and not self.tick.done:
            return setting.is_now
        return setting.value

    @property
    def stuck(self) -> bool:
        """Whether it cannot be set as it should be, and stands elsewhere."""
        stands, should = self.stands, self.setting.value
        if stands is None or should is None:
            return False
        return abs(stands - should) > self.near + 1e-9


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
class Guard:
    """Something that acts on the bank at some value.

    Attributes:
        key, name: which.
        value: at which it acts [V] or [A]; None where that is not known.
        unit: V or A.
    """

    key: str
    name: str
    value: float | None
    unit: str


def settings(work: Work) -> tuple[Group, ...]:
    """All settings for a bank, by device.

    Args:
        work: the bank that is bought.
    """
    places = {source.id: i for i, source in enumerate(work.plan.as_it_is.sources)}
    planned = {source.id for source in work.plan.sources if not _stands_there(source, work.plan)}
    remedied = {source.id for source, _ in work.remedies}
    by_id = {source.id: source for source in work.sources}
    out = []
    for sheet in sheets(work.build):
        source = by_id[sheet.source]
        can = YES if source.adjustable or source.positions else UNKNOWN
        # What a remedy or an improvement brings is not what stands there now.
        own = sheet.source not in remedied | planned
        rows = tuple(
            _row(
                work,
                sheet.source,
                _today(s, work.plan, sheet.source),
                can,
                f"/sources/{places[sheet.source]}/{SOURCE_FIELDS[s.key]}",
            )
            if own and s.key in SOURCE_FIELDS
            else _row(work, sheet.source, s if own else s.of_new_device(), can)
            for s in sheet.settings
        )
        out.append(Group(sheet.source, sheet.name, rows, sheet.note))
    out += [
        Group(s.id, work.name(s), (), phrase("changeover.settings.upkeep"))
        for s in work.sources
        if s.kind == UPKEEP
    ]
    return (*out, *_discharge(work))


def _stands_there(source: Source, plan: Plan) -> bool:
    """Whether a source is a device of the rig as it is today, at most set to fewer amps."""
    return any(replace(one, amps=source.amps) == source for one in plan.as_it_is.sources)


def _today(setting: Setting, plan: Plan, source: str) -> Setting:
    """A setting with the amps that the device is set to today, where fewer are planned."""
    if setting.key != "amps":
        return setting
    return replace(setting, is_now=next(s.amps for s in plan.as_it_is.sources if s.id == source))


def _row(work: Work, group: str, setting: Setting, can: str = UNKNOWN, field: str = "") -> Row:
    key = f"setting.{group}.{setting.key}"
    said = work.record.settable.get(key)
    can = can if said is None else YES if said else NO
    near = NEAR_V * work.plan.system_v / 12 if setting.unit == "V" else NEAR * abs(setting.value or 0.0)
    return Row(key, setting, can, work.record.tick(key), field, near)


def _of_device(work: Work, group: str, key: str, name: str, value: float | None, unit: str) -> Row:
    """A setting of a device that is no source: what it is now is asked on this sheet."""
    field = FIELDS[group, key]
    now: float | None = getattr(work.record.devices, field)
    if now is not None and unit == "V":
        now *= work.plan.system_v / 12
    setting = Setting(name, value, unit, is_now=now, key=key)
    return _row(work, group, setting, field=f"/changeover/devices/{field}")


def _discharge(work: Work) -> Iterator[Group]:
    scale = work.plan.system_v / 12
    assume, model = work.build.assumptions, work.build.bank.model
    by_key = {a.key: a for a in acts(work.build)}
    loads = [
        _of_device(work, LOADS, key, by_key[key].name, by_key[key].loaded.value, "V")
        for key in ("alarm", "disconnect", "reconnect")
    ]
    floor = by_key["floor"]
    loads.insert(1, _row(work, LOADS, Setting(floor.name, floor.loaded.value, "V", key="floor")))
    absorption = model.battery_class.absorption_v
    if work.inverter:
        high = (absorption + assume.value("inverter_high_above_v")) * scale
        for key, name, value in (
            (
                "inverter_low",
                phrase("changeover.settings.inverter_low"),
                assume.value("inverter_cut_off_v") * scale,
            ),
            (
                "inverter_restart",
                phrase("changeover.settings.inverter_restart"),
                by_key["reconnect"].loaded.value,
            ),
            ("inverter_high", phrase("changeover.settings.inverter_high"), high),
        ):
            loads.append(_of_device(work, LOADS, key, name, value, "V"))
    yield Group(LOADS, phrase("changeover.settings.loads"), tuple(loads))
    rated, family = work.build.bank.rated_ah, "lead_acid" if work.lead else "lfp"
    monitor = [
        _of_device(work, MONITOR, key, name, value, unit)
        for key, name, value, unit in (
            ("capacity", phrase("changeover.settings.capacity"), rated, "Ah"),
            (
                "charged",
                phrase("changeover.settings.charged"),
                (absorption - assume.value("monitor_below_v")) * scale,
                "V",
            ),
            ("tail", phrase("changeover.settings.tail"), assume.value(f"monitor_tail.{family}") * rated, "A"),
            ("minutes", phrase("changeover.settings.minutes"), assume.value("monitor_minutes"), "min"),
            ("exponent", phrase("changeover.settings.exponent"), label_or_class_exponent(assume, model), "1"),
            (
                "efficiency",
                phrase("changeover.settings.efficiency"),
                model.battery_class.coulombic.likely,
                "%",
            ),
        )
    ]
    zero = Setting(
        phrase("changeover.settings.zero"), None, "", phrase("changeover.settings.zero_says"), key="zero"
    )
    yield Group(MONITOR, phrase("changeover.settings.monitor"), (*monitor, _row(work, MONITOR, zero)))
    yield from _bms(work)


def _bms(work: Work) -> Iterator[Group]:
    bms, bank = work.build.bank.model.bms, work.build.bank
    if bms is None or not work.sleeps:
        return

    def unit_v(volts: float | None) -> float | None:
        return None if volts is None else volts * bank.series

    amps = None if bms.continuous_a is None else bms.continuous_a * bank.parallel
    resets = (
        phrase("changeover.settings.bms_itself")
        if bms.resets == "itself"
        else phrase("changeover.settings.bms_charger")
    )
    limits = [
        Setting(phrase("changeover.settings.bms_low"), unit_v(bms.cut_v), "V", key="low"),
        Setting(phrase("changeover.settings.bms_again"), unit_v(bms.reconnect_v), "V", key="again"),
        Setting(phrase("changeover.settings.bms_balance"), unit_v(bms.balance_v), "V", key="balance"),
        Setting(phrase("changeover.settings.bms_amps"), amps, "A", key="amps"),
        Setting(phrase("changeover.settings.bms_reset"), None, "", resets, key="reset"),
    ]
    yield Group(
        BMS,
        phrase("changeover.settings.bms"),
        tuple(_row(work, BMS, s) for s in limits),
        phrase("changeover.settings.bms_note"),
    )


def row_of(groups: tuple[Group, ...], group: str, key: str) -> Row | None:
    """A setting by its device and name; None where this bank or rig has none."""
    found = (r for g in groups if g.key == group for r in g.rows if r.setting.key == key)
    return next(found, None)


def guards(work: Work, groups: tuple[Group, ...]) -> tuple[tuple[Guard, ...], tuple[Guard, ...]]:
    """What acts on the bank, in the order in which it does.

    Args:
        work: the bank that is bought.
        groups: its settings.

    Returns:
        As the bank is emptied, from the highest volts down; and as the current rises, from the least up. What
        acts at a value that is not stated stands last.
    """
    names = {
        "alarm": phrase("changeover.guards.alarm"),
        "disconnect": phrase("changeover.guards.disconnect"),
        "inverter_low": phrase("changeover.guards.inverter"),
    }
    emptied = [
        Guard(key, name, row.stands, "V")
        for key, name in names.items()
        if (row := row_of(groups, LOADS, key)) is not None
    ]
    low = row_of(groups, BMS, "low")
    if low is not None:
        emptied.append(Guard("bms", phrase("changeover.guards.bms_low"), low.setting.value, "V"))
    main = work.wiring.main
    currents = [
        Guard("load", phrase("changeover.guards.load"), work.build.load_a.value, "A"),
        Guard("fuse", phrase("changeover.guards.fuse"), None if main is None else main.fuse_a, "A"),
    ]
    amps = row_of(groups, BMS, "amps")
    if amps is not None:
        currents.append(Guard("bms", phrase("changeover.guards.bms_amps"), amps.setting.value, "A"))
    return _in_order(emptied, falling=True), _in_order(currents, falling=False)


def _in_order(found: list[Guard], falling: bool) -> tuple[Guard, ...]:
    sign = -1 if falling else 1
    return tuple(sorted(found, key=lambda g: (g.value is None, sign * (g.value or 0.0))))
