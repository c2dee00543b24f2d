"""Figures and sentences in the owner's units."""

import re
from collections.abc import Iterator

from vast_harbor.core.figures.display import NO_VALUE, Style
from vast_harbor.core.figures.workings import Figure, Sentence

_SLOT = re.compile(r"\{\{|\}\}|\{([^{}]+)\}")
# Energies of use, which an owner may read in amp-hours; those on labels stand beside their own amp-hours.
_OF_USE = re.compile(
    r"^(verdict\.house_rule\.[^.]+\.)?"
    r"(day\.|need\.(on\.[^.]+\.)?(energy|overnight)$|second\.(day|energy|from)|need\..*\.step\.(day|nights|reserve)$)"
)


def text_of(key: str, value: float | None, unit: str, style: Style) -> str:
    """A value as text: an energy of use in amp-hours where the owner leads with them.

    Args:
        key: address of its figure.
        value: in ``unit``; None for none.
        unit: stored unit.
        style: the owner's units.

    Returns:
        e.g. ``2.58 kWh``, or ``215 Ah`` of the same.
    """
    if style.lead_v is not None and _OF_USE.match(key):
        return style.use(value, unit)
    return style.text(value, unit)


def figure_text(figure: Figure | None, style: Style) -> str:
    """A figure as text; see :func:`text_of`. A dash where there is none."""
    return NO_VALUE if figure is None else text_of(figure.key, figure.value, figure.unit, style)


def sentence_parts(sentence: Sentence, style: Style) -> Iterator[tuple[str, str | None]]:
    """A sentence piece by piece, its figures written out.

    Args:
        sentence: words with figures in them.
        style: the owner's units.

    Yields:
        Text, and the key of the figure that it is; None for words.
    """
    words, end = "", 0
    for slot in _SLOT.finditer(sentence.template):
        words += sentence.template[end : slot.start()]
        end = slot.end()
        if not slot[1]:
            words += slot[0][0]
            continue
        if words:
            yield words, None
            words = ""
        figure = sentence.figures[slot[1]]
        yield figure_text(figure, style), figure.key
    if words := words + sentence.template[end:]:
        yield words, None


def sentence_text(sentence: Sentence, style: Style) -> str:
    """A sentence as plain text, its figures written out."""
    return "".join(text for text, _ in sentence_parts(sentence, style))


def formula_parts(figure: Figure, style: Style) -> Iterator[tuple[str, str | None]]:
    """The formula of a figure piece by piece, with the numbers that went into it.

    Yields:
        Text, and the symbol of the input that it is; None for what stands between.
    """
    end = 0
    for slot in _SLOT.finditer(figure.formula):
        if slot.start() > end:
            yield figure.formula[end : slot.start()], None
        given = figure.inputs[slot[1]]
        yield style.text(given.value, given.unit, exact=True), slot[1]
        end = slot.end()
    if end < len(figure.formula):
        yield figure.formula[end:], None


def range_text(low: float | None, high: float | None, unit: str, style: Style) -> str:
    """The range in which practitioners differ, in words; empty without one."""
    if low is None or high is None or low == high:
        return ""
    return f"{style.text(low, unit)} to {style.text(high, unit)}"
