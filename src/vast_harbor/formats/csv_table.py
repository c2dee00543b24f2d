"""CSV files as people have them: comma or semicolon, UTF-8 or UTF-16, safe to open in a spreadsheet."""

import csv
import io
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from vast_harbor.formats.door import clean
from vast_harbor.phrases import phrase

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
# A spreadsheet would take a cell that begins so for a formula.
FORMULA = ("=", "+", "-", "@", "\t", "\r")


class CsvError(ValueError):
    """The file as a whole cannot be taken; the message is for the owner."""


@dataclass(frozen=True, slots=True)
class Table:
    """A file's heading and its lines of cells.

    Attributes:
        heading: names of the columns, in small letters.
        lines: (number in the file, cells), the heading being line 1.
    """

    heading: list[str]
    lines: list[tuple[int, list[str]]]


def write(columns: Sequence[str], rows: Iterable[dict[str, str]]) -> str:
    """Rows as CSV that is safe to open in a spreadsheet.

    Args:
        columns: the heading.
        rows: cells by column.

    Returns:
        Text with commas, points and CRLF line ends.
    """
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(columns)
    for row in rows:
        table.writerow([safe(row.get(name, "")) for name in columns])
    return out.getvalue()


def safe(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if cell.startswith(FORMULA) else cell


def plain(cell: str) -> str:
    """A cell as it was before :func:`safe`; a foreign formula is only words here."""
    cell = cell.strip()
    return cell[1:] if cell.startswith("'") and cell[1:2] in FORMULA else cell


def read(data: bytes, columns: Sequence[str], needed: Sequence[str], most: int, what: str) -> Table:
    """Heading and lines of a file; nothing is read of a line yet.

    Args:
        data: content of the file.
        columns, needed: columns that are known, and those that must be there.
        most: most lines taken.
        what: what a line is, for the sentence when there are more, with ``{n}`` and ``{most}``.

    Returns:
        The table.

    Raises:
        CsvError: no text, no heading, needed columns missing, or too many lines.
    """
    text = clean(_decode(data))
    first = text.split("\n", 1)[0]
    table = csv.reader(
        io.StringIO(text, newline=""), delimiter=";" if first.count(";") > first.count(",") else ","
    )
    try:
        lines = [line for line in table if any(cell.strip() for cell in line)]
    except csv.Error as error:
        raise CsvError(phrase("files.csv_table.file_csv", error=error)) from error
    if not lines:
        raise CsvError(phrase("files.csv_table.file_empty"))
    heading = [cell.strip().lower() for cell in lines[0]]
    if missing := [c for c in needed if c not in heading]:
        raise CsvError(
            phrase(
                "files.csv_table.heading_column_columns_required",
                missing=" and ".join(missing),
                columns=", ".join(columns),
                needed=", ".join(needed[:-1]),
                needed_2=needed[-1],
            )
        )
    if len(lines) - 1 > most:
        raise CsvError(what.format(n=len(lines) - 1, most=most))
    return Table(heading, list(enumerate(lines[1:], 2)))


def _decode(data: bytes) -> str:
    if b"\x00" in data[:4096] and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise CsvError(phrase("files.csv_table.file_text_save_csv"))
    encoding = "utf-16" if data.startswith((b"\xff\xfe", b"\xfe\xff")) else "utf-8-sig"
    try:
        return data.decode(encoding)
    except UnicodeDecodeError as error:
        raise CsvError(phrase("files.csv_table.file_utf_8_names")) from error


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
