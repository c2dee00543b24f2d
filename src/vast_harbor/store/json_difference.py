"""The JSON Patch (RFC 6902) that leads from one document to another."""

from typing import Any

import jsonpatch
import jsonpointer


def difference(before: Any, after: Any, at: str = "", moves: bool = True) -> list[dict[str, Any]]:
    """JSON Patch from one document to another.

    Parts that are the same are passed over whole, so that an edit of one field costs next to nothing; only a
    list that grew or shrank is compared entry by entry.

    Args:
        before, after: plain data.
        at: JSON pointer of both.
        moves: whether entries of a list may be moved; without, what is left over at its end is added or
            removed there.

    Returns:
        Operations.
    """
    if isinstance(before, dict) and isinstance(after, dict):
        found: list[dict[str, Any]] = []
        for key, value in after.items():
            if key in before and before[key] == value:
                continue
            path = f"{at}/{jsonpointer.escape(key)}"
            if key in before:
                found += difference(before[key], value, path, moves)
            else:
                found.append({"op": "add", "path": path, "value": value})
        gone = before.keys() - after.keys()
        return found + [{"op": "remove", "path": f"{at}/{jsonpointer.escape(key)}"} for key in gone]
    if isinstance(before, list) and isinstance(after, list):
        if moves and len(before) != len(after):
            inside: list[dict[str, Any]] = jsonpatch.make_patch(before, after).patch
            return [o | {k: at + o[k] for k in ("path", "from") if k in o} for o in inside]
        found = []
        for i, (old, new) in enumerate(zip(before, after, strict=False)):
            if old != new:
                found += difference(old, new, f"{at}/{i}", moves)
        found += [{"op": "add", "path": f"{at}/-", "value": new} for new in after[len(before) :]]
        return found + [
            {"op": "remove", "path": f"{at}/{i}"} for i in reversed(range(len(after), len(before)))
        ]
    return [] if before == after else [{"op": "replace", "path": at, "value": after}]
