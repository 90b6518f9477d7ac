"""What the process of a program does next: one thing at a time, and the newest picture first.

schedule = Schedule(worker, later=server.later)
schedule.want(Draw("kite.py", {"sides": "5"}))
schedule.rest()    # when it has answered

It rests, draws the picture, does something aside (a small picture, a file), or is stopping. A picture that is
overtaken is drawn to its end once the one that is seen is old, so that a value that moves all the time shows
pictures all the time.
"""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable, Iterable
from enum import Enum
from typing import Protocol

from ovlo.studio.exploring.requests import Draw, Save

FRESH = 0.5
"""Seconds a picture may be old while its successor is drawn: a run is finished when the last one is older."""

AGAIN = 0.1
"""Seconds between two times a program is told to stop."""

PATIENCE = 2.0
"""Seconds a program has to stop when it is told to, before its process is ended."""

WARM_PATIENCE = 0.4
"""The same where another process is ready to take over."""


class State(Enum):
    """What the process is at."""

    RESTING = "resting"
    DRAWING = "drawing"
    ASIDE = "aside"
    STOPPING = "stopping"


class Process(Protocol):
    """What does it."""

    @property
    def is_warm(self) -> bool:
        """Whether another process is ready to take over."""

    def ask(self, request: Draw | Save) -> None:
        """Begin with something."""

    def interrupt(self) -> None:
        """Ask for an end of what is being done."""


class Schedule:
    """What is wanted and what is being done. `dead` is called when a program did not stop."""

    def __init__(
        self,
        process: Process,
        later: Callable[[float, Callable[[], object]], object],
        dead: Callable[[], object],
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self.state = State.RESTING
        self.may_check = False
        """Whether the process may be checking its picture; before the first it bears no signal."""
        self._process, self._wait, self._dead, self._clock = process, later, dead, clock
        self._busy: Draw | Save | None = None
        self._wanted: Draw | None = None
        self._aside: deque[Draw | Save] = deque()
        self._since = 0.0
        self._shown_at, self._usual = 0.0, 0.0

    @property
    def is_overtaken(self) -> bool:
        """Whether another picture is wanted than the one being drawn."""
        return self._wanted is not None

    def want(self, request: Draw) -> None:
        """Have this drawn instead of what was wanted before; what was to be done aside is not done."""
        self._wanted = request
        self._aside.clear()
        self.go_on()

    def add(self, requests: Iterable[Draw | Save]) -> None:
        """Have something done when the picture is drawn."""
        self._aside.extend(requests)
        self.go_on()

    def stop(self) -> None:
        """Stop what is drawn, and see to it that it listens."""
        if self.state is State.DRAWING or (self.state is State.ASIDE and isinstance(self._busy, Draw)):
            self.state, self._since = State.STOPPING, self._clock()
            self._stop_again()

    def show(self, seconds: float) -> None:
        """A picture is seen that took so long."""
        self._shown_at, self._usual = self._clock(), seconds

    def rest(self) -> None:
        """What was being done has been answered."""
        self.state, self._busy = State.RESTING, None

    def go_on(self) -> None:
        """Begin with what is next, or see that what is being done comes to its end."""
        if self.state is State.RESTING:
            self._begin()
        elif self._wanted is not None and self.state is not State.STOPPING:
            left = self._since + max(FRESH, 2 * self._usual) - self._clock()
            if self.state is State.DRAWING and self._clock() - self._shown_at > FRESH and left > 0:
                self._wait(left, self.go_on)
            else:
                self.stop()

    def _begin(self) -> None:
        if self._wanted is not None:
            self._busy, self._wanted, self.state = self._wanted, None, State.DRAWING
        elif self._aside:
            self._busy, self.state = self._aside.popleft(), State.ASIDE
        else:
            return
        if self.may_check:
            self._process.interrupt()  # a check gives way
        self.may_check, self._since = False, self._clock()
        self._process.ask(self._busy)

    def _stop_again(self) -> None:
        if self.state is not State.STOPPING:
            return
        patience = WARM_PATIENCE if self._process.is_warm and self.is_overtaken else PATIENCE
        if self._clock() - self._since > patience:
            self._dead()
            return
        self._process.interrupt()
        self._wait(AGAIN, self._stop_again)
