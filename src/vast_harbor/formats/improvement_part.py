"""The rig document: what is planned beside the bank, and what is not possible for its owner."""

from typing import Annotated

from pydantic import Field

from vast_harbor.core.improvements import KINDS, STATES
from vast_harbor.core.rig.improvement_rows import NEEDED, WANTED, PlannedImprovement
from vast_harbor.formats.fields import Choice, Measure
from vast_harbor.formats.parts import IDENTIFIER, PRICE_OR_NONE, Part
from vast_harbor.phrases import phrase

# Id of a load or source; empty for none.
TARGET = Field(pattern=r"^[A-Za-z0-9_-]{0,40}$")


class ImprovementPart(Part, core=PlannedImprovement):
    """One improvement; the size is in the unit of its kind."""

    id: Annotated[str, IDENTIFIER]
    kind: Annotated[str, Choice(phrase("files.improvement_part.kind"), *KINDS)]
    size: Annotated[float, Measure("1", 0, 50_000, phrase("files.improvement_part.size"))]
    target: Annotated[str, TARGET]
    price: Annotated[float | None, PRICE_OR_NONE]
    state: Annotated[str, Choice(phrase("files.improvement_part.state"), *STATES)]
    tag: Annotated[str, Choice(phrase("files.improvement_part.tag"), NEEDED, WANTED)]
