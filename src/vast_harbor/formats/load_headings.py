"""What people call the columns of their lists of loads."""

import re

# How people head such columns themselves, in small letters and without signs.
WORDS = {
    word: column
    for column, words in {
        "name": "appliance load device item description consumer equipment appliances loads",
        "draw": "watts watt power w consumption wattage amps amp current a power/w load/w rating",
        "hours": "hours/day hours/d h/day h/d time runtime duration h hrs hrs/day",
        "uses": "times uses/day times/day cycles/day",
        "minutes": "min minutes/use min/use mins",
        "quantity": "qty number count pieces pcs no amount units",
        "supply": "type ac/dc dc/ac kind voltage/type",
        "duty": "duty/cycle share",
        "starts_at": "start from begin",
        "volts": "voltage v",
        "critical": "essential important",
    }.items()
    for word in words.split()
} | {
    "hours per day": "hours", "daily hours": "hours", "hours used": "hours", "hours a day": "hours",
    "hours of use": "hours", "hrs per day": "hours", "h per day": "hours", "run time": "hours",
    "times per day": "uses", "uses per day": "uses", "uses a day": "uses", "times a day": "uses",
    "minutes per use": "minutes", "minutes each": "minutes", "min per use": "minutes",
    "how many": "quantity", "duty cycle": "duty", "start time": "starts_at", "power w": "draw",
    "power draw": "draw", "current a": "draw", "rated power": "draw",
}  # fmt: skip
# Headings under which a bare number is amps.
IN_AMPS = re.compile(r"amp|current|\ba\b", re.IGNORECASE)
