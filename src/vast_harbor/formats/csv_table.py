"""CSV files as people have them: comma or semicolon, UTF-8 or UTF-16, safe to open in a spreadsheet."""

import csv
import io
import re
import unicodedata
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from vast_harbor.formats.door import clean
from vast_harbor.phrases import and_list, phrase

YES, NO = "yes", "no"
TRUTHS = {
    "yes": True,
    "y": True,
    "true": True,
    "1": True,
    "no": False,
    "n": False,
    "false": False,
    "0": False,
}
BOM = "\ufeff"
Cell = str | float | None
NUMBER = re.compile(r"-?\d+(\.\d+)?")
# A spreadsheet would take a cell that begins so for a formula.
FORMULA = ("=", "+", "-", "@", "\t", "\r")


NO_WORDS: Mapping[str, str] = {}


class CsvError(ValueError):
    """The file as a whole cannot be taken; the message is for the owner."""


@dataclass(frozen=True, slots=True)
class Table:
    """A file's heading and its lines of cells.

    Attributes:
        heading: the columns, by their names here where they are known.
        named: what the file calls them.
        lines: (number in the file, cells), the heading being line 1.
    """

    heading: list[str]
    named: list[str]
    lines: list[tuple[int, list[str]]]


def write(heading: Sequence[str], rows: Iterable[Iterable[Cell]]) -> str:
    """A table as every one leaves the program: RFC 4180 in UTF-8, by one rule for all.

    Args:
        heading: names of the columns; a unit stands in brackets, ``volts [V]``.
        rows: cells; a number is written with a point, what is not known is empty, yes and no are words, and
            no text is taken for a formula by a spreadsheet.

    Returns:
        Text with a byte order mark, by which spreadsheets know UTF-8 and which other readers leave out;
        commas and CRLF line ends.
    """
    out = io.StringIO()
    out.write(BOM)
    table = csv.writer(out)
    table.writerow(map(safe, heading))
    table.writerows(map(_cell, row) for row in rows)
    return out.getvalue()


def _cell(value: Cell) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return YES if value else NO
    if isinstance(value, str):
        # A number that came as text is one, also below nought.
        return value if NUMBER.fullmatch(value) else safe(value)
    return f"{value:.10g}"


def percent(share: float | None) -> float | None:
    """A share as a table has it under ``[%]``: 100 is all of it."""
    return None if share is None else 100 * share


def safe(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if _is_formula(cell) else cell


def plain(cell: str) -> str:
    """A cell as it was before :func:`safe`; a foreign formula is only words here."""
    cell = cell.strip()
    return cell[1:] if cell.startswith("'") and _is_formula(cell[1:]) else cell


def _is_formula(cell: str) -> bool:
    """Whether a spreadsheet could take a cell for a formula: full-width signs and the like count, too."""
    return cell.startswith(FORMULA) or unicodedata.normalize("NFKC", cell.lstrip()[:1]) in FORMULA


def rows_of(lines: Iterable[str], delimiter: str) -> Iterator[list[str]]:
    """The rows of a table of separated values; raises :class:`CsvError` where it is none."""
    try:
        yield from csv.reader(lines, delimiter=delimiter)
    except csv.Error as error:
        if "limit" in str(error):
            raise CsvError(phrase("files.csv_table.cell_too_long")) from error
        raise CsvError(phrase("files.csv_table.file_csv", error=error)) from error


def read(
    data: bytes,
    columns: Sequence[str],
    needed: Sequence[str],
    most: int,
    what: str,
    words: Mapping[str, str] = NO_WORDS,
) -> Table:
    """Heading and lines of a file; nothing is read of a line yet.

    Args:
        data: content of the file.
        columns, needed: columns that are known, and those that must be there.
        most: most lines taken.
        what: what a line is, for the sentence when there are more, with ``{n}`` and ``{most}``.
        words: other headings → column.

    Returns:
        The table.

    Raises:
        CsvError: no text, no heading, needed columns missing, or too many lines.
    """
    text = clean(_decode(data))
    first = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    table = rows_of(io.StringIO(text, newline=""), delimiter)
    lines = [line for line in table if any(cell.strip() for cell in line)]
    if not lines:
        raise CsvError(phrase("files.csv_table.file_empty"))
    named = [cell.strip() for cell in lines[0]]
    heading = _known(named, columns, words)
    if missing := [c for c in needed if c not in heading]:
        raise CsvError(
            phrase(
                "files.csv_table.heading_column_columns_required",
                missing=and_list(missing),
                columns=", ".join(columns),
                needed=", ".join(needed[:-1]),
                needed_2=needed[-1],
            )
        )
    if len(lines) - 1 > most:
        raise CsvError(what.format(n=len(lines) - 1, most=most))
    return Table(heading, named, list(enumerate(lines[1:], 2)))


def _known(named: Sequence[str], columns: Sequence[str], words: Mapping[str, str]) -> list[str]:
    """The columns that a heading means, each at most once; what is not known stays as it is written."""
    out: list[str] = []
    for name in named:
        plain_name = name.lower()
        bare = re.sub(r"[^a-z0-9/]+", " ", re.sub(r"[(\[].*?[)\]]", " ", plain_name)).strip()
        meant = plain_name if plain_name in columns else words.get(bare, plain_name)
        out.append(plain_name if meant in out else meant)
    return out


def _decode(data: bytes) -> str:
    if b"\x00" in data[:4096] and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise CsvError(phrase("files.csv_table.file_text_save_csv"))
    encoding = "utf-16" if data.startswith((b"\xff\xfe", b"\xfe\xff")) else "utf-8-sig"
    try:
        return data.decode(encoding)
    except UnicodeDecodeError:
        # What western spreadsheets write where they do not write UTF-8; any byte is a sign in it.
        return data.decode("cp1252", errors="replace")


def cells_of(table: Table, cells: list[str], columns: Sequence[str]) -> dict[str, str]:
    """The cells of a line that are known and not empty, by column."""
    return {
        c: plain(v) for c, v in zip(table.heading, cells, strict=False) if c in columns and v.strip()
    }  # fmt: skip


def reason(error: dict[str, object]) -> str:
    """Why a field of a line was refused, as one sentence with the column before it."""
    loc = error["loc"]
    field = str(loc[0]) if isinstance(loc, tuple) and loc else "line"
    ctx = error.get("ctx")
    message = ctx["error"] if error["type"] == "value_error" and isinstance(ctx, dict) else error["msg"]
    return f"{field}: {message}"
