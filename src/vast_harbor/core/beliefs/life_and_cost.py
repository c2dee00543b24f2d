"""Beliefs about how long a bank lasts and what it costs."""

from collections.abc import Iterator

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.beliefs.belief import FALSE, HALF, TRUE, Claim, Ground, Settled, near
from vast_harbor.core.figures.workings import Figure, computed, typed, unescaped
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.phrases import phrase

# Left empty for a week, a lead-acid bank wears as by so many deep discharges (see the assumption's note).
WEEK_EMPTY = 6.0
# A bank is the cheapest by a margin that the estimate can tell.
CLOSE = 0.03


def claims() -> Iterator[Claim]:
    """The beliefs of this module."""
    yield Claim(
        "cycles_are_decades",
        phrase("beliefs.cycles_are_decades.claim"),
        "compare",
        phrase("beliefs.cycles_are_decades.needs"),
        _cycles_are_decades,
    )
    yield Claim(
        "warranty_is_life",
        phrase("beliefs.warranty_is_life.claim"),
        "compare",
        phrase("beliefs.warranty_is_life.needs"),
        _warranty_is_life,
    )
    yield Claim(
        "lfp_cheaper",
        phrase("beliefs.lfp_cheaper.claim"),
        "compare",
        phrase("beliefs.lfp_cheaper.needs"),
        _lfp_cheaper,
    )
    yield Claim(
        "hook_up_needs_no_lfp",
        phrase("beliefs.hook_up_needs_no_lfp.claim"),
        "compare",
        phrase("beliefs.hook_up_needs_no_lfp.needs"),
        _hook_up_needs_no_lfp,
    )
    yield Claim(
        "lfp_drops_in",
        phrase("beliefs.lfp_drops_in.claim"),
        "compare",
        phrase("beliefs.lfp_drops_in.needs"),
        _lfp_drops_in,
    )
    yield Claim(
        "one_discharge_ruins_lead",
        phrase("beliefs.one_discharge_ruins_lead.claim"),
        "need",
        "",
        _one_discharge_ruins_lead,
    )
    yield Claim(
        "lfp_needs_no_care",
        phrase("beliefs.lfp_needs_no_care.claim"),
        "compare",
        phrase("beliefs.lfp_needs_no_care.needs"),
        _lfp_needs_no_care,
    )
    yield Claim(
        "six_volt_is_best_value",
        phrase("beliefs.six_volt_is_best_value.claim"),
        "banks",
        phrase("beliefs.six_volt_is_best_value.needs"),
        _six_volt_is_best_value,
    )


def _cycles_are_decades(ground: Ground) -> Settled | None:
    if ground.lfp is None:
        return None
    by_cycles, life = ground.lfp.life.figures["by_cycles"], ground.lfp.life.figures["years"]
    if by_cycles.value is None:
        return None
    decades = life.number >= 18
    answer = TRUE if decades and by_cycles.number <= 1.25 * life.number else HALF if decades else FALSE
    return Settled(
        answer,
        phrase("beliefs.cycles_are_decades.says"),
        {"cycles": by_cycles, "life": life},
        {
            TRUE: phrase("beliefs.cycles_are_decades.true"),
            HALF: phrase("beliefs.cycles_are_decades.half"),
            FALSE: phrase("beliefs.cycles_are_decades.false"),
        },
    )


def _warranty_is_life(ground: Ground) -> Settled | None:
    if ground.chosen is None:
        return None
    warranty, life = ground.chosen.figures["warranty"], ground.chosen.life.figures["years"]
    if not warranty.value:
        return None
    return Settled(
        near(life.number, warranty.number, 0.2, 0.6),
        phrase("beliefs.warranty_is_life.says"),
        {"warranty": warranty, "life": life},
        {
            TRUE: phrase("beliefs.warranty_is_life.true"),
            HALF: phrase("beliefs.warranty_is_life.half"),
            FALSE: phrase("beliefs.warranty_is_life.false"),
        },
    )


def _lfp_cheaper(ground: Ground) -> Settled | None:
    if ground.lfp is None or ground.lead is None:
        return None
    # Two bars of one name would tell nothing.
    lfp, lead = (c.cost["lifetime"]._replace(name=unescaped(c.title)) for c in (ground.lfp, ground.lead))
    one_suits = [ground.will_do(c) for c in (ground.lfp, ground.lead)]
    if one_suits.count(True) == 1:
        # What does not suit the rig is no bargain at any price.
        only = (
            phrase("beliefs.lfp_cheaper.only_lfp")
            if one_suits[0]
            else phrase("beliefs.lfp_cheaper.only_lead")
        )
        follows = {HALF: phrase("beliefs.lfp_cheaper.only")}
        return Settled(HALF, only, {"lfp": lfp, "lead": lead}, follows)
    dearer = lfp.number / lead.number - 1 if lead.number else 0.0
    answer = TRUE if dearer < -CLOSE else HALF if dearer <= CLOSE else FALSE
    # The verdict weighs expensive scenarios and what the owner cares about, too: it is not contradicted.
    lead_bought = ground.bought(lambda c: c.banked.battery_class.is_lead_acid)
    if lead_bought is not None and answer == (TRUE if lead_bought else FALSE):
        answer = HALF
    return Settled(
        answer,
        phrase("beliefs.lfp_cheaper.says"),
        {"lfp": lfp, "lead": lead},
        {
            TRUE: phrase("beliefs.lfp_cheaper.true"),
            HALF: phrase("beliefs.lfp_cheaper.half"),
            FALSE: phrase("beliefs.lfp_cheaper.false"),
        },
    )


