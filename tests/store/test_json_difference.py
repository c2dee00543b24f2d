"""The way from one document to another: it leads there, and is no longer than it must be."""

import copy

import jsonpatch
import jsonpointer
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.store.json_difference import difference
from vast_harbor.store.rigs import patched

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


@given(DOCUMENTS, DOCUMENTS, st.booleans())
def test_a_patched_document_leaves_the_one_before_as_it_was(before, after, moves) -> None:
    was = copy.deepcopy(before)
    patch = difference(before, after, moves=moves)
    kept = copy.deepcopy(patch)
    assert patched(before, patch) == after
    assert before == was and patch == kept


def test_what_is_changed_after_it_was_put_in_changes_neither_the_patch_nor_another_row() -> None:
    rows = [{"on": {"usual": {"hours": i}}} for i in range(4)]
    new = {"on": {"usual": {"hours": 9}}}
    operations = [
        {"op": "remove", "path": "/rows/0"},
        {"op": "replace", "path": "/rows/0/on/usual/hours", "value": 5},
        {"op": "add", "path": "/rows/-", "value": new},
        {"op": "replace", "path": "/rows/3/on/usual/hours", "value": 7},
        {"op": "move", "from": "/rows/1", "path": "/rows/0"},
    ]
    changed = patched({"rows": rows}, operations)
    assert [r["on"]["usual"]["hours"] for r in changed["rows"]] == [2, 5, 3, 7]
    assert [r["on"]["usual"]["hours"] for r in rows] == [0, 1, 2, 3] and new["on"]["usual"]["hours"] == 9
    assert changed["rows"][2] is rows[3]


@pytest.mark.parametrize(
    "operation",
    [
        {"op": "replace", "path": "/rows/7/w", "value": 1},
        {"op": "remove", "path": "/rows/x"},
        {"op": "replace", "path": "/name/first", "value": 1},
        {"op": "add", "path": "/nothing/here", "value": 1},
        {"op": "move", "from": "/rows/4", "path": "/rows/0"},
    ],
)
def test_a_patch_that_does_not_fit_is_refused_and_changes_nothing(operation) -> None:
    document = {"rows": [{"w": 1}], "name": "Wren"}
    with pytest.raises((jsonpatch.JsonPatchException, jsonpointer.JsonPointerException)):
        patched(document, [{"op": "replace", "path": "/rows/0/w", "value": 2}, operation])
    assert document == {"rows": [{"w": 1}], "name": "Wren"}
