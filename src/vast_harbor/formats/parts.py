"""What several parts of the rig document share."""

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo

from vast_harbor.core.battery.bank import cells_of
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.rig.plan import Reference
from vast_harbor.formats.fields import Measure
from vast_harbor.phrases import phrase

CLASSES = ("flooded_dual", "flooded_deep", "agm", "gel", "lfp")
TERMINALS = ("tapered posts", "M6 threads", "M8 threads", "M10 threads", "M8 studs", "flags", "sockets")
IDENTIFIER = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")
BATTERY_C = Measure("°C", -40, 60, phrase("files.parts.battery_temperature_must_between"), optional=True)
PRICE_SAYS = phrase("files.parts.amount_must_between")
PRICE = Measure("money", 0, 10_000_000, PRICE_SAYS)
PRICE_OR_NONE = Measure("money", 0, 10_000_000, PRICE_SAYS, optional=True)
STAY = Measure("nights", 0, 366, phrase("files.parts.enter_nights"), optional=True)
UNIT_V = Measure("V", 1, 60, phrase("files.parts.voltage_battery_must_between"))
UNIT_AH = Measure("Ah", 0.5, 5000, phrase("files.parts.rated_capacity_must_between"))
DAY_WH = Measure("Wh", 0.1, 200_000, phrase("files.parts.energy_day_must_between"), optional=True)
BANK_V = Measure("V", 1, 70, phrase("files.parts.voltage_house_bank_must"), optional=True)
STRINGS = phrase("files.parts.enter")


class Part(BaseModel):
    """Base of the parts: nothing unknown is taken, and what was checked stays as it is."""

    model_config = ConfigDict(extra="forbid", validate_default=True, frozen=True)


def unit_volts(value: float, info: ValidationInfo) -> float:
    """Volts of one battery, checked against its class; ValueError with one sentence when they cannot be."""
    reference: Reference | None = (info.context or {}).get("reference")
    key = info.data.get("battery_class")
    if reference and key:
        try:
            cells_of(reference.classes[key], value)
        except InvalidInput as error:
            raise ValueError(error.message) from error
    return value
