"""The rig file: everything that an owner entered for one rig, as open JSON.

``docs/formats.md`` describes it for people; :func:`json_schema` is its JSON Schema. Values are in SI
units, hours and the rig's currency.
"""

import json
from collections.abc import Container, Iterable, Mapping, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import replace
from typing import Any

from pydantic import ValidationError
from pydantic_core import to_json as json_bytes

from vast_harbor.core.figures.currency import currency_code
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.core.rig.plan import Reference
from vast_harbor.core.rig.topics import stated_by
from vast_harbor.formats.bank_parts import CandidatePart
from vast_harbor.formats.changeover_part import read_reading
from vast_harbor.formats.day_part import LoadPart
from vast_harbor.formats.door import admitted
from vast_harbor.formats.fields import check_bounds, read_number, read_share
from vast_harbor.formats.model_part import contradictions
from vast_harbor.formats.parts import made
from vast_harbor.formats.problem import Problem as Problem
from vast_harbor.formats.problem import RigFileError as RigFileError
from vast_harbor.formats.rig_document import FORMAT, VERSION, RigFile
from vast_harbor.formats.rig_part import RigPart
from vast_harbor.formats.rig_plan import to_plan as to_plan
from vast_harbor.formats.rig_plan import volts_of
from vast_harbor.formats.slips import possible_interpretations
from vast_harbor.phrases import phrase

LARGEST_BYTES = 2_000_000


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
            phrase(
                "files.rig_file.file_mb_rig_file",
                data=f"{len(data) / 1000000.0:.0f}",
                largest_bytes=f"{LARGEST_BYTES / 1000000.0:.0f}",
            )
        )
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except (ValueError, RecursionError) as error:
        where = (
            phrase("files.rig_file.line", lineno=error.lineno)
            if isinstance(error, json.JSONDecodeError)
            else ""
        )
        raise _whole(phrase("files.rig_file.file_json_choose_rig", where=where)) from error
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise _whole(phrase("files.rig_file.file_json_rig_file", format=FORMAT))
    version = document.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise _whole(phrase("files.rig_file.file_state_rig_file"))
    if version > VERSION:
        raise _whole(phrase("files.rig_file.file_version_program_reads", version=version, version_2=VERSION))
    checked: dict[str, Any] = admitted(document)
    return checked


def _whole(message: str) -> RigFileError:
    return RigFileError([Problem("", message)])


def read(
    document: dict[str, Any],
    reference: Reference,
    *,
    typed: bool = False,
    stored: Mapping[str, Any] | None = None,
) -> RigFile:
    """Check a document field by field.

    Args:
        document: the document.
        reference: shipped data, against which names are checked.
        typed: whether text is accepted as typed by the owner.
        stored: the document as it lies in the database; batteries and assumptions that it names, and that are
            gone since, may still be named.

    Returns:
        The rig file, in SI.

    Raises:
        RigFileError: every problem, each at its field.
    """
    if not isinstance(document, dict):
        raise _whole(phrase("files.rig_file.rig_file_must_group"))
    rig = document.get("rig")
    system = rig.get("units", "metric") if isinstance(rig, dict) else "metric"
    volts = rig.get("system_v") if isinstance(rig, dict) else None
    written = rig.get("numbers") if isinstance(rig, dict) else None
    currency = rig.get("currency") if isinstance(rig, dict) else None
    context = {
        "typed": typed,
        "system": system,
        "system_v": volts if isinstance(volts, int | float) else None,
        "numbers": written if written in LOCALES else "",
        "currency": currency_code(currency) if isinstance(currency, str) else None,
        "reference": reference,
    }
    gone = _named(stored)
    document, problems = _read_overrides(brought_up(document), reference, context, gone)
    document, wrong = _read_readings(document, context)
    problems += wrong
    loads = _given_loads(document)
    known = [_LOADS.get(_load_key(load, context)) for load in loads]
    # Those that were checked before are taken as they are.
    taken = [part or load for part, load in zip(known, loads, strict=True)]
    given = {**document, "day": {**document["day"], "loads": taken}} if any(known) else document
    try:
        rig_file = RigFile.model_validate(given, context=context)
    except ValidationError as error:
        found = [_problem(e) for e in error.errors(include_url=False)]
        problems += (
            [replace(p, interpretations=possible_interpretations(p.path, document)) for p in found]
            if typed
            else found
        )
        raise RigFileError(problems) from error
    problems += _cross_check(rig_file, reference, gone)
    held = {} if stored is None else _ids(stored)
    for name, ids in _ids(document).items():
        problems += _twice(name, ids) if ids != held.get(name) else []
    if problems:
        raise RigFileError(problems)
    for load, before, part in zip(loads, known, rig_file.day.loads, strict=True):
        if before is None:
            _LOADS.put(_load_key(load, context), part)
    return rig_file


