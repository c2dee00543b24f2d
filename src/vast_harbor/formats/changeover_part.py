"""The rig document: the changeover, and what was bought for a candidate."""

from dataclasses import dataclass
from typing import Annotated, Any, cast

from pydantic import Field, ValidationInfo

from vast_harbor.core.rig.changeover import Changeover, Devices
from vast_harbor.formats.fields import Date, Measure, Truth, Words
from vast_harbor.formats.parts import IDENTIFIER, PRICE_OR_NONE, Part, made
from vast_harbor.phrases import phrase

# Names of steps, lines and measurements: ``lfp.charged.unit-1-2``.
Key = Annotated[str, Field(pattern=r"^[A-Za-z0-9_.-]{1,120}$")]
REACH = Measure("mm", 0, 20_000, phrase("files.changeover_part.reach"), optional=True)


# What is kept of many steps or lines at once: name → value, so that one more needs no row of its own.
Dates = dict[Key, Annotated[str, Date(phrase("files.changeover_part.date_step"))]]
Notes = dict[Key, Annotated[str, Words(phrase("files.changeover_part.note"), 600)]]
Amounts = dict[Key, Annotated[float | None, PRICE_OR_NONE]]
# By the end of its name a reading is in volts, amps or degrees.
READINGS = {
    "V": Measure("V", -200, 200, phrase("files.changeover_part.volts"), optional=True),
    "A": Measure("A", -2000, 2000, phrase("files.changeover_part.amps"), optional=True),
    "C": Measure("°C", -40, 300, phrase("files.changeover_part.celsius"), optional=True),
}


@dataclass(frozen=True)
class Asked:
    """As much of pydantic's information on a validation as a field needs."""

    context: dict[str, Any]


def read_reading(name: str, value: Any, context: dict[str, Any]) -> float | None:
    """What a meter showed; its unit and bounds follow from the end of its name.

    Args:
        name: ``lfp.charged.unit-1-2.V``.
        value: number, or text when the context allows typing.
        context: of the validation.

    Returns:
        The reading in V, A or °C; None for none.

    Raises:
        ValueError: one sentence saying what is wrong.
    """
    measure = READINGS.get(name.rpartition(".")[2])
    if measure is None:
        raise ValueError(phrase("files.changeover_part.unit", name=name))
    return measure.read(value, cast(ValidationInfo, Asked(context)))


class PurchasesPart(Part):
    """What became of the lines of a shopping list, by the name of the line."""

    quoted: Amounts = Field(default_factory=dict, max_length=100)
    paid: Amounts = Field(default_factory=dict, max_length=100)
    have: dict[Key, Annotated[bool, Truth()]] = Field(default_factory=dict, max_length=100)
    bought_on: Dates = Field(default_factory=dict, max_length=100)
    seller: Notes = Field(default_factory=dict, max_length=100)
    serial: Notes = Field(default_factory=dict, max_length=100)


class ProofPart(Part):
    """One reading of the acceptance test."""

    id: Annotated[str, IDENTIFIER]
    minutes: Annotated[float, Measure("min", 0, 20_000, phrase("files.changeover_part.minutes"))] = 0.0
    volts: Annotated[float, Measure("V", 0, 100, phrase("files.changeover_part.proof_volts"))] = 0.0
    amps: Annotated[float, Measure("A", 0, 2000, phrase("files.changeover_part.proof_amps"))] = 0.0


DEVICE_V = Measure("V", 8, 18, phrase("files.changeover_part.device_v"), optional=True, per_12=True)


class DevicesPart(Part, core=Devices):
    """What the devices around the bank are set to now. Volts are stored as for a 12 V system."""

    alarm_v: Annotated[float | None, DEVICE_V]
    disconnect_v: Annotated[float | None, DEVICE_V]
    reconnect_v: Annotated[float | None, DEVICE_V]
    inverter_low_v: Annotated[float | None, DEVICE_V]
    inverter_restart_v: Annotated[float | None, DEVICE_V]
    inverter_high_v: Annotated[float | None, DEVICE_V]
    capacity_ah: Annotated[
        float | None, Measure("Ah", 1, 20_000, phrase("files.changeover_part.capacity"), optional=True)
    ]
    charged_v: Annotated[float | None, DEVICE_V]
    tail_a: Annotated[
        float | None, Measure("A", 0, 1000, phrase("files.changeover_part.tail"), optional=True)
    ]
    minutes: Annotated[
        float | None, Measure("min", 0, 600, phrase("files.changeover_part.full_after"), optional=True)
    ]
    exponent: Annotated[
        float | None, Measure("1", 1, 1.6, phrase("files.changeover_part.exponent"), optional=True)
    ]
    efficiency: Annotated[
        float | None,
        Measure("1", 0.5, 1, phrase("files.changeover_part.efficiency"), optional=True, percent=True),
    ]


class ChangeoverPart(Part, core=Changeover):
    """The bank that is bought, and how far the work is."""

    chosen: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{0,40}$")]
    chosen_on: Annotated[str, Date(phrase("files.changeover_part.date_choice"))]
    return_by: Annotated[str, Date(phrase("files.changeover_part.date_return"))]
    start_on: Annotated[str, Date(phrase("files.changeover_part.date_start"))]
    deposit: Annotated[float | None, PRICE_OR_NONE]
    reach_plus_mm: Annotated[float | None, REACH]
    reach_minus_mm: Annotated[float | None, REACH]
    need_plus_mm: Annotated[float | None, REACH]
    need_minus_mm: Annotated[float | None, REACH]
    celsius: Annotated[
        float | None,
        Measure("°C", -30, 60, phrase("files.parts.battery_temperature_must_between"), optional=True),
    ]
    test_a: Annotated[
        float | None, Measure("A", 0.5, 1000, phrase("files.changeover_part.test_a"), optional=True)
    ]
    done: Dates = Field(default_factory=dict, max_length=400)
    notes: Notes = Field(default_factory=dict, max_length=400)
    passed: Notes = Field(default_factory=dict, max_length=400)
    readings: Annotated[dict[Key, float | None], Field(max_length=1000)]
    proof: Annotated[list[ProofPart], Field(max_length=1000)]
    devices: DevicesPart = made(DevicesPart)
    settable: Annotated[dict[Key, Annotated[bool, Truth()]], Field(max_length=200)]
