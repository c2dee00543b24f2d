"""The rig file: everything that an owner entered for one rig, as open JSON.

``docs/formats.md`` describes it for people; :func:`json_schema` is its JSON Schema. Values are in SI
units, hours and the rig's currency.
"""

import json
from collections.abc import Mapping
from collections.abc import Set as AbstractSet
from dataclasses import replace
from datetime import date
from typing import Any

from pydantic import ValidationError
from pydantic_core import to_json as json_bytes

from vast_harbor.core.figures.currency import currency_code
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.core.rig.reference import Reference
from vast_harbor.formats.bank_parts import CandidatePart
from vast_harbor.formats.changeover_part import read_reading
from vast_harbor.formats.day_part import LoadPart
from vast_harbor.formats.door import admitted
from vast_harbor.formats.fields import check_bounds, read_number, read_share
from vast_harbor.formats.parts import made
from vast_harbor.formats.problem import Problem as Problem
from vast_harbor.formats.problem import RigFileError as RigFileError
from vast_harbor.formats.rig_document import FORMAT, VERSION, RigFile
from vast_harbor.formats.rig_file_checks import cross_check, twice
from vast_harbor.formats.rig_part import RigPart
from vast_harbor.formats.rig_plan import to_plan as to_plan
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
    today: str = "",
) -> RigFile:
    """Check a document field by field.

    Args:
        document: the document.
        reference: shipped data, against which names are checked.
        typed: whether text is accepted as typed by the owner.
        stored: the document as it lies in the database; batteries and assumptions that it names, and that are
            gone since, may still be named.
        today: ISO date, for dates that are typed without a year; by the clock where it is not given.

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
        "today": date.fromisoformat(today) if today else None,
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
        found = [problem_of(e) for e in error.errors(include_url=False)]
        problems += (
            [replace(p, interpretations=possible_interpretations(p.path, document)) for p in found]
            if typed
            else found
        )
        raise RigFileError(problems) from error
    problems += cross_check(rig_file, reference, gone)
    held = {} if stored is None else _ids(stored)
    for name, ids in _ids(document).items():
        problems += twice(name, ids) if ids != held.get(name) else []
    if problems:
        raise RigFileError(problems)
    for load, before, part in zip(loads, known, rig_file.day.loads, strict=True):
        if before is None:
            _LOADS.put(_load_key(load, context), part)
    return rig_file


def brought_up(document: dict[str, Any]) -> dict[str, Any]:
    """A document of an earlier version as one of this version.

    Version 1 knows no changeover; version 2 did not know improvements at first, to which edits add rows.
    """
    if document.get("version") == 1:
        document = {**document, "version": VERSION}
    return document if "improvements" in document else {**document, "improvements": []}


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
    found = {name: document.get(name) or [] for name in ("sources", "improvements")}
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


def problem_of(error: Any) -> Problem:
    """An error of the parts, as a problem at its place."""
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
