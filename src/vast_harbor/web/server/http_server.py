"""The HTTP server: lanes of workers, so that what takes long never holds up what is quick, and limits of time
and size for who asks."""

import json
import time
from collections.abc import Callable
from copy import copy
from functools import partial
from typing import Any

from flask import Flask
from waitress.adjustments import Adjustments
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.server import TcpWSGIServer
from waitress.task import ThreadedTaskDispatcher

from vast_harbor.formats.rig_file import LARGEST_BYTES
from vast_harbor.web.base.blueprint import LANES, PLAIN, QUICK, Facts, facts_at
from vast_harbor.web.base.errors import SENTENCES
from vast_harbor.web.server.pairing import may_send

# This machine only, and all its networks.
HERE, EVERYWHERE = "127.0.0.1", "0.0.0.0"
# Connections at once; one more closes the one that has been idle for longest.
MOST_CONNECTIONS = 512
# A request is read whole within this time, and a connection on which nothing is asked is closed after it [s].
READ_S, IDLE_S = 20, 60
LOOK_EVERY_S = 2
# The body of a request [bytes]. What is larger than allowed by so much is still read, so that it can be
# refused with a sentence; more than the last is never read.
LARGEST_BODY, TOLERATED, LARGEST_OF_ALL = 4 * LARGEST_BYTES, 8, 2_000_000_000
LARGEST_HEADER = 32_768
# From who is not paired no more is read than the form that pairs; and of bodies above a size so many at once.
LARGEST_OF_STRANGERS, LARGE, MOST_LARGE = 4_096, 4_000_000, 4

ANSWERS = {
    400: "The request could not be read.",
    413: SENTENCES[413],
    431: "The request is too long.",
    503: "Other files are being read. Try again in a minute.",
}


class _Refused:
    """A request that could not be read, answered as the application would."""

    def __init__(self, code: int, reason: str) -> None:
        self.code, self.reason = code, reason

    def to_response(self, ident: str | None = None) -> tuple[str, list[tuple[str, str]], bytes]:
        """Status line, headers and body."""
        message = ANSWERS.get(self.code, ANSWERS[400])
        body = json.dumps({"problems": [{"path": "", "message": message, "interpretations": []}]}).encode()
        return f"{self.code} {self.reason}", [("Content-Type", "application/json")], body


def _adjustments(port: int, largest_body: int, host: str = HERE) -> Adjustments:
    return Adjustments(
        host=host,
        port=port,
        # Our own limit comes first; beyond this one nobody would be let in at all.
        connection_limit=MOST_CONNECTIONS + 64,
        cleanup_interval=LOOK_EVERY_S,
        max_request_body_size=largest_body,
        max_request_header_size=LARGEST_HEADER,
        # Going on reading while an answer is made tells when the asker is gone.
        channel_request_lookahead=1,
        asyncore_use_poll=True,
        ident="Vast Harbor",
    )


class Request(HTTPRequestParser):  # type: ignore[misc]
    """A request as it comes in; its limits depend on what it asks for.

    Args:
        adj: the server's.
        facts: what the call at a path and method says of itself.
    """

    error: Any
    adj: Adjustments
    facts = PLAIN
    refused: _Refused | None = None

    def __init__(
        self, adj: Adjustments, facts: Callable[[str, str], Facts], may_send: Callable[[str, bool], int]
    ) -> None:
        super().__init__(adj)
        self._facts, self._may_send = facts, may_send

    def parse_header(self, header_plus: bytes) -> None:
        """Read the head, and see how large the body may be."""
        super().parse_header(header_plus)
        self.facts = self._facts(self.path, self.command)
        if not self.content_length and not self.chunked:
            return
        self.adj = copy(self.adj)
        if self.facts.largest is not None:
            self.adj.max_request_body_size = min(TOLERATED * self.facts.largest, LARGEST_OF_ALL)
        large = self.chunked or self.content_length > LARGE
        most = self._may_send(self.headers.get("COOKIE", ""), large)
        if most < self.adj.max_request_body_size:
            self.adj.max_request_body_size = most
            code = 503 if most == 0 else 413
            self.refused = _Refused(code, {503: "Service Unavailable", 413: "Request Entity Too Large"}[code])

    def received(self, data: bytes) -> int:
        """Take what came in; what cannot be read is answered with a sentence."""
        consumed: int = super().received(data)
        if self.error is not None and not isinstance(self.error, _Refused):
            self.error = self.refused or _Refused(self.error.code, self.error.reason)
        return consumed


