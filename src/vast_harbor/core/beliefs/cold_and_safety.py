"""Beliefs about the cold, the inverter and the air around a bank."""

from collections.abc import Iterator

from vast_harbor.core.beliefs.belief import FALSE, HALF, TRUE, Claim, Ground, Settled
from vast_harbor.core.figures.workings import Figure, computed, datasheet
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.phrases import phrase


def claims() -> Iterator[Claim]:
    """The beliefs of this module."""
    yield Claim(
        "lfp_fails_in_cold",
        phrase("beliefs.lfp_fails_in_cold.claim"),
        "banks",
        phrase("beliefs.lfp_fails_in_cold.needs"),
        _lfp_fails_in_cold,
    )
    yield Claim(
        "lead_better_in_cold",
        phrase("beliefs.lead_better_in_cold.claim"),
        "banks",
        phrase("beliefs.lead_better_in_cold.needs"),
        _lead_better_in_cold,
    )
    yield Claim(
        "dead_inverter_is_empty",
        phrase("beliefs.dead_inverter_is_empty.claim"),
        "banks",
        phrase("beliefs.dead_inverter_is_empty.needs"),
        _dead_inverter_is_empty,
    )
    yield Claim(
        "sealed_needs_no_air",
        phrase("beliefs.sealed_needs_no_air.claim"),
        "banks",
        phrase("beliefs.sealed_needs_no_air.needs"),
        _sealed_needs_no_air,
    )


def _lfp_fails_in_cold(ground: Ground) -> Settled | None:
    build = ground.lfp.banked.build if ground.lfp is not None else None
    if build is None:
        return None
    criteria = build.criteria
    charge = datasheet(
        "belief.lfp_fails_in_cold.charge", phrase("checks.temperature.lowest_charging_temperature"),
        criteria.cold_charge.limit, "°C", build.entry,
    )  # fmt: skip
    use = datasheet(
        "belief.lfp_fails_in_cold.use", phrase("checks.temperature.lowest_operating_temperature"),
        criteria.use_c[0], "°C", build.entry,
    )  # fmt: skip
    blocked = criteria.cold_charge.broken and criteria.cold_answer is None
    return Settled(
        TRUE if criteria.cold_use.broken else HALF if blocked else FALSE,
        phrase("beliefs.lfp_fails_in_cold.says"),
        {"coldest": build.coldest, "charge": charge, "use": use},
        {
            TRUE: phrase("beliefs.lfp_fails_in_cold.true"),
            HALF: phrase("beliefs.lfp_fails_in_cold.half"),
            FALSE: phrase("beliefs.lfp_fails_in_cold.false"),
        },
    )


def _lead_better_in_cold(ground: Ground) -> Settled | None:
    if ground.lfp is None or ground.lead is None:
        return None
    lead = _kept("lead", phrase("beliefs.lead_better_in_cold.lead"), ground.lead)
    lfp = _kept("lfp", phrase("beliefs.lead_better_in_cold.lfp"), ground.lfp)
    build = ground.lfp.banked.build
    blocked = build is not None and build.criteria.cold_charge.broken and build.criteria.cold_answer is None
    winner = ground.results.verdict.winner
    lead_wins = winner is not None and winner.banked.battery_class.is_lead_acid
    return Settled(
        TRUE if blocked and lead_wins else HALF if blocked else FALSE,
        phrase("beliefs.lead_better_in_cold.says"),
        {"lead": lead, "lfp": lfp},
        {
            TRUE: phrase("beliefs.lead_better_in_cold.true"),
            HALF: phrase("beliefs.lead_better_in_cold.half"),
            FALSE: phrase("beliefs.lead_better_in_cold.false"),
        },
    )


def _kept(key: str, name: str, compared: ComparedBank) -> Figure:
    factor = compared.banked["temperature"]
    return computed(f"belief.lead_better_in_cold.{key}", name, factor.number, "%", "{k_T}", {"k_T": factor})


def _dead_inverter_is_empty(ground: Ground) -> Settled | None:
    build = ground.lead.banked.build if ground.lead is not None else None
    if build is None or not build.criteria.has_inverter or build.criteria.sag is None:
        return None
    sag = build.criteria.sag
    volts = Figure("belief.dead_inverter_is_empty.volts", phrase("checks.current.sag_v"), sag.value, "V")
    cut = Figure("belief.dead_inverter_is_empty.cut", phrase("checks.current.lvc_v"), sag.limit, "V")
    return Settled(
        FALSE if sag.broken else TRUE,
        phrase("beliefs.dead_inverter_is_empty.says"),
        {"volts": volts, "cut": cut},
        {
            TRUE: phrase("beliefs.dead_inverter_is_empty.true"),
            FALSE: phrase("beliefs.dead_inverter_is_empty.false"),
        },
    )


def _sealed_needs_no_air(ground: Ground) -> Settled | None:
    build = ground.sealed.banked.build if ground.sealed is not None else None
    if build is None:
        return None
    criteria = build.criteria
    air = Figure(
        "belief.sealed_needs_no_air.air", phrase("checks.ventilation.air_flow"), criteria.air_m3h, "m³/h"
    )
    opening = Figure(
        "belief.sealed_needs_no_air.opening",
        phrase("checks.ventilation.free_area_opening"),
        criteria.opening_cm2,
        "cm²",
    )
    vented = not criteria.in_living_space and (criteria.opening is None or not criteria.opening.broken)
    return Settled(
        HALF if vented else FALSE,
        phrase("beliefs.sealed_needs_no_air.says"),
        {"air": air, "opening": opening},
        {
            HALF: phrase("beliefs.sealed_needs_no_air.half"),
            FALSE: phrase("beliefs.sealed_needs_no_air.false"),
        },
    )
