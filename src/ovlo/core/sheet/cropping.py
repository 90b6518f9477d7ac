"""Marks cut out of a trail: those inside a rectangle, whole or cut at its border.

    motif = cropped(columns, (0, 0, 100, 100), whole=False, text_box=box_of_text)

Strokes are cut where their lines and curves cross the border, and a part of an arc is an arc again.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from itertools import pairwise
from math import atan2, cos, degrees, radians, sin, sqrt
from typing import NamedTuple

import numpy as np

from ovlo.core.paint.measures import TextBox
from ovlo.core.paint.order import Mark, painted
from ovlo.core.paint.outlines import CLOSE, MOVE, Outline
from ovlo.core.paint.regions import region, rings_of
from ovlo.core.sheet.motif import Motif, recorded
from ovlo.core.sheet.nib import Nib
from ovlo.core.trail.columns import FILL_RULES, Columns, Style, Text
from ovlo.core.trail.trail import PACK_STEP, Piece
from ovlo.core.values.arrays import Bools, Box, Floats
from ovlo.core.values.colour import Colour
from ovlo.core.values.degrees import normal
from ovlo.core.values.pose import Pose

Shape = tuple[complex, complex, float]
"""u, v and the sweep of a curve, as in the trail."""

AREA_CHORDS = 100_000
"""An area that is cut is made of chords that leave its curves by this share of the rectangle."""

EDGE = 1e-9
"""Of the rectangle: so far beyond the border is still inside."""


class Side(NamedTuple):
    """A straight line, or a curve."""

    start: complex
    end: complex
    shape: Shape | None = None

    def at(self, t: float) -> complex:
        """The point at a share of the way."""
        if self.shape is None:
            return self.start + t * (self.end - self.start)
        u, v, sweep = self.shape
        if sweep:
            angle = radians(t * sweep)
            return self.start + u * (cos(angle) - 1) + v * sin(angle)
        w = self.end - self.start
        return self.start + 3 * (1 - t) ** 2 * t * u + 3 * (1 - t) * t**2 * v + t**3 * w

    def part(self, first: float, last: float) -> Side:
        """The part between two shares."""
        start = self.start if first == 0 else self.at(first)
        end = self.end if last == 1 else self.at(last)
        if self.shape is None:
            return Side(start, end)
        u, v, sweep = self.shape
        if sweep:
            angle = radians(first * sweep)
            turned = u * cos(angle) + v * sin(angle), v * cos(angle) - u * sin(angle)
            return Side(start, end, (*turned, (last - first) * sweep))
        # A part of a cubic has a third of its own speed at its ends as control points.
        length = (last - first) / 3
        ahead, back = self._speed(first) * length, self._speed(last) * length
        return Side(start, end, (ahead, end - start - back, 0.0))

    def _speed(self, t: float) -> complex:
        assert self.shape is not None
        u, v, sweep = self.shape
        if sweep:
            angle = radians(t * sweep)
            return radians(sweep) * (v * cos(angle) - u * sin(angle))
        w = self.end - self.start
        return 3 * ((1 - t) ** 2 * u + 2 * (1 - t) * t * (v - u) + t**2 * (w - v))

    def heading(self) -> float:
        """The heading at its end."""
        going = self.end - self.start if self.shape is None else self._speed(1)
        return normal(degrees(atan2(going.imag, going.real)))

    def crossings(self, box: Box) -> list[float]:
        """The shares at which it crosses the lines of a box's sides."""
        left, bottom, right, top = box
        found: list[float] = []
        for place, along in ((left, 1), (right, 1), (bottom, -1j), (top, -1j)):
            # Turned so that the coordinate that counts is the real one.
            found += self._reaches(place, along)
        return sorted(t for t in found if 0 < t < 1)

    def _reaches(self, place: float, along: complex) -> list[float]:
        start, end = (self.start * along).real, (self.end * along).real
        if self.shape is None:
            return [(place - start) / (end - start)] if end != start else []
        u, v = (self.shape[0] * along).real, (self.shape[1] * along).real
        sweep = self.shape[2]
        if not sweep:
            w = end - start
            powers = [w - 3 * v + 3 * u, 3 * (v - 2 * u), 3 * u, start - place]
            return [root.real for root in np.roots(powers) if abs(root.imag) < 1e-9]
        # start - u + u·cos t + v·sin t = place, where u·cos t + v·sin t = reach·cos(t - crest)
        reach, middle = sqrt(u * u + v * v), start - u
        if reach == 0 or abs(place - middle) > reach:
            return []
        crest, away = degrees(atan2(v, u)), degrees(np.arccos((place - middle) / reach))
        turns = range(int(abs(sweep) // 360) + 2)
        sense = 1 if sweep > 0 else -1
        return [
            ((sense * angle) % 360 + 360 * turn) / abs(sweep)
            for angle in (crest + away, crest - away)
            for turn in turns
        ]


def cropped(columns: Columns, paper: Colour, box: Box, whole: bool, text_box: TextBox) -> Motif:
    """The marks of a trail inside a box, as a motif on the same paper around the box's centre."""
    painting = painted(columns)
    left, bottom, right, top = box
    # Flattened once for all areas that are cut, and only if there are any.
    finest = max(right - left, top - bottom) / AREA_CHORDS
    flat = lru_cache(lambda outline: outline.flattened(finest))

    def draw(nib: Nib) -> None:
        away = {id(outline): _is_away(outline, box) for outline in (painting.strokes, painting.borders)}
        for mark in painting.marks:
            if isinstance(mark, Text):
                _draw_text(nib, mark, box, whole, text_box)
                continue
            outline = painting.outline_of(mark)
            if away[id(outline)][mark.number]:
                continue
            if mark.fill is not None:
                _draw_area(nib, outline, mark, mark.fill, box, None if whole else flat)
            if mark.style is not None:
                _draw_stroke(nib, outline, mark.number, mark.style, box, whole)

    centre = (left + right) / 2, (bottom + top) / 2
    return replace(recorded(draw).moved(-centre[0], -centre[1]), end=Pose(), _paper=paper)


def _is_away(outline: Outline, box: Box) -> Bools:
    """Which paths lie wholly outside a box, shape (paths,)."""
    low, high = outline.path_boxes()
    edge = EDGE * max(box[2] - box[0], box[3] - box[1])
    return np.asarray(((high < np.array(box[:2]) - edge) | (low > np.array(box[2:]) + edge)).any(axis=1))


def _draw_stroke(nib: Nib, lines: Outline, number: int, style: Style, box: Box, whole: bool) -> None:
    nib._style, nib._run = style, None
    for chain, is_closed in _chains(lines, number):
        if _is_inside(chain, box):
            nib._lay_pieces([_piece(chain, is_closed)], None, True, FILL_RULES[0])
        elif not whole:
            cut = [_piece(part, False) for part in _cut(chain, box)]
            nib._lay_pieces(cut, None, True, FILL_RULES[0])


def _draw_area(
    nib: Nib, outline: Outline, mark: Mark, fill: Colour, box: Box, flat: Callable[[Outline], Outline] | None
) -> None:
    """Draw an area that lies in a box; `flat` makes the outline one of chords, of which it may be cut."""
    chains = _chains(outline, mark.number)
    if all(_is_inside(chain, box) for chain, _ in chains):
        nib._lay_pieces([_piece(chain, True) for chain, _ in chains], fill, False, mark.fill_rule)
    elif flat is not None:
        import shapely

        area = region(*flat(outline).path(mark.number), mark.fill_rule)
        vertices, codes = rings_of(shapely.intersection(area, shapely.box(*box)))
        starts = np.flatnonzero(codes == MOVE)
        rings = [_straight(ring) for ring in np.split(vertices, starts[1:]) if len(ring)]
        nib._lay_pieces([_piece(ring, True) for ring in rings], fill, False, FILL_RULES[0])


def _draw_text(nib: Nib, text: Text, box: Box, whole: bool, text_box: TextBox) -> None:
    corners = text_box(text) if whole else (np.array([text.x, text.y]),) * 2
    if all(_holds(box, complex(*corner)) for corner in corners):
        nib._write(text)


def _chains(outline: Outline, number: int) -> list[tuple[list[Side], bool]]:
    """The pieces of a path as sides, and whether each is closed."""
    first, stop = outline.firsts[number : number + 2].tolist()
    points = outline.vertices[first:stop] @ np.array([1, 1j])
    low, high = np.searchsorted(outline.arcs["step"], (first, stop)).tolist()
    shapes = {
        int(row["step"]) - first: (complex(row["ux"], row["uy"]), complex(row["vx"], row["vy"]), row["sweep"])
        for row in outline.arcs[low:high]
    }
    found: list[tuple[list[Side], bool]] = []
    for i, code in enumerate(outline.codes[first:stop].tolist()):
        if code == MOVE:
            found.append(([], False))
            continue
        sides, _ = found[-1]
        # The vertex that only closes an arc adds no side.
        if code != CLOSE or not sides or points[i] != points[i - 1]:
            sides.append(Side(complex(points[i - 1]), complex(points[i]), shapes.get(i)))
        found[-1] = sides, code == CLOSE
    return found


def _straight(ring: Floats) -> list[Side]:
    points = (ring @ np.array([1, 1j])).tolist()
    return [Side(a, b) for a, b in pairwise(points)]


def _cut(chain: list[Side], box: Box) -> list[list[Side]]:
    """The parts of a chain inside a box."""
    found: list[list[Side]] = []
    is_going = False
    for side in chain:
        shares = [0.0, *side.crossings(box), 1.0]
        for first, last in pairwise(shares):
            if last - first < 1e-12 or not _holds(box, side.at((first + last) / 2)):
                is_going = is_going and last - first < 1e-12
                continue
            if not is_going:
                found.append([])
            found[-1].append(side.part(first, last))
            is_going = True
    return found


def _holds(box: Box, point: complex) -> bool:
    left, bottom, right, top = box
    edge = EDGE * max(right - left, top - bottom)
    return left - edge <= point.real <= right + edge and bottom - edge <= point.imag <= top + edge


def _is_inside(chain: list[Side], box: Box) -> bool:
    """Whether all of a chain is inside a box: each end, and each side between its crossings."""
    for side in chain:
        shares = [0.0, *side.crossings(box), 1.0]
        middles = [(first + last) / 2 for first, last in pairwise(shares)]
        if not all(_holds(box, side.at(t)) for t in (*shares, *middles)):
            return False
    return True


def _piece(chain: list[Side], is_closed: bool) -> Piece:
    start = chain[0].start
    steps = b"".join(PACK_STEP(side.end.real, side.end.imag, side.heading()) for side in chain)
    arcs = [
        (i, u.real, u.imag, v.real, v.imag, sweep)
        for i, side in enumerate(chain)
        if side.shape is not None
        for u, v, sweep in [side.shape]
    ]
    return (start.real, start.imag), steps, arcs, is_closed
