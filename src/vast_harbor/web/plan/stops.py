"""The stops of the passage, written once: their order, their names, and what the screen of each is given."""

from dataclasses import dataclass

from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class Stop:
    """A stop of the passage.

    Attributes:
        key: as it stands in addresses and answers.
        name: on the strip.
        inside: inside of a sentence.
        parts: of the view that its screen shows, by the names of their fields.
    """

    key: str
    name: str
    inside: str
    parts: tuple[str, ...]


STOPS = (
    Stop(
        "rig", phrase("terms.stops.rig"), phrase("terms.stops.rig_inside"),
        ("day", "need", "banks", "voltages", "seasons"),
    ),
    Stop("day", phrase("terms.stops.day"), phrase("terms.stops.day_inside"), ("day",)),
    Stop("need", phrase("terms.stops.need"), phrase("terms.stops.need_inside"), ("day", "need")),
    Stop("banks", phrase("terms.stops.banks"), phrase("terms.stops.banks_inside"), ("need", "banks")),
    Stop(
        "charging", phrase("terms.stops.charging"), phrase("terms.stops.charging_inside"),
        ("need", "banks", "sources"),
    ),
    Stop("trial", phrase("terms.stops.trial"), phrase("terms.stops.trial_inside"), ("day", "need", "banks")),
    Stop(
        "compare", phrase("terms.stops.compare"), phrase("terms.stops.compare_inside"),
        ("day", "need", "banks", "compare"),
    ),
    Stop(
        "changeover", phrase("terms.stops.changeover"), phrase("terms.stops.changeover_inside"),
        ("changeover",),
    ),
    Stop("log", phrase("terms.stops.log"), phrase("terms.stops.log_inside"), ()),
)  # fmt: skip
