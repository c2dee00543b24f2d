"""The stretches of days that can be tried: the plan's own, and bad ones."""

from dataclasses import dataclass

from vast_harbor.phrases import phrase

PLAN, WORST, COLD, WET, LOST, FROST, COOKING = (
    "plan", "worst_week", "coldest_night", "wet_week", "hook_up_lost", "frost", "cooking",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Stretch:
    """A kind of stretch.

    Attributes:
        key, name: what it is called.
        says: what happens in it.
        days: its usual length.
        own_days: whether its length may be chosen.
    """

    key: str
    name: str
    says: str
    days: int
    own_days: bool = True


STRETCHES = {
    s.key: s
    for s in (
        Stretch(
            PLAN, phrase("trial.stretches.planned"), phrase("trial.stretches.nights_drives_hook_ups"), 14
        ),
        Stretch(
            WORST,
            phrase("trial.stretches.worst_week_year"),
            phrase("trial.stretches.week_hardest_banks_out"),
            7,
            False,
        ),
        Stretch(
            COLD, phrase("trial.stretches.coldest_night"), phrase("trial.stretches.clear_days_off_grid"), 5
        ),
        Stretch(
            WET,
            phrase("trial.stretches.wet_week_hidden_drain"),
            phrase("trial.stretches.overcast_week_drain_nobody"),
            7,
        ),
        Stretch(
            LOST,
            phrase("trial.stretches.hook_up_fails_night"),
            phrase("trial.stretches.hook_up_until_breaker"),
            3,
        ),
        Stretch(
            FROST,
            phrase("trial.stretches.laid_up_frost"),
            phrase("trial.stretches.nobody_coldest_month_stays"),
            30,
        ),
        Stretch(
            COOKING,
            phrase("trial.stretches.day_heavy_cooking"),
            phrase("trial.stretches.second_day_ac_loads"),
            4,
        ),
    )
}
# What a hidden drain takes where the owner does not say [W].
HIDDEN_W = 15.0
