"""What all workers of a run share."""

import os
import signal
from contextlib import suppress
from pathlib import Path

import pytest

# The servers that the tests in the browser share, the one with the whole catalogue second: process and
# address of each, in a file.
SERVERS = ("few_banks", "whole_catalogue")


def is_worker() -> bool:
    """Whether this is one of several workers of a run."""
    return "PYTEST_XDIST_WORKER" in os.environ


def shared_folder(config: pytest.Config) -> Path:
    """The folder that all workers of a run share."""
    own: Path = config._tmp_path_factory.getbasetemp()  # type: ignore[attr-defined]
    return own.parent if is_worker() else own


def end_server(config: pytest.Config) -> None:
    """End the servers that were shared, where they were begun."""
    for name in SERVERS:
        kept = shared_folder(config) / name
        if kept.exists():
            with suppress(ProcessLookupError):
                os.kill(int(kept.read_text("utf-8").split()[0]), signal.SIGTERM)
