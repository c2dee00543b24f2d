"""Which lane a request goes to: what is answered at once, what is worked out, and what goes on for long."""

import re

# Workers of each lane. Each stream holds one for as long as it plays. One works things out: with two, edits
# beside 50 costly questions took half as long again, and the questions ended only a fifth sooner.
LANES = {"quick": 6, "worked_out": 1, "stream": 16}
_OF_A_RIG = r"/api/rigs/\d+/"
_STREAMS = re.compile(_OF_A_RIG + r"(monitor|trial/odds|log/files/[^/]+/import)")
_WORKED_OUT = re.compile(
    _OF_A_RIG + r"(card|find|why|compare/.*|report(/.*)?|trial(/.*)?|monitor\.csv|charging(/.*)?|"
    r"log/(found|review|so-far|warranty)(/.*)?)"
)
_DATABASES = frozenset({"/api/restore"})
_LOGS = re.compile(_OF_A_RIG + r"(log/files|pictures)|/api/rigs/import-archive")


def lane_of(path: str) -> str:
    """The lane of a path, a key of :data:`LANES`."""
    if _STREAMS.fullmatch(path):
        return "stream"
    return "worked_out" if _WORKED_OUT.fullmatch(path) else "quick"


def takes_a_whole_database(path: str) -> bool:
    """Whether the body of a request to this path may be a whole database."""
    return path in _DATABASES


def takes_a_log(path: str) -> bool:
    """Whether the body of a request to this path may be the log of a monitor, or a picture."""
    return _LOGS.fullmatch(path) is not None
