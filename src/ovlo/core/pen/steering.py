"""Steering: where a nib stands and which way it points, and how it turns and moves straight.

    nib.forward(90)
    nib.left(120)

`forward` and `left` are called a million times in a drawing, so they do their own checking in place: one type
test and one comparison, which fail for everything that is not an ordinary number and hand it to `arguments`
for a verdict. The direction is worked out when the nib turns, not when it moves. Whole turns are taken off an
angle before it is added, so that they do not cost the heading its last digits.
"""

from __future__ import annotations

from math import atan2, cos, degrees, fmod, hypot, nan, sin
from types import FunctionType
from typing import Protocol

from ovlo.core.trail.columns import DRAW, JUMP, LIFTED, PenState, Style
from ovlo.core.trail.trail import PACK_STEP, Trail
from ovlo.core.values import arguments
from ovlo.core.values.arguments import LARGEST
from ovlo.core.values.degrees import ALONG_AXES, DEGREE, direction, normal
from ovlo.core.values.errors import BadValue, UnknownName
from ovlo.core.values.pose import Pose

NEAR = LARGEST**2
"""The square of how far from the centre a nib is surely within reach."""

Contour = tuple[int, tuple[float, float], int]
"""Its number, where it began, and the last contour of which something was traced."""


class OpenBlock(Protocol):
    """What is open on a nib."""

    def _forget_marks(self) -> None: ...


