"""The hardest moment of a day, and the current that it draws from a bank."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.figures.clock import DAY_H, Block


@dataclass(frozen=True, slots=True)
class ActiveLoad:
    """A load as the bank feels it.

    Attributes:
        id: its name.
        blocks: when it is on, clock hours.
        run_w: power from the bank while it runs, losses included [W].
        start_w: power from the bank for the seconds of its start [W]; at least ``run_w``.
        together: whether it may run at the same time as others.
    """

    id: str
    blocks: tuple[Block, ...]
    run_w: float
    start_w: float
    together: bool = True


@dataclass(frozen=True, slots=True)
class Peak:
    """The hardest moment.

    Attributes:
        running_w: power of all that runs at the moment [W].
        start: the load that starts on top of it; None when none draws more at its start.
        watts: both together [W].
        at_h: clock time of the moment [h].
        ids: what runs then.
    """

    running_w: float
    start: ActiveLoad | None
    watts: float
    at_h: float
    ids: tuple[str, ...]


def hardest_moment(active_loads: Sequence[ActiveLoad], always_w: float) -> Peak:
    """P_peak = Σ P_run(together)/η + max over loads of (P_start − P_run)/η.

    Loads that cycle by themselves, and whose times overlap, are taken to run at the same moment. Of loads
    that may not run together with others only the largest counts at a time.

    Args:
        active_loads: the loads of the day.
        always_w: standby and inverter idle [W].

    Returns:
        The moment with the largest sum.
    """
    best = Peak(always_w, None, always_w, 0.0, ())
    if not active_loads:
        return best
    flat = [t for r in active_loads for block in r.blocks for t in block]
    edges = np.unique(np.array([0.0, DAY_H, *flat]))
    on = _on(active_loads, edges)
    watts, shared_jump, alone_run, alone_start = _sums(active_loads, on, always_w)
    moment = int(np.argmax(watts))
    by_itself = alone_start[moment] > alone_run[moment] + shared_jump[moment]
    here = [r for i, r in enumerate(active_loads) if on[i, moment] and r.run_w > 0]
    power = (lambda r: r.start_w) if by_itself else (lambda r: r.run_w)
    single = max((r for r in here if not r.together), key=power, default=None)
    jumps = [r for r in here if r.start_w > r.run_w and (r is single if by_itself else r.together)]
    starting = max(jumps, key=lambda r: r.start_w - r.run_w, default=None)
    top = float(watts[moment])
    jump = starting.start_w - starting.run_w if starting is not None else 0.0
    ids = tuple(r.id for r in here if r.together or r is single)
    return Peak(top - jump, starting, top, float(edges[moment]), ids)


def _on(active_loads: Sequence[ActiveLoad], edges: NDArray[np.float64]) -> NDArray[np.bool_]:
    """Whether each runs at some time between neighbouring edges, shape (runners, len(edges) − 1)."""
    on = np.zeros((len(active_loads), len(edges) - 1), dtype=bool)
    flat = [(i, start, end) for i, r in enumerate(active_loads) for start, end in r.blocks]
    if flat:
        rows, starts, ends = zip(*flat, strict=True)
        first = np.searchsorted(edges, np.array(starts) + 1e-9, side="right") - 1
        last = np.searchsorted(edges, np.array(ends) - 1e-9)
        for row, i, j in zip(rows, first, last, strict=True):
            on[row, i:j] = True
    return on


def _sums(
    active_loads: Sequence[ActiveLoad], on: NDArray[np.bool_], always_w: float
) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]]:
    """Power of each moment, and its parts: the largest start of those that share it, and of one that does
    not its running and its starting power."""
    run = np.array([r.run_w for r in active_loads])[:, None]
    start = np.array([max(r.run_w, r.start_w) for r in active_loads])[:, None]
    alone = np.array([not r.together for r in active_loads])[:, None]
    shared_run = ((on & ~alone) * run).sum(axis=0)
    shared_jump = ((on & ~alone) * (start - run)).max(axis=0, initial=0.0)
    # Of those that run alone one runs while another load starts, or one of them starts itself.
    alone_run = ((on & alone) * run).max(axis=0, initial=0.0)
    alone_start = ((on & alone) * start).max(axis=0, initial=0.0)
    watts = always_w + shared_run + np.maximum(alone_run + shared_jump, alone_start)
    return watts, shared_jump, alone_run, alone_start


def hardest_over(
    active_loads: Sequence[ActiveLoad], always_w: float, edges: NDArray[np.float64]
) -> NDArray[np.float64]:
    """The hardest moment between neighbouring times of the day.

    Args:
        active_loads: the loads of the day.
        always_w: standby and inverter idle [W].
        edges: ascending clock hours from 0 to 24 [h], shape (n + 1,).

    Returns:
        Largest power in each interval [W], shape (n,).
    """
    if not active_loads:
        return np.full(len(edges) - 1, always_w)
    return _sums(active_loads, _on(active_loads, edges), always_w)[0]
