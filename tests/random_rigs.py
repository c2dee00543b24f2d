"""Rigs at random, for laws that hold whatever a rig is like."""

from dataclasses import replace
from typing import Any

import numpy as np

from vast_harbor import data
from vast_harbor.core.rig.day_types import HOOK_UP, LAID_UP, TRAVELLING, DayType
from vast_harbor.core.rig.loads import AC, DC, STANDBY, Draw, Inverter, Load
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.core.rig.plan_place import Loading, Site
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.sources import DC_DC, ENGINE, GENERATOR, MAINS, PWM, RELAY, SOLAR, STREAM, Source
from vast_harbor.core.weather.sky import with_sky

SOURCES = (
    Source("sun", SOLAR, watts=300.0), Source("pwm", SOLAR, watts=120.0, controller=PWM),
    Source("shore", MAINS, amps=25.0), Source("resting", MAINS, amps=15.0, rests=True),
    Source("relay", ENGINE, link=RELAY), Source("dc_dc", ENGINE, link=DC_DC, amps=30.0),
    Source("generator", GENERATOR, watts=1000.0), Source("brook", STREAM, monthly_w=(15.0,) * 12),
)  # fmt: skip
LOADS = (
    Load("fridge", "Fridge", DC, Draw(45, "W"), 12, use=STANDBY, duty=0.4),
    Load("lamps", "Lamps", DC, Draw(40, "W"), 12, hours=5, starts_at=18, low=25, high=60),
    Load("laptop", "Laptop", AC, Draw(60, "W"), 230, hours=4),
    Load("pump", "Pump", DC, Draw(60, "W"), 12, hours=0.4, start_w=150, start_s=1),
    Load("kettle", "Kettle", AC, Draw(900, "W"), 230, hours=0.2, starts_at=8),
    Load("alarm", "Alarm", DC, Draw(3, "W"), 12, hours=24, critical=True),
)
KINDS = ("van", "rv", "caravan", "boat", "cabin", "other")


def site_of(reference: Reference, key: str) -> Site:
    """A site in a region, under its sky."""
    region = reference.regions[key]
    climate = with_sky(reference.climates[region.climate], region)
    return Site(region.latitude, region.longitude, region.utc_offset_h, climate)


def random_plan(rng: np.random.Generator, reference: Reference, **more: Any) -> Plan:
    """A rig of any kind, in any climate and months, with any loads, sources, rule and old bank."""
    first, count = int(rng.integers(1, 13)), int(rng.integers(2, 13))
    types = [DayType("day", "Day")]
    for kind in (TRAVELLING, HOOK_UP, LAID_UP):
        if rng.random() < 0.4:
            types.append(DayType(kind, kind, kind=kind, season=str(rng.choice(["summer", "winter"]))))
    old = None
    if rng.random() < 0.5:
        key = str(rng.choice(["agm", "flooded_dual", "lfp"]))
        old = OldBank(
            reference.classes[key], 12, float(rng.choice([80, 110, 200])), 1, 1, float(rng.integers(1, 9))
        )
    fields = {
        "name": "Rig",
        "kind": str(rng.choice(KINDS)),
        "system_v": 12.0,
        "off_grid_nights": float(rng.integers(3, 300)),
        "hook_up_nights": float(rng.choice([0, 20, 60])),
        "nights_in_a_row": float(rng.choice([1, 2, 4, 9])),
        "months": tuple(sorted((first + i - 1) % 12 + 1 for i in range(count))),
        "years_kept": float(rng.integers(3, 16)),
        "battery_c": None,
        "rest_c": None,
        "site": site_of(reference, str(rng.choice([k for k, r in reference.regions.items() if r.sun_kwh]))),
        "loads": tuple(x for x in LOADS if rng.random() < 0.7) or LOADS[:1],
        "inverter": Inverter(),
        "standby_w": float(rng.choice([0, 2, 6])),
        "house_rule": str(rng.choice(list(reference.rules))),
        "sources": tuple(s for s in SOURCES if rng.random() < 0.4) or SOURCES[:1],
        "old_bank": old,
        "day_types": tuple(types),
        "loading": Loading(payload_kg=float(rng.choice([60, 150, 400])) if rng.random() < 0.5 else None),
        "models": reference.catalogue,
    }
    return Plan(**{**fields, **more})


def scaled_loads(plan: Plan, factor: float) -> Plan:
    """The plan with loads of another power."""
    return replace(
        plan,
        loads=tuple(replace(x, draw=Draw(x.draw.value * factor, x.draw.unit)) for x in plan.loads),
        standby_w=plan.standby_w * factor,
    )


def split_loads(plan: Plan) -> Plan:
    """The plan with each load as two of half its power, ranges too; two motors do not start at once, so that
    those stay as they are."""

    def half(load: Load, part: int) -> Load:
        watts = {name: None if (w := getattr(load, name)) is None else w / 2 for name in ("low", "high")}
        return replace(load, id=f"{load.id}-{part}", draw=Draw(load.draw.value / 2, load.draw.unit), **watts)

    halves = [load for load in plan.loads if load.start_w is None]
    motors = tuple(load for load in plan.loads if load.start_w is not None)
    return replace(plan, loads=motors + tuple(half(load, part) for load in halves for part in (1, 2)))


def random_document(rng: np.random.Generator) -> dict[str, Any]:
    """A rig file: one of the demo rigs with other loads, sources, nights, years, money and units."""
    document = data.demo_rig(str(rng.choice(data.DEMO_RIGS)))
    rig, day = document["rig"], document["day"]
    rig["off_grid_nights"], rig["years_kept"] = int(rng.integers(2, 320)), int(rng.integers(2, 21))
    rig["hook_up_nights"] = int(rng.choice([0, 15, 40]))
    rig["units"], rig["currency"] = str(rng.choice(["metric", "us"])), str(rng.choice(["EUR", "USD", "NZD"]))
    rig["numbers"] = str(rng.choice(["", "de-DE", "fr-FR", "en-US"]))
    rig["budget"] = None if rng.random() < 0.5 else int(rng.integers(300, 6000))
    day["loads"] = [load for load in day["loads"] if rng.random() < 0.8] or day["loads"][:1]
    for load in day["loads"]:
        factor = float(rng.uniform(0.4, 1.8))
        for part in ("low", "high", "start_w"):
            if load.get(part) is not None:
                load[part] = round(load[part] * factor, 1)
        load["draw"]["value"] = round(load["draw"]["value"] * factor, 1)
    for source in document.get("sources", []):
        for part in ("watts", "amps"):
            if source.get(part):
                source[part] = round(source[part] * float(rng.uniform(0.4, 2.5)))
    return document
