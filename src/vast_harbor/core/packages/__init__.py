"""Packages: a bank with what is done beside it, looked for together."""

from vast_harbor.core.packages.answer import is_asked, packages_of
from vast_harbor.core.packages.growth import look
from vast_harbor.core.packages.nearest import nearest_banks
from vast_harbor.core.packages.search import Search, possible

__all__ = ("Search", "is_asked", "look", "nearest_banks", "packages_of", "possible")
