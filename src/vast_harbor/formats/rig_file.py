"""The rig file: everything that an owner entered for one rig, as open JSON.

``docs/formats.md`` describes it for people; :func:`json_schema` is its JSON Schema. Values are in SI
units, hours and the rig's currency.
"""

import json
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from babel.numbers import list_currencies
from pydantic import BaseModel, ConfigDict, Field, ValidationError, ValidationInfo, field_validator

from vast_harbor.core import quantities
from vast_harbor.core.battery import BatteryModel, cells_of
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.loads import DC, Inverter, Load
from vast_harbor.core.plan import Candidate, Extra, OldBank, Plan, Reference
from vast_harbor.core.quantities import Draw
from vast_harbor.formats.fields import Choice, Clock, Measure, Words, check_bounds, read_number

FORMAT, VERSION = "vast-harbor-rig", 1
LARGEST_BYTES = 2_000_000
CLASSES = ("flooded_dual", "flooded_deep", "agm", "gel", "lfp")
KINDS = ("van", "rv", "caravan", "boat", "cabin", "other")
MAINS_V = {"metric": 230.0, "us": 120.0}
IDENTIFIER = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong with a document.

    Attributes:
        path: JSON pointer of the field; empty for the whole.
        message: one sentence for the owner.
    """

    path: str
    message: str


class RigFileError(ValueError):
    """A document that cannot be taken, with every problem found."""

    def __init__(self, problems: list[Problem]) -> None:
        super().__init__("; ".join(f"{p.path or 'file'}: {p.message}" for p in problems))
        self.problems = problems


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid", validate_default=True)


class RigPart(_Part):
    """What the rig is and how it is used."""

    name: Annotated[str, Words("The name of the rig", 80, required=True)]
    kind: Annotated[str, Choice("The kind of rig", *KINDS)] = "van"
    system_v: Annotated[float, Measure("V", 12, 48, "House systems have 12, 24 or 48 V: {value} V is none of them.")] = 12.0
    off_grid_nights: Annotated[float, Measure("nights", 0, 366, "A year has 365 nights: {value} does not fit.")] = 40.0
    years_kept: Annotated[float, Measure("years", 1, 40,
                         "Years to keep the rig must be between {least} and {most}: {value} is not.")] = 10.0
    currency: Annotated[str, Words("The currency", 3)] = "EUR"
    units: Annotated[str, Choice("The units", "metric", "us")] = "metric"
    battery_c: Annotated[float, Measure("°C", -40, 60,
                        "A battery is used between {least} and {most} °C: {value} °C is not.")] = 15.0
    rest_c: Annotated[float, Measure("°C", -40, 60,
                     "A battery is kept between {least} and {most} °C: {value} °C is not.")] = 12.0
    notes: Annotated[str, Words("The note", 4000)] = ""

    @field_validator("system_v")
    @classmethod
    def _system(cls, value: float) -> float:
        if value not in (12.0, 24.0, 48.0):
            raise ValueError(f"House systems have 12, 24 or 48 V: {value:g} V is none of them.")
        return value

    @field_validator("currency")
    @classmethod
    def _currency(cls, value: str) -> str:
        code = value.strip().upper()
        if code not in list_currencies():
            raise ValueError(f"“{value}” is not a currency code: give three letters such as EUR or USD.")
        return code


def _unit_volts(value: float, info: ValidationInfo, reference: Reference | None) -> float:
    key = info.data.get("battery_class")
    if reference and key:
        try:
            cells_of(reference.classes[key], value)
        except InvalidInput as error:
            raise ValueError(error.message) from error
    return value


def _reference(info: ValidationInfo) -> Reference | None:
    return (info.context or {}).get("reference")


UNIT_V = Measure("V", 1, 60, "One battery has between {least} and {most} V: {value} V is not one.")
UNIT_AH = Measure("Ah", 0.5, 5000, "A label gives between {least} and {most} Ah: {value} Ah is not likely.")
STRINGS = "Between {least} and {most} can be joined: {value} cannot."


class OldBankPart(_Part):
    """The bank that is in the rig now."""

    battery_class: Annotated[str, Choice("The battery class", *CLASSES)] = "agm"
    unit_v: Annotated[float, UNIT_V] = 12.0
    unit_ah: Annotated[float, UNIT_AH] = 100.0
    series: Annotated[int, Measure("times", 1, 24, STRINGS, whole=True)] = 1
    parallel: Annotated[int, Measure("times", 1, 12, STRINGS, whole=True)] = 1
    age_years: Annotated[float | None, Measure("years", 0, 60, "An age between {least} and {most} years is wanted: {value} is not.",
                        optional=True)] = None
    unit_kg: Annotated[float | None, Measure("kg", 0.1, 500, "One battery weighs between {least} and {most} kg: {value} kg is not "
                      "likely.", optional=True)] = None

    @field_validator("unit_v")
    @classmethod
    def _volts(cls, value: float, info: ValidationInfo) -> float:
        return _unit_volts(value, info, _reference(info))


class DrawPart(_Part):
    """What a load draws."""

    value: Annotated[float, Measure("W", 0, 100_000, "A load draws between {least} and {most}: {value} is not a draw.")]
    unit: Annotated[str, Choice("The unit of the draw", "W", "A")] = "W"


class LoadPart(_Part):
    """One appliance of the day."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words("The name of the load", 80, required=True)]
    supply: Annotated[str, Choice("The supply", "dc", "ac")] = "dc"
    draw: DrawPart = DrawPart(value=0)
    volts: Annotated[float | None, Measure("V", 1, 480, "Volts between {least} and {most} are wanted: {value} V is not.",
                    optional=True)] = None
    quantity: Annotated[float, Measure("times", 0, 1000, "Between {least} and {most} of them: {value} is not.")] = 1.0
    use: Annotated[str, Choice("The way of use", "hours", "uses", "standby")] = "hours"
    hours: Annotated[float, Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.")] = 0.0
    uses: Annotated[float, Measure("times", 0, 1440, "Between {least} and {most} uses a day: {value} is not.")] = 0.0
    minutes: Annotated[float, Measure("min", 0, 1440, "A use takes between {least} and {most} minutes: {value} does not.")] = 0.0
    duty: Annotated[float, Measure("1", 0, 1, "A duty cycle lies between 0 and 1 (0 and 100 %): {value} does not.")] = 1.0
    starts_at: Annotated[float | None, Clock()] = None

    @field_validator("draw", mode="before")
    @classmethod
    def _draw(cls, value: Any, info: ValidationInfo) -> Any:
        if isinstance(value, str) and (info.context or {}).get("typed"):
            if not value.strip():
                raise ValueError("Nothing is entered: give watts or amps, for example 45 W or 12 A.")
            draw = quantities.parse_draw(value)
            if draw.value < 0:
                raise ValueError(f"A load cannot draw less than nothing: {value.strip()}. Give what it "
                                 "takes while it is on.")
            return {"value": draw.value, "unit": draw.unit}
        return value

    @field_validator("minutes")
    @classmethod
    def _fits_the_day(cls, value: float, info: ValidationInfo) -> float:
        uses = info.data.get("uses") or 0.0
        if uses * value > 1440:
            raise ValueError(f"{uses:g} uses of {value:g} minutes are more than a day has.")
        return value


class InverterPart(_Part):
    """The rig's inverter."""

    efficiency: Annotated[float, Measure("1", 0.3, 1, "An inverter gives out between {least} and {most} of what it takes: "
                         "{value} does not.")] = 0.90
    idle_w: Annotated[float, Measure("W", 0, 500, "An inverter idles on {least} to {most} W: {value} W is not likely.")] = 8.0
    hours_on: Annotated[float | None, Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.", optional=True)] = None


class DayPart(_Part):
    """The loads of a day."""

    loads: list[LoadPart] = Field(default_factory=list, max_length=300)
    inverter: InverterPart = InverterPart()
    standby_w: Annotated[float, Measure("W", 0, 5000, "Standby lies between {least} and {most} W: {value} W does not.")] = 0.0


class PlanPart(_Part):
    """House rule and what the owner overrides."""

    house_rule: Annotated[str, Choice("The house rule", "long_life", "customary", "to_label")] = "customary"
    life_basis: Annotated[str | None, Choice("The life to reckon with", "likely", "warranty", "label_cycles", optional=True)] = None
    overrides: dict[str, float] = Field(default_factory=dict)


class ModelPart(_Part):
    """A battery that the owner entered."""

    id: Annotated[str, IDENTIFIER]
    maker: Annotated[str, Words("The maker", 60)] = ""
    name: Annotated[str, Words("The name of the battery", 60, required=True)]
    battery_class: Annotated[str, Choice("The battery class", *CLASSES)] = "lfp"
    unit_v: Annotated[float, UNIT_V] = 12.8
    rated_ah: Annotated[float, UNIT_AH] = 100.0
    rated_hours: Annotated[float, Measure("h", 0.05, 240, "Capacity is rated over {least} to {most} h: {value} is not.")] = 20.0
    kg: Annotated[float, Measure("kg", 0.1, 500, "One battery weighs between {least} and {most} kg: {value} kg is not "
                 "likely.")] = 11.0
    price: Annotated[float, Measure("money", 0, 10_000_000, "A price between {least} and {most} is wanted: {value} is not.")] = 0.0
    cycles: Annotated[float, Measure("times", 1, 50_000, "Between {least} and {most} cycles are believable: {value} is not.")] = 3500.0
    cycles_at_dod: Annotated[float, Measure("1", 0.1, 1, "The depth of the cycle count lies between {least} and {most}: "
                            "{value} does not.")] = 0.8
    warranty_years: Annotated[float, Measure("years", 0, 40, "A warranty has {least} to {most} years: {value} is not.")] = 2.0
    max_series: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    max_parallel: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    heater_w: Annotated[float | None, Measure("W", 0, 2000, "A heater has {least} to {most} W: {value} W is not likely.",
                       optional=True)] = None

    @field_validator("unit_v")
    @classmethod
    def _volts(cls, value: float, info: ValidationInfo) -> float:
        return _unit_volts(value, info, _reference(info))


class ExtraPart(_Part):
    """Something that must be bought besides the batteries."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words("The name of the extra", 80)] = ""
    price: Annotated[float, Measure("money", 0, 10_000_000, "A price between {least} and {most} is wanted: {value} is not.")] = 0.0


class CandidatePart(_Part):
    """A bank that is being considered."""

    id: Annotated[str, IDENTIFIER]
    battery_class: Annotated[str, Choice("The battery class", *CLASSES)]
    model: str | None = None
    series: Annotated[int | None, Measure("times", 1, 32, STRINGS, optional=True, whole=True)] = None
    parallel: Annotated[int | None, Measure("times", 1, 12, STRINGS, optional=True, whole=True)] = None
    unit_price: Annotated[float | None, Measure("money", 0, 10_000_000, "A price between {least} and {most} is wanted: {value} is "
                         "not.", optional=True)] = None
    extras: list[ExtraPart] = Field(default_factory=list, max_length=30)


class RigFile(_Part):
    """A rig with its day, plan and candidates."""

    format: Literal["vast-harbor-rig"] = FORMAT
    version: Literal[1] = VERSION
    rig: RigPart
    old_bank: OldBankPart | None = None
    day: DayPart = DayPart()
    plan: PlanPart = PlanPart()
    own_models: list[ModelPart] = Field(default_factory=list, max_length=100)
    candidates: list[CandidatePart] = Field(default_factory=list, max_length=8)


def loads_text(data: bytes) -> dict[str, Any]:
    """A rig file's bytes as a document, before its fields are looked at.

    Args:
        data: content of the file.

    Returns:
        The document.

    Raises:
        RigFileError: too large, not JSON, not a rig file, or of a newer version.
    """
    if len(data) > LARGEST_BYTES:
        raise _whole(f"The file has {len(data) / 1e6:.0f} MB; a rig file has less than "
                     f"{LARGEST_BYTES / 1e6:.0f} MB, so this is something else.")
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as error:
        where = f" (line {error.lineno})" if isinstance(error, json.JSONDecodeError) else ""
        raise _whole(f"The file is not JSON{where}: choose a rig file that was exported here.") from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise _whole(f"The file is JSON but not a rig file: it lacks \"format\": \"{FORMAT}\".")
    version = document.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise _whole("The file does not say which version of the rig file it is.")
    if version > VERSION:
        raise _whole(f"The file is of version {version}; this program reads up to version {VERSION}. "
                     "Update the program, or export the file again from the older one.")
    return document


def _whole(message: str) -> RigFileError:
    return RigFileError([Problem("", message)])


def read(document: dict[str, Any], reference: Reference, *, typed: bool = False) -> RigFile:
    """Check a document field by field.

    Args:
        document: the document.
        reference: shipped data, against which names are checked.
        typed: whether text is accepted as typed by the owner.

    Returns:
        The rig file, in SI.

    Raises:
        RigFileError: every problem, each at its field.
    """
    rig = document.get("rig")
    system = rig.get("units", "metric") if isinstance(rig, dict) else "metric"
    context = {"typed": typed, "system": system, "reference": reference}
    document, problems = _read_overrides(document, reference, context)
    try:
        rig_file = RigFile.model_validate(document, context=context)
    except ValidationError as error:
        problems += [_problem(e) for e in error.errors(include_url=False)]
        raise RigFileError(problems) from error
    problems += _cross_check(rig_file, reference)
    if problems:
        raise RigFileError(problems)
    return rig_file


def _read_overrides(document: dict[str, Any], reference: Reference,
                    context: dict[str, Any]) -> tuple[dict[str, Any], list[Problem]]:
    plan = document.get("plan")
    overrides = plan.get("overrides") if isinstance(plan, dict) else None
    if not isinstance(overrides, dict) or not overrides:
        return document, []
    known = reference.assumptions("customary", {})
    values: dict[str, float] = {}
    problems: list[Problem] = []
    for key, value in overrides.items():
        path = f"/plan/overrides/{key}"
        if key not in known:
            problems.append(Problem(path, f"There is no assumption “{key}”."))
            continue
        entry = known.get(key).entry
        try:
            number = read_number(value, entry.unit, context)
            values[key] = check_bounds(number, entry.least, entry.most,
                                       f"{known.get(key).name}: between {{least}} and {{most}}, not {{value}}.")
        except ValueError as error:
            problems.append(Problem(path, str(error)))
    assert isinstance(plan, dict)
    return {**document, "plan": {**plan, "overrides": values}}, problems


def _cross_check(rig_file: RigFile, reference: Reference) -> list[Problem]:
    problems: list[Problem] = []
    own = {m.id for m in rig_file.own_models}
    for i, candidate in enumerate(rig_file.candidates):
        if candidate.model and candidate.model not in own and candidate.model not in reference.catalogue:
            problems.append(Problem(f"/candidates/{i}/model",
                                    f"There is no battery “{candidate.model}” in the catalogue or among "
                                    "your own."))
    for name, items in (("day/loads", rig_file.day.loads), ("candidates", rig_file.candidates),
                        ("own_models", rig_file.own_models)):
        seen: set[str] = set()
        for i, item in enumerate(items):
            if item.id in seen or (name == "own_models" and item.id in reference.catalogue):
                problems.append(Problem(f"/{name}/{i}/id", f"The id “{item.id}” is used twice."))
            seen.add(item.id)
    return problems


def _problem(error: Any) -> Problem:
    path = "".join(f"/{part}" for part in error["loc"])
    kind = error["type"]
    if kind == "value_error":
        return Problem(path, str(error["ctx"]["error"]))
    sentences = {
        "missing": "This field is missing.",
        "extra_forbidden": f"The field “{error['loc'][-1]}” is not part of a rig file.",
        "string_pattern_mismatch": "An id has up to 40 letters, digits, - and _.",
        "too_long": f"There are more entries than the {error.get('ctx', {}).get('max_length')} that fit.",
        "list_type": "A list is wanted here.",
        "model_type": "A group of fields is wanted here.",
        "dict_type": "A group of fields is wanted here.",
        "string_type": "Words are wanted here.",
    }
    return Problem(path, sentences.get(kind, f"{error['msg']}."))


def to_document(rig_file: RigFile) -> dict[str, Any]:
    """The rig file as a plain document, every field present."""
    return rig_file.model_dump(mode="json")


def to_json(document: dict[str, Any]) -> str:
    """A document as the text of a rig file."""
    return json.dumps(document, ensure_ascii=False, indent=2) + "\n"


def json_schema() -> dict[str, Any]:
    """JSON Schema of the rig file (draft 2020-12)."""
    schema = RigFile.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema,
            "title": f"Vast Harbor rig file, version {VERSION}"}


def own_model(part: ModelPart, reference: Reference) -> BatteryModel:
    """An own battery entry as the core knows it."""
    battery_class = reference.classes[part.battery_class]
    return BatteryModel(
        part.id, part.maker, part.name, battery_class, cells_of(battery_class, part.unit_v),
        ((part.rated_ah, part.rated_hours),), ((part.cycles_at_dod, part.cycles),), part.kg, part.price,
        part.warranty_years, part.max_series, part.max_parallel, heater_w=part.heater_w, own=True,
    )


def _load(part: LoadPart, system_v: float, mains_v: float) -> Load:
    volts = part.volts or (system_v if part.supply == DC else mains_v)
    return Load(part.id, part.name, part.supply, Draw(part.draw.value, part.draw.unit), volts,
                part.quantity, part.use, part.hours, part.uses, part.minutes, part.duty, part.starts_at)


def _old_bank(part: OldBankPart | None, reference: Reference) -> OldBank | None:
    if part is None:
        return None
    battery_class = reference.classes[part.battery_class]
    volts = cells_of(battery_class, part.unit_v) * battery_class.cell_v
    return OldBank(battery_class, volts, part.unit_ah, part.series, part.parallel, part.age_years,
                   part.unit_kg)


def to_plan(rig_file: RigFile, reference: Reference) -> Plan:
    """What the core computes from.

    Args:
        rig_file: a checked rig file.
        reference: shipped data.

    Returns:
        The plan.
    """
    rig, day, plan = rig_file.rig, rig_file.day, rig_file.plan
    mains_v = MAINS_V[rig.units]
    own = {m.id: own_model(m, reference) for m in rig_file.own_models}
    candidates = tuple(
        Candidate(c.id, c.battery_class, c.model, c.series, c.parallel, c.unit_price,
                  tuple(Extra(e.name, e.price) for e in c.extras))
        for c in rig_file.candidates
    )
    return Plan(
        rig.name, rig.kind, rig.system_v, rig.off_grid_nights, rig.years_kept, rig.battery_c, rig.rest_c,
        tuple(_load(part, rig.system_v, mains_v) for part in day.loads),
        Inverter(day.inverter.efficiency, day.inverter.idle_w, day.inverter.hours_on), day.standby_w,
        plan.house_rule, plan.overrides, plan.life_basis, candidates, {**reference.catalogue, **own},
        _old_bank(rig_file.old_bank, reference),
    )


def new_rig(name: str, **fields: Any) -> dict[str, Any]:
    """The document of a new rig: no loads yet, an AGM and an LFP bank that follow the need.

    Args:
        name: name of the rig.
        fields: further fields of its ``rig`` part.

    Returns:
        The document.
    """
    rig_file = RigFile(
        rig=RigPart(name=name, **fields),
        candidates=[CandidatePart(id="agm", battery_class="agm"), CandidatePart(id="lfp", battery_class="lfp")],
    )
    return to_document(rig_file)
