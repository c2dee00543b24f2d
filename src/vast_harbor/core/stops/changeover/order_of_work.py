"""The order of work: steps in gates, only those that this rig and this bank ask for."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from vast_harbor.core.rig.changeover import NOT_TOUCHED, Tick
from vast_harbor.core.rig.source_remedies import TRADE
from vast_harbor.core.rig.sources import ENGINE, GENERATOR, MAINS, SOLAR, STREAM
from vast_harbor.core.stops.changeover.measurements import EQUAL_V, OUT, Measurement, inequality, measurements
from vast_harbor.core.stops.changeover.work import Work, lifters
from vast_harbor.phrases import phrase

ARRIVAL, OUT_OLD, PLACE, EQUAL, CONNECT, SETTINGS, PROOF, LATER = (
    "arrival",
    "old",
    "place",
    "equal",
    "connect",
    "set",
    "proof",
    "later",
)
GATES = (ARRIVAL, OUT_OLD, PLACE, EQUAL, CONNECT, SETTINGS, PROOF, LATER)
AMPS, ACID, GAS, AC, COLD, HEAVY, DAMAGED = "amps", "acid", "gas", "ac", "cold", "heavy", "damaged"


@dataclass(frozen=True, slots=True)
class Step:
    """One step of the work.

    Attributes:
        key, gate: its name, and the gate that it belongs to.
        title, why, how: what is done; why, in a sentence; how, in a few.
        minutes: how long it takes [min].
        people: how many lift; 3 for a hoist.
        cautions: keys of what may hurt.
        parts: lines of the shopping list that go in here.
        source: id of the source that it is about; empty for none.
        measured: what is measured in it.
        tick: what the owner said of it.
    """

    key: str
    gate: str
    title: str
    why: str
    how: str = ""
    minutes: float = 5
    people: int = 1
    cautions: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    source: str = ""
    measured: tuple[Measurement, ...] = ()
    tick: Tick = NOT_TOUCHED

    @property
    def wrong(self) -> tuple[Measurement, ...]:
        """Readings that are not as they should be."""
        return tuple(m for m in self.measured if m.verdict == OUT)

    @property
    def stopped(self) -> bool:
        """Whether a reading stops its gate; not where the owner states why it may be passed."""
        return bool(self.wrong) and not self.tick.passed.strip()


@dataclass(frozen=True, slots=True)
class Gate:
    """Steps that must be done before the next ones.

    Attributes:
        key, title: which.
        steps: in their order.
    """

    key: str
    title: str
    steps: tuple[Step, ...]

    @property
    def stopped(self) -> bool:
        """Whether a reading in it is not as it should be."""
        return any(step.stopped for step in self.steps)

    @property
    def done(self) -> bool:
        """Whether all of it is done and nothing stops it."""
        return all(step.tick.done for step in self.steps) and not self.stopped


def _titles() -> Mapping[str, str]:
    return {
        ARRIVAL: phrase("changeover.gates.arrival"),
        OUT_OLD: phrase("changeover.gates.old"),
        PLACE: phrase("changeover.gates.place"),
        EQUAL: phrase("changeover.gates.equal"),
        CONNECT: phrase("changeover.gates.connect"),
        SETTINGS: phrase("changeover.gates.set"),
        PROOF: phrase("changeover.gates.proof"),
        LATER: phrase("changeover.gates.later"),
    }


def gates(work: Work) -> tuple[Gate, ...]:
    """The order of work for a bank in its rig.

    Args:
        work: the bank that is bought.

    Returns:
        Gates that have a step, in order; every step with what the owner ticked, noted and measured.
    """
    measured = measurements(work)
    by_gate: dict[str, list[Step]] = {key: [] for key in GATES}
    for step in _steps(work):
        full = replace(step, measured=measured.get(step.key, ()), tick=work.record.tick(step.key))
        by_gate[step.gate].append(full)
    titles = _titles()
    return tuple(Gate(key, titles[key], tuple(steps)) for key, steps in by_gate.items() if steps)


def _steps(work: Work) -> Iterator[Step]:
    yield from _arrival(work)
    yield from _old(work)
    yield from _place(work)
    yield from _equal(work)
    yield from _connect(work)
    yield from _settings(work)
    yield from _proof(work)
    yield from _later(work)


def _arrival(work: Work) -> Iterator[Step]:
    bank, model = work.build.bank, work.build.bank.model
    heavy = (HEAVY,) if lifters(model.kg) > 1 else ()
    yield Step(
        "packing",
        ARRIVAL,
        phrase("changeover.steps.packing"),
        phrase("changeover.steps.packing_why"),
        phrase("changeover.steps.packing_how"),
        10,
        lifters(model.kg),
        (DAMAGED, *heavy),
        ("batteries", "spare"),
    )
    yield Step(
        "serials",
        ARRIVAL,
        phrase("changeover.steps.serials"),
        phrase("changeover.steps.serials_why"),
        phrase("changeover.steps.serials_how", count=bank.units),
        5,
    )
    yield Step(
        "entry",
        ARRIVAL,
        phrase("changeover.steps.entry"),
        phrase("changeover.steps.entry_why"),
        phrase(
            "changeover.steps.entry_how",
            title=model.title,
            volts=f"{model.nominal_v:g}",
            ah=f"{model.rated_ah:g}",
            series=bank.series,
            parallel=bank.parallel,
        ),
        10,
    )
    yield Step(
        "arrived",
        ARRIVAL,
        phrase("changeover.steps.arrived"),
        phrase("changeover.steps.arrived_why"),
        phrase("changeover.steps.arrived_how_sleeps")
        if work.sleeps
        else phrase("changeover.steps.arrived_how"),
        2 + 2 * bank.units,
        1,
        (DAMAGED,),
        ("tool-multimeter",),
    )


def _old(work: Work) -> Iterator[Step]:
    plan, kinds = work.plan, {s.kind for s in work.plan.sources}
    yield Step(
        "photo",
        OUT_OLD,
        phrase("changeover.steps.photo"),
        phrase("changeover.steps.photo_why"),
        phrase("changeover.steps.photo_how"),
        15,
    )
    if SOLAR in kinds:
        yield Step(
            "off_solar",
            OUT_OLD,
            phrase("changeover.steps.off_solar"),
            phrase("changeover.steps.off_solar_why"),
            phrase("changeover.steps.off_solar_how"),
            5,
        )
    if STREAM in kinds:
        yield Step(
            "off_stream",
            OUT_OLD,
            phrase("changeover.steps.off_stream"),
            phrase("changeover.steps.off_stream_why"),
            "",
            5,
        )
    if kinds & {MAINS, GENERATOR}:
        yield Step(
            "off_mains",
            OUT_OLD,
            phrase("changeover.steps.off_mains"),
            phrase("changeover.steps.off_mains_why"),
            phrase("changeover.steps.off_mains_how"),
            5,
            1,
            (AC,),
        )
    if ENGINE in kinds:
        yield Step(
            "off_engine",
            OUT_OLD,
            phrase("changeover.steps.off_engine"),
            phrase("changeover.steps.off_engine_why"),
            phrase("changeover.steps.off_engine_how"),
            5,
        )
    yield Step(
        "off_loads",
        OUT_OLD,
        phrase("changeover.steps.off_loads"),
        phrase("changeover.steps.off_loads_why"),
        phrase("changeover.steps.off_loads_how_inverter") if work.inverter else "",
        5,
    )
    old = plan.old_bank
    if old is None:
        return
    yield Step(
        "off_negative",
        OUT_OLD,
        phrase("changeover.steps.off_negative"),
        phrase("changeover.steps.off_negative_why"),
        phrase("changeover.steps.off_negative_how"),
        15,
        1,
        (AMPS, *((GAS,) if old.battery_class.water else ())),
        ("tool-spanners",),
    )
    kg = old.unit_kg or old.unit_v * old.unit_ah / old.battery_class.wh_per_kg
    yield Step(
        "lift_out",
        OUT_OLD,
        phrase("changeover.steps.lift_out"),
        phrase("changeover.steps.lift_out_why"),
        phrase("changeover.steps.lift_out_how", kg=f"{kg:.0f}", count=old.series * old.parallel),
        5 + 5 * old.series * old.parallel,
        lifters(kg),
        ((HEAVY,) if lifters(kg) > 1 else ()) + ((ACID,) if old.battery_class.is_lead_acid else ()),
        ("tool-goggles",) if old.battery_class.is_lead_acid else (),
    )


def _place(work: Work) -> Iterator[Step]:
    plan, build = work.plan, work.build
    if plan.old_bank is not None and plan.old_bank.battery_class.is_lead_acid:
        yield Step(
            "neutralise",
            PLACE,
            phrase("changeover.steps.neutralise"),
            phrase("changeover.steps.neutralise_why"),
            phrase("changeover.steps.neutralise_how"),
            20,
            1,
            (ACID,),
            ("part-consumables", "tool-goggles"),
        )
    yield Step(
        "clean",
        PLACE,
        phrase("changeover.steps.clean"),
        phrase("changeover.steps.clean_why"),
        phrase("changeover.steps.clean_how"),
        20,
        parts=("part-consumables",),
    )
    yield Step(
        "dry_fit",
        PLACE,
        phrase("changeover.steps.dry_fit"),
        phrase("changeover.steps.dry_fit_why"),
        phrase("changeover.steps.dry_fit_how"),
        20,
        lifters(build.bank.model.kg),
        (HEAVY,) if lifters(build.bank.model.kg) > 1 else (),
        (
            "part-hold_down",
            "part-covers",
            *(f"extra-{e.id or i}" for i, e in enumerate(build.candidate.extras)),
        ),
    )
    if work.flooded:
        yield Step(
            "vent",
            PLACE,
            phrase("changeover.steps.vent"),
            phrase("changeover.steps.vent_why"),
            phrase(
                "changeover.steps.vent_how",
                area=f"{build.criteria.opening_cm2:.0f}",
                spark=f"{build.criteria.spark_mm:.0f}",
            ),
            60,
            1,
            (GAS,),
            ("check-ventilation", "check-living_space"),
        )
    for source, rung in work.remedies:
        yield Step(
            f"fit-{source.id}-{rung.key}",
            PLACE,
            f"{work.name(source)}: {rung.says}",
            phrase("changeover.steps.fit_why"),
            rung.hidden,
            60 * rung.work,
            1,
            (AC,) if rung.skill == TRADE else (),
            (f"fix-{source.id}",),
            source.id,
        )
    for required in work.required:
        if required.met and required.key.startswith("source-") and required.fix is not None:
            yield Step(
                f"fit-{required.fix.source}-{required.fix.remedy}",
                PLACE,
                required.name,
                phrase("changeover.steps.fit_why"),
                required.hidden,
                60 * required.hours,
                1,
                (AC,) if required.skill == TRADE else (),
                (required.key,),
                required.fix.source,
            )
        elif required.met and required.key == "check-external_bms":
            yield Step(
                "bms",
                PLACE,
                required.name,
                phrase("changeover.steps.bms_why"),
                phrase("changeover.steps.bms_how"),
                60 * required.hours,
                parts=(required.key,),
            )


def _equal(work: Work) -> Iterator[Step]:
    build = work.build
    model = build.bank.model
    cold = () if work.lead else (COLD,)
    volts = model.battery_class.absorption_v * model.unit_class_v / 12
    yield Step(
        "charge_each",
        EQUAL,
        phrase("changeover.steps.charge_each"),
        phrase("changeover.steps.charge_each_why"),
        phrase(
            "changeover.steps.charge_each_how",
            volts=f"{volts:.1f}",
            amps=f"{model.charge_a:.0f}",
            rest=phrase("changeover.steps.rest_lead") if work.lead else phrase("changeover.steps.rest_lfp"),
        ),
        30,
        1,
        ((GAS,) if work.flooded else ()) + cold,
        ("tool-charger",),
    )
    yield Step(
        "charged",
        EQUAL,
        phrase("changeover.steps.charged"),
        phrase("changeover.steps.charged_why"),
        phrase("changeover.steps.charged_how"),
        2 + 2 * build.bank.units,
        parts=("tool-multimeter",),
    )


def _connect(work: Work) -> Iterator[Step]:
    build, wiring = work.build, work.wiring
    bank, kg = build.bank, build.bank.model.kg
    yield Step(
        "lift_in",
        CONNECT,
        phrase("changeover.steps.lift_in"),
        phrase("changeover.steps.lift_in_why"),
        phrase("changeover.steps.lift_in_how"),
        5 + 5 * bank.units,
        lifters(kg),
        (HEAVY,) if lifters(kg) > 1 else (),
        ("part-hold_down", "part-covers"),
    )
    if bank.units > 1:
        yield Step(
            "links",
            CONNECT,
            phrase("changeover.steps.links"),
            phrase("changeover.steps.links_why"),
            phrase("changeover.steps.links_how"),
            10 * bank.units,
            1,
            (AMPS,),
            ("part-links", "part-string_fuses", "tool-torque", "tool-crimper"),
        )
        yield Step(
            "strings",
            CONNECT,
            phrase("changeover.steps.strings"),
            phrase("changeover.steps.strings_why"),
            _apart(work),
            2 + 2 * bank.parallel,
            1,
            (AMPS,),
            ("tool-multimeter",),
        )
    main = wiring.main
    fuse = phrase("changeover.steps.fuse_unknown") if main is None else f"{main.fuse_a:g} A"
    yield Step(
        "main_cables",
        CONNECT,
        phrase("changeover.steps.main_cables"),
        phrase("changeover.steps.main_cables_why"),
        phrase("changeover.steps.main_cables_how", fuse=fuse)
        + (phrase("changeover.steps.corners") if bank.parallel > 1 else ""),
        40,
        1,
        (AMPS,),
        ("check-cable", "part-links", "part-shunt", "wire-isolator", "wire-main_cable", "tool-crimper"),
    )
    yield Step(
        "closed",
        CONNECT,
        phrase("changeover.steps.closed"),
        phrase("changeover.steps.closed_why"),
        phrase("changeover.steps.closed_how"),
        10,
        1,
        (AMPS,),
        ("tool-multimeter",),
    )
    yield Step(
        "fused",
        CONNECT,
        phrase("changeover.steps.fused", fuse=fuse),
        phrase("changeover.steps.fused_why"),
        phrase("changeover.steps.fused_how"),
        5,
        1,
        (AMPS,),
        ("check-fuse", "check-short_circuit", "wire-main_fuse"),
    )
    if work.inverter:
        yield Step(
            "precharge",
            CONNECT,
            phrase("changeover.steps.precharge"),
            phrase("changeover.steps.precharge_why"),
            phrase("changeover.steps.precharge_how"),
            5,
            1,
            (AMPS,),
            ("tool-resistor",),
        )
    yield Step(
        "isolated",
        CONNECT,
        phrase("changeover.steps.isolated"),
        phrase("changeover.steps.isolated_why"),
        phrase("changeover.steps.isolated_how"),
        5,
    )


def _apart(work: Work) -> str:
    """How strings are measured, and what to do where they differ."""
    how = phrase("changeover.steps.strings_how")
    if work.build.bank.parallel < 2:
        return how
    most = f"{EQUAL_V * work.plan.system_v / 12:.1g}"
    how += phrase("changeover.steps.strings_equal", most=most)
    apart = inequality(work)
    if apart is None or apart.equal:
        return how
    return how + phrase(
        "changeover.steps.strings_apart",
        volts=f"{apart.volts:.2f}",
        low=apart.low,
        ah=f"{apart.ah:.0f}",
        amps=f"{apart.amps:.0f}",
        hours=f"{apart.hours:.1f}",
    )


def _settings(work: Work) -> Iterator[Step]:
    for source in work.sources:
        if source.charges and not source.is_relay:
            yield Step(
                f"set-{source.id}",
                SETTINGS,
                phrase("changeover.steps.set_source", name=work.name(source)),
                phrase("changeover.steps.set_source_why"),
                phrase("changeover.steps.set_source_how"),
                10,
                source=source.id,
            )
    yield Step(
        "set_loads",
        SETTINGS,
        phrase("changeover.steps.set_loads"),
        phrase("changeover.steps.set_loads_why"),
        phrase("changeover.steps.set_loads_how"),
        15,
    )
    yield Step(
        "set_monitor",
        SETTINGS,
        phrase("changeover.steps.set_monitor"),
        phrase("changeover.steps.set_monitor_why"),
        phrase("changeover.steps.set_monitor_how"),
        10,
        parts=("part-shunt", "watch-gauge", "watch-buzzer"),
    )
    kinds = {s.kind for s in work.plan.sources}
    others = bool(kinds - {SOLAR})
    if others:
        yield Step(
            "sources_on",
            SETTINGS,
            phrase("changeover.steps.sources_on"),
            phrase("changeover.steps.sources_on_why"),
            "",
            10,
            1,
            (AC,) if MAINS in kinds else (),
            ("part-upkeep",),
        )
    if SOLAR in kinds:
        yield Step(
            "solar_on",
            SETTINGS,
            phrase("changeover.steps.solar_on"),
            phrase("changeover.steps.solar_on_why"),
            "",
            5,
        )


def _proof(work: Work) -> Iterator[Step]:
    bank = work.build.bank
    load = phrase("changeover.steps.load", name=work.load.name, amps=f"{work.load.amps:.1f}")
    yield Step(
        "loaded",
        PROOF,
        phrase("changeover.steps.loaded"),
        phrase("changeover.steps.loaded_why"),
        phrase("changeover.steps.loaded_how", load=load),
        15,
        1,
        (AMPS,),
        ("tool-multimeter", "tool-clamp", "tool-resistor"),
    )
    if bank.parallel > 1:
        yield Step(
            "shared",
            PROOF,
            phrase("changeover.steps.shared"),
            phrase("changeover.steps.shared_why"),
            phrase("changeover.steps.shared_how"),
            10,
            parts=("tool-clamp",),
        )
    yield Step(
        "joints",
        PROOF,
        phrase("changeover.steps.joints"),
        phrase("changeover.steps.joints_why"),
        phrase("changeover.steps.joints_how"),
        10,
        parts=("tool-thermometer",),
    )
    yield Step(
        "acceptance",
        PROOF,
        phrase("changeover.steps.acceptance"),
        phrase("changeover.steps.acceptance_why"),
        phrase("changeover.steps.acceptance_how", load=load),
        60,
    )
    yield Step(
        "spent",
        PROOF,
        phrase("changeover.steps.spent"),
        phrase("changeover.steps.spent_why"),
        phrase("changeover.steps.spent_how"),
        2 + 2 * bank.units,
        parts=("tool-multimeter",),
    )
    if any(s.charges for s in work.sources):
        yield Step(
            "sources",
            PROOF,
            phrase("changeover.steps.sources"),
            phrase("changeover.steps.sources_why"),
            phrase("changeover.steps.sources_how"),
            15,
            1,
            () if work.lead else (COLD,),
            ("tool-clamp",),
        )


def _later(work: Work) -> Iterator[Step]:
    yield Step(
        "day_after",
        LATER,
        phrase("changeover.steps.day_after"),
        phrase("changeover.steps.day_after_why"),
        phrase("changeover.steps.day_after_how"),
        15,
    )
    if any(s.kind == MAINS for s in work.plan.sources):
        yield Step(
            "fortnight",
            LATER,
            phrase("changeover.steps.fortnight"),
            phrase("changeover.steps.fortnight_why"),
            phrase("changeover.steps.fortnight_how"),
            10,
        )
    if work.build.coldest.number < 10:
        yield Step(
            "cold_morning",
            LATER,
            phrase("changeover.steps.cold_morning"),
            phrase("changeover.steps.cold_morning_why"),
            phrase("changeover.steps.cold_morning_lead")
            if work.lead
            else phrase("changeover.steps.cold_morning_lfp"),
            10,
        )
    yield Step(
        "quarter",
        LATER,
        phrase("changeover.steps.quarter"),
        phrase("changeover.steps.quarter_why"),
        phrase("changeover.steps.quarter_how"),
        30,
        parts=("tool-torque",),
    )
