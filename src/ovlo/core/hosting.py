"""What a program runs under when `ovlo` runs it: who finds its sheets, and what stops it.

    with hosted(max_steps=5_000_000) as host:
        exec(code)
    host.sheets

A context variable, so that two programs run at once do not see each other's sheets. Only a trail made under
a host counts its steps: plain drawing pays nothing for the limit.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ovlo.core.origins import Recorder
    from ovlo.core.sheet import Sheet


class Stop(BaseException):
    """The program is stopped from outside. User code that catches exceptions does not catch it."""


class Host:
    """One run of a program.

    Attributes
    ----------
    sheets : list of Sheet
        Those the program made, in their order.
    reason : str
        Why it was stopped; "" while it may go on.
    seed : int or None
        Of sheets that the program gives none.
    recorder : Recorder or None
        Notes where steps come from.
    """

    def __init__(
        self, max_steps: int | None = None, seed: int | None = None, recorder: Recorder | None = None
    ) -> None:
        self.sheets: list[Sheet] = []
        self.reason = ""
        self.seed = seed
        self.recorder = recorder
        self._max_steps = max_steps
        self._left = float("inf") if max_steps is None else max_steps

    def stop(self, reason: str) -> None:
        """Freeze every trail, then stop the program: nothing it does on its way out is recorded."""
        self._left = 0
        self.reason = self.reason or reason
        raise Stop(self.reason)

    def count(self, more: int) -> None:
        """Count what a trail is about to hold."""
        self._left -= more
        if self._left < 0:
            self.stop(f"it made more than {self._max_steps:,} steps (--max-steps)")

    def counted(self, append: Callable[[bytes], None]) -> Callable[[bytes], None]:
        """An append that counts first."""

        def append_counted(row: bytes) -> None:
            self._left -= 1
            if self._left < 0:
                self._left += 1
                self.count(1)
            append(row)

        return append_counted


_host: ContextVar[Host | None] = ContextVar("host", default=None)


def current_host() -> Host | None:
    """The host of the running program, or None when nobody hosts it."""
    return _host.get()


@contextmanager
def hosted(
    max_steps: int | None = None, seed: int | None = None, recorder: Recorder | None = None
) -> Iterator[Host]:
    """A block whose sheets are found, and whose steps are counted, by the host it gives."""
    host = Host(max_steps, seed, recorder)
    token = _host.set(host)
    try:
        yield host
    finally:
        _host.reset(token)
        if recorder is not None:
            recorder.release()
