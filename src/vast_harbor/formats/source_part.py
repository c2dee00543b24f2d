"""The rig document: the sources of charge, and the stretch that the trial runs."""

from typing import Annotated

from pydantic import Field, ValidationInfo, field_validator

from vast_harbor.core.rig.sources import DC_DC, GENERATOR, KINDS, MPPT, PITCHES, PWM, RELAY
from vast_harbor.core.stops.trial import STRETCHES
from vast_harbor.formats.fields import Choice, Clock, Measure, Numbers, Pairs, Truth, Words
from vast_harbor.formats.parts import IDENTIFIER, PRICE, Part

CHARGE_V = Measure(
    "V", 12, 16.5, "Volts for a 12 V bank lie between {least} and {most}: {value} V do not.", optional=True
)
DAYS = Measure(
    "days",
    3,
    30,
    "A stretch has between {least} and {most} days: {value} does not fit.",
    optional=True,
    whole=True,
)
ROW = Measure(
    "nights",
    0,
    30,
    "Between {least} and {most} nights in a row can be tried: {value} cannot.",
    optional=True,
    whole=True,
)
SHARE = Measure("1", 0, 1, "A share of charge lies between 0 and 100 %: {value} % does not.", percent=True)


class SourcePart(Part):
    """One source of charge; which fields count depends on its kind. Volts are those for a 12 V bank."""

    id: Annotated[str, IDENTIFIER]
    kind: Annotated[str, Choice("The kind of source", *KINDS)]
    name: Annotated[str, Words("The name of the source", 60)] = ""
    amps: Annotated[
        float | None,
        Measure("A", 0.1, 1000, "A charger gives between {least} and {most} A: {value} A is not likely.",
                optional=True),
    ] = None  # fmt: skip
    absorption_v: Annotated[float | None, CHARGE_V] = 14.4
    float_v: Annotated[float | None, CHARGE_V] = 13.6
    timeout_h: Annotated[
        float | None,
        Measure(
            "h", 0.1, 48, "Absorption ends after {least} to {most} h: {value} h is not likely.", optional=True
        ),
    ] = None
    rests: Annotated[bool, Truth()] = False
    rebulk_v: Annotated[
        float,
        Measure("V", 11.5, 13.8, "It starts again between {least} and {most} V: {value} V is not likely."),
    ] = 12.6
    equalise_v: Annotated[float | None, CHARGE_V] = None
    compensates: Annotated[bool, Truth()] = False
    wakes: Annotated[bool, Truth()] = False
    positions: Annotated[list[tuple[float, float]], Pairs("Positions of a switch", 12, 16.5, 6)] = Field(
        default_factory=list
    )
    adjustable: Annotated[bool, Truth()] = False
    firmware: Annotated[bool, Truth()] = False
    board: Annotated[bool, Truth()] = False
    assumed: Annotated[bool, Truth()] = False
    built_in: Annotated[bool, Truth()] = False
    watts: Annotated[
        float, Measure("W", 0, 50_000, "Between {least} and {most} W are wanted: {value} W is not likely.")
    ] = 0.0
    controller: Annotated[str, Choice("The controller", MPPT, PWM)] = MPPT
    tilt: Annotated[
        float, Measure("°", 0, 90, "A tilt lies between {least} (flat) and {most}°: {value}° does not.")
    ] = 0.0
    azimuth: Annotated[
        float,
        Measure(
            "°", 0, 360, "A direction lies between {least} and {most}°, north 0, east 90: {value}° does not."
        ),
    ] = 180.0
    starter_share: Annotated[float, SHARE] = 0.0
    litres_per_h: Annotated[
        float,
        Measure("l/h", 0, 50, "It burns between {least} and {most} litres an hour: {value} is not likely."),
    ] = 0.0
    litre_price: Annotated[float, PRICE] = 0.0
    quiet_from: Annotated[float | None, Clock()] = 21.0
    quiet_to: Annotated[float | None, Clock()] = 8.0
    start_soc: Annotated[float, SHARE] = 0.4
    stop_soc: Annotated[float, SHARE] = 0.85
    link: Annotated[str, Choice("The link to the engine", DC_DC, RELAY)] = DC_DC
    alternator_a: Annotated[
        float,
        Measure("A", 5, 1000, "An alternator gives between {least} and {most} A: {value} A is not likely."),
    ] = 90.0
    alternator_v: Annotated[
        float,
        Measure(
            "V", 12, 16, "An alternator holds between {least} and {most} V for 12 V: {value} V is not one."
        ),
    ] = 14.2
    smart: Annotated[bool, Truth()] = False
    cable_mohm: Annotated[
        float, Measure("mΩ", 0, 2000, "A cable has between {least} and {most} mΩ: {value} mΩ is not likely.")
    ] = 25.0
    drop_out_v: Annotated[
        float, Measure("V", 11, 14, "A relay opens between {least} and {most} V: {value} V is not likely.")
    ] = 12.7
    fridge_w: Annotated[
        float, Measure("W", 0, 1000, "A fridge takes between {least} and {most} W: {value} W is not likely.")
    ] = 0.0
    monthly_w: Annotated[list[float], Numbers("Watts by month", 0, 50_000, 12, exactly=True)] = Field(
        default_factory=list
    )
    hours: Annotated[float, Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.")] = 0.0

    @field_validator("quiet_from", "quiet_to")
    @classmethod
    def _clock(cls, value: float | None) -> float:
        if value is None:
            raise ValueError("Nothing is entered: give a time of day, for example 21:00.")
        return value

    @field_validator("quiet_to")
    @classmethod
    def _some_time(cls, value: float, info: ValidationInfo) -> float:
        start = info.data.get("quiet_from")
        if info.data.get("kind") == GENERATOR and start is not None:
            quiet = (value - start) % 24
            if 23.75 <= quiet < 24:
                raise ValueError("These quiet hours leave no quarter of an hour in which it may run.")
        return value

    @field_validator("stop_soc")
    @classmethod
    def _above(cls, value: float, info: ValidationInfo) -> float:
        start = info.data.get("start_soc")
        if info.data.get("kind") == GENERATOR and start is not None and value <= start:
            raise ValueError(f"It must stop above the {start:.0%} at which it starts: {value:.0%} is not.")
        return value


class FixPart(Part):
    """A remedy chosen for a source beside a candidate."""

    source: Annotated[str, IDENTIFIER]
    remedy: Annotated[str, IDENTIFIER]


class TrialPart(Part):
    """The stretch of days that the trial runs."""

    stretch: Annotated[str, Choice("The stretch", *STRETCHES)] = "plan"
    days: Annotated[int | None, DAYS] = None
    month: Annotated[
        int | None, Measure("times", 1, 12, "Months are 1 to 12: {value} is none.", optional=True, whole=True)
    ] = None
    seed: Annotated[
        int, Measure("times", 0, 99_999, "A seed is a whole number up to {most}: {value} is not.", whole=True)
    ] = 1
    nights: Annotated[int | None, ROW] = None
    pitches: Annotated[list[Annotated[str, Choice("The pitch", *PITCHES)]], Field(max_length=30)] = Field(
        default_factory=list
    )
    hidden_w: Annotated[
        float,
        Measure("W", 0, 2000, "A hidden drain takes between {least} and {most} W: {value} W is not likely."),
    ] = 0.0
    start_soc: Annotated[
        float, Measure("1", 0.05, 1, "It starts between 5 and 100 % full: {value} % is not.", percent=True)
    ] = 1.0
