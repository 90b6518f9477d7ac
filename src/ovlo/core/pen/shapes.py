"""Shapes centred on the nib, which stays where it is.

    nib.circle(40, fill="gold")
    nib.star(5, 60, turn=90)

Each shape becomes steps of the trail: a jump to where it begins, then its sides or arcs, as a contour of its
own. Corners are those of regular polygons and star polygons (Coxeter, Regular Polytopes, 2.8).
"""

from __future__ import annotations

import warnings
from array import array
from collections.abc import Sequence
from functools import lru_cache
from math import atan2, degrees, gcd, pi, sin
from typing import get_args

import numpy as np

from ovlo.core.pen.spirals import piece_count, spiral_arcs
from ovlo.core.pen.steering import Steering
from ovlo.core.trail.columns import DRAW, FILL_RULES, TRACE, PenState
from ovlo.core.trail.trail import PACK_STEP, Piece
from ovlo.core.values import arguments, colour
from ovlo.core.values.choices import Anchor, FillRule, Growth
from ovlo.core.values.colour import Colour
from ovlo.core.values.degrees import direction, normal
from ovlo.core.values.errors import BadValue, NoEffect

Point = tuple[float, float]
Fill = str | Colour | None

LEAST_ROUNDS, MOST_ROUNDS = 1e-6, 100_000
"""The limits of a spiral's rounds."""

ANCHORS = get_args(Anchor)

KEPT = 100
"""Rings of at most this many corners are cached: small shapes are drawn by the hundred in one heading."""


def ring(heading: float, count: int, every: int) -> tuple[tuple[float, float, float], ...]:
    """The sides of a ring around a point through corners at equal angles, every so many of them in turn.

    Returns
    -------
    tuple of (cosine, sine, heading)
        Where each side ends, seen from the centre, and its heading; the last ends in the given one.
    """
    # A side is at right angles to the way to its middle, which is half a turn of the ring before its end.
    side = 90 - 180 * every / count
    # Whole numbers keep the angles of a square or hexagon exact.
    angles = (360 * every * i % (360 * count) / count for i in range(1, count + 1))
    corners = ((heading + angle) % 360.0 for angle in angles)
    return tuple((*direction(corner), (corner + side) % 360.0) for corner in corners)


kept_ring = lru_cache(maxsize=64)(ring)


