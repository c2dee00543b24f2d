"""A small simulated Signal K server: asked for batteries, it plays readings as delta messages over TCP, as a
real one would; before that it only says who it is."""

import json
import socketserver
import threading
from collections.abc import Callable, Iterator
from contextlib import suppress

from vast_harbor.core.log.readings import HOUR_S
from vast_harbor.core.stops.trial import MonitorReading
from vast_harbor.formats import signal_k

# What nobody ends with a line is read no further than this [bytes].
LONGEST_ASKED = 65_536
BATTERY, SOURCE = "house", "simulated-shunt"


class SignalKServer(socketserver.ThreadingTCPServer):
    """Everybody who connects and asks for batteries hears the readings from the first on.

    Args:
        port: of this machine; 0 for a free one.
        readings: what is played, in order.
        begin: time of the first of them, seconds since 1970 UTC [s].
        hours_per_second: how fast the days go by.
    """

    daemon_threads = True
    allow_reuse_address = True

    def __init__(
        self,
        port: int,
        readings: Callable[[], Iterator[MonitorReading]],
        begin: float,
        hours_per_second: float,
    ) -> None:
        super().__init__(("127.0.0.1", port), _Player)
        self.readings, self.begin, self.hours_per_second = readings, begin, hours_per_second
        self.ended = threading.Event()

    @property
    def port(self) -> int:
        """Where it listens."""
        return int(self.server_address[1])

    def begin_serving(self) -> None:
        """Serve in the background, until it is closed."""
        threading.Thread(target=self.serve_forever, args=(0.1,), daemon=True).start()

    def close(self) -> None:
        """End it, and all who listen."""
        self.ended.set()
        self.shutdown()
        self.server_close()


class _Player(socketserver.StreamRequestHandler):
    server: SignalKServer

    def handle(self) -> None:
        played = self.server
        try:
            self.wfile.write(signal_k.line_of(signal_k.hello("Simulated Signal K server", played.begin)))
            if not self._asked():
                return
            hours = 0.0
            for reading in played.readings():
                if played.ended.wait(max(0.0, (reading.hours - hours) / played.hours_per_second)):
                    return
                hours = reading.hours
                row = (reading.volts, reading.amps, reading.soc, reading.celsius)
                message = signal_k.delta(played.begin + HOUR_S * hours, BATTERY, row, SOURCE)
                self.wfile.write(signal_k.line_of(message))
        except OSError:
            # Who listened is gone.
            return

    def _asked(self) -> bool:
        """Wait until batteries are asked for; whether that happened before the end."""
        self.connection.settimeout(0.2)
        left = b""
        while not self.server.ended.is_set():
            try:
                came = self.connection.recv(4096)
            except TimeoutError:
                continue
            if not came:
                return False
            *lines, left = (left + came)[-LONGEST_ASKED:].split(b"\n")
            for line in lines:
                with suppress(ValueError, RecursionError):
                    if signal_k.asks_for_batteries(json.loads(line)):
                        self.connection.settimeout(None)
                        return True
        return False
