"""What several parts of the rig document share."""

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo

from vast_harbor.core.battery.bank import cells_of
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.rig.plan import Reference
from vast_harbor.formats.fields import Measure

CLASSES = ("flooded_dual", "flooded_deep", "agm", "gel", "lfp")
TERMINALS = ("tapered posts", "M6 threads", "M8 threads", "M10 threads", "M8 studs", "flags", "sockets")
IDENTIFIER = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")
BATTERY_C = Measure(
    "°C", -40, 60, "A battery has between {least} and {most} °C: {value} °C is not likely.", optional=True
)
PRICE_SAYS = "An amount between {least} and {most} is wanted: {value} is not."
PRICE = Measure("money", 0, 10_000_000, PRICE_SAYS)
PRICE_OR_NONE = Measure("money", 0, 10_000_000, PRICE_SAYS, optional=True)
STAY = Measure(
    "nights", 0, 366, "Between {least} and {most} nights are wanted: {value} is not.", optional=True
)
UNIT_V = Measure("V", 1, 60, "One battery has between {least} and {most} V: {value} V is not one.")
UNIT_AH = Measure("Ah", 0.5, 5000, "A label gives between {least} and {most} Ah: {value} Ah is not likely.")
DAY_WH = Measure(
    "Wh", 0.1, 200_000, "A day takes between {least} and {most} Wh: {value} Wh is not likely.", optional=True
)
BANK_V = Measure(
    "V", 1, 70, "A house bank reads between {least} and {most} V: {value} V is not likely.", optional=True
)
STRINGS = "Between {least} and {most} can be joined: {value} cannot."


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
