"""What an edit keeps of the document before it: ranges, stated values, typical ones."""

from collections.abc import Iterable, Mapping
from typing import Any

from pydantic import ValidationError

from vast_harbor.core.rig.topics import stated_by
from vast_harbor.formats.day_part import LoadPart
from vast_harbor.formats.problem import RigFileError
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.rig_file import problem_of
from vast_harbor.formats.rig_plan import volts_of


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
        raise RigFileError([problem_of(e) for e in error.errors(include_url=False)]) from error
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
