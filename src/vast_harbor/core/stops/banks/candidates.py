"""Banks: real batteries in series and parallel, and what they deliver in this rig."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from vast_harbor.core.battery.bank import Bank, BatteryModel, series_count
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.figures.lazy import LazyMapping
from vast_harbor.core.figures.workings import Figure, Finding, Sentence, escaped
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan, Reference
from vast_harbor.core.stops.banks.bank_figures import bank_figures
from vast_harbor.core.stops.banks.checks import run_checks
from vast_harbor.core.stops.banks.checks.check import Build, Check
from vast_harbor.core.stops.banks.checks.stages import PurchaseStepFigures, steps
from vast_harbor.core.stops.banks.proposals import SizedLayout, size_layout, smallest
from vast_harbor.core.stops.banks.quick_life_cost import QuickLifeCost
from vast_harbor.core.stops.banks.rig_limits import RigLimits
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.rig import (
    Diagnosis,
    diagnose,
    old_bank_carries,
    old_bank_findings,
    old_bank_kg,
    old_bank_wh,
)


@dataclass(frozen=True, slots=True)
class BankFigures:
    """What one candidate is and gives.

    Attributes:
        candidate: as entered.
        battery_class: its class.
        bank: the layout; None when it cannot be built, and then there are no figures.
        proposed_model, proposed_parallel: whether the tool chose the model, the strings.
        findings: what is to be looked at.
        checks: everything that was looked at, with its figure, limit and margin.
        stages: the steps in which it is bought; none for at once.
        build: the bank in its rig; None when it cannot be built.
        figures: by name: ``series``, ``parallel``, ``units``, ``volts``, ``nameplate_ah``,
            ``nameplate_wh``; the factors ``dod``, ``temperature``, ``rate`` and ``exponent``;
            ``mean_current`` [A]; ``usable_wh`` at the ageing allowance, ``usable_new_wh``,
            ``usable_end_wh`` at 80 % of its capacity, ``usable_ah``; ``kg`` and ``kg_change``
            against the old bank (missing without one); ``unit_price``, ``purchase``, ``extras``.
    """

    candidate: Candidate
    battery_class: BatteryClass
    bank: Bank | None
    proposed_model: bool
    proposed_parallel: bool
    findings: tuple[Finding, ...]
    figures: Mapping[str, Figure]
    checks: tuple[Check, ...] = ()
    stages: tuple[PurchaseStepFigures, ...] = ()
    build: Build | None = None

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]


@dataclass(frozen=True, slots=True)
class Proposal:
    """The bank that the tool would put up for a class, and how each model of it could serve.

    Attributes:
        battery_class: the class.
        best: the smallest that covers the need and will do; None when no model makes the system voltage.
        sized_layouts: every model that makes the system voltage.
        unfit: models that do not, with the reason.
    """

    battery_class: BatteryClass
    best: SizedLayout | None
    sized_layouts: tuple[SizedLayout, ...]
    unfit: tuple[tuple[BatteryModel, str], ...]


@dataclass(frozen=True, slots=True)
class Banks:
    """All candidates, the proposals by battery class, and the old bank.

    Attributes:
        candidates: as entered.
        proposals: by battery class.
        old_kg, old_wh: weight and label energy of the old bank [kg], [Wh]; None without one.
        old_carries: ``soh``, ``usable_wh`` and ``nights`` of the old bank; empty when nothing is known of it.
        diagnosis: what its signs say; None without one.
        findings: what is to be looked at, besides those of the candidates.
        rig_limits: the rig as a bank meets it.
    """

    candidates: tuple[BankFigures, ...]
    proposals: Mapping[str, Proposal]
    old_kg: Figure | None
    old_wh: Figure | None
    old_carries: Mapping[str, Figure]
    diagnosis: Diagnosis | None
    findings: tuple[Finding, ...]
    rig_limits: RigLimits


class Proposals(LazyMapping[str, Proposal]):
    """The proposal for each battery class, looked for when somebody asks for it.

    Args:
        rig_limits: the rig as a bank meets it.
    """

    def __init__(self, rig_limits: RigLimits) -> None:
        classes = rig_limits.reference.classes
        super().__init__(classes, lambda key: _propose(rig_limits, classes[key]))
        self._rig_limits = rig_limits

    def strings(self, model: BatteryModel) -> int:
        """The fewest strings of a model that cover the need, or as many as are advisable."""
        limits = self._rig_limits
        need = limits.days.need.energy.number
        found = size_layout(model, limits.plan.system_v, need, limits.usable_wh)
        return found.bank.parallel if found is not None else 1


def evaluate(plan: Plan, reference: Reference, assumptions: Assumptions, days: Days) -> Banks:
    """Every candidate and a proposal for each class.

    Args:
        plan: what the owner entered.
        reference: shipped data.
        assumptions: what holds for the plan.
        days: the kinds of day and the need.

    Returns:
        The banks with their workings.
    """
    old, need = old_bank_kg(plan), days.need
    rig_limits = RigLimits(plan, reference, assumptions, days, old.number if old is not None else 0.0)
    proposals = Proposals(rig_limits)
    candidates = tuple(
        _candidate(plan, reference, assumptions, days, rig_limits, proposals, c, i, old)
        for i, c in enumerate(plan.candidates)
    )
    findings: tuple[Finding, ...] = ()
    if not candidates:
        findings = (
            Finding(
                "no_candidates",
                "note",
                "banks",
                Sentence("No bank is put up for comparison yet."),
                "Add one of the proposals below, or any model of the catalogue.",
            ),
        )
    diagnosis = diagnose(plan, assumptions, need)
    carries = old_bank_carries(plan, assumptions, need, diagnosis.health if diagnosis else None)
    findings += old_bank_findings(plan, carries, need)
    return Banks(candidates, proposals, old, old_bank_wh(plan), carries, diagnosis, findings, rig_limits)


def _propose(rig_limits: RigLimits, battery_class: BatteryClass) -> Proposal:
    plan, need = rig_limits.plan, rig_limits.days.need
    sized_layouts, unfit = [], []
    for model in plan.models.values():
        if model.battery_class.key != battery_class.key:
            continue
        if found := size_layout(model, plan.system_v, need.energy.number, rig_limits.usable_wh):
            sized_layouts.append(found)
        else:
            unfit.append((model, why_unfit(model, plan.system_v)))
    best = smallest(sized_layouts, lambda bank: not any(True for _ in rig_limits.against(bank)))
    return Proposal(battery_class, best, tuple(sized_layouts), tuple(unfit))


def why_unfit(model: BatteryModel, system_v: float) -> str:
    """Why a model cannot make the system voltage, in one sentence."""
    try:
        series = series_count(system_v, model.unit_class_v)
    except InvalidInput as error:
        return error.message
    return f"{system_v:g} V takes {series} of them in series, but the maker permits {model.max_series}."


def _layout(plan: Plan, candidate: Candidate, model: BatteryModel, proposals: Proposals) -> Bank:
    """The layout of a candidate, strings filled in where they follow the need."""
    series = candidate.series or series_count(plan.system_v, model.unit_class_v)
    if series * model.unit_class_v != plan.system_v:
        total = series * model.unit_class_v
        raise InvalidInput(
            "series",
            f"{series} × {model.unit_class_v:g} V in series make {total:g} V, "
            f"but the system has {plan.system_v:g} V.",
        )
    parallel = candidate.parallel
    if parallel is None:
        parallel = proposals.strings(model)
    return Bank(model, series, parallel)


def _candidate(
    plan: Plan,
    reference: Reference,
    assumptions: Assumptions,
    days: Days,
    rig_limits: RigLimits,
    proposals: Proposals,
    candidate: Candidate,
    index: int,
    old_kg: Figure | None,
) -> BankFigures:
    battery_class = reference.classes[candidate.battery_class]
    model: BatteryModel | None
    if candidate.model is None:
        best = proposals[battery_class.key].best
        model = best.bank.model if best else None
    else:
        model = plan.models[candidate.model]
        battery_class = model.battery_class
    flags = (candidate.model is None, candidate.parallel is None)
    if model is None:
        message = (
            f"No {battery_class.short} battery of the catalogue makes {plan.system_v:g} V "
            "within the maker's limits."
        )
        return BankFigures(
            candidate,
            battery_class,
            None,
            *flags,
            (_cannot(candidate, message, "Choose another class."),),
            {},
        )
    try:
        bank = _layout(plan, candidate, model, proposals)
    except InvalidInput as error:
        remedy = "Choose a unit that divides the system voltage, or another number in series."
        return BankFigures(
            candidate, battery_class, None, *flags, (_cannot(candidate, error.message, remedy),), {}
        )
    build = build_of(rig_limits, candidate, bank, index, old_kg)
    figures = build.figures
    checks = run_checks(build)
    findings = tuple(f for c in checks if (f := c.finding(candidate.id)) is not None)
    return BankFigures(candidate, battery_class, bank, *flags, findings, figures, checks, steps(build), build)


def build_of(
    rig_limits: RigLimits, candidate: Candidate, bank: Bank, index: int, old_kg: Figure | None
) -> Build:
    """A layout as it would be built into the rig, ready to be checked.

    Args:
        rig_limits: the rig as a bank meets it.
        candidate, index: the candidate and its place in the list.
        bank: its layout.
        old_kg: weight of the old bank [kg]; None without one.
    """
    criteria = replace(rig_limits.criteria(bank), places=candidate.places, protection=candidate.protection)
    worn = QuickLifeCost(rig_limits).start_wear(bank)
    figures = bank_figures(
        rig_limits.plan,
        rig_limits.assumptions,
        rig_limits.days.need,
        candidate,
        criteria,
        worn,
        index,
        old_kg,
    )
    return Build(
        rig_limits.plan, rig_limits.reference, rig_limits.assumptions, rig_limits.days, candidate, index,
        criteria, figures, old_kg,
    )  # fmt: skip


def _cannot(candidate: Candidate, message: str, remedy: str) -> Finding:
    return Finding("cannot_build", "stop", "banks", Sentence(escaped(message)), remedy, candidate.id)
