"""A replay's clock: how many steps of a drawing are to be seen now.

replay = Replay(columns, seconds=4)
replay.play(now=0.0)
replay.steps_at(1.5)
"""

from __future__ import annotations

from ovlo.core.paint.timeline import SECONDS, Timeline
from ovlo.core.trail.columns import Columns

LONGEST, SHORTEST = 36_000.0, 0.05
"""Seconds a replay may be set to take."""


class Replay:
    """Where a replay stands, and whether it goes on."""

    def __init__(self, columns: Columns, seconds: float = SECONDS) -> None:
        self.steps = 0
        self.share = 0.0
        """Of the next step, while a replay is in the middle of it."""
        self.is_playing = False
        self._began = 0.0
        self._columns = columns
        self.timeline = Timeline(columns, seconds)

    def take(self, columns: Columns, seconds: float | None = None) -> None:
        """Replay another trail."""
        self._columns = columns
        self.timeline = Timeline(columns, self.timeline.seconds if seconds is None else seconds)
        self.steps = min(self.steps, len(columns))

    @property
    def length(self) -> int:
        """How many steps there are."""
        return len(self._columns)

    @property
    def is_over(self) -> bool:
        """Whether all is drawn."""
        return self.steps >= self.length

    @property
    def pace(self) -> float:
        """Steps a second."""
        return self.length / self.timeline.seconds

    def set_seconds(self, seconds: float, now: float) -> None:
        """Let the whole replay take so long; it goes on from where it stands."""
        seconds = min(max(seconds, SHORTEST), LONGEST)
        self.timeline = Timeline(self._columns, seconds)
        if self.is_playing:
            self.play(now)

    def play(self, now: float) -> None:
        """Go on; from the beginning if all is drawn."""
        if self.is_over:
            self.steps, self.share = 0, 0.0
        self._began = (
            now - self.timeline.begin(self.steps) - self.share * self.timeline.seconds / max(self.length, 1)
        )
        self.is_playing = self.length > 0

    def pause(self) -> None:
        """Stay where it is."""
        self.is_playing = False

    def seek(self, steps: int) -> None:
        """Go to a step and stay there."""
        self.is_playing = False
        self.share = 0.0
        self.steps = min(max(steps, 0), self.length)

    def tick(self, now: float) -> bool:
        """Move on to a moment; whether more is to be seen."""
        if not self.is_playing:
            return False
        before = self.steps, self.share
        steps, share = self.timeline.moment(now - self._began)
        if steps >= self.steps:
            self.steps, self.share = steps, share
        if self.is_over:
            self.is_playing = False
            self.share = 0.0
        return (self.steps, self.share) != before
