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

MOST_WORDS = 120
# The rule that leaves out what does not serve the nights.
UNSERVED = 3
FOR, AGAINST = "for", "against"
CULPRITS = {CHARGER: "the charger", DRAIN: "the hidden drain", USE: "the grown use"}
# What ends a bank, and what does not.
ENDS = {
    life_stop.CYCLES: "Cycles end it",
    life_stop.YEARS: "Years, not cycles, end it",
    life_stop.ELECTRONICS: "Its electronics end it before its cells do",
    life_stop.ACCIDENTS: "Deep accidents end it before its cycles do",
    life_stop.WARRANTY: "It is reckoned with for its warranty only",
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
    if v.kind == KEEP:
        return Sentence("Keep what you have.")
    if v.kind == MEND:
        return Sentence(f"Mend {_culprits(v)} first; buy no bank yet.")
    if v.kind == HOOK_UP and winner is None:
        return Sentence("Spend nothing: you are on hook-up.")
    if winner is None:
        return Sentence("None of these yet." if _judged(v) else "Nothing to judge yet.")
    if v.question is not None:
        return Sentence(f"For now: buy {title(winner)}.")
    return Sentence(f"Buy {title(winner)}.")


def _judged(v: Verdict) -> bool:
    """Whether there is a day, and a bank that was looked at."""
    return bool(v.compared_banks) and v.days.day.bank_wh.number > 0


def _culprits(v: Verdict) -> str:
    named = [CULPRITS[k] for k in v.at_fault if k in CULPRITS]
    return " and ".join(named)


def card(v: Verdict) -> tuple[Sentence, ...]:
    """The verdict in at most 120 plain words, its headline left out."""
    says = list(_card(v))
    while len(says) > 1 and sum(len(s.template.split()) for s in says) > MOST_WORDS:
        says.pop()
    return tuple(says)


def _card(v: Verdict) -> Iterator[Sentence]:
    nights = nights_a_year(v.plan)
    if v.kind == KEEP:
        carries = v.banks.old_carries
        yield Sentence(
            "Its test shows {soh} of its label: {usable} usable, and the plan asks for {need}.",
            {"soh": carries["soh"], "usable": carries["usable_wh"], "need": v.days.need.energy},
        )
        yield Sentence("Test it again before the next season; look at charger and drains meanwhile.")
        return
    if v.kind == MEND:
        yield Sentence("A new bank would go the same way. Mend it, charge full, and test again.")
        return
    if v.kind == HOOK_UP:
        yield Sentence("You are off-grid on {nights} a year, so no bank earns its price.", {"nights": nights})
        if v.winner is not None:
            yield Sentence("It is the cheapest that does no harm: {outlay} on the day.",
                           {"outlay": v.winner.cost["outlay"]})  # fmt: skip
        else:
            yield Sentence("The old one still buffers pump and lights; replace it when it no longer does.")
        return
    if v.winner is None:
        if not _judged(v):
            yield Sentence("List the loads of a day and put up a bank or two; the verdict appears here.")
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
        yield Sentence(f"This holds as long as {v.question.depends}. {v.question.says.template}",
                       v.question.says.figures)  # fmt: skip
    years = cost["per_year"].inputs["H"]
    counted = (cost["cycles_made"].value or 0) >= v.plan.years_kept
    says = "Kept {H} with {nights} off-grid a year it costs {total} in all, {year}"
    says += ", {cycle}." if counted else "."
    yield Sentence(
        says,
        {"H": years, "nights": nights, "total": cost["lifetime"], "year": cost["per_year"]}
        | ({"cycle": cost["per_cycle"]} if counted else {}),
    )
    yield from _beside(v, winner)
    yield from _unserved(v, winner)
    if winner in v.found:
        yield from _instead_of_yours(v)
    if life["years"].value is not None:
        yield Sentence(f"{ENDS[life.ends]}, after about {{years}}.", {"years": life["years"]})
    if cost["extra_cost"].number > 0:
        yield Sentence(
            "Have {outlay} ready on the day; {extra_cost} of it is for what comes besides the batteries.",
            {"outlay": cost["outlay"], "extra_cost": cost["extra_cost"]},
        )
    else:
        yield Sentence("Have {outlay} ready on the day.", {"outlay": cost["outlay"]})
    others = [CULPRITS[k] for k in v.at_fault if k in CULPRITS and k != USE]
    if others:
        yield Sentence(f"Mend {' and '.join(others)} too, or this bank goes the way of the old one.")
    if v.danger:
        yield Sentence("Take the old bank out of use now.")


def _unserved(v: Verdict, winner: ComparedBank) -> Iterator[Sentence]:
    """What it leaves unserved, where that is worth saying."""
    year = winner.year
    if year is None:
        return
    if v.charge_missing:
        return
    if year["served_share"].number < v.assumptions.value("verdict_served"):
        yield Sentence(
            "It serves {share} of the nights; {money} a year of its cost is for nights elsewhere.",
            {"share": year["served_share"], "money": winner.cost["elsewhere"]},
        )


def _instead_of_yours(v: Verdict) -> Iterator[Sentence]:
    """That the winner was found in the catalogue, and what comes closest of what was put up."""
    yours = [c for c in v.put_up if c in v.suitable]
    if not v.put_up:
        return
    if not yours:
        yield Sentence("It was found for you in the catalogue: nothing that you put up will do.")
        return
    best = min(yours, key=lambda c: c.cost["lifetime"].number)
    # Its price was told: beside the winner's, or as the next one's.
    if best is v.runner_up or best in v.near:
        yield Sentence("It was found for you in the catalogue.")
        return
    yield Sentence(
        f"It was found for you in the catalogue; of what you put up {title(best)} costs least, {{c}}.",
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
    less = computed("verdict.doubt.less", "Cheaper in the middle", ours.number - theirs.number, "money",
                    "{a} − {b}", {"a": ours, "b": theirs})  # fmt: skip
    more = computed("verdict.doubt.more", "Dearer in one future of ten", their_dear.number - our_dear.number,
                    "money", "{a} − {b}", {"a": their_dear, "b": our_dear})  # fmt: skip
    bank = cheapest.banked.bank
    assert bank is not None
    because = f"confidence {bank.model.grade}"
    if bank.model.warranty.years <= 1:
        because += ", hardly any warranty"
    return Sentence(
        f"{title(cheapest)} costs {{less}} less in the middle, but {{more}} more in one future of ten "
        f"({because}).", {"less": less, "more": more},
    )  # fmt: skip


def _beside(v: Verdict, winner: ComparedBank) -> Iterator[Sentence]:
    assert v.decided is not None
    active_load, why = v.runner_up, v.decided[1]
    if active_load is None:
        yield Sentence("Nothing else in the catalogue will do.")
        return
    name, total = title(active_load), {"b": active_load.cost["lifetime"]}
    if why == "only":
        out = next((o for o in v.outs if o.compared is active_load), None)
        if out is None:
            yield Sentence("Nothing else will do.")
            return
        says = f"Nothing else will do. {name} is out: {_lower(out.says.template)}"
        if out.rule == UNSERVED and active_load.cost["lifetime"].number < winner.cost["lifetime"].number:
            says += f" With {_lower(escaped(out.needs).rstrip('.'))} it would come to {{b}}."
        yield Sentence(says, dict(out.says.figures) | total)
        return
    if why == "money":
        share = v.shares[winner.id]
        kind, clear = winner.banked.battery_class.short, v.assumptions.value("verdict_clear")
        if share.number > clear:
            says = f"It is cheapest in {{share}} of the futures drawn; next comes {name} with {{b}}."
        elif v.clear:
            says = f"{kind} is nearly always cheapest, and of these it costs least; {name} comes to {{b}}."
        else:
            says = "Money leaves only this one near, the cheapest in {share} of the futures drawn; "
            says += f"{name} comes to {{b}}."
        yield Sentence(says, {"share": share, **total} if "{share}" in says else total)
        return
    because = {
        "": "It asks less on the day.",
        "risk": "It costs less where the dear futures are weighed too.",
    }.get(why) or f"You care about {CARES[why].name}, and of those near in money it {CARES[why].best}."
    yield Sentence(f"Money alone does not decide: {name} comes to {{b}}. {because}", total)


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
                FOR,
                Sentence(
                    "It saves {saved} against the runner-up, and more than the doubt: {low} to {high} in "
                    "eight futures of ten.",
                    figures,
                ),
                "compare",
            )
        elif saved.number > 0:
            yield Reason(
                AGAINST,
                Sentence("The {saved} that it saves are within the doubt: {low} to {high}.", figures),
                "compare",
            )
        else:
            yield Reason(
                AGAINST,
                Sentence("As planned it costs {more} more than the runner-up.", {"more": _positive(saved)}),
                "compare",
            )
    if v.pays_back is not None and v.pays_back.number < v.plan.years_kept:
        yield Reason(
            FOR, Sentence("What it costs more on the day is back after {t}.", {"t": v.pays_back}), "compare"
        )
    budget, outlay = v.plan.budget, winner.cost["outlay"]
    if budget is not None and outlay.number > budget:
        ceiling = typed("rig.budget", "Most to spend at once", budget, "money", "/rig/budget")
        yield Reason(
            AGAINST, Sentence("It asks {outlay} at once; you wanted to spend {budget} at most.",
                              {"outlay": outlay, "budget": ceiling}), "rig", True,
        )  # fmt: skip


def _beside_runner(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    """What it has over the runner-up, besides the money over the years."""
    active_load = v.runner_up
    if active_load is None or active_load not in v.suitable:
        return
    ours, theirs = winner.cost["outlay"], active_load.cost["outlay"]
    if ours.number < theirs.number * (1 - ALIKE):
        yield Reason(
            FOR,
            Sentence(
                "It asks less on the day than the runner-up: {x} against {y}.", {"x": ours, "y": theirs}
            ),
            "compare",
            "purse" in v.plan.cares,
        )
    extra_cost, more = winner.cost["extra_cost"], active_load.cost["extra_cost"]
    if extra_cost.number < more.number * (1 - ALIKE):
        yield Reason(
            FOR,
            Sentence(
                "Less must be bought and changed besides: {x} against {y}.", {"x": extra_cost, "y": more}
            ),
            "compare",
        )
    kept = winner.cost["per_year"].inputs["H"]
    if winner.cost["replacement_count"].number == 0 and winner.life["years"].value is not None:
        yield Reason(
            FOR, Sentence("It lasts for {years}, longer than the {kept} that you keep the rig.",
                          {"years": winner.life["years"], "kept": kept}), "compare",
        )  # fmt: skip


def _positive(saved: Figure) -> Figure:
    inputs = {"a": saved.inputs["a"], "b": saved.inputs["b"]}
    return Figure(
        "verdict.dearer",
        "Dearer than the runner-up",
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
                    f"It {care.worst} than {best.short(v.compared_banks)}: {{x}} against {{y}}.",
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
                "It serves {share} of the off-grid nights of a run year.", {"share": year["served_share"]}
            ),
            "trial",
        )
        if winner.banked.battery_class.is_lead_acid and year["short_share"].number > 0.3:
            yield Reason(
                AGAINST, Sentence("It is not full again on {share} of its off-grid days, which sulphates it.",
                                  {"share": year["short_share"]}), "trial",
            )  # fmt: skip
    per_year, stands = life["cycles_per_year"], life["cycles_at_depth"]
    if life.ends != life_stop.CYCLES and stands.value is not None and per_year.number > 0:
        yield Reason(
            AGAINST,
            Sentence(
                "Of the {stands} that it stands you make {n}: the rest is paid for and not used.",
                {"stands": stands, "n": per_year},
            ),
            "compare",
        )
    met = {"budget", *winner.met}
    cares = [f for f in winner.banked.findings if f.severity == "care" and f.code not in met]
    for finding in cares[:2]:
        yield Reason(AGAINST, finding.says, "banks")
    for suitability in winner.suitability:
        left = [p for p in suitability.points if f"source_{p.code}" not in met and p.severity != "note"]
        if left:
            says = left[0].says
            named = Sentence(f"{escaped(suitability.source_name)}: {says.template}", says.figures)
            yield Reason(AGAINST, named, "charging")


NAMES = (
    "Nothing to do?",
    "Out: what will not do",
    "Out: what leaves critical loads dark",
    "Money, then what you care about",
    "The least that will do",
)


def steps(v: Verdict) -> tuple[Step, ...]:
    """What each rule came to."""
    says = (_rule_1(v), _gone(v, 2), _gone(v, 3), _rule_4(v), _rule_5(v))
    return tuple(Step(i, n, s) for i, (n, s) in enumerate(zip(NAMES, says, strict=True), 1))


def _rule_1(v: Verdict) -> Sentence:
    nights = nights_a_year(v.plan)
    return {
        KEEP: Sentence("The old bank, tested, still covers the need."),
        MEND: Sentence("The bank is not at fault; what charges or drains it is."),
        HOOK_UP: Sentence("With {nights} off-grid there is next to nothing to do.", {"nights": nights}),
    }.get(v.kind, Sentence("No: what is there is worn or too small, and it is used."))


def _gone(v: Verdict, rule: int) -> Sentence:
    gone = [o.compared for o in v.outs if o.rule == rule]
    return Sentence(", ".join(title(c) for c in gone) + "." if gone else "None.")


def _rule_4(v: Verdict) -> Sentence:
    if v.kind != BUY or v.decided is None:
        return Sentence("Not asked.")
    winner, why = v.decided
    name, clear = title(winner), v.assumptions.figure("verdict_clear")
    if why == "only":
        return Sentence(f"Only {name} is left.")
    if why == "money":
        within, kind = v.assumptions.figure("verdict_within"), winner.banked.battery_class.short
        share = v.shares[winner.id]
        if share.number > clear.number:
            return Sentence(
                f"{name} is cheapest in {{share}} of the futures, more than {{clear}}.",
                {"share": share, "clear": clear},
            )
        if v.clear:
            return Sentence(
                f"{kind} is cheapest in more than {{clear}} of the futures; of these {name} costs least with "
                "the dear futures weighed too.", {"clear": clear},
            )  # fmt: skip
        says = f"{name} is cheapest in {{share}} of the futures, and no other is near: each costs {{within}} "
        says += "more where the dear futures are weighed too, is of a class that is seldom the cheapest, or "
        says += "is beaten by another in everything."
        return Sentence(says, {"share": share, "within": within})
    decides = {
        "": "it asks less on the day",
        "risk": "it costs less where the dear futures are weighed too",
    }.get(why) or f"you care about {CARES[why].name}"
    near = _listed([title(c) for c in v.near])
    return Sentence(
        f"No clear winner on money: none is cheapest in {{clear}} of the futures. Between {near} it is "
        f"{name}, because {decides}.",
        {"clear": clear},
    )


def _listed(names: list[str]) -> str:
    return f"{', '.join(names[:-1])} and {names[-1]}"


def _rule_5(v: Verdict) -> Sentence:
    if v.winner is None:
        return Sentence("Nothing is bought.")
    return Sentence(
        "{outlay} on the day; see the packages for what may be left out at first.",
        {"outlay": v.winner.cost["outlay"]},
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
