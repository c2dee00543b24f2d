"""What came of a trial, in a sentence for each bank that fails and one for those that last."""

from collections.abc import Iterator, Sequence

from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.stops.trial.trial import SimulationResult
from vast_harbor.phrases import and_list, phrase

# So many banks that fail are told of one by one.
MOST_TOLD = 3


def outcomes(results: Sequence[SimulationResult], days: int) -> tuple[Sentence, ...]:
    """What came of a trial: the banks with a power cut, the earliest first, then those that last.

    Args:
        results: every bank through the stretch.
        days: length of the stretch.
    """
    dark = sorted((r for r in results if r.dark), key=lambda r: r["first_dark"].number)
    lasting = [r for r in results if not r.dark]
    return (*_dark(dark), *_lasting(lasting, days, all_last=not dark))


def _dark(dark: Sequence[SimulationResult]) -> Iterator[Sentence]:
    told, others = dark[:MOST_TOLD], dark[MOST_TOLD:]
    for one in told:
        figures = {"dark": one["first_dark"], "served": one["served"]}
        yield Sentence(phrase("trial.outcome.dark", name=one.name), figures)
    if len(others) == 1:
        yield Sentence(phrase("trial.outcome.dark_too", name=others[0].name))
    elif others:
        yield Sentence(phrase("trial.outcome.dark_too_many", names=and_list(one.name for one in others)))


def _lasting(lasting: Sequence[SimulationResult], days: int, all_last: bool) -> Iterator[Sentence]:
    if all_last and len(lasting) > 1:
        yield Sentence(phrase("trial.outcome.all_last", count=len(lasting), days=days))
    elif len(lasting) == 1:
        yield Sentence(phrase("trial.outcome.lasts", name=lasting[0].name, days=days))
    elif lasting:
        yield Sentence(phrase("trial.outcome.last", names=and_list(one.name for one in lasting), days=days))
