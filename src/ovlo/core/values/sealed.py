"""Classes that take no attributes but their own, so that a misspelt one is not kept in silence.

class Sheet(Sealed): ...

Type checkers do not see what answers at run time: to them an unknown attribute is an error, as it should be.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, TypeVar

from ovlo.core.values.errors import UnknownName
from ovlo.core.values.everyday import unknown


class Answering:
    """An attribute that does not exist is answered with the nearest name, or with what does what it says."""

    __slots__ = ()

    if not TYPE_CHECKING:

        def __getattr__(self, name: str) -> object:
            own = type(self)
            if name.startswith("_"):  # Python itself tries those
                raise AttributeError(f"{own.__name__.lower()} has no {name!r}", name=name, obj=self)
            raise UnknownName(unknown(own.__name__.lower(), name, dir(own)), name=name, obj=self)


class Sealed(Answering):
    """An attribute can be set only if the class has it."""

    __slots__ = ()

    if not TYPE_CHECKING:

        def __setattr__(self, name: str, value: object) -> None:
            own = type(self)
            # A class of the program's own may add attributes.
            is_ours = own.__module__.startswith("ovlo.")
            if is_ours and not name.startswith("_") and not hasattr(own, name):
                raise UnknownName(unknown(own.__name__.lower(), name, dir(own)), name=name, obj=self)
            super().__setattr__(name, value)


Kind = TypeVar("Kind", bound=type)


def unchanging(kind: Kind) -> Kind:
    """Let a frozen class say in a sentence that it cannot be changed, whatever is set."""

    def refuse(self: object, name: str, value: object = None) -> None:
        raise UnknownName(f"{kind.__name__}: {name} is read-only; make a new {kind.__name__} instead.")

    kind.__setattr__ = kind.__delattr__ = refuse  # type: ignore[assignment]
    return kind
