"""Packages: a bank with what is done beside it, looked for together."""

from vast_harbor.core.packages.answer import packages_of
from vast_harbor.core.packages.growth import look
from vast_harbor.core.packages.search import Search

__all__ = ("Search", "look", "packages_of")
