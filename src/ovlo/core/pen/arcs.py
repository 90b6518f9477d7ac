"""Arcs: a nib walks along a circle and turns with it.

nib.arc_left(50, 90)
"""

from __future__ import annotations

from math import fmod

from ovlo.core.pen.steering import Steering
from ovlo.core.trail.trail import PACK_STEP
from ovlo.core.values import arguments
from ovlo.core.values.degrees import direction, normal
from ovlo.core.values.errors import BadValue

MOST_SWEEP = 360_000


class Arcs(Steering):
    """The circular arcs of a nib."""

    __slots__ = ()

    def arc_left(self, radius: float, sweep: float) -> None:
        """Walk along a circular arc to the left, turning by the sweep.

        Parameters
        ----------
        radius : float
            Of the circle, whose centre lies to the left; sheet units, at least 0.
        sweep : float
            Degrees, at most 360,000; a negative one goes back along the same circle.

        Raises
        ------
        BadValue, BadType
            When a number is not finite, or the radius is negative; nothing has moved then.

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
            Of the circle, whose centre lies to the right; sheet units, at least 0.
        sweep : float
            Degrees; a negative one goes back along the same circle.

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
                f"{call}: radius must not be negative, not {radius:g}; use {other}({-radius:g}, …)."
            )
        if abs(sweep) > MOST_SWEEP:
            raise BadValue(
                f"{call}: sweep must be at most {MOST_SWEEP:,} ({MOST_SWEEP // 360:,} rounds), not {sweep:g}."
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