def brought_up(document: dict[str, Any]) -> dict[str, Any]:
    """A document of an earlier version as one of this version: version 1 knows no changeover."""
    return {**document, "version": VERSION} if document.get("version") == 1 else document


# Loads that were checked, by what was given and how it was to be read: an edit changes one of many.
_LOADS: LruCache[bytes, LoadPart] = LruCache(2000)


def _given_loads(document: dict[str, Any]) -> list[Any]:
    day = document.get("day")
    loads = day.get("loads") if isinstance(day, dict) else None
    return loads if isinstance(loads, list) else []


def _load_key(load: Any, context: dict[str, Any]) -> bytes:
    return json_bytes((load, context["typed"], context["system"], context["system_v"], context["numbers"]))


def _named(stored: Mapping[str, Any] | None) -> frozenset[str]:
    """Batteries and assumptions that a stored document names, without those that it describes itself."""
    if stored is None:
        return frozenset()
    overrides = stored.get("plan", {}).get("overrides", {})
    own = {m.get("id") for m in stored.get("own_models", [])}
    models = {c["model"] for c in stored.get("candidates", []) if c.get("model")}
    return frozenset({*overrides, *models} - own)


def _ids(document: Mapping[str, Any]) -> dict[str, list[Any]]:
    """The ids of the lists that earlier versions did not hold apart, by the place of each list."""
    found = {"sources": document.get("sources") or []}
    for i, candidate in enumerate(document.get("candidates") or []):
        found[f"candidates/{i}/extras"] = candidate.get("extras") or []
    return {name: [row.get("id") for row in rows] for name, rows in found.items()}


