"""When each step of a drawing is drawn: so many steps a second, and holds where the program paused.

Timeline(columns, seconds=4).end(10)
"""

from __future__ import annotations

import numpy as np

from ovlo.core.trail.columns import Columns
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue

SECONDS = 4.0
"""A drawing replays in about this time, however long it is."""


class Timeline:
    """The times of a replay, in seconds from its beginning; `seconds` leaves the holds out."""

    def __init__(self, columns: Columns, seconds: float = SECONDS) -> None:
        self._count = len(columns)
        self.seconds = seconds
        holds = np.zeros(self._count + 1)
        np.add.at(holds, columns.pauses["step"], columns.pauses["seconds"])
        self._held = np.cumsum(holds)
        self._ends = np.arange(1, self._count + 1) * seconds / max(self._count, 1) + self._held[:-1]

    def begin(self, step: int) -> float:
        """When a step begins to be drawn."""
        return step * self.seconds / max(self._count, 1) + float(self._held[step])

    def end(self, steps: int) -> float:
        """When so many steps are drawn."""
        return float(self._ends[steps - 1]) if steps else 0.0


def checked_seconds(value: object, call: str) -> float:
    """The length of a replay; nothing is drawn in no time."""
    if value == 0 and not isinstance(value, bool):
        raise BadValue(f"{call}: seconds must be above 0; at_once=True shows the finished picture.")
    return arguments.positive(value, call, "seconds")
