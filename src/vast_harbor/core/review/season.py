"""Whether the verdict would be the same today, with what the log says of use and of the bank in use."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from math import isnan

from vast_harbor.core.battery.health_signs import HealthSign
from vast_harbor.core.figures.normal import Z_90
from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.health import Health
from vast_harbor.core.log.use import MeasuredUse
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.review.so_far import SoFar
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.compare import Verdict, verdict_text
from vast_harbor.core.stops.day import MEASURED
from vast_harbor.phrases import phrase

# Answers: it can wait; it is sound but too small; it is sound but hardly ever full; its end is near; it is
# worn out; it is dangerous; nobody knows the bank.
WAIT, SMALL, CHARGE, PREPARE, OVER = "wait", "small", "charge", "prepare", "over"
DANGER, UNKNOWN = "danger", "unknown"
USE, HEALTH = "use", "health"
# From this chance on that it ends within a year, the next bank is prepared [-].
NEAR_END = 0.25
# Lead-acid that stays short of full on so much of so many days is charged before anything else [-], [days].
SELDOM_FULL, ENOUGH_DAYS = 0.8, 14
# Measured use that differs by less than this, or by less than so many of its errors, is as planned [-].
DIFFERS, ERRORS = 0.1, 2.0


@dataclass(frozen=True, slots=True)
class Changed:
    """Something that the log knows better than the plan.

    Attributes:
        key: ``use`` or ``health``.
        turns: whether this alone gives another verdict.
    """

    key: str
    turns: bool


@dataclass(frozen=True, slots=True)
class Review:
    """The verdict today.

    Attributes:
        answer: what to do about the bank in use: ``wait``, ``small``, ``charge``, ``prepare``, ``over``,
            ``danger`` or ``unknown``.
        planned, now: the verdict of the plan, or the bank that was bought by it; and with all that the log
            knows, in one line.
        verdict: that in full.
        changes: what the log knows better.
        same: whether both verdicts say the same.
        usable_wh: what the bank in use still gives from full [Wh]; nan where its health is not known.
        need_wh: what it must give, with the use that was measured [Wh].
        nights: nights that it carries [-]; nan where that is not known.
    """

    answer: str
    planned: Sentence
    now: Sentence
    verdict: Verdict
    changes: tuple[Changed, ...]
    same: bool
    usable_wh: float
    need_wh: float
    nights: float


def review(
    results: Results,
    reference: Reference,
    use: Mapping[str, MeasuredUse],
    bank: FollowedBank | None,
    in_use: OldBank | None,
    health: Health | None,
    went: SoFar | None = None,
) -> Review:
    """The verdict with what the log says.

    The bank in use takes the place of the old bank: the verdict then says whether it is kept, and how it
    aged moves the life of its class, as for any old bank. That there is another bank now is no news of the
    log: what its health changes is held against the same bank as the life model expects it.

    Args:
        results: the plan in figures.
        reference: shipped data.
        use: what a monitor counted against the plan, by kind of day.
        bank: the bank in use; None where the rig has none.
        in_use: the same as an old bank.
        health: its health over time; None where its age is not known.
        went: what it went through; None where nobody counted.
    """
    plan = results.plan
    changed: dict[str, Plan] = {}
    both = plan
    if any(differs(u) for u in use.values()):
        both = changed[USE] = with_use(plan, use)
    if in_use is not None and health is not None:
        changed[HEALTH] = with_health(plan, in_use, health)
        both = with_health(both, in_use, health)
    now = evaluate(both, reference) if changed else results
    bought = results.changeover_to(plan.changeover.chosen) if in_use is not None and not in_use.kept else None

    def same(verdict: Verdict) -> bool:
        if bought is None:
            return _line(verdict) == _line(results.verdict)
        winner = verdict.winner
        return winner is not None and winner.banked.bank == bought.work.build.bank

    def turns(key: str, alone: Plan) -> bool:
        verdict = now.verdict if len(changed) == 1 else evaluate(alone, reference).verdict
        if key == HEALTH and bought is not None:
            as_expected = evaluate(replace(plan, old_bank=in_use), reference).verdict
            return _line(verdict) != _line(as_expected)
        return not same(verdict)

    changes = tuple(Changed(key, turns(key, alone)) for key, alone in changed.items())
    carries = now.banks.old_carries if health is not None else {}
    usable = carries["usable_wh"].number if carries else float("nan")
    nights = carries["nights"].value if carries else None
    need = now.need.energy.number
    answer = _answer(results, in_use, bank, health, usable, need)
    if answer in (WAIT, SMALL) and seldom_full(bank, went):
        answer = CHARGE
    planned = (
        verdict_text.bank_line(results.verdict)
        if bought is None
        else Sentence(phrase("log.review.bought", title=bought.work.compared.title))
    )
    return Review(
        answer, planned, verdict_text.bank_line(now.verdict), now.verdict, changes, same(now.verdict), usable,
        need, float("nan") if nights is None else nights,
    )  # fmt: skip


def _answer(
    results: Results,
    in_use: OldBank | None,
    bank: FollowedBank | None,
    health: Health | None,
    usable: float,
    need: float,
) -> str:
    if in_use is not None and in_use == results.plan.old_bank and results.verdict.danger:
        return DANGER
    if bank is None or health is None:
        return UNKNOWN
    if health.now[1] <= bank.expected.end:
        return OVER
    if health.soon >= NEAR_END:
        return PREPARE
    return SMALL if usable < need else WAIT


def seldom_full(bank: FollowedBank | None, went: SoFar | None) -> bool:
    """Whether a lead-acid bank is hardly ever charged full, by its monitor."""
    if bank is None or went is None or not bank.battery_class.is_lead_acid:
        return False
    return went.days_told >= ENOUGH_DAYS and went.short_days > SELDOM_FULL * went.days_told


def drain_of(use: Mapping[str, MeasuredUse]) -> float:
    """What flows at night without being in the plan [W]; 0 where nothing does."""
    return next((u.drain_w for u in use.values() if u.drain_w), 0.0)


def _line(verdict: Verdict) -> str:
    return verdict_text.bank_line(verdict).template


def differs(use: MeasuredUse) -> bool:
    """Whether what was measured is surely another use than the planned one."""
    if isnan(use.day_wh) or not use.planned_wh:
        return False
    return abs(use.day_wh - use.planned_wh) > max(ERRORS * use.doubt_wh, DIFFERS * use.planned_wh)


def with_use(plan: Plan, use: Mapping[str, MeasuredUse]) -> Plan:
    """The plan with those kinds of day as measured that surely differ."""
    types = tuple(
        replace(d, measured_wh=use[d.id].day_wh, measured_hours=24.0)
        if d.id in use and differs(use[d.id])
        else d
        for d in plan.day_types
    )
    return replace(plan, day_types=types, day_basis=MEASURED)


def with_health(plan: Plan, in_use: OldBank, health: Health) -> Plan:
    """The plan with the bank in use as its old bank, as healthy as the log says."""
    low, likely, high = health.now
    logged = HealthSign(likely, max(0.01, (high - low) / 2 / Z_90))
    return replace(plan, old_bank=replace(in_use, logged=logged))