class Steering:
    """All that a nib knows of itself, and its turns and straight moves. Everything else adds to it."""

    def __init_subclass__(cls) -> None:
        """Let Python's own messages speak of `nib.forward()`, not of the class it is written in."""
        for name, value in vars(cls).items():
            if isinstance(value, FunctionType):
                value.__qualname__ = f"nib.{name}"

    __slots__ = (
        "_area",
        "_blocks",
        "_contour",
        "_contour_start",
        "_cosine",
        "_heading",
        "_is_lifted",
        "_jump_run",
        "_lowered_pen",
        "_number",
        "_record",
        "_run",
        "_sine",
        "_style",
        "_text_size",
        "_traced_contour",
        "_trail",
        "_x",
        "_y",
    )

    _traced_contour: int

    def __init__(self, trail: Trail, number: int, pose: Pose, style: Style) -> None:
        self._x, self._y, self._heading = pose
        self._cosine, self._sine = direction(pose.heading)
        self._trail = trail
        self._number = number
        self._style = style
        # 16 px where a line is 2 px wide, so the same physical size on a sheet in mm.
        self._text_size = 8 * style.line_width
        self._is_lifted = False
        self._blocks: list[OpenBlock] = []
        self._begin_trail()
        self._jump(self._x, self._y)

    # ── where it is ─────────────────────────────────────────────────────────────────────────────────────────

    @property
    def position(self) -> tuple[float, float]:
        """The position of the nib: (x, y) in sheet units from the centre, y up."""
        return self._x, self._y

    @position.setter
    def position(self, value: object) -> None:
        raise UnknownName(
            "position is read-only; travel_to(x, y) moves there, line_to(x, y) draws a line to it."
        )

    @property
    def heading(self) -> float:
        """The direction the nib points in: degrees in [0, 360), 0 east, increasing anticlockwise."""
        return self._heading

    @heading.setter
    def heading(self, value: object) -> None:
        raise UnknownName(f"heading is read-only; turn_to({arguments.brief(value)}) sets it.")

    @property
    def pose(self) -> Pose:
        """Position and heading together, as a `Pose`."""
        return Pose(self._x, self._y, self._heading)

    def distance_to(self, x: float | tuple[float, float], y: float | None = None) -> float:
        """Return the distance to a point, in sheet units.

        Parameters
        ----------
        x, y : float
            The point, or one (x, y) pair.

        Examples
        --------
        >>> nib.distance_to(30, 40)
        50.0
        """
        x, y = arguments.point(x, y, "distance_to")
        return hypot(x - self._x, y - self._y)

    def heading_to(self, x: float | tuple[float, float], y: float | None = None) -> float:
        """Return the heading towards a point, in degrees in [0, 360).

        If the nib is on the point, return the nib's own heading.

        Parameters
        ----------
        x, y : float
            The point, or one (x, y) pair.

        Examples
        --------
        >>> nib.heading_to(-50, 0)
        180.0
        """
        x, y = arguments.point(x, y, "heading_to")
        dx, dy = x - self._x, y - self._y
        return normal(degrees(atan2(dy, dx))) if dx or dy else self._heading

    # ── turning ─────────────────────────────────────────────────────────────────────────────────────────────

    def left(self, angle: float) -> None:
        """Turn anticlockwise on the spot.

        Parameters
        ----------
        angle : float
            Degrees; a negative angle turns right.

        Raises
        ------
        BadValue, BadType
            If the angle is not a finite number; the nib has not turned then.

        Examples
        --------
        >>> nib.left(120)
        >>> nib.heading
        120.0
        """
        if type(angle) is not float and type(angle) is not int:
            angle = arguments.angle(angle, "left", "angle")
        if not -360.0 < angle < 360.0:
            angle = fmod(arguments.angle(angle, "left", "angle"), 360.0)
        heading = (self._heading + angle) % 360.0
        if heading % 90.0:
            self._cosine = cos(heading * DEGREE)
            self._sine = sin(heading * DEGREE)
        else:
            if heading == 360.0:  # a tiny angle below 0, rounded up
                heading = 0.0
            self._cosine, self._sine = ALONG_AXES[heading]
        self._heading = heading

    def right(self, angle: float) -> None:
        """Turn clockwise on the spot.

        Parameters
        ----------
        angle : float
            Degrees; a negative angle turns left.

        Examples
        --------
        >>> nib.right(90)
        >>> nib.heading
        270.0
        """
        if type(angle) is not float and type(angle) is not int:
            angle = arguments.angle(angle, "right", "angle")
        if not -360.0 < angle < 360.0:
            angle = fmod(arguments.angle(angle, "right", "angle"), 360.0)
        self.left(-angle)

    def turn_to(self, heading: float) -> None:
        """Turn to a heading, whatever it was before.

        Parameters
        ----------
        heading : float
            Degrees, 0 east, increasing anticlockwise.

        Examples
        --------
        >>> nib.turn_to(-90)
        >>> nib.heading
        270.0
        """
        self._set_heading(normal(arguments.angle(heading, "turn_to", "heading")))

    def aim_at(self, x: float | tuple[float, float], y: float | None = None) -> None:
        """Turn towards a point; if the nib is on the point, the heading stays as it is.

        Parameters
        ----------
        x, y : float
            The point in sheet units, or one (x, y) pair.

        Examples
        --------
        >>> nib.aim_at(0, 300)
        >>> nib.heading
        90.0
        """
        self._set_heading(self.heading_to(*arguments.point(x, y, "aim_at")))

    # ── moving ──────────────────────────────────────────────────────────────────────────────────────────────

    def forward(self, distance: float) -> None:
        """Walk straight ahead, drawing unless the pen is lifted.

        Parameters
        ----------
        distance : float
            Sheet units; a negative distance goes back.

        Raises
        ------
        BadValue, BadType
            If the distance is not a finite number; nothing has moved then.

        Examples
        --------
        >>> nib.forward(90)
        >>> nib.position
        (90.0, 0.0)
        """
        if type(distance) is not float and type(distance) is not int:
            distance = arguments.real(distance, "forward", "distance")
        try:
            x = self._x + distance * self._cosine
            y = self._y + distance * self._sine
        except OverflowError:  # a whole number beyond all floats
            x = y = nan
        if not x * x + y * y < NEAR:
            # The nib is far out, or the distance is not finite; four comparisons would take twice as long.
            arguments.real(distance, "forward", "distance")
            arguments.within_reach(x, y, "forward")
        if self._trail.writing is not self._run:
            self._start_run()
        self._record(PACK_STEP(x, y, self._heading))
        self._x = x
        self._y = y
        if self._is_lifted:
            self._begin_contour()

    def back(self, distance: float) -> None:
        """Walk straight backwards; the heading stays as it is.

        Parameters
        ----------
        distance : float
            Sheet units; a negative distance goes forward.

        Examples
        --------
        >>> nib.back(90)
        >>> nib.position
        (-90.0, 0.0)
        """
        if type(distance) is not float and type(distance) is not int:
            distance = arguments.real(distance, "back", "distance")
        try:
            self.forward(-distance)
        except BadValue:
            distance = arguments.real(distance, "back", "distance")
            self._place_by(-distance * self._cosine, -distance * self._sine, "back")
            raise

    # ── what the moves are made of ──────────────────────────────────────────────────────────────────────────

    def _begin_trail(self) -> None:
        """Begin to record on a trail that is empty, with no contour and no area begun."""
        self._record = self._trail.record
        self._area = -1
        self._lowered_pen = DRAW
        self._run: object = None
        self._jump_run: object = None
        self._traced_contour = 0
        self._begin_contour()

    def _place_by(self, dx: float, dy: float, call: str) -> tuple[float, float]:
        """The place a distance east and north of here."""
        x = self._x + arguments.real(dx, call, "dx")
        y = self._y + arguments.real(dy, call, "dy")
        arguments.within_reach(x, y, call)
        return x, y

    def _set_heading(self, heading: float) -> None:
        self._heading = heading
        self._cosine, self._sine = direction(heading)

    def _start_run(self) -> None:
        """Make this nib's state the one the next steps are recorded with."""
        self._run = self._begin(LIFTED if self._is_lifted else self._lowered_pen)
        if not self._is_lifted:
            self._traced_contour = self._contour

    def _begin(self, pen: PenState) -> object:
        """Begin a run of this nib where it stands."""
        return self._trail.start_run(
            self._number, self._style, pen, self._contour, self._area, self._x, self._y
        )

    def _begin_contour(self) -> None:
        """From here on a new contour is walked."""
        trail = self._trail
        trail.contours = self._contour = trail.contours + 1
        self._contour_start = self._x, self._y

    def _go(self, x: float, y: float) -> None:
        """A straight step to a point."""
        if self._trail.writing is not self._run:
            self._start_run()
        self._record(PACK_STEP(x, y, self._heading))
        self._x, self._y = x, y
        if self._is_lifted:
            self._begin_contour()

    def _jump(self, x: float, y: float) -> None:
        """A step that never draws."""
        trail = self._trail
        if trail.writing is not self._jump_run:
            self._jump_run = self._begin(JUMP)
        self._record(PACK_STEP(x, y, self._heading))
        self._x, self._y = x, y
        self._begin_contour()


# What `__init_subclass__` does for those who add to it.
Steering.__init_subclass__.__func__(Steering)  # type: ignore[attr-defined]
