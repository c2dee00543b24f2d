"""The bank in use: what it went through, gave and cost so far."""

from dataclasses import dataclass, field

import numpy as np

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.duties import DUE
from vast_harbor.core.log.entry import PRESENT, RECEIPT, Entry
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import PROVED, bank_in_use, duties_of
from vast_harbor.core.review.charging import Panels, panels
from vast_harbor.core.review.so_far import SoFar, Spent, spent
from vast_harbor.core.review.warranty import Claim, claim
from vast_harbor.core.rig.changeover import Purchase
from vast_harbor.core.stops.charging import clear_sky_amps
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.store import log, pictures
from vast_harbor.store.log import last_days
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.log.health import EPOCH, LoggedHealth, logged_health
from vast_harbor.web.log.went import went_so_far
from vast_harbor.web.state.evaluated import evaluated_results

# Duties that a maker asks for.
UPKEEP = ("water", "equalise", "full", "recharge", "look_stored")


@dataclass(frozen=True, slots=True)
class BankSoFar:
    """What is known of the bank in use; what the log does not tell is None or empty.

    Attributes:
        rig_file, results, style: the rig, its plan in figures, and the owner's units.
        today: ordinal of the day.
        health: by the log.
        went: what it went through.
        panels: what the panels gave against a clear sky.
        entries: those about it since it is in use.
        cost: what it cost; None where it was not bought by this plan.
        claim: how a claim under warranty stands; None likewise.
        purchase: where and when it was bought.
    """

    rig_file: RigFile
    results: Results
    style: Style
    today: int
    health: LoggedHealth
    went: SoFar | None = None
    panels: Panels | None = None
    entries: tuple[Entry, ...] = ()
    cost: Spent | None = None
    claim: Claim | None = None
    purchase: Purchase = field(default_factory=Purchase)

    @property
    def bought(self) -> bool:
        """Whether the bank was bought by this plan."""
        return self.claim is not None


def bank_so_far(rig_id: int) -> BankSoFar:
    """The bank in use of a rig: as much as its log, its monitor and its changeover tell."""
    today = counted_today()
    rig_file, plan, results = evaluated_results(rig_id)
    health = logged_health(rig_id, results, today)
    begin = BankSoFar(rig_file, results, rig_file.style, today, health)
    if health.bank is None or health.bank.since is None or health.health is None:
        return begin
    began = (health.bank.since - EPOCH) * 24
    in_use = bank_in_use(results)
    counted = went_so_far(rig_id, results, health)
    assert counted is not None
    hours, went = counted
    with database().reading() as db:
        entries = tuple(
            Entry(**row)
            for row in log.each(db, rig_id)
            if row["bank"] == PRESENT and row["at"] + 60 * row["offset_min"] >= began * 3600
        )
        last, shown = last_days(db, rig_id), len(pictures.listed(db, rig_id))
    timeline, system_v = results.simulated.trial.timeline, plan.system_v
    so_far_of_day = np.interp(np.arange(25), results.day.profile.edges_h, results.day.profile.energy_so_far())
    gave = panels(hours, clear_sky_amps(timeline), np.diff(so_far_of_day) / system_v)
    if in_use is None or not in_use.changed_over or results.changeover is None:
        return BankSoFar(rig_file, results, begin.style, today, health, went, gave, entries)
    made = results.changeover
    compared, model = made.work.compared, made.work.build.bank.model
    paid = made.shopping.spent.number or compared.cost["outlay"].number
    logged = sum(e.price or 0.0 for e in entries if e.kind != RECEIPT)
    cost = spent(
        paid, logged, went, compared.life["cycles_per_year"].number, results.day.bank_wh.number,
        plan.off_grid_nights,
    )  # fmt: skip
    purchase = next((line.purchase for line in made.shopping.lines if line.key == "batteries"), Purchase())
    overdue = [d.key for d in duties_of(results, last, today) if d.state == DUE and d.key in UPKEEP]
    held = claim(
        model.warranty, in_use.since, today, purchase, plan.changeover.tick(PROVED).done, last.kinds, shown,
        overdue,
    )  # fmt: skip
    return BankSoFar(rig_file, results, begin.style, today, health, went, gave, entries, cost, held, purchase)
