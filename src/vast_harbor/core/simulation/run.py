"""Banks run through days side by side: what each step needs is laid out, then the compiled loop runs."""

from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.charge_acceptance import (
    COLD_C,
    COMPENSATED_C,
    COOL_C,
    COOL_RATE,
    VOLTS_SCALE,
    charge_ohm,
    self_discharge,
    tail_c,
    time_constant,
)
from vast_harbor.core.battery.datasheet import BY_ITSELF
from vast_harbor.core.battery.terminal_voltage import KNEE_V, cold_factor
from vast_harbor.core.figures.clock import DAY_H
from vast_harbor.core.rig.sources import (
    CHARGE_V,
    DC_DC_EFFICIENCY,
    ENGINE,
    GENERATOR,
    MAINS,
    MPPT,
    MPPT_EFFICIENCY,
    PANEL_V,
    REST_AFTER_H,
    SOLAR,
    STREAM,
    Source,
    engine_watts,
    generator_watts,
)
from vast_harbor.core.simulation import kernel
from vast_harbor.core.simulation.conditions import Conditions, Feed
from vast_harbor.core.simulation.parameters import (
    SUMMED,
    BankParameters,
    Chargers,
    RestedVolts,
    Series,
    Slots,
    Traces,
)
from vast_harbor.core.simulation.simulated_bank import SimulatedBank

ENDLESS = 1e12
# In the order in which their charge is counted as used: the sun before what is bought.
_LAST_USED = {SOLAR: 0, STREAM: 1, ENGINE: 2, MAINS: 3}


def run(
    simulated_banks: Sequence[SimulatedBank], conditions: Conditions, soc: float | Floats = 1.0,
    longer: bool = False,
) -> list[Traces]:  # fmt: skip
    """Run banks through the same days.

    Args:
        simulated_banks: the banks.
        conditions: the days of one or more stretches.
        soc: state of charge at the start [-], one for all or of shape (stretches,).
        longer: whether steps that are alike are taken at once where nothing can happen within them: for whole
            seasons, of which sums are asked and no moments.

    Returns:
        How it went, one for each bank.
    """
    start = np.full(conditions.stretches, float(soc)) if np.ndim(soc) == 0 else np.asarray(soc, dtype=float)
    out = []
    for simulated in simulated_banks:
        fed = [f for f in conditions.feeds if any(s.id == f.id and s.charges for s in simulated.sources)]
        summed, traces = empty_traces(len(fed), conditions.steps, conditions.stretches)
        kernel.run(
            bank_parameters(simulated), _rested(simulated), _series(simulated, conditions, longer),
            _slots(simulated, conditions, fed), Chargers.of(len(fed)), start, conditions.step_h, summed,
            traces,
        )  # fmt: skip
        out.append(traces)
    return out


def fed_by(simulated: SimulatedBank, conditions: Conditions) -> list[Source]:
    """The sources in the order of ``used_w`` and ``offered_w``."""
    by_id = {s.id: s for s in simulated.sources if s.charges}
    return [by_id[f.id] for f in conditions.feeds if f.id in by_id]


def power_offered(sources: Sequence[Source], system_v: float, conditions: Conditions) -> Floats:
    """What all sources could give at the volts of a charge, whatever the bank takes [W].

    Args:
        sources: what charges.
        system_v: class volts [V].
        conditions: the days.

    Returns:
        Shape (stretches, steps).
    """
    n = system_v / 12
    out = np.zeros(conditions.dc_w.shape)
    for feed in conditions.feeds:
        source = next((s for s in sources if s.id == feed.id and s.charges), None)
        if source is None:
            continue
        volts = CHARGE_V * n
        if _by_power(source):
            out += np.minimum(_watts(source) * feed.unit, _amps(source, n) * volts)
        else:
            out += _amps(source, n) * feed.unit * volts
    return out


def empty_traces(sources: int, steps: int, stretches: int) -> tuple[Floats, Traces]:
    """Traces to be filled, those that are summed up in one array beneath them."""

    def some(columns: int = steps) -> Floats:
        return np.zeros((stretches, columns))

    summed = np.zeros((len(SUMMED), stretches, steps))
    by_source = {name: np.zeros((sources, stretches, steps)) for name in ("used_w", "offered_w")}
    state = np.zeros((stretches, steps), dtype=np.int32)
    charge, soc, level = (some(steps + 1) for _ in range(3))
    plain = dict(zip(SUMMED, summed, strict=True))
    return summed, Traces(
        charge=charge, soc=soc, level=level, peak_v=some(), state=state, **plain, **by_source
    )


def _rested(simulated: SimulatedBank) -> RestedVolts:
    xs, ys = (np.array(part, dtype=float) for part in zip(*simulated.battery_class.rested_v, strict=True))
    ys = ys * simulated.class_v / 12
    areas = np.concatenate(([0.0], np.cumsum((ys[1:] + ys[:-1]) / 2 * np.diff(xs))))
    return RestedVolts(xs, ys, areas)


