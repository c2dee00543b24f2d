"""What a candidate bank is and gives, with its workings."""

from vast_harbor.core.battery.ageing import cycles_at_depth
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.workings import OVERRIDE, REFERENCE, TYPED, Figure, computed, datasheet
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.stops.banks.criteria import BankCriteria
from vast_harbor.core.stops.banks.purchase_price import price_figures
from vast_harbor.core.stops.need import Need, class_volts
from vast_harbor.phrases import phrase

NEW, END_OF_LIFE = 1.0, 0.8


def bank_figures(
    plan: Plan,
    assumptions: Assumptions,
    need: Need,
    candidate: Candidate,
    criteria: BankCriteria,
    start_wear: float,
    index: int,
    old_kg: Figure | None,
) -> dict[str, Figure]:
    """What a bank is and gives in this rig, each figure with its workings.

    Args:
        plan, assumptions: the plan and what holds for it.
        need: the need in figures.
        candidate, index: the candidate and its place in the list; beyond its end where it is none.
        criteria: its layout in the rig, in numbers.
        start_wear: wear when it is bought [-].
        old_kg: weight of the old bank [kg]; None without one.

    Returns:
        Figures by the names that :class:`~vast_harbor.core.stops.banks.candidates.BankFigures` lists.
    """
    bank = criteria.bank
    model, at, path = bank.model, f"bank.{candidate.id}", f"/candidates/{index}"
    # A bank that was looked for has no place in the document.
    entered = index < len(plan.candidates)
    entry = (
        phrase("terms.names.own_entry") if model.own else phrase("terms.names.catalogue_entry")
    ) + model.title
    class_need = need.classes[model.battery_class.key]
    f: dict[str, Figure] = {}
    f["series"] = Figure(
        f"{at}.series",
        phrase("terms.names.batteries_series"),
        bank.series,
        "batteries",
        TYPED if entered else REFERENCE,
        path=f"{path}/series" if entered else "",
        source="" if entered else phrase("banks.bank_figures.found_source"),
    )
    f["parallel"] = Figure(
        f"{at}.parallel",
        phrase("terms.names.strings_parallel"),
        bank.parallel,
        "strings",
        TYPED if candidate.parallel and entered else REFERENCE,
        path=f"{path}/parallel" if entered else "",
        source=phrase("banks.bank_figures.found_source")
        if not entered
        else ""
        if candidate.parallel
        else phrase("banks.bank_figures.parallel_source"),
    )
    unit_v = datasheet(f"{at}.unit_v", phrase("banks.bank_figures.unit_v"), model.nominal_v, "V", entry)
    unit_ah = datasheet(
        f"{at}.unit_ah",
        phrase("terms.names.rated_capacity_battery"),
        model.rated_ah,
        "Ah",
        entry,
        phrase("banks.bank_figures.unit_ah_note", rated_hours=f"{model.rated_hours:g}"),
    )
    n_s, n_p = f["series"], f["parallel"]
    f["units"] = computed(
        f"{at}.units",
        phrase("terms.names.batteries"),
        bank.units,
        "batteries",
        "{n_s} · {n_p}",
        {"n_s": n_s, "n_p": n_p},
    )
    f["volts"] = computed(
        f"{at}.volts",
        phrase("banks.bank_figures.volts"),
        bank.nominal_v,
        "V",
        "{n_s} · {V_unit}",
        {"n_s": n_s, "V_unit": unit_v},
        phrase("banks.bank_figures.volts_source"),
    )
    f["nameplate_ah"] = computed(
        f"{at}.nameplate_ah",
        phrase("banks.bank_figures.nameplate_ah"),
        bank.rated_ah,
        "Ah",
        "{n_p} · {Ah_unit}",
        {"n_p": n_p, "Ah_unit": unit_ah},
        phrase("banks.bank_figures.nameplate_ah_source"),
    )
    f["nameplate_wh"] = computed(
        f"{at}.nameplate_wh",
        phrase("banks.bank_figures.nameplate_wh"),
        bank.nameplate_wh,
        "Wh",
        "{V} · {Ah}",
        {"V": f["volts"], "Ah": f["nameplate_ah"]},
        "Wh = V · Ah",
    )
    f["dod"], f["temperature"] = class_need.dod, class_need.temperature
    _rate_figures(f, assumptions, need, criteria, at, entry, class_volts(plan, model.battery_class))
    _usable_figures(f, class_need.ageing, criteria, at)
    unit_kg = datasheet(f"{at}.unit_kg", phrase("terms.names.weight_battery"), model.kg, "kg", entry)
    f["kg"] = computed(
        f"{at}.kg",
        phrase("terms.names.weight"),
        bank.kg,
        "kg",
        "{n} · {kg}",
        {"n": f["units"], "kg": unit_kg},
    )
    if old_kg is not None:
        f["kg_change"] = computed(
            f"{at}.kg_change",
            phrase("banks.bank_figures.kg_change"),
            criteria.kg_change,
            "±kg",
            "{kg_new} − {kg_old}",
            {"kg_new": f["kg"], "kg_old": old_kg},
        )
    _used_figures(f, assumptions, bank, start_wear, at, entry)
    f.update(price_figures(plan, assumptions, candidate, bank, f["units"], at, path, entry))
    return f


