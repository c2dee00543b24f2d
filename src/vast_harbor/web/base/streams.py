"""Places for what goes on for long: so many at once, so many of one page, no longer than they are heard."""

import time
from collections import Counter
from collections.abc import Callable, Iterator
from threading import Lock

from flask import Response, request
from pydantic import BaseModel, Field

from vast_harbor.formats.rig_file import Problem
from vast_harbor.web.base.errors import problems

# How often who sleeps looks whether somebody still listens [s].
LOOK_EVERY_S = 0.25


# Where a request holds what tells whether its sender is let in no more.
SHUT_OUT = "vast_harbor.shut_out"


class PageQuery(BaseModel):
    """Which page asks."""

    page: str = Field(default="", max_length=40, description="The page that listens, by a name of its own")


class Listener:
    """Who listens to a stream; asked from another thread than the request's.

    Args:
        gone: whether nobody listens any more.
    """

    def __init__(self, gone: Callable[[], bool]) -> None:
        self._gone = gone

    def gone(self) -> bool:
        """Whether nobody listens any more."""
        return self._gone()

    def sleep(self, seconds: float) -> None:
        """Sleep, but no longer than somebody listens."""
        until = time.monotonic() + seconds
        while (left := until - time.monotonic()) > 0 and not self._gone():
            time.sleep(min(left, LOOK_EVERY_S))


class Slots:
    """So many streams at once; one more is refused with a sentence.

    Args:
        most: how many.
        of_a_page: how many for one page.
        full: what is said beyond.
    """

    def __init__(self, most: int, of_a_page: int, full: str) -> None:
        self._most, self._of_a_page, self._full = most, of_a_page, full
        self._taken: Counter[str] = Counter()
        self._lock = Lock()

    def stream(self, page: str, events: Callable[[Listener], Iterator[str]]) -> Response:
        """Server-sent events, as long as a place is free; it is given back when they end or nobody listens.

        Args:
            page: which page listens.
            events: what is sent, to whom.
        """
        with self._lock:
            if self._taken.total() >= self._most or self._taken[page] >= self._of_a_page:
                return problems(503, Problem("", self._full))
            self._taken[page] += 1
        held = [page]

        def give_back() -> None:
            # By what comes first: the last event, or a listener that is gone.
            with self._lock:
                if held:
                    self._taken[held.pop()] -= 1

        hung_up = request.environ.get("waitress.client_disconnected", lambda: False)
        shut_out = request.environ.get(SHUT_OUT, lambda: False)

        def gone() -> bool:
            return bool(hung_up() or shut_out())

        def sent() -> Iterator[str]:
            try:
                for event in events(Listener(gone)):
                    if gone():
                        break
                    yield event
            finally:
                give_back()

        response = Response(sent(), mimetype="text/event-stream", headers={"Cache-Control": "no-store"})
        response.call_on_close(give_back)
        return response
