"""The rig document: the fields of a rig file, and what each accepts."""

from typing import Annotated, Final, Literal

from pydantic import Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.rig.plan import OWN_HANDS, WORKSHOP, Plan
from vast_harbor.formats.bank_parts import CandidatePart, OldBankPart, SecondBankPart
from vast_harbor.formats.changeover_part import ChangeoverPart
from vast_harbor.formats.day_part import DayPart
from vast_harbor.formats.fields import Choice, Truth
from vast_harbor.formats.improvement_part import ImprovementPart
from vast_harbor.formats.model_part import ModelPart
from vast_harbor.formats.parts import Part, made
from vast_harbor.formats.rig_part import RigPart
from vast_harbor.formats.source_part import SourcePart, TrialPart
from vast_harbor.phrases import phrase

FORMAT: Final = "vast-harbor-rig"
VERSION: Final = 2
# The questions of the guided start, in their order.
QUESTIONS = ("what", "use", "run", "big", "old", "charge", "hook_up", "cold", "space", "keep")


class PlanPart(Part, core=Plan):
    """House rule and what the owner overrides."""

    house_rule: Annotated[
        str, Choice(phrase("files.rig_document.house_rule"), "long_life", "customary", "to_label")
    ] = "customary"
    life_basis: Annotated[
        str | None,
        Choice(phrase("files.rig_document.life_use"), "likely", "warranty", "label_cycles", optional=True),
    ]
    overrides: dict[str, float]
    day_type: str | None = None
    day_basis: Annotated[str, Choice(phrase("files.rig_document.day_plan"), "likely", "cautious", "measured")]
    habits: Annotated[str, Choice(phrase("files.rig_document.habits"), "careful", "usual", "careless")]
    overnight: Annotated[bool, Truth()]
    labour: Annotated[str, Choice(phrase("files.rig_document.installer"), OWN_HANDS, WORKSHOP)]


class StatedPart(Part):
    """What the owner stated and what was filled in for them, by topic; null where nobody knows which."""

    nights: Annotated[bool | None, Truth(optional=True)] = None
    row: Annotated[bool | None, Truth(optional=True)] = None
    hook_up: Annotated[bool | None, Truth(optional=True)] = None
    months: Annotated[bool | None, Truth(optional=True)] = None
    loads: Annotated[bool | None, Truth(optional=True)] = None
    charging: Annotated[bool | None, Truth(optional=True)] = None
    where: Annotated[bool | None, Truth(optional=True)] = None
    place: Annotated[bool | None, Truth(optional=True)] = None
    old_bank: Annotated[bool | None, Truth(optional=True)] = None
    space: Annotated[bool | None, Truth(optional=True)] = None
    weight: Annotated[bool | None, Truth(optional=True)] = None
    years: Annotated[bool | None, Truth(optional=True)] = None
    labour: Annotated[bool | None, Truth(optional=True)] = None
    night_price: Annotated[bool | None, Truth(optional=True)] = None


class RigFile(Part):
    """A rig with its day, plan and candidates."""

    format: Literal["vast-harbor-rig"] = FORMAT
    version: Literal[2] = VERSION
    rig: RigPart
    old_bank: OldBankPart | None = None
    second_bank: SecondBankPart | None = None
    day: DayPart = DayPart()
    plan: PlanPart = made(PlanPart)
    sources: list[SourcePart] = Field(default_factory=list, max_length=12)
    improvements: list[ImprovementPart] = Field(default_factory=list, max_length=30)
    trial: TrialPart = made(TrialPart)
    own_models: list[ModelPart] = Field(default_factory=list, max_length=100)
    candidates: list[CandidatePart] = Field(default_factory=list, max_length=8)
    changeover: ChangeoverPart = made(ChangeoverPart)
    stated: StatedPart = StatedPart()
    guide: Annotated[str, Choice(phrase("files.rig_document.guide"), "", *QUESTIONS)] = ""

    @property
    def style(self) -> Style:
        """The owner's units, currency and lead figure."""
        rig = self.rig
        return Style(rig.units, rig.currency, rig.system_v if rig.lead == "ah" else None, rig.numbers)
