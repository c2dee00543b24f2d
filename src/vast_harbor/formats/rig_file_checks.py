"""What holds between the parts of a rig file."""

from collections.abc import Container, Sequence
from collections.abc import Set as AbstractSet

from vast_harbor.core.rig.reference import Reference
from vast_harbor.formats.model_part import contradictions
from vast_harbor.formats.problem import Problem
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase


def cross_check(rig_file: RigFile, reference: Reference, gone: AbstractSet[str]) -> list[Problem]:
    """What does not fit between the parts of a file."""
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
        problems += twice(name, ids, reference.catalogue if name == "own_models" else ())
    return problems


def twice(name: str, ids: Sequence[str], taken: Container[str] = ()) -> list[Problem]:
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
