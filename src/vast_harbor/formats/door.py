"""The door through which all data come in, be they typed, sent, or read from a file."""

import re
from typing import Any

from vast_harbor.formats.problem import Problem, RigFileError
from vast_harbor.phrases import phrase

# Deeper, longer and larger than anything that is a rig.
DEEPEST, MOST_VALUES, LARGEST_NUMBER = 40, 100_000, 1e15
# Characters that nobody types: controls but tab and line ends, and those that turn the reading direction over
# what follows; left-to-right and right-to-left marks stay.
_UNSEEN = re.compile(
    "[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u200b\u2060\ufeff\u202a-\u202e\u2066-\u2069\ufff9-\ufffb]"
)
# A name is one line, whatever it was pasted from.
NAMES = frozenset({"name", "maker"})
_BREAKS = re.compile(r"\s*[\t\n\r\u2028\u2029]\s*")
# Half a character, which no file can hold.
_BROKEN = re.compile("[\ud800-\udfff]")


def clean(text: str) -> str:
    """A text without characters that nobody sees and that could hide what it says; a broken one is marked."""
    return _BROKEN.sub("\ufffd", _UNSEEN.sub("", text))


def admitted(value: Any, path: str = "") -> Any:
    """Plain data as they may come in.

    Args:
        value: as parsed from JSON.
        path: JSON pointer to it, for what is said.

    Returns:
        The same, with its texts clean.

    Raises:
        RigFileError: nested too deep, too much of it, or a number that is none or far too large.
    """
    left = [MOST_VALUES]
    return _admitted(value, path, DEEPEST, left)


def _admitted(value: Any, path: str, depth: int, left: list[int]) -> Any:
    left[0] -= 1
    if left[0] < 0:
        raise _refused(path, phrase("files.door.far_entries_rig"))
    if isinstance(value, str):
        text = clean(value)
        return _BREAKS.sub(" ", text) if path.rpartition("/")[2] in NAMES else text
    if isinstance(value, dict | list) and depth == 0:
        raise _refused(path, phrase("files.door.data_nested_deeply_rig"))
    if isinstance(value, dict):
        return {clean(k): _admitted(v, f"{path}/{clean(k)}", depth - 1, left) for k, v in value.items()}
    if isinstance(value, list):
        return [_admitted(v, f"{path}/{i}", depth - 1, left) for i, v in enumerate(value)]
    if isinstance(value, int | float) and not isinstance(value, bool):
        if value != value:
            raise _refused(path, phrase("files.door.number"))
        if abs(value) > LARGEST_NUMBER:
            raise _refused(path, phrase("files.door.number_far_too_large"))
    return value


def _refused(path: str, message: str) -> RigFileError:
    return RigFileError([Problem(path[:300], message)])
