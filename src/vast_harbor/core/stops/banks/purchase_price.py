"""What a bank costs to buy, with its workings."""

from dataclasses import replace

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.datasheet import widened
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, datasheet, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import NEEDED, WANTED, Candidate, Extra, Plan
from vast_harbor.core.rig.source_remedies import chosen, name_of

# How far a price is in doubt where the entry gives no range.
DOUBT = 0.15


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
    if candidate.unit_price is not None:
        f["unit_price"] = typed(
            f"{at}.unit_price", "Price of one, as quoted to you", candidate.unit_price, "money",
            f"{path}/unit_price",
        )  # fmt: skip
    elif model.own:
        f["unit_price"] = datasheet(f"{at}.unit_price", "Price of one", model.price, "money", entry)
    else:
        listed = datasheet(
            f"{at}.list_price", "List price of one", model.price, "money", entry,
            "Made up, of the size that such batteries cost.",
        )  # fmt: skip
        factor = assumptions.figure("price_factor")
        f["unit_price"] = computed(
            f"{at}.unit_price", "Price of one", model.price * factor.number, "money", "{P_list} · {f_price}",
            {"P_list": listed, "f_price": factor},
        )  # fmt: skip
    if candidate.unit_price is None:
        f["unit_price"] = _ranged(f["unit_price"], bank)
    f["unit_paid"] = _paid(f["unit_price"], bank, candidate, at, entry)
    spare = candidate.spare or (model.used is not None and model.used.spare)
    parts, formula = {"n": units, "P": f["unit_paid"]}, "({n} + 1) · {P}" if spare else "{n} · {P}"
    value = (bank.units + spare) * f["unit_paid"].number
    quoted = candidate.unit_price is not None
    if offer.delivery and not quoted:
        parts["D"] = datasheet(f"{at}.delivery", "Delivery", offer.delivery, "money", entry)
        formula, value = formula + " + {D}", value + offer.delivery
    if offer.deposit and not quoted:
        parts["n_old"] = _handed_in(plan, bank, at)
        parts["pledge"] = datasheet(
            f"{at}.deposit", "Deposit of one", offer.deposit, "money", entry, "Given back for an old one."
        )
        due = max(0.0, bank.units - parts["n_old"].number)
        formula, value = formula + " + ({n} − {n_old}) · {pledge}", value + due * offer.deposit
    f["purchase"] = computed(
        f"{at}.purchase", "Batteries to buy", value, "money", formula, parts,
        "A spare one is kept" if spare else "",
    )  # fmt: skip
    extras = _typed(candidate, NEEDED, at, path)
    extras |= _remedies(plan, assumptions, candidate, bank, at)
    f["extras"] = computed(
        f"{at}.extras", "Extras", sum(e.number for e in extras.values()), "money",
        " + ".join(f"{{{s}}}" for s in extras) or "0", extras,
        "What must be bought besides the batteries: charger, box, heater, cable",
    )  # fmt: skip
    wanted = _typed(candidate, WANTED, at, path)
    f["wanted"] = computed(
        f"{at}.wanted", "Wanted anyway", sum(e.number for e in wanted.values()), "money",
        " + ".join(f"{{{s}}}" for s in wanted) or "0", wanted,
        "Bought whichever bank it is, so not charged to this one",
    )  # fmt: skip
    return f


def _typed(candidate: Candidate, tag: str, at: str, path: str) -> dict[str, Figure]:
    """Extras of one tag as the owner entered them."""

    def told(i: int, extra: Extra) -> Figure:
        note = "Bought once." if extra.life_years is None else f"Lasts {extra.life_years:g} years."
        return typed(
            f"{at}.extra.{i}",
            extra.name or "Extra",
            extra.price,
            "money",
            f"{path}/extras/{i - 1}/price",
            note,
        )

    return {f"X{i}": told(i, e) for i, e in enumerate(candidate.extras, 1) if e.tag == tag}


def _remedies(
    plan: Plan, assumptions: Assumptions, candidate: Candidate, bank: Bank, at: str
) -> dict[str, Figure]:
    """Parts of the remedies chosen for its sources; their hours are labour."""
    out = {}
    for i, (source, rung) in enumerate(chosen(plan, candidate, bank.model.battery_class, assumptions), 1):
        parts = Figure(f"{at}.fix.{i}.parts", "Parts", rung.parts, "money", REFERENCE, source=rung.says)
        out[f"F{i}"] = computed(
            f"{at}.fix.{i}",
            f"{name_of(source)}: {rung.says}",
            rung.parts,
            "money",
            "{P}",
            {"P": parts},
            "Chosen on the Charging stop",
        )
    return out


def _ranged(price: Figure, bank: Bank) -> Figure:
    """The price with its range, wider the less backs up its datasheet; the middle stays."""
    model = bank.model
    if not model.price:
        return price
    low = (model.offer.low or model.price * (1 - DOUBT)) / model.price
    high = (model.offer.high or model.price * (1 + DOUBT)) / model.price
    least, most = widened(min(low, 1.0), 1.0, max(high, 1.0), model.grade)
    note = f"Range by the confidence in its datasheet, grade {model.grade}."
    return replace(price, low=price.number * least, high=price.number * most, note=price.note or note)


def _paid(price: Figure, bank: Bank, candidate: Candidate, at: str, entry: str) -> Figure:
    """A quote is taken as it is paid; a list price bears discount and tax."""
    offer = bank.model.offer
    if candidate.unit_price is not None or not (offer.tax or offer.discount):
        return price
    parts = {
        "P": price,
        "d": datasheet(f"{at}.discount", "Discount", offer.discount, "%", entry),
        "tax": datasheet(f"{at}.tax", "Tax", offer.tax, "%", entry),
    }
    return computed(
        f"{at}.unit_paid", "Price of one with discount and tax",
        price.number * (1 - offer.discount) * (1 + offer.tax), "money", "{P} · (1 − {d}) · (1 + {tax})",
        parts,
    )  # fmt: skip


def _handed_in(plan: Plan, bank: Bank, at: str) -> Figure:
    """Old batteries that are handed in for the deposit, no more than are bought."""
    old = plan.old_bank
    count = 0 if old is None or not old.battery_class.is_lead_acid else old.series * old.parallel
    return typed(
        f"{at}.handed_in", "Old batteries handed in", min(count, bank.units), "batteries", "/old_bank"
    )
