"""Banks: real batteries in series and parallel, and what they deliver in this rig."""

from collections.abc import Mapping
from dataclasses import dataclass

from vast_harbor.core import factors
from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.battery import Bank, BatteryModel, series_count
from vast_harbor.core.chemistry import BatteryClass
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.need import usable_energy
from vast_harbor.core.peukert import rate_factor
from vast_harbor.core.plan import Candidate, Plan, Reference
from vast_harbor.core.proposals import LEAD_ACID_STRINGS, Fit, fit, smallest
from vast_harbor.core.stops.need import Need, class_volts
from vast_harbor.core.temperature import FREEZING_MARGIN_K, freezing_point_c
from vast_harbor.core.workings import (
    OVERRIDE,
    REFERENCE,
    TYPED,
    Figure,
    Finding,
    Sentence,
    computed,
    datasheet,
    typed,
)

NEW, END_OF_LIFE = 1.0, 0.8


@dataclass(frozen=True, slots=True)
class BankFigures:
    """What one candidate is and gives.

    Attributes:
        candidate: as entered.
        battery_class: its class.
        bank: the layout; None when it cannot be built, and then there are no figures.
        proposed_model, proposed_parallel: whether the tool chose the model, the strings.
        findings: what is to be looked at.
        figures: by name: ``series``, ``parallel``, ``units``, ``volts``, ``nameplate_ah``,
            ``nameplate_wh``; the factors ``dod``, ``temperature``, ``rate`` and ``exponent``;
            ``mean_current`` [A]; ``usable_wh`` at the ageing allowance, ``usable_new_wh``,
            ``usable_end_wh`` at 80 % of its capacity, ``usable_ah``; ``kg`` and ``kg_change``
            against the old bank (missing without one); ``unit_price``, ``purchase``, ``extras``.
    """

    candidate: Candidate
    battery_class: BatteryClass
    bank: Bank | None
    proposed_model: bool
    proposed_parallel: bool
    findings: tuple[Finding, ...]
    figures: Mapping[str, Figure]

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]


@dataclass(frozen=True, slots=True)
class Proposal:
    """The bank that the tool would put up for a class, and how each model of it could serve.

    Attributes:
        battery_class: the class.
        best: the smallest that covers the need; None when no model makes the system voltage.
        fits: every model that makes the system voltage.
        unfit: models that do not, with the reason.
    """

    battery_class: BatteryClass
    best: Fit | None
    fits: tuple[Fit, ...]
    unfit: tuple[tuple[BatteryModel, str], ...]


@dataclass(frozen=True, slots=True)
class Banks:
    """All candidates, and the proposals by battery class."""

    candidates: tuple[BankFigures, ...]
    proposals: Mapping[str, Proposal]
    old_kg: Figure | None
    findings: tuple[Finding, ...]


def evaluate(plan: Plan, reference: Reference, assumptions: Assumptions, need: Need) -> Banks:
    """Every candidate and a proposal for each class.

    Args:
        plan: what the owner entered.
        reference: shipped data.
        assumptions: what holds for the plan.
        need: the need in figures.

    Returns:
        The banks with their workings.
    """
    old = old_bank_kg(plan)
    proposals = {k: _propose(plan, assumptions, need, c) for k, c in reference.classes.items()}
    candidates = tuple(
        _candidate(plan, reference, assumptions, need, proposals, c, i, old)
        for i, c in enumerate(plan.candidates)
    )
    findings: tuple[Finding, ...] = ()
    if not candidates:
        findings = (Finding("no_candidates", "note", "banks",
                            Sentence("No bank is put up for comparison yet."),
                            "Add one of the proposals below, or any model of the catalogue."),)
    return Banks(candidates, proposals, old, findings)


