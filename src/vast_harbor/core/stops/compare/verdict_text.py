"""The verdict in words: a card of at most 120, the reasons for and against, and what each rule came to."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Figure, Sentence, computed, escaped, typed
from vast_harbor.core.stops.compare import life as life_stop
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.life import nights_a_year
from vast_harbor.core.stops.compare.priorities import ALIKE, CARES
from vast_harbor.core.stops.compare.verdict import BUY, HOOK_UP, KEEP, MEND, Verdict
from vast_harbor.core.stops.rig import CHARGER, DRAIN, USE
from vast_harbor.phrases import and_list, phrase

MOST_WORDS = 120
# The rule that leaves out what does not serve the nights.
FOR, AGAINST = "for", "against"
CULPRITS = {
    CHARGER: phrase("terms.names.charger"),
    DRAIN: phrase("compare.verdict_text.hidden_drain"),
    USE: phrase("compare.verdict_text.higher_use"),
}
# What ends a bank, and what does not.
ENDS = {
    life_stop.CYCLES: phrase("compare.verdict_text.use_wears_out"),
    life_stop.YEARS: phrase("compare.verdict_text.age_use_wears_out"),
    life_stop.ELECTRONICS: phrase("compare.verdict_text.electronics_fail_before_cells"),
    life_stop.ACCIDENTS: phrase("compare.verdict_text.deep_discharges_end_life"),
    life_stop.WARRANTY: phrase("compare.verdict_text.plan_counts_warranty_period"),
}


@dataclass(frozen=True, slots=True)
class Reason:
    """One reason.

    Attributes:
        side: ``for`` or ``against``.
        says: the reason, its figures in it.
        stop: where it is looked at.
        cared: whether it is about something that the owner cares about.
    """

    side: str
    says: Sentence
    stop: str
    cared: bool = False


@dataclass(frozen=True, slots=True)
class Step:
    """What one rule came to.

    Attributes:
        rule: 1 to 5.
        name: the rule in words.
        says: what it came to here.
    """

    rule: int
    name: str
    says: Sentence


def title(compared: ComparedBank) -> str:
    """A bank as one would ask for it in a shop, safe inside a template."""
    bank = compared.banked.bank
    assert bank is not None
    count = f"{bank.units} × " if bank.units > 1 else ""
    return escaped(f"{count}{bank.model.title} ({compared.banked.battery_class.short})")


def headline(v: Verdict) -> Sentence:
    """The verdict in one line."""
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
        return Sentence(phrase("compare.verdict_text.now_buy", title=title(winner)))
    return Sentence(phrase("compare.verdict_text.buy", title=title(winner)))


def _judged(v: Verdict) -> bool:
    """Whether there is a day, and a bank that was looked at."""
    return bool(v.compared_banks) and v.days.day.bank_wh.number > 0


def _culprits(v: Verdict) -> str:
    named = [CULPRITS[k] for k in v.at_fault if k in CULPRITS]
    return and_list(named)


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
                    phrase("compare.verdict_text.smallest_for_lights", title=title(v.winner)),
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
        for out in v.outs[:3]:
            yield Sentence(
                f"{title(out.compared)}: {out.says.template} {escaped(out.needs)}", out.says.figures
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
    yield from _undocumented(winner)
    yield from _beside(v, winner)
    yield from _unserved(v, winner)
    # Where something is asked first, the rest is told in the workings.
    if winner in v.found and v.question is None:
        yield from _instead_of_yours(v)
    if life["years"].value is not None and v.question is None:
        yield Sentence(
            phrase("compare.verdict_text.after_about", ends=ENDS[life.ends]), {"years": life["years"]}
        )
    if cost["extra_cost"].number > 0:
        yield Sentence(
            phrase("compare.verdict_text.up_front_cost_extras"),
            {"outlay": cost["outlay"], "extra_cost": cost["extra_cost"]},
        )
    else:
        yield Sentence(phrase("compare.verdict_text.up_front_cost"), {"outlay": cost["outlay"]})
    others = [CULPRITS[k] for k in v.at_fault if k in CULPRITS and k != USE]
    if others:
        yield Sentence(phrase("compare.verdict_text.fix_too_bank_fail", others=and_list(others)))
    if v.danger:
        yield Sentence(phrase("compare.verdict_text.take_old_bank_out"))


def _undocumented(winner: ComparedBank) -> Iterator[Sentence]:
    """What the datasheet of a lithium battery leaves open, and what that risks."""
    bank = winner.banked.bank
    if bank is None or winner.banked.battery_class.is_lead_acid:
        return
    uncertified = not bank.model.proof.certifications
    # A heater warms the cells before they are charged.
    charges_cold = bank.model.heater_w is None and not (bank.model.bms and bank.model.bms.stops_cold_charge)
    if uncertified and charges_cold:
        yield Sentence(phrase("compare.verdict_text.no_certificate_no_cold_stop"))
    elif uncertified:
        yield Sentence(phrase("compare.verdict_text.no_certificate"))
    elif charges_cold:
        yield Sentence(phrase("compare.verdict_text.no_cold_stop"))


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
        phrase("compare.verdict_text.found_catalogue_banks_added", title=title(best)),
        {"c": best.cost["lifetime"]},
    )


def doubt(v: Verdict) -> Sentence | None:
    """Why the bank that is cheapest in the middle is not chosen; None where it is, or cares decide.

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
        phrase("compare.verdict_text.costs_less_middle_scenario", title=title(cheapest), because=because),
        {"less": less, "more": more},
    )


