"""How long one appliance, or the whole day, runs."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.day import LoadFigures
from vast_harbor.core.stops.need.governing_day import Days
from vast_harbor.phrases import phrase

A_KWH = 1000.0
WHOLE_DAY = "day"


@dataclass(frozen=True)
class Runtime:
    """How long something runs; its figures are built when they are asked for.

    Attributes:
        id: load, or ``day`` for all of it.
        name: what runs.
        watts: its power from the bank while it is on, duty cycle and losses included [W].
        energy: what it takes a day [Wh/day].
        hours: for how many hours [h].
        usable: usable energy of the old bank [Wh]; None when that is not known.
    """

    id: str
    name: str
    watts: float
    energy: Callable[[], Figure]
    hours: float
    usable: Figure | None

    @property
    def on_kwh_h(self) -> float:
        """On one kilowatt-hour of usable energy [h]."""
        return A_KWH / self.watts

    @property
    def on_old_h(self) -> float | None:
        """On what the old bank still gives [h]."""
        return None if self.usable is None else self.usable.number / self.watts

    def figures(self) -> tuple[Figure, ...]:
        """Both runtimes with their workings; the second only where the old bank is known."""
        mean = computed(
            f"runtime.{self.id}.w",
            phrase("need.runtime.w", name=self.name),
            self.watts,
            "W",
            "{E} / {h}",
            {
                "E": self.energy(),
                "h": Figure(
                    f"runtime.{self.id}.h",
                    phrase("need.runtime.h"),
                    self.hours,
                    "h",
                    REFERENCE,
                    source=phrase("need.runtime.h_source"),
                ),
            },
            phrase("need.runtime.w_source"),
        )
        kwh = Figure(
            "runtime.kwh",
            phrase("need.runtime.kwh"),
            A_KWH,
            "Wh",
            REFERENCE,
            source=phrase("need.runtime.kwh_source"),
        )
        ways = [("on_kwh", phrase("need.runtime.n1_kwh_usable"), kwh)]
        ways += [("on_old", phrase("need.runtime.old_bank"), self.usable)] if self.usable is not None else []
        return tuple(
            computed(
                f"runtime.{self.id}.{key}",
                f"{self.name} {title}",
                energy.number / self.watts,
                "duration",
                "{E} / {P}",
                {"E": energy, "P": mean},
                phrase("need.runtime.usable_energy_power_nothing"),
            )
            for key, title, energy in ways
        )


def runtimes(plan: Plan, days: Days, old: Mapping[str, Figure]) -> tuple[Runtime, ...]:
    """Runtimes of the whole governing day and of each load that runs on it.

    Args:
        plan, days: the plan and its days.
        old: figures of the old bank, ``usable_wh`` where it is known.

    Returns:
        The whole day first.
    """
    usable, day = old.get("usable_wh"), days.day
    out = []
    if day.bank_wh.number > 0:
        out.append(
            Runtime(
                WHOLE_DAY,
                phrase("need.runtime.whole_day"),
                day.bank_wh.number / 24,
                lambda: day.bank_wh,
                24,
                usable,
            )
        )
    for f in day.loads:
        if f.runs:
            watts = f.from_bank_wh / f.load.hours_on
            out.append(Runtime(f.load.id, f.load.name, watts, _energy(f), f.load.hours_on, usable))
    return tuple(out)


def _energy(figures: LoadFigures) -> Callable[[], Figure]:
    return lambda: figures.bank_wh
