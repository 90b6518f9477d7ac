"""A child process: messages both ways, and an end that comes at the latest with the process that started it.

child = Child(serve, method="spawn")
child.connection.send(request)
child.end(patience=0.5)

`serve` is called in the child with its end of the connection. It ends when that is closed.
"""

from __future__ import annotations

import contextlib
import multiprocessing
import os
import signal
import threading
from collections.abc import Callable
from multiprocessing.connection import Connection
from typing import Any

from ovlo.program.console import forgive


class Child:
    """A process of ours, seen from outside.

    Attributes
    ----------
    connection : Connection
        Our end of the line to it.
    process : Process
    """

    def __init__(self, work: Callable[..., object], *args: object, method: str | None = None) -> None:
        context: Any = multiprocessing.get_context(method)
        self.connection, theirs = context.Pipe()
        # The child lives as long as somebody could write into this pipe.
        life, self._life = context.Pipe(duplex=False)
        self.process = context.Process(
            target=_run, args=(work, args, theirs, life, (self.connection, self._life))
        )
        self.process.start()
        theirs.close()
        life.close()

    def end(self, patience: float = 0.0) -> None:
        """End the process, at once or after some patience."""
        self.connection.close()
        self.process.join(patience)
        if self.process.is_alive():
            self.process.kill()
            self.process.join()
        self._life.close()
        self.process.close()


def _run(
    work: Callable[..., object],
    args: tuple[object, ...],
    connection: Connection,
    life: Connection,
    others: tuple[Connection, ...],
) -> None:
    """What the child does; it must not hold the ends that tell it when the other process is gone."""
    for other in others:
        other.close()
    _die_with(life)
    forgive()
    work(connection, *args)


def _die_with(life: Connection) -> None:
    """End this process when the one that started it is gone."""

    def watch() -> None:
        with contextlib.suppress(EOFError, OSError):
            life.recv()
        os.kill(os.getpid(), getattr(signal, "SIGKILL", signal.SIGTERM))

    threading.Thread(target=watch, daemon=True).start()
    with contextlib.suppress(ImportError, AttributeError, OSError):
        # No thread of Python's runs while C code holds the interpreter; the system then sends a signal.
        import fcntl

        signal.signal(signal.SIGIO, signal.SIG_DFL)
        fcntl.fcntl(life.fileno(), fcntl.F_SETOWN, os.getpid())
        fcntl.fcntl(life.fileno(), fcntl.F_SETFL, fcntl.fcntl(life.fileno(), fcntl.F_GETFL) | os.O_ASYNC)
