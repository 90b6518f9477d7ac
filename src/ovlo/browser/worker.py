"""A process that runs the user's program, so that an endless loop never stops the page.

    worker = Worker(told=print)
    worker.ask(Draw("kite.py:kite", {"sides": "5"}))

What it has to say comes in a thread of its own.
"""

from __future__ import annotations

import contextlib
import multiprocessing
import os
import signal
import sys
import threading
from collections.abc import Callable, Iterator
from multiprocessing.connection import Connection
from types import ModuleType
from typing import Any

from ovlo.browser.desk import serve
from ovlo.browser.requests import Draw, Save, Told, Words


@contextlib.contextmanager
def _nothing_as_main() -> Iterator[None]:
    """A block in which new processes do not run the program that opened the page once more."""
    before = sys.modules["__main__"]
    sys.modules["__main__"] = ModuleType("__main__")
    try:
        yield
    finally:
        sys.modules["__main__"] = before


class Worker:
    """The process, seen from outside; `told` is called in a thread, with None when the process has ended."""

    def __init__(self, told: Callable[[Told | None], Any]) -> None:
        self._told = told
        self._context = multiprocessing.get_context("spawn")
        self._start()

    def _start(self) -> None:
        self._connection, theirs = self._context.Pipe()
        self._process = self._context.Process(target=serve, args=(theirs,), daemon=True)
        with _nothing_as_main():
            self._process.start()
        theirs.close()
        threading.Thread(target=self._listen, args=(self._connection,), daemon=True).start()

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
            self._connection.send(request)

    def interrupt(self) -> None:
        """What Ctrl-C does; it is not heard before the program runs, and so to be given again."""
        if os.name == "posix" and self._process.pid is not None and self._process.is_alive():
            os.kill(self._process.pid, signal.SIGINT)

    def restart(self) -> None:
        """End the process, and begin another."""
        self.close()
        self._start()

    def close(self) -> None:
        """End the process."""
        connection, self._connection = self._connection, None  # type: ignore[assignment]
        connection.close()
        self._process.kill()
        self._process.join(1)
