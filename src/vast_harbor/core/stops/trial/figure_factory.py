"""Figures of what was simulated rather than calculated."""

from collections.abc import Callable

from vast_harbor.core.figures.workings import REFERENCE, Figure


def figure_factory(at: str, source: str, note: str) -> Callable[..., Figure]:
    """A maker of figures that share a prefix, a source and a note.

    Args:
        at: prefix of their keys.
        source: how they came about.
        note: what holds for all of them.

    Returns:
        ``(key, name, value, unit, says="")`` → figure; ``says`` goes before the note.
    """

    def of(key: str, name: str, value: float | None, unit: str, says: str = "") -> Figure:
        whole_note = f"{says} {note}".strip()
        return Figure(f"{at}.{key}", name, value, unit, REFERENCE, source=source, note=whole_note)

    return of
