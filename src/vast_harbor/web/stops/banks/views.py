"""What the Banks stop asks for apart from the plan, in the owner's units."""

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.currency import currency_symbol
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.units import US, to_display
from vast_harbor.core.figures.workings import Figure, Sentence
from vast_harbor.core.installation.packing import OVER_MM, SIDE_MM, footprint, poses
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.banks import (
    NAMES,
    Act,
    Build,
    Check,
    Found,
    Proposal,
    QuickLifeCost,
    Rates,
    Search,
    Shape,
    SizedLayout,
    Within,
    shapes,
)
from vast_harbor.phrases import phrase
from vast_harbor.telling.banks import layout
from vast_harbor.web.base.views import PREVIEW_ID, FigureView, figure_view, tokens, view_of
from vast_harbor.web.stops.banks.card_views import check_view
from vast_harbor.web.stops.banks.models import (
    ActsOfView,
    ActsView,
    ActView,
    BoxView,
    CatalogueView,
    CurveView,
    DroppedView,
    FindView,
    FoundView,
    LayoutView,
    LockerView,
    NamedView,
    PairView,
    ProposalView,
    RatesView,
    RoomView,
    ShapeView,
    UnfitView,
    WhyView,
    WithinView,
)


def found_view(found: Found, style: Style) -> FoundView:
    """A bank that would do."""
    bank = found.bank
    return FoundView(
        model=bank.model.id,
        battery_class=bank.model.battery_class.key,
        title=bank.model.title,
        layout=layout(bank),
        series=bank.series,
        parallel=bank.parallel,
        usable=style.text(found.usable_wh, "Wh"),
        kg=style.text(bank.kg, "kg"),
        purchase=style.text(found.purchase, "money"),
        lifetime=style.text(found.lifetime, "money"),
        years=style.text(found.years, "years"),
        nights=style.text(found.nights, "nights"),
        front=found.front,
        purchase_at=round(found.purchase, 2),
        kg_at=round(to_display(bank.kg, "kg", style.system)[0], 2),
        lifetime_at=round(found.lifetime, 2),
    )


def find_view(found: Search, look: QuickLifeCost, plan: Plan, results: Results, style: Style) -> FindView:
    """What a search found."""
    by_reason: dict[str, list[NamedView]] = {}
    for model, reasons in found.reasons.items():
        by_reason.setdefault(reasons[0], []).append(NamedView(model=model, title=plan.models[model].title))
    pairs = []
    for key in ("lfp", "agm", "gel", "flooded_deep", "flooded_dual"):
        if (pair := shapes(look, found.found, key)) is not None:
            few, many = (_shape(s, style) for s in pair)
            pairs.append(PairView(battery_class=key, few=few, many=many))
    return FindView(
        looked_at=found.looked_at,
        models=len(plan.models),
        found=[found_view(f, style) for f in found.found],
        dropped=[
            DroppedView(key=k, says=NAMES[k], count=n, models=by_reason[k]) for k, n in found.dropped.items()
        ],
        pairs=pairs[:1],
        ceiling=False,
        within=[],
        money_unit=currency_symbol(style.currency),
        kg_unit="lb" if style.system == US else "kg",
    )


def _shape(shape: Shape, style: Style) -> ShapeView:
    units = shape.found.bank.units
    return ShapeView(
        found=found_view(shape.found, style),
        units=style.text(units, "batteries"),
        heaviest=style.text(shape.heaviest_kg, "kg"),
        current=phrase("answers.banks_views.stated")
        if shape.current_a is None
        else style.text(shape.current_a, "A"),
        one_gone="nothing"
        if not shape.one_gone_wh
        else phrase("answers.banks_views.usable", one_gone_wh=style.text(shape.one_gone_wh, "Wh")),
        joints=shape.joints,
    )


def within_view(within: Within, style: Style) -> WithinView:
    """The best bank of a class within a ceiling."""
    lead = within.found.bank.model.battery_class.is_lead_acid
    later = phrase("answers.banks_views.maker_allows_parallel_next")
    if within.next_string is not None and within.next_months is not None:
        years = style.text(within.next_months / 12, "years")
        later = phrase(
            "answers.banks_views.add_first_string_same",
            next_string=style.text(within.next_string, "money"),
            years=years,
        )
    elif lead:
        later = phrase("answers.banks_views.cannot_add_later_because")
    return WithinView(
        found=found_view(within.found, style),
        covered=style.text(within.covered, "%"),
        later=later,
        against=[NAMES[r] for r in within.against],
    )


def why_view(model: BatteryModel, shown: str, checks: tuple[Check, ...], style: Style) -> WhyView:
    """Everything that is checked of a model."""
    return WhyView(
        model=model.id,
        title=model.title,
        layout=shown,
        unfit="",
        checks=[check_view(c, frozenset(), style) for c in checks],
    )


