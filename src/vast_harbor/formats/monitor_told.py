"""What was found in a file of a monitor, as it is kept with the file: checked where it comes from outside."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, TypeAdapter, ValidationError, model_validator

Count = Annotated[int, Field(ge=0, le=2**53)]
# Seconds since 1970 UTC that a calendar holds, with any offset.
Moment = Annotated[float, Field(ge=-(2**31), le=2**36, allow_inf_nan=False)]
OF_A_TIME = ("early", "late", "differs")


class LeftOut(BaseModel):
    """Readings that were left out for one reason, and the first of them."""

    why: Literal["early", "late", "differs", "nothing", "volts", "amps", "soc", "celsius"]
    count: Count
    line: Count
    value: Annotated[float, Field(ge=-1e12, le=1e12, allow_inf_nan=False)] | None

    @model_validator(mode="after")
    def has_its_value(self) -> "LeftOut":
        """The value that was wrong is named; a time is one that a calendar holds."""
        if self.why in OF_A_TIME:
            TypeAdapter(Moment).validate_python(self.value)
        if self.why != "nothing" and self.value is None:
            raise ValueError("value")
        return self


class Told(BaseModel):
    """What was found in a file; times in seconds since 1970 UTC."""

    new: Count
    there: Count
    unlike: Count
    twice: Count
    left_out: list[LeftOut] = Field(max_length=50)
    unread: Count
    unread_line: Count = 0
    unread_text: str = Field(default="", max_length=1000)
    gaps: Count
    longest_gap: tuple[Moment, Moment] | None
    jumps: list[tuple[Moment, float]] = Field(max_length=50)
    jumps_count: Count
    turned: bool
    offset_min: int = Field(ge=-1440, le=1440)

    @model_validator(mode="after")
    def names_its_gap(self) -> "Told":
        """Where there are gaps the longest is named."""
        if self.gaps and self.longest_gap is None:
            raise ValueError("longest_gap")
        return self


def told_of(text: str) -> dict[str, Any] | None:
    """What is kept with a file, as plain data; None where it is not what this program writes."""
    try:
        return Told.model_validate_json(text).model_dump()
    except ValidationError:
        return None