def old_bank_kg(plan: Plan) -> Figure | None:
    """Weight of the bank that is there now [kg]; None without one."""
    old = plan.old_bank
    if old is None:
        return None
    n = typed("rig.old.units", "Old batteries", old.series * old.parallel, "1", "/old_bank")
    if old.unit_kg is not None:
        unit = typed("rig.old.unit_kg", "Weight of one old battery", old.unit_kg, "kg", "/old_bank/unit_kg")
    else:
        density = Figure("rig.old.density", "Energy density of the class", old.battery_class.wh_per_kg,
                         "Wh/kg", REFERENCE, source="Reference value of the battery class")
        volts = typed("rig.old.unit_v", "Volts of one", old.unit_v, "V", "/old_bank/unit_v")
        ah = typed("rig.old.unit_ah", "Label of one", old.unit_ah, "Ah", "/old_bank/unit_ah")
        unit = computed("rig.old.unit_kg", "Weight of one old battery, estimated",
                        old.unit_v * old.unit_ah / old.battery_class.wh_per_kg, "kg",
                        "{V} · {Ah} / {density}", {"V": volts, "Ah": ah, "density": density},
                        "Estimated from its class: weigh it to be sure")
    return computed("rig.old.kg", "Weight of the old bank", n.number * unit.number, "kg",
                    "{n} · {kg}", {"n": n, "kg": unit})


def _exponent(assumptions: Assumptions, model: BatteryModel) -> float:
    key = f"peukert.{model.battery_class.key}"
    if assumptions.overridden(key) or model.label_exponent is None:
        return assumptions.value(key)
    return model.label_exponent


def _propose(plan: Plan, assumptions: Assumptions, need: Need, battery_class: BatteryClass) -> Proposal:
    class_need = need.classes[battery_class.key]
    k_t, ageing = class_need.temperature.number, class_need.ageing.number
    dod = class_need.dod.number
    amps = class_need.mean_current.number

    def usable(bank: Bank) -> float:
        rate = rate_factor(bank.rated_ah, bank.model.rated_hours,
                           _exponent(assumptions, bank.model), amps)
        return usable_energy(bank.nameplate_wh, dod, k_t, rate, ageing)

    models = [m for m in plan.models.values() if m.battery_class.key == battery_class.key]
    fits, unfit = [], []
    for model in models:
        if found := fit(model, plan.system_v, need.energy.number, usable):
            fits.append(found)
        else:
            unfit.append((model, why_unfit(model, plan.system_v)))
    best = smallest(models, plan.system_v, need.energy.number, usable)
    return Proposal(battery_class, best, tuple(fits), tuple(unfit))


def why_unfit(model: BatteryModel, system_v: float) -> str:
    """Why a model cannot make the system voltage, in one sentence."""
    try:
        series = series_count(system_v, model.unit_class_v)
    except InvalidInput as error:
        return error.message
    return (f"{system_v:g} V takes {series} of them in series, but the maker permits "
            f"{model.max_series}.")


def _layout(plan: Plan, candidate: Candidate, model: BatteryModel, proposals: Mapping[str, Proposal]) -> Bank:
    """The layout of a candidate, strings filled in where they follow the need."""
    series = candidate.series or series_count(plan.system_v, model.unit_class_v)
    if series * model.unit_class_v != plan.system_v:
        total = series * model.unit_class_v
        raise InvalidInput("series", f"{series} × {model.unit_class_v:g} V in series make {total:g} V, "
                                     f"but the system has {plan.system_v:g} V.")
    if series > model.max_series:
        raise InvalidInput("series", why_unfit(model, plan.system_v))
    parallel = candidate.parallel
    if parallel is None:
        fits = proposals[model.battery_class.key].fits
        parallel = next((f.bank.parallel for f in fits if f.bank.model.id == model.id), 1)
    return Bank(model, series, parallel)


