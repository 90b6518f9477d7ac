"""The one door up from the core: to what makes files, pages and displays of sheets and motifs.

    outlets.save(sheet, "kite.svg")

The module behind the door is loaded when something in it is first used. Type checkers see it as what it is.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from ovlo import outlets
else:

    class _Door:
        """A module that is imported when it is first used."""

        def __init__(self, name: str) -> None:
            self._name = name

        def __getattr__(self, name: str) -> Any:
            return getattr(import_module(self._name), name)

    outlets = _Door("ovlo.outlets")

__all__ = ["outlets"]
