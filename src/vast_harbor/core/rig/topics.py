"""What a plan rests on, by topic: what its owner stated, what is assumed instead, and what is missing."""

from collections.abc import Callable
from dataclasses import dataclass

from vast_harbor.core.rig.plan import Plan
from vast_harbor.phrases import phrase

STATED, ASSUMED, MISSING = "stated", "assumed", "missing"
NIGHTS, ROW, HOOK_UP, MONTHS = "nights", "row", "hook_up", "months"
LOADS, CHARGING, WHERE, PLACE = "loads", "charging", "where", "place"
OLD_BANK, SPACE, WEIGHT = "old_bank", "space", "weight"
YEARS, LABOUR, NIGHT_PRICE = "years", "labour", "night_price"
# What the program fills in for a new rig. The others hold only what their owner entered.
FILLED_IN = frozenset({NIGHTS, ROW, HOOK_UP, MONTHS, LOADS, CHARGING, PLACE, YEARS, LABOUR, NIGHT_PRICE})
# Of these, none is an answer too: nothing charges, no limit, no bank there.
MAY_BE_NONE = frozenset({CHARGING, OLD_BANK, SPACE, WEIGHT})
# Rigs on wheels have a weight limit that matters.
ON_WHEELS = ("van", "rv", "caravan", "other")


def _always(plan: Plan) -> bool:
    return True


def _never(plan: Plan) -> bool:
    return False


@dataclass(frozen=True, slots=True)
class Topic:
    """Something that only the owner knows, and that the answer rests on.

    Attributes:
        key, name: what it is about.
        asks: the question to the owner.
        question: the question of the guided start that asks for it.
        stop, part: the screen on which its fields lie; an empty part for the first one.
        paths: JSON pointers in the rig file of what states it; what lies below them states it too.
        empty: whether a plan says nothing of it.
        applies: whether it matters to such a rig.
        assumption: key of the assumption that holds its value; empty where a field of the rig does.
    """

    key: str
    name: str
    asks: str
    question: str
    stop: str
    part: str
    paths: tuple[str, ...]
    empty: Callable[[Plan], bool] = _never
    applies: Callable[[Plan], bool] = _always
    assumption: str = ""

    def status(self, plan: Plan) -> str:
        """One of :data:`STATED`, :data:`ASSUMED` and :data:`MISSING`.

        What a plan says nothing of is missing, unless its owner stated that there is none. Where a plan does
        not tell who filled it in, as older rig files do not, its owner did.
        """
        stated = plan.stated.get(self.key)
        if self.assumption and stated is None:
            return STATED if self.assumption in plan.overrides else ASSUMED
        if self.empty(plan):
            return STATED if stated is True and self.key in MAY_BE_NONE else MISSING
        if self.key == CHARGING and any(s.assumed for s in plan.sources):
            return ASSUMED
        return ASSUMED if stated is False and self.key in FILLED_IN else STATED


def _no_place(plan: Plan) -> bool:
    return plan.site.latitude is None and plan.site.climate is None


def _no_charge(plan: Plan) -> bool:
    return not any(s.charges for s in plan.sources) and plan.installed.charge_a is None


def _not_weighed(plan: Plan) -> bool:
    loading = plan.loading
    return loading.payload_kg is None and loading.front_kg is None and loading.rear_kg is None


def _rig(*fields: str) -> tuple[str, ...]:
    return tuple(f"/rig/{f}" for f in fields)


TOPICS: tuple[Topic, ...] = (
    Topic(
        LOADS,
        phrase("rig.topics.loads"),
        phrase("rig.topics.asks_loads"),
        "run",
        "day",
        "",
        ("/day/loads",),
        lambda p: not p.loads,
    ),
    Topic(
        CHARGING,
        phrase("rig.topics.charging"),
        phrase("rig.topics.asks_charging"),
        "charge",
        "charging",
        "",
        ("/sources", "/rig/charge_a"),
        _no_charge,
    ),
    Topic(
        NIGHTS,
        phrase("rig.topics.nights"),
        phrase("rig.topics.asks_nights"),
        "use",
        "rig",
        "use",
        _rig("off_grid_nights"),
    ),
    Topic(
        ROW,
        phrase("rig.topics.row"),
        phrase("rig.topics.asks_row"),
        "use",
        "rig",
        "use",
        _rig("nights_in_a_row"),
        lambda p: p.nights_in_a_row is None,
    ),
    Topic(
        WHERE,
        phrase("rig.topics.where"),
        phrase("rig.topics.asks_where"),
        "what",
        "rig",
        "place",
        _rig("region", "latitude", "longitude", "climate", "sun_hours"),
        _no_place,
    ),
    Topic(
        PLACE,
        phrase("rig.topics.place"),
        phrase("rig.topics.asks_place"),
        "cold",
        "rig",
        "place",
        _rig("place", "battery_c"),
    ),
    Topic(
        HOOK_UP,
        phrase("rig.topics.hook_up"),
        phrase("rig.topics.asks_hook_up"),
        "hook_up",
        "rig",
        "use",
        _rig("hook_up_nights"),
    ),
    Topic(
        MONTHS,
        phrase("rig.topics.months"),
        phrase("rig.topics.asks_months"),
        "cold",
        "rig",
        "use",
        _rig("months"),
    ),
    Topic(
        OLD_BANK,
        phrase("rig.topics.old_bank"),
        phrase("rig.topics.asks_old_bank"),
        "old",
        "rig",
        "",
        ("/old_bank",),
        lambda p: p.old_bank is None,
    ),
    Topic(
        SPACE,
        phrase("rig.topics.space"),
        phrase("rig.topics.asks_space"),
        "space",
        "rig",
        "space",
        _rig("locker_length", "locker_width", "locker_height"),
        lambda p: not p.locker.rooms,
    ),
    Topic(
        WEIGHT,
        phrase("rig.topics.weight"),
        phrase("rig.topics.asks_weight"),
        "space",
        "rig",
        "space",
        _rig("payload_kg", "front_axle_kg", "rear_axle_kg"),
        _not_weighed,
        lambda p: p.kind in ON_WHEELS,
    ),
    Topic(
        YEARS,
        phrase("rig.topics.years"),
        phrase("rig.topics.asks_years"),
        "keep",
        "rig",
        "use",
        _rig("years_kept"),
    ),
    Topic(
        LABOUR,
        phrase("rig.topics.labour"),
        phrase("rig.topics.asks_labour"),
        "keep",
        "compare",
        "table",
        ("/plan/labour",),
    ),
    Topic(
        NIGHT_PRICE,
        phrase("rig.topics.night_price"),
        phrase("rig.topics.asks_night_price"),
        "keep",
        "compare",
        "table",
        ("/plan/overrides/night_elsewhere",),
        assumption="night_elsewhere",
    ),
)
BY_KEY = {t.key: t for t in TOPICS}


def topics_of(plan: Plan) -> tuple[Topic, ...]:
    """The topics that matter to a rig, in the order of their usual weight."""
    return tuple(t for t in TOPICS if t.applies(plan))


def stated_by(path: str) -> tuple[str, ...]:
    """Keys of the topics that are filled in until an edit at a JSON pointer of the rig file states them.

    What is never filled in is stated by its values alone: who empties a measure has not said that there is no
    limit.
    """
    return tuple(
        t.key
        for t in TOPICS
        if t.key in FILLED_IN and any(path == p or path.startswith(f"{p}/") for p in t.paths)
    )
