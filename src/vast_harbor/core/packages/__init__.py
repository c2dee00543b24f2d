"""Packages: a bank with what is done beside it, looked for together."""

from vast_harbor.core.packages.search import Search, look, packages_of

__all__ = ("Search", "look", "packages_of")
