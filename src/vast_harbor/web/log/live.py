"""A monitor that is listened to while it measures: its readings are kept as they come.

What is heard is written every few seconds; what could not be written is tried again with what came since.
"""

import ipaddress
import json
import logging
import secrets
import socket
import time
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta, tzinfo
from ipaddress import IPv4Address, IPv6Address
from threading import Event, Lock, Thread
from typing import Protocol

import numpy as np

from vast_harbor.core.log.readings import tidied
from vast_harbor.core.stops.trial import MonitorReading
from vast_harbor.formats import signal_k
from vast_harbor.formats.log_part import AHEAD_S, EARLIEST
from vast_harbor.formats.monitor_log import ahead_at, zone_of
from vast_harbor.formats.monitor_rows import Row, reading_rows, readings_of
from vast_harbor.phrases import and_list, phrase
from vast_harbor.store import monitor, rigs
from vast_harbor.store.database import Database
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.log.kept_readings import sum_again
from vast_harbor.web.log.signal_k_server import SignalKServer

log = logging.getLogger(__name__)

# Feeds at once; how often is written [s]; how far apart readings are at least [s]; readings that are held at
# most while they cannot be written.
MOST_FEEDS, WRITE_EVERY_S, APART_S, MOST_HELD = 8, 2.0, 10.0, 200_000
# A server that cannot be reached is tried again after so long, and so long at most [s].
AGAIN_S, LONGEST_AGAIN_S, PATIENCE_S = 1.0, 60.0, 5.0
LONGEST_LINE = 1_000_000
# A server that says nothing of itself is asked after so long; after so long it is told that no battery
# comes, or none any more [s].
ASK_S, SILENT_S, QUIET_S = 2.0, 10.0, 60.0
# Readings of a clock that is behind by no more than this belong to those before [s].
LATE_S = 60.0
# This machine, and the networks that anybody may set up at home or aboard (RFC 1918, RFC 4193).
OWN_NETWORKS = [
    ipaddress.ip_network(network)
    for network in ("127.0.0.0/8", "::1/128", "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "fc00::/7")
]

# Time [s], and volts, amps into the bank, SoC and °C.
Heard = tuple[float, Row]


class Source(Protocol):
    """Something that measures."""

    name: str

    def heard(self, feed: "Feed") -> Iterator[Heard | None]:
        """Readings as they come; None while nothing comes. It ends when the feed is to end, or with the last
        reading."""


@dataclass(slots=True)
class Feed:
    """A monitor that is listened to.

    Attributes:
        rig_id, bank: whose readings it gives.
        zone: IANA name of the owner's zone.
        system_v: of the bank [V].
        source: what measures.
        ended: set when it is to end.
        running: whether it is listened to.
        count: readings that were kept.
        last: the newest reading; None before the first.
        problem: why nothing comes; empty while all is well.
        odd: values that no battery could have, and times that cannot be, left out so far.
        unwritten: why what came cannot be kept; empty while it can.
    """

    rig_id: int
    bank: str
    zone: str
    system_v: float
    source: Source
    ended: Event = field(default_factory=Event)
    running: bool = True
    count: int = 0
    last: Heard | None = None
    problem: str = ""
    odd: int = 0
    unwritten: str = ""
    _file: int = 0
    _token: str = field(default_factory=lambda: secrets.token_hex(8))

    def run(self, database: Database) -> None:
        """Listen until it ends."""
        held: list[Heard] = []
        written = time.monotonic()
        try:
            for reading in self.source.heard(self):
                if reading is not None:
                    held.append(reading)
                    self.last = reading
                    del held[:-MOST_HELD]
                if held and time.monotonic() - written >= WRITE_EVERY_S:
                    self._write(database, held)
                    written = time.monotonic()
            for attempt in range(5):
                if not held or self._write(database, held) or self.ended.wait(0.2 * 2**attempt):
                    break
        except rigs.Missing:
            # The rig was deleted meanwhile.
            pass
        except Exception:
            log.exception("unforeseen error")
            self.problem = phrase("log.live.broke")
        finally:
            if self.ended.is_set():
                # Who stopped it need not be told that it is tried again.
                self.problem = ""
            self.running = False

    def _write(self, database: Database, held: list[Heard]) -> bool:
        """Keep what was heard; whether that worked."""
        at = np.array([int(a) for a, _ in held], np.int64)
        ahead = ahead_at(at, zone_of(self.zone)).tolist()
        rows: list[Row] = [(a, o, *row) for a, o, (_, row) in zip(at.tolist(), ahead, held, strict=True)]
        tidy = tidied(readings_of(rows), self.system_v, EARLIEST, int(time.time()) + AHEAD_S)
        kept = tidy.readings
        try:
            with database.writing() as db:
                rigs.revision(db, self.rig_id)
                file = self._file or monitor.add_file(
                    db, self.rig_id, self.bank, self.source.name, "", int(time.time())
                )
                new = 0
                if len(kept):
                    new = monitor.add(db, self.rig_id, self.bank, file, reading_rows(kept))
                if not self._file and not new:
                    # All of it was there before.
                    monitor.remove_file(db, self.rig_id, file)
                    file = 0
                elif new:
                    first, last = int(kept.at[0]), int(kept.at[-1])
                    sum_again(db, self.rig_id, self.bank, first, last)
                    told = _told(self.count + new, int(kept.offset_min[0]))
                    # Another digest, so that what is worked out of the readings is so again.
                    monitor.renew(db, file, f"{self._token}:{self.count + new}", json.dumps(told))
        except Trouble as error:
            self.unwritten = str(error)
            return False
        self._file, self.count = file, self.count + new
        self.unwritten = ""
        held.clear()
        return True


def _told(count: int, offset_min: int) -> dict[str, object]:
    return {
        "new": count, "there": 0, "unlike": 0, "twice": 0, "left_out": [], "unread": 0, "gaps": 0,
        "longest_gap": None, "jumps": [], "jumps_count": 0, "turned": False, "offset_min": offset_min,
    }  # fmt: skip


class TrialSource:
    """The simulated monitor of Trial; its days are those that just went by.

    Args:
        readings: what it reads.
        hours_per_second: how fast.
        begin: time of the first reading, seconds since 1970 UTC [s].
    """

    def __init__(self, readings: list[MonitorReading], hours_per_second: float, begin: float) -> None:
        self.name = phrase("log.live.trial")
        self._readings, self._speed, self._begin = readings, hours_per_second, begin

    def heard(self, feed: Feed) -> Iterator[Heard | None]:
        """Readings as they come."""
        hours = 0.0
        for r in self._readings:
            if feed.ended.wait(max(0.0, (r.hours - hours) / self._speed)):
                return
            hours = r.hours
            yield self._begin + 3600 * r.hours, (r.volts, r.amps, r.soc, r.celsius)


def begin_of(readings: list[MonitorReading], now: float, zone: tzinfo) -> int:
    """When readings begin whose last day is yesterday, at midnight by the owner's clock [s].

    Args:
        readings: of a trial, which begins at midnight.
        now: seconds since 1970 UTC [s].
        zone: the owner's.
    """
    days = int((readings[-1].hours if readings else 0) // 24) + 1
    today = datetime.fromtimestamp(now, zone).replace(hour=0, minute=0, second=0, microsecond=0)
    return int((today - timedelta(days=days)).timestamp())


class SignalKSource:
    """A Signal K server, heard over TCP.

    Args:
        host, port: where it is.
        battery: which of its batteries; empty for the first that it tells of.
        into_bank: whether its current above 0 flows into the bank.
        name: what its readings are kept under.
        server: one that belongs to this feed and ends with it.
        address: of the host, looked at; empty to look it up whenever it is dialled.
    """

    def __init__(
        self,
        host: str,
        port: int,
        battery: str,
        into_bank: bool,
        name: str = "",
        server: SignalKServer | None = None,
        address: str = "",
    ) -> None:
        self.name = name or phrase("log.live.signal_k", host=host)
        self._at, self._address = (host, port), address
        self._battery, self._sign = battery, 1.0 if into_bank else -1.0
        self._server, self.batteries = server, list[str]()

    def heard(self, feed: Feed) -> Iterator[Heard | None]:
        """Readings as they come; where it cannot be reached, it is tried again."""
        pause = AGAIN_S
        means, last, newest = signal_k.Means(), 0.0, 0.0
        try:
            while not feed.ended.is_set():
                try:
                    with closing(self._dialled()) as line:
                        feed.problem, pause = "", AGAIN_S
                        for value in self._values(line, feed):
                            if value is None:
                                yield None
                                continue
                            # What belongs together comes together: a reading ends where the next time begins.
                            # A clock that was put back begins anew.
                            if not last - LATE_S <= value.at < last + APART_S:
                                if held := means.close(value.at):
                                    yield self._reading(last, held)
                                if value.at < last:
                                    means = signal_k.Means()
                                last = value.at
                            means.take(value)
                            newest = max(last, value.at)
                        if held := means.close(newest):
                            yield self._reading(last, held)
                    if self._server is not None:
                        return
                    feed.problem = phrase("log.live.ended")
                except OSError:
                    # Nothing more is told: what a closed port answers is nobody's business.
                    feed.problem = phrase("log.live.unreachable", host=self._at[0], port=self._at[1])
                yield None
                feed.ended.wait(pause)
                pause = min(LONGEST_AGAIN_S, 2 * pause)
        finally:
            if self._server is not None:
                self._server.close()

    def _dialled(self) -> socket.socket:
        """A connection to the address that was found to be of one's own network, and to no other."""
        host, port = self._at
        address = self._address or address_of(host)
        if address is None:
            raise OSError
        return socket.create_connection((address, port), PATIENCE_S)

    def _reading(self, at: float, held: dict[str, float]) -> Heard:
        amps = held.get("amps")
        row = (
            held.get("volts"), None if amps is None else self._sign * amps, held.get("soc"),
            held.get("celsius"),
        )  # fmt: skip
        return at, row

    def _values(self, line: socket.socket, feed: Feed) -> Iterator[signal_k.Value | None]:
        own, asked = signal_k.OwnReadings(), False
        began = heard = time.monotonic()
        for message in _messages(line, feed):
            now = time.monotonic()
            if not asked and (own.learn(message) or now - began >= ASK_S):
                # A server says who it is, and then nothing until it is asked.
                line.sendall(signal_k.line_of(signal_k.subscription()))
                asked = True
            for value in self._of_battery(message, own, feed):
                feed.problem, heard = "", now
                yield value
            told = heard > began
            if now - heard >= (QUIET_S if told else SILENT_S):
                feed.problem = self._silence(told)
            yield None

    def _of_battery(self, message: object, own: signal_k.OwnReadings, feed: Feed) -> Iterator[signal_k.Value]:
        """What a message tells of the battery that is listened to."""
        now = time.time()
        feed.odd += signal_k.odd_values(message)
        for value in signal_k.values_of(message, now):
            if not own.is_own(value):
                continue
            if not EARLIEST <= value.at <= now + AHEAD_S:
                # The clock there is wrong: it came now.
                feed.odd += 1
                value = replace(value, at=now)
            if value.battery not in self.batteries and len(self.batteries) < signal_k.MOST_BATTERIES:
                self.batteries.append(value.battery)
            if value.battery == (self._battery or self.batteries[0]) and own.counts(value):
                yield value

    def _silence(self, fell_silent: bool) -> str:
        """Why nothing comes of a server that answers, and what would."""
        if fell_silent:
            return phrase("log.live.quiet")
        if self.batteries:
            others = and_list(self.batteries)
            return phrase("log.live.other_batteries", battery=self._battery, others=others)
        return phrase("log.live.silent", host=self._at[0])


def _messages(line: socket.socket, feed: Feed) -> Iterator[object]:
    """What a server says, message by message; None while it says nothing, and for what is no message."""
    line.settimeout(0.5)
    left = b""
    while not feed.ended.is_set():
        try:
            came = line.recv(65_536)
        except TimeoutError:
            yield None
            continue
        if not came:
            return
        *lines, left = (left + came).split(b"\n")
        if len(left) > LONGEST_LINE:
            raise OSError
        for one in lines:
            try:
                yield json.loads(one)
            except (ValueError, RecursionError):
                yield None


def address_of(host: str) -> str | None:
    """The address of a host that is this machine or lies in a network of one's own; None of any other.

    Raises:
        OSError: it is not found.
    """
    found = [str(info[4][0]) for info in socket.getaddrinfo(host, None, type=socket.SOCK_STREAM)]
    return found[0] if found and all(_is_own(ipaddress.ip_address(a.split("%")[0])) for a in found) else None


def _is_own(address: IPv4Address | IPv6Address) -> bool:
    mapped = getattr(address, "ipv4_mapped", None) or address
    return any(mapped.version == network.version and mapped in network for network in OWN_NETWORKS)


class Feeds:
    """The monitors that are listened to, one for each rig."""

    def __init__(self) -> None:
        self._feeds: dict[int, Feed] = {}
        self._lock = Lock()

    def of(self, rig_id: int) -> Feed | None:
        """The feed of a rig: the one that runs, or the last that did."""
        return self._feeds.get(rig_id)

    def begin(self, database: Database, feed: Feed) -> bool:
        """Begin to listen; whether there was a place for it. One of the same rig ends."""
        with self._lock:
            before = self._feeds.get(feed.rig_id)
            if before is not None:
                before.ended.set()
            if sum(f.running for f in self._feeds.values() if f is not before) >= MOST_FEEDS:
                return False
            self._feeds[feed.rig_id] = feed
        Thread(target=feed.run, args=(database,), daemon=True).start()
        return True

    def end(self, rig_id: int, wait_s: float = 5.0) -> None:
        """Stop to listen; what was heard is kept first."""
        feed = self._feeds.get(rig_id)
        if feed is None:
            return
        feed.ended.set()
        until = time.monotonic() + wait_s
        while feed.running and time.monotonic() < until:
            time.sleep(0.05)
