"""The short form of ``make torture``: kills, a full disk, a lock, restore, mutants and many steps."""

import pytest
import torture


@pytest.mark.parametrize("name", torture.SHORT)
def test_what_is_promised_holds(name: str) -> None:
    told = torture.SHORT[name]()
    assert told.kept, told.line
