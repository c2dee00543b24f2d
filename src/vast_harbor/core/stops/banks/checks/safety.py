"""What happens when one part fails, and what a person must lift."""

from collections.abc import Iterator

from vast_harbor.core.battery.datasheet import CUT_OFFS, EXTERNAL_BMS, MONITOR, OWN_SWITCH
from vast_harbor.core.figures.workings import Sentence, escaped
from vast_harbor.core.rig.loads import SECOND
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, OK, STOP, Build, Check

TWO_PEOPLE_KG, HOIST_KG = 25.0, 40.0


def checks(build: Build) -> Iterator[Check]:
    """Critical loads, the switch of a lithium battery, and the heaviest piece.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _redundancy(build)
    yield from _switch(build)
    yield from _heaviest(build)


def _critical(build: Build) -> list[str]:
    second = build.plan.second is not None
    return [x.name for x in build.plan.loads if x.critical and not (second and x.bank == SECOND)]


def _redundancy(build: Build) -> Iterator[Check]:
    name, names, bank = "When one part fails", _critical(build), build.bank
    if not names:
        yield Check("redundancy", name, OK, Sentence("No critical load hangs on it."))
        return
    listed = escaped(", ".join(names[:3]) + (" and more" if len(names) > 3 else ""))
    one = bank.parallel == 1
    bms = bank.model.bms
    if build.lead:
        says = f"{listed}: a dead cell takes the whole of a single string with it." if one else (
            f"{listed}: strings side by side, each with its own fuse, can be separated."
        )  # fmt: skip
        yield Check(
            "redundancy", name, NOTE if one and bank.series > 1 else OK, Sentence(says),
            "Two strings, or a small reserve battery for what must never stop." if one else "",
        )  # fmt: skip
        return
    warns = bms is not None and bms.warns
    if not one:
        yield Check(
            "redundancy", name, OK,
            Sentence(f"{listed}: when one BMS opens, the other strings carry on, if they can bear the load."),
        )  # fmt: skip
        return
    yield Check(
        "redundancy", name, NOTE if warns else CARE,
        Sentence(
            f"{listed} hang on one BMS: when it opens they go dark"
            + (", after a warning." if warns else ", without a warning.")
        ),
        "Two smaller batteries side by side, a small reserve battery for them, or an alarm well before "
        "the cut.",
    )  # fmt: skip


def _switch(build: Build) -> Iterator[Check]:
    bms = build.bank.model.bms
    if build.lead or bms is None:
        return
    name = "Who opens when it must"
    if bms.switch == OWN_SWITCH:
        says = "Its own BMS opens" + (" after a warning" if bms.warns else " without a warning")
        says += (
            " and closes again by itself." if bms.resets == "itself" else "; only a charger wakes it again."
        )
        asleep = bms.resets != "itself"
        yield Check(
            "bms_reset", name, NOTE if asleep else OK, Sentence(says),
            "Know how you wake it before it happens: many chargers do not see a sleeping battery."
            if asleep else "",
        )  # fmt: skip
        return
    what = "only watches its cells" if bms.switch == MONITOR else "has neither monitor nor switch"
    guard = build.candidate.protection
    if guard == EXTERNAL_BMS:
        yield Check("external_bms", name, OK, Sentence(f"It {what}; an external BMS with contactor opens."))
        return
    if guard == CUT_OFFS:
        yield Check(
            "external_bms", name, CARE,
            Sentence(
                f"It {what}. Cut-offs in inverter and charger stand in for a switch: what remains is a "
                f"DC load "
                "that drains a cell below its least, and a charger whose relay sticks."
            ),
            "An external BMS with contactor leaves neither.",
        )  # fmt: skip
        return
    yield Check(
        "external_bms", name, STOP,
        Sentence(f"It {what}: nothing stops an overcharge or a deep discharge."),
        "Buy an external BMS with contactor, or set cut-offs in inverter and charger, and say so on its "
        "card.",
    )  # fmt: skip


def _heaviest(build: Build) -> Iterator[Check]:
    kg = build.of_entry("unit_kg", "Weight of one", build.bank.model.kg, "kg")
    limit = build.of_entry("lift_kg", "What one person should lift", TWO_PEOPLE_KG, "kg", "Practice.")
    hoist = build.bank.model.kg > HOIST_KG
    yield build.compare_to_limit(
        "heaviest", "Heaviest piece", kg, limit, "The heaviest piece weighs {x}.",
        "The heaviest piece weighs {x}: " + ("a hoist, or two strong people and a plank." if hoist
                                           else "two people lift it."),
        CARE if hoist else NOTE, "Lift with straight backs; where there is no room for two, take "
                                 "smaller units.",
    )  # fmt: skip
