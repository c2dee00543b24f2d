"""What a candidate bank is and gives, with its workings (part of Banks)."""

from vast_harbor.core import factors
from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.battery import Bank, BatteryModel
from vast_harbor.core.need import usable_energy
from vast_harbor.core.peukert import rate_factor
from vast_harbor.core.plan import Candidate, Plan
from vast_harbor.core.stops.need import Need, class_volts
from vast_harbor.core.workings import OVERRIDE, REFERENCE, TYPED, Figure, computed, datasheet, typed

NEW, END_OF_LIFE = 1.0, 0.8


def label_or_class_exponent(assumptions: Assumptions, model: BatteryModel) -> float:
    """Peukert exponent of a model: from its two ratings, else of its class; an override holds over both."""
    key = f"peukert.{model.battery_class.key}"
    if assumptions.overridden(key) or model.label_exponent is None:
        return assumptions.value(key)
    return model.label_exponent


def bank_figures(
    plan: Plan,
    assumptions: Assumptions,
    need: Need,
    candidate: Candidate,
    bank: Bank,
    index: int,
    old_kg: Figure | None,
) -> dict[str, Figure]:
    """What a bank is and gives in this rig, each figure with its workings.

    Args:
        plan, assumptions: the plan and what holds for it.
        need: the need in figures.
        candidate, index: the candidate and its place in the list.
        bank: its layout.
        old_kg: weight of the old bank [kg]; None without one.

    Returns:
        Figures by the names that :class:`~vast_harbor.core.stops.banks.BankFigures` lists.
    """
    model, at, path = bank.model, f"bank.{candidate.id}", f"/candidates/{index}"
    entry = ("Your own entry: " if model.own else "Catalogue entry: ") + model.title
    class_need = need.classes[model.battery_class.key]
    f: dict[str, Figure] = {}
    f["series"] = Figure(f"{at}.series", "In series", bank.series, "batteries", TYPED, path=f"{path}/series")
    f["parallel"] = Figure(
        f"{at}.parallel",
        "Strings in parallel",
        bank.parallel,
        "strings",
        TYPED if candidate.parallel else REFERENCE,
        path=f"{path}/parallel",
        source="" if candidate.parallel else "The fewest that cover the need",
    )
    unit_v = datasheet(f"{at}.unit_v", "Nominal volts of one", model.nominal_v, "V", entry)
    unit_ah = datasheet(
        f"{at}.unit_ah", "Label of one", model.rated_ah, "Ah", entry, f"Over {model.rated_hours:g} hours."
    )
    n_s, n_p = f["series"], f["parallel"]
    f["units"] = computed(
        f"{at}.units", "Batteries", bank.units, "batteries", "{n_s} · {n_p}", {"n_s": n_s, "n_p": n_p}
    )
    f["volts"] = computed(
        f"{at}.volts",
        "Nominal volts",
        bank.nominal_v,
        "V",
        "{n_s} · {V_unit}",
        {"n_s": n_s, "V_unit": unit_v},
        "In series volts add, amp-hours stay",
    )
    f["nameplate_ah"] = computed(
        f"{at}.nameplate_ah",
        "Amp-hours by the label",
        bank.rated_ah,
        "Ah",
        "{n_p} · {Ah_unit}",
        {"n_p": n_p, "Ah_unit": unit_ah},
        "In parallel amp-hours add, volts stay",
    )
    f["nameplate_wh"] = computed(
        f"{at}.nameplate_wh",
        "Energy by the label",
        bank.nameplate_wh,
        "Wh",
        "{V} · {Ah}",
        {"V": f["volts"], "Ah": f["nameplate_ah"]},
        "Wh = V · Ah",
    )
    f["dod"], f["temperature"] = class_need.dod, class_need.temperature
    _rate_figures(f, assumptions, need, bank, at, entry, class_volts(plan, model.battery_class))
    _usable_figures(f, class_need.ageing, bank, at)
    unit_kg = datasheet(f"{at}.unit_kg", "Weight of one", model.kg, "kg", entry)
    f["kg"] = computed(f"{at}.kg", "Weight", bank.kg, "kg", "{n} · {kg}", {"n": f["units"], "kg": unit_kg})
    if old_kg is not None:
        f["kg_change"] = computed(
            f"{at}.kg_change",
            "Change of weight",
            bank.kg - old_kg.number,
            "±kg",
            "{kg_new} − {kg_old}",
            {"kg_new": f["kg"], "kg_old": old_kg},
        )
    _money_figures(f, assumptions, candidate, bank, at, path, entry)
    return f


