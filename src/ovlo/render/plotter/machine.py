"""The machine that draws: how fast it goes, where its origin is, and the codes that move its pen.

machine = Machine(feed=2000, lift=("M5",), lower=("M3 S90",))
"""

from __future__ import annotations

from typing import Literal, NamedTuple, get_args

from ovlo.core.plot.plot import PenRun
from ovlo.core.values import arguments
from ovlo.core.values.errors import BadValue

Corner = Literal["lower left", "lower right", "upper left", "upper right", "centre"]
CORNERS = get_args(Corner)

LIFT_SECONDS = 0.3
"""Time to lift and lower the pen once, for the estimate of the time."""

CODES = {"lift": "G0 Z5", "lower": "G1 Z0", "begin": "", "change_pen": "M0", "end": "G0 X0 Y0"}
"""The codes of a `[machine]` table, each with its default; `begin` may be empty."""

FEEDS = {"feed": 2000.0, "lower_feed": 500.0, "travel_feed": 6000.0}
"""Speeds in millimetres a minute: drawing, lowering, and, to estimate the time, with the pen lifted."""

PLACES = {"corner": CORNERS[0], "y": "up"}
"""Where the origin is on the page, and whether y grows up or down."""

TRAVEL = ("width", "height")
"""How far the machine reaches, in millimetres."""

KEYS = (*CODES, *FEEDS, *PLACES, *TRAVEL)


class Machine(NamedTuple):
    """A machine as a `[machine]` table describes it; see CODES, FEEDS, PLACES and TRAVEL."""

    lift: tuple[str, ...] = (CODES["lift"],)
    lower: tuple[str, ...] = (CODES["lower"],)
    begin: tuple[str, ...] = ()
    change_pen: tuple[str, ...] = (CODES["change_pen"],)
    end: tuple[str, ...] = (CODES["end"],)
    feed: float = FEEDS["feed"]
    lower_feed: float = FEEDS["lower_feed"]
    travel_feed: float = FEEDS["travel_feed"]
    corner: Corner = "lower left"
    y: Literal["up", "down"] = "up"
    width: float | None = None
    height: float | None = None

    def seconds(self, run: PenRun) -> float:
        """About how long a run takes, without changing the pen."""
        minutes = run.drawn / self.feed + run.travel / self.travel_feed
        return 60 * minutes + LIFT_SECONDS * run.lifts

    def frame(self, size: tuple[float, float]) -> tuple[tuple[float, float], int]:
        """Where the origin is on a page, and 1 or -1: whether y grows up or down."""
        width, height = size
        x = width / 2 if self.corner == "centre" else width * self.corner.endswith("right")
        y = height / 2 if self.corner == "centre" else height * self.corner.startswith("upper")
        return (x, y), 1 if self.y == "up" else -1

    def check_reach(self, width: float, height: float, call: str) -> None:
        """Refuse a page, in millimetres, that the machine does not reach."""
        reach = self.width or width, self.height or height
        if width > reach[0] or height > reach[1]:
            raise BadValue(
                f"{call}: the page of {width:g} × {height:g} mm is larger than what the machine reaches, "
                f"{reach[0]:g} × {reach[1]:g} mm; choose a smaller page."
            )


def code_lines(value: object, call: str, name: str) -> tuple[str, ...]:
    """The lines of a code: a string of one or more lines, or a list of strings.

    Raises
    ------
    BadType, BadValue
        If it is neither, holds no code where one is needed, or cannot stand in a file of codes.
    """
    given = [value] if isinstance(value, str) else arguments.listed(value, call, name, 'write "M5"')
    for text in given:
        arguments.text(str(text).replace("\n", " ") if isinstance(text, str) else text, call, name)
    lines = tuple(line.strip() for text in given for line in text.split("\n") if line.strip())
    for line in lines:
        if not line.isascii():
            odd = next(character for character in line if not character.isascii())
            raise BadValue(f"{call}: {name} contains {odd!r}; codes are written in ASCII.")
        if line.count("(") != line.count(")") or "(" in line.partition(")")[2].partition("(")[0]:
            raise BadValue(f"{call}: {name} has a comment that is not closed: {line!r}; add the bracket.")
    if name != "begin" and not any(_without_comments(line) for line in lines):
        raise BadValue(f'{call}: {name} holds no code; write {name} = "{CODES[name]}".')
    return lines


def _without_comments(line: str) -> str:
    return "".join(part.partition(")")[2] if i else part for i, part in enumerate(line.split("("))).strip()
