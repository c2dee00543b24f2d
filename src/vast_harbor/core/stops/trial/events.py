"""What happened to a bank on the way, as sentences."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.battery.datasheet import BY_ITSELF
from vast_harbor.core.battery.temperature import FREEZING_MARGIN_K, freezing_points_c
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.simulation.parameters import (
    ASLEEP,
    BMS_OPEN,
    EMPTY,
    HEATING,
    INVERTER_OFF,
    LOADS_OFF,
    OVERLOAD,
    RESTING,
    TOO_COLD,
    Traces,
)
from vast_harbor.core.simulation.run import fed_by
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.trial.stretch_setup import PreparedStretch
from vast_harbor.core.weather.daily_weather import STEPS_A_DAY
from vast_harbor.phrases import phrase

# A cut-off that comes again within this time is told once [steps].
TOGETHER = 8
MOST = 60
# So far above the least temperature at which it may be charged, it is the heat that bars it [K].
HOT_K = 20.0


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened.

    Attributes:
        step, until: first step and the one after the last.
        code: stable name.
        severity: ``blocking``, ``caution`` or ``note``.
        says: what, in words.
    """

    step: int
    until: int
    code: str
    severity: str
    says: Sentence


def spans(on: np.ndarray, gap: int = 1) -> list[tuple[int, int]]:
    """Where flags stand, as (first, one after last); those less than ``gap`` apart count as one."""
    edges = np.flatnonzero(np.diff(np.concatenate(([0], on.astype(np.int8), [0]))))
    out: list[tuple[int, int]] = []
    for start, end in zip(edges[::2], edges[1::2], strict=True):
        if out and start - out[-1][1] < gap:
            out[-1] = (out[-1][0], int(end))
        else:
            out.append((int(start), int(end)))
    return out


def events(simulated: SimulatedBank, prepared: PreparedStretch, traces: Traces) -> tuple[Event, ...]:
    """What happened to one bank, in order of time; sixty at most.

    Args:
        simulated: the bank.
        prepared: the stretch.
        traces: how it went, one stretch wide.
    """
    finder = _EventFinder(simulated, prepared, traces)
    found = sorted(finder.all(), key=lambda e: (e.step, e.severity != "blocking"))
    return tuple(found[:MOST])