def _rate_figures(
    f: dict[str, Figure],
    assumptions: Assumptions,
    need: Need,
    criteria: BankCriteria,
    at: str,
    entry: str,
    volts: Figure,
) -> None:
    model = criteria.bank.model
    key = f"peukert.{model.battery_class.key}"
    exponent = assumptions.figure(key)
    if model.label_exponent is not None and exponent.origin != OVERRIDE:
        (ah_1, h_1), (ah_2, h_2) = model.ratings[:2]
        parts = {
            "Ah_1": datasheet(f"{at}.ah_1", phrase("banks.bank_figures.ah_1"), ah_1, "Ah", entry),
            "t_1": datasheet(f"{at}.t_1", phrase("terms.names.discharge_time"), h_1, "h", entry),
            "Ah_2": datasheet(f"{at}.ah_2", phrase("banks.bank_figures.ah_2"), ah_2, "Ah", entry),
            "t_2": datasheet(f"{at}.t_2", phrase("terms.names.discharge_time"), h_2, "h", entry),
        }
        exponent = computed(
            f"{at}.k",
            phrase("terms.names.peukert_exponent"),
            model.label_exponent,
            "1",
            "log({t_2} / {t_1}) / log(({Ah_1} / {t_1}) / ({Ah_2} / {t_2}))",
            parts,
            phrase("banks.bank_figures.k_source", peukert=derating.PEUKERT),
            low=exponent.low,
            high=exponent.high,
        )
    hours = datasheet(f"{at}.r", phrase("terms.names.rated_time"), model.rated_hours, "h", entry)
    current = derating.mean_current(at, need.area, need.squared, volts)
    draws = current.number > 0
    f["exponent"], f["mean_current"] = exponent, current
    f["rate"] = computed(
        f"{at}.k_rate",
        phrase("terms.names.rate_factor"),
        criteria.rate,
        "%",
        "min(1, ({Ah} / {r} / {I_mean})^({k} − 1))" if draws else "1",
        {"Ah": f["nameplate_ah"], "r": hours, "I_mean": current, "k": exponent},
        derating.PEUKERT,
    )


def _usable_figures(f: dict[str, Figure], ageing: Figure, criteria: BankCriteria, at: str) -> None:
    bank = criteria.bank
    source = phrase("banks.bank_figures.usable_rated_energy_dod")
    ages = {
        "usable_wh": (phrase("terms.names.usable_energy"), ageing),
        "usable_new_wh": (
            phrase("banks.bank_figures.usable_energy_new"),
            Figure(
                f"{at}.age_new",
                phrase("banks.bank_figures.age_new"),
                NEW,
                "%",
                REFERENCE,
                source=phrase("banks.bank_figures.age_new_source"),
            ),
        ),
        "usable_end_wh": (
            phrase("banks.bank_figures.usable_energy_end_life"),
            Figure(
                f"{at}.age_end",
                phrase("banks.bank_figures.age_end"),
                END_OF_LIFE,
                "%",
                REFERENCE,
                source=phrase("banks.bank_figures.age_end_source"),
            ),
        ),
    }
    if bank.model.health < 1:
        entry = phrase("banks.bank_figures.capacity_test_rated_capacity")
        health = datasheet(f"{at}.health", phrase("banks.bank_figures.health"), bank.model.health, "%", entry)
        ages = {name: (title, _capped(age, health)) for name, (title, age) in ages.items()}
    for name, (title, age) in ages.items():
        f[name] = computed(
            f"{at}.{name}",
            title,
            criteria.usable_wh(age.number),
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
        phrase("terms.names.usable_amp_hours"),
        f["usable_wh"].number / bank.nominal_v,
        "Ah",
        "{E_usable} / {V}",
        {"E_usable": f["usable_wh"], "V": f["volts"]},
        phrase("banks.bank_figures.usable_ah_source"),
    )


def _capped(age: Figure, health: Figure) -> Figure:
    """The allowance for age of a used battery: it never had more than its health."""
    return computed(
        f"{health.key}.{age.key.rsplit('.', 1)[-1]}", age.name, min(age.number, health.number), "%",
        "min({k_age}, {SoH})", {"k_age": age, "SoH": health}, phrase("terms.names.bought_used"),
    )  # fmt: skip


def _used_figures(
    f: dict[str, Figure], assumptions: Assumptions, bank: Bank, start_wear: float, at: str, entry: str
) -> None:
    """``start_wear`` of a battery that is bought used."""
    model = bank.model
    if model.used is None:
        return
    key = model.battery_class.key
    stands = cycles_at_depth(model.cycles, assumptions.value(f"cycle_exponent.{key}"), f["dod"].number)
    made = datasheet(
        f"{at}.cycles_made",
        phrase("banks.bank_figures.cycles_already_used"),
        model.used.cycles_made,
        "cycles",
        entry,
    )
    age = datasheet(f"{at}.age_years", phrase("terms.names.age"), model.used.age_years, "years", entry)
    n = Figure(f"{at}.cycles_stood", phrase("banks.bank_figures.cycles_stood"), stands, "cycles",
    REFERENCE,
               source=phrase("banks.bank_figures.cycles_stood_source"))  # fmt: skip
    life = assumptions.figure(f"calendar_years.{key}")
    health = datasheet(f"{at}.soh", phrase("banks.bank_figures.soh"), model.health, "%", entry)
    f["start_wear"] = computed(
        f"{at}.start_wear", phrase("banks.bank_figures.start_wear"), start_wear, "%",
        "max({n} / {N} + {age} / {L}, (1 − {SoH}) / 0.2)",
        {"n": made, "N": n, "age": age, "L": life, "SoH": health},
        phrase("banks.bank_figures.start_wear_source"),
    )  # fmt: skip
