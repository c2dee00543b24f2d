"""The program as owners run it, but for two things that most tests in a browser do not look at: the verdict
sees a rig's own banks only, and nothing is worked out in the background."""

import sys

from vast_harbor import cli
from vast_harbor.core.stops.compare.found_banks import CatalogueSearch


def main() -> int:
    """Run the command line."""
    CatalogueSearch.best = lambda self: iter(())  # type: ignore[method-assign]
    cli.renew_in_background = lambda app: None
    return cli.main()


if __name__ == "__main__":
    sys.exit(main())
