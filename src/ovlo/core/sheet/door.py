"""The one door up from the core: to the outlets, which make files, and to the studio, which shows and
follows.

    outlets.save(sheet, "kite.svg")
    studio.show(sheet, 4, False, True, False)

The modules behind the door are loaded when something in them is first used. Type checkers see them as what
they are.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from ovlo import outlets
    from ovlo.studio import entry as studio
else:

    class _Door:
        """A module that is imported when it is first used."""

        def __init__(self, name: str) -> None:
            self._name = name

        def __getattr__(self, name: str) -> Any:
            return getattr(import_module(self._name), name)

    outlets, studio = _Door("ovlo.outlets"), _Door("ovlo.studio.entry")

__all__ = ["outlets", "studio"]
