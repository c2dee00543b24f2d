"""Vast Harbor: sizing and choosing a replacement house battery bank."""

__version__ = "0.1.0"
