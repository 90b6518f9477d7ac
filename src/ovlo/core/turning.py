"""Turning: where a nib stands, which way it points, and how it comes to point elsewhere.

    nib.left(120)
    nib.face(0, 300)

`left` and `right` are called a million times in a drawing, so they do their own checking in place: one type
test and one comparison, which fail for everything that is not an ordinary number and hand it to `arguments`
for a verdict. Whole turns are taken off an angle before it is added, so that they do not cost the heading its
last digits.
"""

from __future__ import annotations

from math import atan2, cos, degrees, fmod, hypot, sin

from ovlo.core import arguments
from ovlo.core.degrees import ALONG_AXES, DEGREE, direction, normal
from ovlo.core.pose import Pose


class Turning:
    """The pose of a nib, and its turns."""

    __slots__ = ("_cosine", "_heading", "_sine", "_x", "_y")

    def __init__(self, pose: Pose) -> None:
        self._x, self._y, self._heading = pose
        self._cosine, self._sine = direction(pose.heading)

    @property
    def position(self) -> tuple[float, float]:
        """Where the nib stands: (x, y) in sheet units from the centre, y up."""
        return self._x, self._y

    @property
    def heading(self) -> float:
        """Which way the nib points: degrees in [0, 360), 0 east, growing anticlockwise."""
        return self._heading

    @property
    def pose(self) -> Pose:
        """Position and heading together."""
        return Pose(self._x, self._y, self._heading)

    def distance_to(self, x: float | tuple[float, float], y: float | None = None) -> float:
        """How far away a point is, in sheet units.

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
        """The heading in which a point lies, in degrees in [0, 360).

        For the very point the nib stands on it is the nib's own heading.

        Examples
        --------
        >>> nib.heading_to(-50, 0)
        180.0
        """
        x, y = arguments.point(x, y, "heading_to")
        dx, dy = x - self._x, y - self._y
        return normal(degrees(atan2(dy, dx))) if dx or dy else self._heading

    def left(self, angle: float) -> None:
        """Turn anticlockwise on the spot.

        Parameters
        ----------
        angle : float
            Degrees; a negative one turns right.

        Raises
        ------
        BadValue, BadType
            When the angle is not finite or not a number; nothing has turned then.

        Examples
        --------
        >>> nib.left(120)
        >>> nib.heading
        120.0
        """
        if type(angle) is not float and type(angle) is not int:
            angle = arguments.real(angle, "left", "angle")
        if not -360.0 < angle < 360.0:
            angle = fmod(arguments.real(angle, "left", "angle"), 360.0)
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
            Degrees; a negative one turns left.

        Examples
        --------
        >>> nib.right(90)
        >>> nib.heading
        270.0
        """
        if type(angle) is not float and type(angle) is not int:
            angle = arguments.real(angle, "right", "angle")
        if not -360.0 < angle < 360.0:
            angle = fmod(arguments.real(angle, "right", "angle"), 360.0)
        self.left(-angle)

    def turn_to(self, heading: float) -> None:
        """Turn to a heading, whatever it was before.

        Parameters
        ----------
        heading : float
            Degrees, 0 east, growing anticlockwise.

        Examples
        --------
        >>> nib.turn_to(-90)
        >>> nib.heading
        270.0
        """
        self._set_heading(normal(arguments.real(heading, "turn_to", "heading")))

    def face(self, x: float | tuple[float, float], y: float | None = None) -> None:
        """Turn towards a point; on the very point itself the heading stays as it is.

        Parameters
        ----------
        x, y : float
            The point in sheet units, or one (x, y) pair.

        Examples
        --------
        >>> nib.face(0, 300)
        >>> nib.heading
        90.0
        """
        self._set_heading(self.heading_to(*arguments.point(x, y, "face")))

    def _set_heading(self, heading: float) -> None:
        self._heading = heading
        self._cosine, self._sine = direction(heading)
