"""Figures that carry their own derivation.

Every number that an owner sees is a :class:`Figure`: its value together with the formula it came
from, the figures that went in, the source, and the range in which practitioners differ. Stops
build figures; nothing else needs to know how a number came about to be able to explain it.

A formula is a template in which ``{symbol}`` stands for an input. It is written with ``·`` for
times, ``−`` for minus and ``^`` for powers, so that it reads like the trade's own and can still be
evaluated: a test computes every formula again from its inputs and compares.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Any, NamedTuple

from vast_harbor.phrases import phrase

TYPED = "typed"
HOUSE_RULE = "house rule"
OVERRIDE = "override"
REFERENCE = "reference"
DATASHEET = "datasheet"
COMPUTED = "computed"


_NOTHING: Mapping[str, Any] = MappingProxyType({})


class Figure(NamedTuple):
    """A value with its derivation. A verdict is made of thousands, so it is of the kind that is made fastest.

    Attributes:
        key: address of the figure within a plan, e.g. ``need.lfp.nameplate_ah``.
        name: what it is, in the trade's words.
        value: number in ``unit``; None where there is none (shown as a dash).
        unit: stored unit (SI, h, Wh, Ah, money ...).
        origin: where it comes from: typed, house rule, override, reference, datasheet, computed.
        formula: template over ``inputs``; empty for an input of the plan.
        inputs: symbol → figure.
        source: author, standard or rule.
        note: one sentence on how it is meant.
        low, high: range in which practitioners differ, in ``unit``.
        by_rule: what each house rule would put, name → value.
        assumption: key under which the owner may override it.
        path: JSON pointer of the field where it was typed.
    """

    key: str
    name: str
    value: float | None
    unit: str
    origin: str = COMPUTED
    formula: str = ""
    inputs: Mapping[str, "Figure"] = _NOTHING
    source: str = ""
    note: str = ""
    low: float | None = None
    high: float | None = None
    by_rule: Mapping[str, float] = _NOTHING
    assumption: str = ""
    path: str = ""

    @property
    def number(self) -> float:
        """The value where one is known to exist.

        Raises:
            ValueError: when the figure has no value.
        """
        if self.value is None:
            raise ValueError(f"{self.key} has no value")
        return self.value

    def walk(self) -> Iterator["Figure"]:
        """This figure and all that went into it, each key once."""
        seen: set[str] = set()
        stack = [self]
        while stack:
            figure = stack.pop()
            if figure.key in seen:
                continue
            seen.add(figure.key)
            yield figure
            stack.extend(figure.inputs.values())


class Deferred(Mapping[str, Figure]):
    """Inputs of a figure that are only built when somebody looks at its workings.

    A day of sixty loads has hundreds of figures, of which an owner opens one at a time.

    Args:
        make: builds symbol → figure.
    """

    def __init__(self, make: Callable[[], Mapping[str, Figure]]) -> None:
        self._make = make
        self._made: Mapping[str, Figure] | None = None

    def _inputs(self) -> Mapping[str, Figure]:
        if self._made is None:
            self._made = self._make()
        return self._made

    def __getitem__(self, symbol: str) -> Figure:
        return self._inputs()[symbol]

    def __iter__(self) -> Iterator[str]:
        return iter(self._inputs())

    def __len__(self) -> int:
        return len(self._inputs())


def typed(
    key: str,
    name: str,
    value: float | None,
    unit: str,
    path: str,
    note: str = "",
    low: float | None = None,
    high: float | None = None,
    source: str = "",
) -> Figure:
    """A figure that the owner entered.

    Args:
        key, name, value, unit: as in :class:`Figure`.
        path: JSON pointer of the field.
        note, low, high, source: what is worth knowing about it.

    Returns:
        The figure.
    """
    return Figure(
        key,
        name,
        value,
        unit,
        TYPED,
        source=source or phrase("figures.workings.entered"),
        path=path,
        note=note,
        low=low,
        high=high,
    )


def datasheet(key: str, name: str, value: float | None, unit: str, source: str, note: str = "") -> Figure:
    """A figure from the entry of a battery model.

    Args:
        key, name, value, unit, note: as in :class:`Figure`.
        source: which entry.

    Returns:
        The figure.
    """
    return Figure(key, name, value, unit, DATASHEET, source=source, note=note)


def computed(
    key: str,
    name: str,
    value: float | None,
    unit: str,
    formula: str,
    inputs: Mapping[str, Figure],
    source: str = "",
    note: str = "",
    low: float | None = None,
    high: float | None = None,
) -> Figure:
    """A figure that follows from others.

    Args:
        key, name, value, unit, formula, inputs, source, note, low, high: as in :class:`Figure`.

    Returns:
        The figure.
    """
    return Figure(key, name, value, unit, COMPUTED, formula, inputs, source, note, low, high)


@dataclass(frozen=True, slots=True)
class Sentence:
    """Words with figures in them, written out in the owner's units only when shown.

    Attributes:
        template: text with ``{name}`` for a figure and ``{{``/``}}`` for braces.
        figures: name → figure.
    """

    template: str
    figures: Mapping[str, Figure] = field(default_factory=dict)


def escaped(text: str) -> str:
    """Words of the owner, safe inside a sentence's template."""
    return text.replace("{", "{{").replace("}", "}}")


def unescaped(text: str) -> str:
    """Words made safe by :func:`escaped`, as they are shown where they are no template."""
    return text.replace("{{", "{").replace("}}", "}")


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing that a check has to say.

    Attributes:
        code: stable name of the check.
        severity: ``blocking`` (will not do), ``caution`` (look at it) or ``note``.
        stop: name of the stop where it belongs.
        says: what, how much.
        remedy: what to do.
        subject: id of the load or candidate it speaks of; empty for the rig.
    """

    code: str
    severity: str
    stop: str
    says: Sentence
    remedy: str
    subject: str = ""
