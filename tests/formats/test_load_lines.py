"""A load in one line, as the day lists it."""

import pytest

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import AC, DC, STANDBY, TIMES, USES, Load
from vast_harbor.telling.loads import load_text


@pytest.mark.parametrize(
    ("load", "says"),
    [
        (Load("a", "Fridge", DC, Draw(55, "W"), 12, hours=24, duty=0.57), "55 W DC · all day at 57 %"),
        (Load("b", "Fan", DC, Draw(12, "W"), 12, quantity=2, hours=7, starts_at=21.5),
         "2 × 12 W DC · 7 h a day, from 21:30"),
        (Load("c", "Plate", AC, Draw(4.5, "A"), 230, use=USES, uses=3, minutes=14, duty=0.65, starts_at=7),
         "4.5 A AC · 3 × 14 min a day at 65 %, from 07:00"),
        (Load("d", "Television", DC, Draw(24, "W"), 12, use=TIMES, windows=((6, 7.5), (22, 25)), starts_at=3),
         "24 W DC · 06:00–07:30, 22:00–01:00"),
        (Load("e", "Alarm", DC, Draw(0.3, "W"), 12, use=STANDBY), "0.3 W DC · all day"),
    ],
)  # fmt: skip
def test_what_a_load_draws_and_when(load, says) -> None:
    assert load_text(load, Style()) == says


def test_numbers_are_written_as_their_owner_does() -> None:
    load = Load("f", "Pump", DC, Draw(1250, "W"), 12, quantity=1.5, hours=0.5)
    assert load_text(load, Style(locale="de-DE")) == "1,5 × 1.250 W DC · 0,5 h a day"
