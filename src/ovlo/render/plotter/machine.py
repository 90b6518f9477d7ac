"""The machine that draws: how fast it goes, and what it does when the pen is lifted and lowered.

machine = checked_machine(feed=2000, on_lift="M5", on_lower="M3 S90", call="plot")
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from ovlo.core.plot.plot import Run
from ovlo.core.values import arguments

FEED = 2000.0
"""Millimetres in a minute that a pen draws at first."""

TRAVEL_FEED = 6000.0
"""Millimetres in a minute that a lifted pen goes, for the estimate of the time; a machine has its own."""

LIFT_SECONDS = 0.3
"""What lifting and lowering the pen once takes, for the estimate of the time."""

ON_LIFT, ON_LOWER = "G0 Z5", "G1 Z0"


class Machine(NamedTuple):
    """How fast a pen draws (millimetres in a minute), and the lines that lift and lower it."""

    feed: float = FEED
    on_lift: tuple[str, ...] = (ON_LIFT,)
    on_lower: tuple[str, ...] = (ON_LOWER,)

    def seconds(self, run: Run) -> float:
        """About how long a run takes, without changing the pen."""
        minutes = run.drawn / self.feed + run.travel / TRAVEL_FEED
        return 60 * minutes + LIFT_SECONDS * run.lifts


def checked_machine(
    feed: object, on_lift: object, on_lower: object, call: str, spelt: Callable[[str], str] = str
) -> Machine:
    """A machine as it was asked for; several lines of a command are parted by a written-out `\\n`."""
    speed = arguments.positive(FEED if feed is None else feed, call, spelt("feed"))
    return Machine(
        speed, _lines(on_lift, ON_LIFT, call, "on_lift"), _lines(on_lower, ON_LOWER, call, "on_lower")
    )


def _lines(words: object, usual: str, call: str, name: str) -> tuple[str, ...]:
    text = arguments.text(
        usual if words is None else words, call, name, "write several lines as 'G4 P0\\nM5'"
    )
    return tuple(line.strip() for line in text.split("\\n") if line.strip())
