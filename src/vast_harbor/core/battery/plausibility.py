"""Whether what somebody entered of a battery can be true: no battery has less, or more, than these."""

from vast_harbor.core.battery.bank import BatteryModel

# Energy for its weight [Wh/kg] and for its space [Wh/l], rated cycles at the stated depth, and price for its
# rated energy at a price level of one [money/kWh]: lead-acid, then LFP. Wider than any catalogue's.
PER_KG = ((18.0, 65.0), (50.0, 210.0))
PER_LITRE = ((35.0, 140.0), (60.0, 460.0))
CYCLES = ((50.0, 4000.0), (300.0, 20_000.0))
PER_KWH = ((25.0, 1500.0), (60.0, 4000.0))
WEIGHT, SPACE, ENDURANCE, PRICE, PRICE_MISSING = "weight", "space", "cycles", "price", "price_missing"


def implausible(model: BatteryModel, price: float, price_factor: float) -> str:
    """What of a battery's entry cannot be true.

    Args:
        model: the battery.
        price: what one costs [money].
        price_factor: price level of the rig [-].

    Returns:
        ``price_missing``, ``weight``, ``space``, ``cycles`` or ``price``; empty where all of it can be.
    """
    family = 0 if model.battery_class.is_lead_acid else 1
    kwh = model.nominal_v * model.rated_ah / 1000
    if price <= 0:
        return PRICE_MISSING
    if model.kg > 0 and model.portable is None and not _within(1000 * kwh / model.kg, PER_KG[family]):
        return WEIGHT
    size = model.case.size
    if size is not None and model.portable is None:
        litres = size[0] * size[1] * size[2] / 1e6
        if litres > 0 and not _within(1000 * kwh / litres, PER_LITRE[family]):
            return SPACE
    if any(not _within(cycles, CYCLES[family]) for _, cycles in model.cycles):
        return ENDURANCE
    if kwh > 0 and not _within(price / kwh / price_factor, PER_KWH[family]):
        return PRICE
    return ""


def _within(value: float, span: tuple[float, float]) -> bool:
    return span[0] <= value <= span[1]
