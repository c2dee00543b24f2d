"""What the interface is given: response models, and how figures become them."""

from collections.abc import Iterable, Mapping
from typing import Any, Literal, TypeVar

from pydantic import BaseModel

from vast_harbor.core.figures.display import NO_VALUE, Style
from vast_harbor.core.figures.workings import Figure, Finding, Sentence
from vast_harbor.telling.figures import figure_text, formula_parts, range_text, sentence_parts, text_of

# Id of a battery that is looked at without being a candidate, before its own.
PREVIEW_ID = "preview-"


V = TypeVar("V", bound=BaseModel)
# For parts that hold no figure.
PLAIN = Style()


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


class MadeView(BaseModel):
    """A rig that was made."""

    id: int
    name: str


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


class ByRuleView(View):
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
    by_rule: list[ByRuleView]
    assumption: str
    path: str
    default: str


def figure_view(figure: Figure, style: Style) -> FigureView:
    """A figure in the owner's units."""
    return FigureView(key=figure.key, text=figure_text(figure, style), value=figure.value, was=None)


def shown(key: str, value: float | None, unit: str, style: Style) -> FigureView:
    """A figure whose workings are built only when somebody opens them."""
    return FigureView(key=key, text=text_of(key, value, unit, style), value=value, was=None)


def tokens(sentence: Sentence, style: Style) -> list[TokenView]:
    """A sentence with its figures written out in the owner's units."""
    return [TokenView(text=text, key=key) for text, key in sentence_parts(sentence, style)]


def view_of(kind: type[V], part: object, style: Style = PLAIN, **others: Any) -> V:
    """A view whose fields a part of the core has under the same names.

    Args:
        kind: the view.
        part: the part of the core.
        style: the owner's units, in which its figures and sentences are written; none for a part without.
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


def workings_view(figure: Figure, style: Style, default: float | None) -> WorkingsView:
    """The workings of a figure.

    Args:
        figure: the figure.
        style: the owner's units.
        default: what the assumption would be without the owner's override, if it is one.

    Returns:
        Everything that explains it.
    """
    formula = [
        FormulaToken(text=text, symbol=symbol, key=figure.inputs[symbol].key if symbol else None)
        for text, symbol in formula_parts(figure, style)
    ]
    inputs = [
        InputView(symbol=symbol, key=f.key, name=f.name, text=figure_text(f, style), origin=f.origin)
        for symbol, f in figure.inputs.items()
    ]
    return WorkingsView(
        key=figure.key,
        name=figure.name,
        text=figure_text(figure, style),
        exact=style.text(figure.value, figure.unit, exact=True),
        origin=figure.origin,
        formula=formula,
        inputs=inputs,
        source=figure.source,
        note=figure.note,
        range=range_text(figure.low, figure.high, figure.unit, style),
        by_rule=[ByRuleView(name=n, text=style.text(v, figure.unit)) for n, v in figure.by_rule.items()],
        assumption=figure.assumption,
        path=figure.path,
        default=NO_VALUE if default is None else style.text(default, figure.unit),
    )
