"""Sizing by the year, as the interface is given it."""

from collections.abc import Sequence

from flask import Response
from flask_openapi3.models.tag import Tag

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.workings import unescaped
from vast_harbor.core.sensitivity.sizes_by_year import ClassSizes, Size, sizes_by_year
from vast_harbor.core.stops.compare import LEVELS
from vast_harbor.phrases import and_list, phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import WORKED_OUT, Blueprint
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import FigureView, ProblemsView, TokenView, View, figure_view, tokens
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "sizes", __name__, url_prefix="/api", abp_tags=[Tag(name="sizes")], abp_responses={404: ProblemsView}
)


class SizeView(View):
    """The smallest bank of a class that serves these shares of the nights."""

    shares: str
    title: str
    usable: FigureView


class ClassSizesView(View):
    """A class of battery by the year, the smallest bank first."""

    battery_class: str
    sizes: list[SizeView]
    missed: str
    why: list[TokenView]


class SizesView(View):
    """Sizing by the year beside the house rule; no classes where no year can be run."""

    says: list[TokenView]
    need: FigureView | None
    classes: list[ClassSizesView]


@api.get("/rigs/<int:rig_id>/compare/sizes", lane=WORKED_OUT, responses={200: SizesView})
def sizes(path: RigPath) -> Response:
    """How small a bank may be, of each class, to serve so many of the nights when it is old."""
    rig, _, results = evaluated_results(path.rig_id)
    style = rig.style
    found = sizes_by_year(results, data.reference())
    if found is None:
        return json_response(SizesView(says=[], need=None, classes=[]))
    return json_response(
        SizesView(
            says=tokens(found.says, style),
            need=figure_view(found.need, style),
            classes=[_class(one, style) for one in found.classes],
        )
    )


def _class(one: ClassSizes, style: Style) -> ClassSizesView:
    by_bank: dict[Bank, list[Size]] = {}
    for size in one.sizes:
        if size is not None:
            by_bank.setdefault(size.bank, []).append(size)
    left = [share for share, size in zip(LEVELS, one.sizes, strict=True) if size is None]
    # Where none serves the least share, the others need not be told.
    missed = left if by_bank else left[:1]
    return ClassSizesView(
        battery_class=one.battery_class.key,
        sizes=[
            SizeView(
                shares=_shares([size.share for size in same], style),
                title=unescaped(same[0].title),
                usable=figure_view(same[0].usable, style),
            )
            for same in by_bank.values()
        ],
        missed=phrase("compare.sizes.missed", shares=_shares(missed, style)) if missed else "",
        why=tokens(one.why, style) if one.why is not None else [],
    )


def _shares(shares: Sequence[float], style: Style) -> str:
    """Shares of the nights, as "95 and 99 %"."""
    return style.numbers.number(
        phrase("compare.sizes.shares", shares=and_list([f"{100 * s:g}" for s in shares]))
    )
