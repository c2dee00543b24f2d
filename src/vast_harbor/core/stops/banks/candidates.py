"""Banks: real batteries in series and parallel, and what they deliver in this rig."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace

from vast_harbor.core.battery.bank import Bank, BatteryModel, series_count
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.figures.workings import Figure, Finding, Sentence, escaped
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.source_remedies import sources_of
from vast_harbor.core.stops.banks.bank_figures import bank_figures
from vast_harbor.core.stops.banks.checks import run_checks
from vast_harbor.core.stops.banks.checks.check import Build, Check
from vast_harbor.core.stops.banks.checks.stages import PurchaseStepFigures, steps
from vast_harbor.core.stops.banks.class_proposals import ClassSearch, Proposals
from vast_harbor.core.stops.banks.quick_life_cost import QuickLifeCost
from vast_harbor.core.stops.banks.rig_limits import RigLimits
from vast_harbor.core.stops.banks.volts_to_act_on import acts
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.need import evaluate as evaluate_need
from vast_harbor.core.stops.rig import (
    Diagnosis,
    diagnose,
    old_bank_carries,
    old_bank_findings,
    old_bank_kg,
    old_bank_wh,
    predecessor_finding,
)
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True, repr=False)
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

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the candidate: its own, and those of its checks, settings and steps."""
        yield from self.figures.values()
        for check in self.checks:
            yield from (f for f in (check.figure, check.limit, check.margin) if f is not None)
            yield from check.says.figures.values()
            yield from (r.price for r in check.remedies if r.price is not None)
        if self.build is not None:
            for act in acts(self.build):
                yield from (act.soc, act.rested, act.loaded)
        for stage in self.stages:
            yield from (stage.money, stage.so_far, stage.usable, stage.covered, stage.nights)


@dataclass(frozen=True, slots=True)
class Choice:
    """What the tool chose for a class.

    Attributes:
        model: id of the model.
        more: strings above the fewest that cover the need.
    """

    model: str
    more: int


NO_CHOICE: Mapping[str, Choice] = {}
LOOKED_FOR = "looked-for"


