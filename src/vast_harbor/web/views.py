"""What the interface is given: response models, and how figures become them."""

import re
from collections.abc import Iterable, Mapping
from typing import Any, Literal, TypeVar

from pydantic import BaseModel

from vast_harbor.core.figures.display import NO_VALUE, Style, trim
from vast_harbor.core.figures.units import AWG, US, to_display
from vast_harbor.core.figures.workings import Figure, Finding, Sentence

_SLOT = re.compile(r"\{\{|\}\}|\{([^{}]+)\}")


# Id of a battery that is looked at without being a candidate, before its own.
PREVIEW_ID = "preview-"


V = TypeVar("V", bound=BaseModel)


class View(BaseModel):
    """Base of what is made anew, by the hundred, after every edit."""


class OperationView(View):
    """One operation of a JSON Patch that may be sent back as it is."""

    op: Literal["add", "remove", "replace", "move"]
    path: str
    value: Any = None


def operations_of(patch: Iterable[Mapping[str, Any]]) -> list[OperationView]:
    """Operations of a JSON Patch as the interface is given them."""
    return [OperationView(op=o["op"], path=o["path"], value=o.get("value")) for o in patch]


class InterpretationView(BaseModel):
    """One way to read what was typed, and the JSON Patch that enters it so."""

    label: str
    operations: list[OperationView]


class ProblemView(BaseModel):
    """One thing wrong, at its field (JSON pointer; empty for the whole)."""

    path: str
    message: str
    interpretations: list[InterpretationView] = []


class ProblemsView(BaseModel):
    """Why a request was not carried out; nothing was changed."""

    problems: list[ProblemView]


class FigureView(View):
    """A figure as shown; its key opens its workings. While something is tried, what it was in the plan."""

    key: str
    text: str
    value: float | None
    was: str | None = None


class TokenView(View):
    """A piece of a sentence; with a key it is a figure."""

    text: str
    key: str | None = None


class FindingView(View):
    """A finding of a check."""

    code: str
    severity: str
    stop: str
    says: list[TokenView]
    remedy: str
    subject: str


class FormulaToken(BaseModel):
    """A piece of a formula: plain text, or an input with its symbol and value."""

    text: str
    symbol: str | None = None
    key: str | None = None


class InputView(BaseModel):
    """An input of a formula."""

    symbol: str
    key: str
    name: str
    text: str
    origin: str


class SchoolView(View):
    """What a house rule would put."""

    name: str
    text: str


class WorkingsView(BaseModel):
    """Where a figure comes from."""

    key: str
    name: str
    text: str
    exact: str
    origin: str
    formula: list[FormulaToken]
    inputs: list[InputView]
    source: str
    note: str
    range: str
    schools: list[SchoolView]
    assumption: str
    path: str
    default: str


# Energies of use, which an owner may read in amp-hours; those on labels stand beside their own amp-hours.
_OF_USE = re.compile(
    r"^(day\.|need\.(on\.[^.]+\.)?(energy|overnight)$|second\.(day|energy|from)|need\..*\.step\.(day|nights|reserve)$)"
)


def text_of(key: str, value: float | None, unit: str, style: Style) -> str:
    """A figure as text: an energy of use in amp-hours where the owner leads with them.

    Args:
        key: address of the figure.
        value, unit: the figure.
        style: the owner's units.

    Returns:
        Its text.
    """
    if style.lead_v is not None and _OF_USE.match(key):
        return style.use(value, unit)
    return style.text(value, unit)


def figure_view(figure: Figure, style: Style) -> FigureView:
    """A figure in the owner's units."""
    return FigureView(
        key=figure.key,
        text=text_of(figure.key, figure.value, figure.unit, style),
        value=figure.value,
        was=None,
    )


def shown(key: str, value: float | None, unit: str, style: Style) -> FigureView:
    """A figure whose workings are built only when somebody opens them."""
    return FigureView(key=key, text=text_of(key, value, unit, style), value=value, was=None)


def tokens(sentence: Sentence, style: Style) -> list[TokenView]:
    """A sentence with its figures written out in the owner's units."""
    out: list[TokenView] = []
    end = 0

    def words(text: str) -> None:
        if text and out and out[-1].key is None:
            out[-1] = TokenView(text=out[-1].text + text)
        elif text:
            out.append(TokenView(text=text))

    for slot in _SLOT.finditer(sentence.template):
        words(sentence.template[end : slot.start()])
        end = slot.end()
        if slot[1]:
            figure = sentence.figures[slot[1]]
            text = text_of(figure.key, figure.value, figure.unit, style)
            out.append(TokenView(text=text, key=figure.key))
        else:
            words(slot[0][0])
    words(sentence.template[end:])
    return out