def _rate_figures(
    f: dict[str, Figure], assumptions: Assumptions, need: Need, bank: Bank, at: str, entry: str, volts: Figure
) -> None:
    model = bank.model
    key = f"peukert.{model.battery_class.key}"
    exponent = assumptions.figure(key)
    if model.label_exponent is not None and exponent.origin != OVERRIDE:
        (ah_1, h_1), (ah_2, h_2) = model.ratings[:2]
        parts = {
            "Ah_1": datasheet(f"{at}.ah_1", "First rating", ah_1, "Ah", entry),
            "t_1": datasheet(f"{at}.t_1", "Its time", h_1, "h", entry),
            "Ah_2": datasheet(f"{at}.ah_2", "Second rating", ah_2, "Ah", entry),
            "t_2": datasheet(f"{at}.t_2", "Its time", h_2, "h", entry),
        }
        exponent = computed(
            f"{at}.k",
            "Peukert exponent",
            model.label_exponent,
            "1",
            "log({t_2} / {t_1}) / log(({Ah_1} / {t_1}) / ({Ah_2} / {t_2}))",
            parts,
            f"{factors.PEUKERT}, from the two ratings of the label",
            low=exponent.low,
            high=exponent.high,
        )
    hours = datasheet(f"{at}.r", "Rated time", model.rated_hours, "h", entry)
    current = factors.mean_current(at, need.area, need.squared, volts)
    draws = current.number > 0
    f["exponent"], f["mean_current"] = exponent, current
    f["rate"] = computed(
        f"{at}.k_rate",
        "Rate factor",
        rate_factor(bank.rated_ah, hours.number, exponent.number, current.number),
        "1",
        "min(1, ({Ah} / {r} / {I_mean})^({k} − 1))" if draws else "1",
        {"Ah": f["nameplate_ah"], "r": hours, "I_mean": current, "k": exponent},
        factors.PEUKERT,
    )


def _usable_figures(f: dict[str, Figure], ageing: Figure, bank: Bank, at: str) -> None:
    source = "usable = nameplate · DoD · k_T · k_rate · k_age"
    ages = {
        "usable_wh": ("Usable energy", ageing),
        "usable_new_wh": (
            "Usable energy, new",
            Figure(f"{at}.age_new", "Capacity when new", NEW, "1", REFERENCE, source="Full capacity"),
        ),
        "usable_end_wh": (
            "Usable energy at the end of its life",
            Figure(
                f"{at}.age_end",
                "Capacity at the end of life",
                END_OF_LIFE,
                "1",
                REFERENCE,
                source="80 % of the capacity when new",
            ),
        ),
    }
    for name, (title, age) in ages.items():
        f[name] = computed(
            f"{at}.{name}",
            title,
            usable_energy(
                bank.nameplate_wh, f["dod"].number, f["temperature"].number, f["rate"].number, age.number
            ),
            "Wh",
            "{E_label} · {DoD} · {k_T} · {k_rate} · {k_age}",
            {
                "E_label": f["nameplate_wh"],
                "DoD": f["dod"],
                "k_T": f["temperature"],
                "k_rate": f["rate"],
                "k_age": age,
            },
            source,
        )
    f["usable_ah"] = computed(
        f"{at}.usable_ah",
        "Usable amp-hours",
        f["usable_wh"].number / bank.nominal_v,
        "Ah",
        "{E_usable} / {V}",
        {"E_usable": f["usable_wh"], "V": f["volts"]},
        "Compare amp-hours only at the same volts",
    )


def _money_figures(
    f: dict[str, Figure],
    assumptions: Assumptions,
    candidate: Candidate,
    bank: Bank,
    at: str,
    path: str,
    entry: str,
) -> None:
    model = bank.model
    if candidate.unit_price is not None:
        f["unit_price"] = typed(
            f"{at}.unit_price",
            "Price of one, as quoted to you",
            candidate.unit_price,
            "money",
            f"{path}/unit_price",
        )
    elif model.own:
        f["unit_price"] = datasheet(f"{at}.unit_price", "Price of one", model.price, "money", entry)
    else:
        listed = datasheet(
            f"{at}.list_price",
            "List price of one",
            model.price,
            "money",
            entry,
            "Made up, of the size that such batteries cost.",
        )
        factor = assumptions.figure("price_factor")
        f["unit_price"] = computed(
            f"{at}.unit_price",
            "Price of one",
            model.price * factor.number,
            "money",
            "{P_list} · {f_price}",
            {"P_list": listed, "f_price": factor},
        )
    f["purchase"] = computed(
        f"{at}.purchase",
        "Batteries to buy",
        bank.units * f["unit_price"].number,
        "money",
        "{n} · {P}",
        {"n": f["units"], "P": f["unit_price"]},
    )
    extras = {
        f"X{i}": typed(
            f"{at}.extra.{i}",
            extra.name or "Extra",
            extra.price,
            "money",
            f"{path}/extras/{i - 1}/price",
            "Bought once.",
        )
        for i, extra in enumerate(candidate.extras, 1)
    }
    f["extras"] = computed(
        f"{at}.extras",
        "Extras",
        sum(e.price for e in candidate.extras),
        "money",
        " + ".join(f"{{{s}}}" for s in extras) or "0",
        extras,
        "What must be bought besides the batteries: charger, box, heater, cable",
    )
