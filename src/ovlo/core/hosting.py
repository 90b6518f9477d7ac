"""What a program runs under when `ovlo` runs it: who finds the sheets it makes.

    with hosted() as host:
        exec(code)
    host.sheets

A context variable, so that two programs run at once do not see each other's sheets.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ovlo.core.sheet import Sheet


@dataclass
class Host:
    """One run of a program."""

    sheets: list[Sheet] = field(default_factory=list)


_host: ContextVar[Host | None] = ContextVar("host", default=None)


def current_host() -> Host | None:
    """The host of the running program, or None when nobody hosts it."""
    return _host.get()


@contextmanager
def hosted() -> Iterator[Host]:
    """A block whose sheets are found by the host it gives."""
    host = Host()
    token = _host.set(host)
    try:
        yield host
    finally:
        _host.reset(token)
