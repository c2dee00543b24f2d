"""The JSON Patch (RFC 6902) that leads from one document to another."""

from typing import Any

import jsonpatch
import jsonpointer


def difference(before: Any, after: Any, at: str = "") -> list[dict[str, Any]]:
    """JSON Patch from one document to another.

    Parts that are the same are passed over whole, so that an edit of one field costs next to nothing; only a
    list that grew or shrank is compared entry by entry.
    """
    if before == after:
        return []
    if isinstance(before, dict) and isinstance(after, dict):
        found: list[dict[str, Any]] = []
        for key in before.keys() | after.keys():
            path = f"{at}/{jsonpointer.escape(key)}"
            if key not in after:
                found.append({"op": "remove", "path": path})
            elif key not in before:
                found.append({"op": "add", "path": path, "value": after[key]})
            else:
                found += difference(before[key], after[key], path)
        return found
    if isinstance(before, list) and isinstance(after, list):
        if len(before) == len(after):
            pairs = enumerate(zip(before, after, strict=True))
            return [o for i, (old, new) in pairs for o in difference(old, new, f"{at}/{i}")]
        inside: list[dict[str, Any]] = jsonpatch.make_patch(before, after).patch
        return [o | {k: at + o[k] for k in ("path", "from") if k in o} for o in inside]
    return [{"op": "replace", "path": at, "value": after}]