class Channel(HTTPChannel):  # type: ignore[misc]
    """A connection; it knows since when a request is being read."""

    reading_since: float | None = None

    def parser_class(self, adj: Adjustments) -> Request:
        """What reads a request."""
        return Request(adj, self.server.facts_at, self._may_send)

    def _may_send(self, cookies: str, large: bool) -> int:
        """How large a body may be that begins now [bytes]; 0 where it must wait until others are read."""
        address = self.addr[0] if isinstance(self.addr, tuple) else ""
        if not self.server.may_send(address, cookies):
            return LARGEST_OF_STRANGERS
        if not large:
            return LARGEST_OF_ALL
        others = (c.request for c in list(self.server.active_channels.values()) if c is not self)
        reading = sum(1 for r in others if r is not None and (r.chunked or r.content_length > LARGE))
        return LARGEST_OF_ALL if reading < MOST_LARGE else 0

    def received(self, data: bytes) -> bool:
        """Take what came in."""
        taken = bool(super().received(data))
        if self.request is None:
            self.reading_since = None
        elif self.reading_since is None:
            self.reading_since = time.time()
        return taken

    def late(self, now: float) -> bool:
        """Whether it has been reading a request, or has had none, for too long."""
        if self.requests:
            return False
        if self.reading_since is not None:
            return now - self.reading_since > READ_S
        allowed = IDLE_S if self.creation_time < self.last_activity else READ_S
        return bool(now - self.last_activity > allowed)


class Lanes:
    """A pool of workers for each lane; a request goes to the one that its path belongs to.

    Args:
        workers: how many of each lane.
    """

    def __init__(self, workers: dict[str, int]) -> None:
        self._pools = {lane: ThreadedTaskDispatcher() for lane in workers}
        for lane, pool in self._pools.items():
            # Waiting in a lane is what it is for.
            pool.queue_logger = _Silent()
            pool.set_thread_count(workers[lane])

    def add_task(self, channel: Channel) -> None:
        """Put a connection with a whole request in its lane."""
        request = channel.requests[0]
        lane = QUICK if request.error else request.facts.lane
        self._pools[lane].add_task(channel)

    def shutdown(self, cancel_pending: bool = True, timeout: int = 5) -> bool:
        """End all workers."""
        ended = [bool(pool.shutdown(cancel_pending, timeout)) for pool in self._pools.values()]
        return all(ended)


class _Silent:
    def warning(self, *_: object) -> None:
        """Say nothing."""


class HarborServer(TcpWSGIServer):  # type: ignore[misc]
    """The server of one owner on one machine; see :func:`make_server`."""

    channel_class = Channel

    # What the call at a path and method says of itself.
    facts_at: Callable[[str, str], Facts]
    # Whether more than a form may be sent from an address with a Cookie header.
    may_send: Callable[[str, str], bool]

    def handle_accept(self) -> None:
        """Take a connection; where there are too many, the one idle for longest makes room."""
        if len(self.active_channels) >= MOST_CONNECTIONS:
            idle = [c for c in list(self.active_channels.values()) if not c.requests]
            if idle:
                min(idle, key=lambda c: c.last_activity).handle_close()
        super().handle_accept()

    def maintenance(self, now: float) -> None:
        """Close what is late."""
        for channel in list(self.active_channels.values()):
            if channel.late(now):
                channel.will_close = True


def make_server(app: Flask, port: int, host: str = HERE) -> HarborServer:
    """Make the server.

    Args:
        app: the application.
        port: its port; any free one when 0.
        host: :data:`HERE`, or :data:`EVERYWHERE` where phones may come in.

    Returns:
        The server; ``run()`` serves until it is interrupted.

    Raises:
        OSError: the port is taken.
    """
    server = HarborServer(app, dispatcher=Lanes(LANES), adj=_adjustments(port, LARGEST_BODY, host))
    server.facts_at = partial(facts_at, app)
    server.may_send = may_send(app)
    return server