class _EventFinder:
    def __init__(self, simulated: SimulatedBank, prepared: PreparedStretch, traces: Traces) -> None:
        self.simulated, self.prepared, self.traces = simulated, prepared, traces
        self.state = traces.state[0]
        self.dt = prepared.conditions.step_h
        self.at = f"trial.{simulated.id}.event"

    def all(self) -> Iterator[Event]:
        yield from self._bms()
        yield from self._inverter()
        yield from self._loads()
        yield from self._charge()
        yield from self._low()
        yield from self._frozen()
        yield from self._heater()
        yield from self._short()

    def figure(self, step: int, key: str, name: str, value: float, unit: str) -> Figure:
        return Figure(
            f"{self.at}.{step}.{key}", name, value, unit, REFERENCE, source=phrase("trial.events.trial")
        )

    def _soc(self, step: int) -> Figure:
        return self.figure(step, "soc", phrase("terms.names.charge"), float(self.traces.soc[0, step]), "%")

    def _time(self, step: int, until: int) -> Figure:
        return self.figure(
            step, "time", phrase("trial.events.duration"), (until - step) * self.dt, "duration"
        )

    def _watts(self, step: int) -> Figure:
        return self.figure(
            step, "watts", phrase("trial.events.load"), float(self.prepared.conditions.peak_w[0, step]), "W"
        )

    def _bms(self) -> Iterator[Event]:
        simulated, conditions = self.simulated, self.prepared.conditions
        if not simulated.lfp:
            return
        for start, end in spans((self.state & BMS_OPEN) > 0, TOGETHER):
            inside = self.state[start:end]
            figures = {"soc": self._soc(start), "time": self._time(start, end)}
            reset = self._reset(start, end)
            if (inside & OVERLOAD).any():
                at = start + int(np.flatnonzero(inside & OVERLOAD)[0])
                volts = max(1.0, float(self.traces.peak_v[0, at]))
                over_peak = conditions.peak_w[0, at] / volts > simulated.peak_a
                limit = simulated.peak_a if over_peak else simulated.lasting_a
                watts = (
                    conditions.peak_w[0, at] if over_peak else conditions.lasting_w(simulated.peak_s)[0, at]
                )
                figures |= {
                    "watts": self.figure(at, "watts", phrase("trial.events.load"), float(watts), "W"),
                    "amps": self.figure(at, "amps", phrase("terms.names.current"), float(watts) / volts, "A"),
                    "limit": self.figure(at, "limit", phrase("trial.events.bms_limit"), limit, "A"),
                }
                says = phrase("trial.events.bms_shuts_down_needs")
                yield Event(start, end, "bms_overload", "blocking", Sentence(says + reset, figures))
            elif (inside & EMPTY).any() or self.traces.soc[0, start] < 0.12:
                says = phrase("trial.events.empty_bms_shuts_down")
                yield Event(start, end, "bms_empty", "blocking", Sentence(says + reset, figures))
            elif conditions.battery_c[0, start] < simulated.discharge_c[0]:
                figures["T"] = self.figure(
                    start, "T", phrase("trial.events.battery"), float(conditions.battery_c[0, start]), "°C"
                )
                says = phrase("trial.events.too_cold_use_bms")
                yield Event(start, end, "bms_cold", "blocking", Sentence(says, figures))
            else:
                figures["watts"] = self._watts(start)
                figures["V"] = self.figure(
                    start, "V", phrase("terms.names.volts"), float(self.traces.peak_v[0, start]), "V"
                )
                says = phrase("trial.events.voltage_drops_left_bms")
                yield Event(start, end, "bms_volts", "blocking", Sentence(says + reset, figures))
        for start, end in spans((self.state & ASLEEP) > 0, STEPS_A_DAY):
            figures = {"time": self._time(start, end)}
            says = phrase("trial.events.sleeps_charger_detect_start")
            yield Event(start, end, "asleep", "blocking", Sentence(says, figures))

    def _reset(self, start: int, end: int) -> str:
        if end >= len(self.state):
            return phrase("trial.events.reconnect_during_trial")
        if self.simulated.resets == BY_ITSELF:
            return phrase("trial.events.reconnects_itself")
        return phrase("trial.events.charger_must_wake_again")

    def _inverter(self) -> Iterator[Event]:
        opened = (self.state & (BMS_OPEN | EMPTY)) > 0
        for start, end in spans(((self.state & INVERTER_OFF) > 0) & ~opened, TOGETHER):
            figures = {
                "soc": self._soc(start),
                "time": self._time(start, end),
                "watts": self._watts(start),
                "V": self.figure(
                    start,
                    "V",
                    "Cut-off",
                    self.simulated.cut_offs.inverter_v * self.simulated.class_v / 12,
                    "V",
                ),
            }
            tail = phrase("trial.events.stays_off")
            if end < len(self.state) and end - start <= 2:
                tail = phrase("trial.events.starts_again_when_load")
            yield Event(
                start, end, "inverter", "blocking",
                Sentence(phrase("trial.events.voltage_drops_below_left", tail=tail), figures),
            )  # fmt: skip

    def _loads(self) -> Iterator[Event]:
        for start, end in spans((self.state & LOADS_OFF) > 0, TOGETHER):
            figures = {"soc": self._soc(start), "time": self._time(start, end)}
            says = phrase("trial.events.disconnect_switches_loads_off")
            yield Event(start, end, "disconnect", "blocking", Sentence(says, figures))
        if self.simulated.lfp:
            return
        for start, end in spans(
            ((self.state & EMPTY) > 0) & ((self.state & LOADS_OFF) == 0), STEPS_A_DAY // 2
        ):
            figures = {"soc": self._soc(start), "time": self._time(start, end)}
            says = phrase("trial.events.empty_nothing_drawn_although")
            yield Event(start, end, "flat", "blocking", Sentence(says, figures))

    def _charge(self) -> Iterator[Event]:
        # What a plug offers is not lost where it is not taken.
        free = [i for i, s in enumerate(fed_by(self.simulated, self.prepared.conditions)) if not s.plugged]
        lost = (self.traces.offered_w - self.traces.used_w)[free, 0].sum(axis=0)
        for start, end in spans((self.state & TOO_COLD) > 0, STEPS_A_DAY // 2):
            wh = float(lost[start:end].sum()) * self.dt
            warmth = self.prepared.conditions.battery_c[0, start:end]
            hot = float(warmth.mean()) > self.simulated.charge_c[0] + HOT_K
            worst = float(warmth.max() if hot else warmth.min())
            figures = {
                "T": self.figure(start, "T", phrase("trial.events.battery"), worst, "°C"),
                "Wh": self.figure(start, "Wh", phrase("trial.events.accepted"), wh, "Wh"),
            }
            says = (
                phrase("trial.events.too_warm_charge_up")
                if hot
                else (phrase("trial.events.too_cold_charge_down"))
            )
            says += phrase("trial.events.sun_wind_engine_lost") if wh > 1 else "."
            yield Event(start, end, "too_warm" if hot else "too_cold", "caution", Sentence(says, figures))
        for start, end in spans((self.state & RESTING) > 0):
            low = float(self.traces.soc[0, start : end + 1].min())
            if self.traces.soc[0, start] - low < 0.02:
                continue
            figures = {
                "time": self._time(start, end),
                "low": self.figure(start, "low", phrase("trial.events.lowest"), low, "%"),
            }
            says = phrase("trial.events.charger_rests_hook_up")
            yield Event(start, end, "rests", "caution", Sentence(says, figures))

    def _low(self) -> Iterator[Event]:
        least = self.prepared.conditions.least_v[0] * self.simulated.class_v / 12
        volts = self.traces.volts[0]
        for start, end in spans((volts < least) & (volts > 0), TOGETHER):
            lowest = float(volts[start:end].min())
            figures = {
                "V": self.figure(start, "V", phrase("terms.names.volts"), lowest, "V"),
                "least": self.figure(
                    start, "least", phrase("trial.events.needed"), float(least[start:end].max()), "V"
                ),
                "time": self._time(start, end),
            }
            says = phrase("trial.events.voltage_load_needs")
            yield Event(start, end, "low_volts", "caution", Sentence(says, figures))

    def _frozen(self) -> Iterator[Event]:
        if self.simulated.lfp:
            return
        celsius, soc = self.prepared.conditions.battery_c[0], self.traces.soc[0, :-1]
        freezes = freezing_points_c(soc)
        for start, end in spans(celsius < freezes + FREEZING_MARGIN_K, STEPS_A_DAY):
            at = start + int(np.argmin((celsius - freezes)[start:end]))
            figures = {
                "T": self.figure(at, "T", phrase("trial.events.battery"), float(celsius[at]), "°C"),
                "F": self.figure(at, "F", phrase("trial.events.freezing_point"), float(freezes[at]), "°C"),
                "soc": self._soc(at),
            }
            if celsius[at] < freezes[at]:
                says = phrase("trial.events.freezes_left_where_freezing")
                yield Event(start, end, "frozen", "blocking", Sentence(says, figures))
            else:
                says = phrase("trial.events.almost_freezing_left_where")
                yield Event(start, end, "near_freezing", "caution", Sentence(says, figures))

    def _heater(self) -> Iterator[Event]:
        """What its heater took over the whole stretch, told where it first runs."""
        runs = np.flatnonzero(self.state & HEATING)
        if not runs.size:
            return
        start = int(runs[0])
        wh = float(self.traces.heater_w.sum()) * self.dt
        figures = {
            "Wh": self.figure(start, "heater", phrase("trial.events.heater"), wh, "Wh"),
            "time": self.figure(
                start, "heats", phrase("trial.events.heating_time"), runs.size * self.dt, "duration"
            ),
        }
        says = phrase("trial.events.heater_warms_charging_over")
        yield Event(start, start + 1, "heats", "note", Sentence(says, figures))

    def _short(self) -> Iterator[Event]:
        """Off-grid days on whose evening it was not full, told once."""
        if not self.simulated.sources:
            return
        days = len(self.prepared.specs)
        best = self.traces.soc[0, :-1].reshape(days, STEPS_A_DAY).max(axis=1)
        short = [
            d
            for d, spec in enumerate(self.prepared.specs)
            if not spec.hook_up and best[d] < self.simulated.full_soc
        ]
        if not short or len(short) < 2:
            return
        start = short[0] * STEPS_A_DAY
        figures = {
            "n": self.figure(start, "short", phrase("trial.events.days"), len(short), "days"),
            "best": self.figure(
                start, "best", phrase("trial.events.highest"), float(np.mean(best[short])), "%"
            ),
        }
        says = phrase("trial.events.ended_off_grid_short")
        yield Event(start, start + 1, "not_full", "note", Sentence(says, figures))
