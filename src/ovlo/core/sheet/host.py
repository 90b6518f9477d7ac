"""What a program runs under when `ovlo` runs it: who finds its sheets, and what stops it.

    with hosted(step_limit=5_000_000) as host:
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

from ovlo.core.trail.origins import Recorder

if TYPE_CHECKING:
    from ovlo.core.sheet.sheet import Sheet


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
    title : str
        Of sheets that the program gives none.
    """

    def __init__(
        self,
        step_limit: int | None = None,
        seed: int | None = None,
        recorder: Recorder | None = None,
        title: str = "",
    ) -> None:
        self.sheets: list[Sheet] = []
        self.reason = ""
        self.seed = seed
        self.recorder = recorder
        self.title = title
        self.when_stopped: Callable[[], object] | None = None
        """What is called when it is stopped for the first time."""
        self._step_limit = step_limit
        self._left = float("inf") if step_limit is None else step_limit

    def stop(self, reason: str) -> None:
        """Freeze every trail, then stop the program: nothing it does on its way out is recorded."""
        self._left = 0
        if not self.reason:
            self.reason = reason
            if self.when_stopped is not None:
                self.when_stopped()
        raise Stop(self.reason)

    def count(self, more: int) -> None:
        """Count what a trail is about to hold."""
        self._left -= more
        if self._left < 0:
            self.stop(f"it drew more than {self._step_limit:,} steps (--step-limit)")

    def foresee(self, more: int) -> None:
        """Stop the program before so much is worked out, if it would be too much."""
        if self._left < more:
            self.count(more)

    def counted(self, append: Callable[[bytes], None]) -> Callable[[bytes], None]:
        """An append that counts first."""

        def append_counted(row: bytes) -> None:
            self._left = left = self._left - 1
            if left < 0:
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
    step_limit: int | None = None,
    seed: int | None = None,
    recorder: Recorder | None = None,
    title: str = "",
) -> Iterator[Host]:
    """A block whose sheets are found, and whose steps are counted, by the host it gives."""
    host = Host(step_limit, seed, recorder, title)
    token = _host.set(host)
    try:
        yield host
    finally:
        _host.reset(token)
        if recorder is not None:
            recorder.release()


@contextmanager
def unhosted() -> Iterator[None]:
    """A block in which Ovlo draws for itself: no host finds its sheets or counts its steps."""
    token = _host.set(None)
    try:
        yield
    finally:
        _host.reset(token)
