"""Duties as a calendar (iCalendar, RFC 5545): one whole-day event each."""

from collections.abc import Iterable
from datetime import UTC, date, datetime, timedelta
from hashlib import sha256

from icalendar import Alarm, Calendar, Event

from vast_harbor.core.log.duties import Duty
from vast_harbor.phrases import phrase

# A reminder in the morning of the day.
AT = timedelta(hours=9)
# The first version of an event is told by the minutes from here on: were the count of its changes lost, it
# would go on above what was told before.
_COUNTED_FROM = datetime(2020, 1, 1, tzinfo=UTC)
# Version of the event of each duty, and a digest of what it says.
Versions = dict[str, tuple[int, str]]
REFRESH = timedelta(hours=12)


def versions(duties: Iterable[Duty], before: Versions, today: int, now: int) -> Versions:
    """The version of each event: one more than the last where what it says has changed.

    Args:
        duties: what is to be done.
        before: what was told last.
        today: counted (``date.toordinal``).
        now: seconds since 1970 UTC [s].

    Returns:
        The versions, those of duties that are done with among them.
    """
    out = dict(before)
    first = int((datetime.fromtimestamp(now, UTC) - _COUNTED_FROM).total_seconds() // 60)
    for duty in duties:
        says = f"{_day(duty, today)} {duty.title} {duty.why}"
        digest = sha256(says.encode()).hexdigest()[:12]
        count, told = before.get(duty.key, (first - 1, ""))
        out[duty.key] = (count + (told != digest), digest)
    return out


def _day(duty: Duty, today: int) -> date:
    return date.fromordinal(max(duty.due, today))


def calendar(duties: Iterable[Duty], owner: str, name: str, told: Versions, today: int, now: int) -> bytes:
    """Duties as a calendar.

    A duty keeps its UID for as long as it is one: where its date changes, the event moves. What is overdue
    stands on today.

    Args:
        duties: what is to be done.
        owner: of the calendar, unlike that of any other.
        name: of the calendar.
        told: versions of the events.
        today: counted (``date.toordinal``).
        now: seconds since 1970 UTC [s].

    Returns:
        The file, UTF-8.
    """
    made, stamp = Calendar(), datetime.fromtimestamp(now, UTC)
    made.add("prodid", "-//Vast Harbor//EN")
    made.add("version", "2.0")
    made.add("method", "PUBLISH")
    made.add("x-wr-calname", " ".join(name.split()))
    made.add("refresh-interval", REFRESH, parameters={"value": "DURATION"})
    for duty in duties:
        event, day = Event(), _day(duty, today)
        event.add("uid", f"{owner}-{duty.key.replace('_', '-')}@vast-harbor")
        event.add("dtstamp", stamp)
        event.add("sequence", told[duty.key][0])
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
        event.add("summary", duty.title)
        event.add("description", duty.why)
        event.add("transp", "TRANSPARENT")
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", duty.title)
        alarm.add("trigger", AT)
        event.add_component(alarm)
        made.add_component(event)
    found: bytes = made.to_ical()
    return found


def calendar_name(rig: str) -> str:
    """What the calendar of a rig is called."""
    return phrase("log.calendar.name", rig=rig)
