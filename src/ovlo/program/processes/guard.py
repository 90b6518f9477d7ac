"""The process that watches over a long run: it waits, and takes over when the run's own process cannot go on.

    python guard.py    # told on its standard input what to watch

It is a file of its own that needs nothing but Python, so that it costs next to nothing while all goes well.
What it is told: a line with the seconds until the run must be over, or "-", and the folder where the run is
kept. Then a single byte: "." when the run is over. Where that does not come in time, or the run's process
ends without it, the guard claims the run and hands it to `ovlo.program.processes.rescue`.
"""

from __future__ import annotations

import os
import signal
import threading
import time
from importlib import import_module
from types import FrameType

AFTER_STOP = 2.0
"""Seconds that a run may take to end when it was told to."""

CLAIM = "claimed"
LATE, DIED, TOLD = "late", "died", "told"


def claim(folder: str) -> bool:
    """Whether the run is ours to conclude: the first to claim it, the run's own process or its guard."""
    try:
        os.close(os.open(os.path.join(folder, CLAIM), os.O_CREAT | os.O_EXCL))
    except OSError:
        return False
    return True


def _first_line() -> bytes:
    """A line read byte by byte, so that nothing behind it is taken."""
    line = b""
    while not line.endswith(b"\n") and (byte := os.read(0, 1)):
        line += byte
    return line


def main() -> None:
    """Wait for the end of a run."""
    told: list[float] = []

    def tell(number: int, frame: FrameType | None) -> None:
        told.append(time.monotonic())

    for name in ("SIGINT", "SIGTERM", "SIGHUP"):  # the last is not everywhere
        if number := getattr(signal, name, None):
            signal.signal(number, tell)
    word, _, folder = _first_line().decode().rstrip("\n").partition(" ")
    with open(
        os.path.join(folder, "guard"), "w"
    ) as file:  # so that nobody else takes the folder for left over
        file.write(str(os.getpid()))
    heard, has_heard = bytearray(), threading.Event()

    def listen() -> None:
        heard.extend(os.read(0, 1))  # a pipe, for which not every system can wait with a limit
        has_heard.set()

    threading.Thread(target=listen, daemon=True).start()
    deadline = None if word == "-" else time.monotonic() + float(word)
    why = ""
    while not why:
        now = time.monotonic()
        ends = [moment for moment in (deadline, told[0] + AFTER_STOP if told else None) if moment is not None]
        if ends and min(ends) <= now:
            why = TOLD if deadline is None or now < deadline else LATE
            break
        # Short waits, so that a signal is noticed wherever it comes.
        if has_heard.wait(min([0.25, *(end - now for end in ends)])):
            if heard:
                return
            why = DIED
    if claim(folder):
        # By its name, since the rescue knows its guard, and a guard that is not needed loads nothing.
        import_module("ovlo.program.processes.rescue").conclude(folder, why)


if __name__ == "__main__":
    main()
