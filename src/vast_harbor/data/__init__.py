"""Shipped reference data: battery classes, house rules, assumptions, catalogue, appliances, demo rigs."""

import json
import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from vast_harbor.core.assumptions import AssumptionEntry, HouseRule
from vast_harbor.core.battery import BatteryModel
from vast_harbor.core.chemistry import BatteryClass, Range
from vast_harbor.core.plan import Reference

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
        care_hours=row["care_hours"],
        wh_per_kg=row["wh_per_kg"],
        temperature_factor=tuple((float(t), float(k)) for t, k in row["temperature_factor"]),
    )


def _model(row: dict[str, Any], classes: dict[str, BatteryClass]) -> BatteryModel:
    pairs = {k: tuple((float(a), float(b)) for a, b in row[k]) for k in ("ratings", "cycles")}
    return BatteryModel(**{**row, **pairs, "battery_class": classes[row["battery_class"]]})


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
    models = [_model(row, classes) for row in _toml("catalogue.toml")["model"]]
    bases = {k: (row["name"], row["why"]) for k, row in rules_file["life_basis"].items()}
    return Reference(classes, rules, entries, {m.id: m for m in models}, bases)


@cache
def appliances() -> tuple[dict[str, Any], ...]:
    """The appliance list: name, room, supply, watts, use, duty and a note for each."""
    return tuple(_toml("appliances.toml")["appliance"])


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
