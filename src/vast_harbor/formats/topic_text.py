"""What a plan has of a topic, in the owner's words and units."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.rig import topics
from vast_harbor.core.rig.derating import UNKNOWN_AIR_C
from vast_harbor.core.rig.plan import OWN_HANDS, Plan
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.topics import MISSING, Topic
from vast_harbor.core.weather.climate import ENGINE, INSIDE, LIVING, OUTSIDE
from vast_harbor.phrases import and_list, phrase

PLACES = {
    LIVING: phrase("files.topic_text.living_space"),
    INSIDE: phrase("files.topic_text.inside_locker"),
    OUTSIDE: phrase("files.topic_text.outside_box"),
    ENGINE: phrase("files.topic_text.engine_room"),
}


def topic_text(topic: Topic, results: Results, style: Style, region: str = "") -> str:
    """What holds of a topic.

    Args:
        topic: which.
        results: the plan in figures.
        style: the owner's units.
        region: key of the region that the owner chose; empty where none is known.

    Returns:
        The value, or what is done without it where it is missing.
    """
    if topic.status(results.plan) == MISSING:
        return _missing(topic, results, style)
    return _says(topic, results, style, region)


def _missing(topic: Topic, results: Results, style: Style) -> str:
    """What is done where nothing is known."""
    return {
        topics.LOADS: phrase("files.topic_text.no_loads"),
        topics.CHARGING: phrase("files.topic_text.no_charging"),
        topics.ROW: phrase("files.topic_text.no_row"),
        topics.WHERE: phrase("files.topic_text.no_where", air=style.text(UNKNOWN_AIR_C, "°C")),
        topics.OLD_BANK: phrase("files.topic_text.no_old_bank"),
        topics.SPACE: phrase("files.topic_text.no_space"),
        topics.WEIGHT: phrase("files.topic_text.no_weight"),
    }[topic.key]


def _says(topic: Topic, results: Results, style: Style, region: str) -> str:
    plan, key = results.plan, topic.key
    if key == topics.LOADS:
        count = phrase("files.topic_text.loads", count=len(plan.loads))
        return f"{count} · {style.use(results.day.bank_wh.value, 'Wh')}" if plan.loads else count
    if key == topics.CHARGING:
        charging = [name_of(s) for s in plan.sources if s.charges]
        return and_list(charging) if charging else phrase("files.topic_text.nothing_charges")
    if key == topics.WHERE:
        return _place_of(plan, results, region)
    if key == topics.PLACE:
        return PLACES[plan.place]
    if key == topics.MONTHS:
        return phrase("files.topic_text.months", count=len(plan.months) or 12)
    if key == topics.OLD_BANK:
        return _old_bank(plan)
    if key == topics.SPACE:
        if not plan.locker.rooms:
            return phrase("files.topic_text.no_limit")
        return " × ".join(style.text(m, "mm") for m in plan.locker.rooms[0])
    if key == topics.WEIGHT:
        payload = plan.loading.payload_kg
        if payload is not None:
            return style.text(payload, "kg")
        axles = plan.loading.front_kg, plan.loading.rear_kg
        weighed = [style.text(m, "kg") for m in axles if m is not None]
        return " + ".join(weighed) or phrase("files.topic_text.no_limit")
    if key == topics.LABOUR:
        own = plan.labour == OWN_HANDS
        return phrase("files.topic_text.own_hands") if own else phrase("files.topic_text.workshop")
    if topic.assumption:
        price = results.assumptions.figure(topic.assumption)
        return style.text(price.value, price.unit)
    values = {
        topics.NIGHTS: (plan.off_grid_nights, "nights"),
        topics.ROW: (plan.nights_in_a_row, "nights"),
        topics.HOOK_UP: (plan.hook_up_nights, "nights"),
        topics.YEARS: (plan.years_kept, "years"),
    }
    value, unit = values[key]
    return style.text(value, unit) if value is not None else phrase("files.topic_text.no_row")


def _place_of(plan: Plan, results: Results, key: str) -> str:
    region = results.reference.regions.get(key)
    if region is not None and region.latitude == plan.site.latitude:
        return region.name
    climate = plan.site.climate
    if climate is not None:
        return climate.name
    return (
        f"{plan.site.latitude:g}°" if plan.site.latitude is not None else phrase("files.topic_text.anywhere")
    )


def _old_bank(plan: Plan) -> str:
    old = plan.old_bank
    if old is None:
        return phrase("files.topic_text.no_bank_there")
    short = old.battery_class.short
    return phrase("files.topic_text.old_bank", ah=f"{old.unit_ah * old.parallel:g}", short=short)
