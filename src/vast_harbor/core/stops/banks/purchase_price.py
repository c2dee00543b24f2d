"""What a bank costs to buy, with its workings."""

from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.datasheet import widened
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, datasheet, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import NEEDED, WANTED
from vast_harbor.core.rig.plan import Candidate, Extra, Plan
from vast_harbor.core.rig.source_remedies import chosen, name_of
from vast_harbor.phrases import phrase

# Line of the shopping list: all batteries of the bank.
BATTERIES = "batteries"


@dataclass(frozen=True, slots=True)
class Purchase:
    """What a bank costs to buy, in plain numbers.

    Attributes:
        unit_price: of one battery, before discount and tax [money].
        low, high: range of that price against it [-].
        unit_paid: of one battery, discount and tax included [money].
        spare: whether one more is bought.
        delivery: [money].
        handed_in: old batteries given back for the deposit.
        deposit: due for the others, all together [money].
        total: batteries to buy, all of the above included [money].
    """

    unit_price: float
    low: float
    high: float
    unit_paid: float
    spare: bool
    delivery: float
    handed_in: int
    deposit: float
    total: float


def old_batteries(plan: Plan) -> int:
    """Old lead-acid batteries that can be handed in for a deposit."""
    old = plan.old_bank
    return old.series * old.parallel if old is not None and old.battery_class.is_lead_acid else 0


def quoted(candidate: Candidate, bank: Bank) -> float | None:
    """Price of one battery as it was paid, else as quoted to the owner [money]; None for the list price."""
    noted = candidate.purchases.get(BATTERIES)
    if noted is not None and noted.paid is not None:
        return noted.paid / (bank.units + candidate.spare)
    return candidate.unit_price


def purchase(
    plan: Plan, price_factor: float, bank: Bank, candidate: Candidate | None = None, doubt: float = 0.15
) -> Purchase:
    """What a bank costs to buy.

    A quote is taken as it is paid; a list price bears the price level of the rig, discount, tax, delivery and
    deposit.

    Args:
        plan: for the old batteries that are handed in.
        price_factor: price level of the rig [-].
        bank: its layout.
        candidate: with a quote or a spare; None for the catalogue's price.
        doubt: how far a price is in doubt where the entry gives no range [-].

    Returns:
        The purchase in numbers.
    """
    model, offer = bank.model, bank.model.offer
    quote = quoted(candidate, bank) if candidate is not None else None
    spare = (candidate is not None and candidate.spare) or (model.used is not None and model.used.spare)
    handed_in = min(old_batteries(plan), bank.units)
    if quote is not None:
        return Purchase(quote, 1.0, 1.0, quote, spare, 0.0, handed_in, 0.0, (bank.units + spare) * quote)
    level = 1.0 if model.own else price_factor
    price, low, high = model.price * level, 1.0, 1.0
    if model.price:
        least = (offer.low or model.price * (1 - doubt)) / model.price
        most = (offer.high or model.price * (1 + doubt)) / model.price
        low, high = widened(min(least, 1.0), 1.0, max(most, 1.0), model.grade)
    paid = price * (1 - offer.discount) * (1 + offer.tax)
    delivery, deposit = offer.delivery * level, max(0, bank.units - handed_in) * offer.deposit * level
    total = (bank.units + spare) * paid + delivery + deposit
    return Purchase(price, low, high, paid, spare, delivery, handed_in, deposit, total)


