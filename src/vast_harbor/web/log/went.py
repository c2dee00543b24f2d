"""What the bank in use went through, by the monitor that the database holds."""

from vast_harbor.core.log.entry import PRESENT
from vast_harbor.core.log.readings import Hours
from vast_harbor.core.passage import Results
from vast_harbor.core.review.so_far import SoFar, so_far
from vast_harbor.formats.monitor_rows import hours_of
from vast_harbor.store import monitor
from vast_harbor.web.base.database import database
from vast_harbor.web.log.health import EPOCH, LoggedHealth


def went_so_far(rig_id: int, results: Results, health: LoggedHealth) -> tuple[Hours, SoFar] | None:
    """What its monitor counted since it was fitted, and what it went through; None where its age is unknown.

    Args:
        rig_id, results: the rig, and its plan in figures.
        health: what the log says of its health.
    """
    bank = health.bank
    if bank is None or bank.since is None or health.health is None:
        return None
    with database().reading() as db:
        hours = hours_of(monitor.hours(db, rig_id, PRESENT, (bank.since - EPOCH) * 24))
    return hours, so_far(bank, hours, health.now, results.plan.off_grid_nights * results.day.bank_wh.number)
