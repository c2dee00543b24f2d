"""The rig document: the old bank, a second one, own batteries and the candidates."""

from typing import Annotated

from pydantic import Field, ValidationInfo, field_validator

from vast_harbor.core.battery.datasheet import CUT_OFFS, EXTERNAL_BMS, NO_PROTECTION
from vast_harbor.core.installation.packing import POSES, Place
from vast_harbor.core.rig.plan import DIFFICULTIES, TAGS, Candidate, Extra, OldBank, PurchaseStep, SecondBank
from vast_harbor.formats.changeover_part import PurchasesPart
from vast_harbor.formats.fields import Choice, Date, Measure, Truth, Words
from vast_harbor.formats.parts import (
    BANK_V,
    CLASSES,
    DAY_WH,
    IDENTIFIER,
    PRICE,
    PRICE_OR_NONE,
    STAY,
    STRINGS,
    UNIT_AH,
    UNIT_V,
    Part,
    unit_volts,
)
from vast_harbor.formats.source_part import FixPart
from vast_harbor.phrases import phrase

WHERE = Measure("mm", 0, 10_000, phrase("files.bank_parts.position_must_between_mm"))


class OldBankPart(Part, core=OldBank):
    """The bank that is in the rig now."""

    battery_class: Annotated[str, Choice(phrase("terms.names.battery_class"), *CLASSES)] = "agm"
    unit_v: Annotated[float, UNIT_V] = 12.0
    unit_ah: Annotated[float, UNIT_AH] = 100.0
    series: Annotated[int, Measure("times", 1, 24, STRINGS, whole=True)] = 1
    parallel: Annotated[int, Measure("times", 1, 12, STRINGS, whole=True)] = 1
    age_years: Annotated[
        float | None,
        Measure("years", 0, 60, phrase("files.bank_parts.age_must_between_years"), optional=True),
    ]
    unit_kg: Annotated[
        float | None,
        Measure("kg", 0.1, 500, phrase("files.bank_parts.weight_battery_must_between"), optional=True),
    ]

    test_a: Annotated[
        float | None,
        Measure("A", 0.1, 1000, phrase("files.bank_parts.test_current_must_between"), optional=True),
    ]
    test_minutes: Annotated[
        float | None,
        Measure("min", 1, 6000, phrase("files.bank_parts.test_time_must_between"), optional=True),
    ]
    test_c: Annotated[
        float | None,
        Measure("°C", -20, 60, phrase("files.bank_parts.test_temperature_must_between"), optional=True),
    ]

    nights_then: Annotated[float | None, STAY]
    nights_now: Annotated[float | None, STAY]
    day_then_wh: Annotated[float | None, DAY_WH]
    rested_v: Annotated[float | None, BANK_V]
    rested_hours: Annotated[
        float | None,
        Measure("h", 0, 2000, phrase("files.bank_parts.resting_time_must_between"), optional=True),
    ]
    loaded_v: Annotated[float | None, BANK_V]
    load_a: Annotated[
        float | None, Measure("A", 0.1, 2000, phrase("files.bank_parts.load_must_between"), optional=True)
    ]
    smells: Annotated[bool, Truth()]
    warm: Annotated[bool, Truth()]
    bulges: Annotated[bool, Truth()]
    deep_accidents: Annotated[
        float, Measure("times", 0, 100, phrase("files.bank_parts.number_must_between"))
    ] = 0.0
    left_low: Annotated[float, Measure("times", 0, 100, phrase("files.bank_parts.number_must_between"))] = 0.0
    left_empty: Annotated[float, Measure("times", 0, 100, phrase("files.bank_parts.number_must_between"))] = (
        0.0
    )
    frozen: Annotated[float, Measure("times", 0, 100, phrase("files.bank_parts.number_must_between"))] = 0.0
    reason: Annotated[str, Words(phrase("files.bank_parts.reason"), 400)] = ""
    sale_price: Annotated[float | None, PRICE_OR_NONE]

    @field_validator("unit_v")
    @classmethod
    def _volts(cls, value: float, info: ValidationInfo) -> float:
        return unit_volts(value, info)