def price_figures(
    plan: Plan,
    assumptions: Assumptions,
    candidate: Candidate,
    bank: Bank,
    units: Figure,
    at: str,
    path: str,
    entry: str,
) -> dict[str, Figure]:
    """``unit_price``, ``unit_paid`` with tax and discount, ``purchase`` and ``extras`` of a bank.

    Args:
        plan, assumptions: the plan and what holds for it.
        candidate, bank: the candidate and its layout.
        units: batteries to buy, as a figure.
        at, path, entry: prefix of the keys, JSON pointer of the candidate, where the entry is from.

    Returns:
        Figures by name.
    """
    f: dict[str, Figure] = {}
    model, offer = bank.model, bank.model.offer
    numbers, quote = (
        purchase(plan, assumptions.value("price_factor"), bank, candidate),
        quoted(candidate, bank),
    )
    if quote is not None:
        paid = quote != candidate.unit_price
        f["unit_price"] = typed(
            f"{at}.unit_price",
            phrase("banks.purchase_price.unit_price"),
            quote,
            "money",
            f"{path}/purchases/paid/{BATTERIES}" if paid else f"{path}/unit_price",
        )
    elif model.own:
        f["unit_price"] = datasheet(
            f"{at}.unit_price", phrase("banks.purchase_price.price_one_battery"), model.price, "money", entry
        )
    else:
        listed = datasheet(
            f"{at}.list_price",
            phrase("banks.purchase_price.list_price_battery"),
            model.price,
            "money",
            entry,
            phrase("banks.purchase_price.list_price_note"),
        )
        factor = assumptions.figure("price_factor")
        f["unit_price"] = computed(
            f"{at}.unit_price",
            phrase("banks.purchase_price.price_one_battery"),
            numbers.unit_price,
            "money",
            "{P_list} · {f_price}",
            {"P_list": listed, "f_price": factor},
        )
    if quote is None:
        f["unit_price"] = _ranged(f["unit_price"], numbers, model.grade)
    f["unit_paid"] = _paid(f["unit_price"], numbers, bank, candidate, at, entry)
    spare = numbers.spare
    parts, formula = {"n": units, "P": f["unit_paid"]}, "({n} + 1) · {P}" if spare else "{n} · {P}"
    # What goes with a list price follows the price level as it does.
    level = "" if model.own else " · {f_price}"
    if quote is None and (offer.delivery or offer.deposit) and not model.own:
        parts["f_price"] = assumptions.figure("price_factor")
    if offer.delivery and quote is None:
        parts["D"] = datasheet(
            f"{at}.delivery", phrase("banks.purchase_price.delivery"), offer.delivery, "money", entry
        )
        formula += " + {D}" + level
    if offer.deposit and quote is None:
        parts["n_old"] = typed(
            f"{at}.handed_in",
            phrase("banks.purchase_price.handed_in"),
            numbers.handed_in,
            "batteries",
            "/old_bank",
        )
        parts["pledge"] = datasheet(
            f"{at}.deposit",
            phrase("banks.purchase_price.deposit_battery"),
            offer.deposit,
            "money",
            entry,
            phrase("banks.purchase_price.deposit_note"),
        )
        formula += " + ({n} − {n_old}) · {pledge}" + level
    f["purchase"] = computed(
        f"{at}.purchase", phrase("terms.names.batteries_buy"), numbers.total, "money", formula, parts,
        phrase("banks.purchase_price.purchase_source") if spare else "",
    )  # fmt: skip
    extras = _typed(candidate, NEEDED, at, path)
    extras |= _remedies(plan, assumptions, candidate, bank, at)
    f["extras"] = computed(
        f"{at}.extras", phrase("terms.names.extras"), sum(e.number for e in extras.values()), "money",
        " + ".join(f"{{{s}}}" for s in extras) or "0", extras,
        phrase("banks.purchase_price.extras_source"),
    )  # fmt: skip
    wanted = _typed(candidate, WANTED, at, path)
    f["wanted"] = computed(
        f"{at}.wanted",
        phrase("banks.purchase_price.wanted"),
        sum(e.number for e in wanted.values()),
        "money",
        " + ".join(f"{{{s}}}" for s in wanted) or "0",
        wanted,
        phrase("banks.purchase_price.wanted_source"),
    )
    return f


def _typed(candidate: Candidate, tag: str, at: str, path: str) -> dict[str, Figure]:
    """Extras of one tag as the owner entered them."""

    def price_of(i: int, extra: Extra) -> Figure:
        note = (
            phrase("banks.purchase_price.bought_once")
            if extra.life_years is None
            else phrase("banks.purchase_price.lasts_years", life_years=f"{extra.life_years:g}")
        )
        return typed(
            f"{at}.extra.{i}",
            extra.name or phrase("terms.names.extra"),
            extra.price,
            "money",
            f"{path}/extras/{i - 1}/price",
            note,
        )

    return {f"X{i}": price_of(i, e) for i, e in enumerate(candidate.extras, 1) if e.tag == tag}


def _remedies(
    plan: Plan, assumptions: Assumptions, candidate: Candidate, bank: Bank, at: str
) -> dict[str, Figure]:
    """Parts of the remedies chosen for its sources; their hours are labour."""
    out = {}
    for i, (source, rung) in enumerate(chosen(plan, candidate, bank.model.battery_class, assumptions), 1):
        known = candidate.known_price(f"fix-{source.id}")
        price = rung.price if known is None else known
        parts = Figure(
            f"{at}.fix.{i}.parts",
            phrase("banks.purchase_price.parts"),
            price,
            "money",
            REFERENCE,
            source=rung.says,
        )
        out[f"F{i}"] = computed(
            f"{at}.fix.{i}",
            f"{name_of(source)}: {rung.says}",
            price,
            "money",
            "{P}",
            {"P": parts},
            phrase("banks.purchase_price.chosen_charging_page"),
        )
    return out


def _ranged(price: Figure, numbers: Purchase, grade: str) -> Figure:
    """The price with its range, wider the less backs up its datasheet; the middle stays."""
    if not price.value:
        return price
    note = phrase("banks.purchase_price.range_depends_how_well", grade=grade)
    return price._replace(
        low=price.number * numbers.low, high=price.number * numbers.high, note=price.note or note
    )


def _paid(price: Figure, numbers: Purchase, bank: Bank, candidate: Candidate, at: str, entry: str) -> Figure:
    """A quote is taken as it is paid; a list price bears discount and tax."""
    offer = bank.model.offer
    if quoted(candidate, bank) is not None or not (offer.tax or offer.discount):
        return price
    parts = {
        "P": price,
        "d": datasheet(f"{at}.discount", phrase("banks.purchase_price.discount"), offer.discount, "%", entry),
        "tax": datasheet(f"{at}.tax", phrase("banks.purchase_price.tax"), offer.tax, "%", entry),
    }
    return computed(
        f"{at}.unit_paid", phrase("banks.purchase_price.unit_paid"), numbers.unit_paid, "money",
        "{P} · (1 − {d}) · (1 + {tax})", parts,
    )  # fmt: skip
