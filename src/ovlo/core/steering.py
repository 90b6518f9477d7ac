"""Steering: how a nib moves, and how its moves are recorded.

    nib.forward(90)
    nib.left(120)

`forward` is called a million times in a drawing, so it does its own checking in place, as `left` does. The
direction is worked out when the nib turns, not when it moves.
"""

from __future__ import annotations

from math import fmod

from numpy.typing import ArrayLike

from ovlo.core import arguments
from ovlo.core.arguments import LARGEST
from ovlo.core.columns import STEP, Pen, Style
from ovlo.core.degrees import direction, normal
from ovlo.core.errors import BadValue
from ovlo.core.pose import Pose
from ovlo.core.table import packer
from ovlo.core.trail import Trail
from ovlo.core.turning import Turning
from ovlo.core.walking import check_walk, walked

PACK = packer(STEP)


class Steering(Turning):
    """The moves and turns of a nib; `Nib` adds the pen."""

    __slots__ = (
        "_area",
        "_contour",
        "_contour_start",
        "_is_lifted",
        "_jump_run",
        "_lowered_pen",
        "_number",
        "_record",
        "_run",
        "_style",
        "_traced_contour",
        "_trail",
    )

    def __init__(self, trail: Trail, number: int, pose: Pose, style: Style) -> None:
        super().__init__(pose)
        self._trail = trail
        self._record = trail.record
        self._number = number
        self._style = style
        self._is_lifted = False
        self._lowered_pen = Pen.DRAW
        self._area = -1
        self._run: object = None
        self._jump_run: object = None
        self._traced_contour = 0
        self.begin_contour()
        self._jump(self._x, self._y)

    # ── moving ───────────────────────────────────────────────────────────────────────────────────────

    def forward(self, distance: float) -> None:
        """Walk straight ahead, drawing unless the pen is lifted.

        Parameters
        ----------
        distance : float
            Sheet units; a negative one goes back.

        Raises
        ------
        BadValue, BadType
            When the distance is not finite or not a number; nothing has moved then.

        Examples
        --------
        >>> nib.forward(90)
        >>> nib.position
        (90.0, 0.0)
        """
        if type(distance) is not float and type(distance) is not int:
            distance = arguments.real(distance, "forward", "distance")
        if not -LARGEST < distance < LARGEST:
            arguments.real(distance, "forward", "distance")
        x = self._x + distance * self._cosine
        y = self._y + distance * self._sine
        if self._trail.writing is not self._run:
            self._start_run()
        self._record(PACK(x, y, self._heading))
        self._x = x
        self._y = y
        if self._is_lifted:
            self.begin_contour()

    def back(self, distance: float) -> None:
        """Walk straight backwards; the heading stays as it is.

        Parameters
        ----------
        distance : float
            Sheet units; a negative one goes forward.

        Examples
        --------
        >>> nib.back(90)
        >>> nib.position
        (-90.0, 0.0)
        """
        if type(distance) is not float and type(distance) is not int:
            distance = arguments.real(distance, "back", "distance")
        if not -LARGEST < distance < LARGEST:
            arguments.real(distance, "back", "distance")
        self.forward(-distance)

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

    def travel(self, distance: float) -> None:
        """Move straight ahead without drawing.

        Parameters
        ----------
        distance : float
            Sheet units; a negative one goes back.

        Examples
        --------
        >>> nib.travel(90)
        >>> nib.position
        (90.0, 0.0)
        """
        distance = arguments.real(distance, "travel", "distance")
        self._jump(self._x + distance * self._cosine, self._y + distance * self._sine)

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
        dx = arguments.real(dx, "travel_by", "dx")
        dy = arguments.real(dy, "travel_by", "dy")
        self._jump(self._x + dx, self._y + dy)

    def walk(self, distances: ArrayLike, turns: ArrayLike) -> None:
        """For each pair: forward by the distance, then left by the turn, all in one NumPy pass.

        Parameters
        ----------
        distances : array of shape (n,), or one number for all
            Sheet units.
        turns : array of shape (n,), or one number for all
            Degrees, anticlockwise.

        Raises
        ------
        BadValue, BadType
            When a number is not finite, or the two differ in length; nothing has moved then.

        Examples
        --------
        A square kite:

        >>> nib.walk([90, 90, 90, 90], 90)
        >>> nib.pose
        Pose(x=0.0, y=0.0, heading=0.0)
        """
        lengths, angles = check_walk(distances, turns)
        if not len(lengths):
            return
        if self._trail.writing is not self._run:
            self._start_run()
        for steps, pose in walked(self.pose, lengths, angles):
            self._trail.record_many(steps.tobytes())
            self._x, self._y, self._heading = pose
        self._cosine, self._sine = direction(self._heading)
        if self._is_lifted:
            self.begin_contour()

    def arc_left(self, radius: float, sweep: float) -> None:
        """Walk along a circular arc to the left, turning by the sweep.

        Parameters
        ----------
        radius : float
            Of the circle, whose centre lies to the left; sheet units, at least 0.
        sweep : float
            Degrees; a negative one goes back along the same circle.

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
        sweep = arguments.real(sweep, call, "sweep")
        if radius < 0:
            raise BadValue(
                f"{call}: radius must not be negative, not {radius:g}; use {other}({-radius:g}, …)."
            )
        heading = normal(self._heading + side * fmod(sweep, 360.0))
        cosine, sine = direction(normal(sweep))
        # u leads from the centre to the nib, v along its heading.
        u = side * radius * self._sine, -side * radius * self._cosine
        v = radius * self._cosine, radius * self._sine
        x = self._x - u[0] * (1 - cosine) + v[0] * sine
        y = self._y - u[1] * (1 - cosine) + v[1] * sine
        if sweep == 0:
            self._go(x, y)
            return
        if self._trail.writing is not self._run:
            self._start_run()
        self._trail.record_arc(PACK(x, y, heading), u, v, sweep)
        self._x, self._y = x, y
        self._set_heading(heading)
        if self._is_lifted:
            self.begin_contour()

    # ── what the moves are made of ───────────────────────────────────────────────────────────────────

    def _start_run(self) -> None:
        """Make this nib's state the one the next steps are recorded with."""
        self._run = self._begin(Pen.LIFTED if self._is_lifted else self._lowered_pen)
        if not self._is_lifted:
            self._traced_contour = self._contour

    def _begin(self, pen: Pen) -> object:
        """Begin a run of this nib where it stands."""
        return self._trail.start_run(
            self._number, self._style, pen, self._contour, self._area, self._x, self._y
        )

    def begin_contour(self) -> None:
        """From here on a new contour is walked; for Ovlo's own use."""
        self._contour = self._trail.new_contour()
        self._contour_start = self._x, self._y

    def _go(self, x: float, y: float) -> None:
        """A straight step to a point."""
        if self._trail.writing is not self._run:
            self._start_run()
        self._record(PACK(x, y, self._heading))
        self._x, self._y = x, y
        if self._is_lifted:
            self.begin_contour()

    def _jump(self, x: float, y: float) -> None:
        """A step that never draws."""
        trail = self._trail
        if trail.writing is not self._jump_run:
            self._jump_run = self._begin(Pen.JUMP)
        self._record(PACK(x, y, self._heading))
        self._x, self._y = x, y
        self.begin_contour()
