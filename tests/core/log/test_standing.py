"""Self-discharge by volts at rest: what surely is too much is told, what may be as usual is not."""

import pytest

from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.log.entry import CHARGE, NOTE, READING, Entry
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.health import Expected
from vast_harbor.core.log.standing import standing

# The first of December 2026; idle from November to March.
AT, DAY, WINTER = 1_796_083_200, 86_400, (11, 12, 1, 2, 3)


@pytest.fixture
def bank(reference):
    """A 12 V bank of a class."""

    def of(key: str) -> FollowedBank:
        cells = 6 if reference.classes[key].is_lead_acid else 4
        expected = Expected(0.1, 0.3, 0.7, True)
        return FollowedBank("Bank", reference.classes[key], cells, 200.0, 20.0, (1.1, 1.15, 1.2), 1, expected)

    return of


def stood(bank: FollowedBank, days: int, lost: float, begin: int = AT, **more) -> list[Entry]:
    """A bank that is read full and again after some days."""
    first, last = (float(rested_volts(bank.battery_class, 12, soc)) for soc in (1.0, 1.0 - lost))
    return [
        Entry("a", begin, READING, volts=round(first, 2), rested=True, celsius=8.0),
        Entry("b", begin + days * DAY, READING, volts=round(last, 2), rested=True, celsius=8.0, **more),
    ]


@pytest.mark.parametrize("key", ["flooded_deep", "agm", "gel"])
@pytest.mark.parametrize("days", [30, 60, 100])
def test_a_drain_is_told_and_what_its_class_loses_is_not(bank, key, days) -> None:
    of = bank(key)
    usual = of.battery_class.self_discharge * 2 ** (-12 / 10)
    quiet = standing(of, stood(of, days, usual * days / 30.42), WINTER, 1.0)
    assert quiet is not None and not quiet.much and quiet.low <= usual <= quiet.high
    drained = standing(of, stood(of, days, min(0.8, days / 60)), WINTER, 1.0)
    assert drained is not None and drained.much and drained.days == days
    assert drained.usual == pytest.approx(usual)
    # A worn bank loses twice as much by itself.
    worn = standing(of, stood(of, days, 0.1), WINTER, 0.7)
    assert worn is not None and worn.usual == pytest.approx(2 * usual)


def test_what_is_used_charged_or_short_tells_nothing(bank) -> None:
    of = bank("agm")
    assert standing(of, stood(of, 10, 0.5), WINTER, 1.0) is None
    # In the season it may have been used and charged meanwhile.
    assert standing(of, stood(of, 60, 0.5, begin=AT + 150 * DAY), WINTER, 1.0) is None
    assert standing(of, stood(of, 60, 0.5), (), 1.0) is None
    first, last = stood(of, 60, 0.5)
    charged = Entry("c", AT + 20 * DAY, CHARGE, amps=10, hours=3)
    assert standing(of, [first, charged, last], WINTER, 1.0) is None
    noted = Entry("n", AT + 20 * DAY, NOTE, text="looked after it")
    assert standing(of, [first, noted, last], WINTER, 1.0) is not None
    assert standing(of, stood(of, 60, 0.5, amps=-8.0), WINTER, 1.0) is None
    assert standing(bank("lfp"), stood(bank("lfp"), 60, 0.5), WINTER, 1.0) is None
