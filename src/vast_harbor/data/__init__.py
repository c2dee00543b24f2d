"""Shipped reference data: battery classes, house rules, assumptions, catalogue, appliances, demo rigs."""

import csv
import json
import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.battery.catalogue_entry import model_of
from vast_harbor.core.battery.chemistry import BatteryClass, Range
from vast_harbor.core.installation.cables import CableData, FuseKind
from vast_harbor.core.rig.assumptions import CATALOGUE_CURRENCY, AssumptionEntry, HouseRule, PriceLevel
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.weather.climate import Climate, Region
from vast_harbor.phrases import phrase

DEMO_RIGS = ("kittiwake", "tern-rock", "mulga", "pebble", "long-haul")


def _toml(name: str) -> dict[str, Any]:
    return tomllib.loads((files(__package__) / name).read_text("utf-8"))


def _range(values: list[float]) -> Range:
    return Range(*(float(v) for v in values))


def _battery_class(key: str, row: dict[str, Any]) -> BatteryClass:
    return BatteryClass(
        key=key,
        code=row["code"],
        name=row["name"],
        short=row["short"],
        family=row["family"],
        cell_v=row["cell_v"],
        cycles=_range(row["cycles"]),
        cycles_at_dod=row["cycles_at_dod"],
        cycle_exponent=row["cycle_exponent"],
        calendar_years=_range(row["calendar_years"]),
        peukert=_range(row["peukert"]),
        rated_hours=row["rated_hours"],
        energy_efficiency=row["energy_efficiency"],
        charge_c_rate=row["charge_c_rate"],
        wear_c_rate=row["wear_c_rate"],
        short_of_full_penalty=_range(row["short_of_full_penalty"]),
        charge_min_c=row["charge_c"][0],
        charge_max_c=row["charge_c"][1],
        vented=row["vented"],
        water=row["water"],
        absorption_v=row["absorption_v"],
        float_v=row["float_v"],
        equalise_v=row["equalise_v"],
        compensation=row["compensation"],
        coulombic=_range(row["coulombic"]),
        acceptance_h=row["acceptance_h"],
        self_discharge=row["self_discharge"],
        gas_ma=(row["gas_ma"][0], row["gas_ma"][1]),
        discharge_c=(row["discharge_c"][0], row["discharge_c"][1]),
        storage_c=(row["storage_c"][0], row["storage_c"][1]),
        care_hours=row["care_hours"],
        wh_per_kg=row["wh_per_kg"],
        wh_per_l=row["wh_per_l"],
        resistance_mohm=row["resistance_mohm"],
        temperature_factor=tuple((float(t), float(k)) for t, k in row["temperature_factor"]),
        rested_v=tuple((float(soc), float(v)) for soc, v in row["rested_v"]),
    )


# Columns of the catalogue that are words; the rest are numbers, or yes and no.
_WORDS = frozenset(
    [
        "id",
        "maker",
        "name",
        "battery_class",
        "orientation",
        "terminals",
        "terminal_side",
        "ingress",
        "price_date",
        "warranty_conditions",
        "bms",
        "bms_resets",
        "certifications",
        "note",
    ]
)


def _cell(column: str, text: str) -> Any:
    if column in _WORDS:
        return text
    return {"yes": True, "no": False}[text] if text in ("yes", "no") else float(text)


def catalogue_rows() -> list[dict[str, str]]:
    """The shipped catalogue as it stands in its file: columns by name, as text."""
    return list(csv.DictReader((files(__package__) / "catalogue.csv").read_text("utf-8").splitlines()))


def _model(row: dict[str, str], classes: dict[str, BatteryClass]) -> BatteryModel:
    fields = {column: _cell(column, text) for column, text in row.items() if text}
    return model_of(fields, classes[fields["battery_class"]])


def _climate(key: str, row: dict[str, Any]) -> Climate:
    fields: dict[str, Any] = {k: tuple(v) if isinstance(v, list) else v for k, v in row.items()}
    return Climate(key, **fields)


def _cables() -> CableData:
    rows = _toml("cables.toml")
    return CableData(
        tuple((float(mm2), float(amps)) for mm2, amps in rows["ampacity"]),
        rows["source"],
        tuple(float(a) for a in rows["fuses"]),
        tuple(_fuse_kind(row) for row in rows["kind"]),
        rows["fuse_source"],
        rows["usual"],
    )


def _fuse_kind(row: Mapping[str, Any]) -> FuseKind:
    at_14, at_32, at_58 = (1000.0 * ka for ka in row["breaks_ka"])
    least, most = (float(a) for a in row["amps"])
    return FuseKind(row["name"], (at_14, at_32, at_58), (least, most), row["dc_label"], row["price_share"])


@cache
def reference() -> Reference:
    """The shipped reference data, read once."""
    classes = {k: _battery_class(k, r) for k, r in _toml("chemistries.toml")["class"].items()}
    rules_file = _toml("house_rules.toml")
    rules = {
        key: HouseRule(
            key,
            row["name"],
            row["argues"],
            row["life_basis"],
            {k: float(v) for k, v in row.items() if isinstance(v, int | float)},
            row["dod"],
        )
        for key, row in rules_file["rule"].items()
    }
    entries = tuple(AssumptionEntry(**row) for row in _toml("assumptions.toml")["assumption"])
    models = [_model(row, classes) for row in catalogue_rows()]
    bases = {k: (row["name"], row["why"]) for k, row in rules_file["life_basis"].items()}
    climates = {key: _climate(key, row) for key, row in _toml("climates.toml")["climate"].items()}
    regions = {
        row["key"]: Region(**(row | {"sun_kwh": tuple(row["sun_kwh"])}))
        for row in _toml("regions.toml")["region"]
    }
    improvements = {row["kind"]: _improvement(row) for row in _toml("improvements.toml")["improvement"]}
    return Reference(
        classes, rules, entries, {m.id: m for m in models}, bases, climates, regions, _cables(), improvements,
        _price_levels(),
    )  # fmt: skip