def bank_parameters(simulated: SimulatedBank) -> BankParameters:
    """A bank in the numbers that the loop takes."""
    n = simulated.class_v / 12
    generator = next((s for s in simulated.sources if s.kind == GENERATOR), None)
    chargers = sum(s.kind == MAINS for s in simulated.sources)
    cut_offs = simulated.cut_offs
    gives = generator_watts(generator) / (CHARGE_V * n) / chargers if generator and chargers else 0.0
    return BankParameters(
        q_max=simulated.wells.capacity,
        ratio=simulated.wells.ratio,
        rate=simulated.wells.rate,
        ah=simulated.nameplate_ah,
        lfp=simulated.lfp,
        ohm=simulated.ohm / simulated.health,
        cable_ohm=simulated.cable_ohm,
        charge_ohm=charge_ohm(simulated.battery_class, simulated.ohm / simulated.health, simulated.cable_ohm),
        knee_v=0.0 if simulated.lfp else KNEE_V * n,
        lasting_a=simulated.lasting_a,
        peak_a=simulated.peak_a,
        cut_v=simulated.cut_v * n,
        close_v=simulated.close_v * n,
        by_itself=simulated.resets == BY_ITSELF,
        coulombic=simulated.coulombic,
        heater_w=simulated.heater_w,
        heated_a=min(simulated.charge_a, COOL_RATE * simulated.nameplate_ah),
        standing_w=simulated.standing_a * simulated.class_v,
        full_soc=simulated.full_soc,
        tail_a=tail_c(simulated.battery_class) * simulated.nameplate_ah,
        inverter_v=cut_offs.inverter_v * n,
        restart_v=cut_offs.restart_v * n,
        disconnect_v=-1.0 if cut_offs.disconnect_v is None else cut_offs.disconnect_v * n,
        reconnect_v=cut_offs.reconnect_v * n,
        keeps_critical=cut_offs.keeps_critical,
        generator_start=generator.start_soc if gives and generator else -1.0,
        generator_stop=generator.stop_soc if gives and generator else -1.0,
        generator_a=gives,
    )


# So long a step is at most, and for a full bank that mains holds [h].
MOST_AT_ONCE_H, MOST_HELD_H = 2.0, 8.0
# Powers as near as this are the same [W].
SAME_W = 1e-6
# Of what mains gives loads may take so much to leave a bank full [-].
EASILY = 0.8


def _alike(conditions: Conditions, simulated: SimulatedBank, limit: Floats) -> NDArray[np.int64]:
    """How many steps from each one on are like it, within its day, shape (stretches, steps)."""
    same = limit[:, 1:] == limit[:, :-1]
    for part in (
        conditions.dc_w, conditions.ac_w, conditions.critical_dc_w, conditions.critical_ac_w,
        conditions.peak_w, conditions.lasting_w(simulated.peak_s),
    ):  # fmt: skip
        same &= np.abs(part[:, 1:] - part[:, :-1]) < SAME_W
    for feed in conditions.feeds:
        same &= (feed.unit[:, 1:] == feed.unit[:, :-1]) & ~feed.starts[:, 1:]
    same &= ~conditions.generator_ok[:, 1:] & ~conditions.generator_ok[:, :-1]
    return _at_once(same, conditions.step_h, MOST_AT_ONCE_H)


def _held(conditions: Conditions, simulated: SimulatedBank) -> NDArray[np.int64]:
    """How many steps from each one on mains gives easily all that is asked, shape (stretches, steps)."""
    amps = {s.id: s.amps or 0.0 for s in simulated.sources if s.kind == MAINS}
    given = sum((f.unit * amps.get(f.id, 0.0) for f in conditions.feeds), np.zeros(conditions.dc_w.shape))
    asked = np.maximum(conditions.peak_w, conditions.dc_w + conditions.ac_w)
    held = asked < EASILY * given * simulated.class_v
    same = held[:, 1:] & held[:, :-1]
    for feed in conditions.feeds:
        if feed.id in amps:
            same &= ~feed.starts[:, 1:]
    return _at_once(same, conditions.step_h, MOST_HELD_H)


def _at_once(same: NDArray[np.bool_], step_h: float, most_h: float) -> NDArray[np.int64]:
    """Steps from each one on that may be taken at once, where each is, or is not, like the one after it."""
    stretches, steps = same.shape[0], same.shape[1] + 1
    ends = np.ones((stretches, steps), dtype=bool)
    ends[:, :-1] = ~same
    a_day = round(DAY_H / step_h)
    ends[:, a_day - 1 :: a_day] = True
    at = np.where(ends, np.arange(steps), steps)
    last = np.minimum.accumulate(at[:, ::-1], axis=1)[:, ::-1]
    return np.asarray(np.minimum(last - np.arange(steps) + 1, round(most_h / step_h)), dtype=np.int64)


