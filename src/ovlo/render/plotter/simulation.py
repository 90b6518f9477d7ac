"""A simulated machine: what a plotter draws that is given a file, whoever wrote it.

head = Head(travel_speed=6000, speed=2000)
head.go(10, 10)
head.set_down(True)
head.go(60, 10)
head.simulated((100, 50)).warnings    # ['The pen is still down at the end (…).']

What follows a file moves a head; read_gcode, read_hpgl and read_svg do. None knows the picture that the file
was made from.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from math import acos, ceil, cos, degrees, hypot, radians, sin
from typing import NamedTuple

import numpy as np

from ovlo.core.values.arrays import Floats
from ovlo.core.values.colour import Colour, parse
from ovlo.render.plotter.machine import LIFT_SECONDS

FLAT = 0.002
"""Millimetres by which a chord may be off its arc."""

LINE_WIDTH = 0.3
"""Millimetres: how pens are shown of which a file does not say how wide they are."""

LOOK = re.compile(r"(#[0-9A-Fa-f]{6})(?:\D{1,3}(\d+\.?\d*) mm)?")
"""How a comment says what a pen is like."""

EDGE = 0.01
"""Millimetres that a move may be off the page."""

Point = tuple[float, float]
Size = tuple[float, float]


class Move(NamedTuple):
    """What a machine does between two changes of its pen.

    Attributes
    ----------
    pen : int
        From 1.
    is_down : bool
    points : float array of shape (n, 2)
        Millimetres from the lower left corner of the page, y up.
    speeds : float array of shape (n - 1,)
        Millimetres a minute.
    """

    pen: int
    is_down: bool
    points: Floats
    speeds: Floats

    @property
    def seconds(self) -> float:
        """How long it takes, the pen's own movement aside."""
        return float(60 * (np.hypot(*np.diff(self.points, axis=0).T) / self.speeds).sum())


@dataclass(frozen=True)
class Simulated:
    """What a machine drew.

    Attributes
    ----------
    moves : list of Move
    size : (float, float)
        Of the page, in millimetres.
    looks : dict of int to (Colour, float)
        The ink and the width of the pens that the file describes.
    warnings : list of str
        What would go wrong at the machine.
    """

    moves: list[Move]
    size: Size
    looks: dict[int, tuple[Colour, float]]
    warnings: list[str]

    @property
    def seconds(self) -> float:
        """How long the machine takes, without changes of the pen."""
        lifts = sum(move.is_down for move in self.moves)
        return sum(move.seconds for move in self.moves) + LIFT_SECONDS * lifts

    def length(self, is_down: bool) -> float:
        """Millimetres that were drawn, or gone with the pen lifted."""
        return sum(
            float(np.hypot(*np.diff(move.points, axis=0).T).sum())
            for move in self.moves
            if move.is_down == is_down
        )


@dataclass
class Head:
    """The head of a machine, its pen, and what it noticed."""

    travel_speed: float
    speed: float
    pen: int = 1
    is_down: bool = False
    place: Point = (0.0, 0.0)
    where: str = ""
    """The line or instruction that is read now."""
    moves: list[Move] = field(default_factory=list)
    looks: dict[int, tuple[Colour, float]] = field(default_factory=dict)
    notes: dict[str, list[str]] = field(default_factory=dict)
    """For each thing noticed, where that was."""
    _points: list[Point] = field(default_factory=list)
    _speeds: list[float] = field(default_factory=list)

    def note(self, words: str) -> None:
        """Notice something here."""
        self.notes.setdefault(words, []).append(self.where)

    def note_look(self, comment: str) -> None:
        """Take from a comment the ink and the width of the pen, if it has them."""
        if match := LOOK.search(comment):
            width = float(match[2]) if match[2] else LINE_WIDTH
            self.looks[self.pen] = parse(match[1], "plot"), width or LINE_WIDTH

    def go(self, x: float, y: float, speed: float | None = None) -> None:
        """Go straight to a place."""
        self._points = self._points or [self.place]
        self._speeds.append(speed or (self.speed if self.is_down else self.travel_speed))
        self._points.append((x, y))
        self.place = x, y

    def arc(self, centre: Point, sweep: float, end: Point | None = None, chord: float | None = None) -> None:
        """Go around a centre by an angle in degrees, anticlockwise above 0, by chords of so many degrees."""
        x, y = self.place[0] - centre[0], self.place[1] - centre[1]
        if chord is None:
            chord = 2 * degrees(acos(1 - FLAT / max(hypot(x, y), 10 * FLAT)))
        count = max(1, ceil(abs(sweep) / chord))
        for i in range(1, count + 1):
            c, s = cos(radians(sweep * i / count)), sin(radians(sweep * i / count))
            place = centre[0] + x * c - y * s, centre[1] + x * s + y * c
            self.go(*(end if end and i == count else place))

    def set_down(self, is_down: bool) -> None:
        """Lower or lift the pen."""
        if is_down != self.is_down:
            self.finish()
            self.is_down = is_down
            self._points = [self.place] if is_down else []

    def set_pen(self, pen: int) -> None:
        """Take another pen."""
        if self.is_down:
            self.note("the pen is down while it is changed")
        self.finish()
        self.pen = pen

    def finish(self) -> None:
        """End the move that is going on; a pen that was only set down left a dot."""
        if self._points and (self.is_down or len(self._points) > 1):
            if len(self._points) == 1:
                self.go(*self.place)
            self.moves.append(
                Move(self.pen, self.is_down, np.array(self._points), np.array(self._speeds, float))
            )
        self._points, self._speeds = [], []

    def simulated(self, size: Size | None) -> Simulated:
        """All of it, on a page of this size, or of the size that holds it."""
        if self.is_down:
            self.note("the pen is still down at the end")
        self.finish()
        if size is None:
            size = self._make_room()
        page = np.array(size)
        warnings = [f"{words} ({_at(places)})." for words, places in self.notes.items()]
        outside = sum(
            int(((move.points[1:] < -EDGE) | (move.points[1:] > page + EDGE)).any(axis=1).sum())
            for move in self.moves
        )
        if outside:
            there = "1 place is" if outside == 1 else f"{outside:,} places are"
            warnings.insert(0, f"{there} off the page of {size[0]:g} × {size[1]:g} mm.")
        return Simulated(self.moves, size, self.looks, [words[0].upper() + words[1:] for words in warnings])

    def _make_room(self) -> Size:
        """Move what was drawn onto the smallest page that holds it; its size."""
        points = np.vstack([np.ones((1, 2)), *(move.points for move in self.moves)])
        low = np.minimum(points.min(axis=0), 0)
        self.moves = [move._replace(points=move.points - low) for move in self.moves]
        width, height = (points.max(axis=0) - low).tolist()
        return width, height


def _at(places: list[str]) -> str:
    return places[0] if len(places) == 1 else f"{places[0]}, and {len(places) - 1:,} more"
