"""The verdict in words: its line, a card of at most 120, and what is in doubt."""

from collections.abc import Iterator, Sequence

from vast_harbor.core.figures.workings import Figure, Sentence, computed, escaped
from vast_harbor.core.stops.banks import COVERS_NEED
from vast_harbor.core.stops.compare import package_text
from vast_harbor.core.stops.compare.bank_cautions import CULPRITS, cautions_of_rig, undocumented
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.package import Package
from vast_harbor.core.stops.compare.priorities import PRIORITIES
from vast_harbor.core.stops.compare.verdict import BUY, HOOK_UP, KEEP, MEND, Verdict
from vast_harbor.core.stops.compare.verdict_reasons import ENDS, reasons
from vast_harbor.core.stops.compare.verdict_rules import steps
from vast_harbor.core.stops.compare.wear import nights_a_year
from vast_harbor.phrases import and_list, phrase

MOST_WORDS = 120


def headline(v: Verdict) -> Sentence:
    """The verdict in one line: what to do beside the bank, and with the bank, in the order of doing."""
    advice = advised(v)
    return bank_line(v) if advice is None else package_text.headline(advice, v)


def advised(v: Verdict) -> Package | None:
    """The package that is advised, once packages were looked for; None where a bank alone is the answer."""
    packages = v.answer.packages
    if packages is None or v.kind in (KEEP, MEND):
        return None
    package = packages.advised
    if v.kind == HOOK_UP and (v.without is None or package.lifetime > v.elsewhere_instead):
        return None
    return package if package.improvements or package.keeps else None


def in_brief(v: Verdict) -> str:
    """The verdict in two or three words: which bank, or what else; a dash before anything is judged."""
    if not v.days.day.bank_wh.number:
        return "—"
    advice = advised(v)
    if advice is not None and advice.keeps:
        return phrase("compare.verdict_text.brief_keep")
    if advice is None and v.without is not None:
        return phrase("compare.verdict_text.brief_without")
    bank = advice.compared if advice is not None else v.winner if v.kind == BUY else None
    if bank is not None:
        return phrase("compare.verdict_text.brief_bank", kind=bank.banked.battery_class.short.split()[0])
    words = {
        KEEP: phrase("compare.verdict_text.brief_keep"),
        MEND: phrase("compare.verdict_text.brief_mend"),
        HOOK_UP: phrase("compare.verdict_text.brief_hook_up"),
    }
    return words.get(v.kind, phrase("compare.verdict_text.brief_none") if v.compared_banks else "—")


def is_for_now(v: Verdict) -> bool:
    """Whether the line itself says that it holds for now: something is to be found out first."""
    advice = advised(v)
    if advice is None:
        return v.question is not None and v.winner is not None and v.kind == BUY
    return any(one.asks is not None for one in advice.improvements)


def bank_line(v: Verdict) -> Sentence:
    """What is said of the bank in one line, whatever could be done beside it."""
    winner = v.winner
    if v.kind == KEEP and not v.tested:
        return Sentence(phrase("compare.verdict_text.keep_and_test"))
    if v.kind == KEEP:
        return Sentence(phrase("compare.verdict_text.keep"))
    if v.kind == MEND:
        return Sentence(phrase("compare.verdict_text.fix_first_buy_bank", culprits=_culprits(v)))
    if v.kind == HOOK_UP and v.without is not None:
        return Sentence(phrase("compare.verdict_text.do_without"))
    if v.kind == HOOK_UP and winner is None:
        return Sentence(phrase("compare.verdict_text.spend_nothing_hook_up"))
    if winner is None:
        return Sentence(
            phrase("compare.verdict_text.bank_works_yet")
            if _judged(v)
            else phrase("compare.verdict_text.nothing_compare_yet")
        )
    if v.question is not None:
        return Sentence(phrase("compare.verdict_text.now_buy", title=winner.title))
    return Sentence(phrase("compare.verdict_text.buy", title=winner.title))


def _judged(v: Verdict) -> bool:
    """Whether there is a day, and a bank that was looked at."""
    return bool(v.compared_banks) and v.days.day.bank_wh.number > 0


def _culprits(v: Verdict) -> str:
    return and_list([CULPRITS[k] for k in v.at_fault if k in CULPRITS])


def card(v: Verdict) -> tuple[Sentence, ...]:
    """The verdict in plain words: at most 120 with its headline."""
    says, line = list(_card(v)), headline(v)
    while len(says) > 1 and sum(_words(s) for s in (line, *says)) > MOST_WORDS:
        says.pop()
    return tuple(says)


def _words(sentence: Sentence) -> int:
    """Its words as they are read: a figure comes with its unit, and "a year" or "a cycle" are two more."""
    units = [f.unit for f in sentence.figures.values()]
    return len(sentence.template.split()) + sum(2 if "/" in unit else 1 for unit in units)


