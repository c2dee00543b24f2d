"""The stretches of days that can be tried: the plan's own, and bad ones."""

from dataclasses import dataclass

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
        Stretch(PLAN, "As planned", "The rig’s nights, drives and hook-ups, in the weather of the seed.", 14),
        Stretch(
            WORST,
            "Worst week of the year",
            "The week of all months of use and four weathers in which the banks together do worst.",
            7,
            False,
        ),
        Stretch(
            COLD,
            "Coldest night",
            "Clear days off-grid, and a night as cold as the winter is likely to bring.",
            5,
        ),
        Stretch(
            WET, "Wet week, hidden drain", "Overcast all week, and something draws that nobody knows of.", 7
        ),
        Stretch(
            LOST, "Hook-up lost at night", "On hook-up, until its breaker trips at eleven in the evening.", 3
        ),
        Stretch(
            FROST,
            "Laid up in frost",
            "Nobody is there in the coldest month; nothing is plugged in but what stays.",
            30,
        ),
        Stretch(COOKING, "A day of heavy cooking", "On the second day all AC loads take twice as much.", 4),
    )
}
# What a hidden drain takes where the owner does not say [W].
HIDDEN_W = 15.0
