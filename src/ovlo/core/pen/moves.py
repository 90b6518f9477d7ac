"""Moves beside forward and back: lines to a point, travels that never draw, arcs, and walks over arrays.

nib.travel_to(-200, 40)
nib.polyline([(0, 90), (90, 90), (90, 0)])
nib.arc_left(50, 90)
"""

from __future__ import annotations

from collections.abc import Iterable
from math import fmod

from numpy.typing import ArrayLike

from ovlo.core.pen.steering import Steering
from ovlo.core.pen.walk import check_walk, check_walk_reach, walked
from ovlo.core.trail.trail import PACK_STEP
from ovlo.core.values import arguments
from ovlo.core.values.degrees import direction, normal
from ovlo.core.values.errors import BadValue

MOST_SWEEP = 360_000


class Moves(Steering):
    """The moves of a nib that do not simply follow its heading."""

    __slots__ = ()

    # ── lines to a point ────────────────────────────────────────────────────────────────────────────────────

    def line_to(self, x: float | tuple[float, float], y: float | None = None) -> None:
        """Go straight to a point, drawing unless the pen is lifted; the heading stays as it is.

        Parameters
        ----------
        x, y : float
            The point in sheet units, or one (x, y) pair.

        Examples
        --------
        >>> nib.line_to(60, 80)
        >>> nib.pose
        Pose(x=60.0, y=80.0, heading=0.0)
        """
        self._go(*arguments.point(x, y, "line_to"))

    def line_by(self, dx: float, dy: float) -> None:
        """Go straight by a distance east and a distance north, drawing unless the pen is lifted.

        The heading stays as it is.

        Parameters
        ----------
        dx, dy : float
            Sheet units.

        Examples
        --------
        >>> nib.line_by(30, 40)
        >>> nib.pose
        Pose(x=30.0, y=40.0, heading=0.0)
        """
        self._go(*self._place_by(dx, dy, "line_by"))

    def polyline(self, points: Iterable[tuple[float, float]]) -> None:
        """Go straight to each point in turn, as `line_to` does; the heading stays as it is.

        Inside `area` the points bound the area, which is closed automatically.

        Parameters
        ----------
        points : iterable of (x, y)
            Sheet units; an array of shape (n, 2) is accepted too.

        Raises
        ------
        BadValue, BadType
            If a point is not a pair of finite numbers; nothing has moved then.

        Examples
        --------
        A sail:

        >>> with nib.area("ivory"):
        ...     nib.polyline([(0, 90), (60, 0), (0, 0)])
        >>> nib.position
        (0.0, 0.0)
        """
        fix = "as in [(0, 90), (60, 0)]"
        if to_list := arguments.method(points, "tolist"):  # an array: plain numbers are faster
            points = to_list()
        for x, y in [
            arguments.point(pair, None, "polyline")
            for pair in arguments.listed(points, "polyline", "points", fix)
        ]:
            self._go(x, y)

    def line_to_start(self) -> None:
        """Go straight back to the start of this contour and join the line there; the heading stays as it is.

        A contour begins where the nib was made, at a travel or a lifted move, at `lower`, and on entering
        `area` or `returning`. The corner is joined as SVG's `Z` joins it.
        If the contour has no line yet, nothing happens.

        Examples
        --------
        Half a kite, closed:

        >>> nib.forward(60)
        >>> nib.left(120)
        >>> nib.forward(60)
        >>> nib.line_to_start()
        >>> nib.position
        (0.0, 0.0)
        """
        if self._is_lifted or self._traced_contour != self._contour:
            return
        self._go(*self._contour_start)
        self._trail.close_contour()
        # Nothing is traced since, so that closing again does nothing.
        self._traced_contour = 0
        self._trail.interrupt()

    # ── travels ─────────────────────────────────────────────────────────────────────────────────────────────

    def travel(self, distance: float) -> None:
        """Move straight ahead without drawing.

        Parameters
        ----------
        distance : float
            Sheet units; a negative distance moves back.

        Examples
        --------
        >>> nib.travel(90)
        >>> nib.position
        (90.0, 0.0)
        """
        distance = arguments.real(distance, "travel", "distance")
        self._jump(*self._place_by(distance * self._cosine, distance * self._sine, "travel"))

    def travel_to(self, x: float | tuple[float, float], y: float | None = None) -> None:
        """Move to a point without drawing; the heading stays as it is.

        Parameters
        ----------
        x, y : float
            The point in sheet units, or one (x, y) pair.

        Examples
        --------
        >>> nib.travel_to(-200, 40)
        >>> nib.position
        (-200.0, 40.0)
        """
        self._jump(*arguments.point(x, y, "travel_to"))

    def travel_by(self, dx: float, dy: float) -> None:
        """Move by a distance east and a distance north without drawing, whatever the heading.

        Parameters
        ----------
        dx, dy : float
            Sheet units.

        Examples
        --------
        >>> nib.travel_by(0, 25)
        >>> nib.position
        (0.0, 25.0)
        """
        self._jump(*self._place_by(dx, dy, "travel_by"))

    # ── arcs ────────────────────────────────────────────────────────────────────────────────────────────────

    def arc_left(self, radius: float, sweep: float) -> None:
        """Walk along a circular arc to the left, turning by the sweep.

        Parameters
        ----------
        radius : float
            Radius of the circle, whose centre lies to the left; sheet units, 0 or more.
        sweep : float
            Degrees, at most 360,000; a negative sweep goes back along the same circle.

        Raises
        ------
        BadValue, BadType
            If a number is not finite, or the radius is negative; nothing has moved then.

        Notes
        -----
        With d the direction and n the normal to the left, the arc ends at
        start + radius·(sin(sweep)·d + (1 - cos(sweep))·n), which is the start itself after a full turn.

        Examples
        --------
        A quarter of a circle:

        >>> nib.arc_left(50, 90)
        >>> nib.pose
        Pose(x=50.0, y=50.0, heading=90.0)
        """
        self._arc("arc_left", "arc_right", radius, sweep, 1.0)

    def arc_right(self, radius: float, sweep: float) -> None:
        """Walk along a circular arc to the right, turning by the sweep.

        Parameters
        ----------
        radius : float
            Radius of the circle, whose centre lies to the right; sheet units, 0 or more.
        sweep : float
            Degrees, at most 360,000; a negative sweep goes back along the same circle.

        Examples
        --------
        Half a circle:

        >>> nib.arc_right(50, 180)
        >>> nib.pose
        Pose(x=0.0, y=-100.0, heading=180.0)
        """
        self._arc("arc_right", "arc_left", radius, sweep, -1.0)

    def _arc(self, call: str, other: str, radius: float, sweep: float, side: float) -> None:
        radius = arguments.real(radius, call, "radius")
        sweep = arguments.angle(sweep, call, "sweep")
        if radius < 0:
            raise BadValue(
                f"{call}: radius must be 0 or more, but is {radius:g}; use {other}({-radius:g}, …)."
            )
        if abs(sweep) > MOST_SWEEP:
            raise BadValue(
                f"{call}: sweep must be at most {MOST_SWEEP:,} ({MOST_SWEEP // 360:,} rounds), but is "
                f"{sweep:g}."
            )
        heading = normal(self._heading + side * fmod(sweep, 360.0))
        cosine, sine = direction(normal(sweep))
        # u leads from the centre to the nib, v along its heading.
        u = side * radius * self._sine, -side * radius * self._cosine
        v = radius * self._cosine, radius * self._sine
        x = self._x - u[0] * (1 - cosine) + v[0] * sine
        y = self._y - u[1] * (1 - cosine) + v[1] * sine
        arguments.within_reach(x, y, call)
        if sweep == 0:
            self._go(x, y)
            return
        if self._trail.writing is not self._run:
            self._start_run()
        self._trail.record_arc(PACK_STEP(x, y, heading), u, v, sweep)
        self._x, self._y = x, y
        self._set_heading(heading)
        if self._is_lifted:
            self._begin_contour()

    # ── arrays ──────────────────────────────────────────────────────────────────────────────────────────────

    def walk(self, distances: ArrayLike, angles: ArrayLike) -> None:
        """For each pair, go forward by the distance, then turn left by the angle, all in one NumPy pass.

        Parameters
        ----------
        distances : array of shape (n,), or one number for all
            Sheet units.
        angles : array of shape (n,), or one number for all
            Degrees, anticlockwise.

        Raises
        ------
        BadValue, BadType
            If a number is not finite, or the two differ in length; nothing has moved then.

        Examples
        --------
        A square kite:

        >>> nib.walk([90, 90, 90, 90], 90)
        >>> nib.pose
        Pose(x=0.0, y=0.0, heading=0.0)
        """
        lengths, turns = check_walk(distances, angles)
        if not len(lengths):
            return
        check_walk_reach(self.pose, lengths, turns)
        if self._trail.writing is not self._run:
            self._start_run()
        for steps, pose in walked(self.pose, lengths, turns):
            self._trail.record_many(steps.tobytes())
            self._x, self._y, self._heading = pose
        self._cosine, self._sine = direction(self._heading)
        if self._is_lifted:
            self._begin_contour()