@dataclass(frozen=True, slots=True)
class Banks:
    """All candidates, the proposals by battery class, and the old bank.

    Attributes:
        candidates: as entered.
        proposals: by battery class.
        old_kg, old_wh: weight and label energy of the old bank [kg], [Wh]; None without one.
        old_carries: ``soh``, ``usable_wh`` and ``nights`` of the old bank; empty when nothing is known of it.
        diagnosis: what its signs say; None without one.
        findings: what is to be looked at, apart from those of the candidates.
        rig_limits: the rig as a bank meets it.
    """

    candidates: tuple[BankFigures, ...]
    proposals: Proposals
    old_kg: Figure | None
    old_wh: Figure | None
    old_carries: Mapping[str, Figure]
    diagnosis: Diagnosis | None
    findings: tuple[Finding, ...]
    rig_limits: RigLimits

    @property
    def chosen(self) -> Mapping[str, Choice]:
        """By class, what the tool chose where the owner left it to it."""
        out = {}
        for banked in self.candidates:
            if banked.proposed_model and banked.bank is not None:
                fewest = self.proposals.search.strings(banked.bank.model)
                more = banked.bank.parallel - fewest if banked.proposed_parallel else 0
                out[banked.battery_class.key] = Choice(banked.bank.model.id, max(0, more))
        return out

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the candidates and of the old bank."""
        for candidate in self.candidates:
            yield from candidate.all_figures()
        yield from (f for f in (self.old_kg, self.old_wh) if f is not None)
        yield from self.old_carries.values()
        if self.diagnosis is not None:
            yield from self.diagnosis.all_figures()


def evaluate(
    plan: Plan,
    reference: Reference,
    assumptions: Assumptions,
    days: Days,
    extras_cost: Callable[[BankFigures], float | None] = lambda banked: 0.0,
    chosen: Mapping[str, Choice] = NO_CHOICE,
    known: dict[Bank, float | None] | None = None,
    diagnosis: Diagnosis | None = None,
) -> Banks:
    """Every candidate and a proposal for each class.

    Args:
        plan: what the owner entered.
        reference: shipped data.
        assumptions: what holds for the plan.
        days: the kinds of day and the need.
        extras_cost: money for what a bank needs in addition [money]; None where it is unsuitable even so.
        chosen: by class, the model to go on with where the tool chooses; those not named are looked for.
        known: what ``extras_cost`` gave before, for a plan that differs in nothing that it goes by.
        diagnosis: what the old bank shows, where that is known already; None to work it out.

    Returns:
        The banks with their workings.
    """
    old, need = old_bank_kg(plan), days.need
    rig_limits = RigLimits(plan, reference, assumptions, days, old.number if old is not None else 0.0)
    search = ClassSearch(
        QuickLifeCost(rig_limits),
        lambda bank: extras_cost(of_bank(rig_limits, bank, old)),
        {} if known is None else known,
    )
    proposals = Proposals(search)
    candidates = tuple(
        of_candidate(rig_limits, proposals, c, i, old, chosen) for i, c in enumerate(plan.candidates)
    )
    findings: tuple[Finding, ...] = ()
    if not candidates:
        findings = (
            Finding(
                "no_candidates",
                "note",
                "banks",
                Sentence(phrase("banks.candidates.added_bank_compare_yet")),
                phrase("banks.candidates.add_proposals_below_battery"),
            ),
        )
    # The old bank has served the rig as it is, without what is planned.
    if diagnosis is None:
        today = need if plan.present is None else evaluate_need(plan.present, reference, assumptions).need
        diagnosis = diagnose(plan.as_it_is, assumptions, today)
    carries = old_bank_carries(plan, assumptions, need, diagnosis.health if diagnosis else None)
    findings += old_bank_findings(plan, carries, need)
    if plan.old_bank is not None:
        lasts = rig_limits.predecessor(plan.old_bank.battery_class.key)
        carries |= {"life_factor": lasts} if lasts is not None else {}
        findings += predecessor_finding(lasts, plan.old_bank.battery_class)
    return Banks(candidates, proposals, old, old_bank_wh(plan), carries, diagnosis, findings, rig_limits)


def chosen_anew(banks: Banks) -> Banks:
    """The same banks, but where the tool chooses what is best now, after an edit was gone on from."""
    limits, plan = banks.rig_limits, banks.rig_limits.plan

    def anew(index: int, banked: BankFigures) -> BankFigures:
        if not banked.proposed_model or (
            banked.bank is not None
            and _chosen(plan, banks.proposals, banked.candidate, banked.battery_class, NO_CHOICE)
            == banked.bank
        ):
            return banked
        return of_candidate(limits, banks.proposals, banked.candidate, index, banks.old_kg, NO_CHOICE)

    candidates = tuple(anew(i, banked) for i, banked in enumerate(banks.candidates))
    same = all(now is then for now, then in zip(candidates, banks.candidates, strict=True))
    return banks if same else replace(banks, candidates=candidates)


def at_nights(banks: Banks, plan: Plan, extras_cost: Callable[[BankFigures], float | None]) -> Banks:
    """The same banks beside another number of off-grid nights, on which no need and no check of them depends.

    Args:
        banks: of a plan.
        plan: the same but for its off-grid nights.
        extras_cost: as in :func:`evaluate`.
    """
    limits = replace(banks.rig_limits, plan=plan)
    old = banks.old_kg

    def moved(build: Build) -> Build:
        return replace(build, plan=plan, criteria=replace(build.criteria, plan=plan, rig=limits))

    candidates = tuple(c if c.build is None else replace(c, build=moved(c.build)) for c in banks.candidates)
    search = ClassSearch(
        QuickLifeCost(limits), lambda bank: extras_cost(of_bank(limits, bank, old)),
        banks.proposals.search.known,
    )  # fmt: skip
    return replace(banks, candidates=candidates, proposals=Proposals(search), rig_limits=limits)


def of_bank(rig_limits: RigLimits, bank: Bank, old_kg: Figure | None, id: str = LOOKED_FOR) -> BankFigures:
    """A bank of the catalogue as if it were a candidate, with its checks.

    Args:
        rig_limits: the rig as a bank meets it.
        bank: its layout.
        old_kg: weight of the old bank [kg]; None without one.
        id: of the candidate that it would be.
    """
    candidate = Candidate(id, bank.model.battery_class.key, bank.model.id, bank.series, bank.parallel)
    return _figures(rig_limits, candidate, bank, len(rig_limits.plan.candidates), old_kg, (False, False))


def _layout(plan: Plan, candidate: Candidate, model: BatteryModel, proposals: Proposals) -> Bank:
    """The layout of a candidate, strings filled in where they follow the need."""
    series = candidate.series or series_count(plan.system_v, model.unit_class_v)
    if series * model.unit_class_v != plan.system_v:
        total = series * model.unit_class_v
        raise InvalidInput(
            "series",
            phrase(
                "banks.candidates.series",
                series=series,
                unit_class_v=f"{model.unit_class_v:g}",
                total=f"{total:g}",
                system_v=f"{plan.system_v:g}",
            ),
        )
    parallel = candidate.parallel
    if parallel is None:
        parallel = proposals.search.strings(model)
    return Bank(model, series, parallel)


def of_candidate(
    rig_limits: RigLimits,
    proposals: Proposals,
    candidate: Candidate,
    index: int,
    old_kg: Figure | None,
    chosen: Mapping[str, Choice],
) -> BankFigures:
    """A candidate of the owner, with its checks or the reason why it cannot be built.

    Args:
        rig_limits: the rig as a bank meets it.
        proposals: what is proposed for each class, where the candidate names no model.
        candidate, index: the candidate and its place in the list.
        old_kg: weight of the old bank [kg]; None without one.
        chosen: by class, the model to go on with where the tool chooses.
    """
    plan, battery_class = rig_limits.plan, rig_limits.reference.classes[candidate.battery_class]
    flags = (candidate.model is None, candidate.parallel is None)

    def cannot(message: str, remedy: str) -> BankFigures:
        found = (_cannot(candidate, message, remedy),)
        return BankFigures(candidate, battery_class, None, *flags, found, {})

    if candidate.model is not None and candidate.model not in plan.models:
        return cannot(
            phrase("banks.candidates.battery_longer_catalogue", model=candidate.model),
            phrase("banks.candidates.choose_another_enter_own"),
        )
    try:
        if candidate.model is None:
            bank = _chosen(plan, proposals, candidate, battery_class, chosen)
        else:
            battery_class = plan.models[candidate.model].battery_class
            bank = _layout(plan, candidate, plan.models[candidate.model], proposals)
    except InvalidInput as error:
        remedy = phrase("banks.candidates.choose_battery_voltage_divides")
        return cannot(error.message, remedy)
    if bank is None:
        return cannot(
            phrase(
                "banks.candidates.catalogue_battery_makes_v",
                short=battery_class.short,
                system_v=f"{plan.system_v:g}",
            ),
            phrase("banks.candidates.choose_another_class"),
        )
    return _figures(rig_limits, candidate, bank, index, old_kg, flags)


def _chosen(
    plan: Plan,
    proposals: Proposals,
    candidate: Candidate,
    battery_class: BatteryClass,
    chosen: Mapping[str, Choice],
) -> Bank | None:
    """The bank where the tool chooses the model: the one to go on with, else the best of its class."""
    kept = chosen.get(battery_class.key)
    model = plan.models.get(kept.model) if kept is not None else None
    if kept is not None and model is not None and (known := proposals.search.with_more(model, kept.more)):
        strings = candidate.parallel or known.parallel
        return _layout(plan, replace(candidate, parallel=strings), model, proposals)
    best = proposals[battery_class.key].best
    if best is None:
        return None
    strings = candidate.parallel or best.bank.parallel
    return _layout(plan, replace(candidate, parallel=strings), best.bank.model, proposals)


def _figures(
    rig_limits: RigLimits,
    candidate: Candidate,
    bank: Bank,
    index: int,
    old_kg: Figure | None,
    flags: tuple[bool, bool],
) -> BankFigures:
    build = build_of(rig_limits, candidate, bank, index, old_kg)
    checks = run_checks(build)
    findings = tuple(f for c in checks if (f := c.finding(candidate.id)) is not None)
    battery_class = bank.model.battery_class
    return BankFigures(
        candidate, battery_class, bank, *flags, findings, build.figures, checks, steps(build), build
    )


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
    plan, assumptions = rig_limits.plan, rig_limits.assumptions
    criteria = replace(
        rig_limits.criteria(bank), places=candidate.places, protection=candidate.protection,
        sources=sources_of(plan, candidate, bank.model.battery_class, assumptions),
        quoted=candidate.known_price("batteries") or candidate.unit_price,
    )  # fmt: skip
    worn = QuickLifeCost(rig_limits).start_wear(bank)
    figures = bank_figures(plan, assumptions, rig_limits.days.need, candidate, criteria, worn, index, old_kg)
    return Build(
        plan, rig_limits.reference, assumptions, rig_limits.days, candidate, index,
        criteria, figures, old_kg,
    )  # fmt: skip


def _cannot(candidate: Candidate, message: str, remedy: str) -> Finding:
    return Finding("cannot_build", "blocking", "banks", Sentence(escaped(message)), remedy, candidate.id)
