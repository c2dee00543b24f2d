"""Duties follow the class of the bank, its rig and what the log says was done."""

from dataclasses import replace
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.log.duties import InUse, Record, duties
from vast_harbor.core.review.bank_in_use import bank_in_use, season
from vast_harbor.core.rig.changeover import Tick
from vast_harbor.core.rig.plan import OldBank

TODAY = date(2026, 11, 28).toordinal()


NOTHING = Record()


@pytest.fixture
def bank(reference):
    """A bank of a class, in use for a year."""

    def of(key: str, **changes) -> InUse:
        return InUse(reference.classes[key], **{"since": TODAY - 365} | changes)

    return of


def by_key(bank: InUse, record: Record = NOTHING, today: int = TODAY):
    return {d.key: d for d in duties(bank, record, today)}


@pytest.mark.parametrize(
    ("key", "there", "absent"),
    [
        ("flooded_deep", {"water", "equalise"}, {"full"}),
        ("agm", {"terminals", "test"}, {"water", "equalise", "full"}),
        ("lfp", {"full", "test"}, {"water", "equalise"}),
    ],
)
def test_a_class_has_its_own_duties(bank, key, there, absent) -> None:
    found = set(by_key(bank(key)))
    assert there <= found and not absent & found
    assert ("spare" in by_key(bank(key, spare=True))) and "spare" not in found


def test_what_stands_beside_a_bank_is_looked_after(bank) -> None:
    found = by_key(bank("lfp", beside=frozenset({"generator", "mains_charger", "hook_up"})))
    assert found.keys() - by_key(bank("lfp")).keys() == {"generator", "residual_current"}
    assert found["generator"].state == "due" and "outdoors only" in found["generator"].why


def test_what_was_done_is_due_again_after_its_time(bank) -> None:
    done = Record(kinds={"water": TODAY - 10}, done={"terminals": TODAY - 200})
    found = by_key(bank("flooded_deep"), done)
    assert found["water"].due == TODAY + 20 and found["water"].state == "later"
    assert found["terminals"].state == "due" and found["terminals"].due == TODAY - 18
    # A reading of volts is not yet a look at the starting battery: that is done by name.
    read = by_key(bank("agm"), Record(kinds={"reading": TODAY}))
    assert read["starting"].last is None


def test_without_a_record_it_is_due_by_the_day_of_use_or_today(bank) -> None:
    assert by_key(bank("lfp", since=TODAY - 5))["full"].due == TODAY + 25
    assert by_key(bank("lfp", since=None))["full"].due == TODAY


def test_put_off_holds_until_its_day_and_what_is_done_ends_it(bank) -> None:
    off = Record(put_off={"terminals": TODAY + 14})
    assert by_key(bank("agm"), off)["terminals"].due == TODAY + 14
    late = by_key(bank("agm"), off, TODAY + 15)
    assert late["terminals"].state == "due"
    after = replace(off, done={"terminals": TODAY + 20})
    again = by_key(bank("agm"), after, TODAY + 30)["terminals"]
    assert again.due == TODAY + 202


def test_a_changeover_asks_for_first_looks_once(bank) -> None:
    new = bank("lfp", since=TODAY - 3, changed_over=True, mains=True, return_by=TODAY)
    found = by_key(new)
    assert found["look_day"].state == "due" and found["look_fortnight"].due == TODAY + 11
    assert found["return"].due == TODAY
    assert found["look_evening"].state == "due" and found["look_trip"].due == TODAY + 27
    assert "look_cold" not in found
    assert by_key(replace(new, cold_from=TODAY + 5))["look_cold"].due == TODAY + 5
    # Nobody goes on a trip while it is laid up.
    winter = {"laid_up_from": TODAY - 2, "used_from": TODAY + 120}
    assert by_key(replace(new, **winter))["look_trip"].due == TODAY + 150
    looked = by_key(new, Record(done={"look_day": TODAY, "return": TODAY}))
    assert not {"look_day", "return"} & set(looked)
    assert "look_fortnight" not in by_key(replace(new, mains=False))
    assert not {"look_day", "look_quarter"} & set(by_key(replace(new, changed_over=False)))