def _hook_up_needs_no_lfp(ground: Ground) -> Settled | None:
    plan = ground.results.plan
    if not ground.results.verdict.compared_banks:
        return None
    hook = typed(
        "belief.hook_up_needs_no_lfp.hook",
        phrase("rig.findings.hook_up_nights"),
        plan.hook_up_nights,
        "nights",
        "/rig/hook_up_nights",
    )
    off = typed(
        "belief.hook_up_needs_no_lfp.off",
        phrase("terms.names.off_grid_nights_year"),
        plan.off_grid_nights,
        "nights",
        "/rig/off_grid_nights",
    )
    winner = ground.results.verdict.winner
    lead_is_enough = winner is None or winner.banked.battery_class.is_lead_acid
    mostly = plan.hook_up_nights > plan.off_grid_nights
    return Settled(
        HALF if not mostly else TRUE if lead_is_enough else FALSE,
        phrase("beliefs.hook_up_needs_no_lfp.says"),
        {"hook": hook, "off": off},
        {
            TRUE: phrase("beliefs.hook_up_needs_no_lfp.true"),
            HALF: phrase("beliefs.hook_up_needs_no_lfp.half"),
            FALSE: phrase("beliefs.hook_up_needs_no_lfp.false"),
        },
    )


def _lfp_drops_in(ground: Ground) -> Settled | None:
    if ground.lfp is None:
        return None
    batteries, extras = ground.lfp.banked["purchase"], ground.lfp.cost["extra_cost"]
    share = extras.number / batteries.number if batteries.number else 0.0
    suits = ground.will_do(ground.lfp)
    return Settled(
        FALSE if not suits else TRUE if share <= 0.1 else HALF if share <= 0.3 else FALSE,
        phrase("beliefs.lfp_drops_in.says"),
        {"batteries": batteries, "extras": extras},
        {
            TRUE: phrase("beliefs.lfp_drops_in.true"),
            HALF: phrase("beliefs.lfp_drops_in.half"),
            FALSE: phrase("beliefs.lfp_drops_in.false"),
        },
    )


def _one_discharge_ruins_lead(ground: Ground) -> Settled:
    assumed = ground.results.assumptions.figure("wear_per_accident")
    once = computed(
        "belief.one_discharge_ruins_lead.once", phrase("beliefs.one_discharge_ruins_lead.once"),
        assumed.number, "%", "{w}", {"w": assumed},
    )  # fmt: skip
    week = computed(
        "belief.one_discharge_ruins_lead.week",
        phrase("beliefs.one_discharge_ruins_lead.week"),
        min(1.0, WEEK_EMPTY * once.number),
        "%",
        "min(1, 6 · {w})",
        {"w": once},
    )
    return Settled(
        TRUE if once.number >= 0.5 else HALF if once.number >= 0.1 else FALSE,
        phrase("beliefs.one_discharge_ruins_lead.says"),
        {"once": once, "week": week},
        {
            TRUE: phrase("beliefs.one_discharge_ruins_lead.true"),
            HALF: phrase("beliefs.one_discharge_ruins_lead.half"),
            FALSE: phrase("beliefs.one_discharge_ruins_lead.false"),
        },
    )


def _lfp_needs_no_care(ground: Ground) -> Settled | None:
    if ground.lfp is None or ground.lead is None:
        return None
    assume = ground.results.assumptions
    lfp = assume.figure("care_hours.lfp")
    lead = assume.figure(f"care_hours.{ground.lead.banked.battery_class.key}")
    return Settled(
        TRUE if lfp.number < 0.25 else HALF if lfp.number < lead.number else FALSE,
        phrase("beliefs.lfp_needs_no_care.says"),
        {"lfp": lfp, "lead": lead},
        {
            TRUE: phrase("beliefs.lfp_needs_no_care.true"),
            HALF: phrase("beliefs.lfp_needs_no_care.half"),
            FALSE: phrase("beliefs.lfp_needs_no_care.false"),
        },
    )


def _six_volt(key: str, bank: Bank) -> bool:
    return key == "flooded_deep" and bank.model.unit_class_v == 6


def _is_six_volt(compared: ComparedBank) -> bool:
    bank = compared.banked.bank
    return bank is not None and _six_volt(compared.banked.battery_class.key, bank)


def _six_volt_is_best_value(ground: Ground) -> Settled | None:
    results = ground.results
    costs: dict[bool, list[float]] = {True: [], False: []}
    for key in ground.reference.classes:
        for priced in results.banks.proposals[key].suitable:
            costs[_six_volt(key, priced.bank)].append(priced.lifetime)
    if not costs[True] or not costs[False]:
        return None
    source = phrase("beliefs.six_volt_is_best_value.source")
    six_v = Figure(
        "belief.six_volt_is_best_value.six",
        phrase("beliefs.six_volt_is_best_value.six"),
        min(costs[True]),
        "money",
        source=source,
    )
    other = Figure(
        "belief.six_volt_is_best_value.other",
        phrase("beliefs.six_volt_is_best_value.other"),
        min(costs[False]),
        "money",
        source=source,
    )
    dearer = six_v.number / other.number - 1 if other.number else 0.0
    answer = TRUE if dearer <= 0 else HALF if dearer <= 0.15 else FALSE
    # Both are estimates: where the verdict says to buy another bank, six volts are close at best.
    if answer == TRUE and ground.bought(_is_six_volt) is False:
        answer = HALF
    return Settled(
        answer,
        phrase("beliefs.six_volt_is_best_value.says"),
        {"six": six_v, "other": other},
        {
            TRUE: phrase("beliefs.six_volt_is_best_value.true"),
            HALF: phrase("beliefs.six_volt_is_best_value.half"),
            FALSE: phrase("beliefs.six_volt_is_best_value.false"),
        },
    )
