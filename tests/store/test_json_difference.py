"""The way from one document to another: it leads there, and is no longer than it must be."""

import copy

import jsonpatch
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.store.json_difference import difference

KEYS = st.text("ab/~0", min_size=1, max_size=3)
PLAIN = st.recursive(
    st.none() | st.integers(2, 9) | st.text("xyz", max_size=3),
    lambda inside: st.lists(inside, max_size=4) | st.dictionaries(KEYS, inside, max_size=4),
    max_leaves=20,
)
DOCUMENTS = st.dictionaries(KEYS, PLAIN, max_size=5)


@given(DOCUMENTS, DOCUMENTS, st.booleans())
def test_it_leads_from_one_document_to_the_other(before, after, moves) -> None:
    was, will = copy.deepcopy(before), copy.deepcopy(after)
    patch = difference(before, after, moves=moves)
    assert jsonpatch.apply_patch(before, patch) == after
    assert (before, after) == (was, will), "neither document is touched"
    assert (patch == []) is (before == after)


@given(DOCUMENTS, st.booleans())
def test_it_leads_back_again(document, moves) -> None:
    other = {**document, "rows": [{"id": "a", "w": 5}, {"id": "b", "w": 6}], "a/b~c": "x"}
    there, back = difference(document, other, moves=moves), difference(other, document, moves=moves)
    assert jsonpatch.apply_patch(jsonpatch.apply_patch(document, there), back) == document


def test_one_number_among_many_rows_is_one_operation() -> None:
    rows = [{"id": f"r{i}", "w": i, "on": {"usual": {"hours": 2}}} for i in range(300)]
    after = copy.deepcopy(rows)
    after[217]["on"]["usual"]["hours"] = 3
    assert difference({"rows": rows}, {"rows": after}) == [
        {"op": "replace", "path": "/rows/217/on/usual/hours", "value": 3}
    ]


@pytest.mark.parametrize(("gone", "operations"), [(0, 1), (150, 1), (299, 1)])
def test_a_row_that_goes_is_one_operation_where_rows_may_move(gone, operations) -> None:
    rows = [{"id": f"r{i}", "w": i} for i in range(300)]
    after = rows[:gone] + rows[gone + 1 :]
    patch = difference({"rows": rows}, {"rows": after})
    assert len(patch) == operations and patch[0] == {"op": "remove", "path": f"/rows/{gone}"}
