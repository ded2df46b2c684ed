"""Kavlet: a constructor of styled charts from small tables. `make` is the door for Python (`kavlet/interface.py`)."""

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from kavlet.interface import Chart, make

__version__ = "0.1.0"
__all__ = ["Chart", "__version__", "make"]


def __getattr__(name: str) -> Any:
    """`make` and `Chart`, loaded when first asked for: the version alone should cost nothing."""
    if name in ("Chart", "make"):
        from kavlet import interface

        return getattr(interface, name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
