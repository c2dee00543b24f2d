"""An offer as it was read: what is said, filled in, missing and asked; and the offers of a pasted list."""

import csv
import re
from dataclasses import dataclass
from typing import Any

LONGEST = 20_000


@dataclass(frozen=True, slots=True)
class Said:
    """One thing that a text says, or that is filled in.

    Attributes:
        field: of the battery entry.
        value: in the entry's unit.
        source: the words of the text; empty for what is filled in.
    """

    field: str
    value: Any
    source: str = ""


@dataclass(frozen=True, slots=True)
class Ask:
    """A question about a text: a figure that can hardly be true, or several of which one is meant.

    Attributes:
        field: of the battery entry.
        values: what it can be, in the entry's unit; until one is chosen none counts.
        source: the words of the text.
    """

    field: str
    values: tuple[float, ...]
    source: str


@dataclass(frozen=True, slots=True)
class Quote:
    """A battery as a text describes it.

    Attributes:
        said: what was understood.
        filled: what the text leaves open, filled with what is typical of the class.
        missing: what must be known and is in neither: the capacity.
        asks: what is to be asked before it counts.
    """

    said: tuple[Said, ...]
    filled: tuple[Said, ...]
    missing: tuple[str, ...]
    asks: tuple[Ask, ...] = ()

    @property
    def fields(self) -> dict[str, Any]:
        """The entry."""
        return {s.field: s.value for s in (*self.filled, *self.said)}


def offers_in(text: str) -> list[str]:
    """The offers of a pasted text: one, or of a list with a heading one for each line.

    Args:
        text: as pasted; a list has commas, semicolons or tabs, and at least three columns.

    Returns:
        At least one text, each to be read by :func:`read_quote`: of a list, every value beside its heading.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    delimiter = max(";\t,", key=lines[0].count) if lines else ";"
    if len(lines) < 2 or lines[0].count(delimiter) < 2 or re.search(r"\d", lines[0]):
        return [text]
    rows = [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter=delimiter)]
    heading, found = rows[0], []
    for row in rows[1:]:
        pairs = [(name, value) for name, value in zip(heading, row, strict=False) if value]
        called = [
            value
            for name, value in pairs
            if re.fullmatch(r"name|model|product|battery|article|title", name, re.I)
        ]
        pairs = [pair for pair in pairs if pair[1] not in called]
        # A number stands before its unit or after its name: both are written down.
        found.append("\n".join([*called, *(f"{value} {name}\n{name}: {value}" for name, value in pairs)]))
    return found or [text]
