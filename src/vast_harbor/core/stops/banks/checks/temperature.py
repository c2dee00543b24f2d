"""Temperatures for charging, use and storage, and what may be done about a cold place."""

from collections.abc import Iterator, Mapping
from typing import Any

from vast_harbor.core.battery.temperature import FREEZING_MARGIN_K, freezing_point_c
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.plan_place import THROUGH_INSULATION
from vast_harbor.core.stops.banks.checks.check import BLOCKING, CAUTION, Build, Check, Remedy
from vast_harbor.core.stops.banks.criteria import HEATER, WAIT
from vast_harbor.core.stops.banks.reasons import COLD_UNGUARDED, will_not_do
from vast_harbor.core.weather.climate import LIVING
from vast_harbor.phrases import phrase


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
    low = _limit(
        build, "charge_min_c", phrase("checks.temperature.lowest_charging_temperature"), model.charge_c[0]
    )
    high = _limit(
        build, "charge_max_c", phrase("checks.temperature.highest_charging_temperature"), model.charge_c[1]
    )
    yield from _cold_charge(build, low)
    yield build.compare_to_limit(
        "hot_charge",
        phrase("checks.temperature.hot_charge_title"),
        warmest,
        high,
        phrase("checks.temperature.hot_charge_holds"),
        phrase("checks.temperature.hot_charge_broken"),
        phrase("checks.temperature.hot_charge_remedy"),
    )


def _afternoon_gain(build: Build) -> Figure:
    """How much warmer than the mean of the day the battery is in the afternoon."""
    gain, locker = build.assumptions.figure("afternoon_k"), build.plan.locker
    if not locker.insulated:
        return gain
    return computed(
        f"{build.at}.afternoon_k", phrase("checks.temperature.afternoon_insulated"),
        build.criteria.afternoon_k, "K", f"{{ΔT}} · {THROUGH_INSULATION:g}", {"ΔT": gain},
        phrase("checks.temperature.afternoon_insulated_source"),
    )  # fmt: skip


def _cold_charge(build: Build, low: Figure) -> Iterator[Check]:
    model, coldest, answer = build.bank.model, build.coldest, build.criteria.cold_answer
    name = phrase("checks.temperature.charging_cold")
    if answer == HEATER:
        watts = build.of_entry("heater_w", phrase("terms.names.built_heater"), model.heater_w, "W")
        most = computed(
            f"{build.at}.heater_day", phrase("checks.temperature.heater_day"),
            watts.number * build.bank.units * 24,
            "Wh", "{W} · {n} · 24", {"W": watts, "n": build.figures["units"]},
            phrase("checks.temperature.heater_day_source"),
        )  # fmt: skip
        yield Check(
            "cold_heater", name, CAUTION,
            Sentence(
                phrase("checks.temperature.cold_heater"), {"T": coldest, "most": most}),
            phrase("checks.temperature.cold_heater_remedy"), coldest, low,
        )  # fmt: skip
        return
    if answer == WAIT:
        gain = _afternoon_gain(build)
        afternoon = computed(
            f"{build.at}.afternoon_c", phrase("checks.temperature.afternoon_c"),
            coldest.number + gain.number, "°C", "{T} + {ΔT}", {"T": coldest, "ΔT": gain},
        )  # fmt: skip
        yield Check(
            "cold_wait", name, CAUTION,
            Sentence(
                phrase("checks.temperature.cold_wait"), {"T": coldest, "afternoon": afternoon}),
            phrase("checks.temperature.cold_wait_remedy"),
            coldest, low, remedies=_remedies(build),
        )  # fmt: skip
        return
    harm = (
        phrase("checks.temperature.accepts_charge")
        if build.lead
        else phrase("checks.temperature.charging_below_freezing_damages")
    )
    broken = phrase("checks.temperature.charge", harm=harm)
    if model.heater_w is not None:
        broken += phrase("checks.temperature.house_rule_rely_heater")
    yield build.compare_to_limit(
        "cold_charge", name, coldest, low, phrase("checks.temperature.cold_charge_holds"),
        broken, phrase("checks.temperature.cold_charge_remedy")
        if model.heater_w is None else phrase("checks.temperature.cold_charge_move_warm_place_stay_remedy"),
        is_minimum=True, remedies=_remedies(build),
    )  # fmt: skip
    if will_not_do(COLD_UNGUARDED, build.criteria):
        yield _unguarded(build, low)


def _unguarded(build: Build, low: Figure) -> Check:
    """What charges in the cold, with nothing to stop it: in use, else while nobody is there."""
    title = phrase("checks.temperature.cold_unguarded_title")
    left = derating.left_temperature(build.plan, build.assumptions)
    if build.criteria.cold_charge.broken or left is None:
        says = Sentence(phrase("checks.temperature.cold_unguarded"))
        remedy = phrase("checks.temperature.cold_unguarded_remedy")
        return Check(COLD_UNGUARDED, title, BLOCKING, says, remedy)
    says = Sentence(phrase("checks.temperature.cold_left"), {"T": left, "low": low})
    return Check(
        COLD_UNGUARDED, title, BLOCKING, says, phrase("checks.temperature.cold_left_remedy"), left, low
    )