class SecondBankPart(Part, core=SecondBank):
    """A second house bank, fed from the main one."""

    name: Annotated[str, Words(phrase("files.bank_parts.name_second_bank"), 40, required=True)]
    system_v: Annotated[float, Measure("V", 12, 48, phrase("files.bank_parts.second_bank_12_24"))]
    efficiency: Annotated[
        float, Measure("1", 0.5, 1, phrase("files.bank_parts.efficiency_must_between"), percent=True)
    ]
    limit_w: Annotated[float, Measure("W", 10, 20_000, phrase("files.bank_parts.power_charger_must_between"))]
    nights: Annotated[float, Measure("nights", 0.1, 30, phrase("files.bank_parts.enter_nights"))]

    @field_validator("system_v")
    @classmethod
    def _system(cls, value: float) -> float:
        if value not in (12.0, 24.0, 36.0, 48.0):
            raise ValueError(phrase("files.bank_parts.second_bank_12_24", value=f"{value:g}"))
        return value


class ExtraPart(Part, core=Extra):
    """Something that must be bought with the batteries."""

    id: str = IDENTIFIER
    name: Annotated[str, Words(phrase("files.bank_parts.name_extra"), 80)] = ""
    price: Annotated[float, PRICE] = 0.0
    tag: Annotated[str, Choice(phrase("files.bank_parts.purpose_extra"), *TAGS)]
    covers: Annotated[str, Words(phrase("files.bank_parts.requirement_meets"), 80)]
    life_years: Annotated[
        float | None,
        Measure(
            "years", 0.5, 60, phrase("files.bank_parts.life_must_between_years"),
            optional=True,
        ),
    ]  # fmt: skip


class PlacePart(Part, core=Place):
    """Where one battery stands in the locker."""

    compartment: Annotated[int, Measure("times", 0, 1, phrase("files.bank_parts.two_compartments"),
                                        whole=True)] = 0  # fmt: skip
    x: Annotated[float, WHERE] = 0.0
    y: Annotated[float, WHERE] = 0.0
    pose: Annotated[str, Choice(phrase("terms.names.position"), *POSES)]
    turned: Annotated[bool, Truth()]


class PurchaseStepPart(Part, core=PurchaseStep):
    """A step in which a part of the bank is bought."""

    id: Annotated[str, IDENTIFIER]
    when: Annotated[str, Date(phrase("files.bank_parts.month_step"), month=True)] = ""
    strings: Annotated[int, Measure("times", 0, 12, STRINGS, whole=True)] = 1
    other: Annotated[str, Words(phrase("files.bank_parts.other_purchase"), 80)]
    other_price: Annotated[float, PRICE]


class CandidatePart(Part, core=Candidate):
    """A bank that is being considered."""

    id: Annotated[str, IDENTIFIER]
    battery_class: Annotated[str, Choice(phrase("terms.names.battery_class"), *CLASSES)]
    model: str | None
    series: Annotated[int | None, Measure("times", 1, 32, STRINGS, optional=True, whole=True)]
    parallel: Annotated[int | None, Measure("times", 1, 12, STRINGS, optional=True, whole=True)]
    unit_price: Annotated[float | None, PRICE_OR_NONE]
    price_date: Annotated[str, Date(phrase("terms.names.date_price"))]
    protection: Annotated[
        str, Choice(phrase("files.bank_parts.protection"), NO_PROTECTION, EXTERNAL_BMS, CUT_OFFS)
    ]
    places: Annotated[list[PlacePart], Field(max_length=64)]
    stages: Annotated[list[PurchaseStepPart], Field(max_length=6)]
    extras: Annotated[list[ExtraPart], Field(max_length=30)]
    fixes: Annotated[list[FixPart], Field(max_length=24)]
    struck: Annotated[
        list[Annotated[str, Words(phrase("files.bank_parts.requirement"), 80)]], Field(max_length=40)
    ]
    difficulty: Annotated[
        str | None, Choice(phrase("files.bank_parts.difficulty"), *DIFFICULTIES, optional=True)
    ]
    spare: Annotated[bool, Truth()]
    purchases: PurchasesPart = PurchasesPart()