@given(days=st.integers(0, 2000), last=st.integers(0, 2000))
def test_the_later_it_was_done_the_later_it_is_due(reference, days, last) -> None:
    bank = InUse(reference.classes["flooded_deep"], since=TODAY - days)
    earlier, later = sorted((last, last // 2), reverse=True)
    due = [by_key(bank, Record(kinds={"water": TODAY - n}))["water"].due for n in (earlier, later)]
    assert due[0] <= due[1]
    found = duties(bank, Record(), TODAY)
    assert [d.due for d in found] == sorted(d.due for d in found)


def test_the_bank_in_use_is_the_old_one_until_the_new_one_runs(evaluated, reference) -> None:
    old = OldBank(reference.classes["gel"], 12, 100, 1, 2)
    results = evaluated((), old_bank=old)
    found = bank_in_use(results)
    assert found is not None and found.battery_class.key == "gel" and not found.changed_over
    assert bank_in_use(evaluated(())) is None
    record = results.plan.changeover
    ticks = {"isolated": Tick(True, "2026-11-20")}
    chosen = evaluated(
        (), old_bank=old, changeover=replace(record, chosen="lfp", ticks=ticks, return_by="2026-12-04")
    )
    found = bank_in_use(chosen)
    assert (
        found is not None
        and found.battery_class.key == "lfp"
        and found.since == date(2026, 11, 20).toordinal()
    )
    assert found.return_by == date(2026, 12, 4).toordinal()
    proved = {**ticks, "acceptance": Tick(True, "2026-11-22")}
    done = evaluated(
        (), old_bank=old, changeover=replace(record, chosen="lfp", ticks=proved, return_by="2026-12-04")
    )
    assert bank_in_use(done).return_by is None


@pytest.mark.parametrize(
    ("months", "today", "laid_up", "used"),
    [
        ((), "2026-11-28", None, None),
        ((4, 5, 6, 7, 8, 9), "2026-06-10", "2026-10-01", None),
        ((4, 5, 6, 7, 8, 9), "2026-11-28", "2026-10-01", "2027-04-01"),
        ((11, 12, 1), "2026-12-31", "2027-02-01", None),
        ((11, 12, 1), "2026-02-01", "2026-02-01", "2026-11-01"),
        (tuple(range(1, 13)), "2026-02-01", None, None),
    ],
)
def test_the_months_without_use_are_those_that_run_or_come_next(months, today, laid_up, used) -> None:
    found = [None if day is None else date.fromordinal(day).isoformat() for day in season(months, today)]
    assert found == [laid_up, used]


def test_a_bank_is_laid_up_looked_after_and_made_ready_by_its_class(bank) -> None:
    winter = {"laid_up_from": TODAY - 50, "used_from": TODAY + 70}
    lead, lfp = by_key(bank("agm", **winter)), by_key(bank("lfp", **winter))
    assert (
        lead["lay_up"].state == "due" and lead["stored"].due == TODAY - 5 and lfp["stored"].due == TODAY + 40
    )
    assert lead["ready"].due == TODAY + 56 and "50 to 80 %" in lfp["lay_up"].why
    # What its simulation says comes first where it is sooner, and what it says of a bank left connected.
    early = by_key(bank("agm", **winter, recharge_on=TODAY - 20, low_in=4))
    assert early["stored"].due == TODAY - 20 and early["lay_up"].why.endswith(
        "after 4 days by the simulation."
    )
    assert by_key(bank("agm", **winter, recharge_on=TODAY + 60))["stored"].due == TODAY - 5
    # Charged full after it was laid up, it is recharged so long after that; laid up last year does not count.
    done = Record(kinds={"full": TODAY - 10}, done={"lay_up": TODAY - 400})
    again = by_key(bank("agm", **winter), done)
    assert again["stored"].due == TODAY + 35 and again["lay_up"].due == TODAY - 50
    assert "lay_up" not in by_key(bank("agm", **winter), Record(done={"lay_up": TODAY - 60}))
    assert not {"lay_up", "stored", "ready"} & by_key(bank("agm")).keys()
    assert by_key(bank("lfp", warranty_until=TODAY + 60))["warranty"].due == TODAY
