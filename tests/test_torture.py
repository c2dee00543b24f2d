"""The short form of ``make torture``: kills, a full disk, a lock, restore, mutants and many steps."""

import pytest
import torture

from sampled import sampled


@pytest.mark.parametrize("name", sampled(torture.SHORT, "kills", "mutants"))
def test_what_is_promised_holds(name: str) -> None:
    told = torture.SHORT[name]()
    assert told.kept, told.line