class Shapes(Steering):
    """The centred shapes of a nib."""

    __slots__ = ()

    def circle(
        self,
        radius: float,
        *,
        turn: float = 0,
        fill: Fill = None,
        outline: bool = True,
        fill_rule: FillRule = "nonzero",
    ) -> None:
        """Draw a circle around the nib, which stays where it is.

        Parameters
        ----------
        radius : float
            Sheet units, 0 or more.
        turn : float
            Degrees; where on the circle the line begins, counted from straight ahead.
        fill : str or Colour, optional
            The colour of the area inside.
        outline : bool
            Whether to draw the line.
        fill_rule : "nonzero" or "evenodd"
            What counts as inside, as in SVG's `fill-rule`.

        Raises
        ------
        BadValue, BadType
            If the radius is negative or not finite, or the colour is unknown; nothing is drawn then.

        Examples
        --------
        >>> nib.circle(40, fill="gold")
        >>> nib.position
        (0.0, 0.0)
        """
        radius = arguments.not_negative(radius, "circle", "radius")
        self._lay("circle", self._oval("circle", radius, radius, turn), fill, outline, fill_rule)

    def ellipse(
        self,
        width: float,
        height: float,
        *,
        turn: float = 0,
        fill: Fill = None,
        outline: bool = True,
        fill_rule: FillRule = "nonzero",
    ) -> None:
        """Draw an ellipse around the nib, its width along the heading.

        Parameters
        ----------
        width, height : float
            Sheet units along the heading and across it, 0 or more.
        turn : float
            Degrees added to the heading.
        fill, outline, fill_rule
            As for `circle`.

        Examples
        --------
        >>> nib.ellipse(120, 60, turn=30)
        >>> nib.pose
        Pose(x=0.0, y=0.0, heading=0.0)
        """
        width = arguments.not_negative(width, "ellipse", "width") / 2
        height = arguments.not_negative(height, "ellipse", "height") / 2
        self._lay("ellipse", self._oval("ellipse", width, height, turn), fill, outline, fill_rule)

    def polygon(
        self,
        sides: int,
        *,
        radius: float | None = None,
        side_length: float | None = None,
        turn: float = 0,
        fill: Fill = None,
        outline: bool = True,
        fill_rule: FillRule = "nonzero",
    ) -> None:
        """Draw a regular polygon around the nib, with a corner straight ahead.

        Give either `radius` or `side_length`.

        Parameters
        ----------
        sides : int
            3 or more.
        radius : float
            From the centre to a corner (the circumradius), in sheet units.
        side_length : float
            The length of a side, in sheet units.
        turn : float
            Degrees added to the heading.
        fill, outline, fill_rule
            As for `circle`.

        Raises
        ------
        BadValue, BadType
            If `sides` is not a whole number of 3 or more, or if both or neither of radius and side length
            are given; nothing is drawn then.

        Notes
        -----
        side length = 2 · radius · sin(180° / sides)

        Examples
        --------
        A kite with its corner upwards:

        >>> nib.polygon(4, radius=60, turn=90, fill="tomato")
        """
        sides = arguments.whole(sides, "polygon", "sides", least=3)
        self._foresee(sides, "polygon", "sides")
        if (radius is None) == (side_length is None):
            raise BadValue(
                "polygon: give either radius=… (centre to corner) or side_length=…, "
                f"not {'neither' if radius is None else 'both'}."
            )
        if radius is None:
            length = arguments.not_negative(side_length, "polygon", "side_length")
            radius = length / (2 * sin(pi / sides))
            arguments.within_reach(radius, 0, "polygon")
        else:
            radius = arguments.not_negative(radius, "polygon", "radius")
        heading, _, _ = self._turned("polygon", turn)
        self._lay("polygon", (self._regular(radius, heading, sides, 1),), fill, outline, fill_rule)

    def star(
        self,
        points: int,
        radius: float,
        every: int = 2,
        *,
        inner_radius: float | None = None,
        turn: float = 0,
        fill: Fill = None,
        outline: bool = True,
        fill_rule: FillRule = "nonzero",
    ) -> None:
        """Draw a star around the nib, with a point straight ahead.

        Parameters
        ----------
        points : int
            3 or more.
        radius : float
            From the centre to a point, in sheet units.
        every : int
            Join each point with the one `every` further on: the star polygon {points/every}. It must be
            less than half of `points`. If the two share a factor, the star has several closed parts.
        inner_radius : float, optional
            Replaces `every`: the distance from the centre to the corners between the points. Only the outer
            edge is drawn then.
        turn : float
            Degrees added to the heading.
        fill, outline, fill_rule
            As for `circle`; with "evenodd" the middle of a star polygon stays empty.

        Raises
        ------
        BadValue, BadType
            If there is no such star; nothing is drawn then.

        Examples
        --------
        >>> nib.star(5, 60, turn=90, fill="gold")
        >>> nib.star(8, 60, inner_radius=25)
        """
        points = arguments.whole(points, "star", "points", least=3)
        self._foresee(points if inner_radius is None else 2 * points, "star", "corners")
        radius = arguments.not_negative(radius, "star", "radius")
        every = arguments.whole(every, "star", "every", least=1)
        heading, _, _ = self._turned("star", turn)
        if inner_radius is not None:
            if every != 2:
                raise BadValue("star: give either every=… or inner_radius=…, not both.")
            inner_radius = arguments.not_negative(inner_radius, "star", "inner_radius")
            outer_corners = self._corners(radius, heading, points)
            inner_corners = self._corners(inner_radius, normal(heading + 180 / points), points)
            pairs = zip(outer_corners, inner_corners, strict=True)
            rings = [_ring([corner for pair in pairs for corner in pair])]
        else:
            if 2 * every >= points:
                raise BadValue(
                    f"star: every must be less than half of the points ({points / 2:g}), but is {every}; "
                    "use more points, or inner_radius=… instead."
                )
            parts = gcd(points, every)
            rings = [
                self._regular(radius, normal(heading + 360 * part / points), points // parts, every // parts)
                for part in range(parts)
            ]
        self._lay("star", rings, fill, outline, fill_rule)

    def rectangle(
        self,
        width: float,
        height: float,
        *,
        anchor: Anchor = "centre",
        turn: float = 0,
        fill: Fill = None,
        outline: bool = True,
        fill_rule: FillRule = "nonzero",
    ) -> None:
        """Draw a rectangle at the nib, its width along the heading.

        Parameters
        ----------
        width, height : float
            Sheet units along the heading and across it, 0 or more.
        anchor : "centre" or "corner"
            What lies at the nib: the centre, or the corner from which the rectangle extends ahead and to the
            left.
        turn : float
            Degrees added to the heading.
        fill, outline, fill_rule
            As for `circle`.

        Examples
        --------
        >>> nib.rectangle(200, 80, fill="navy", outline=False)

        A tower that stands on the nib:

        >>> nib.travel_to(0, -100)
        >>> nib.rectangle(20, 60, anchor="corner")
        """
        width = arguments.not_negative(width, "rectangle", "width")
        height = arguments.not_negative(height, "rectangle", "height")
        if anchor is not ANCHORS[0]:
            anchor = arguments.choice(anchor, "rectangle", "anchor", ANCHORS)
        _, cosine, sine = self._turned("rectangle", turn)
        if anchor == "centre":
            i, j = width / 2, height / 2
            corners = (i, j), (-i, j), (-i, -j), (i, -j)
        else:
            corners = (0.0, 0.0), (width, 0.0), (width, height), (0.0, height)
        x, y = self._x, self._y
        ring = _ring([(x + i * cosine - j * sine, y + i * sine + j * cosine) for i, j in corners])
        self._lay("rectangle", (ring,), fill, outline, fill_rule)

    def spiral(
        self,
        rounds: float,
        radius: float,
        inner_radius: float = 0,
        growth: Growth = "linear",
        *,
        turn: float = 0,
    ) -> None:
        """Draw a spiral around the nib, from its inner end, straight ahead of the nib, outwards.

        Parameters
        ----------
        rounds : float
            How many times it goes round; a negative number goes clockwise.
        radius : float
            The distance of its outer end from the centre, in sheet units.
        inner_radius : float
            The distance of its inner end, at most `radius`; above 0 for exponential growth.
        growth : "linear" or "exponential"
            Whether each round adds the same amount to the distance (the spiral of Archimedes,
            r = inner_radius + c·angle) or multiplies it by the same factor (the logarithmic spiral,
            r = inner_radius·exp(c·angle)).
        turn : float
            Degrees added to the heading.

        Raises
        ------
        BadValue, BadType
            If there is no such spiral; nothing is drawn then.

        Examples
        --------
        >>> nib.spiral(4, 80)
        >>> nib.spiral(-3, 80, inner_radius=2, growth="exponential")
        """
        rounds = arguments.real(rounds, "spiral", "rounds")
        radius = arguments.not_negative(radius, "spiral", "radius")
        inner_radius = arguments.not_negative(inner_radius, "spiral", "inner_radius")
        growth = arguments.choice(growth, "spiral", "growth", get_args(Growth))
        heading, _, _ = self._turned("spiral", turn)
        if not LEAST_ROUNDS <= abs(rounds) <= MOST_ROUNDS:
            raise BadValue(
                f"spiral: rounds must be from {LEAST_ROUNDS:g} to {MOST_ROUNDS:,} in either direction, "
                f"but is {rounds:g}."
            )
        if inner_radius > radius:
            raise BadValue(
                f"spiral: inner_radius ({inner_radius:g}) must be at most radius ({radius:g}); swap them."
            )
        if growth == "exponential" and inner_radius == 0:
            raise BadValue("spiral: exponential growth cannot begin at 0; give inner_radius=… above 0.")
        if radius > 0:
            self._foresee(piece_count(rounds, radius, inner_radius, growth), "spiral", "pieces")
            start, steps, arcs = spiral_arcs(rounds, radius, inner_radius, growth, heading)
            centre = np.array(self.position)
            steps[:, :2] += centre
            begin = float(start[0] + centre[0]), float(start[1] + centre[1])
            piece = begin, steps.tobytes(), arcs.tolist(), False
            self._lay("spiral", [piece], None, True, "nonzero")

    # ── what the shapes are made of ───────────────────────────────────────────────────────────────────────

    def _foresee(self, count: int, call: str, what: str) -> None:
        """Refuse so many parts, or stop a program that may not draw so many, before they are worked out."""
        arguments.at_most(count, call, what)
        if not self._is_lifted:
            self._trail.foresee(count)

    def _lay(self, call: str, pieces: Sequence[Piece], fill: Fill, outline: bool, fill_rule: str) -> None:
        """Check how a shape is to look, and record it."""
        if fill_rule is not FILL_RULES[0]:
            fill_rule = arguments.choice(fill_rule, call, "fill_rule", FILL_RULES)
        if outline is not True:
            outline = arguments.truth(outline, call, "outline")
        if self._is_lifted:
            self._trail.leave_out(call, self._x, self._y)
        elif fill is None and not outline and self._area < 0:
            words = f"{call}: a shape with neither an outline nor a fill leaves no mark; add fill=…"
            warnings.warn(NoEffect(words), stacklevel=3)
        self._lay_pieces(pieces, None if fill is None else colour.parse(fill, call), outline, fill_rule)

    def _lay_pieces(
        self, pieces: Sequence[Piece], fill: Colour | None, outline: bool, fill_rule: str
    ) -> None:
        """Record the pieces of a shape wherever they lie."""
        if self._is_lifted or not pieces:
            return
        pen = DRAW if outline and self._lowered_pen is DRAW else TRACE
        if fill is None:
            self._record_pieces(pieces, pen, self._area)
            return
        area = self._trail.open_area(fill, fill_rule)
        try:
            self._record_pieces(pieces, pen, area)
        finally:
            self._trail.end_area(area)

    def _record_pieces(self, pieces: Sequence[Piece], pen: PenState, area: int) -> None:
        """Record pieces in an area, or in none below 0."""
        trail = self._trail
        before = None if trail.writing is self._jump_run else (self._contour, self._x, self._y)
        for piece in pieces:
            before = trail.record_piece(
                self._number, self._style, pen, self._area, area, before, self._heading, piece
            )
        if len(pieces) > 1:
            trail.as_one(len(pieces))

    def _oval(self, call: str, width: float, height: float, turn: float) -> Sequence[Piece]:
        """An ellipse of half a width and half a height; nothing where it has neither."""
        heading, cosine, sine = self._turned(call, turn)
        ux, uy, vx, vy = cosine * width, sine * width, -sine * height, cosine * height
        x, y = self._x + ux, self._y + uy
        piece = (x, y), PACK_STEP(x, y, (heading + 90.0) % 360.0), ((0, ux, uy, vx, vy, 360.0),), True
        return (piece,) if width or height else ()

    def _turned(self, call: str, turn: float) -> tuple[float, float, float]:
        """A heading turned further, and its cosine and sine."""
        if type(turn) is int and turn == 0:
            return self._heading, self._cosine, self._sine
        heading = normal(self._heading + arguments.angle(turn, call, "turn"))
        return heading, *direction(heading)

    def _corners(self, radius: float, heading: float, count: int) -> list[Point]:
        """Corners at equal angles around the nib."""
        *others, first = ring(heading, count, 1)
        return [(self._x + radius * cosine, self._y + radius * sine) for cosine, sine, _ in (first, *others)]

    def _regular(self, radius: float, heading: float, count: int, every: int) -> Piece:
        """A ring through corners at equal angles around the nib, every so many of them in turn."""
        x, y = self._x, self._y
        sides = (kept_ring if count <= KEPT else ring)(heading, count, every)
        steps: list[float] = []
        for cosine, sine, side in sides:
            steps += x + radius * cosine, y + radius * sine, side
        return (steps[-3], steps[-2]), array("d", steps).tobytes(), (), True


def _ring(corners: Sequence[Point]) -> Piece:
    """Straight sides from corner to corner, and back to the first."""
    steps: list[float] = []
    x0, y0 = corners[0]
    for x, y in (*corners[1:], corners[0]):
        steps += x, y, normal(degrees(atan2(y - y0, x - x0)))
        x0, y0 = x, y
    return corners[0], array("d", steps).tobytes(), (), True
