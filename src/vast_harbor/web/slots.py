"""Few places for what holds a worker for long, so that the rest of the program never waits for it."""

from collections.abc import Iterator
from threading import BoundedSemaphore

from flask import Response

from vast_harbor.formats.rig_file import Problem
from vast_harbor.web.errors import problems


class Slots:
    """So many streams at once; one more is refused with a sentence.

    Args:
        count: how many.
        full: what is said beyond.
    """

    def __init__(self, count: int, full: str) -> None:
        self._free, self._full = BoundedSemaphore(count), full

    def stream(self, events: Iterator[str]) -> Response:
        """Server-sent events, as long as a place is free; it is given back when they end or nobody listens.

        Args:
            events: what is sent.
        """
        if not self._free.acquire(blocking=False):
            return problems(503, Problem("", self._full))
        held = [self._free]

        def give_back() -> None:
            # By what comes first: the last event, or a listener that is gone.
            if held:
                held.pop().release()

        def sent() -> Iterator[str]:
            yield from events
            give_back()

        response = Response(sent(), mimetype="text/event-stream", headers={"Cache-Control": "no-store"})
        response.call_on_close(give_back)
        return response