def _use(build: Build) -> Iterator[Check]:
    model = build.bank.model
    least, most = model.limits.discharge_c or model.battery_class.discharge_c
    cold = _limit(build, "use_min_c", phrase("checks.temperature.lowest_operating_temperature"), least)
    yield build.compare_to_limit(
        "cold_use",
        phrase("checks.temperature.cold_use_title"),
        build.coldest,
        cold,
        phrase("checks.temperature.cold_use_holds"),
        phrase("checks.temperature.cold_use_broken"),
        phrase("checks.temperature.cold_use_remedy"),
        is_minimum=True,
    )
    if will_not_do("hot_use", build.criteria):
        yield build.compare_to_limit(
            "hot_use",
            phrase("checks.temperature.hot_use_title"),
            build.warmest,
            _limit(build, "use_max_c", phrase("checks.temperature.highest_operating_temperature"), most),
            "",
            phrase("checks.temperature.hot_use_broken"),
            phrase("checks.temperature.hot_use_remedy"),
        )


def _storage(build: Build) -> Iterator[Check]:
    model, rest = build.bank.model, build.rest_temperature()
    least, most = model.limits.storage_c or model.battery_class.storage_c
    name = phrase("checks.temperature.storage_outside_season")
    if rest.number > most:
        yield build.compare_to_limit(
            "storage",
            name,
            rest,
            _limit(build, "store_max_c", phrase("checks.temperature.highest_storage_temperature"), most),
            "",
            phrase("checks.temperature.storage_broken"),
            phrase("checks.temperature.storage_remedy"),
        )
        return
    yield build.compare_to_limit(
        "storage",
        name,
        rest,
        _limit(build, "store_min_c", phrase("checks.temperature.lowest_storage_temperature"), least),
        phrase("checks.temperature.storage_holds"),
        phrase("checks.temperature.storage_stored_average_colder_than_broken"),
        phrase("checks.temperature.storage_take_out_keep_house_remedy"),
        is_minimum=True,
    )


def _freezing(build: Build) -> Check:
    floor = build.criteria.floor
    point = freezing_point_c(floor)
    freezes = Figure(
        f"{build.at}.freezes_c",
        phrase("checks.temperature.freezes_c", floor=f"{floor:.0%}"),
        point,
        "°C",
        REFERENCE,
        source=phrase("checks.temperature.freezes_c_source"),
    )
    warn = computed(
        f"{build.at}.freeze_warn_c",
        phrase("checks.temperature.freeze_warn_c"),
        point + FREEZING_MARGIN_K,
        "°C",
        "{T_f} + 5",
        {"T_f": freezes},
    )
    return build.compare_to_limit(
        "freezing",
        phrase("checks.temperature.freezing_title"),
        build.coldest,
        warn,
        phrase("checks.temperature.freezing_holds", floor=f"{floor:.0%}"),
        phrase("checks.temperature.freezing_broken", floor=f"{floor:.0%}"),
        phrase("checks.temperature.freezing_remedy"),
        is_minimum=True,
        point=freezes,
    )


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
        f"{build.at}.boxed_c", phrase("checks.temperature.boxed_c"), build.coldest.number + gain.number, "°C",
        "{T} + {ΔT}", {"T": build.coldest, "ΔT": gain},
    )  # fmt: skip
    enough = warmer.number >= build.bank.model.charge_c[0]
    says = phrase("checks.temperature.put_insulated_box_keeps")
    says += phrase("checks.temperature.enough") if enough else phrase("checks.temperature.not_enough_here")
    out.append(Remedy("box", says, price, _on_cold_days(build, gain.number)))
    out += _models(build)
    out.append(
        Remedy(
            "later", phrase("checks.temperature.later"),
        )
    )  # fmt: skip
    return tuple(out)


def _indoors(build: Build, room: Figure) -> Remedy:
    plan, per_m = build.plan, build.assumptions.figure("cable_price")
    metres = plan.locker.second_cable_m or 2.0
    length = (
        build.entered("rig", "locker2_cable_m", phrase("terms.names.second_compartment"), metres, "m")
        if plan.locker.second_cable_m
        else Figure(
            f"{build.at}.indoors_m",
            phrase("checks.temperature.indoors_m"),
            metres,
            "m",
            REFERENCE,
            source=phrase("checks.temperature.indoors_m_source"),
        )
    )
    price = computed(
        f"{build.at}.indoors",
        phrase("checks.temperature.indoors"),
        2 * metres * per_m.number,
        "money",
        "2 · {L} · {P_m}",
        {"L": length, "P_m": per_m},
        phrase("checks.temperature.indoors_source"),
    )
    edits: list[Mapping[str, Any]] = [{"op": "replace", "path": "/rig/place", "value": LIVING}]
    if plan.battery_c is not None:
        edits.append({"op": "replace", "path": "/rig/battery_c", "value": None})
    edits += _on_cold_days(build, None)
    longer = build.assumptions.value("main_cable_m") + metres
    edits.append({"op": "add", "path": "/plan/overrides/main_cable_m", "value": longer})
    return Remedy("indoors", phrase("checks.temperature.move_indoors_where_heating"), price, tuple(edits))


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
            "heated",
            phrase("checks.temperature.heated", title=model.title),
            Figure(
                f"{build.at}.heated",
                phrase("terms.names.price_difference"),
                more,
                "money",
                REFERENCE,
                source=phrase("checks.temperature.heated_source"),
            ),
            ({"op": "replace", "path": f"{build.path}/model", "value": model.id},),
        )
    yield Remedy(
        "lead", phrase("checks.temperature.lead"),
        None,
        tuple(
            {"op": "replace", "path": f"{build.path}/{name}", "value": value}
            for name, value in (("battery_class", "agm"), ("model", None), ("series", None), ("parallel",
            None),
                                ("unit_price", None))
        ),
    )  # fmt: skip
