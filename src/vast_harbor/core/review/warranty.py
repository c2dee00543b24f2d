"""What the maker of a bank still answers for, and whether the record would carry a claim."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from vast_harbor.core.battery.datasheet import Warranty
from vast_harbor.core.cost.cash_flow import warranty_credit
from vast_harbor.core.log.entry import CAPACITY_TEST, RECEIPT
from vast_harbor.core.rig.changeover import Purchase

FULL, PRO_RATA, OVER, NONE, UNKNOWN = "full", "pro_rata", "over", "none", "unknown"
YEAR_D, TEST_DAYS = 365.25, 400
# What a maker asks for: the receipt, serial numbers, the day of installation, the acceptance test, a capacity
# test that is not old, photographs, care on time.
PAPER, SERIALS, INSTALLED, PROVED, TESTED, PICTURES, KEPT_UP = (
    "receipt", "serials", "installed", "proved", "tested", "pictures", "kept_up",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Claim:
    """The warranty of a bank today.

    Attributes:
        state: ``full``, ``pro_rata``, ``over``, ``none``, or ``unknown`` without a day of installation.
        until: counted day on which it ends; None where there is none.
        share: of its price that the maker gives for it now [-].
        record: what a claim needs → whether the record holds it.
    """

    state: str
    until: int | None
    share: float
    record: Mapping[str, bool]


def claim(
    warranty: Warranty,
    since: int | None,
    today: int,
    purchase: Purchase,
    proved: bool,
    kinds: Mapping[str, int],
    pictures: int,
    overdue: Collection[str],
) -> Claim:
    """What the maker still answers for.

    Args:
        warranty: of the model.
        since, today: counted days; None where it is not known since when it serves.
        purchase: what was noted when it was bought.
        proved: whether its acceptance test was done.
        kinds: kind of entry → counted day of the last one about it.
        pictures: how many there are of the work and of the log.
        overdue: duties of care that are due.
    """
    tested = kinds.get(CAPACITY_TEST)
    record = {
        PAPER: RECEIPT in kinds or bool(purchase.on and purchase.paid),
        SERIALS: bool(purchase.serial.strip()),
        INSTALLED: since is not None,
        PROVED: proved,
        TESTED: tested is not None and today - tested <= TEST_DAYS,
        PICTURES: pictures > 0,
        KEPT_UP: not overdue,
    }
    if not warranty.years:
        return Claim(NONE, None, 0.0, record)
    if since is None:
        return Claim(UNKNOWN, None, 0.0, record)
    age, until = (today - since) / YEAR_D, since + round(YEAR_D * warranty.years)
    share = float(warranty_credit(age, warranty.years, warranty.full_years))
    if today > until:
        return Claim(OVER, until, 0.0, record)
    return Claim(FULL if age <= warranty.full_years else PRO_RATA, until, share, record)
