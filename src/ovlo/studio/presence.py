"""Whether somebody looks: pages that come, go, are loaded again, or never come.

    presence = Presence()
    presence.wait("show", link)

A page that is loaded again is away for a moment, one of a laptop that sleeps for longer.
"""

from __future__ import annotations

import sys
import threading
import time
from typing import Any

from ovlo.core.values.errors import NoBrowser
from ovlo.studio.opening import NO_BROWSER

RETURN = 3.0
"""Seconds in which a page may come back."""

AWAKE = 60.0
"""The same after the machine has slept."""

FIRST = 20.0
"""Seconds in which the first page is to come, where nobody is at a terminal."""

TICK = 0.1


class Presence:
    """Counts the pages that are there."""

    def __init__(self) -> None:
        self._lines: set[Any] = set()
        self._has_come = threading.Event()
        self._left = 0.0

    def come(self, line: Any) -> None:
        """A page is there."""
        self._lines.add(line)
        self._has_come.set()

    def go(self, line: Any) -> None:
        """A page is gone, by its last word or because its line is closed."""
        if line in self._lines:
            self._lines.discard(line)
            self._left = time.monotonic()

    def wait(self, call: str, link: str, is_told: bool = False) -> None:
        """Wait until nobody looks any more, or Ctrl-C; say so when no page comes, unless `link` is known."""
        try:
            self._wait_for_first(call, link, is_told)
            self._wait_for_last()
        except KeyboardInterrupt:
            print(file=sys.stderr)

    def _wait_for_first(self, call: str, link: str, is_told: bool) -> None:
        if not is_told and self._has_come.wait(FIRST):
            return
        if not is_told and not (sys.stdin and sys.stdin.isatty()):
            raise NoBrowser(f"{call}: {NO_BROWSER}")
        if not is_told:
            print(f"No page has connected yet. Open {link}", file=sys.stderr)
        while not self._has_come.wait(1):
            pass

    def _wait_for_last(self) -> None:
        grace, wall, clock = RETURN, time.time(), time.monotonic()
        while self._lines or time.monotonic() - self._left < grace:
            time.sleep(TICK)
            now, ticks = time.time(), time.monotonic()
            # Either clock may stand while the machine sleeps; a tick that took so long is one of those.
            if max(now - wall, ticks - clock) > 5:
                grace, self._left = AWAKE, ticks
            elif self._lines:
                grace = RETURN
            wall, clock = now, ticks
