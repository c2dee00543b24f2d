"""A catalogue entry: the flat fields of a battery as a list or a form has them, made into a model."""

from collections.abc import Mapping
from typing import Any

from vast_harbor.core.battery.bank import BatteryModel, cells_of
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.datasheet import (
    NO_SWITCH,
    Bms,
    Case,
    Limits,
    Offer,
    Portable,
    Proof,
    Used,
    Warranty,
)
from vast_harbor.core.battery.peukert import reserve_capacity_ah


def model_of(fields: Mapping[str, Any], battery_class: BatteryClass, *, own: bool = False) -> BatteryModel:
    """A battery model out of the fields of its entry.

    Args:
        fields: by name, as the columns of the catalogue are called (see ``docs/formats.md``); a field that
            is not known is None or missing.
        battery_class: its class.
        own: entered by the owner.

    Returns:
        The model.

    Raises:
        InvalidInput: no whole number of cells makes its volts.
    """

    def known(name: str, default: Any = None) -> Any:
        value = fields.get(name)
        return default if value is None else value

    def span(name: str) -> tuple[float, float] | None:
        low, high = fields.get(f"{name}_min_c"), fields.get(f"{name}_max_c")
        return None if low is None or high is None else (low, high)

    return BatteryModel(
        id=fields["id"],
        maker=known("maker", ""),
        name=fields["name"],
        battery_class=battery_class,
        cells=cells_of(battery_class, fields["unit_v"]),
        ratings=_ratings(fields),
        cycles=_cycles(fields),
        kg=fields["kg"],
        price=known("price", 0.0),
        warranty=Warranty(
            known("warranty_years", 0.0), known("warranty_full_years", 0.0), known("warranty_conditions", "")
        ),
        max_series=int(known("max_series", 1)),
        max_parallel=int(known("max_parallel", 1)),
        case=Case(
            fields.get("length_mm"), fields.get("width_mm"), fields.get("height_mm"),
            known("orientation", "upright"), known("terminals", ""), known("terminal_side", "ends"),
            known("ingress", ""), known("water", battery_class.water),
        ),
        bms=None if battery_class.is_lead_acid else _bms(fields),
        limits=Limits(
            fields.get("charge_a"), fields.get("discharge_a"), span("charge"), span("discharge"),
            span("storage"),
        ),
        offer=Offer(
            fields.get("price_low"), fields.get("price_high"), known("price_date", ""), known("tax", 0.0),
            known("delivery", 0.0), known("deposit", 0.0), known("discount", 0.0),
        ),
        proof=Proof(
            known("certifications", ""), known("curve_published", False), known("serviceable", False),
            known("support_years", 0.0), known("radio", False),
        ),
        used=_used(fields),
        portable=_portable(fields),
        heater_w=fields.get("heater_w"),
        note=known("note", ""),
        own=own,
    )  # fmt: skip


def _ratings(fields: Mapping[str, Any]) -> tuple[tuple[float, float], ...]:
    found = [(fields["rated_ah"], fields["rated_hours"])]
    for n in (2, 3):
        ah, hours = fields.get(f"ah_{n}"), fields.get(f"hours_{n}")
        if ah is not None and hours is not None:
            found.append((ah, hours))
    minutes = fields.get("reserve_minutes")
    if minutes is not None and all(abs(h - minutes / 60) > 1e-6 for _, h in found):
        found.append((reserve_capacity_ah(minutes), minutes / 60))
    return tuple(found)


def _cycles(fields: Mapping[str, Any]) -> tuple[tuple[float, float], ...]:
    pairs = [("cycles_at_dod", "cycles"), ("cycles_at_2", "cycles_2"), ("cycles_at_3", "cycles_3")]
    points = [(fields.get(d), fields.get(n)) for d, n in pairs]
    return tuple(sorted((d, n) for d, n in points if d is not None and n is not None))


def _bms(fields: Mapping[str, Any]) -> Bms:
    given = {name: fields.get(f"bms_{name}") for name in (
        "continuous_a", "peak_a", "cut_v", "reconnect_v", "balance_v")}  # fmt: skip
    if fields.get("bms") == NO_SWITCH:
        given["continuous_a"] = given["peak_a"] = None
    return Bms(
        switch=fields.get("bms") or "own",
        peak_s=fields.get("bms_peak_s") or 0.0,
        resets=fields.get("bms_resets") or "itself",
        warns=bool(fields.get("bms_warns")),
        stops_cold_charge=bool(fields.get("bms_stops_cold")),
        **given,
    )


def _used(fields: Mapping[str, Any]) -> Used | None:
    if not fields.get("used"):
        return None
    return Used(
        fields.get("cycles_made") or 0.0, fields.get("age_years") or 0.0, fields.get("measured_ah"),
        fields.get("cell_spread_mv"), fields.get("faults") or 0.0, bool(fields.get("spare")),
    )  # fmt: skip


def _portable(fields: Mapping[str, Any]) -> Portable | None:
    if not fields.get("pack_ac_w"):
        return None
    return Portable(
        fields["pack_ac_w"], fields.get("pack_surge_w") or fields["pack_ac_w"], fields.get("pack_in_w") or 0.0
    )
