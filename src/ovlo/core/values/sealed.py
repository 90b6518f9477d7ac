"""Classes that take no attributes but their own, so that a misspelt one is not kept in silence.

class Sheet(Sealed): ...
"""

from __future__ import annotations

from typing import TypeVar

from ovlo.core.values.errors import UnknownName
from ovlo.core.values.everyday import unknown


class Answering:
    """Who asks for a name that is not there is told the nearest one, or what does what it says."""

    __slots__ = ()

    def __getattr__(self, name: str) -> object:
        own = type(self)
        if name.startswith("_"):  # those are tried by Python itself
            raise AttributeError(f"{own.__name__.lower()} has no {name!r}", name=name, obj=self)
        raise UnknownName(unknown(own.__name__.lower(), name, dir(own)), name=name, obj=self)


class Sealed(Answering):
    """What is set must be there."""

    __slots__ = ()

    def __setattr__(self, name: str, value: object) -> None:
        own = type(self)
        if not name.startswith("_") and not hasattr(own, name):
            raise UnknownName(unknown(own.__name__.lower(), name, dir(own)), name=name, obj=self)
        super().__setattr__(name, value)


Kind = TypeVar("Kind", bound=type)


def unchanging(kind: Kind) -> Kind:
    """Let a frozen class say in a sentence that it cannot be changed, whatever is set."""

    def refuse(self: object, name: str, value: object = None) -> None:
        raise UnknownName(f"{kind.__name__}: {name} cannot be set, since it never changes; make another one.")

    kind.__setattr__ = kind.__delattr__ = refuse  # type: ignore[assignment]
    return kind
