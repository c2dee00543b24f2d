"""The rig file: everything that an owner entered for one rig, as open JSON.

``docs/formats.md`` describes it for people; :func:`json_schema` is its JSON Schema. Values are in SI
units, hours and the rig's currency.
"""

import json
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from vast_harbor.core.battery import BatteryModel, cells_of
from vast_harbor.core.loads import DC, Inverter, Load
from vast_harbor.core.plan import Candidate, Extra, OldBank, Plan, Reference
from vast_harbor.core.quantities import Draw
from vast_harbor.formats.fields import check_bounds, read_number
from vast_harbor.formats.rig_document import (
    FORMAT,
    VERSION,
    CandidatePart,
    LoadPart,
    ModelPart,
    OldBankPart,
    RigFile,
    RigPart,
)

LARGEST_BYTES = 2_000_000
MAINS_V = {"metric": 230.0, "us": 120.0}


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
        raise _whole(
            f"The file has {len(data) / 1e6:.0f} MB; a rig file has less than "
            f"{LARGEST_BYTES / 1e6:.0f} MB, so this is something else."
        )
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as error:
        where = f" (line {error.lineno})" if isinstance(error, json.JSONDecodeError) else ""
        raise _whole(f"The file is not JSON{where}: choose a rig file that was exported here.") from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise _whole(f'The file is JSON but not a rig file: it lacks "format": "{FORMAT}".')
    version = document.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise _whole("The file does not say which version of the rig file it is.")
    if version > VERSION:
        raise _whole(
            f"The file is of version {version}; this program reads up to version {VERSION}. "
            "Update the program, or export the file again from the older one."
        )
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
    if not isinstance(document, dict):
        raise _whole("A rig file is a group of fields.")
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


def _read_overrides(
    document: dict[str, Any], reference: Reference, context: dict[str, Any]
) -> tuple[dict[str, Any], list[Problem]]:
    plan = document.get("plan")
    overrides = plan.get("overrides") if isinstance(plan, dict) else None
    if not isinstance(overrides, dict) or not overrides:
        return document, []
    known = reference.assumptions(next(iter(reference.rules)), {})
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
            values[key] = check_bounds(
                number,
                entry.least,
                entry.most,
                f"{known.get(key).name}: between {{least}} and {{most}}, not {{value}}.",
            )
        except ValueError as error:
            problems.append(Problem(path, str(error)))
    assert isinstance(plan, dict)
    return {**document, "plan": {**plan, "overrides": values}}, problems


def _cross_check(rig_file: RigFile, reference: Reference) -> list[Problem]:
    problems: list[Problem] = []
    classes = {m.id: m.battery_class.key for m in reference.catalogue.values()}
    classes |= {m.id: m.battery_class for m in rig_file.own_models}
    for i, candidate in enumerate(rig_file.candidates):
        if candidate.model is None:
            continue
        path = f"/candidates/{i}/model"
        if candidate.model not in classes:
            said = f"There is no battery “{candidate.model}” in the catalogue or among your own."
            problems.append(Problem(path, said))
        elif classes[candidate.model] != candidate.battery_class:
            said = f"The battery “{candidate.model}” is not of the class “{candidate.battery_class}”."
            problems.append(Problem(path, said))
    lists = {
        "day/loads": [load.id for load in rig_file.day.loads],
        "candidates": [candidate.id for candidate in rig_file.candidates],
        "own_models": [model.id for model in rig_file.own_models],
    }
    for name, ids in lists.items():
        for i, given in enumerate(ids):
            shipped = name == "own_models" and given in reference.catalogue
            if given in ids[:i] or shipped:
                problems.append(Problem(f"/{name}/{i}/id", f"The id “{given}” is used twice."))
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
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **schema,
        "title": f"Vast Harbor rig file, version {VERSION}",
    }


def own_model(part: ModelPart, reference: Reference) -> BatteryModel:
    """An own battery entry as the core knows it."""
    battery_class = reference.classes[part.battery_class]
    return BatteryModel(
        part.id,
        part.maker,
        part.name,
        battery_class,
        cells_of(battery_class, part.unit_v),
        ((part.rated_ah, part.rated_hours),),
        ((part.cycles_at_dod, part.cycles),),
        part.kg,
        part.price,
        part.warranty_years,
        part.max_series,
        part.max_parallel,
        heater_w=part.heater_w,
        own=True,
    )


def _load(part: LoadPart, system_v: float, mains_v: float) -> Load:
    volts = part.volts or (system_v if part.supply == DC else mains_v)
    return Load(
        part.id,
        part.name,
        part.supply,
        Draw(part.draw.value, part.draw.unit),
        volts,
        part.quantity,
        part.use,
        part.hours,
        part.uses,
        part.minutes,
        part.duty,
        part.starts_at,
        tuple(part.windows),
    )


def _old_bank(part: OldBankPart | None, reference: Reference) -> OldBank | None:
    if part is None:
        return None
    battery_class = reference.classes[part.battery_class]
    volts = cells_of(battery_class, part.unit_v) * battery_class.cell_v
    return OldBank(
        battery_class,
        volts,
        part.unit_ah,
        part.series,
        part.parallel,
        part.age_years,
        part.unit_kg,
        part.test_a,
        part.test_minutes,
        part.test_c,
    )


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
        Candidate(
            c.id,
            c.battery_class,
            c.model,
            c.series,
            c.parallel,
            c.unit_price,
            tuple(Extra(e.name, e.price) for e in c.extras),
        )
        for c in rig_file.candidates
    )
    return Plan(
        rig.name,
        rig.kind,
        rig.system_v,
        rig.off_grid_nights,
        rig.years_kept,
        rig.battery_c,
        rig.rest_c,
        tuple(_load(part, rig.system_v, mains_v) for part in day.loads),
        Inverter(day.inverter.efficiency, day.inverter.idle_w, day.inverter.hours_on),
        day.standby_w,
        plan.house_rule,
        plan.overrides,
        plan.life_basis,
        candidates,
        {**reference.catalogue, **own},
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
        candidates=[
            CandidatePart(id="agm", battery_class="agm"),
            CandidatePart(id="lfp", battery_class="lfp"),
        ],
    )
    return to_document(rig_file)
