"""The log, as the interface is given it."""

from collections.abc import Mapping

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.entry import BANKS, FIELDS, KINDS, UNITS, Entry
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.telling.inputs import plain_number
from vast_harbor.web.base.views import view_of
from vast_harbor.web.log.models import LogEntryView, LogFieldView, LogKindView, LogNameView, LogSaidView


def kind_names() -> Mapping[str, str]:
    """What each kind of entry is called."""
    return {
        "reading": phrase("log.kinds.reading"),
        "day": phrase("log.kinds.day"),
        "test": phrase("log.kinds.test"),
        "charge": phrase("log.kinds.charge"),
        "generator": phrase("log.kinds.generator"),
        "water": phrase("log.kinds.water"),
        "equalise": phrase("log.kinds.equalise"),
        "full": phrase("log.kinds.full"),
        "deep": phrase("log.kinds.deep"),
        "fault": phrase("log.kinds.fault"),
        "setting": phrase("log.kinds.setting"),
        "cost": phrase("log.kinds.cost"),
        "receipt": phrase("log.kinds.receipt"),
        "work": phrase("log.kinds.work"),
        "note": phrase("log.kinds.note"),
    }


def bank_names() -> Mapping[str, str]:
    """What each bank is called."""
    return {
        "present": phrase("log.banks.present"),
        "old": phrase("log.banks.old"),
        "second": phrase("log.banks.second"),
        "starting": phrase("log.banks.starting"),
    }


def labels() -> Mapping[str, str]:
    """What each field is called."""
    return {
        "volts": phrase("log.fields.volts"),
        "amps": phrase("log.fields.amps"),
        "soc": phrase("log.fields.soc"),
        "celsius": phrase("log.fields.celsius"),
        "ah": phrase("log.fields.ah"),
        "wh": phrase("log.fields.wh"),
        "litres": phrase("log.fields.litres"),
        "hours": phrase("log.fields.hours"),
        "price": phrase("log.fields.price"),
        "rested": phrase("log.fields.rested"),
        "frozen": phrase("log.fields.frozen"),
        "source": phrase("log.fields.source"),
        "battery": phrase("log.fields.battery"),
    }


def entry_view(e: Entry, revision: int, rig_file: RigFile, style: Style) -> LogEntryView:
    """One entry.

    Args:
        e: the entry.
        revision: how often it was changed; 0 where it is not kept yet.
        rig_file: the rig, for the names of its sources.
        style: the owner's units.
    """
    return view_of(
        LogEntryView,
        e,
        style,
        kind_name=kind_names()[e.kind],
        bank_name=bank_names()[e.bank],
        said=_said(e, rig_file, style),
        values={
            name: plain_number(value, unit, style)
            for name, unit in UNITS.items()
            if (value := getattr(e, name)) is not None
        },
        revision=revision,
    )


def _said(entry: Entry, rig_file: RigFile, style: Style) -> list[LogSaidView]:
    names = labels()
    out = []
    if entry.battery:
        out.append(
            LogSaidView(
                field="battery", label=names["battery"], text=phrase("log.said.battery", number=entry.battery)
            )
        )
    for name in UNITS:
        value = getattr(entry, name)
        if value is not None:
            out.append(LogSaidView(field=name, label=names[name], text=_text(entry, name, value, style)))
    for name in ("rested", "frozen"):
        if getattr(entry, name):
            out.append(LogSaidView(field=name, label=names[name], text=names[name]))
    if entry.source:
        source = next((s.name for s in rig_file.sources if s.id == entry.source), "") or entry.source
        out.append(LogSaidView(field="source", label=names["source"], text=source))
    return out


def _text(entry: Entry, name: str, value: float, style: Style) -> str:
    if name == "volts":
        return style.meter_volts(value)
    if name == "amps" and entry.kind in ("reading", "full", "fault"):
        amps = style.text(abs(value), "A")
        return phrase("log.said.in", amps=amps) if value >= 0 else phrase("log.said.out", amps=amps)
    return style.text(value, "duration" if name == "hours" else UNITS[name].replace("1", "%"))


def kinds() -> list[LogKindView]:
    """All kinds of entries."""
    names = kind_names()
    return [LogKindView(key=k, name=names[k], fields=list(FIELDS[k])) for k in KINDS]


def log_fields(style: Style) -> list[LogFieldView]:
    """All numbers of entries with the unit in which they are typed."""
    names = labels()
    us = style.system == "us"
    shown = {"1": "%", "°C": "°F" if us else "°C", "l fuel": "gal" if us else "l", "money": style.currency}
    return [LogFieldView(key=k, label=names[k], unit=shown.get(u, u)) for k, u in UNITS.items()]


def banks(rig_file: RigFile) -> list[LogNameView]:
    """The banks that this rig has; what charges the engine's start is there in any."""
    names = bank_names()
    there = {"old": rig_file.old_bank is not None, "second": rig_file.second_bank is not None}
    return [LogNameView(key=b, name=names[b]) for b in BANKS if there.get(b, True)]