def view_of(kind: type[V], part: object, style: Style, **others: Any) -> V:
    """A view whose fields a part of the core has under the same names.

    Args:
        kind: the view.
        part: the part of the core.
        style: the owner's units, in which its figures and sentences are written.
        others: fields that are told otherwise.

    Raises:
        AttributeError: the part has no such field; pydantic.ValidationError: it is of another kind.
        TypeError: the view has no field that is told otherwise.
    """
    if unknown := others.keys() - kind.model_fields.keys():
        raise TypeError(f"{kind.__name__} has no field {', '.join(sorted(unknown))}")
    values = {
        name: others[name] if name in others else _as_shown(getattr(part, name), style)
        for name in kind.model_fields
    }
    return kind.model_validate(values)


def _as_shown(value: Any, style: Style) -> Any:
    if isinstance(value, Figure):
        return figure_view(value, style)
    if isinstance(value, Sentence):
        return tokens(value, style)
    if isinstance(value, Mapping):
        return {key: _as_shown(one, style) for key, one in value.items()}
    if isinstance(value, tuple):
        return [_as_shown(one, style) for one in value]
    return value


def finding_view(finding: Finding, style: Style) -> FindingView:
    """A finding in the owner's units."""
    return FindingView(
        code=finding.code,
        severity=finding.severity,
        stop=finding.stop,
        says=tokens(finding.says, style),
        remedy=finding.remedy,
        subject=finding.subject,
    )


def range_text(low: float | None, high: float | None, unit: str, style: Style) -> str:
    """The range in which practitioners differ, in words; empty without one."""
    if low is None or high is None or low == high:
        return ""
    return f"{style.text(low, unit)} to {style.text(high, unit)}"


def workings_view(figure: Figure, style: Style, default: float | None) -> WorkingsView:
    """The workings of a figure.

    Args:
        figure: the figure.
        style: the owner's units.
        default: what the assumption would be without the owner's override, if it is one.

    Returns:
        Everything that explains it.
    """
    formula: list[FormulaToken] = []
    end = 0
    for slot in _SLOT.finditer(figure.formula):
        if slot.start() > end:
            formula.append(FormulaToken(text=figure.formula[end : slot.start()]))
        given = figure.inputs[slot[1]]
        formula.append(
            FormulaToken(text=style.text(given.value, given.unit, exact=True), symbol=slot[1], key=given.key)
        )
        end = slot.end()
    if end < len(figure.formula):
        formula.append(FormulaToken(text=figure.formula[end:]))
    inputs = [
        InputView(symbol=symbol, key=f.key, name=f.name, text=style.text(f.value, f.unit), origin=f.origin)
        for symbol, f in figure.inputs.items()
    ]
    return WorkingsView(
        key=figure.key,
        name=figure.name,
        text=style.text(figure.value, figure.unit),
        exact=style.text(figure.value, figure.unit, exact=True),
        origin=figure.origin,
        formula=formula,
        inputs=inputs,
        source=figure.source,
        note=figure.note,
        range=range_text(figure.low, figure.high, figure.unit, style),
        schools=[SchoolView(name=n, text=style.text(v, figure.unit)) for n, v in figure.schools.items()],
        assumption=figure.assumption,
        path=figure.path,
        default=NO_VALUE if default is None else style.text(default, figure.unit),
    )


def plain_number(value: float, unit: str, style: Style) -> str:
    """A value as it stands in its input: in the owner's unit, without it, with the decimals of the region."""
    if unit == "mm²" and style.system == US:
        return next((f"AWG {name}" for area, name in AWG if area == value), f"{value:g} mm²")
    shown, _ = to_display(value, unit, style.system)
    if shown != value:
        text = _near(shown)
    elif abs(shown) < 1e-9:
        text = trim(f"{shown:.6f}").replace("-0", "0")
    else:
        text = trim(f"{shown:.6g}" if abs(shown) < 1e6 else f"{shown:.2f}")
    return text.replace(".", style.numbers.decimal)


# What a converted value may be off by in its input: 45.2 lb for 20.5 kg.
NEAR = 5e-4


def _near(shown: float) -> str:
    """A converted value with no more figures than it takes, three at least."""
    for figures in range(3, 7):
        text = f"{float(f'{shown:.{figures}g}'):.10g}"
        if abs(float(text) - shown) <= NEAR * abs(shown):
            break
    return text


def field_number(value: float, unit: str, style: Style) -> str:
    """As :func:`plain_number`, a share in per cent."""
    return f"{plain_number(100 * value, '1', style)} %" if unit == "%" else plain_number(value, unit, style)
