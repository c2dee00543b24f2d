"""What is done about the sources beside a bank, as its money counts it: the rig as it will be afterwards."""

from dataclasses import replace

from vast_harbor.core.figures.cached import kept_with
from vast_harbor.core.rig.plan import Fix
from vast_harbor.core.rig.source_remedies import Rung, sources_of
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, Build
from vast_harbor.core.stops.charging.suitability import Suitability, suitability_of


def demand_key(source: str) -> str:
    """Key of what a source demands, as extras cover it and owners strike it out."""
    return f"source-{source}"


def asks_for_more(one: Suitability) -> bool:
    """Whether something is to be done about a source, and can be."""
    return one.verdict in (BLOCKING, CAUTION) and bool(one.rungs)


def enough(build: Build, one: Suitability) -> Rung:
    """The least remedy that leaves nothing that is counted, else the largest."""
    if not one.counts:
        return one.rungs[0]
    for rung in one.rungs:
        fixed = replace(build.candidate, fixes=(*build.candidate.fixes, Fix(one.source, rung.key)))
        after = suitability_of(replace(build, candidate=fixed), one.source)[0]
        if not after.counts:
            return rung
    return one.rungs[-1]


def as_built(build: Build) -> Build:
    """A bank in its rig with all that is counted carried out, chosen by its owner or required by the bank.

    Trial, year, settings, wiring, work order and proof use these sources; what the owner struck out is left
    as it is.
    """
    # What is kept with a bank must not be that bank: a circle would have to be collected.
    return _put_right(build) or build


@kept_with
def _put_right(build: Build) -> Build | None:
    candidate, plan = build.candidate, build.plan
    required = tuple(
        Fix(one.source, enough(build, one).key)
        for one in suitability_of(build)
        if asks_for_more(one) and one.counts and demand_key(one.source) not in candidate.struck
    )
    if not required:
        return None
    fixed = replace(candidate, fixes=(*candidate.fixes, *required))
    sources = sources_of(plan, fixed, build.bank.model.battery_class, build.assumptions)
    return replace(build, criteria=replace(build.criteria, sources=sources))
