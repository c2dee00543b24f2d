"""The least that is safe, the sensible, and the full package of each candidate."""

from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.workings import REFERENCE, Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.improvement_rows import NEEDED, WANTED
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks import NEED, QuickLifeCost, quick_life_cost
from vast_harbor.core.stops.compare import ADVISED, COUNTED, ComparedBank, RequiredExtra
from vast_harbor.phrases import phrase

LEAST, SENSIBLE, FULL = "least", "sensible", "full"
NAMES = {
    LEAST: phrase("changes.purchase_sizes.safe_minimum"),
    SENSIBLE: phrase("changes.purchase_sizes.sensible"),
    FULL: phrase("changes.purchase_sizes.full"),
}
# Fewer checks than these are not safe: everything that stands against a bank but its size.
SIZE_ONLY = {NEED}


@dataclass(frozen=True, slots=True)
class PurchaseSize:
    """One size of a purchase.

    Attributes:
        key, name: which.
        strings: strings of the bank.
        cash: on the day [money].
        usable: usable energy [Wh]; ``nights``: that it carries without charging [nights].
        buys: what else is bought, in words.
        leaves: what it leaves undone, in words.
    """

    key: str
    name: str
    strings: int
    cash: Figure
    usable: Figure
    nights: Figure
    buys: tuple[str, ...]
    leaves: tuple[str, ...]


def purchase_sizes(results: Results, reference: Reference) -> dict[str, tuple[PurchaseSize, ...]]:
    """The packages of every candidate that will do, by its id.

    Args:
        results: the plan in figures.
        reference: shipped data.

    Returns:
        The sensible one as it is compared, with what checks and audit demand; before it a smaller one where
        fewer strings are safe and carry a night; after it one with all that is advised or wanted, and a
        string more.
    """
    plan = results.plan
    look = quick_life_cost(plan, reference, results.assumptions, results.days)
    columns = [c for c in results.compare.compared_banks if c in results.verdict.suitable]
    return {c.id: _of(c, results, look) for c in columns}


def _of(compared: ComparedBank, results: Results, look: QuickLifeCost) -> tuple[PurchaseSize, ...]:
    bank = compared.banked.bank
    assert bank is not None
    counted = tuple(d for d in compared.cost.required_extras if d.state == COUNTED)
    advised = tuple(d for d in compared.cost.required_extras if d.state == ADVISED)
    least = _least(bank, results, look)
    more = Bank(bank.model, bank.series, bank.parallel + 1)
    grows = bank.parallel < bank.model.max_parallel and not (set(look.rig_limits.against(more)) - SIZE_ONLY)
    sizes = [(SENSIBLE, bank, counted, advised)]
    if least.parallel < bank.parallel:
        sizes.insert(0, (LEAST, least, counted, advised))
    wants = any(e.tag == WANTED for e in compared.banked.candidate.extras)
    if grows or advised or wants:
        sizes.append((FULL, more if grows else bank, (*counted, *advised), ()))
    return tuple(
        _package(key, compared, results, look, size, parts, left) for key, size, parts, left in sizes
    )


def _least(bank: Bank, results: Results, look: QuickLifeCost) -> Bank:
    """The fewest strings that carry one night and pass every check but that of the need."""
    night = results.day.bank_wh.number
    for strings in range(1, bank.parallel):
        smaller = Bank(bank.model, bank.series, strings)
        if (
            look.rig_limits.usable_wh(smaller) >= night
            and not set(look.rig_limits.against(smaller)) - SIZE_ONLY
        ):
            return smaller
    return bank


def _package(
    key: str,
    compared: ComparedBank,
    results: Results,
    look: QuickLifeCost,
    bank: Bank,
    parts: tuple[RequiredExtra, ...],
    leaves: tuple[RequiredExtra, ...],
) -> PurchaseSize:
    at = f"verdict.package.{compared.id}.{key}"
    own = compared.banked["extras"].number
    share = bank.parallel / (compared.banked.bank.parallel if compared.banked.bank is not None else 1)
    batteries = compared.banked["purchase"].number * share
    extra_cost = own + sum(d.price.number for d in parts)
    settled = compared.cost["labour"].number + compared.cost["contingency"].number
    wanted = compared.banked["wanted"].number if key == FULL else 0.0
    usable = look.rig_limits.usable_wh(bank)
    day = results.day.bank_wh.number
    buys = [
        e.name or phrase("terms.names.extra") for e in compared.banked.candidate.extras if e.tag == NEEDED
    ]
    buys += [d.name for d in parts]
    if key == FULL:
        buys += [
            e.name or phrase("terms.names.extra") for e in compared.banked.candidate.extras if e.tag == WANTED
        ]
    left = [d.name for d in leaves]
    if key == LEAST:
        left.insert(0, phrase("changes.purchase_sizes.last_nights_plan"))
    source = phrase("changes.purchase_sizes.batteries_proportion_strings_plus")
    return PurchaseSize(
        key,
        NAMES[key],
        bank.parallel,
        Figure(
            f"{at}.cash",
            phrase("changes.purchase_sizes.cash", names=NAMES[key]),
            batteries + extra_cost + settled + wanted,
            "money",
            REFERENCE,
            source=source,
        ),
        Figure(
            f"{at}.usable",
            phrase("changes.purchase_sizes.usable_energy", names=NAMES[key]),
            usable,
            "Wh",
            REFERENCE,
            source=phrase("changes.purchase_sizes.usable_source"),
        ),
        Figure(
            f"{at}.nights",
            phrase("changes.purchase_sizes.nights", names=NAMES[key]),
            usable / day if day else None,
            "nights",
            REFERENCE,
            source=phrase("terms.names.usable_energy_energy_used"),
        ),
        tuple(buys),
        tuple(left),
    )
