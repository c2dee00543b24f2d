"""The comparison and the yearly cash flow as CSV."""

from collections.abc import Iterator

from vast_harbor.core.cost import cash_flow
from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.compare import Row
from vast_harbor.formats import csv_table
from vast_harbor.phrases import phrase

ITEMS = (
    cash_flow.BATTERIES,
    cash_flow.EXTRAS,
    cash_flow.OLD_BANK,
    cash_flow.REPLACEMENT,
    cash_flow.RUNNING,
    cash_flow.EXIT,
)


def _names(results: Results) -> list[str]:
    names = []
    for compared in results.compare.compared_banks:
        bank = compared.banked.bank
        assert bank is not None
        names.append(f"{bank.model.title} ({bank.series}S{bank.parallel}P)")
    return names


def comparison_csv(results: Results, style: Style) -> str:
    """The comparison: a line for each row, plain numbers in stored units, a column for each bank.

    Args:
        results: the plan in figures.
        style: the owner's currency.

    Returns:
        CSV text with a header; ``money`` in the unit is the rig's currency.
    """
    units = {"money": style.currency, "moment": phrase("report.tables.moment")}
    heading = ("group", "row", "unit", *_names(results))

    def cells(row: Row) -> Iterator[csv_table.Cell]:
        yield phrase("terms.names.headline") if row.headline else row.group
        yield row.name
        unit = row.figures[0].unit
        yield unit.replace("money", style.currency) if unit not in units else units[unit]
        for figure in row.figures:
            value = csv_table.percent(figure.value) if unit == "%" else figure.value
            yield None if value is None else float(f"{value:.6g}")

    return csv_table.write(heading, map(cells, results.compare.rows))


def cash_flow_csv(results: Results, style: Style) -> str:
    """The cash flow: a line for each bank and year, at present value; year 0 is today.

    A last line adds what the doubt adds, so that each ends at the lifetime cost.

    Args:
        results: the plan in figures.
        style: the owner's currency.

    Returns:
        CSV text with a header.
    """
    money = f"[{style.currency}]"
    heading = (
        "bank", "year", *(f"{item} {money}" for item in ITEMS), f"{phrase('report.tables.total')} {money}",
        f"{phrase('report.tables.far')} {money}",
    )  # fmt: skip

    def lines() -> Iterator[list[csv_table.Cell]]:
        for name, compared in zip(_names(results), results.compare.compared_banks, strict=True):
            so_far = 0.0
            for year, items in enumerate(cash_flow.yearly(compared.cost.payments)):
                total = sum(items.values())
                so_far += total
                amounts = [round(items.get(i, 0.0), 2) for i in ITEMS]
                yield [name, year, *amounts, round(total, 2), round(so_far, 2)]
            doubt, blank = compared.cost["doubt"].number, [None] * len(ITEMS)
            yield [name, phrase("compare.cost.doubt"), *blank, round(doubt, 2), round(so_far + doubt, 2)]

    return csv_table.write(heading, lines())
