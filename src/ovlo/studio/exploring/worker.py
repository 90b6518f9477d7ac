"""A process that runs the user's program, so that an endless loop never stops the page.

    worker = ProgramWorker()
    worker.listen(print)
    worker.ask(Draw("kite.py:kite", {"sides": "5"}))

What it has to say comes in a thread of its own.
"""

from __future__ import annotations

import contextlib
import os
import signal
import sys
import threading
from collections.abc import Callable, Iterator
from multiprocessing.connection import Connection
from types import ModuleType
from typing import Any

from ovlo.program.processes.child import Child
from ovlo.studio.exploring.desk import serve, users_modules
from ovlo.studio.exploring.requests import Draw, Reply, Save, Words


@contextlib.contextmanager
def _nothing_as_main() -> Iterator[None]:
    """A block in which new processes do not run the program that opened the page once more."""
    before = sys.modules["__main__"]
    sys.modules["__main__"] = ModuleType("__main__")
    try:
        yield
    finally:
        sys.modules["__main__"] = before


def _may_fork() -> bool:
    """Whether a process may begin as a copy of this one: it has no threads, and no modules of the user's."""
    return (
        sys.platform == "linux"
        and hasattr(os, "fork")
        and threading.active_count() == 1
        and not users_modules()
    )


def _begun(method: str = "spawn") -> Child:
    with _nothing_as_main():
        return Child(serve, method=method)


class ProgramWorker:
    """The process, seen from outside."""

    def __init__(self) -> None:
        self._told: Callable[[Reply | None], Any] = lambda told: None
        self._spare: Child | None = None
        self._lock = threading.Lock()
        self._use(_begun("fork" if _may_fork() else "spawn"))

    def _use(self, child: Child) -> None:
        self._child = child
        self._connection: Connection | None = child.connection

    @property
    def is_warm(self) -> bool:
        """Whether another process is ready to take over."""
        return self._spare is not None

    def warm_up(self) -> None:
        """Have another process ready, in a thread."""

        def begin() -> None:
            with self._lock:
                if self._spare is None and self._connection is not None:
                    self._spare = _begun()

        threading.Thread(target=begin, daemon=True).start()

    def listen(self, told: Callable[[Reply | None], Any]) -> None:
        """Have `told` called with all it says, in a thread; with None when the process has ended."""
        self._told = told
        threading.Thread(target=self._listen, args=(self._child.connection,), daemon=True).start()

    def _listen(self, connection: Connection) -> None:
        while True:
            try:
                told = connection.recv()
            except (EOFError, OSError):
                break
            if connection is self._connection:
                self._told(told)
        if connection is self._connection:
            self._told(None)

    def ask(self, request: Draw | Save | Words) -> None:
        """Hand over a request; one at a time, and answers to its questions."""
        with contextlib.suppress(BrokenPipeError, OSError):
            self._child.connection.send(request)

    def interrupt(self) -> None:
        """What Ctrl-C does; it is not heard before the program runs, and so to be given again."""
        process = self._child.process
        if os.name == "posix" and process.pid is not None and process.is_alive():
            os.kill(process.pid, signal.SIGINT)

    def restart(self) -> None:
        """End the process; the one that is ready takes over, or another begins."""
        with self._lock:
            child, self._spare = self._spare, None
            self._connection = None  # what is heard of it from now on is of no interest
            self._child.end()
            self._use(child or _begun())
        self.listen(self._told)
        self.warm_up()

    def close(self) -> None:
        """End all processes."""
        with self._lock:
            self._connection = None
            self._child.end()
            if self._spare is not None:
                self._spare.end()
