"""The plan that the core computes from, out of a checked rig document."""

from vast_harbor.core.battery.bank import BatteryModel, cells_of
from vast_harbor.core.battery.catalogue_entry import model_of
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.installation.packing import Place
from vast_harbor.core.rig.changeover import Changeover, Devices, ProofReading, Purchase, Tick
from vast_harbor.core.rig.day_types import DayType, Times
from vast_harbor.core.rig.loads import DC, SECOND, Inverter, Load
from vast_harbor.core.rig.plan import (
    Candidate,
    Extra,
    Fix,
    Installed,
    Loading,
    Locker,
    OldBank,
    Plan,
    PurchaseStep,
    Reference,
    SecondBank,
    Site,
    Stay,
    TrialSettings,
)
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.weather.sky import nearest, with_sky
from vast_harbor.formats.bank_parts import CandidatePart, ExtraPart, OldBankPart
from vast_harbor.formats.changeover_part import ChangeoverPart, PurchasesPart
from vast_harbor.formats.day_part import LoadPart, TimesPart
from vast_harbor.formats.model_part import ModelPart
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.rig_part import RigPart
from vast_harbor.formats.source_part import SourcePart, TrialPart

# Volts of AC loads given in amps.
MAINS_V = {"metric": 230.0, "us": 120.0}


def own_model(part: ModelPart, reference: Reference) -> BatteryModel:
    """An own battery entry as the core knows it."""
    return model_of(part.model_dump(), reference.classes[part.battery_class], own=True)


def _times(part: TimesPart | None) -> Times | None:
    if part is None:
        return None
    return Times(part.use, part.hours, part.uses, part.minutes, part.starts_at, tuple(part.windows))


# Fields of a load that the core takes as they stand in the document.
_SAME = (
    "id",
    "name",
    "supply",
    "quantity",
    "use",
    "hours",
    "uses",
    "minutes",
    "duty",
    "starts_at",
    "low",
    "high",
    "start_w",
    "start_s",
    "together",
    "critical",
    "least_v",
    "measured_wh",
    "measured_hours",
    "bank",
    "thrifty_w",
    "thrifty_price",
)


def volts_of(part: LoadPart, rig_file: RigFile) -> float:
    """Volts at which the amps of a load are watts: its own, else those of its bank, or of the mains [V]."""
    second = rig_file.second_bank
    on_second = second is not None and part.bank == SECOND and part.supply == DC
    system_v = second.system_v if second is not None and on_second else rig_file.rig.system_v
    return part.volts or (system_v if part.supply == DC else MAINS_V[rig_file.rig.units])


def _load(part: LoadPart, rig_file: RigFile) -> Load:
    plain = {name: getattr(part, name) for name in _SAME}
    return Load(
        **plain,
        draw=Draw(part.draw.value, part.draw.unit),
        volts=volts_of(part, rig_file),
        windows=tuple(part.windows),
        duty_at=tuple(part.duty_at),
        on={name: _times(times) for name, times in part.on.items()},
    )


def _old_bank(part: OldBankPart | None, reference: Reference) -> OldBank | None:
    if part is None:
        return None
    battery_class = reference.classes[part.battery_class]
    volts = cells_of(battery_class, part.unit_v) * battery_class.cell_v
    fields = part.model_dump(exclude={"reason"}) | {"battery_class": battery_class, "unit_v": volts}
    return OldBank(**fields)


def _site(rig: RigPart, reference: Reference) -> Site:
    climate = reference.climates.get(rig.climate) if rig.climate else None
    if climate is not None and rig.latitude is not None and rig.longitude is not None:
        region = nearest(reference.regions, rig.latitude, rig.longitude, climate.key)
        climate = climate if region is None else with_sky(climate, region)
    return Site(rig.latitude, rig.longitude, rig.utc_offset_h, climate)


def _loading(rig: RigPart) -> Loading:
    return Loading(
        rig.payload_kg, rig.base_m, rig.coupling_kg, rig.coupling_max_kg, rig.old_x_m, rig.new_x_m,
        rig.front_axle_kg, rig.rear_axle_kg,
    )  # fmt: skip


def _locker(rig: RigPart) -> Locker:
    given = (
        (rig.locker_length, rig.locker_width, rig.locker_height),
        (rig.locker2_length, rig.locker2_width, rig.locker2_height),
    )
    rooms = [
        (length, width, height)
        for length, width, height in given
        if length is not None and width is not None and height is not None
    ]
    # A second compartment without a first one is the first.
    more = rig.locker2_cable_m if len(rooms) == 2 else 0.0
    return Locker(tuple(rooms), more, rig.locker_opens, rig.locker_vented, rig.vent_cm2)


