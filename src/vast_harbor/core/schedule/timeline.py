"""Days, weather and sources laid out step by step: what a run of banks goes through."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from vast_harbor.core.arrays import Flags, Floats
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import LAID_UP, DayType
from vast_harbor.core.rig.derating import living_c
from vast_harbor.core.rig.plan import Plan, TrialSettings
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.sources import ENGINE, GENERATOR, MAINS, PITCHES, SOLAR, STREAM, UPKEEP, Source
from vast_harbor.core.schedule.day_pattern import DaySpec
from vast_harbor.core.schedule.load_steps import LoadSteps, coverage, load_steps
from vast_harbor.core.simulation.conditions import Conditions, Feed
from vast_harbor.core.stops.day import NOON_H, Day
from vast_harbor.core.stops.day import evaluate as evaluate_day
from vast_harbor.core.stops.need import Days
from vast_harbor.core.weather.climate import INSIDE, LIVING, Climate, warmth_at
from vast_harbor.core.weather.daily_weather import STEP_H, STEPS_A_DAY, Weather, clear_share, draw_weather
from vast_harbor.core.weather.insolation import Sunshine, sunshine
from vast_harbor.core.weather.year_weather import draw_seasons

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
    _made: dict[str, Day] = field(init=False, default_factory=dict, compare=False)
    _steps: dict[str, LoadSteps] = field(init=False, default_factory=dict, compare=False)

    @property
    def calm(self) -> "Timeline":
        """The same without what is only tried: for the year."""
        calm = replace(self, plan=replace(self.plan, trial=TrialSettings()))
        # What is tried changes nothing about what a kind of day asks.
        calm.take_over(self)
        return calm

    def take_over(self, other: "Timeline") -> None:
        """Take what was made of the kinds of day of another rig, whose days are the same."""
        self._made.update(other._made)
        self._steps.update(other._steps)

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

    def day_of(self, day_type: DayType) -> Day:
        """A kind of day in figures, also one that the owner did not make, on which nobody is there."""
        known = self.days.days.get(day_type.id)
        if known is not None:
            return known
        if day_type.id not in self._made:
            self._made[day_type.id] = evaluate_day(self.plan, self.assumptions, day_type)
        return self._made[day_type.id]

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
        dated = [
            [d if d.month else replace(d, month=m) for d in s] for s, m in zip(stretches, months, strict=True)
        ]
        return self.under(dated, weather), weather

    def seasons(self, stretches: Sequence[Sequence[DaySpec]], seed: int) -> tuple[Conditions, Weather]:
        """Whole seasons of equal length as one drive, each day in its own month.

        Who is there when a BMS has opened wakes it, with whatever charges. A drive of :meth:`lay_out` shows
        what happens where nobody does.

        Args:
            stretches: the days of each.
            seed: of their weather.

        Returns:
            The drive, and the weather that it has.
        """
        groups = tuple(tuple((d.month, d.hook_up) for d in s) for s in stretches)
        weather = draw_seasons(self.climate, groups, self.plan.site.south, seed)
        there = np.array([[d.kind != LAID_UP for d in s] for s in stretches], dtype=bool)
        attended = np.repeat(there, STEPS_A_DAY, axis=1)
        return replace(self.under(stretches, weather), attended=attended), weather

    def with_own_sources(
        self, other: "Timeline", laid: Conditions, stretches: Sequence[Sequence[DaySpec]], weather: Weather
    ) -> Conditions:
        """Days laid out for another rig, which differs in its sources only, with the sources of this one.

        Args:
            other: the timeline of that rig.
            laid: its days as :meth:`seasons` gives them.
            stretches: the days.
            weather: their weather.
        """
        known = dict(zip((s for s in other.plan.sources if s.charges), laid.feeds, strict=True))
        feeds = tuple(
            known[s] if s in known else self._feed(s, stretches, weather)
            for s in self.plan.sources
            if s.charges
        )
        may = self._generator_ok(stretches).reshape(laid.generator_ok.shape)
        return replace(laid, feeds=feeds, generator_ok=may)

    def under(self, stretches: Sequence[Sequence[DaySpec]], weather: Weather) -> Conditions:
        """Days under a weather.

        Args:
            stretches: the days of each, with their months.
            weather: of as many days.
        """
        count = len(stretches[0])
        shape = (len(stretches), count, STEPS_A_DAY)
        parts = {name: np.zeros(shape) for name in ASKED}
        starts: dict[float, Floats] = {}
        celsius = np.zeros(shape)
        air = weather.air_c.reshape(shape)
        # Days of one kind are laid out at once.
        alike: dict[tuple[str, str, bool], list[tuple[int, int]]] = {}
        specs = {}
        for j, days in enumerate(stretches):
            for d, spec in enumerate(days):
                key = (spec.type.id, spec.kind, spec.hook_up)
                alike.setdefault(key, []).append((j, d))
                specs[key] = spec
        for key, places in alike.items():
            spec = specs[key]
            at = tuple(np.array(places).T)
            shift = self._shift(spec.type)
            ask = self._load_steps(spec.type)
            mean_c = weather.mean_c[at] + shift
            dc, ac, critical_dc, critical_ac = ask.on(mean_c)
            # On hook-up what needs mains gets it from the hook-up.
            plugged = spec.hook_up
            parts["dc_w"][at] = dc + self.plan.trial.hidden_w
            parts["ac_w"][at] = 0.0 if plugged else ac
            parts["critical_dc_w"][at] = critical_dc
            parts["critical_ac_w"][at] = 0.0 if plugged else critical_ac
            for seconds, watts in ask.starts.items():
                once = starts.setdefault(seconds, np.zeros(shape))
                once[at] = dc if plugged else np.maximum(watts, dc + ac)
            parts["peak_w"][at] = dc if plugged else np.maximum(ask.peak, dc + ac)
            parts["least_v"][at] = ask.least_v
            celsius[at] = self._battery_c(spec, air[at] + shift, mean_c[:, None])
        parts["dc_w"] += self._upkeep_w()
        flat = (len(stretches), count * STEPS_A_DAY)
        return Conditions(
            step_h=STEP_H,
            battery_c=_smooth(celsius.reshape(flat)),
            generator_ok=self._generator_ok(stretches).reshape(flat),
            attended=np.zeros(flat, dtype=bool),
            feeds=tuple(self._feed(s, stretches, weather) for s in self.plan.sources if s.charges),
            starts_w=tuple((seconds, starts[seconds].reshape(flat)) for seconds in sorted(starts)),
            **{name: part.reshape(flat) for name, part in parts.items()},
        )

    def _load_steps(self, day_type: DayType) -> LoadSteps:
        if day_type.id not in self._steps:
            self._steps[day_type.id] = load_steps(self.day_of(day_type))
        return self._steps[day_type.id]

    def _shift(self, day_type: DayType) -> float:
        """How much colder or warmer such days are than the climate has it, where the owner says so [K]."""
        if day_type.air_c is None:
            return 0.0
        return day_type.air_c - self.climate.season_c(day_type.season)

    def _battery_c(self, spec: DaySpec, air: Floats, mean: Floats) -> Floats:
        """Temperature of the battery over days of one kind: the owner's with the air, else by its place.

        Args:
            spec: one of the days.
            air: of the air in each step [°C], shape (days, 96).
            mean: of each day [°C], shape (days, 1).
        """
        plan = self.plan
        slow = mean + plan.locker.swing_share * (air - mean)
        day = self.day_of(spec.type)
        here = plan.battery_c if spec.kind != LAID_UP else None
        stated = spec.type.battery_c if spec.type.battery_c is not None else here
        if stated is not None:
            usual = day.air_c.number
            return np.asarray(stated + FOLLOWS_AIR.get(plan.place, 1.0) * (slow - usual))
        room = living_c(plan, self.assumptions, slow)
        return warmth_at(plan.place, slow, room, spec.kind != LAID_UP, False)

    def _upkeep_w(self) -> float:
        volts = self.plan.system_v
        return sum((s.amps or 0.0) * volts * s.hours / 24 for s in self.plan.sources if s.kind == UPKEEP)

    def _generator_ok(self, stretches: Sequence[Sequence[DaySpec]]) -> Flags:
        """Whether a generator may run, by stretch, day and step."""
        there = np.array([[not d.hook_up and d.kind != LAID_UP for d in s] for s in stretches], dtype=bool)
        generator = next((s for s in self.plan.sources if s.kind == GENERATOR), None)
        may = np.zeros(STEPS_A_DAY, dtype=bool) if generator is None else allowed_steps(generator)
        return np.asarray(there[:, :, None] & may)

    def _feed(self, source: Source, stretches: Sequence[Sequence[DaySpec]], weather: Weather) -> Feed:
        shape = (len(stretches), len(stretches[0]), STEPS_A_DAY)
        unit, starts = np.zeros(shape), np.zeros(shape, dtype=bool)
        month = np.array([[d.month for d in s] for s in stretches]) - 1
        if source.kind == SOLAR and (sun := self.sunshine_of(source)) is not None:
            over = np.where(weather.sunlit.reshape(shape), sun.clear[month], sun.cloudy[month])
            pitch = np.array([[PITCHES[d.pitch] for d in s] for s in stretches])
            unit = over / 1000 * self.assumptions.value("panel_dirt") * pitch[:, :, None]
            starts[:, :, 0] = True
        elif source.kind == MAINS:
            plugged = np.array([[d.hook_up for d in s] for s in stretches], dtype=bool)
            unit[plugged] = 1.0
            starts[:, :, 0] = plugged
            starts[:, 1:, 0] &= ~plugged[:, :-1]
        elif source.kind == ENGINE:
            engine = driving(self.plan)
            drives = np.array([[d.drives for d in s] for s in stretches], dtype=bool)
            unit[drives] = engine
            starts[drives, int(np.argmax(engine > 0))] = True
        elif source.kind == STREAM:
            unit[:] = np.array(source.monthly_w)[month][:, :, None] if source.monthly_w else 0.0
            starts[:, :, 0] = True
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
