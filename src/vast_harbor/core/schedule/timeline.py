"""Days, weather and sources laid out step by step: what a run of banks goes through."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import LAID_UP, DayType
from vast_harbor.core.rig.derating import living_c
from vast_harbor.core.rig.plan import Plan, Reference, TrialSettings
from vast_harbor.core.rig.sources import ENGINE, GENERATOR, MAINS, PITCHES, SOLAR, STREAM, UPKEEP, Source
from vast_harbor.core.schedule.day_pattern import DaySpec
from vast_harbor.core.schedule.load_steps import LoadSteps, coverage, load_steps
from vast_harbor.core.simulation.conditions import Conditions, Feed, Flags, Floats
from vast_harbor.core.stops.day import NOON_H
from vast_harbor.core.stops.need import Days
from vast_harbor.core.weather.climate import INSIDE, LIVING, Climate, warmth_at
from vast_harbor.core.weather.daily_weather import STEP_H, STEPS_A_DAY, Weather, clear_share, draw_weather
from vast_harbor.core.weather.insolation import Sunshine, sunshine

# How much of the day's swing of the air reaches a battery, which is heavy.
SWING_SHARE = 0.5
# How much of a change of the air reaches it, by its place.
FOLLOWS_AIR = {LIVING: 0.0, INSIDE: 0.5}
# What the loads ask of a bank in each step, see ``Conditions``.
ASKED = ("dc_w", "ac_w", "critical_dc_w", "critical_ac_w", "peak_w", "least_v")
# Climate that stands in where none is chosen.
USUAL_CLIMATE = "maritime"


@dataclass(frozen=True)
class Timeline:
    """A rig's days, ready to be laid out for any stretch.

    Attributes:
        plan, reference, assumptions, days: the plan and what holds for it.
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days

    @property
    def calm(self) -> "Timeline":
        """The same without what is only tried: for the year."""
        return replace(self, plan=replace(self.plan, trial=TrialSettings()))

    @property
    def climate(self) -> Climate:
        """The site's climate, or the usual one."""
        return self.plan.site.climate or self.reference.climates[USUAL_CLIMATE]

    def sunshine_of(self, source: Source) -> Sunshine | None:
        """What the sun brings onto a source's panels; None without a site."""
        site = self.plan.site
        if site.latitude is None or site.longitude is None:
            return None
        found = sunshine(site.latitude, site.longitude, site.utc_offset_h, source.tilt, source.azimuth)
        if not self.plan.sun_hours:
            return found
        mean = [found.daily_kwh(m, clear_share(self.climate, m, site.south)) for m in range(1, 13)]
        # Where the sky gives nothing at all, the owner's hours have no time of day to stand at.
        return found.scaled(
            [own / m if m > 1e-3 else 0.0 for own, m in zip(self.plan.sun_hours, mean, strict=True)]
        )

    def demands(self, types: Sequence[DayType]) -> Mapping[str, LoadSteps]:
        """What each kind of day asks, by its id."""
        return {t.id: load_steps(self.days.days[t.id]) for t in types}

    def lay_out(
        self, stretches: Sequence[Sequence[DaySpec]], months: Sequence[int], seeds: Sequence[int],
        kinds: Sequence[int] | None = None, colder_k: float = 0.0,
    ) -> tuple[Conditions, Weather]:  # fmt: skip
        """Stretches of equal length as one drive.

        Args:
            stretches: the days of each.
            months: month of each, 1 to 12.
            seeds: seed of each one's weather.
            kinds: kinds of the days' weather where it is not drawn.
            colder_k: how much colder than drawn [K].

        Returns:
            The drive, and the weather that it has.
        """
        count = len(stretches[0])
        weather = draw_weather(self.climate, months, count, self.plan.site.south, seeds, kinds, colder_k)
        types = {spec.type.id: spec.type for days in stretches for spec in days}
        label_requirement = self.demands(list(types.values()))
        shape = (len(stretches), count, STEPS_A_DAY)
        parts = {name: np.zeros(shape) for name in ASKED}
        starts = {seconds: np.zeros(shape) for seconds in next(iter(label_requirement.values())).starts}
        celsius = np.zeros(shape)
        air = weather.air_c.reshape(shape)
        hidden = self.plan.trial.hidden_w
        for j, specs in enumerate(stretches):
            for d, spec in enumerate(specs):
                shift = self._shift(spec.type)
                ask = label_requirement[spec.type.id]
                dc, ac, critical_dc, critical_ac = ask.on(float(weather.mean_c[j, d]) + shift)
                # On hook-up what needs mains gets it from the hook-up.
                plugged = spec.hook_up
                parts["dc_w"][j, d] = dc + hidden
                parts["ac_w"][j, d] = 0.0 if plugged else ac
                parts["critical_dc_w"][j, d] = critical_dc
                parts["critical_ac_w"][j, d] = 0.0 if plugged else critical_ac
                for seconds, watts in ask.starts.items():
                    starts[seconds][j, d] = dc if plugged else np.maximum(watts, dc + ac)
                parts["peak_w"][j, d] = dc if plugged else np.maximum(ask.peak, dc + ac)
                parts["least_v"][j, d] = ask.least_v
                celsius[j, d] = self._battery_c(spec, air[j, d] + shift, float(weather.mean_c[j, d]) + shift)
        parts["dc_w"] += self._upkeep_w()
        flat = (len(stretches), count * STEPS_A_DAY)
        feeds = tuple(self._feed(s, stretches, months, weather) for s in self.plan.sources if s.charges)
        may_run = [[self._generator_hours(spec) for spec in specs] for specs in stretches]
        conditions = Conditions(
            step_h=STEP_H,
            battery_c=_smooth(celsius.reshape(flat)),
            generator_ok=np.array(may_run).reshape(flat),
            feeds=feeds,
            starts_w=tuple((seconds, watts.reshape(flat)) for seconds, watts in starts.items()),
            **{name: part.reshape(flat) for name, part in parts.items()},
        )
        return conditions, weather

    def _shift(self, day_type: DayType) -> float:
        """How much colder or warmer such days are than the climate has it, where the owner says so [K]."""
        if day_type.air_c is None:
            return 0.0
        return day_type.air_c - self.climate.season_c(day_type.season)

    def _battery_c(self, spec: DaySpec, air: Floats, mean: float) -> Floats:
        """Temperature of the battery over one day: the owner's, moved with the air; else by its place."""
        plan = self.plan
        slow = mean + SWING_SHARE * (air - mean)
        day = self.days.days[spec.type.id]
        here = plan.battery_c if spec.kind != LAID_UP else None
        stated = spec.type.battery_c if spec.type.battery_c is not None else here
        if stated is not None:
            usual = day.air_c.number
            return np.asarray(stated + FOLLOWS_AIR.get(plan.place, 1.0) * (slow - usual))
        there = spec.kind != LAID_UP
        room = [living_c(plan, self.assumptions, a) for a in slow]
        return np.array([warmth_at(plan.place, a, r, there, False) for a, r in zip(slow, room, strict=True)])

    def _upkeep_w(self) -> float:
        volts = self.plan.system_v
        return sum((s.amps or 0.0) * volts * s.hours / 24 for s in self.plan.sources if s.kind == UPKEEP)

    def _generator_hours(self, spec: DaySpec) -> Flags:
        generator = next((s for s in self.plan.sources if s.kind == GENERATOR), None)
        if generator is None or spec.hook_up or spec.kind == LAID_UP:
            return np.zeros(STEPS_A_DAY, dtype=bool)
        return allowed_steps(generator)

    def _feed(
        self, source: Source, stretches: Sequence[Sequence[DaySpec]], months: Sequence[int], weather: Weather
    ) -> Feed:
        shape = (len(stretches), len(stretches[0]), STEPS_A_DAY)
        unit, starts = np.zeros(shape), np.zeros(shape, dtype=bool)
        sun = self.sunshine_of(source) if source.kind == SOLAR else None
        conditions = driving(self.plan)
        lit = weather.sunlit.reshape(shape)
        dirt = self.assumptions.value("panel_dirt")
        for j, specs in enumerate(stretches):
            month = months[j] - 1
            for d, spec in enumerate(specs):
                if source.kind == SOLAR and sun is not None:
                    over = np.where(lit[j, d], sun.clear[month], sun.cloudy[month])
                    unit[j, d] = over / 1000 * dirt * PITCHES[spec.pitch]
                    starts[j, d, 0] = True
                elif source.kind == MAINS and spec.hook_up:
                    unit[j, d] = 1.0
                    starts[j, d, 0] = d == 0 or not specs[d - 1].hook_up
                elif source.kind == ENGINE and spec.drives:
                    unit[j, d] = conditions
                    starts[j, d, int(np.argmax(conditions > 0))] = True
                elif source.kind == STREAM:
                    unit[j, d] = source.monthly_w[month] if source.monthly_w else 0.0
                    starts[j, d, 0] = True
        flat = (len(stretches), -1)
        return Feed(source.id, unit.reshape(flat), starts.reshape(flat))


def driving(plan: Plan) -> Floats:
    """Share of each step of a travelling day in which the engine runs, about one in the afternoon."""
    half = min(12.0, plan.drive_hours / 2)
    return coverage(((max(0.0, NOON_H - half), min(24.0, NOON_H + half)),))


def allowed_steps(generator: Source) -> Flags:
    """Whether a generator may run, by step of the day, shape (96,)."""
    hours = (np.arange(STEPS_A_DAY) + 0.5) * STEP_H
    start, end = generator.quiet_from, generator.quiet_to
    if start == end:
        return np.ones(STEPS_A_DAY, dtype=bool)
    quiet = (hours >= start) & (hours < end) if start < end else (hours >= start) | (hours < end)
    return np.asarray(~quiet)


def _smooth(celsius: Floats) -> Floats:
    """From one day to the next the temperature of a battery does not jump: a mean over three hours."""
    width = int(3 / STEP_H)
    padded = np.pad(celsius, ((0, 0), (width // 2, width - width // 2)), mode="edge")
    sums = np.cumsum(np.pad(padded, ((0, 0), (1, 0))), axis=1)
    return np.asarray((sums[:, width:-1] - sums[:, : -width - 1]) / width)
