"""The application served from a database of its own, and a browser: for pictures and measurements."""

import os
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

# Debian's Chromium, without a window where that is there.
CHROMIUM = next(
    filter(None, (os.environ.get("CHROMIUM"), *map(shutil.which, ("chromium-headless-shell", "chromium")))),
    "/usr/bin/chromium",
)
PROGRAM = ("-m", "vast_harbor.cli")
FLAGS = ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"]


def begin(
    command: str, data: Path, program: Sequence[str] = PROGRAM, port: int = 0
) -> tuple[str, subprocess.Popen[str]]:
    """Start ``vast-harbor serve`` or ``demo``.

    Args:
        command: ``serve`` or ``demo``.
        data: the database file.
        program: what Python runs.
        port: where it answers; a free one if 0.

    Returns:
        The address, and the process.
    """
    line = [sys.executable, *program, command, "--port", str(port), "--data", str(data)]
    process = subprocess.Popen(line, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    found = re.search(r"http://[\d.:]+", process.stdout.readline())
    assert found is not None
    return found[0], process


@contextmanager
def server(
    command: str, data: Path | None = None, program: Sequence[str] = PROGRAM, port: int = 0
) -> Iterator[tuple[str, int]]:
    """Serve as :func:`begin` does, as long as it is wanted.

    Args:
        command: ``serve`` or ``demo``.
        data: the database file; one of its own where None.
        program, port: as there.

    Yields:
        The address, and the process number of the server.
    """
    with tempfile.TemporaryDirectory() as folder:
        address, process = begin(command, data or Path(folder) / "harbor.sqlite3", program, port)
        with process:
            try:
                yield address, process.pid
            finally:
                process.terminate()


@contextmanager
def served(command: str) -> Iterator[tuple[str, Browser, int]]:
    """The same with a browser.

    Args:
        command: ``serve`` or ``demo``.

    Yields:
        The address, a browser, and the process number of the server.
    """
    with server(command) as (address, process), sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        try:
            yield address, browser, process
        finally:
            browser.close()
