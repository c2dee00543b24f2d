"""The evaluated rig: worked out once for all who ask of one state of it, and gone on with after an edit."""

import json
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any

from vast_harbor import data
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.packages import packages_of
from vast_harbor.core.passage import Before, Results, evaluate
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.stops.banks import QuickLifeCost, quick_life_cost
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.store import rigs
from vast_harbor.web.base.database import database, today
from vast_harbor.web.base.views import PREVIEW_ID


@dataclass(frozen=True)
class EvaluatedRig:
    """A rig in figures.

    Attributes:
        rig: its checked document.
        results: its plan in figures.
    """

    rig: RigFile
    results: Results

    @cached_property
    def figures(self) -> dict[str, Figure]:
        """All figures of the plan by key, gathered when somebody asks for one."""
        return self.results.figures()


# What was run for a rig last: an edit is answered with it, and what is new is run when it is asked for.
_LAST_RUN: LruCache[tuple[Path, int], Before] = LruCache(4)
# Workings, pictures and the plan beside a trial are asked for again and again of one state of a rig.
# An undo comes back to one, and so does a second window.
_EVALUATED: LruCache[tuple[str, str, str], EvaluatedRig] = LruCache(5)
# Rigs as they were evaluated right after an edit, by their document.
_EDITED: LruCache[tuple[str, str], EvaluatedRig] = LruCache(3)
# The same without what is only noted: a copy, another name or a step that is ticked is not worked out anew.
_WORKED_OUT: LruCache[tuple[str, str, str], Results] = LruCache(5)


def forget() -> None:
    """Forget all that was worked out: other rigs are there now."""
    for kept in (_LAST_RUN, _EDITED, _EVALUATED, _WORKED_OUT):
        kept.clear()


def evaluated_results(rig_id: int) -> tuple[RigFile, Plan, Results]:
    """A stored rig with all its figures, everything run.

    Raises:
        Missing: there is no such rig.
    """
    with database().reading() as db:
        document = rigs.get(db, rig_id).document
    known = of_document(document)
    return known.rig, known.results.plan, known.results


def whole_results(rig_id: int) -> tuple[RigFile, Plan, Results]:
    """As :func:`evaluated_results`, with the packages: papers and exports tell the whole answer."""
    rig, plan, results = evaluated_results(rig_id)
    packages_of(results, data.reference())
    return rig, plan, results


def evaluated_rig(rig_id: int) -> tuple[RigFile, Plan, Results, QuickLifeCost]:
    """As :func:`evaluated_results`, and how banks look at it."""
    rig, plan, results = evaluated_results(rig_id)
    return rig, plan, results, quick_life_cost(plan, data.reference(), results.assumptions, results.days)


def settled(rig_id: int, document: dict[str, Any]) -> EvaluatedRig:
    """A stored rig with everything run; the next edit of it goes on with that."""
    known = of_document(document)
    _remember(rig_id, known.results)
    return known


def edited(rig_id: int, rig: RigFile, document: dict[str, Any]) -> Results:
    """A rig just edited: what takes long to run or to find is as it was.

    Args:
        rig_id: which rig.
        rig: its checked document.
        document: the same as it will be stored.
    """
    plan = files.to_plan(rig, data.reference(), today())
    known = _noted(document, plan)
    if known is not None and known.verdict.is_decided:
        return known
    before = _LAST_RUN.get((database().path, rig_id))
    results = evaluate(plan, data.reference(), before)
    if before is None:
        _remember(rig_id, results)
    _EDITED.put((json.dumps(document), today()), EvaluatedRig(rig, results))
    return results


def _remember(rig_id: int, results: Results) -> None:
    results.simulated.run()
    _LAST_RUN.put((database().path, rig_id), results.before)


def of_document(document: dict[str, Any], preview_of: str = "") -> EvaluatedRig:
    """A rig with everything run.

    Args:
        document: as it is stored.
        preview_of: a battery that is looked at without being a candidate; none if empty.
    """
    text, day = json.dumps(document), today()
    return _EVALUATED.of((text, day, preview_of), lambda: _worked_out(document, text, day, preview_of))


def known_or_new(document: Any, day: str) -> tuple[RigFile, Results]:
    """A stored document with its figures, which are not kept for it: for a look at many rigs.

    Args:
        document: of the rig.
        day: ISO date.
    """
    known = _EVALUATED.get((json.dumps(document), day, ""))
    if known is not None:
        return known.rig, known.results
    rig = files.read(document, data.reference(), stored=document)
    plan = files.to_plan(rig, data.reference(), day)
    return rig, _noted(document, plan) or evaluate(plan, data.reference())


def _worked_out(document: dict[str, Any], text: str, day: str, preview_of: str) -> EvaluatedRig:
    edited = None if preview_of else _EDITED.get((text, day))
    if edited is not None:
        # The hand rests: only what the edit went on with is worked out anew.
        key = (_without_notes(document), day, "")
        results = _WORKED_OUT.of(key, edited.results.settled)
        plan = edited.results.plan
        return EvaluatedRig(edited.rig, results if results.plan is plan else results.noted(plan))
    reference = data.reference()
    rig = files.read(document, reference, stored=document)
    plan = files.to_plan(rig, reference, day)
    if preview_of in plan.models:
        preview = Candidate(
            f"{PREVIEW_ID}{preview_of}", plan.models[preview_of].battery_class.key, preview_of
        )
        plan = replace(plan, candidates=(*plan.candidates, preview))
    key = (_without_notes(document), day, preview_of)
    results = _WORKED_OUT.of(key, lambda: evaluate(plan, reference))
    return EvaluatedRig(rig, results if results.plan is plan else results.noted(plan))


def _noted(document: dict[str, Any], plan: Plan) -> Results | None:
    """A plan in figures where they are known already, whatever is noted with it."""
    known = _WORKED_OUT.get((_without_notes(document), plan.today, ""))
    return None if known is None else known.noted(plan)


def _without_notes(document: dict[str, Any]) -> str:
    """What figures are worked out of: all but the rig's name, its changeover and the open question."""
    return json.dumps(
        {**document, "rig": {**document["rig"], "name": ""}, "changeover": None, "guide": None},
        sort_keys=True,
    )
