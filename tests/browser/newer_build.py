"""The program with an interface of another build, from the folder that ``INTERFACE`` names."""

import os
import sys
from pathlib import Path

from vast_harbor import cli
from vast_harbor.web.server import app

if __name__ == "__main__":
    app.STATIC = Path(os.environ["INTERFACE"])
    sys.exit(cli.main())
