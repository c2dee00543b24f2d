"""Banks in words."""

from vast_harbor.core.battery.bank import Bank
from vast_harbor.phrases import phrase


def layout(bank: Bank) -> str:
    """A layout in words: ``2 in series × 3``."""
    if bank.units == 1:
        return phrase("answers.compare_views.n1_battery")
    if bank.series == 1:
        return phrase("answers.compare_views.parallel", parallel=bank.parallel)
    if bank.parallel == 1:
        return phrase("answers.compare_views.series", series=bank.series)
    return phrase("answers.compare_views.series_parallel", series=bank.series, parallel=bank.parallel)
