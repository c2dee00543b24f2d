"""What is not stated, and how far each of it could move the answer."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from math import inf

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.figures.workings import Sentence, escaped
from vast_harbor.core.passage import Results
from vast_harbor.core.rig import topics
from vast_harbor.core.rig.loads import Load
from vast_harbor.core.rig.plan import OWN_HANDS, WORKSHOP, Plan
from vast_harbor.core.rig.plan_place import Site
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import USUAL, Source
from vast_harbor.core.rig.topics import MISSING, STATED, Topic, topics_of
from vast_harbor.core.schedule.day_pattern import IN_A_ROW
from vast_harbor.core.stops.compare import BUY, ComparedBank, Verdict, verdict_text
from vast_harbor.core.weather.climate import LIVING, OUTSIDE
from vast_harbor.core.weather.sky import with_sky
from vast_harbor.phrases import phrase

# A bank whose usable energy differs by more than this is another size [-].
ANOTHER_SIZE = 1 / 6
# What does not fit is this much smaller or lighter than the bank that the verdict says to buy [-].
CLEARLY_LESS = 0.9
SUMMER, WINTER = (5, 6, 7, 8, 9), (11, 12, 1, 2, 3)

# What else it could be, in words, and the plan with it.
Alternative = tuple[str | Sentence, Plan]


@dataclass(frozen=True, slots=True)
class OpenTopic:
    """A topic that the owner did not state.

    Attributes:
        topic: which.
        status: ``assumed`` or ``missing``.
        swing: how far it moves what the bank to buy saves against the best of another class [money]; None
            where that is not known.
        turns: what else the verdict would say, and if what; None where it would not say anything else.
        against: which of its alternatives speaks most against the bank to buy; None where none was tried.
    """

    topic: Topic
    status: str
    swing: float | None
    turns: Sentence | None
    against: int | None = None


@dataclass(frozen=True, slots=True)
class OpenTopics:
    """What is not stated.

    Attributes:
        topics: what could turn the verdict first, then what moves the money most.
        provisional: whether anything not stated could turn it.
        asks: the topic to ask for first; None where nothing could turn it.
    """

    topics: tuple[OpenTopic, ...]
    provisional: bool
    asks: Topic | None


def open_topics(results: Results, reference: Reference) -> OpenTopics:
    """What the owner did not state, and how far each of it could move the answer.

    Each is set to what else it could well be, one at a time, and the whole verdict is made anew beside the
    same banks. Space and weight are not tried so: where nobody measured, a bank that needs clearly less of
    them is what could be bought instead.

    Args:
        results: the plan in figures.
        reference: shipped data.

    Returns:
        All that is not stated. Nothing turns where there is no verdict yet.
    """
    return results.once("open_topics", lambda: _open_topics(results, reference))


def _open_topics(results: Results, reference: Reference) -> OpenTopics:
    plan, verdict = results.plan, results.verdict
    # The alternatives are looked at roughly, and so is what they are held against.
    base = results.once("roughly", lambda: results.roughly(plan)) if _alone(plan, verdict) else verdict
    judged = bool(verdict.days.day.bank_wh.number) and bool(verdict.compared_banks)
    found = [
        _tried(topic, topic.status(plan), results, base, reference)
        if judged
        else OpenTopic(topic, topic.status(plan), None, None)
        for topic in topics_of(plan)
        if topic.status(plan) != STATED
    ]
    found.sort(key=lambda o: (o.turns is None, -(o.swing or 0.0)))
    turning = [o.topic for o in found if o.turns is not None]
    question = verdict.question
    if question is not None and (topic := topics.BY_KEY.get(question.topic)) is not None:
        return OpenTopics(tuple(found), True, topic)
    if not turning and question is None and judged and _turns_together(found, results, base, reference):
        # No answer alone would turn it, but all together would: what weighs most is asked first.
        return OpenTopics(tuple(found), True, found[0].topic)
    return OpenTopics(tuple(found), bool(turning) or question is not None, turning[0] if turning else None)


def _alone(plan: Plan, verdict: Verdict) -> bool:
    """Whether there is anything that is not stated, and a verdict that it could turn."""
    return bool(verdict.compared_banks) and any(t.status(plan) != STATED for t in topics_of(plan))


def _turns_together(
    found: Sequence[OpenTopic], results: Results, base: Verdict, reference: Reference
) -> bool:
    """Whether what is open turns the answer when all of it comes one way, though no part of it does alone:
    all of it small, all of it large, and all of it as it speaks most against the bank to buy."""
    for way in (lambda _: 0, lambda _: -1, lambda one: one.against):
        plan = results.plan
        for one in found:
            options = list(_alternatives(one.topic.key, replace(results, plan=plan), reference))
            which = way(one)
            if options and which is not None:
                plan = options[min(which, len(options) - 1)][1]
        if plan is not results.plan and _differs(base, results.roughly(plan)):
            return True
    return False


def _tried(topic: Topic, status: str, results: Results, base: Verdict, reference: Reference) -> OpenTopic:
    verdict = results.verdict
    if status == MISSING and topic.key in (topics.SPACE, topics.WEIGHT):
        return _with_less(topic, status, verdict)
    swing, turns = None, None
    before = _lead(base)
    leads: list[float] = []
    for words, plan in _alternatives(topic.key, results, reference):
        go_on()
        other = results.roughly(plan)
        after = _lead(other, base)
        leads.append(inf if after is None else after)
        if before is not None and after is not None:
            swing = max(swing or 0.0, abs(after - before))
        if turns is None and _differs(base, other):
            says = verdict_text.bank_line(other)
            told = words if isinstance(words, Sentence) else Sentence(words)
            line = phrase("changes.open_topics.if", words=told.template, says=says.template)
            turns = Sentence(line, {**told.figures, **says.figures})
    against = leads.index(min(leads)) if leads else None
    return OpenTopic(topic, status, swing, turns, against)


def _lead(verdict: Verdict, base: Verdict | None = None) -> float | None:
    """What the class of the bank to buy (that of ``base``) saves against the best of the others [money]."""
    winner = (base or verdict).winner
    if winner is None or verdict.kind != BUY:
        return None
    key = winner.banked.battery_class.key
    own = [verdict.weighed[c.id] for c in verdict.suitable if c.banked.battery_class.key == key]
    others = [verdict.weighed[c.id] for c in verdict.suitable if c.banked.battery_class.key != key]
    return min(others) - min(own) if own and others else None


def _differs(one: Verdict, other: Verdict) -> bool:
    """Whether they say something else: another kind of answer, another class, or clearly another size."""
    if one.kind != other.kind or (one.winner is None) != (other.winner is None):
        return True
    if one.winner is None or other.winner is None:
        return False
    if one.winner.banked.battery_class.key != other.winner.banked.battery_class.key:
        return True
    a, b = (w.banked["usable_wh"].number for w in (one.winner, other.winner))
    return abs(a - b) > ANOTHER_SIZE * max(a, b)


def _with_less(topic: Topic, status: str, verdict: Verdict) -> OpenTopic:
    """The best of what needs clearly less space or weight than the bank to buy."""
    winner = verdict.winner
    measure = _litres if topic.key == topics.SPACE else _kg
    if winner is None or winner not in verdict.suitable or (most := measure(winner)) is None:
        return OpenTopic(topic, status, None, None)
    less = [
        c for c in verdict.suitable if (m := measure(c)) is not None and m < CLEARLY_LESS * most
    ]  # fmt: skip
    if not less:
        return OpenTopic(topic, status, None, None)
    best = min(less, key=lambda c: verdict.weighed[c.id])
    costs = abs(verdict.weighed[best.id] - verdict.weighed[winner.id])
    if best.banked.battery_class.key == winner.banked.battery_class.key:
        return OpenTopic(topic, status, costs, None)
    title = winner.title
    if topic.key == topics.SPACE:
        words = phrase("changes.open_topics.no_room", title=title)
    else:
        words = phrase("changes.open_topics.too_heavy", title=title)
    says = phrase("compare.verdict_text.buy", title=best.title)
    return OpenTopic(topic, status, costs, Sentence(phrase("changes.open_topics.if", words=words, says=says)))


def _litres(compared: ComparedBank) -> float | None:
    bank = compared.banked.bank
    size = bank.model.case.size if bank is not None else None
    return None if bank is None or size is None else bank.units * size[0] * size[1] * size[2] / 1e6


def _kg(compared: ComparedBank) -> float | None:
    return compared.banked["kg"].value


def _alternatives(key: str, results: Results, reference: Reference) -> Iterator[Alternative]:
    """What else it could well be."""
    yield from ALTERNATIVES[key](results.plan, reference) if key in ALTERNATIVES else ()


def _nights(plan: Plan, _: Reference) -> Iterator[Alternative]:
    for nights in (plan.off_grid_nights / 2, min(365.0, plan.off_grid_nights * 2)):
        words = phrase("changes.open_topics.nights", count=round(nights))
        yield words, replace(plan, off_grid_nights=float(round(nights)))


def _row(plan: Plan, _: Reference) -> Iterator[Alternative]:
    now = plan.nights_in_a_row or float(IN_A_ROW)
    for row in (max(1.0, now / 2), now * 2.5):
        yield (
            phrase("changes.open_topics.row", count=round(row)),
            replace(plan, nights_in_a_row=float(round(row))),
        )


def _hook_up(plan: Plan, _: Reference) -> Iterator[Alternative]:
    for nights in (0.0, max(30.0, 2 * plan.hook_up_nights)):
        if nights != plan.hook_up_nights:
            words = phrase("changes.open_topics.hook_up", count=round(nights))
            yield words, replace(plan, hook_up_nights=nights)


def _months(plan: Plan, _: Reference) -> Iterator[Alternative]:
    summer, winter = (WINTER, SUMMER) if plan.site.south else (SUMMER, WINTER)
    for months, words in (
        ((), phrase("changes.open_topics.all_year")),
        (summer, phrase("changes.open_topics.summer")),
        (winter, phrase("changes.open_topics.winter")),
    ):
        if set(months) != set(plan.months):
            yield words, replace(plan, months=months)


def _scaled(load: Load, by: float) -> Load:
    def of(value: float | None) -> float | None:
        return None if value is None else value * by

    return replace(
        load, draw=Draw(load.draw.value * by, load.draw.unit), low=of(load.low), high=of(load.high),
        measured_wh=of(load.measured_wh),
    )  # fmt: skip


def _loads(plan: Plan, _: Reference) -> Iterator[Alternative]:
    for by, words in (
        (0.7, phrase("changes.open_topics.uses_less")),
        (1.4, phrase("changes.open_topics.uses_more")),
    ):
        yield words, replace(plan, loads=tuple(_scaled(load, by) for load in plan.loads))


def _charging(plan: Plan, _: Reference) -> Iterator[Alternative]:
    nobody_said = plan.stated.get(topics.CHARGING) is False
    assumed = [s for s in plan.sources if s.charges and (s.assumed or nobody_said)]
    for left_out in assumed:
        words = phrase("changes.open_topics.without", name=escaped(name_of(left_out)))
        yield words, replace(plan, sources=tuple(s for s in plan.sources if s is not left_out))
    if not assumed:
        for kind, fields in USUAL.items():
            source = Source(id="usual", kind=kind, **fields)
            words = phrase("changes.open_topics.charged_by", name=name_of(source))
            yield words, replace(plan, sources=(*plan.sources, source))


def _where(plan: Plan, reference: Reference) -> Iterator[Alternative]:
    """The coldest and the warmest of the regions."""

    def mean(key: str) -> float:
        return sum(reference.climates[reference.regions[key].climate].mean_c)

    for key in (min(reference.regions, key=mean), max(reference.regions, key=mean)):
        region = reference.regions[key]
        climate = with_sky(reference.climates[region.climate], region)
        site = Site(region.latitude, region.longitude, region.utc_offset_h, climate)
        yield phrase("changes.open_topics.where", name=region.name), replace(plan, site=site)


def _place(plan: Plan, _: Reference) -> Iterator[Alternative]:
    for place, words in (
        (LIVING, phrase("changes.open_topics.living_space")),
        (OUTSIDE, phrase("changes.open_topics.outside")),
    ):
        if place != plan.place:
            yield words, replace(plan, place=place)


def _years(plan: Plan, _: Reference) -> Iterator[Alternative]:
    for years in (max(1, round(plan.years_kept / 2)), min(40, round(plan.years_kept * 1.5))):
        yield phrase("changes.open_topics.years", count=years), replace(plan, years_kept=float(years))


def _labour(plan: Plan, _: Reference) -> Iterator[Alternative]:
    if plan.labour == OWN_HANDS:
        yield phrase("changes.open_topics.workshop"), replace(plan, labour=WORKSHOP)
    else:
        yield phrase("changes.open_topics.own_hands"), replace(plan, labour=OWN_HANDS)


def _night_price(plan: Plan, reference: Reference) -> Iterator[Alternative]:
    price = reference.assumptions(plan.house_rule, plan.overrides, plan.currency).figure("night_elsewhere")
    for money in (price.low, price.high):
        if money is not None:
            other = price._replace(key=f"night_price.{money:g}", value=money, low=None, high=None)
            words = Sentence(phrase("changes.open_topics.night_price"), {"night_price": other})
            yield words, replace(plan, overrides={**plan.overrides, "night_elsewhere": money})


ALTERNATIVES: dict[str, Callable[[Plan, Reference], Iterator[Alternative]]] = {
    topics.NIGHTS: _nights,
    topics.ROW: _row,
    topics.HOOK_UP: _hook_up,
    topics.MONTHS: _months,
    topics.LOADS: _loads,
    topics.CHARGING: _charging,
    topics.WHERE: _where,
    topics.PLACE: _place,
    topics.YEARS: _years,
    topics.LABOUR: _labour,
    topics.NIGHT_PRICE: _night_price,
}