def _installed(rig: RigPart) -> Installed:
    return Installed(
        rig.cable_mm2, rig.cable_clad, rig.fuse_a, rig.fuse_breaks_a, rig.lugs, rig.charge_a, rig.charge_v,
        rig.equalises,
    )  # fmt: skip


def _extra(part: ExtraPart, candidate: CandidatePart) -> Extra:
    """An extra at the price paid for it, where that is known."""
    paid = candidate.purchases.paid.get(f"extra-{part.id}")
    price = part.price if paid is None else paid
    return Extra(part.name, price, part.tag, part.covers, part.life_years, part.id)


def _candidate(part: CandidatePart) -> Candidate:
    return Candidate(
        part.id,
        part.battery_class,
        part.model,
        part.series,
        part.parallel,
        part.unit_price,
        part.price_date,
        tuple(_extra(e, part) for e in part.extras),
        part.protection,
        tuple(Place(**p.model_dump()) for p in part.places),
        tuple(PurchaseStep(s.when, s.strings, s.other, s.other_price) for s in part.stages),
        tuple(Fix(f.source, f.remedy) for f in part.fixes),
        tuple(part.struck),
        part.difficulty,
        part.spare,
        _purchases(part.purchases),
    )


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
    plain = part.model_dump(exclude={"done", "notes", "passed", "readings", "proof", "devices"})
    steps = {*part.done, *part.notes, *part.passed}
    return Changeover(
        **plain,
        ticks={
            key: Tick(
                key in part.done, part.done.get(key, ""), part.notes.get(key, ""), part.passed.get(key, "")
            )
            for key in steps
        },
        readings={key: value for key, value in part.readings.items() if value is not None},
        proof=tuple(ProofReading(one.minutes, one.volts, one.amps) for one in part.proof),
        devices=Devices(**part.devices.model_dump()),
    )


def _source(part: SourcePart) -> Source:
    plain = part.model_dump(exclude={"positions", "monthly_w"})
    return Source(**plain, positions=tuple(part.positions), monthly_w=tuple(part.monthly_w))


def _tried(part: TrialPart) -> TrialSettings:
    return TrialSettings(**part.model_dump(exclude={"pitches"}), pitches=tuple(part.pitches))


def to_plan(rig_file: RigFile, reference: Reference, today: str = "") -> Plan:
    """What the core computes from.

    Args:
        rig_file: a checked rig file.
        reference: shipped data.
        today: ISO date on which it is looked at; empty where that does not matter.

    Returns:
        The plan.
    """
    rig, day, plan = rig_file.rig, rig_file.day, rig_file.plan
    own = {m.id: own_model(m, reference) for m in rig_file.own_models}
    second = rig_file.second_bank
    return Plan(
        name=rig.name,
        kind=rig.kind,
        system_v=rig.system_v,
        off_grid_nights=rig.off_grid_nights,
        years_kept=rig.years_kept,
        battery_c=rig.battery_c,
        rest_c=rig.rest_c,
        loads=tuple(_load(part, rig_file) for part in day.loads),
        inverter=Inverter(**day.inverter.model_dump()),
        standby_w=day.standby_w,
        house_rule=plan.house_rule,
        overrides=plan.overrides,
        life_basis=plan.life_basis,
        candidates=tuple(_candidate(c) for c in rig_file.candidates),
        models={**reference.catalogue, **own},
        old_bank=_old_bank(rig_file.old_bank, reference),
        site=_site(rig, reference),
        place=rig.place,
        months=tuple(int(m) for m in rig.months),
        nights_in_a_row=rig.nights_in_a_row,
        hook_up_nights=rig.hook_up_nights,
        drive_hours=rig.drive_hours,
        drive_every=rig.drive_every,
        stay=Stay(rig.water_nights, rig.waste_nights, rig.gas_nights),
        loading=_loading(rig),
        locker=_locker(rig),
        installed=_installed(rig),
        today=today,
        budget=rig.budget,
        cares=tuple(rig.cares),
        day_types=tuple(DayType(**t.model_dump()) for t in day.types),
        governing=plan.day_type,
        day_basis=plan.day_basis,
        habits=plan.habits,
        overnight=plan.overnight,
        second=None if second is None else SecondBank(**second.model_dump()),
        sources=tuple(_source(s) for s in rig_file.sources),
        sun_hours=tuple(rig.sun_hours),
        pitch=rig.pitch,
        disconnect=rig.disconnect,
        watched=rig.watched,
        trial=_tried(rig_file.trial),
        labour=plan.labour,
        changeover=_changeover(rig_file.changeover),
        stated={k: v for k, v in rig_file.stated.model_dump().items() if v is not None},
    )
