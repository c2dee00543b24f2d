"""The comparison and the yearly cash flow as CSV."""

import csv
import io

from vast_harbor.core.cost import cash_flow
from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.formats.csv_table import safe
from vast_harbor.phrases import phrase

ITEMS = (
    cash_flow.BATTERIES,
    cash_flow.EXTRAS,
    cash_flow.OLD_BANK,
    cash_flow.REPLACEMENT,
    cash_flow.RUNNING,
    cash_flow.EXIT,
)


def _written(rows: list[list[object]]) -> str:
    out = io.StringIO()
    csv.writer(out, lineterminator="\n").writerows(rows)
    return out.getvalue()


def _names(results: Results) -> list[str]:
    names = []
    for compared in results.compare.compared_banks:
        bank = compared.banked.bank
        assert bank is not None
        names.append(safe(f"{bank.model.title} ({bank.series}S{bank.parallel}P)"))
    return names


def comparison_csv(results: Results, style: Style) -> str:
    """The comparison: a line for each row, plain numbers in stored units, a column for each bank.

    Args:
        results: the plan in figures.
        style: the owner's currency.

    Returns:
        CSV text with a header; ``money`` in the unit is the rig's currency.
    """
    rows: list[list[object]] = [["group", "row", "unit", *_names(results)]]
    for row in results.compare.rows:
        unit = row.figures[0].unit.replace("money", style.currency)
        values = ["" if f.value is None else f"{f.value:.6g}" for f in row.figures]
        rows.append([phrase("terms.names.headline") if row.headline else row.group, row.name, unit, *values])
    return _written(rows)


def cash_flow_csv(results: Results, style: Style) -> str:
    """The cash flow: a line for each bank and year, at present value; year 0 is today.

    A last line adds what the doubt adds, so that each ends at the lifetime cost.

    Args:
        results: the plan in figures.
        style: the owner's currency.

    Returns:
        CSV text with a header.
    """
    rows: list[list[object]] = [
        [
            "bank",
            "year",
            *ITEMS,
            phrase("report.tables.total", currency=style.currency),
            phrase("report.tables.far"),
        ]
    ]
    for name, compared in zip(_names(results), results.compare.compared_banks, strict=True):
        so_far = 0.0
        for year, items in enumerate(cash_flow.yearly(compared.cost.payments)):
            total = sum(items.values())
            so_far += total
            amounts = [f"{items.get(i, 0.0):.2f}" for i in ITEMS]
            rows.append([name, year, *amounts, f"{total:.2f}", f"{so_far:.2f}"])
        doubt, blank = compared.cost["doubt"].number, [""] * len(ITEMS)
        rows.append([name, phrase("compare.cost.doubt"), *blank, f"{doubt:.2f}", f"{so_far + doubt:.2f}"])
    return _written(rows)
