"""A run is concluded whatever becomes of its process: by itself, or by the guard that watches over it.

    with guarded(conclusion, host, seconds, is_drawing):
        work()

The conclusion is a function that can be pickled and takes an `Outcome`: it saves the picture and says what
there is to say. Only runs that have a limit, or last longer than a second, get a guard.
"""

from __future__ import annotations

import faulthandler
import os
import pickle
import shutil
import signal
import sys
import threading
import time
import warnings
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import TYPE_CHECKING, Any

from ovlo.core.sheet.host import Host
from ovlo.core.values.errors import OvloError, OvloWarning
from ovlo.program.outcome import Outcome
from ovlo.program.processes import guard
from ovlo.program.processes.spool import FIRST, clear_leftovers, kept, private_folder, spooled

if TYPE_CHECKING:
    import subprocess

Conclusion = Callable[[Outcome], object]

SOON = 0.1
"""Seconds after which a run with a limit is kept for the first time."""

GRACE = 1.0
"""Seconds after its limit that a run may take to stop by itself."""

LATER = 2.0
"""Seconds that the guard has, on a busy machine, to be there before the last way out is taken."""

WHYS = {
    guard.LATE: "it ran longer than {seconds:g} s (--time-limit) and did not react",
    guard.TOLD: "it was asked to end and did not react",
    guard.DIED: "its process ended abruptly (killed, out of memory, or a fault in C code)",
}


@contextmanager
def guarded(conclusion: Conclusion, host: Host, seconds: float | None, is_drawing: bool) -> Iterator[None]:
    """A block that is concluded by another process if this one cannot get out of it."""
    handed = pickle.dumps((conclusion, os.getpid(), seconds, sys.path))
    # The folder is there once there is a guard that takes it away, whatever becomes of this process.
    with private_folder() as folder:
        watch = _GuardHandle(folder, handed, seconds)
        try:
            # C code may hold the interpreter early on, so a run with a limit is guarded from its beginning.
            with spooled(host, folder, is_drawing, FIRST if seconds is None else SOON) as ended:
                watch.begin(ended)
                yield
        finally:
            watch.end()


class _GuardHandle:
    """The guard of a run, as its own process sees it."""

    def __init__(self, folder: Path, handed: bytes, seconds: float | None) -> None:
        self._folder, self._handed, self._seconds = folder, handed, seconds
        self._begun = time.monotonic()
        self._guard: subprocess.Popen[bytes] | None = None
        self._thread: threading.Thread | None = None
        self._pipe = -1

    def begin(self, ended: threading.Event) -> None:
        """Start the guard, at once or when the run has lasted long enough."""
        if self._seconds is not None:
            self._start()
            return

        def work() -> None:
            if not ended.wait(FIRST):
                self._start()

        self._thread = threading.Thread(target=work, name="ovlo-guard", daemon=True)
        self._thread.start()

    def _start(self) -> None:
        import subprocess  # only a run that lasts needs it

        clear_leftovers()
        try:
            self._folder.mkdir(mode=0o700, exist_ok=True)
            (self._folder / "conclusion").write_bytes(self._handed)
        except OSError as error:
            words = "If this run crashes, its picture is lost: no temporary file can be written"
            warnings.warn(f"{words} ({error.strerror}); check the free space.", OvloWarning, stacklevel=2)
            return
        left = None
        if self._seconds is not None:
            left = max(self._seconds + GRACE - (time.monotonic() - self._begun), 0.1)
        readable, self._pipe = os.pipe()
        # What else the guard holds can be handed over on some systems alone.
        more: dict[str, Any] = {"pass_fds": [readable]} if os.name == "posix" else {}
        process = subprocess.Popen([sys.executable, "-P", guard.__file__], stdin=subprocess.PIPE, **more)
        assert process.stdin is not None
        process.stdin.write(f"{'-' if left is None else left} {self._folder}\n".encode())
        process.stdin.flush()
        os.close(readable)
        if left is not None and more:
            # The one way out for C code that holds the interpreter: a thread of C code, which says where it
            # is and ends the process with 1. It cannot finish saying so, the pipe being full, before the
            # guard has concluded the run and is gone with its end of the pipe.
            _fill(self._pipe)
            faulthandler.dump_traceback_later(left + LATER, exit=True, file=self._pipe)
        self._guard = process

    def end(self) -> None:
        """Tell the guard that the run is over; where it is at work already, leave the rest to it."""
        if self._thread is not None:
            self._thread.join()
        if self._guard is None:
            return
        assert self._guard.stdin is not None
        if not guard.claim(str(self._folder)):
            self._guard.wait()
            os._exit(1)
        with suppress(OSError):
            self._guard.stdin.write(b".")
            self._guard.stdin.close()
        if self._seconds is not None:
            faulthandler.cancel_dump_traceback_later()
        self._guard.wait()
        os.close(self._pipe)


def _fill(pipe: int) -> None:
    """Fill a pipe to its last byte."""
    os.set_blocking(pipe, False)
    for size in (65536, 4096, 1):
        with suppress(BlockingIOError):
            while True:
                os.write(pipe, b"\0" * size)
    os.set_blocking(pipe, True)


def conclude(folder: str, why: str) -> None:
    """Conclude a run whose own process cannot, with what it has kept; called by the guard."""
    conclusion, process, seconds, path = pickle.loads((Path(folder) / "conclusion").read_bytes())
    sys.path[:] = path
    sheet, count = kept(Path(folder))
    reason = WHYS[why].format(seconds=seconds or 0)
    words = f"Stopped: {reason}. Marks of its last half second may be missing."
    try:
        conclusion(Outcome(sheet, count, words, f"Stopped: {reason}.", stopped_at=None))
    except OvloError as error:
        print(f"Error: {error}", file=sys.stderr)
    finally:
        sys.stdout.flush()
        if why == guard.TOLD:
            with suppress(OSError):
                os.kill(process, getattr(signal, "SIGKILL", signal.SIGTERM))
        shutil.rmtree(folder, ignore_errors=True)
