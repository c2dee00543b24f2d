"""Temperatures for charging, use and storage, and what may be done about a cold place."""

from collections.abc import Iterator, Mapping
from typing import Any

from vast_harbor.core.battery.temperature import FREEZING_MARGIN_K, freezing_point_c
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.stops.banks.checks.check import CARE, STOP, Build, Check, Remedy
from vast_harbor.core.stops.banks.criteria import HEATER, WAIT
from vast_harbor.core.weather.climate import LIVING


def checks(build: Build) -> Iterator[Check]:
    """Charging in the cold and the heat, use, storage, and freezing.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _charging(build)
    yield from _use(build)
    yield from _storage(build)
    if build.lead:
        yield _freezing(build)


def _limit(build: Build, key: str, name: str, celsius: float) -> Figure:
    return build.of_entry(key, name, celsius, "°C")


def _charging(build: Build) -> Iterator[Check]:
    model, warmest = build.bank.model, build.warmest
    low = _limit(build, "charge_min_c", "Coldest for charging", model.charge_c[0])
    high = _limit(build, "charge_max_c", "Warmest for charging", model.charge_c[1])
    yield from _cold_charge(build, low)
    yield build.compare_to_limit(
        "hot_charge", "Warm while charged", warmest, high, "{x} at the warmest; it may be charged up to "
            "{limit}.",
        "At {x} it is warmer than it should be while charged: {limit} are the most.", CARE,
        "Shade and air the locker, or charge in the cool of the day.",
    )  # fmt: skip


def _cold_charge(build: Build, low: Figure) -> Iterator[Check]:
    model, coldest, answer = build.bank.model, build.coldest, build.criteria.cold_answer
    name = "Cold while charged"
    if answer == HEATER:
        watts = build.of_entry("heater_w", "Its heater", model.heater_w, "W")
        most = computed(
            f"{build.at}.heater_day", "Heater round the clock, at most",
            watts.number * build.bank.units * 24,
            "Wh", "{W} · {n} · 24", {"W": watts, "n": build.figures["units"]},
            "Upper bound: it heats only while it is below 5 °C",
        )  # fmt: skip
        yield Check(
            "cold_heater", name, CARE,
            Sentence(
                "At {T} its heaters take the first charge power, up to {most} a day if they run without a "
                "pause. That energy is not in the day above.", {"T": coldest, "most": most}),
            "Prefer a warmer place where there is one.", coldest, low,
        )  # fmt: skip
        return
    if answer == WAIT:
        gain = build.assumptions.figure("afternoon_k")
        afternoon = computed(
            f"{build.at}.afternoon_c", "Battery in the afternoon of the coldest day",
            coldest.number + gain.number, "°C", "{T} + {ΔT}", {"T": coldest, "ΔT": gain},
        )  # fmt: skip
        yield Check(
            "cold_wait", name, CARE,
            Sentence(
                "At {T} its BMS takes no charge; by your house rule it waits for the afternoon, when it is "
                "at {afternoon}. The trial shows what it misses.", {"T": coldest, "afternoon": afternoon}),
            "A charger that waits; a warm place or a heated model where the afternoons are too cold.",
            coldest, low, remedies=_remedies(build),
        )  # fmt: skip
        return
    harm = "it takes no charge" if build.lead else "lithium cells are damaged by charge below freezing"
    broken = f"At {{x}} it must not be charged: {harm}."
    if model.heater_w is not None:
        broken += " Your house rule does not count on its heater."
    yield build.compare_to_limit(
        "cold_charge", name, coldest, low, "{x} at the coldest; it may be charged from {limit}.",
        broken, CARE if build.lead else STOP,
        "Move it to a warm place, choose a model with a heater, or stay with lead-acid."
        if model.heater_w is None else "Move it to a warm place, or stay with lead-acid.",
        is_minimum=True, remedies=_remedies(build),
    )  # fmt: skip
    bms = model.bms
    if build.criteria.cold_charge.broken and model.heater_w is None and bms and not bms.stops_cold_charge:
        yield Check(
            "cold_unguarded", "Guard against charging in the cold", STOP,
            Sentence("Its BMS does not stop a charge in the cold: nothing does."),
            "A charger with a temperature sensor that stops, or another model.",
        )  # fmt: skip


def _use(build: Build) -> Iterator[Check]:
    model = build.bank.model
    least, most = model.limits.discharge_c or model.battery_class.discharge_c
    cold = _limit(build, "use_min_c", "Coldest for use", least)
    yield build.compare_to_limit(
        "cold_use", "Cold while used", build.coldest, cold, "{x} at the coldest; it may be used from "
            "{limit}.",
        "At {x} it must not be used: {limit} are the least.", STOP, "A warmer place.", is_minimum=True,
    )  # fmt: skip
    if build.warmest.number > most:
        yield build.compare_to_limit(
            "hot_use", "Warm while used", build.warmest, _limit(build, "use_max_c", "Warmest for use", most),
            "", "At {x} it is too warm to be used: {limit} are the most.", STOP, "A cooler, aired place.",
        )  # fmt: skip


def _storage(build: Build) -> Iterator[Check]:
    model, rest = build.bank.model, build.rest_temperature()
    least, most = model.limits.storage_c or model.battery_class.storage_c
    name = "Stored the rest of the year"
    if rest.number > most:
        yield build.compare_to_limit(
            "storage", name, rest, _limit(build, "store_max_c", "Warmest for storage", most), "",
            "Stored at {x}, warmer than the {limit} of its maker: it ages for nothing.", CARE,
            "A cool place, and lithium at half charge.",
        )  # fmt: skip
        return
    yield build.compare_to_limit(
        "storage", name, rest, _limit(build, "store_min_c", "Coldest for storage", least),
        "{x} on the mean; it may be stored from {limit}. Single nights are colder.",
        "Stored at {x} on the mean, colder than the {limit} of its maker.", CARE,
        "Take it out and keep it in the house over winter.", is_minimum=True,
    )  # fmt: skip


def _freezing(build: Build) -> Check:
    floor = build.criteria.floor
    point = freezing_point_c(floor)
    freezes = Figure(
        f"{build.at}.freezes_c", f"Freezing point at {floor:.0%} charge", point, "°C", REFERENCE,
        source="Rested electrolyte, linear between its points",
    )  # fmt: skip
    warn = computed(
        f"{build.at}.freeze_warn_c", "Warned of below", point + FREEZING_MARGIN_K, "°C", "{T_f} + 5",
        {"T_f": freezes},
    )  # fmt: skip
    return build.compare_to_limit(
        "freezing", "Freezing", build.coldest, warn, f"Discharged to {floor:.0%} it freezes at {{point}}.",
        f"Discharged to {floor:.0%} it freezes at {{point}}; the battery is used at {{x}}.", CARE,
        "Keep it fuller or warmer. Never charge a frozen battery.", is_minimum=True, point=freezes,
    )  # fmt: skip


def _remedies(build: Build) -> tuple[Remedy, ...]:
    """What may be done about a cold place, each with its price."""
    if build.lead:
        return ()
    out: list[Remedy] = []
    assume, plan = build.assumptions, build.plan
    room = assume.figure("room_c")
    if plan.place != LIVING:
        out.append(_indoors(build, room))
    gain, price = assume.figure("box_gain_k"), assume.figure("box_price")
    warmer = computed(
        f"{build.at}.boxed_c", "Battery in an insulated box", build.coldest.number + gain.number, "°C",
        "{T} + {ΔT}", {"T": build.coldest, "ΔT": gain},
    )  # fmt: skip
    enough = warmer.number >= build.bank.model.charge_c[0]
    says = "An insulated box: some degrees warmer while it is used, "
    says += "enough here." if enough else "not enough here."
    out.append(Remedy("box", says, price, _on_cold_days(build, gain.number)))
    out += _models(build)
    out.append(
        Remedy(
            "later", "Charge later in the day, when the sun has warmed it: only where the afternoon is above "
            "freezing, and with a charger that waits.",
        )
    )  # fmt: skip
    return tuple(out)


def _indoors(build: Build, room: Figure) -> Remedy:
    plan, per_m = build.plan, build.assumptions.figure("cable_price")
    metres = plan.locker.second_cable_m or 2.0
    length = (
        build.entered("rig", "locker2_cable_m", "To the second compartment", metres, "m")
        if plan.locker.second_cable_m
        else Figure(f"{build.at}.indoors_m", "Cable more, a guess", metres, "m", REFERENCE, source="A guess")
    )
    price = computed(
        f"{build.at}.indoors", "Cable to a place indoors", 2 * metres * per_m.number, "money", "2 · {L} "
            "· {P_m}",
        {"L": length, "P_m": per_m}, "Both ways",
    )  # fmt: skip
    edits: list[Mapping[str, Any]] = [{"op": "replace", "path": "/rig/place", "value": LIVING}]
    if plan.battery_c is not None:
        edits.append({"op": "replace", "path": "/rig/battery_c", "value": None})
    edits += _on_cold_days(build, None)
    longer = build.assumptions.value("main_cable_m") + metres
    edits.append({"op": "add", "path": "/plan/overrides/main_cable_m", "value": longer})
    return Remedy(
        "indoors",
        "Move it indoors, where the room keeps it warm while somebody is there.",
        price,
        tuple(edits),
    )


def _on_cold_days(build: Build, gain: float | None) -> tuple[Mapping[str, Any], ...]:
    """Warmer by so much on every day too cold for charging [K]; else what is stated goes."""
    least = build.bank.model.charge_c[0]
    out = []
    for day in build.used_days:
        if day.battery_c.number < least and (gain is not None or day.type.battery_c is not None):
            value = None if gain is None else round(day.battery_c.number + gain, 1)
            path = f"{build.plan.type_path(day.type)}/battery_c"
            out.append({"op": "replace", "path": path, "value": value})
    return tuple(out)


def _models(build: Build) -> Iterator[Remedy]:
    plan, bank = build.plan, build.bank
    heated = [
        m
        for m in plan.models.values()
        if m.battery_class.key == "lfp" and m.heater_w and m.unit_class_v == bank.model.unit_class_v
        and m.rated_ah * bank.parallel >= bank.rated_ah * 0.9
    ]  # fmt: skip
    factor = build.assumptions.figure("price_factor")

    def cost(price: float, own: bool) -> float:
        return price * (1.0 if own else factor.number)

    if heated and build.assumptions.value("cold_heater") >= 1:
        model = min(heated, key=lambda m: m.price)
        more = (cost(model.price, model.own) - build.figures["unit_price"].number) * bank.units
        yield Remedy(
            "heated", f"A heated model: {model.title}; its heater takes the first charge power.",
            Figure(f"{build.at}.heated", "Dearer by", more, "money", REFERENCE, source="At list price"),
            ({"op": "replace", "path": f"{build.path}/model", "value": model.id},),
        )  # fmt: skip
    yield Remedy(
        "lead", "Stay with lead-acid (the AGM bank of least lifetime cost): it charges in the "
                "cold, slowly.",
        None,
        tuple(
            {"op": "replace", "path": f"{build.path}/{name}", "value": value}
            for name, value in (("battery_class", "agm"), ("model", None), ("series", None), ("parallel",
            None),
                                ("unit_price", None))
        ),
    )  # fmt: skip
