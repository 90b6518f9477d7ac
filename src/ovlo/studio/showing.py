"""A sheet shown in the browser, replayed or followed as it grows.

show_sheet(sheet, start={"play": {"seconds": 4, "loops": 1}})

One thread draws while the server's reads: see `core/trail/following.py`. What a page has painted it says, and
only then it is sent what has come since, so that neither waits for the other.
"""

from __future__ import annotations

import threading
from collections.abc import Sequence
from functools import cache
from typing import Any

from ovlo.core.sheet.sheet import Sheet
from ovlo.core.trail.following import Follower, grown_by
from ovlo.core.trail.store import Store
from ovlo.core.values.finding import Finding
from ovlo.page.message import Arrays, message, packed, parts
from ovlo.studio.opening import needed_browser, open_link
from ovlo.studio.presence import Presence
from ovlo.studio.server import PageConnection, Server

OFTEN = 0.04
"""Seconds between two looks at a drawing that grows."""


@cache
def server() -> Server:
    """The one server of this process."""
    return Server()


def show_sheet(sheet: Sheet, findings: Sequence[Finding] | None, start: dict[str, Any], wait: bool) -> None:
    """Open a page on a sheet; wait until it is closed, or let it follow what is drawn."""
    browser = needed_browser("show")
    room = Finished(sheet, findings, start) if wait else Growing(sheet, start)
    link = server().link(server().add(room))
    open_link(browser, link)
    if wait:
        room.presence.wait("show", link)


class Finished:
    """A sheet that does not change."""

    def __init__(self, sheet: Sheet, findings: Sequence[Finding] | None, start: dict[str, Any]) -> None:
        self.presence = Presence()
        self._message = message(sheet, findings, start)

    def open(self, line: PageConnection) -> None:
        """A page is there."""
        self.presence.come(line)
        line.send(self._message)

    def hear(self, line: PageConnection, wish: dict[str, Any]) -> None:
        """A page says its last word."""
        if wish["do"] == "bye":
            self.presence.go(line)

    def close(self, line: PageConnection) -> None:
        """A page is gone."""
        self.presence.go(line)


class Growing:
    """A sheet that is drawn on; each page is sent what is new since it was last sent something."""

    def __init__(self, sheet: Sheet, start: dict[str, Any]) -> None:
        self.presence = Presence()
        self._sheet, self._start = sheet, start | {"follows": True}
        self._follower, self._store = Follower(sheet._trail), Store()
        self._seen: object = None
        self._version = 0
        self._parts: tuple[dict[str, Any], Arrays] = {}, {}
        self._sent: dict[PageConnection, tuple[int, Arrays]] = {}
        self._waiting: set[PageConnection] = set()
        self._look()
        threading.Thread(target=self._watch, name="ovlo-follow", daemon=True).start()

    def open(self, line: PageConnection) -> None:
        """A page is there: it is sent all there is."""
        self.presence.come(line)
        self._sent[line] = -1, {}
        self._waiting.add(line)
        self._send_new()

    def hear(self, line: PageConnection, wish: dict[str, Any]) -> None:
        """A page has painted, and may be sent more; or says its last word."""
        if wish["do"] == "shown":
            self._waiting.add(line)
            self._send_new()
        elif wish["do"] == "bye":
            self.close(line)

    def close(self, line: PageConnection) -> None:
        """A page is gone."""
        self.presence.go(line)
        self._waiting.discard(line)
        self._sent.pop(line, None)

    def _watch(self) -> None:
        pause = threading.Event()
        while not pause.wait(OFTEN):
            if self._waiting:
                server().soon(self._look_and_send)

    def _look_and_send(self) -> None:
        self._look()
        self._send_new()

    def _look(self) -> None:
        """Read what is new, the poses of the nibs included."""
        state = self._state()
        if state == self._seen:
            return
        growth = self._follower.growth()
        self._store = grown_by(self._store, growth)
        self._seen = state
        self._version += 1
        self._parts = parts(self._sheet, None, self._start, self._store.columns(), state[1:])

    def _state(self) -> tuple[Any, ...]:
        """How much there is, and each nib's pose and pointer, read until two readings agree."""
        while True:
            states = [self._state_now() for _ in range(2)]
            if states[0] == states[1]:
                return states[0]

    def _state_now(self) -> tuple[Any, ...]:
        nibs = list(self._sheet._nibs)
        store = self._sheet._trail._store
        return (id(store), store.lengths), *((tuple(nib.pose), nib.pointer) for nib in nibs)

    def _send_new(self) -> None:
        for line in list(self._waiting):
            version, before = self._sent[line]
            if version == self._version:
                continue
            self._waiting.discard(line)
            head, arrays = self._parts
            line.send(packed(head, arrays, before))
            self._sent[line] = self._version, arrays
