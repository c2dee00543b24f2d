"""The plan that the core computes from, out of a checked rig document."""

from vast_harbor.core.battery.bank import BatteryModel, cells_of
from vast_harbor.core.battery.catalogue_entry import model_of
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.improvements import carried_out
from vast_harbor.core.installation.packing import Place
from vast_harbor.core.rig.changeover import Changeover, Devices, ProofReading, Purchase, Tick
from vast_harbor.core.rig.day_types import DayType, Times
from vast_harbor.core.rig.improvement_rows import PlannedImprovement
from vast_harbor.core.rig.loads import DC, SECOND, Inverter, Load
from vast_harbor.core.rig.plan import (
    Candidate,
    Extra,
    Fix,
    OldBank,
    Plan,
    PurchaseStep,
    SecondBank,
    TrialSettings,
)
from vast_harbor.core.rig.plan_place import Installed, Loading, Locker, Site, Stay
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.weather.sky import nearest, with_sky
from vast_harbor.formats.bank_parts import CandidatePart, ExtraPart, OldBankPart
from vast_harbor.formats.changeover_part import ChangeoverPart, PurchasesPart
from vast_harbor.formats.day_part import LoadPart
from vast_harbor.formats.model_part import ModelPart
from vast_harbor.formats.parts import core_of
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.rig_part import RigPart

# Volts of AC loads given in amps.
MAINS_V = {"metric": 230.0, "us": 120.0}


# Fields of the plan that the core takes as they stand in the document.
_OF_PLAN = ("house_rule", "overrides", "life_basis", "day_basis", "habits", "overnight", "labour")


def own_model(part: ModelPart, reference: Reference) -> BatteryModel:
    """An own battery entry as the core knows it."""
    return model_of(part.model_dump(), reference.classes[part.battery_class], own=True)


def volts_of(part: LoadPart, rig_file: RigFile) -> float:
    """Volts at which the amps of a load are watts: its own, else those of its bank, or of the mains [V]."""
    second = rig_file.second_bank
    on_second = second is not None and part.bank == SECOND and part.supply == DC
    system_v = second.system_v if second is not None and on_second else rig_file.rig.system_v
    return part.volts or (system_v if part.supply == DC else MAINS_V[rig_file.rig.units])


def _load(part: LoadPart, rig_file: RigFile) -> Load:
    return core_of(
        Load, part,
        draw=Draw(part.draw.value, part.draw.unit),
        volts=volts_of(part, rig_file),
        on={name: None if times is None else core_of(Times, times) for name, times in part.on.items()},
    )  # fmt: skip


def _old_bank(part: OldBankPart | None, reference: Reference) -> OldBank | None:
    if part is None:
        return None
    battery_class = reference.classes[part.battery_class]
    volts = cells_of(battery_class, part.unit_v) * battery_class.cell_v
    return core_of(OldBank, part, battery_class=battery_class, unit_v=volts)


def _site(rig: RigPart, reference: Reference) -> Site:
    climate = reference.climates.get(rig.climate) if rig.climate else None
    if climate is not None and rig.latitude is not None and rig.longitude is not None:
        region = nearest(reference.regions, rig.latitude, rig.longitude, climate.key)
        climate = climate if region is None else with_sky(climate, region)
    return Site(rig.latitude, rig.longitude, rig.utc_offset_h, climate)


def _locker(rig: RigPart) -> Locker:
    given = {
        "locker": (rig.locker_length, rig.locker_width, rig.locker_height),
        "locker2": (rig.locker2_length, rig.locker2_width, rig.locker2_height),
    }
    rooms = {
        name: (length, width, height)
        for name, (length, width, height) in given.items()
        if length is not None and width is not None and height is not None
    }
    # A second compartment without a first one is the first.
    entered = ("locker2", "locker") if list(rooms) == ["locker2"] else ("locker", "locker2")
    return Locker(
        tuple(rooms.values()),
        rig.locker2_cable_m if len(rooms) == 2 else 0.0,
        rig.locker_opens,
        rig.locker_vented,
        rig.vent_cm2,
        rig.locker_insulated,
        entered,
    )


