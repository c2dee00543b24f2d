"""The application served from a database of its own, and a browser: for pictures and measurements."""

import os
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

CHROMIUM = os.environ.get("CHROMIUM") or shutil.which("chromium") or "/usr/bin/chromium"
FLAGS = ["--no-sandbox", "--disable-gpu", "--no-first-run", "--disable-background-networking"]


@contextmanager
def served(command: str) -> Iterator[tuple[str, Browser, int]]:
    """Serve with ``vast-harbor serve`` or ``demo`` on a free port.

    Args:
        command: ``serve`` or ``demo``.

    Yields:
        The address, a browser, and the process number of the server.
    """
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        data = Path(folder) / "harbor.sqlite3"
        line = [sys.executable, "-m", "vast_harbor.cli", command, "--port", "0", "--data", str(data)]
        with subprocess.Popen(line, stdout=subprocess.PIPE, text=True) as server:
            assert server.stdout is not None
            found = re.search(r"http://[\d.:]+", server.stdout.readline())
            assert found is not None
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            try:
                yield found[0], browser, server.pid
            finally:
                browser.close()
                server.terminate()