def _read_overrides(
    document: dict[str, Any], reference: Reference, context: dict[str, Any], gone: AbstractSet[str]
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
        if key not in known and key in gone and isinstance(value, int | float):
            values[key] = float(value)
            continue
        if key not in known:
            problems.append(Problem(path, phrase("files.rig_file.assumption", key=key)))
            continue
        entry = known.get(key).entry
        try:
            unit = "1" if entry.unit == "%" else entry.unit
            number = (
                read_share(value, unit, entry.least, entry.most, context)
                if unit in ("1", "1/year") and entry.unit != "1"
                else read_number(value, unit, context)
            )
            values[key] = check_bounds(
                number,
                entry.least,
                entry.most,
                phrase("files.rig_file.must_between", name=known.get(key).name),
            )
        except ValueError as error:
            problems.append(Problem(path, str(error)))
    assert isinstance(plan, dict)
    return {**document, "plan": {**plan, "overrides": values}}, problems


def _read_readings(document: dict[str, Any], context: dict[str, Any]) -> tuple[dict[str, Any], list[Problem]]:
    """The readings of the changeover, each checked at its own place."""
    part = document.get("changeover")
    given = part.get("readings") if isinstance(part, dict) else None
    if not isinstance(part, dict) or not isinstance(given, dict) or not given:
        return document, []
    values: dict[str, float | None] = {}
    problems: list[Problem] = []
    for name, value in given.items():
        try:
            values[name] = read_reading(str(name), value, context)
        except ValueError as error:
            problems.append(Problem(f"/changeover/readings/{name}", str(error)))
    return {**document, "changeover": {**part, "readings": values}}, problems


def _cross_check(rig_file: RigFile, reference: Reference, gone: AbstractSet[str]) -> list[Problem]:
    problems: list[Problem] = []
    classes = {m.id: m.battery_class.key for m in reference.catalogue.values()}
    classes |= {m.id: m.battery_class for m in rig_file.own_models}
    for i, candidate in enumerate(rig_file.candidates):
        if candidate.model is None:
            continue
        path = f"/candidates/{i}/model"
        if candidate.model not in classes and candidate.model in gone:
            continue
        if candidate.model not in classes:
            said = phrase("files.rig_file.battery_catalogue_among_own", model=candidate.model)
            problems.append(Problem(path, said))
        elif classes[candidate.model] != candidate.battery_class:
            said = phrase(
                "files.rig_file.battery_class", model=candidate.model, battery_class=candidate.battery_class
            )
            problems.append(Problem(path, said))
    problems += _cross_check_days(rig_file)
    problems += _cross_check_models(rig_file, reference)
    lists = {
        "day/types": [t.id for t in rig_file.day.types],
        "day/loads": [load.id for load in rig_file.day.loads],
        "candidates": [candidate.id for candidate in rig_file.candidates],
        "own_models": [model.id for model in rig_file.own_models],
        "changeover/proof": [reading.id for reading in rig_file.changeover.proof],
    }
    for name, ids in lists.items():
        problems += _twice(name, ids, reference.catalogue if name == "own_models" else ())
    return problems


def _twice(name: str, ids: Sequence[str], taken: Container[str] = ()) -> list[Problem]:
    """What is wrong with the ids of a list: those used twice, or taken already."""
    return [
        Problem(f"/{name}/{i}/id", phrase("files.rig_file.id_used_twice", given=given))
        for i, given in enumerate(ids)
        if given in ids[:i] or given in taken
    ]


def _cross_check_models(rig_file: RigFile, reference: Reference) -> list[Problem]:
    problems: list[Problem] = []
    titles = {m.title.casefold() for m in reference.catalogue.values()}
    for i, part in enumerate(rig_file.own_models):
        at = f"/own_models/{i}"
        problems += [Problem(f"{at}/{field}", said) for field, said in contradictions(part)]
        title = f"{part.maker} {part.name}".strip()
        if title.casefold() in titles:
            problems.append(
                Problem(f"{at}/name", phrase("files.rig_file.already_battery_named", title=title))
            )
        titles.add(title.casefold())
    return problems


def _cross_check_days(rig_file: RigFile) -> list[Problem]:
    problems: list[Problem] = []
    types = {t.id for t in rig_file.day.types}
    if rig_file.plan.day_type is not None and rig_file.plan.day_type not in types:
        problems.append(Problem("/plan/day_type", phrase("files.rig_file.plan_kind_day_exist")))
    for i, load in enumerate(rig_file.day.loads):
        path = f"/day/loads/{i}"
        for name in load.on:
            if name not in types:
                problems.append(Problem(f"{path}/on/{name}", phrase("files.rig_file.kind_day", name=name)))
        for name, part in load.on.items():
            if part is not None and part.use == "uses" and part.uses * part.minutes > 1440 * (1 + 1e-9):
                said = phrase(
                    "files.rig_file.uses_min_h_longer",
                    uses=f"{part.uses:g}",
                    minutes=f"{part.minutes:g}",
                    uses_2=f"{part.uses * part.minutes / 60:.1f}",
                )
                problems.append(Problem(f"{path}/on/{name}/minutes", said))
    return problems


def _problem(error: Any) -> Problem:
    path = "".join(f"/{part}" for part in error["loc"])
    kind = error["type"]
    if kind == "value_error":
        return Problem(path, str(error["ctx"]["error"]))
    sentences = {
        "missing": phrase("files.rig_file.field_missing"),
        "extra_forbidden": phrase("files.rig_file.field_part_rig_file", loc=error["loc"][-1]),
        "string_pattern_mismatch": phrase("files.rig_file.id_up_40_letters"),
        "too_long": phrase("files.rig_file.entries_limit", get=error.get("ctx", {}).get("max_length")),
        "list_type": phrase("files.rig_file.must_list"),
        "model_type": phrase("files.rig_file.must_group_fields"),
        "dict_type": phrase("files.rig_file.must_group_fields"),
        "string_type": phrase("files.rig_file.must_text"),
    }
    return Problem(path, sentences.get(kind, f"{error['msg']}."))


def keep_ranges(before: Mapping[str, Any], rig_file: RigFile) -> RigFile:
    """The least and the most of each load in the unit of its draw, where an edit changed that unit.

    They are stored in the unit of the draw: 30 to 60 W stay 30 to 60 W when 48 W become 4 A.

    Args:
        before: the document before the edit.
        rig_file: after it, checked.

    Returns:
        The rig file; ranges that were edited themselves are left as they were given.
    """
    was = {load["id"]: load for load in before["day"]["loads"]}
    loads = [_with_range(part, was.get(part.id), rig_file) for part in rig_file.day.loads]
    return rig_file.model_copy(update={"day": rig_file.day.model_copy(update={"loads": loads})})


def _with_range(part: LoadPart, was: Mapping[str, Any] | None, rig_file: RigFile) -> LoadPart:
    if was is None or was["draw"]["unit"] == part.draw.unit:
        return part
    volts = volts_of(part, rig_file)
    factor = 1 / volts if part.draw.unit == "A" else volts
    ends = {"low": part.low, "high": part.high}
    changed = {name: x * factor for name, x in ends.items() if x is not None and x == was.get(name)}
    return part.model_copy(update=changed)


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


def json_schema_components() -> dict[str, Any]:
    """The JSON Schema as an OpenAPI description with nothing but components, from which types are made.

    The rig file is not part of the API's own description: a rig goes out and in as it is stored.
    """
    schema = RigFile.model_json_schema(ref_template="#/components/schemas/{model}", mode="serialization")
    components = {**schema.pop("$defs"), "RigFile": schema}
    # As the program holds it, every field is there.
    for component in components.values():
        if "properties" in component:
            component["required"] = list(component["properties"])
    return {
        "openapi": "3.1.0",
        "info": {"title": "Vast Harbor rig file", "version": str(VERSION)},
        "paths": {},
        "components": {"schemas": components},
    }


def load_to_keep(load: dict[str, Any]) -> dict[str, Any]:
    """A load as it is kept in the owner's appliance list: checked, without its id and its kinds of day.

    Args:
        load: a load as it stands in a rig file.

    Returns:
        Its fields.

    Raises:
        RigFileError: it is no load.
    """
    try:
        part = LoadPart.model_validate({**load, "id": "own", "on": {}})
    except ValidationError as error:
        raise RigFileError([_problem(e) for e in error.errors(include_url=False)]) from error
    return part.model_dump(mode="json", exclude={"id", "on", "bank"})


def with_stated(document: dict[str, Any], paths: Iterable[str]) -> dict[str, Any]:
    """A document after an edit: what was filled in for its owner, and is edited now, the owner has stated.

    Args:
        document: after the edit.
        paths: JSON pointers of what was edited.

    Returns:
        The same, or one with its ``stated`` part changed. An edit of that part itself stands.
    """
    stated = document.get("stated") if isinstance(document, dict) else None
    edited = set(paths)
    if not isinstance(stated, dict) or not any(given is False for given in stated.values()):
        return document
    topics = {key for path in edited for key in stated_by(path) if f"/stated/{key}" not in edited}
    said = {key: True for key in topics if stated.get(key) is False}
    return {**document, "stated": {**stated, **said}} if said else document


def without_typical(before: dict[str, Any], after: dict[str, Any]) -> dict[str, Any]:
    """A document after an edit: what its owner changed of a battery is no longer typical of the class.

    Args:
        before: the document as it was; batteries are told apart by their ids.
        after: as it was checked after the edit.

    Returns:
        The same, or one with shorter lists ``typical`` of its ``own_models``.
    """
    old = {model["id"]: model for model in before.get("own_models", [])}
    models = []
    for model in after["own_models"]:
        known = old.get(model["id"], model)
        left = [field for field in model["typical"] if known.get(field) == model.get(field)]
        models.append(model if left == model["typical"] else {**model, "typical": left})
    return after if models == after["own_models"] else {**after, "own_models": models}


def new_rig(name: str, **fields: Any) -> dict[str, Any]:
    """The document of a new rig: no loads yet, a flooded, an AGM and an LFP bank that follow the need.

    Args:
        name: name of the rig.
        fields: further fields of its ``rig`` part.

    Returns:
        The document.
    """
    rig_file = RigFile(
        rig=RigPart(name=name, **fields),
        candidates=[
            made(CandidatePart, id="flooded_deep", battery_class="flooded_deep"),
            made(CandidatePart, id="agm", battery_class="agm"),
            made(CandidatePart, id="lfp", battery_class="lfp"),
        ],
    )
    return to_document(rig_file)
