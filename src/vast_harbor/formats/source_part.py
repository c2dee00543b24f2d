"""The rig document: the sources of charge, and the stretch that the trial runs."""

from typing import Annotated

from pydantic import Field, ValidationInfo, field_validator

from vast_harbor.core.rig.plan import TrialSettings
from vast_harbor.core.rig.sources import DC_DC, GENERATOR, KINDS, MPPT, PITCHES, PWM, RELAY, Source
from vast_harbor.core.stops.trial import STRETCHES
from vast_harbor.formats.fields import Choice, Clock, Measure, Truth, Words
from vast_harbor.formats.fields_of_several import Numbers, Pairs
from vast_harbor.formats.parts import IDENTIFIER, PRICE_SAYS, Part
from vast_harbor.phrases import phrase

CHARGE_V = Measure("V", 12, 16.5, phrase("files.source_part.voltage_system"), optional=True, per_12=True)
DAYS = Measure("days", 3, 30, phrase("files.source_part.trial_days"), optional=True, whole=True)
ROW = Measure("nights", 0, 30, phrase("files.source_part.try_nights_row"), optional=True, whole=True)
SHARE = Measure("1", 0, 1, phrase("files.source_part.state_charge_must_between"), percent=True)


class SourcePart(Part, core=Source):
    """One source of charge; which fields count depends on its kind. Volts are stored as for a 12 V system."""

    id: Annotated[str, IDENTIFIER]
    kind: Annotated[str, Choice(phrase("files.source_part.kind_source"), *KINDS)]
    name: Annotated[str, Words(phrase("files.source_part.name_source"), 60)]
    amps: Annotated[
        float | None,
        Measure("A", 0.1, 1000, phrase("files.source_part.current_charger_must_between"),
                optional=True),
    ]  # fmt: skip
    absorption_v: Annotated[float | None, CHARGE_V]
    float_v: Annotated[float | None, CHARGE_V]
    timeout_h: Annotated[
        float | None,
        Measure("h", 0.1, 48, phrase("files.source_part.absorption_must_end_after"), optional=True),
    ]
    rests: Annotated[bool, Truth()]
    rebulk_v: Annotated[
        float, Measure("V", 11.5, 13.8, phrase("files.source_part.restart_voltage_must_between"), per_12=True)
    ]
    equalise_v: Annotated[float | None, CHARGE_V]
    compensates: Annotated[bool, Truth()]
    wakes: Annotated[bool, Truth()]
    positions: Annotated[
        list[tuple[float, float]], Pairs(phrase("files.source_part.switch_positions"), 12, 16.5, 6)
    ]
    adjustable: Annotated[bool, Truth()]
    firmware: Annotated[bool, Truth()]
    board: Annotated[bool, Truth()]
    assumed: Annotated[bool, Truth()]
    built_in: Annotated[bool, Truth()]
    watts: Annotated[float, Measure("W", 0, 50_000, phrase("files.source_part.power_must_between_w"))]
    controller: Annotated[str, Choice(phrase("files.source_part.controller"), MPPT, PWM)]
    tilt: Annotated[float, Measure("°", 0, 90, phrase("files.source_part.tilt_lies_between_flat"))]
    azimuth: Annotated[float, Measure("°", 0, 360, phrase("files.source_part.direction_lies_between_north"))]
    starter_share: Annotated[float, SHARE]
    litres_per_h: Annotated[
        float, Measure("l/h", 0, 50, phrase("files.source_part.burns_between_litres_hour"))
    ]
    litre_price: Annotated[float, Measure("money/l", 0, 10_000_000, PRICE_SAYS)]
    quiet_from: Annotated[float | None, Clock()]
    quiet_to: Annotated[float | None, Clock()]
    start_soc: Annotated[float, SHARE]
    stop_soc: Annotated[float, SHARE]
    link: Annotated[str, Choice(phrase("files.source_part.link_engine"), DC_DC, RELAY)]
    alternator_a: Annotated[
        float, Measure("A", 5, 1000, phrase("files.source_part.alternator_gives_between_likely"))
    ]
    alternator_v: Annotated[
        float, Measure("V", 12, 16, phrase("files.source_part.alternator_holds_between_v"), per_12=True)
    ]
    smart: Annotated[bool, Truth()]
    cable_mohm: Annotated[float, Measure("mΩ", 0, 2000, phrase("files.source_part.cable_between_m_m"))]
    drop_out_v: Annotated[
        float, Measure("V", 11, 14, phrase("files.source_part.relay_opens_between_v"), per_12=True)
    ]
    fridge_w: Annotated[float, Measure("W", 0, 1000, phrase("files.source_part.fridge_takes_between_w"))]
    monthly_w: Annotated[
        list[float], Numbers(phrase("files.source_part.watts_month"), 0, 50_000, 12, exactly=True)
    ]
    hours: Annotated[float, Measure("h", 0, 24, phrase("files.source_part.day_24_hours_h"))]

    @field_validator("quiet_from", "quiet_to")
    @classmethod
    def _clock(cls, value: float | None) -> float:
        if value is None:
            raise ValueError(phrase("files.source_part.nothing_entered_give_time"))
        return value

    @field_validator("quiet_to")
    @classmethod
    def _some_time(cls, value: float, info: ValidationInfo) -> float:
        start = info.data.get("quiet_from")
        if info.data.get("kind") == GENERATOR and start is not None:
            quiet = (value - start) % 24
            if 23.75 <= quiet < 24:
                raise ValueError(phrase("files.source_part.quiet_hours_leave_quarter"))
        return value

    @field_validator("stop_soc")
    @classmethod
    def _above(cls, value: float, info: ValidationInfo) -> float:
        start = info.data.get("start_soc")
        if info.data.get("kind") == GENERATOR and start is not None and value <= start:
            raise ValueError(
                phrase("files.source_part.must_stop_above_starts", start=f"{start:.0%}", value=f"{value:.0%}")
            )
        return value


class FixPart(Part):
    """A remedy chosen for a source beside a candidate."""

    source: Annotated[str, IDENTIFIER]
    remedy: Annotated[str, IDENTIFIER]


class TrialPart(Part, core=TrialSettings):
    """The stretch of days that the trial runs."""

    stretch: Annotated[str, Choice(phrase("files.source_part.trial_period"), *STRETCHES)]
    days: Annotated[int | None, DAYS]
    month: Annotated[
        int | None,
        Measure("times", 1, 12, phrase("files.source_part.months_numbered_1_12"), optional=True, whole=True),
    ]
    seed: Annotated[
        int, Measure("times", 0, 99_999, phrase("files.source_part.weather_number_must_whole"), whole=True)
    ]
    nights: Annotated[int | None, ROW]
    pitches: Annotated[
        list[Annotated[str, Choice(phrase("files.source_part.place"), *PITCHES)]], Field(max_length=30)
    ]
    hidden_w: Annotated[float, Measure("W", 0, 2000, phrase("files.source_part.hidden_drain_must_between"))]
    start_soc: Annotated[
        float, Measure("1", 0.05, 1, phrase("files.source_part.starts_between_5_100"), percent=True)
    ]
