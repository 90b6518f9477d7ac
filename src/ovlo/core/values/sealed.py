"""Classes that take no attributes but their own, so that a misspelt one is not kept in silence.

class Sheet(Sealed): ...
"""

from __future__ import annotations

from typing import TypeVar

from ovlo.core.values.arguments import near
from ovlo.core.values.errors import UnknownName


class Sealed:
    """What is set must be there."""

    def __setattr__(self, name: str, value: object) -> None:
        own = type(self)
        if not name.startswith("_") and not hasattr(own, name):
            known = [other for other in dir(own) if not other.startswith("_")]
            raise UnknownName(f"{own.__name__.lower()}: there is no {name!r} to set{near(name, known)}.")
        super().__setattr__(name, value)


Kind = TypeVar("Kind", bound=type)


def unchanging(kind: Kind) -> Kind:
    """Let a frozen class say in a sentence that it cannot be changed, whatever is set."""

    def refuse(self: object, name: str, value: object = None) -> None:
        raise UnknownName(f"{kind.__name__}: {name} cannot be set, since it never changes; make another one.")

    kind.__setattr__ = kind.__delattr__ = refuse  # type: ignore[assignment]
    return kind
