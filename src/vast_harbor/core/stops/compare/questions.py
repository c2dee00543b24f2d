"""What is not known of a rig and could turn its verdict, as questions to its owner."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Sentence, escaped
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import MAINS, SOLAR, Source
from vast_harbor.core.rig.topics import CHARGING, WHERE
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.required_extras import COUNTED, RequiredExtra
from vast_harbor.phrases import and_list, phrase


@dataclass(frozen=True, slots=True)
class Question:
    """Something that only the owner knows.

    Attributes:
        depends: what the verdict depends on, after “as long as”.
        says: the question.
        stop: where it is answered.
        topic: what it is about, a key of ``rig.topics``; empty where it is no matter of knowing.
    """

    depends: str
    says: Sentence
    stop: str
    topic: str = ""


def question_of(
    plan: Plan,
    winner: ComparedBank,
    others: Sequence[ComparedBank],
    weighed: dict[str, float],
    charge_missing: bool = False,
) -> Question | None:
    """The question whose answer could turn the verdict the most; None where nothing is open.

    Args:
        plan: what the owner entered.
        winner: the bank that the verdict says to buy.
        others: the rest of those that will do.
        weighed: cost of each by its id, the dear futures weighed too [money].
        charge_missing: whether no bank serves the critical loads as wished.
    """
    if any(s.charges for s in plan.sources) and charge_missing and winner.year is not None:
        return Question(
            phrase("compare.questions.add_charging"),
            Sentence(
                phrase("compare.questions.bank_critical_loads_go"), {"hours": winner.year["critical_hours"]},
            ),
            "charging",
        )  # fmt: skip
    return next(_questions(plan, winner, others, weighed), None)


def _questions(
    plan: Plan, winner: ComparedBank, others: Sequence[ComparedBank], weighed: dict[str, float]
) -> Iterator[Question]:
    charging = [s for s in plan.sources if s.charges]
    if not charging:
        yield Question(
            phrase("compare.questions.chargers_suit_replace_use"),
            Sentence(phrase("compare.questions.charges_bank_mains_solar")),
            "charging",
            CHARGING,
        )
        return
    if assumed := [s for s in charging if s.assumed]:
        names = and_list(escaped(name_of(s)) for s in assumed)
        yield Question(
            phrase("compare.questions.charging_sources_assumed"),
            Sentence(phrase("compare.questions.right_usual_kind_rig", names=names)),
            "charging",
            CHARGING,
        )
    if plan.site.latitude is None and any(s.kind == SOLAR for s in charging):
        yield Question(
            phrase("compare.questions.sun_replaces_use"),
            Sentence(phrase("compare.questions.where_rig_without_place")),
            "rig",
            WHERE,
        )
    for source in charging:
        if source.kind == MAINS and not source.amps:
            yield Question(
                phrase(
                    "compare.questions.gives_enough",
                    name=escaped(source.name or phrase("compare.questions.gives_enough_name")),
                ),
                Sentence(
                    phrase(
                        "compare.questions.how_many_amps_give",
                        name=escaped(source.name or phrase("compare.questions.how_many_amps_give_name")),
                    )
                ),
                "charging",
                CHARGING,
            )
    yield from _of_remedies(charging, winner, others, weighed)


def _saved(compared: ComparedBank, extra: RequiredExtra) -> float:
    """What falls away with something that is bought for a bank: parts, work and their contingency [money]."""
    cost = compared.cost
    work = cost["labour"].number * extra.hours / cost["hours"].number if cost["hours"].number else 0.0
    before = cost["extras"].number + cost["labour"].number
    return (extra.price.number + work) * (1 + cost["contingency"].number / before if before else 1.0)


def _of_remedies(
    charging: Sequence[Source],
    winner: ComparedBank,
    others: Sequence[ComparedBank],
    weighed: dict[str, float],
) -> Iterator[Question]:
    """New units that are counted because nobody said that the one there can be set."""
    unknown = {s.id: s for s in charging if not (s.adjustable or s.firmware or s.board)}
    for other in sorted(others, key=lambda c: weighed[c.id]):
        for extra in other.cost.required_extras:
            if extra.state != COUNTED or extra.fix is None or extra.fix.source not in unknown:
                continue
            if extra.fix.remedy != "new" or weighed[other.id] - _saved(other, extra) >= weighed[winner.id]:
                continue
            name = escaped(unknown[extra.fix.source].name or phrase("terms.names.charger"))
            yield Question(
                phrase("compare.questions.cannot_set", name=name, short=other.banked.battery_class.short),
                Sentence(
                    phrase(
                        "compare.questions.set_manually_maker_offer",
                        name=name,
                        short=other.banked.battery_class.short,
                    ),
                    {"price": extra.price},
                ),
                "charging",
                CHARGING,
            )