def _beside(v: Verdict, winner: ComparedBank) -> Iterator[Sentence]:
    assert v.decided is not None
    active_load, why = v.runner_up, v.decided[1]
    if active_load is None:
        yield Sentence(phrase("compare.verdict_text.nothing_else_catalogue_suitable"))
        return
    name, total = title(active_load), {"b": active_load.cost["lifetime"]}
    if why == "only":
        out = next((o for o in v.outs if o.compared is active_load), None)
        if out is None:
            yield Sentence(phrase("compare.verdict_text.nothing_else_suitable"))
            return
        says = phrase(
            "compare.verdict_text.nothing_else_suitable_out", name=name, lower=_lower(out.says.template)
        )
        yield Sentence(says, dict(out.says.figures) | total)
        return
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
        "compare.verdict_text.care_about_among_banks", name=CARES[why].name, best=CARES[why].best
    )
    yield Sentence(phrase("compare.verdict_text.cost_alone_decide_costs", name=name, because=because), total)


def _lower(text: str) -> str:
    return text[:1].lower() + text[1:] if not text.startswith("{") else text


def reasons(v: Verdict) -> tuple[Reason, ...]:
    """Reasons for and against what it says to buy; what the owner cares about comes first."""
    if v.winner is None or v.kind != BUY:
        return ()
    found = [
        *_money_reasons(v, v.winner),
        *_beside_runner(v, v.winner),
        *_care_reasons(v, v.winner),
        *_use_reasons(v, v.winner),
    ]
    return tuple(sorted(found, key=lambda r: (r.side != FOR, not r.cared)))