def _series(simulated: SimulatedBank, conditions: Conditions, longer: bool) -> Series:
    celsius = conditions.battery_c
    low, high = simulated.charge_c
    limit = np.full(celsius.shape, simulated.charge_a)
    if simulated.lfp:
        limit = np.where(celsius < COOL_C, np.minimum(limit, COOL_RATE * simulated.nameplate_ah), limit)
        # Only a BMS stops a charge; lead-acid takes it, slower in the cold and to its harm in the heat.
        limit = np.where((celsius < max(low, COLD_C)) | (celsius > high), 0.0, limit)
    ones = np.ones(celsius.shape, dtype=np.int64)
    at, k_t = zip(*simulated.battery_class.temperature_factor, strict=True)
    return Series(
        dc_w=conditions.dc_w,
        ac_w=conditions.ac_w,
        critical_dc_w=conditions.critical_dc_w,
        critical_ac_w=conditions.critical_ac_w,
        lasting_w=conditions.lasting_w(simulated.peak_s),
        peak_w=conditions.peak_w,
        generator_ok=conditions.generator_ok,
        attended=conditions.attended,
        cold_ohm=cold_factor(not simulated.lfp, celsius),
        limit_a=limit,
        held_back=1 - np.minimum(1.0, np.interp(celsius, at, k_t)),
        leak_a=self_discharge(simulated.battery_class, celsius, simulated.health) * simulated.nameplate_ah,
        cold_off=(celsius < simulated.discharge_c[0]) & simulated.lfp,
        heats=(celsius < COOL_C) & (simulated.heater_w > 0),
        alike=_alike(conditions, simulated, limit) if longer else ones,
        held=_held(conditions, simulated) if longer else ones,
    )


def _slots(simulated: SimulatedBank, conditions: Conditions, feeds: Sequence[Feed]) -> Slots:
    by_id = {s.id: s for s in simulated.sources}
    sources = [by_id[f.id] for f in feeds]
    n = simulated.class_v / 12
    shape = (len(feeds), conditions.stretches, conditions.steps)
    volts = [np.zeros(shape) for _ in range(2)]
    taus = [np.ones(shape) for _ in range(2)]
    for i, source in enumerate(sources):
        shift: Floats | float = 0.0
        if source.compensates:
            kelvin = simulated.battery_class.compensation or COMPENSATION
            shift = kelvin * (np.clip(conditions.battery_c, *COMPENSATED_C) - 25)
        for which, at in enumerate((source.set_v, source.hold_v)):
            if at:
                volts[which][i] = (at + shift) * n
                taus[which][i] = time_constant(simulated.battery_class, at + shift, conditions.battery_c)
    order = sorted(range(len(sources)), key=lambda i: (sources[i].set_v, -_LAST_USED[sources[i].kind]))
    softens = [
        s.cable_mohm / 1000 / (VOLTS_SCALE * n) if s.is_relay and not simulated.lfp else 0.0 for s in sources
    ]
    return Slots(
        amps=_floats(_amps(s, n) for s in sources),
        watts=_floats(_watts(s) for s in sources),
        by_power=np.array([_by_power(s) for s in sources], dtype=bool),
        plugged=np.array([s.plugged for s in sources], dtype=bool),
        rests=np.array([s.rests for s in sources], dtype=bool),
        rebulk_v=_floats(s.rebulk_v * n for s in sources),
        timeout_h=_floats(ENDLESS if s.timeout_h is None else s.timeout_h for s in sources),
        wakes=np.array([s.wakes for s in sources], dtype=bool),
        more_ohm=_floats(s.cable_mohm / 1000 if s.is_relay else 0.0 for s in sources),
        softens=_floats(softens),
        order=np.array(order, dtype=np.int64),
        unit=np.array([f.unit for f in feeds], dtype=np.float64).reshape(shape),
        starts=np.array([f.starts for f in feeds], dtype=bool).reshape(shape),
        set_v=volts[0],
        hold_v=volts[1],
        set_tau=taus[0],
        hold_tau=taus[1],
        rest_after_h=REST_AFTER_H,
    )


def _floats(values: Iterable[float]) -> Floats:
    # Whole numbers are made floats, too: the loop is compiled once for them all.
    return np.fromiter(values, dtype=np.float64)


# A charger that compensates does so whatever is connected to it; this is what lead-acid wants [V/K].
COMPENSATION = -0.024


def _by_power(source: Source) -> bool:
    return source.kind == STREAM or (source.kind == SOLAR and source.controller == MPPT)


def _watts(source: Source) -> float:
    if source.kind == SOLAR:
        return source.watts * MPPT_EFFICIENCY * (1 - source.starter_share)
    return 1.0


def _amps(source: Source, scale: float) -> float:
    """The most that a source gives, for a unit of one [A]."""
    limit = ENDLESS if source.amps is None else source.amps
    if source.kind == SOLAR and source.controller != MPPT:
        return min(source.watts / (PANEL_V * scale), limit) * (1 - source.starter_share)
    if source.kind == SOLAR:
        return limit * (1 - source.starter_share)
    if source.kind == STREAM:
        return ENDLESS
    if source.is_relay:
        return engine_watts(source) / (CHARGE_V * scale)
    if source.kind == ENGINE:
        return min(limit, engine_watts(source) * DC_DC_EFFICIENCY / (CHARGE_V * scale))
    return source.amps or 0.0
