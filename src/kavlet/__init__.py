"""Kavlet: a constructor of styled charts from small tables."""

__version__ = "0.1.0"