def _money_reasons(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    if v.saving is not None and v.runner_up in v.suitable:
        low, saved, high = v.saving
        figures = {"saved": saved, "low": low, "high": high}
        if low.number > 0:
            yield Reason(
                FOR, Sentence(phrase("compare.verdict_text.saves_compared_runner_up"), figures), "compare"
            )
        elif saved.number > 0:
            yield Reason(
                AGAINST,
                Sentence(phrase("compare.verdict_text.saving_uncertain_eight_ten"), figures),
                "compare",
            )
        else:
            yield Reason(
                AGAINST,
                Sentence(phrase("compare.verdict_text.planned_costs_runner_up"), {"more": _positive(saved)}),
                "compare",
            )
    if v.pays_back is not None and v.pays_back.number < v.plan.years_kept:
        yield Reason(
            FOR, Sentence(phrase("compare.verdict_text.higher_up_front_cost"), {"t": v.pays_back}), "compare"
        )
    budget, outlay = v.plan.budget, winner.cost["outlay"]
    if budget is not None and outlay.number > budget:
        ceiling = typed("rig.budget", phrase("terms.names.spending_limit"), budget, "money", "/rig/budget")
        yield Reason(
            AGAINST, Sentence(phrase("compare.verdict_text.up_front_cost_wanted"),
                              {"outlay": outlay, "budget": ceiling}), "rig", True,
        )  # fmt: skip


def _beside_runner(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    """What it has over the runner-up, apart from the money over the years."""
    active_load = v.runner_up
    if active_load is None or active_load not in v.suitable:
        return
    ours, theirs = winner.cost["outlay"], active_load.cost["outlay"]
    if ours.number < theirs.number * (1 - ALIKE):
        yield Reason(
            FOR,
            Sentence(phrase("compare.verdict_text.up_front_cost_lower_2"), {"x": ours, "y": theirs}),
            "compare",
            "purse" in v.plan.cares,
        )
    extra_cost, more = winner.cost["extra_cost"], active_load.cost["extra_cost"]
    if extra_cost.number < more.number * (1 - ALIKE):
        yield Reason(
            FOR,
            Sentence(phrase("compare.verdict_text.extras_labour_cost_less"), {"x": extra_cost, "y": more}),
            "compare",
        )
    kept = winner.cost["per_year"].inputs["H"]
    if winner.cost["replacement_count"].number == 0 and winner.life["years"].value is not None:
        yield Reason(
            FOR, Sentence(phrase("compare.verdict_text.lasts_longer_keep_rig"),
                          {"years": winner.life["years"], "kept": kept}), "compare",
        )  # fmt: skip


def _positive(saved: Figure) -> Figure:
    inputs = {"a": saved.inputs["a"], "b": saved.inputs["b"]}
    return Figure(
        "verdict.dearer",
        phrase("compare.verdict_text.dearer"),
        -saved.number,
        "money",
        formula="{a} − {b}",
        inputs=inputs,
    )


def _care_reasons(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    suitable = v.suitable if len(v.suitable) > 1 else v.compared_banks
    for key in CARES:
        care, cared = CARES[key], key in v.plan.cares
        losses = {c.id: care.loss(c) for c in suitable}
        least, own = min(losses.values()), losses.get(winner.id, 0.0)
        if max(losses.values()) - least <= ALIKE * max(abs(least), 1e-9):
            continue
        figure = care.figure(winner)
        if own <= least + 1e-9:
            if cared or key in ("weight", "purse"):
                yield Reason(FOR, Sentence(f"It {care.best}: {{x}}.", {"x": figure}), "compare", cared)
        elif cared and own - least > ALIKE * max(abs(least), 1e-9):
            best = min(suitable, key=lambda c: losses[c.id])
            yield Reason(
                AGAINST,
                Sentence(
                    phrase(
                        "compare.verdict_text.compared", worst=care.worst, short=best.short(v.compared_banks)
                    ),
                    {"x": figure, "y": care.figure(best)},
                ),
                "compare",
                True,
            )


def _use_reasons(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    year, life = winner.year, winner.life
    if year is not None:
        yield Reason(
            FOR,
            Sentence(
                phrase("compare.verdict_text.supplies_off_grid_nights"), {"share": year["served_share"]}
            ),
            "trial",
        )
        if winner.banked.battery_class.is_lead_acid and year["short_share"].number > 0.3:
            yield Reason(
                AGAINST, Sentence(phrase("compare.verdict_text.off_grid_days_full"),
                                  {"share": year["short_share"]}), "trial",
            )  # fmt: skip
    per_year, stands = life["cycles_per_year"], life["cycles_at_depth"]
    if life.ends != life_stop.CYCLES and stands.value is not None and per_year.number > 0:
        yield Reason(
            AGAINST,
            Sentence(phrase("compare.verdict_text.use_pay_rest_without"), {"stands": stands, "n": per_year}),
            "compare",
        )
    met = {"budget", *winner.met}
    cares = [f for f in winner.banked.findings if f.severity == "caution" and f.code not in met]
    for finding in cares[:2]:
        yield Reason(AGAINST, finding.says, "banks")
    for suitability in winner.suitability:
        left = [p for p in suitability.points if f"source_{p.code}" not in met and p.severity != "note"]
        if left:
            says = left[0].says
            named = Sentence(f"{escaped(suitability.source_name)}: {says.template}", says.figures)
            yield Reason(AGAINST, named, "charging")


NAMES = (
    phrase("compare.verdict_text.new_bank_needed"),
    phrase("compare.verdict_text.unsuitable_banks"),
    phrase("compare.verdict_text.banks_fail_critical_loads"),
    phrase("compare.verdict_text.cost_then_care_about"),
    phrase("compare.verdict_text.smallest_suitable_purchase"),
)


def steps(v: Verdict) -> tuple[Step, ...]:
    """What each rule came to."""
    says = (_rule_1(v), _gone(v), _rule_3(v), _rule_4(v), _rule_5(v))
    return tuple(Step(i, n, s) for i, (n, s) in enumerate(zip(NAMES, says, strict=True), 1))


def _rule_1(v: Verdict) -> Sentence:
    nights = nights_a_year(v.plan)
    return {
        KEEP: Sentence(phrase("compare.verdict_text.tested_old_bank_still"))
        if v.tested
        else Sentence(phrase("compare.verdict_text.young_old_bank_still")),
        MEND: Sentence(phrase("compare.verdict_text.bank_cause_cause_charges")),
        HOOK_UP: Sentence(phrase("compare.verdict_text.off_grid_almost_nothing"), {"nights": nights})
        if v.without is None
        else Sentence(
            phrase("compare.verdict_text.no_bank_pays"),
            {"nights": nights, "bank": v.without[0], "elsewhere": v.without[1]},
        ),
    }.get(v.kind, Sentence(phrase("compare.verdict_text.yes_old_bank_worn")))


def _rule_3(v: Verdict) -> Sentence:
    """What is not supplied, and what it costs: beside the winner, else beside the cheapest."""
    missing = [c for c in v.suitable if c.cost["elsewhere"].number + c.cost["critical"].number > 0]
    if not missing:
        return Sentence(phrase("compare.verdict_text.all_supplied"))
    one = v.winner if v.winner in missing else missing[0]
    assert one is not None
    return Sentence(
        phrase("compare.verdict_text.missing_priced", count=len(missing), name=title(one)),
        {"elsewhere": one.cost["elsewhere"], "critical": one.cost["critical"]},
    )


def _gone(v: Verdict) -> Sentence:
    gone = [o.compared for o in v.outs]
    return Sentence(", ".join(title(c) for c in gone) + "." if gone else "None.")


def _rule_4(v: Verdict) -> Sentence:
    if v.kind != BUY or v.decided is None:
        return Sentence(phrase("compare.verdict_text.applicable"))
    winner, why = v.decided
    name, clear = title(winner), v.assumptions.figure("verdict_clear")
    if why == "only":
        return Sentence(phrase("compare.verdict_text.left", name=name))
    if why == "money":
        within, kind = v.assumptions.figure("verdict_within"), winner.banked.battery_class.short
        share = v.shares[winner.id]
        if share.number > clear.number:
            return Sentence(
                phrase("compare.verdict_text.cheapest_scenarios", name=name), {"share": share, "clear": clear}
            )
        if v.clear:
            return Sentence(
                phrase("compare.verdict_text.cheapest_scenarios_banks_costs", kind=kind, name=name),
                {"clear": clear},
            )
        says = phrase("compare.verdict_text.cheapest_scenarios_other_close", name=name)
        says += phrase("compare.verdict_text.when_expensive_scenarios_included")
        says += phrase("compare.verdict_text.worse_another_everything")
        return Sentence(says, {"share": share, "within": within})
    decides = {
        "": phrase("compare.verdict_text.up_front_cost_lower_3"),
        "risk": phrase("compare.verdict_text.costs_less_when_expensive_2"),
    }.get(why) or phrase("compare.verdict_text.care_about", name=CARES[why].name)
    near = _listed([title(c) for c in v.near])
    return Sentence(
        phrase("compare.verdict_text.clear_winner_cost_bank", near=near, name=name, decides=decides),
        {"clear": clear},
    )


def _listed(names: list[str]) -> str:
    return phrase("compare.verdict_text.and", names=", ".join(names[:-1]), names_2=names[-1])


def _rule_5(v: Verdict) -> Sentence:
    if v.winner is None:
        return Sentence(phrase("compare.verdict_text.buy_nothing"))
    return Sentence(
        phrase("compare.verdict_text.up_front_cost_packages"), {"outlay": v.winner.cost["outlay"]}
    )


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