def locker_view(build: Build, checks: tuple[Check, ...], style: Style) -> LockerView:
    """The locker to scale with the boxes of a candidate in it."""
    size, rooms, packing = build.bank.model.case.size, build.plan.locker.rooms, build.criteria.packing
    fit = next((c for c in checks if c.code == "fit"), None)
    boxes = []
    if size is not None and packing is not None:
        wrong = {c.box: c.what for c in build.criteria.clashes}
        for i, place in enumerate(packing.places):
            along, across, up = footprint(size, place)
            boxes.append(
                view_of(
                    BoxView,
                    place,
                    style,
                    number=i + 1,
                    length=along,
                    width=across,
                    height=up,
                    wrong=wrong.get(i, ""),
                )
            )
    return LockerView(
        rooms=[
            RoomView(length=r[0], width=r[1], height=r[2], text=" × ".join(style.text(s, "mm") for s in r))
            for r in rooms
        ],
        boxes=boxes,
        count=build.bank.units,
        side=SIDE_MM,
        over=OVER_MM,
        side_text=style.text(SIDE_MM, "mm"),
        over_text=style.text(OVER_MM, "mm"),
        poses=list(poses(build.bank.model.case.orientation)),
        terminal_side=build.bank.model.case.terminal_side,
        own=bool(build.criteria.placed),
        case_text="" if size is None else " × ".join(style.text(s, "mm") for s in size),
        says=tokens(fit.says if fit is not None else Sentence(""), style),
        verdict=fit.verdict if fit is not None else "unknown",
    )


def rates_view(rates: Rates | None, results: Results, style: Style) -> RatesView:
    """Banks side by side at steady currents."""
    if rates is None:
        return RatesView(amps=[], current="", cut_off_v=0.0, curves=[])
    curves = []
    for curve in rates.curves:
        banked = next(c for c in results.banks.candidates if c.candidate.id == curve.id)
        assert banked.bank is not None
        keep = max(1, len(curve.run.hours) // 120)
        hours, volts = curve.run.hours[::keep].tolist(), curve.run.volts[::keep].tolist()
        if hours[-1] != curve.run.hours[-1]:
            hours, volts = [*hours, float(curve.run.hours[-1])], [*volts, float(curve.run.volts[-1])]
        curves.append(
            CurveView(
                id=curve.id,
                battery_class=banked.battery_class.key,
                title=banked.bank.model.title,
                by_charge=[round(v, 2) for v in curve.by_charge.tolist()],
                by_volts=[round(v, 2) for v in curve.by_volts.tolist()],
                hours=[round(h, 4) for h in hours],
                volts=[round(v, 3) for v in volts],
                ended=curve.run.ended,
                left=style.text(curve.run.left, "%"),
                says=tokens(curve.says, style),
            )
        )
    return RatesView(
        amps=[round(a, 3) for a in rates.amps.tolist()],
        current=style.text(rates.current, "A"),
        cut_off_v=rates.cut_off_v,
        curves=curves,
    )


def _fine(volts: Figure) -> FigureView:
    """Volts to a hundredth: a tenth is a fifth of the charge of lead-acid."""
    return FigureView(key=volts.key, text=f"{volts.number:.2f} V", value=volts.value, was=None)


def acts_view(banks: list[tuple[Build, tuple[Act, ...]]], results: Results, style: Style) -> ActsView:
    """Volts to act on of all candidates."""
    return ActsView(
        temperature=figure_view(results.day.battery_c, style),
        banks=[
            ActsOfView(
                id=build.candidate.id,
                battery_class=build.bank.model.battery_class.key,
                title=build.bank.model.title,
                acts=[
                    view_of(ActView, a, style, rested=_fine(a.rested), loaded=_fine(a.loaded)) for a in found
                ],
                flat=not build.bank.model.battery_class.is_lead_acid,
            )
            for build, found in banks
        ],
    )


def _fit(fit: SizedLayout, results: Results, style: Style) -> LayoutView:
    model = fit.bank.model
    price = model.price * (1.0 if model.own else results.assumptions.value("price_factor")) * fit.bank.units

    def shown(name: str, value: float, unit: str) -> FigureView:
        return FigureView(
            key=f"bank.{PREVIEW_ID}{model.id}.{name}", text=style.text(value, unit), value=value
        )

    return LayoutView(
        model=model.id,
        title=model.title,
        layout=layout(fit.bank),
        covers=fit.covers,
        usable=shown("usable_wh", fit.usable_wh, "Wh"),
        kg=shown("kg", fit.bank.kg, "kg"),
        purchase=shown("purchase", price, "money"),
        note=model.note,
        own=model.own,
    )


def _proposal(proposal: Proposal, results: Results, style: Style) -> ProposalView:
    return ProposalView(
        battery_class=proposal.battery_class.key,
        best=proposal.best.bank.model.id if proposal.best else None,
        alternatives={k: f.bank.model.id for k, f in proposal.alternatives.items()},
        layouts=[_fit(f, results, style) for f in proposal.sized_layouts],
        unfit=[UnfitView(model=m.id, title=m.title, reason=why, own=m.own) for m, why in proposal.unfit],
    )


def catalogue_view(results: Results, style: Style) -> CatalogueView:
    """Every model by class, each in the fewest strings that cover the need."""
    return CatalogueView(classes=[_proposal(p, results, style) for p in results.banks.proposals.values()])
