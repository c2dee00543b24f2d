"""A package in words: its line, and a card of at most four sentences."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import islice

from vast_harbor.core.figures.workings import Figure, Sentence, escaped
from vast_harbor.core.improvements import JOIN, Improvement
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.bank_cautions import cautions_of_rig, undocumented
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.package import (
    ADVISED,
    FULL,
    NOTHING,
    SMALLEST,
    Package,
    Packages,
    figures_alone,
)
from vast_harbor.core.stops.compare.verdict import Verdict
from vast_harbor.phrases import and_list, phrase

# Sentences of a card.
MOST_SENTENCES = 4


def do(one: Improvement) -> str:
    """What is done, inside a sentence, safe inside a template."""
    return escaped(one.says[:1].lower() + one.says[1:])


@dataclass(frozen=True, slots=True)
class Family:
    """A family of batteries with its best package, or the best of its banks where it has none.

    Attributes:
        name: lead-acid or LFP.
        package: its best; None where there is none.
        out: where there is none, the best of its candidates, each of which is unsuitable; None without one.
        why: why there is no package; None where there is one.
    """

    name: str
    package: Package | None
    out: ComparedBank | None = None
    why: Sentence | None = None

    @property
    def compared(self) -> ComparedBank | None:
        """Its bank; None where none is known."""
        return self.package.compared if self.package is not None else self.out

    @property
    def figures(self) -> Mapping[str, Figure]:
        """What is told of it, by name as of a package; none where no bank is known."""
        if self.package is not None:
            return self.package.figures
        return {} if self.out is None else figures_alone(self.out)


@dataclass(frozen=True, slots=True)
class ToFindOut:
    """Something to find out before an improvement of the advised package is bought.

    Attributes:
        improvement: which; it tells what to find out.
        otherwise: what is advised if it cannot be done; None where that was not looked at.
    """

    improvement: Improvement
    otherwise: Sentence | None

    @property
    def asks(self) -> Sentence:
        """What to find out."""
        assert self.improvement.asks is not None
        return self.improvement.asks


def to_find_out(v: Verdict) -> tuple[ToFindOut, ...]:
    """What must be known before the improvements of the advised package are bought; nothing before packages
    were looked for."""
    packages = v.answer.packages
    if packages is None:
        return ()
    return tuple(
        ToFindOut(one, _otherwise(one, packages, v))
        for one in packages.advised.improvements
        if one.asks is not None
    )


def _otherwise(one: Improvement, packages: Packages, v: Verdict) -> Sentence | None:
    """What is advised if something cannot be done."""
    groups = ((p, {each.group for each in p.improvements}) for p in packages.all)
    others = [p for p, of_it in groups if one.group not in of_it]
    return headline(min(others, key=lambda p: p.weighed), v) if others else None


def families(v: Verdict) -> tuple[Family, ...]:
    """Lead-acid and LFP, each at its best; none before packages were looked for."""
    packages = v.answer.packages
    if packages is None:
        return ()
    return tuple(
        _family(packages, v, lead, name)
        for lead, name in (
            (True, phrase("compare.packages.family_lead")),
            (False, phrase("compare.packages.family_lfp")),
        )
    )


def _family(packages: Packages, v: Verdict, lead: bool, name: str) -> Family:
    package = packages.best_of(lead)
    if package is not None:
        return Family(name, package)
    outs = [o for o in v.outs if o.compared.banked.battery_class.is_lead_acid == lead]
    if not outs:
        return Family(name, None, None, Sentence(phrase("compare.packages.family_none")))
    out = min(outs, key=lambda o: o.compared.cost["lifetime"].number)
    return Family(name, None, out.compared, out.says)


def headline(package: Package, v: Verdict) -> Sentence:
    """A package in one line, in the order of doing.

    Args:
        package: the package.
        v: the verdict, which names the bank where nothing is added to what is planned.
    """
    first = [do(one) for one in package.improvements]
    if package.keeps:
        keep = phrase("compare.package_text.keep")
        # What is joined to it keeps it.
        joined = any(one.kind.key == JOIN for one in package.improvements)
        kept = first if joined else [*first, keep]
        says = and_list(kept) if first else phrase("compare.package_text.wait", keep=keep)
    else:
        says = phrase("compare.package_text.buy", title=_bank_of(package, v).title)
        if first:
            says = phrase("compare.package_text.then", first=and_list(first), buy=says)
    says = says[:1].upper() + says[1:]
    if any(one.asks is not None for one in package.improvements):
        says = phrase("compare.package_text.now", says=says[:1].lower() + says[1:])
    return Sentence(phrase("compare.package_text.line", says=says))


def _bank_of(package: Package, v: Verdict) -> ComparedBank:
    """The bank to buy: where nothing is added to what is planned, the one of the verdict, which goes by what
    its owner cares about, too."""
    return package.compared if package.added or v.winner is None else v.winner


def card(package: Package, v: Verdict) -> Iterator[Sentence]:
    """What a package costs, against what, and what would change it: at most four sentences."""
    return islice(_card(package, v), MOST_SENTENCES)


def _card(package: Package, v: Verdict) -> Iterator[Sentence]:
    f = package.figures
    yield Sentence(phrase("compare.package_text.day"), {"outlay": f["outlay"], "hours": f["hours"]})
    yield _against(package, v)
    yield from cautions_of_rig(v)
    if not package.keeps:
        yield from undocumented(_bank_of(package, v))
    # What must be found out is listed below as well: the first to go where there is more to say.
    asks = next((one.asks for one in package.improvements if one.asks is not None), None)
    if asks is not None:
        yield asks
    elif package.keeps:
        yield Sentence(phrase("compare.package_text.until"), {"years": f["years"]})


def _against(package: Package, v: Verdict) -> Sentence:
    """What it costs over the years, against the best bank with nothing added to what is planned, and against
    the best package of the other family."""
    f, packages = package.figures, v.answer.packages
    alone = [p for p in packages.all if not p.added and p is not package] if packages is not None else []
    best = min(alone, key=lambda p: p.weighed, default=None)
    figures = {"H": package.compared.cost["per_year"].inputs["H"], "total": f["lifetime"]}
    other = packages.best_of(not package.is_lead_acid) if packages is not None else None
    family = ""
    if other is not None and other is not best:
        figures |= {"other": other.figures["lifetime"]}
        family = "lead" if other.is_lead_acid else "lfp"
    if best is None:
        return Sentence(COSTS[family], figures | {"served": f["served"]})
    name = (
        phrase("compare.package_text.old_alone")
        if best.keeps
        else phrase("compare.package_text.alone", title=best.compared.title)
    )
    says = {
        "": phrase("compare.package_text.costs_against", name=name),
        "lead": phrase("compare.package_text.costs_against_lead", name=name),
        "lfp": phrase("compare.package_text.costs_against_lfp", name=name),
    }
    return Sentence(says[family], figures | {"alone": best.figures["lifetime"]})


# What the steps of the ladder are called.
STEP_NAMES = {
    NOTHING: phrase("compare.packages.nothing"),
    SMALLEST: phrase("compare.packages.smallest"),
    ADVISED: phrase("compare.packages.advised"),
    FULL: phrase("compare.packages.full"),
}


# What a package costs, where nothing else is told of but the other family.
COSTS = {
    "": phrase("compare.package_text.costs"),
    "lead": phrase("compare.package_text.costs_lead"),
    "lfp": phrase("compare.package_text.costs_lfp"),
}


KIND_NAMES = {
    "panels": phrase("compare.package_text.kind_panels"),
    "controller": phrase("compare.package_text.kind_controller"),
    "dc_dc": phrase("compare.package_text.kind_dc_dc"),
    "mains_charger": phrase("compare.package_text.kind_mains_charger"),
    "lower": phrase("compare.package_text.kind_lower"),
    "generator": phrase("compare.package_text.kind_generator"),
    "indoors": phrase("compare.package_text.kind_indoors"),
    JOIN: phrase("compare.package_text.kind_join"),
    "insulated": phrase("compare.package_text.kind_insulated"),
    "heated": phrase("compare.package_text.kind_heated"),
    "standby": phrase("compare.package_text.kind_standby"),
    "thrifty": phrase("compare.package_text.kind_thrifty"),
    "drop": phrase("compare.package_text.kind_drop"),
    "gas": phrase("compare.package_text.kind_gas"),
    "daylight": phrase("compare.package_text.kind_daylight"),
    "hook_up": phrase("compare.package_text.kind_hook_up"),
}


def label(kind: str, target: str, plan: Plan) -> str:
    """What a kind of improvement is called in a list, with the load or source that it changes.

    Args:
        kind: its key.
        target: id of a load or source; empty for none.
        plan: the rig.
    """
    named = next((one.name for one in plan.loads if one.id == target), "")
    return f"{KIND_NAMES[kind]}: {named}" if named else KIND_NAMES[kind]