def _price_levels() -> dict[str, PriceLevel]:
    table = _toml("currencies.toml")
    return {
        code: PriceLevel(
            row["rate"],
            row["level"],
            phrase("terms.names.catalogue_money")
            if code == CATALOGUE_CURRENCY
            else phrase(
                "terms.names.price_level_source",
                rate=f"{row['rate']:g}",
                code=code,
                dated=table["dated"],
                level=f"{row['level']:g}",
                source=table["source"],
            ),
        )
        for code, row in table["currency"].items()
    }


def _improvement(row: Mapping[str, Any]) -> ImprovementKind:
    lists = {name: tuple(row[name]) for name in ("sizes", "base", "each")}
    return ImprovementKind(row["kind"], **{k: v for k, v in row.items() if k != "kind"} | lists)


@dataclass(frozen=True, slots=True)
class Appliance:
    """An entry of the appliance list.

    Attributes:
        name, room, note: how it is called, where it belongs, what to know of it.
        kinds: kinds of rig that have such a thing; empty for all.
        load: the load as a rig file takes it when typed, without ``id``.
        words: what else people call it.
    """

    name: str
    room: str
    kinds: tuple[str, ...]
    note: str
    load: Mapping[str, Any]
    words: str = ""


@cache
def weather() -> Mapping[str, tuple[str, tuple[float, ...]]]:
    """How duty follows the weather: key → (name, factors at 0, 15, 25 and 40 °C)."""
    rows = _toml("weather.toml")["follows"]
    return {key: (row["name"], tuple(float(f) for f in row["factor"])) for key, row in rows.items()}


def duty_at(follows: str, duty: float) -> list[float]:
    """Duties at 0, 15, 25 and 40 °C of what follows the weather, from its usual duty.

    Args:
        follows: key of :func:`weather`.
        duty: usual duty [-].

    Returns:
        Four duties, at most 1 each.
    """
    return [round(min(1.0, duty * factor), 3) for factor in weather()[follows][1]]


def _appliance(row: dict[str, str]) -> Appliance:
    unit, duty = row["unit"], float(row["duty"])
    start = f"{row['start_factor']}x" if row["start_factor"] else None
    load = {
        "name": row["name"],
        "supply": row["supply"],
        "draw": f"{row['likely']} {unit}",
        "low": float(row["low"]),
        "high": float(row["high"]),
        "use": row["use"],
        "hours": float(row["hours"] or 0),
        "uses": float(row["uses"] or 0),
        "minutes": float(row["minutes"] or 0),
        "duty": duty,
        "starts_at": float(row["starts_at"]) if row["starts_at"] else None,
        "start_w": start,
        "start_s": float(row["start_s"] or 0),
        "together": row["together"] == "yes",
        "duty_at": duty_at(row["follows"], duty) if row["follows"] else [],
    }
    words: str = _toml("appliance_words.toml")["words"].get(row["name"], "")
    return Appliance(row["name"], row["room"], tuple(row["kinds"].split()), row["note"], load, words)


@cache
def appliances() -> tuple[Appliance, ...]:
    """The appliance list."""
    text = (files(__package__) / "appliances.csv").read_text("utf-8")
    return tuple(_appliance(row) for row in csv.DictReader(text.splitlines()))


@dataclass(frozen=True, slots=True)
class CommonLoad:
    """Something that many rigs have.

    Attributes:
        key, name: what it is.
        appliance: name of its entry in the appliance list.
        quantity: how many there usually are.
        kinds: kinds of rig that have it; empty for all.
        big: whether it draws so much that it is asked for apart.
    """

    key: str
    name: str
    appliance: str
    quantity: int = 1
    kinds: tuple[str, ...] = ()
    big: bool = False


@cache
def commonest() -> tuple[CommonLoad, ...]:
    """What people run most, to tick by picture."""
    rows = _toml("commonest.toml").items()
    return tuple(CommonLoad(key, **row | {"kinds": tuple(row.get("kinds", ()))}) for key, row in rows)


@cache
def patterns() -> Mapping[str, Mapping[str, Any]]:
    """Patterns of use to start from, by key."""
    found: Mapping[str, Mapping[str, Any]] = _toml("patterns.toml")["pattern"]
    return found


@dataclass(frozen=True, slots=True)
class FieldHelp:
    """Help on a field, in words with places for values; see the head of ``field_help.toml``.

    Attributes:
        what: what it is and what it changes.
        where: where to find it.
        unknown: what is assumed when it is not known.
    """

    what: str
    where: str
    unknown: str


@cache
def field_help() -> Mapping[str, FieldHelp]:
    """Help on the fields of a rig and of the tools, by place: ``old_bank.unit_ah``, ``tool.cable.amps``."""
    return dict(_helped(_toml("field_help.toml"), ()))


def _helped(rows: Mapping[str, Any], at: tuple[str, ...]) -> Iterator[tuple[str, FieldHelp]]:
    for name, row in rows.items():
        if isinstance(row.get("what"), str):
            yield ".".join((*at, name)), FieldHelp(row["what"], row["where"], row["unknown"])
        else:
            yield from _helped(row, (*at, name))


def demo_rig(name: str) -> dict[str, Any]:
    """A demo rig as a rig file document.

    Args:
        name: one of :data:`DEMO_RIGS`.

    Returns:
        The document.

    Raises:
        KeyError: no demo rig of that name.
    """
    if name not in DEMO_RIGS:
        raise KeyError(name)
    document: dict[str, Any] = json.loads((files(__package__) / "demo" / f"{name}.json").read_text("utf-8"))
    return document
