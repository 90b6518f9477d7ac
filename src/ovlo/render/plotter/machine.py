"""The machine that draws: how fast it goes, and the codes that lift and lower its pen.

machine = Machine(feed=2000, lift=("M5",), lower=("M3 S90",))
"""

from __future__ import annotations

from typing import NamedTuple

from ovlo.core.plot.plot import Run
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue

FEED = 2000.0
"""Default drawing speed, millimetres a minute."""

TRAVEL_FEED = 6000.0
"""Speed of a lifted pen, millimetres a minute, for the estimate of the time; a machine has its own."""

LIFT_SECONDS = 0.3
"""Time to lift and lower the pen once, for the estimate of the time."""

CODES = {"lift": "G0 Z5", "lower": "G1 Z0"}
"""The keys of a `[machine]` table, each with its default."""


class Machine(NamedTuple):
    """How fast a pen draws (millimetres a minute), and the lines of G-code that lift and lower it."""

    feed: float = FEED
    lift: tuple[str, ...] = (CODES["lift"],)
    lower: tuple[str, ...] = (CODES["lower"],)

    def seconds(self, run: Run) -> float:
        """PlotDetails how long a run takes, without changing the pen."""
        minutes = run.drawn / self.feed + run.travel / TRAVEL_FEED
        return 60 * minutes + LIFT_SECONDS * run.lifts


def code_lines(value: object, call: str, name: str) -> tuple[str, ...]:
    """The lines of a code: a string of one or more lines, or a list of strings.

    Raises
    ------
    BadType, BadValue
        If it is neither, or holds no line.
    """
    given = [value] if isinstance(value, str) else arguments.listed(value, call, name, 'write "M5"')
    for text in given:
        arguments.text(str(text).replace("\n", " ") if isinstance(text, str) else text, call, name)
    lines = tuple(line.strip() for text in given for line in text.split("\n") if line.strip())
    if not lines:
        raise BadValue(f'{call}: {name} holds no code; write {name} = "{CODES[name]}".')
    return lines
