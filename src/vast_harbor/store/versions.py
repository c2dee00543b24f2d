"""The versions of the database: one script leads from each to the next."""

from importlib.resources import files
from importlib.resources.abc import Traversable

MIGRATIONS = files(__package__) / "migrations"


def scripts() -> list[Traversable]:
    """The SQL scripts in their order; the first makes version 1 of an empty file."""
    return sorted((p for p in MIGRATIONS.iterdir() if p.name.endswith(".sql")), key=lambda p: p.name)