def _card(v: Verdict) -> Iterator[Sentence]:
    if (advice := advised(v)) is not None:
        yield from package_text.card(advice, v)
        return
    nights = nights_a_year(v.plan)
    if v.kind == KEEP:
        carries = v.banks.old_carries
        why, then = (
            (
                phrase("compare.verdict_text.test_shows_rated_capacity"),
                phrase("compare.verdict_text.test_again_before_next"),
            )
            if v.tested
            else (
                phrase("compare.verdict_text.every_sign_sound"),
                phrase("compare.verdict_text.test_before_spend"),
            )
        )
        yield Sentence(
            why, {"soh": carries["soh"], "usable": carries["usable_wh"], "need": v.days.need.energy}
        )
        yield Sentence(then)
        return
    if v.kind == MEND:
        yield Sentence(phrase("compare.verdict_text.new_bank_fail_same"))
        return
    if v.kind == HOOK_UP:
        if v.without is not None:
            bank, elsewhere = v.without
            yield Sentence(
                phrase("compare.verdict_text.no_bank_pays"),
                {"nights": nights, "bank": bank, "elsewhere": elsewhere},
            )
            if v.winner is not None:
                yield Sentence(
                    phrase("compare.verdict_text.smallest_for_lights", title=v.winner.title),
                    {"outlay": v.winner.cost["outlay"]},
                )
            else:
                yield Sentence(phrase("compare.verdict_text.old_bank_still_supplies"))
            return
        yield Sentence(phrase("compare.verdict_text.off_grid_year_bank"), {"nights": nights})
        if v.winner is not None:
            yield Sentence(phrase("compare.verdict_text.cheapest_harm_up_front"),
                           {"outlay": v.winner.cost["outlay"]})  # fmt: skip
        else:
            yield Sentence(phrase("compare.verdict_text.old_bank_still_supplies"))
        return
    if v.winner is None:
        if not _judged(v):
            yield Sentence(phrase("compare.verdict_text.list_loads_day_add"))
            return
        if v.answer.nearest:
            yield v.answer.nearest[0].says
            return
        for out in v.outs[:3]:
            yield Sentence(
                f"{out.compared.title}: {out.says.template} {escaped(out.needs)}", out.says.figures
            )
        return
    yield from _buy(v, v.winner, nights)


def _buy(v: Verdict, winner: ComparedBank, nights: Figure) -> Iterator[Sentence]:
    cost, life = winner.cost, winner.life
    if v.question is not None:
        yield Sentence(
            phrase(
                "compare.verdict_text.holds_long",
                depends=v.question.depends,
                template=v.question.says.template,
            ),
            v.question.says.figures,
        )
    years = cost["per_year"].inputs["H"]
    counted = (cost["cycles_made"].value or 0) >= v.plan.years_kept
    says = phrase("compare.verdict_text.over_off_grid_year")
    says += ", {cycle}." if counted else "."
    yield Sentence(
        says,
        {"H": years, "nights": nights, "total": cost["lifetime"], "year": cost["per_year"]}
        | ({"cycle": cost["per_cycle"]} if counted else {}),
    )
    if cost["extra_cost"].number > 0:
        yield Sentence(
            phrase("compare.verdict_text.up_front_cost_extras"),
            {"outlay": cost["outlay"], "extra_cost": cost["extra_cost"]},
        )
    else:
        yield Sentence(phrase("compare.verdict_text.up_front_cost"), {"outlay": cost["outlay"]})
    yield from undocumented(winner)
    yield from _beside(v, winner)
    yield from _below_the_rule(v, winner)
    yield from _unserved(v, winner)
    # Where something is asked first, the rest is told in the workings.
    if winner in v.found and v.question is None:
        yield from _instead_of_yours(v)
    if life["years"].value is not None and v.question is None:
        yield Sentence(
            phrase("compare.verdict_text.after_about", ends=ENDS[life.ends]), {"years": life["years"]}
        )
    yield from cautions_of_rig(v)


def _below_the_rule(v: Verdict, winner: ComparedBank) -> Iterator[Sentence]:
    """That it holds less than the house rule asks, and why that will do."""
    year = winner.year
    if year is None or COVERS_NEED not in {f.code for f in winner.banked.findings}:
        return
    yield Sentence(
        phrase("compare.verdict_text.below_the_rule"),
        {
            "need": v.days.need.energy, "usable": winner.banked["usable_wh"], "share": year["served_share"],
        },
    )  # fmt: skip


def _unserved(v: Verdict, winner: ComparedBank) -> Iterator[Sentence]:
    """What it leaves unserved, where that is worth saying."""
    year = winner.year
    if year is None:
        return
    if v.charge_missing:
        return
    if year["served_share"].number < v.assumptions.value("verdict_served"):
        yield Sentence(
            phrase("compare.verdict_text.supplies_nights_cost_includes"),
            {"share": year["served_share"], "money": winner.cost["elsewhere"]},
        )
    if winner.cost["critical"].number > 0:
        yield Sentence(
            phrase("compare.verdict_text.critical_goes_without"),
            {
                "share": year["critical_share"], "hours": year["critical_hours"],
                "money": winner.cost["critical"],
            },
        )  # fmt: skip