def _candidate(plan: Plan, reference: Reference, assumptions: Assumptions, need: Need,
               proposals: Mapping[str, Proposal], candidate: Candidate, index: int,
               old_kg: Figure | None) -> BankFigures:
    battery_class = reference.classes[candidate.battery_class]
    model: BatteryModel | None
    if candidate.model is None:
        best = proposals[battery_class.key].best
        model = best.bank.model if best else None
    else:
        model = plan.models[candidate.model]
        battery_class = model.battery_class
    flags = (candidate.model is None, candidate.parallel is None)
    if model is None:
        message = (f"No {battery_class.short} battery of the catalogue makes {plan.system_v:g} V "
                   "within the maker's limits.")
        return BankFigures(candidate, battery_class, None, *flags,
                           (_cannot(candidate, message, "Choose another class."),), {})
    try:
        bank = _layout(plan, candidate, model, proposals)
    except InvalidInput as error:
        remedy = "Choose a unit that divides the system voltage, or another number in series."
        return BankFigures(candidate, battery_class, None, *flags,
                           (_cannot(candidate, error.message, remedy),), {})
    figures = _figures(plan, assumptions, need, candidate, bank, index, old_kg)
    findings = _findings(plan, need, candidate, bank, figures)
    return BankFigures(candidate, battery_class, bank, *flags, findings, figures)


def _cannot(candidate: Candidate, message: str, remedy: str) -> Finding:
    return Finding("cannot_build", "stop", "banks", Sentence(message.replace("{", "{{")), remedy,
                   candidate.id)


def _figures(plan: Plan, assumptions: Assumptions, need: Need, candidate: Candidate, bank: Bank,
             index: int, old_kg: Figure | None) -> dict[str, Figure]:
    model, at, path = bank.model, f"bank.{candidate.id}", f"/candidates/{index}"
    entry = ("Your own entry: " if model.own else "Catalogue entry: ") + model.title
    class_need = need.classes[model.battery_class.key]
    f: dict[str, Figure] = {}
    f["series"] = Figure(f"{at}.series", "In series", bank.series, "batteries",
                         TYPED, path=f"{path}/series")
    f["parallel"] = Figure(f"{at}.parallel", "Strings in parallel", bank.parallel, "strings",
                           TYPED if candidate.parallel else REFERENCE, path=f"{path}/parallel",
                           source="" if candidate.parallel else "The fewest that cover the need")
    unit_v = datasheet(f"{at}.unit_v", "Nominal volts of one", model.nominal_v, "V", entry)
    unit_ah = datasheet(f"{at}.unit_ah", "Label of one", model.rated_ah, "Ah", entry,
                        f"Over {model.rated_hours:g} hours.")
    n_s, n_p = f["series"], f["parallel"]
    f["units"] = computed(f"{at}.units", "Batteries", bank.units, "batteries", "{n_s} · {n_p}",
                          {"n_s": n_s, "n_p": n_p})
    f["volts"] = computed(f"{at}.volts", "Nominal volts", bank.nominal_v, "V", "{n_s} · {V_unit}",
                          {"n_s": n_s, "V_unit": unit_v}, "In series volts add, amp-hours stay")
    f["nameplate_ah"] = computed(f"{at}.nameplate_ah", "Amp-hours by the label", bank.rated_ah, "Ah",
                                 "{n_p} · {Ah_unit}", {"n_p": n_p, "Ah_unit": unit_ah},
                                 "In parallel amp-hours add, volts stay")
    f["nameplate_wh"] = computed(f"{at}.nameplate_wh", "Energy by the label", bank.nameplate_wh, "Wh",
                                 "{V} · {Ah}", {"V": f["volts"], "Ah": f["nameplate_ah"]},
                                 "Wh = V · Ah")
    f["dod"], f["temperature"] = class_need.dod, class_need.temperature
    _rate_figures(f, assumptions, need, bank, at, entry, class_volts(plan, model.battery_class))
    _usable_figures(f, class_need.ageing, bank, at)
    unit_kg = datasheet(f"{at}.unit_kg", "Weight of one", model.kg, "kg", entry)
    f["kg"] = computed(f"{at}.kg", "Weight", bank.kg, "kg", "{n} · {kg}",
                       {"n": f["units"], "kg": unit_kg})
    if old_kg is not None:
        f["kg_change"] = computed(f"{at}.kg_change", "Change of weight", bank.kg - old_kg.number, "kg",
                                  "{kg_new} − {kg_old}", {"kg_new": f["kg"], "kg_old": old_kg})
    _money_figures(f, assumptions, candidate, bank, at, path, entry)
    return f


