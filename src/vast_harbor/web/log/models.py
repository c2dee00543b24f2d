"""What the interface is given of the log."""

from pydantic import BaseModel, ConfigDict, Field

from vast_harbor.web.base.views import View

ID = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$", description="Made by the sender: sent twice, it is kept once")


class LogLineBody(BaseModel):
    """A line of the log, and when it was typed."""

    model_config = ConfigDict(extra="forbid")

    line: str = Field(max_length=2000)
    at: int = Field(ge=0, le=2**36, description="Seconds since 1970 UTC")
    offset_min: int = Field(default=0, ge=-1440, le=1440, description="How far the clock is ahead of UTC")
    bank: str = Field(default="present", max_length=20, description="The bank that is meant if none is named")


class NewLogLineBody(LogLineBody):
    """A new entry from its line."""

    id: str = ID


class LogEntryBody(BaseModel):
    """An entry as the form has it; numbers as typed."""

    model_config = ConfigDict(extra="forbid")

    revision: int = Field(default=0, ge=0, description="At which it was read; 0 for a new one")
    at: int = Field(ge=0, le=2**36)
    clock: int = Field(default=0, ge=0, le=2**36, description="What the sender's clock says; 0 untold")
    offset_min: int = Field(default=0, ge=-1440, le=1440)
    kind: str = Field(max_length=20)
    bank: str = Field(default="present", max_length=20)
    battery: int = Field(default=0, ge=0, le=200)
    values: dict[str, str] = Field(default_factory=dict, max_length=20, description="Numbers by field")
    rested: bool | None = None
    frozen: bool | None = None
    source: str = Field(default="", max_length=40)
    text: str = Field(default="", max_length=10_000)


class LogSaidView(View):
    """One thing that an entry says."""

    field: str
    label: str
    text: str


class LogEntryView(View):
    """An entry of the log."""

    id: str
    at: int
    offset_min: int
    kind: str
    kind_name: str
    bank: str
    bank_name: str
    battery: int
    said: list[LogSaidView] = Field(description="What it says, in words")
    values: dict[str, str] = Field(description="Its numbers as they are typed")
    rested: bool | None
    frozen: bool | None
    source: str
    text: str
    revision: int


class LogKindView(View):
    """A kind of entry, and what it is asked for."""

    key: str
    name: str
    fields: list[str]


class LogNameView(View):
    """Something that is chosen by its name."""

    key: str
    name: str


class LogFieldView(View):
    """A number of an entry."""

    key: str
    label: str
    unit: str


class DutyBody(BaseModel):
    """A duty that is done, or put off."""

    model_config = ConfigDict(extra="forbid")

    id: str = ID
    at: int = Field(ge=0, le=2**36)
    offset_min: int = Field(default=0, ge=-1440, le=1440)
    put_off_days: int = Field(default=0, ge=0, le=365, description="0 where it is done")
    reason: str = Field(default="", max_length=1000, description="Why it is put off")


class DutyView(View):
    """Something that is to be done about the bank."""

    key: str
    title: str
    why: str
    state: str = Field(description="due, soon or later")
    due: str = Field(description="ISO date")
    last: str = Field(description="ISO date on which it was done last; empty for never")
    every: int = Field(description="Days from one time to the next; 0 for once")
    kind: str = Field(description="Of the entry that doing it makes")


class DutiesView(View):
    """The duties of the bank in use, the most urgent first."""

    duties: list[DutyView]
    battery_class: str = Field(description="Of the bank in use; empty where there is none")


class LogView(View):
    """A page of the log, from the newest entry back."""

    entries: list[LogEntryView]
    more: bool
    count: int
    kinds: list[LogKindView]
    fields: list[LogFieldView]
    banks: list[LogNameView]
    sources: list[LogNameView]
