"""A load in one line: what it draws, and when it runs."""

from collections.abc import Iterator

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.core.rig.loads import AC, STANDBY, TIMES, USES, Load
from vast_harbor.phrases import phrase


def load_text(load: Load, style: Style) -> str:
    """A load as it is on a kind of day, e.g. ``55 W DC · all day at 57 %``.

    Args:
        load: with the times of that day.
        style: how its owner reads numbers.
    """
    supply = phrase("terms.loads.ac") if load.supply == AC else phrase("terms.loads.dc")
    count = f"{style.numbers.number(f'{load.quantity:g}')} × " if load.quantity != 1 else ""
    draw = f"{count}{style.text(load.draw.value, load.draw.unit)} {supply}"
    return phrase("terms.loads.line", draw=draw, times=" ".join(_times(load, style)) + _start(load))


def _times(load: Load, style: Style) -> Iterator[str]:
    """When it runs, and for how much of that time it draws."""
    if load.use == TIMES:
        yield ", ".join(f"{clock_text(a)}–{clock_text(b)}" for a, b in load.windows)
    elif load.use == USES:
        times, minutes = f"{load.uses:g}", f"{load.minutes:g}"
        yield phrase(
            "terms.loads.uses", times=style.numbers.number(times), minutes=style.numbers.number(minutes)
        )
    elif load.use == STANDBY or load.hours >= 24:
        yield phrase("terms.loads.all_day")
    else:
        yield phrase("terms.loads.hours", hours=style.numbers.number(f"{load.hours:g}"))
    if load.duty < 1:
        yield phrase("terms.loads.duty", share=style.text(load.duty, "%"))


def _start(load: Load) -> str:
    if load.starts_at is None or load.use in (TIMES, STANDBY):
        return ""
    return phrase("terms.loads.from", time=clock_text(load.starts_at))