def _rate_figures(f: dict[str, Figure], assumptions: Assumptions, need: Need, bank: Bank, at: str,
                  entry: str, volts: Figure) -> None:
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
        exponent = computed(f"{at}.k", "Peukert exponent", model.label_exponent, "1",
                            "log({t_2} / {t_1}) / log(({Ah_1} / {t_1}) / ({Ah_2} / {t_2}))", parts,
                            f"{factors.PEUKERT}, from the two ratings of the label",
                            low=exponent.low, high=exponent.high)
    hours = datasheet(f"{at}.r", "Rated time", model.rated_hours, "h", entry)
    current = factors.mean_current(at, need.area, need.squared, volts)
    draws = current.number > 0
    f["exponent"], f["mean_current"] = exponent, current
    f["rate"] = computed(
        f"{at}.k_rate", "Rate factor",
        rate_factor(bank.rated_ah, hours.number, exponent.number, current.number), "1",
        "min(1, ({Ah} / {r} / {I_mean})^({k} − 1))" if draws else "1",
        {"Ah": f["nameplate_ah"], "r": hours, "I_mean": current, "k": exponent}, factors.PEUKERT)


def _usable_figures(f: dict[str, Figure], ageing: Figure, bank: Bank, at: str) -> None:
    source = "usable = nameplate · DoD · k_T · k_rate · k_age"
    ages = {
        "usable_wh": ("Usable energy", ageing),
        "usable_new_wh": ("Usable energy, new", Figure(f"{at}.age_new", "Capacity when new", NEW, "1",
                                                       REFERENCE, source="Full capacity")),
        "usable_end_wh": ("Usable energy at the end of its life",
                          Figure(f"{at}.age_end", "Capacity at the end of life", END_OF_LIFE, "1",
                                 REFERENCE, source="80 % of the capacity when new")),
    }
    for name, (title, age) in ages.items():
        f[name] = computed(
            f"{at}.{name}", title,
            usable_energy(bank.nameplate_wh, f["dod"].number, f["temperature"].number,
                          f["rate"].number, age.number),
            "Wh", "{E_label} · {DoD} · {k_T} · {k_rate} · {k_age}",
            {"E_label": f["nameplate_wh"], "DoD": f["dod"], "k_T": f["temperature"],
             "k_rate": f["rate"], "k_age": age}, source)
    f["usable_ah"] = computed(f"{at}.usable_ah", "Usable amp-hours",
                              f["usable_wh"].number / bank.nominal_v, "Ah", "{E_usable} / {V}",
                              {"E_usable": f["usable_wh"], "V": f["volts"]},
                              "Compare amp-hours only at the same volts")


def _money_figures(f: dict[str, Figure], assumptions: Assumptions, candidate: Candidate, bank: Bank,
                   at: str, path: str, entry: str) -> None:
    model = bank.model
    if candidate.unit_price is not None:
        f["unit_price"] = typed(f"{at}.unit_price", "Price of one, as quoted to you",
                                candidate.unit_price, "money", f"{path}/unit_price")
    elif model.own:
        f["unit_price"] = datasheet(f"{at}.unit_price", "Price of one", model.price, "money", entry)
    else:
        listed = datasheet(f"{at}.list_price", "List price of one", model.price, "money", entry,
                           "Made up, of the size that such batteries cost.")
        factor = assumptions.figure("price_factor")
        f["unit_price"] = computed(f"{at}.unit_price", "Price of one", model.price * factor.number,
                                   "money", "{P_list} · {f_price}", {"P_list": listed, "f_price": factor})
    f["purchase"] = computed(f"{at}.purchase", "Batteries to buy", bank.units * f["unit_price"].number,
                             "money", "{n} · {P}", {"n": f["units"], "P": f["unit_price"]})
    extras = {
        f"X{i}": typed(f"{at}.extra.{i}", extra.name or "Extra", extra.price, "money",
                       f"{path}/extras/{i - 1}/price", "Bought once.")
        for i, extra in enumerate(candidate.extras, 1)
    }
    f["extras"] = computed(f"{at}.extras", "Extras", sum(e.price for e in candidate.extras), "money",
                           " + ".join(f"{{{s}}}" for s in extras) or "0", extras,
                           "What must be bought besides the batteries: charger, box, heater, cable")


