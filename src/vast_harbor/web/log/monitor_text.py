"""What was found in the log of a monitor, in words."""

from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

from vast_harbor.core.figures.display import Style, group
from vast_harbor.phrases import phrase
from vast_harbor.web.log.monitor_models import MonitorFindingView


def quantity_names() -> Mapping[str, str]:
    """What each quantity of a reading is called."""
    return {
        "volts": phrase("log.fields.volts"),
        "amps": phrase("log.fields.amps"),
        "soc": phrase("log.fields.soc"),
        "celsius": phrase("log.fields.celsius"),
    }


def role_names() -> Mapping[str, str]:
    """What a column of a file may hold."""
    return {
        "moment": phrase("log.roles.moment"),
        "date": phrase("log.roles.date"),
        "clock": phrase("log.roles.clock"),
        "volts": phrase("log.fields.volts"),
        "amps": phrase("log.fields.amps"),
        "out": phrase("log.roles.out"),
        "soc": phrase("log.fields.soc"),
        "celsius": phrase("log.fields.celsius"),
    }


def findings(told: Mapping[str, Any], style: Style) -> list[MonitorFindingView]:
    """What an import did and left, one sentence each, the outcome first.

    Args:
        told: as it was kept with the file.
        style: the owner's units.
    """
    ahead = 60 * int(told["offset_min"])

    def count(n: int) -> str:
        return style.numbers.number(group(n, 0))

    def moment(at: float) -> str:
        return datetime.fromtimestamp(at + ahead, UTC).strftime("%Y-%m-%d %H:%M")

    out = [("new", phrase("log.found.new", count=told["new"], number=count(told["new"])))]
    if told["there"]:
        out.append(("there", phrase("log.found.there", count=told["there"], number=count(told["there"]))))
    if told["unlike"]:
        out.append(("unlike", phrase("log.found.unlike", count=told["unlike"])))
    if told["twice"]:
        out.append(("twice", phrase("log.found.twice", count=told["twice"])))
    for left in told["left_out"]:
        out.append((left["why"], _left_out(left, style, moment)))
    if told["unread"]:
        line, text = told["unread_line"], told["unread_text"]
        out.append(("unread", phrase("log.found.unread", count=told["unread"], line=line, text=text)))
    if told["gaps"]:
        first, last = told["longest_gap"]
        out.append(
            ("gaps", phrase("log.found.gaps", count=told["gaps"], first=moment(first), last=moment(last)))
        )
    for at, by in told["jumps"][:3]:
        how_far = style.text(abs(by) / 3600, "duration")
        out.append(("jump", phrase("log.found.jump", at=moment(at), how_far=how_far)))
    if told["jumps_count"] > 3:
        out.append(("jumps", phrase("log.found.jumps", count=told["jumps_count"] - 3)))
    if told["turned"]:
        out.append(("turned", phrase("log.found.turned")))
    return [MonitorFindingView(key=key, text=text) for key, text in out]


def _left_out(left: Mapping[str, Any], style: Style, moment: Any) -> str:
    why, count, line, value = left["why"], left["count"], left["line"], left["value"]
    if why == "early":
        return phrase("log.found.early", count=count, line=line, at=moment(value))
    if why == "late":
        return phrase("log.found.late", count=count, line=line, at=moment(value))
    if why == "nothing":
        return phrase("log.found.nothing", count=count, line=line)
    if why == "differs":
        return phrase("log.found.differs", count=count, line=line, at=moment(value))
    unit = {"volts": "V", "amps": "A", "soc": "%", "celsius": "°C"}[why]
    return phrase("log.found.impossible", count=count, line=line, value=style.text(value, unit))