def _instead_of_yours(v: Verdict) -> Iterator[Sentence]:
    """That the winner was found in the catalogue, and which candidate comes closest."""
    yours = [c for c in v.candidates if c in v.suitable]
    if not v.candidates:
        return
    if not yours:
        yield Sentence(phrase("compare.verdict_text.found_catalogue_because_bank"))
        return
    best = min(yours, key=lambda c: c.cost["lifetime"].number)
    # Its price was told: beside the winner's, or as the next one's.
    if best is v.runner_up or best in v.near:
        yield Sentence(phrase("compare.verdict_text.found_catalogue"))
        return
    yield Sentence(
        phrase("compare.verdict_text.found_catalogue_banks_added", title=best.title),
        {"c": best.cost["lifetime"]},
    )


def doubt(v: Verdict) -> Sentence | None:
    """Why the bank that is cheapest in the middle is not chosen; None where it is, or priorities decide.

    Its futures are spread wider: no proof behind its datasheet, or a short warranty.
    """
    if v.winner is None or v.kind != BUY or v.winner not in v.suitable:
        return None
    middle = {c.id: v.spreads[c.id][1].number for c in v.suitable}
    cheapest = min(v.suitable, key=lambda c: middle[c.id])
    if cheapest is v.winner or v.weighed[cheapest.id] <= v.weighed[v.winner.id]:
        return None
    (_, ours, our_dear), (_, theirs, their_dear) = v.spreads[v.winner.id], v.spreads[cheapest.id]
    less = computed(
        "verdict.doubt.less",
        phrase("compare.verdict_text.less"),
        ours.number - theirs.number,
        "money",
        "{a} − {b}",
        {"a": ours, "b": theirs},
    )
    more = computed(
        "verdict.doubt.more",
        phrase("compare.verdict_text.more"),
        their_dear.number - our_dear.number,
        "money",
        "{a} − {b}",
        {"a": their_dear, "b": our_dear},
    )
    bank = cheapest.banked.bank
    assert bank is not None
    because = phrase("compare.verdict_text.confidence", grade=bank.model.grade)
    if bank.model.warranty.years <= 1:
        because += phrase("compare.verdict_text.hardly_warranty")
    return Sentence(
        phrase("compare.verdict_text.costs_less_middle_scenario", title=cheapest.title, because=because),
        {"less": less, "more": more},
    )


def _beside(v: Verdict, winner: ComparedBank) -> Iterator[Sentence]:
    assert v.decided is not None
    next_one, why = v.runner_up, v.decided[1]
    if next_one is None:
        yield Sentence(phrase("compare.verdict_text.nothing_else_catalogue_suitable"))
        return
    name, total = next_one.title, {"b": next_one.cost["lifetime"]}
    if why == "only":
        out = next((o for o in v.outs if o.compared is next_one), None)
        if out is None:
            yield Sentence(phrase("compare.verdict_text.nothing_else_suitable"))
            return
        says = phrase(
            "compare.verdict_text.nothing_else_suitable_out", name=name, lower=_lower(out.says.template)
        )
        yield Sentence(says, dict(out.says.figures) | total)
        return
    if (other := _other_at_its_best(v, winner, next_one)) is not None:
        name = phrase("compare.verdict_text.at_its_best", title=other.compared.title)
        total = {"b": other.figures["lifetime"]}
    if why == "money":
        share = v.shares[winner.id]
        kind, clear = winner.banked.battery_class.short, v.assumptions.value("verdict_clear")
        if share.number > clear:
            says = phrase("compare.verdict_text.cheapest_simulated_scenarios_next", name=name)
        elif v.clear:
            says = phrase("compare.verdict_text.nearly_always_cheapest_least", kind=kind, name=name)
        else:
            says = phrase("compare.verdict_text.other_bank_close_cost")
            says += phrase("compare.verdict_text.costs", name=name)
        yield Sentence(says, {"share": share, **total} if "{share}" in says else total)
        return
    because = {
        "": phrase("compare.verdict_text.up_front_cost_lower"),
        "risk": phrase("compare.verdict_text.costs_less_when_expensive"),
    }.get(why) or phrase(
        "compare.verdict_text.care_about_among_banks", name=PRIORITIES[why].name, best=PRIORITIES[why].best
    )
    yield Sentence(phrase("compare.verdict_text.cost_alone_decide_costs", name=name, because=because), total)


def _other_at_its_best(v: Verdict, winner: ComparedBank, beside: ComparedBank) -> Package | None:
    """What stands for a bank of the other family once packages were looked for: the family's best package,
    where something is done beside its bank; None where the bank stands for itself."""
    lead = beside.banked.battery_class.is_lead_acid
    if v.answer.packages is None or lead == winner.banked.battery_class.is_lead_acid:
        return None
    best = v.answer.packages.best_of(lead)
    return best if best is not None and best.improvements else None


def _lower(text: str) -> str:
    return text[:1].lower() + text[1:] if not text.startswith("{") else text


def figures(v: Verdict) -> list[Figure]:
    """Every figure of the words."""
    says: Sequence[Sentence] = (
        headline(v),
        *(s for s in [doubt(v)] if s is not None),
        *card(v),
        *(r.says for r in reasons(v)),
        *(s.says for s in steps(v)),
    )
    return [f for s in says for f in s.figures.values()]
