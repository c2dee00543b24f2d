"""What the interface is given of the logs of monitors."""

from pydantic import BaseModel, ConfigDict, Field

from vast_harbor.web.base.views import View


class MonitorColumnBody(BaseModel):
    """What a column of a file holds."""

    model_config = ConfigDict(extra="forbid")

    role: str = Field(max_length=20)
    unit: str = Field(default="", max_length=10)


class MonitorLookBody(BaseModel):
    """How a file is to be understood."""

    model_config = ConfigDict(extra="forbid")

    columns: list[MonitorColumnBody] = Field(max_length=200)
    decimal: str = Field(max_length=1, pattern=r"^[.,]$")
    order: str = Field(max_length=3, description="How dates are written; empty to find it out")
    zone: str = Field(max_length=60, description="IANA name of the zone of its clock")
    into_bank: bool | None = Field(description="Which way a positive current flows; null to find it out")


class MonitorChoiceView(View):
    """Something that is chosen, by its name."""

    key: str
    name: str
    units: list[str] = Field(description="In which it may be; empty for none")


class MonitorColumnView(View):
    """A column of a file, and what it is taken for."""

    name: str
    role: str
    unit: str


class StagedFileView(View):
    """A file as it is understood, before anything of it is kept."""

    token: str
    name: str
    columns: list[MonitorColumnView]
    decimal: str
    order: str
    order_sure: bool
    zone: str
    into_bank: bool
    sign_from: str = Field(description="What told which way the current flows: soc, volts, out, or nothing")
    roles: list[MonitorChoiceView]
    head: list[str] = Field(description="Heading of the first rows as they are understood")
    rows: list[list[str]]
    problem: str = Field(description="Why it cannot be imported like this; empty where it can")


class MonitorFindingView(View):
    """Something that was found in a file."""

    key: str
    text: str


class MonitorFileView(View):
    """A file whose readings were kept."""

    id: int
    name: str
    bank: str
    bank_name: str
    period: str = Field(description="From when to when, in words")
    count: int
    findings: list[MonitorFindingView]


class MonitorFilesView(View):
    """The files of a rig, the newest import first."""

    files: list[MonitorFileView]


class MonitorSeriesView(View):
    """One quantity over time."""

    key: str
    name: str
    unit: str
    points: list[list[float | None]] = Field(
        description="Time by the owner's clock [ms], lowest, highest; nulls where nothing was logged"
    )


class MonitorChartView(View):
    """What a monitor logged over a stretch."""

    bank: str
    banks: list[MonitorChoiceView]
    first: int = Field(description="Of all readings, days since 1970")
    last: int
    from_day: int
    to_day: int
    series: list[MonitorSeriesView]
    count: int = Field(description="How many readings lie in the stretch")


class MonitorDayView(View):
    """A day of readings."""

    day: str = Field(description="ISO date")
    cells: list[str]
    whole: bool = Field(description="Whether nearly all of it was logged")


class MonitorDaysView(View):
    """Days with what went in and out, the newest first."""

    head: list[str]
    days: list[MonitorDayView]
    more: bool