def _extra(part: ExtraPart, candidate: CandidatePart) -> Extra:
    """An extra at the price paid for it, where that is known."""
    paid = candidate.purchases.paid.get(f"extra-{part.id}")
    return core_of(Extra, part, price=part.price if paid is None else paid)


def _candidate(part: CandidatePart) -> Candidate:
    return core_of(
        Candidate, part,
        extras=tuple(_extra(e, part) for e in part.extras),
        places=tuple(core_of(Place, place) for place in part.places),
        stages=tuple(core_of(PurchaseStep, step) for step in part.stages),
        fixes=tuple(core_of(Fix, fix) for fix in part.fixes),
        purchases=_purchases(part.purchases),
    )  # fmt: skip


def _purchases(part: PurchasesPart) -> dict[str, Purchase]:
    by_line = part.model_dump()
    lines = {line for noted in by_line.values() for line in noted}
    fields = {
        "quote": "quoted",
        "paid": "paid",
        "have": "have",
        "on": "bought_on",
        "seller": "seller",
        "serial": "serial",
    }
    return {
        line: Purchase(
            **{name: by_line[field][line] for name, field in fields.items() if line in by_line[field]}
        )
        for line in lines
    }


def _changeover(part: ChangeoverPart) -> Changeover:
    steps = {*part.done, *part.notes, *part.passed}
    return core_of(
        Changeover, part,
        ticks={
            key: Tick(
                key in part.done, part.done.get(key, ""), part.notes.get(key, ""), part.passed.get(key, "")
            )
            for key in steps
        },
        readings={key: value for key, value in part.readings.items() if value is not None},
        proof=tuple(core_of(ProofReading, one) for one in part.proof),
        devices=core_of(Devices, part.devices),
    )  # fmt: skip


def to_plan(rig_file: RigFile, reference: Reference, today: str = "") -> Plan:
    """What the core computes from.

    Args:
        rig_file: a checked rig file.
        reference: shipped data.
        today: ISO date on which it is looked at; empty where that does not matter.

    Returns:
        The plan, with what is planned beside the bank done.
    """
    rig, day, plan = rig_file.rig, rig_file.day, rig_file.plan
    own = {m.id: own_model(m, reference) for m in rig_file.own_models}
    second = rig_file.second_bank
    present = core_of(
        Plan, rig,
        **{name: getattr(plan, name) for name in _OF_PLAN},
        loads=tuple(_load(part, rig_file) for part in day.loads),
        inverter=core_of(Inverter, day.inverter),
        standby_w=day.standby_w,
        candidates=tuple(_candidate(c) for c in rig_file.candidates),
        models={**reference.catalogue, **own},
        old_bank=_old_bank(rig_file.old_bank, reference),
        site=_site(rig, reference),
        months=tuple(int(m) for m in rig.months),
        stay=core_of(Stay, rig),
        loading=core_of(Loading, rig, front_kg=rig.front_axle_kg, rear_kg=rig.rear_axle_kg),
        locker=_locker(rig),
        installed=core_of(Installed, rig, clad=rig.cable_clad),
        today=today,
        day_types=tuple(core_of(DayType, one) for one in day.types),
        governing=plan.day_type,
        second=None if second is None else core_of(SecondBank, second),
        sources=tuple(core_of(Source, s) for s in rig_file.sources),
        trial=core_of(TrialSettings, rig_file.trial),
        changeover=_changeover(rig_file.changeover),
        stated={k: v for k, v in rig_file.stated.model_dump().items() if v is not None},
        improvements=tuple(core_of(PlannedImprovement, one) for one in rig_file.improvements),
    )  # fmt: skip
    return carried_out(present, reference)
