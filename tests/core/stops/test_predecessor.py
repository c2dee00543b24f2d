"""What the life of the old bank says of the next one of its class."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.predecessor import weigh
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import Candidate, OldBank

LAMP = Load("lamp", "Lamp", DC, Draw(20, "W"), 12, hours=24)
BANKS = (Candidate("a", "agm", "tarnmoor-100", 1, 2), Candidate("l", "lfp", "ostrel-200", 1, 1))


def test_a_bank_that_aged_faster_than_its_class_by_hand() -> None:
    # 60 % left: wear 1 + (2 − 1)/3 = 1.333 where 1 was expected. σ of the class 0.3575, of the
    # bank √(0.1² + 0.3²) = 0.3162: trust 0.1278/(0.1278 + 0.1) = 0.561; 1/(1 + 0.561 · 0.333) = 0.8424.
    seen = weigh(1.0, 0.6, 0.02, 0.0, True, 10 / 4)
    assert seen.worn == pytest.approx(4 / 3) and seen.trust == pytest.approx(0.561, abs=1e-3)
    assert seen.factor() == pytest.approx(0.8424, abs=1e-4) and seen.factor(0.0) == 1
    assert weigh(1.0, 0.8, 0.02, 0.0, True, 2.5).factor() == pytest.approx(1)


@given(
    st.floats(0.2, 3), st.floats(0.1, 1.0), st.floats(0.0, 0.3), st.floats(0.01, 0.3), st.floats(0, 1),
    st.booleans(),
)  # fmt: skip
def test_worse_evidence_never_speaks_for_a_longer_life(expected, health, worse, doubt, wear, lead) -> None:
    here = weigh(expected, health, doubt, wear, lead, 2.5)
    assert weigh(expected, health - worse, doubt, wear, lead, 2.5).factor() <= here.factor() + 1e-12
    # More of it explained by accidents never shortens the life; doubt draws it towards the usual one.
    assert weigh(expected, health, doubt, wear + 0.2, lead, 2.5).factor() >= here.factor() - 1e-12
    vague = weigh(expected, health, doubt * 2, wear, lead, 2.5)
    assert abs(vague.factor() - 1) <= abs(here.factor() - 1) + 1e-12


def test_the_old_bank_moves_the_life_of_its_own_class(evaluated, reference) -> None:
    agm = reference.classes["agm"]

    def lives(overrides=None, **known):
        old = OldBank(agm, 12, 100, 1, 2, **known) if known else None
        results = evaluated((LAMP,), candidates=BANKS, old_bank=old, overrides=overrides or {})
        told = any(f.code == "predecessor" for f in results.banks.findings)
        return [c.life.years for c in results.compare.compared_banks], told

    # Down in four hours at 20 A after two years: it gives some 85 Ah of 200.
    test = {"test_a": 20.0, "test_minutes": 240.0}
    plain, nothing = lives()
    early, told = lives(age_years=2, **test)
    assert told and not nothing and early[0] < 0.85 * plain[0] and early[1] == plain[1]
    assert lives(age_years=1, **test)[0][0] < early[0]
    # The owner sets it aside; an accident that he knows of explains a part.
    assert lives({"predecessor_share": 0.0}, age_years=2, **test) == (plain, False)
    assert early[0] < lives(age_years=2, left_empty=2, **test)[0][0] < plain[0]
    # Its age alone says nothing, nor one that was never filled.
    assert lives(age_years=2)[0] == plain
    assert lives(age_years=2, rested_v=12.2, rested_hours=12, **test)[0] == plain