def _findings(plan: Plan, need: Need, candidate: Candidate, bank: Bank,
              f: Mapping[str, Figure]) -> tuple[Finding, ...]:
    found: list[Finding] = []
    model, battery_class = bank.model, bank.model.battery_class

    def add(code: str, severity: str, says: str, remedy: str, **figures: Figure) -> None:
        found.append(Finding(code, severity, "banks", Sentence(says, figures), remedy, candidate.id))

    gap = need.energy.number - f["usable_wh"].number
    if gap > 1e-6 * max(1.0, need.energy.number):
        short = computed(f"bank.{candidate.id}.short", "Short of the need", gap, "Wh",
                         "{E_need} − {E_usable}", {"E_need": need.energy, "E_usable": f["usable_wh"]})
        add("covers_need", "stop", "Gives {usable} usable, {short} short of the {need} needed.",
            "Add a string, choose a larger model, or plan for fewer nights.",
            usable=f["usable_wh"], short=short, need=need.energy)
    if bank.parallel > model.max_parallel:
        add("parallel_limit", "stop",
            f"{bank.parallel} strings in parallel, but the maker permits {model.max_parallel}.",
            "Use fewer strings of a larger model.")
    elif battery_class.is_lead_acid and bank.parallel > LEAD_ACID_STRINGS:
        add("many_strings", "care",
            f"{bank.parallel} lead-acid strings in parallel share the current badly.",
            "Prefer larger units, two or six volts, in fewer strings.")
    temperature = factors.battery_temperature(plan)
    if plan.battery_c < battery_class.charge_min_c and not model.heater_w:
        add("cold_charge", "stop",
            "At {T} it must not be charged: lithium cells are damaged by charge below freezing.",
            "Move it to a warm place, choose a model with a heater, or stay with lead-acid.",
            T=temperature)
    elif plan.battery_c < battery_class.charge_min_c:
        watts = datasheet(f"bank.{candidate.id}.heater_w", "Its heater", model.heater_w, "W", model.title)
        most = computed(f"bank.{candidate.id}.heater_day", "Heater round the clock, at most",
                        model.heater_w * bank.units * 24, "Wh", "{W} · {n} · 24",
                        {"W": watts, "n": f["units"]}, "Upper bound: it heats only while it is below 5 °C")
        add("cold_heater", "care",
            "At {T} its heaters take the first charge power, up to {most} a day if they run without a "
            "pause. That energy is not in the day above.",
            "Prefer a warmer place where there is one.", T=temperature, most=most)
    elif plan.battery_c > battery_class.charge_max_c:
        add("hot_charge", "care", "At {T} it is warmer than it should be while charged.",
            "Shade and air the locker, or charge in the cool of the day.", T=temperature)
    if battery_class.is_lead_acid:
        floor = 1 - f["dod"].number
        if plan.battery_c < freezing_point_c(floor) + FREEZING_MARGIN_K:
            add("freezing", "care",
                f"Discharged to {floor:.0%} it freezes at {freezing_point_c(floor):.0f} °C; the battery "
                "is used at {T}.", "Keep it fuller or warmer. Never charge a frozen battery.",
                T=temperature)
    return tuple(found)
